//! A plain shirt with a round neck, over shoulders, chest and arms that lie before the body.
use std::f32::consts::TAU;

use glam::Vec3;

use crate::head;
use crate::nets::Mesh;
use crate::pose::Pose;
use crate::shape::{at, common, ellipsoid, gradient, join, ramp, rod};

/// The collar lies in a plane, higher behind than before: its height on the neck's axis, and how it falls forward.
const COLLAR_Y: f32 = -0.166;
const COLLAR_FALLS: f32 = 0.48;
/// Only so far from the neck's axis, for a hand may rise above it.
const COLLAR_REACH_M: f32 = 0.115;
/// The neck's axis at the collar, before the ears' line.
const NECK_Z: f32 = -0.040;

/// How far a place is above the collar, and near the neck.
fn above_collar(p: Vec3) -> f32 {
    let above = (p.y - COLLAR_Y + COLLAR_FALLS * p.z) / 1.0_f32.hypot(COLLAR_FALLS);
    above.min(COLLAR_REACH_M - p.x.hypot(p.z - NECK_Z))
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
    let over = above_collar(point);
    let hem = pose.hips - if pose.is_seated { 0.015 } else { 0.055 } - point.y;
    common(common(body + folds(pose, point), over, 0.004), hem, 0.006)
}

/// The hem about the neck: a soft ring where the cloth ends.
pub(crate) fn collar(pose: &Pose) -> Mesh {
    const AROUND: usize = 120;
    const ACROSS: usize = 12;
    const THICK: f32 = 0.0036;
    const WIDE: f32 = 0.0062;
    let cloth = |point: Vec3| body(pose, point) - 0.003;
    let middles: Vec<Vec3> = (0..AROUND)
        .map(|step| {
            let (sine, cosine) = (step as f32 / AROUND as f32 * TAU).sin_cos();
            let place = |out: f32| {
                let z = NECK_Z + out * cosine;
                at(out * sine, COLLAR_Y - COLLAR_FALLS * z, z)
            };
            // Out from the neck's axis to the cloth, halved.
            let (mut within, mut beyond) = (0.0, COLLAR_REACH_M);
            for _ in 0..16 {
                let middle = (within + beyond) / 2.0;
                if cloth(place(middle)) < 0.0 { within = middle } else { beyond = middle }
            }
            place(within)
        })
        .collect();
    let mut mesh = Mesh::default();
    for step in 0..AROUND {
        let middle = middles[step];
        let along =
            (middles[(step + 1) % AROUND] - middles[(step + AROUND - 1) % AROUND]).normalize_or_zero();
        let out = gradient(&cloth, middle, 1e-3).reject_from(along).normalize_or_zero();
        let beside = along.cross(out);
        for turn in 0..ACROSS {
            let (sine, cosine) = (turn as f32 / ACROSS as f32 * TAU).sin_cos();
            mesh.corners.push(middle + out * cosine * THICK + beside * sine * WIDE);
            mesh.normals.push((out * cosine / THICK + beside * sine / WIDE).normalize_or(out));
        }
    }
    for (step, turn) in (0..AROUND).flat_map(|step| (0..ACROSS).map(move |turn| (step, turn))) {
        let at = |step: usize, turn: usize| (step % AROUND * ACROSS + turn % ACROSS) as u32;
        let [a, b, c, d] = [at(step, turn), at(step + 1, turn), at(step + 1, turn + 1), at(step, turn + 1)];
        mesh.triangles.extend([[a, c, b], [a, d, c]]);
    }
    mesh
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
    point.y > -0.13 || above_collar(point) > -0.010
}
