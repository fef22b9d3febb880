//! A cloth or paper before a lamp: a matt face lit from behind, brighter in its middle.

use std::f64::consts::PI;

use crate::corner::LightAt;
use crate::photometry::Face;
use crate::plan::GearPanel;

/// The cloth is looked at in so many pieces a side.
const PIECES: usize = 8;
/// What passes where the gear does not say; `Plan::check` asks for it.
const PASSES: f64 = 0.5;

/// Pieces of a cloth, each as bright as the lamp behind makes it: L = tau E / pi.
pub fn pieces(cloth: &Face, lamp: &Face, gear: &GearPanel) -> Vec<Face> {
    let [a, b, c, d] = cloth.outline[..] else { return Vec::new() };
    let passes = gear.transmittance.unwrap_or(PASSES);
    let at = |i: usize, j: usize| {
        let (x, y) = (i as f64 / PIECES as f64, j as f64 / PIECES as f64);
        (a * (1.0 - x) + b * x) * (1.0 - y) + (d * (1.0 - x) + c * x) * y
    };
    let cells = (0..PIECES).flat_map(|j| (0..PIECES).map(move |i| (i, j)));
    cells
        .map(|(i, j)| {
            let face = Face::flat(vec![at(i, j), at(i + 1, j), at(i + 1, j + 1), at(i, j + 1)], 0.0);
            let behind_lx = lamp.illuminance_lx(face.middle, -cloth.normal);
            Face { luminance_cd_m2: passes * behind_lx / PI, ..face }
        })
        .collect()
}

/// The faces of a lamp that the room sees: the pieces of its cloth, else its own.
pub fn faces(light: &LightAt<'_>) -> Vec<Face> {
    match light.cloth {
        Some((gear, _)) => pieces(&light.dark_face(), &light.face(), gear),
        None => vec![light.face()],
    }
}

/// A lamp's faces as one, where it does not matter how a cloth is lit: the cloth at its mean luminance.
pub fn whole(light: &LightAt<'_>, faces: &[Face]) -> Option<Face> {
    if light.cloth.is_none() {
        return faces.first().cloned();
    }
    let mean = faces.iter().map(|p| p.luminance_cd_m2).sum::<f64>() / faces.len().max(1) as f64;
    Some(Face { luminance_cd_m2: mean, ..light.dark_face() })
}

/// How much brighter its brightest piece is than its darkest, stops.
pub fn hot_spot_stops(pieces: &[Face]) -> f64 {
    let luminances = || pieces.iter().map(|p| p.luminance_cd_m2);
    let most = luminances().fold(0.0, f64::max);
    let least = luminances().fold(f64::INFINITY, f64::min);
    (most / least).log2()
}
