//! Soft shapes by their distance: how far a point lies outside, negative within. Distances of ellipsoids are bounds, exact at
//! the surface.
//!
//! Sources (from memory): Hart 1996, Sphere tracing; Quilez, distance functions and the polynomial smooth minimum.
use glam::Vec3;

pub(crate) fn at(x: f32, y: f32, z: f32) -> Vec3 {
    Vec3::new(x, y, z)
}

pub(crate) fn ellipsoid(point: Vec3, middle: Vec3, radii: Vec3) -> f32 {
    let from = point - middle;
    let (scaled, twice) = ((from / radii).length(), (from / (radii * radii)).length());
    // In the very middle there is no direction; the least radius bounds the distance.
    if twice < 1e-6 { -radii.min_element() } else { scaled * (scaled - 1.0) / twice }
}

/// A rod with round ends, from a radius to another.
pub(crate) fn rod(point: Vec3, from: Vec3, to: Vec3, radii: [f32; 2]) -> f32 {
    let (along, of) = (to - from, point - from);
    let part = (of.dot(along) / along.length_squared()).clamp(0.0, 1.0);
    (of - along * part).length() - (radii[0] + (radii[1] - radii[0]) * part)
}

/// Two shapes joined, the seam rounded over a width.
pub(crate) fn join(a: f32, b: f32, width: f32) -> f32 {
    let near = (width - (a - b).abs()).max(0.0) / width;
    a.min(b) - near * near * width / 4.0
}

/// One shape without another, the edge rounded over a width.
pub(crate) fn without(a: f32, b: f32, width: f32) -> f32 {
    -join(-a, b, width)
}

/// What two shapes have in common, the edge rounded over a width.
pub(crate) fn common(a: f32, b: f32, width: f32) -> f32 {
    -join(-a, -b, width)
}

/// How a shape's distance grows along each axis, over a small step to both sides.
pub(crate) fn gradient(shape: &impl Fn(Vec3) -> f32, point: Vec3, step: f32) -> Vec3 {
    Vec3::AXES.map(|way| (shape(point + way * step) - shape(point - way * step)) / (2.0 * step)).into()
}

/// Turned about the axis upwards, rad, counter-clockwise seen from above.
pub(crate) fn turned(point: Vec3, by: f32) -> Vec3 {
    let (sine, cosine) = by.sin_cos();
    at(cosine * point.x + sine * point.z, point.y, cosine * point.z - sine * point.x)
}

/// 0 up to `from`, 1 from `to` on, smooth between.
pub(crate) fn ramp(from: f32, to: f32, value: f32) -> f32 {
    let part = ((value - from) / (to - from)).clamp(0.0, 1.0);
    part * part * (3.0 - 2.0 * part)
}
