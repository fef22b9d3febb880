//! What hangs on walls: pictures and shelves where a wall is done up with things, and what hangs or lies to reduce echo.
use fogon_core::corner::Corner;
use fogon_core::geometry::{DVec2, DVec3};
use fogon_core::plan::{FlatSurface, Look, ThingId, WALL_NAMES};
use glam::Vec3;

use super::furniture::{OAK, picture, row};
use super::shapes::{Frame, Stuff};
use super::things::{Sort, Things, seed_of};
use crate::body::Maker;
use crate::surface::Finish;

const PATCH_M: f32 = 0.12;
/// One thing to so much of a wall, m, and no thing on less than that.
const ONE_TO_M: f64 = 1.3;
const LEAST_M: f64 = 0.75;
/// Width, height and middle of a picture, m.
const PICTURE_M: [f64; 3] = [0.50, 0.66, 1.55];
/// Width, depth and height of a wall shelf's board, m.
const SHELF_M: [f64; 3] = [0.70, 0.10, 1.42];
/// Furniture so near to a wall and so high hides what would hang there, m.
const NEAR_M: f64 = 0.35;
const HIDES_M: f64 = 1.0;
/// What hangs to reduce echo is felt: no finish is told of it.
const FELT: Vec3 = Vec3::new(0.30, 0.295, 0.28);
/// Thickness where none is told, m.
const THICK_M: f64 = 0.04;

/// The space of a surface: along it, up it, and into the room.
fn frame(on: &FlatSurface) -> Frame {
    Frame { corner: on.corner_m, axes: [on.axes[0], on.axes[1], on.normal] }
}

/// Pictures and shelves on the walls that are done up with things, between windows, doors and high furniture.
pub(super) fn dress(maker: &mut Maker, things: &mut Things, corner: &Corner<'_>) {
    let room = &corner.brief.room;
    for (wall, name) in WALL_NAMES.iter().enumerate().take(corner.floor_m.len()) {
        let is_dressed = room.surfaces.get(*name).is_some_and(|surface| surface.look == Look::Dressed);
        let (true, Some(on)) = (is_dressed, room.surface(name)) else { continue };
        let name = format!("what hangs on {}", room.wall_name(wall));
        let number = things.number(&name, Sort::Furniture);
        let material = maker.material(Finish::Matt, number);
        let stuff = |colour: Vec3| Stuff { material, colour, patch_m: PATCH_M };
        // Up the wall is the depth of a box that stands on its back; into the room comes forward.
        let [along, up, out] = frame(&on).axes;
        let places = free(corner, wall, &on).into_iter().flat_map(spread);
        for (index, middle) in places.enumerate() {
            if index % 2 == 0 {
                let [wide, high, z] = PICTURE_M;
                let left = middle - wide / 2.0;
                // Seen by one who looks at the wall, its left is at the far end of it.
                let at = on.corner_m + along * (left + wide) + up * (z - high / 2.0) + out * 0.025;
                let frame = Frame { corner: at, axes: [-along, -out, up] };
                let mut block = |from: [f64; 3], to: [f64; 3], colour: Vec3| {
                    frame.block(maker, from, to, stuff(colour));
                };
                picture(&mut block, [wide, 0.025, high]);
            } else {
                let [wide, deep, z] = SHELF_M;
                let at = on.corner_m + along * (middle + wide / 2.0) + up * z + out * deep;
                let frame = Frame { corner: at, axes: [-along, -out, up] };
                frame.block(maker, [0.0; 3], [wide, deep, 0.022], stuff(OAK));
                let seed = seed_of(&name).wrapping_add(index as u16);
                row(maker, &frame, stuff, [0.02, wide - 0.02, 0.022, 0.24], deep, seed);
            }
        }
    }
}

/// Parts of a wall before which nothing stands, along it, m.
fn free(corner: &Corner<'_>, wall: usize, on: &FlatSurface) -> Vec<[f64; 2]> {
    let room = &corner.brief.room;
    let openings = room.openings.values().filter(|opening| usize::from(opening.wall) == wall);
    let mut taken: Vec<[f64; 2]> =
        openings.map(|opening| [opening.from_m - 0.1, opening.from_m + opening.width_m + 0.1]).collect();
    for (id, piece) in &room.furniture {
        let corners = corner.furniture_box(id, piece);
        let highest = corners.iter().map(|corner| corner.z).fold(0.0, f64::max);
        let off = corners.iter().map(|corner| (*corner - on.corner_m).dot(on.normal));
        if highest > HIDES_M && off.fold(f64::MAX, f64::min) < NEAR_M {
            let along = corners.iter().map(|corner| on.flat_m(*corner)[0]);
            let ends = along.fold([f64::MAX, f64::MIN], |[low, high], x| [low.min(x), high.max(x)]);
            taken.push(ends);
        }
    }
    taken.sort_by(|a, b| a[0].total_cmp(&b[0]));
    let mut from = 0.0;
    let mut parts = Vec::new();
    for [low, high] in taken.into_iter().chain([[on.size_m[0]; 2]]) {
        if low - from > LEAST_M {
            parts.push([from, low]);
        }
        from = high.max(from);
    }
    parts
}

/// Middles of things spread evenly over a part of a wall.
fn spread([from, to]: [f64; 2]) -> impl Iterator<Item = f64> {
    let number = ((to - from) / ONE_TO_M).round().clamp(1.0, 40.0);
    (0..number as usize).map(move |index| from + (to - from) * (index as f64 + 0.5) / number)
}

/// What hangs or lies to reduce echo, where the layout has it.
pub(super) fn treatment(maker: &mut Maker, things: &mut Things, corner: &Corner<'_>) {
    for (id, one) in &corner.layout.treatment {
        let gear = corner.brief.gear.get(&one.gear).and_then(|gear| gear.treatment());
        let (Some(gear), Some(on)) = (gear, corner.brief.room.surface(&one.on.0)) else { continue };
        let number = things.number(&corner.name(&ThingId::Treatment(id.clone())), Sort::SetUp);
        let material = maker.material(Finish::Matt, number);
        let stuff = Stuff { material, colour: FELT, patch_m: PATCH_M };
        let middle = DVec2::from_array(on.flat_m(DVec3::from(one.position_m)));
        let half = DVec2::from_array(one.size_m(gear)) / 2.0;
        let gap = gear.air_gap_m.unwrap_or(0.0);
        let (low, high) = (middle - half, middle + half);
        let thick = gear.thickness_m.unwrap_or(THICK_M);
        // A hair off the surface, so that the two are told apart.
        frame(&on).block(maker, [low.x, low.y, gap + 0.002], [high.x, high.y, gap + thick], stuff);
    }
}
