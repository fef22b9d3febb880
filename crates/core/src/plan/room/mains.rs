//! The mains.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// The mains and the breaker behind the sockets of this room.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Mains {
    /// Volts.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 90.0, maximum = 260.0)]
    pub voltage_v: Option<f64>,
    /// Hertz: 50 or 60.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 50.0, maximum = 60.0, multiple_of = 10.0)]
    pub frequency_hz: Option<f64>,
    /// Amperes of the breaker.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 1.0, maximum = 125.0)]
    pub breaker_a: Option<f64>,
}
