//! Light from faces: the exact polygon formula, what stands in the way, a room between its walls, and what a catalogue
//! figure says about a face.

use std::f64::consts::PI;

use crate::geometry::DVec3;
use crate::plan::GearLight;

mod catalogue;
mod enclosure;
mod face;
mod shadow;
pub mod sky;
mod source;

pub use catalogue::{Known, beam_exponent, beam_flux_lm, known};
pub use enclosure::{Emitter, Enclosure, Glow, Patch, PatchPiece, Surroundings};
pub use face::{Emits, Face, axes, shape_area_m2};
pub use shadow::Blockers;
pub use source::Source;

/// Illuminance of a disc on its axis, lx: E = pi L r^2 / (r^2 + d^2).
pub fn disc_illuminance_lx(luminance_cd_m2: f64, radius_m: f64, distance_m: f64) -> f64 {
    let square = radius_m * radius_m;
    PI * luminance_cd_m2 * square / (square + distance_m * distance_m)
}

/// Unit normal (to the side from which the corners run counter-clockwise) and area of a flat polygon, m2: Newell's
/// method.
pub fn face_normal(outline: &[DVec3]) -> (DVec3, f64) {
    let Some(first) = outline.first() else { return (DVec3::Z, 0.0) };
    let twice: DVec3 = outline
        .iter()
        .zip(outline.iter().cycle().skip(1))
        .map(|(a, b)| (*a - *first).cross(*b - *first))
        .sum();
    (twice.normalize_or(DVec3::Z), twice.length() / 2.0)
}

/// Illuminance from a convex polygon of uniform luminance on a surface element, lx: E = L/2 |sum of
/// Gamma_i (n . g_i)| over the edges of the polygon clipped at the element's horizon (Lambert 1760; Baum,
/// Rushmeier and Winget 1989; Arvo 1995). The caller answers for the side that emits.
pub fn polygon_illuminance(luminance_cd_m2: f64, outline: &[DVec3], point: DVec3, normal: DVec3) -> f64 {
    let Some(last) = outline.last() else { return 0.0 };
    let edge = |a: DVec3, b: DVec3| normal.dot(edge_vector(a, b));
    let mut sum = 0.0;
    // The first and the last corner kept so far.
    let mut kept: Option<(DVec3, DVec3)> = None;
    let mut keep = |corner: DVec3| match &mut kept {
        Some((_, before)) => {
            sum += edge(*before, corner);
            *before = corner;
        }
        None => kept = Some((corner, corner)),
    };
    let mut a = *last - point;
    let mut over_a = normal.dot(a);
    for corner in outline {
        let b = *corner - point;
        let over_b = normal.dot(b);
        if (over_a > 0.0 && over_b < 0.0) || (over_a < 0.0 && over_b > 0.0) {
            keep(a + (b - a) * (over_a / (over_a - over_b)));
        }
        if over_b >= 0.0 {
            keep(b);
        }
        (a, over_a) = (b, over_b);
    }
    if let Some((first, before)) = kept {
        sum += edge(before, first);
    }
    luminance_cd_m2 / 2.0 * sum.abs()
}

/// Gamma g of an edge seen from the origin: the angle between its ends along the unit normal of both.
fn edge_vector(a: DVec3, b: DVec3) -> DVec3 {
    let cross = a.cross(b);
    let (sine2, cosine) = (cross.length_squared(), a.dot(b));
    // A short edge by the series of the arctangent, as good as the long way to 1e-11 and without its roots.
    if cosine > 0.0 && sine2 < cosine * cosine / 16.0 {
        let t2 = sine2 / (cosine * cosine);
        let series = (0..8).rev().fold(0.0, |sum, n| 1.0 / f64::from(2 * n + 1) - t2 * sum);
        return cross * (series / cosine);
    }
    let sine = sine2.sqrt();
    if sine < 1e-14 { DVec3::ZERO } else { cross * (sine.atan2(cosine) / sine) }
}

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
