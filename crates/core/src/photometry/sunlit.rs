//! What parallel light reaches of a flat convex face: through an opening, past what stands in its way, cut exactly into convex
//! pieces.

use super::Blockers;
use super::shadow::{cut, less};
use crate::geometry::{DVec2, DVec3, hull, signed_area_m2};

/// Nothing nearer to the face than this stands in its light, m.
const OFF_M: f64 = 1e-4;
/// A piece smaller than this is none, m2.
const NOTHING_M2: f64 = 1e-6;

/// The lit pieces of a face with an outline and a unit normal, by light that comes from a direction through a convex opening.
pub fn sunlit(
    outline: &[DVec3],
    normal: DVec3,
    from: DVec3,
    opening: &[DVec3],
    blockers: &Blockers,
) -> Vec<Vec<DVec3>> {
    let steep = normal.dot(from);
    let Some(origin) = outline.first().copied().filter(|_| steep > 1e-6) else { return Vec::new() };
    let (across, up) = normal.any_orthonormal_pair();
    let flat = |p: DVec3| DVec2::new((p - origin).dot(across), (p - origin).dot(up));
    let height_m = |p: DVec3| normal.dot(p - origin);
    // The shadow of what lies above the face, as if all around were open.
    let cast = |corners: &[DVec3]| -> Vec<DVec2> {
        let mut above: Vec<DVec3> = corners.iter().copied().filter(|c| height_m(*c) >= OFF_M).collect();
        if above.is_empty() {
            return Vec::new();
        }
        if above.len() < corners.len() {
            for (i, a) in corners.iter().enumerate() {
                for b in &corners[i + 1..] {
                    let (low, high) = (height_m(*a) - OFF_M, height_m(*b) - OFF_M);
                    if low * high < 0.0 {
                        above.push(*a + (*b - *a) * (low / (low - high)));
                    }
                }
            }
        }
        let thrown: Vec<DVec2> = above.iter().map(|c| flat(*c - from * (height_m(*c) / steep))).collect();
        hull(&thrown)
    };
    let through = cast(opening);
    if through.len() < 3 {
        return Vec::new();
    }
    let mut face: Vec<DVec2> = outline.iter().map(|p| flat(*p)).collect();
    if signed_area_m2(&face) < 0.0 {
        face.reverse();
    }
    for (a, b) in through.iter().zip(through.iter().cycle().skip(1)) {
        face = cut(&face, |p| (*b - *a).perp_dot(p - *a));
    }
    let mut lit = if signed_area_m2(&face) > NOTHING_M2 { vec![face] } else { Vec::new() };
    for corners in blockers.corners() {
        if lit.is_empty() {
            break;
        }
        let shadow = cast(corners);
        if shadow.len() >= 3 {
            lit = less(lit, &shadow);
        }
    }
    lit.retain(|piece| signed_area_m2(piece) > NOTHING_M2);
    let back = |p: &DVec2| origin + across * p.x + up * p.y;
    lit.iter().map(|piece| piece.iter().map(back).collect()).collect()
}
