//! Loudness and true peak of recordings (ITU-R BS.1770-4, EBU R 128).

use ebur128::{EbuR128, Mode};

/// Integrated loudness of channels that play left and right or as one, LUFS; `None` of less than 0.4 s, of a rate that is none,
/// or where nothing passes the gate at -70.
pub fn integrated_lufs(channels: &[&[f32]], sample_rate_hz: f64) -> Option<f64> {
    let meter = measured(channels, sample_rate_hz, Mode::I)?;
    meter.loudness_global().ok().filter(|lufs| lufs.is_finite())
}

/// True peak of samples at 44.1 or 48 kHz, dBTP; `None` of silence.
pub fn true_peak_dbtp(samples: &[f32]) -> Option<f64> {
    // A peak near the end shows only once what follows has gone through the filter.
    let padded: Vec<f32> = samples.iter().copied().chain([0.0; FOLLOWS]).collect();
    let peak = measured(&[&padded], 48_000.0, Mode::TRUE_PEAK)?.true_peak(0).ok()?;
    (peak > 0.0).then(|| 20.0 * peak.log10())
}

/// Samples of silence that bring the end of a recording through the interpolation.
const FOLLOWS: usize = 48;

/// Channels of one length gone through a meter.
fn measured(channels: &[&[f32]], sample_rate_hz: f64, mode: Mode) -> Option<EbuR128> {
    let mut meter = EbuR128::new(u32::try_from(channels.len()).ok()?, sample_rate_hz as u32, mode).ok()?;
    meter.add_frames_planar_f32(channels).ok()?;
    Some(meter)
}

/// Gains that make recordings equally loud, dB, each cut alike so that no true peak passes the ceiling.
pub fn matched_gains_db(
    integrated_lufs: &[f64],
    true_peak_dbtp: &[f64],
    target_lufs: f64,
    ceiling_dbtp: f64,
) -> (Vec<f64>, f64) {
    let wanted: Vec<f64> = integrated_lufs.iter().map(|lufs| target_lufs - lufs).collect();
    let over = wanted.iter().zip(true_peak_dbtp).map(|(gain, peak)| peak + gain - ceiling_dbtp);
    let common = over.fold(0.0, f64::max);
    (wanted.iter().map(|gain| gain - common).collect(), common)
}
