//! What a ray meets: triangles in a tree of boxes, eight boxes to a node and eight triangles to a leaf, so that one ray is tested
//! against eight at once. A plain walk is always there; where the processor has AVX2 a vector walk answers the same.
//!
//! Source (from memory): Wald, Benthin and Boulos 2008, Getting rid of packets; Möller and Trumbore 1997.

mod build;
mod plain;
#[cfg(target_arch = "x86_64")]
mod vector;
mod walk;

use glam::Vec3;

/// Boxes of a node, and triangles of a leaf.
const WIDTH: usize = 8;

/// A half-line with an end.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Ray {
    /// Where it begins, m.
    pub origin: Vec3,
    /// Where it goes; of any length, in whose unit `at` and `reach` count.
    pub direction: Vec3,
    /// Nothing from here on is met.
    pub reach: f32,
}

/// Where a ray meets a triangle first.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Hit {
    /// In lengths of the ray's direction.
    pub at: f32,
    /// Weight of the second corner.
    pub u: f32,
    /// Weight of the third corner.
    pub v: f32,
    /// The triangle, as it was given.
    pub triangle: u32,
}

/// Triangles, found by rays.
#[derive(Debug, Clone, Default)]
pub struct Tree {
    nodes: Vec<Node>,
    leaves: Vec<Leaf>,
}

/// Which walk is taken.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Walk {
    /// One after the other: on every machine.
    Plain,
    /// Eight at once, where the processor can.
    Vector,
}

impl Walk {
    /// The fastest one that this processor can take.
    pub fn fastest() -> Self {
        #[cfg(target_arch = "x86_64")]
        if vector::is_there() {
            return Self::Vector;
        }
        Self::Plain
    }
}

/// Eight boxes: for x, y and z the near planes, then the far ones.
#[derive(Debug, Clone, Copy)]
#[repr(C, align(32))]
struct Node {
    planes: [[f32; WIDTH]; 6],
    children: [Child; WIDTH],
}

/// A node or a leaf by its index; nothing is a leaf without triangles.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
struct Child(u32);

impl Child {
    const LEAF: u32 = 1 << 31;
    const NONE: Self = Self(u32::MAX);

    fn node(index: usize) -> Self {
        Self(index as u32)
    }

    fn leaf(index: usize) -> Self {
        Self(index as u32 | Self::LEAF)
    }

    fn get(self) -> (bool, usize) {
        (self.0 & Self::LEAF != 0, (self.0 & !Self::LEAF) as usize)
    }
}

/// Eight triangles: a corner and the two edges from it. Those that are not there have edges of no length, which no ray meets.
#[derive(Debug, Clone, Copy)]
#[repr(C, align(32))]
struct Leaf {
    corner: [[f32; WIDTH]; 3],
    edges: [[[f32; WIDTH]; 3]; 2],
    triangles: [u32; WIDTH],
}

impl Tree {
    /// A tree of triangles, each of three corners in metres. A triangle with a corner that is no number is never met.
    pub fn of(triangles: &[[Vec3; 3]]) -> Self {
        build::build(triangles)
    }

    /// Every triangle by its number, with its corners.
    pub(crate) fn triangles(&self) -> impl Iterator<Item = (usize, [Vec3; 3])> + '_ {
        self.leaves.iter().flat_map(|leaf| {
            (0..WIDTH).filter(move |slot| leaf.triangles[*slot] != u32::MAX).map(move |slot| {
                let at = |of: &[[f32; WIDTH]; 3]| Vec3::from(of.map(|axis| axis[slot]));
                let (corner, [one, two]) = (at(&leaf.corner), leaf.edges.each_ref().map(at));
                (leaf.triangles[slot] as usize, [corner, corner + one, corner + two])
            })
        })
    }

    /// The first triangle that a ray meets.
    pub fn first(&self, ray: &Ray, walk: Walk) -> Option<Hit> {
        match walk {
            Walk::Plain => plain::first(self, ray),
            #[cfg(target_arch = "x86_64")]
            Walk::Vector => vector::first_or_plain(self, ray),
            #[cfg(not(target_arch = "x86_64"))]
            Walk::Vector => plain::first(self, ray),
        }
    }

    /// Whether a ray meets any triangle.
    pub fn any(&self, ray: &Ray, walk: Walk) -> bool {
        match walk {
            Walk::Plain => plain::any(self, ray),
            #[cfg(target_arch = "x86_64")]
            Walk::Vector => vector::any_or_plain(self, ray),
            #[cfg(not(target_arch = "x86_64"))]
            Walk::Vector => plain::any(self, ray),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::random::Pairs;

    /// Even numbers in [-1, 1), the same in every run.
    fn points(seed: u32) -> impl FnMut() -> Vec3 {
        let (first, second) = (Pairs::new(seed, 0, 0), Pairs::new(seed, 0, 1));
        let mut number = 0;
        move || {
            number += 1;
            let ([x, y], [z, _]) = (first.get(number), second.get(number));
            Vec3::new(x, y, z) * 2.0 - 1.0
        }
    }

    /// Triangles of all sizes: many small, some across the whole, some that lie in one plane or have no area.
    fn crowd(number: usize) -> Vec<[Vec3; 3]> {
        let mut point = points(1);
        (0..number)
            .map(|i| {
                let (middle, size) = (point(), if i % 50 == 0 { 2.0 } else { 0.05 });
                let mut corners = [point(), point(), point()].map(|corner| middle + corner * size);
                match i % 17 {
                    0 => corners.iter_mut().for_each(|corner| corner.z = 0.25),
                    1 => corners[2] = corners[1],
                    _ => {}
                }
                corners
            })
            .collect()
    }

    /// Rays of all lengths through the crowd, some along an axis, some within the plane of triangles.
    fn rays(number: usize) -> Vec<Ray> {
        let mut point = points(2);
        (0..number)
            .map(|i| {
                let (mut origin, mut direction) = (point() * 1.5, point());
                if i % 5 == 0 {
                    direction = [Vec3::X, -Vec3::Y, Vec3::Z][i / 5 % 3];
                }
                if i % 7 == 0 {
                    origin.z = 0.25;
                }
                let reach = if i % 3 == 0 { 0.5 } else { f32::INFINITY };
                Ray { origin, direction, reach }
            })
            .collect()
    }

    /// Every triangle asked, in double precision (Möller and Trumbore 1997, from memory).
    fn nearest(triangles: &[[Vec3; 3]], ray: &Ray) -> Option<f64> {
        let (origin, direction) = (ray.origin.as_dvec3(), ray.direction.as_dvec3());
        triangles
            .iter()
            .filter_map(|corners| {
                let [a, b, c] = corners.map(|corner| corner.as_dvec3());
                let across = direction.cross(c - a);
                let volume = (b - a).dot(across);
                let from = origin - a;
                let u = from.dot(across) / volume;
                let over = from.cross(b - a);
                let v = direction.dot(over) / volume;
                let at = (c - a).dot(over) / volume;
                (volume.abs() > 1e-9
                    && u >= 0.0
                    && v >= 0.0
                    && u + v <= 1.0
                    && at > 0.0
                    && at < f64::from(ray.reach))
                .then_some(at)
            })
            .min_by(f64::total_cmp)
    }

    #[test]
    fn a_ray_meets_what_every_triangle_asked_would_say() {
        let triangles = crowd(3000);
        let tree = Tree::of(&triangles);
        let mut met = 0;
        let mut differ = 0;
        let rays = rays(4000);
        for ray in &rays {
            let found = tree.first(ray, Walk::Plain);
            assert_eq!(found.is_some(), tree.any(ray, Walk::Plain), "{ray:?}");
            let wanted = nearest(&triangles, ray);
            met += usize::from(wanted.is_some());
            let same = match (found, wanted) {
                (Some(hit), Some(at)) => (f64::from(hit.at) - at).abs() < 1e-4 * at.max(0.1),
                (None, None) => true,
                _ => false,
            };
            differ += usize::from(!same);
        }
        assert!(met > 1000 && met < rays.len(), "{met} met");
        // At an edge single precision decides otherwise for one ray in a thousand at most.
        assert!(differ * 1000 <= rays.len(), "{differ} differ");
    }

    #[test]
    fn the_vector_walk_answers_as_the_plain_one() {
        if Walk::fastest() == Walk::Plain {
            return;
        }
        for number in [0, 1, 8, 9, 500, 5000] {
            let tree = Tree::of(&crowd(number));
            for ray in rays(3000) {
                let (plain, vector) = (tree.first(&ray, Walk::Plain), tree.first(&ray, Walk::Vector));
                assert_eq!(plain, vector, "{number}: {ray:?}");
                assert_eq!(tree.any(&ray, Walk::Plain), tree.any(&ray, Walk::Vector), "{number}: {ray:?}");
            }
        }
    }

    /// No ray from within slips out between the triangles of a closed shape.
    #[test]
    fn a_closed_shape_holds_every_ray() {
        // A ball of rings, its triangles sharing edges.
        let at = |i: usize, j: usize| {
            let (up, round) =
                (i as f32 / 40.0 * std::f32::consts::PI, j as f32 / 80.0 * std::f32::consts::TAU);
            Vec3::new(up.sin() * round.cos(), up.sin() * round.sin(), up.cos())
        };
        let triangles: Vec<_> = (0..40)
            .flat_map(|i| {
                (0..80).flat_map(move |j| {
                    let corners = [at(i, j), at(i + 1, j), at(i + 1, (j + 1) % 80), at(i, (j + 1) % 80)];
                    let [a, b, c, d] = corners;
                    [[a, b, c], [a, c, d]]
                })
            })
            .collect();
        let tree = Tree::of(&triangles);
        let mut point = points(3);
        for _ in 0..20_000 {
            let ray = Ray { origin: point() * 0.3, direction: point(), reach: f32::INFINITY };
            assert!(tree.any(&ray, Walk::fastest()), "{ray:?}");
        }
    }

    /// Whatever is given, a tree is built and asked: thousands in one place, no numbers, sizes from nothing to beyond measure.
    #[test]
    fn odd_triangles_are_built_and_asked() {
        let one = [Vec3::ZERO, Vec3::X, Vec3::Y];
        let mut odd = vec![one; 5000];
        odd.extend([[Vec3::NAN; 3], [Vec3::INFINITY, Vec3::ZERO, Vec3::X], [Vec3::splat(1e30); 3]]);
        odd.extend((0..5000).map(|i| one.map(|corner| corner * 2_f32.powi(i % 60 - 30))));
        let tree = Tree::of(&odd);
        let ray = Ray { origin: Vec3::new(0.2, 0.2, 1.0), direction: -Vec3::Z, reach: f32::INFINITY };
        let hit = tree.first(&ray, Walk::fastest()).expect("it is met");
        assert!((hit.at - 1.0).abs() < 1e-6, "{hit:?}");
        for direction in [Vec3::ZERO, Vec3::NAN, Vec3::INFINITY, Vec3::splat(1e38)] {
            let ray = Ray { direction, ..ray };
            assert_eq!(tree.first(&ray, Walk::Plain), tree.first(&ray, Walk::fastest()), "{direction}");
        }
    }
}
