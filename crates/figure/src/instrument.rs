//! A simple lute, held before the waist.
use glam::Vec3;

use crate::shape::{at, common, ellipsoid, join, rod};

/// Its middle, and its neck's end.
const MIDDLE: Vec3 = Vec3::new(-0.095, -0.470, 0.150);
const NECK: [Vec3; 2] = [Vec3::new(0.050, -0.432, 0.178), Vec3::new(0.430, -0.330, 0.200)];

/// Distance to its body: a bowl behind a flat front.
pub(crate) fn body(p: Vec3) -> f32 {
    let along = (NECK[1] - NECK[0]).normalize();
    let front = at(-0.06, 0.02, 1.0).normalize();
    let up = front.cross(along).normalize();
    let off = p - MIDDLE;
    let q = Vec3::new(off.dot(along), off.dot(up), off.dot(front));
    let wide = ellipsoid(q, Vec3::ZERO, Vec3::new(0.165, 0.135, 0.085));
    let narrow = ellipsoid(q, Vec3::new(0.115, 0.0, 0.0), Vec3::new(0.120, 0.080, 0.065));
    let bowl = join(wide, narrow, 0.05);
    let hole = q.truncate().distance(glam::Vec2::new(0.055, 0.0)) - 0.036;
    let board = common(bowl, q.z - 0.030, 0.006);
    // The hole is a shallow dish: what lies in it is dark anyway.
    common(board, -(hole.max(0.022 - q.z)), 0.002)
}

/// Neck, head and bridge.
pub(crate) fn neck(p: Vec3) -> f32 {
    let neck = rod(p, NECK[0], NECK[1], [0.021, 0.017]);
    let head = rod(p, NECK[1], NECK[1] + at(0.075, 0.012, -0.028), [0.024, 0.018]);
    let bridge =
        rod(p, MIDDLE + at(-0.105, -0.050, 0.036), MIDDLE + at(-0.085, 0.032, 0.036), [0.006, 0.006]);
    join(join(neck, head, 0.008), bridge, 0.002)
}
