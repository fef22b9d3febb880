//! Levels: distance, sums, A-weighting, and how long an ear can take them.

/// Level at another distance over 0 m by the inverse square law for direct sound, dB: L - 20 lg(r2 / r1) (any handbook).
pub fn level_at_distance_db(level_db: f64, at_distance_m: f64, wanted_distance_m: f64) -> f64 {
    level_db - 20.0 * (wanted_distance_m / at_distance_m).log10()
}

/// Energy of a level, re 0 dB: 10^(L / 10).
pub fn energy(level_db: f64) -> f64 {
    10f64.powf(level_db / 10.0)
}

/// Sum of levels by energy, dB (ISO 1996-1); negative infinity of none.
pub fn sum_db(levels_db: impl IntoIterator<Item = f64>) -> f64 {
    10.0 * levels_db.into_iter().map(energy).sum::<f64>().log10()
}

/// A-weighting at a frequency, dB, 0 at 1 kHz (IEC 61672-1, analytic form).
pub fn a_weighting_db(frequency_hz: f64) -> f64 {
    let gain = |f: f64| {
        let f2 = f * f;
        let pole = |p: f64| f2 + p * p;
        12_194.217f64.powi(2) * f2 * f2
            / (pole(20.598_997) * (pole(107.652_65) * pole(737.862_23)).sqrt() * pole(12_194.217))
    };
    20.0 * (gain(frequency_hz) / gain(1000.0)).log10()
}

/// Hours a week that an ear may listen at a level: 40 h at 80 dBA, half for each 3 dB more (WHO-ITU H.870).
pub fn listening_hours_per_week(level_dba: f64) -> f64 {
    40.0 * 2f64.powf((80.0 - level_dba) / 3.0)
}
