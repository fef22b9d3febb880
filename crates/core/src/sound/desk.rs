//! A desk throws the voice into the microphone a second time: notches and peaks like a comb (two rays; Everest).

/// Pressure that a bare table top throws back (common practice, no source).
pub const HARD: f64 = 0.95;

/// What the reflection does.
#[derive(Debug, Clone, Copy, PartialEq, serde::Serialize)]
pub struct Comb {
    /// Longer way over the desk, m.
    pub path_difference_m: f64,
    /// Lowest notch, Hz; null where both ways are alike.
    pub first_notch_hz: Option<f64>,
    /// Reflected against direct sound, dB; null of a desk that reflects nothing.
    pub reflection_rel_db: Option<f64>,
}

/// The comb of two ways, straight and by the desk, from heights of mouth and microphone over the desk and their level distance, m
/// (two rays; Everest); the reflection's level in dB and the notches in Hz.
pub fn comb(mouth_m: f64, microphone_m: f64, level_m: f64, reflection_factor: f64, speed_m_s: f64) -> Comb {
    let direct = level_m.hypot(mouth_m - microphone_m);
    let reflected = level_m.hypot(mouth_m + microphone_m);
    let path_difference_m = reflected - direct;
    let notch = speed_m_s / (2.0 * path_difference_m);
    Comb {
        path_difference_m,
        first_notch_hz: notch.is_finite().then_some(notch),
        reflection_rel_db: (reflection_factor > 0.0)
            .then(|| 20.0 * (reflection_factor * direct / reflected).log10()),
    }
}

/// In words (Fogon's own scale).
pub fn words(reflection_rel_db: f64) -> &'static str {
    match reflection_rel_db {
        db if db > -10.0 => "hollow",
        db if db > -15.0 => "slight",
        _ => "fine",
    }
}
