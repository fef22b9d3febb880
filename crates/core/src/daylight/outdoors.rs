//! Light outdoors by the height of the sun: clear and overcast skies, and how they fade below the horizon.

use std::f64::consts::PI;
use std::sync::OnceLock;

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::geometry::DVec3;
use crate::photometry::sky;

/// Light on level ground at sunset and where civil twilight ends, lx (usual figures, no source).
const AT_SUNSET_LX: f64 = 400.0;
const AT_DUSK_LX: f64 = 3.0;
/// Where civil twilight ends, degrees.
const CIVIL_DEG: f64 = -6.0;
/// A day of the year on which the sun is as far as in the mean.
pub const MEAN_DAY: u16 = 94;

/// The sky.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum Sky {
    /// No cloud.
    Clear,
    /// Cloud all over.
    Overcast,
}

/// Straight from the sun under a clear sky, on a surface that faces it, lx: 127.5 klx (1 + 0.034 cos(2 pi (J - 2) / 365))
/// e^(-0.21 / sin e) on day J of the year (IES daylight availability, RP-21, from memory).
pub fn direct_lx(elevation_deg: f64, day_of_year: u16) -> f64 {
    if elevation_deg <= 0.0 {
        return 0.0;
    }
    let of_year = 1.0 + 0.034 * (2.0 * PI * (f64::from(day_of_year) - 2.0) / 365.0).cos();
    127_500.0 * of_year * (-0.21 / elevation_deg.to_radians().sin()).exp()
}

/// From the sky alone on level ground, lx: 0.8 + 15.5 sqrt(sin e) klx clear, 0.3 + 21 sin e klx overcast (IES daylight
/// availability, RP-21, from memory); below the horizon it falls by even parts to 3 lx where civil twilight ends, and on.
pub fn level_lx(sky: Sky, elevation_deg: f64) -> f64 {
    let at_horizon = match sky {
        Sky::Clear => 800.0,
        Sky::Overcast => 300.0,
    };
    if elevation_deg <= 0.0 {
        let part = elevation_deg / CIVIL_DEG;
        return at_horizon * (AT_DUSK_LX / AT_SUNSET_LX).powf(part);
    }
    let sin = elevation_deg.to_radians().sin();
    match sky {
        Sky::Clear => at_horizon + 15_500.0 * sin.sqrt(),
        Sky::Overcast => at_horizon + 21_000.0 * sin,
    }
}

/// A sky with its sun, as luminances by direction.
#[derive(Debug, Clone, Copy)]
pub struct SkyDome {
    sky: Sky,
    /// Towards the sun, unit vector with z up.
    to_sun: DVec3,
    /// From the sky alone on level ground, lx.
    level_lx: f64,
    /// Straight from the sun on a surface that faces it, lx.
    direct_lx: f64,
    /// Luminance of the zenith, cd/m2.
    zenith_cd_m2: f64,
}

impl SkyDome {
    /// The sky under a sun in a direction, on a day of the year.
    pub fn new(sky: Sky, to_sun: DVec3, day_of_year: u16) -> Self {
        let elevation_deg = to_sun.z.clamp(-1.0, 1.0).asin().to_degrees();
        let level_lx = level_lx(sky, elevation_deg);
        let direct_lx = if sky == Sky::Clear { direct_lx(elevation_deg, day_of_year) } else { 0.0 };
        let zenith_cd_m2 = match sky {
            Sky::Overcast => 9.0 * level_lx / (7.0 * PI),
            Sky::Clear => level_lx / clear_level_parts(elevation_deg),
        };
        Self { sky, to_sun, level_lx, direct_lx, zenith_cd_m2 }
    }

    /// The same sky with its sun hidden.
    pub fn without_sun(self) -> Self {
        Self { direct_lx: 0.0, ..self }
    }

    /// Towards the sun, unit vector with z up.
    pub fn to_sun(&self) -> DVec3 {
        self.to_sun
    }

    /// Straight from the sun on a surface that faces it, lx.
    pub fn direct_lx(&self) -> f64 {
        self.direct_lx
    }

    /// Sky and sun together on level ground, lx.
    pub fn on_ground_lx(&self) -> f64 {
        self.level_lx + self.direct_lx * self.to_sun.z.max(0.0)
    }

    /// Luminance in a direction, unit vector with z up, cd/m2: the sky over the horizon, what stands opposite up to `horizon_deg`,
    /// the ground below.
    pub fn luminance_cd_m2(&self, direction: DVec3, horizon_deg: f64) -> f64 {
        let ground = sky::GROUND * self.on_ground_lx() / PI;
        if direction.z <= 0.0 {
            return ground;
        }
        if direction.z < horizon_deg.to_radians().sin() {
            // A wall gets half of what the ground gets. Fogon's own rule.
            return ground / 2.0;
        }
        self.zenith_cd_m2
            * match self.sky {
                Sky::Overcast => (1.0 + 2.0 * direction.z) / 3.0,
                Sky::Clear => clear_part(direction, self.to_sun),
            }
    }
}

/// Luminance of a clear sky as a part of its zenith's: the gradation 1 - e^(-0.32 / cos Z) and the indicatrix 1 + 10 (e^(-3 c) -
/// e^(-3 pi / 2)) + 0.45 cos(c)^2, Z from the zenith and c from the sun, each over its value at the zenith (CIE S 011 / ISO 15469,
/// clear sky 12, from memory).
fn clear_part(direction: DVec3, to_sun: DVec3) -> f64 {
    let gradation = |cos: f64| 1.0 - (-0.32 / cos.max(1e-3)).exp();
    let indicatrix = |angle: f64| {
        let cos = angle.cos();
        1.0 + 10.0 * ((-3.0 * angle).exp() - (-1.5 * PI).exp()) + 0.45 * cos * cos
    };
    let from_sun = direction.dot(to_sun).clamp(-1.0, 1.0).acos();
    let sun_from_zenith = to_sun.z.clamp(-1.0, 1.0).acos();
    gradation(direction.z) / gradation(1.0) * indicatrix(from_sun) / indicatrix(sun_from_zenith)
}

/// Elevations for which the light of a clear sky of unit zenith is kept, degrees apart.
const STEP_DEG: f64 = 2.5;
/// Rings and sectors of the sum over the sky.
const RINGS: usize = 30;
const SECTORS: usize = 72;

/// Light on level ground under a clear sky whose zenith has a luminance of 1, by the sun's elevation.
fn clear_level_parts(elevation_deg: f64) -> f64 {
    static TABLE: OnceLock<Vec<f64>> = OnceLock::new();
    let table = TABLE.get_or_init(|| {
        let count = (90.0 / STEP_DEG) as usize + 1;
        (0..count).map(|i| clear_level_sum(i as f64 * STEP_DEG)).collect()
    });
    let at = (elevation_deg.clamp(0.0, 90.0) / STEP_DEG).min(table.len() as f64 - 1.0);
    let low = (at as usize).min(table.len() - 2);
    table[low] + (table[low + 1] - table[low]) * (at - low as f64)
}

fn clear_level_sum(elevation_deg: f64) -> f64 {
    let (sin, cos) = elevation_deg.to_radians().sin_cos();
    let to_sun = DVec3::new(0.0, cos, sin);
    let mut sum = 0.0;
    for ring in 0..RINGS {
        // Rings of equal parts of the sine: of equal solid angle.
        let z = (ring as f64 + 0.5) / RINGS as f64;
        let flat = (1.0 - z * z).sqrt();
        for sector in 0..SECTORS {
            let (x, y) = (2.0 * PI * (sector as f64 + 0.5) / SECTORS as f64).sin_cos();
            sum += z * clear_part(DVec3::new(flat * x, flat * y, z), to_sun);
        }
    }
    sum * 2.0 * PI / (RINGS * SECTORS) as f64
}
