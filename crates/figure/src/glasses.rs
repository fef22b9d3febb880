//! Glasses: two rims, a bridge, temples to the ears, and clear lenses.
use std::f32::consts::TAU;

use glam::{Vec2, Vec3};

use crate::nets::Mesh;
use crate::shape::{at, rod};
use crate::{Part, Stuff, What, cells, plain};

/// Middle of a lens beside the nose, half its width and height, how round its corners are, and how thick the rim is.
const LENS: Vec2 = Vec2::new(0.0325, -0.003);
const HALF: Vec2 = Vec2::new(0.0255, 0.0195);
const ROUND: f32 = 0.013;
const RIM: f32 = 0.0017;
/// Before the eyes in the middle; bent back from there, and leaning as glasses do (9 degrees, as the core counts it).
const BEFORE: f32 = 0.0990;
const LEANS: f32 = 0.158;
/// A lens bends so (radius 0.13 m).
const BEND: f32 = 3.8;

/// Where the lenses' plane is beside and above the middle.
fn depth(x: f32, y: f32) -> f32 {
    BEFORE - 1.4 * x * x + LEANS * y
}

/// Distance from the edge of a lens in its plane, negative within.
fn outline(x: f32, y: f32) -> f32 {
    let q = (Vec2::new(x.abs(), y) - LENS).abs() - HALF + ROUND;
    q.max(Vec2::ZERO).length() + q.x.max(q.y).min(0.0) - ROUND
}

fn frame(p: Vec3) -> f32 {
    let deep = p.z - depth(p.x, p.y);
    let rim = outline(p.x, p.y).hypot(deep) - RIM;
    let x = p.x.abs();
    let bridge = rod(
        at(x, p.y, p.z),
        at(0.0, 0.004, depth(0.0, 0.004) + 0.001),
        at(0.0085, 0.0015, depth(0.0085, 0.0)),
        [RIM; 2],
    );
    let hinge = at(0.0585, 0.006, depth(0.0585, 0.006));
    let ear = at(0.0775, 0.006, -0.004);
    let temple = rod(at(x, p.y, p.z), hinge, ear, [0.0017, 0.0015]);
    let hook = rod(at(x, p.y, p.z), ear, ear + at(0.0, -0.010, -0.010), [0.0015; 2]);
    rim.min(bridge).min(temple).min(hook)
}

/// Rims and lenses.
pub(crate) fn parts() -> Vec<Part> {
    let grid = cells(at(-0.084, -0.028, -0.030), at(0.084, 0.024, 0.103), 0.0011);
    let sheen = Stuff::Sheen { roughness: 0.25, straight_on: 0.05 };
    let rims = plain(What::Glasses, sheen, Vec3::new(0.030, 0.026, 0.024), grid.mesh(frame));
    vec![rims, lens(1.0), lens(-1.0)]
}

/// A clear bent sheet within the rim.
fn lens(side: f32) -> Part {
    const RINGS: usize = 10;
    const AROUND: usize = 48;
    let mut mesh = Mesh::default();
    let place = |x: f32, y: f32| {
        let off = Vec2::new(x, y) - LENS;
        at(side * x, y, depth(x, y) - BEND * off.length_squared())
    };
    for ring in 0..=RINGS {
        for step in 0..AROUND {
            let way = Vec2::from_angle(step as f32 / AROUND as f32 * TAU);
            // To the rim, found by halving.
            let (mut low, mut high) = (0.0, 0.05);
            for _ in 0..24 {
                let middle = (low + high) / 2.0;
                let at = LENS + way * middle;
                if outline(at.x, at.y) < 0.0 { low = middle } else { high = middle }
            }
            let here = LENS + way * (low * ring as f32 / RINGS as f32);
            let small = 1e-4;
            let along =
                |off: Vec2| place(here.x + off.x, here.y + off.y) - place(here.x - off.x, here.y - off.y);
            let normal = along(Vec2::X * small).cross(along(Vec2::Y * small)).normalize_or_zero() * side;
            mesh.corners.push(place(here.x, here.y));
            mesh.normals.push(normal);
        }
    }
    for (ring, step) in (0..RINGS).flat_map(|ring| (0..AROUND).map(move |step| (ring, step))) {
        let at = |ring: usize, step: usize| (ring * AROUND + step % AROUND) as u32;
        let [a, b, c, d] = [at(ring, step), at(ring + 1, step), at(ring + 1, step + 1), at(ring, step + 1)];
        for triangle in [[a, b, c], [a, c, d]] {
            let [p, q, r] = triangle;
            mesh.triangles.push(if side > 0.0 { [p, q, r] } else { [p, r, q] });
        }
    }
    plain(What::Glasses, Stuff::Glass, Vec3::ZERO, mesh)
}
