//! How a face looks from a distance: near parts grow against far ones, whatever the lens.
//!
//! The depths are calibrated so that 12 inches gives the 30 % of Ward, Ward, Fried and Paskhover, JAMA Facial
//! Plastic Surgery 2018 (from memory), against 5 ft; they are also anatomically plausible.

use super::lens::{OPTICS, crop_factor};
use crate::corner::Corner;
use crate::reading::{Origin, Quantity, Reading, trapezium};

/// From the eye plane forward to the tip of the nose, m.
pub const NOSE_FORWARD_M: f64 = 0.025;
/// From the eye plane back to the ears, m.
pub const EAR_BACK_M: f64 = 0.085;
/// The distance that is taken as free of distortion: 5 ft, m.
const REFERENCE_M: f64 = 1.524;
/// Nearer to the tip of the nose than this no camera stands, m.
const NEAREST_M: f64 = 0.05;

/// Magnification of the nose over that of the ears at a distance from the camera to the eye plane, m; `None`
/// where the camera would touch the face.
pub fn nose_to_ear_ratio(camera_distance_m: f64) -> Option<f64> {
    (camera_distance_m > NOSE_FORWARD_M + NEAREST_M)
        .then(|| (camera_distance_m + EAR_BACK_M) / (camera_distance_m - NOSE_FORWARD_M))
}

/// How much larger the nose looks against the ears than from 5 ft, percent; negative from farther away.
pub fn enlargement_percent(camera_distance_m: f64) -> Option<f64> {
    let reference = (REFERENCE_M + EAR_BACK_M) / (REFERENCE_M - NOSE_FORWARD_M);
    nose_to_ear_ratio(camera_distance_m).map(|ratio| 100.0 * (ratio / reference - 1.0))
}

/// Zones of distance, nearest first: name and where each ends, m. Fogon's own rule, after Hall, The Hidden Dimension
/// 1966 (0.45, 1.2, 3.7 m; from memory).
pub const ZONES: [(&str, f64); 4] =
    [("close", 0.60), ("conversational", 1.20), ("portrait", 2.50), ("distant", f64::INFINITY)];

/// The zone of a distance.
pub fn zone(distance_m: f64) -> &'static str {
    ZONES.iter().find(|(_, end)| distance_m < *end).map_or("distant", |(name, _)| *name)
}

/// How well a distance and a lens serve each of the two schools, 0 to 1; each is the least of its parts. Ranges are
/// common practice, the rule Fogon's own.
pub fn school_scores(distance_m: f64, equivalent_mm: f64, blur_fraction: f64) -> (f64, f64) {
    let part = |value, [a, b, c, d]: [f64; 4]| trapezium(value, [Some(a), Some(b), Some(c), Some(d)]);
    let near_and_wide =
        part(distance_m, [0.40, 0.60, 1.00, 1.50]).min(part(equivalent_mm, [16.0, 20.0, 26.0, 35.0]));
    let far_and_long = part(distance_m, [0.9, 1.3, 2.5, 4.0])
        .min(part(equivalent_mm, [35.0, 50.0, 85.0, 135.0]))
        .min(part(blur_fraction, [0.004, 0.010, 0.04, 0.10]));
    (near_and_wide, far_and_long)
}

pub(super) fn readings(corner: &Corner<'_>) -> Vec<Reading> {
    let mut all = vec![view_angle(corner), distance(corner)];
    all.extend(nose(corner));
    all.extend(equivalents(corner));
    all.extend(schools(corner));
    all
}

fn view_angle(corner: &Corner<'_>) -> Reading {
    let offset = corner.view.position_m - corner.eyes_m;
    let flat = offset.x.hypot(offset.y);
    Reading::new(Quantity::ShotCameraViewAngleDeg, offset.z.atan2(flat).to_degrees())
        .by(
            "atan((lens height - eye height) / horizontal distance)",
            "geometry; bands common practice, no source",
        )
        .with("lens height", corner.view.position_m.z, "m", Origin::Typed)
        .with("eye height", corner.eyes_m.z, "m", Origin::Computed)
        .with("horizontal distance", flat, "m", Origin::Computed)
}

fn distance(corner: &Corner<'_>) -> Reading {
    Reading::new(Quantity::ShotCameraDistanceM, corner.lens_to_eyes_m())
        .by(
            "straight from lens to eyes, as a tape measures it",
            "perspective: Ward et al., JAMA Facial Plast Surg 2018 (from memory); school ranges common practice",
        )
        .within(0.05)
}

fn nose(corner: &Corner<'_>) -> Option<Reading> {
    let (u, units) = (corner.lens_to_eyes_m(), corner.brief.units);
    let note = if u <= 0.45 {
        format!(
            "Portraits from {} drew less trust than from {}: Bryan, Perona and Adolphs, PLoS ONE 2012 (from memory).",
            units.length(0.45),
            units.length(1.35)
        )
    } else {
        format!(
            "Zone: {}. From {} the nose looks 30 % larger, from {} as it is.",
            zone(u),
            units.length(0.3),
            units.length(REFERENCE_M)
        )
    };
    let reading = Reading::new(Quantity::ShotCameraNoseEnlargementPercent, enlargement_percent(u)?)
        .by(
            "100 (R(D) / R(1.524 m) - 1), R = (D + 0.085) / (D - 0.025)",
            "depths set so that 12 in gives the 30 % of Ward et al., JAMA Facial Plast Surg 2018 (from memory)",
        )
        .with("lens to eyes", u, "m", Origin::Computed)
        .note(note);
    Some(reading)
}

fn equivalents(corner: &Corner<'_>) -> [Reading; 2] {
    let long = corner.image_mm.0.max(corner.image_mm.1);
    let crop = crop_factor(long);
    let camera = &corner.layout.camera;
    let of = |quantity: Quantity, name: &'static str, value: f64, unit: &'static str| {
        Reading::new(quantity, value * crop)
            .by("real x 36 / width of the picture on the sensor", OPTICS)
            .with(name, value, unit, Origin::Typed)
            .with("width on the sensor", long, "mm", corner.body.common.figures_from())
    };
    [
        of(Quantity::ShotLensEquivalentMm, "focal length", camera.focal_length_mm, "mm"),
        of(Quantity::ShotLensEquivalentFNumber, "f-number", camera.f_number, "")
            .note("For blur and depth of field alone; exposure goes by the real f-number."),
    ]
}

fn schools(corner: &Corner<'_>) -> [Reading; 2] {
    let long = corner.image_mm.0.max(corner.image_mm.1);
    let (u, equivalent) = (corner.lens_to_eyes_m(), corner.layout.camera.focal_length_mm * crop_factor(long));
    let blur = super::background::blur_fraction(corner);
    let (near, far) = school_scores(u, equivalent, blur);
    let of = |quantity: Quantity, value: f64, formula: &'static str| {
        Reading::new(quantity, 100.0 * value)
            .by(formula, "ranges common practice, no source; the least part counts: Fogon's own rule")
            .with("lens to eyes", u, "m", Origin::Computed)
            .with("equivalent focal length", equivalent, "mm", Origin::Computed)
            .with("blur, part of the width", blur, "", Origin::Computed)
    };
    [
        of(
            Quantity::ShotSchoolNearAndWidePercent,
            near,
            "least of: distance over 0.40, 0.60 to 1.00, 1.50 m; focal length over 16, 20 to 26, 35 mm",
        ),
        of(
            Quantity::ShotSchoolFarAndLongPercent,
            far,
            "least of: distance over 0.9, 1.3 to 2.5, 4.0 m; focal length over 35, 50 to 85, 135 mm; blur over 0.4, 1 to 4, 10 %",
        ),
    ]
}
