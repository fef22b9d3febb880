//! The room: what lies behind the person, the load on the mains, whether stands stay upright, and how a
//! place on the floor is measured with one tape.

mod floor;
mod heat;
mod mains;
mod stands;
mod tape;
mod tipping;
mod walk;

use crate::corner::Corner;
use crate::photometry::power_w;
use crate::reading::{Origin, Quantity, Reading};

pub use floor::{fixed, folded_radius_m, footprints_m2};
pub use heat::rise_k;
pub use mains::{MainsAs, load_a, mains};
pub use stands::{ARM_KG, KNOCK_N, StandState, load_kg, sandbags};
pub use tape::{CornerMark, FromCorner, TapeMark, corner_mark, tape_mark, worst_error_m};
pub use tipping::{Tipping, stand_tipping};
pub use walk::{Leg, Walk, Walked, walked};

/// What the room trade reads off a corner.
pub fn readings(corner: &Corner<'_>) -> Vec<Reading> {
    let mut all =
        vec![background_behind(corner), mains_voltage(corner), mains_load(corner), heat::reading(corner)];
    all.extend(floor::readings(corner));
    all.extend(sandbags(corner).iter().flat_map(|stand| stands::readings(corner, stand)));
    all
}

fn background_behind(corner: &Corner<'_>) -> Reading {
    let behind = corner.background_behind_m();
    let [width, depth, _] = corner.room_m;
    Reading::new(Quantity::RoomBackgroundBehindM, behind)
        .by("from the eyes away from the lens to the wall, or to a slope at their height", "geometry")
        .with("room width", width, "m", Origin::Typed)
        .with("room depth", depth, "m", Origin::Typed)
        .with("eyes x", corner.eyes_m.x, "m", Origin::Typed)
        .with("eyes y", corner.eyes_m.y, "m", Origin::Typed)
        .within(0.02)
}

fn mains_voltage(corner: &Corner<'_>) -> Reading {
    let (volts, from) = mains::mains_told(corner.brief).voltage_v;
    let mut reading = Reading::new(Quantity::RoomMainsVoltageV, volts)
        .by(
            "as given; else 230 V where lengths are metric, 120 V where imperial",
            "nominal voltages of IEC 60038 (from memory)",
        )
        .with("mains", volts, "V", from)
        .note("Read it off a meter at the outlet only if you know how to; never open an outlet.");
    reading.from = if from == Origin::Assumed { Origin::Assumed } else { Origin::Typed };
    reading
}

/// The load on the breaker.
pub(crate) fn mains_load(corner: &Corner<'_>) -> Reading {
    let mains = mains(corner.brief);
    let mut va = 0.0;
    let mut assumed = false;
    let mut reading = Reading::new(Quantity::RoomMainsLoadFraction, f64::NAN)
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
            reading = reading.with(
                "lamp",
                watts,
                "W",
                if guessed { Origin::Assumed } else { lamp.common.figures_from() },
            );
        }
    }
    if let Some(watts) = corner.body.common.power_w {
        va += watts / corner.body.common.power_factor.unwrap_or(1.0);
        reading = reading.with("camera", watts, "W", corner.body.common.figures_from());
    }
    let fraction = load_a(va, mains.voltage_v.0, 1.0) / mains.breaker_a.0;
    reading.value = Some(fraction);
    reading.note(if assumed {
        "Lamp power assumed from its light at 80 lm/W. Count everything else on this breaker too: computer, heater, kettle."
    } else {
        "Count everything else on this breaker too: computer, heater, kettle."
    })
}
