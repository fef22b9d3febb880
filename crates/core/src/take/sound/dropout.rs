//! Dropouts: the file stands still for a while although there is sound around.

use super::clipping::{FULL, runs};
use super::peak::rms_dbfs;

/// Shortest one, s.
const LEAST_S: f64 = 0.001;
/// Sound within so much around, s, at this level, dBFS.
const AROUND_S: f64 = 0.02;
const SOUND_DBFS: f64 = -50.0;

/// Where each begins and how long it lasts, s. What stands at the largest value is clipped, and what reaches to an end of the file
/// is how files begin and end.
pub(super) fn find(samples: &[f32], rate_hz: f64) -> Vec<[f64; 2]> {
    let least = (LEAST_S * rate_hz).ceil() as usize;
    let around = (AROUND_S * rate_hz).round() as usize;
    let most = samples.iter().fold(0.0f32, |most, sample| most.max(sample.abs()));
    runs(samples, |a, b| a == b, |_| true)
        .filter(|(from, length)| {
            let (from, to) = (*from, from + length);
            if to - from < least || from == 0 || to == samples.len() {
                return false;
            }
            let held = samples[from].abs();
            if held >= FULL || held >= 0.98 * most {
                return false;
            }
            let (before, after) =
                (&samples[from.saturating_sub(around)..from], &samples[to..(to + around).min(samples.len())]);
            rms_dbfs(before).max(rms_dbfs(after)) > SOUND_DBFS
        })
        .map(|(from, length)| [from as f64 / rate_hz, length as f64 / rate_hz])
        .collect()
}
