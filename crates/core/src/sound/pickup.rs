//! From the mouth to the recording: what a microphone at a place gets of the voice, the room and the noise.

use super::absorption::Absorption;
use super::field::{clarity_c50_db, critical_distance_m, direct_to_reverberant_db, reverberant_db};
use super::intelligibility::{BandOfSpeech, speech_transmission_index};
use super::level::{a_weighting_db, energy, sum_db};
use super::noise::band_ratios_db;
use super::voice::{SPEECH_HZ, SpeechBands, directivity, off_axis_db, spectrum_1m_db};

/// A voice, a room and its noise, ready for microphones.
#[derive(Debug, Clone, PartialEq)]
pub struct Scene {
    /// Level of the voice at 1 m before the mouth, dBA.
    pub voice_1m_dba: f64,
    /// Reverberation time, s.
    pub rt60_s: SpeechBands,
    /// Room constant, m2.
    pub room_constant_m2: SpeechBands,
}

impl Scene {
    /// A voice in a corner's room.
    pub fn new(absorption: &Absorption, voice_1m_dba: f64) -> Self {
        Self {
            voice_1m_dba,
            rt60_s: absorption.speech_rt60_s(),
            room_constant_m2: absorption.room_constants_m2(),
        }
    }

    /// Room constant at 500 Hz and 1 kHz, m2.
    pub fn room_constant_mid_m2(&self) -> f64 {
        (self.room_constant_m2[2] + self.room_constant_m2[3]) / 2.0
    }
}

/// A microphone at a place.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct MicrophonePlaced {
    /// From the mouth, m; at least 0.02.
    pub distance_m: f64,
    /// Off the axis of the mouth, degrees.
    pub off_axis_deg: f64,
    /// What it takes from the mouth against its own axis, dB at 1 kHz: 0 where it is aimed at the mouth.
    pub voice_gain_db: f64,
    /// Directivity factors.
    pub q: SpeechBands,
    /// Its own noise, dBA.
    pub self_noise_dba: f64,
    /// Octave levels of the room's noise as it hears it, dB.
    pub noise_db: SpeechBands,
}

/// What arrives.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Pickup {
    /// Voice straight from the mouth, dBA.
    pub direct_dba: f64,
    /// Voice by way of the room, dBA.
    pub reverberant_dba: f64,
    /// Both, dBA.
    pub speech_dba: f64,
    /// Both, unweighted, dB.
    pub speech_db: f64,
    /// Noise of room and microphone, dBA.
    pub noise_dba: f64,
    /// Speech over noise, dB.
    pub snr_dba: f64,
    /// Direct over reverberant voice, dB.
    pub direct_to_reverberant_db: SpeechBands,
    /// Clarity at 1 kHz, dB.
    pub c50_1k_db: f64,
    /// Speech transmission index.
    pub sti: f64,
    /// Distance at which direct and reverberant voice are alike, at 500 Hz to 2 kHz, on the mouth's axis, m.
    pub critical_distance_m: f64,
}

impl Pickup {
    /// Mean of 500 Hz, 1 kHz and 2 kHz, dB.
    pub fn direct_to_reverberant_mid_db(&self) -> f64 {
        self.direct_to_reverberant_db[2..5].iter().sum::<f64>() / 3.0
    }
}

/// A-weighted sum of octave levels, dBA.
pub fn weighted_dba(levels_db: SpeechBands) -> f64 {
    sum_db(levels_db.iter().zip(SPEECH_HZ).map(|(db, hz)| db + a_weighting_db(hz)))
}

/// Works the chain out.
pub fn pickup(scene: &Scene, at: &MicrophonePlaced) -> Pickup {
    let distance = at.distance_m.max(0.02);
    let (voice, mouth_q) = (spectrum_1m_db(scene.voice_1m_dba), directivity());
    let towards = |k: usize| at.voice_gain_db - off_axis_db(k, at.off_axis_deg);
    let direct: SpeechBands = std::array::from_fn(|k| voice[k] - 20.0 * distance.log10() + towards(k));
    let reverberant: SpeechBands =
        std::array::from_fn(|k| reverberant_db(voice[k], mouth_q[k], at.q[k], scene.room_constant_m2[k]));
    let ratio: SpeechBands = std::array::from_fn(|k| {
        let critical = critical_distance_m(mouth_q[k], at.q[k], scene.room_constant_m2[k]);
        direct_to_reverberant_db(distance, critical) + towards(k)
    });
    let both: SpeechBands =
        std::array::from_fn(|k| 10.0 * (energy(direct[k]) + energy(reverberant[k])).log10());
    let over_noise = band_ratios_db(both, at.noise_db, at.self_noise_dba);
    let bands = std::array::from_fn(|k| BandOfSpeech {
        rt60_s: scene.rt60_s[k],
        snr_db: Some(over_noise[k]),
        direct_to_reverberant_db: Some(ratio[k]),
    });
    let noise_dba = sum_db([weighted_dba(at.noise_db), at.self_noise_dba]);
    let speech_dba = weighted_dba(both);
    let critical: f64 =
        (2..5).map(|k| critical_distance_m(mouth_q[k], at.q[k], scene.room_constant_m2[k])).sum::<f64>()
            / 3.0;
    Pickup {
        direct_dba: weighted_dba(direct),
        reverberant_dba: weighted_dba(reverberant),
        speech_dba,
        speech_db: sum_db(both),
        noise_dba,
        snr_dba: speech_dba - noise_dba,
        direct_to_reverberant_db: ratio,
        c50_1k_db: clarity_c50_db(scene.rt60_s[3], Some(ratio[3])),
        sti: speech_transmission_index(&bands).0,
        critical_distance_m: critical,
    }
}
