//! What a test recording holds: peaks, loudness, noise, speech, hum, clipping, dropouts, a clap and how the room answers it.
//! Levels are dB re full scale; nothing here knows a sound pressure, which no file tells.

mod channel;
mod clap;
mod clipping;
mod dropout;
mod filter;
mod frames;
mod hum;
mod peak;
mod pumping;
mod ringing;
mod steady;

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::sound::loudness::integrated_lufs;

pub use channel::{ChannelMeasures, NoiseFrom};
pub use clap::ClapFound;
pub use clipping::Clipping;
pub use hum::Hum;
pub use ringing::{BandRinging, RINGING_BANDS_HZ, Ringing};
pub use steady::Steadiness;

/// A recording: one or two channels of one length, full scale 1.
#[derive(Debug, Clone, Copy)]
pub struct Recorded<'a> {
    /// Samples by channel.
    pub channels: &'a [Vec<f32>],
    /// Samples a second.
    pub rate_hz: f64,
}

impl Recorded<'_> {
    /// Length, s.
    pub fn duration_s(&self) -> f64 {
        self.channels.first().map_or(0, Vec::len) as f64 / self.rate_hz
    }

    /// The channel that has the most in it, and its number.
    pub(super) fn loudest(&self) -> (usize, &[f32]) {
        let energy = |samples: &Vec<f32>| samples.iter().map(|s| f64::from(*s).powi(2)).sum::<f64>();
        let found = self.channels.iter().enumerate().max_by(|a, b| energy(a.1).total_cmp(&energy(b.1)));
        found.map_or((0, &[]), |(number, samples)| (number, samples.as_slice()))
    }
}

/// Everything measured of a recording.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct SoundMeasures {
    /// Length, s.
    pub duration_s: f64,
    /// Samples a second.
    pub sample_rate_hz: f64,
    /// How many channels.
    pub channels: usize,
    /// Integrated loudness, LUFS, one channel counted once (ITU-R BS.1770-4); null under 0.4 s or where all is below the gate.
    pub integrated_lufs: Option<f64>,
    /// Each channel.
    pub per_channel: Vec<ChannelMeasures>,
    /// Which channel has the most in it, from 0: clap, ringing and steadiness are those of this one.
    pub loudest_channel: usize,
    /// The first channel over the second, dB; null of one channel.
    pub imbalance_db: Option<f64>,
    /// How alike two channels are, -1 to 1; null of one channel, or where one is silent.
    pub correlation: Option<f64>,
    /// How much the speech changes.
    pub stability: Steadiness,
    /// The sharpest clap; null where there is none.
    pub clap: Option<ClapFound>,
    /// How the room answers it.
    pub rt: Option<Ringing>,
    /// By how much the noise rises while nobody speaks, dB: automatic gain; null where there is no pause to tell.
    pub pumping_db: Option<f64>,
}

impl SoundMeasures {
    /// The channel that is judged.
    pub fn loudest(&self) -> Option<&ChannelMeasures> {
        self.per_channel.get(self.loudest_channel)
    }
}

/// Measures a recording.
pub fn measure(recorded: &Recorded<'_>) -> SoundMeasures {
    let rate = recorded.rate_hz;
    let (number, loudest) = recorded.loudest();
    let claps = clap::find(loudest, rate);
    let onsets: Vec<f64> = claps.iter().map(|clap| clap.onset_s).collect();
    let mut framing = frames::Framing::new(rate);
    let mut per_channel = Vec::with_capacity(recorded.channels.len());
    let (mut stability, mut pumping_db) = (Steadiness::default(), None);
    for (index, samples) in recorded.channels.iter().enumerate() {
        let levels_db = framing.levels_db(samples);
        per_channel.push(channel::measure(samples, rate, &levels_db, &onsets));
        if index == number {
            stability = steady::of(&levels_db, &onsets);
            pumping_db = pumping::rise_db(&levels_db, &onsets);
        }
    }
    let slices: Vec<&[f32]> = recorded.channels.iter().map(Vec::as_slice).collect();
    let (imbalance_db, correlation) = match slices.as_slice() {
        [left, right] => (Some(peak::rms_dbfs(left) - peak::rms_dbfs(right)), correlation(left, right)),
        _ => (None, None),
    };
    SoundMeasures {
        duration_s: recorded.duration_s(),
        sample_rate_hz: rate,
        channels: recorded.channels.len(),
        integrated_lufs: integrated_lufs(&slices, rate),
        per_channel,
        loudest_channel: number,
        imbalance_db,
        correlation,
        stability,
        rt: ringing::of(loudest, rate, &onsets),
        clap: claps.into_iter().next(),
        pumping_db,
    }
}

/// The clap of a recording's loudest channel.
pub(super) fn clap_of(recorded: &Recorded<'_>) -> Option<ClapFound> {
    clap::find(recorded.loudest().1, recorded.rate_hz).into_iter().next()
}

/// Pearson's correlation of two channels; none where one of them never moves.
fn correlation(left: &[f32], right: &[f32]) -> Option<f64> {
    let mean =
        |samples: &[f32]| samples.iter().map(|s| f64::from(*s)).sum::<f64>() / samples.len().max(1) as f64;
    let (a, b) = (mean(left), mean(right));
    let (mut both, mut first, mut second) = (0.0, 0.0, 0.0);
    for (l, r) in left.iter().zip(right) {
        let (l, r) = (f64::from(*l) - a, f64::from(*r) - b);
        both += l * r;
        first += l * l;
        second += r * r;
    }
    let size = (first * second).sqrt();
    (size > 0.0).then(|| both / size)
}
