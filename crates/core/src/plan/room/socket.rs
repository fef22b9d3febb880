//! Sockets of the mains.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::plan::Point3;

/// A socket of the mains.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Socket {
    /// Where it is, m.
    pub position_m: Point3,
    /// The breaker behind it, by whatever name: sockets of one name share one (all share one).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(min_length = 1, max_length = 40)]
    pub circuit: Option<String>,
    /// How many plugs it takes (2).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 1, maximum = 12)]
    pub outlets: Option<u32>,
}

impl Socket {
    /// How many plugs it takes; two where nobody says.
    pub fn plugs(&self) -> usize {
        self.outlets.map_or(2, |outlets| outlets as usize)
    }
}
