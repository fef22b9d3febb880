//! Where the sound is recorded, what the input has to give, and what can fail without being noticed.

mod cable;
mod checklist;
mod path;

use serde::Serialize;
use utoipa::ToSchema;

use crate::corner::Corner;

use cable::{cable_m, cable_words};
use checklist::silent_failures;
use path::{reason, taken_by};

pub use path::{RecordPath, input};

/// Drift of two clocks where nobody has measured it, parts in a million (real ones 1 to 50: common practice, no source).
const DRIFT_PPM: f64 = 20.0;
/// A session where none is given, min.
pub const SESSION_MIN: f64 = 30.0;

/// The way of the sound into a file.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Record {
    /// Where it goes.
    pub path: RecordPath,
    /// Why, in one sentence.
    pub reason: String,
    /// What to look at before every take, because it fails without a sound.
    pub before_each_take: Vec<String>,
    /// How far picture and sound run apart over the session, ms; none where they share a clock.
    pub drift_ms: Option<f64>,
    /// The same in frames.
    pub drift_frames: Option<f64>,
    /// What that means, in words.
    pub drift_words: Option<&'static str>,
    /// Cable from the microphone to its input along the floor, m; none where there is none.
    pub cable_m: Option<f64>,
    /// That in words, with what such a cable may do.
    pub cable_words: Option<String>,
}

/// How far two clocks run apart, ms and frames.
pub fn drift(drift_ppm: f64, minutes: f64, frame_rate_hz: f64) -> (f64, f64) {
    let seconds = drift_ppm * 1e-6 * minutes * 60.0;
    (seconds * 1000.0, seconds * frame_rate_hz)
}

/// The way of the sound into a file.
pub fn record(corner: &Corner<'_>) -> Record {
    let (gear, _) = corner.heard_by();
    let (path, thing) = taken_by(corner);
    let minutes = corner.brief.recording.session_min.unwrap_or(SESSION_MIN);
    let (ms, frames) = drift(DRIFT_PPM, minutes, corner.layout.camera.frame_rate_hz);
    let cable_m = cable_m(corner, gear, path);
    Record {
        cable_m,
        cable_words: cable_m.map(|m| cable_words(corner, gear, m)),
        path,
        reason: reason(corner, path, thing),
        before_each_take: silent_failures(gear, path),
        drift_ms: path.is_apart().then_some(ms),
        drift_frames: path.is_apart().then_some(frames),
        drift_words: path.is_apart().then(|| drift_words(frames)),
    }
}

/// In words (Fogon's own scale, after EBU R 37, from memory: sound may be 40 ms early to 60 ms late).
pub fn drift_words(frames: f64) -> &'static str {
    match frames {
        f if f <= 0.5 => "nothing to do",
        f if f <= 1.0 => "check the lips at the end",
        _ => "clap at the end as well, and stretch the sound to fit",
    }
}
