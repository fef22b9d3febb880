//! Geometry by brute force: overlaps and sight lines by sampling, the picture's edges by projecting, the nearest place
//! out of the picture by walking outwards.

use fogon_core::geometry::{
    DVec2, DVec3, Pinhole, Solid, bearing_of, bearing_vector, nearest_outside_m, signed_area_m2, wrap_180,
    wrap_360,
};
use fogon_testkit::assert_close;
use proptest::prelude::*;

fn point(range: f64) -> impl Strategy<Value = DVec3> {
    (-range..range, -range..range, -range..range).prop_map(|(x, y, z)| DVec3::new(x, y, z))
}

/// A box turned about the upright axis, and whether it holds a point: by its own axes.
#[derive(Debug, Clone)]
struct Crate {
    middle: DVec3,
    half: DVec3,
    turn_deg: f64,
}

impl Crate {
    fn axes(&self) -> [DVec3; 3] {
        let along = bearing_vector(self.turn_deg);
        [along, DVec3::new(along.y, -along.x, 0.0), DVec3::Z]
    }

    fn solid(&self) -> Solid {
        let [a, b, c] = self.axes();
        Solid::oriented_box(self.middle, [a * self.half.x, b * self.half.y, c * self.half.z])
    }

    fn holds(&self, p: DVec3) -> bool {
        let [a, b, c] = self.axes();
        let off = p - self.middle;
        off.dot(a).abs() <= self.half.x && off.dot(b).abs() <= self.half.y && off.dot(c).abs() <= self.half.z
    }

    /// Points on a grid inside.
    fn points(&self) -> impl Iterator<Item = DVec3> + '_ {
        let [a, b, c] = self.axes();
        let steps = || (0..9).map(|i| -1.0 + f64::from(i) / 4.0);
        steps().flat_map(move |i| {
            steps().flat_map(move |j| {
                steps().map(move |k| {
                    self.middle + a * (i * self.half.x) + b * (j * self.half.y) + c * (k * self.half.z)
                })
            })
        })
    }
}

fn any_crate() -> impl Strategy<Value = Crate> {
    (point(1.0), (0.05f64..0.8, 0.05f64..0.8, 0.05f64..0.8), 0.0f64..360.0)
        .prop_map(|(middle, (x, y, z), turn_deg)| Crate { middle, half: DVec3::new(x, y, z), turn_deg })
}

proptest! {
    /// Whatever sampling finds to overlap does so by the separating axes; whatever they part, sampling parts too.
    #[test]
    fn overlaps_are_found(a in any_crate(), b in any_crate()) {
        let deep = a.solid().overlap_m(&b.solid());
        let shared = a.points().any(|p| b.holds(p)) || b.points().any(|p| a.holds(p));
        if shared {
            prop_assert!(deep >= -1e-9, "sampling finds a shared point, the axes say {deep}");
        }
        // Apart, the first axis that parts them is answer enough; overlapping, the depth is one and the same.
        let back = b.solid().overlap_m(&a.solid());
        prop_assert_eq!(deep > 0.0, back > 0.0);
        if deep > 0.0 {
            assert_close(deep, back, 1e-9, 1e-9, "the same from both sides");
        }
        // Shifted apart by more than the depth along x, nothing is shared.
        let far = Crate { middle: b.middle + DVec3::X * 5.0, ..b.clone() };
        prop_assert!(a.solid().overlap_m(&far.solid()) <= 0.0);
    }

    /// A sight line is blocked exactly when a point of it lies inside.
    #[test]
    fn sight_lines_are_blocked(a in any_crate(), from in point(2.0), to in point(2.0)) {
        prop_assume!((to - from).length() > 0.2 && !a.holds(from) && !a.holds(to));
        let inside = (0..=2000).filter(|i| a.holds(from + (to - from) * (f64::from(*i) / 2000.0))).count();
        let blocked = a.solid().blocks(from, to);
        // A graze of a corner may slip between the samples.
        prop_assert!(blocked || inside == 0, "{inside} samples inside an open line");
        prop_assert!(!blocked || inside > 0 || a.solid().blocks(from, to), "blocked");
        prop_assert_eq!(blocked, a.solid().blocks(to, from));
    }

    /// The distance given is never more than the distance to the nearest sampled point.
    #[test]
    fn distances_are_never_too_great(a in any_crate(), p in point(2.0)) {
        prop_assume!(!a.holds(p));
        let sampled = a.points().map(|q| (q - p).length()).fold(f64::INFINITY, f64::min);
        prop_assert!(a.solid().distance_m(p) <= sampled + 1e-9);
    }

    /// A point is in the picture exactly when it lies inside all of its planes.
    #[test]
    fn planes_bound_the_picture(
        at in point(2.0), bearing in 0.0f64..360.0, tilt in -40.0f64..40.0, image in 15.0f64..90.0, p in point(4.0),
    ) {
        let camera = Pinhole::new(at, bearing, tilt, 36.0, 20.25, image);
        let nearest = camera.planes().iter().map(|plane| plane.distance_m(p)).fold(f64::NEG_INFINITY, f64::max);
        prop_assume!(nearest.abs() > 1e-6);
        prop_assert_eq!(camera.sees(p), nearest < 0.0);
        if let Some((x, y)) = camera.project(p) {
            // Back along the ray of that place in the picture.
            let ray = camera.forward + camera.right * ((x - 0.5) * camera.width_ratio) + camera.up * ((0.5 - y) * camera.height_ratio);
            assert_close(ray.cross(p - at).length() / (ray.length() * (p - at).length()), 0.0, 0.0, 1e-9, "on the ray");
        }
        assert_close(camera.right.dot(camera.up), 0.0, 0.0, 1e-12, "upright");
        assert_close(camera.right.z, 0.0, 0.0, 1e-12, "level in roll");
        let (h, v, d) = camera.fields_deg();
        assert_close((h / 2.0).to_radians().tan() * image, 18.0, 1e-9, 0.0, "horizontal field");
        prop_assert!(v < h && h < d);
    }

    /// Bearings and vectors turn into each other.
    #[test]
    fn bearings_come_back(bearing in -720.0f64..720.0) {
        let wrapped = wrap_360(bearing);
        prop_assert!((0.0..360.0).contains(&wrapped));
        assert_close(wrap_180(bearing_of(bearing_vector(bearing)) - wrapped), 0.0, 0.0, 1e-9, "bearing");
        let half = wrap_180(bearing);
        prop_assert!(half > -180.0 - 1e-9 && half <= 180.0 + 1e-9);
    }

    /// Areas do not depend on where a polygon starts, and turn their sign with its sense.
    #[test]
    fn areas_have_a_sense(w in 0.1f64..9.0, d in 0.1f64..9.0, start in 0usize..4) {
        let mut outline = [DVec2::ZERO, DVec2::new(w, 0.0), DVec2::new(w, d), DVec2::new(0.0, d)];
        outline.rotate_left(start);
        assert_close(signed_area_m2(&outline), w * d, 1e-12, 0.0, "counter-clockwise");
        outline.reverse();
        assert_close(signed_area_m2(&outline), -w * d, 1e-12, 0.0, "clockwise");
    }
}

/// Nearest place of a lamp out of the picture, worked by hand from the geometry: d = (margin - n.S + s) / n.u for the
/// plane that needs least. A lens at (0, 0, 1.20) with fields of 40 and 23.1409 degrees, a face at 1.5 m.
#[test]
fn the_nearest_place_out_of_the_picture_is_as_worked_by_hand() {
    let image = 18.0 / 20f64.to_radians().tan();
    let camera = Pinhole::new(DVec3::new(0.0, 0.0, 1.2), 0.0, 0.0, 36.0, 20.25, image);
    let face = DVec3::new(0.0, 1.5, 1.2);
    let [right, left, top, _, behind] = camera.planes();
    let planes = [right, left, top, behind];
    for (diameter, azimuth, elevation, want) in
        [(0.9, 45.0, 30.0, 1.07260), (0.55, 45.0, 30.0, 0.927430), (0.9, 10.0, 40.0, 0.809020)]
    {
        let (sin_a, cos_a) = f64::to_radians(azimuth).sin_cos();
        let (sin_e, cos_e) = f64::to_radians(elevation).sin_cos();
        // Azimuth from the direction to the lens (-y), positive to camera right (+x).
        let direction = DVec3::new(sin_a * cos_e, -cos_a * cos_e, sin_e);
        let across = DVec3::Z.cross(direction).normalize();
        let up = direction.cross(across);
        let rim: Vec<DVec3> = (0..720)
            .map(|i| {
                let (sin, cos) = (f64::from(i) * std::f64::consts::TAU / 720.0).sin_cos();
                (across * cos + up * sin) * (diameter / 2.0)
            })
            .collect();
        let found = nearest_outside_m(&planes, face, direction, &rim, 0.05).unwrap();
        assert_close(found, want, 1e-4, 0.0, &format!("{diameter} m at {azimuth}/{elevation}"));
        // A hair nearer, some plane no longer parts it from the picture by the margin.
        let parted = |distance: f64| {
            planes.iter().any(|p| rim.iter().all(|o| p.distance_m(face + direction * distance + *o) >= 0.05))
        };
        assert!(parted(found + 1e-6) && !parted(found - 1e-3));
    }
}
