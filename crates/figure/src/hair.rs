//! Hair: short, parted at the side, lying close. A cap that follows the skull, combed into strands.
use glam::Vec3;

use crate::shape::{at, common, ellipsoid, join, ramp};

/// How high the hairline runs on either side, from the forehead over temple, sideburn and ear to the nape: place along z, height.
const LINE: [(f32, f32); 9] = [
    (-0.120, -0.058),
    (-0.080, -0.058),
    (-0.046, -0.038),
    (-0.016, 0.006),
    (-0.002, 0.012),
    (0.010, -0.016),
    (0.026, 0.010),
    (0.044, 0.046),
    (0.085, 0.072),
];

fn line(point: Vec3) -> f32 {
    let z = point.z.clamp(LINE[0].0, LINE[8].0);
    let over = LINE.windows(2).find(|pair| z <= pair[1].0);
    let Some(&[(z0, y0), (z1, y1)]) = over.and_then(|pair| pair.first_chunk::<2>()) else { return LINE[8].1 };
    let height = y0 + (y1 - y0) * ramp(z0, z1, z);
    // Not a line drawn with a ruler.
    height
        + 0.0007 * (point.x * 510.0 + point.z * 300.0).sin()
        + 0.0006 * (point.z * 700.0 + point.x * 170.0).sin()
}

/// The skull under the hair.
fn skull(point: Vec3) -> f32 {
    let cranium = ellipsoid(point, at(0.0, 0.030, -0.014), at(0.0755, 0.086, 0.0965));
    let forehead = ellipsoid(point, at(0.0, 0.028, 0.026), at(0.064, 0.070, 0.0655));
    let nape = ellipsoid(point, at(0.0, -0.046, -0.034), at(0.052, 0.056, 0.050));
    join(join(cranium, forehead, 0.03), nape, 0.03)
}

/// Distance to the hair's surface.
pub(crate) fn cap(point: Vec3) -> f32 {
    let skull = skull(point);
    if skull > 0.05 {
        return skull - 0.02;
    }
    // Thicker above, thin where it begins, and combed away from a parting on the figure's left.
    let up = ramp(-0.02, 0.10, point.y);
    let over_line = point.y - line(point);
    let thick = (0.0065 + 0.0125 * up) * ramp(-0.012, 0.026, over_line);
    let from_parting = point.x - 0.030 - 0.012 * (0.03 - point.z).max(0.0);
    let parting = up * 0.0055 * (-(from_parting / 0.0045).powi(2)).exp() * ramp(-0.06, 0.0, point.z);
    let surface = skull - thick + parting + 0.0008 * ramp(0.0, 0.03, over_line) * strands(point);
    common(surface, -over_line, 0.004)
}

/// Waves across the way in which the hair lies, -1 to 1.
fn strands(point: Vec3) -> f32 {
    let along = point.z + 0.35 * point.x.abs() + 0.25 * point.y;
    0.6 * (along * 420.0 + 2.0 * (point.y * 60.0).sin()).sin()
        + 0.4 * (along * 730.0 + 3.0 * (point.x * 50.0).sin()).sin()
}

/// Whether hair covers the skin there for good.
pub(crate) fn covers(point: Vec3) -> bool {
    cap(point) < -0.005
}
