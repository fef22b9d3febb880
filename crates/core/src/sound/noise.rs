//! Noise at the microphone: from things in the room, from the street, from the microphone itself.

use super::field::SPHERE_DB;
use super::level::sum_db;
use super::voice::SpeechBands;

/// Octave levels of a steady noise against its A-weighted level, dB, 125 Hz to 8 kHz: the shape of NR 22 (ISO/R 1996:1971,
/// from memory). Fogon's own rule for every noise whose bands nobody has measured.
pub const STEADY_DB: SpeechBands = steady();

const fn steady() -> SpeechBands {
    // The levels of NR 22 sum to 30.3634 dBA over these seven bands.
    let levels = [41.14, 32.46, 26.228, 22.0, 18.83, 16.45, 14.66];
    let mut against = [0.0; 7];
    let mut band = 0;
    while band < 7 {
        against[band] = levels[band] - STEADY_DBA;
        band += 1;
    }
    against
}

/// A-weighted sum of the seven levels above, dBA.
const STEADY_DBA: f64 = 30.363_396;

/// Level of a noise at the microphone, dBA: direct L1m - 20 lg r + what the pattern leaves, and reverberant; the source
/// shines all round (Beranek).
pub fn source_at_microphone_dba(
    level_1m_dba: f64,
    distance_m: f64,
    pattern_gain_db: f64,
    microphone_q: f64,
    room_constant_m2: f64,
) -> f64 {
    let direct = level_1m_dba - 20.0 * distance_m.log10() + pattern_gain_db;
    let reverberant = level_1m_dba + SPHERE_DB + 10.0 * (4.0 / (room_constant_m2 * microphone_q)).log10();
    sum_db([direct, reverberant])
}

/// Level indoors of noise outside, dBA: L2m - R'w + 10 lg(S / A) (ISO 16283-3, EN 12354-3); L2m 2 m before the facade.
pub fn through_window_dba(outside_dba: f64, insulation_db: f64, window_m2: f64, absorption_m2: f64) -> f64 {
    outside_dba - insulation_db + 10.0 * (window_m2 / absorption_m2).log10()
}

/// Noise of a preamplifier as a sound level, dBA: 94 + EIN - 2.2185 - 20 lg(V/Pa); 0 dBu is 0.7746 V, 94 dB is 1 Pa (definitions).
pub fn preamplifier_dba(ein_dbu: f64, sensitivity_mv_pa: f64) -> f64 {
    // 1 Pa re 20 uPa; 0 dBu re 1 V.
    94.0 + ein_dbu + 20.0 * 0.774_596_669_241_483_4f64.log10() - 20.0 * (sensitivity_mv_pa / 1000.0).log10()
}

/// Speech over noise band by band, dB, the microphone's own noise added by energy; the room's noise as the microphone hears it.
pub fn band_ratios_db(speech_db: SpeechBands, noise_db: SpeechBands, self_noise_dba: f64) -> SpeechBands {
    let own = self_noise_db(self_noise_dba);
    std::array::from_fn(|k| speech_db[k] - sum_db([noise_db[k], own[k]]))
}

/// Octave levels of a microphone's own noise, dB: equal energy in every hertz, of this A-weighted level (Fogon's own rule).
pub fn self_noise_db(self_noise_dba: f64) -> SpeechBands {
    // An octave twice as wide holds 3 dB more.
    let shape: SpeechBands = std::array::from_fn(|k| 3.010_299_956_639_812 * k as f64);
    let weighted = sum_db(
        shape.iter().zip(super::voice::SPEECH_HZ).map(|(db, hz)| db + super::level::a_weighting_db(hz)),
    );
    shape.map(|db| db + self_noise_dba - weighted)
}

/// In words, of a room's noise (common practice, no source).
pub fn room_words(noise_dba: f64) -> &'static str {
    match noise_dba {
        db if db <= 25.0 => "very quiet",
        db if db <= 30.0 => "good",
        db if db <= 40.0 => "marginal",
        _ => "bad",
    }
}

/// In words, of speech over noise, A-weighted (common practice, no source).
pub fn ratio_words(snr_dba: f64) -> &'static str {
    match snr_dba {
        db if db >= 35.0 => "excellent",
        db if db >= 30.0 => "good",
        db if db >= 25.0 => "acceptable",
        db if db >= 20.0 => "noisy",
        _ => "poor",
    }
}
