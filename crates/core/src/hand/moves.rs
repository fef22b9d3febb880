//! A move of one thing by hand: what is asked, and what comes of it.

use std::ops::Deref;

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::finding::Rule;
use crate::plan::{Layout, Plan, Point3, ThingId};

/// What of a thing is moved.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum Grip {
    /// The thing itself, with what carries it.
    #[default]
    Place,
    /// The point it faces.
    Aim,
    /// The foot of its stand alone.
    Foot,
    /// The camera's bearing, tilt and focal length, so that the wanted shot is framed from where it stands.
    Frame,
    /// The camera on its line from the eyes: `distance_m` and `focal_length_mm`, either alone or both; alone, the other
    /// is the one that frames the wanted shot.
    Shot,
    /// The edge of the picture on the floor, through `to_m`: the focal length from where the camera stands.
    Zoom,
}

/// In which plane a hand moves: over the floor at one height, or along the lens axis and up and down.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
#[allow(missing_docs)]
pub enum Sheet {
    #[default]
    Plan,
    Side,
}

/// A place as seen from the eyes.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct FromEyes {
    /// Angle from the lens, degrees, positive to camera right.
    #[schema(minimum = -360.0, maximum = 360.0)]
    pub azimuth_deg: f64,
    /// Angle above the eyes, degrees.
    #[schema(minimum = -89.0, maximum = 89.0)]
    pub elevation_deg: f64,
    /// Distance from the eyes, m.
    #[schema(minimum = 0.05, maximum = 60.0)]
    pub distance_m: f64,
}

/// One move by hand. Where it goes is one of `to_m`, `from_eyes` and `bearing_deg`; for a shot, `distance_m` and
/// `focal_length_mm`.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Move {
    /// The thing's name in answers: `seat`, `camera`, `microphone`, or the id of a light or a piece of furniture.
    #[schema(pattern = "^[a-z0-9_-]{1,48}$")]
    pub thing: String,
    /// What of it is moved.
    #[serde(default)]
    pub grip: Grip,
    /// Where to, m. The seat and furniture keep their height.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub to_m: Option<Point3>,
    /// Where to, as seen from the eyes.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub from_eyes: Option<FromEyes>,
    /// How it is turned (seat and furniture), degrees.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.0, exclusive_maximum = 360.0)]
    pub bearing_deg: Option<f64>,
    /// Lens to eyes along the axis, m (a shot).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.05, maximum = 50.0)]
    pub distance_m: Option<f64>,
    /// Focal length, mm (a shot).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 1.0, maximum = 600.0)]
    pub focal_length_mm: Option<f64>,
    /// The sheet on which it is dragged.
    #[serde(default)]
    pub sheet: Sheet,
    /// Let what is nearly right be made right.
    #[serde(default)]
    pub snap: bool,
    /// Put it there whatever the rules say.
    #[serde(default)]
    pub anyway: bool,
}

impl Move {
    /// A thing as a whole to a place, as far as the rules let it go.
    pub fn to(thing: &str, to_m: Point3) -> Self {
        Self {
            thing: thing.to_owned(),
            grip: Grip::Place,
            to_m: Some(to_m),
            from_eyes: None,
            bearing_deg: None,
            distance_m: None,
            focal_length_mm: None,
            sheet: Sheet::Plan,
            snap: false,
            anyway: false,
        }
    }
}

/// A move and the plan as it was before it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct MoveIn {
    /// The plan before.
    pub plan: Plan,
    /// The move.
    #[serde(rename = "move")]
    pub by: Move,
}

crate::shape!(MoveIn => |asked: &MoveIn| asked.plan.check(), Move);

/// What came of a move.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Moved {
    /// The plan after it.
    pub plan: Plan,
    /// What it was drawn to, in words.
    pub snaps: Vec<String>,
    /// Why it did not go all the way.
    pub held: Option<Held>,
    /// Measured readings that no longer hold and were set aside.
    pub dropped: Vec<String>,
}

/// Why a move stopped short.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Held {
    /// The rule.
    pub rule: Rule,
    /// What is in the way, in words with the amount.
    pub sentence: String,
}

/// A layout with what drew or held it.
pub(super) struct Outcome {
    pub(super) layout: Layout,
    pub(super) snaps: Vec<String>,
    pub(super) held: Option<Held>,
}

/// A move with the thing that its name stands for.
pub(super) struct Grasp<'a> {
    pub(super) thing: ThingId,
    pub(super) by: &'a Move,
}

impl Deref for Grasp<'_> {
    type Target = Move;

    fn deref(&self) -> &Move {
        self.by
    }
}

pub(super) fn free(layout: Layout) -> Outcome {
    Outcome { layout, snaps: Vec::new(), held: None }
}
