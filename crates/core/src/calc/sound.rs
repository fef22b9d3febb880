//! Calculations of sound.

mod level;
mod microphone;
mod recording;
mod room;
mod speech;

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::material::Bands;

pub(super) use level::{LevelAtDistance, ListeningTime, SumLevels};
pub(super) use microphone::{BoomPosition, CombNotch, PolarPattern, PreampGain};
pub(super) use recording::SyncDrift;
pub(super) use room::{
    AbsorptionNeeded, ImageSource, PorousAbsorber, Reverberation, RoomModes, SchroederFrequency,
};
pub(super) use speech::{ClarityC50, CriticalDistance, DirectToReverberant, SpeechTransmissionIndex};

/// Speed of sound where none is given, m/s.
fn usual_speed() -> f64 {
    crate::sound::decay::SPEED_M_S
}

/// One number for each octave band, in and out.
#[derive(Deserialize, Serialize, ToSchema)]
struct BandValues {
    #[serde(rename = "125")]
    #[schema(minimum = 0.0, maximum = 1.0)]
    hz_125: f64,
    #[serde(rename = "250")]
    #[schema(minimum = 0.0, maximum = 1.0)]
    hz_250: f64,
    #[serde(rename = "500")]
    #[schema(minimum = 0.0, maximum = 1.0)]
    hz_500: f64,
    #[serde(rename = "1000")]
    #[schema(minimum = 0.0, maximum = 1.0)]
    hz_1000: f64,
    #[serde(rename = "2000")]
    #[schema(minimum = 0.0, maximum = 1.0)]
    hz_2000: f64,
    #[serde(rename = "4000")]
    #[schema(minimum = 0.0, maximum = 1.0)]
    hz_4000: f64,
}

impl From<Bands> for BandValues {
    fn from([hz_125, hz_250, hz_500, hz_1000, hz_2000, hz_4000]: Bands) -> Self {
        Self { hz_125, hz_250, hz_500, hz_1000, hz_2000, hz_4000 }
    }
}

impl From<&BandValues> for Bands {
    fn from(b: &BandValues) -> Self {
        [b.hz_125, b.hz_250, b.hz_500, b.hz_1000, b.hz_2000, b.hz_4000]
    }
}
