//! The light of flat polygons of uniform luminance, exactly.

use std::f64::consts::PI;

use crate::geometry::DVec3;

/// arctan(t) / t = 1 - t^2 / 3 + t^4 / 5 - ...
const ARCTANGENT: [f64; 8] =
    [1.0, 1.0 / 3.0, 1.0 / 5.0, 1.0 / 7.0, 1.0 / 9.0, 1.0 / 11.0, 1.0 / 13.0, 1.0 / 15.0];

/// Illuminance of a disc on its axis, lx: E = pi L r^2 / (r^2 + d^2) (Lambert 1760).
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
pub(super) fn edge_vector(a: DVec3, b: DVec3) -> DVec3 {
    let cross = a.cross(b);
    let (sine2, cosine) = (cross.length_squared(), a.dot(b));
    // A short edge by the series of the arctangent, as good as the long way to 1e-11 and without its roots.
    if cosine > 0.0 && sine2 < cosine * cosine / 16.0 {
        let t2 = sine2 / (cosine * cosine);
        let series = ARCTANGENT.iter().rev().fold(0.0, |sum, part| part - t2 * sum);
        return cross * (series / cosine);
    }
    let sine = sine2.sqrt();
    if sine < 1e-14 { DVec3::ZERO } else { cross * (sine.atan2(cosine) / sine) }
}
