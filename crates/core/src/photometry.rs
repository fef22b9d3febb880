//! Light from faces: the exact polygon formula, what stands in the way, a room between its walls, and what a catalogue
//! figure says about a face.

use crate::geometry::DVec3;
use crate::plan::GearLight;

mod catalogue;
mod enclosure;
mod face;
mod polygon;
mod shadow;
pub mod sky;
mod source;
mod sunlit;

pub use catalogue::{Known, beam_exponent, beam_flux_lm, known};
pub use enclosure::{Emitter, Enclosure, Glow, Patch, PatchPiece, Surroundings};
pub use face::{Emits, Face, axes, shape_area_m2};
pub use polygon::{disc_illuminance_lx, face_normal, polygon_illuminance};
pub use shadow::Blockers;
pub use source::LightSource;
pub use sunlit::sunlit;

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

#[cfg(test)]
mod tests {
    use super::*;
    use crate::plan::Shape;

    /// Square on axis by the configuration factor of a parallel element (Hamilton and Morgan 1952, from memory), disc
    /// E = pi L r^2 / (r^2 + d^2), ring as the difference of two discs, luminance from lux at 1 m by the first.
    #[test]
    fn faces_agree_with_closed_forms() {
        let close = |got: f64, want: f64, tolerance: f64| {
            assert!((got / want - 1.0).abs() < tolerance, "{got} against {want}");
        };
        let lit = |shape, w, h, l, d| {
            Face::new(shape, w, h, DVec3::new(0.0, d, 0.0), DVec3::ZERO, l)
                .illuminance_lx(DVec3::ZERO, DVec3::Y)
        };
        close(lit(Shape::Rectangle, 0.6, 0.6, 1000.0, 1.0), 321.61046, 1e-6);
        close(lit(Shape::Disc, 0.9, 0.9, 1000.0, 1.0), 529.04159, 2e-3);
        close(lit(Shape::Ring, 0.48, 0.34, 8000.0, 0.8), 989.314, 5e-3);
        let lamp: GearLight = serde_json::from_value(serde_json::json!({
            "label": "x", "shape": "rectangle", "width_m": 0.9, "height_m": 0.9,
            "illuminance_at_1m_lx": 1500.0, "cct_min_k": 5600.0, "cct_max_k": 5600.0
        }))
        .unwrap();
        close(luminance_cd_m2(&lamp), 2346.69, 1e-5);
        close(lit(Shape::Rectangle, 0.9, 0.9, luminance_cd_m2(&lamp), 0.6), 3043.67, 1e-5);
        assert_eq!(
            Face::new(Shape::Disc, 0.5, 0.5, DVec3::Y, DVec3::Y * 2.0, 1.0)
                .illuminance_lx(DVec3::ZERO, DVec3::Y),
            0.0
        );
    }
}
