//! What lamps and a person warm a closed room by.

use crate::corner::{Corner, Source};
use crate::photometry::power_w;
use crate::reading::{Origin, Quantity, Reading};

/// A person who sits and talks, W (ISO 8996, about 100 W, from memory).
const PERSON_W: f64 = 100.0;
/// Air changed in an hour behind closed doors, and the heat that its surfaces take up, W/(m2 K): Fogon's own rule.
const CHANGES_H: f64 = 0.5;
const SURFACES_W_M2_K: f64 = 1.0;
/// Heat of air, Wh/(m3 K).
const AIR_WH_M3_K: f64 = 0.33;

/// Rise of a room's air in the end, K: P / (0.33 n V + h A).
pub fn rise_k(watts: f64, volume_m3: f64, surface_m2: f64) -> f64 {
    watts / (AIR_WH_M3_K * CHANGES_H * volume_m3 + SURFACES_W_M2_K * surface_m2)
}

/// Nearly all that a lamp draws ends as heat in the room, the light as well.
pub(super) fn reading(corner: &Corner<'_>) -> Reading {
    let lamps = corner.lights.iter().filter_map(|light| match light.source {
        Source::Lamp(lamp) => Some((power_w(lamp), light.light.dim)),
        Source::Board(_) => None,
    });
    let (mut watts, mut assumed) = (0.0, false);
    for ((power, guessed), dim) in lamps {
        watts += power * dim;
        assumed |= guessed;
    }
    let (volume, surface): (f64, f64) =
        (corner.brief.room.volume_m3(), corner.brief.room.surfaces_m2().iter().map(|(_, area)| area).sum());
    let camera = corner.body.common.power_w.unwrap_or(0.0);
    Reading::new(Quantity::RoomHeatRiseK, rise_k(watts + camera + PERSON_W, volume, surface))
        .by("P / (0.33 n V + h A)", "heat balance of a closed room; n and h are Fogon's own rule")
        .with("lamps at their dials", watts, "W", if assumed { Origin::Assumed } else { Origin::Computed })
        .with("person", PERSON_W, "W", Origin::Assumed)
        .with("changes of air in an hour, n", CHANGES_H, "", Origin::Assumed)
        .with("into the surfaces, h", SURFACES_W_M2_K, "W/(m\u{b2} K)", Origin::Assumed)
        .with("volume", volume, "m\u{b3}", Origin::Computed)
        .with("surface", surface, "m\u{b2}", Origin::Computed)
        .note("In the end, doors and windows shut; a session of an hour reaches about half. Good to a factor of two.")
}
