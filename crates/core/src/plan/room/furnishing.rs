//! What stands and hangs in a room, in one word.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What stands and hangs in a room, for its sound.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum Furnishing {
    /// Hard walls and floor, hardly anything in it.
    Bare,
    /// A rug, curtains or a bed.
    Some,
    /// Carpet, heavy curtains, sofa or bed, full shelves.
    Much,
}

impl Furnishing {
    /// The time such a room rings, s; none where nothing is in it but its hard surfaces. Fogon's own rule, after what furnished
    /// rooms are measured to ring (0.3 to 0.6 s: common figures, no source).
    pub fn rings_s(self) -> Option<f64> {
        match self {
            Furnishing::Bare => None,
            Furnishing::Some => Some(0.5),
            Furnishing::Much => Some(0.35),
        }
    }
}
