//! The lens: where in the room a place in the picture looks, from where on its opening.
use fogon_core::corner::Corner;
use fogon_core::geometry::Pinhole;
use glam::Vec3;

use crate::panel::on_disc;
use crate::tree::Ray;

/// A thin lens at the camera point, focused on a plane across its axis; the core's projection, with an opening.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Lens {
    /// Middle of the opening, m.
    pub position: Vec3,
    /// Along the axis, to the right and to the top of the picture, of length 1.
    pub forward: Vec3,
    /// To the right of the picture.
    pub right: Vec3,
    /// To its top.
    pub up: Vec3,
    /// Width and height of the picture over the distance at which it forms.
    pub ratio: [f32; 2],
    /// The middle of the picture off the axis, in the same measure: to the right and to the top.
    pub shift: [f32; 2],
    /// Radius of the opening, f / 2N, m.
    pub radius_m: f32,
    /// Depth of the plane in focus, m.
    pub focus_m: f32,
}

impl Lens {
    /// The lens of a corner's camera as it is set.
    pub fn of(corner: &Corner<'_>) -> Self {
        let camera = &corner.layout.camera;
        let opening_mm = camera.focal_length_mm / camera.f_number;
        Self::new(&corner.view, opening_mm as f32 / 2000.0, camera.focus_distance_m as f32)
    }

    /// A projection with an opening.
    pub fn new(view: &Pinhole, radius_m: f32, focus_m: f32) -> Self {
        Self {
            position: view.position_m.as_vec3(),
            forward: view.forward.as_vec3(),
            right: view.right.as_vec3(),
            up: view.up.as_vec3(),
            ratio: [view.width_ratio as f32, view.height_ratio as f32],
            shift: [0.0, 0.0],
            radius_m,
            focus_m,
        }
    }

    /// The same lens, of whose picture only a part is taken: left, top, right and lower edge in parts of it.
    pub fn part(&self, [left, top, right, bottom]: [f32; 4]) -> Self {
        let [wide, high] = self.ratio;
        let middle = [(left + right) / 2.0 - 0.5, 0.5 - (top + bottom) / 2.0];
        Self {
            ratio: [wide * (right - left), high * (bottom - top)],
            shift: [self.shift[0] + middle[0] * wide, self.shift[1] + middle[1] * high],
            ..*self
        }
    }

    /// The ray to a place in the picture (parts of its width and height from its upper left) through a place of the opening (a
    /// pair of even numbers), in lengths of 1 m along the axis.
    pub fn ray(&self, [x, y]: [f32; 2], opening: [f32; 2]) -> Ray {
        let way = self.forward
            + self.right * ((x - 0.5) * self.ratio[0] + self.shift[0])
            + self.up * ((0.5 - y) * self.ratio[1] + self.shift[1]);
        let [a, b] = on_disc(opening).map(|part| part * self.radius_m);
        let off = self.right * a + self.up * b;
        Ray { origin: self.position + off, direction: way - off / self.focus_m, reach: f32::INFINITY }
    }

    /// Diameter of the disc that a point at a depth becomes in the picture, part of the picture's width.
    pub fn blur_part(&self, depth_m: f32) -> f32 {
        2.0 * self.radius_m * (depth_m / self.focus_m - 1.0).abs() / (depth_m * self.ratio[0])
    }

    /// Where a point lies in the picture, from its upper left, and how deep; nothing behind the lens.
    pub fn project(&self, point: Vec3) -> Option<([f32; 2], f32)> {
        let off = point - self.position;
        let depth = self.forward.dot(off);
        let across = (self.right.dot(off) / depth - self.shift[0]) / self.ratio[0];
        let up = (self.up.dot(off) / depth - self.shift[1]) / self.ratio[1];
        (depth > 1e-6).then_some(([0.5 + across, 0.5 - up], depth))
    }
}

/// Pixels across and down of a corner's picture whose longer side has so many.
pub fn size_px(corner: &Corner<'_>, long_side: usize) -> [usize; 2] {
    let (wide, high) = corner.image_mm;
    let other = ((long_side as f64 * wide.min(high) / wide.max(high)).round() as usize).max(1);
    if wide >= high { [long_side, other] } else { [other, long_side] }
}

#[cfg(test)]
mod tests {
    use super::*;
    use fogon_core::geometry::DVec3;

    /// A part of the picture shows what the whole shows there, and a place lies where its ray goes.
    #[test]
    fn a_part_is_a_part_of_the_whole() {
        let whole = Lens::new(&Pinhole::new(DVec3::ONE, 130.0, -4.0, 23.5, 13.2, 40.0), 0.007, 1.5);
        let part = whole.part([0.25, 0.1, 0.5, 0.3]);
        for [x, y] in [[0.0, 0.0], [0.5, 0.5], [1.0, 0.3]] {
            let own = part.ray([x, y], [0.3, 0.8]);
            assert!(
                own.direction.distance(whole.ray([0.25 + 0.25 * x, 0.1 + 0.2 * y], [0.3, 0.8]).direction)
                    < 1e-5
            );
            let straight = part.ray([x, y], [0.5, 0.5]);
            let (found, depth) = part.project(straight.origin + straight.direction * 2.0).unwrap();
            assert!((found[0] - x).abs() < 1e-4 && (found[1] - y).abs() < 1e-4 && (depth - 2.0).abs() < 1e-4);
        }
    }
}
