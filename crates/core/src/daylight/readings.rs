//! Daylight: where the windows are, as seen from the eyes. Whether their light counts is the brief's to say.

use crate::corner::Corner;
use crate::plan::{OpeningKind, ThingId};
use crate::reading::{Origin, Quantity, Reading};

/// What the daylight trade reads off a corner.
pub fn readings(corner: &Corner<'_>) -> Vec<Reading> {
    let openings = corner.brief.room.openings.iter();
    openings
        .filter(|(_, opening)| opening.kind == OpeningKind::Window)
        .map(|(id, opening)| {
            let middle = opening.middle_m(&corner.floor_m).extend(corner.eyes_m.z);
            let (azimuth, _) = corner.light_angles_deg(middle);
            Reading::of(Quantity::DaylightAzimuthDeg, corner.name(&ThingId::Opening(id.clone())), azimuth)
                .by("angle at the eyes from the lens to the middle of the window, seen from above", "geometry")
                .with("from where the wall begins", opening.from_m, "m", Origin::Typed)
                .with("width", opening.width_m, "m", Origin::Typed)
                .within(2.0)
                .note("Positive to camera right. Beyond 135 degrees the window lies behind you and may show in the picture.")
                .called(format!("{} off the lens axis", crate::units::capital(&id.words())))
        })
        .collect()
}
