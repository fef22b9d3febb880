//! What is given: the room, the person, the purpose, what is owned, what can be spent.

use std::collections::BTreeMap;

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::{
    Backdrop, Camera, FurnitureAt, Gear, GearLens, Habits, Id, Light, LightSchool, MeasuredId, Microphone,
    NoisyHours, Place, Room, RunSheet, Schools, Screen, Seat, Treatment, WindowSchool,
};
use crate::reading::Origin;
use crate::units::UnitSystem;

/// Everything a person tells before anything is chosen.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Brief {
    /// Units to read and print in; also decides the mains assumed.
    #[serde(default)]
    pub units: UnitSystem,
    /// The room.
    pub room: Room,
    /// Who is filmed.
    pub person: Person,
    /// What it is for.
    pub purpose: Purpose,
    /// What is recorded and delivered.
    #[serde(default, skip_serializing_if = "is_usual")]
    pub recording: Recording,
    /// Preferences that differ from the defaults.
    #[serde(default)]
    pub schools: Schools,
    /// What is owned (or wanted, or ruled out), by id.
    #[serde(default)]
    pub gear: BTreeMap<Id, Gear>,
    /// What may be spent.
    #[serde(default)]
    pub money: Money,
    /// How the corner stands now.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub today: Option<Today>,
    /// Readings that were measured; each replaces the computed value.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub measured: BTreeMap<MeasuredId, f64>,
    /// Where the room is on the earth.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub place: Option<Place>,
    /// Hours of the week that are not quiet.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 40)]
    pub quiet: Vec<NoisyHours>,
    /// The reverberation time as it was measured while other things hung than now.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub clap: Option<Clap>,
    /// How the corner is put up and put away.
    #[serde(default, skip_serializing_if = "Habits::is_usual")]
    pub habits: Habits,
    /// What is to be shot, and the script.
    #[serde(default, skip_serializing_if = "RunSheet::is_usual")]
    pub run: RunSheet,
}

/// A reverberation time that was measured, and what hung then: with other things hung it still tells how the room rings.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Clap {
    /// Reverberation time, mean of 500 Hz and 1 kHz, s, 0.05 to 10.
    #[schema(minimum = 0.05, maximum = 10)]
    pub rt_mid_s: f64,
    /// What hung when it was measured.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub treatment: BTreeMap<Id, Treatment>,
}

impl Brief {
    /// Whether a lens can be used on a body: built into it, or made to be changed on one that has none built in.
    pub fn mounts(&self, body: &Id, lens: &GearLens) -> bool {
        match &lens.built_into {
            Some(own) => own == body,
            None => !self.gear.values().filter_map(Gear::lens).any(|l| l.built_into.as_ref() == Some(body)),
        }
    }

    /// Windows give light: one of them is the key, or there is no other light.
    pub fn windows_shine(&self) -> bool {
        self.schools.window == WindowSchool::Key || self.schools.lights == LightSchool::WindowOnly
    }

    /// Frequency of the mains, Hz: as given, else 50 where lengths are metric and 60 where they are imperial.
    pub fn mains_frequency_hz(&self) -> (f64, Origin) {
        let usual = if self.units == UnitSystem::Metric { 50.0 } else { 60.0 };
        self.room.mains.frequency_hz.map_or((usual, Origin::Assumed), |hertz| (hertz, Origin::Typed))
    }
}

fn is_usual(recording: &Recording) -> bool {
    *recording == Recording::default()
}

/// What is recorded and delivered, and for how long.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Recording {
    /// Width of what is delivered, pixels (1920).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 320.0, maximum = 16_384.0)]
    pub delivered_width_px: Option<f64>,
    /// A 9:16 picture will be cut from the middle of the landscape one.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub vertical_cut: bool,
    /// Length of a session with its pauses, min.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 1.0, maximum = 1440.0)]
    pub session_min: Option<f64>,
    /// Frame rate at which inserts in slow motion are recorded, Hz.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 24.0, maximum = 1000.0)]
    pub slow_motion_hz: Option<f64>,
    /// Words of the script, if one is read.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 1.0, maximum = 100_000.0)]
    pub script_words: Option<f64>,
    /// Reading speed (150).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 60.0, maximum = 300.0)]
    pub words_per_minute: Option<f64>,
}

/// Who is filmed.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Person {
    /// Stature, m.
    #[schema(minimum = 0.8, maximum = 2.3)]
    pub stature_m: f64,
    /// Seated or standing.
    pub posture: Posture,
    /// Height of the compressed seat, m (0.45).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.2, maximum = 1.1)]
    pub seat_height_m: Option<f64>,
    /// Furniture the person sits at, if any.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub seat_at: Option<Id>,
    /// Wears glasses.
    #[serde(default)]
    pub glasses: bool,
    /// How far the head comes forward while talking, m (0.05).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.0, maximum = 0.5)]
    pub lean_m: Option<f64>,
    /// The camera is trusted to follow the face.
    #[serde(default)]
    pub face_tracking: bool,
    /// One light and one dark stripe of what is worn, mm; none if it is plain.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.1, maximum = 200.0)]
    pub stripe_pitch_mm: Option<f64>,
    /// Reflectance of the skin (0.35), 0.05 very deep to 0.45 very light.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.02, maximum = 0.7)]
    pub skin_reflectance: Option<f64>,
    /// Reflectance of what is worn (0.20).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.02, maximum = 0.95)]
    pub clothing_reflectance: Option<f64>,
    /// Colour of what is worn: told where it is keyed out with the screen, and shown in the picture (blue).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub clothing_colour: Option<ClothingColour>,
    /// Hair: told where it is dark or light against what is behind it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub hair: Option<Hair>,
    /// Decimal visual acuity, with glasses if they are worn (1).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.1, maximum = 2.0)]
    pub acuity: Option<f64>,
    /// How loudly they speak (normal).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub voice: Option<Effort>,
    /// Width of a performer with arms and instrument, m (1.15).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.3, maximum = 4.0)]
    pub instrument_width_m: Option<f64>,
}

/// How loudly somebody speaks.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum Effort {
    /// As to somebody beside you.
    Relaxed,
    /// As in a conversation.
    #[default]
    Normal,
    /// As to a group.
    Raised,
    /// As on a stage.
    Loud,
}

/// Seated or standing.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
#[allow(missing_docs)]
pub enum Posture {
    Seated,
    Standing,
}

/// Hair.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
#[allow(missing_docs)]
pub enum Hair {
    Dark,
    Light,
    Grey,
    None,
}

/// Colour of what is worn.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
#[allow(missing_docs)]
pub enum ClothingColour {
    Grey,
    Blue,
    Green,
    Red,
    Sand,
}

/// What the recording is for: sets shot size, orientation, gaze and its rows of the band table.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum Purpose {
    /// A lesson or channel: medium close-up, landscape, eyes in the lens.
    TalkToLens,
    /// A narrated screen lesson: head and shoulders, plain background; sound before picture.
    ScreenLesson,
    /// A performance with an instrument: wide enough for both, eyes off the lens.
    Performance,
    /// A keyed background: medium close-up before an even screen.
    KeyedBackground,
    /// A vertical short: medium shot, portrait, shoulders within the width.
    VerticalShort,
    /// An audition or application tape: eyes just beside the lens, plain wall, level camera.
    AuditionTape,
}

/// What may be spent.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Money {
    /// The sum, in whatever currency.
    #[serde(default)]
    #[schema(minimum = 0.0, maximum = 10_000_000.0)]
    pub budget: f64,
    /// A label printed beside sums.
    #[serde(default)]
    #[schema(max_length = 8)]
    pub currency: String,
    /// Own weights of the aspects, in place of those of the spending school.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub weights: Option<Weights>,
}

/// How much each aspect counts, in parts of their sum.
#[derive(Debug, Clone, Copy, Default, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Weights {
    /// What is heard.
    #[schema(minimum = 0.0, maximum = 1.0)]
    pub sound: f64,
    /// The light on face and background.
    #[schema(minimum = 0.0, maximum = 1.0)]
    pub light: f64,
    /// The room, its echo and its depth.
    #[schema(minimum = 0.0, maximum = 1.0)]
    pub room: f64,
    /// Framing, blur and noise.
    #[schema(minimum = 0.0, maximum = 1.0)]
    pub picture: f64,
    /// What makes a take easy to set up.
    #[schema(minimum = 0.0, maximum = 1.0)]
    pub comfort: f64,
}

impl Weights {
    /// Their sum; where it is 0 they say nothing.
    pub fn sum(&self) -> f64 {
        let Self { sound, light, room, picture, comfort } = *self;
        sound + light + room + picture + comfort
    }
}

impl Money {
    /// A sum as it is told: "40 EUR".
    pub fn told(&self, sum: f64) -> String {
        format!("{sum:.0} {}", self.currency).trim().to_owned()
    }
}

/// How the corner stands now: any part of a layout.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Today {
    /// Where the person sits.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub seat: Option<Seat>,
    /// Where the camera stands and how it is set.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub camera: Option<Camera>,
    /// Lights in use.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub lights: Option<BTreeMap<Id, Light>>,
    /// Microphone in use.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub microphone: Option<Microphone>,
    /// Screen in use.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub screen: Option<Screen>,
    /// Backdrop in use.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub backdrop: Option<Backdrop>,
    /// Furniture standing elsewhere than the room says.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub furniture: Option<BTreeMap<Id, FurnitureAt>>,
    /// What hangs or lies against the echo.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub treatment: Option<BTreeMap<Id, Treatment>>,
}
