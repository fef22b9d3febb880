//! Hair: short, parted at the side, lying close. A body that follows the skull, and strands over it.
use glam::Vec3;

use crate::nets::Mesh;
use crate::shape::{at, common, ellipsoid, join, ramp};

/// How high the hairline runs on either side, from the forehead over temple, sideburn and ear to the nape: place along z, height.
const LINE: [(f32, f32); 10] = [
    (-0.120, -0.058),
    (-0.080, -0.058),
    (-0.046, -0.038),
    (-0.016, 0.006),
    (-0.002, 0.012),
    (0.010, -0.016),
    (0.024, 0.012),
    (0.038, 0.050),
    (0.056, 0.070),
    (0.085, 0.078),
];

fn line(point: Vec3) -> f32 {
    let z = point.z.clamp(LINE[0].0, LINE[9].0);
    let over = LINE.windows(2).find(|pair| z <= pair[1].0);
    let Some(&[(z0, y0), (z1, y1)]) = over.and_then(|pair| pair.first_chunk::<2>()) else { return LINE[9].1 };
    let height = y0 + (y1 - y0) * ramp(z0, z1, z);
    // Not a line drawn with a ruler.
    height
        + 0.0011 * (point.x * 210.0 + point.z * 130.0).sin()
        + 0.0009 * (point.z * 380.0 + point.x * 97.0).sin()
}

/// The skull under the hair.
fn skull(point: Vec3) -> f32 {
    let cranium = ellipsoid(point, at(0.0, 0.030, -0.014), at(0.0755, 0.086, 0.0965));
    let forehead = ellipsoid(point, at(0.0, 0.028, 0.026), at(0.064, 0.070, 0.0655));
    let nape = ellipsoid(point, at(0.0, -0.046, -0.034), at(0.052, 0.056, 0.050));
    join(join(cranium, forehead, 0.03), nape, 0.03)
}

/// Where the parting runs, beside the middle.
fn parting(z: f32) -> f32 {
    0.030 + 0.012 * (0.03 - z).max(0.0)
}

/// Distance to the hair's body.
pub(crate) fn cap(point: Vec3) -> f32 {
    let skull = skull(point);
    if skull > 0.05 {
        return skull - 0.02;
    }
    // Thicker above, thin where it begins, and combed away from a parting on the figure's left.
    let up = ramp(-0.02, 0.10, point.y);
    let over_line = point.y - line(point);
    let thick = (0.0055 + 0.0115 * up) * ramp(-0.014, 0.022, over_line);
    let from_parting = point.x - parting(point.z);
    let groove = up * 0.0040 * (-(from_parting / 0.0050).powi(2)).exp() * ramp(-0.06, 0.0, point.z);
    let surface = skull - thick + groove;
    common(surface, -over_line, 0.004)
}

/// Strands on the body of the hair, and pieces of each.
const STRANDS: usize = 6400;
const PIECES: usize = 6;
/// Corners of a strand.
pub(crate) const CORNERS: usize = 2 * (PIECES + 1);

/// A number in [0, 1) for each strand and purpose, the same in every build.
pub(crate) fn chance(number: usize, purpose: u32) -> f32 {
    let mut x = (number as u32).wrapping_mul(0x9e37_79b9) ^ purpose.wrapping_mul(0x85eb_ca6b);
    x = (x ^ x >> 16).wrapping_mul(0x7feb_352d);
    x = (x ^ x >> 15).wrapping_mul(0x846c_a68b);
    ((x ^ x >> 16) >> 8) as f32 / (1 << 24) as f32
}

/// Thin bent ribbons over the body of the hair, along the way in which it is combed: they give it its grain, and break its edge.
pub(crate) fn strands(body: &Mesh) -> Mesh {
    let areas: Vec<f32> = body
        .faces()
        .scan(0.0, |sum, [a, b, c]| {
            *sum += (b - a).cross(c - a).length() / 2.0;
            Some(*sum)
        })
        .collect();
    let whole = areas.last().copied().unwrap_or(0.0);
    let faces: Vec<[Vec3; 3]> = body.faces().collect();
    let mut mesh = Mesh::default();
    for strand in 0..STRANDS {
        let at = whole * (strand as f32 + chance(strand, 0)) / STRANDS as f32;
        let Some([a, b, c]) = faces.get(areas.partition_point(|sum| *sum < at)) else { continue };
        let (x, y) = (chance(strand, 1).sqrt(), chance(strand, 2));
        let root = *a * (1.0 - x) + *b * (x * (1.0 - y)) + *c * (x * y);
        // The body goes on within the head.
        if crate::head::skin(root) > 0.0008 {
            grow(&mut mesh, root, strand);
        }
    }
    mesh
}

fn slope(point: Vec3) -> Vec3 {
    let small = 0.001;
    let along = |way: Vec3| cap(point + way * small) - cap(point - way * small);
    Vec3::new(along(Vec3::X), along(Vec3::Y), along(Vec3::Z)).normalize_or(Vec3::Y)
}

/// The way in which hair lies: from the parting to the sides, then down, and back behind the forehead.
fn combed(point: Vec3, strand: usize) -> Vec3 {
    let away = if point.x < parting(point.z) { -1.0 } else { 1.0 };
    let top = ramp(0.015, 0.085, point.y);
    let forehead = ramp(0.020, 0.075, point.z);
    let over = at(away, -0.15, -0.55 + 0.50 * forehead);
    let side = at(0.0, -1.0, -0.45);
    let way = side.lerp(over, top);
    let stray = at(chance(strand, 3) - 0.5, chance(strand, 4) - 0.5, chance(strand, 5) - 0.5);
    way.normalize() + stray * 0.55
}

fn grow(mesh: &mut Mesh, root: Vec3, strand: usize) {
    let top = ramp(0.0, 0.09, root.y);
    let length = (0.010 + 0.034 * top) * (0.7 + 0.6 * chance(strand, 6));
    let lift = 0.0006 + 0.0030 * chance(strand, 7) * (0.35 + 0.65 * top);
    let tilt = 1.2 * (chance(strand, 8) - 0.5);
    let first = mesh.corners.len() as u32;
    let mut place = root;
    for piece in 0..=PIECES {
        let part = piece as f32 / PIECES as f32;
        let normal = slope(place);
        let way = combed(place, strand).reject_from_normalized(normal).normalize_or(-Vec3::Y);
        let across = way.cross(normal);
        let wide = 0.0010 * (1.0 - part * part) + 0.00015;
        let looks = (normal + across * tilt).normalize();
        for side in [-1.0, 1.0] {
            mesh.corners.push(place + across * (side * wide) + normal * 0.0003);
            mesh.normals.push(looks);
        }
        place += way * (length / PIECES as f32);
        // Along the body as far as it goes; past its edge straight on.
        if place.y > line(place) + 0.003 {
            place -= slope(place) * (cap(place) - lift * (part + 0.3));
        }
    }
    for piece in 0..PIECES as u32 {
        let [a, b, c, d] = [0, 1, 3, 2].map(|corner| first + 2 * piece + corner);
        mesh.triangles.extend([[a, b, c], [a, c, d]]);
    }
}

/// Whether hair covers the skin there for good.
pub(crate) fn covers(point: Vec3) -> bool {
    cap(point) < -0.005
}
