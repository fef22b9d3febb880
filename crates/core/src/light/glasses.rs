//! Lamps mirrored in glasses: the lens of the glasses as a piece of a sphere, sampled, each ray from the camera reflected.

use crate::geometry::DVec3;

/// Samples along each side of the lens, its edges included.
const SAMPLES: usize = 61;
/// Elevations are tried below this, in steps, degrees.
const HIGHEST_DEG: f64 = 60.0;
const STEP_DEG: f64 = 0.1;

/// Glasses as they sit. Terms of ISO 13666 (from memory).
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Glasses {
    /// How far the lens looks down, degrees (9: common practice, no source).
    pub pantoscopic_tilt_deg: f64,
    /// How far its normal turns outwards, degrees (5).
    pub wrap_deg: f64,
    /// Radius of its front, m: 0.530 / base curve (0.1325 for 4 dioptres).
    pub front_radius_m: f64,
    /// Its width and height, m (0.05 by 0.036).
    pub width_m: f64,
    /// Its height, m.
    pub height_m: f64,
}

impl Default for Glasses {
    fn default() -> Self {
        Self {
            pantoscopic_tilt_deg: 9.0,
            wrap_deg: 5.0,
            front_radius_m: 0.1325,
            width_m: 0.05,
            height_m: 0.036,
        }
    }
}

/// A round source that faces the glasses.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Seen {
    /// Positive to camera right, degrees.
    pub azimuth_deg: f64,
    /// Degrees.
    pub elevation_deg: f64,
    /// Its diameter, m.
    pub diameter_m: f64,
    /// From the glasses, m.
    pub distance_m: f64,
}

/// x to camera right, y up, z to the camera.
fn direction(azimuth_deg: f64, elevation_deg: f64) -> DVec3 {
    let (sin_a, cos_a) = azimuth_deg.to_radians().sin_cos();
    let (sin_e, cos_e) = elevation_deg.to_radians().sin_cos();
    DVec3::new(sin_a * cos_e, sin_e, cos_a * cos_e)
}

impl Glasses {
    /// Places of the lens on the source's side and their normals; its middle lies at the origin.
    fn samples(&self, side: f64) -> Vec<(DVec3, DVec3)> {
        let middle = direction(self.wrap_deg * side, -self.pantoscopic_tilt_deg);
        let across = DVec3::Y.cross(middle).normalize_or(DVec3::X);
        let up = middle.cross(across);
        let radius = self.front_radius_m;
        let along = |size: f64, i: usize| size * (i as f64 / (SAMPLES - 1) as f64 - 0.5) / radius;
        let mut all = Vec::with_capacity(SAMPLES * SAMPLES);
        for i in 0..SAMPLES {
            for j in 0..SAMPLES {
                let (x, y) = (along(self.width_m, i), along(self.height_m, j));
                let inward = (1.0 - x * x - y * y).max(0.0).sqrt();
                let normal = middle * inward + across * x + up * y;
                all.push(((normal - middle) * radius, normal));
            }
        }
        all
    }

    /// Part of the lens in which a camera level with the eyes sees the source, 0 to 1.
    pub fn glare_fraction(&self, source: &Seen, camera_distance_m: f64) -> f64 {
        let samples = self.samples(if source.azimuth_deg < 0.0 { -1.0 } else { 1.0 });
        hits(&samples, source, camera_distance_m).count() as f64 / samples.len() as f64
    }

    /// The largest elevation below 60 degrees at which the source still shows anywhere in the lens at this azimuth, to
    /// a tenth of a degree; `None` where it shows at none.
    pub fn highest_glare_deg(&self, source: &Seen, camera_distance_m: f64) -> Option<f64> {
        let samples = self.samples(if source.azimuth_deg < 0.0 { -1.0 } else { 1.0 });
        let steps = (HIGHEST_DEG / STEP_DEG).round() as i32;
        (-steps..steps).rev().map(|step| f64::from(step) / (1.0 / STEP_DEG)).find(|elevation_deg| {
            let raised = Seen { elevation_deg: *elevation_deg, ..*source };
            hits(&samples, &raised, camera_distance_m).next().is_some()
        })
    }
}

/// The samples that mirror the source into the lens of the camera.
fn hits<'a>(
    samples: &'a [(DVec3, DVec3)],
    source: &Seen,
    camera_distance_m: f64,
) -> impl Iterator<Item = &'a (DVec3, DVec3)> {
    let camera = DVec3::Z * camera_distance_m;
    let towards = direction(source.azimuth_deg, source.elevation_deg);
    let (middle, radius2) = (towards * source.distance_m, (source.diameter_m / 2.0).powi(2));
    samples.iter().filter(move |(at, normal)| {
        let to_camera = (camera - *at).normalize_or_zero();
        let facing = normal.dot(to_camera);
        let mirrored = *normal * (2.0 * facing) - to_camera;
        let rate = mirrored.dot(towards);
        if facing <= 0.0 || rate <= 1e-12 {
            return false;
        }
        let off = middle - *at;
        let reached = mirrored * (off.dot(towards) / rate) - off;
        off.dot(towards) > 0.0 && reached.length_squared() <= radius2
    })
}
