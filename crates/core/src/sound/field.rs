//! Direct sound against what the room adds to it (Beranek; Kuttruff).

use std::f64::consts::PI;

/// Level of a point source of unit power against its level at 1 m, dB: 10 lg 4 pi.
pub const SPHERE_DB: f64 = 10.992_098_640_220_965;

/// Room constant, m2: A / (1 - A/S), absorption below the surface (Beranek).
pub fn room_constant_m2(absorption_m2: f64, surface_m2: f64) -> f64 {
    absorption_m2 / (1.0 - absorption_m2 / surface_m2)
}

/// Distance at which direct and reverberant sound are alike, m: sqrt(Qs Qm R / 16 pi) (Beranek).
pub fn critical_distance_m(source_q: f64, microphone_q: f64, room_constant_m2: f64) -> f64 {
    (source_q * microphone_q * room_constant_m2 / (16.0 * PI)).sqrt()
}

/// Direct over reverberant sound, dB: 20 lg(Dc / r), r over 0 m (from the inverse square law).
pub fn direct_to_reverberant_db(distance_m: f64, critical_distance_m: f64) -> f64 {
    20.0 * (critical_distance_m / distance_m).log10()
}

/// Level of the reverberant sound of a source of some power in a room, dB: L1m + 10 lg 4 pi - 10 lg Qs + 10 lg(4 / R) -
/// 10 lg Qm.
pub fn reverberant_db(level_1m_db: f64, source_q: f64, microphone_q: f64, room_constant_m2: f64) -> f64 {
    level_1m_db + SPHERE_DB + 10.0 * (4.0 / (room_constant_m2 * source_q * microphone_q)).log10()
}

/// Clarity of 50 ms, dB: 10 lg((d + 1 - e) / e), e = exp(-0.69 / T) (ISO 3382-1, an exponential decay from 0; no direct
/// sound counts as none).
pub fn clarity_c50_db(rt60_s: f64, direct_to_reverberant_db: Option<f64>) -> f64 {
    let late = (-0.05 * 6.0 * std::f64::consts::LN_10 / rt60_s).exp();
    let direct = direct_to_reverberant_db.map_or(0.0, super::level::energy);
    10.0 * ((direct + 1.0 - late) / late).log10()
}

/// In words (Fogon's own scale; a difference of 2 to 3 dB can be heard).
pub fn direct_words(direct_to_reverberant_db: f64) -> &'static str {
    match direct_to_reverberant_db {
        db if db >= 10.0 => "close",
        db if db >= 3.0 => "good",
        db if db >= -3.0 => "roomy",
        _ => "distant",
    }
}
