//! Trousers and shoes.
use glam::Vec3;

use crate::pose::{Leg, Pose};
use crate::shape::{at, ellipsoid, join, rod};

/// Distance to the cloth of the trousers.
pub(crate) fn trousers(pose: &Pose, p: Vec3) -> f32 {
    let seated = pose.is_seated;
    let leg = |leg: &Leg| {
        let thigh = rod(p, leg.hip, leg.knee, if seated { [0.088, 0.066] } else { [0.090, 0.066] });
        // Over the shoe it ends.
        let shin = rod(p, leg.knee, leg.ankle - Vec3::Y * 0.02, [0.066, 0.050]);
        join(thigh, shin, 0.05)
    };
    let hips = ellipsoid(p, at(0.0, pose.hips, -0.055), at(0.172, 0.125, 0.118));
    let both = leg(&pose.legs[0]).min(leg(&pose.legs[1]));
    let folds = 0.0016 * (p.y * 70.0 + 2.0 * (p.x * 40.0).sin()).sin() * (p.z * 31.0 + p.x * 20.0).sin();
    let all = join(hips, both, 0.05) + folds;
    // Under the shirt they end.
    if seated { all } else { all.max(p.y - (pose.hips - 0.030)) }
}

pub(crate) fn shoes(pose: &Pose, p: Vec3) -> f32 {
    let shoe = |leg: &Leg| {
        let foot = leg.ankle - Vec3::Y * 0.048;
        let front = ellipsoid(p, foot + at(0.0, 0.0, 0.105), at(0.046, 0.040, 0.105));
        let heel = ellipsoid(p, foot + at(0.0, 0.005, -0.012), at(0.038, 0.048, 0.050));
        // A flat sole.
        join(front, heel, 0.03).max(leg.ankle.y - 0.083 - p.y)
    };
    shoe(&pose.legs[0]).min(shoe(&pose.legs[1]))
}
