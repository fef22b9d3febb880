//! Daylight: where the windows are, as seen from the eyes. All light figures count windows as shut out.

use crate::corner::Corner;
use crate::plan::OpeningKind;
use crate::reading::{From, Reading};

/// What the daylight trade reads off a corner.
pub fn readings(corner: &Corner<'_>) -> Vec<Reading> {
    let openings = corner.brief.room.openings.iter();
    openings
        .filter(|(_, opening)| opening.kind == OpeningKind::Window)
        .map(|(id, opening)| {
            let middle = opening.middle_m(&corner.floor_m).extend(corner.eyes_m.z);
            let (azimuth, _) = corner.light_angles_deg(middle);
            let mut reading = Reading::new(format!("daylight.{id}.azimuth_deg"), azimuth)
                .by("angle at the eyes from the lens to the middle of the window, seen from above", "geometry")
                .with("from where the wall begins", opening.from_m, "m", From::Typed)
                .with("width", opening.width_m, "m", From::Typed)
                .within(2.0)
                .note("Positive to camera right. Beyond 135 degrees the window lies behind you and may show in the picture.");
            reading.label = format!("{} off the lens axis", crate::units::capital(&id.0.replace('-', " "))).into();
            reading
        })
        .collect()
}
