//! A porous layer before a wall, with or without a gap: Miki 1990, random incidence after Paris 1928 with a locally
//! reacting surface.

use std::f64::consts::TAU;

use num_complex::Complex64;

use crate::material::{BANDS_HZ, Bands};

/// cot z = j (e + 1) / (e - 1), e = exp(2 j z): the imaginary part of z is negative here, so that its inverse is used, which
/// shrinks.
fn cot(z: Complex64) -> Complex64 {
    let e = (Complex64::new(0.0, -2.0) * z).exp();
    Complex64::I * (1.0 + e) / (1.0 - e)
}

/// Surface impedance of a layer against that of air, density times the speed of sound.
fn impedance(
    frequency_hz: f64,
    flow_resistivity: f64,
    thickness_m: f64,
    gap_m: f64,
    speed: f64,
) -> Complex64 {
    let x = 1000.0 * frequency_hz / flow_resistivity;
    let characteristic = Complex64::new(1.0 + 5.50 * x.powf(-0.632), -8.43 * x.powf(-0.632));
    let k = TAU * frequency_hz / speed;
    let wave = Complex64::new(k * (1.0 + 7.81 * x.powf(-0.618)), -k * 11.41 * x.powf(-0.618));
    let j_cot = -Complex64::I * characteristic * cot(wave * thickness_m);
    let phase = k * gap_m;
    // No gap, or one of whole half waves: as a rigid wall.
    if gap_m <= 0.0 || phase.tan().abs() < 1e-9 {
        return j_cot;
    }
    let behind = Complex64::new(0.0, -1.0 / phase.tan());
    characteristic * (behind * j_cot + characteristic * characteristic) / (characteristic * (behind + j_cot))
}

/// Random-incidence absorption at the band centres; flow resistivity in Pa s/m2. Valid for 0.01 < f / sigma < 1.
pub fn absorption(flow_resistivity_pa_s_m2: f64, thickness_m: f64, air_gap_m: f64, speed_m_s: f64) -> Bands {
    BANDS_HZ.map(|hz| {
        let z = impedance(f64::from(hz), flow_resistivity_pa_s_m2, thickness_m, air_gap_m, speed_m_s);
        random(z)
    })
}

/// Integral of alpha over sin^2 from 0 to 1: London 1950, in closed form.
fn random(z: Complex64) -> f64 {
    let size2 = z.norm_sqr();
    let inner = if z.im.abs() < 1e-12 {
        1.0 / (1.0 + z.re)
    } else {
        // atan of im / (1 + re), the angle that the closed form takes.
        z.im.atan2(1.0 + z.re) / z.im
    };
    let log = (1.0 + 2.0 * z.re + size2).ln();
    8.0 * z.re / size2 * (1.0 - z.re / size2 * log + (z.re * z.re - z.im * z.im) / size2 * inner)
}
