//! Light from faces: the exact polygon formula, what stands in the way, a room between its walls, and what a catalogue
//! figure says about a face.

use crate::geometry::DVec3;
use crate::plan::GearLight;

mod catalogue;
mod enclosure;
mod face;
mod glow;
mod polygon;
mod shadow;
pub mod sky;
mod source;
mod sunlit;
mod surroundings;

pub use catalogue::{Known, beam_exponent, beam_flux_lm, known};
pub use enclosure::{Emitter, Enclosure, Patch};
pub use face::{Emits, Face, axes, shape_area_m2};
pub use glow::{Glow, PatchPiece};
pub use polygon::{disc_illuminance_lx, face_normal, polygon_illuminance};
pub use shadow::Blockers;
pub use source::LightSource;
pub use sunlit::sunlit;
pub use surroundings::Surroundings;

/// Luminance of a lamp's face at full power, on its axis (`catalogue`).
pub fn luminance_cd_m2(lamp: &GearLight) -> f64 {
    known(lamp).luminance_cd_m2
}

/// A lamp's face at full power, its middle and where it looks.
pub fn face_of(lamp: &GearLight, middle: DVec3, towards: DVec3) -> Face {
    catalogue::shaped(lamp, middle, towards, luminance_cd_m2(lamp))
}

/// Light that leaves a lamp's face at full power, lm.
pub fn flux_lm(lamp: &GearLight) -> f64 {
    face_of(lamp, DVec3::ZERO, DVec3::X).flux_lm()
}

/// Electrical power of a lamp, W, and whether it had to be assumed: flux over 80 lm/W
/// (efficacy of LED panels, common practice, no source).
pub fn power_w(lamp: &GearLight) -> (f64, bool) {
    match lamp.common.power_w {
        Some(power) => (power, false),
        None => (flux_lm(lamp) / 80.0, true),
    }
}
