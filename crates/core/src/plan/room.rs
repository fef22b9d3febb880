//! The room as measured: floor, ceiling, openings, furniture, surfaces, mains.

mod furnishing;
mod furniture;
mod geometry;
mod mains;
mod noise;
mod opening;
mod overhead;
mod paint;
mod socket;
mod surface;

use std::collections::BTreeMap;

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::{Id, Point2};

pub use furnishing::Furnishing;
pub use furniture::{Furniture, FurnitureKind, Size3};
pub use geometry::WALL_NAMES;
pub use mains::Mains;
pub use noise::{Noise, NoiseKind};
pub use opening::{Curtain, Glazing, Opening, OpeningKind, Swing};
pub use overhead::{Beam, Slope};
pub use socket::Socket;
pub use surface::{FlatSurface, Look, Surface};

/// The room as measured.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Room {
    /// Corners of the floor, counter-clockwise seen from above, m: the back wall lies on y = 0, the leftmost corner on
    /// x = 0. A rectangle: back-left, back-right, front-right, front-left.
    #[schema(min_items = 3, max_items = 12)]
    pub floor_m: Vec<Point2>,
    /// Ceiling height, m.
    #[schema(minimum = 1.8, maximum = 8.0)]
    pub height_m: f64,
    /// Sloping parts of the ceiling.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub slopes: BTreeMap<Id, Slope>,
    /// Beams under the ceiling.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub beams: BTreeMap<Id, Beam>,
    /// Bearing of true north in the plan, degrees clockwise from the direction away from the back wall.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.0, exclusive_maximum = 360.0)]
    pub north_deg: Option<f64>,
    /// How far that bearing may be off, degrees (10, a phone's compass).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.0, maximum = 45.0)]
    pub north_within_deg: Option<f64>,
    /// Doors and windows.
    #[serde(default)]
    pub openings: BTreeMap<Id, Opening>,
    /// Furniture.
    #[serde(default)]
    pub furniture: BTreeMap<Id, Furniture>,
    /// What is known of the surfaces: `wall-0` and on, in the order of the corners, `floor`, `ceiling`.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub surfaces: BTreeMap<Id, Surface>,
    /// What stands and hangs in the room, in one word: what is not told of its surfaces is filled in from it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub furnishing: Option<Furnishing>,
    /// What can be heard in the room when nobody speaks.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub noises: BTreeMap<Id, Noise>,
    /// Sockets that gear can be plugged into.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub sockets: BTreeMap<Id, Socket>,
    /// The mains; missing values follow the unit system.
    #[serde(default)]
    pub mains: Mains,
}
