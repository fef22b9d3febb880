//! Two recorders.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::calc::Calculate;
use crate::problem::Problem;
use crate::sound::record::drift;

#[derive(Deserialize, ToSchema)]
pub(in crate::calc) struct SyncDrift {
    #[schema(minimum = 0.0, maximum = 10_000.0)]
    drift_ppm: f64,
    #[schema(minimum = 0.0, maximum = 100_000.0)]
    minutes: f64,
    #[schema(minimum = 1.0, maximum = 240.0)]
    frame_rate_hz: f64,
}

#[derive(Serialize)]
pub(in crate::calc) struct Drift {
    drift_ms: f64,
    drift_frames: f64,
}

impl Calculate for SyncDrift {
    const NAME: &'static str = "sync-drift";
    const FORMULA: &'static str = "ppm x 10^-6 x time; x frame rate";
    const SOURCE: &'static str = "definition";
    type Output = Drift;

    fn calculate(self) -> Result<Drift, Problem> {
        let (drift_ms, drift_frames) = drift(self.drift_ppm, self.minutes, self.frame_rate_hz);
        Ok(Drift { drift_ms, drift_frames })
    }
}

crate::shape!(SyncDrift);
