//! What is chosen: seat, camera, lights, microphone, and what carries them.

use std::collections::BTreeMap;

use glam::DVec2;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::{Chromaticity, Cloth, Gel, Id, Point2, Point3};

/// A complete arrangement.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Layout {
    /// Where the person is.
    pub seat: Seat,
    /// Where the camera is and how it is set.
    pub camera: Camera,
    /// Lights and reflectors by id.
    #[serde(default)]
    pub lights: BTreeMap<Id, Light>,
    /// The microphone that records the voice.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub microphone: Option<Microphone>,
    /// What the person sees themselves on, beside the camera's own screen.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub screen: Option<Screen>,
    /// What hangs or stands behind the person.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub backdrop: Option<Backdrop>,
    /// Second angles: other cameras, or the same one afterwards.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub angles: BTreeMap<Id, Angle>,
    /// Furniture that has been moved.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub furniture: BTreeMap<Id, FurnitureAt>,
    /// What hangs or lies in the room against its echo.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub treatment: BTreeMap<Id, Treatment>,
}

/// The person's place.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Seat {
    /// Plumb under the mid-point of the eyes, m.
    pub position_m: Point2,
    /// Bearing of the chest, degrees.
    #[schema(minimum = 0.0, exclusive_maximum = 360.0)]
    pub bearing_deg: f64,
    /// Where the eyes look beside the lens, degrees, positive to camera right; 0 = into the lens.
    #[serde(default)]
    #[schema(minimum = -45.0, maximum = 45.0)]
    pub gaze_offset_deg: f64,
    /// Stays where it is: neither a hand, a fix, a free move nor another layout moves it.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub locked: bool,
}

/// Landscape or portrait.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
#[allow(missing_docs)]
pub enum Orientation {
    Landscape,
    Portrait,
}

/// The camera's place and settings.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Camera {
    /// Gear id of the body.
    pub body: Id,
    /// Gear id of the lens.
    pub lens: Id,
    /// Camera point (entrance pupil), m.
    pub position_m: Point3,
    /// Bearing of the optical axis, degrees.
    #[schema(minimum = 0.0, exclusive_maximum = 360.0)]
    pub bearing_deg: f64,
    /// Tilt, degrees, positive up.
    #[schema(minimum = -60.0, maximum = 60.0)]
    pub tilt_deg: f64,
    /// Landscape or portrait.
    pub orientation: Orientation,
    /// Focal length, mm, real.
    #[schema(minimum = 1.0, maximum = 600.0)]
    pub focal_length_mm: f64,
    /// Recorded over delivered width: the picture is cut out of the middle of what is recorded (1).
    #[serde(default = "full", skip_serializing_if = "is_full")]
    #[schema(minimum = 1.0, maximum = 2.0)]
    pub crop: f64,
    /// f-number, real.
    #[schema(minimum = 0.7, maximum = 64.0)]
    pub f_number: f64,
    /// Exposure time, s.
    #[schema(minimum = 0.0000625, maximum = 1.0)]
    pub shutter_s: f64,
    /// ISO setting.
    #[schema(minimum = 25.0, maximum = 409_600.0)]
    pub iso: f64,
    /// Neutral density, stops.
    #[serde(default)]
    #[schema(minimum = 0.0, maximum = 12.0)]
    pub nd_stops: f64,
    /// Frames per second.
    #[schema(minimum = 1.0, maximum = 240.0)]
    pub frame_rate_hz: f64,
    /// White-balance setting, K.
    #[schema(minimum = 1000.0, maximum = 25_000.0)]
    pub white_balance_k: f64,
    /// Distance from the camera point to the plane in focus, m.
    #[schema(minimum = 0.05, maximum = 50.0)]
    pub focus_distance_m: f64,
    /// What carries it.
    pub support: Support,
    /// Stays where it is: neither a hand, a fix, a free move nor another layout moves it.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub locked: bool,
}

/// What a light is for.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
#[allow(missing_docs)]
pub enum Role {
    Key,
    Fill,
    Back,
    Background,
    Practical,
}

impl Role {
    /// In the order their marks are laid.
    pub const IN_ORDER: [Role; 5] = [Role::Key, Role::Back, Role::Fill, Role::Background, Role::Practical];

    /// Letter of its mark on drawings, card and floor.
    pub fn letter(self) -> &'static str {
        match self {
            Role::Key => "K",
            Role::Fill => "F",
            Role::Back => "B",
            Role::Background => "G",
            Role::Practical => "P",
        }
    }
}

/// A light or reflector.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Light {
    /// Gear id.
    pub gear: Id,
    /// What it is for.
    pub role: Role,
    /// Middle of the emitting face, m; of the cloth where one hangs before it.
    pub position_m: Point3,
    /// Point it faces, m (the eyes). Turned to a wall or to the ceiling it lights by what comes back.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub aim_m: Option<Point3>,
    /// Dial, 0 to 1 (1).
    #[serde(default = "full")]
    #[schema(minimum = 0.0, maximum = 1.0)]
    pub dim: f64,
    /// Correlated colour temperature set, K.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 1000.0, maximum = 25_000.0)]
    pub cct_k: Option<f64>,
    /// A gel in front of it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub gel: Option<Gel>,
    /// A colour set on the lamp itself, in place of a temperature.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub colour: Option<Chromaticity>,
    /// A cloth or paper hung before it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub cloth: Option<Cloth>,
    /// What carries it.
    pub support: Support,
    /// Stays where it is: neither a hand, a fix, a free move nor another layout moves it.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub locked: bool,
}

fn is_zero(value: &f64) -> bool {
    *value == 0.0
}

fn full() -> f64 {
    1.0
}

#[allow(clippy::trivially_copy_pass_by_ref)]
fn is_full(value: &f64) -> bool {
    *value == 1.0
}

/// The microphone.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Microphone {
    /// Gear id.
    pub gear: Id,
    /// Capsule, aimed at the mouth; of a performance, between mouth and instrument, m.
    pub position_m: Point3,
    /// What carries it.
    pub support: Support,
    /// Stays where it is: neither a hand, a fix, a free move nor another layout moves it.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub locked: bool,
}

/// A monitor, mirror or script glass.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Screen {
    /// Gear id.
    pub gear: Id,
    /// Middle of the picture, of the mirror, or of the script's reflection; it faces the eyes. m.
    pub position_m: Point3,
    /// What carries it.
    pub support: Support,
    /// Stays where it is: neither a hand, a fix, a free move nor another layout moves it.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub locked: bool,
}

/// A second angle.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Angle {
    /// Gear id of the body.
    pub body: Id,
    /// Gear id of the lens.
    pub lens: Id,
    /// Camera point, m.
    pub position_m: Point3,
    /// Point it is turned to and focused on, m.
    pub aim_m: Point3,
    /// Focal length, mm, real.
    #[schema(minimum = 1.0, maximum = 600.0)]
    pub focal_length_mm: f64,
    /// What carries it.
    pub support: Support,
    /// Stays where it is: neither a hand, a fix, a free move nor another layout moves it.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub locked: bool,
}

impl Angle {
    /// Letter of its mark, in the order of the angles' ids.
    pub fn letter(index: usize) -> &'static str {
        ["2", "3", "4"].get(index).copied().unwrap_or("5")
    }
}

/// How a backdrop is held up.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum Hung {
    /// On a bar between two stands.
    Stands,
    /// From the ceiling.
    Ceiling,
    /// On the wall.
    Wall,
}

impl Hung {
    /// Depth it takes off the wall, m (a screen on stands 0.45, common practice; the rest Fogon's own rule).
    pub fn depth_m(self) -> f64 {
        match self {
            Hung::Stands => 0.45,
            Hung::Ceiling => 0.10,
            Hung::Wall => 0.03,
        }
    }
}

/// A backdrop in its place.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Backdrop {
    /// Gear id.
    pub gear: Id,
    /// Middle of its lower edge, m.
    pub position_m: Point2,
    /// Bearing its face looks, degrees.
    #[schema(minimum = 0.0, exclusive_maximum = 360.0)]
    pub bearing_deg: f64,
    /// How it is held up.
    pub hung: Hung,
    /// Sandbag on each of its two stands, kg.
    #[serde(default, skip_serializing_if = "is_zero")]
    #[schema(minimum = 0.0, maximum = 200.0)]
    pub sandbag_kg: f64,
    /// Stays where it is: neither a hand, a fix, a free move nor another layout moves it.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub locked: bool,
}

/// Something against the echo, in its place.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Treatment {
    /// Gear id.
    pub gear: Id,
    /// The surface it hangs or lies on: `wall-0` and on, `floor`, `ceiling`.
    pub on: Id,
    /// Its middle, on that surface, m.
    pub position_m: Point3,
    /// Turned by a quarter: its width runs up the wall, on the floor along the room's depth.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub turned: bool,
    /// Stays where it is: neither a hand, a fix, a free move nor another layout moves it.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub locked: bool,
}

impl Treatment {
    /// Size across and up as it hangs, m.
    pub fn size_m(&self, gear: &super::GearTreatment) -> [f64; 2] {
        if self.turned { [gear.height_m, gear.width_m] } else { [gear.width_m, gear.height_m] }
    }

    /// Its outline on the surface that it hangs or lies on, along and up, m.
    pub fn outline_m(&self, gear: &super::GearTreatment, on: &super::FlatSurface) -> Vec<DVec2> {
        let middle = DVec2::from_array(on.flat_m(self.position_m.into()));
        let half = DVec2::from_array(self.size_m(gear)) / 2.0;
        [(-1.0, -1.0), (1.0, -1.0), (1.0, 1.0), (-1.0, 1.0)]
            .map(|(x, y)| middle + half * DVec2::new(x, y))
            .to_vec()
    }
}

/// A piece of furniture put elsewhere.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct FurnitureAt {
    /// Middle of its footprint, m.
    pub position_m: Point3,
    /// Bearing its front faces, degrees.
    #[schema(minimum = 0.0, exclusive_maximum = 360.0)]
    pub bearing_deg: f64,
    /// Stays where it is: neither a hand, a fix, a free move nor another layout moves it.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub locked: bool,
}

/// How a thing is carried.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum SupportKind {
    /// A stand or tripod plumb under it.
    Floor,
    /// A stand beside it and an arm.
    Boom,
    /// A clamp on furniture, on a door, or (on nothing named) on the camera's stand.
    Clamp,
    /// On furniture, on the camera, or worn.
    On,
    /// From the ceiling.
    Ceiling,
    /// On an arm from the wall, at the height of what it carries.
    Wall,
}

/// Feet nearer to each other than this stand for one stand, m.
const ONE_STAND_M: f64 = 0.02;

impl Support {
    /// A support of a kind that nothing else is told of.
    pub fn new(kind: SupportKind) -> Self {
        Self { kind, gear: None, base_m: None, on: None, foot_radius_m: None, sandbag_kg: 0.0 }
    }

    /// Carried by nothing of its own: worn, on the camera, or not set up yet.
    pub fn none() -> Self {
        Self::new(SupportKind::On)
    }

    /// On a piece of furniture, by itself or on a stack.
    pub fn on(furniture: &Id) -> Self {
        Self { on: Some(furniture.clone()), ..Self::none() }
    }

    /// It stands on furniture, on nothing that was made for it.
    pub fn is_by_itself(&self) -> bool {
        self.kind == SupportKind::On && self.on.is_some() && self.gear.is_none()
    }

    /// Whether two supports are one stand that carries several things: the same gear on the same foot.
    pub fn is_one_with(&self, other: &Support) -> bool {
        let feet =
            |s: &Support| s.base_m.filter(|_| matches!(s.kind, SupportKind::Floor | SupportKind::Boom));
        match (feet(self), feet(other)) {
            (Some(a), Some(b)) => {
                self.gear.is_some()
                    && self.gear == other.gear
                    && (a.0[0] - b.0[0]).hypot(a.0[1] - b.0[1]) < ONE_STAND_M
            }
            _ => false,
        }
    }
}

/// What carries a thing.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Support {
    /// How it is carried.
    pub kind: SupportKind,
    /// Gear id of the stand, if one is used.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub gear: Option<Id>,
    /// Foot of the column, or where an arm is fixed to the wall, m.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub base_m: Option<Point2>,
    /// Furniture it stands on or is clamped to, or a door it is clamped to.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub on: Option<Id>,
    /// Radius of the circle of the feet as set up, m (the stand's own).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.02, maximum = 2.0)]
    pub foot_radius_m: Option<f64>,
    /// Sandbag on the rear leg, kg.
    #[serde(default)]
    #[schema(minimum = 0.0, maximum = 200.0)]
    pub sandbag_kg: f64,
}
