//! Octave bands by filters of second order, one after the other.

/// One filter of second order.
#[derive(Debug, Clone, Copy)]
struct Biquad {
    b: [f64; 3],
    a: [f64; 2],
}

impl Biquad {
    /// Low or high pass at a frequency, by the bilinear transform.
    fn pass(high: bool, frequency_hz: f64, q: f64, rate_hz: f64) -> Self {
        let (sin, cos) = (std::f64::consts::TAU * frequency_hz / rate_hz).sin_cos();
        let alpha = sin / (2.0 * q);
        let edge = if high { 1.0 + cos } else { 1.0 - cos };
        let a0 = 1.0 + alpha;
        Self {
            b: [edge / 2.0 / a0, if high { -edge } else { edge } / a0, edge / 2.0 / a0],
            a: [-2.0 * cos / a0, (1.0 - alpha) / a0],
        }
    }

    fn through(&self, samples: impl Iterator<Item = f64>) -> Vec<f64> {
        let (mut first, mut second) = (0.0, 0.0);
        samples
            .map(|x| {
                let y = self.b[0] * x + first;
                first = self.b[1] * x - self.a[0] * y + second;
                second = self.b[2] * x - self.a[1] * y;
                y
            })
            .collect()
    }
}

/// Quality of the two filters that make one of Butterworth's of fourth order.
const BUTTERWORTH_4: [f64; 2] = [0.541_196_100_146_197, 1.306_562_964_876_377];

/// An octave round a frequency, run backwards in time: a decay that is filtered so is bent by the filter a quarter as much (Jacobsen
/// 1987, from memory). Low and high pass are Butterworth's, of fourth order each.
pub(super) fn octave_backwards(samples: &[f32], centre_hz: f64, rate_hz: f64) -> Vec<f64> {
    let edge = std::f64::consts::SQRT_2;
    let filters = BUTTERWORTH_4.into_iter().flat_map(|q| {
        [Biquad::pass(true, centre_hz / edge, q, rate_hz), Biquad::pass(false, centre_hz * edge, q, rate_hz)]
    });
    let mut all: Vec<f64> = samples.iter().rev().map(|s| f64::from(*s)).collect();
    for filter in filters {
        all = filter.through(all.into_iter());
    }
    all.reverse();
    all
}
