//! Lamps mirrored in glasses: the lens of the glasses as a piece of a sphere, sampled, each ray from the camera reflected.

use std::f64::consts::PI;
use std::num::NonZeroUsize;
use std::sync::{Arc, LazyLock};

use crate::geometry::DVec3;
use crate::kept::Kept;

/// Samples along each side of the lens, its edges included.
const SAMPLES: usize = 61;
/// Samples along each side of a patch.
const PATCH: usize = 8;
/// Lenses and places of the camera that are kept: a search moves lamps much more often than the camera.
const MIRRORS_KEPT: NonZeroUsize = NonZeroUsize::MIN.saturating_add(3);
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
    /// How the lens on the source's side mirrors for a camera level with the eyes.
    fn mirror(&self, source: &Seen, camera_distance_m: f64) -> Arc<Mirror> {
        static MIRRORS: LazyLock<Kept<[u64; 7], Mirror>> = LazyLock::new(|| Kept::new(MIRRORS_KEPT));
        let side = if source.azimuth_deg < 0.0 { -1.0 } else { 1.0 };
        let Self { pantoscopic_tilt_deg, wrap_deg, front_radius_m, width_m, height_m } = *self;
        let key =
            [pantoscopic_tilt_deg, wrap_deg, front_radius_m, width_m, height_m, side, camera_distance_m];
        MIRRORS.get(key.map(f64::to_bits), || Mirror::new(self, side, camera_distance_m))
    }

    /// Part of the lens in which a camera level with the eyes sees the source, 0 to 1.
    pub fn glare_fraction(&self, source: &Seen, camera_distance_m: f64) -> f64 {
        let mirror = self.mirror(source, camera_distance_m);
        let towards = direction(source.azimuth_deg, source.elevation_deg);
        let shown: usize =
            mirror.near(source).map(|(patch, nearest)| patch.hits(towards, nearest, source).count()).sum();
        shown as f64 / (SAMPLES * SAMPLES) as f64
    }

    /// The largest elevation below 60 degrees at which the source still shows anywhere in the lens at this azimuth, to
    /// a tenth of a degree; `None` where it shows at none.
    pub fn highest_glare_deg(&self, source: &Seen, camera_distance_m: f64) -> Option<f64> {
        let mirror = self.mirror(source, camera_distance_m);
        let near: Vec<(&Patch, f64)> = mirror.near(source).collect();
        let steps = (HIGHEST_DEG / STEP_DEG).round() as i32;
        (-steps..steps).rev().map(|step| f64::from(step) / (1.0 / STEP_DEG)).find(|elevation_deg| {
            let towards = direction(source.azimuth_deg, *elevation_deg);
            near.iter().any(|(patch, nearest)| patch.hits(towards, *nearest, source).next().is_some())
        })
    }
}

/// A ray from the camera after the lens has mirrored it; the middle of the lens is the origin.
struct Ray {
    /// Where on the lens.
    at_m: DVec3,
    mirrored: DVec3,
}

/// Neighbouring rays and the cone that holds their directions.
struct Patch {
    rays: Vec<Ray>,
    axis: DVec3,
    /// Half the angle of the cone, radians.
    spread: f64,
}

/// A lens and a camera in front of it.
struct Mirror {
    patches: Vec<Patch>,
    /// From the middle of the lens to its farthest sample, m.
    reach_m: f64,
}

impl Mirror {
    fn new(glasses: &Glasses, side: f64, camera_distance_m: f64) -> Self {
        let middle = direction(glasses.wrap_deg * side, -glasses.pantoscopic_tilt_deg);
        let across = DVec3::Y.cross(middle).normalize_or(DVec3::X);
        let up = middle.cross(across);
        let radius = glasses.front_radius_m;
        let along = |size: f64, i: usize| size * (i as f64 / (SAMPLES - 1) as f64 - 0.5) / radius;
        let camera = DVec3::Z * camera_distance_m;
        let ray = |(i, j): (usize, usize)| {
            let (x, y) = (along(glasses.width_m, i), along(glasses.height_m, j));
            let inward = (1.0 - x * x - y * y).max(0.0).sqrt();
            let normal = middle * inward + across * x + up * y;
            let at_m = (normal - middle) * radius;
            let to_camera = (camera - at_m).normalize_or_zero();
            let facing = normal.dot(to_camera);
            (facing > 0.0).then(|| Ray { at_m, mirrored: normal * (2.0 * facing) - to_camera })
        };
        let starts = || (0..SAMPLES).step_by(PATCH);
        let to = |from: usize| from..(from + PATCH).min(SAMPLES);
        let patches = starts().flat_map(|i| starts().map(move |j| (i, j))).map(|(i, j)| {
            let rays = to(i).flat_map(|i| to(j).map(move |j| (i, j))).filter_map(ray);
            Patch::new(rays.collect())
        });
        let patches: Vec<Patch> = patches.collect();
        let reach_m =
            patches.iter().flat_map(|patch| &patch.rays).map(|ray| ray.at_m.length()).fold(0.0, f64::max);
        Self { patches, reach_m }
    }

    /// Each patch, with the least cosine between its axis and the way to the source at which it can show the source.
    fn near(&self, source: &Seen) -> impl Iterator<Item = (&Patch, f64)> {
        // Seen from anywhere on the lens the source lies within this angle of its middle as seen from the origin.
        let radius_m = source.diameter_m / 2.0 + self.reach_m;
        let wide = if radius_m < source.distance_m { (radius_m / source.distance_m).asin() } else { PI };
        self.patches.iter().map(move |patch| (patch, (patch.spread + wide).min(PI).cos() - 1e-9))
    }
}

impl Patch {
    fn new(rays: Vec<Ray>) -> Self {
        let axis = rays.iter().map(|ray| ray.mirrored).sum::<DVec3>().normalize_or(DVec3::Z);
        let spread = rays.iter().map(|ray| ray.mirrored.angle_between(axis)).fold(0.0, f64::max);
        Self { rays, axis, spread }
    }

    /// The rays that reach a source in this direction.
    fn hits(&self, towards: DVec3, nearest: f64, source: &Seen) -> impl Iterator<Item = &Ray> {
        let (middle_m, radius2) = (towards * source.distance_m, (source.diameter_m / 2.0).powi(2));
        let rays = if self.axis.dot(towards) < nearest { &[] } else { self.rays.as_slice() };
        rays.iter().filter(move |ray| {
            let rate = ray.mirrored.dot(towards);
            let off = middle_m - ray.at_m;
            let ahead_m = off.dot(towards);
            rate > 1e-12
                && ahead_m > 0.0
                && (ray.mirrored * (ahead_m / rate) - off).length_squared() <= radius2
        })
    }
}
