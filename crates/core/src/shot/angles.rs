//! Second angles: another camera from the side, one over the bench. What each covers, and how far it is from the first.

use super::lens::OPTICS;
use crate::corner::{AngleAt, Corner};
use crate::geometry::angle_between_deg;
use crate::plan::ThingId;
use crate::reading::{Origin, Quantity, Reading};

/// Cuts between angles nearer than this look like a jump, degrees (the 30-degree rule: common practice, no source).
pub const JUMP_DEG: f64 = 30.0;

/// Angle at the eyes between the main camera and a second one, degrees.
pub fn off_axis_deg(corner: &Corner<'_>, angle: &AngleAt<'_>) -> f64 {
    let from_eyes = |at: crate::geometry::DVec3| at - corner.eyes_m;
    angle_between_deg(from_eyes(corner.view.position_m), from_eyes(angle.view.position_m))
}

pub(super) fn readings(corner: &Corner<'_>) -> Vec<Reading> {
    let mut all = Vec::new();
    for angle in &corner.angles {
        let name = corner.name(&ThingId::Angle(angle.id.clone()));
        let words = crate::units::capital(&angle.id.words());
        let covers = |quantity: Quantity, side: &str, value: f64| {
            Reading::of(quantity, name.as_str(), value)
                .by("s (u - f) / f at what it looks at", OPTICS)
                .with("distance", angle.distance_m, "m", Origin::Computed)
                .with("focal length", angle.angle.focal_length_mm, "mm", Origin::Typed)
                .called(format!("{words} covers, {side}"))
        };
        let (width, height) =
            (angle.view.frame_width_m(angle.distance_m), angle.view.frame_height_m(angle.distance_m));
        all.push(covers(Quantity::ShotCoversWidthM, "across", width));
        all.push(covers(Quantity::ShotCoversHeightM, "up and down", height));
        if !angle.is_overhead() {
            all.push(
                Reading::of(Quantity::ShotOffAxisDeg, name.as_str(), off_axis_deg(corner, angle))
                    .by("angle at the eyes between the two cameras", "30 degrees: common practice, no source")
                    .called(format!("{words} off the first")),
            );
        }
    }
    all
}
