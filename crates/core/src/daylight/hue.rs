//! The colour of daylight: the sun's by its height, the sky's.

use std::sync::OnceLock;

use crate::colour::{Xy, planckian, spectrum_xy, xy_at};

/// The sun beyond the air, K (its effective temperature, from memory).
const SUN_K: f64 = 5772.0;
/// A clear sky away from the sun, K (common practice, no source: 10,000 to 15,000).
const CLEAR_SKY_K: f64 = 12_000.0;
/// Haze of clean air: its optical depth at 1 um, and how that goes with the wavelength (Angstrom's formula, from memory).
const HAZE: f64 = 0.1;
const HAZE_EXPONENT: f64 = -1.3;
/// Heights for which the sun's colour is kept, degrees apart.
const STEP_DEG: f64 = 1.0;

/// How much more air than overhead the light of a sun at a height comes through (Kasten and Young 1989, from memory).
fn air_mass(elevation_deg: f64) -> f64 {
    1.0 / (elevation_deg.to_radians().sin() + 0.505_72 * (elevation_deg + 6.079_95).powf(-1.6364))
}

/// Chromaticity of the light straight from the sun: a full radiator less what air (Rayleigh: 0.008735 L^-4.08, L in um) and haze
/// scatter (Leckner 1978, from memory).
fn sun_straight_xy(elevation_deg: f64) -> Xy {
    let mass = air_mass(elevation_deg);
    spectrum_xy(|nm| {
        let um = nm / 1000.0;
        let depth = 0.008_735 * um.powf(-4.08) + HAZE * um.powf(HAZE_EXPONENT);
        planckian(SUN_K, nm) * (-mass * depth).exp()
    })
}

/// Chromaticity of the sun's light at a height, degrees; below the horizon as on it.
pub fn sun_xy(elevation_deg: f64) -> Xy {
    static TABLE: OnceLock<Vec<Xy>> = OnceLock::new();
    let table = TABLE.get_or_init(|| {
        let count = (90.0 / STEP_DEG) as usize + 1;
        (0..count).map(|i| sun_straight_xy(i as f64 * STEP_DEG)).collect()
    });
    let at = elevation_deg.clamp(0.0, 90.0) / STEP_DEG;
    let low = (at as usize).min(table.len() - 2);
    let part = at - low as f64;
    std::array::from_fn(|axis| table[low][axis] * (1.0 - part) + table[low + 1][axis] * part)
}

/// Chromaticity of a clear sky.
pub fn clear_sky_xy() -> Xy {
    static XY: OnceLock<Xy> = OnceLock::new();
    *XY.get_or_init(|| xy_at(CLEAR_SKY_K, 0.0))
}
