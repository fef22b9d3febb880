//! Peaks, and the peak between the samples.

/// Quieter than this there is nothing, dB.
pub(super) const SILENCE_DB: f64 = -240.0;
/// Interpolation by four of ITU-R BS.1770-4, annex 2: its first two phases; the other two are these turned round (from memory, held
/// against the signals of EBU Tech 3341).
const PHASES: [[f64; 12]; 2] = [
    [
        0.001_708_984_375_0,
        0.010_986_328_125_0,
        -0.019_653_320_312_5,
        0.033_203_125_000_0,
        -0.059_448_242_187_5,
        0.137_329_101_562_5,
        0.972_167_968_750_0,
        -0.102_294_921_875_0,
        0.047_607_421_875_0,
        -0.026_611_328_125_0,
        0.014_892_578_125_0,
        -0.008_300_781_250_0,
    ],
    [
        -0.029_174_804_687_5,
        0.029_296_875_000_0,
        -0.051_757_812_500_0,
        0.089_111_328_125_0,
        -0.166_503_906_250_0,
        0.465_087_890_625_0,
        0.779_785_156_250_0,
        -0.200_317_382_812_5,
        0.101_562_500_000_0,
        -0.058_227_539_062_5,
        0.033_081_054_687_5,
        -0.018_920_898_437_5,
    ],
];
/// From this rate on the samples themselves are close enough together, Hz.
const DENSE_HZ: f64 = 176_000.0;
/// From this rate on every second phase is enough, Hz.
const HALF_HZ: f64 = 88_000.0;

/// 20 lg of an amplitude, dB.
pub(super) fn db(amplitude: f64) -> f64 {
    if amplitude > 0.0 { (20.0 * amplitude.log10()).max(SILENCE_DB) } else { SILENCE_DB }
}

/// Largest sample, dBFS.
pub(super) fn sample_peak(samples: &[f32]) -> f64 {
    f64::from(samples.iter().fold(0.0f32, |most, sample| most.max(sample.abs())))
}

/// Mean level, dBFS: a full-scale square wave has 0.
pub(super) fn rms_dbfs(samples: &[f32]) -> f64 {
    let sum: f64 = samples.iter().map(|sample| f64::from(*sample).powi(2)).sum();
    db((sum / samples.len().max(1) as f64).sqrt())
}

/// Largest value between the samples too (ITU-R BS.1770-4, annex 2).
pub(super) fn true_peak(samples: &[f32], rate_hz: f64) -> f64 {
    let own = sample_peak(samples);
    if rate_hz >= DENSE_HZ {
        return own;
    }
    let turned = |phase: &[f64; 12]| {
        let mut turned = *phase;
        turned.reverse();
        turned
    };
    let [first, second] = PHASES;
    let all = [first, second, turned(&second), turned(&first)];
    let phases: Vec<[f32; 12]> = all
        .into_iter()
        .step_by(if rate_hz >= HALF_HZ { 2 } else { 1 })
        .map(|phase| phase.map(|tap| tap as f32))
        .collect();
    let mut most = 0.0f32;
    // A window that is far below the loudest sample cannot pass it: the taps of a phase add up to 2.03 in size.
    let worth = own as f32 * 0.35;
    let mut at = |window: [f32; 12]| {
        if window.iter().all(|sample| sample.abs() < worth) {
            return;
        }
        for phase in &phases {
            let value: f32 = phase.iter().zip(window).map(|(tap, sample)| tap * sample).sum();
            most = most.max(value.abs());
        }
    };
    let edge = |at: i64| usize::try_from(at).ok().and_then(|at| samples.get(at)).copied().unwrap_or(0.0);
    let length = samples.len() as i64;
    for begin in (-11..length.min(0)).chain((length - 11).max(0)..length) {
        at(std::array::from_fn(|tap| edge(begin + tap as i64)));
    }
    for window in samples.windows(12) {
        at(std::array::from_fn(|tap| window[tap]));
    }
    f64::from(most)
}
