//! A cloth or paper before a lamp: a matt face lit from behind, brighter in its middle.

use std::f64::consts::PI;

use crate::corner::LightAt;
use crate::photometry::Face;
use crate::plan::GearPanel;

/// The cloth is looked at in so many pieces a side.
const PIECES: usize = 8;
/// What passes where the gear does not say; `Plan::check` asks for it.
const PASSES: f64 = 0.5;

/// A cloth under its lamp.
pub struct LitCloth {
    /// Its front in pieces, each as bright as the lamp behind makes it: L = tau E / pi.
    pub pieces: Vec<Face>,
    /// Its front as one, at its mean luminance, for where it does not matter how evenly it is lit.
    pub front: Face,
    /// Its back, which throws light towards the lamp's side.
    pub back: Face,
    /// Light of the lamp that falls on it, lm; the rest passes it by.
    pub caught_lm: f64,
}

/// A cloth with a lamp behind it.
pub fn lit(cloth: &Face, lamp: &Face, gear: &GearPanel) -> LitCloth {
    let passes = gear.transmittance.unwrap_or(PASSES);
    let mut pieces = Vec::with_capacity(PIECES * PIECES);
    let mut caught_lm = 0.0;
    if let [a, b, c, d] = cloth.outline[..] {
        let at = |i: usize, j: usize| {
            let (x, y) = (i as f64 / PIECES as f64, j as f64 / PIECES as f64);
            (a * (1.0 - x) + b * x) * (1.0 - y) + (d * (1.0 - x) + c * x) * y
        };
        for j in 0..PIECES {
            for i in 0..PIECES {
                let face = Face::flat(vec![at(i, j), at(i + 1, j), at(i + 1, j + 1), at(i, j + 1)], 0.0);
                let behind_lx = lamp.illuminance_lx(face.middle, -cloth.normal);
                caught_lm += behind_lx * face.area_m2;
                pieces.push(Face { luminance_cd_m2: passes * behind_lx / PI, ..face });
            }
        }
    }
    let mean_lx = caught_lm / cloth.area_m2.max(1e-9);
    let front = Face { luminance_cd_m2: passes * mean_lx / PI, ..cloth.clone() };
    // What neither passes nor is thrown back is taken up: the two together are no more than all of it.
    let thrown = gear.reflectance.min(1.0 - passes);
    let outline = cloth.outline.iter().rev().copied().collect();
    let back = Face::flat(outline, thrown * mean_lx / PI);
    LitCloth { pieces, front, back, caught_lm }
}

/// The faces of a lamp that the face of the person sees: the pieces of its cloth, else its own.
pub fn faces(light: &LightAt<'_>) -> Vec<Face> {
    match light.cloth {
        Some((gear, _)) => lit(&light.dark_face(), &light.face(), gear).pieces,
        None => vec![light.face()],
    }
}

/// The same as one face, where it does not matter how evenly a cloth is lit.
pub fn whole(light: &LightAt<'_>) -> Face {
    match light.cloth {
        Some((gear, _)) => lit(&light.dark_face(), &light.face(), gear).front,
        None => light.face(),
    }
}

/// How much brighter its brightest piece is than its darkest, stops.
pub fn hot_spot_stops(pieces: &[Face]) -> f64 {
    let luminances = || pieces.iter().map(|p| p.luminance_cd_m2);
    let most = luminances().fold(0.0, f64::max);
    let least = luminances().fold(f64::INFINITY, f64::min);
    (most / least).log2()
}
