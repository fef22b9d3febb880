//! Small changes to a layout that searches and mending share: where a stand's foot can go, the bag it needs,
//! the camera's pose. Layouts are written to the millimetre and the tenth of a degree.

use crate::corner::Corner;
use crate::geometry::{DVec2, DVec3, inside};
use crate::plan::{Brief, Camera, Layout, Point2, Point3, Support, SupportKind, ThingId};
use crate::shot::framing::Pose;

/// Directions and radii tried for the foot of an arm.
const AROUND: usize = 12;

/// An arm is fixed no nearer to a corner of the room than this, m. Fogon's own rule.
const FROM_CORNER_M: f64 = 0.05;

/// To the millimetre.
pub fn millimetre(value: f64) -> f64 {
    (value * 1000.0).round() / 1000.0
}

/// A point to the millimetre.
pub fn rounded(point: DVec3) -> Point3 {
    Point3(point.to_array().map(millimetre))
}

/// A place on the floor to the millimetre.
pub fn rounded_floor(point: DVec2) -> Point2 {
    Point2(point.to_array().map(millimetre))
}

/// An angle in [0, 360) to the hundredth of a degree.
pub fn rounded_bearing(angle_deg: f64) -> f64 {
    let rounded = (crate::geometry::wrap_360(angle_deg) * 100.0).round() / 100.0;
    if rounded >= 360.0 { 0.0 } else { rounded }
}

/// The bag to hang for a computed need: up to the next half kilogram.
pub fn bag_kg(needed_kg: f64) -> f64 {
    if needed_kg <= 0.05 { 0.0 } else { (needed_kg * 2.0).ceil() / 2.0 }
}

/// Supports of the same kind for a thing held at `hold`: plumb under it, or an arm from every side that the room
/// allows, straight outward from the person first. `hand` (+1 or -1) says which way to fan out first, so that a
/// mirrored room gives the mirrored choice.
pub fn supports_for(
    corner: &Corner<'_>,
    support: &Support,
    hold: DVec3,
    away_from: DVec2,
    hand: f64,
) -> Vec<Support> {
    match support.kind {
        SupportKind::Floor => {
            vec![Support { base_m: Some(rounded_floor(hold.truncate())), ..support.clone() }]
        }
        SupportKind::Boom => {
            let reach = corner.support_gear(support).map_or(1.0, |gear| gear.reach_m).max(0.3);
            // The feet stay in the room: so near to a wall no foot can stand.
            let from_walls = (crate::corner::foot_radius_m(corner, support) - 0.01).max(0.03);
            let outward = (hold.truncate() - away_from).try_normalize().unwrap_or(DVec2::X);
            let mut all = Vec::new();
            for part in [0.6, 0.85, 1.0, 0.35] {
                for step in 0..AROUND {
                    // Fan out from straight outward: 0, +1, -1, +2, -2 ...
                    let turn = if step % 2 == 0 { -(step as i32) / 2 } else { (step as i32 + 1) / 2 };
                    let angle = hand * f64::from(turn) * std::f64::consts::TAU / AROUND as f64;
                    let base =
                        hold.truncate() + DVec2::from_angle(angle).rotate(outward) * reach * part * 0.995;
                    if inside(&corner.floor_m, base, -from_walls) {
                        all.push(Support { base_m: Some(rounded_floor(base)), ..support.clone() });
                    }
                }
            }
            all
        }
        SupportKind::Wall => on_walls(corner, support, hold, hand)
            .into_iter()
            .map(|at| Support { base_m: Some(rounded_floor(at)), ..support.clone() })
            .collect(),
        _ => vec![support.clone()],
    }
}

/// Where an arm can be fixed to a wall, level with what it holds and within its reach: straight behind it first, then to
/// either side, the nearest wall first; never in a door or a window.
fn on_walls(corner: &Corner<'_>, support: &Support, hold: DVec3, hand: f64) -> Vec<DVec2> {
    let reach = corner.support_gear(support).map_or(1.0, |gear| gear.reach_m);
    let room = &corner.brief.room;
    let mut all: Vec<(f64, DVec2)> = Vec::new();
    for wall in 0..corner.floor_m.len() {
        let Some((start, end)) = room.wall_m(wall) else { continue };
        let along = (end - start).normalize_or_zero();
        let straight = (hold.truncate() - start).dot(along);
        for aside in [0.0, 0.25 * hand, -0.25 * hand, 0.5 * hand, -0.5 * hand] {
            let at = straight + aside;
            if !(FROM_CORNER_M..=(end - start).length() - FROM_CORNER_M).contains(&at) {
                continue;
            }
            let point = start + along * at;
            let off = (point - hold.truncate()).length();
            if off <= reach && room.opening_at(point, hold.z).is_none() {
                all.push((off, point));
            }
        }
    }
    all.sort_by(|a, b| a.0.total_cmp(&b.0));
    all.into_iter().map(|(_, point)| point).collect()
}

/// Hangs the bag that a thing's stand needs, if it stands on one.
pub fn fill_bag(brief: &Brief, layout: &mut Layout, thing: &ThingId) {
    let needed = Corner::from_parts(brief, layout).and_then(|corner| {
        let stands = crate::room::sandbags(&corner);
        stands.into_iter().find(|stand| stand.thing == *thing).map(|stand| bag_kg(stand.needed_kg))
    });
    let Some(kg) = needed else { return };
    match thing {
        ThingId::Backdrop => layout.backdrop.iter_mut().for_each(|backdrop| backdrop.sandbag_kg = kg),
        _ => layout.support_mut(thing).into_iter().for_each(|support| support.sandbag_kg = kg),
    }
}

/// Puts a camera where a pose wants it, focused on the eyes, its stand plumb under it.
pub fn set_pose(camera: &mut Camera, pose: &Pose, focal_length_mm: f64) {
    camera.position_m = rounded(pose.position_m);
    camera.bearing_deg = rounded_bearing(pose.bearing_deg);
    camera.tilt_deg = (pose.tilt_deg * 100.0).round() / 100.0;
    camera.focal_length_mm = focal_length_mm;
    camera.focus_distance_m = millimetre(pose.subject_distance_m);
    if matches!(camera.support.kind, SupportKind::Floor) {
        camera.support.base_m = Some(rounded_floor(pose.position_m.truncate()));
    }
}
