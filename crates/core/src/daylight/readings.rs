//! Daylight: where the windows are and how large they look, as seen from the eyes, and how much of the light outdoors they bring in.
//! Whether their light counts is the brief's to say.

use super::window::daylight_factor_percent;
use crate::corner::{Corner, Pane};
use crate::photometry::sky;
use crate::plan::{OpeningKind, ThingId};
use crate::reading::{Origin, Quantity, Reading};

/// Panes are clean (BS 8206-2:2008, from memory: 0.9 to 1).
const CLEAN: f64 = 1.0;

/// What the daylight trade reads off a corner.
pub fn readings(corner: &Corner<'_>) -> Vec<Reading> {
    let openings = corner.brief.room.openings.iter();
    let mut all: Vec<Reading> = openings
        .filter(|(_, opening)| opening.kind == OpeningKind::Window)
        .filter_map(|(id, opening)| {
            let pane = Pane::of(&corner.brief.room, opening)?;
            let name = || corner.name(&ThingId::Opening(id.clone()));
            let middle = opening.middle_m(&corner.floor_m).extend(corner.eyes_m.z);
            let (azimuth, _) = corner.light_angles_deg(middle);
            let words = crate::units::capital(&id.words());
            let across_m = 2.0 * (pane.area_m2() / std::f64::consts::PI).sqrt();
            let away_m = pane.middle_m.distance(corner.eyes_m);
            let size_deg = 2.0 * (across_m / 2.0).atan2(away_m).to_degrees();
            Some([
                Reading::of(Quantity::DaylightAzimuthDeg, name(), azimuth)
                    .by("angle at the eyes from the lens to the middle of the window, seen from above", "geometry")
                    .with("from where the wall begins", opening.from_m, "m", Origin::Typed)
                    .with("width", opening.width_m, "m", Origin::Typed)
                    .within(2.0)
                    .note("Positive to camera right. Beyond 135 degrees the window lies behind you and may show in the picture.")
                    .called(format!("{words} off the lens axis")),
                Reading::of(Quantity::DaylightAngularSizeDeg, name(), size_deg)
                    .by("2 atan(sqrt(area / pi) / distance)", "the angle under which a disc of its area is seen; geometry")
                    .with("area", pane.area_m2(), "m\u{b2}", Origin::Typed)
                    .with("from your eyes", away_m, "m", Origin::Computed)
                    .note("From 20 degrees on, light is soft on a face: common practice, no source.")
                    .called(format!("{words}: how large it looks")),
            ])
        })
        .flatten()
        .collect();
    all.extend(factor(corner));
    all
}

/// The average daylight factor, where a window brings light in.
fn factor(corner: &Corner<'_>) -> Option<Reading> {
    let room = &corner.brief.room;
    // Glass behind a curtain counts by what that lets through; each by the part of the sky that it sees.
    let (glazed_m2, seen) = corner.clear_windows().fold((0.0, 0.0), |(sum, seen), (_, opening, pane)| {
        let area_m2 = pane.area_m2() * opening.curtain_lets_through();
        (sum + area_m2, seen + area_m2 * (90.0 - opening.horizon_deg.unwrap_or(0.0)))
    });
    if glazed_m2 <= 0.0 {
        return None;
    }
    let sky_deg = seen / glazed_m2;
    let surfaces_m2: f64 = room.surfaces_m2().iter().map(|(_, area)| area).sum();
    let (mean, assumed) = room.mean_reflectance();
    let percent = daylight_factor_percent(sky::PANE, glazed_m2, sky_deg, CLEAN, surfaces_m2, mean);
    let from = if assumed { Origin::Assumed } else { Origin::Typed };
    Some(
        Reading::new(Quantity::DaylightRoomFactorPercent, percent)
            .by("T A t M / (S (1 - R^2))", "average daylight factor, BS 8206-2:2008 (from memory)")
            .with("what a pane lets through", 100.0 * sky::PANE, "%", Origin::Computed)
            .with("glass", glazed_m2, "m\u{b2}", Origin::Typed)
            .with("sky seen from it", sky_deg, "\u{b0}", Origin::Typed)
            .with("surfaces of the room", surfaces_m2, "m\u{b2}", Origin::Computed)
            .with("mean reflectance", mean, "", from)
            .within(0.3 * percent)
            .note("Of the light outdoors under a grey sky, the part that the room gets in the mean. From 5 % on a room looks lit by day, below 2 % it does not: common practice, no source."),
    )
}
