//! Space: bearings, the pinhole that every picture uses, convex solids and where they touch.
//!
//! Axes: x right from the left wall, y away from the back wall, z up; metres. Bearings are degrees clockwise
//! from +y, seen from above.

mod pinhole;
mod solid;

pub use glam::{DVec2, DVec3};
pub use pinhole::{Pinhole, Plane, nearest_outside_m};
pub use solid::Solid;
pub(crate) use solid::circle;

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

/// How far a point lies beyond the edges of a counter-clockwise convex polygon, m; negative inside.
pub fn beyond_m(polygon: &[DVec2], point: DVec2) -> f64 {
    polygon
        .iter()
        .zip(polygon.iter().cycle().skip(1))
        .map(|(a, b)| -(*b - *a).normalize_or_zero().perp_dot(point - *a))
        .fold(f64::NEG_INFINITY, f64::max)
}

/// Whether a point lies in a counter-clockwise convex polygon grown by `margin` (negative shrinks it).
pub fn inside_convex(polygon: &[DVec2], point: DVec2, margin: f64) -> bool {
    beyond_m(polygon, point) <= margin
}

/// Distance along a horizontal ray from `from` to the edge of a convex polygon that holds it.
pub fn distance_to_edge(polygon: &[DVec2], from: DVec2, direction: DVec2) -> f64 {
    polygon
        .iter()
        .zip(polygon.iter().cycle().skip(1))
        .filter_map(|(a, b)| {
            let edge = *b - *a;
            let across = direction.perp_dot(edge);
            (across > 1e-12).then(|| (*a - from).perp_dot(edge) / across)
        })
        .fold(f64::INFINITY, f64::min)
}

/// Area of a simple polygon, positive when counter-clockwise, m2.
pub fn signed_area_m2(polygon: &[DVec2]) -> f64 {
    polygon.iter().zip(polygon.iter().cycle().skip(1)).map(|(a, b)| a.perp_dot(*b)).sum::<f64>() / 2.0
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn bearings_run_clockwise_from_the_back_wall_normal() {
        assert!((bearing_vector(90.0) - DVec3::X).length() < 1e-12);
        assert!((bearing_of(DVec3::new(-1.0, 0.0, 0.3)) - 270.0).abs() < 1e-12);
        assert_eq!(wrap_180(-180.0), 180.0);
        assert_eq!(wrap_180(190.0), -170.0);
        assert_eq!(bearing_of(DVec3::new(-1e-300, 1.0, 0.0)), 0.0);
    }

    #[test]
    fn rays_and_areas_in_a_rectangle() {
        let room = [DVec2::ZERO, DVec2::new(3.4, 0.0), DVec2::new(3.4, 2.9), DVec2::new(0.0, 2.9)];
        assert!((signed_area_m2(&room) - 9.86).abs() < 1e-12);
        assert!((distance_to_edge(&room, DVec2::new(1.0, 1.0), DVec2::X) - 2.4).abs() < 1e-12);
        assert!((distance_to_edge(&room, DVec2::new(1.0, 1.0), DVec2::NEG_Y) - 1.0).abs() < 1e-12);
        assert!(inside_convex(&room, DVec2::new(3.4, 1.0), 0.0));
        assert!(!inside_convex(&room, DVec2::new(3.35, 1.0), -0.1));
    }
}
