//! The room: what lies behind the person, the load on the mains, whether stands stay upright, and how a
//! place on the floor is measured with one tape.

mod mains;
mod tape;
mod tipping;
mod walk;

use crate::corner::{Corner, base_of};
use crate::geometry::DVec3;
use crate::photometry::power_w;
use crate::plan::{Support, SupportKind};
use crate::reading::{From, Reading};

pub use mains::{MainsAs, load_a, mains};
pub use tape::{CornerMark, FromCorner, TapeMark, corner_mark, tape_mark, worst_error_m};
pub use tipping::{Tipping, stand_tipping};
pub use walk::{Leg, Walk, Walked, walked};

/// Sideways push at the head that a stand with a lamp or microphone must bear, N. Fogon's own rule.
pub const KNOCK_N: f64 = 10.0;
/// Mass of a stand and of its arm where nobody gives it, kg. Fogon's own rule.
const STAND_KG: f64 = 2.5;
const ARM_KG: f64 = 1.0;

/// What the room trade reads off a corner.
pub fn readings(corner: &Corner<'_>) -> Vec<Reading> {
    let mut all = vec![background_behind(corner), mains_voltage(corner), mains_load(corner)];
    all.extend(sandbags(corner).into_iter().map(|s| s.reading));
    all
}

fn background_behind(corner: &Corner<'_>) -> Reading {
    let behind = corner.background_behind_m();
    let [width, depth, _] = corner.room_m;
    Reading::new("room.background_behind_m", behind)
        .by("from the eyes away from the lens to the wall, or to a slope at their height", "geometry")
        .with("room width", width, "m", From::Typed)
        .with("room depth", depth, "m", From::Typed)
        .with("eyes x", corner.eyes_m.x, "m", From::Typed)
        .with("eyes y", corner.eyes_m.y, "m", From::Typed)
        .within(0.02)
}

fn mains_voltage(corner: &Corner<'_>) -> Reading {
    let (volts, from) = mains::mains_told(corner.brief).voltage_v;
    let mut reading = Reading::new("room.mains.voltage_v", volts)
        .by(
            "as given; else 230 V where lengths are metric, 120 V where imperial",
            "nominal voltages of IEC 60038 (from memory)",
        )
        .with("mains", volts, "V", from)
        .note("Read it off a meter at the outlet only if you know how to; never open an outlet.");
    reading.from = if from == From::Assumed { From::Assumed } else { From::Typed };
    reading
}

fn mains_load(corner: &Corner<'_>) -> Reading {
    let mains = mains(corner.brief);
    let mut va = 0.0;
    let mut assumed = false;
    let mut reading = Reading::new("room.mains.load_fraction", f64::NAN)
        .by(
            "sum(W / power factor) / V / breaker A",
            "circuit arithmetic; at most 0.8 for continuous load: NFPA 70 (NEC) 210.20(A) from memory; local code rules",
        )
        .with("mains", mains.voltage_v.0, "V", mains.voltage_v.1)
        .with("breaker", mains.breaker_a.0, "A", mains.breaker_a.1);
    for light in &corner.lights {
        if let crate::corner::Source::Lamp(lamp) = light.source {
            let (watts, guessed) = power_w(lamp);
            let factor = lamp.common.power_factor.unwrap_or(1.0);
            va += watts / factor;
            assumed |= guessed;
            reading =
                reading.with("lamp", watts, "W", if guessed { From::Assumed } else { lamp.common.told() });
        }
    }
    if let Some(watts) = corner.body.common.power_w {
        va += watts / corner.body.common.power_factor.unwrap_or(1.0);
        reading = reading.with("camera", watts, "W", corner.body.common.told());
    }
    let fraction = load_a(va, mains.voltage_v.0, 1.0) / mains.breaker_a.0;
    reading.value = Some(fraction);
    reading.note(if assumed {
        "Lamp power assumed from its light at 80 lm/W. Count everything else on this breaker too: computer, heater, kettle."
    } else {
        "Count everything else on this breaker too: computer, heater, kettle."
    })
}

/// A stand, its reading, and the bag it carries.
#[derive(Debug, Clone)]
pub struct StandState {
    /// Id of what stands on it: `camera`, `microphone`, or a light's id.
    pub thing: String,
    /// The bag needed.
    pub reading: Reading,
    /// The bag needed, kg.
    pub needed_kg: f64,
    /// The bag in the layout, kg.
    pub present_kg: f64,
    /// Everything the stand carries, kg.
    pub load_kg: f64,
}

/// Every floor stand with the bag it needs.
pub fn sandbags(corner: &Corner<'_>) -> Vec<StandState> {
    let mut all = Vec::new();
    let mut add = |thing: &str, support: &Support, load_kg: f64, at: DVec3, hold: DVec3, knock_n: f64| {
        if let Some(state) = sandbag(corner, thing, support, load_kg, (at, hold), knock_n) {
            all.push(state);
        }
    };
    let camera = &corner.layout.camera;
    let mut camera_kg = corner.body.common.mass_kg + corner.lens.common.mass_kg;
    // A screen without a stand of its own hangs on the camera's.
    if let (Some((gear, _)), Some(used)) = (corner.screen, &corner.layout.screen)
        && used.support.kind == SupportKind::On
        && used.support.on.is_none()
    {
        camera_kg += gear.common.mass_kg;
    }
    add("camera", &camera.support, camera_kg, corner.view.position_m, corner.view.position_m, 0.0);
    for light in &corner.lights {
        // The mass of a lamp sits between its face and where it is held.
        let middle = (light.position_m + light.hold_m()) / 2.0;
        add(light.id, &light.light.support, light.mass_kg(), middle, light.hold_m(), KNOCK_N);
    }
    if let (Some((gear, at)), Some(used)) = (corner.microphone, &corner.layout.microphone) {
        add("microphone", &used.support, gear.common.mass_kg, at, at, KNOCK_N);
    }
    if let (Some((gear, at)), Some(used)) = (corner.screen, &corner.layout.screen) {
        add("screen", &used.support, gear.common.mass_kg, at, at, KNOCK_N);
    }
    all
}

fn sandbag(
    corner: &Corner<'_>,
    thing: &str,
    support: &Support,
    load_kg: f64,
    (at, hold): (DVec3, DVec3),
    knock_n: f64,
) -> Option<StandState> {
    if !matches!(support.kind, SupportKind::Floor | SupportKind::Boom) {
        return None;
    }
    let radius = crate::corner::foot_radius_m(corner, support);
    let reach = (at.truncate() - base_of(support, hold)).length();
    let stand = corner.support_gear(support);
    let (stand_kg, from) = match stand.filter(|s| s.common.mass_kg > 0.0) {
        Some(stand) => (stand.common.mass_kg, stand.common.told()),
        None => (STAND_KG, From::Assumed),
    };
    let foot_from = match (support.foot_radius_m, stand) {
        (Some(_), _) => From::Typed,
        (None, Some(stand)) => stand.common.told(),
        (None, None) => From::Assumed,
    };
    let mut parts = vec![(stand_kg, 0.0), (load_kg, reach)];
    if support.kind == SupportKind::Boom {
        parts.push((ARM_KG, reach / 2.0));
    }
    let tipping = stand_tipping(radius, &parts, knock_n, at.z, radius / 2.0, 1.5);
    let mut reading = Reading::new(format!("room.{thing}.sandbag_kg"), tipping.sandbag_kg)
        .by(
            "bag >= (1.5 x overturning - restoring) / (arm + bag offset), arm = foot radius / 2",
            "rigid-body statics; safety factor 1.5 and a 10 N knock at the head are Fogon's own rule",
        )
        .with("foot radius", radius, "m", foot_from)
        .with("stand", stand_kg, "kg", from)
        .with("load", load_kg, "kg", From::Typed)
        .with("load beside the column", reach, "m", From::Typed)
        .with("height", at.z, "m", From::Typed)
        .with("knock", knock_n, "N", From::Assumed)
        .note("The bag lies on the rear leg, away from the load. Level floor, legs fully spread, one leg under the load.");
    reading.label = format!("Sandbag for the {}", thing.replace('-', " ")).into();
    Some(StandState {
        thing: thing.to_owned(),
        reading,
        needed_kg: tipping.sandbag_kg,
        present_kg: support.sandbag_kg,
        load_kg: load_kg + if support.kind == SupportKind::Boom { ARM_KG } else { 0.0 },
    })
}
