//! The light laid over plan and side view: lines of equal light, the size of each source as the face sees it, and the edge
//! of the picture that it must stay out of.

use serde::Serialize;
use utoipa::ToSchema;

use super::field::{Cut, cuts};
use super::plan_view::turned;
use super::view::{Drawing, Ink, Stroke, View, Word, stroke};
use crate::corner::{Corner, LightAt, Source};
use crate::geometry::{DVec2, DVec3, circle, distance_to_edge, hull};
use crate::light::apparent::apparent;
use crate::light::cloth;
use crate::light::placement::MARGIN_M;
use crate::photometry::{Emits, axes};
use crate::plan::ThingId;

/// Lines a stop apart, against what the lamp gives the eyes.
const STOPS: [f64; 5] = [-2.0, -1.0, 0.0, 1.0, 2.0];
/// Nearer to the plane of a lamp's face than this part of the way the light falls off a cliff.
const GRAZING: f64 = 0.2;
/// Shorter lines are left out, m.
const SHORT_M: f64 = 0.15;

/// Shapes and words to lay over one drawing, in its coordinates.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct LightSheet {
    /// Lines of equal light, sizes from the eyes, the picture's edge with its margin.
    pub strokes: Vec<Stroke>,
    /// Stops beside the lines.
    pub words: Vec<ReachWord>,
}

/// Stops beside a line of equal light.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ReachWord {
    /// The light that it belongs to.
    pub thing: String,
    /// The words.
    #[serde(flatten)]
    pub word: Word,
}

/// Both sheets.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct LightSheets {
    /// Over the plan: at eye height.
    pub plan: LightSheet,
    /// Over the side view: in the plane of the lens axis.
    pub side: LightSheet,
}

pub(super) fn draw(corner: &Corner<'_>, drawing: &Drawing, finely: bool) -> LightSheets {
    let turns = drawing.quarter_turns;
    let (eyes, along) = (corner.eyes_m, corner.to_lens());
    let [plan, side] = cuts(corner, turns, eyes.z, finely);
    let (behind, ahead) = (side.low.x, side.high.x);
    let flat = |p: DVec3| turned(p.truncate(), turns);
    let upright = |p: DVec3| DVec2::new(along.dot(p - eyes).clamp(behind, ahead), -p.z);
    let mut sheets = [
        LightSheet { strokes: keep_out_plan(corner, turns, MARGIN_M), words: Vec::new() },
        LightSheet { strokes: keep_out_side(corner, behind, MARGIN_M), words: Vec::new() },
    ];
    for light in corner.lights.iter().filter(|l| matches!(l.source, Source::Lamp(_))) {
        let source = outline(corner, light);
        let name = corner.name(&ThingId::Light(light.id.clone()));
        for (sheet, cut, to, view) in
            [(0, &plan, &flat as &dyn Fn(DVec3) -> DVec2, &drawing.plan), (1, &side, &upright, &drawing.side)]
        {
            let cone: Vec<DVec2> = source.iter().copied().chain([eyes]).map(to).collect();
            sheets[sheet].strokes.push(stroke(Ink::Cone, Some(&name), true, hull(&cone)));
            lines(corner, (&name, light), cut, view, &mut sheets[sheet]);
        }
    }
    let [plan, side] = sheets;
    LightSheets { plan, side }
}

/// Corners of what the face sees of a light.
fn outline(corner: &Corner<'_>, light: &LightAt<'_>) -> Vec<DVec3> {
    let seen = apparent(corner, light);
    if !seen.bounced {
        return light.dark_face().outline;
    }
    let (across, up) = axes((corner.eyes_m - seen.middle_m).normalize_or(DVec3::Z));
    let flat = circle(DVec2::ZERO, seen.diameter_m / 2.0);
    flat.iter().map(|p| seen.middle_m + across * p.x + up * p.y).collect()
}

/// Lines of equal light of one lamp, on surfaces that face it, nothing standing between.
fn lines(
    corner: &Corner<'_>,
    (name, light): (&str, &LightAt<'_>),
    cut: &Cut<'_>,
    view: &View,
    sheet: &mut LightSheet,
) {
    let face = cloth::whole(light);
    let lux = |at: DVec3| face.illuminance_lx(at, (face.middle - at).normalize_or_zero());
    let reference = lux(corner.eyes_m);
    if reference <= 0.0 {
        return;
    }
    let (values, builder) = cut.values(|at| (lux(at) / reference).log2().max(-12.0));
    let Ok(found) = builder.lines(&values, &STOPS) else { return };
    // Not along the cliff where the lamp's dark side begins.
    let lit = |p: DVec2| {
        let at = (cut.room)(p);
        let off = at - face.middle;
        face.emits != Emits::Forward || off.dot(face.normal) > cut.step_m.max(GRAZING * off.length())
    };
    let mut taken = written(view);
    for line in found {
        let mut longest: (f64, Vec<DVec2>) = (SHORT_M, Vec::new());
        for run in line.geometry().0.iter().flat_map(|ring| within(&ring.0, cut, lit)) {
            let long: f64 = run.windows(2).map(|pair| (pair[1] - pair[0]).length()).sum();
            if long < SHORT_M {
                continue;
            }
            let points: Vec<DVec2> = run.into_iter().map(|p| (cut.sheet)(p)).collect();
            if long > longest.0 {
                longest = (long, points.clone());
            }
            sheet.strokes.push(stroke(Ink::Isolux, Some(name), false, points));
        }
        let stops = line.threshold();
        let sign = if stops > 0.0 {
            "+"
        } else if stops < 0.0 {
            "\u{2212}"
        } else {
            ""
        };
        let text = format!("{sign}{}", stops.abs());
        let size = view.text_size;
        let half = DVec2::new(size * 0.4 * text.chars().count() as f64, size * 0.7);
        // Where it covers nothing that is written; the middle of the line first. Else the line goes without.
        let count = longest.1.len();
        let free = (0..count).map(|i| longest.1[(count / 2 + i) % count]).find(|at| {
            let beside = |(low, high): &(DVec2, DVec2)| {
                (*at - half).cmpge(*high).any() || (*at + half).cmple(*low).any()
            };
            taken.iter().all(beside) && in_bounds(view, *at, half)
        });
        if let Some(at) = free {
            taken.push((at - half, at + half));
            let word = Word { text, at: [at.x, at.y + size * 0.3], leader: None };
            sheet.words.push(ReachWord { thing: name.to_owned(), word });
        }
    }
}

fn in_bounds(view: &View, at: DVec2, half: DVec2) -> bool {
    let [left, top, right, bottom] = view.bounds;
    at.x - half.x > left && at.x + half.x < right && at.y - half.y > top && at.y + half.y < bottom
}

/// Boxes of the marks and words of a view, as they stand on a screen.
fn written(view: &View) -> Vec<(DVec2, DVec2)> {
    let radius = DVec2::splat(view.mark_radius * 1.9);
    let marks = view.marks.iter().map(|mark| DVec2::from_array(mark.at)).map(|at| (at - radius, at + radius));
    let size = view.text_size;
    let words = view.words.iter().map(|word| {
        let at = DVec2::from_array(word.at);
        let long = size * 0.62 * word.text.chars().count() as f64;
        (at - DVec2::new(size * 0.3, size), at + DVec2::new(long, size * 0.4))
    });
    marks.chain(words).collect()
}

/// The parts of a line that lie in the room, the rim of what was looked at left out.
fn within(
    ring: &[impl Into<[f64; 2]> + Copy],
    cut: &Cut<'_>,
    lit: impl Fn(DVec2) -> bool,
) -> Vec<Vec<DVec2>> {
    let mut runs = vec![Vec::new()];
    for point in ring {
        let point = DVec2::from_array((*point).into());
        if (cut.within)(point) && lit(point) {
            if let Some(run) = runs.last_mut() {
                run.push(point);
            }
        } else if runs.last().is_some_and(|run| !run.is_empty()) {
            runs.push(Vec::new());
        }
    }
    runs.retain(|run| run.len() > 1);
    runs
}

/// The picture's left and right edge with the margin that things keep.
pub(super) fn keep_out_plan(corner: &Corner<'_>, turns: u8, margin_m: f64) -> Vec<Stroke> {
    let view = &corner.view;
    let origin = view.position_m.truncate();
    [-1.0, 1.0]
        .into_iter()
        .map(|side| {
            let edge =
                (view.forward + view.right * (side * view.width_ratio / 2.0)).truncate().normalize_or_zero();
            let out = view.right.truncate().normalize_or_zero() * side;
            let aside = (out - edge * out.dot(edge)).normalize_or_zero() * margin_m;
            let reach = distance_to_edge(&corner.floor_m, origin, edge);
            let points = [origin + aside, origin + aside + edge * reach].map(|p| turned(p, turns)).to_vec();
            stroke(Ink::KeepOut, None, false, points)
        })
        .collect()
}

/// The picture's upper edge with the margin, as far as the wall behind the person.
pub(super) fn keep_out_side(corner: &Corner<'_>, behind: f64, margin_m: f64) -> Vec<Stroke> {
    let view = &corner.view;
    let along = corner.to_lens();
    let flat = |p: DVec3| DVec2::new(along.dot(p - corner.eyes_m), p.z);
    let origin = flat(view.position_m);
    let edge = flat(view.position_m + view.forward + view.up * (view.height_ratio / 2.0)) - origin;
    if edge.x >= -1e-6 {
        return Vec::new();
    }
    let up = edge.normalize_or_zero().perp() * -margin_m;
    let up = if up.y < 0.0 { -up } else { up };
    let to_wall = (behind - origin.x) / edge.x;
    let height = corner.room_m[2];
    let to_ceiling = if edge.y > 0.0 { (height - origin.y) / edge.y } else { f64::INFINITY };
    let end = origin + edge * to_wall.min(to_ceiling);
    let points = [origin + up, end + up].map(|p| DVec2::new(p.x, -p.y)).to_vec();
    vec![stroke(Ink::KeepOut, None, false, points)]
}
