//! Gear that matters by what it offers and needs.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::common::Common;

/// Gear that matters by what it offers and needs.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct GearThing {
    /// What every kind has.
    #[serde(flatten)]
    pub common: Common,
    /// Energy, Wh.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.0, maximum = 100_000.0)]
    pub energy_wh: Option<f64>,
    /// Capacity, GB.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.0, maximum = 100_000.0)]
    pub capacity_gb: Option<f64>,
    /// Writing speed that a card keeps up, MB/s.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.5, maximum = 20_000.0)]
    pub write_mb_s: Option<f64>,
    /// Noise of its microphone input, dBu, A-weighted (EIN).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = -140.0, maximum = -60.0)]
    pub input_noise_dbu: Option<f64>,
    /// Level at its input that fills the scale at no gain, dBu.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = -40.0, maximum = 40.0)]
    pub full_scale_dbu: Option<f64>,
    /// Most gain of its microphone input, dB.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.0, maximum = 100.0)]
    pub gain_max_db: Option<f64>,
}
