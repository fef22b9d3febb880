//! Everything in the corner that takes up room, as named groups of convex solids. Sizes that nobody gives
//! (a figure's depth, a column's thickness) are Fogon's own rules and stand in the constants below.

use super::{AngleAt, Corner, LightAt};
use crate::geometry::{DVec2, DVec3, Solid, bearing_vector};
use crate::person::HEAD_RADIUS_M;
use crate::photometry::{Face, axes};
use crate::plan::{
    FurnitureKind, GearMicrophone, GearMonitor, Hung, Mounting, Opening, Role, ScreenType, Shape, Support,
    SupportKind, Swing,
};

/// Half thickness of columns, arms and poles, m.
const COLUMN_RADIUS_M: f64 = 0.02;
/// Height to which the spread feet of a stand reach, m.
const FEET_HEIGHT_M: f64 = 0.10;
/// Head and torso lie behind the eyes' plumb line by this much, m.
const HEAD_BACK_M: f64 = 0.09;
const TORSO_BACK_M: f64 = 0.12;
/// Half depth of the torso, m.
const TORSO_HALF_DEPTH_M: f64 = 0.12;
/// The chair's middle behind the eyes and its half side, m.
const CHAIR_BACK_M: f64 = 0.15;
const CHAIR_HALF_M: f64 = 0.23;
/// Room to get out of the chair, m (practice: 0.60 m).
pub(crate) const EXIT_M: f64 = 0.60;
/// Length of a microphone behind its capsule, m.
const MICROPHONE_LENGTH_M: f64 = 0.16;
/// Thickness of a desk top, m.
const DESK_TOP_M: f64 = 0.04;
/// Half the thickness of a backdrop, and the feet of its stands (about 0.3 m on each side: common practice), m.
const BACKDROP_HALF_M: f64 = 0.01;
const BACKDROP_FOOT_M: f64 = 0.30;
/// Pieces of a ring.
const RING_PIECES: usize = 12;
/// Thickness of a cloth in its frame, m.
const CLOTH_M: f64 = 0.01;
/// Thickness of a screen, m.
const SCREEN_DEPTH_M: f64 = 0.03;
/// Foot radius where neither the support nor its gear says, m.
const FOOT_RADIUS_M: f64 = 0.45;

/// What a thing is.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
#[allow(missing_docs)]
pub enum Kind {
    Person,
    Furniture,
    Camera,
    Light,
    Microphone,
    Screen,
    Backdrop,
    Angle,
}

/// One convex piece of a thing.
#[derive(Debug, Clone)]
pub struct Part {
    /// What it is: head, column, feet, boom, body, top, leg.
    pub what: &'static str,
    /// Its shape.
    pub solid: Solid,
}

/// A named thing made of solids.
#[derive(Debug, Clone)]
pub struct Thing {
    /// Its id in the plan; `person` and `camera` for those two.
    pub id: String,
    /// In words.
    pub label: String,
    /// What it is.
    pub kind: Kind,
    /// Gear and foot of the floor stand that carries it, in millimetres: things on one stand have the same.
    pub stand: Option<(String, [i64; 2])>,
    /// The lens looks through it.
    pub glass: bool,
    /// May be moved by a layout.
    pub moved: bool,
    /// Its pieces.
    pub parts: Vec<Part>,
}

/// All things of a corner: person, furniture, camera, lights, microphone, screen, in this order.
pub fn things(corner: &Corner<'_>) -> Vec<Thing> {
    let mut all = vec![person(corner)];
    furniture(corner, &mut all);
    all.push(camera(corner));
    all.extend(corner.lights.iter().map(|light| light_thing(corner, light)));
    if let (Some((gear, capsule)), Some(used)) = (corner.microphone, &corner.layout.microphone) {
        all.push(microphone_thing(corner, gear, capsule, &used.support));
    }
    if let (Some((gear, at)), Some(used)) = (corner.screen, &corner.layout.screen) {
        all.push(screen_thing(corner, gear, at, &used.support));
    }
    all.extend(backdrop_thing(corner));
    all.extend(corner.angles.iter().map(|angle| angle_thing(corner, angle)));
    all
}

/// The camera of a second angle with what carries it.
pub fn angle_thing(corner: &Corner<'_>, angle: &AngleAt<'_>) -> Thing {
    let view = &angle.view;
    let (front, back) = (0.05, 0.10);
    let middle = view.position_m + view.forward * ((front - back) / 2.0);
    let half = [view.forward * ((front + back) / 2.0), view.right * 0.07, view.up * 0.05];
    let mut parts = vec![Part { what: "body", solid: Solid::oriented_box(middle, half) }];
    let carried = &angle.angle.support;
    let hold = if carried.kind == SupportKind::Floor {
        view.position_m - DVec3::Z * 0.05
    } else {
        view.position_m + DVec3::Z * 0.10
    };
    support(corner, carried, hold, hold, &mut parts);
    Thing {
        id: angle.id.to_owned(),
        label: angle.id.replace('-', " "),
        kind: Kind::Angle,
        stand: stand_of(carried),
        glass: false,
        moved: true,
        parts,
    }
}

/// The backdrop with the stands at its ends.
pub fn backdrop_thing(corner: &Corner<'_>) -> Option<Thing> {
    let (gear, used) = corner.backdrop?;
    let facing = bearing_vector(used.bearing_deg).truncate();
    let across = DVec2::new(facing.y, -facing.x);
    let middle = DVec2::from(used.position_m);
    let mut parts = vec![Part {
        what: "sheet",
        solid: upright_box(middle, facing, gear.width_m / 2.0, BACKDROP_HALF_M, 0.0, gear.height_m),
    }];
    if used.hung == Hung::Stands {
        for side in [-1.0, 1.0] {
            let foot = middle + across * (side * (gear.width_m / 2.0 + COLUMN_RADIUS_M));
            let column = Solid::rod(foot.extend(0.0), foot.extend(gear.height_m), COLUMN_RADIUS_M);
            parts.push(Part { what: "column", solid: column });
            let feet = Solid::cylinder(foot, BACKDROP_FOOT_M, 0.0, FEET_HEIGHT_M);
            parts.push(Part { what: "feet", solid: feet });
        }
    }
    Some(Thing {
        id: "backdrop".into(),
        label: gear.common.label.clone(),
        kind: Kind::Backdrop,
        stand: None,
        glass: false,
        moved: true,
        parts,
    })
}

/// A screen or mirror that faces the eyes, or a script glass before the lens, with what carries it.
pub fn screen_thing(corner: &Corner<'_>, gear: &GearMonitor, at: DVec3, carried: &Support) -> Thing {
    let (half_width, half_height) = (gear.width().0 / 2.0, gear.height_m() / 2.0);
    let head = if gear.screen == ScreenType::Script {
        // The glass leans over its screen: a box as deep as it is wide.
        let view = &corner.view;
        let sides = [view.forward * half_width, view.right * half_width, view.up * half_width];
        Solid::oriented_box(at, sides)
    } else {
        let facing = (corner.eyes_m - at).try_normalize().unwrap_or(DVec3::Y);
        let across = DVec3::Z.cross(facing).try_normalize().unwrap_or(DVec3::X);
        let up = facing.cross(across);
        let middle = at - facing * (SCREEN_DEPTH_M / 2.0);
        Solid::oriented_box(middle, [facing * (SCREEN_DEPTH_M / 2.0), across * half_width, up * half_height])
    };
    let mut parts = vec![Part { what: "head", solid: head }];
    let under = at - DVec3::Z * half_height;
    support(corner, carried, under, under, &mut parts);
    Thing {
        id: "screen".into(),
        label: gear.common.label.clone(),
        kind: Kind::Screen,
        stand: stand_of(carried),
        glass: gear.screen == ScreenType::Script,
        moved: true,
        parts,
    }
}

/// The stand a support stands for, to compare.
fn stand_of(support: &Support) -> Option<(String, [i64; 2])> {
    let foot = support.base_m.filter(|_| matches!(support.kind, SupportKind::Floor | SupportKind::Boom))?;
    let gear = support.gear.as_ref()?;
    Some((gear.0.clone(), foot.0.map(|v| (v * 1000.0).round() as i64)))
}

/// A light with what carries it.
pub fn light_thing(corner: &Corner<'_>, light: &LightAt<'_>) -> Thing {
    let mut thing = light_head(light);
    carry_light(corner, light, &light.light.support, &mut thing);
    thing
}

/// A light's head alone.
pub fn light_head(light: &LightAt<'_>) -> Thing {
    Thing {
        id: light.id.to_owned(),
        label: light.label().to_owned(),
        kind: Kind::Light,
        stand: None,
        glass: false,
        moved: true,
        parts: lamp_heads(light).into_iter().map(|solid| Part { what: "head", solid }).collect(),
    }
}

/// Puts a light's head on a support, in place of the one it may have had.
pub fn carry_light(corner: &Corner<'_>, light: &LightAt<'_>, by: &Support, thing: &mut Thing) {
    thing.parts.retain(|part| part.what == "head");
    thing.stand = stand_of(by);
    support(corner, by, light.position_m, light.hold_m(), &mut thing.parts);
}

/// A microphone with what carries it; one that is worn or sits in the camera takes up no room.
pub fn microphone_thing(
    corner: &Corner<'_>,
    gear: &GearMicrophone,
    capsule: DVec3,
    carried: &Support,
) -> Thing {
    let mut parts = Vec::new();
    if !is_worn(gear.mounting) {
        let away = (capsule - corner.mouth_m).try_normalize().unwrap_or(DVec3::Z);
        let tail = capsule + away * MICROPHONE_LENGTH_M;
        parts.push(Part { what: "head", solid: Solid::rod(capsule, tail, COLUMN_RADIUS_M) });
        support(corner, carried, tail, tail, &mut parts);
    }
    Thing {
        id: "microphone".into(),
        label: gear.common.label.clone(),
        kind: Kind::Microphone,
        stand: stand_of(carried),
        glass: false,
        moved: true,
        parts,
    }
}

/// A lamp of the house at its ceiling: nobody hung it for the recording.
pub fn is_of_the_house(light: &LightAt<'_>) -> bool {
    light.light.role == Role::Practical
        && light.light.support.kind == SupportKind::Ceiling
        && light.light.support.gear.is_none()
}

/// Worn, or part of the camera: no stand, and nothing to keep out of the picture.
pub fn is_worn(mounting: Mounting) -> bool {
    matches!(mounting, Mounting::Lavalier | Mounting::Headset | Mounting::BuiltIn | Mounting::OnCamera)
}

/// Corners of a lamp's head relative to the middle of its face, when it faces back along `direction`.
pub fn lamp_offsets(light: &LightAt<'_>, direction: DVec3) -> Vec<DVec3> {
    let placed = LightAt { position_m: direction, aim_m: DVec3::ZERO, ..*light };
    lamp_heads(&placed).iter().flat_map(|head| head.corners()).map(|c| *c - direction).collect()
}

fn upright_box(
    middle: DVec2,
    facing: DVec2,
    half_width: f64,
    half_depth: f64,
    from_z: f64,
    to_z: f64,
) -> Solid {
    let across = DVec2::new(facing.y, -facing.x) * half_width;
    let along = facing * half_depth;
    let outline =
        [middle - across - along, middle + across - along, middle + across + along, middle - across + along];
    Solid::prism(&outline, from_z, to_z)
}

fn person(corner: &Corner<'_>) -> Thing {
    let eyes = corner.eyes_m.truncate();
    let facing = bearing_vector(corner.layout.seat.bearing_deg).truncate();
    let marks = &corner.landmarks;
    let half_shoulders = corner.brief.person.shoulder_breadth_m() / 2.0;
    let torso = eyes - facing * TORSO_BACK_M;
    let mut parts = vec![Part {
        what: "head",
        solid: Solid::cylinder(eyes - facing * HEAD_BACK_M, HEAD_RADIUS_M, marks.chin_m, marks.crown_m),
    }];
    let mut add = |what, middle, half_width, half_depth, from_z, to_z| {
        parts.push(Part { what, solid: upright_box(middle, facing, half_width, half_depth, from_z, to_z) });
    };
    match corner.brief.person.seat_height() {
        Some((seat, _)) => {
            add("torso", torso, half_shoulders, TORSO_HALF_DEPTH_M, seat, marks.shoulder_m);
            add("legs", eyes + facing * 0.15, 0.19, 0.27, seat - 0.02, seat + 0.13);
            add("legs", eyes + facing * 0.36, 0.16, 0.06, 0.0, seat);
            add("chair", eyes - facing * CHAIR_BACK_M, CHAIR_HALF_M, CHAIR_HALF_M, 0.0, seat);
        }
        None => {
            let hip = 0.530 * corner.brief.person.stature_m;
            add("torso", torso, half_shoulders, TORSO_HALF_DEPTH_M, hip, marks.shoulder_m);
            add("legs", torso, 0.19, TORSO_HALF_DEPTH_M, 0.0, hip);
        }
    }
    Thing {
        id: "person".into(),
        label: "the person".into(),
        kind: Kind::Person,
        stand: None,
        glass: false,
        moved: true,
        parts,
    }
}

fn furniture(corner: &Corner<'_>, all: &mut Vec<Thing>) {
    for (id, piece) in &corner.brief.room.furniture {
        if piece.kind == FurnitureKind::Chair && !piece.fixed {
            continue; // the person's own chair, which is where the person is
        }
        let (position, bearing_deg) = corner.furniture_at(id, piece);
        let facing = bearing_vector(bearing_deg).truncate();
        let across = DVec2::new(facing.y, -facing.x);
        let [width, depth, height] = piece.size_m.0;
        let (middle, foot) = (position.truncate(), position.z);
        let mut parts = Vec::new();
        let top = foot + height;
        if matches!(piece.kind, FurnitureKind::Desk | FurnitureKind::Table) && height > 2.0 * DESK_TOP_M {
            let slab = upright_box(middle, facing, width / 2.0, depth / 2.0, top - DESK_TOP_M, top);
            parts.push(Part { what: "top", solid: slab });
            for (x, y) in [(-1.0, -1.0), (1.0, -1.0), (1.0, 1.0), (-1.0, 1.0)] {
                let leg = middle + across * (x * (width / 2.0 - 0.03)) + facing * (y * (depth / 2.0 - 0.03));
                parts.push(Part {
                    what: "leg",
                    solid: upright_box(leg, facing, 0.03, 0.03, foot, top - DESK_TOP_M),
                });
            }
        } else {
            let whole = upright_box(middle, facing, width / 2.0, depth / 2.0, foot, top);
            parts.push(Part { what: "body", solid: whole });
        }
        all.push(Thing {
            id: id.0.clone(),
            label: format!("the {}", id.0.replace('-', " ")),
            kind: Kind::Furniture,
            stand: None,
            glass: false,
            moved: corner.layout.furniture.contains_key(id),
            parts,
        });
    }
}

fn camera(corner: &Corner<'_>) -> Thing {
    let view = &corner.view;
    let sensor = corner.image_distance_mm / 1000.0;
    let (front, back) = (0.05, sensor + 0.06);
    let middle = view.position_m + view.forward * ((front - back) / 2.0);
    let body = Solid::oriented_box(
        middle,
        [view.forward * ((front + back) / 2.0), view.right * 0.07, view.up * 0.05],
    );
    let mut parts = vec![Part { what: "body", solid: body }];
    let under = view.position_m - DVec3::Z * 0.05;
    support(corner, &corner.layout.camera.support, under, under, &mut parts);
    Thing {
        id: "camera".into(),
        label: corner.body.common.label.clone(),
        kind: Kind::Camera,
        stand: stand_of(&corner.layout.camera.support),
        glass: false,
        moved: true,
        parts,
    }
}

/// Lamp head or board: its face, thickened backwards; a cloth that hangs before a lamp comes first, by itself. Round faces
/// are held by a twelve-cornered outline, rings by its pieces: a lens looks through them.
fn lamp_heads(light: &LightAt<'_>) -> Vec<Solid> {
    let body = |shape: Shape, width_m: f64, height_m: f64, middle: DVec3, depth_m: f64| {
        let face = Face::new(shape, width_m, height_m, middle, middle + light.direction(), 0.0);
        if !matches!(shape, Shape::Disc | Shape::Ring | Shape::Bulb) {
            return Solid::slab(&face.outline, face.normal, depth_m);
        }
        let (across, up) = axes(face.normal);
        let flat = crate::geometry::circle(DVec2::ZERO, width_m / 2.0);
        let outline: Vec<DVec3> = flat.iter().map(|p| middle + across * p.x + up * p.y).collect();
        Solid::slab(&outline, face.normal, depth_m)
    };
    match (light.source, light.cloth) {
        (super::Source::Lamp(lamp), None) if lamp.shape == Shape::Ring => {
            ring(light, lamp.width_m, lamp.height_m)
        }
        (super::Source::Lamp(lamp), None) => {
            vec![body(lamp.shape, lamp.width_m, lamp.height_m, light.position_m, lamp.depth_m)]
        }
        (super::Source::Lamp(lamp), Some((cloth, ahead_m))) => {
            let behind = light.position_m - light.direction() * ahead_m;
            vec![
                body(Shape::Rectangle, cloth.width_m, cloth.height_m, light.position_m, CLOTH_M),
                body(lamp.shape, lamp.width_m, lamp.height_m, behind, lamp.depth_m),
            ]
        }
        (super::Source::Board(board), _) => {
            vec![body(Shape::Rectangle, board.width_m, board.height_m, light.position_m, light.depth_m())]
        }
    }
}

/// The pieces of a ring's body.
fn ring(light: &LightAt<'_>, outer_m: f64, inner_m: f64) -> Vec<Solid> {
    let normal = light.direction();
    let (across, up) = axes(normal);
    let at = |radius: f64, step: usize| {
        let (sin, cos) = (step as f64 * std::f64::consts::TAU / RING_PIECES as f64).sin_cos();
        light.position_m + across * (radius * cos) + up * (radius * sin)
    };
    // The inner edge stays on the circle at its corners, and within the ring between them.
    let inner_m = inner_m / (std::f64::consts::PI / RING_PIECES as f64).cos();
    let (outer, inner) = (outer_m / 2.0, (inner_m / 2.0).min(outer_m / 2.0 - 0.001));
    (0..RING_PIECES)
        .map(|i| {
            let piece = [at(inner, i), at(outer, i), at(outer, i + 1), at(inner, i + 1)];
            Solid::slab(&piece, normal, light.depth_m())
        })
        .collect()
}

/// The carrying parts: feet and column, arm, or rod. `at` is where the carried thing is, `hold` where it is held.
fn support(corner: &Corner<'_>, support: &Support, at: DVec3, hold: DVec3, parts: &mut Vec<Part>) {
    let mut rod = |what, from, to| parts.push(Part { what, solid: Solid::rod(from, to, COLUMN_RADIUS_M) });
    match support.kind {
        SupportKind::Floor | SupportKind::Boom => {
            let base = base_of(support, hold);
            let top = base.extend(hold.z);
            rod("column", base.extend(0.0), top);
            if support.kind == SupportKind::Boom {
                rod("boom", top, hold);
            }
            let radius = foot_radius_m(corner, support);
            parts.push(Part { what: "feet", solid: Solid::cylinder(base, radius, 0.0, FEET_HEIGHT_M) });
        }
        SupportKind::Clamp | SupportKind::On => {
            let Some((id, piece)) =
                support.on.as_ref().and_then(|id| corner.brief.room.furniture.get_key_value(id))
            else {
                return; // on the camera, or worn
            };
            let (position, _) = corner.furniture_at(id, piece);
            let top = position.z + piece.size_m.0[2];
            if hold.z > top + 0.02 {
                rod("column", hold.with_z(top + 0.005), hold);
            }
        }
        SupportKind::Wall => {
            // Not from inside the wall's surface.
            let fixed = base_of(support, hold).extend(hold.z);
            rod("boom", fixed + (hold - fixed).normalize_or_zero() * 0.02, hold);
        }
        SupportKind::Ceiling => rod("column", at, at.with_z(corner.brief.room.ceiling_m(at.truncate()))),
    }
}

/// Foot of the column: as given, else plumb under what it carries.
pub(crate) fn base_of(support: &Support, hold: DVec3) -> DVec2 {
    support.base_m.map_or(hold.truncate(), DVec2::from)
}

/// Radius of the feet: as set up, else the stand's own, else the usual one.
pub(crate) fn foot_radius_m(corner: &Corner<'_>, support: &Support) -> f64 {
    support
        .foot_radius_m
        .or_else(|| corner.support_gear(support).map(|gear| gear.foot_radius_m))
        .unwrap_or(FOOT_RADIUS_M)
}

/// The floor that a door needs to swing, counter-clockwise; empty for doors that need none.
pub fn door_swing(opening: &Opening, floor: &[DVec2]) -> Vec<DVec2> {
    let wall = usize::from(opening.wall);
    let (Some(start), Some(end)) = (floor.get(wall), floor.get((wall + 1) % floor.len())) else {
        return Vec::new();
    };
    let along = (*end - *start).normalize_or_zero();
    let inward = along.perp();
    let near = *start + along * opening.from_m;
    let far = near + along * opening.width_m;
    // Facing the wall from inside, its direction runs from right to left.
    let (hinge, closed) = match opening.swing_or_usual() {
        Swing::InLeft => (far, -along),
        Swing::InRight => (near, along),
        Swing::Out | Swing::Sliding => return Vec::new(),
    };
    let mut outline = vec![hinge];
    outline.extend((0..=6).map(|i| {
        let angle = f64::from(i) * std::f64::consts::FRAC_PI_2 / 6.0;
        hinge + (closed * angle.cos() + inward * angle.sin()) * opening.width_m
    }));
    if crate::geometry::signed_area_m2(&outline) < 0.0 {
        outline.reverse();
    }
    outline
}

/// The three places, one of which must be free to get out of the chair: left, right, behind. Each is its floor
/// outline and the room over it.
pub fn exit_spaces(corner: &Corner<'_>) -> [(&'static str, [DVec2; 4], Solid); 3] {
    let facing = bearing_vector(corner.layout.seat.bearing_deg).truncate();
    let across = DVec2::new(facing.y, -facing.x);
    let chair = corner.eyes_m.truncate() - facing * CHAIR_BACK_M;
    let half = CHAIR_HALF_M;
    let space = |middle: DVec2, half_width: f64, half_depth: f64| {
        let (a, b) = (across * half_width, facing * half_depth);
        let outline = [middle - a - b, middle + a - b, middle + a + b, middle - a + b];
        // A hand above the floor, to step over a stand's low feet is not asked of anyone: start at the floor.
        let solid = Solid::prism(&outline, 0.0, 1.6);
        (outline, solid)
    };
    let (left, left_solid) = space(chair - across * (half + EXIT_M / 2.0), EXIT_M / 2.0, half);
    let (right, right_solid) = space(chair + across * (half + EXIT_M / 2.0), EXIT_M / 2.0, half);
    let (behind, behind_solid) = space(chair - facing * (half + EXIT_M / 2.0), half, EXIT_M / 2.0);
    [("left of", left, left_solid), ("right of", right, right_solid), ("behind", behind, behind_solid)]
}
