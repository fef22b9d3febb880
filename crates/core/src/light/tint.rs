//! The colour of the light on the face: what the lamps mix to, and how far each lies from it.

use super::coloured::{is_apart, xy_of};
use super::face::Lit;
use crate::colour::{cct_duv, mired_shift, mixed_xy};
use crate::corner::LightAt;
use crate::reading::{From, Reading};

/// A lamp that gives less than this of the light on the face tints it little (an eighth: Fogon's own rule).
const COUNTS: f64 = 1.0 / 8.0;

/// A lamp's colour against the mixture.
pub struct Tint<'a> {
    /// The lamp.
    pub light: &'a LightAt<'a>,
    /// Its temperature as set, K.
    pub cct_k: f64,
    /// Its part of the light on the face.
    pub part: f64,
}

/// What the lamps mix to on the face.
pub struct Mixture<'a> {
    /// K.
    pub cct_k: f64,
    /// Off the Planckian locus, + = green.
    pub duv: f64,
    /// Each lamp.
    pub tints: Vec<Tint<'a>>,
}

impl Mixture<'_> {
    /// The largest difference between two lamps that count, mired, with the cooler and the warmer one.
    pub fn widest(&self) -> Option<(f64, &Tint<'_>, &Tint<'_>)> {
        let counted = || self.tints.iter().filter(|t| t.part > COUNTS);
        let cool = counted().max_by(|a, b| a.cct_k.total_cmp(&b.cct_k))?;
        let warm = counted().min_by(|a, b| a.cct_k.total_cmp(&b.cct_k))?;
        Some((mired_shift(cool.cct_k, warm.cct_k), cool, warm))
    }
}

/// The lamps' mixture on a surface at the eyes that faces the lens; the room is taken to throw their light back as it
/// is, and lights for the background are left out. `None` where no lamp shines.
pub(super) fn mixture<'a>(lit: &Lit<'a>) -> Option<Mixture<'a>> {
    let all: Vec<(&LightAt<'_>, f64, f64)> = lit
        .lamps_lx()
        .filter(|(light, _)| !is_apart(light))
        .map(|(light, lux)| (light, lux, light.cct_k()))
        .collect();
    let whole: f64 = all.iter().map(|(_, lux, _)| lux).sum();
    // Lamps of one colour are looked up once.
    let mut known: Vec<(f64, [f64; 2])> = Vec::new();
    let mut colour = |light: &LightAt<'_>, cct_k: f64| {
        let same = known.iter().find(|(k, _)| *k == cct_k && light.light.colour.is_none());
        same.map(|(_, xy)| *xy).unwrap_or_else(|| {
            let xy = xy_of(light);
            if light.light.colour.is_none() {
                known.push((cct_k, xy));
            }
            xy
        })
    };
    let parts: Vec<_> = all.iter().map(|(light, lux, cct_k)| (colour(light, *cct_k), *lux)).collect();
    let xy = mixed_xy(parts)?;
    let (cct_k, duv) = cct_duv(xy)?;
    let tints = all.into_iter().map(|(light, lux, cct_k)| Tint { light, cct_k, part: lux / whole }).collect();
    Some(Mixture { cct_k, duv, tints })
}

pub(super) fn readings(lit: &Lit<'_>) -> Vec<Reading> {
    let Some(mixture) = lit.mixture() else { return Vec::new() };
    let camera = &lit.corner().layout.camera;
    let source = "CIE 015 (from memory): tristimulus values add, kelvins do not";
    let mut cct = Reading::new("light.face.cct_k", mixture.cct_k)
        .by("nearest point of the Planckian locus to the sum of the lamps' tristimulus values", source)
        .within(100.0)
        .note("A cloth or softbox warms its lamp by 10 to 30 mired: balance on a grey card through it. Common practice, no source.");
    for tint in &mixture.tints {
        cct = cct.with("lamp", tint.cct_k, "K", From::Typed).with(
            "its part",
            100.0 * tint.part,
            "%",
            From::Computed,
        );
    }
    vec![
        cct,
        Reading::new("light.face.duv", mixture.duv)
            .by("distance from the locus in CIE 1960 (u, v), + = green", source)
            .note(
                "Beyond 0.003 either way set the tint as well, on a grey card: common practice, no source.",
            ),
        Reading::new("light.face.white_balance_mired", mired_shift(camera.white_balance_k, mixture.cct_k))
            .by(
                "1e6 / light - 1e6 / camera",
                "definition of the mired; 5.5 are just seen: Judd 1933 (from memory)",
            )
            .with("white balance set", camera.white_balance_k, "K", From::Typed)
            .with("light on the face", mixture.cct_k, "K", From::Computed)
            .note("Positive: the picture comes out warm."),
    ]
}
