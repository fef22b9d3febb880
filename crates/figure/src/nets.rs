//! A mesh of a soft shape: one corner in each cell that its surface passes through, drawn to the surface; cells may be finer
//! where more is to be seen.
//!
//! Source (from memory): Gibson 1998, Constrained elastic surface nets.
use glam::Vec3;
use rayon::prelude::*;

use crate::shape::gradient;

/// Triangles that share corners.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Mesh {
    /// Corners, m.
    pub corners: Vec<Vec3>,
    /// The direction outwards at each, of length 1.
    pub normals: Vec<Vec3>,
    /// Three corners each, counter-clockwise seen from outside.
    pub triangles: Vec<[u32; 3]>,
}

/// Where the planes between cells lie along each axis, m, rising.
pub(crate) struct Grid {
    pub(crate) planes: [Vec<f32>; 3],
}

/// Of a mesh kept as bytes: corners to 15 micrometres, directions to a thirtieth of a degree.
const STEPS_OF_A_METRE: f32 = 65_536.0;
const STEPS_OF_A_DIRECTION: f32 = 2048.0;

/// Cells to a block that is passed over at once where the surface is far.
const BLOCK: usize = 6;

impl Grid {
    /// Planes along an axis: from the first value on, each part up to its end in steps of its own.
    pub(crate) fn planes(from: f32, parts: &[(f32, f32)]) -> Vec<f32> {
        let mut planes = vec![from];
        let mut last = from;
        for &(end, step) in parts {
            let number = ((end - last) / step).round().max(1.0);
            planes.extend((1..=number as usize).map(|i| last + (end - last) * i as f32 / number));
            last = end;
        }
        planes
    }

    fn size(&self) -> [usize; 3] {
        [0, 1, 2].map(|axis| self.planes[axis].len())
    }

    fn point(&self, [i, j, k]: [usize; 3]) -> Vec3 {
        Vec3::new(self.planes[0][i], self.planes[1][j], self.planes[2][k])
    }

    fn index(&self, [i, j, k]: [usize; 3]) -> usize {
        let [wide, high, _] = self.size();
        (k * high + j) * wide + i
    }

    /// The shape at every crossing of planes; where a whole block is far from the surface, at its middle only.
    fn sampled(&self, shape: &(impl Fn(Vec3) -> f32 + Sync)) -> Vec<f32> {
        let [wide, high, deep] = self.size();
        let slabs: Vec<Vec<f32>> = (0..deep.div_ceil(BLOCK))
            .into_par_iter()
            .map(|slab| {
                let ks = slab * BLOCK..((slab + 1) * BLOCK).min(deep);
                let mut values = vec![0.0; wide * high * ks.len()];
                for (j0, i0) in
                    (0..high).step_by(BLOCK).flat_map(|j| (0..wide).step_by(BLOCK).map(move |i| (j, i)))
                {
                    let (js, is) = (j0..(j0 + BLOCK).min(high), i0..(i0 + BLOCK).min(wide));
                    let low = self.point([i0, j0, ks.start]);
                    let high_end = self.point([is.end - 1, js.end - 1, ks.end - 1]);
                    let middle = shape((low + high_end) / 2.0);
                    let is_far = middle.abs() > 1.6 * (high_end - low).length() / 2.0 + 0.004;
                    for k in ks.clone() {
                        for j in js.clone() {
                            for i in is.clone() {
                                values[((k - ks.start) * high + j) * wide + i] =
                                    if is_far { middle } else { shape(self.point([i, j, k])) };
                            }
                        }
                    }
                }
                values
            })
            .collect();
        slabs.concat()
    }

    /// The surface of a shape, which is negative within.
    pub(crate) fn mesh(&self, shape: impl Fn(Vec3) -> f32 + Sync) -> Mesh {
        let values = self.sampled(&shape);
        let [wide, high, deep] = self.size();
        let mut corner_of = vec![u32::MAX; values.len()];
        let mut cells: Vec<[usize; 3]> = Vec::new();
        for k in 0..deep - 1 {
            for j in 0..high - 1 {
                for i in 0..wide - 1 {
                    let inside = corners_of([i, j, k]).filter(|&c| values[self.index(c)] < 0.0).count();
                    if inside != 0 && inside != 8 {
                        corner_of[self.index([i, j, k])] = cells.len() as u32;
                        cells.push([i, j, k]);
                    }
                }
            }
        }
        let placed: Vec<(Vec3, Vec3)> =
            cells.par_iter().map(|&cell| self.placed(cell, &values, &shape)).collect();
        let (corners, normals) = placed.into_iter().unzip();
        let mut mesh = Mesh { corners, normals, triangles: Vec::new() };
        for k in 0..deep - 1 {
            for j in 0..high - 1 {
                for i in 0..wide - 1 {
                    self.faces([i, j, k], &values, &corner_of, &mut mesh);
                }
            }
        }
        mesh
    }

    /// The corner of a cell: the mean of where its edges are crossed, drawn to the surface along the steepest way.
    fn placed(&self, cell: [usize; 3], values: &[f32], shape: &impl Fn(Vec3) -> f32) -> (Vec3, Vec3) {
        let corners: Vec<([usize; 3], f32)> =
            corners_of(cell).map(|corner| (corner, values[self.index(corner)])).collect();
        let (mut sum, mut number) = (Vec3::ZERO, 0.0);
        for (a, (from, before)) in corners.iter().enumerate() {
            for (b, (to, after)) in corners.iter().enumerate().skip(a + 1) {
                if (a ^ b).count_ones() == 1 && (*before < 0.0) != (*after < 0.0) {
                    sum += self.point(*from).lerp(self.point(*to), before / (before - after));
                    number += 1.0;
                }
            }
        }
        let (low, high) = (self.point(cell), self.point(cell.map(|i| i + 1)));
        let mut point = sum / number;
        let small = 0.1 * (high - low).min_element();
        let mut normal = Vec3::ZERO;
        for _ in 0..3 {
            let gradient = gradient(shape, point, small);
            normal = gradient.normalize_or_zero();
            point -= gradient * (shape(point) / gradient.length_squared().max(0.25));
            point = point.clamp(low, high);
        }
        (point, normal)
    }

    /// The faces about the three edges that begin at a crossing of planes.
    fn faces(&self, cell: [usize; 3], values: &[f32], corner_of: &[u32], mesh: &mut Mesh) {
        let here = values[self.index(cell)] < 0.0;
        for axis in 0..3 {
            let (next, after) = ((axis + 1) % 3, (axis + 2) % 3);
            let mut other = cell;
            other[axis] += 1;
            let there = values[self.index(other)] < 0.0;
            if here == there || cell[next] == 0 || cell[after] == 0 {
                continue;
            }
            let corner = |back: [usize; 2]| {
                let mut at = cell;
                at[next] -= back[0];
                at[after] -= back[1];
                corner_of[self.index(at)]
            };
            let mut around = [[0, 0], [1, 0], [1, 1], [0, 1]].map(corner);
            if around.contains(&u32::MAX) {
                continue;
            }
            if !here {
                around.reverse();
            }
            // Along the shorter diagonal.
            let [a, b, c, d] = around;
            let length = |a: u32, b: u32| mesh.corners[a as usize].distance_squared(mesh.corners[b as usize]);
            let halves =
                if length(a, c) <= length(b, d) { [[a, b, c], [a, c, d]] } else { [[a, b, d], [b, c, d]] };
            mesh.triangles.extend(halves);
        }
    }
}

/// The eight corners of a cell: bit 0 along x, bit 1 along y, bit 2 along z.
fn corners_of([i, j, k]: [usize; 3]) -> impl Iterator<Item = [usize; 3]> {
    (0..8).map(move |bits| [i + (bits & 1), j + (bits >> 1 & 1), k + (bits >> 2)])
}

/// Each number by how far it is from the same of the three before: mostly small, with its sign in the lowest bit.
fn write_apart(threes: Vec<[i32; 3]>, words: &mut Vec<u32>) {
    let mut before = [0; 3];
    for three in threes {
        for (value, last) in three.into_iter().zip(&mut before) {
            let apart = value.wrapping_sub(*last);
            words.push(((apart << 1) ^ (apart >> 31)) as u32);
            *last = value;
        }
    }
}

/// What [`write_apart`] wrote.
fn read_apart(words: &[[u8; 4]]) -> Vec<[i32; 3]> {
    let mut at = [0_i32; 3];
    let next = |word: [u8; 4], at: &mut i32| {
        let told = u32::from_le_bytes(word);
        *at = at.wrapping_add((told >> 1) as i32 ^ -((told & 1) as i32));
        *at
    };
    let threes = words.as_chunks::<3>().0.iter();
    threes.map(|three| std::array::from_fn(|axis| next(three[axis], &mut at[axis]))).collect()
}

impl Mesh {
    /// Every corner and direction as it comes back from bytes: on a grid so fine that nobody sees it.
    pub(crate) fn round(&mut self) {
        for (places, steps) in
            [(&mut self.corners, STEPS_OF_A_METRE), (&mut self.normals, STEPS_OF_A_DIRECTION)]
        {
            places.iter_mut().for_each(|place| *place = (*place * steps).round() / steps);
        }
    }

    /// As bytes that pack well: numbers of corners and triangles, then corners, directions and triangles in steps, each number told
    /// by how far it is from the one before it.
    pub(crate) fn to_bytes(&self) -> Vec<u8> {
        let mut words = vec![self.corners.len() as u32, self.triangles.len() as u32];
        let in_steps = |places: &[Vec3], steps: f32| {
            places.iter().map(|place| (*place * steps).to_array().map(|v| v as i32)).collect()
        };
        write_apart(in_steps(&self.corners, STEPS_OF_A_METRE), &mut words);
        write_apart(in_steps(&self.normals, STEPS_OF_A_DIRECTION), &mut words);
        write_apart(self.triangles.iter().map(|one| one.map(|corner| corner as i32)).collect(), &mut words);
        words.into_iter().flat_map(u32::to_le_bytes).collect()
    }

    /// From the first of some bytes, and the rest; nothing if they are none of a mesh.
    pub(crate) fn from_bytes(bytes: &[u8]) -> Option<(Self, &[u8])> {
        let words = bytes.as_chunks::<4>().0;
        let number = |at: usize| Some(u32::from_le_bytes(*words.get(at)?) as usize);
        let (corners, triangles) = (number(0)?, number(1)?);
        let ends = [2, 2 + corners.checked_mul(3)?, 2 + corners.checked_mul(6)?];
        let end = ends[2].checked_add(triangles.checked_mul(3)?)?;
        let threes = |from: usize, to: usize| Some(read_apart(words.get(from..to)?));
        let places = |threes: Vec<[i32; 3]>, steps: f32| {
            threes.into_iter().map(|three| Vec3::from_array(three.map(|v| v as f32)) / steps).collect()
        };
        let mesh = Self {
            corners: places(threes(ends[0], ends[1])?, STEPS_OF_A_METRE),
            normals: places(threes(ends[1], ends[2])?, STEPS_OF_A_DIRECTION),
            triangles: threes(ends[2], end)?.into_iter().map(|three| three.map(|v| v as u32)).collect(),
        };
        let inside = mesh.triangles.iter().flatten().all(|corner| (*corner as usize) < corners);
        inside.then_some((mesh, bytes.get(4 * end..)?))
    }

    /// The corners of each triangle, m.
    pub fn faces(&self) -> impl Iterator<Item = [Vec3; 3]> {
        self.triangles.iter().map(|triangle| triangle.map(|corner| self.corners[corner as usize]))
    }

    /// Without the triangles of which `keep` is false for all three corners; corners that nobody needs go too.
    pub(crate) fn kept(&self, keep: impl Fn(Vec3) -> bool) -> Self {
        let stays: Vec<bool> = self.corners.iter().map(|&corner| keep(corner)).collect();
        let mut number = vec![u32::MAX; self.corners.len()];
        let mut mesh = Self::default();
        for triangle in &self.triangles {
            if !triangle.iter().any(|&corner| stays[corner as usize]) {
                continue;
            }
            mesh.triangles.push(triangle.map(|corner| {
                let at = corner as usize;
                if number[at] == u32::MAX {
                    number[at] = mesh.corners.len() as u32;
                    mesh.corners.push(self.corners[at]);
                    mesh.normals.push(self.normals[at]);
                }
                number[at]
            }));
        }
        mesh
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn grid() -> Grid {
        let planes = Grid::planes(-1.2, &[(-0.2, 0.1), (0.6, 0.05), (1.2, 0.1)]);
        Grid { planes: [planes.clone(), planes.clone(), planes] }
    }

    /// A ball, meshed: its volume by the divergence theorem, every edge shared by two triangles that run it both ways, normals
    /// outwards.
    #[test]
    fn a_ball_is_closed_and_as_large_as_a_ball() {
        let mesh = grid().mesh(|point| point.length() - 1.0);
        let volume: f32 = mesh.faces().map(|[a, b, c]| a.dot(b.cross(c)) / 6.0).sum();
        assert!((volume / (4.0 / 3.0 * std::f32::consts::PI) - 1.0).abs() < 0.01, "{volume}");
        let mut edges = std::collections::HashMap::new();
        for [a, b, c] in mesh.triangles.iter().copied() {
            for edge in [(a, b), (b, c), (c, a)] {
                *edges.entry(edge).or_insert(0) += 1;
            }
        }
        assert!(edges.iter().all(|(&(a, b), &number)| number == 1 && edges.contains_key(&(b, a))));
        for (corner, normal) in mesh.corners.iter().zip(&mesh.normals) {
            assert!((corner.length() - 1.0).abs() < 1e-3 && normal.dot(*corner) > 0.999);
        }
    }

    #[test]
    fn what_is_not_kept_goes_with_its_corners() {
        let mesh = grid().mesh(|point| point.length() - 1.0);
        let half = mesh.kept(|corner| corner.z > 0.0);
        assert!(
            half.triangles.len() < mesh.triangles.len() * 6 / 10 && half.corners.len() < mesh.corners.len()
        );
        assert!(half.triangles.iter().flatten().all(|&corner| (corner as usize) < half.corners.len()));
    }
}
