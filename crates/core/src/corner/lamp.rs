//! Lamps and boards as solids: heads, cloths, rings.

use super::thing::{Kind, Piece, Thing, What};
use super::{Corner, LightAt, Source};
use crate::geometry::{DVec2, DVec3, Solid};
use crate::photometry::{Face, axes};
use crate::plan::{Role, Shape, Support, SupportKind, ThingId};

/// Pieces of a ring.
const RING_PIECES: usize = 12;
/// Thickness of a cloth in its frame, m.
const CLOTH_M: f64 = 0.01;

/// A light with what carries it.
pub fn light_thing(corner: &Corner<'_>, light: &LightAt<'_>) -> Thing {
    let mut thing = light_head(light);
    carry_light(corner, light, &light.light.support, &mut thing);
    thing
}

/// A light's head alone.
pub fn light_head(light: &LightAt<'_>) -> Thing {
    let pieces = lamp_heads(light).into_iter().map(|solid| Piece { what: What::Head, solid }).collect();
    Thing::new(ThingId::Light(light.id.clone()), Kind::Light, light.label().to_owned(), pieces)
}

/// Puts a light's head on a support, in place of the one it may have had.
pub fn carry_light(corner: &Corner<'_>, light: &LightAt<'_>, by: &Support, thing: &mut Thing) {
    thing.pieces.retain(|piece| piece.what == What::Head);
    thing.carried_by(corner, by, light.position_m, light.hold_m());
}

/// A lamp of the house at its ceiling: nobody hung it for the recording.
pub fn is_of_the_house(light: &LightAt<'_>) -> bool {
    light.light.role == Role::Practical
        && light.light.support.kind == SupportKind::Ceiling
        && light.light.support.gear.is_none()
}

/// Corners of a lamp's head relative to the middle of its face, when it faces back along `direction`.
pub fn lamp_offsets(light: &LightAt<'_>, direction: DVec3) -> Vec<DVec3> {
    let placed = LightAt { position_m: direction, aim_m: DVec3::ZERO, ..*light };
    lamp_heads(&placed).iter().flat_map(|head| head.corners()).map(|c| *c - direction).collect()
}

/// Lamp head or board: its face, thickened backwards; a cloth that hangs before a lamp comes first, by itself. Round faces
/// are held by a twelve-cornered outline, rings by its pieces: a lens looks through them.
fn lamp_heads(light: &LightAt<'_>) -> Vec<Solid> {
    let body = |shape: Shape, width_m: f64, height_m: f64, middle: DVec3, depth_m: f64| {
        let normal = light.direction();
        if !matches!(shape, Shape::Disc | Shape::Ring | Shape::Bulb) {
            let face = Face::new(shape, width_m, height_m, middle, middle + normal, 0.0);
            return Solid::slab(&face.outline, face.normal, depth_m);
        }
        let (across, up) = axes(normal);
        let flat = crate::geometry::circle(DVec2::ZERO, width_m / 2.0);
        let outline: Vec<DVec3> = flat.iter().map(|p| middle + across * p.x + up * p.y).collect();
        Solid::slab(&outline, normal, depth_m)
    };
    match (light.source, light.cloth) {
        (Source::Lamp(lamp), None) if lamp.shape == Shape::Ring => ring(light, lamp.width_m, lamp.height_m),
        (Source::Lamp(lamp), None) => {
            vec![body(lamp.shape, lamp.width_m, lamp.height_m, light.position_m, lamp.depth_m)]
        }
        (Source::Lamp(lamp), Some((cloth, ahead_m))) => {
            let behind = light.position_m - light.direction() * ahead_m;
            vec![
                body(Shape::Rectangle, cloth.width_m, cloth.height_m, light.position_m, CLOTH_M),
                body(lamp.shape, lamp.width_m, lamp.height_m, behind, lamp.depth_m),
            ]
        }
        (Source::Board(board), _) => {
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
