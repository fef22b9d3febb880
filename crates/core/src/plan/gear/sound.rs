//! Microphones, and what takes sound out of a room.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::common::Common;

/// How a microphone is used.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
#[allow(missing_docs)]
pub enum Mounting {
    BuiltIn,
    OnCamera,
    Boom,
    Lavalier,
    Desk,
    Headset,
}

/// A microphone.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct GearMicrophone {
    /// What every kind has.
    #[serde(flatten)]
    pub common: Common,
    /// How it is used.
    pub mounting: Mounting,
    /// First-order pattern: 1 omni, 0.5 cardioid, 0.25 hypercardioid, 0 figure of eight.
    #[schema(minimum = 0.0, maximum = 1.0)]
    pub pattern_a: f64,
    /// Length of the interference tube, m (0).
    #[serde(default)]
    #[schema(minimum = 0.0, maximum = 1.0)]
    pub tube_m: f64,
    /// Self-noise, dBA.
    #[schema(minimum = 0.0, maximum = 60.0)]
    pub self_noise_dba: f64,
    /// Sensitivity, mV/Pa.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.1, maximum = 500.0)]
    pub sensitivity_mv_pa: Option<f64>,
    /// No cable to its input.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub wireless: bool,
}

/// Something that takes sound out of the room: a panel, a curtain, blankets, a rug.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct GearTreatment {
    /// What every kind has.
    #[serde(flatten)]
    pub common: Common,
    /// Row of the absorption table, as `blanket_pleated`.
    pub material: String,
    /// Width as it hangs or lies, m.
    #[schema(minimum = 0.1, maximum = 10.0)]
    pub width_m: f64,
    /// Height as it hangs, or length as it lies, m.
    #[schema(minimum = 0.1, maximum = 10.0)]
    pub height_m: f64,
    /// Thickness of a porous layer, m; with its flow resistivity its absorption is worked out in place of the row's.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.005, maximum = 1.0)]
    pub thickness_m: Option<f64>,
    /// Gap between it and the wall, m (0).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.0, maximum = 2.0)]
    pub air_gap_m: Option<f64>,
    /// Flow resistivity of a porous layer, Pa s/m2.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 1000.0, maximum = 100_000.0)]
    pub flow_resistivity_pa_s_m2: Option<f64>,
}

impl GearTreatment {
    /// Area as it hangs, m2.
    pub fn area_m2(&self) -> f64 {
        self.width_m * self.height_m
    }

    /// It lies on the floor rather than hangs.
    pub fn lies(&self) -> bool {
        crate::material::material(&self.material).is_some_and(|row| row.kind == crate::material::Use::Floor)
    }
}
