//! What has been set up: lamp heads, boards, stands, microphone, screens. Moved by hand, so a body of its own.
use fogon_core::corner::{Corner, Kind, LightAt, Source as Gear, What, backdrop_thing, things};
use fogon_core::geometry::{DVec2, DVec3, Solid, bearing_vector};
use fogon_core::photometry::{Emits, Face, axes};
use fogon_core::plan::BackdropType;
use glam::Vec3;

use super::lamps::Shining;
use super::room::{CHROMA, hued};
use super::shapes::{Stuff, ball, flat, rod, solid};
use super::things::{Sort, Things};
use crate::body::Maker;
use crate::surface::Finish;

const PATCH_M: f32 = 0.15;
const BLACK: Vec3 = Vec3::new(0.035, 0.035, 0.037);
const STEEL: Vec3 = Vec3::new(0.09, 0.09, 0.095);
const WHITE: Vec3 = Vec3::new(0.72, 0.72, 0.70);
/// A lamp's case stands so far behind its face, m.
const BEHIND_M: f64 = 0.004;
/// Radius of a stand's tubes, m.
const POLE_M: f64 = 0.013;
/// A softbox narrows to this part of its face.
const NARROWS: f64 = 0.3;

/// Adds lamps and everything that carries something, but the camera: nothing of it is before its own lens.
pub(super) fn add(maker: &mut Maker, names: &mut Things, corner: &Corner<'_>, shining: &Shining) {
    for thing in things(corner) {
        if thing.glass {
            continue;
        }
        let number = names.number(&corner.name(&thing.id), Sort::SetUp);
        let material = maker.material(Finish::Matt, number);
        let stuff = Stuff { material, colour: STEEL, patch_m: PATCH_M };
        let is_drawn = match thing.kind {
            Kind::Light | Kind::Microphone | Kind::Screen | Kind::Angle => true,
            // Stand of a backdrop: the cloth itself stays with the room.
            Kind::Backdrop => true,
            Kind::Person | Kind::Furniture | Kind::Camera => false,
        };
        if !is_drawn {
            continue;
        }
        for piece in &thing.pieces {
            match (thing.kind, piece.what) {
                (Kind::Light, What::Head) | (Kind::Backdrop, What::Sheet) => {}
                (Kind::Microphone, What::Head) => microphone(maker, corner, stuff.coloured(BLACK)),
                (_, What::Column | What::Tripod | What::Boom) => pole(maker, &piece.solid, stuff),
                // The circle of the feet is room that they take up; three legs are what is there.
                (_, What::Feet) => feet(maker, &piece.solid, stuff),
                _ => solid(maker, &piece.solid, stuff.coloured(BLACK)),
            }
        }
    }
    for light in &corner.lights {
        let number = names.number(&light.called(), Sort::SetUp);
        head(maker, light, number, &shining.of_light(light.id));
    }
    if let Some(source) = shining.of_house() {
        let number = names.number("the ceiling light", Sort::Room);
        let material = maker.material(Finish::Shines(source), number);
        let face = fogon_core::light::house::face(&corner.brief.room);
        flat(maker, &face.outline, Stuff { material, colour: Vec3::ZERO, patch_m: 4.0 });
    }
}

/// A round pole along a rod that takes up its room.
fn pole(maker: &mut Maker, takes_up: &Solid, stuff: Stuff) {
    let corners = takes_up.corners();
    if corners.len() != 8 {
        return solid(maker, takes_up, stuff);
    }
    // A rod's corners come end by end.
    let [low, high] = [0, 4].map(|from| corners[from..from + 4].iter().sum::<DVec3>() / 4.0);
    rod(maker, low, high, [POLE_M; 2], stuff);
}

/// Three legs from the hub of a stand to the ends of its feet.
fn feet(maker: &mut Maker, circle: &Solid, stuff: Stuff) {
    let (low, high) = circle.bounds();
    let middle = (low + high) / 2.0;
    let radius = (high.x - low.x) / 2.0;
    for leg in 0..3 {
        let turn = std::f64::consts::TAU * (f64::from(leg) + 0.25) / 3.0;
        let end = middle.with_z(0.01) + DVec2::from_angle(turn).extend(0.0) * (radius * 0.96);
        rod(maker, middle.with_z(0.28), end, [0.011, 0.011], stuff);
    }
}

/// A slim body with a basket at its front.
fn microphone(maker: &mut Maker, corner: &Corner<'_>, stuff: Stuff) {
    let Some((_, capsule)) = corner.microphone else { return };
    let tail = fogon_core::corner::microphone_tail_m(corner, capsule);
    rod(maker, capsule, capsule.lerp(tail, 0.45), [0.011, 0.011], stuff.coloured(STEEL * 1.6));
    rod(maker, capsule.lerp(tail, 0.45), tail, [0.0125, 0.0125], stuff);
    ball(maker, capsule, DVec3::splat(0.011), stuff.coloured(STEEL * 1.6));
}

/// The faces that shine, and the case behind.
fn head(maker: &mut Maker, light: &LightAt<'_>, number: u16, sources: &[u16]) {
    let case = Stuff { material: maker.material(Finish::Matt, number), colour: BLACK, patch_m: PATCH_M };
    let shines = |maker: &mut Maker, source: Option<&u16>| {
        source.map(|source| {
            let material = maker.material(Finish::Shines(*source), number);
            Stuff { material, colour: Vec3::ZERO, patch_m: 4.0 }
        })
    };
    let front = light.dark_face();
    match (light.source, light.cloth) {
        (Gear::Board(_), _) => {
            if let Some(stuff) = shines(maker, sources.first()) {
                flat(maker, &front.outline, stuff);
            }
            let behind: Vec<DVec3> =
                front.outline.iter().map(|corner| *corner - front.normal * BEHIND_M).collect();
            solid(maker, &Solid::slab(&behind, front.normal, 0.012), case.coloured(WHITE * 0.6));
        }
        (Gear::Lamp(lamp), None) => {
            let face = light.face();
            if let Some(stuff) = shines(maker, sources.first()) {
                shining_face(maker, &face, stuff);
            }
            if face.emits == Emits::Forward {
                body(maker, &face, lamp.depth_m, case);
            }
        }
        (Gear::Lamp(lamp), Some(_)) => {
            if let Some(stuff) = shines(maker, sources.first()) {
                flat(maker, &front.outline, stuff);
            }
            if let Some(stuff) = shines(maker, sources.get(1)) {
                let back: Vec<DVec3> =
                    front.outline.iter().rev().map(|corner| *corner - front.normal * BEHIND_M).collect();
                flat(maker, &back, stuff);
            }
            let face = light.face();
            if let Some(stuff) = shines(maker, sources.get(2)) {
                shining_face(maker, &face, stuff);
            }
            body(maker, &face, lamp.depth_m, case);
        }
    }
}

fn shining_face(maker: &mut Maker, face: &Face, stuff: Stuff) {
    match face.emits {
        Emits::Around { axis, half_length_m, half_width_m } => {
            let end = axis * half_length_m;
            rod(maker, face.middle - end, face.middle + end, [half_width_m; 2], stuff);
        }
        Emits::AllRound(radius) => ball(maker, face.middle, DVec3::splat(radius), stuff),
        Emits::Forward if face.hole.is_empty() => flat(maker, &face.outline, stuff),
        Emits::Forward => {
            let pairs = face.outline.iter().zip(&face.hole);
            let next = face.outline.iter().zip(&face.hole).cycle().skip(1);
            for ((a, d), (b, c)) in pairs.zip(next) {
                flat(maker, &[*a, *b, *c, *d], stuff);
            }
        }
    }
}

/// A case that narrows backwards, closed at its front just behind the face.
fn body(maker: &mut Maker, face: &Face, depth_m: f64, stuff: Stuff) {
    if !face.hole.is_empty() {
        let (across, up) = axes(face.normal);
        let middle = face.middle - face.normal * BEHIND_M;
        let reach = |outline: &[DVec3]| outline.first().map_or(0.0, |p| p.distance(face.middle));
        let (outer, inner) = (reach(&face.outline), reach(&face.hole));
        for step in 0..24 {
            let way = |step: i32| {
                let (sine, cosine) = (f64::from(step) / 24.0 * std::f64::consts::TAU).sin_cos();
                across * cosine + up * sine
            };
            let (p, q) = (way(step), way(step + 1));
            let outline = [middle + p * inner, middle + p * outer, middle + q * outer, middle + q * inner];
            solid(maker, &Solid::slab(&outline, face.normal, depth_m.min(0.06)), stuff);
        }
        return;
    }
    let narrows = if depth_m > 0.12 { NARROWS } else { 1.0 };
    let front: Vec<DVec3> = face.outline.iter().map(|corner| *corner - face.normal * BEHIND_M).collect();
    let back: Vec<DVec3> = face
        .outline
        .iter()
        .map(|corner| face.middle + (*corner - face.middle) * narrows - face.normal * depth_m)
        .collect();
    flat(maker, &front, stuff);
    let reversed: Vec<DVec3> = back.iter().rev().copied().collect();
    flat(maker, &reversed, stuff);
    let count = front.len();
    for i in 0..count {
        let j = (i + 1) % count;
        flat(maker, &[front[j], front[i], back[i], back[j]], stuff);
    }
}

/// The cloth of a backdrop: with the room, for it stays.
pub(super) fn backdrop(maker: &mut Maker, names: &mut Things, corner: &Corner<'_>) {
    let (Some(thing), Some((gear, used))) = (backdrop_thing(corner), corner.backdrop) else { return };
    let hue = match gear.backdrop {
        BackdropType::Chroma => CHROMA,
        BackdropType::Boards => Vec3::new(1.0, 0.78, 0.55),
        BackdropType::Paper | BackdropType::Curtain | BackdropType::Cloth => Vec3::new(0.97, 0.98, 1.0),
    };
    let number = names.number(&thing.label, Sort::Room);
    let stuff = Stuff {
        material: maker.material(Finish::Matt, number),
        colour: hued(hue, gear.reflectance.unwrap_or(gear.backdrop.usual_reflectance())),
        patch_m: 0.25,
    };
    if gear.backdrop != BackdropType::Curtain {
        for piece in thing.pieces.iter().filter(|piece| piece.what == What::Sheet) {
            solid(maker, &piece.solid, stuff);
        }
        return;
    }
    // A curtain hangs in folds.
    let facing = bearing_vector(used.bearing_deg);
    let across = DVec3::new(facing.y, -facing.x, 0.0);
    let foot = DVec2::from(used.position_m).extend(0.0);
    let folds = ((gear.width_m / 0.03) as usize).clamp(8, 400);
    let at = |step: usize, z: f64| {
        let x = gear.width_m * (step as f64 / folds as f64 - 0.5);
        let deep = 0.018 * (x * 31.0).sin() + 0.008 * (x * 71.0 + 1.0).sin();
        foot + across * x + facing * deep + DVec3::Z * z
    };
    for step in 0..folds {
        let front = [at(step + 1, 0.0), at(step, 0.0), at(step, gear.height_m), at(step + 1, gear.height_m)];
        flat(maker, &front, stuff);
        let back = [at(step, 0.0), at(step + 1, 0.0), at(step + 1, gear.height_m), at(step, gear.height_m)];
        flat(maker, &back.map(|corner| corner - facing * 0.004), stuff);
    }
}
