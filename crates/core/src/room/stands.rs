//! Floor stands: what they carry, and the bag that keeps each upright. One stand may carry several things.

use super::tipping::stand_tipping;
use crate::corner::{BACKDROP_FOOT_M, Carried, Corner, base_of, foot_radius_m};
use crate::geometry::DVec2;
use crate::plan::{Hung, SupportKind, ThingId};
use crate::reading::{Origin, Quantity, Reading};

/// Sideways push at the head that a stand with a lamp or microphone must bear, N. Fogon's own rule.
pub const KNOCK_N: f64 = 10.0;
/// So many times the overturning moment must be held.
const SAFETY: f64 = 1.5;
/// Mass of a stand and of its arm where nobody gives it, kg. Fogon's own rule.
const STAND_KG: f64 = 2.5;
/// Mass of an arm where nobody gives it, kg. Fogon's own rule.
pub const ARM_KG: f64 = 1.0;

/// A stand, what it carries, and the bag that it needs.
#[derive(Debug, Clone)]
pub struct StandState {
    /// What stands on it, the first where there are several.
    pub thing: ThingId,
    /// Everything on it.
    pub on_it: Vec<ThingId>,
    /// The bag needed, kg.
    pub needed_kg: f64,
    /// The bag in the layout, kg.
    pub present_kg: f64,
    /// Everything the stand carries with its arms, kg.
    pub load_kg: f64,
    /// What it may carry, kg, where its gear is known.
    pub payload_kg: Option<(f64, Origin)>,
    /// Radius of its feet, m.
    pub foot_radius_m: (f64, Origin),
    /// Middle of its feet, m; of a backdrop the middle between both stands.
    pub foot_m: DVec2,
    /// It stands on wheels.
    pub rolls: bool,
    stand_kg: (f64, Origin),
    without_arms_kg: f64,
    beside_m: f64,
    height_m: f64,
    knock_n: f64,
    tipping_arm_m: f64,
}

/// What holds a thing beside a column, kg: the arm of a boom, a clamp.
fn arm_kg(carried: &Carried<'_>) -> f64 {
    match carried.support.kind {
        SupportKind::Boom => ARM_KG,
        SupportKind::Clamp => carried.stand.map_or(0.0, |clamp| clamp.common.mass_kg),
        _ => 0.0,
    }
}

impl StandState {
    /// Everything on it, in words.
    pub fn words(&self) -> String {
        self.on_it.iter().map(ThingId::words).collect::<Vec<_>>().join(", ")
    }
}

/// What a carried thing weighs on its support, with the arm that holds it, kg.
pub fn load_kg(carried: &Carried<'_>) -> f64 {
    // A clamp holds its thing, not itself.
    carried.mass_kg + if carried.stands() { arm_kg(carried) } else { 0.0 }
}

/// Every floor stand with the bag it needs.
pub fn sandbags(corner: &Corner<'_>) -> Vec<StandState> {
    let mut stands: Vec<Vec<Carried<'_>>> = Vec::new();
    let (on_floor, elsewhere): (Vec<_>, Vec<_>) = corner.carried().into_iter().partition(Carried::stands);
    for load in on_floor {
        match stands.iter_mut().find(|stand| stand[0].support.is_one_with(load.support)) {
            Some(stand) => stand.push(load),
            None => stands.push(vec![load]),
        }
    }
    // What is clamped to the camera's stand weighs on it too.
    let clamped =
        |load: &Carried<'_>| corner.carrier(load.support).is_some_and(|on| on.id == ThingId::Camera);
    if let Some(stand) = stands.iter_mut().find(|stand| stand[0].id == ThingId::Camera) {
        stand.extend(elsewhere.into_iter().filter(clamped));
    }
    let mut all: Vec<StandState> = stands.iter().map(|stand| state(corner, stand)).collect();
    all.extend(backdrop(corner));
    all
}

/// One of the two stands at the ends of a backdrop: half its weight plumb above, and half of a knock at its upper edge.
fn backdrop(corner: &Corner<'_>) -> Option<StandState> {
    let (gear, used) = corner.backdrop.filter(|(_, used)| used.hung == Hung::Stands)?;
    let (radius, half_kg) = (BACKDROP_FOOT_M, gear.common.mass_kg / 2.0);
    let parts = [(STAND_KG, 0.0), (half_kg, 0.0)];
    let tipping = stand_tipping(radius, &parts, KNOCK_N / 2.0, gear.height_m, radius / 2.0, SAFETY);
    Some(StandState {
        thing: ThingId::Backdrop,
        on_it: vec![ThingId::Backdrop],
        needed_kg: tipping.sandbag_kg,
        present_kg: used.sandbag_kg,
        load_kg: half_kg,
        payload_kg: None,
        foot_radius_m: (radius, Origin::Assumed),
        foot_m: used.position_m.into(),
        rolls: false,
        stand_kg: (STAND_KG, Origin::Assumed),
        without_arms_kg: half_kg,
        beside_m: 0.0,
        height_m: gear.height_m,
        knock_n: KNOCK_N / 2.0,
        tipping_arm_m: tipping.tipping_arm_m,
    })
}

fn state(corner: &Corner<'_>, stand: &[Carried<'_>]) -> StandState {
    let first = &stand[0];
    let radius = foot_radius_m(corner, first.support);
    let base = base_of(first.support, first.hold_m);
    let gear = corner.support_gear(first.support);
    let (stand_kg, from) = match gear.filter(|s| s.common.mass_kg > 0.0) {
        Some(stand) => (stand.common.mass_kg, stand.common.figures_from()),
        None => (STAND_KG, Origin::Assumed),
    };
    let foot_from = match (first.support.foot_radius_m, gear) {
        (Some(_), _) => Origin::Typed,
        (None, Some(stand)) => stand.common.figures_from(),
        (None, None) => Origin::Assumed,
    };
    let off = |load: &Carried<'_>| load.middle_m.truncate() - base;
    // Loads on several sides balance: what counts is how far they reach towards the side they pull to together.
    let pull: DVec2 = stand.iter().map(|load| off(load) * (load.mass_kg + arm_kg(load) / 2.0)).sum();
    let towards = pull.try_normalize();
    let reach = |load: &Carried<'_>| match towards {
        Some(towards) if stand.len() > 1 => off(load).dot(towards),
        _ => off(load).length(),
    };
    let mut parts = vec![(stand_kg, 0.0)];
    for load in stand {
        parts.push((load.mass_kg, reach(load)));
        if arm_kg(load) > 0.0 {
            parts.push((arm_kg(load), reach(load) / 2.0));
        }
    }
    let without_arms_kg: f64 = stand.iter().map(|load| load.mass_kg).sum();
    let height = stand.iter().map(|load| load.middle_m.z).fold(0.0, f64::max);
    let knock_n = stand.iter().map(|load| if load.is_brushed { KNOCK_N } else { 0.0 }).fold(0.0, f64::max);
    let tipping = stand_tipping(radius, &parts, knock_n, height, radius / 2.0, SAFETY);
    let arms_kg: f64 = stand.iter().map(arm_kg).sum();
    StandState {
        thing: first.id.clone(),
        on_it: stand.iter().map(|load| load.id.clone()).collect(),
        needed_kg: tipping.sandbag_kg,
        present_kg: stand.iter().map(|load| load.support.sandbag_kg).sum(),
        load_kg: without_arms_kg + arms_kg,
        payload_kg: gear.map(|gear| (gear.payload_kg, gear.common.figures_from())),
        foot_radius_m: (radius, foot_from),
        foot_m: base,
        rolls: gear.is_some_and(|gear| gear.castors),
        stand_kg: (stand_kg, from),
        without_arms_kg,
        beside_m: if stand.len() > 1 {
            pull.length() / (without_arms_kg + arms_kg).max(1e-9)
        } else {
            reach(first)
        },
        height_m: height,
        knock_n,
        tipping_arm_m: tipping.tipping_arm_m,
    }
}

/// What is told of a stand: the bag it needs, the floor its feet take, what it may carry over what it does.
pub(super) fn readings(corner: &Corner<'_>, stand: &StandState) -> Vec<Reading> {
    let (radius, radius_from) = stand.foot_radius_m;
    let name = corner.name(&stand.thing);
    let of = |quantity: Quantity, value: f64| Reading::of(quantity, name.as_str(), value);
    let mut all = vec![
        of(Quantity::RoomSandbagKg, stand.needed_kg)
            .by(
                "bag >= (1.5 x overturning - restoring) / (arm + bag offset), arm = foot radius / 2",
                "rigid-body statics; safety factor 1.5 and a 10 N knock at the head are Fogon's own rule",
            )
            .with("foot radius", radius, "m", radius_from)
            .with("stand", stand.stand_kg.0, "kg", stand.stand_kg.1)
            .with("load", stand.without_arms_kg, "kg", Origin::Typed)
            .with("load beside the column", stand.beside_m, "m", Origin::Typed)
            .with("height", stand.height_m, "m", Origin::Typed)
            .with("knock", stand.knock_n, "N", Origin::Assumed)
            .note("The bag lies on the rear leg, away from the load. Level floor, legs fully spread, one leg under the load."),
        of(Quantity::RoomFootprintM, 2.0 * radius)
            .by("2 R; of a tripod whose legs spread by s from an apex h high: R = h tan s", "geometry")
            .with("foot radius", radius, "m", radius_from)
            .with("from the column to the weakest edge", stand.tipping_arm_m, "m", Origin::Computed),
    ];
    if let Some((payload, from)) = stand.payload_kg.filter(|_| stand.load_kg > 0.0) {
        all.push(
            of(Quantity::RoomPayloadTimes, payload / stand.load_kg)
                .by("payload / load with arms", "1.5 and more is wanted: common practice, no source")
                .with("payload", payload, "kg", from)
                .with("load with arms", stand.load_kg, "kg", Origin::Computed),
        );
    }
    for reading in &mut all {
        reading.label = format!("{}: {}", reading.label, stand.words()).into();
    }
    all
}
