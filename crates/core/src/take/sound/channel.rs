//! One channel of a recording.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::clipping::{self, Clipping};
use super::dropout;
use super::frames::{DIGITAL_DB, HOP_S, LENGTH_S, is_clap, lowest_db, mean_db, quiet, speech};
use super::hum::{self, Hum};
use super::peak::{db, rms_dbfs, sample_peak, true_peak};

/// The clap is heard from so long before it to so long after, s: what is left is speech.
const CLAP_S: [f64; 2] = [0.05, 0.3];

/// Where the noise was taken from.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum NoiseFrom {
    /// A second and more in which nobody speaks.
    Quiet,
    /// The lowest tenth: there is no silence in the file.
    LowestTenth,
}

/// What one channel holds.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ChannelMeasures {
    /// Largest sample, dBFS.
    pub sample_peak_dbfs: f64,
    /// The same without the clap, dBFS.
    pub speech_peak_dbfs: f64,
    /// Largest value between the samples too, dBTP (ITU-R BS.1770-4, annex 2).
    pub true_peak_dbtp: f64,
    /// Mean level, dBFS.
    pub rms_dbfs: f64,
    /// Mean of all samples.
    pub dc_offset: f64,
    /// What is cut off.
    pub clipping: Clipping,
    /// Where each dropout begins and how long it lasts, s.
    #[schema(value_type = Vec<Vec<f64>>)]
    pub dropouts_s: Vec<[f64; 2]>,
    /// NoiseFrom, dBFS(A); null of digital silence.
    pub noise_dbfs_a: Option<f64>,
    /// Where it was taken from.
    pub noise_from: NoiseFrom,
    /// The silence, from and to, s.
    #[schema(value_type = Option<Vec<f64>>)]
    pub quiet_s: Option<[f64; 2]>,
    /// So much of the file is speech, claps left out, s.
    pub speech_s: f64,
    /// Speech, dBFS(A); null where nobody speaks.
    pub speech_dbfs_a: Option<f64>,
    /// Speech over noise, dB.
    pub snr_db_a: Option<f64>,
    /// The noise was taken where nobody speaks.
    pub snr_reliable: bool,
    /// So much of the file is digital silence, s: a gate, or a muted input.
    pub digital_silence_s: f64,
    /// Mains hum.
    pub hum: Hum,
}

pub(super) fn measure(samples: &[f32], rate_hz: f64, levels_db: &[f64], onsets_s: &[f64]) -> ChannelMeasures {
    let still = quiet(levels_db, onsets_s);
    let quiet_s =
        still.as_ref().map(|still| [still.start as f64 * HOP_S, (still.end - 1) as f64 * HOP_S + LENGTH_S]);
    let noise = match &still {
        Some(still) => mean_db(levels_db[still.clone()].iter().copied()),
        None => lowest_db(levels_db),
    };
    let spoken_in = speech(levels_db, onsets_s);
    let speech_s = HOP_S * spoken_in.iter().filter(|i| !is_clap(**i, onsets_s)).count() as f64;
    let spoken = mean_db(spoken_in.into_iter().map(|i| levels_db[i]));
    let at = |seconds: f64| ((seconds.max(0.0) * rate_hz).round() as usize).min(samples.len());
    let hum = quiet_s.map_or_else(Hum::default, |[from, to]| hum::find(&samples[at(from)..at(to)], rate_hz));
    let mut spoken_from = 0;
    let mut speech_peak = 0.0f64;
    let mut onsets: Vec<f64> = onsets_s.to_vec();
    onsets.sort_by(f64::total_cmp);
    for onset in onsets {
        let to = at(onset - CLAP_S[0]).max(spoken_from);
        speech_peak = speech_peak.max(sample_peak(&samples[spoken_from..to]));
        spoken_from = at(onset + CLAP_S[1]);
    }
    speech_peak = speech_peak.max(sample_peak(&samples[spoken_from..]));
    let digital = levels_db.iter().filter(|level| **level < DIGITAL_DB).count();
    ChannelMeasures {
        sample_peak_dbfs: db(sample_peak(samples)),
        speech_peak_dbfs: db(speech_peak),
        true_peak_dbtp: db(true_peak(samples, rate_hz)),
        rms_dbfs: rms_dbfs(samples),
        dc_offset: samples.iter().map(|s| f64::from(*s)).sum::<f64>() / samples.len().max(1) as f64,
        clipping: clipping::find(samples, rate_hz),
        dropouts_s: dropout::find(samples, rate_hz),
        noise_dbfs_a: noise,
        noise_from: if still.is_some() { NoiseFrom::Quiet } else { NoiseFrom::LowestTenth },
        quiet_s,
        speech_s,
        speech_dbfs_a: spoken,
        snr_db_a: spoken.zip(noise).map(|(speech, noise)| speech - noise),
        snr_reliable: still.is_some(),
        digital_silence_s: digital as f64 * HOP_S,
        hum,
    }
}
