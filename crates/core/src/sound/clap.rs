//! What a clap at the mouth would write at the microphone, for the page: its picture, how each band dies away, what comes back
//! first.

use serde::Serialize;
use utoipa::ToSchema;

use super::echoes::ReflectionSeen;
use super::hear::{Impulse, impulse};
use super::impulse::decay_db;
use super::rate::RATE_HZ;
use super::spectrum::in_bands;
use crate::corner::Corner;
use crate::material::{BANDS_HZ, Bands};

/// What is drawn of a response, s after the direct sound, and in how many equal stretches.
const FROM_S: f64 = -0.002;
const TO_S: f64 = 0.12;
const STRETCHES: usize = 600;
/// Softer than this against the direct sound is not drawn, dB.
const SOFTEST_DB: f64 = -60.0;
/// Points of a decay, and where it ends at the latest, dB.
const POINTS: usize = 80;
const LOWEST_DB: f64 = -90.0;

/// A response as a picture.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ImpulseSeen {
    /// First time that is drawn, after the direct sound, ms.
    pub from_ms: f64,
    /// Last one, ms.
    pub to_ms: f64,
    /// Largest value in each of as many equal stretches, against the direct sound, dB; null under -60.
    pub levels_db: Vec<Option<f64>>,
    /// Octave bands, Hz.
    pub bands_hz: [u32; 6],
    /// Seconds of each point of the decays.
    pub decay_s: Vec<f64>,
    /// Level of what is still to come in each band, dB, band by band.
    pub decays_db: Vec<Vec<f64>>,
    /// Reverberation time by band, s.
    #[schema(value_type = Vec<f64>)]
    pub rt60_s: Bands,
    /// First reflections, shortest way first.
    pub reflections: Vec<ReflectionSeen>,
    /// The room is a box, whose images are complete to 50 ms; another room is heard with single reflections and a tail.
    pub is_box: bool,
}

/// The picture of a corner's response.
pub fn clap(corner: &Corner<'_>) -> ImpulseSeen {
    let Impulse { response, reflections, rt60_s, is_box } = impulse(corner);
    let direct = response.direct_s;
    let peak = |from_s: f64, to_s: f64| {
        let from = response.index(direct + from_s).min(response.samples.len() - 1);
        let to = response.index(direct + to_s).max(from + 1);
        response.samples[from..to].iter().fold(0.0f32, |most, sample| most.max(sample.abs()))
    };
    let loudest = f64::from(peak(-0.0005, 0.0005)).max(1e-12);
    let step = (TO_S - FROM_S) / STRETCHES as f64;
    let levels_db = (0..STRETCHES)
        .map(|i| {
            let at = FROM_S + i as f64 * step;
            let level = 20.0 * (f64::from(peak(at, at + step)) / loudest).log10();
            (level > SOFTEST_DB).then_some(level)
        })
        .collect();
    let bands = in_bands(&response.samples[response.index(direct - 0.001)..]);
    let at = |point: usize| point * (bands[0].len() - 1) / (POINTS - 1);
    let decay = |band: &Vec<f32>| {
        let curve = decay_db(band.iter().map(|sample| f64::from(*sample).powi(2)));
        (0..POINTS).map(|point| curve[at(point)].max(LOWEST_DB)).collect()
    };
    ImpulseSeen {
        from_ms: FROM_S * 1000.0,
        to_ms: TO_S * 1000.0,
        levels_db,
        bands_hz: BANDS_HZ,
        decay_s: (0..POINTS).map(|point| at(point) as f64 / RATE_HZ).collect(),
        decays_db: bands.iter().map(decay).collect(),
        rt60_s,
        reflections,
        is_box,
    }
}
