//! What is nearly right is made right, and said: against a wall, at the edge of the picture, at a round angle,
//! level with the eyes. Tolerances are Fogon's own rule.

use crate::corner::{Corner, Piece, What, light_direction, things};
use crate::geometry::{DVec2, DVec3, bearing_of, bearing_vector, wrap_180};
use crate::light::placement::MARGIN_M as LIGHT_MARGIN_M;
use crate::plan::{Plan, ThingId};
use crate::sound::placement::{MARGIN_M as MICROPHONE_MARGIN_M, may_show};
use crate::units::{beside_lens, degrees};

use super::moves::{Grasp, Grip, Sheet};
use super::{follow, resist};

/// Drawn to what is nearer than this, m.
const NEAR_M: f64 = 0.04;
/// Drawn to a round angle nearer than this, degrees, while the thing moves by less than twice `NEAR_M`.
const NEAR_DEG: f64 = 2.5;
const ROUND_DEG: f64 = 45.0;

/// One way to make a place right.
struct Draw {
    at: DVec3,
    words: String,
}

/// The place made right, and what drew it. Two walls may draw at once; else the nearest does.
pub(super) fn place(before: &Plan, by: &Grasp<'_>, wanted: DVec3) -> (DVec3, Vec<String>) {
    let Some(corner) = Corner::of(before) else { return (wanted, Vec::new()) };
    if by.grip == Grip::Foot {
        return (wanted, Vec::new());
    }
    let mut draws = angles(&corner, by, wanted);
    draws.extend(edge(before, &corner, by, wanted));
    let mut found: Vec<(DVec3, Vec<String>)> =
        draws.into_iter().map(|draw| (draw.at, vec![draw.words])).collect();
    found.extend(walls(before, &corner, by, wanted));
    found
        .into_iter()
        .map(|(at, words)| ((at - wanted).length(), at, words))
        .filter(|(moved, ..)| *moved < 2.0 * NEAR_M)
        .min_by(|a, b| a.0.total_cmp(&b.0))
        .map_or_else(|| (wanted, Vec::new()), |(_, at, words)| (at, words))
}

/// An aim near the eyes goes through them.
pub(super) fn aim(corner: &Corner<'_>, by: &Grasp<'_>, wanted: DVec3) -> (DVec3, Vec<String>) {
    let [across, up] = resist::axes(corner, by);
    let off = wanted - corner.eyes_m;
    let on_sheet = across * off.dot(across) + up * off.dot(up);
    if on_sheet.length() < 2.0 * NEAR_M {
        (corner.eyes_m, vec!["At the eyes.".into()])
    } else {
        (wanted, Vec::new())
    }
}

fn angles(corner: &Corner<'_>, by: &Grasp<'_>, wanted: DVec3) -> Vec<Draw> {
    let thing = &by.thing;
    let eyes = corner.eyes_m;
    let off = wanted - eyes;
    let mut draws = Vec::new();
    let round = |angle: f64| {
        let to = (angle / ROUND_DEG).round() * ROUND_DEG;
        ((angle - to).abs() < NEAR_DEG).then_some(to)
    };
    match (thing, by.sheet) {
        (ThingId::Seat | ThingId::Camera, Sheet::Plan) => {
            let fixed = if *thing == ThingId::Seat { corner.view.position_m } else { eyes };
            let axis = (wanted - fixed).truncate();
            if let Some(to) = round(bearing_of(axis.extend(0.0))) {
                let at = fixed.truncate() + bearing_vector(to).truncate() * axis.length();
                let words = if (to / ROUND_DEG).round() as i64 % 2 == 0 {
                    "The lens axis runs along the walls."
                } else {
                    "The lens axis runs at 45 degrees to the walls."
                };
                draws.push(Draw { at: at.extend(wanted.z), words: words.into() });
            }
        }
        (ThingId::Camera | ThingId::Microphone, Sheet::Side) if off.z.abs() < NEAR_M => {
            draws.push(Draw { at: wanted.with_z(eyes.z), words: "Level with the eyes.".into() });
        }
        (ThingId::Light(_), _) => {
            let to_lens = corner.to_lens();
            let azimuth = wrap_180(bearing_of(to_lens) - bearing_of(off));
            let flat = off.truncate().length();
            let elevation = off.z.atan2(flat).to_degrees();
            match by.sheet {
                Sheet::Plan => {
                    if let Some(to) = round(azimuth) {
                        let at = eyes + light_direction(to_lens, to, 0.0) * flat;
                        let side = match to.abs() as i64 {
                            0 => "In line with the lens.".to_owned(),
                            180 => "Straight behind the head.".to_owned(),
                            _ => format!("{}.", beside_lens(to)),
                        };
                        draws.push(Draw { at: at.with_z(wanted.z), words: side });
                    }
                }
                Sheet::Side => {
                    if let Some(to) = round(elevation).filter(|to| to.abs() < 90.0) {
                        let words = if to == 0.0 {
                            "Level with the eyes.".to_owned()
                        } else {
                            let side = if to < 0.0 { "below" } else { "above" };
                            format!("{} {side} the eyes.", degrees(to.abs()))
                        };
                        let at = wanted.with_z(eyes.z + flat * to.to_radians().tan());
                        draws.push(Draw { at, words });
                    }
                }
            }
        }
        _ => {}
    }
    draws
}

/// Just outside the picture: as near to its edge as the margin allows.
fn edge(before: &Plan, corner: &Corner<'_>, by: &Grasp<'_>, wanted: DVec3) -> Option<Draw> {
    let margin = match by.thing {
        ThingId::Light(_) => LIGHT_MARGIN_M,
        ThingId::Microphone => {
            let (gear, _) = corner.microphone?;
            if may_show(corner, gear) {
                return None;
            }
            MICROPHONE_MARGIN_M
        }
        _ => return None,
    };
    // How much further out than it must be the whole thing is, at a place.
    let spare = |at: DVec3| -> Option<f64> {
        let layout = follow::put(corner, by, at).next()?;
        let moved = Corner::from_parts(&before.brief, &layout)?;
        let own = things(&moved).into_iter().find(|t| t.id == by.thing)?;
        let clear = |part: &Piece| {
            moved.view.clearance_m(&part.solid)
                - if part.what == What::Head { margin } else { LIGHT_MARGIN_M }
        };
        own.pieces.iter().map(clear).min_by(f64::total_cmp)
    };
    let here = spare(wanted)?;
    if here.abs() > NEAR_M {
        return None;
    }
    let step = 0.01;
    let slope = resist::axes(corner, by)
        .map(|axis| Some(axis * ((spare(wanted + axis * step)? - here) / step)))
        .into_iter()
        .collect::<Option<Vec<DVec3>>>()?
        .into_iter()
        .sum::<DVec3>();
    if slope.length() < 0.2 {
        return None;
    }
    // A little outside, so that rounding to the millimetre does not put it in.
    let at = wanted - slope.normalize() * ((here - 0.0015) / slope.length());
    (spare(at)? > -1e-6).then(|| Draw { at, words: "At the edge of the picture, with its margin.".into() })
}

/// Flush with one wall or two.
fn walls(before: &Plan, corner: &Corner<'_>, by: &Grasp<'_>, wanted: DVec3) -> Option<(DVec3, Vec<String>)> {
    if by.sheet == Sheet::Side || matches!(by.thing, ThingId::Seat | ThingId::Camera) {
        return None;
    }
    let layout = follow::put(corner, by, wanted).next()?;
    let moved = Corner::from_parts(&before.brief, &layout)?;
    let own = things(&moved).into_iter().find(|t| t.id == by.thing)?;
    let floor = &corner.floor_m;
    let mut at = wanted;
    let mut words = Vec::new();
    for (index, (a, b)) in floor.iter().zip(floor.iter().cycle().skip(1)).enumerate() {
        // A wall ends where it ends: beyond, there is nothing to stand against.
        let along = (*b - *a).normalize_or_zero();
        if !(0.0..=(*b - *a).length()).contains(&along.dot(wanted.truncate() - *a)) {
            continue;
        }
        let inward: DVec2 = (*b - *a).normalize_or_zero().perp();
        let normal = inward.extend(0.0);
        let gap = own
            .pieces
            .iter()
            .map(|p| p.solid.least_along(normal) - inward.dot(*a))
            .fold(f64::INFINITY, f64::min);
        if gap.abs() < NEAR_M {
            at -= normal * gap;
            words.push(format!("Against {}.", corner.brief.room.wall_name(index)));
        }
    }
    (!words.is_empty()).then_some((at, words))
}
