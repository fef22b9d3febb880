//! The camera as a solid, and the room behind it: a phone or webcam is flat and needs hardly any.

use super::Corner;
use super::legs::tripod_legs;
use super::thing::{Kind, Piece, Thing, What};
use crate::geometry::{DVec3, Solid};
use crate::plan::{GearCamera, GearLens, SupportKind, ThingId};

/// Behind the sensor: plugs, hands and screen, m; of a phone or webcam on a clamp, rim, shelf or wall.
const BEHIND_M: f64 = 0.22;
const BEHIND_FLAT_M: f64 = 0.05;
/// A camera so light whose lens is built in is flat, kg. Fogon's own rule.
const FLAT_KG: f64 = 0.25;

/// Half width, half height, and what lies before the lens and behind the sensor, m. Fogon's own rule.
struct Body {
    half_width_m: f64,
    half_height_m: f64,
    front_m: f64,
    back_m: f64,
}

const WHOLE: Body = Body { half_width_m: 0.07, half_height_m: 0.05, front_m: 0.05, back_m: 0.06 };
const FLAT: Body = Body { half_width_m: 0.075, half_height_m: 0.04, front_m: 0.01, back_m: 0.02 };

/// A phone or webcam: light, and its lens built in.
pub fn is_flat(body: &GearCamera, lens: &GearLens) -> bool {
    lens.built_into.is_some() && body.common.mass_kg <= FLAT_KG
}

/// Room behind the sensor that a camera needs on a support, m.
pub fn behind_sensor_m(body: &GearCamera, lens: &GearLens, on: SupportKind) -> f64 {
    let stands = matches!(on, SupportKind::Floor | SupportKind::Boom | SupportKind::Ceiling);
    if is_flat(body, lens) && !stands { BEHIND_FLAT_M } else { BEHIND_M }
}

/// How far under its lens a camera is held, m.
pub fn held_below_m(body: &GearCamera, lens: &GearLens) -> f64 {
    shape(body, lens).half_height_m
}

fn shape(body: &GearCamera, lens: &GearLens) -> &'static Body {
    if is_flat(body, lens) { &FLAT } else { &WHOLE }
}

impl Corner<'_> {
    /// Where the camera is held: under its body, m.
    pub fn camera_hold_m(&self) -> DVec3 {
        self.view.position_m - DVec3::Z * held_below_m(self.body, self.lens)
    }
}

/// The camera with what carries it; the legs of a tripod are turned to where they have room among `others`.
pub(super) fn camera(corner: &Corner<'_>, others: &[Thing]) -> Thing {
    let view = &corner.view;
    let sensor = corner.image_distance_mm / 1000.0;
    let Body { half_width_m, half_height_m, front_m, back_m } = shape(corner.body, corner.lens);
    let (front, back) = (*front_m, sensor + back_m);
    let middle = view.position_m + view.forward * ((front - back) / 2.0);
    let half = [view.forward * ((front + back) / 2.0), view.right * *half_width_m, view.up * *half_height_m];
    let pieces = vec![Piece { what: What::Body, solid: Solid::oriented_box(middle, half) }];
    let mut thing = Thing::new(ThingId::Camera, Kind::Camera, corner.body.common.label.clone(), pieces);
    let support = &corner.layout.camera.support;
    let hold = corner.camera_hold_m();
    thing.carried_by(corner, support, hold, hold);
    if support.kind == SupportKind::Floor {
        thing.pieces.retain(|piece| piece.what != What::Feet);
        let legs = tripod_legs(corner, support, hold, others);
        thing.pieces.extend(legs.into_iter().map(|solid| Piece { what: What::Tripod, solid }));
    }
    thing
}
