//! Something that rays meet as one: a figure, a room, what has been set up. Built once in its own space, placed anywhere.
use std::collections::HashMap;

use fogon_figure::Mesh;
use glam::{Affine3A, IVec3, Vec3};

use crate::random::Pairs;
use crate::surface::{Finish, Grid, Look, Material, Packed};
use crate::tree::Tree;

/// Points on a patch at which its light is looked at.
const POINTS: usize = 16;

/// Triangles with their surfaces, ready for rays.
#[derive(Debug, Clone, Default)]
pub struct Body {
    pub(crate) tree: Tree,
    pub(crate) triangles: Vec<Packed>,
    pub(crate) materials: Vec<Material>,
    pub(crate) patches: Vec<Patch>,
}

impl Body {
    /// The corners of every triangle, in the order of the triangles.
    pub fn corners(&self) -> Vec<[Vec3; 3]> {
        let mut all = vec![[Vec3::ZERO; 3]; self.triangles.len()];
        self.tree.triangles().for_each(|(number, corners)| all[number] = corners);
        all
    }
}

/// A small part of a body's surface: all light that it throws back counts as even over it.
#[derive(Debug, Clone)]
pub(crate) struct Patch {
    /// Mean reflectance.
    pub(crate) colour: Vec3,
    /// m2.
    pub(crate) area_m2: f32,
    /// Places on it, spread by area, with their directions outwards.
    pub(crate) points: Vec<(Vec3, Vec3)>,
}

/// A body in the making.
#[derive(Debug, Default)]
pub struct Maker {
    corners: Vec<[Vec3; 3]>,
    triangles: Vec<Packed>,
    materials: Vec<Material>,
    patches: HashMap<Cell, u32>,
    areas: Vec<(f32, Vec3)>,
    /// Of the patches of parallelograms, by number, their corner and sides.
    cells: HashMap<u32, [Vec3; 3]>,
}

/// A patch is what lies in one cell of a grid, looks the same way and is of one material.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
struct Cell {
    material: u16,
    at: IVec3,
    way: u8,
}

impl Maker {
    /// Notes a material; what is added next can be made of it.
    pub fn material(&mut self, finish: Finish, thing: u16) -> u16 {
        let material = Material { finish, thing };
        let known = self.materials.iter().position(|other| *other == material);
        known.unwrap_or_else(|| {
            self.materials.push(material);
            self.materials.len() - 1
        }) as u16
    }

    /// A triangle, its corners counter-clockwise seen from outside; patches are about `patch_m` large. One without an area is
    /// left out.
    pub fn triangle(&mut self, corners: [Vec3; 3], look: Look, material: u16, patch_m: f32) {
        let [a, b, c] = corners;
        let across = (b - a).cross(c - a);
        let area = across.length() / 2.0;
        if !(area > 1e-12 && area.is_finite()) {
            return;
        }
        let face = across / (2.0 * area);
        let middle = (a + b + c) / 3.0;
        let colour = (look.colours[0] + look.colours[1] + look.colours[2]) / 3.0;
        let axis = face.abs().max_position();
        let way = axis as u8 * 2 + u8::from(face[axis] < 0.0);
        let cell = Cell { material, at: (middle / patch_m).floor().as_ivec3(), way };
        let next = self.areas.len() as u32;
        let patch = *self.patches.entry(cell).or_insert(next);
        if patch == next {
            self.areas.push((0.0, Vec3::ZERO));
        }
        let (sum, colours) = &mut self.areas[patch as usize];
        *sum += area;
        *colours += colour * area;
        self.corners.push(corners);
        self.triangles.push(Packed::new(face, &look, patch, material, Grid::default()));
    }

    /// A flat triangle of one colour.
    pub fn flat(&mut self, corners: [Vec3; 3], colour: Vec3, material: u16, patch_m: f32) {
        let [a, b, c] = corners;
        let normal = (b - a).cross(c - a).normalize_or_zero();
        self.triangle(corners, Look { normals: [normal; 3], colours: [colour; 3] }, material, patch_m);
    }

    /// A flat four-cornered face of one colour: a parallelogram with patches in rows, anything else in two triangles.
    pub fn quad(&mut self, [a, b, c, d]: [Vec3; 4], colour: Vec3, material: u16, patch_m: f32) {
        let (along, up) = (b - a, d - a);
        let across = along.cross(up);
        let size = along.length().max(up.length());
        if (a + along + up).distance(c) > 1e-4 * size || across.length() < 1e-12 {
            self.flat([a, b, c], colour, material, patch_m);
            return self.flat([a, c, d], colour, material, patch_m);
        }
        let pieces = |length: f32| (length / patch_m).ceil().clamp(1.0, 64.0) as u8;
        let (columns, rows) = (pieces(along.length()), pieces(up.length()));
        let first = self.areas.len() as u32;
        let (along_one, up_one) = (along / f32::from(columns), up / f32::from(rows));
        let area = along_one.cross(up_one).length();
        for row in 0..rows {
            for column in 0..columns {
                let corner = a + along_one * f32::from(column) + up_one * f32::from(row);
                self.cells.insert(self.areas.len() as u32, [corner, along_one, up_one]);
                self.areas.push((area, colour * area));
            }
        }
        let face = across.normalize();
        let look = Look { normals: [face; 3], colours: [colour; 3] };
        for (corners, is_second) in [([a, b, c], false), ([a, c, d], true)] {
            self.corners.push(corners);
            self.triangles.push(Packed::new(face, &look, first, material, Grid { columns, rows, is_second }));
        }
    }

    /// A flat convex face of one colour.
    pub fn polygon(&mut self, outline: &[Vec3], colour: Vec3, material: u16, patch_m: f32) {
        if let [a, b, c, d] = *outline {
            return self.quad([a, b, c, d], colour, material, patch_m);
        }
        for pair in outline.windows(2).skip(1) {
            self.flat([outline[0], pair[0], pair[1]], colour, material, patch_m);
        }
    }

    /// A mesh with a colour at each of its corners, moved to its place.
    pub fn mesh(&mut self, mesh: &Mesh, colours: &[Vec3], to: &Affine3A, material: u16, patch_m: f32) {
        // Lengths may change a little from axis to axis: directions outwards go by the inverse.
        let turned = to.matrix3.inverse().transpose();
        for triangle in &mesh.triangles {
            let numbers = triangle.map(|corner| corner as usize);
            let corners = numbers.map(|corner| to.transform_point3(mesh.corners[corner]));
            let normals = numbers.map(|corner| (turned * mesh.normals[corner]).normalize_or_zero());
            let look = Look { normals, colours: numbers.map(|corner| colours[corner]) };
            self.triangle(corners, look, material, patch_m);
        }
    }

    /// The body, ready for rays.
    pub fn made(self) -> Body {
        let tree = Tree::of(&self.corners);
        let mut patches: Vec<Patch> = self
            .areas
            .iter()
            .map(|(area, colours)| Patch { colour: *colours / *area, area_m2: *area, points: Vec::new() })
            .collect();
        // Points at even steps of the area, from triangle to triangle; where in the triangle is drawn.
        let mut walked = vec![0.0_f32; patches.len()];
        for (cell, [corner, along, up]) in &self.cells {
            let pairs = Pairs::new(0, *cell, 1);
            let normal = along.cross(*up).normalize_or_zero();
            let point = |number| {
                let [x, y] = pairs.get(number);
                (*corner + *along * x + *up * y, normal)
            };
            patches[*cell as usize].points = (0..POINTS as u32).map(point).collect();
        }
        for (number, corners) in self.corners.iter().enumerate() {
            let triangle = &self.triangles[number];
            if triangle.is_in_rows() {
                continue;
            }
            let of = triangle.first_patch();
            let [a, b, c] = *corners;
            let area = (b - a).cross(c - a).length() / 2.0;
            let step = patches[of].area_m2 / POINTS as f32;
            let (from, to) = (walked[of] / step, (walked[of] + area) / step);
            walked[of] += area;
            // The middle of each step.
            for point in (from + 0.5).floor() as usize..(to + 0.5).floor() as usize {
                if patches[of].points.len() < POINTS {
                    let [x, y] = Pairs::new(0, number as u32, 0).get(point as u32);
                    let root = x.sqrt();
                    let place = a * (1.0 - root) + b * (root * (1.0 - y)) + c * (root * y);
                    patches[of].points.push((place, triangle.face()));
                }
            }
        }
        Body { tree, triangles: self.triangles, materials: self.materials, patches }
    }
}
