//! Calculations of sound.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::{Calculate, Side};
use crate::material::{BANDS_HZ, Bands};
use crate::problem::{Code, Problem};
use crate::sound::level_at_distance_db;
use crate::sound::reverberation::{eyring_s, sabine_s};

#[derive(Deserialize, ToSchema)]
pub(super) struct LevelAtDistance {
    #[schema(minimum = -40.0, maximum = 200.0)]
    level_db: f64,
    #[schema(minimum = 0.02, maximum = 50.0)]
    at_distance_m: f64,
    #[schema(minimum = 0.02, maximum = 50.0)]
    wanted_distance_m: f64,
}

#[derive(Serialize)]
pub(super) struct Level {
    level_db: f64,
}

impl Calculate for LevelAtDistance {
    const NAME: &'static str = "level-at-distance";
    const FORMULA: &'static str = "L - 20 lg(wanted / at)";
    const SOURCE: &'static str = "inverse square law, free field";
    type Output = Level;

    fn calculate(self) -> Result<Level, Problem> {
        Ok(Level {
            level_db: level_at_distance_db(self.level_db, self.at_distance_m, self.wanted_distance_m),
        })
    }
}

#[derive(Deserialize, ToSchema)]
pub(super) struct Reverberation {
    #[schema(min_items = 3, max_items = 3)]
    dimensions_m: Vec<Side>,
    #[schema(min_items = 1)]
    surfaces: Vec<Surface>,
}

#[derive(Deserialize, ToSchema)]
struct Surface {
    #[schema(exclusive_minimum = 0.0, maximum = 15_000.0)]
    area_m2: f64,
    absorption: BandValues,
}

/// One number for each octave band, in and out.
#[derive(Deserialize, Serialize, ToSchema)]
struct BandValues {
    #[serde(rename = "125")]
    #[schema(minimum = 0.0, maximum = 1.0)]
    hz_125: f64,
    #[serde(rename = "250")]
    #[schema(minimum = 0.0, maximum = 1.0)]
    hz_250: f64,
    #[serde(rename = "500")]
    #[schema(minimum = 0.0, maximum = 1.0)]
    hz_500: f64,
    #[serde(rename = "1000")]
    #[schema(minimum = 0.0, maximum = 1.0)]
    hz_1000: f64,
    #[serde(rename = "2000")]
    #[schema(minimum = 0.0, maximum = 1.0)]
    hz_2000: f64,
    #[serde(rename = "4000")]
    #[schema(minimum = 0.0, maximum = 1.0)]
    hz_4000: f64,
}

impl From<Bands> for BandValues {
    fn from([hz_125, hz_250, hz_500, hz_1000, hz_2000, hz_4000]: Bands) -> Self {
        Self { hz_125, hz_250, hz_500, hz_1000, hz_2000, hz_4000 }
    }
}

impl From<&BandValues> for Bands {
    fn from(b: &BandValues) -> Self {
        [b.hz_125, b.hz_250, b.hz_500, b.hz_1000, b.hz_2000, b.hz_4000]
    }
}

#[derive(Serialize)]
pub(super) struct Times {
    sabine_s: BandValues,
    eyring_s: BandValues,
}

impl Calculate for Reverberation {
    const NAME: &'static str = "reverberation";
    const FORMULA: &'static str = "K = 24 ln 10 / 343; Sabine K V / A; Eyring K V / (-S ln(1 - A/S)); V = w d h, S = sum of areas, A = sum of area x absorption";
    const SOURCE: &'static str = "Sabine 1922; Eyring 1930; ISO 3382-2";
    type Output = Times;

    fn calculate(self) -> Result<Times, Problem> {
        let volume: f64 = self.dimensions_m.iter().map(|s| s.0).product();
        let surface: f64 = self.surfaces.iter().map(|s| s.area_m2).sum();
        let mut absorption = [0.0; 6];
        for part in &self.surfaces {
            for (sum, alpha) in absorption.iter_mut().zip(Bands::from(&part.absorption)) {
                *sum += part.area_m2 * alpha;
            }
        }
        for (band, m2) in BANDS_HZ.iter().zip(absorption) {
            let mean = m2 / surface;
            // All parts at 1 can sum to a hair below it: such a mean counts as met (1e-9 relative).
            if mean <= 0.0 || mean >= 1.0 - 1e-9 {
                let accepted = "a mean absorption above 0 and below 1 in this band";
                return Err(Problem::new(
                    format!("surfaces.absorption.{band}"),
                    mean,
                    accepted,
                    Code::OutOfRange,
                ));
            }
        }
        Ok(Times {
            sabine_s: absorption.map(|m2| sabine_s(volume, m2)).into(),
            eyring_s: absorption.map(|m2| eyring_s(volume, surface, m2)).into(),
        })
    }
}

crate::shape!(LevelAtDistance, Reverberation);
