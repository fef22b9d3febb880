//! What carries things.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::common::Common;

/// A stand, tripod, boom or clamp.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct GearSupport {
    /// What every kind has.
    #[serde(flatten)]
    pub common: Common,
    /// Lowest height of what it carries, m.
    #[schema(minimum = 0.0, maximum = 5.0)]
    pub height_min_m: f64,
    /// Greatest height, m.
    #[schema(minimum = 0.05, maximum = 5.0)]
    pub height_max_m: f64,
    /// Radius of the circle of the feet, m.
    #[schema(minimum = 0.02, maximum = 2.0)]
    pub foot_radius_m: f64,
    /// What it can carry, kg.
    #[schema(minimum = 0.05, maximum = 200.0)]
    pub payload_kg: f64,
    /// Reach of its arm from the column, m (0 = no arm).
    #[serde(default)]
    #[schema(minimum = 0.0, maximum = 4.0)]
    pub reach_m: f64,
    /// On wheels.
    #[serde(default)]
    pub castors: bool,
}
