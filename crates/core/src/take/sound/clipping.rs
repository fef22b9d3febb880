//! Clipping: samples that stand at full scale, and tops that were cut off before the file.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// At full scale from here on.
pub(super) const FULL: f32 = 0.999;
/// So many samples in a row are a clip, and so many equal ones at a lower top.
const RUN: usize = 3;
const FLAT_RUN: usize = 4;
/// Equal tops within so much of the largest value were cut off.
const NEAR_TOP: f32 = 0.98;
/// A quieter file has too few steps for its tops to tell anything.
const FAINT: f32 = 0.01;

/// What is cut off.
#[derive(Debug, Clone, Copy, Default, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Clipping {
    /// Runs of three and more samples at full scale.
    pub runs_ge3: usize,
    /// The longest run, samples.
    pub longest_run: usize,
    /// Where the first begins, s.
    pub first_run_s: Option<f64>,
    /// Where the last begins, s.
    pub last_run_s: Option<f64>,
    /// Runs of four and more equal samples at the top of a recording that does not reach full scale.
    pub flat_tops: usize,
}

pub(super) fn find(samples: &[f32], rate_hz: f64) -> Clipping {
    let mut found = Clipping::default();
    for (from, length) in
        runs(samples, |a, b| b.abs() >= FULL && a.signum() == b.signum(), |s| s.abs() >= FULL)
    {
        found.longest_run = found.longest_run.max(length);
        if length >= RUN {
            found.runs_ge3 += 1;
            let at = from as f64 / rate_hz;
            found.first_run_s.get_or_insert(at);
            found.last_run_s = Some(at);
        }
    }
    let most = samples.iter().fold(0.0f32, |most, sample| most.max(sample.abs()));
    if (FAINT..FULL).contains(&most) {
        let at_top = |s: f32| s.abs() >= NEAR_TOP * most;
        found.flat_tops =
            runs(samples, |a, b| a == b, at_top).filter(|(_, length)| *length >= FLAT_RUN).count();
    }
    found
}

/// Runs as where they begin and how long they are: of samples that may begin one and go on from the one before.
pub(super) fn runs(
    samples: &[f32],
    goes_on: impl Fn(f32, f32) -> bool,
    begins: impl Fn(f32) -> bool,
) -> impl Iterator<Item = (usize, usize)> {
    let mut at = 0;
    std::iter::from_fn(move || {
        while at < samples.len() && !begins(samples[at]) {
            at += 1;
        }
        let from = at;
        if from >= samples.len() {
            return None;
        }
        at += 1;
        while at < samples.len() && goes_on(samples[at - 1], samples[at]) {
            at += 1;
        }
        Some((from, at - from))
    })
}
