//! The person: the stand-in, scaled to stature, turned to the lens, in its colours.
use std::sync::Arc;

use fogon_core::corner::Corner;
use fogon_core::geometry::bearing_vector;
use fogon_core::plan::{Brief, Hair};
use fogon_figure::{Looks, Part, Stuff, What};
use glam::{Affine3A, Mat3A, Vec3};

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

/// What the stand-in looks like for a brief.
pub(super) fn looks(brief: &Brief) -> Looks {
    let person = &brief.person;
    let skin = person.skin_reflectance.unwrap_or(0.35) as f32;
    let worn = person.clothing_reflectance.unwrap_or(0.20) as f32;
    let hair = match person.hair {
        Some(Hair::None) => None,
        Some(Hair::Light) => Some(Vec3::new(0.40, 0.27, 0.13)),
        Some(Hair::Dark) | None => Some(Vec3::new(0.060, 0.042, 0.031)),
    };
    Looks { skin: skin_of(skin), hair, shirt: super::room::hued(Vec3::new(0.72, 1.0, 1.33), f64::from(worn)) }
}

/// Skin of a reflectance: the lighter, the less red beside the rest (Fogon's own rule, after published spectra, from memory).
fn skin_of(reflectance: f32) -> Vec3 {
    let light = ((reflectance / 0.05).ln() / 9.0_f32.ln()).clamp(0.0, 1.0);
    let hue = Vec3::new(1.72, 1.0, 0.60).lerp(Vec3::new(1.45, 1.0, 0.79), light);
    super::room::hued(hue, f64::from(reflectance))
}

/// The stand-in as a body in its own space.
pub(super) fn body(parts: &[Part], things: &mut Things) -> (Body, Option<Body>) {
    let (mut maker, mut glass) = (Maker::default(), Maker::default());
    for part in parts {
        let (name, sort) = match part.what {
            What::Skin => ("skin", Sort::Skin),
            What::Eye => ("an eye", Sort::Person),
            What::Hair => ("hair", Sort::Person),
            What::Clothes => ("clothes", Sort::Person),
            What::Glasses => ("glasses", Sort::Person),
            What::Chair => ("the chair", Sort::Furniture),
            What::Instrument => ("the instrument", Sort::Furniture),
        };
        let number = things.number(name, sort);
        let (into, finish) = match part.stuff {
            Stuff::Matt => (&mut maker, Finish::Matt),
            Stuff::Sheen { roughness, straight_on } => {
                (&mut maker, Finish::Sheen { roughness, straight_on })
            }
            Stuff::Coat(index) => (&mut maker, Finish::Coat(index)),
            Stuff::Glass => (&mut glass, Finish::Glass(COATED)),
        };
        let material = into.material(finish, number);
        into.mesh(&part.mesh, &part.colours, &Affine3A::IDENTITY, material, PATCH_M);
    }
    let glass = glass.made();
    (maker.made(), (!glass.corners.is_empty()).then_some(glass))
}

/// From the stand-in's space to the room.
pub(super) fn place(corner: &Corner<'_>) -> Affine3A {
    let forward = bearing_vector(corner.layout.seat.bearing_deg).as_vec3();
    let left = Vec3::Z.cross(forward);
    let scale = (corner.landmarks.crown_m - corner.landmarks.chin_m) / HEAD_M;
    let turned = Mat3A::from_cols(left.into(), Vec3::Z.into(), forward.into()) * scale as f32;
    Affine3A { matrix3: turned, translation: corner.eyes_m.as_vec3().into() }
}

pub(super) fn placed(body: &Arc<Body>, corner: &Corner<'_>) -> Placed {
    Placed::new(body.clone(), place(corner))
}
