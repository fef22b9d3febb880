//! A room whose measures contradict each other.

use super::refusals::{TAPE_M, conflict, unknown};
use crate::geometry::{DVec2, beyond_m, is_simple, signed_area_m2};
use crate::plan::{Brief, Furniture, Id, Opening, OpeningKind, Point2, Point3, Room};
use crate::problem::{Code, Problem};

/// Walls shorter than this are no walls, m.
const WALL_LEAST_M: f64 = 0.05;

pub(super) fn room(brief: &Brief, found: &mut Vec<Problem>) {
    let room = &brief.room;
    if let Err(problem) = floor(room) {
        found.push(problem);
        return;
    }
    let walls = room.floor_m.len();
    for (id, opening) in &room.openings {
        let field = format!("brief.room.openings.{id}");
        let Some(wall_m) = wall_length(room, opening.wall) else {
            found.push(no_wall(&field, opening.wall, walls));
            continue;
        };
        let left_m = wall_m - opening.from_m;
        if opening.width_m > left_m + TAPE_M {
            let accepted = if opening.width_m > wall_m {
                format!("at most the wall's {wall_m:.3} m")
            } else {
                format!("at most the {:.3} m left of the wall after from_m", left_m.max(0.0))
            };
            found.push(conflict(format!("{field}.width_m"), opening.width_m, accepted));
        }
        if let Some(blind_m) = opening.blind_m.filter(|blind_m| *blind_m > opening.height_or_usual_m()) {
            let accepted = format!("at most {:.3} m, the window's height", opening.height_or_usual_m());
            found.push(conflict(format!("{field}.blind_m"), blind_m, accepted));
        }
        if let Some(slope) = &opening.slope {
            in_slope(&field, (room, opening), slope, found);
            continue;
        }
        let sill_m = opening.sill_or_usual_m();
        let height_m = opening.height_or_usual_m();
        if sill_m + height_m > room.height_m + TAPE_M {
            let accepted = format!("at most {:.3} m, the ceiling less the sill", room.height_m - sill_m);
            found.push(conflict(format!("{field}.height_m"), height_m, accepted));
        }
    }
    for (id, slope) in &room.slopes {
        let field = format!("brief.room.slopes.{id}");
        let Some(wall_m) = wall_length(room, slope.wall) else {
            found.push(no_wall(&field, slope.wall, walls));
            continue;
        };
        let left_m = wall_m - slope.from_m;
        if left_m < TAPE_M || slope.length_m.is_some_and(|long| long > left_m + TAPE_M) {
            let accepted = format!("a part of the wall's {wall_m:.3} m");
            let (name, value) = match slope.length_m {
                Some(long) if left_m >= TAPE_M => ("length_m", long),
                _ => ("from_m", slope.from_m),
            };
            found.push(conflict(format!("{field}.{name}"), value, accepted));
        }
        if slope.knee_m > room.height_m - TAPE_M {
            let accepted = format!("less than the ceiling's {:.3} m", room.height_m);
            found.push(conflict(format!("{field}.knee_m"), slope.knee_m, accepted));
        }
    }
    for (id, beam) in &room.beams {
        let field = format!("brief.room.beams.{id}");
        if beam.length_m() < 0.02 {
            found.push(conflict(
                format!("{field}.to_m"),
                beam.length_m(),
                "a point 0.02 m or more from from_m".into(),
            ));
        }
        if beam.drop_m > room.height_m - TAPE_M {
            let accepted = format!("less than the ceiling's {:.3} m", room.height_m);
            found.push(conflict(format!("{field}.drop_m"), beam.drop_m, accepted));
        }
    }
    for (id, noise) in &room.noises {
        if let Some(at) = noise.position_m {
            within(&format!("brief.room.noises.{id}.position_m"), at, 0.0, room, found);
        }
    }
    for (id, socket) in &room.sockets {
        // It is on a wall.
        within(&format!("brief.room.sockets.{id}.position_m"), socket.position_m, TAPE_M, room, found);
    }
    for (name, Point2([x, y])) in &brief.habits.parked {
        within(&format!("brief.habits.parked.{name}"), Point3([*x, *y, 0.0]), 0.0, room, found);
    }
    for (id, piece) in &room.furniture {
        furniture(&format!("brief.room.furniture.{id}"), piece, room, found);
    }
}

/// A place is inside the walls, but for so many metres, and under the ceiling.
fn within(field: &str, Point3([x, y, z]): Point3, slack_m: f64, room: &Room, found: &mut Vec<Problem>) {
    let out = beyond_m(&room.outline(), DVec2::new(x, y));
    if out > slack_m {
        let accepted = format!("a place {out:.3} m farther inside, clear of the walls");
        found.push(conflict(field.to_owned(), out, accepted));
    } else if !(0.0..=room.height_m).contains(&z) {
        let accepted = format!("0 to {:.3} m, under the ceiling", room.height_m);
        found.push(conflict(format!("{field}[2]"), z, accepted));
    }
}

/// A roof window is a window, and lies in its slope from its lower to its upper edge.
fn in_slope(field: &str, (room, opening): (&Room, &Opening), id: &Id, found: &mut Vec<Problem>) {
    let named = format!("{field}.slope");
    let Some(slope) = room.slopes.get(id).filter(|slope| slope.wall == opening.wall) else {
        found.push(unknown(&named, id, "the id of a slope in brief.room.slopes at the same wall"));
        return;
    };
    if opening.kind != OpeningKind::Window {
        found.push(Problem::new(named, id, "nothing: a door stands in a wall", Code::Conflict));
        return;
    }
    let rise_m = room.height_m - slope.knee_m;
    let (sill_m, height_m) = (opening.sill_or_usual_m(), opening.height_or_usual_m());
    if !(slope.knee_m - TAPE_M..=room.height_m).contains(&sill_m) {
        let accepted = format!("{:.3} to {:.3} m, on the slope", slope.knee_m, room.height_m);
        found.push(conflict(format!("{field}.sill_m"), sill_m, accepted));
    } else if rise_m > 0.0 {
        let long_m = slope.run_m.hypot(rise_m);
        let left_m = long_m * (room.height_m - sill_m) / rise_m;
        if height_m > left_m + TAPE_M {
            let accepted = format!("at most {left_m:.3} m, what the slope has above the sill");
            found.push(conflict(format!("{field}.height_m"), height_m, accepted));
        }
    }
    let along_m = slope.from_m..=slope.from_m + slope.length_along_m(room);
    let (from_m, to_m) = (opening.from_m, opening.from_m + opening.width_m);
    if from_m < along_m.start() - TAPE_M || to_m > along_m.end() + TAPE_M {
        let accepted =
            format!("{:.3} m or more, with the whole width before {:.3} m", along_m.start(), along_m.end());
        found.push(conflict(format!("{field}.from_m"), from_m, accepted));
    }
}

/// The outline must be one that a tape can go round.
fn floor(room: &Room) -> Result<(), Problem> {
    let outline = room.outline();
    let refused = |value: String, accepted: &str, code: Code| {
        Err(Problem::new("brief.room.floor_m", value, accepted, code))
    };
    let least = outline.iter().copied().fold(DVec2::INFINITY, DVec2::min);
    let [width, depth, _] = room.dimensions_m();
    for (name, side) in [("width", width), ("depth", depth)] {
        if !(0.5..=50.0).contains(&side) {
            return refused(format!("a {name} of {side} m"), "0.5 to 50 m", Code::OutOfRange);
        }
    }
    if least.x.abs() > TAPE_M || least.y.abs() > TAPE_M {
        let value = format!("corners from x = {} m, y = {} m on", least.x, least.y);
        return refused(
            value,
            "corners of which the leftmost has x = 0 and the backmost y = 0",
            Code::Conflict,
        );
    }
    for wall in 0..outline.len() {
        let long = wall_length(room, wall as u8).unwrap_or(0.0);
        if long < WALL_LEAST_M {
            let value = format!("{} of {long} m", room.wall_name(wall));
            return refused(value, "walls of 0.05 m or more", Code::Conflict);
        }
    }
    if !is_simple(&outline) {
        return refused(
            "walls that cross or touch".into(),
            "corners in the order of a walk round the room",
            Code::Conflict,
        );
    }
    if signed_area_m2(&outline) <= 0.0 {
        let accepted =
            "corners counter-clockwise seen from above: back-left, back-right, front-right, front-left";
        return refused("corners given clockwise".into(), accepted, Code::Conflict);
    }
    Ok(())
}

fn wall_length(room: &Room, wall: u8) -> Option<f64> {
    room.wall_m(usize::from(wall)).map(|(start, end)| (end - start).length())
}

fn no_wall(field: &str, wall: u8, walls: usize) -> Problem {
    Problem::new(
        format!("{field}.wall"),
        wall,
        format!("0 to {}, one of the room's {walls} walls", walls.saturating_sub(1)),
        Code::UnknownId,
    )
}

fn furniture(field: &str, piece: &Furniture, room: &Room, found: &mut Vec<Problem>) {
    let [width, depth, height] = piece.size_m.0;
    let [room_width, room_depth, ceiling_m] = room.dimensions_m();
    let sides_m = [room_width, room_depth];
    let before = found.len();
    let (sin, cos) = piece.bearing_deg.to_radians().sin_cos();
    let reach = [(width * cos).abs() + (depth * sin).abs(), (width * sin).abs() + (depth * cos).abs()];
    for axis in 0..2 {
        let half = reach[axis] / 2.0;
        let at = piece.position_m.0[axis];
        if at - half < -0.01 || at + half > sides_m[axis] + 0.01 {
            let accepted = if 2.0 * half > sides_m[axis] {
                format!("a piece that fits the room's {:.3} m", sides_m[axis])
            } else {
                format!("{:.3} to {:.3} m, so that it stands inside the room", half, sides_m[axis] - half)
            };
            found.push(conflict(format!("{field}.position_m[{axis}]"), at, accepted));
        }
    }
    // In the box that holds the room, and in the room itself.
    if found.len() == before && !room.is_rectangle() {
        let outline = room.outline();
        let middle = DVec2::new(piece.position_m.0[0], piece.position_m.0[1]);
        let (right, front) = (DVec2::new(cos, -sin) * width / 2.0, DVec2::new(sin, cos) * depth / 2.0);
        let out = [right + front, right - front, -right + front, -right - front]
            .into_iter()
            .map(|corner| beyond_m(&outline, middle + corner))
            .fold(f64::NEG_INFINITY, f64::max);
        if out > 0.01 {
            let accepted = format!("a place {out:.3} m farther inside, clear of the walls");
            found.push(conflict(format!("{field}.position_m"), out, accepted));
        }
    }
    let foot = piece.position_m.0[2];
    if foot < 0.0 || foot + height > ceiling_m + TAPE_M {
        let accepted =
            format!("0 to {:.3} m, so that it stays under the ceiling", (ceiling_m - height).max(0.0));
        found.push(conflict(format!("{field}.position_m[2]"), foot, accepted));
    }
}
