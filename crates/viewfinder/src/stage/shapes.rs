//! Simple shapes as triangles.
use std::f32::consts::TAU;

use fogon_core::geometry::{DVec3, Solid};
use glam::Vec3;

use crate::body::Maker;
use crate::surface::Look;

/// Sides of what is round.
const ROUND: usize = 24;

/// What a shape is made of: a material of the body, a reflectance, and how large its patches are, m.
#[derive(Debug, Clone, Copy)]
pub(super) struct Stuff {
    pub(super) material: u16,
    pub(super) colour: Vec3,
    pub(super) patch_m: f32,
}

impl Stuff {
    pub(super) fn coloured(self, colour: Vec3) -> Self {
        Self { colour, ..self }
    }
}

pub(super) fn flat(maker: &mut Maker, outline: &[DVec3], stuff: Stuff) {
    let outline: Vec<Vec3> = outline.iter().map(|corner| corner.as_vec3()).collect();
    maker.polygon(&outline, stuff.colour, stuff.material, stuff.patch_m);
}

pub(super) fn solid(maker: &mut Maker, solid: &Solid, stuff: Stuff) {
    for (_, outline) in solid.faces() {
        flat(maker, &outline, stuff);
    }
}

/// Places within a box: `[x, y, z]` from its left front lower corner.
#[derive(Debug, Clone, Copy)]
pub(super) struct Frame {
    pub(super) corner: DVec3,
    pub(super) axes: [DVec3; 3],
}

impl Frame {
    pub(super) fn at(&self, [x, y, z]: [f64; 3]) -> DVec3 {
        self.corner + self.axes[0] * x + self.axes[1] * y + self.axes[2] * z
    }

    /// A box from one corner to the opposite one.
    pub(super) fn block(&self, maker: &mut Maker, from: [f64; 3], to: [f64; 3], stuff: Stuff) {
        let half: [f64; 3] = std::array::from_fn(|axis| (to[axis] - from[axis]) / 2.0);
        let middle = self.at(std::array::from_fn(|axis| from[axis] + half[axis]));
        let sides = [0, 1, 2].map(|axis| self.axes[axis] * half[axis]);
        solid(maker, &Solid::oriented_box(middle, sides), stuff);
    }
}

/// A round rod from a radius to another, its ends closed.
pub(super) fn rod(maker: &mut Maker, from: DVec3, to: DVec3, radii: [f64; 2], stuff: Stuff) {
    let (from, to) = (from.as_vec3(), to.as_vec3());
    let Some(along) = (to - from).try_normalize() else { return };
    let (a, b) = crate::bounce::across(along);
    let way = |step: usize| {
        let (sine, cosine) = (step as f32 / ROUND as f32 * TAU).sin_cos();
        a * cosine + b * sine
    };
    let [low, high] = radii.map(|radius| radius as f32);
    for step in 0..ROUND {
        let (p, q) = (way(step), way(step + 1));
        let corners = [from + p * low, from + q * low, to + q * high, to + p * high];
        let normals = [p, q, q, p];
        for [i, j, k] in [[0, 1, 2], [0, 2, 3]] {
            let look = Look { normals: [normals[i], normals[j], normals[k]], colours: [stuff.colour; 3] };
            maker.triangle([corners[i], corners[j], corners[k]], look, stuff.material, stuff.patch_m);
        }
        maker.flat([from, corners[1], corners[0]], stuff.colour, stuff.material, stuff.patch_m);
        maker.flat([to, corners[3], corners[2]], stuff.colour, stuff.material, stuff.patch_m);
    }
}

/// A ball, or a round thing of three radii.
pub(super) fn ball(maker: &mut Maker, middle: DVec3, radii: DVec3, stuff: Stuff) {
    let (middle, radii) = (middle.as_vec3(), radii.as_vec3());
    let rings = ROUND / 2;
    let way = |ring: usize, step: usize| {
        let (sine, cosine) = (ring as f32 / rings as f32 * TAU / 2.0).sin_cos();
        let (y, x) = (step as f32 / ROUND as f32 * TAU).sin_cos();
        Vec3::new(sine * x, sine * y, cosine)
    };
    for (ring, step) in (0..rings).flat_map(|ring| (0..ROUND).map(move |step| (ring, step))) {
        let ways = [way(ring, step), way(ring + 1, step), way(ring + 1, step + 1), way(ring, step + 1)];
        for [i, j, k] in [[0, 1, 2], [0, 2, 3]] {
            let corners = [ways[i], ways[j], ways[k]];
            let look = Look {
                normals: corners.map(|way| (way / radii).normalize_or_zero()),
                colours: [stuff.colour; 3],
            };
            maker.triangle(corners.map(|way| middle + way * radii), look, stuff.material, stuff.patch_m);
        }
    }
}
