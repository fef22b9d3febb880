//! How a cable runs over the floor: straight, or along the walls, so that it crosses no way where it can.

use crate::corner::Corner;
use crate::geometry::DVec2;
use crate::plan::OpeningKind;

/// A cable that crosses a way so near to where it begins stands there already, m. Fogon's own rule.
const FOOT_M: f64 = 0.25;
/// A door's way begins so far before it, m.
const BEFORE_DOOR_M: f64 = 0.30;

/// A way that somebody walks while they film.
pub(super) struct Way {
    from: DVec2,
    to: DVec2,
    pub(super) words: String,
}

/// From every door to the seat, and from the seat to the camera.
pub(super) fn ways(corner: &Corner<'_>) -> Vec<Way> {
    let seat = corner.eyes_m.truncate();
    let camera = corner.view.position_m.truncate();
    let room = &corner.brief.room;
    let doors = room.openings.values().filter(|opening| opening.kind == OpeningKind::Door);
    let from_doors = doors.filter_map(|door| {
        let (start, end) = room.wall_m(usize::from(door.wall))?;
        let inward = (end - start).normalize_or_zero().perp();
        let from = door.middle_m(&corner.floor_m) + inward * BEFORE_DOOR_M;
        Some(Way { from, to: seat, words: "the way from the door to your seat".to_owned() })
    });
    let to_camera = Way { from: seat, to: camera, words: "the way between seat and camera".to_owned() };
    from_doors.chain([to_camera]).collect()
}

/// A cable's way over the floor.
pub(super) struct Route {
    pub(super) points: Vec<DVec2>,
    pub(super) long_m: f64,
    /// The ways that it crosses, in words.
    pub(super) crosses: Vec<String>,
}

/// The way of a cable that crosses the fewest ways, and of those the shortest.
pub(super) fn route(walls: &[DVec2], ways: &[Way], from: DVec2, to: DVec2) -> Route {
    let straight = vec![from, to];
    let along = [true, false].map(|onward| along_walls(walls, from, to, onward));
    let told = |points: Vec<DVec2>| {
        let long_m = points.windows(2).map(|pair| pair[0].distance(pair[1])).sum();
        let mut crosses: Vec<String> =
            ways.iter().filter(|way| crosses(&points, way)).map(|way| way.words.clone()).collect();
        crosses.dedup();
        Route { points, long_m, crosses }
    };
    let [onward, back] = along.map(&told);
    let order =
        |a: &Route, b: &Route| a.crosses.len().cmp(&b.crosses.len()).then(a.long_m.total_cmp(&b.long_m));
    [onward, back].into_iter().fold(told(straight), |best, other| {
        if order(&other, &best) == std::cmp::Ordering::Less { other } else { best }
    })
}

fn crosses(points: &[DVec2], way: &Way) -> bool {
    points.windows(2).any(|pair| {
        let (run, walk) = (pair[1] - pair[0], way.to - way.from);
        let across = run.perp_dot(walk);
        if across.abs() < 1e-9 {
            return false;
        }
        let off = way.from - pair[0];
        let (on_run, on_way) = (off.perp_dot(walk) / across, off.perp_dot(run) / across);
        let at = pair[0] + run * on_run;
        (0.0..=1.0).contains(&on_run)
            && (0.0..=1.0).contains(&on_way)
            && points.first().is_none_or(|foot| at.distance(*foot) > FOOT_M)
    })
}

/// To the nearest place of a wall, and along the walls in one sense to the socket.
fn along_walls(walls: &[DVec2], from: DVec2, to: DVec2, onward: bool) -> Vec<DVec2> {
    let count = walls.len();
    let nearest = |point: DVec2| {
        (0..count)
            .map(|index| {
                let (a, b) = (walls[index], walls[(index + 1) % count]);
                let part = ((point - a).dot(b - a) / (b - a).length_squared().max(1e-12)).clamp(0.0, 1.0);
                (index, a.lerp(b, part))
            })
            .min_by(|x, y| x.1.distance(point).total_cmp(&y.1.distance(point)))
    };
    let (Some((start_wall, start)), Some((end_wall, end))) = (nearest(from), nearest(to)) else {
        return vec![from, to];
    };
    let mut points = vec![from, start];
    let straight_on = start_wall == end_wall && {
        let ahead = (end - start).dot(walls[(start_wall + 1) % count] - walls[start_wall]) >= 0.0;
        ahead == onward
    };
    if !straight_on {
        // Corners in the order in which they are met, until the socket's wall is reached.
        let mut wall = start_wall;
        for _ in 0..count {
            if onward {
                wall = (wall + 1) % count;
                points.push(walls[wall]);
            } else {
                points.push(walls[wall]);
                wall = (wall + count - 1) % count;
            }
            if wall == end_wall {
                break;
            }
        }
    }
    points.extend([end, to]);
    points.dedup_by(|a, b| a.distance(*b) < 1e-9);
    points
}
