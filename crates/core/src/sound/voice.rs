//! The voice: how loud, in which bands, to which side.

use std::f64::consts::LN_10;

use crate::plan::Effort;

/// Octave bands of speech, 125 Hz to 8 kHz: the room's six and one more.
pub const SPEECH_HZ: [f64; 7] = [125.0, 250.0, 500.0, 1000.0, 2000.0, 4000.0, 8000.0];

/// One value for each octave band of speech.
pub type SpeechBands = [f64; 7];

/// Octave levels of a male voice against its A-weighted level, dB (IEC 60268-16, from memory).
pub const MALE_DB: SpeechBands = [2.9, 2.9, -0.8, -6.8, -12.8, -18.8, -24.8];
/// So much less straight behind the mouth, dB. Fogon's own model, of the order that Chu and Warnock (NRC Canada 2002, from
/// memory) measured; good to 3 dB.
const BEHIND_DB: SpeechBands = [2.0, 4.0, 6.0, 9.0, 13.0, 17.0, 20.0];

/// Level at 1 m before the mouth, dBA (ISO 9921, from memory).
pub fn level_1m_dba(effort: Effort) -> f64 {
    match effort {
        Effort::Relaxed => 54.0,
        Effort::Normal => 60.0,
        Effort::Raised => 66.0,
        Effort::Loud => 72.0,
    }
}

/// Octave levels of a voice at 1 m on its axis, dB, of this A-weighted level (spectrum of IEC 60268-16, from memory).
pub fn spectrum_1m_db(level_1m_dba: f64) -> SpeechBands {
    MALE_DB.map(|db| level_1m_dba + db)
}

/// How much less than straight ahead a voice gives to a side, dB, by band: D180 (1 - cos theta) / 2.
pub fn off_axis_db(band: usize, off_axis_deg: f64) -> f64 {
    BEHIND_DB[band.min(6)] * (1.0 - off_axis_deg.to_radians().cos()) / 2.0
}

/// Directivity factor of a voice on its axis, by band: a / (1 - e^-a), a = D180 ln 10 / 10 (the integral of the fall above).
pub fn directivity() -> SpeechBands {
    BEHIND_DB.map(|db| {
        let a = db * LN_10 / 10.0;
        a / (1.0 - (-a).exp())
    })
}
