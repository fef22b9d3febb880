//! Two files of one take: how far apart they begin, and how their clocks run apart.
//!
//! What happens at t in the first is heard in the second at offset + t (1 + drift). The offset comes from a clap that both have, else
//! from the earliest strong peak of their whitened cross-correlation (Knapp and Carter 1976, from memory): in a live room the largest
//! one may be a reflection. For the drift a window at the beginning and one at the end are correlated each, and then these two
//! correlations with each other: whichever reflection wins, it wins in both.

use realfft::RealFftPlanner;
use realfft::num_complex::Complex;
use serde::{Deserialize, Serialize};
use thiserror::Error;
use utoipa::ToSchema;

use super::sound::{ClapFound, Recorded, clap_of};
use crate::sound::record::{drift, drift_words};
use crate::units::decimals;

/// What is correlated, Hz, and how far each line is brought to the same size (1: wholly).
const BAND_HZ: [f64; 2] = [300.0, 8000.0];
const WHITENED: f32 = 0.85;
/// So many times finer than the samples.
const FINER: usize = 8;
/// The earliest peak counts from this part of the largest on.
const STRONG: f32 = 0.35;
/// Direct sound is at most so long before the largest peak, s: a room's early reflections.
const EARLY_S: f64 = 0.03;
/// A window, s, and in parts of what both files have.
const WINDOW_S: f64 = 10.0;
const WINDOW_PART: f64 = 0.375;
/// How exact one correlation is, s (Fogon's own rule: a few samples, and what a head moves).
const SIGMA_S: f64 = 1e-4;
/// Peaks of windows' correlations from this part of the largest on are taken for as large (Fogon's own rule).
const ALIKE: f32 = 0.8;
/// Clocks run apart by no more than this, parts in a million (real ones 1 to 50: common practice, no source).
const MOST_PPM: f64 = 1000.0;
/// Both have so much in common at least, s.
const COMMON_S: f64 = 1.0;
/// A correlation tells something from here on: its peak over its mean size, of whole files and of windows.
const CLEAR: f64 = 15.0;
const CLEAR_WINDOW: f64 = 8.0;
/// Rate of the rough correlation, Hz, and how many samples round lag 0 are made finer.
const COARSE_HZ: f64 = 8000.0;
const NEAR: usize = 1 << 14;

/// How two files go together.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Sync {
    /// When the beginning of the first is heard in the second, s: positive where the second was started earlier.
    pub offset_s: f64,
    /// How much faster the clock of the second runs, parts in a million.
    pub drift_ppm: f64,
    /// Spread of the drift by chance, parts in a million: a short take only bounds it.
    pub drift_sigma_ppm: f64,
    /// Whether a clap told the offset.
    pub by_clap: bool,
    /// Where in the first file the offset was found, s.
    pub found_at_s: f64,
}

/// Why two files do not go together.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Error)]
pub enum Unmatched {
    /// They have less than a second in common, or nothing that is alike.
    #[error("the two files have nothing in common: are they of one take?")]
    NothingInCommon,
}

/// What a drift means over a session.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Apart {
    /// Picture and sound run apart by so much, ms.
    pub ms: f64,
    /// In frames.
    pub frames: f64,
    /// Spread of the same by chance, frames.
    pub sigma_frames: f64,
}

impl Sync {
    /// What it means over a session.
    pub fn over(&self, minutes: f64, frame_rate_hz: f64) -> Apart {
        let (ms, frames) = drift(self.drift_ppm.abs(), minutes, frame_rate_hz);
        let (_, sigma_frames) = drift(self.drift_sigma_ppm, minutes, frame_rate_hz);
        Apart { ms, frames, sigma_frames }
    }

    /// What to do, in words.
    pub fn told(&self, minutes: f64, frame_rate_hz: f64) -> String {
        let apart = self.over(minutes, frame_rate_hz);
        let (first, later) = if self.offset_s >= 0.0 { ("second", "first") } else { ("first", "second") };
        let seconds = decimals(self.offset_s.abs(), 3);
        let bounds = format!(
            "Over {} min they run apart by {} frames, within {}",
            decimals(minutes, 0),
            decimals(apart.frames, 1),
            decimals(2.0 * apart.sigma_frames, 1)
        );
        // Bounds that hold both a half frame and several tell nothing yet.
        let advice = if 2.0 * apart.sigma_frames > 1.0 && apart.frames < 2.0 * apart.sigma_frames {
            "so short a take only bounds it; clap at the beginning and at the end of a long one".to_owned()
        } else {
            drift_words(apart.frames).to_owned()
        };
        format!("The {first} file was begun {seconds} s before the {later}. {bounds}: {advice}.")
    }
}

/// How two files of one rate go together.
///
/// # Errors
/// See [`Unmatched`].
pub fn synchronise(first: &Recorded<'_>, second: &Recorded<'_>) -> Result<Sync, Unmatched> {
    let rate = first.rate_hz;
    let (a, b) = (first.loudest().1, second.loudest().1);
    // Roughly first, at a rate at which two minutes are no work.
    let coarser = ((rate / COARSE_HZ) as usize).max(1);
    let coarse = Spread::of(&thinned(a, coarser), &thinned(b, coarser), rate / coarser as f64);
    if coarse.clear < CLEAR {
        return Err(Unmatched::NothingInCommon);
    }
    let coarse_s = coarse.earliest_s(EARLY_S);
    // The clap of each, if both have one, at places that fit the correlation.
    let claps = clap_of(first)
        .zip(clap_of(second))
        .filter(|(c, d): &(ClapFound, ClapFound)| (d.onset_s - c.onset_s - coarse_s).abs() < 2.0 * EARLY_S);
    let begin_s = (-coarse_s).max(0.0);
    let end_s = (a.len() as f64 / rate).min(b.len() as f64 / rate - coarse_s);
    let common_s = end_s - begin_s;
    if common_s < COMMON_S {
        return Err(Unmatched::NothingInCommon);
    }
    let window_s = (WINDOW_PART * common_s).min(WINDOW_S);
    let at = |seconds: f64| (seconds.max(0.0) * rate).round() as usize;
    let window = |from_s: f64| {
        let cut = |samples: &[f32], from_s: f64| -> Vec<f32> {
            let from = at(from_s).min(samples.len());
            samples[from..(from + at(window_s)).min(samples.len())].to_vec()
        };
        let (own, other) = (cut(a, from_s), cut(b, from_s + coarse_s));
        // Both begin on samples: what the second is off by in parts of one is put back.
        let off_s = at(from_s + coarse_s) as f64 / rate - at(from_s) as f64 / rate - coarse_s;
        (Spread::of(&own, &other, rate).near_zero(), off_s)
    };
    let last_s = end_s - window_s;
    let ((early, early_off_s), (late, late_off_s)) = (window(begin_s), window(last_s));
    // Of files that have nothing in common the windows agree on nothing either.
    let agrees = |window: &Spread| window.clear >= CLEAR_WINDOW && window.best_s.abs() < 2.0 * EARLY_S;
    if claps.is_none() && !(agrees(&early) && agrees(&late)) {
        return Err(Unmatched::NothingInCommon);
    }
    // Each tells of the moment where it has most of its sound.
    let middle_of = |from_s: f64| {
        from_s + middle_s(&a[at(from_s).min(a.len())..at(from_s + window_s).min(a.len())], rate)
    };
    let (early_at_s, late_at_s) = (middle_of(begin_s), middle_of(last_s));
    let span_s = late_at_s - early_at_s;
    if span_s < COMMON_S / 4.0 {
        return Err(Unmatched::NothingInCommon);
    }
    let apart_s = early.apart(&late, MOST_PPM * 1e-6 * span_s) + late_off_s - early_off_s;
    let drift = apart_s / span_s;
    let (offset_s, found_at_s, by_clap) = match claps {
        Some((one, other)) => (other.onset_s - one.onset_s * (1.0 + drift), one.onset_s, true),
        None => {
            let fine_s = coarse_s + early.earliest_s(EARLY_S) + early_off_s;
            (fine_s - early_at_s * drift, early_at_s, false)
        }
    };
    Ok(Sync {
        offset_s,
        drift_ppm: drift * 1e6,
        drift_sigma_ppm: std::f64::consts::SQRT_2 * SIGMA_S / span_s * 1e6,
        by_clap,
        found_at_s,
    })
}

/// Where the sound of a stretch has its middle, s from its begin.
fn middle_s(samples: &[f32], rate_hz: f64) -> f64 {
    let (mut sum, mut moment) = (0.0, 0.0);
    for (index, sample) in samples.iter().enumerate() {
        let square = f64::from(*sample).powi(2);
        sum += square;
        moment += square * index as f64;
    }
    if sum > 0.0 { moment / sum / rate_hz } else { samples.len() as f64 / rate_hz / 2.0 }
}

/// Means of so many samples each.
fn thinned(samples: &[f32], by: usize) -> Vec<f32> {
    samples.chunks_exact(by).map(|part| part.iter().sum::<f32>() / by as f32).collect()
}

/// A whitened cross-correlation: its value at each lag, negative lags at the end.
struct Spread {
    values: Vec<f32>,
    step_s: f64,
    /// The largest value over the mean size, and where it lies, s.
    clear: f64,
    best_s: f64,
}

/// A transform of real values; lengths are its own, so that it cannot refuse.
fn forward(mut values: Vec<f32>) -> Vec<Complex<f32>> {
    let transform = RealFftPlanner::<f32>::new().plan_fft_forward(values.len());
    let mut output = transform.make_output_vec();
    let done = transform.process(&mut values, &mut output);
    debug_assert!(done.is_ok());
    output
}

impl Spread {
    fn of(a: &[f32], b: &[f32], rate_hz: f64) -> Self {
        let length = (a.len() + b.len()).max(2).next_power_of_two();
        let spectrum = |samples: &[f32]| {
            let mut padded = vec![0.0; length];
            padded[..samples.len()].copy_from_slice(samples);
            forward(padded)
        };
        let mut crossed = spectrum(a);
        for (bin, (one, other)) in crossed.iter_mut().zip(spectrum(b)).enumerate() {
            let hz = bin as f64 * rate_hz / length as f64;
            let both = one.conj() * other;
            let is_in = (BAND_HZ[0]..=BAND_HZ[1].min(0.4 * rate_hz)).contains(&hz);
            *one = if is_in { both / both.norm().powf(WHITENED).max(1e-30) } else { Complex::ZERO };
        }
        let mut all =
            Self { values: backward(crossed, length), step_s: 1.0 / rate_hz, clear: 0.0, best_s: 0.0 };
        let best = all.best();
        let mean = all.values.iter().map(|v| f64::from(v.abs())).sum::<f64>() / length as f64;
        all.best_s = all.seconds(best);
        all.clear = if mean > 0.0 { f64::from(all.values[best]) / mean } else { 0.0 };
        all
    }

    /// What lies round lag 0, between the samples too.
    fn near_zero(self) -> Self {
        let length = self.values.len();
        let near = NEAR.min(length);
        let kept = (0..near).map(|i| self.values[if i < near / 2 { i } else { length - near + i }]).collect();
        let mut finer = forward(kept);
        finer.resize(near * FINER / 2 + 1, Complex::ZERO);
        Self { values: backward(finer, near * FINER), step_s: self.step_s / FINER as f64, ..self }
    }

    fn best(&self) -> usize {
        (0..self.values.len()).max_by(|i, j| self.values[*i].total_cmp(&self.values[*j])).unwrap_or(0)
    }

    fn seconds(&self, index: usize) -> f64 {
        let signed = if index > self.values.len() / 2 {
            index as i64 - self.values.len() as i64
        } else {
            index as i64
        };
        signed as f64 * self.step_s
    }

    /// By how much another correlation is later, s, at most so much: of the largest peaks of the two with each other the one nearest to
    /// 0, since clocks run nearly alike and reflections far apart do not; between the steps by a parabola.
    fn apart(&self, later: &Self, most_s: f64) -> f64 {
        // What belongs to both is close round the peak; the rest is noise.
        let near = |spread: &Self| -> Vec<f32> {
            let keep = (2.0 * EARLY_S / spread.step_s) as usize;
            let length = spread.values.len();
            let mut values = spread.values.clone();
            values[keep.min(length)..length.saturating_sub(keep).max(keep.min(length))].fill(0.0);
            values
        };
        let (a, b) = (forward(near(self)), forward(near(later)));
        let length = self.values.len();
        let crossed = a.iter().zip(&b).map(|(a, b)| a.conj() * b).collect();
        let both = Self { values: backward(crossed, length), ..*self };
        let most = (most_s / both.step_s).ceil() as usize;
        let within = || (0..length).filter(|i| *i <= most || *i >= length - most);
        let largest = within().map(|i| both.values[i]).fold(0.0, f32::max);
        let is_alike = |i: usize| {
            let value = both.values[i];
            value >= ALIKE * largest
                && value >= both.values[(i + 1) % length]
                && value >= both.values[(i + length - 1) % length]
        };
        let nearest = within()
            .filter(|i| is_alike(*i))
            .min_by(|i, j| both.seconds(*i).abs().total_cmp(&both.seconds(*j).abs()));
        both.between(nearest.unwrap_or(0))
    }

    /// The earliest strong peak at most so long before the largest one, s.
    fn earliest_s(&self, early_s: f64) -> f64 {
        let (length, best) = (self.values.len(), self.best());
        let before = ((early_s / self.step_s) as usize).min(length / 4);
        let value = |back: usize| self.values[(best + length - back) % length];
        let earliest = (1..=before).rev().find(|back| {
            value(*back) >= STRONG * self.values[best]
                && value(*back) >= value(back + 1)
                && value(*back) >= value(back - 1)
        });
        self.between((best + length - earliest.unwrap_or(0)) % length)
    }

    /// The top of the parabola through a value and its neighbours, s.
    fn between(&self, index: usize) -> f64 {
        let length = self.values.len();
        let [left, own, right] =
            [length - 1, 0, 1].map(|next| f64::from(self.values[(index + next) % length]));
        let curve = left - 2.0 * own + right;
        let off = if curve < 0.0 { (0.5 * (left - right) / curve).clamp(-0.5, 0.5) } else { 0.0 };
        self.seconds(index) + off * self.step_s
    }
}

/// Back to lags.
fn backward(mut spectrum: Vec<Complex<f32>>, length: usize) -> Vec<f32> {
    // The ends of a real signal's spectrum are real.
    spectrum[0].im = 0.0;
    if let Some(last) = spectrum.last_mut() {
        last.im = 0.0;
    }
    let transform = RealFftPlanner::<f32>::new().plan_fft_inverse(length);
    let mut values = transform.make_output_vec();
    let done = transform.process(&mut spectrum, &mut values);
    debug_assert!(done.is_ok());
    values
}
