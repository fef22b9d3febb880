//! Focus: what is sharp, how much of a lean it holds, and how exactly a stand-in must be placed to focus on.

use super::OPTICS;
use super::lens::{self, DepthOfField};
use crate::corner::Corner;
use crate::reading::{From, Reading};

/// From the eyes back to the ears, m: a wholly sharp head reaches so far.
use super::perspective::EAR_BACK_M;

pub(super) fn readings(corner: &Corner<'_>) -> Vec<Reading> {
    let camera = &corner.layout.camera;
    let circle = lens::circle_of_confusion_mm(corner.image_mm);
    let field =
        lens::depth_of_field(camera.focal_length_mm, camera.f_number, camera.focus_distance_m, circle);
    vec![
        front_tolerance(corner, &field, circle),
        limit(corner, "shot.focus.near_m", Some(field.near_m), circle),
        limit(corner, "shot.focus.far_m", field.far_m, circle),
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
    Reading::new("shot.focus.front_tolerance_m", front - lean)
        .by("u - near - lean; near = u (h - f) / (h + u - 2f), h = f^2 / (N c) + f", OPTICS)
        .with("focus distance", camera.focus_distance_m, "m", From::Typed)
        .with("focal length", camera.focal_length_mm, "mm", From::Typed)
        .with("f-number", camera.f_number, "", From::Typed)
        .with("circle of confusion, diagonal / 1500", circle, "mm", From::Assumed)
        .with("nearest sharp", field.near_m, "m", From::Computed)
        .with("lean", lean, "m", from)
        .within(0.01)
}

fn limit(corner: &Corner<'_>, id: &'static str, at_m: Option<f64>, circle: f64) -> Reading {
    let camera = &corner.layout.camera;
    Reading::new(id, at_m.unwrap_or(f64::NAN))
        .by("near = u (h - f) / (h + u - 2f), far = u (h - f) / (h - u), h = f^2 / (N c) + f", OPTICS)
        .with("focus distance", camera.focus_distance_m, "m", From::Typed)
        .with("f-number", camera.f_number, "", From::Typed)
        .with("circle of confusion, diagonal / 1500", circle, "mm", From::Assumed)
        .note(if at_m.is_none() { "Sharp to infinity." } else { "" })
}

/// By how much a stand-in may be put wrong, so that a lean either way stays sharp.
fn stand_in(corner: &Corner<'_>, field: &DepthOfField) -> Reading {
    let u = corner.layout.camera.focus_distance_m;
    let (lean, from) = corner.brief.person.lean();
    let (front, back) = (u - field.near_m, field.far_m.map_or(f64::INFINITY, |far| far - u));
    Reading::new("shot.focus.stand_in_m", front.min(back) - lean)
        .by("min(u - near, far - u) - lean", OPTICS)
        .with("sharp in front", front, "m", From::Computed)
        .with("sharp behind", if back.is_finite() { back } else { 50.0 }, "m", From::Computed)
        .with("lean", lean, "m", from)
        .with("eye to ear", EAR_BACK_M, "m", From::Assumed)
        .note("Fix the chair and mark its feet. Put a stand with fine print where the eyes will be. Focus on it with the lens wide open, magnified, and lock focus. Stop down. Sit, record ten seconds leaning to both ends, look at it full size. Check again after any zoom.")
}

/// The widest aperture that holds the lean by itself.
fn lean_f_number(corner: &Corner<'_>, circle: f64) -> Reading {
    let camera = &corner.layout.camera;
    let (lean, from) = corner.brief.person.lean();
    let value = lens::f_number_for_lean(camera.focal_length_mm, camera.focus_distance_m, lean, circle);
    Reading::new("shot.focus.lean_f_number", value.unwrap_or(f64::NAN))
        .by("f^2 a / (c (u - a) (u - f))", OPTICS)
        .with("lean", lean, "m", from)
        .with("focal length", camera.focal_length_mm, "mm", From::Typed)
        .with("focus distance", camera.focus_distance_m, "m", From::Typed)
        .with("circle of confusion, diagonal / 1500", circle, "mm", From::Assumed)
        .note("From this f-number on, a lean stays sharp without face tracking.")
}
