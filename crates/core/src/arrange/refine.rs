//! From the best of the grid to a local optimum: first the shot, everything round it placed anew at each step; then who does
//! which job; then every continuous choice by itself, as long as one of them makes the layout better.

use std::cmp::Ordering;

use super::bare::{bare_layout, dial};
use super::cast;
use super::furnish::{Asked, KEYS_TRIED, Terms, one_side};
use super::optics::{Optics, Shot, Take};
use super::proposal::Judged;
use super::search::{judge, rejudged};
use super::seats;
use crate::assess::legal::Rules;
use crate::assess::mend::with_iso;
use crate::corner::{Corner, LightAt, is_worn, light_direction, microphone_tail_m, things};
use crate::edit::{fill_bag, millimetre, rounded, rounded_floor};
use crate::geometry::{DVec2, DVec3, bearing_of};
use crate::plan::{
    Brief, Gear, Id, Layout, Light, Microphone, Part, Point2, Role, Support, SupportKind, ThingId, Things,
};
use crate::shot::framing;

/// Steps of the seat, m; focal length and crop go by the same parts, the facing by so many degrees for each metre.
const SHOT_STEPS_M: [f64; 3] = [0.20, 0.10, 0.05];
const TURN_DEG_M: f64 = 40.0;
/// Shots that are tried at most.
const SHOTS_MOST: usize = 60;
/// Steps of a light as seen from the eyes, degrees; its distance goes by a hundredth for each.
const LIGHT_STEPS_DEG: [f64; 3] = [8.0, 4.0, 2.0];
/// Another casting of the lamps must gain so much. Fogon's own rule.
const CAST_GAIN: f64 = 0.01;
/// Layouts that are tried at most.
const LAYOUTS_MOST: usize = 400;

/// The shot, step by step.
pub(super) fn shot(brief: &Brief, optics: &[Optics<'_>], best: &mut Judged) {
    let used =
        |o: &&Optics<'_>| *o.body_id == best.layout.camera.body && *o.lens_id == best.layout.camera.lens;
    let Some(optics) = optics.iter().find(used) else { return };
    let mut tried = 0;
    for step in SHOT_STEPS_M {
        loop {
            let mut next: Option<Judged> = None;
            for shot in around(brief, optics, &best.shot, step) {
                tried += 1;
                if let Ok(other) = judge(brief, shot, Terms::default())
                    && other.order(next.as_ref().unwrap_or(best)) == Ordering::Less
                {
                    next = Some(other);
                }
            }
            match next {
                Some(next) => *best = next,
                None => break,
            }
            if tried >= SHOTS_MOST {
                return;
            }
        }
    }
}

/// The shots one step away.
fn around(brief: &Brief, optics: &Optics<'_>, shot: &Shot, step: f64) -> Vec<Shot> {
    let Shot { facing, place, take, .. } = shot;
    let mut all = Vec::new();
    let seats = [
        (step, 0.0, 0.0),
        (-step, 0.0, 0.0),
        (0.0, step, 0.0),
        (0.0, -step, 0.0),
        (0.0, 0.0, step),
        (0.0, 0.0, -step),
    ];
    for (ahead, aside, from_desk) in seats {
        if let Some(place) = seats::shifted(brief, facing, place, ahead, aside, from_desk) {
            all.push(optics.shot(brief, facing, place, *take));
        }
    }
    for by in [1.0 + step, 1.0 / (1.0 + step)] {
        let focal = ((take.focal_length_mm * by * 10.0).round() / 10.0)
            .clamp(optics.lens.focal_min_mm, optics.lens.focal_max_mm);
        let crop = ((take.crop * by * 1000.0).round() / 1000.0).clamp(1.0, optics.crop_most(brief));
        let other = if take.crop > 1.0 || focal == take.focal_length_mm {
            Take { crop, ..*take }
        } else {
            Take { focal_length_mm: focal, ..*take }
        };
        if other != *take {
            all.push(optics.shot(brief, facing, place.clone(), other));
        }
    }
    for turn in [step * TURN_DEG_M, -step * TURN_DEG_M] {
        let turned = seats::turned(brief, facing, turn)
            .and_then(|facing| Some((seats::shifted(brief, &facing, place, 0.0, 0.0, 0.0)?, facing)));
        if let Some((place, facing)) = turned {
            all.push(optics.shot(brief, &facing, place, *take));
        }
    }
    all
}

/// Who does which job: every lamp as the key, every way to share out the others, from both sides.
pub(super) fn roles(brief: &Brief, best: &mut Judged) {
    let gaze_deg = framing::wanted(brief, &crate::person::landmarks_of(brief), 1.0).gaze_deg;
    let blank = Layout { lights: Things::new(), ..best.layout.clone() };
    let keys: Vec<Option<&Id>> = match cast::keys(brief, &blank) {
        keys if keys.is_empty() => vec![None],
        keys => keys.into_iter().take(KEYS_TRIED).map(|(id, _)| Some(id)).collect(),
    };
    let start = best.shot.clone();
    for key in keys {
        for cast in cast::every_way(brief, &blank, key) {
            for side in [1.0, -1.0] {
                let bare = bare_layout(&start, gaze_deg * side);
                let asked = Asked { key, cast: Some(&cast), may_leave_out: false };
                let Ok(found) = one_side(brief, bare, side, &asked) else { continue };
                let other = Judged {
                    layout: found.layout,
                    quick: found.quick,
                    free_floor_m2: found.free_floor_m2,
                    shot: start.clone(),
                };
                // The schools' own casting stands unless another gains enough to tell.
                let ranks_before =
                    (other.quick.stops, other.quick.fixes) < (best.quick.stops, best.quick.fixes);
                let leaves_none_out = other.layout.lights.len() >= best.layout.lights.len();
                if ranks_before
                    || leaves_none_out
                        && other.order(best) == Ordering::Less
                        && other.quick.score > best.quick.score + CAST_GAIN
                {
                    *best = other;
                }
            }
        }
    }
}

/// Every continuous choice of a layout whose things stand.
pub(super) fn choices(brief: &Brief, best: &mut Judged) {
    let mut tried = 0;
    for step in LIGHT_STEPS_DEG {
        loop {
            let mut improved = false;
            for change in changes(brief, best, step) {
                tried += 1;
                let Some(layout) = changed(brief, &best.layout, change) else { continue };
                let other = rejudged(brief, best, layout);
                if other.order(best) == Ordering::Less && is_legal(brief, &other.layout) {
                    *best = other;
                    improved = true;
                }
            }
            if !improved {
                break;
            }
            if tried >= LAYOUTS_MOST {
                return;
            }
        }
    }
}

fn is_legal(brief: &Brief, layout: &Layout) -> bool {
    Corner::from_parts(brief, layout)
        .is_some_and(|corner| Rules::new(&corner).all(&things(&corner)).is_empty())
}

/// One small change.
#[derive(Debug, Clone)]
enum Change {
    /// A light round the eyes, degrees, and its distance by a part.
    Light(Id, [f64; 2], f64),
    /// A dial, by a part; the sensitivity follows.
    Dial(Id, f64),
    /// The microphone round the mouth, degrees, and its distance by a part.
    Microphone([f64; 2], f64),
    /// Everything along and across, m.
    All(DVec2),
    /// Everything round the seat, degrees.
    Turn(f64),
}

fn changes(brief: &Brief, best: &Judged, step: f64) -> Vec<Change> {
    let mut all = Vec::new();
    for (id, light) in best.layout.lights.iter().filter(|(_, light)| !light.locked) {
        for turn in [[step, 0.0], [-step, 0.0], [0.0, step], [0.0, -step]] {
            all.push(Change::Light(id.clone(), turn, 1.0));
        }
        for part in [1.0 + step / 40.0, 1.0 - step / 40.0] {
            all.push(Change::Light(id.clone(), [0.0, 0.0], part));
            if light.role != Role::Key {
                all.push(Change::Dial(id.clone(), 1.0 + 4.0 * (part - 1.0)));
            }
        }
    }
    let is_free = |used: &Microphone| {
        let gear = brief.gear.get(&used.gear).and_then(Gear::microphone);
        !used.locked && gear.is_some_and(|gear| !is_worn(gear.mounting))
    };
    if best.layout.microphone.as_ref().is_some_and(is_free) {
        all.extend([1.0 - step / 80.0, 1.0 + step / 80.0].map(|part| Change::Microphone([0.0, 0.0], part)));
        all.extend(
            [[step, 0.0], [-step, 0.0], [0.0, step], [0.0, -step]].map(|turn| Change::Microphone(turn, 1.0)),
        );
    }
    let metres = step / 40.0;
    all.extend([DVec2::X, -DVec2::X, DVec2::Y, -DVec2::Y].map(|way| Change::All(way * metres)));
    all.extend([step / 2.0, -step / 2.0].map(Change::Turn));
    all
}

fn changed(brief: &Brief, layout: &Layout, change: Change) -> Option<Layout> {
    let corner = Corner::from_parts(brief, layout)?;
    let mut next = layout.clone();
    match change {
        Change::Light(id, turn, part) => {
            let at: DVec3 = layout.lights.get(&id)?.position_m.into();
            let to = round(&corner, corner.eyes_m, at, turn, part);
            let held = corner.lights.iter().find(|light| *light.id == id)?;
            let hold = LightAt { position_m: to, ..*held }.hold_m();
            let light = next.lights.get_mut(&id)?;
            shift_support(&mut light.support, hold - held.hold_m());
            light.position_m = rounded(to);
            fill_bag(brief, &mut next, &ThingId::Light(id.clone()));
            let counts = layout.lights.get(&id).is_some_and(|light: &Light| light.role != Role::Background);
            if counts { Some(with_iso(&corner, next)) } else { Some(next) }
        }
        Change::Dial(id, part) => {
            let light = next.lights.get_mut(&id)?;
            let turned = dial(light.dim * part);
            (turned != light.dim).then_some(())?;
            light.dim = turned;
            Some(with_iso(&corner, next))
        }
        Change::Microphone(turn, part) => {
            let used = next.microphone.as_mut()?;
            let at: DVec3 = used.position_m.into();
            let to = round(&corner, corner.mouth_m, at, turn, part);
            let tail = |at: DVec3| microphone_tail_m(&corner, at);
            shift_support(&mut used.support, tail(to) - tail(at));
            used.position_m = rounded(to);
            fill_bag(brief, &mut next, &ThingId::Microphone);
            Some(next)
        }
        Change::All(by) => moved(brief, layout, |p| p + by, 0.0),
        Change::Turn(degrees) => {
            let seat: DVec2 = layout.seat.position_m.into();
            // Clockwise seen from above, as bearings are.
            let turn = DVec2::from_angle(-degrees.to_radians());
            moved(brief, layout, |p| seat + turn.rotate(p - seat), degrees)
        }
    }
}

/// A place turned round another as the lens sees it, degrees to camera right and up, and its distance by a part.
fn round(corner: &Corner<'_>, middle: DVec3, at: DVec3, [right, up]: [f64; 2], part: f64) -> DVec3 {
    let off = at - middle;
    let azimuth = crate::geometry::wrap_180(bearing_of(corner.to_lens()) - bearing_of(off));
    let elevation = off.z.atan2(off.x.hypot(off.y)).to_degrees();
    let up = (elevation + up).clamp(-85.0, 85.0);
    middle + light_direction(corner.to_lens(), azimuth + right, up) * off.length() * part
}

fn shift_support(support: &mut Support, by: DVec3) {
    if let Some(base) = support.base_m.as_mut().filter(|_| support.kind != SupportKind::Wall) {
        *base = Point2([millimetre(base.0[0] + by.x), millimetre(base.0[1] + by.y)]);
    }
}

/// The whole layout moved on the floor and turned by so many degrees; `None` where something of it stays where it is.
fn moved(brief: &Brief, layout: &Layout, to: impl Fn(DVec2) -> DVec2, degrees: f64) -> Option<Layout> {
    let stays = |part: Part<'_>| part.is_locked() || matches!(part, Part::Treatment(..) | Part::Angle(..));
    let fixed_desk = brief.person.seat_at.as_ref().is_some_and(|id| !layout.furniture.contains_key(id));
    let on_fixed = |support: &Support| {
        support.on.as_ref().is_some_and(|id| !layout.furniture.contains_key(id))
            || matches!(support.kind, SupportKind::Wall | SupportKind::Ceiling)
    };
    if fixed_desk || layout.parts().any(|part| stays(part) || part.support().is_some_and(on_fixed)) {
        return None;
    }
    let mut next = layout.clone();
    let point = |p: crate::plan::Point3| {
        let p = DVec3::from(p);
        rounded(to(p.truncate()).extend(p.z))
    };
    let floor = |p: Point2| rounded_floor(to(p.into()));
    let bearing = |b: f64| crate::edit::rounded_bearing(b + degrees);
    let support = |s: &mut Support| s.base_m = s.base_m.map(floor);
    // Field by field: a new one has to be moved as well. What hangs and second angles stay, see above.
    let Layout { seat, camera, lights, microphone, screen, backdrop, angles: _, furniture, treatment: _ } =
        &mut next;
    seat.position_m = floor(seat.position_m);
    seat.bearing_deg = bearing(seat.bearing_deg);
    camera.position_m = point(camera.position_m);
    camera.bearing_deg = bearing(camera.bearing_deg);
    support(&mut camera.support);
    for light in lights.values_mut() {
        light.position_m = point(light.position_m);
        light.aim_m = light.aim_m.map(point);
        support(&mut light.support);
    }
    if let Some(used) = microphone {
        used.position_m = point(used.position_m);
        support(&mut used.support);
    }
    if let Some(used) = screen {
        used.position_m = point(used.position_m);
        support(&mut used.support);
    }
    if let Some(used) = backdrop {
        used.position_m = floor(used.position_m);
        used.bearing_deg = bearing(used.bearing_deg);
    }
    for piece in furniture.values_mut() {
        piece.position_m = point(piece.position_m);
        piece.bearing_deg = bearing(piece.bearing_deg);
    }
    Some(next)
}
