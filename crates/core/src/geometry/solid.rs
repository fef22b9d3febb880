//! Convex solids: everything that takes up room is one or several of them. Overlap is found by separating
//! axes, sight lines by clipping a segment; both are exact for convex polyhedra.

use std::f64::consts::{PI, TAU};
use std::sync::LazyLock;

use super::{DVec2, DVec3};

/// A convex polyhedron, by its corners, the directions of its face normals and of its edges.
#[derive(Debug, Clone)]
pub struct Solid {
    /// One list, since a search makes many: corners, normals, and edges where they are not the normals.
    all: Vec<DVec3>,
    corner_count: usize,
    normal_count: usize,
    /// All sides stand upright: two such solids part along a face normal, never along crossed edges.
    upright: bool,
    low: DVec3,
    high: DVec3,
}

/// Sides of the prism that stands in for a cylinder; its corners lie on a circle a little outside, so that
/// the prism holds the cylinder.
const ROUND_SIDES: usize = 12;

/// A distance between solids is known so well, m, within so many steps.
const GAP_M: f64 = 1e-3;
const GAP_STEPS: usize = 2000;

impl Solid {
    /// A flat polygon thickened along its normal, by its sides in order: their directions, as far as no two are parallel.
    fn thickened(corners: impl Iterator<Item = DVec3>, normal: DVec3, sides: &[DVec3]) -> Self {
        let (first, second) = sides.split_at(sides.len() / 2);
        // Where both halves are alike, the second runs back along the first.
        let runs_back = |(there, back): (&DVec3, &DVec3)| {
            (*there + *back).length_squared() <= 1e-18 * there.length_squared()
        };
        let is_symmetric = first.len() == second.len() && first.iter().zip(second).all(runs_back);
        let mut edges: Vec<DVec3> = Vec::with_capacity(sides.len() + 1);
        edges.push(normal);
        for side in if is_symmetric { first } else { sides } {
            let along = side.normalize_or_zero();
            if along != DVec3::ZERO && edges.iter().all(|edge| edge.dot(along).abs() < 1.0 - 1e-9) {
                edges.push(along);
            }
        }
        let mut all = Vec::with_capacity(2 * (sides.len() + edges.len()));
        all.extend(corners);
        let corner_count = all.len();
        all.push(normal);
        all.extend(edges[1..].iter().map(|along| along.cross(normal)));
        let normal_count = all.len() - corner_count;
        all.extend(edges);
        Self::of_single_axes(all, corner_count, normal_count)
    }

    /// From corners, normals and edges, of which no two are parallel.
    fn of_single_axes(all: Vec<DVec3>, corner_count: usize, normal_count: usize) -> Self {
        let (low, high) = (DVec3::INFINITY, DVec3::NEG_INFINITY);
        let mut solid = Self { all, corner_count, normal_count, upright: false, low, high };
        solid.upright = solid.edges().contains(&DVec3::Z) && solid.normals().contains(&DVec3::Z);
        solid.low = solid.corners().iter().copied().fold(low, DVec3::min);
        solid.high = solid.corners().iter().copied().fold(high, DVec3::max);
        solid
    }

    fn normals(&self) -> &[DVec3] {
        &self.all[self.corner_count..][..self.normal_count]
    }

    fn edges(&self) -> &[DVec3] {
        let edges = &self.all[self.corner_count + self.normal_count..];
        if edges.is_empty() { self.normals() } else { edges }
    }

    /// An upright prism over a convex outline given counter-clockwise.
    pub fn prism(outline: &[DVec2], from_z: f64, to_z: f64) -> Self {
        let corners = outline.iter().flat_map(|p| [p.extend(from_z), p.extend(to_z)]);
        let sides = outline.iter().zip(outline.iter().cycle().skip(1));
        let sides: Vec<DVec3> = sides.map(|(a, b)| (*b - *a).extend(0.0)).collect();
        Self::thickened(corners, DVec3::Z, &sides)
    }

    /// An upright cylinder.
    pub fn cylinder(centre: DVec2, radius_m: f64, from_z: f64, to_z: f64) -> Self {
        Self::prism(&circle(centre, radius_m), from_z, to_z)
    }

    /// A box by its middle and three half-axes at right angles.
    pub fn oriented_box(middle: DVec3, half_axes: [DVec3; 3]) -> Self {
        let [a, b, c] = half_axes;
        let mut all = Vec::with_capacity(11);
        for i in [-1.0, 1.0] {
            for j in [-1.0, 1.0] {
                for k in [-1.0, 1.0] {
                    all.push(middle + a * i + b * j + c * k);
                }
            }
        }
        all.extend(half_axes.iter().map(|v| v.normalize_or_zero()).filter(|v| *v != DVec3::ZERO));
        let normals = all.len() - 8;
        Self::of_single_axes(all, 8, normals)
    }

    /// A straight rod of square section.
    pub fn rod(from: DVec3, to: DVec3, radius_m: f64) -> Self {
        let along = (to - from) / 2.0;
        let axis = along.try_normalize().unwrap_or(DVec3::Z);
        let side = axis.any_orthonormal_vector();
        Self::oriented_box(from + along, [along, side * radius_m, axis.cross(side) * radius_m])
    }

    /// A flat plate of any convex outline, thickened backwards along `-normal` by `depth_m`.
    pub fn slab(outline: &[DVec3], normal: DVec3, depth_m: f64) -> Self {
        let corners = outline.iter().flat_map(|p| [*p, *p - normal * depth_m]);
        let sides = outline.iter().zip(outline.iter().cycle().skip(1));
        let sides: Vec<DVec3> = sides.map(|(a, b)| *b - *a).collect();
        Self::thickened(corners, normal, &sides)
    }

    /// The corners, m.
    pub fn corners(&self) -> &[DVec3] {
        &self.all[..self.corner_count]
    }

    /// The faces, each by its unit normal outwards and its corners, counter-clockwise seen from outside.
    pub fn faces(&self) -> Vec<(DVec3, Vec<DVec3>)> {
        let both = self.normals().iter().flat_map(|normal| [*normal, -*normal]);
        both.filter_map(|normal| {
            let most = -self.least_along(-normal);
            let on = self.corners().iter().copied().filter(|corner| normal.dot(*corner) > most - 1e-6);
            let mut outline: Vec<DVec3> = on.collect();
            let middle = outline.iter().sum::<DVec3>() / outline.len() as f64;
            let (across, up) = normal.any_orthonormal_pair();
            let turn = |corner: &DVec3| {
                let off = *corner - middle;
                up.dot(off).atan2(across.dot(off))
            };
            outline.sort_by(|a, b| turn(a).total_cmp(&turn(b)));
            (outline.len() > 2).then_some((normal, outline))
        })
        .collect()
    }

    /// Lowest and highest coordinates along each axis, m.
    pub fn bounds(&self) -> (DVec3, DVec3) {
        (self.low, self.high)
    }

    /// Least value of `direction . corner`.
    pub fn least_along(&self, direction: DVec3) -> f64 {
        self.corners().iter().map(|c| direction.dot(*c)).fold(f64::INFINITY, f64::min)
    }

    /// How deep two solids overlap, m: the smallest shift that would part them; zero or less when apart.
    pub fn overlap_m(&self, other: &Solid) -> f64 {
        let boxes = (self.high.min(other.high) - self.low.max(other.low)).min_element();
        if boxes <= 0.0 {
            return boxes;
        }
        let mut least = boxes;
        let crossing: &[DVec3] = if self.upright && other.upright { &[] } else { self.edges() };
        let crossed = crossing
            .iter()
            .flat_map(|a| other.edges().iter().map(|b| a.cross(*b)))
            .filter_map(DVec3::try_normalize);
        for axis in self.normals().iter().chain(other.normals()).copied().chain(crossed) {
            let (low_a, high_a) = self.span(axis);
            let (low_b, high_b) = other.span(axis);
            least = least.min(high_a.min(high_b) - low_a.max(low_b));
            if least <= 0.0 {
                return least;
            }
        }
        least
    }

    fn span(&self, axis: DVec3) -> (f64, f64) {
        self.corners().iter().fold((f64::INFINITY, f64::NEG_INFINITY), |(low, high), corner| {
            let value = axis.dot(*corner);
            (low.min(value), high.max(value))
        })
    }

    /// Whether the straight line between two points passes through.
    pub fn blocks(&self, from: DVec3, to: DVec3) -> bool {
        // Most lines pass by the box around it.
        if from.max(to).cmplt(self.low).any() || from.min(to).cmpgt(self.high).any() {
            return false;
        }
        // Cyrus-Beck over the slabs between each normal's extreme planes.
        let along = to - from;
        let (mut enter, mut leave) = (0.0f64, 1.0f64);
        for normal in self.normals() {
            let (low, high) = self.span(*normal);
            let (start, slope) = (normal.dot(from), normal.dot(along));
            if slope.abs() < 1e-12 {
                if start < low || start > high {
                    return false;
                }
                continue;
            }
            let (a, b) = ((low - start) / slope, (high - start) / slope);
            enter = enter.max(a.min(b));
            leave = leave.min(a.max(b));
            if enter >= leave {
                return false;
            }
        }
        leave - enter > 1e-9
    }

    /// Distance from a point to the nearest corner or face along the face normals; a lower bound, m.
    pub fn distance_m(&self, point: DVec3) -> f64 {
        self.normals()
            .iter()
            .map(|normal| {
                let (low, high) = self.span(*normal);
                let at = normal.dot(point);
                (at - high).max(low - at)
            })
            .fold(f64::NEG_INFINITY, f64::max)
            .max((self.low - point).max(point - self.high).max(DVec3::ZERO).length())
    }
}

impl Solid {
    /// Distance between the boxes around two solids, m: no more than that between the solids.
    pub fn box_gap_m(&self, other: &Solid) -> f64 {
        (self.low - other.high).max(other.low - self.high).max(DVec3::ZERO).length()
    }

    /// Distance between two solids, m, to a millimetre; 0 where they touch, and once it is known to be more than `enough_m`
    /// any length between that and the distance. Steps towards the point of their difference that lies nearest to the origin
    /// (Gilbert 1966, from memory).
    pub fn gap_m(&self, other: &Solid, enough_m: f64) -> f64 {
        let farthest = |solid: &Solid, along: DVec3| {
            let by = |a: &&DVec3, b: &&DVec3| along.dot(**a).total_cmp(&along.dot(**b));
            solid.corners().iter().max_by(by).copied().unwrap_or(DVec3::ZERO)
        };
        let mut nearest = farthest(self, DVec3::X) - farthest(other, -DVec3::X);
        for _ in 0..GAP_STEPS {
            let length = nearest.length();
            if length < GAP_M {
                return 0.0;
            }
            let point = farthest(self, -nearest) - farthest(other, nearest);
            // No point of the difference lies nearer than this along the way to the origin.
            let least = nearest.dot(point) / length;
            if least > enough_m || length - least < GAP_M {
                return least.max(0.0);
            }
            let along = point - nearest;
            let part = (-nearest.dot(along) / along.length_squared().max(1e-300)).clamp(0.0, 1.0);
            nearest += along * part;
        }
        nearest.length()
    }
}

/// The outline that stands in for a circle, counter-clockwise, holding it.
pub(crate) fn circle(centre: DVec2, radius_m: f64) -> Vec<DVec2> {
    static CORNERS: LazyLock<[DVec2; ROUND_SIDES]> = LazyLock::new(|| {
        std::array::from_fn(|i| DVec2::from_angle((i as f64 + 0.5) * TAU / ROUND_SIDES as f64))
    });
    let outer = radius_m / (PI / ROUND_SIDES as f64).cos();
    CORNERS.iter().map(|corner| centre + *corner * outer).collect()
}
