//! The room: walls with their doors and windows, floor, ceiling, slopes and beams.
use fogon_core::corner::{Corner, Pane, bounds};
use fogon_core::geometry::DVec3;
use fogon_core::plan::{Brief, Id, Look, Opening, OpeningKind, Room, WALL_NAMES};
use glam::Vec3;

use super::shapes::{Frame, Stuff, flat, solid};
use super::things::{Sort, Things};
use crate::body::Maker;
use crate::surface::Finish;

/// Patches of walls, floor and ceiling, m.
const PATCH_M: f32 = 0.25;
/// A window's frame and a door's, and how deep both lie in the wall, m.
const FRAME_M: f64 = 0.05;
const REVEAL_M: f64 = 0.10;
/// A roof window is drawn so far before its slope, m.
const ON_SLOPE_M: f64 = 0.006;
/// A skirting board's height and thickness, m.
const SKIRTING_M: [f64; 2] = [0.07, 0.012];

/// Reflectance of a hue, red, green and blue, that has the given luminance.
pub(super) fn hued(hue: Vec3, reflectance: f64) -> Vec3 {
    (hue * (reflectance as f32 / crate::film::luminance(hue))).min(Vec3::splat(0.95))
}

const PLASTER: Vec3 = Vec3::new(1.0, 0.975, 0.93);
const WOOD: Vec3 = Vec3::new(1.0, 0.72, 0.47);
const CARPET: Vec3 = Vec3::new(1.0, 0.95, 0.90);
/// The green that is keyed out.
pub(super) const CHROMA: Vec3 = Vec3::new(0.16, 1.0, 0.22);
const WHITE_PAINT: Vec3 = Vec3::new(0.74, 0.74, 0.72);
const BLIND: Vec3 = Vec3::new(0.55, 0.54, 0.51);
const METAL: Vec3 = Vec3::new(0.30, 0.30, 0.30);

fn hue_of(brief: &Brief, surface: &str) -> Vec3 {
    let told = brief.room.surfaces.get(surface);
    if told.is_some_and(|surface| surface.look == Look::Chroma) {
        return CHROMA;
    }
    let material = told.and_then(|surface| surface.material.as_deref()).unwrap_or_default();
    match surface {
        "floor" if material.contains("carpet") => CARPET,
        "floor" => WOOD,
        _ if material.contains("wood") => WOOD,
        _ => PLASTER,
    }
}

/// Adds the room; `shining` gives the source of a window that shines.
pub(super) fn add(
    maker: &mut Maker,
    things: &mut Things,
    corner: &Corner<'_>,
    shining: impl Fn(&Id) -> Option<u16>,
) {
    let brief = corner.brief;
    let room = &brief.room;
    let colour = |surface: &str| hued(hue_of(brief, surface), room.reflectance(surface).0);
    let stuff = |maker: &mut Maker, things: &mut Things, surface: &str, name: &str| {
        let material = maker.material(Finish::Matt, things.number(name, Sort::Room));
        Stuff { material, colour: colour(surface), patch_m: PATCH_M }
    };
    let floor = stuff(maker, things, "floor", "the floor");
    let ceiling = stuff(maker, things, "ceiling", "the ceiling");
    level(maker, corner, 0.0, floor, true);
    level(maker, corner, room.height_m, ceiling, false);
    for (wall, name) in WALL_NAMES.iter().enumerate().take(corner.floor_m.len()) {
        let stuff = stuff(maker, things, name, &room.wall_name(wall));
        let openings: Vec<(&Id, &Opening)> =
            room.openings.iter().filter(|(_, opening)| usize::from(opening.wall) == wall).collect();
        let in_wall: Vec<&Opening> =
            openings.iter().map(|(_, opening)| *opening).filter(|opening| opening.slope.is_none()).collect();
        upright(maker, corner, wall, &in_wall, stuff);
        for (id, opening) in openings {
            let Some(frame) = frame(room, opening) else { continue };
            match opening.kind {
                OpeningKind::Door => door(maker, things, &frame, opening),
                OpeningKind::Window => window(maker, things, &frame, opening, shining(id)),
            }
        }
    }
    let overhead = stuff(maker, things, "ceiling", "the ceiling");
    for bound in bounds(room, 0.0).iter().filter(|bound| bound.overhead) {
        solid(maker, &bound.solid, overhead);
    }
}

/// Floor or ceiling over the room's outline: a rectangle in one, anything else in triangles.
fn level(maker: &mut Maker, corner: &Corner<'_>, z: f64, stuff: Stuff, is_floor: bool) {
    let mut outline: Vec<DVec3> = corner.floor_m.iter().map(|point| point.extend(z)).collect();
    if corner.brief.room.is_rectangle() {
        if !is_floor {
            outline.reverse();
        }
        return flat(maker, &outline, stuff);
    }
    for [a, b, c] in fogon_core::geometry::triangles(&corner.floor_m) {
        let mut corners = [a, b, c].map(|point| point.extend(z));
        if !is_floor {
            corners.reverse();
        }
        in_pieces(maker, corners.map(|corner| corner.as_vec3()), stuff);
    }
}

/// A triangle in four again and again until it is no larger than a patch.
fn in_pieces(maker: &mut Maker, [a, b, c]: [Vec3; 3], stuff: Stuff) {
    let longest = a.distance(b).max(b.distance(c)).max(c.distance(a));
    if longest <= 2.0 * stuff.patch_m {
        return maker.flat([a, b, c], stuff.colour, stuff.material, stuff.patch_m);
    }
    let (d, e, f) = ((a + b) / 2.0, (b + c) / 2.0, (c + a) / 2.0);
    for piece in [[a, d, f], [d, b, e], [f, e, c], [d, e, f]] {
        in_pieces(maker, piece, stuff);
    }
}

/// A wall less its openings.
fn upright(maker: &mut Maker, corner: &Corner<'_>, wall: usize, openings: &[&Opening], stuff: Stuff) {
    let room = &corner.brief.room;
    let Some((start, end)) = room.wall_m(wall) else { return };
    let (length, along) = ((end - start).length(), (end - start).normalize_or_zero());
    let holes: Vec<[f64; 4]> = openings
        .iter()
        .map(|opening| {
            let (low, left) = (opening.sill_or_usual_m(), opening.from_m);
            [
                left.clamp(0.0, length),
                (left + opening.width_m).clamp(0.0, length),
                low.min(room.height_m),
                (low + opening.height_or_usual_m()).min(room.height_m),
            ]
        })
        .collect();
    let lines = |ends: [f64; 2], of: [usize; 2]| {
        let mut all: Vec<f64> = holes.iter().flat_map(|hole| of.map(|side| hole[side])).chain(ends).collect();
        all.sort_by(f64::total_cmp);
        all.dedup_by(|a, b| (*a - *b).abs() < 1e-6);
        all
    };
    let (across, up) = (lines([0.0, length], [0, 1]), lines([0.0, room.height_m], [2, 3]));
    for x in across.windows(2) {
        for z in up.windows(2) {
            let middle = [(x[0] + x[1]) / 2.0, (z[0] + z[1]) / 2.0];
            let is_open = holes.iter().any(|hole| {
                (hole[0]..hole[1]).contains(&middle[0]) && (hole[2]..hole[3]).contains(&middle[1])
            });
            if !is_open {
                let at = |x: f64, z: f64| (start + along * x).extend(z);
                // Walls run counter-clockwise seen from above: inside is on the left.
                flat(maker, &[at(x[1], z[0]), at(x[0], z[0]), at(x[0], z[1]), at(x[1], z[1])], stuff);
            }
        }
    }
    // A skirting board, but before doors.
    let paint = stuff.coloured(WHITE_PAINT);
    let frame =
        Frame { corner: start.extend(0.0), axes: [along.extend(0.0), along.perp().extend(0.0), DVec3::Z] };
    for x in across.windows(2) {
        let middle = (x[0] + x[1]) / 2.0;
        let at_door =
            holes.iter().any(|hole| (hole[0]..hole[1]).contains(&middle) && hole[2] < SKIRTING_M[0]);
        if !at_door {
            frame.block(maker, [x[0], 0.0, 0.0], [x[1], SKIRTING_M[1], SKIRTING_M[0]], paint);
        }
    }
}

/// The space of an opening: along the wall, into the room, up the wall or the slope. A slope has no hole: the window lies on it.
fn frame(room: &Room, opening: &Opening) -> Option<Frame> {
    let pane = Pane::of(room, opening)?;
    let corner = pane.corners()[0] - pane.out * if opening.slope.is_some() { ON_SLOPE_M } else { 0.0 };
    Some(Frame { corner, axes: [pane.along, -pane.out, pane.up] })
}

/// The sides of the hole, closed behind.
fn reveal(maker: &mut Maker, frame: &Frame, [wide, high]: [f64; 2], stuff: Stuff) {
    let thick = 0.02;
    for (from, to) in [
        ([-thick, -REVEAL_M - thick, 0.0], [0.0, 0.0, high]),
        ([wide, -REVEAL_M - thick, 0.0], [wide + thick, 0.0, high]),
        ([-thick, -REVEAL_M - thick, high], [wide + thick, 0.0, high + thick]),
        ([-thick, -REVEAL_M - thick, -thick], [wide + thick, 0.0, 0.0]),
    ] {
        frame.block(maker, from, to, stuff);
    }
}

fn door(maker: &mut Maker, things: &mut Things, frame: &Frame, opening: &Opening) {
    let material = maker.material(Finish::Matt, things.number("the door", Sort::Room));
    let (wide, high) = (opening.width_m, opening.height_or_usual_m());
    let paint = Stuff { material, colour: WHITE_PAINT, patch_m: PATCH_M };
    reveal(maker, frame, [wide, high], paint);
    // A frame round it, the leaf a little back, two panels in relief, a handle.
    for (from, to) in [
        ([-FRAME_M, 0.0, 0.0], [0.0, 0.015, high + FRAME_M]),
        ([wide, 0.0, 0.0], [wide + FRAME_M, 0.015, high + FRAME_M]),
        ([0.0, 0.0, high], [wide, 0.015, high + FRAME_M]),
        ([0.0, -0.06, 0.0], [wide, -0.03, high]),
    ] {
        frame.block(maker, from, to, paint);
    }
    let inset = 0.14 * wide;
    for [low, top] in [[0.08, 0.42], [0.50, 0.93]] {
        frame.block(
            maker,
            [inset, -0.03, low * high],
            [wide - inset, -0.022, top * high],
            paint.coloured(WHITE_PAINT * 0.93),
        );
    }
    frame.block(maker, [0.06, -0.03, 1.02], [0.18, 0.03, 1.045], paint.coloured(METAL));
}

fn window(maker: &mut Maker, things: &mut Things, frame: &Frame, opening: &Opening, shining: Option<u16>) {
    let number = things.number("the window", Sort::Room);
    let material = maker.material(Finish::Matt, number);
    let (wide, high) = (opening.width_m, opening.height_or_usual_m());
    let paint = Stuff { material, colour: WHITE_PAINT, patch_m: PATCH_M };
    let mut blind_from = 0.0;
    if let Some(source) = shining {
        // What shines is the hole in the wall, as it is counted.
        blind_from = opening.clear_height_m();
        let pane = maker.material(Finish::Shines(source), number);
        let corners = [[wide, 0.0, 0.0], [0.0, 0.0, 0.0], [0.0, 0.0, blind_from], [wide, 0.0, blind_from]];
        let stuff = Stuff { material: pane, colour: Vec3::ZERO, patch_m: 4.0 };
        flat(maker, &corners.map(|corner| frame.at(corner)), stuff);
    } else if opening.slope.is_none() {
        reveal(maker, frame, [wide, high], paint);
    }
    if blind_from < high {
        // Shut out, or as far as a blind is down.
        let back = if opening.slope.is_some() || blind_from > 0.0 { 0.0 } else { -0.06 };
        let rim = (blind_from + 0.03).min(high);
        frame.block(maker, [0.0, back, blind_from], [wide, back + 0.01, high], paint.coloured(BLIND));
        frame.block(
            maker,
            [0.0, back + 0.01, blind_from],
            [wide, back + 0.025, rim],
            paint.coloured(BLIND * 0.8),
        );
    }
    for (from, to) in [
        ([-FRAME_M, 0.0, 0.0], [0.0, 0.012, high + FRAME_M]),
        ([wide, 0.0, 0.0], [wide + FRAME_M, 0.012, high + FRAME_M]),
        ([0.0, 0.0, high], [wide, 0.012, high + FRAME_M]),
        ([-FRAME_M, 0.0, -0.03], [wide + FRAME_M, 0.06, 0.0]),
    ] {
        frame.block(maker, from, to, paint);
    }
}
