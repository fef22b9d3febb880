//! From above.

use super::labels::{Bare, Called, Label, of_things};
use super::shapes;
use super::things::{ink_of, treatments};
use super::view::{Ink, Projection, Stroke, bounds_of, stroke};
use crate::corner::{Corner, Kind, LightAt, Piece, PlacedThing, Source, Thing, What, door_swing};
use crate::geometry::{DVec2, DVec3, bearing_vector, distance_to_edge, hull, is_outer_corner};
use crate::plan::{OpeningKind, ThingId};
use crate::shot::lens::{circle_of_confusion_mm, depth_of_field};
use crate::units::{decimals, focal_mm};

/// Thickness of a drawn wall, m.
pub(super) const WALL_M: f64 = 0.05;
/// The nose before the eyes, m.
const NOSE_M: f64 = 0.035;
/// A ray this much beside a corner, m for each metre, sees past it.
const BESIDE: f64 = 1e-4;

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
pub(super) fn turned(p: DVec2, turns: u8) -> DVec2 {
    let (x, y) = match turns {
        0 => (p.x, p.y),
        1 => (-p.y, p.x),
        2 => (-p.x, -p.y),
        _ => (p.y, -p.x),
    };
    DVec2::new(x, -y)
}

pub(super) fn draw(corner: &Corner<'_>, all: &[Thing], turns: u8) -> Bare {
    let flat = |p: DVec3| turned(p.truncate(), turns);
    let floor: Vec<DVec2> = corner.floor_m.iter().map(|p| turned(*p, turns)).collect();
    let mut strokes = vec![stroke(Ink::Floor, None, true, floor.clone())];
    field(corner, turns, &mut strokes);
    overhead(corner, turns, &mut strokes);
    walls(corner, turns, &mut strokes);
    treatments(corner, flat, |_| true, &mut strokes);
    let order = |t: &Thing| match t.kind {
        Kind::Furniture => 0,
        Kind::Person => 1,
        Kind::Camera => 2,
        Kind::Light => 3,
        Kind::Microphone => 4,
        Kind::Screen => 5,
        Kind::Backdrop => 0,
        Kind::Angle => 2,
    };
    let mut sorted: Vec<&Thing> = all.iter().collect();
    sorted.sort_by_key(|t| order(t));
    // Feet under everything else.
    for thing in &sorted {
        let name = corner.name(&thing.id);
        for part in thing.pieces.iter().filter(|p| matches!(p.what, What::Feet | What::Tripod)) {
            let points: Vec<DVec2> = part.solid.corners().iter().map(|c| flat(*c)).collect();
            let ink = if part.what == What::Tripod { Ink::Stand } else { Ink::Feet };
            strokes.push(stroke(ink, Some(&name), true, hull(&points)));
            if part.what == What::Feet {
                strokes.extend(shapes::legs(&points, &name));
            }
        }
    }
    for thing in &sorted {
        above(corner, thing, turns, &mut strokes);
    }
    for light in &corner.lights {
        let aim = light.aim_m + (light.position_m - light.aim_m).normalize_or_zero() * 0.14;
        let name = corner.name(&ThingId::Light(light.id.clone()));
        strokes.push(stroke(Ink::Aim, Some(&name), false, vec![flat(light.position_m), flat(aim)]));
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
    Bare { bounds, projection: Some(projection), strokes, labels: labels(corner, turns) }
}

/// A thing from above, what is lower first.
fn above(corner: &Corner<'_>, thing: &Thing, turns: u8, strokes: &mut Vec<Stroke>) {
    let flat = |p: DVec3| turned(p.truncate(), turns);
    let name = corner.name(&thing.id);
    let own = |light: &&LightAt<'_>| thing.id == ThingId::Light(light.id.clone());
    let lamp = corner.lights.iter().find(own).and_then(|light| shapes::lamp(light, &name, flat));
    let ahead = turned(bearing_vector(corner.layout.seat.bearing_deg).truncate(), turns);
    let mut parts: Vec<&Piece> = thing.pieces.iter().collect();
    parts.sort_by(|a, b| shapes::top_m(a).total_cmp(&shapes::top_m(b)));
    for part in parts {
        let points: Vec<DVec2> = part.solid.corners().iter().map(|c| flat(*c)).collect();
        let ink = ink_of(corner, thing, part.what);
        match part.what {
            What::Feet | What::Tripod | What::Leg => {}
            What::Head if lamp.is_some() => {}
            What::Chair => {
                strokes.push(stroke(ink, Some(&name), true, shapes::rounded(&hull(&points))));
                strokes.push(shapes::chair_back(&name, &points, ahead));
            }
            What::Head if thing.kind == Kind::Person => {
                let nose = corner.eyes_m.truncate();
                let across = bearing_vector(corner.layout.seat.bearing_deg).truncate();
                let (tip, side) = (nose + across * NOSE_M, across.perp() * (NOSE_M * 0.8));
                let wedge = [tip, nose + side, nose - side].map(|p| turned(p, turns)).to_vec();
                strokes.push(stroke(ink, Some(&name), true, wedge));
                strokes.push(stroke(ink, Some(&name), true, hull(&points)));
            }
            what if shapes::is_soft(what) => {
                strokes.push(stroke(ink, Some(&name), true, shapes::rounded(&hull(&points))));
            }
            _ => strokes.push(stroke(ink, Some(&name), true, hull(&points))),
        }
    }
    strokes.extend(shapes::furniture(corner, thing, flat));
    strokes.extend(lamp.into_iter().flatten());
}

/// Field of view and the depth that is sharp, to the walls: along rays to both edges and to every corner between
/// them, and just beside each, where the view goes on past an inner corner.
fn field(corner: &Corner<'_>, turns: u8, strokes: &mut Vec<Stroke>) {
    let view = &corner.view;
    let origin = view.position_m.truncate();
    let forward = view.forward.truncate().normalize_or_zero();
    let across = DVec2::new(forward.y, -forward.x);
    let side = |side: f64| {
        let direction = view.forward + view.right * (side * view.width_ratio / 2.0);
        let direction = direction.truncate();
        direction.dot(across) / direction.dot(forward)
    };
    // A ray by how far it goes to the right for each metre ahead.
    let (left, right) = (side(-1.0), side(1.0));
    let mut rays = vec![left, right];
    for corner in &corner.floor_m {
        let (ahead, aside) = ((*corner - origin).dot(forward), (*corner - origin).dot(across));
        if ahead > 1e-6 {
            let at = aside / ahead;
            rays.extend([at - BESIDE, at, at + BESIDE].into_iter().filter(|r| (left..right).contains(r)));
        }
    }
    rays.sort_by(f64::total_cmp);
    rays.dedup_by(|a, b| (*a - *b).abs() < BESIDE / 4.0);
    let ray = |right: f64| (forward + across * right).normalize_or_zero();
    let reach = |right: f64| distance_to_edge(&corner.floor_m, origin, ray(right));
    let mut outline = vec![origin];
    outline.extend(rays.iter().map(|r| origin + ray(*r) * reach(*r)));
    let to_view = |points: Vec<DVec2>| points.into_iter().map(|p| turned(p, turns)).collect::<Vec<_>>();
    strokes.push(stroke(Ink::Field, Some("camera"), true, to_view(outline)));
    let camera = &corner.layout.camera;
    let sharp = depth_of_field(
        camera.focal_length_mm,
        camera.f_number,
        camera.focus_distance_m,
        circle_of_confusion_mm(corner.image_mm),
    );
    // Depths are taken along the axis; a ray reaches a depth later, and no farther than its wall.
    let at = |depth: f64, right: f64| {
        origin + ray(right) * (depth * (forward + across * right).length()).min(reach(right))
    };
    let wall = distance_to_edge(&corner.floor_m, origin, forward);
    let far = sharp.far_m.unwrap_or(f64::INFINITY);
    let mut band: Vec<DVec2> = rays.iter().map(|r| at(sharp.near_m, *r)).collect();
    band.extend(rays.iter().rev().map(|r| at(far, *r)));
    strokes.push(stroke(Ink::Sharp, Some("camera"), true, to_view(band)));
    let seen = origin + forward * wall;
    strokes.push(stroke(Ink::Axis, Some("camera"), false, to_view(vec![origin, seen])));
}

/// Slopes and beams overhead, and the letters of corners in a room that is no plain rectangle.
fn overhead(corner: &Corner<'_>, turns: u8, strokes: &mut Vec<Stroke>) {
    let room = &corner.brief.room;
    let mut outline = |id: &str, points: Vec<DVec2>| {
        let points = points.into_iter().map(|p| turned(p, turns)).collect();
        strokes.push(stroke(Ink::Overhead, Some(id), true, points));
    };
    for (id, slope) in &room.slopes {
        if let Some((from, to, inward)) = slope.ends_m(room) {
            let run = inward * slope.run_m;
            outline(&id.0, vec![from, to, to + run, from + run]);
        }
    }
    for (id, beam) in &room.beams {
        outline(&id.0, beam.outline_m().to_vec());
    }
}

fn walls(corner: &Corner<'_>, turns: u8, strokes: &mut Vec<Stroke>) {
    let floor = &corner.floor_m;
    for (index, (a, b)) in floor.iter().zip(floor.iter().cycle().skip(1)).enumerate() {
        let along = (*b - *a).normalize_or_zero();
        let out = -along.perp() * WALL_M;
        let long = (*b - *a).length();
        let mut openings: Vec<_> =
            corner.brief.room.openings.values().filter(|o| usize::from(o.wall) == index).collect();
        openings.sort_by(|x, y| x.from_m.total_cmp(&y.from_m));
        // Solid pieces between openings; at outer corners they run on by their thickness.
        let run_on = |at: usize| if is_outer_corner(floor, at) { WALL_M } else { 0.0 };
        let mut from = -run_on(index);
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
        piece(from, long + run_on(index + 1), Ink::Wall);
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
    let words = |thing: &PlacedThing<'_>| match &thing.id {
        ThingId::Seat => Some(Called::named("seat".to_owned(), String::new())),
        ThingId::Camera => {
            let distance = units.length(corner.lens_to_eyes_m());
            let text = format!("{} mm, {distance}", focal_mm(corner.layout.camera.focal_length_mm));
            Some(Called::named(text, format!("camera {distance}")))
        }
        ThingId::Light(id) => {
            let board = corner.lights.iter().any(|l| l.id == id && matches!(l.source, Source::Board(_)));
            let name = if board { "board".to_owned() } else { id.words() };
            Some(Called::alike(format!("{name} {}", units.length((thing.at_m - corner.eyes_m).length()))))
        }
        ThingId::Microphone => {
            let distance = units.length((thing.at_m - corner.mouth_m).length());
            Some(Called::named(format!("mic {distance}"), format!("microphone {distance}")))
        }
        ThingId::Screen => Some(Called::alike(thing.called.to_lowercase())),
        ThingId::Backdrop => Some(Called::alike(thing.called.clone())),
        ThingId::Angle(id) | ThingId::Treatment(id) | ThingId::Furniture(id) => {
            Some(Called::alike(id.words()))
        }
        ThingId::Person | ThingId::Opening(_) | ThingId::Mains => None,
    };
    let mut all = of_things(corner, words, |p| turned(p.truncate(), turns));
    // Told by name a drawing has few words: numbers stand beside it, and a rectangle's walls need no letters.
    let mut word = |at: DVec2, text: String, ink: Ink, always: bool| {
        let name = (!always).then(String::new);
        all.push(Label { letter: "", thing: None, text, name, at: turned(at, turns), ink });
    };
    let blur = 100.0 * crate::shot::background::blur_fraction(corner);
    let along = corner.view.forward.truncate().normalize_or_zero();
    let reach = distance_to_edge(&corner.floor_m, corner.view.position_m.truncate(), along);
    let seen = corner.view.position_m.truncate() + along * (reach - 0.05).max(0.0);
    word(seen, format!("blur {} %", decimals(blur, 1)), Ink::Axis, false);
    let room = &corner.brief.room;
    for (index, at) in corner.floor_m.iter().enumerate() {
        word(*at, room.corner_letter(index).to_owned(), Ink::Wall, !room.is_rectangle());
    }
    for slope in room.slopes.values() {
        if let Some((from, to, inward)) = slope.ends_m(room) {
            let text = format!("slope from {}", units.length(slope.knee_m));
            word((from + to) / 2.0 + inward * (slope.run_m / 2.0), text, Ink::Overhead, true);
        }
    }
    for beam in room.beams.values() {
        let middle = (DVec2::from(beam.from_m) + DVec2::from(beam.to_m)) / 2.0;
        word(middle, format!("beam {}", units.length(room.height_m - beam.drop_m)), Ink::Overhead, true);
    }
    all
}
