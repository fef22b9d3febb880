//! Reverberation time from absorption: Sabine 1922, Eyring 1930 (ISO 3382-2, EN 12354-6); targets, and the area that
//! reaches them.

use super::absorption::{Absorption, mid};
use crate::reading::{Origin, Quantity, Reading};

/// The best times for a voice before a microphone, mean of 500 Hz and 1 kHz, s (Fogon's own rule, after BS.1116 and DIN
/// 18041, both from memory).
pub const BEST_S: [f64; 2] = [0.25, 0.35];
/// Still good, s (Fogon's own rule).
pub const GOOD_S: [f64; 2] = [0.20, 0.40];

/// A furnished room of which nobody told rings so many times what is taken for it: 0.4 to 0.8 s for 0.5 s. Fogon's own rule.
const ASSUMED: [f64; 2] = [0.8, 1.6];

/// What a room may ring at least and at most of which nobody told, s.
pub fn assumed_range_s(mid_s: f64) -> [f64; 2] {
    ASSUMED.map(|part| part * mid_s)
}

/// Times for speech that standards give for a room of a size, s: of a control room, 0.25 (V / 100)^(1/3) (ITU-R BS.1116-3,
/// from memory), and of a room for speech, 0.32 lg V - 0.17 (DIN 18041 A3, from memory, for 30 to 5000 m3).
pub fn targets_s(volume_m3: f64) -> [f64; 2] {
    [0.25 * (volume_m3 / 100.0).cbrt(), 0.32 * volume_m3.log10() - 0.17]
}

/// In words, of the mean of 500 Hz and 1 kHz (Fogon's own scale).
pub fn words(rt_mid_s: f64) -> &'static str {
    match rt_mid_s {
        s if s < 0.15 => "very dead",
        s if s < GOOD_S[0] => "dry",
        s if s <= GOOD_S[1] => "good",
        s if s <= 0.60 => "live",
        _ => "echoey",
    }
}

/// What its bands say of its sound (Fogon's own rule after BS.1116): 125 Hz above 1.7 of the middle is boomy, an upper band
/// below three quarters of it dull, one above five quarters harsh.
pub fn shape_words(rt60_s: &crate::material::Bands) -> Option<&'static str> {
    let middle = mid(*rt60_s);
    if rt60_s[0] > 1.7 * middle || rt60_s[1] > 1.25 * middle {
        Some("boomy: low tones ring longer than the voice")
    } else if rt60_s[4..].iter().any(|s| *s < 0.75 * middle) {
        Some("dull: high tones die before the voice")
    } else if rt60_s[4..].iter().any(|s| *s > 1.25 * middle) {
        Some("harsh: high tones ring longer than the voice")
    } else {
        None
    }
}

/// The reverberation time of a corner's room with one person in it.
pub fn reading(absorption: &Absorption) -> Reading {
    let (eyring, sabine) = (absorption.rt60_s(), absorption.sabine_s());
    let assumed = absorption.assumed;
    let mut reading = Reading::new(Quantity::SoundRoomRtMidS, mid(eyring))
        .by(
            "mean of 500 Hz and 1 kHz of K V / (-S ln(1 - A/S) + 4 m V), K = 24 ln 10 / 343",
            "Eyring 1930; ISO 3382-2; air ISO 9613-1; absorption after Vorlander 2008 and handbooks (from memory)",
        )
        .with("volume", absorption.volume_m3, "m\u{b3}", Origin::Typed)
        .with("surface", absorption.surface_m2, "m\u{b2}", Origin::Typed)
        .with(
            "absorption, 500 Hz and 1 kHz",
            mid(absorption.total_m2()),
            "m\u{b2}",
            if assumed { Origin::Assumed } else { Origin::Computed },
        )
        .with("at 125 Hz", eyring[0], "s", Origin::Computed)
        .with("at 4 kHz", eyring[5], "s", Origin::Computed)
        .with("Sabine instead", mid(sabine), "s", Origin::Computed)
        .within(mid(eyring) * if assumed { 0.4 } else { 0.15 });
    if assumed {
        reading.from = Origin::Assumed;
        let [least, most] = assumed_range_s(mid(eyring));
        reading = reading.assumed_within(least, most).note(
            "Not every surface is known: set so that a furnished room of unknown surfaces has 0.5 s. Say what is in the room, or clap once to measure it.",
        );
    }
    reading
}
