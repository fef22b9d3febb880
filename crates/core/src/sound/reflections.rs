//! First reflections: where on walls, ceiling, floor and desk the voice is thrown to the microphone, by mirror sources.

use crate::corner::{Corner, Kind, bounds, things};
use crate::geometry::{DVec3, Solid, bearing_vector, inside};
use crate::plan::{FurnitureKind, WALL_NAMES};

/// A ceiling that climbs more than this is the side of a beam.
const STEEP: f64 = 3.0;
/// Step for the fall of a ceiling, m.
const STEP_M: f64 = 0.01;
/// A leg is followed to so near its surface, m.
const OFF_M: f64 = 0.005;

/// A reflection of the voice.
#[derive(Debug, Clone, PartialEq)]
pub struct Reflection {
    /// The room's surface by name, or the furniture's id.
    pub surface: String,
    /// It is a desk or a table, not a surface of the room.
    pub is_furniture: bool,
    /// Where it is thrown back, m.
    pub point_m: DVec3,
    /// Unit normal of the surface there, into the room.
    pub normal: DVec3,
    /// Length of the way, m.
    pub path_m: f64,
}

impl Reflection {
    /// So much later than the direct sound, s.
    pub fn delay_s(&self, direct_m: f64) -> f64 {
        (self.path_m - direct_m) / super::decay::SPEED_M_S
    }
}

/// Where a way from `source` to `to` by a plane meets it, and how long it is; `None` where they are not both before it.
pub fn mirrored(on: DVec3, normal: DVec3, source: DVec3, to: DVec3) -> Option<(DVec3, f64)> {
    let (from_plane, to_plane) = ((source - on).dot(normal), (to - on).dot(normal));
    if from_plane <= 1e-6 || to_plane <= 1e-6 {
        return None;
    }
    let point = source + (to - source) * (from_plane / (from_plane + to_plane));
    let point = point - normal * (point - on).dot(normal);
    Some((point, (source - point).length() + (to - point).length()))
}

/// The wall that the voice is aimed at, by name, and where it meets it.
pub fn aimed_at(corner: &Corner<'_>) -> Option<(&'static str, DVec3)> {
    let room = &corner.brief.room;
    let facing = bearing_vector(corner.layout.seat.bearing_deg);
    let name = WALL_NAMES[room.wall_met(corner.mouth_m.truncate(), facing.truncate())?];
    let plane = room.surface(name)?;
    let ahead = (plane.corner_m - corner.mouth_m).dot(plane.normal) / facing.dot(plane.normal);
    Some((name, corner.mouth_m + facing * ahead))
}

/// All first reflections from the mouth to the microphone, shortest way first.
pub fn first(corner: &Corner<'_>) -> Vec<Reflection> {
    let (_, capsule) = corner.heard_by();
    between(corner, corner.mouth_m, capsule)
}

/// Everything large enough to keep a reflection back: walls that jut in, slopes, beams, furniture, the person's body, lamps,
/// screens. Not the microphone, not what is thin, and nothing in which one of the ends lies.
fn in_the_way(corner: &Corner<'_>, ends: [DVec3; 2]) -> Vec<Solid> {
    let of_things = things(corner).into_iter().filter(|thing| thing.kind != Kind::Microphone);
    let pieces = of_things.flat_map(|thing| thing.pieces).filter(|piece| !piece.what.is_thin());
    let bounds = bounds(&corner.brief.room, 0.0).into_iter().map(|bound| bound.solid);
    let mut all: Vec<Solid> = bounds.chain(pieces.map(|piece| piece.solid)).collect();
    all.retain(|solid| ends.iter().all(|end| solid.distance_m(*end) > 0.0));
    all
}

/// All first reflections between two points of the room whose both legs are free, shortest way first.
pub fn between(corner: &Corner<'_>, source: DVec3, to: DVec3) -> Vec<Reflection> {
    let room = &corner.brief.room;
    let outline = room.outline();
    let solids = in_the_way(corner, [source, to]);
    let is_free = |from: DVec3, point: DVec3| !solids.iter().any(|solid| solid.blocks(from, point));
    let mut all = Vec::new();
    let mut keep =
        |surface: &str, is_furniture: bool, on: DVec3, normal: DVec3, holds: &dyn Fn(DVec3) -> bool| {
            if let Some((point_m, path_m)) = mirrored(on, normal, source, to)
                && holds(point_m)
                // Just off the surface, which is in nobody's way.
                && [source, to].iter().all(|end| is_free(*end, point_m + normal * OFF_M))
            {
                let surface = surface.to_owned();
                all.push(Reflection { surface, is_furniture, point_m, normal, path_m });
            }
        };
    for (wall, name) in WALL_NAMES.iter().enumerate().take(outline.len()) {
        let Some((start, end)) = room.wall_m(wall) else { continue };
        let along = (end - start).normalize_or_zero();
        let inward = along.perp();
        let holds = |point: DVec3| {
            let at = (point.truncate() - start).dot(along);
            let high = room.ceiling_m(point.truncate() + inward * STEP_M);
            (0.0..=(end - start).length()).contains(&at) && (0.0..=high).contains(&point.z)
        };
        keep(name, false, start.extend(0.0), inward.extend(0.0), &holds);
    }
    let over_floor = |point: DVec3| inside(&outline, point.truncate(), 0.0);
    keep("floor", false, DVec3::ZERO, DVec3::Z, &over_floor);
    keep("ceiling", false, DVec3::Z * room.height_m, -DVec3::Z, &|point: DVec3| {
        over_floor(point) && (room.ceiling_m(point.truncate()) - room.height_m).abs() < 1e-6
    });
    for slope in room.slopes.values() {
        let Some((from, _, inward)) = slope.ends_m(room) else { continue };
        let rise = (room.height_m - slope.knee_m) / slope.run_m;
        if rise > STEEP {
            continue;
        }
        let normal = (inward * rise).extend(-1.0).normalize_or(-DVec3::Z);
        keep("ceiling", false, from.extend(slope.knee_m), normal, &|point: DVec3| {
            over_floor(point) && (room.ceiling_m(point.truncate()) - point.z).abs() < 1e-6
        });
    }
    for (id, piece) in &corner.brief.room.furniture {
        if !matches!(piece.kind, FurnitureKind::Desk | FurnitureKind::Table) {
            continue;
        }
        let [width, depth, height] = piece.size_m.0;
        let (middle, bearing) = corner.furniture_at(id, piece);
        let top = middle.z + height;
        let ahead = bearing_vector(bearing).truncate();
        let holds = |point: DVec3| {
            let off = point.truncate() - middle.truncate();
            off.dot(ahead).abs() <= depth / 2.0 && off.perp_dot(ahead).abs() <= width / 2.0
        };
        keep(&id.0, true, DVec3::Z * top, DVec3::Z, &holds);
    }
    all.sort_by(|a, b| a.path_m.total_cmp(&b.path_m));
    all
}

/// Pairs of bare parallel walls between which a clap would flutter (Fogon's own rule: both absorb less than a tenth at 1
/// kHz, a straight line across meets both, 1 m or more apart), by name with their distance, m.
pub fn flutter(
    corner: &Corner<'_>,
    absorption: &super::absorption::Absorption,
) -> Vec<(String, String, f64)> {
    let room = &corner.brief.room;
    let areas = room.surfaces_m2();
    let area = |name: &str| areas.iter().find(|(n, _)| *n == name).map_or(0.0, |(_, area)| *area);
    let bare = |name: &str| absorption.of_surface(name, area(name))[3] < 0.1;
    let mut found = Vec::new();
    let walls: Vec<_> =
        WALL_NAMES.iter().enumerate().map_while(|(wall, name)| Some((*name, room.wall_m(wall)?))).collect();
    for (index, (first, (a0, a1))) in walls.iter().enumerate() {
        for (second, (b0, b1)) in &walls[index + 1..] {
            let along = (*a1 - *a0).normalize_or_zero();
            let across = along.perp();
            let apart = (*b0 - *a0).dot(across);
            let parallel = along.dot((*b1 - *b0).normalize_or_zero()) < -0.9999;
            let (low, high) =
                ((*b1 - *a0).dot(along).max(0.0), (*b0 - *a0).dot(along).min((*a1 - *a0).length()));
            if parallel && apart >= 1.0 && high - low > 0.5 && bare(first) && bare(second) {
                found.push(((*first).to_owned(), (*second).to_owned(), apart));
            }
        }
    }
    if bare("floor") && bare("ceiling") && room.slopes.is_empty() {
        found.push(("floor".into(), "ceiling".into(), room.height_m));
    }
    found
}
