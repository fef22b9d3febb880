//! The section along the lens axis, seen from the side; the lens axis runs as in the plan.

use super::labels::{Bare, Called, Label, of_things};
use super::plan_view::WALL_M;
use super::shapes;
use super::things::{ink_of, treatments};
use super::view::{Ink, Projection, Stroke, bounds_of, stroke};
use crate::corner::{Corner, Kind, LightAt, Piece, PlacedThing, Thing, What};
use crate::geometry::{DVec2, DVec3, bearing_vector, distance_to_edge, hull, whole_steps};
use crate::plan::ThingId;
use crate::shot::lens::{circle_of_confusion_mm, depth_of_field};

/// The ceiling is looked up every so often along the axis, m.
const CEILING_STEP_M: f64 = 0.005;

pub(super) fn draw(corner: &Corner<'_>, all: &[Thing]) -> Bare {
    // Along the axis, from behind the person (left) to behind the camera (right).
    let along = corner.to_lens();
    let eyes = corner.eyes_m;
    let flat = |p: DVec3| DVec2::new(along.dot(p - eyes), -p.z);
    let behind = -distance_to_edge(&corner.floor_m, eyes.truncate(), -along.truncate());
    let ahead = distance_to_edge(&corner.floor_m, eyes.truncate(), along.truncate());
    let height = corner.room_m[2];
    let quad = |x0: f64, x1: f64, z0: f64, z1: f64| {
        vec![DVec2::new(x0, -z0), DVec2::new(x1, -z0), DVec2::new(x1, -z1), DVec2::new(x0, -z1)]
    };
    let ceiling = ceiling(corner, behind, ahead);
    let mut inside = vec![DVec2::new(ahead, 0.0), DVec2::new(behind, 0.0)];
    inside.extend(&ceiling);
    let mut strokes = vec![stroke(Ink::Floor, None, true, inside)];
    field(corner, behind, &mut strokes, flat);
    let wall = WALL_M;
    for piece in [
        quad(behind - wall, behind, -wall, height + wall),
        quad(ahead, ahead + wall, -wall, height + wall),
        quad(behind, ahead, -wall, 0.0),
        [&[DVec2::new(ahead, -height - wall), DVec2::new(behind, -height - wall)], &ceiling[..]].concat(),
    ] {
        strokes.push(stroke(Ink::Wall, None, true, piece));
    }
    let shows = |normal: DVec3| normal.z.abs() > 0.5 || normal.dot(along).abs() > 0.7;
    treatments(corner, flat, shows, &mut strokes);
    // Furniture first, so that it hides nobody; then furthest from the viewer, who stands at camera right.
    let across = corner.view.right;
    let depth = |t: &Thing| {
        t.pieces
            .iter()
            .flat_map(|p| p.solid.corners())
            .map(|c| across.dot(*c - eyes))
            .fold((0.0, 0), |(sum, n), v| (sum + v, n + 1))
    };
    let mut sorted: Vec<&Thing> = all.iter().collect();
    sorted.sort_by(|a, b| {
        let mean = |(sum, n): (f64, i32)| if n > 0 { sum / f64::from(n) } else { 0.0 };
        let furniture = |t: &Thing| t.kind != Kind::Furniture;
        furniture(a).cmp(&furniture(b)).then(mean(depth(a)).total_cmp(&mean(depth(b))))
    });
    for thing in sorted {
        // The room may be wider across than along: what lies beyond this section's ends is left out.
        let within = |p: DVec3| {
            let at = flat(p);
            DVec2::new(at.x.clamp(behind, ahead), at.y)
        };
        beside(corner, thing, within, &mut strokes);
    }
    strokes.push(stroke(
        Ink::EyeLine,
        None,
        false,
        vec![DVec2::new(behind, -eyes.z), DVec2::new(ahead, -eyes.z)],
    ));
    let units = corner.brief.units;
    let height = |thing: &PlacedThing<'_>| {
        let called = |name: &str| {
            let height = units.length(thing.at_m.z);
            Some(Called::named(height.clone(), format!("{name} {height}")))
        };
        match &thing.id {
            ThingId::Camera => called("lens"),
            ThingId::Light(id) | ThingId::Angle(id) => called(&id.words()),
            ThingId::Microphone => called("microphone"),
            ThingId::Screen => called("screen"),
            ThingId::Seat
            | ThingId::Backdrop
            | ThingId::Treatment(_)
            | ThingId::Furniture(_)
            | ThingId::Person
            | ThingId::Opening(_)
            | ThingId::Mains => None,
        }
    };
    let in_section = |p: DVec3| {
        let at = flat(p);
        DVec2::new(at.x.clamp(behind, ahead), at.y)
    };
    let mut labels = vec![Label {
        letter: "",
        thing: None,
        text: format!("eye line {}", units.length(eyes.z)),
        name: Some(format!("eyes {}", units.length(eyes.z))),
        at: DVec2::new(ahead, -eyes.z),
        ink: Ink::EyeLine,
    }];
    labels.extend(of_things(corner, height, in_section));
    let projection =
        Projection { origin_m: eyes.with_z(0.0).into(), right: along.into(), down: (-DVec3::Z).into() };
    Bare { bounds: bounds_of(&strokes, 0.12), projection: Some(projection), strokes, labels }
}

/// A thing from the side.
fn beside(corner: &Corner<'_>, thing: &Thing, flat: impl Fn(DVec3) -> DVec2, strokes: &mut Vec<Stroke>) {
    let name = corner.name(&thing.id);
    let own = |light: &&LightAt<'_>| thing.id == ThingId::Light(light.id.clone());
    let lamp = corner.lights.iter().find(own).and_then(|light| shapes::lamp(light, &name, &flat));
    let faces_right = bearing_vector(corner.layout.seat.bearing_deg).dot(corner.to_lens()) >= 0.0;
    // A chair under whoever sits on it.
    let (chairs, others): (Vec<&Piece>, Vec<&Piece>) =
        thing.pieces.iter().partition(|piece| piece.what == What::Chair);
    let mut heads = Vec::new();
    for part in chairs.into_iter().chain(others) {
        let points: Vec<DVec2> = part.solid.corners().iter().map(|c| flat(*c)).collect();
        let ink = ink_of(corner, thing, part.what);
        let outline = match (thing.kind, part.what) {
            (_, What::Chair) => {
                strokes.extend(shapes::chair_from_side(&name, &points, faces_right));
                continue;
            }
            (Kind::Person, What::Head) => {
                heads.push(stroke(ink, Some(&name), true, oval(&points)));
                continue;
            }
            (Kind::Light, What::Head) if lamp.is_some() => continue,
            (_, What::Feet) => {
                strokes.extend(shapes::legs_from_side(&name, &points));
                continue;
            }
            (_, What::Tripod) => {
                strokes.push(stroke(Ink::Stand, Some(&name), true, hull(&points)));
                continue;
            }
            (_, what) if shapes::is_soft(what) => shapes::rounded(&hull(&points)),
            _ => hull(&points),
        };
        if outline.len() > 2 {
            strokes.push(stroke(ink, Some(&name), true, outline));
        }
    }
    strokes.extend(heads);
    strokes.extend(shapes::furniture(corner, thing, &flat));
    strokes.extend(lamp.into_iter().flatten().filter(|stroke| stroke.points.len() > 2));
}

/// The ceiling over the axis, from behind to ahead: as it bends under slopes and beams.
fn ceiling(corner: &Corner<'_>, behind: f64, ahead: f64) -> Vec<DVec2> {
    let (eyes, along) = (corner.eyes_m.truncate(), corner.to_lens().truncate());
    let room = &corner.brief.room;
    let at = |x: f64| DVec2::new(x, -room.ceiling_m(eyes + along * x));
    if room.slopes.is_empty() && room.beams.is_empty() {
        return vec![at(behind), at(ahead)];
    }
    let mut bends: Vec<DVec2> = Vec::new();
    let steps = whole_steps(ahead - behind, CEILING_STEP_M) + 1;
    for step in 0..=steps {
        let point = at(behind + (ahead - behind) * step as f64 / steps as f64);
        // On a straight line with the two before: the middle one says nothing.
        if let [.., a, b] = bends[..]
            && ((b - a).perp_dot(point - b)).abs() < 1e-9
        {
            bends.pop();
        }
        bends.push(point);
    }
    bends
}

/// The oval that fills the box around some points: a head from the side.
fn oval(points: &[DVec2]) -> Vec<DVec2> {
    let (low, high) = points
        .iter()
        .fold((DVec2::INFINITY, DVec2::NEG_INFINITY), |(low, high), p| (low.min(*p), high.max(*p)));
    let (middle, half) = ((low + high) / 2.0, (high - low) / 2.0);
    (0..24).map(|i| middle + DVec2::from_angle(f64::from(i) * std::f64::consts::TAU / 24.0) * half).collect()
}

fn field(corner: &Corner<'_>, behind: f64, strokes: &mut Vec<Stroke>, flat: impl Fn(DVec3) -> DVec2) {
    let view = &corner.view;
    let origin = flat(view.position_m);
    let height = corner.room_m[2];
    let edge = |side: f64| {
        let direction = view.forward + view.up * (side * view.height_ratio / 2.0);
        let tip = flat(view.position_m + direction) - origin;
        // To the wall behind the person, floor or ceiling, whichever comes first.
        let to_wall = if tip.x < 0.0 { (behind - origin.x) / tip.x } else { f64::INFINITY };
        let to_floor = if tip.y > 0.0 { -origin.y / tip.y } else { f64::INFINITY };
        let to_ceiling = if tip.y < 0.0 { (-height - origin.y) / tip.y } else { f64::INFINITY };
        origin + tip * to_wall.min(to_floor).min(to_ceiling)
    };
    let (up, down) = (edge(1.0), edge(-1.0));
    let mut outline = vec![origin, up];
    if up.x > behind + 1e-6 {
        outline.push(DVec2::new(behind, up.y));
    }
    if down.x > behind + 1e-6 {
        outline.push(DVec2::new(behind, down.y));
    }
    outline.push(down);
    strokes.push(stroke(Ink::Field, Some("camera"), true, outline));
    let camera = &corner.layout.camera;
    let sharp = depth_of_field(
        camera.focal_length_mm,
        camera.f_number,
        camera.focus_distance_m,
        circle_of_confusion_mm(corner.image_mm),
    );
    let reach = origin.x - behind;
    let far = sharp.far_m.unwrap_or(reach).min(reach);
    let at = |depth: f64, side: f64| {
        flat(view.position_m + view.forward * depth + view.up * (side * depth * view.height_ratio / 2.0))
    };
    strokes.push(stroke(
        Ink::Sharp,
        Some("camera"),
        true,
        vec![at(sharp.near_m, 1.0), at(sharp.near_m, -1.0), at(far, -1.0), at(far, 1.0)],
    ));
    strokes.push(stroke(
        Ink::Axis,
        Some("camera"),
        false,
        vec![origin, flat(view.position_m + view.forward * reach)],
    ));
}
