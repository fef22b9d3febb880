//! Where a person could sit: eight facings, and for each the places that the room and the desk allow.

use crate::geometry::{
    DVec2, bearing_of, bearing_vector, hull, inside, is_outer_corner, whole_steps, wrap_180,
};
use crate::plan::{Brief, Furniture, FurnitureAt, FurnitureKind, Id, OpeningKind, Point3};

/// Grid on which seats are tried, m, and the most steps of it along one side: in a hall they lie farther apart.
const GRID_M: f64 = 0.125;
const STEPS_MOST: usize = 26;
/// Nearest the eyes come to a wall at the side and behind, m: half the chair and a hand.
const WALL_M: f64 = 0.42;
/// The chair's back behind the eyes and a finger: nearer to a wall no chair can stand, m.
const CHAIR_M: f64 = 0.385;
/// From the eyes' plumb line to the near edge of the desk, m: close to it, or a little back, so that a camera on its far edge
/// is far enough.
const DESK_EDGES_M: [f64; 3] = [0.12, 0.22, 0.32];

/// A direction to face.
#[derive(Debug, Clone, PartialEq)]
pub(crate) struct Facing {
    /// `the front wall`, `the back-left corner`, `corner e` ...
    pub(crate) name: String,
    /// From the person to the lens.
    pub(crate) bearing_deg: f64,
}

/// A place to sit.
#[derive(Debug, Clone)]
pub(crate) struct SeatPlace {
    /// Plumb under the eyes, m.
    pub(crate) seat_m: DVec2,
    /// The desk, where it has to be moved along.
    pub(crate) desk: Option<(Id, FurnitureAt)>,
    /// From the plumb line of the eyes to the near edge of that desk, m.
    pub(crate) desk_edge_m: f64,
}

/// Facings nearer to each other than this are one, degrees.
const SAME_FACING_DEG: f64 = 12.0;

/// The walls and corners by name, in the order of bearings from the front wall on: to face a wall is to face it
/// squarely, to face a corner is to face as one does who sits in the middle. In a rectangle eight.
fn walls_and_corners(brief: &Brief) -> Vec<(String, f64)> {
    let room = &brief.room;
    if room.is_rectangle() {
        let [width, depth, _] = room.dimensions_m();
        let diagonal = bearing_of(glam::DVec3::new(width, depth, 0.0));
        return [
            ("the front wall", 0.0),
            ("the front-right corner", diagonal),
            ("the right wall", 90.0),
            ("the back-right corner", 180.0 - diagonal),
            ("the back wall", 180.0),
            ("the back-left corner", 180.0 + diagonal),
            ("the left wall", 270.0),
            ("the front-left corner", 360.0 - diagonal),
        ]
        .map(|(name, bearing)| (name.to_owned(), bearing))
        .to_vec();
    }
    let outline = room.outline();
    let count = outline.len();
    let outermost = hull(&outline);
    let middle = outermost.iter().copied().sum::<DVec2>() / outermost.len().max(1) as f64;
    let walls = (0..count).filter_map(|wall| {
        let (start, end) = room.wall_m(wall)?;
        let outward = -(end - start).perp();
        // Long walls first: where two look the same way, the longer gives the name.
        Some((room.wall_name(wall), bearing_of(outward.extend(0.0)), (end - start).length()))
    });
    let mut all: Vec<(String, f64, f64)> = walls.collect();
    all.sort_by(|a, b| b.2.total_cmp(&a.2));
    let corners = (0..count).filter(|corner| is_outer_corner(&outline, *corner)).map(|corner| {
        let bearing = bearing_of((outline[corner] - middle).extend(0.0));
        (format!("corner {}", room.corner_letter(corner)), bearing, 0.0)
    });
    all.extend(corners);
    let mut kept: Vec<(String, f64)> = Vec::new();
    for (name, bearing, _) in all {
        if kept.iter().all(|(_, other)| wrap_180(bearing - other).abs() > SAME_FACING_DEG) {
            kept.push((name, bearing));
        }
    }
    kept.sort_by(|a, b| a.1.total_cmp(&b.1));
    kept
}

/// The wall or corner that lies nearest to a bearing.
pub fn nearest_facing(brief: &Brief, bearing_deg: f64) -> String {
    let off = |facing: &(String, f64)| wrap_180(bearing_deg - facing.1).abs();
    walls_and_corners(brief)
        .into_iter()
        .min_by(|a, b| off(a).total_cmp(&off(b)))
        .map_or(String::new(), |f| f.0)
}

/// The side of the room that grids begin on: where the windows are, else where the door is, else the right;
/// +1 right, -1 left. So a mirrored room is searched in mirrored order, and equal candidates fall out mirrored.
fn first_side(brief: &Brief) -> f64 {
    let floor = brief.room.outline();
    let [width, ..] = brief.room.dimensions_m();
    let lean = |kind: OpeningKind| -> f64 {
        let openings = brief.room.openings.values().filter(|o| o.kind == kind);
        openings.map(|o| o.middle_m(&floor).x - width / 2.0).sum()
    };
    let (windows, doors) = (lean(OpeningKind::Window), lean(OpeningKind::Door));
    let lean = if windows.abs() > 1e-6 { windows } else { doors };
    if lean < -1e-6 { -1.0 } else { 1.0 }
}

/// The facings that the desk allows: the front wall first, then round to the back wall, at each step the side
/// that grids begin on.
pub(crate) fn facings(brief: &Brief) -> Vec<Facing> {
    let fixed_desk = desk(brief).filter(|(_, piece)| piece.fixed);
    let hand = first_side(brief);
    let mut all = walls_and_corners(brief);
    all.sort_by(|a, b| {
        let turn = |bearing: f64| wrap_180(bearing) * hand;
        let off = |bearing: f64| (turn(bearing).abs() * 1e6).round();
        off(a.1).total_cmp(&off(b.1)).then(turn(b.1).total_cmp(&turn(a.1)))
    });
    all.into_iter()
        .filter(|(_, bearing)| match fixed_desk {
            // A desk that cannot be moved is faced across either of its long sides.
            Some((_, piece)) => {
                let off = wrap_180(bearing - piece.bearing_deg).abs();
                !(30.0..=150.0).contains(&off)
            }
            None => true,
        })
        .map(|(name, bearing_deg)| Facing { name, bearing_deg })
        .collect()
}

fn desk(brief: &Brief) -> Option<(&Id, &Furniture)> {
    let id = brief.person.seat_at.as_ref()?;
    brief.room.furniture.get_key_value(id)
}

/// Places for one facing.
pub(crate) fn places(brief: &Brief, facing: &Facing) -> Vec<SeatPlace> {
    let floor = brief.room.outline();
    let ahead = bearing_vector(facing.bearing_deg).truncate();
    match desk(brief) {
        Some((_, piece)) if piece.fixed => {
            let forward = bearing_vector(piece.bearing_deg).truncate();
            let side = if ahead.dot(forward) > 0.0 { -1.0 } else { 1.0 };
            let middle = DVec2::new(piece.position_m.0[0], piece.position_m.0[1]);
            let along = DVec2::new(forward.y, -forward.x);
            let hand = first_side(brief);
            let mut all = Vec::new();
            for desk_edge_m in DESK_EDGES_M {
                let edge = middle + forward * side * (piece.size_m.0[1] / 2.0 + desk_edge_m);
                for shift in [0.0, 0.2, -0.2, 0.35, -0.35] {
                    let seat_m = edge + along * shift * hand;
                    if inside(&floor, seat_m, -0.25) {
                        all.push(SeatPlace { seat_m, desk: None, desk_edge_m });
                    }
                }
            }
            all
        }
        at_desk => {
            let [width, depth, _] = brief.room.dimensions_m();
            let mut all = Vec::new();
            let steps = |side: f64| {
                let free = side - 2.0 * WALL_M;
                let count = whole_steps(free, GRID_M).min(STEPS_MOST);
                (count, if count == STEPS_MOST { free / count as f64 } else { GRID_M })
            };
            let ((nx, step_x), (ny, step_y)) = (steps(width), steps(depth));
            let hand = first_side(brief);
            let edges = if at_desk.is_some() { &DESK_EDGES_M[..] } else { &DESK_EDGES_M[..1] };
            for i in 0..=nx {
                for j in 0..=ny {
                    // Centred grids: a mirrored room gives the mirrored places.
                    let seat_m = DVec2::new(
                        width / 2.0 - hand * (i as f64 - nx as f64 / 2.0) * step_x,
                        depth / 2.0 + (j as f64 - ny as f64 / 2.0) * step_y,
                    );
                    all.extend(
                        edges
                            .iter()
                            .filter_map(|edge| place_at(brief, &floor, facing, seat_m, WALL_M, *edge)),
                    );
                }
            }
            all
        }
    }
}

/// The seat at a point of the floor with its desk moved along, if both fit and the walls are so far away.
fn place_at(
    brief: &Brief,
    floor: &[DVec2],
    facing: &Facing,
    seat_m: DVec2,
    from_walls_m: f64,
    desk_edge_m: f64,
) -> Option<SeatPlace> {
    let [width, depth, _] = brief.room.dimensions_m();
    if !inside(floor, seat_m, -from_walls_m.min(width.min(depth) / 2.0)) {
        return None;
    }
    let desk = moved_desk(desk(brief), seat_m, facing, floor, desk_edge_m)?;
    Some(SeatPlace { seat_m, desk, desk_edge_m })
}

/// A place moved ahead and aside (towards the side that grids begin on), and so much farther from its desk, if it fits there;
/// `None` at a desk that cannot be moved.
pub(super) fn shifted(
    brief: &Brief,
    facing: &Facing,
    place: &SeatPlace,
    ahead_m: f64,
    aside_m: f64,
    from_desk_m: f64,
) -> Option<SeatPlace> {
    let at_desk = desk(brief);
    let desk_edge_m = (place.desk_edge_m + from_desk_m).clamp(DESK_EDGES_M[0], DESK_EDGES_M[2]);
    let no_desk_to_leave = from_desk_m != 0.0 && at_desk.is_none();
    if no_desk_to_leave || at_desk.is_some_and(|(_, piece)| piece.fixed) {
        return None;
    }
    let ahead = bearing_vector(facing.bearing_deg).truncate();
    let aside = DVec2::new(ahead.y, -ahead.x) * first_side(brief);
    let seat_m = place.seat_m + ahead * ahead_m + aside * aside_m;
    place_at(brief, &brief.room.outline(), facing, seat_m, CHAIR_M, desk_edge_m)
}

/// The facing turned a little, on the side that grids begin on; `None` at a desk that cannot be moved.
pub(super) fn turned(brief: &Brief, facing: &Facing, by_deg: f64) -> Option<Facing> {
    if desk(brief).is_some_and(|(_, piece)| piece.fixed) {
        return None;
    }
    let bearing_deg = crate::geometry::wrap_360(facing.bearing_deg + by_deg * first_side(brief));
    Some(Facing { name: nearest_facing(brief, bearing_deg), bearing_deg })
}

/// The desk in front of a seat, if there is one and it fits; the outer `None` means that it does not.
#[allow(clippy::option_option)]
fn moved_desk(
    found: Option<(&Id, &Furniture)>,
    seat: DVec2,
    facing: &Facing,
    floor: &[DVec2],
    desk_edge_m: f64,
) -> Option<Option<(Id, FurnitureAt)>> {
    let Some((id, piece)) = found else { return Some(None) };
    if !matches!(piece.kind, FurnitureKind::Desk | FurnitureKind::Table) {
        return Some(None);
    }
    let ahead = bearing_vector(facing.bearing_deg).truncate();
    let across = DVec2::new(ahead.y, -ahead.x);
    let [width, depth, _] = piece.size_m.0;
    let middle = seat + ahead * (desk_edge_m + depth / 2.0);
    let fits = [(1.0, 1.0), (1.0, -1.0), (-1.0, 1.0), (-1.0, -1.0)]
        .iter()
        .all(|(x, y)| inside(floor, middle + across * (x * width / 2.0) + ahead * (y * depth / 2.0), 0.005));
    let bearing_deg = crate::edit::rounded_bearing(facing.bearing_deg + 180.0);
    let at = crate::edit::rounded_floor(middle);
    let position_m = Point3([at.0[0], at.0[1], piece.position_m.0[2]]);
    fits.then(|| Some((id.clone(), FurnitureAt { position_m, bearing_deg, locked: false })))
}
