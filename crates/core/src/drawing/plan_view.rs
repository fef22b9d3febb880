//! From above.

use super::{Ink, Label, Projection, View, bounds_of, hull, ink_of, stroke};
use crate::corner::{Corner, Kind, Source, Thing, door_swing};
use crate::geometry::{DVec2, DVec3, distance_to_edge};
use crate::plan::OpeningKind;
use crate::shot::lens::{circle_of_confusion_mm, depth_of_field};

/// Thickness of a drawn wall, m.
const WALL_M: f64 = 0.07;

/// Quarter turns, counter-clockwise, after which the camera looks most nearly to the left.
pub(super) fn quarter_turns(corner: &Corner<'_>) -> u8 {
    let forward = corner.view.forward;
    (0..4u8)
        .min_by(|a, b| {
            let left = |turns: u8| turned(forward.truncate(), turns).x;
            // Ties (45 degrees) go to the smaller turn.
            ((left(*a) * 1e6).round()).total_cmp(&(left(*b) * 1e6).round())
        })
        .unwrap_or(0)
}

/// Room coordinates to drawing coordinates: turned, then y downwards.
fn turned(p: DVec2, turns: u8) -> DVec2 {
    let (x, y) = match turns {
        0 => (p.x, p.y),
        1 => (-p.y, p.x),
        2 => (-p.x, -p.y),
        _ => (p.y, -p.x),
    };
    DVec2::new(x, -y)
}

pub(super) fn draw(corner: &Corner<'_>, all: &[Thing], turns: u8, text_m: f64) -> View {
    let flat = |p: DVec3| turned(p.truncate(), turns);
    let floor: Vec<DVec2> = corner.floor_m.iter().map(|p| turned(*p, turns)).collect();
    let mut strokes = vec![stroke(Ink::Floor, None, true, floor.clone())];
    field(corner, turns, &mut strokes);
    walls(corner, turns, &mut strokes);
    let order = |t: &Thing| match t.kind {
        Kind::Furniture => 0,
        Kind::Person => 1,
        Kind::Camera => 2,
        Kind::Light => 3,
        Kind::Microphone => 4,
    };
    let mut sorted: Vec<&Thing> = all.iter().collect();
    sorted.sort_by_key(|t| order(t));
    // Feet under everything else.
    for thing in &sorted {
        for part in thing.parts.iter().filter(|p| p.what == "feet") {
            let points: Vec<DVec2> = part.solid.corners().iter().map(|c| flat(*c)).collect();
            strokes.push(stroke(Ink::Feet, Some(&thing.id), true, hull(&points)));
        }
    }
    for thing in &sorted {
        let board = corner.lights.iter().any(|l| l.id == thing.id && matches!(l.source, Source::Board(_)));
        for part in thing.parts.iter().filter(|p| !matches!(p.what, "feet" | "leg")) {
            let points: Vec<DVec2> = part.solid.corners().iter().map(|c| flat(*c)).collect();
            let ink = if board && part.what == "head" { Ink::Board } else { ink_of(thing, part.what) };
            strokes.push(stroke(ink, Some(&thing.id), true, hull(&points)));
        }
    }
    for light in &corner.lights {
        let aim = light.aim_m + (light.position_m - light.aim_m).normalize_or_zero() * 0.14;
        strokes.push(stroke(Ink::Aim, Some(light.id), false, vec![flat(light.position_m), flat(aim)]));
    }
    let bounds = bounds_of(&strokes, 0.12);
    // The drawing's axes in the room: `turned` undone.
    let (right, down) = match turns {
        0 => (DVec3::X, -DVec3::Y),
        1 => (-DVec3::Y, -DVec3::X),
        2 => (-DVec3::X, DVec3::Y),
        _ => (DVec3::Y, DVec3::X),
    };
    let projection = Projection { origin_m: DVec3::ZERO.into(), right: right.into(), down: down.into() };
    View { projection: Some(projection), ..View::labelled(bounds, strokes, &labels(corner, turns), text_m) }
}

/// Field of view and the depth that is sharp, to the walls.
fn field(corner: &Corner<'_>, turns: u8, strokes: &mut Vec<super::Stroke>) {
    let view = &corner.view;
    let origin = view.position_m.truncate();
    let edge = |side: f64| {
        let direction = view.forward + view.right * (side * view.width_ratio / 2.0);
        direction.truncate().normalize_or_zero()
    };
    let reach = |direction: DVec2| origin + direction * distance_to_edge(&corner.floor_m, origin, direction);
    let (left, right) = (edge(-1.0), edge(1.0));
    let mut outline = vec![origin, reach(left)];
    // Corners of the room that lie within the field.
    let mut inside: Vec<DVec2> = corner
        .floor_m
        .iter()
        .copied()
        .filter(|c| left.perp_dot(*c - origin) < 0.0 && right.perp_dot(*c - origin) > 0.0)
        .collect();
    inside.sort_by(|a, b| left.angle_to(*b - origin).total_cmp(&left.angle_to(*a - origin)));
    outline.extend(inside);
    outline.push(reach(right));
    let to_view = |points: Vec<DVec2>| points.into_iter().map(|p| turned(p, turns)).collect::<Vec<_>>();
    strokes.push(stroke(Ink::Field, Some("camera"), true, to_view(outline)));
    let camera = &corner.layout.camera;
    let sharp = depth_of_field(
        camera.focal_length_mm,
        camera.f_number,
        camera.focus_distance_m,
        circle_of_confusion_mm(corner.image_mm),
    );
    let forward = view.forward.truncate().normalize_or_zero();
    let across = DVec2::new(forward.y, -forward.x);
    let wall = distance_to_edge(&corner.floor_m, origin, forward);
    let far = sharp.far_m.unwrap_or(wall).min(wall);
    let at =
        |depth: f64, side: f64| origin + forward * depth + across * (side * depth * view.width_ratio / 2.0);
    let band = vec![at(sharp.near_m, -1.0), at(sharp.near_m, 1.0), at(far, 1.0), at(far, -1.0)];
    let clipped = band
        .into_iter()
        .map(|p| {
            let [w, d, _] = corner.room_m;
            p.clamp(DVec2::ZERO, DVec2::new(w, d))
        })
        .collect();
    strokes.push(stroke(Ink::Sharp, Some("camera"), true, to_view(clipped)));
    let seen = origin + forward * wall;
    strokes.push(stroke(Ink::Axis, Some("camera"), false, to_view(vec![origin, seen])));
}

fn walls(corner: &Corner<'_>, turns: u8, strokes: &mut Vec<super::Stroke>) {
    let floor = &corner.floor_m;
    for (index, (a, b)) in floor.iter().zip(floor.iter().cycle().skip(1)).enumerate() {
        let along = (*b - *a).normalize_or_zero();
        let out = -along.perp() * WALL_M;
        let long = (*b - *a).length();
        let mut openings: Vec<_> =
            corner.brief.room.openings.values().filter(|o| usize::from(o.wall) == index).collect();
        openings.sort_by(|x, y| x.from_m.total_cmp(&y.from_m));
        // Solid pieces between openings; at the corners they run on by their thickness.
        let mut from = -WALL_M;
        let mut piece = |from: f64, to: f64, ink: Ink| {
            if to > from {
                let quad =
                    vec![*a + along * from, *a + along * to, *a + along * to + out, *a + along * from + out];
                strokes.push(stroke(ink, None, true, quad.into_iter().map(|p| turned(p, turns)).collect()));
            }
        };
        for opening in openings {
            piece(from, opening.from_m, Ink::Wall);
            let ink = if opening.kind == OpeningKind::Door { Ink::Door } else { Ink::Window };
            piece(opening.from_m, opening.from_m + opening.width_m, ink);
            from = opening.from_m + opening.width_m;
        }
        piece(from, long + WALL_M, Ink::Wall);
    }
    for (id, opening) in &corner.brief.room.openings {
        if opening.kind == OpeningKind::Door {
            let outline = door_swing(opening, floor);
            if !outline.is_empty() {
                let outline = outline.into_iter().map(|p| turned(p, turns)).collect();
                strokes.push(stroke(Ink::Swing, Some(&id.0), true, outline));
            }
        }
    }
}

fn labels(corner: &Corner<'_>, turns: u8) -> Vec<Label> {
    let units = corner.brief.units;
    let at = |p: DVec3| turned(p.truncate(), turns);
    let mut all = vec![
        Label {
            letter: "S",
            thing: Some("seat".into()),
            text: "seat".into(),
            at: at(corner.eyes_m),
            ink: Ink::Person,
        },
        Label {
            letter: "C",
            thing: Some("camera".into()),
            text: format!(
                "{:.0} mm, {}",
                corner.layout.camera.focal_length_mm,
                units.length(corner.subject_distance_m())
            ),
            at: at(corner.view.position_m),
            ink: Ink::Camera,
        },
    ];
    for light in &corner.lights {
        let distance = units.length((light.position_m - corner.eyes_m).length());
        let ink = if matches!(light.source, Source::Board(_)) { Ink::Board } else { Ink::Light };
        let name = match light.source {
            Source::Board(_) => "board".to_owned(),
            Source::Lamp(_) => light.id.replace('-', " "),
        };
        all.push(Label {
            letter: light.light.role.letter(),
            thing: Some(light.id.to_owned()),
            text: format!("{name} {distance}"),
            at: at(light.position_m),
            ink,
        });
    }
    if let Some((_, capsule)) = corner.microphone {
        let distance = units.length((capsule - corner.mouth_m).length());
        all.push(Label {
            letter: "M",
            thing: Some("microphone".into()),
            text: format!("mic {distance}"),
            at: at(capsule),
            ink: Ink::Microphone,
        });
    }
    for (id, piece) in &corner.brief.room.furniture {
        let (position, _) = corner.furniture_at(id, piece);
        all.push(Label {
            letter: "",
            thing: None,
            text: id.0.replace('-', " "),
            at: at(position),
            ink: Ink::Furniture,
        });
    }
    all
}
