//! The eyes: a ball with a cornea before it, so that a lamp's image lies where it lies in an eye; iris and pupil are painted.
//! Radii of the eyeball and the cornea 12 and 7.8 mm (Gullstrand's schematic eye, from memory).
use std::f32::consts::TAU;

use glam::{Quat, Vec3};

use crate::head::{EYE, EYE_RADIUS_M};
use crate::nets::Mesh;
use crate::{Part, Stuff, What, paint};

const CORNEA_RADIUS_M: f32 = 0.0078;
/// The cornea's middle before that of the ball, m.
const CORNEA_BEFORE_M: f32 = 0.0056;
/// Rings from the pupil's middle to behind the lids, and how many corners each has.
const RINGS: usize = 44;
const AROUND: usize = 56;
const FARTHEST_RAD: f32 = 1.9;
const CORNEA_INDEX: f32 = 1.376;

/// Eyes turn so far at most, rad: farther, the head turns.
const TURNS_RAD: f32 = 0.5;

/// The eye on a side (1 the figure's left, -1 its right), looking at a place.
pub(crate) fn eye(side: f32, looks_at: Vec3) -> Part {
    let middle = Vec3::new(side * EYE.x, EYE.y, EYE.z);
    let mut mesh = Mesh::default();
    let mut colours = Vec::new();
    for ring in 0..=RINGS {
        // Finer towards the pupil.
        let off = FARTHEST_RAD * (ring as f32 / RINGS as f32).powf(1.4);
        let (sine, cosine) = off.sin_cos();
        let cornea = {
            let square = CORNEA_RADIUS_M.powi(2) - (CORNEA_BEFORE_M * sine).powi(2);
            CORNEA_BEFORE_M * cosine + square.max(0.0).sqrt()
        };
        let is_cornea = cornea > EYE_RADIUS_M && cosine > 0.0;
        let reach = if is_cornea { cornea } else { EYE_RADIUS_M };
        for step in 0..AROUND {
            let turn = step as f32 / AROUND as f32 * TAU;
            let way = Vec3::new(sine * turn.cos(), sine * turn.sin(), cosine);
            let corner = way * reach;
            let centre = if is_cornea { Vec3::Z * CORNEA_BEFORE_M } else { Vec3::ZERO };
            mesh.corners.push(middle + corner);
            mesh.normals.push((corner - centre).normalize());
            colours.push(paint::eye(reach * sine, turn, cosine > 0.0));
        }
    }
    for ring in 0..RINGS {
        for step in 0..AROUND {
            let at = |ring: usize, step: usize| (ring * AROUND + step % AROUND) as u32;
            let [a, b, c, d] =
                [at(ring, step), at(ring + 1, step), at(ring + 1, step + 1), at(ring, step + 1)];
            if ring > 0 {
                mesh.triangles.push([a, b, d]);
            }
            mesh.triangles.push([b, c, d]);
        }
    }
    let way = (looks_at - middle).try_normalize().unwrap_or(Vec3::Z);
    let off = Vec3::Z.angle_between(way).min(TURNS_RAD);
    let axis = Vec3::Z.cross(way).try_normalize().unwrap_or(Vec3::Y);
    let turn = Quat::from_axis_angle(axis, off);
    mesh.corners.iter_mut().for_each(|corner| *corner = middle + turn * (*corner - middle));
    mesh.normals.iter_mut().for_each(|normal| *normal = turn * *normal);
    Part { what: What::Eye, mesh, colours, stuff: Stuff::Coat(CORNEA_INDEX) }
}
