//! A plain shirt with a round neck, over shoulders, chest and arms that lie before the body.
use glam::Vec3;

use crate::head;
use crate::shape::{at, common, ellipsoid, join, ramp, rod};

/// The plane of the collar.
const COLLAR: Vec3 = Vec3::new(0.0, -0.186, 0.0);
const COLLAR_UP: Vec3 = Vec3::new(0.0, 0.90, 0.436);

fn body(point: Vec3) -> f32 {
    let p = at(point.x.abs(), point.y, point.z);
    let chest = ellipsoid(p, at(0.0, -0.370, -0.040), at(0.165, 0.185, 0.112));
    let waist = ellipsoid(p, at(0.0, -0.560, -0.040), at(0.150, 0.220, 0.105));
    let breast = ellipsoid(p, at(0.075, -0.350, 0.018), at(0.075, 0.070, 0.045));
    let slope = rod(p, at(0.0, -0.178, -0.056), at(0.150, -0.240, -0.048), [0.040, 0.038]);
    let shoulder = ellipsoid(p, at(0.172, -0.272, -0.040), at(0.056, 0.060, 0.058));
    let upper = rod(p, at(0.186, -0.285, -0.036), at(0.228, -0.510, -0.005), [0.052, 0.046]);
    let lower = rod(p, at(0.228, -0.510, -0.005), at(0.140, -0.560, 0.230), [0.045, 0.034]);
    let mut all = join(chest, waist, 0.06);
    all = join(all, breast, 0.05);
    all = join(all, slope, 0.05);
    // It lies on collarbones and shoulders.
    all = join(all, head::neck(p), 0.03);
    all = join(all, shoulder, 0.06);
    all = join(all, upper, 0.030);
    join(all, lower, 0.02)
}

/// Distance to the cloth.
pub(crate) fn shirt(point: Vec3) -> f32 {
    let body = body(point) - 0.003;
    if body > 0.03 {
        return body - 0.006;
    }
    // Cut at the collar, with a ribbed ring along the edge.
    let over = (point - COLLAR).dot(COLLAR_UP);
    let ring = ((body + 0.001).powi(2) + (over + 0.003).powi(2)).sqrt() - 0.0042;
    let cut = common(body + folds(point), over, 0.004);
    join(cut, ring, 0.006)
}

/// A few soft folds, no two alike: pulled from the armpits, hanging from the chest, pushed together on the sleeves.
fn folds(p: Vec3) -> f32 {
    let x = p.x.abs();
    let side = p.x.signum();
    let wave = |along: f32, across: f32| (along + 1.3 * (across + side).sin()).sin();
    let pull = ramp(0.07, 0.15, x) * (1.0 - ramp(0.16, 0.21, x)) * ramp(-0.46, -0.34, p.y);
    let chest = 0.0012 * pull * wave((p.y * 0.7 + x) * 150.0, p.y * 55.0);
    let bend = ramp(0.17, 0.20, x) * (0.35 + 0.65 * (-((p.y + 0.47) / 0.07).powi(2)).exp());
    let sleeve = 0.0013 * bend * wave((p.y + 0.45 * side * p.z) * 105.0, p.z * 60.0 + p.y * 23.0);
    let drape = 0.0014 * ramp(-0.38, -0.50, p.y) * wave(x * 85.0, p.y * 17.0);
    chest + sleeve + drape
}

/// Whether the skin shows there, or lies within reach of an edge of the cloth.
pub(crate) fn shows_skin(point: Vec3) -> bool {
    let over = (point - COLLAR).dot(COLLAR_UP);
    over > -0.022 && (point.y > -0.21)
}
