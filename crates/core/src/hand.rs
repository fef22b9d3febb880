//! Changing a plan by hand: a move of one thing, as far as the rules let it go. What hangs together follows
//! (`follow`), what is nearly right is made right (`snap`), and an illegal place is resisted with its reason
//! (`resist`). Searches do not use this: they know where they want things.

mod follow;
mod handles;
mod hung;
mod resist;
mod shoot;
mod snap;

use std::ops::Deref;

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::corner::Corner;
use crate::finding::Rule;
use crate::geometry::DVec3;
use crate::plan::{Layout, Plan, Point3, ThingId, thing_named};
use crate::problem::{Code, Problem, Problems};

pub use handles::{Handle, handles};

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

/// Moves one thing.
///
/// # Errors
/// A thing that does not exist, is locked or fixed, cannot be moved so; a place given twice or not at all.
pub fn moved(before: &Plan, by: &Move) -> Result<Moved, Problems> {
    let corner = Corner::of(before).ok_or_else(|| refused("layout", "ids", "ids that name gear"))?;
    let by = &check(before, by)?;
    let after = if by.grip == Grip::Frame {
        free(follow::reframed(&corner))
    } else if matches!(by.grip, Grip::Shot | Grip::Zoom) {
        shoot::shot(before, &corner, by)
    } else if by.to_m.is_none() && by.from_eyes.is_none() {
        let turned = follow::turned(&corner, &by.thing, by.bearing_deg.unwrap_or(0.0));
        resist::turned(before, turned, by.anyway)
    } else {
        placed(before, &corner, by)
    };
    let plan = before.with_layout(after.layout);
    plan.check()?;
    let dropped = before.brief.set_aside_in(&plan.brief);
    Ok(Moved { plan, snaps: after.snaps, held: after.held, dropped })
}

/// A move with the thing that its name stands for.
struct Grasp<'a> {
    thing: ThingId,
    by: &'a Move,
}

impl Deref for Grasp<'_> {
    type Target = Move;

    fn deref(&self) -> &Move {
        self.by
    }
}

/// A layout with what drew or held it.
struct Outcome {
    layout: Layout,
    snaps: Vec<String>,
    held: Option<Held>,
}

fn free(layout: Layout) -> Outcome {
    Outcome { layout, snaps: Vec::new(), held: None }
}

fn placed(before: &Plan, corner: &Corner<'_>, by: &Grasp<'_>) -> Outcome {
    let wanted = target(corner, by);
    if let ThingId::Treatment(id) = &by.thing {
        return free(hung::placed(corner, id, wanted));
    }
    if by.grip == Grip::Aim {
        let (at, snaps) = if by.snap { snap::aim(corner, by, wanted) } else { (wanted, Vec::new()) };
        return Outcome { layout: follow::aimed(corner, &by.thing, at), snaps, held: None };
    }
    let (wanted, snaps) = if by.snap { snap::place(before, by, wanted) } else { (wanted, Vec::new()) };
    let mut after = resist::placed(before, by, wanted);
    if after.held.is_none() {
        after.snaps = snaps;
    }
    after
}

/// Where the hand wants the thing.
fn target(corner: &Corner<'_>, by: &Grasp<'_>) -> DVec3 {
    match (by.from_eyes, by.to_m) {
        (Some(seen), _) => {
            corner.eyes_m
                + crate::corner::light_direction(corner.to_lens(), seen.azimuth_deg, seen.elevation_deg)
                    * seen.distance_m
        }
        (None, Some(to)) => to.into(),
        (None, None) => corner.eyes_m,
    }
}

fn refused(field: &str, value: impl std::fmt::Display, accepted: &str) -> Problem {
    Problem::new(field, value, accepted, Code::Conflict)
}

/// The thing that a move takes hold of, if it may be moved so.
fn check<'a>(plan: &Plan, by: &'a Move) -> Result<Grasp<'a>, Problem> {
    let name = by.thing.as_str();
    let all = handles(plan);
    let held = thing_named(&plan.brief, &plan.layout, name)
        .and_then(|thing| Some((all.iter().find(|handle| handle.id == name)?, thing)));
    let Some((handle, thing)) = held else {
        return Err(Problem::new(
            "move.thing",
            name,
            "seat, camera, microphone, or a light or piece of furniture of this plan",
            Code::UnknownId,
        ));
    };
    if handle.locked {
        return Err(refused("move.thing", name, "a thing that is not locked; unlock it first"));
    }
    if !handle.movable {
        return Err(refused("move.thing", name, "a thing that can be moved; this one is fixed to the room"));
    }
    let given = usize::from(by.to_m.is_some())
        + usize::from(by.from_eyes.is_some())
        + usize::from(by.bearing_deg.is_some());
    let (camera, light) = (thing == ThingId::Camera, matches!(thing, ThingId::Light(_)));
    let allowed = match by.grip {
        Grip::Frame => camera && given == 0,
        Grip::Shot => camera && given == 0 && (by.distance_m.is_some() || by.focal_length_mm.is_some()),
        Grip::Zoom => camera && by.to_m.is_some() && given == 1,
        Grip::Aim => (camera || light) && by.to_m.is_some() && given == 1,
        Grip::Foot => handle.foot_m.is_some() && by.to_m.is_some() && given == 1,
        Grip::Place if by.bearing_deg.is_some() => handle.bearing_deg.is_some() && given == 1,
        Grip::Place => given == 1 && (by.from_eyes.is_none() || light || thing == ThingId::Microphone),
    };
    if allowed {
        Ok(Grasp { thing, by })
    } else {
        Err(refused(
            "move",
            name,
            "one of to_m, from_eyes (lights, microphone) and bearing_deg (seat, furniture); an aim for camera and lights; a foot for what has a stand; a frame, a shot (distance_m, focal_length_mm) or a zoom (to_m) for the camera",
        ))
    }
}
