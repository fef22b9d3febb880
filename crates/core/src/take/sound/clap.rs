//! The clap: the sharpest rise in the file, if it is one.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::peak::{db, sample_peak};

/// A burst, what is before it, and what is after it, s.
const BURST_S: f64 = 0.005;
const BEFORE_S: f64 = 0.05;
const AFTER_S: [f64; 2] = [0.05, 0.15];
/// A clap rises by so much within a burst, and falls by so much after it, dB: a word goes on. Rise after the usual reading of a
/// measured decay; fall: Fogon's own rule.
const RISE_DB: f64 = 20.0;
const FALL_DB: f64 = 5.0;
/// It is no softer than this beside the loudest sample, dB: the last letter of a word is. Fogon's own rule.
const BELOW_PEAK_DB: f64 = 9.0;
/// Where nothing comes before, dB re full scale squared.
const NOTHING: f64 = 1e-10;
/// It begins where it first reaches this part of its peak.
const BEGINS: f32 = 0.1;
/// Its direct sound is over after this, s.
const DIRECT_S: f64 = 0.005;
/// What comes back is looked for so long, s.
const LATE_S: f64 = 0.4;

/// A clap.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ClapFound {
    /// Where it begins, s.
    pub onset_s: f64,
    /// By how much it rises, dB.
    pub rise_db: f64,
    /// Its peak, dBFS.
    pub peak_dbfs: f64,
    /// Its peak stands at full scale.
    pub clipped: bool,
    /// Its first 5 ms over what the room sends back, dB; null where too little follows it.
    pub direct_to_reverberant_db: Option<f64>,
}

/// Two claps are so far apart at least, s: the first has died away.
const APART_S: f64 = 0.8;
/// Claps that are so much softer than the sharpest one are none of a row of claps, dB. Fogon's own rule.
const SOFTER_DB: f64 = 12.0;

/// The claps of a channel, the sharpest first; none where nothing rises as one does.
pub(super) fn find(samples: &[f32], rate_hz: f64) -> Vec<ClapFound> {
    let Some(last) = samples.len().checked_sub((AFTER_S[1] * rate_hz).round() as usize) else {
        return Vec::new();
    };
    let at = |seconds: f64| (seconds * rate_hz).round() as usize;
    let (burst, before) = (at(BURST_S), at(BEFORE_S));
    let after = AFTER_S.map(at);
    let mut sums = Vec::with_capacity(samples.len() + 1);
    sums.push(0.0f64);
    for sample in samples {
        sums.push(sums.last().copied().unwrap_or_default() + f64::from(*sample).powi(2));
    }
    let mean = |from: usize, to: usize| ((sums[to] - sums[from]) / (to - from) as f64).max(0.0);
    let db_of = |ratio: f64| 10.0 * ratio.log10();
    let loud = sample_peak(samples) * 10f64.powf(-BELOW_PEAK_DB / 20.0);
    let candidates = (before..last).step_by(at(0.001).max(1)).filter_map(|from| {
        let own = mean(from, from + burst);
        let rise = own / mean(from - before, from).max(NOTHING);
        (db_of(rise) >= RISE_DB).then(|| (from, rise, rise * own.sqrt()))
    });
    let is_clap = |(from, _, _): &(usize, f64, f64)| {
        // Sound that comes back after a dropout rises like a clap.
        let held = samples[*from - at(0.001).max(1)..*from].windows(2).all(|pair| pair[0] == pair[1]);
        let falls = mean(*from, from + burst) / mean(from + after[0], from + after[1]).max(NOTHING);
        !held && db_of(falls) >= FALL_DB && sample_peak(&samples[*from..from + 2 * burst]) >= loud
    };
    let mut candidates: Vec<(usize, f64, f64)> = candidates.filter(is_clap).collect();
    candidates.sort_by(|a, b| b.2.total_cmp(&a.2));
    let mut found: Vec<ClapFound> = Vec::new();
    for (from, rise, _) in candidates {
        let Some(clap) = told(samples, rate_hz, &sums, from, db_of(rise)) else { continue };
        let apart = found.iter().all(|other| (other.onset_s - clap.onset_s).abs() >= APART_S);
        let as_loud = found.first().is_none_or(|first| clap.peak_dbfs >= first.peak_dbfs - SOFTER_DB);
        if apart && as_loud {
            found.push(clap);
        }
    }
    found
}

/// A clap that rises at a sample.
fn told(samples: &[f32], rate_hz: f64, sums: &[f64], from: usize, rise_db: f64) -> Option<ClapFound> {
    let at = |seconds: f64| (seconds * rate_hz).round() as usize;
    let (burst, before) = (at(BURST_S), at(BEFORE_S));
    let around = from.saturating_sub(burst)..(from + 2 * burst).min(samples.len());
    let peak = sample_peak(&samples[around.clone()]) as f32;
    let onset = around.clone().find(|i| samples[*i].abs() >= BEGINS * peak)?;
    let direct_ends = onset + at(DIRECT_S);
    let late_ends = onset + at(LATE_S);
    let late = (late_ends <= samples.len()).then(|| sums[late_ends] - sums[direct_ends]);
    let noise = (sums[from] - sums[from - before]) / before as f64;
    let late = late.map(|late| late - noise * (late_ends - direct_ends) as f64).filter(|late| *late > 0.0);
    Some(ClapFound {
        onset_s: onset as f64 / rate_hz,
        rise_db,
        peak_dbfs: db(f64::from(peak)),
        clipped: peak >= super::clipping::FULL,
        direct_to_reverberant_db: late
            .map(|late| 10.0 * ((sums[direct_ends] - sums[onset.saturating_sub(at(0.001))]) / late).log10()),
    })
}
