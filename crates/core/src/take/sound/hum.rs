//! Mains hum, looked for where nobody speaks: lines at multiples of 50 and 60 Hz over what is beside them.

use realfft::RealFftPlanner;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::frames::hann;
use super::peak::SILENCE_DB;

/// So many multiples.
const LINES: usize = 6;
/// A line has its energy in so many bins to each side; beside it, from and to, Hz, is what it is held against.
const HALF_WIDTH: usize = 2;
const BESIDE_HZ: [usize; 2] = [4, 18];
/// A line stands out from here on, alone from there on, dB.
const STANDS_OUT_DB: f64 = 10.0;
const ALONE_DB: f64 = 15.0;
/// What a line must stand out by to speak for a mains frequency, dB.
const SPEAKS_DB: f64 = 6.0;

/// Hum.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Hum {
    /// It is there; null where nothing is quiet for a second.
    pub present: Option<bool>,
    /// The mains that it would be of, Hz.
    pub mains_hz: Option<u32>,
    /// Its six lines, dBFS; -240 where nothing stands out.
    pub lines_dbfs: Option<[f64; LINES]>,
    /// All lines that stand out together, dBFS; null where there is no hum.
    pub total_dbfs: Option<f64>,
}

/// A line's power, and how far it stands out, dB.
type Line = (f64, f64);

pub(super) fn find(quiet: &[f32], rate_hz: f64) -> Hum {
    let Some(spectrum) = spectrum(quiet, rate_hz) else { return Hum::default() };
    let of = |mains: usize| -> [Line; LINES] { std::array::from_fn(|k| line(&spectrum, mains * (k + 1))) };
    let speaks = |lines: &[Line; LINES]| lines.iter().map(|(_, db)| (db - SPEAKS_DB).max(0.0)).sum::<f64>();
    let (fifty, sixty) = (of(50), of(60));
    let (mains_hz, lines) = if speaks(&sixty) > speaks(&fifty) { (60, sixty) } else { (50, fifty) };
    let standing = lines.iter().filter(|(_, db)| *db >= STANDS_OUT_DB).count();
    let present = standing >= 2 || lines.iter().any(|(_, db)| *db >= ALONE_DB);
    let dbfs = |power: f64| if power > 0.0 { (10.0 * power.log10()).max(SILENCE_DB) } else { SILENCE_DB };
    let total: f64 = lines.iter().filter(|(_, db)| *db >= STANDS_OUT_DB).map(|(power, _)| power).sum();
    Hum {
        present: Some(present),
        mains_hz: Some(mains_hz),
        lines_dbfs: Some(lines.map(|(power, _)| dbfs(power))),
        total_dbfs: present.then(|| dbfs(total)),
    }
}

/// Mean square in each hertz, by Welch 1967: stretches of a second under Hann's window, half of each over the next; none under a
/// second.
fn spectrum(samples: &[f32], rate_hz: f64) -> Option<Vec<f64>> {
    let length = rate_hz.round() as usize;
    if samples.len() < length || length < 1000 {
        return None;
    }
    let window = hann(length);
    let square: f64 = window.iter().map(|w| w * w).sum();
    let transform = RealFftPlanner::<f32>::new().plan_fft_forward(length);
    let (mut input, mut output) = (transform.make_input_vec(), transform.make_output_vec());
    let mut sum = vec![0.0; output.len()];
    let mut count = 0.0;
    for from in (0..=samples.len() - length).step_by(length / 2) {
        let stretch = &samples[from..from + length];
        let mean = stretch.iter().map(|s| f64::from(*s)).sum::<f64>() / length as f64;
        for ((to, sample), weight) in input.iter_mut().zip(stretch).zip(&window) {
            *to = ((f64::from(*sample) - mean) * weight) as f32;
        }
        // Lengths are its own: it cannot refuse.
        let done = transform.process(&mut input, &mut output);
        debug_assert!(done.is_ok());
        for (total, bin) in sum.iter_mut().zip(&output) {
            *total += 2.0 * f64::from(bin.norm_sqr()) / (length as f64 * square);
        }
        count += 1.0;
    }
    sum.iter_mut().for_each(|power| *power /= count);
    Some(sum)
}

fn line(spectrum: &[f64], at_hz: usize) -> Line {
    let own = &spectrum[at_hz - HALF_WIDTH..=at_hz + HALF_WIDTH];
    let [near, far] = BESIDE_HZ;
    let below = spectrum[at_hz - far..=at_hz - near].iter();
    let mut beside: Vec<f64> = below.chain(&spectrum[at_hz + near..=at_hz + far]).copied().collect();
    beside.sort_by(f64::total_cmp);
    let middle = beside.len() / 2;
    // Of noise the median of a bin is ln 2 of its mean.
    let median = (beside[middle - 1] + beside[middle]) / 2.0 / std::f64::consts::LN_2;
    let background = median * own.len() as f64;
    let all: f64 = own.iter().sum();
    // Where there is no noise at all, as in a drawn tone, the line stands out by what single precision has.
    (all - background, 10.0 * (all.max(1e-30) / background.max(1e-30)).log10())
}
