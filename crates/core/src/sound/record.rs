//! Where the sound is recorded, what the input has to give, and what can fail without being noticed.

mod cable;
mod checklist;

use serde::Serialize;
use utoipa::ToSchema;

use crate::corner::{Corner, Kit};
use crate::plan::{Gear, GearThing, Mounting, RecordSchool, ThingId};

use cable::{cable_m, cable_words};
use checklist::silent_failures;

/// Drift of two clocks where nobody has measured it, parts in a million (real ones 1 to 50: common practice, no source).
const DRIFT_PPM: f64 = 20.0;
/// A session where none is given, min.
const SESSION_MIN: f64 = 30.0;

/// Where the sound goes.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum RecordPath {
    /// Into the camera, with the picture.
    Camera,
    /// Into a recorder of its own, joined by a clap.
    Recorder,
    /// Through an interface or by USB into a computer, joined by a clap.
    Computer,
    /// Nothing at hand takes the microphone.
    Nowhere,
}

impl RecordPath {
    /// Sound and picture are two files.
    pub fn is_apart(self) -> bool {
        matches!(self, RecordPath::Recorder | RecordPath::Computer)
    }
}

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

/// What takes the microphone: the path, and the recorder or interface on it.
fn taken_by<'a>(corner: &Corner<'a>) -> Option<(RecordPath, Option<&'a GearThing>)> {
    let (microphone, _) = corner.microphone?;
    let kit = Kit::of(corner);
    let lacks_input = |need: &str| need.ends_with("input");
    if kit.unmet.iter().any(|unmet| unmet.of == ThingId::Microphone && lacks_input(unmet.need)) {
        return Some((RecordPath::Nowhere, None));
    }
    let gear = &corner.brief.gear;
    if let Some(link) = kit.input(&ThingId::Microphone) {
        return Some(match link.by.and_then(|id| gear.get(id)) {
            Some(Gear::Recorder(thing)) => (RecordPath::Recorder, Some(thing)),
            Some(Gear::Interface(thing)) => (RecordPath::Computer, Some(thing)),
            Some(Gear::Camera(_)) => (RecordPath::Camera, None),
            // Whatever else has an input for it is a computer.
            _ => (RecordPath::Computer, None),
        });
    }
    // A plain plug fits them all.
    let separate = corner.brief.schools.record == RecordSchool::Separate;
    let apart = separate && !matches!(microphone.mounting, Mounting::BuiltIn);
    let at_hand = || gear.values().filter(|gear| gear.at_hand());
    let recorder = at_hand().find_map(|gear| match gear {
        Gear::Recorder(thing) => Some((RecordPath::Recorder, Some(thing))),
        _ => None,
    });
    let interface = at_hand().find_map(|gear| match gear {
        Gear::Interface(thing) => Some((RecordPath::Computer, Some(thing))),
        _ => None,
    });
    Some(recorder.or(interface).filter(|_| apart).unwrap_or((RecordPath::Camera, None)))
}

/// Recorder or interface at hand that takes the microphone.
pub fn input<'a>(corner: &Corner<'a>) -> Option<&'a GearThing> {
    taken_by(corner)?.1
}

/// Why the sound goes where it goes, in one sentence.
fn reason(corner: &Corner<'_>, path: RecordPath, thing: Option<&GearThing>) -> String {
    match (path, thing.map(lower)) {
        (RecordPath::Recorder, name) => {
            let name = name.unwrap_or_else(|| "recorder".into());
            format!("Into the {name}: better inputs than a camera's, joined by a clap.")
        }
        (RecordPath::Computer, Some(name)) => {
            format!("Through the {name} into a computer, joined to the picture by a clap.")
        }
        (RecordPath::Computer, None) => "By USB into the computer, joined to the picture by a clap.".into(),
        (RecordPath::Camera, _) if corner.brief.schools.record == RecordSchool::Separate => {
            "Into the camera: no recorder is at hand.".into()
        }
        (RecordPath::Camera, _) => "Into the camera: one file, nothing to join.".into(),
        (RecordPath::Nowhere, _) => "Nowhere yet: nothing at hand has the input that it needs.".into(),
    }
}

fn lower(thing: &GearThing) -> String {
    let label = &thing.common.label;
    label.split(',').next().unwrap_or(label).to_lowercase()
}

/// The way of the sound into a file; `None` without a microphone.
pub fn record(corner: &Corner<'_>) -> Option<Record> {
    let (gear, _) = corner.microphone?;
    let (path, thing) = taken_by(corner)?;
    let minutes = corner.brief.recording.session_min.unwrap_or(SESSION_MIN);
    let (ms, frames) = drift(DRIFT_PPM, minutes, corner.layout.camera.frame_rate_hz);
    let cable_m = cable_m(corner, gear, path);
    Some(Record {
        cable_m,
        cable_words: cable_m.map(|m| cable_words(corner, gear, m)),
        path,
        reason: reason(corner, path, thing),
        before_each_take: silent_failures(gear, path),
        drift_ms: path.is_apart().then_some(ms),
        drift_frames: path.is_apart().then_some(frames),
        drift_words: path.is_apart().then(|| drift_words(frames)),
    })
}

/// In words (Fogon's own scale, after EBU R 37, from memory: sound may be 40 ms early to 60 ms late).
pub fn drift_words(frames: f64) -> &'static str {
    match frames {
        f if f <= 0.5 => "nothing to do",
        f if f <= 1.0 => "check the lips at the end",
        _ => "clap at the end as well, and stretch the sound to fit",
    }
}
