//! Speech transmission index by the indirect method (IEC 60268-16:2011; Houtgast and Steeneken 1973, 1985; weights from
//! memory). Without masking: how loud a recording is played is not known.

use std::f64::consts::{LN_10, TAU};

use super::level::energy;
use super::voice::SpeechBands;

/// Frequencies at which speech swells and fades, Hz.
const MODULATION_HZ: [f64; 14] = [0.63, 0.8, 1.0, 1.25, 1.6, 2.0, 2.5, 3.15, 4.0, 5.0, 6.3, 8.0, 10.0, 12.5];
/// Weights of the bands and of neighbours in common, male.
const ALPHA: SpeechBands = [0.085, 0.127, 0.230, 0.233, 0.309, 0.224, 0.173];
const BETA: [f64; 6] = [0.085, 0.078, 0.065, 0.011, 0.047, 0.095];

/// What an index rests on in one band.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct BandOfSpeech {
    /// Reverberation time, s; 0 for none.
    pub rt60_s: f64,
    /// Speech over noise, dB; `None` without noise.
    pub snr_db: Option<f64>,
    /// Direct over reverberant sound, dB; `None` counts the reverberant sound alone.
    pub direct_to_reverberant_db: Option<f64>,
}

/// How much of a modulation is left, 0 to 1, in a band with its decay, s, and noise, dB (IEC 60268-16; Houtgast and Steeneken).
pub fn modulation(band: &BandOfSpeech, modulation_hz: f64) -> f64 {
    // |d + 1 / (1 + j x)| / (d + 1), x = 2 pi F T / (6 ln 10).
    let x = TAU * modulation_hz * band.rt60_s / (6.0 * LN_10);
    let direct = band.direct_to_reverberant_db.map_or(0.0, energy);
    let (real, imaginary) = (1.0 / (1.0 + x * x), -x / (1.0 + x * x));
    // Very direct sound: the quotient tends to 1.
    let room = if direct.is_finite() { (direct + real).hypot(imaginary) / (direct + 1.0) } else { 1.0 };
    let noise = band.snr_db.map_or(1.0, |snr| 1.0 / (1.0 + energy(-snr)));
    room * noise
}

/// Modulation transfer index of one band, 0 to 1 (IEC 60268-16).
pub fn transfer_index(band: &BandOfSpeech) -> f64 {
    let index = |hz: f64| {
        let m = modulation(band, hz);
        let apparent_db = 10.0 * (m / (1.0 - m)).log10();
        let apparent_db = if apparent_db.is_nan() { 15.0 } else { apparent_db.clamp(-15.0, 15.0) };
        (apparent_db + 15.0) / 30.0
    };
    MODULATION_HZ.iter().map(|hz| index(*hz)).sum::<f64>() / MODULATION_HZ.len() as f64
}

/// The speech transmission index, 0 to 1, and the transfer index of each octave from 125 Hz to 8 kHz (IEC 60268-16).
pub fn speech_transmission_index(bands: &[BandOfSpeech; 7]) -> (f64, SpeechBands) {
    let each: SpeechBands = std::array::from_fn(|k| transfer_index(&bands[k]));
    let alone: f64 = ALPHA.iter().zip(&each).map(|(a, m)| a * m).sum();
    let together: f64 =
        BETA.iter().zip(each.windows(2)).map(|(b, pair)| b * (pair[0] * pair[1]).sqrt()).sum();
    ((alone - together).clamp(0.0, 1.0), each)
}

/// In words (IEC 60268-16).
pub fn words(sti: f64) -> &'static str {
    match sti {
        s if s >= 0.75 => "excellent",
        s if s >= 0.60 => "good",
        s if s >= 0.45 => "fair",
        s if s >= 0.30 => "poor",
        _ => "bad",
    }
}
