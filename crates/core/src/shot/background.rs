//! What lies behind the person: how blurred it is, and how much of it comes into view.

use super::lens::{self, OPTICS};
use crate::corner::Corner;
use crate::geometry::angle_between_deg;
use crate::reading::{Origin, Quantity, Reading};

pub(super) fn readings(corner: &Corner<'_>) -> [Reading; 2] {
    [blur(corner), width(corner)]
}

/// From the lens along its axis to the wall behind the person, m.
pub fn background_m(corner: &Corner<'_>) -> f64 {
    let cosine = angle_between_deg(corner.view.forward, -corner.to_lens()).to_radians().cos();
    corner.subject_distance_m() + corner.background_behind_m() * cosine
}

/// Blur of the wall behind, part of the picture's longer side.
pub fn blur_fraction(corner: &Corner<'_>) -> f64 {
    let camera = &corner.layout.camera;
    let disc = lens::blur_disc_mm(
        camera.focal_length_mm,
        camera.f_number,
        camera.focus_distance_m,
        background_m(corner),
    );
    disc / corner.image_mm.0.max(corner.image_mm.1)
}

fn blur(corner: &Corner<'_>) -> Reading {
    let camera = &corner.layout.camera;
    Reading::new(Quantity::ShotBackgroundBlurPercent, 100.0 * blur_fraction(corner))
        .by("100 (f^2 / N) |x - u| / (x (u - f)) / image width", OPTICS)
        .with("wall behind, from the lens", background_m(corner), "m", Origin::Computed)
        .with("focal length", camera.focal_length_mm, "mm", Origin::Typed)
        .with("f-number", camera.f_number, "", Origin::Typed)
}

fn width(corner: &Corner<'_>) -> Reading {
    let (u, x) = (corner.subject_distance_m(), background_m(corner));
    let framed = corner.view.frame_width_m(u);
    Reading::new(Quantity::ShotBackgroundWidthM, framed * x / u)
        .by("framed width x distance of the wall / distance of the eyes", OPTICS)
        .with("framed width at the eyes", framed, "m", Origin::Computed)
        .with("lens to eyes", u, "m", Origin::Computed)
        .with("wall behind, from the lens", x, "m", Origin::Computed)
        .note("So much of the wall has to be dressed, or to be bare.")
}
