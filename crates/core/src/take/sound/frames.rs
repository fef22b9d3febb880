//! Levels of short stretches, A-weighted: which of them are silence, which speech.

use std::ops::Range;
use std::sync::Arc;

use realfft::num_complex::Complex;
use realfft::{RealFftPlanner, RealToComplex};

use super::peak::SILENCE_DB;
use crate::sound::level::{a_weighting_db, energy};

/// Length of a stretch and the way to the next, s.
pub(super) const LENGTH_S: f64 = 0.4;
pub(super) const HOP_S: f64 = 0.1;
/// What is below is no room: a gate, or a muted input, dBFS(A).
pub(super) const DIGITAL_DB: f64 = -110.0;
/// Gates of speech: absolute, and below the mean of what passes the first, dB.
const GATE_DB: f64 = -70.0;
const BELOW_MEAN_DB: f64 = 10.0;
/// Silence is within so much of the quiet tenth, dB, and so many stretches long: a second.
const QUIET_WITHIN_DB: f64 = 6.0;
const QUIET_STRETCHES: usize = 7;
/// So many stretches stand for the lowest tenth at least.
const LOWEST: usize = 3;
/// A clap is heard from so long before it to so long after, s.
const CLAP_S: [f64; 2] = [0.1, 1.0];

/// Stretches of one rate by Fourier transform, weighted there, so that no filter bends the upper end.
pub(super) struct Framing {
    length: usize,
    hop: f64,
    window: Vec<f64>,
    /// Energy of a bin as it counts in the mean square.
    gains: Vec<f64>,
    transform: Arc<dyn RealToComplex<f32>>,
    input: Vec<f32>,
    output: Vec<Complex<f32>>,
    scratch: Vec<Complex<f32>>,
}

/// Hann's window over a length.
pub(super) fn hann(length: usize) -> Vec<f64> {
    let turn = std::f64::consts::TAU / length as f64;
    (0..length).map(|i| 0.5 - 0.5 * (turn * i as f64).cos()).collect()
}

impl Framing {
    pub(super) fn new(rate_hz: f64) -> Self {
        let length = (LENGTH_S * rate_hz).round().max(2.0) as usize;
        let window = hann(length);
        let square: f64 = window.iter().map(|w| w * w).sum();
        let transform = RealFftPlanner::new().plan_fft_forward(length);
        let gains = (0..=length / 2)
            .map(|bin| {
                let twice = if bin == 0 || 2 * bin == length { 1.0 } else { 2.0 };
                let weight =
                    if bin == 0 { 0.0 } else { energy(a_weighting_db(bin as f64 * rate_hz / length as f64)) };
                twice * weight / (length as f64 * square)
            })
            .collect();
        Self {
            length,
            hop: HOP_S * rate_hz,
            window,
            gains,
            input: transform.make_input_vec(),
            output: transform.make_output_vec(),
            scratch: transform.make_scratch_vec(),
            transform,
        }
    }

    /// The level of every whole stretch, dBFS(A).
    pub(super) fn levels_db(&mut self, samples: &[f32]) -> Vec<f64> {
        let mut levels = Vec::new();
        loop {
            let from = (levels.len() as f64 * self.hop).round() as usize;
            let Some(stretch) = samples.get(from..from + self.length) else { return levels };
            let mean = stretch.iter().map(|s| f64::from(*s)).sum::<f64>() / self.length as f64;
            for ((to, sample), weight) in self.input.iter_mut().zip(stretch).zip(&self.window) {
                *to = ((f64::from(*sample) - mean) * weight) as f32;
            }
            // Lengths are its own: it cannot refuse.
            let done =
                self.transform.process_with_scratch(&mut self.input, &mut self.output, &mut self.scratch);
            debug_assert!(done.is_ok());
            let sum: f64 =
                self.output.iter().zip(&self.gains).map(|(bin, gain)| f64::from(bin.norm_sqr()) * gain).sum();
            levels.push(if sum > 0.0 { (10.0 * sum.log10()).max(SILENCE_DB) } else { SILENCE_DB });
        }
    }
}

/// Mean of levels by energy, dB; none of none.
pub(super) fn mean_db(levels_db: impl IntoIterator<Item = f64>) -> Option<f64> {
    let (mut sum, mut count) = (0.0, 0usize);
    for level in levels_db {
        sum += energy(level);
        count += 1;
    }
    (count > 0 && sum > 0.0).then(|| 10.0 * (sum / count as f64).log10())
}

/// Whether a stretch lies where a clap is heard, by its middle.
pub(super) fn is_clap(index: usize, onsets_s: &[f64]) -> bool {
    let middle = index as f64 * HOP_S + LENGTH_S / 2.0;
    onsets_s.iter().any(|onset| (onset - CLAP_S[0]..=onset + CLAP_S[1]).contains(&middle))
}

/// Stretches of silence: the longest run of at least a second within 6 dB of the quiet tenth.
pub(super) fn quiet(levels_db: &[f64], onsets_s: &[f64]) -> Option<Range<usize>> {
    let counts = |index: usize| levels_db[index] >= DIGITAL_DB && !is_clap(index, onsets_s);
    let below = tenth((0..levels_db.len()).filter(|i| counts(*i)).map(|i| levels_db[i]))? + QUIET_WITHIN_DB;
    let mut longest: Option<Range<usize>> = None;
    let mut from = 0;
    for index in 0..=levels_db.len() {
        let goes_on = index < levels_db.len() && counts(index) && levels_db[index] <= below;
        if goes_on {
            continue;
        }
        if index - from >= QUIET_STRETCHES && longest.as_ref().is_none_or(|l| index - from > l.len()) {
            longest = Some(from..index);
        }
        from = index + 1;
    }
    longest
}

/// The level that a tenth of them is below.
fn tenth(levels: impl Iterator<Item = f64>) -> Option<f64> {
    let mut sorted: Vec<f64> = levels.collect();
    sorted.sort_by(f64::total_cmp);
    let at = 0.1 * (sorted.len().checked_sub(1)?) as f64;
    let (low, part) = (at.floor() as usize, at.fract());
    let high = sorted.get(low + 1).unwrap_or(&sorted[low]);
    Some(sorted[low] + part * (high - sorted[low]))
}

/// Level of the lowest tenth of what is no digital silence, dBFS(A).
pub(super) fn lowest_db(levels_db: &[f64]) -> Option<f64> {
    let mut sorted: Vec<f64> = levels_db.iter().copied().filter(|level| *level >= DIGITAL_DB).collect();
    sorted.sort_by(f64::total_cmp);
    let count = (sorted.len() / 10).max(LOWEST).min(sorted.len());
    mean_db(sorted[..count].iter().copied())
}

/// Which stretches are speech: above both gates.
pub(super) fn speech(levels_db: &[f64], onsets_s: &[f64]) -> Vec<usize> {
    let gated = |all: Vec<usize>| -> Vec<usize> {
        let mean = mean_db(all.iter().map(|i| levels_db[*i]));
        let Some(mean) = mean else { return Vec::new() };
        all.into_iter().filter(|i| levels_db[*i] > mean - BELOW_MEAN_DB).collect()
    };
    let heard = |index: &usize| levels_db[*index] > GATE_DB;
    let away: Vec<usize> = (0..levels_db.len()).filter(heard).filter(|i| !is_clap(*i, onsets_s)).collect();
    // A file with a clap alone is measured all the same.
    if away.len() < QUIET_STRETCHES {
        gated((0..levels_db.len()).filter(heard).collect())
    } else {
        gated(away)
    }
}
