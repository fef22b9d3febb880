//! Colours of light: chromaticities, the Planckian locus, correlated colour temperature, mireds and mixtures.
//!
//! Chromaticities are CIE 1931 (x, y) for the 2-degree observer; distances to the locus are taken in CIE 1960 (u, v),
//! the difference `duv` positive on the green side (CIE 015, from memory).

use std::sync::OnceLock;

/// Second radiation constant, m K (CODATA 2018, from memory).
const SECOND_RADIATION_M_K: f64 = 1.438_776_877e-2;
/// The locus is followed between these temperatures, in mired: 100,000 K to 800 K.
const MIRED_LEAST: f64 = 10.0;
const MIRED_MOST: f64 = 1250.0;
/// Places on the locus from which the nearest is sought.
const PLACES: usize = 700;
/// Farther than this from the locus a colour temperature means nothing (Fogon's own rule).
pub const DUV_MOST: f64 = 0.05;

/// A chromaticity (x, y).
pub type Xy = [f64; 2];

/// The 2-degree colour matching functions, nm and three values, 1 nm apart (written by `reference/colour`).
fn matching() -> &'static [[f64; 4]] {
    static TABLE: OnceLock<Vec<[f64; 4]>> = OnceLock::new();
    TABLE.get_or_init(|| {
        let row = |line: &str| {
            let mut values = line.split(',').map(|v| v.parse().unwrap_or(0.0));
            std::array::from_fn(|_| values.next().unwrap_or(0.0))
        };
        include_str!("colour/cie_1931_2_degree.csv").lines().map(row).collect()
    })
}

/// Chromaticity of a full radiator (Planck's law over the matching functions).
pub fn planckian_xy(cct_k: f64) -> Xy {
    spectrum_xy(|nm| planckian(cct_k, nm))
}

/// Radiance of a full radiator at a wavelength, nm, in arbitrary units (Planck's law).
pub fn planckian(cct_k: f64, nm: f64) -> f64 {
    (nm / 560.0).powi(-5) / (SECOND_RADIATION_M_K / (nm * 1e-9 * cct_k)).exp_m1()
}

/// Chromaticity of a spectrum, told by wavelength in nm in any unit.
pub fn spectrum_xy(spectrum: impl Fn(f64) -> f64) -> Xy {
    let mut sum = [0.0; 3];
    for [nm, x, y, z] in matching() {
        let power = spectrum(*nm);
        sum[0] += power * x;
        sum[1] += power * y;
        sum[2] += power * z;
    }
    let all = sum.iter().sum::<f64>();
    [sum[0] / all, sum[1] / all]
}

/// CIE 1960 (u, v) of (x, y).
pub fn uv_of([x, y]: Xy) -> [f64; 2] {
    let below = -2.0 * x + 12.0 * y + 3.0;
    [4.0 * x / below, 6.0 * y / below]
}

fn xy_of([u, v]: [f64; 2]) -> Xy {
    let below = 2.0 * u - 8.0 * v + 4.0;
    [3.0 * u / below, 2.0 * v / below]
}

/// The locus in (u, v): the cubic through the four nearest places of [`places`], within 1e-9 of the integral.
fn locus_uv(mired: f64) -> [f64; 2] {
    let all = places();
    let at = (mired / MIRED_LEAST).ln() / (MIRED_MOST / MIRED_LEAST).ln() * (PLACES - 1) as f64;
    let first = (at.floor().max(1.0) as usize).min(PLACES - 3) - 1;
    let x = at - first as f64;
    // Lagrange's weights for places 0, 1, 2, 3.
    let weights = [
        -(x - 1.0) * (x - 2.0) * (x - 3.0) / 6.0,
        x * (x - 2.0) * (x - 3.0) / 2.0,
        -x * (x - 1.0) * (x - 3.0) / 2.0,
        x * (x - 1.0) * (x - 2.0) / 6.0,
    ];
    let sum = |axis: usize| weights.iter().zip(&all[first..]).map(|(w, place)| w * place.1[axis]).sum();
    [sum(0), sum(1)]
}

/// Unit normal of the locus, towards green.
fn normal(mired: f64) -> [f64; 2] {
    let step = 1e-3 * mired;
    let (a, b) = (locus_uv(mired - step), locus_uv(mired + step));
    let (du, dv) = (b[0] - a[0], b[1] - a[1]);
    let length = du.hypot(dv);
    // Along growing mireds the locus runs to the right; green is on its left.
    [-dv / length, du / length]
}

/// (x, y) of a light of a colour temperature, `duv` off the locus.
pub fn xy_at(cct_k: f64, duv: f64) -> Xy {
    if duv == 0.0 {
        return planckian_xy(cct_k);
    }
    let mired = 1e6 / cct_k;
    let ([u, v], [nu, nv]) = (locus_uv(mired), normal(mired));
    xy_of([u + nu * duv, v + nv * duv])
}

fn places() -> &'static [(f64, [f64; 2])] {
    static PLACES_ON_LOCUS: OnceLock<Vec<(f64, [f64; 2])>> = OnceLock::new();
    PLACES_ON_LOCUS.get_or_init(|| {
        let ratio = MIRED_MOST / MIRED_LEAST;
        (0..PLACES)
            .map(|i| MIRED_LEAST * ratio.powf(i as f64 / (PLACES - 1) as f64))
            .map(|mired| (mired, uv_of(planckian_xy(1e6 / mired))))
            .collect()
    })
}

/// Correlated colour temperature, K, and duv of a chromaticity: the nearest point of the locus in (u, v). `None` more
/// than [`DUV_MOST`] off, or beyond the ends of what is followed.
pub fn cct_duv(xy: Xy) -> Option<(f64, f64)> {
    let [u, v] = uv_of(xy);
    let off2 = |[a, b]: [f64; 2]| (a - u).powi(2) + (b - v).powi(2);
    let all = places();
    let nearest = (0..all.len()).min_by(|a, b| off2(all[*a].1).total_cmp(&off2(all[*b].1)))?;
    if nearest == 0 || nearest + 1 == all.len() {
        return None;
    }
    // Newton's steps on the dot product of the tangent and the way to the point, by the secant of two ends.
    let along = |mired: f64| {
        let ([a, b], [nu, nv]) = (locus_uv(mired), normal(mired));
        // The tangent is the normal turned back.
        (u - a) * nv + (v - b) * -nu
    };
    let (mut low, mut high) = (all[nearest - 1].0, all[nearest + 1].0);
    let (mut at_low, mut at_high) = (along(low), along(high));
    if at_low * at_high > 0.0 {
        return None;
    }
    for _ in 0..60 {
        // Regula falsi with the ends' weights halved (Illinois).
        let middle = (low * at_high - high * at_low) / (at_high - at_low);
        let at = along(middle);
        if at * at_high <= 0.0 {
            (low, at_low) = (high, at_high);
        } else {
            at_low /= 2.0;
        }
        (high, at_high) = (middle, at);
        if (high - low).abs() < 1e-9 * high || at.abs() < 1e-15 {
            break;
        }
    }
    let ([a, b], [nu, nv]) = (locus_uv(high), normal(high));
    let duv = (u - a) * nu + (v - b) * nv;
    (duv.abs() <= DUV_MOST).then_some((1e6 / high, duv))
}

/// Mireds from one temperature to another: positive is warmer.
pub fn mired_shift(from_k: f64, to_k: f64) -> f64 {
    1e6 / to_k - 1e6 / from_k
}

/// Temperature behind a gel or a cloth that shifts by so many mireds; `None` where nothing is left to be warmed.
pub fn shifted_k(cct_k: f64, mired: f64) -> Option<f64> {
    let shifted = 1e6 / cct_k + mired;
    (shifted > 0.0).then(|| 1e6 / shifted)
}

/// Chromaticity of lights together, each by its (x, y) and its illuminance: tristimulus values add. `None` in the dark.
pub fn mixed_xy(lights: impl IntoIterator<Item = (Xy, f64)>) -> Option<Xy> {
    let mut sum = [0.0; 3];
    for ([x, y], lux) in lights {
        sum[0] += x / y * lux;
        sum[1] += lux;
        sum[2] += (1.0 - x - y) / y * lux;
    }
    let all = sum.iter().sum::<f64>();
    (all > 0.0).then(|| [sum[0] / all, sum[1] / all])
}

/// Distance of two chromaticities in CIE 1976 (u', v').
pub fn difference_uv_1976(a: Xy, b: Xy) -> f64 {
    let ([ua, va], [ub, vb]) = (uv_of(a), uv_of(b));
    (ua - ub).hypot(1.5 * (va - vb))
}
