//! The microphone and its place.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::usual_speed;
use crate::calc::Calculate;
use crate::problem::{Code, Problem};
use crate::sound::desk::{Comb, HARD, comb};
use crate::sound::gain::{Gain, preamplifier};
use crate::sound::level::level_at_distance_db;
use crate::sound::pattern::directivity;
use crate::sound::placement::above_frame;

#[derive(Deserialize, ToSchema)]
pub(in crate::calc) struct PolarPattern {
    #[schema(minimum = 0.0, maximum = 1.0)]
    pattern_a: f64,
}

#[derive(Serialize)]
pub(in crate::calc) struct Directivity {
    q: f64,
    di_db: f64,
    distance_factor: f64,
}

impl Calculate for PolarPattern {
    const NAME: &'static str = "polar-pattern";
    const FORMULA: &'static str =
        "p = a + (1 - a) cos theta; Q = 1/(a^2 + (1 - a)^2/3), 10 lg Q, distance factor sqrt Q";
    const SOURCE: &'static str = "Eargle, The Microphone Book (from memory)";
    type Output = Directivity;

    fn calculate(self) -> Result<Directivity, Problem> {
        let q = directivity(self.pattern_a);
        Ok(Directivity { q, di_db: 10.0 * q.log10(), distance_factor: q.sqrt() })
    }
}

#[derive(Deserialize, ToSchema)]
pub(in crate::calc) struct CombNotch {
    #[schema(minimum = 0.02, maximum = 50.0)]
    mouth_above_desk_m: f64,
    #[schema(minimum = 0.02, maximum = 50.0)]
    microphone_above_desk_m: f64,
    #[schema(minimum = 0.02, maximum = 50.0)]
    horizontal_m: f64,
    #[serde(default = "hard")]
    #[schema(minimum = 0.0, exclusive_maximum = 1.0)]
    reflection_factor: f64,
    #[serde(default = "usual_speed")]
    #[schema(minimum = 300.0, maximum = 400.0)]
    speed_m_s: f64,
}

fn hard() -> f64 {
    HARD
}

impl Calculate for CombNotch {
    const NAME: &'static str = "comb-notch";
    const FORMULA: &'static str = "e - d, c/(2 (e - d)), 20 lg(rho d / e); d straight, e by way of the desk";
    const SOURCE: &'static str = "two rays (Everest, Master Handbook of Acoustics, from memory)";
    type Output = Comb;

    fn calculate(self) -> Result<Comb, Problem> {
        Ok(comb(
            self.mouth_above_desk_m,
            self.microphone_above_desk_m,
            self.horizontal_m,
            self.reflection_factor,
            self.speed_m_s,
        ))
    }
}

#[derive(Deserialize, ToSchema)]
pub(in crate::calc) struct BoomPosition {
    #[schema(minimum = 0.0, maximum = 50.0)]
    camera_height_m: f64,
    #[schema(minimum = -90.0, maximum = 90.0)]
    camera_pitch_up_deg: f64,
    #[schema(minimum = 0.0, maximum = 50.0)]
    mouth_height_m: f64,
    #[schema(minimum = 0.02, maximum = 50.0)]
    mouth_distance_m: f64,
    #[schema(minimum = 0.5, maximum = 85.0)]
    half_vfov_deg: f64,
    #[schema(minimum = 0.0, maximum = 50.0)]
    margin_m: f64,
}

#[derive(Serialize)]
pub(in crate::calc) struct Boom {
    min_distance_m: f64,
    microphone_height_m: f64,
}

impl Calculate for BoomPosition {
    const NAME: &'static str = "boom-position";
    const FORMULA: &'static str =
        "along the normal of the picture's upper edge: depth of the mouth below it + margin";
    const SOURCE: &'static str = "plane geometry";
    type Output = Boom;

    fn calculate(self) -> Result<Boom, Problem> {
        let rise = self.mouth_height_m - self.camera_height_m;
        let found = above_frame(
            self.mouth_distance_m,
            rise,
            self.camera_pitch_up_deg,
            self.half_vfov_deg,
            self.margin_m,
        );
        let Some((min_distance_m, up)) = found else {
            let accepted = "a height at which the mouth is in the picture";
            return Err(Problem::new("mouth_height_m", self.mouth_height_m, accepted, Code::OutOfRange));
        };
        Ok(Boom { min_distance_m, microphone_height_m: self.mouth_height_m + up })
    }
}

#[derive(Deserialize, ToSchema)]
pub(in crate::calc) struct PreampGain {
    #[schema(minimum = -40.0, maximum = 200.0)]
    speech_level_1m_db: f64,
    #[schema(minimum = 0.02, maximum = 50.0)]
    distance_m: f64,
    #[schema(minimum = -200.0, maximum = 200.0)]
    crest_db: f64,
    #[schema(minimum = 0.001, maximum = 10_000.0)]
    sensitivity_mv_pa: f64,
    #[schema(minimum = -200.0, maximum = 200.0)]
    full_scale_dbu: f64,
    #[schema(minimum = -200.0, maximum = 200.0)]
    target_peak_dbfs: f64,
}

impl Calculate for PreampGain {
    const NAME: &'static str = "preamp-gain";
    const FORMULA: &'static str = "SPL = L1m - 20 lg r + crest; dBu = SPL - 94 + 20 lg(V/Pa) + 2.2185; gain = target - (dBu - full scale)";
    const SOURCE: &'static str = "unit arithmetic; 1 Pa taken as 94 dB, 0 dBu as 0.7746 V";
    type Output = Gain;

    fn calculate(self) -> Result<Gain, Problem> {
        let level = level_at_distance_db(self.speech_level_1m_db, 1.0, self.distance_m);
        Ok(preamplifier(
            level,
            self.crest_db,
            self.sensitivity_mv_pa,
            self.full_scale_dbu,
            self.target_peak_dbfs,
        ))
    }
}

crate::shape!(PolarPattern, CombNotch, BoomPosition, PreampGain);
