//! What most homes have does the same work as what is sold, by the same physics and with its own cautions.

use std::sync::Arc;

use serde::Serialize;
use utoipa::ToSchema;

use super::catalogue::Catalogue;
use super::table::SEEN;
use super::words::listed;
use super::workshop::{Laid, Workshop};
use crate::arrange::Stop;
use crate::assess::mend::changes;
use crate::assess::without_moves;
use crate::corner::Corner;
use crate::plan::{Cloth, Gear, GearLight, Id, Plan, Role};
use crate::reading::Change;

/// So far before the lamp a cloth hangs, m, the first that is best. Fogon's own rule.
const AHEAD_M: [f64; 2] = [0.3, 0.5];
/// Only before lamps that stay cool: an LED draws no more than this for what it gives, W. Fogon's own rule, on the safe side.
const COOL_W: f64 = 150.0;
/// A filament's light is no colder than this, K: what can be set no higher may be a hot lamp.
const FILAMENT_K: f64 = 3500.0;

/// A household means.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Substitute {
    /// What to do.
    pub label: String,
    /// The caution that goes with it.
    pub caution: String,
    /// Score before, 0 to 1.
    pub score_before: f64,
    /// Score after.
    pub score_after: f64,
    /// Readings before and after.
    pub changes: Vec<Change>,
    /// The corner with it.
    pub plan: Plan,
}

/// Household means that would be seen or heard, most gain first.
pub(super) fn substitutes(shop: &Workshop, stop: Stop<'_>) -> Vec<Substitute> {
    let Some(start) = shop.start.clone() else { return Vec::new() };
    let household = Arc::new(Catalogue::of_households().clone());
    let home = Workshop::new(household, &start.plan.name, shop.brief.clone(), Some(start.plan.clone()));
    let mut all: Vec<(f64, Substitute)> = Vec::new();
    for candidate in home.mains() {
        if candidate.refused.is_some() || candidate.main.goods.is_empty() || stop.is_wanted() {
            continue;
        }
        let Ok(found) = home.complete(&Default::default(), &candidate.main, stop) else { continue };
        let words: Vec<String> =
            found.goods.iter().filter_map(|(id, _)| Some(home.gear(id)?.common().label.clone())).collect();
        let cautions: Vec<String> =
            found.goods.iter().filter_map(|(id, _)| Some(home.catalogue.get(id)?.caution.clone())).collect();
        all.extend(told(&start, &found.laid, listed(&words), cautions.join(" ")));
    }
    all.extend(softened(&home, &start));
    all.sort_by(|a, b| b.0.total_cmp(&a.0).then(a.1.label.cmp(&b.1.label)));
    // Of two boards one is enough.
    let mut seen: Vec<Vec<String>> = Vec::new();
    all.retain(|(_, one)| {
        let touched: Vec<String> = one.changes.iter().map(|change| change.reading.clone()).collect();
        let again = seen.iter().any(|other| other.first() == touched.first());
        seen.push(touched);
        !again
    });
    all.into_iter().map(|(_, one)| one).collect()
}

fn told(start: &Laid, after: &Laid, label: String, caution: String) -> Option<(f64, Substitute)> {
    let gain = after.score() - start.score();
    let no_worse = after.in_the_way() <= start.in_the_way() && after.score() >= start.score() - 1e-9;
    let seen = gain >= SEEN || after.in_the_way() < start.in_the_way();
    (no_worse && seen).then(|| {
        let one = Substitute {
            label,
            caution,
            score_before: start.score(),
            score_after: after.score(),
            changes: changes(&without_moves(&start.plan).readings, &without_moves(&after.plan).readings),
            plan: after.plan.clone(),
        };
        (gain, one)
    })
}

/// A white curtain or paper before a key that is small from the face, and stays cool.
fn softened(home: &Workshop, start: &Laid) -> Option<(f64, Substitute)> {
    let corner = Corner::of(&start.plan)?;
    let key = corner.role(Role::Key).next()?;
    let lamp = start.plan.brief.gear.get(&key.light.gear)?.light()?;
    if key.light.locked || key.light.cloth.is_some() || !is_cool(lamp) {
        return None;
    }
    let mut best: Option<(f64, Substitute)> = None;
    for (id, offer) in &home.catalogue.offers {
        let Gear::Reflector(cloth) = &offer.gear else { continue };
        if cloth.transmittance.is_none() {
            continue;
        }
        for ahead_m in AHEAD_M {
            let mut with = start.plan.with_brief(home.brief_with(&super::goods::Goods::one(id))?);
            let name: &Id = key.id;
            if let Some(light) = with.layout.lights.get_mut(name) {
                light.cloth = Some(Cloth { gear: id.clone(), ahead_m });
            }
            crate::arrange::settle_light(&with.brief.clone(), &mut with.layout);
            if with.check().is_err() {
                continue;
            }
            let found =
                told(start, &Laid::of(with), offer.gear.common().label.clone(), offer.caution.clone());
            if let Some(found) = found.filter(|(gain, _)| best.as_ref().is_none_or(|(most, _)| gain > most)) {
                best = Some(found);
            }
        }
    }
    best
}

/// A lamp on which a cloth may hang: an LED of known, small power.
fn is_cool(lamp: &GearLight) -> bool {
    lamp.common.power_w.is_some_and(|watts| watts <= COOL_W) && lamp.cct_max_k > FILAMENT_K
}
