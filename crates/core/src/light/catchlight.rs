//! The image of a light in the cornea, as the camera sees it.

use crate::geometry::DVec3;

/// Front radius of the cornea, mm (Le Grand, from memory; people differ from 7.2 to 8.6), and its focal length as a mirror.
const CORNEA_MM: f64 = 7.8;
const FOCAL_MM: f64 = CORNEA_MM / 2.0;

/// Where a catchlight sits and how large it is.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Catchlight {
    /// To camera right of the middle of the eye, mm.
    pub right_mm: f64,
    /// Above it, mm.
    pub up_mm: f64,
    /// As on a clock, 0 at the top and clockwise, in [0, 12); `None` in the middle.
    pub clock_h: Option<f64>,
    /// Diameter of the image, mm: D f / (d + f).
    pub diameter_mm: f64,
}

/// The catchlight of a source seen from the eye at an azimuth (positive to camera right) and elevation; the eye looks
/// into the lens. The normal of the cornea where it shows lies midway between lens and source.
pub fn catchlight(azimuth_deg: f64, elevation_deg: f64, diameter_m: f64, distance_m: f64) -> Catchlight {
    let (sin_a, cos_a) = azimuth_deg.to_radians().sin_cos();
    let (sin_e, cos_e) = elevation_deg.to_radians().sin_cos();
    // x to camera right, y up, z to the camera.
    let source = DVec3::new(sin_a * cos_e, sin_e, cos_a * cos_e);
    let normal = (source + DVec3::Z).normalize_or_zero();
    let (right_mm, up_mm) = (CORNEA_MM * normal.x, CORNEA_MM * normal.y);
    let clock = (right_mm.atan2(up_mm).to_degrees() / 30.0).rem_euclid(12.0);
    let in_the_middle = right_mm.hypot(up_mm) < 1e-9;
    Catchlight {
        right_mm,
        up_mm,
        clock_h: (!in_the_middle).then_some(if clock >= 12.0 { 0.0 } else { clock }),
        diameter_mm: 1000.0 * diameter_m * FOCAL_MM / (1000.0 * distance_m + FOCAL_MM),
    }
}
