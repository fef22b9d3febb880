//! The person: the stand-in, scaled to stature, in its colours, holding itself as the place asks for.
use std::io::Read;
use std::sync::{Arc, Mutex, PoisonError, Weak};

use flate2::read::ZlibDecoder;
use fogon_core::corner::Corner;
use fogon_core::geometry::{DVec3, bearing_vector};
use fogon_core::plan::{Brief, ClothingColour, FurnitureKind, Hair, Purpose};
use fogon_figure::{EYES_BEFORE, Head, Looks, Setting, Stuff, What, eyes_at};
use glam::{Affine3A, Mat3A, Vec3};

use super::furniture::OAK;
use super::shapes::{self, Frame};
use super::things::{Sort, Things};
use crate::body::{Body, Maker};
use crate::scene::Placed;
use crate::surface::Finish;

/// Patches of the person, m.
const PATCH_M: f32 = 0.045;
/// Height of the stand-in's head, chin to crown, m.
const HEAD_M: f64 = 0.230;
/// What a coat against glare leaves of a spectacle lens's reflection (common practice, no source).
const COATED: f32 = 0.5;
/// The head turns to the lens so far, rad; the rest is the eyes'.
const HEAD_TURNS_RAD: f32 = 0.5;
/// Turns and looks are told in such steps, so that a camera that creeps does not make a new person each time, rad.
const STEP_RAD: f32 = 0.02;
/// A table is sat at whose near edge lies so far before the eyes at most, m, and which reaches so far to both sides.
const TABLE_M: f64 = 0.50;
const BESIDE_M: f64 = 0.15;

/// The stand-in's head, meshed when the application was built, and packed: unpacked, 7 MB, only while a stage holds it.
pub(super) fn head() -> Arc<Head> {
    static HELD: Mutex<Weak<Head>> = Mutex::new(Weak::new());
    // Whoever broke off while unpacking has left it as it was.
    let mut held = HELD.lock().unwrap_or_else(PoisonError::into_inner);
    held.upgrade().unwrap_or_else(|| {
        let head = Arc::new(unpacked());
        *held = Arc::downgrade(&head);
        head
    })
}

fn unpacked() -> Head {
    let packed: &[u8] = include_bytes!(concat!(env!("OUT_DIR"), "/head.zlib"));
    let mut baked = Vec::new();
    let unpacked = ZlibDecoder::new(packed).read_to_end(&mut baked);
    unpacked.ok().and_then(|_| Head::from_bytes(&baked)).unwrap_or_else(Head::meshed)
}

/// What the stand-in looks like for a brief.
pub(super) fn looks(brief: &Brief) -> Looks {
    let person = &brief.person;
    let skin = person.skin_reflectance.unwrap_or(0.35) as f32;
    let worn = person.clothing_reflectance.unwrap_or(0.20) as f32;
    let hair = match person.hair {
        Some(Hair::None) => None,
        Some(Hair::Light) => Some(Vec3::new(0.40, 0.27, 0.13)),
        Some(Hair::Grey) => Some(Vec3::new(0.27, 0.265, 0.26)),
        Some(Hair::Dark) | None => Some(Vec3::new(0.060, 0.042, 0.031)),
    };
    let hue = match person.clothing_colour {
        Some(ClothingColour::Grey) => Vec3::ONE,
        Some(ClothingColour::Blue) | None => Vec3::new(0.72, 1.0, 1.33),
        Some(ClothingColour::Green) => Vec3::new(0.55, 1.0, 0.62),
        Some(ClothingColour::Red) => Vec3::new(2.1, 0.72, 0.66),
        Some(ClothingColour::Sand) => Vec3::new(1.22, 1.0, 0.70),
    };
    let shirt = super::room::hued(hue, f64::from(worn));
    Looks { skin: skin_of(skin), hair, shirt, glasses: person.glasses }
}

/// How the place makes the stand-in hold itself, in its own space.
pub(super) fn setting(corner: &Corner<'_>) -> Setting {
    let scale = scale(corner);
    let down = |height_m: f64| ((height_m - corner.eyes_m.z) / scale) as f32;
    let seat = corner.brief.person.seat_height().map(|(height_m, _)| down(height_m));
    let plays = corner.brief.purpose == Purpose::Performance;
    let table = table(corner).filter(|_| seat.is_some() && !plays);
    let table = table.map(|[high_m, ahead_m]| [down(high_m), (ahead_m / scale) as f32 + EYES_BEFORE]);
    let (turn, up) = gaze(corner);
    let step = |angle: f32| (angle / STEP_RAD).round() * STEP_RAD;
    let head_turn = step(turn.clamp(-HEAD_TURNS_RAD, HEAD_TURNS_RAD));
    let (left, up) = (step(turn - head_turn), step(up));
    let looks_at =
        Vec3::new(left.sin() * up.cos(), up.sin(), left.cos() * up.cos()) * 1.5 + Vec3::Z * EYES_BEFORE;
    Setting { floor: down(0.0), seat, table, plays, head_turn, looks_at }
}

fn scale(corner: &Corner<'_>) -> f64 {
    (corner.landmarks.crown_m - corner.landmarks.chin_m) / HEAD_M
}

/// From the chest's bearing to where the eyes look: to the left and up, rad.
fn gaze(corner: &Corner<'_>) -> (f32, f32) {
    let forward = bearing_vector(corner.layout.seat.bearing_deg);
    let to_lens = corner.view.position_m - corner.eyes_m;
    let turned = glam::DQuat::from_rotation_z(corner.layout.seat.gaze_offset_deg.to_radians());
    // Camera right is to the person's left: counter-clockwise seen from above.
    let way = turned * to_lens;
    let left = forward.truncate().angle_to(way.truncate());
    let up = way.z.atan2(way.truncate().length());
    if left.is_finite() { (left as f32, up as f32) } else { (0.0, 0.0) }
}

/// The top of a table that the person sits at, and how far before the eyes its near edge lies, m.
fn table(corner: &Corner<'_>) -> Option<[f64; 2]> {
    let forward = bearing_vector(corner.layout.seat.bearing_deg);
    let left = DVec3::Z.cross(forward);
    let tables = corner
        .brief
        .room
        .furniture
        .iter()
        .filter(|(_, piece)| matches!(piece.kind, FurnitureKind::Desk | FurnitureKind::Table));
    let reached = tables.filter_map(|(id, piece)| {
        let corners = corner.furniture_box(id, piece);
        let off = |axis: DVec3| corners[..4].iter().map(move |p| axis.dot(*p - corner.eyes_m));
        let (least, most) = (off(left).fold(f64::MAX, f64::min), off(left).fold(f64::MIN, f64::max));
        let near = off(forward).fold(f64::MAX, f64::min);
        let before = (0.05..TABLE_M).contains(&near) && least < -BESIDE_M && most > BESIDE_M;
        before.then(|| [corners[4].z, near])
    });
    reached.min_by(|a, b| a[1].total_cmp(&b[1]))
}

/// Skin of a reflectance: the lighter, the less red beside the rest (Fogon's own rule, after published spectra, from memory).
fn skin_of(reflectance: f32) -> Vec3 {
    let light = ((reflectance / 0.05).ln() / 9.0_f32.ln()).clamp(0.0, 1.0);
    let hue = Vec3::new(1.72, 1.0, 0.60).lerp(Vec3::new(1.45, 1.0, 0.79), light);
    super::room::hued(hue, f64::from(reflectance))
}

/// The stand-in as a body in its own space, and its spectacle lenses.
pub(super) fn body(
    head: &Head,
    setting: &Setting,
    looks: &Looks,
    things: &mut Things,
) -> (Body, Option<Body>) {
    let (mut maker, mut glass) = (Maker::default(), Maker::default());
    let parts = fogon_figure::parts(head, setting, looks);
    for part in &parts {
        let (name, sort) = match part.what {
            What::Skin => ("skin", Sort::Skin),
            What::Eye => ("an eye", Sort::Person),
            What::Hair => ("hair", Sort::Person),
            What::Clothes => ("clothes", Sort::Person),
            What::Glasses => ("glasses", Sort::Person),
            What::Instrument => ("the instrument", Sort::Furniture),
        };
        let number = things.number(name, sort);
        let (into, finish) = match part.stuff {
            Stuff::Matt => (&mut maker, Finish::Matt),
            Stuff::Sheen { roughness, straight_on } => (&mut maker, Finish::Sheen { roughness, straight_on }),
            Stuff::Coat(index) => (&mut maker, Finish::Coat(index)),
            Stuff::Glass => (&mut glass, Finish::Glass(COATED)),
        };
        let material = into.material(finish, number);
        into.mesh(&part.mesh, &part.colours, &Affine3A::IDENTITY, material, PATCH_M);
    }
    if let Some(seat) = setting.seat {
        chair(&mut maker, things, f64::from(seat), f64::from(setting.floor));
    }
    let glass = glass.made();
    (maker.made(), (!glass.triangles.is_empty()).then_some(glass))
}

/// A plain chair under the stand-in.
fn chair(maker: &mut Maker, things: &mut Things, seat: f64, floor: f64) {
    let material = maker.material(Finish::Matt, things.number("the chair", Sort::Furniture));
    let wood = shapes::Stuff { material, colour: OAK * 0.7, patch_m: 0.12 };
    // Along the figure's left, backwards, up.
    let frame = Frame { corner: DVec3::new(-0.22, floor, 0.16), axes: [DVec3::X, -DVec3::Z, DVec3::Y] };
    let high = seat - floor;
    frame.block(maker, [0.0, 0.0, high - 0.035], [0.44, 0.42, high], wood);
    for (x, y, top) in
        [(0.0, 0.0, high), (0.40, 0.0, high), (0.40, 0.38, high + 0.43), (0.0, 0.38, high + 0.43)]
    {
        frame.block(maker, [x, y, 0.0], [x + 0.04, y + 0.04, top], wood);
    }
    for low in [0.16, 0.33] {
        frame.block(maker, [0.04, 0.39, high + low], [0.40, 0.41, high + low + 0.08], wood);
    }
}

/// From the stand-in's space to the room.
pub(super) fn place(corner: &Corner<'_>, setting: &Setting) -> Affine3A {
    let forward = bearing_vector(corner.layout.seat.bearing_deg).as_vec3();
    let left = Vec3::Z.cross(forward);
    let turned = Mat3A::from_cols(left.into(), Vec3::Z.into(), forward.into()) * scale(corner) as f32;
    let eyes = turned * glam::Vec3A::from(eyes_at(setting.head_turn));
    Affine3A { matrix3: turned, translation: glam::Vec3A::from(corner.eyes_m.as_vec3()) - eyes }
}

/// Places on the face at which light is told, in the room.
pub(super) fn face_spots(corner: &Corner<'_>, setting: &Setting) -> Vec<Vec3> {
    let place = place(corner, setting);
    fogon_figure::face_spots(setting.head_turn).iter().map(|spot| place.transform_point3(*spot)).collect()
}

pub(super) fn placed(body: &Arc<Body>, corner: &Corner<'_>, setting: &Setting) -> Placed {
    Placed::new(body.clone(), place(corner, setting))
}

#[cfg(test)]
mod tests {
    use super::*;
    use fogon_core::plan::Plan;
    use serde_json::{Value, json};

    /// Crown, eyes and chin of the stand-in lie in the picture where the core's frame has them, within a pixel of 960: its highest
    /// point, the middle between its pupils, and the lowest of its chin's profile.
    #[test]
    fn landmarks_lie_where_the_cores_frame_has_them() {
        let demo = include_str!("../../../../docs/examples/box-room.fogon.json");
        for (stature, focal_mm, tilt_deg) in [(1.72, 39.1, -3.15), (1.55, 30.0, 2.0), (1.95, 24.0, -6.0)] {
            let mut document: Value = serde_json::from_str(demo).expect("the example is JSON");
            document["brief"]["person"]["hair"] = json!("none");
            document["brief"]["person"]["stature_m"] = json!(stature);
            document["layout"]["camera"]["focal_length_mm"] = json!(focal_mm);
            document["layout"]["camera"]["tilt_deg"] = json!(tilt_deg);
            let plan = Plan::read(document.to_string().as_bytes()).unwrap_or_else(|e| panic!("{e}"));
            let corner = Corner::of(&plan).expect("it resolves");
            let setting = Setting { head_turn: 0.0, ..setting(&corner) };
            let (body, _) = body(&head(), &setting, &looks(corner.brief), &mut Things::default());
            let place = place(&corner, &setting);
            let triangles = body.corners();
            let corners = || triangles.iter().flatten().copied();
            let crown = corners().max_by(|a, b| a.y.total_cmp(&b.y)).expect("it has corners");
            let profile = corners().filter(|p| p.x.abs() < 0.004 && p.z > 0.075 && p.y > -0.14);
            let chin = profile.min_by(|a, b| a.y.total_cmp(&b.y)).expect("it has a chin");
            let eyes = Vec3::Z * EYES_BEFORE;
            let marks = &corner.landmarks;
            for (name, found, height_m) in
                [("crown", crown, marks.crown_m), ("eyes", eyes, marks.eye_m), ("chin", chin, marks.chin_m)]
            {
                let found = place.transform_point3(found).as_dvec3();
                let down = |point: DVec3| corner.view.project(point).map(|(_, y)| y * 540.0);
                let (at, wanted) = (down(found), down(found.with_z(height_m)));
                let apart = at.zip(wanted).map(|(at, wanted)| (at - wanted).abs());
                assert!(apart.is_some_and(|apart| apart < 1.0), "{name} of {stature} m: {at:?}, {wanted:?}");
            }
        }
    }
}
