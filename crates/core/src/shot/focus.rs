//! Focus: what is sharp, how much of a lean it holds, and how exactly a stand-in must be placed to focus on.

use super::lens::OPTICS;
use super::lens::{self, DepthOfField};
use crate::corner::Corner;
use crate::plan::Posture;
use crate::reading::{Origin, Quantity, Reading};

/// From the eyes back to the ears, m: a wholly sharp head reaches so far.
use super::perspective::EAR_BACK_M;

pub(super) fn readings(corner: &Corner<'_>) -> Vec<Reading> {
    let camera = &corner.layout.camera;
    let circle = lens::circle_of_confusion_mm(corner.image_mm);
    let field =
        lens::depth_of_field(camera.focal_length_mm, camera.f_number, camera.focus_distance_m, circle);
    vec![
        front_tolerance(corner, &field, circle),
        limit(corner, Quantity::ShotFocusNearM, Some(field.near_m), circle),
        limit(corner, Quantity::ShotFocusFarM, field.far_m, circle),
        stand_in(corner, &field),
        lean_f_number(corner, circle),
    ]
}

fn front_tolerance(corner: &Corner<'_>, field: &DepthOfField, circle: f64) -> Reading {
    let camera = &corner.layout.camera;
    let eyes = corner.subject_distance_m();
    let (lean, from) = corner.brief.person.lean();
    // Sharp now, and after leaning in: the nearer limit bounds the lean, the farther one the eyes at rest.
    let front = (eyes - field.near_m).min(field.far_m.map_or(f64::INFINITY, |far| far - eyes + lean));
    Reading::new(Quantity::ShotFocusFrontToleranceM, front - lean)
        .by("u - near - lean; near = u (h - f) / (h + u - 2f), h = f^2 / (N c) + f", OPTICS)
        .with("focus distance", camera.focus_distance_m, "m", Origin::Typed)
        .with("focal length", camera.focal_length_mm, "mm", Origin::Typed)
        .with("f-number", camera.f_number, "", Origin::Typed)
        .with("circle of confusion, diagonal / 1500", circle, "mm", Origin::Assumed)
        .with("nearest sharp", field.near_m, "m", Origin::Computed)
        .with("lean", lean, "m", from)
        .within(0.01)
}

fn limit(corner: &Corner<'_>, quantity: Quantity, at_m: Option<f64>, circle: f64) -> Reading {
    let camera = &corner.layout.camera;
    Reading::new(quantity, at_m.unwrap_or(f64::NAN))
        .by("near = u (h - f) / (h + u - 2f), far = u (h - f) / (h - u), h = f^2 / (N c) + f", OPTICS)
        .with("focus distance", camera.focus_distance_m, "m", Origin::Typed)
        .with("f-number", camera.f_number, "", Origin::Typed)
        .with("circle of confusion, diagonal / 1500", circle, "mm", Origin::Assumed)
        .note(if at_m.is_none() { "Sharp to infinity." } else { "" })
}

/// By how much a stand-in may be put wrong, so that a lean either way stays sharp.
fn stand_in(corner: &Corner<'_>, field: &DepthOfField) -> Reading {
    let u = corner.layout.camera.focus_distance_m;
    let (lean, from) = corner.brief.person.lean();
    let (marked, leaning) = match corner.brief.person.posture {
        Posture::Seated => ("Fix the chair and mark its feet.", "Sit, record ten seconds leaning"),
        Posture::Standing => ("Mark where your feet stand.", "Step in, record ten seconds swaying"),
    };
    let (front, back) = (u - field.near_m, field.far_m.map_or(f64::INFINITY, |far| far - u));
    Reading::new(Quantity::ShotFocusStandInM, front.min(back) - lean)
        .by("min(u - near, far - u) - lean", OPTICS)
        .with("sharp in front", front, "m", Origin::Computed)
        .with("sharp behind", if back.is_finite() { back } else { 50.0 }, "m", Origin::Computed)
        .with("lean", lean, "m", from)
        .with("eye to ear", EAR_BACK_M, "m", Origin::Assumed)
        .note(format!(
            "{} Put a stand with fine print where the eyes will be. Focus on it with the lens wide open, magnified, and lock focus. Stop down. {} to both ends, look at it full size. Check again after any zoom.",
            marked, leaning
        ))
}

/// The widest aperture that holds the lean by itself.
fn lean_f_number(corner: &Corner<'_>, circle: f64) -> Reading {
    let camera = &corner.layout.camera;
    let (lean, from) = corner.brief.person.lean();
    let value = lens::f_number_for_lean(camera.focal_length_mm, camera.focus_distance_m, lean, circle);
    Reading::new(Quantity::ShotFocusLeanFNumber, value.unwrap_or(f64::NAN))
        .by("f^2 a / (c (u - a) (u - f))", OPTICS)
        .with("lean", lean, "m", from)
        .with("focal length", camera.focal_length_mm, "mm", Origin::Typed)
        .with("focus distance", camera.focus_distance_m, "m", Origin::Typed)
        .with("circle of confusion, diagonal / 1500", circle, "mm", Origin::Assumed)
        .note("From this f-number on, a lean stays sharp without face tracking.")
}
