//! The short laws of light: distance, ratio, size, soft edges, what comes back from a room, what a setting needs.

use crate::corner::Corner;
use crate::exposure::{CALIBRATION, illuminance_needed_lx};

pub(super) const AREA_FORMULA: &str =
    "Lambert 1760; Baum, Rushmeier and Winget 1989; Arvo 1995 (area formula)";

/// Illuminance at another distance by the inverse square law, lx; distances over 0 m, and over about five times the source's
/// width, where a face counts as a point (Lambert 1760).
pub fn inverse_square_lx(illuminance_lx: f64, at_distance_m: f64, wanted_distance_m: f64) -> f64 {
    illuminance_lx * (at_distance_m / wanted_distance_m).powi(2)
}

/// Lighting ratio (key + fill) : fill, and the same in stops; infinite without any fill. Definition, common practice.
pub fn lighting_ratio(key_lx: f64, fill_lx: f64) -> (f64, f64) {
    let ratio = (key_lx + fill_lx) / fill_lx;
    (ratio, ratio.log2())
}

/// Angle that a disc of some diameter fills, degrees: 2 atan(D / 2d); plane geometry, distance over 0 m.
pub fn angular_size_deg(diameter_m: f64, distance_m: f64) -> f64 {
    2.0 * (diameter_m / (2.0 * distance_m)).atan().to_degrees()
}

/// Width of the soft edge of a shadow, m: D t / d (similar triangles; d over 0 m), t from the edge that casts it to the skin, d from the source to the edge.
pub fn penumbra_m(source_diameter_m: f64, source_to_edge_m: f64, edge_to_surface_m: f64) -> f64 {
    source_diameter_m * edge_to_surface_m / source_to_edge_m
}

/// What a fill has to bring to reach a ratio, and the highest ratio that the ambient light leaves.
#[derive(Debug, Clone, Copy, PartialEq, serde::Serialize)]
pub struct FillNeeded {
    /// On the shadow side beyond the ambient light, lx; never below 0.
    pub extra_fill_lx: f64,
    /// The ambient light is not too much already.
    pub reachable: bool,
    /// With no fill at all; null without ambient light.
    pub max_reachable_ratio: Option<f64>,
}

/// Fill for a ratio (key + fill) : fill, lx, all ambient light counting as fill: F = K / (R - 1), R over 1. From the definition
/// of the ratio.
pub fn fill_needed(key_lx: f64, ambient_lx: f64, wanted_ratio: f64) -> FillNeeded {
    let fill = key_lx / (wanted_ratio - 1.0);
    FillNeeded {
        extra_fill_lx: (fill - ambient_lx).max(0.0),
        reachable: ambient_lx <= fill * (1.0 + 1e-9),
        max_reachable_ratio: (ambient_lx > 0.0).then(|| (key_lx + ambient_lx) / ambient_lx),
    }
}

/// First estimate of the light that a room throws back, lx: F rho / (A (1 - rho)) (Sumpner 1892); area over 0 m2, reflectance
/// from 0 to below 1.
pub fn bounce_estimate_lx(flux_lm: f64, surface_m2: f64, mean_reflectance: f64) -> f64 {
    flux_lm * mean_reflectance / (surface_m2 * (1.0 - mean_reflectance))
}

/// Light that the camera's settings need at the face, lx, with filter and script glass.
pub(super) fn needed_lx(corner: &Corner<'_>) -> f64 {
    let camera = &corner.layout.camera;
    illuminance_needed_lx(camera.f_number, camera.shutter_s, camera.iso, CALIBRATION)
        * (camera.nd_stops + corner.glass_stops()).exp2()
}
