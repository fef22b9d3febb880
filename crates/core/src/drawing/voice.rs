//! The sound laid over plan and side view: the way from mouth to microphone, the first reflections, the circle round the mouth
//! within which the voice is louder than the room, and the edge that the microphone must stay out of.

use serde::Serialize;
use utoipa::ToSchema;

use super::plan_view::turned;
use super::reach::{keep_out_plan, keep_out_side};
use super::view::{Drawing, Ink, Stroke, stroke};
use crate::corner::{Corner, MICROPHONE_MARGIN_M};
use crate::geometry::{DVec2, DVec3, distance_to_edge, inside};
use crate::sound::absorption::Absorption;
use crate::sound::chart::critical_distance_m;
use crate::sound::reflections;

/// A surface that looks this much along the drawing's own axis is drawn there.
const FACES: f64 = 0.9;

/// Points of the circle.
const ROUND: i32 = 72;

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
    let ahead = distance_to_edge(&corner.floor_m, eyes.truncate(), along.truncate());
    let flat = |p: DVec3| turned(p.truncate(), turns);
    let upright = |p: DVec3| DVec2::new(along.dot(p - eyes), -p.z);
    let mut plan = keep_out_plan(corner, turns, MICROPHONE_MARGIN_M);
    let mut side = keep_out_side(corner, behind, MICROPHONE_MARGIN_M);
    let (_, capsule) = corner.heard_by();
    let (scene, at) = crate::sound::scene(corner, &Absorption::of(corner));
    let radius = critical_distance_m(&scene, &at);
    {
        let step = std::f64::consts::TAU / f64::from(ROUND);
        let round: Vec<DVec2> = (0..ROUND).map(|i| DVec2::from_angle(f64::from(i) * step) * radius).collect();
        let in_plan = |p: DVec2| mouth.truncate() + p;
        let on_side = |p: DVec2| DVec2::new(along.dot(mouth - eyes) + p.x, mouth.z + p.y);
        let within = |p: &DVec2| inside(&corner.floor_m, in_plan(*p), 0.0);
        for run in runs(&round, within) {
            let points = run.into_iter().map(|p| turned(in_plan(p), turns)).collect();
            plan.push(stroke(Ink::Critical, None, false, points));
        }
        let height = corner.room_m[2];
        let within = |p: &DVec2| {
            let at = on_side(*p);
            (behind..=ahead).contains(&at.x) && (0.0..=height).contains(&at.y)
        };
        for run in runs(&round, within) {
            let points = run.into_iter().map(|p| on_side(p) * DVec2::new(1.0, -1.0)).collect();
            side.push(stroke(Ink::Critical, None, false, points));
        }
    }
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

/// The parts of a ring that lie within something, each as an open line.
fn runs(ring: &[DVec2], within: impl Fn(&DVec2) -> bool) -> Vec<Vec<DVec2>> {
    let Some(first_out) = ring.iter().position(|p| !within(p)) else {
        // Closed by hand: the whole ring.
        return vec![ring.iter().chain(ring.first()).copied().collect()];
    };
    let mut all = vec![Vec::new()];
    for point in ring.iter().cycle().skip(first_out).take(ring.len()) {
        if within(point) {
            if let Some(run) = all.last_mut() {
                run.push(*point);
            }
        } else if all.last().is_some_and(|run| !run.is_empty()) {
            all.push(Vec::new());
        }
    }
    all.retain(|run| run.len() > 1);
    all
}
