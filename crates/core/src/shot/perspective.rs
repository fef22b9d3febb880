//! How a face looks from a distance: near parts grow against far ones, whatever the lens.
//!
//! The depths are calibrated so that 12 inches gives the 30 % of Ward, Ward, Fried and Paskhover, JAMA Facial
//! Plastic Surgery 2018 (from memory), against 5 ft; they are also anatomically plausible.

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
