//! Puts key, fill and back light at the first legal of their places, on what is owned to carry them; and tells what would
//! fit where nothing owned does.

use std::cell::LazyCell;

use super::angle::free_id;
use super::bare::dial;
use super::cast::AtHand;
use super::stands::{Stands, bag_for, set_up, stand_holds};
use crate::assess::legal::{Rules, way_is_open};
use crate::corner::{Corner, LightAt, Source, carry_light, light_head, things};
use crate::edit::rounded;
use crate::geometry::DVec3;
use crate::light::field::at_face;
use crate::light::flare_margin_deg;
use crate::light::mirrored::glare;
use crate::light::placement::places as light_places;
use crate::light::power::wanted_ratio;
use crate::plan::{
    Brief, Gear, Id, Layout, Light, LightSchool, RigSchool, Role, Support, SupportKind, ThingId,
};

/// A lamp that stands on furniture is no heavier, kg, and keeps so far from its edge, m. Fogon's own rule.
const STANDS_ALONE_KG: f64 = 2.0;
const FROM_EDGE_M: f64 = 0.05;
/// Legal tries for one thing before it is given up.
const TRIES: usize = 1500;
/// A fill that brings the ratio nearer to the wanted one by less than this, in stops, is not worth its stand.
const RATIO_GAIN_STOPS: f64 = 0.1;
/// A back light may shine so far into the lens where there is no other place, degrees.
const FLARES_MOST_DEG: f64 = -5.0;
/// Parts of a lamp's size that are tried to tell what would fit.
const SMALLER: [f64; 3] = [0.7, 0.5, 0.35];

pub(super) fn new_light(gear: &Id, role: Role, support: Support, brief: &Brief) -> Light {
    let cct_k = brief
        .gear
        .get(gear)
        .and_then(Gear::light)
        .map(|lamp| 5600.0f64.clamp(lamp.cct_min_k, lamp.cct_max_k));
    Light {
        gear: gear.clone(),
        role,
        position_m: crate::plan::Point3([0.0; 3]),
        aim_m: None,
        dim: 1.0,
        cct_k,
        gel: None,
        colour: None,
        cloth: None,
        support,
        locked: false,
    }
}

pub(super) fn source_of(gear: &Gear) -> Option<Source<'_>> {
    gear.light().map(Source::Lamp).or_else(|| gear.reflector().map(Source::Board))
}

/// Every legal way to place a light, best first, until `accept` says yes.
fn try_places(
    brief: &Brief,
    layout: &Layout,
    stands: &Stands<'_>,
    (name, id, gear): (&Id, &Id, &Gear),
    role: Role,
    side: f64,
    accept: impl FnMut(&Light) -> bool,
) -> Option<Light> {
    // A plain stand before an arm, which the back light may need; the back light asks for an arm first.
    let floor = Round::of(false, stands.options("light", SupportKind::Floor));
    let boom = Round::of(true, stands.options("light", SupportKind::Boom));
    // The column for the key alone: behind the person it never reaches.
    let fixed = brief.schools.rig == RigSchool::Fixed;
    // A ring sits round the lens, on the camera's own stand.
    let ring = role == Role::Key && brief.schools.lights == LightSchool::Ring;
    let rig = Round::of(true, if role == Role::Key || fixed { stands.by_rig("light") } else { Vec::new() });
    let owned = |round: &Round<'_>| round.options.iter().any(|s| s.gear.is_some());
    let mut rounds = if role == Role::Back { vec![boom, floor] } else { vec![floor, boom] };
    if ring {
        rounds = vec![Round::of(true, vec![Support::none()])];
    } else {
        let (own, nobodys): (Vec<_>, Vec<_>) = rounds.into_iter().partition(owned);
        // What the room has comes before a stand that nobody owns.
        rounds = vec![rig];
        rounds.extend(own.iter().cloned());
        rounds.push(Round { arm: true, options: Vec::new(), on_furniture: Some(stands) });
        if own.is_empty() {
            rounds.extend(nobodys);
        }
    }
    try_on(brief, layout, &rounds, (name, id, gear), role, side, accept)
}

/// Ways to carry a lamp that are tried at every place before others are.
#[derive(Clone)]
struct Round<'a> {
    /// They hold a lamp anywhere, not plumb under it alone.
    arm: bool,
    /// Stands and fixings.
    options: Vec<Support>,
    /// Clamps at hand and furniture under the place as well.
    on_furniture: Option<&'a Stands<'a>>,
}

impl Round<'_> {
    fn of(arm: bool, options: Vec<Support>) -> Self {
        Self { arm, options, on_furniture: None }
    }

    /// The supports of this round at one place.
    fn supports(&self, corner: &Corner<'_>, hold: DVec3, mass_kg: f64, side: f64) -> Vec<Support> {
        let mut all: Vec<Support> =
            self.options.iter().flat_map(|option| set_up(corner, option, hold, side)).collect();
        if let Some(stands) = self.on_furniture {
            all.extend(stands.clamped(corner, "light", hold));
            if mass_kg <= STANDS_ALONE_KG {
                let under = corner.under(hold, FROM_EDGE_M).into_iter();
                all.extend(under.map(Support::on));
            }
        }
        all
    }
}

/// As [`try_places`], on given supports; those that say so hold a lamp anywhere, the others plumb under it.
fn try_on(
    brief: &Brief,
    layout: &Layout,
    rounds: &[Round<'_>],
    (name, id, gear): (&Id, &Id, &Gear),
    role: Role,
    side: f64,
    mut accept: impl FnMut(&Light) -> bool,
) -> Option<Light> {
    let corner = Corner::from_parts(brief, layout)?;
    let (rules, others) = (&Rules::new(&corner), &things(&corner));
    let source = source_of(gear)?;
    let blank = new_light(id, role, Support::none(), brief);
    let own = ThingId::Light(name.clone());
    let probe = LightAt {
        id: name,
        light: &blank,
        source,
        position_m: corner.eyes_m + DVec3::Y,
        aim_m: corner.eyes_m,
        cloth: None,
    };
    let mut tries = 0;
    // The head alone first, once for all rounds: most places fall to the room or the picture.
    let places: Vec<_> = light_places(&corner, &probe, role, side)
        .into_iter()
        .map(|place| {
            let placed = LightAt { position_m: place.position_m, ..probe };
            let head =
                LazyCell::new(move || Some(light_head(&placed)).filter(|head| rules.allows(head, others)));
            (place, placed, head)
        })
        .collect();
    let tried = rounds.iter().flat_map(|round| {
        // A column plumb under the lamp must be out of the picture too; an arm may hold it anywhere.
        places.iter().filter(move |(place, ..)| round.arm || !place.needs_arm).map(move |at| (at, round))
    });
    for ((place, placed, head), round) in tried {
        let Some(head) = &**head else { continue };
        let mut thing = head.clone();
        for support in round.supports(&corner, placed.hold_m(), gear.common().mass_kg, side) {
            tries += 1;
            if tries > TRIES {
                return None;
            }
            let mut light = Light { support, ..blank.clone() };
            light.position_m = rounded(place.position_m);
            light.aim_m = Some(rounded(corner.eyes_m));
            carry_light(&corner, placed, &light.support, &mut thing);
            let kg = gear.common().mass_kg;
            if !stand_holds(&corner, &light.support, placed.hold_m(), kg) || !rules.allows(&thing, others) {
                continue;
            }
            light.support.sandbag_kg =
                bag_for(brief, layout, |l| drop(l.lights.insert(name.clone(), light.clone())), &own);
            if accept(&light) {
                return Some(light);
            }
        }
    }
    None
}

/// A key or back light at its best legal place that suits the caller.
pub(super) fn place_light(
    brief: &Brief,
    layout: &mut Layout,
    stands: &mut Stands<'_>,
    lamp: (&Id, &Id, &Gear),
    role: Role,
    side: f64,
    fits: impl Fn(&Light) -> bool,
) {
    // A back light that flares, or a key that shows in the glasses, is taken only where there is no other.
    let glasses = role == Role::Key && brief.person.glasses;
    let (best, next) = match role {
        Role::Back => (0.0, Some(FLARES_MOST_DEG)),
        _ if glasses => (0.0, Some(f64::NEG_INFINITY)),
        _ => (f64::NEG_INFINITY, None),
    };
    let frozen = layout.clone();
    let Some(corner) = Corner::from_parts(brief, &frozen) else { return };
    let is_open = |corner: &Corner<'_>| way_is_open(corner, &things(corner));
    let was_open = LazyCell::new(|| is_open(&corner));
    let leaves_the_way = |light: &Light| {
        let mut with = frozen.clone();
        with.lights.insert(lamp.0.clone(), light.clone());
        !*was_open || Corner::from_parts(brief, &with).is_some_and(|corner| is_open(&corner))
    };
    let accepts = |light: &Light, margin: f64| {
        let suits = match role {
            Role::Back => clear_of_the_lens(&corner, light, margin),
            _ if glasses && margin == 0.0 => source_of(lamp.2).is_some_and(|source| {
                let (position_m, aim_m) = (light.position_m.into(), corner.eyes_m);
                glare(&corner, &LightAt { id: lamp.0, light, source, position_m, aim_m, cloth: None }) <= 0.0
            }),
            _ => true,
        };
        suits && fits(light) && leaves_the_way(light)
    };
    let mut passed_over = Vec::new();
    let suits_best = |light: &Light| {
        let suits = accepts(light, best);
        if !suits && next.is_some() {
            passed_over.push(light.clone());
        }
        suits
    };
    let found = try_places(brief, &frozen, stands, lamp, role, side, suits_best)
        .or_else(|| passed_over.into_iter().find(|light| next.is_some_and(|margin| accepts(light, margin))));
    if let Some(light) = found {
        stands.take(&light.support);
        layout.lights.insert(lamp.0.clone(), light);
    }
}

/// A back light that shines past the lens by so many degrees.
fn clear_of_the_lens(corner: &Corner<'_>, light: &Light, margin_deg: f64) -> bool {
    flare_margin_deg(corner, light.position_m.into()) >= margin_deg
}

/// Whether a lamp finds a legal place in a job on either side, carried in one of these ways.
fn finds_place(
    brief: &Brief,
    layout: &Layout,
    rounds: &[Round<'_>],
    lamp: AtHand<'_>,
    role: Role,
    side: f64,
) -> bool {
    let Some(corner) = Corner::from_parts(brief, layout) else { return false };
    let trial = Id::from("trial");
    let suits = |light: &Light| role != Role::Back || clear_of_the_lens(&corner, light, FLARES_MOST_DEG);
    let tried = |side: f64| try_on(brief, layout, rounds, (&trial, lamp.0, lamp.1), role, side, suits);
    [side, -side].into_iter().any(|side| tried(side).is_some())
}

/// What would fit where a lamp finds no legal place in a job, on whatever stand, in words; none where it finds one.
pub(super) fn no_room_for(
    brief: &Brief,
    bare: &Layout,
    lamp: AtHand<'_>,
    role: Role,
    side: f64,
) -> Option<String> {
    let stand = |arm: bool, kind: SupportKind| Round::of(arm, vec![Support { kind, ..Support::none() }]);
    let rounds = [stand(false, SupportKind::Floor), stand(true, SupportKind::Boom)];
    if finds_place(brief, bare, &rounds, lamp, role, side) {
        return None;
    }
    let instead = would_fit(brief, bare, lamp, role, side);
    Some(instead.unwrap_or_else(|| "nor would one of a third of its size".to_owned()))
}

/// What of the same kind would fit where a lamp does not: fixed otherwise, else smaller. In words; `None` where nothing
/// tried does.
pub(super) fn would_fit(
    brief: &Brief,
    layout: &Layout,
    lamp: AtHand<'_>,
    role: Role,
    side: f64,
) -> Option<String> {
    let stands = Stands::unused(brief, layout);
    let fits = |brief: &Brief, gear: &Gear, rounds: &[Round<'_>]| {
        finds_place(brief, layout, rounds, (lamp.0, gear), role, side)
    };
    let by = |kind: SupportKind| Support { kind, ..Support::none() };
    for (kind, words) in [
        (SupportKind::Boom, "on an arm it would fit"),
        (SupportKind::Ceiling, "hung from the ceiling it would fit"),
        (SupportKind::Wall, "on an arm from the wall it would fit"),
    ] {
        if fits(brief, lamp.1, &[Round::of(true, vec![by(kind)])]) {
            return Some(words.to_owned());
        }
    }
    let rounds = [
        Round::of(false, stands.options("light", SupportKind::Floor)),
        Round::of(true, stands.options("light", SupportKind::Boom)),
    ];
    SMALLER.into_iter().find_map(|part| {
        let mut smaller = brief.clone();
        let mut gear = lamp.1.clone();
        let Gear::Light(own) = &mut gear else { return None };
        own.width_m = (own.width_m * part).max(0.01);
        own.height_m = (own.height_m * part).max(0.01);
        own.depth_m = (own.depth_m * part).max(0.01);
        let width = brief.units.length(own.width_m);
        smaller.gear.insert(lamp.0.clone(), gear.clone());
        fits(&smaller, &gear, &rounds).then(|| format!("one no wider than {width} would fit"))
    })
}

/// A fill where the walls alone leave the shadow side darker than wanted; the place or dial that comes nearest to
/// the wanted ratio.
pub(super) fn place_fill(
    brief: &Brief,
    layout: &mut Layout,
    stands: &mut Stands<'_>,
    (id, gear): (&Id, &Gear),
    side: f64,
) {
    let frozen = layout.clone();
    let Some(corner) = Corner::from_parts(brief, &frozen) else { return };
    let without = at_face(&corner);
    let wanted_ratio = wanted_ratio(brief.schools.lights);
    let off_without = (without.lit_lx / without.shadow_lx / wanted_ratio).log2();
    if (frozen.lights.is_empty() && !brief.windows_shine()) || off_without < RATIO_GAIN_STOPS {
        return;
    }
    let name = free_id(brief, layout, "fill");
    let lit_with = |light: &Light| {
        let mut trial = frozen.clone();
        trial.lights.insert(name.clone(), light.clone());
        Corner::from_parts(brief, &trial).map(|c| at_face(&c))
    };
    let mut best: Option<(f64, Light)> = None;
    let mut seen = 0;
    let _ = try_places(brief, &frozen, stands, (&name, id, gear), Role::Fill, side, |light| {
        seen += 1;
        let mut light = light.clone();
        let Some(full) = lit_with(&light) else { return false };
        // Light is linear in the dial: what the lamp adds at full is what it adds at d, times d.
        let (on_lit, on_shadow) = (full.lit_lx - without.lit_lx, full.shadow_lx - without.shadow_lx);
        if gear.light().is_some() && full.lit_lx < wanted_ratio * full.shadow_lx {
            let wanted =
                (wanted_ratio * without.shadow_lx - without.lit_lx) / (on_lit - wanted_ratio * on_shadow);
            light.dim = dial(wanted.clamp(0.01, 1.0));
        }
        let part = if gear.light().is_some() { light.dim } else { 1.0 };
        let ratio = (without.lit_lx + part * on_lit) / (without.shadow_lx + part * on_shadow);
        let off = (ratio / wanted_ratio).log2();
        if best.as_ref().is_none_or(|(least, _)| off.abs() < least.abs() - 1e-6) {
            best = Some((off, light));
        }
        // In band and near enough, or a handful seen.
        off.abs() < 0.35 || seen >= 12
    });
    if let Some((_, light)) = best.filter(|(off, _)| off.abs() < off_without - RATIO_GAIN_STOPS) {
        stands.take(&light.support);
        layout.lights.insert(name, light);
    }
}
