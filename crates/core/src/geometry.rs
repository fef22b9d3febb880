//! Space: bearings, the pinhole that every picture uses, convex solids and where they touch.
//!
//! Axes: x right from the left wall, y away from the back wall, z up; metres. Bearings are degrees clockwise
//! from +y, seen from above.

mod outline;
mod pinhole;
mod solid;

pub use glam::{DVec2, DVec3};
pub use outline::{
    area_beyond_m2, beyond_m, distance_to_edge, hull, inside, is_outer_corner, is_simple, outside_pieces,
    signed_area_m2, triangles,
};
pub use pinhole::{Pinhole, Plane, binding_plane, nearest_outside_m};
pub use solid::Solid;
pub(crate) use solid::circle;

/// Steps that any loop over a length takes at most.
const STEPS_MOST: usize = 20_000;

/// How many whole steps fit a length: none of a length that is no number, and never more than a loop can take, so that no
/// number of a file keeps one busy.
pub fn whole_steps(length: f64, step: f64) -> usize {
    // The cast holds on to the ends of its range, and takes what is no number as 0.
    ((length / step).floor() as usize).min(STEPS_MOST)
}

/// Horizontal unit vector of a bearing.
pub fn bearing_vector(bearing_deg: f64) -> DVec3 {
    let (sin, cos) = bearing_deg.to_radians().sin_cos();
    DVec3::new(sin, cos, 0.0)
}

/// Bearing of a horizontal direction in [0, 360); 0 for a vertical one.
pub fn bearing_of(direction: DVec3) -> f64 {
    if direction.x.hypot(direction.y) < 1e-12 {
        return 0.0;
    }
    let bearing = wrap_360(direction.x.atan2(direction.y).to_degrees());
    if bearing >= 360.0 { 0.0 } else { bearing }
}

/// An angle brought into [0, 360).
pub fn wrap_360(angle_deg: f64) -> f64 {
    angle_deg.rem_euclid(360.0)
}

/// An angle brought into (-180, 180].
pub fn wrap_180(angle_deg: f64) -> f64 {
    180.0 - (180.0 - angle_deg).rem_euclid(360.0)
}

/// Angle between two directions, degrees; 0 if either has no length.
pub fn angle_between_deg(a: DVec3, b: DVec3) -> f64 {
    a.cross(b).length().atan2(a.dot(b)).to_degrees()
}
