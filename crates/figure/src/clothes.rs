//! A plain shirt with a round neck, over shoulders, chest and arms that lie before the body.
use glam::Vec3;

use crate::head;
use crate::pose::Pose;
use crate::shape::{at, common, ellipsoid, join, ramp, rod};

/// The collar runs around the neck at this distance from its axis.
const COLLAR_M: f32 = 0.0705;

/// How far a place is within the collar.
fn within_collar(p: Vec3) -> f32 {
    // The neck leans forward as it rises.
    let axis = -0.030 + 0.22 * (p.y + 0.18);
    let off = (p.x / 1.06).hypot((p.z - axis) / 1.02);
    // Below the collarbones there is no neck.
    (COLLAR_M - off).min((p.y + 0.262) * 1.5)
}

fn body(pose: &Pose, point: Vec3) -> f32 {
    // Left and right are alike, and meet softly.
    let p = at(point.x.hypot(0.014), point.y, point.z);
    let chest = ellipsoid(p, at(0.0, -0.370, -0.040), at(0.165, 0.185, 0.112));
    let waist = ellipsoid(p, at(0.0, -0.560, -0.045), at(0.150, 0.220, 0.105));
    let breast = ellipsoid(p, at(0.075, -0.350, 0.018), at(0.075, 0.070, 0.045));
    let slope = rod(p, at(0.0, -0.178, -0.056), at(0.150, -0.240, -0.048), [0.040, 0.038]);
    let shoulder = ellipsoid(p, at(0.168, -0.270, -0.042), at(0.056, 0.058, 0.057));
    let hips = ellipsoid(p, at(0.0, pose.hips + 0.03, -0.055), at(0.178, 0.125, 0.126));
    // From the waist to the hips, however far apart they are.
    let (low, high) = (pose.hips, -0.50);
    let belly =
        ellipsoid(p, at(0.0, (low + high) / 2.0, -0.048), at(0.156, (high - low) / 2.0 + 0.10, 0.110));
    let mut all = join(chest, waist, 0.06);
    all = join(all, breast, 0.05);
    all = join(all, slope, 0.05);
    // It lies on collarbones and shoulders.
    all = join(all, head::neck(p), 0.03);
    all = join(all, belly, 0.06);
    all = join(all, hips, 0.07);
    all = join(all, shoulder, 0.06);
    for arm in &pose.arms {
        let upper = rod(point, arm.shoulder, arm.elbow, [0.052, 0.046]);
        let lower = rod(point, arm.elbow, arm.hand.wrist - arm.hand.forearm * 0.015, [0.046, 0.033]);
        all = join(all, upper, 0.030);
        all = join(all, lower, 0.022);
    }
    all
}

/// Distance to the cloth.
pub(crate) fn shirt(pose: &Pose, point: Vec3) -> f32 {
    let body = body(pose, point) - 0.003;
    if body > 0.03 {
        return body - 0.006;
    }
    // Cut at the collar, with a ribbed ring along the edge.
    let over = within_collar(point);
    let ring = (body + 0.001).hypot(over + 0.003) - 0.0040;
    let hem = pose.hips - if pose.is_seated { 0.015 } else { 0.055 } - point.y;
    let cut = common(common(body + folds(pose, point), over, 0.004), hem, 0.006);
    join(cut, ring, 0.006)
}

/// A few soft folds, no two alike: pulled from the armpits, hanging from the chest, pushed together at the bend of the sleeves.
fn folds(pose: &Pose, p: Vec3) -> f32 {
    let x = p.x.abs();
    let side = p.x.signum();
    let wave = |along: f32, across: f32| (along + 1.3 * (across + side).sin()).sin();
    let pull = ramp(0.07, 0.15, x) * (1.0 - ramp(0.16, 0.21, x)) * ramp(-0.46, -0.34, p.y);
    let chest = 0.0012 * pull * wave((p.y * 0.7 + x) * 150.0, p.y * 55.0);
    let drape = 0.0016
        * ramp(-0.40, -0.54, p.y)
        * (1.0 - ramp(0.15, 0.19, x))
        * wave(p.y * 62.0 + x * 24.0, x * 31.0);
    let sleeves: f32 = pose
        .arms
        .iter()
        .map(|arm| {
            let near = (-(p.distance(arm.elbow) / 0.085).powi(2)).exp();
            let along = (arm.hand.wrist - arm.shoulder).normalize_or_zero();
            let to_wrist = (-(p.distance(arm.hand.wrist) / 0.09).powi(2)).exp();
            let off = p - arm.elbow;
            0.0021 * (near + 0.45 * to_wrist) * wave(off.dot(along) * 120.0, off.z * 60.0 + off.y * 23.0)
        })
        .sum();
    chest + sleeves + drape
}

/// Whether the skin shows there, or lies within reach of an edge of the cloth.
pub(crate) fn shows_skin(point: Vec3) -> bool {
    point.y > -0.13 || (within_collar(point) > -0.020 && point.y > -0.262)
}
