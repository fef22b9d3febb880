//! The light that the room throws back: radiosity over patches of walls, floor and ceiling. The exchange between them
//! depends on the room alone and is kept for the rooms seen last.

use std::num::NonZeroUsize;
use std::sync::{Arc, LazyLock};

use crate::geometry::{DVec2, DVec3, inside};
use crate::kept::Kept;
use crate::photometry::{Enclosure, Patch};
use crate::plan::{Brief, Room, WALL_NAMES};

/// Patches are about so large, m, in larger rooms so large that there are about so many.
const PATCH_M: f64 = 0.5;
const PATCHES: f64 = 150.0;
/// A ceiling that climbs more than this is the side of a beam, which is left out.
const STEEP: f64 = 3.0;
/// Step for the fall of a ceiling, and so far inside a wall its height is read, m.
const STEP_M: f64 = 0.01;
/// Rooms kept.
const KEPT: NonZeroUsize = NonZeroUsize::MIN.saturating_add(3);

/// What decides a room's exchange, number by number.
type RoomKey = Vec<u64>;

/// The exchange of a brief's room.
pub fn enclosure(brief: &Brief) -> Arc<Enclosure> {
    static ROOMS: LazyLock<Kept<RoomKey, Enclosure>> = LazyLock::new(|| Kept::new(KEPT));
    ROOMS.get(key_of(brief), || {
        let solids = crate::corner::bounds(&brief.room, 0.0);
        let blocked = |from: DVec3, to: DVec3| solids.iter().any(|bound| bound.solid.blocks(from, to));
        Enclosure::new(patches(brief), blocked)
    })
}

fn key_of(brief: &Brief) -> RoomKey {
    let room = &brief.room;
    let floor = room.floor_m.iter().flat_map(|point| point.0);
    let slopes = room.slopes.values().flat_map(|slope| [f64::from(slope.wall), slope.knee_m, slope.run_m]);
    let beams = room.beams.values().flat_map(|beam| {
        let ([x0, y0], [x1, y1]) = (beam.from_m.0, beam.to_m.0);
        [x0, y0, x1, y1, beam.width_m, beam.drop_m]
    });
    let walls = WALL_NAMES.iter().take(room.floor_m.len());
    let surfaces = walls.chain(&["floor", "ceiling"]).map(|name| brief.room.reflectance(name).0);
    // How many of each, so that no two rooms have the same numbers.
    let counts = [room.floor_m.len() as f64, room.slopes.len() as f64];
    let all =
        counts.into_iter().chain([room.height_m]).chain(floor).chain(slopes).chain(beams).chain(surfaces);
    all.map(f64::to_bits).collect()
}

/// Walls, floor and ceiling in pieces, normals into the room.
fn patches(brief: &Brief) -> Vec<Patch> {
    let room = &brief.room;
    let whole_m2: f64 = room.surfaces_m2().iter().map(|(_, area)| area).sum();
    let side = PATCH_M.max((whole_m2 / PATCHES).sqrt());
    let pieces = |length: f64| (length / side).ceil().max(1.0) as usize;
    let mut all = Vec::new();
    flat(brief, pieces, &mut all);
    let outline = room.outline();
    for (wall, name) in WALL_NAMES.iter().enumerate().take(outline.len()) {
        let Some((start, end)) = room.wall_m(wall) else { continue };
        let along = (end - start).normalize_or_zero();
        let inward = along.perp();
        let columns = pieces((end - start).length());
        let step = (end - start) / columns as f64;
        for column in 0..columns {
            let (from, to) = (start + step * column as f64, start + step * (column + 1) as f64);
            let high = room.ceiling_m((from + to) / 2.0 + inward * STEP_M);
            let rows = pieces(high);
            for row in 0..rows {
                let (low, top) = (high * row as f64 / rows as f64, high * (row + 1) as f64 / rows as f64);
                let corners = vec![to.extend(low), from.extend(low), from.extend(top), to.extend(top)];
                all.push(patch(corners, inward.extend(0.0), brief.room.reflectance(name).0));
            }
        }
    }
    all
}

fn patch(outline: Vec<DVec3>, normal: DVec3, reflectance: f64) -> Patch {
    let middle = outline.iter().sum::<DVec3>() / outline.len() as f64;
    let (_, area_m2) = crate::photometry::face_normal(&outline);
    Patch { outline, middle, normal, area_m2, reflectance }
}

/// Floor and ceiling on one grid; of a floor that is no rectangle the cells whose middle lies in it.
fn flat(brief: &Brief, pieces: impl Fn(f64) -> usize, all: &mut Vec<Patch>) {
    let room: &Room = &brief.room;
    let [width, depth, _] = room.dimensions_m();
    let outline = room.outline();
    let (columns, rows) = (pieces(width), pieces(depth));
    let half = DVec2::new(width / columns as f64, depth / rows as f64) / 2.0;
    let (on_floor, on_ceiling) = (brief.room.reflectance("floor").0, brief.room.reflectance("ceiling").0);
    for column in 0..columns {
        for row in 0..rows {
            let middle = half * DVec2::new(2.0 * column as f64 + 1.0, 2.0 * row as f64 + 1.0);
            if !inside(&outline, middle, 0.0) {
                continue;
            }
            let corner = |x: f64, y: f64| middle + half * DVec2::new(x, y);
            let round = [corner(-1.0, -1.0), corner(1.0, -1.0), corner(1.0, 1.0), corner(-1.0, 1.0)];
            all.push(patch(round.iter().map(|p| p.extend(0.0)).collect(), DVec3::Z, on_floor));
            let high = room.ceiling_m(middle);
            let climb = |axis: DVec2| {
                let rise = room.ceiling_m(middle + axis * STEP_M) - room.ceiling_m(middle - axis * STEP_M);
                let climb = rise / (2.0 * STEP_M);
                if climb.abs() > STEEP { 0.0 } else { climb }
            };
            let fall = DVec2::new(climb(DVec2::X), climb(DVec2::Y));
            let over = |p: &DVec2| p.extend(high + fall.dot(*p - middle));
            let normal = DVec3::new(fall.x, fall.y, -1.0).normalize();
            all.push(patch(round.iter().rev().map(over).collect(), normal, on_ceiling));
        }
    }
}
