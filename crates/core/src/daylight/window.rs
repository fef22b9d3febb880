//! What a window lets in, in closed forms: the sun's patch on the floor, the overcast sky, the average daylight factor.

use serde::Serialize;

use crate::geometry::{DVec3, wrap_180};
use crate::photometry::{polygon_illuminance, sky};

/// The sun's patch on the floor behind an upright window with a reveal.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
pub struct FloorPatch {
    /// Profile angle: the sun's height as the section square to the window shows it, degrees; none without a beam.
    pub profile_angle_deg: Option<f64>,
    /// Width that the reveal leaves to the beam, m.
    pub effective_width_m: f64,
    /// Height that it leaves, m.
    pub effective_height_m: f64,
    /// Area on the floor, as if no wall stood in the way, m2.
    pub patch_area_m2: f64,
}

/// The sun's patch behind a window of a width and a height, m, whose reveal is so deep, m; the window looks to `window_azimuth_deg`.
/// tan of the profile angle is tan e / cos g with g from the window's azimuth to the sun's (ASHRAE Fundamentals, from memory);
/// the reveal takes depth x tan g of the width and depth x tan of the profile angle of the height.
pub fn floor_patch(
    (width_m, height_m): (f64, f64),
    reveal_m: f64,
    window_azimuth_deg: f64,
    sun_azimuth_deg: f64,
    sun_elevation_deg: f64,
) -> FloorPatch {
    let none = FloorPatch {
        profile_angle_deg: None,
        effective_width_m: 0.0,
        effective_height_m: 0.0,
        patch_area_m2: 0.0,
    };
    let beside = wrap_180(sun_azimuth_deg - window_azimuth_deg).to_radians();
    if beside.cos() <= 1e-12 || sun_elevation_deg <= 0.0 {
        return none;
    }
    let profile = sun_elevation_deg.to_radians().tan() / beside.cos();
    let (width, height) = (width_m - reveal_m * beside.tan().abs(), height_m - reveal_m * profile);
    if width <= 0.0 || height <= 0.0 {
        return none;
    }
    FloorPatch {
        profile_angle_deg: Some(profile.atan().to_degrees()),
        effective_width_m: width,
        effective_height_m: height,
        patch_area_m2: width * height / profile,
    }
}

/// A window under an overcast sky: luminance of its pane, cd/m2, and light on a face on its middle line that looks level
/// towards it, lx. The window is `width_m` wide and begins at `sill_m`; the face is at a height and a distance, m.
pub fn overcast_window(
    outdoors_lx: f64,
    ground: f64,
    pane: f64,
    (width_m, sill_m, height_m): (f64, f64, f64),
    (face_height_m, distance_m): (f64, f64),
) -> (f64, f64) {
    let luminance = sky::luminance_behind_cd_m2(outdoors_lx, ground, pane);
    let half = width_m / 2.0;
    let top = sill_m + height_m;
    // The face looks towards +y, where the window is.
    let outline = [(-half, sill_m), (-half, top), (half, top), (half, sill_m)]
        .map(|(x, z)| DVec3::new(x, distance_m, z));
    let face = DVec3::new(0.0, 0.0, face_height_m);
    (luminance, polygon_illuminance(luminance, &outline, face, DVec3::Y))
}

/// Average daylight factor, percent: T A t M / (S (1 - R^2)) with the visible sky's angle t in degrees (BS 8206-2:2008, from
/// memory); the mean reflectance is below 1.
pub fn daylight_factor_percent(
    pane: f64,
    glazed_m2: f64,
    sky_angle_deg: f64,
    kept_clean: f64,
    surfaces_m2: f64,
    mean_reflectance: f64,
) -> f64 {
    pane * glazed_m2 * sky_angle_deg * kept_clean
        / (surfaces_m2 * (1.0 - mean_reflectance * mean_reflectance))
}
