//! What colour the stand-in is where: reflectances, linear red, green and blue.
use glam::Vec3;

use crate::Looks;
use crate::head::{EYE, brow_hair, mouth_space};
use crate::shape::{at, ramp};

/// Brows where there is no hair to go by.
const BROW: Vec3 = Vec3::new(0.085, 0.060, 0.045);

fn blob(point: Vec3, middle: Vec3, radius: f32) -> f32 {
    (-((at(point.x.abs(), point.y, point.z) - middle).length() / radius).powi(2)).exp()
}

pub(crate) fn skin(point: Vec3, looks: &Looks) -> Vec3 {
    let mut colour = looks.skin;
    // Blood nearer under cheeks, nose and ears.
    let warm = 0.55 * blob(point, at(0.040, -0.036, 0.075), 0.022)
        + 0.50 * blob(point, at(0.0, -0.043, 0.115), 0.014)
        + 0.55 * blob(point, at(0.080, -0.012, -0.012), 0.024);
    colour *= Vec3::ONE.lerp(Vec3::new(1.0, 0.84, 0.80), warm.min(1.0));
    // No skin is of one colour.
    let grain = |scale: f32| {
        let q = point * scale;
        (q.x + 2.1 * (0.7 * q.y).sin()).sin()
            * (q.y + 1.7 * (0.9 * q.z).sin()).sin()
            * (q.z + 1.3 * (0.8 * q.x).sin()).cos()
    };
    let spots = 0.030 * grain(95.0) + 0.022 * grain(260.0);
    colour *= Vec3::new(1.0 + 0.6 * spots, 1.0 + spots, 1.0 + 1.1 * spots);
    // Lids and the hollow under the eyes, a little darker.
    colour *= 1.0 - 0.14 * blob(point, at(0.0315, -0.002, 0.083), 0.017);
    let brow = looks.hair.map_or(BROW, |hair| hair * 0.9 + 0.006).min(looks.skin * 0.6);
    let q = mouth_space(point);
    let lips = ramp(0.0265, 0.0215, q.x.abs()) * ramp(0.0895, 0.092, q.z) * {
        let half = 0.0010 + 0.0062 * (1.0 - (q.x / 0.0265).powi(2)).max(0.0).sqrt();
        let bow = 0.0018 * (-((q.x.abs() - 0.006) / 0.0045).powi(2)).exp()
            - 0.0010 * (-(q.x / 0.003).powi(2)).exp();
        let y = q.y + 0.0766;
        ramp(half + bow + 0.0008, half + bow - 0.0008, y)
            * ramp(-half * 1.25 - 0.0008, -half * 1.25 + 0.0008, y)
    };
    colour = colour.lerp(looks.skin * Vec3::new(0.82, 0.60, 0.62), 0.75 * lips);
    // The line between the lips.
    let parting =
        (-((q.y + 0.0766) / 0.0009).powi(2)).exp() * ramp(0.0265, 0.021, q.x.abs()) * ramp(0.088, 0.091, q.z);
    colour *= 1.0 - 0.62 * parting;
    colour = colour.lerp(brow, 0.80 * brow_hair(point));
    // Lashes: the upper lid's edge.
    let from = at(point.x.abs(), point.y, point.z) - EYE;
    let flat = at(from.x, from.y - 0.06 * from.x, 0.0);
    let edge = 0.0046 * (1.0 - (flat.x / 0.0138).powi(2)).max(0.0);
    let on_lid =
        ramp(0.0165, 0.0145, from.length()) * ramp(0.0, 0.004, from.z) * ramp(0.0150, 0.0135, flat.x.abs());
    let upper = (-((flat.y - edge - 0.0003) / 0.0009).powi(2)).exp() * on_lid;
    let lower = (-((flat.y + edge + 0.0003) / 0.0006).powi(2)).exp() * on_lid;
    colour.lerp(Vec3::new(0.03, 0.022, 0.018), (0.9 * upper + 0.35 * lower).min(1.0))
}

/// A strand by its number: some darker, some lighter.
pub(crate) fn strand(number: usize, colour: Vec3) -> Vec3 {
    colour * (0.72 + 0.62 * crate::hair::chance(number, 9))
}

/// At a distance from the middle of the pupil, m, and a turn about it.
pub(crate) fn eye(radius: f32, turn: f32, is_front: bool) -> Vec3 {
    let white = Vec3::new(0.66, 0.63, 0.60);
    if !is_front {
        return white;
    }
    let grain = 0.5 + 0.5 * (turn * 31.0).sin() * (turn * 17.0 + radius * 900.0).sin();
    let iris = Vec3::new(0.120, 0.070, 0.032) * (0.75 + 0.5 * grain);
    // Darker at its rim and about the pupil.
    let iris =
        iris * (1.0 - 0.65 * ramp(0.0047, 0.0058, radius)) * (1.0 - 0.3 * ramp(0.0030, 0.0021, radius));
    let with_pupil = Vec3::splat(0.006).lerp(iris, ramp(0.0019, 0.0022, radius));
    with_pupil.lerp(white, ramp(0.0056, 0.0061, radius))
}
