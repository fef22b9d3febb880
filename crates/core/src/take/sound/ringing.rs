//! How a room answers a clap: reverberation times by band, and whether they can be believed.
//!
//! Backward integration (Schroeder 1965) less the noise (Chu 1978); what makes a decay valid after ISO 3382-2, annex B (from memory);
//! its spread after ISO 3382-2, clause 7 (from memory).

use std::collections::BTreeMap;

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::clipping::FULL;
use super::filter::octave_backwards;
use super::peak::rms_dbfs;

/// Octaves in which a hand clap has power, Hz. 250 Hz is told with a warning; there is none at 125 (Papadakis and Stavroulakis 2020,
/// from memory).
pub const RINGING_BANDS_HZ: [u32; 5] = [250, 500, 1000, 2000, 4000];
/// Noise is taken from here to there before the clap, s.
const NOISE_S: [f64; 2] = [0.45, 0.02];
/// The decay is looked at so long, s.
const DECAY_S: f64 = 5.0;
/// A stretch over which levels are taken, s; the decay ends where it reaches twice the noise.
const STRETCH_S: f64 = 0.02;
const KNEE: f64 = 2.0;
/// Peak over noise that a decay of 20 and of 30 dB needs, dB.
const RANGE_DB: [f64; 2] = [35.0, 45.0];
/// Direct sound and what comes back first is over after this, s: a few mean free paths of a small room. Fogon's own rule.
const DIRECT_S: f64 = 0.02;
/// It stands over the room where so much is gone by then, dB. Fogon's own rule.
const DIRECT_DB: f64 = -8.0;
/// How crooked it may be: 1000 (1 - r^2), and 100 (T30 / T20 - 1).
const CROOKED_PERMILLE: f64 = 10.0;
const CURVED_PERCENT: f64 = 10.0;
/// So many samples of a clap at full scale are a clipped one.
const CLIPPED: usize = 3;
/// Before and after the clap the noise is the same within this, dB; else an automatic gain was at work. Fogon's own rule.
const PUMPED_DB: f64 = 6.0;

/// One band.
#[derive(Debug, Clone, Copy, Default, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct BandRinging {
    /// From -5 to -25 dB, s; null where the decay does not reach so far.
    pub t20_s: Option<f64>,
    /// From -5 to -35 dB, s.
    pub t30_s: Option<f64>,
    /// It can be believed.
    pub valid: bool,
    /// The time that is believed: over 30 dB where there are so many, s.
    pub believed_s: Option<f64>,
    /// Taken from 20 ms after the clap on: before, the direct sound stands over the room.
    pub after_direct: bool,
    /// Peak over noise, dB.
    pub peak_to_noise_db: f64,
    /// Spread that chance alone gives, s.
    pub sigma_s: Option<f64>,
}

/// How a room answers a clap.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Ringing {
    /// By octave, Hz.
    pub bands: BTreeMap<u32, BandRinging>,
    /// Mean of 500 Hz and 1 kHz, s; null where one of them cannot be believed.
    pub mid_s: Option<f64>,
    /// The same where the decay reaches far enough, however crooked it is, s: a first idea, nothing to reckon with.
    pub about_s: Option<f64>,
    /// So many claps it is the mean of.
    pub claps: usize,
    /// Why nothing can be believed, in words.
    pub why_not: Option<String>,
}

/// Spread of a reverberation time over 20 and over 30 dB by chance, s, in a band of an octave round a frequency, from ten decays of
/// the same response (ISO 3382-2, from memory).
fn sigma_s(time_s: f64, frequency_hz: f64, over_30: bool) -> f64 {
    let (factor, more) = if over_30 { (0.55, 1.52) } else { (0.88, 1.90) };
    let band = std::f64::consts::FRAC_1_SQRT_2 * frequency_hz;
    factor * time_s * ((1.0 + more / 10.0) / (band * time_s)).sqrt()
}

/// How a room answers claps, the sharpest first: its bands are those of the first, the times that are believed the mean of all.
pub(super) fn of(samples: &[f32], rate_hz: f64, onsets_s: &[f64]) -> Option<Ringing> {
    let all: Vec<(Option<String>, BTreeMap<u32, BandRinging>)> =
        onsets_s.iter().map(|onset| answer(samples, rate_hz, *onset)).collect();
    let (why, mut bands) = all.first()?.clone();
    for (hz, band) in &mut bands {
        let believed: Vec<f64> = all.iter().filter_map(|(_, bands)| bands.get(hz)?.believed_s).collect();
        let count = believed.len() as f64;
        band.believed_s = (count > 0.0).then(|| believed.iter().sum::<f64>() / count);
        band.valid = band.believed_s.is_some();
    }
    let mean = |of: &dyn Fn(&BandRinging) -> Option<f64>| {
        bands.get(&500).and_then(of).zip(bands.get(&1000).and_then(of)).map(|(a, b)| (a + b) / 2.0)
    };
    let mid_s = mean(&|band| band.believed_s);
    let why_not = mid_s.is_none().then(|| {
        let noisy =
            [500, 1000].iter().any(|hz| bands.get(hz).is_some_and(|b| b.peak_to_noise_db < RANGE_DB[0]));
        let otherwise = if noisy {
            "the clap is not loud enough over the noise"
        } else {
            "the sound does not die away evenly"
        };
        why.clone().unwrap_or_else(|| otherwise.to_owned())
    });
    let about_s = if why.is_none() { mean(&|band| band.t30_s.or(band.t20_s)) } else { None };
    Some(Ringing { about_s, bands, mid_s, claps: onsets_s.len(), why_not })
}

/// What speaks against one clap, and its bands.
fn answer(samples: &[f32], rate_hz: f64, onset_s: f64) -> (Option<String>, BTreeMap<u32, BandRinging>) {
    let at = |seconds: f64| (seconds.max(0.0) * rate_hz).round() as usize;
    let from = at(onset_s - 0.5);
    let to = at(onset_s + DECAY_S).min(samples.len());
    let (onset, segment) = (at(onset_s) - from, &samples[from..to]);
    let why = why_not(samples, rate_hz, onset_s);
    let bands = RINGING_BANDS_HZ
        .into_iter()
        .map(|hz| {
            let band = octave_backwards(segment, f64::from(hz), rate_hz);
            let mut found = decay(&band, onset, rate_hz, f64::from(hz));
            if why.is_some() {
                (found.valid, found.believed_s) = (false, None);
            }
            (hz, found)
        })
        .collect();
    (why, bands)
}

/// What speaks against the whole clap.
fn why_not(samples: &[f32], rate_hz: f64, onset_s: f64) -> Option<String> {
    let at = |seconds: f64| ((seconds.max(0.0) * rate_hz).round() as usize).min(samples.len());
    let burst = &samples[at(onset_s)..at(onset_s + STRETCH_S)];
    if burst.iter().filter(|s| s.abs() >= FULL).count() >= CLIPPED {
        return Some("the clap is clipped".into());
    }
    if onset_s < NOISE_S[0] {
        return Some("nothing quiet comes before the clap".into());
    }
    if samples.len() < at(onset_s) + (0.3 * rate_hz) as usize {
        return Some("the file ends before the sound has died away".into());
    }
    let before = rms_dbfs(&samples[at(onset_s - NOISE_S[0])..at(onset_s - NOISE_S[1])]);
    let (late, end) = (at(onset_s + 1.5), samples.len());
    let after = (end > late + (0.3 * rate_hz) as usize).then(|| {
        let stretch = (0.1 * rate_hz) as usize;
        samples[late..end].chunks_exact(stretch).map(rms_dbfs).fold(f64::INFINITY, f64::min)
    });
    // Where somebody speaks after the clap the quietest tenth of a second still tells.
    after
        .filter(|after| before - after > PUMPED_DB)
        .map(|_| "the input turned itself down at the clap: automatic gain".into())
}

/// One band's decay.
fn decay(band: &[f64], onset: usize, rate_hz: f64, frequency_hz: f64) -> BandRinging {
    let at = |seconds: f64| (seconds * rate_hz).round() as usize;
    let squares: Vec<f64> = band.iter().map(|p| p * p).collect();
    let quiet = &squares[onset.saturating_sub(at(NOISE_S[0]))..onset.saturating_sub(at(NOISE_S[1]))];
    let noise = (quiet.iter().sum::<f64>() / quiet.len().max(1) as f64).max(1e-24);
    let stretch = at(STRETCH_S);
    let mut most = 0.0f64;
    let mut knee = squares.len();
    let mut window: f64 = squares[onset..(onset + stretch).min(squares.len())].iter().sum();
    for from in onset..squares.len().saturating_sub(stretch) {
        let mean = window / stretch as f64;
        most = most.max(mean);
        if mean <= KNEE * noise {
            knee = from + stretch / 2;
            break;
        }
        window += squares[from + stretch] - squares[from];
    }
    let peak_to_noise_db = if most > 0.0 { 10.0 * (most / noise).log10() } else { 0.0 };
    // Level of what is still to come, from the clap on.
    let mut levels = vec![0.0; knee - onset];
    let mut sum = 0.0;
    for index in (0..levels.len()).rev() {
        sum += squares[onset + index] - noise;
        levels[index] = sum;
    }
    let whole = levels.first().copied().unwrap_or_default();
    if whole <= 0.0 {
        return BandRinging { peak_to_noise_db, ..BandRinging::default() };
    }
    let levels: Vec<f64> = levels.iter().map(|sum| 10.0 * (sum.max(1e-30) / whole).log10()).collect();
    let whole = Decay::of(&levels, peak_to_noise_db, rate_hz);
    // Close to the mouth the direct sound stands so far over the room that the first decibels are its own: what comes later is
    // the room's.
    let late = levels.get(at(DIRECT_S)).filter(|first| **first <= DIRECT_DB).map(|first| {
        let rest: Vec<f64> = levels[at(DIRECT_S)..].iter().map(|level| level - first).collect();
        Decay::of(&rest, peak_to_noise_db + first, rate_hz)
    });
    let (found, after_direct) = match late {
        Some(late) if whole.believed_s().is_none() && late.believed_s().is_some() => (late, true),
        _ => (whole, false),
    };
    BandRinging {
        t20_s: found.over_20.map(|(t, _)| t),
        t30_s: found.over_30.map(|(t, _)| t),
        valid: found.believed_s().is_some(),
        believed_s: found.believed_s().map(|(t, _)| t),
        after_direct,
        peak_to_noise_db,
        sigma_s: found.believed_s().map(|(t, over_30)| sigma_s(t, frequency_hz, over_30)),
    }
}

/// A decay over 20 and over 30 dB: time, s, and how crooked it is.
struct Decay {
    over_20: Option<(f64, f64)>,
    over_30: Option<(f64, f64)>,
}

impl Decay {
    fn of(levels_db: &[f64], range_db: f64, rate_hz: f64) -> Self {
        let over = |to_db: f64, needs: f64| line(levels_db, to_db, rate_hz).filter(|_| range_db >= needs);
        Self { over_20: over(-25.0, RANGE_DB[0]), over_30: over(-35.0, RANGE_DB[1]) }
    }

    /// The time that can be believed, s, over 30 dB where that is straight, and whether it is that one.
    fn believed_s(&self) -> Option<(f64, bool)> {
        let straight = |line: Option<(f64, f64)>| {
            line.filter(|(_, permille)| *permille <= CROOKED_PERMILLE).map(|(seconds, _)| seconds)
        };
        if let (Some((t20, _)), Some((t30, _))) = (self.over_20, self.over_30)
            && 100.0 * (t30 / t20 - 1.0) > CURVED_PERCENT
        {
            return None;
        }
        straight(self.over_30).map(|t| (t, true)).or(straight(self.over_20).map(|t| (t, false)))
    }
}

/// The time of 60 dB by the straight line from -5 dB to an end, s, and how crooked it is, 1000 (1 - r^2); none where the decay does
/// not reach so far.
fn line(levels_db: &[f64], to_db: f64, rate_hz: f64) -> Option<(f64, f64)> {
    let from = levels_db.iter().position(|level| *level <= -5.0)?;
    let to = levels_db.iter().position(|level| *level <= to_db)?;
    let part = &levels_db[from..to];
    if part.len() < 3 {
        return None;
    }
    let count = part.len() as f64;
    let (mean_x, mean_y) = ((count - 1.0) / 2.0, part.iter().sum::<f64>() / count);
    let (mut xx, mut xy, mut yy) = (0.0, 0.0, 0.0);
    for (x, y) in part.iter().enumerate() {
        let (x, y) = (x as f64 - mean_x, y - mean_y);
        xx += x * x;
        xy += x * y;
        yy += y * y;
    }
    let slope = xy / xx * rate_hz;
    let squared = xy * xy / (xx * yy);
    (slope < 0.0).then(|| (-60.0 / slope, 1000.0 * (1.0 - squared)))
}
