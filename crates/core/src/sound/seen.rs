//! Everything that is told of a corner's sound, for the page: what absorbs, what reflects, what is heard, what helps.

use serde::Serialize;
use utoipa::ToSchema;

use super::absorption::{Absorption, surface_words};
use super::chart::{DistanceChart, chart};
use super::choices::{MicrophoneChoice, choices};
use super::record::{Record, record};
use super::treatment::{TreatmentAdvice, advice};
use super::{around, modes, reflections, reverberation};
use crate::corner::Corner;
use crate::material::{BANDS_HZ, Bands};
use crate::plan::Point3;
use crate::reading::Origin;

/// Modes are told up to this frequency, Hz: above, a small room is a field.
const MODES_TO_HZ: f64 = 120.0;

/// A corner's sound.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct SoundSeen {
    /// Mouth and capsule, m; the camera's own where there is no other.
    pub mouth_m: Point3,
    /// Capsule, m.
    pub capsule_m: Point3,
    /// Octave bands, Hz.
    pub bands_hz: [u32; 6],
    /// Reverberation time by band, s.
    #[schema(value_type = Vec<f64>)]
    pub rt60_s: Bands,
    /// The band of best times, s.
    #[schema(value_type = Vec<f64>)]
    pub best_s: [f64; 2],
    /// Still good, s.
    #[schema(value_type = Vec<f64>)]
    pub good_s: [f64; 2],
    /// What standards give for this volume, s: a control room (BS.1116-3) and a room for speech (DIN 18041 A3, stated from
    /// 30 m3 on); both from memory.
    #[schema(value_type = Vec<f64>)]
    pub standards_s: [f64; 2],
    /// Air in the room, m3.
    pub volume_m3: f64,
    /// By Sabine instead, by band, s.
    #[schema(value_type = Vec<f64>)]
    pub sabine_s: Bands,
    /// The mean in words.
    pub rt_words: String,
    /// What the bands beside each other say; null where they are even.
    pub shape_words: Option<String>,
    /// Surfaces had to be assumed.
    pub assumed: bool,
    /// What absorbs, most at 500 Hz and 1 kHz first.
    pub parts: Vec<PartSeen>,
    /// First reflections at the microphone, shortest way first.
    pub reflections: Vec<super::echoes::ReflectionSeen>,
    /// Bare parallel surfaces between which a clap flutters, in words.
    pub flutter: Vec<String>,
    /// Lowest modes of a rectangular room, Hz; empty of others.
    pub modes_hz: Vec<f64>,
    /// What the modes say, in words; empty where nothing stands out.
    pub modes_words: Vec<String>,
    /// Noises at the microphone, loudest first.
    pub noises: Vec<NoiseSeen>,
    /// Levels over distance.
    pub chart: DistanceChart,
    /// Microphones side by side.
    pub choices: Vec<MicrophoneChoice>,
    /// What would bring the room to its target.
    pub advice: TreatmentAdvice,
    /// The way of the sound into a file.
    pub record: Record,
}

/// Something that absorbs.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct PartSeen {
    /// In words.
    pub what: String,
    /// Area, m2, where it rests on one.
    pub area_m2: Option<f64>,
    /// Absorption area by band, m2.
    #[schema(value_type = Vec<f64>)]
    pub absorption_m2: Bands,
    /// How it was come by.
    pub from: Origin,
}

/// A noise at the microphone.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct NoiseSeen {
    /// In words.
    pub what: String,
    /// dBA.
    pub level_dba: f64,
    /// How its level was come by.
    pub from: Origin,
    /// It can be stopped for a take.
    pub can_stop: bool,
}

/// Works it all out.
pub fn seen(corner: &Corner<'_>) -> SoundSeen {
    let room = &corner.brief.room;
    let absorption = Absorption::of(corner);
    let rt60_s = absorption.rt60_s();
    let mut parts: Vec<PartSeen> = absorption
        .parts
        .iter()
        .map(|part| PartSeen {
            what: part.what.clone(),
            area_m2: part.area_m2,
            absorption_m2: part.absorption_m2,
            from: part.from,
        })
        .collect();
    let middle = |part: &PartSeen| part.absorption_m2[2] + part.absorption_m2[3];
    parts.sort_by(|a, b| middle(b).total_cmp(&middle(a)));
    let (gear, capsule) = corner.heard_by();
    let noises = around::heard(corner, &absorption, gear, capsule)
        .into_iter()
        .map(|heard| NoiseSeen {
            what: heard.what,
            level_dba: heard.level_dba,
            from: heard.from,
            can_stop: heard.can_stop,
        })
        .collect();
    let (modes_hz, modes_words) = told_modes(corner);
    let flutter = reflections::flutter(corner, &absorption)
        .into_iter()
        .map(|(a, b, apart)| {
            let apart = corner.brief.units.length(apart);
            format!("{} and {}, {apart} apart", surface_words(room, &a), surface_words(room, &b))
        })
        .collect();
    SoundSeen {
        mouth_m: corner.mouth_m.into(),
        capsule_m: capsule.into(),
        bands_hz: BANDS_HZ,
        rt60_s,
        best_s: reverberation::BEST_S,
        good_s: reverberation::GOOD_S,
        standards_s: reverberation::targets_s(absorption.volume_m3),
        volume_m3: absorption.volume_m3,
        sabine_s: absorption.sabine_s(),
        rt_words: reverberation::words(absorption.rt_mid_s()).into(),
        shape_words: reverberation::shape_words(&rt60_s).map(str::to_owned),
        assumed: absorption.assumed,
        parts,
        reflections: super::echoes::reflections_seen(corner, &absorption),
        flutter,
        modes_hz,
        modes_words,
        noises,
        chart: chart(corner, &absorption),
        choices: choices(corner, &absorption),
        advice: advice(corner, &absorption),
        record: record(corner),
    }
}

/// Modes of a box, and what stands out: sides alike, axial modes on top of each other, a head in a pressure node of the
/// lowest ones.
fn told_modes(corner: &Corner<'_>) -> (Vec<f64>, Vec<String>) {
    let room = &corner.brief.room;
    if !room.is_rectangle() || !room.slopes.is_empty() {
        return (Vec::new(), Vec::new());
    }
    let sides = room.dimensions_m();
    let names = ["width", "depth", "height"];
    let speed = super::decay::SPEED_M_S;
    let found = modes::modes(sides, MODES_TO_HZ, speed);
    let mut words: Vec<String> = modes::piled_up(sides, MODES_TO_HZ, speed)
        .into_iter()
        .map(|(a, b, hz)| {
            format!(
                "{} and {} resonate together near {hz:.0} Hz: a boomy note under the voice. Thick, soft things in the corners help.",
                names[a], names[b]
            )
        })
        .collect();
    words.push(format!(
        "Best not with the head in the middle: {} from the left wall, {} from the back wall.",
        corner.brief.units.length(sides[0] / 2.0),
        corner.brief.units.length(sides[1] / 2.0)
    ));
    let at = [corner.mouth_m.x, corner.mouth_m.y];
    let ahead = corner.to_lens().abs();
    for axis in 0..2 {
        let part = at[axis] / sides[axis];
        if (part - 0.5).abs() < 0.05 {
            words.push(format!(
                "The head is in the middle of the room's {}: the note at {:.0} Hz is missing there, the one at {:.0} Hz is loudest. A step {} evens it.",
                names[axis],
                speed / (2.0 * sides[axis]),
                speed / sides[axis],
                // Along the way that the person looks, or across it.
                if ahead[axis] >= ahead[1 - axis] { "forward or back" } else { "to the side" }
            ));
        }
    }
    (found.into_iter().map(|mode| mode.frequency_hz).take(10).collect(), words)
}
