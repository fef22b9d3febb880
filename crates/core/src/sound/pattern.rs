//! What a microphone hears from which side.

use std::f64::consts::PI;

use super::voice::{SPEECH_HZ, SpeechBands};

/// Directivity factor that no real tube exceeds (Fogon's own rule: the ideal line reads higher than any).
const TUBE_MOST: f64 = 10.0;
/// A null is no deeper than this in a real room, dB (Fogon's own rule).
const NULL_DB: f64 = -25.0;
/// Steps of the integral over a tube's pattern.
const STEPS: usize = 400;

/// First-order pattern, 1 straight ahead: a + (1 - a) cos theta, a from 0 to 1 (Eargle).
pub fn first_order(pattern_a: f64, angle_deg: f64) -> f64 {
    pattern_a + (1.0 - pattern_a) * angle_deg.to_radians().cos()
}

/// A pattern in words, nearest of the usual ones.
pub fn words(pattern_a: f64, tube_m: f64) -> String {
    let capsule = match pattern_a {
        a if a >= 0.85 => "omnidirectional",
        a if a >= 0.6 => "subcardioid",
        a if a >= 0.43 => "cardioid",
        a if a >= 0.31 => "supercardioid",
        a if a >= 0.12 => "hypercardioid",
        _ => "figure of eight",
    };
    if tube_m > 0.0 { format!("{capsule} behind a short tube") } else { capsule.to_owned() }
}

/// Directivity factor of a first-order pattern: 1 / (a^2 + (1 - a)^2 / 3) (Eargle).
pub fn directivity(pattern_a: f64) -> f64 {
    1.0 / (pattern_a.powi(2) + (1.0 - pattern_a).powi(2) / 3.0)
}

/// Pattern of a first-order capsule behind an interference tube (Olson; Eargle; ideal).
pub fn tube(pattern_a: f64, tube_m: f64, frequency_hz: f64, speed_m_s: f64, angle_deg: f64) -> f64 {
    let u = PI * tube_m * frequency_hz * (1.0 - angle_deg.to_radians().cos()) / speed_m_s;
    let line = if u.abs() < 1e-9 { 1.0 } else { u.sin() / u };
    first_order(pattern_a, angle_deg) * line
}

/// Directivity factor of an ideal tube: 2 / integral of p^2 sin theta (definition), by Simpson's rule.
pub fn ideal_tube_directivity(pattern_a: f64, tube_m: f64, frequency_hz: f64, speed_m_s: f64) -> f64 {
    let step = 180.0 / STEPS as f64;
    let sum: f64 = (0..=STEPS)
        .map(|i| {
            let angle = i as f64 * step;
            let weight = if i == 0 || i == STEPS {
                1.0
            } else if i % 2 == 1 {
                4.0
            } else {
                2.0
            };
            let p = tube(pattern_a, tube_m, frequency_hz, speed_m_s, angle);
            weight * p * p * angle.to_radians().sin()
        })
        .sum();
    2.0 / (sum * step.to_radians() / 3.0)
}

/// Directivity factors of a microphone in the bands of speech; a tube's are held to what real ones reach (Fogon's own rule).
pub fn directivities(pattern_a: f64, tube_m: f64) -> SpeechBands {
    if tube_m <= 0.0 {
        return [directivity(pattern_a); 7];
    }
    SPEECH_HZ.map(|f| ideal_tube_directivity(pattern_a, tube_m, f, super::decay::SPEED_M_S).min(TUBE_MOST))
}

/// What a microphone hears from a side against straight ahead, dB; a null no deeper than real ones.
pub fn gain_db(pattern_a: f64, tube_m: f64, frequency_hz: f64, angle_deg: f64) -> f64 {
    let p = tube(pattern_a, tube_m, frequency_hz, super::decay::SPEED_M_S, angle_deg);
    (20.0 * p.abs().log10()).max(NULL_DB)
}

/// Lift of low tones near a directional microphone on its axis against far away, dB: 20 lg |a + (1 - a)(1 + 1 / (j k r))|
/// (Eargle; Kinsler and Frey).
pub fn proximity_db(pattern_a: f64, frequency_hz: f64, distance_m: f64, speed_m_s: f64) -> f64 {
    let kr = 2.0 * PI * frequency_hz * distance_m / speed_m_s;
    20.0 * 1f64.hypot((1.0 - pattern_a) / kr).log10()
}
