//! Where the sound is recorded, what the input has to give, and what can fail without being noticed.

use serde::Serialize;
use utoipa::ToSchema;

use super::gain::{CREST_DB, Gain, MUCH_DB, TARGET_PEAK_DBFS, preamplifier};
use super::pickup::Pickup;
use crate::corner::Corner;
use crate::plan::{Gear, GearMicrophone, GearThing, Mounting, RecordSchool};
use crate::reading::{From, Reading};

/// Level that fills the scale of an input nobody has figures of, dBu (common practice, no source).
const FULL_SCALE_DBU: f64 = 4.0;
/// Drift of two clocks where nobody has measured it, parts in a million (real ones 1 to 50: common practice, no source).
const DRIFT_PPM: f64 = 20.0;
/// A loop of cable at each end, m.
const LOOP_M: f64 = 0.3;
/// So far balanced and thin unbalanced leads carry a microphone without care, m (common practice, no source).
const BALANCED_M: f64 = 30.0;
const PLUG_M: f64 = 3.0;
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
    /// Through an interface into a computer, joined by a clap.
    Computer,
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

/// Recorder or interface at hand that takes the microphone, and where the sound then goes.
fn taken_by<'a>(corner: &Corner<'a>) -> Option<(&'a GearThing, RecordPath)> {
    let (gear, _) = corner.microphone?;
    let needs_xlr = gear.common.needs.iter().any(|need| need == "xlr-input");
    let separate = corner.brief.schools.record == RecordSchool::Separate;
    if !needs_xlr && !separate {
        return None;
    }
    let at_hand = corner.brief.gear.values().filter(|gear| gear.at_hand());
    let mut fit = at_hand.filter_map(|gear| {
        let found = match gear {
            Gear::Recorder(thing) => (thing, RecordPath::Recorder),
            Gear::Interface(thing) => (thing, RecordPath::Computer),
            _ => return None,
        };
        (!needs_xlr || found.0.common.offers.iter().any(|offer| offer == "xlr-input")).then_some(found)
    });
    let first = fit.next()?;
    // A recorder where it is wished for, else the interface.
    let wished = if separate { RecordPath::Recorder } else { RecordPath::Computer };
    Some(std::iter::once(first).chain(fit).find(|found| found.1 == wished).unwrap_or(first))
}

/// Recorder or interface at hand that takes the microphone.
pub fn input<'a>(corner: &Corner<'a>) -> Option<&'a GearThing> {
    taken_by(corner).map(|found| found.0)
}

/// Where the sound of a corner is recorded, and why.
fn path(corner: &Corner<'_>) -> (RecordPath, String) {
    let separate = corner.brief.schools.record == RecordSchool::Separate;
    match taken_by(corner) {
        Some((thing, path)) => {
            let name = lower(thing);
            let why = if path == RecordPath::Recorder {
                format!("Into the {name}: better inputs than a camera's, joined by a clap.")
            } else {
                format!("Through the {name} into a computer, joined to the picture by a clap.")
            };
            (path, why)
        }
        None if separate => (RecordPath::Camera, "Into the camera: no recorder is at hand.".into()),
        None => (RecordPath::Camera, "Into the camera: one file, nothing to join.".into()),
    }
}

fn lower(thing: &GearThing) -> String {
    let label = &thing.common.label;
    label.split(',').next().unwrap_or(label).to_lowercase()
}

/// The way of the sound into a file; `None` without a microphone.
pub fn record(corner: &Corner<'_>) -> Option<Record> {
    let (gear, _) = corner.microphone?;
    let (path, reason) = path(corner);
    let apart = path != RecordPath::Camera;
    let minutes = corner.brief.recording.session_min.unwrap_or(SESSION_MIN);
    let (ms, frames) = drift(DRIFT_PPM, minutes, corner.layout.camera.frame_rate_hz);
    let cable_m = cable_m(corner, gear, path);
    Some(Record {
        cable_m,
        cable_words: cable_m.map(|m| cable_words(corner, gear, m)),
        path,
        reason,
        before_each_take: silent_failures(gear, path),
        drift_ms: apart.then_some(ms),
        drift_frames: apart.then_some(frames),
        drift_words: apart.then(|| drift_words(frames)),
    })
}

/// Down the stand, along the floor and up to the input, with a loop at each end, m; an interface or recorder lies on the floor by
/// the camera (Fogon's own rule).
fn cable_m(corner: &Corner<'_>, gear: &GearMicrophone, path: RecordPath) -> Option<f64> {
    if gear.wireless || matches!(gear.mounting, Mounting::BuiltIn | Mounting::OnCamera) {
        return None;
    }
    let (_, capsule) = corner.microphone?;
    let used = corner.layout.microphone.as_ref()?;
    let foot = used.support.base_m.map_or_else(|| capsule.truncate(), crate::geometry::DVec2::from);
    let camera = corner.view.position_m;
    let arm = (capsule.truncate() - foot).length();
    let up = if path == RecordPath::Camera { camera.z } else { 0.0 };
    Some(arm + capsule.z + (foot - camera.truncate()).length() + up + 2.0 * LOOP_M)
}

fn cable_words(corner: &Corner<'_>, gear: &GearMicrophone, cable_m: f64) -> String {
    let balanced = gear.common.needs.iter().any(|need| need == "xlr-input");
    let long = corner.brief.units.length(cable_m);
    let most = if balanced { BALANCED_M } else { PLUG_M };
    let word = if cable_m <= most {
        format!("{} carry that without care", if balanced { "balanced leads" } else { "thin leads" })
    } else {
        format!(
            "more than the {} that {} carry: use a balanced microphone, or a recorder beside you",
            corner.brief.units.length(most),
            if balanced { "balanced leads" } else { "thin leads" }
        )
    };
    format!(
        "Cable: {long} down the stand, along the floor and up again, a loop at each end; {word}. Cross mains leads at right angles, tape it down, none across the door."
    )
}

/// In words (Fogon's own scale, after EBU R 37, from memory: sound may be 40 ms early to 60 ms late).
pub fn drift_words(frames: f64) -> &'static str {
    match frames {
        f if f <= 0.5 => "nothing to do",
        f if f <= 1.0 => "check the lips at the end",
        _ => "clap at the end as well, and stretch the sound to fit",
    }
}

/// What fails without a sound, in the order in which it is looked at (common practice, no source).
fn silent_failures(gear: &GearMicrophone, path: RecordPath) -> Vec<String> {
    let mut all: Vec<String> = Vec::new();
    let mut say = |line: &str| all.push(line.into());
    if gear.mounting != Mounting::BuiltIn {
        say("Scratch the microphone: the meter of the input that records must jump.");
        say("Plugs pushed home; the input menu set to this microphone.");
    }
    say("Automatic gain off; loudest sentence peaks at \u{2212}12 to \u{2212}6 dBFS.");
    if matches!(gear.mounting, Mounting::Lavalier | Mounting::Headset)
        || gear.common.needs.iter().any(|need| need == "battery")
    {
        say("Fresh cells for one and a half times the session; on, and not muted.");
    }
    if gear.mounting == Mounting::Lavalier {
        say("Turn the head both ways: no rustle from cloth, hair or a chain; cable looped and taped.");
    }
    match path {
        RecordPath::Camera => {
            say("Headphones on the camera, turned down first: your voice, no hum, no radio.")
        }
        RecordPath::Recorder => {
            say("Recorder running (counter moves), card free; the camera's own sound on, for the clap.")
        }
        RecordPath::Computer => {
            say("The program records from the interface, not from the computer's own microphone.")
        }
    }
    if path != RecordPath::Camera {
        say("One clap at the mouth, in picture, at start and end.");
    }
    say(
        "Phone to flight mode; fridge, fan and washing machine off \u{2013} and a note to turn them on again.",
    );
    all
}

/// Gain of the input for the loudest words, with its working; `None` where the sensitivity is not known.
pub fn gain_reading(corner: &Corner<'_>, gear: &GearMicrophone, got: &Pickup) -> Option<Reading> {
    let sensitivity = gear.sensitivity_mv_pa?;
    let thing = input(corner);
    let (full_scale, from) = thing
        .and_then(|thing| Some((thing.full_scale_dbu?, thing.common.told())))
        .unwrap_or((FULL_SCALE_DBU, From::Assumed));
    let Gain { peak_spl_db, peak_output_dbu, gain_db } =
        preamplifier(got.speech_db, CREST_DB, sensitivity, full_scale, TARGET_PEAK_DBFS);
    let mut reading = Reading::new("sound.microphone.gain_db", gain_db)
        .by(
            "target - (SPL - 94 + 20 lg(V/Pa) + 2.2185 - full scale)",
            "unit arithmetic; crest 18 dB is a planning figure",
        )
        .with("speech at the microphone", got.speech_db, "dB", From::Computed)
        .with("its peaks", peak_spl_db, "dB", From::Computed)
        .with("at the microphone's output", peak_output_dbu, "dBu", From::Computed)
        .with("full scale of the input", full_scale, "dBu", from)
        .with("wanted peak", TARGET_PEAK_DBFS, "dBFS", From::Computed)
        .within(6.0);
    let most = thing.and_then(|thing| thing.gain_max_db).unwrap_or(MUCH_DB);
    reading = reading.note(if gain_db > most {
        "More than the input has: come nearer, or use a stronger preamplifier."
    } else {
        "Set it by the meter: the loudest sentence between \u{2212}12 and \u{2212}6 dBFS, automatic gain off."
    });
    Some(reading)
}
