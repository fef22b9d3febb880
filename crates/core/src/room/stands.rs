//! Floor stands: what they carry, and the bag that keeps each upright. One stand may carry several things.

use super::tipping::stand_tipping;
use crate::corner::{Corner, base_of, foot_radius_m};
use crate::geometry::{DVec2, DVec3};
use crate::plan::{Support, SupportKind};
use crate::reading::{From, Reading};

/// Sideways push at the head that a stand with a lamp or microphone must bear, N. Fogon's own rule.
pub const KNOCK_N: f64 = 10.0;
/// Mass of a stand and of its arm where nobody gives it, kg. Fogon's own rule.
const STAND_KG: f64 = 2.5;
const ARM_KG: f64 = 1.0;

/// A stand, what it carries, and the bag that it needs.
#[derive(Debug, Clone)]
pub struct StandState {
    /// Id of what stands on it, the first where there are several: `camera`, `microphone`, `screen`, or a light's id.
    pub thing: String,
    /// Everything on it, in words.
    pub names: Vec<String>,
    /// The bag needed, kg.
    pub needed_kg: f64,
    /// The bag in the layout, kg.
    pub present_kg: f64,
    /// Everything the stand carries with its arms, kg.
    pub load_kg: f64,
    /// What it may carry, kg, where its gear is known.
    pub payload_kg: Option<(f64, From)>,
    /// Radius of its feet, m.
    pub foot_radius_m: (f64, From),
    stand_kg: (f64, From),
    without_arms_kg: f64,
    beside_m: f64,
    height_m: f64,
    knock_n: f64,
    tipping_arm_m: f64,
}

/// One thing on a stand.
struct Load<'a> {
    thing: &'a str,
    support: &'a Support,
    kg: f64,
    at: DVec3,
    hold: DVec3,
    knock_n: f64,
}

impl Load<'_> {
    fn arm_kg(&self) -> f64 {
        if self.support.kind == SupportKind::Boom { ARM_KG } else { 0.0 }
    }
}

/// Everything that stands on the floor.
fn loads<'a>(corner: &'a Corner<'_>) -> Vec<Load<'a>> {
    let layout = corner.layout;
    let screen = corner.screen.zip(layout.screen.as_ref());
    let mut camera_kg = corner.body.common.mass_kg + corner.lens.common.mass_kg;
    // A screen without a stand of its own hangs on the camera's.
    if let Some(((gear, _), used)) = screen
        && used.support.kind == SupportKind::On
        && used.support.on.is_none()
    {
        camera_kg += gear.common.mass_kg;
    }
    let lens = corner.view.position_m;
    let mut all = vec![Load {
        thing: "camera",
        support: &layout.camera.support,
        kg: camera_kg,
        at: lens,
        hold: lens,
        knock_n: 0.0,
    }];
    all.extend(corner.lights.iter().map(|light| Load {
        thing: light.id,
        support: &light.light.support,
        kg: light.mass_kg(),
        // The mass of a lamp sits between its face and where it is held.
        at: (light.position_m + light.hold_m()) / 2.0,
        hold: light.hold_m(),
        knock_n: KNOCK_N,
    }));
    let mut add = |thing, support, kg, at| {
        all.push(Load { thing, support, kg, at, hold: at, knock_n: KNOCK_N });
    };
    if let (Some((gear, at)), Some(used)) = (corner.microphone, &layout.microphone) {
        add("microphone", &used.support, gear.common.mass_kg, at);
    }
    if let Some(((gear, at), used)) = screen {
        add("screen", &used.support, gear.common.mass_kg, at);
    }
    all.extend(corner.angles.iter().map(|angle| Load {
        thing: angle.id,
        support: &angle.angle.support,
        kg: angle.body.common.mass_kg + angle.lens.common.mass_kg,
        at: angle.view.position_m,
        hold: angle.view.position_m,
        knock_n: 0.0,
    }));
    all.retain(|load| matches!(load.support.kind, SupportKind::Floor | SupportKind::Boom));
    all
}

/// Every floor stand with the bag it needs.
pub fn sandbags(corner: &Corner<'_>) -> Vec<StandState> {
    let mut stands: Vec<Vec<Load<'_>>> = Vec::new();
    for load in loads(corner) {
        match stands.iter_mut().find(|stand| stand[0].support.is_one_with(load.support)) {
            Some(stand) => stand.push(load),
            None => stands.push(vec![load]),
        }
    }
    stands.iter().map(|stand| state(corner, stand)).collect()
}

fn state(corner: &Corner<'_>, stand: &[Load<'_>]) -> StandState {
    let first = &stand[0];
    let radius = foot_radius_m(corner, first.support);
    let base = base_of(first.support, first.hold);
    let gear = corner.support_gear(first.support);
    let (stand_kg, from) = match gear.filter(|s| s.common.mass_kg > 0.0) {
        Some(stand) => (stand.common.mass_kg, stand.common.told()),
        None => (STAND_KG, From::Assumed),
    };
    let foot_from = match (first.support.foot_radius_m, gear) {
        (Some(_), _) => From::Typed,
        (None, Some(stand)) => stand.common.told(),
        (None, None) => From::Assumed,
    };
    let off = |load: &Load<'_>| load.at.truncate() - base;
    // Loads on several sides balance: what counts is how far they reach towards the side they pull to together.
    let pull: DVec2 = stand.iter().map(|load| off(load) * (load.kg + load.arm_kg() / 2.0)).sum();
    let towards = pull.try_normalize();
    let reach = |load: &Load<'_>| match towards {
        Some(towards) if stand.len() > 1 => off(load).dot(towards),
        _ => off(load).length(),
    };
    let mut parts = vec![(stand_kg, 0.0)];
    for load in stand {
        parts.push((load.kg, reach(load)));
        if load.support.kind == SupportKind::Boom {
            parts.push((ARM_KG, reach(load) / 2.0));
        }
    }
    let load_kg: f64 = stand.iter().map(|load| load.kg).sum();
    let height = stand.iter().map(|load| load.at.z).fold(0.0, f64::max);
    let knock_n = stand.iter().map(|load| load.knock_n).fold(0.0, f64::max);
    let tipping = stand_tipping(radius, &parts, knock_n, height, radius / 2.0, 1.5);
    let arms_kg: f64 = stand.iter().map(Load::arm_kg).sum();
    StandState {
        thing: first.thing.to_owned(),
        names: stand.iter().map(|load| load.thing.replace('-', " ")).collect(),
        needed_kg: tipping.sandbag_kg,
        present_kg: stand.iter().map(|load| load.support.sandbag_kg).sum(),
        load_kg: load_kg + arms_kg,
        payload_kg: gear.map(|gear| (gear.payload_kg, gear.common.told())),
        foot_radius_m: (radius, foot_from),
        stand_kg: (stand_kg, from),
        without_arms_kg: load_kg,
        beside_m: if stand.len() > 1 { pull.length() / (load_kg + arms_kg).max(1e-9) } else { reach(first) },
        height_m: height,
        knock_n,
        tipping_arm_m: tipping.tipping_arm_m,
    }
}

/// What is told of a stand: the bag it needs, the floor its feet take, what it may carry over what it does.
pub(super) fn readings(stand: &StandState) -> Vec<Reading> {
    let (radius, radius_from) = stand.foot_radius_m;
    let of = |quantity: &str, value: f64| Reading::new(format!("room.{}.{quantity}", stand.thing), value);
    let mut all = vec![
        of("sandbag_kg", stand.needed_kg)
            .by(
                "bag >= (1.5 x overturning - restoring) / (arm + bag offset), arm = foot radius / 2",
                "rigid-body statics; safety factor 1.5 and a 10 N knock at the head are Fogon's own rule",
            )
            .with("foot radius", radius, "m", radius_from)
            .with("stand", stand.stand_kg.0, "kg", stand.stand_kg.1)
            .with("load", stand.without_arms_kg, "kg", From::Typed)
            .with("load beside the column", stand.beside_m, "m", From::Typed)
            .with("height", stand.height_m, "m", From::Typed)
            .with("knock", stand.knock_n, "N", From::Assumed)
            .note("The bag lies on the rear leg, away from the load. Level floor, legs fully spread, one leg under the load."),
        of("footprint_m", 2.0 * radius)
            .by("2 R; of a tripod whose legs spread by s from an apex h high: R = h tan s", "geometry")
            .with("foot radius", radius, "m", radius_from)
            .with("from the column to the weakest edge", stand.tipping_arm_m, "m", From::Computed),
    ];
    if let Some((payload, from)) = stand.payload_kg.filter(|_| stand.load_kg > 0.0) {
        all.push(
            of("payload_times", payload / stand.load_kg)
                .by("payload / load with arms", "1.5 and more is wanted: common practice, no source")
                .with("payload", payload, "kg", from)
                .with("load with arms", stand.load_kg, "kg", From::Computed),
        );
    }
    for reading in &mut all {
        reading.label = format!("{}: {}", reading.label, stand.names.join(", ")).into();
    }
    all
}
