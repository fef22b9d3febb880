//! Changing a plan by hand: a move of one thing, as far as the rules let it go. What hangs together follows
//! (`follow`), what is nearly right is made right (`snap`), and an illegal place is resisted with its reason
//! (`resist`). Searches do not use this: they know where they want things.

mod follow;
mod handles;
mod hung;
mod moves;
mod resist;
mod shoot;
mod snap;

use crate::corner::Corner;
use crate::geometry::DVec3;
use crate::plan::{Plan, ThingId, thing_named};
use crate::problem::{Code, Problem, Problems};

pub use handles::{Handle, handles};
pub use moves::{FromEyes, Grip, Held, Move, MoveIn, Moved, Sheet};

use moves::{Grasp, Outcome, free};

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
