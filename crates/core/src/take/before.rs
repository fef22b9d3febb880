//! A take against those before it: what has drifted, and what that comes from.

use std::collections::BTreeMap;

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::sound::SoundMeasures;
use crate::units::decimals;

macro_rules! figures {
    ($($(#[$doc:meta])* $name:ident = $label:literal, $unit:literal, $digits:literal, $drift:literal;)+) => {
        /// A figure that is kept of every take.
        #[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize, ToSchema)]
        #[serde(rename_all = "kebab-case")]
        pub enum Figure {
            $($(#[$doc])* $name,)+
        }

        impl Figure {
            /// Every figure.
            pub const ALL: &[Figure] = &[$(Figure::$name,)+];

            /// In words.
            pub fn label(self) -> &'static str {
                match self { $(Figure::$name => $label,)+ }
            }

            /// Its unit.
            pub fn unit(self) -> &'static str {
                match self { $(Figure::$name => $unit,)+ }
            }

            fn digits(self) -> usize {
                match self { $(Figure::$name => $digits,)+ }
            }

            /// A change beyond this is told; what is less comes and goes between takes of one corner. Fogon's own rule.
            fn drift(self) -> f64 {
                match self { $(Figure::$name => $drift,)+ }
            }
        }
    };
}

figures! {
    /// Peak of the loudest word.
    SpeechPeakDbfs = "Loudest word", "dBFS", 1, 4.0;
    /// Speech.
    SpeechDbfsA = "Speech", "dBFS(A)", 1, 3.0;
    /// Noise.
    NoiseDbfsA = "Noise", "dBFS(A)", 1, 3.0;
    /// Speech over noise.
    SnrDb = "Speech over noise", "dB", 1, 3.0;
    /// Mains hum; absent where there is none.
    HumDbfs = "Mains hum", "dBFS", 1, 6.0;
    /// Integrated loudness.
    IntegratedLufs = "Loudness", "LUFS", 1, 3.0;
    /// Reverberation time, mean of 500 Hz and 1 kHz.
    RtMidS = "Reverberation", "s", 2, 0.08;
    /// Skin against the plan.
    SkinStops = "Face", "stops", 1, 0.3;
    /// What is behind the person, against the plan.
    BackgroundStops = "Background", "stops", 1, 0.4;
    /// White balance that the neutral point asks for.
    WhiteBalanceK = "White balance", "K", 0, 300.0;
    /// Height of the lens against the plan.
    CameraHeightM = "Camera height", "m", 2, 0.03;
    /// Lens to eyes.
    CameraDistanceM = "Camera distance", "m", 2, 0.08;
    /// Tilt.
    CameraTiltDeg = "Camera tilt", "\u{b0}", 1, 1.0;
    /// Air over the head, parts of the picture's height.
    HeadroomFraction = "Headroom", "of the height", 2, 0.03;
}

/// The figures of one take.
pub type Figures = BTreeMap<Figure, f64>;

/// The figures of a recording.
pub fn figures(measured: &SoundMeasures) -> Figures {
    let Some(channel) = measured.loudest() else { return Figures::new() };
    let spoken = channel.speech_dbfs_a.map(|_| channel.speech_peak_dbfs);
    [
        (Figure::SpeechPeakDbfs, spoken),
        (Figure::SpeechDbfsA, channel.speech_dbfs_a),
        (Figure::NoiseDbfsA, channel.noise_dbfs_a.filter(|_| channel.snr_reliable)),
        (Figure::SnrDb, channel.snr_db_a.filter(|_| channel.snr_reliable)),
        (Figure::HumDbfs, channel.hum.total_dbfs),
        (Figure::IntegratedLufs, measured.integrated_lufs),
        (Figure::RtMidS, measured.rt.as_ref().and_then(|rt| rt.mid_s)),
    ]
    .into_iter()
    .filter_map(|(figure, value)| Some((figure, value?)))
    .collect()
}

/// One figure beside the last times.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Beside {
    /// Which.
    pub figure: Figure,
    /// In words.
    pub label: &'static str,
    /// Its unit.
    pub unit: &'static str,
    /// Now.
    pub now: f64,
    /// The middle one of the last times.
    pub before: f64,
    /// It has drifted.
    pub drifted: bool,
    /// Now and before, in words.
    pub words: String,
}

/// A take beside the last ones.
#[derive(Debug, Clone, Default, PartialEq, Serialize, ToSchema)]
pub struct Against {
    /// So many takes it was held against.
    pub takes: usize,
    /// Every figure that both have.
    pub figures: Vec<Beside>,
    /// What has changed, in sentences, and what that comes from.
    pub told: Vec<String>,
}

/// A take's figures against those of earlier ones, the last first.
pub fn against(now: &Figures, before: &[Figures]) -> Against {
    let figures: Vec<Beside> = now
        .iter()
        .filter_map(|(figure, value)| {
            let past = middle(before.iter().filter_map(|one| one.get(figure).copied()))?;
            let (figure, value) = (*figure, *value);
            let written = |v: f64| decimals(v, figure.digits()).replace('-', "\u{2212}");
            Some(Beside {
                figure,
                label: figure.label(),
                unit: figure.unit(),
                now: value,
                before: past,
                drifted: (value - past).abs() > figure.drift(),
                words: format!("{} {}, {} before", written(value), figure.unit(), written(past)),
            })
        })
        .collect();
    let told = told(&figures, now, before);
    Against { takes: before.len(), figures, told }
}

/// The middle one.
fn middle(values: impl Iterator<Item = f64>) -> Option<f64> {
    let mut sorted: Vec<f64> = values.collect();
    sorted.sort_by(f64::total_cmp);
    sorted.get(sorted.len() / 2).copied()
}

/// What has changed, cause before signs: what one cause explains is told once.
fn told(figures: &[Beside], now: &Figures, before: &[Figures]) -> Vec<String> {
    let change =
        |figure: Figure| figures.iter().find(|one| one.figure == figure).map(|one| one.now - one.before);
    let drifted = |figure: Figure| {
        figures.iter().find(|one| one.figure == figure && one.drifted).map(|one| one.now - one.before)
    };
    let by = |amount: f64, figure: Figure| {
        format!("{} {}", decimals(amount.abs(), figure.digits()), plain(figure.unit()))
    };
    let mut all = Vec::new();
    let (speech, noise) = (drifted(Figure::SpeechDbfsA), drifted(Figure::NoiseDbfsA));
    match (speech, noise) {
        (Some(speech), Some(noise)) if (speech - noise).abs() < 2.0 => all.push(format!(
            "Speech and noise are both {} {}: the input was turned {}.",
            by(speech, Figure::SpeechDbfsA),
            if speech > 0.0 { "louder" } else { "softer" },
            if speech > 0.0 { "up" } else { "down" }
        )),
        (speech, noise) => {
            if let Some(speech) = speech {
                let (way, cause) = if speech > 0.0 {
                    ("louder", "you are nearer, or speak up")
                } else {
                    ("softer", "the microphone is further away, or you speak more softly")
                };
                all.push(format!("Speech is {} {way}: {cause}.", by(speech, Figure::SpeechDbfsA)));
            }
            if let Some(noise) = noise {
                let words = if noise > 0.0 {
                    "louder: something runs in the room that did not before"
                } else {
                    "softer: something was switched off, or a gate is on"
                };
                all.push(format!("The noise is {} {words}.", by(noise, Figure::NoiseDbfsA)));
            }
        }
    }
    let hummed = before.iter().any(|one| one.contains_key(&Figure::HumDbfs));
    if now.contains_key(&Figure::HumDbfs) && !hummed && !before.is_empty() {
        all.push("Mains hum is new: a cable lies otherwise, or a charger was plugged in.".into());
    }
    if let Some(room) = drifted(Figure::RtMidS) {
        let words = if room > 0.0 {
            "longer: something soft was taken out of the room"
        } else {
            "shorter: something soft came into the room"
        };
        all.push(format!("The reverberation time is {} {words}.", by(room, Figure::RtMidS)));
    }
    let (face, back) = (drifted(Figure::SkinStops), drifted(Figure::BackgroundStops));
    match (face, back) {
        (Some(face), Some(back)) if face * back > 0.0 && (face - back).abs() < 0.4 => all.push(format!(
            "The whole picture is {} {}: the camera is set otherwise, or the daylight has changed.",
            by(face, Figure::SkinStops),
            if face > 0.0 { "brighter" } else { "darker" }
        )),
        (face, back) => {
            if let Some(face) = face {
                let words = if face > 0.0 {
                    "brighter: the key is nearer or its dial higher"
                } else {
                    "darker: the key is further away, its dial lower, or its battery empty"
                };
                all.push(format!("Your face is {} {words}.", by(face, Figure::SkinStops)));
            }
            if let Some(back) = back {
                let words = if back > 0.0 {
                    "brighter: a curtain is open, or a lamp on"
                } else {
                    "darker: a lamp behind you is off"
                };
                all.push(format!("The background is {} {words}.", by(back, Figure::BackgroundStops)));
            }
        }
    }
    if let Some(white) = drifted(Figure::WhiteBalanceK) {
        let words = if white > 0.0 { "bluer" } else { "warmer" };
        all.push(format!(
            "The light is {words} by {}: another lamp, another dial, or daylight.",
            by(white, Figure::WhiteBalanceK)
        ));
    }
    let camera = [Figure::CameraHeightM, Figure::CameraDistanceM, Figure::CameraTiltDeg];
    let moved: Vec<String> = camera
        .into_iter()
        .filter_map(|figure| {
            let amount = drifted(figure)?;
            let words = match (figure, amount > 0.0) {
                (Figure::CameraHeightM, true) => "higher",
                (Figure::CameraHeightM, false) => "lower",
                (Figure::CameraDistanceM, true) => "further away",
                (Figure::CameraDistanceM, false) => "nearer",
                (_, true) => "turned up",
                (_, false) => "turned down",
            };
            Some(format!("{} {words}", by(amount, figure)))
        })
        .collect();
    if !moved.is_empty() {
        all.push(format!("The camera has moved: {}.", moved.join(", ")));
    }
    if all.is_empty() && change(Figure::SpeechDbfsA).or(change(Figure::SkinStops)).is_some() {
        all.push("As last time.".into());
    }
    all
}

/// A unit as it is said.
fn plain(unit: &str) -> &str {
    match unit {
        "dBFS(A)" | "dBFS" | "LUFS" => "dB",
        other => other,
    }
}
