//! The sound laid over plan and side view: the way from mouth to microphone, the first reflections, and the edge that
//! the microphone must stay out of.

use serde::Serialize;
use utoipa::ToSchema;

use super::plan_view::turned;
use super::reach::{keep_out_plan, keep_out_side};
use super::view::{Drawing, Ink, Stroke, stroke};
use crate::corner::{Corner, MICROPHONE_MARGIN_M};
use crate::geometry::{DVec2, DVec3, distance_to_edge};
use crate::sound::reflections;

/// A surface that looks this much along the drawing's own axis is drawn there.
const FACES: f64 = 0.9;

/// Shapes to lay over both drawings, in their coordinates.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct SoundSheets {
    /// Over the plan: walls.
    pub plan: Vec<Stroke>,
    /// Over the side view: ceiling, floor, desk, and the walls before and behind.
    pub side: Vec<Stroke>,
}

pub(super) fn draw(corner: &Corner<'_>, drawing: &Drawing) -> SoundSheets {
    let turns = drawing.quarter_turns;
    let (mouth, eyes, along) = (corner.mouth_m, corner.eyes_m, corner.to_lens());
    let behind = -distance_to_edge(&corner.floor_m, eyes.truncate(), -along.truncate());
    let flat = |p: DVec3| turned(p.truncate(), turns);
    let upright = |p: DVec3| DVec2::new(along.dot(p - eyes), -p.z);
    let mut plan = keep_out_plan(corner, turns, MICROPHONE_MARGIN_M);
    let mut side = keep_out_side(corner, behind, MICROPHONE_MARGIN_M);
    let (_, capsule) = corner.heard_by();
    for hit in reflections::first(corner) {
        let thing = Some(hit.surface.as_str());
        let way = [mouth, hit.point_m, capsule];
        if hit.normal.z.abs() < 0.5 {
            plan.push(stroke(Ink::Echo, thing, false, way.map(flat).to_vec()));
        }
        if hit.normal.z.abs() >= 0.5 || hit.normal.dot(along).abs() > FACES {
            side.push(stroke(Ink::Echo, thing, false, way.map(upright).to_vec()));
        }
    }
    plan.push(stroke(Ink::Voice, None, false, vec![flat(mouth), flat(capsule)]));
    side.push(stroke(Ink::Voice, None, false, vec![upright(mouth), upright(capsule)]));
    SoundSheets { plan, side }
}
