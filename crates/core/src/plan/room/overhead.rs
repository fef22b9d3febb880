//! Slopes and beams.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::plan::Point2;

/// A part of the ceiling that comes down to a wall.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Slope {
    /// The wall it comes down to.
    #[schema(maximum = 11)]
    pub wall: u8,
    /// From the wall's first corner to where it begins, m (0).
    #[serde(default)]
    #[schema(minimum = 0.0, maximum = 50.0)]
    pub from_m: f64,
    /// Length along the wall, m (to the wall's end).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.1, maximum = 50.0)]
    pub length_m: Option<f64>,
    /// Height at the wall, m.
    #[schema(minimum = 0.0, maximum = 7.9)]
    pub knee_m: f64,
    /// How far from the wall, level, it meets the ceiling, m.
    #[schema(minimum = 0.1, maximum = 20.0)]
    pub run_m: f64,
}

/// A beam under the ceiling.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Beam {
    /// Where its middle line begins, m.
    pub from_m: Point2,
    /// Where its middle line ends, m.
    pub to_m: Point2,
    /// Width, m.
    #[schema(minimum = 0.02, maximum = 2.0)]
    pub width_m: f64,
    /// How far it hangs below the ceiling, m.
    #[schema(minimum = 0.02, maximum = 3.0)]
    pub drop_m: f64,
}
