//! Other sample rates, and a recording fitted to the clock of another.

use rubato::audioadapter_buffers::direct::SequentialSliceOfVecs;
use rubato::{
    Async, Fft, FixedAsync, FixedSync, Resampler, SincInterpolationParameters, SincInterpolationType,
    WindowFunction,
};

use crate::read::{Take, Unreadable};

/// Frames that the resampler takes at once.
const CHUNK: usize = 1024;

fn refused(why: impl std::fmt::Display) -> Unreadable {
    Unreadable::NotARecording(format!("its sample rate cannot be changed: {why}"))
}

/// One channel at another rate.
pub(crate) fn at_rate(samples: Vec<f32>, from_hz: u32, to_hz: u32) -> Result<Vec<f32>, Unreadable> {
    let resampler =
        Fft::<f32>::new(from_hz as usize, to_hz as usize, CHUNK, 1, FixedSync::Both).map_err(refused)?;
    through(resampler, samples)
}

fn through(mut resampler: impl Resampler<f32>, samples: Vec<f32>) -> Result<Vec<f32>, Unreadable> {
    let length = samples.len();
    let input = [samples];
    let input = SequentialSliceOfVecs::new(&input, 1, length).map_err(refused)?;
    let output = resampler.process_all(&input, length, None).map_err(refused)?;
    Ok(output.take_data())
}

impl Take {
    /// The same at another rate.
    ///
    /// # Errors
    /// The rates have no ratio that can be worked with.
    pub fn at(&self, rate_hz: u32) -> Result<Self, Unreadable> {
        if rate_hz == self.sample_rate_hz {
            return Ok(self.clone());
        }
        let channels = self.channels.iter().map(|c| at_rate(c.clone(), self.sample_rate_hz, rate_hz));
        Ok(Self { channels: channels.collect::<Result<_, _>>()?, sample_rate_hz: rate_hz })
    }

    /// The same as the clock of another file has it, in which what happens here at t is heard at offset + t (1 + drift): stretched,
    /// then begun with silence or cut.
    ///
    /// # Errors
    /// The drift cannot be worked with.
    pub fn fitted(&self, offset_s: f64, drift_ppm: f64) -> Result<Self, Unreadable> {
        let ratio = 1.0 + drift_ppm * 1e-6;
        let shift = (offset_s * f64::from(self.sample_rate_hz)).round() as i64;
        let channels = self.channels.iter().map(|samples| {
            let stretched = stretched(samples, ratio)?;
            Ok(if shift >= 0 {
                let mut late = vec![0.0; shift as usize];
                late.extend(stretched);
                late
            } else {
                stretched.get(shift.unsigned_abs() as usize..).unwrap_or_default().to_vec()
            })
        });
        Ok(Self { channels: channels.collect::<Result<_, _>>()?, sample_rate_hz: self.sample_rate_hz })
    }
}

/// So many times as long, at the same rate: windowed sines, as kept resamplers have them.
fn stretched(samples: &[f32], ratio: f64) -> Result<Vec<f32>, Unreadable> {
    if ratio == 1.0 {
        return Ok(samples.to_vec());
    }
    let sinc = SincInterpolationParameters {
        sinc_len: 128,
        f_cutoff: Some(0.95),
        interpolation: SincInterpolationType::Cubic,
        oversampling_factor: 256,
        window: WindowFunction::BlackmanHarris2,
    };
    let resampler =
        Async::<f32>::new_sinc(ratio, 1.1, &sinc, CHUNK, 1, FixedAsync::Input).map_err(refused)?;
    through(resampler, samples.to_vec())
}
