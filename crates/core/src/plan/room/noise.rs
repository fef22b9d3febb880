//! What makes a noise in a room, or comes in from the street.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::plan::Point3;

/// Something that makes a noise.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Noise {
    /// What it is.
    pub kind: NoiseKind,
    /// Where it stands, m; the street comes through the windows.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub position_m: Option<Point3>,
    /// Level 1 m from it in the open or as its maker tells it, dBA; of the street 2 m before the windows (usual for its
    /// kind).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.0, maximum = 110.0)]
    pub level_1m_dba: Option<f64>,
    /// The level was measured in this room, which gives its own part to it.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub measured_in_room: bool,
    /// It can be switched off, or carried out, for a take.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub can_stop: bool,
}

/// The usual noises.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
#[allow(missing_docs)]
pub enum NoiseKind {
    Computer,
    Fan,
    Fridge,
    Ventilation,
    Street,
    Other,
}

impl NoiseKind {
    /// Level usual for its kind, dBA (common figures, no source): at 1 m, of a street before the windows.
    pub fn usual_dba(self) -> f64 {
        match self {
            NoiseKind::Computer => 30.0,
            NoiseKind::Fan => 40.0,
            NoiseKind::Fridge => 38.0,
            NoiseKind::Ventilation => 31.0,
            NoiseKind::Street => 60.0,
            NoiseKind::Other => 35.0,
        }
    }
}
