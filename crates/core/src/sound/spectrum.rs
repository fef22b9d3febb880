//! Long filters by Fourier transform: octave bands that add up to one, noise of a spectrum, convolution.

use std::sync::{Arc, Mutex, OnceLock, PoisonError};

use realfft::num_complex::Complex;
use realfft::{ComplexToReal, RealFftPlanner, RealToComplex};

use super::rate::RATE_HZ;
use super::voice::SpeechBands;
use crate::material::BANDS_HZ;

/// A transform pair of one length.
struct Pair {
    length: usize,
    forward: Arc<dyn RealToComplex<f32>>,
    backward: Arc<dyn ComplexToReal<f32>>,
}

impl Pair {
    fn new(at_least: usize) -> Self {
        // The planner keeps what it has worked out for a length: the same few come again and again.
        static PLANNER: OnceLock<Mutex<RealFftPlanner<f32>>> = OnceLock::new();
        let planner = PLANNER.get_or_init(|| Mutex::new(RealFftPlanner::new()));
        let mut planner = planner.lock().unwrap_or_else(PoisonError::into_inner);
        let length = at_least.max(2).next_power_of_two();
        Self { length, forward: planner.plan_fft_forward(length), backward: planner.plan_fft_inverse(length) }
    }

    fn forward(&self, samples: &[f32]) -> Vec<Complex<f32>> {
        let mut input = self.forward.make_input_vec();
        input[..samples.len()].copy_from_slice(samples);
        let mut output = self.forward.make_output_vec();
        // Lengths are its own: it cannot refuse.
        let done = self.forward.process(&mut input, &mut output);
        debug_assert!(done.is_ok());
        output
    }

    fn backward(&self, mut spectrum: Vec<Complex<f32>>) -> Vec<f32> {
        // The ends of a real signal's spectrum are real.
        spectrum[0].im = 0.0;
        if let Some(last) = spectrum.last_mut() {
            last.im = 0.0;
        }
        let mut output = self.backward.make_output_vec();
        let done = self.backward.process(&mut spectrum, &mut output);
        debug_assert!(done.is_ok());
        let scale = 1.0 / self.length as f32;
        output.iter_mut().for_each(|s| *s *= scale);
        output
    }

    fn frequency_hz(&self, bin: usize) -> f64 {
        bin as f64 * RATE_HZ / self.length as f64
    }
}

/// Weights of the six octave bands at a frequency: they go over into each other between the bands' centres as a raised
/// cosine on a scale of octaves, and add up to one.
pub fn band_weights(frequency_hz: f64) -> [f64; 6] {
    let lowest = f64::from(BANDS_HZ[0]);
    let at = (frequency_hz / lowest).max(1e-6).log2().clamp(0.0, 5.0);
    let (low, part) = (at.floor().min(4.0), at - at.floor().min(4.0));
    let high = 0.5 - 0.5 * (std::f64::consts::PI * part).cos();
    let mut weights = [0.0; 6];
    weights[low as usize] = 1.0 - high;
    weights[low as usize + 1] = high;
    weights
}

/// Adds six signals of equal length up, each through the filter of its octave band, without delay. Below 20 Hz nothing
/// is left.
pub fn join(bands: [Vec<f32>; 6]) -> Vec<f32> {
    let length = bands[0].len();
    let pair = Pair::new(length);
    let spectra: Vec<Vec<Complex<f32>>> = bands.iter().map(|band| pair.forward(band)).collect();
    let joined = (0..spectra[0].len())
        .map(|bin| {
            let hz = pair.frequency_hz(bin);
            let weights = band_weights(hz);
            let sum = spectra
                .iter()
                .zip(weights)
                .filter(|(_, weight)| *weight > 0.0)
                .fold(Complex::new(0.0, 0.0), |sum, (spectrum, weight)| sum + spectrum[bin] * weight as f32);
            sum * rumble(hz) as f32
        })
        .collect();
    let mut all = pair.backward(joined);
    all.truncate(length);
    all
}

/// A signal in its six octave bands, which add up to it.
pub fn in_bands(signal: &[f32]) -> [Vec<f32>; 6] {
    // Room behind the end, so that ringing does not come round to the front.
    let pair = Pair::new(signal.len() * 2);
    let spectrum = pair.forward(signal);
    std::array::from_fn(|band| {
        let part = spectrum
            .iter()
            .enumerate()
            .map(|(bin, value)| value * band_weights(pair.frequency_hz(bin))[band] as f32)
            .collect();
        let mut all = pair.backward(part);
        all.truncate(signal.len());
        all
    })
}

/// High pass of second order at 20 Hz, its size alone.
fn rumble(frequency_hz: f64) -> f64 {
    let r4 = (frequency_hz / 20.0).powi(4);
    (r4 / (1.0 + r4)).sqrt()
}

/// A signal through a response.
pub fn convolve(signal: &[f32], response: &[f32]) -> Vec<f32> {
    let length = signal.len() + response.len();
    let pair = Pair::new(length);
    let (a, b) = (pair.forward(signal), pair.forward(response));
    let mut all = pair.backward(a.iter().zip(&b).map(|(a, b)| a * b).collect());
    all.truncate(length.saturating_sub(1));
    all
}

/// A signal with each frequency by its own factor, without delay.
pub fn shaped(signal: &[f32], factor: impl Fn(f64) -> f64) -> Vec<f32> {
    // Room behind the end, so that ringing does not come round to the front.
    let pair = Pair::new(signal.len() * 2);
    let spectrum = pair.forward(signal);
    let shaped = spectrum
        .iter()
        .enumerate()
        .map(|(bin, value)| value * factor(pair.frequency_hz(bin)) as f32)
        .collect();
    let mut all = pair.backward(shaped);
    all.truncate(signal.len());
    all
}

/// A-weighted mean level of a signal, dB re full scale 1.
pub fn weighted_level_db(signal: &[f32]) -> f64 {
    let pair = Pair::new(signal.len());
    let spectrum = pair.forward(signal);
    let sum: f64 = spectrum
        .iter()
        .enumerate()
        .skip(1)
        .map(|(bin, value)| {
            let gain = super::level::energy(super::level::a_weighting_db(pair.frequency_hz(bin)));
            2.0 * f64::from(value.norm_sqr()) * gain
        })
        .sum();
    10.0 * (sum / (pair.length as f64 * signal.len().max(1) as f64)).log10()
}

/// Amplitude factor at a frequency that gives octave levels, dB, to white noise of level 0 dB over all: a level of an
/// octave is spread over its hertz.
pub fn octave_factor(levels_db: &SpeechBands, frequency_hz: f64) -> f64 {
    if frequency_hz <= 0.0 {
        return 0.0;
    }
    let at = (frequency_hz / 125.0).log2().clamp(0.0, 6.0);
    let low = (at.floor() as usize).min(5);
    let level = levels_db[low] + (levels_db[low + 1] - levels_db[low]) * (at - low as f64);
    // An octave round f is f / sqrt 2 wide; white noise has its energy spread to half the rate.
    let width_hz = frequency_hz * std::f64::consts::FRAC_1_SQRT_2;
    10f64.powf(level / 20.0) * (RATE_HZ / 2.0 / width_hz).sqrt()
}
