//! The one projection: a pinhole at the camera point (entrance pupil) whose image plane lies at the distance
//! where the lens is focused. Frame, frustum tests and every later picture use it.

use super::{DVec3, Solid, bearing_vector};

/// A plane by a point in it and its unit normal.
#[derive(Debug, Clone, Copy)]
pub struct Plane {
    /// A point of the plane, m.
    pub point_m: DVec3,
    /// Unit normal; for frustum planes it points out of the picture.
    pub normal: DVec3,
}

impl Plane {
    /// Signed distance of a point, positive on the side of the normal, m.
    pub fn distance_m(&self, point: DVec3) -> f64 {
        self.normal.dot(point - self.point_m)
    }
}

/// A camera as geometry: where it is, where it looks, how wide.
#[derive(Debug, Clone, Copy)]
pub struct Pinhole {
    /// Camera point, m.
    pub position_m: DVec3,
    /// Unit vector along the optical axis.
    pub forward: DVec3,
    /// Unit vector to the right of the picture, horizontal.
    pub right: DVec3,
    /// Unit vector to the top of the picture.
    pub up: DVec3,
    /// Image width over image distance: twice the tangent of the horizontal half field.
    pub width_ratio: f64,
    /// Image height over image distance.
    pub height_ratio: f64,
}

impl Pinhole {
    /// A camera at `position_m`, level in roll, looking along a bearing and tilt (positive up), with an image
    /// of `width_mm` by `height_mm` at `image_distance_mm`.
    pub fn new(
        position_m: DVec3,
        bearing_deg: f64,
        tilt_deg: f64,
        width_mm: f64,
        height_mm: f64,
        image_distance_mm: f64,
    ) -> Self {
        let level = bearing_vector(bearing_deg);
        let (sin, cos) = tilt_deg.to_radians().sin_cos();
        let right = DVec3::new(level.y, -level.x, 0.0);
        let forward = level * cos + DVec3::Z * sin;
        Self {
            position_m,
            forward,
            right,
            up: right.cross(forward),
            width_ratio: width_mm / image_distance_mm,
            height_ratio: height_mm / image_distance_mm,
        }
    }

    /// Depth of a point along the optical axis, m; negative behind the camera.
    pub fn depth_m(&self, point: DVec3) -> f64 {
        self.forward.dot(point - self.position_m)
    }

    /// Place of a point in the picture as fractions from the left and from the top; `None` behind the lens.
    pub fn project(&self, point: DVec3) -> Option<(f64, f64)> {
        let depth = self.depth_m(point);
        if depth <= 1e-9 {
            return None;
        }
        let offset = point - self.position_m;
        let x = self.right.dot(offset) / depth / self.width_ratio;
        let y = self.up.dot(offset) / depth / self.height_ratio;
        Some((0.5 + x, 0.5 - y))
    }

    /// Height of the framed field at a depth, m.
    pub fn frame_height_m(&self, depth_m: f64) -> f64 {
        depth_m * self.height_ratio
    }

    /// Width of the framed field at a depth, m.
    pub fn frame_width_m(&self, depth_m: f64) -> f64 {
        depth_m * self.width_ratio
    }

    /// Horizontal, vertical and diagonal field, degrees.
    pub fn fields_deg(&self) -> (f64, f64, f64) {
        let full = |ratio: f64| 2.0 * (ratio / 2.0).atan().to_degrees();
        (full(self.width_ratio), full(self.height_ratio), full(self.width_ratio.hypot(self.height_ratio)))
    }

    /// The five planes that bound the picture, normals outward: right, left, top, bottom, behind the lens.
    pub fn planes(&self) -> [Plane; 5] {
        let side = |across: DVec3, ratio: f64| Plane {
            point_m: self.position_m,
            normal: (across - self.forward * (ratio / 2.0)).normalize(),
        };
        [
            side(self.right, self.width_ratio),
            side(-self.right, self.width_ratio),
            side(self.up, self.height_ratio),
            side(-self.up, self.height_ratio),
            Plane { point_m: self.position_m, normal: -self.forward },
        ]
    }

    /// How far the whole of a convex thing stays outside the picture, m; negative if it may intrude. The test
    /// by one separating plane is sufficient, not necessary: cautious by a few centimetres at the corners.
    pub fn clearance_m(&self, solid: &Solid) -> f64 {
        self.planes()
            .iter()
            .map(|plane| solid.least_along(plane.normal) - plane.normal.dot(plane.point_m))
            .fold(f64::NEG_INFINITY, f64::max)
    }

    /// Whether a point is in the picture.
    pub fn sees(&self, point: DVec3) -> bool {
        self.project(point).is_some_and(|(x, y)| (0.0..=1.0).contains(&x) && (0.0..=1.0).contains(&y))
    }
}

/// Smallest distance along `direction` from `from` at which a thing with these corner offsets stays `margin_m`
/// outside one of `planes`; `None` if it never does.
pub fn nearest_outside_m(
    planes: &[Plane],
    from: DVec3,
    direction: DVec3,
    offsets: &[DVec3],
    margin_m: f64,
) -> Option<f64> {
    let least = |normal: DVec3| offsets.iter().map(|o| normal.dot(*o)).fold(f64::INFINITY, f64::min);
    binding_plane(planes, from, direction, least, margin_m).map(|(_, distance)| distance)
}

/// As [`nearest_outside_m`] for a thing told by how far it reaches against a normal (0 or less), with the number of the
/// plane that decides.
pub fn binding_plane(
    planes: &[Plane],
    from: DVec3,
    direction: DVec3,
    least: impl Fn(DVec3) -> f64,
    margin_m: f64,
) -> Option<(usize, f64)> {
    let beyond = |(index, plane): (usize, &Plane)| {
        let rate = plane.normal.dot(direction);
        (rate > 1e-6).then(|| (index, (margin_m - plane.distance_m(from) - least(plane.normal)) / rate))
    };
    let nearest = planes.iter().enumerate().filter_map(beyond).min_by(|a, b| a.1.total_cmp(&b.1));
    nearest.map(|(index, distance)| (index, distance.max(0.0)))
}
