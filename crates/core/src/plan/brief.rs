//! What is given: the room, the person, the purpose, what is owned, what can be spent.

use std::collections::BTreeMap;

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::{Camera, FurnitureAt, Gear, Id, Light, Microphone, Point2, Point3, ReadingId, Schools, Seat};
use crate::units::UnitSystem;

/// Everything a person tells before anything is chosen.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Brief {
    /// Units to read and print in; also decides the mains assumed.
    #[serde(default)]
    pub units: UnitSystem,
    /// The room.
    pub room: Room,
    /// Who is filmed.
    pub person: Person,
    /// What it is for.
    pub purpose: Purpose,
    /// Preferences that differ from the defaults.
    #[serde(default)]
    pub schools: Schools,
    /// What is owned (or wanted, or ruled out), by id.
    #[serde(default)]
    pub gear: BTreeMap<Id, Gear>,
    /// What may be spent.
    #[serde(default)]
    pub money: Money,
    /// How the corner stands now.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub today: Option<Today>,
    /// Readings that were measured; each replaces the computed value.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub measured: BTreeMap<ReadingId, f64>,
}

/// The room as measured.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Room {
    /// Corners of the floor, counter-clockwise seen from above, from the back-left corner at (0, 0), m. A
    /// rectangle: back-left, back-right, front-right, front-left.
    #[schema(min_items = 4, max_items = 4)]
    pub floor_m: Vec<Point2>,
    /// Ceiling height, m.
    #[schema(minimum = 1.8, maximum = 8.0)]
    pub height_m: f64,
    /// Bearing of true north in the plan, degrees clockwise from the direction away from the back wall.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.0, exclusive_maximum = 360.0)]
    pub north_deg: Option<f64>,
    /// Doors and windows.
    #[serde(default)]
    pub openings: BTreeMap<Id, Opening>,
    /// Furniture.
    #[serde(default)]
    pub furniture: BTreeMap<Id, Furniture>,
    /// What is known of the surfaces: `wall-0` to `wall-3`, `floor`, `ceiling`.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub surfaces: BTreeMap<Id, Surface>,
    /// The mains; missing values follow the unit system.
    #[serde(default)]
    pub mains: Mains,
}

/// A door or a window in a wall.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Opening {
    /// Door or window.
    pub kind: OpeningKind,
    /// The wall: 0 back, 1 right, 2 front, 3 left.
    #[schema(maximum = 3)]
    pub wall: u8,
    /// From the wall's first corner to the near edge, m.
    #[schema(minimum = 0.0, maximum = 50.0)]
    pub from_m: f64,
    /// Width, m.
    #[schema(minimum = 0.2, maximum = 20.0)]
    pub width_m: f64,
    /// Height of the lower edge, m (0 for a door).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.0, maximum = 6.0)]
    pub sill_m: Option<f64>,
    /// Height of the opening itself, m (a door 2.0, a window 1.2).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.2, maximum = 8.0)]
    pub height_m: Option<f64>,
    /// How a door opens; hinges are named as seen from inside, facing the door (default in-left).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub swing: Option<Swing>,
}

/// Door or window.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum OpeningKind {
    /// A door.
    Door,
    /// A window.
    Window,
}

/// How a door opens.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum Swing {
    /// Into the room, hinged on the left.
    InLeft,
    /// Into the room, hinged on the right.
    InRight,
    /// Out of the room.
    Out,
    /// Along the wall.
    Sliding,
}

/// A piece of furniture.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Furniture {
    /// What it is.
    pub kind: FurnitureKind,
    /// Middle of its footprint and the height of its foot, m.
    pub position_m: Point3,
    /// Bearing its front faces, degrees.
    #[serde(default)]
    #[schema(minimum = 0.0, exclusive_maximum = 360.0)]
    pub bearing_deg: f64,
    /// Width, depth, height, m.
    pub size_m: Size3,
    /// Whether it must stay where it is (default: it may be moved).
    #[serde(default)]
    pub fixed: bool,
}

/// Width, depth and height, m.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
pub struct Size3(pub [f64; 3]);

impl utoipa::PartialSchema for Size3 {
    fn schema() -> utoipa::openapi::RefOr<utoipa::openapi::Schema> {
        use utoipa::openapi::schema::{ArrayBuilder, ObjectBuilder, Type};
        let side = ObjectBuilder::new().schema_type(Type::Number).minimum(Some(0.02)).maximum(Some(10.0));
        ArrayBuilder::new().items(side).min_items(Some(3)).max_items(Some(3)).into()
    }
}
impl ToSchema for Size3 {}

/// The usual pieces; what they absorb and whether one can sit at them follows from the kind.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
#[allow(missing_docs)]
pub enum FurnitureKind {
    Desk,
    Table,
    Chair,
    Shelf,
    Bookcase,
    Bed,
    Sofa,
    Wardrobe,
    Cabinet,
    Radiator,
    Plant,
    Box,
}

/// What is known of a surface.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Surface {
    /// Id of a material of the absorption table, as `carpet_thin`.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub material: Option<String>,
    /// Diffuse reflectance for light.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.0, maximum = 0.95)]
    pub reflectance: Option<f64>,
}

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

/// Who is filmed.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Person {
    /// Stature, m.
    #[schema(minimum = 0.8, maximum = 2.3)]
    pub stature_m: f64,
    /// Seated or standing.
    pub posture: Posture,
    /// Height of the compressed seat, m (0.45).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.2, maximum = 1.1)]
    pub seat_height_m: Option<f64>,
    /// Furniture the person sits at, if any.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub seat_at: Option<Id>,
    /// Wears glasses.
    #[serde(default)]
    pub glasses: bool,
    /// How far the head comes forward while talking, m (0.05).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.0, maximum = 0.5)]
    pub lean_m: Option<f64>,
    /// The camera is trusted to follow the face.
    #[serde(default)]
    pub face_tracking: bool,
}

/// Seated or standing.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
#[allow(missing_docs)]
pub enum Posture {
    Seated,
    Standing,
}

/// What the recording is for: sets shot size, orientation, gaze and its rows of the band table.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum Purpose {
    /// A lesson or channel: medium close-up, landscape, eyes in the lens.
    TalkToLens,
    /// A vertical short: medium shot, portrait, shoulders within the width.
    VerticalShort,
    /// An audition or application tape: eyes just beside the lens, plain wall, level camera.
    AuditionTape,
}

/// What may be spent.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Money {
    /// The sum, in whatever currency.
    #[serde(default)]
    #[schema(minimum = 0.0, maximum = 10_000_000.0)]
    pub budget: f64,
    /// A label printed beside sums.
    #[serde(default)]
    #[schema(max_length = 8)]
    pub currency: String,
}

/// How the corner stands now: any part of a layout.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Today {
    /// Where the person sits.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub seat: Option<Seat>,
    /// Where the camera stands and how it is set.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub camera: Option<Camera>,
    /// Lights in use.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub lights: Option<BTreeMap<Id, Light>>,
    /// Microphone in use.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub microphone: Option<Microphone>,
    /// Furniture standing elsewhere than the room says.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub furniture: Option<BTreeMap<Id, FurnitureAt>>,
}

impl Room {
    /// The floor outline, counter-clockwise, m.
    pub fn outline(&self) -> Vec<glam::DVec2> {
        self.floor_m.iter().map(|p| (*p).into()).collect()
    }

    /// Width (along the back wall), depth and height, m.
    pub fn dimensions_m(&self) -> [f64; 3] {
        let corner = self.floor_m.get(2).map_or([0.0, 0.0], |p| p.0);
        [corner[0], corner[1], self.height_m]
    }
}

impl Opening {
    /// Middle of the opening on the floor line of its wall, m.
    pub fn middle_m(&self, floor: &[glam::DVec2]) -> glam::DVec2 {
        let wall = usize::from(self.wall);
        let (start, end) = (floor[wall % floor.len()], floor[(wall + 1) % floor.len()]);
        start + (end - start).normalize_or_zero() * (self.from_m + self.width_m / 2.0)
    }

    /// Height of the lower edge, m: as given, else 0 for a door and 0.9 for a window.
    pub fn sill_or_usual_m(&self) -> f64 {
        self.sill_m.unwrap_or(if self.kind == OpeningKind::Door { 0.0 } else { 0.9 })
    }

    /// Height of the opening, m: as given, else 2.0 for a door and 1.2 for a window.
    pub fn height_or_usual_m(&self) -> f64 {
        self.height_m.unwrap_or(if self.kind == OpeningKind::Door { 2.0 } else { 1.2 })
    }

    /// The way a door opens; in-left where nothing is said.
    pub fn swing_or_usual(&self) -> Swing {
        self.swing.unwrap_or(Swing::InLeft)
    }
}
