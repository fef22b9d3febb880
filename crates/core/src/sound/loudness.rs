//! Loudness and true peak of recordings (ITU-R BS.1770-4, EBU R 128).

/// A second-order filter.
#[derive(Debug, Clone, Copy)]
pub struct Biquad {
    /// Of the input, newest first.
    pub b: [f64; 3],
    /// Of the output; the first is 1.
    pub a: [f64; 3],
}

impl Biquad {
    fn run(&self, samples: &mut [f64]) {
        let (mut z1, mut z2) = (0.0, 0.0);
        for x in samples {
            let y = self.b[0] * *x + z1;
            z1 = self.b[1] * *x - self.a[1] * y + z2;
            z2 = self.b[2] * *x - self.a[2] * y;
            *x = y;
        }
    }
}

/// The two filters of K-weighting at a sample rate: a shelf, then a high pass. The analogue prototype gives BS.1770's
/// tables at 48 kHz.
pub fn k_weighting(sample_rate_hz: f64) -> [Biquad; 2] {
    let shelf = {
        let (f0, gain_db, q) = (1_681.974_450_955_533, 3.999_843_853_973_347, 0.707_175_236_955_419_6);
        let k = (std::f64::consts::PI * f0 / sample_rate_hz).tan();
        let high = 10f64.powf(gain_db / 20.0);
        let band = high.powf(0.499_666_774_154_541_6);
        let a0 = 1.0 + k / q + k * k;
        Biquad {
            b: [
                (high + band * k / q + k * k) / a0,
                2.0 * (k * k - high) / a0,
                (high - band * k / q + k * k) / a0,
            ],
            a: [1.0, 2.0 * (k * k - 1.0) / a0, (1.0 - k / q + k * k) / a0],
        }
    };
    let high_pass = {
        let (f0, q) = (38.135_470_876_024_44, 0.500_327_037_323_877_3);
        let k = (std::f64::consts::PI * f0 / sample_rate_hz).tan();
        let a0 = 1.0 + k / q + k * k;
        Biquad { b: [1.0, -2.0, 1.0], a: [1.0, 2.0 * (k * k - 1.0) / a0, (1.0 - k / q + k * k) / a0] }
    };
    [shelf, high_pass]
}

/// Integrated loudness of channels that play left and right or as one, LUFS; `None` of less than 0.4 s, or where nothing
/// passes the gate at -70.
pub fn integrated_lufs(channels: &[&[f32]], sample_rate_hz: f64) -> Option<f64> {
    let weighted: Vec<Vec<f64>> = channels
        .iter()
        .map(|channel| {
            let mut samples: Vec<f64> = channel.iter().map(|s| f64::from(*s)).collect();
            for filter in k_weighting(sample_rate_hz) {
                filter.run(&mut samples);
            }
            samples
        })
        .collect();
    let (block, hop) = ((0.4 * sample_rate_hz).round() as usize, (0.1 * sample_rate_hz).round() as usize);
    let length = weighted.iter().map(Vec::len).min()?;
    if length < block {
        return None;
    }
    let powers: Vec<f64> = (0..=(length - block) / hop)
        .map(|i| {
            let of = |samples: &Vec<f64>| {
                samples[i * hop..i * hop + block].iter().map(|s| s * s).sum::<f64>() / block as f64
            };
            weighted.iter().map(of).sum()
        })
        .collect();
    let loudness = |power: f64| -0.691 + 10.0 * power.log10();
    let gated = |gate: f64| {
        let kept: Vec<f64> = powers.iter().copied().filter(|p| loudness(*p) > gate).collect();
        (!kept.is_empty()).then(|| loudness(kept.iter().sum::<f64>() / kept.len() as f64))
    };
    let gate = gated(-70.0)? - 10.0;
    gated(gate.max(-70.0))
}

/// Taps of the interpolation between samples, the first two of four phases (BS.1770-4 annex 2, from memory).
const TAPS: [[f64; 12]; 2] = [
    [
        0.001_708_984_375,
        0.010_986_328_125,
        -0.019_653_320_312_5,
        0.033_203_125,
        -0.059_448_242_187_5,
        0.137_329_101_562_5,
        0.972_167_968_75,
        -0.102_294_921_875,
        0.047_607_421_875,
        -0.026_611_328_125,
        0.014_892_578_125,
        -0.008_300_781_25,
    ],
    [
        -0.029_174_804_687_5,
        0.029_296_875,
        -0.051_757_812_5,
        0.089_111_328_125,
        -0.166_503_906_25,
        0.465_087_890_625,
        0.779_785_156_25,
        -0.200_317_382_812_5,
        0.101_562_5,
        -0.058_227_539_062_5,
        0.033_081_054_687_5,
        -0.018_920_898_437_5,
    ],
];

/// True peak of samples at 44.1 or 48 kHz, four values for each, dBTP; `None` of silence.
pub fn true_peak_dbtp(samples: &[f32]) -> Option<f64> {
    let mut padded = vec![0.0; samples.len() + 22];
    for (to, from) in padded[11..].iter_mut().zip(samples) {
        *to = f64::from(*from);
    }
    let mut peak = 0.0f64;
    for window in padded.windows(12) {
        for taps in &TAPS {
            // Phases 2 and 3 are phases 1 and 0 the other way round.
            let forward: f64 = taps.iter().zip(window).map(|(tap, x)| tap * x).sum();
            let backward: f64 = taps.iter().rev().zip(window).map(|(tap, x)| tap * x).sum();
            peak = peak.max(forward.abs()).max(backward.abs());
        }
    }
    (peak > 0.0).then(|| 20.0 * peak.log10())
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
