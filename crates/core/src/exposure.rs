//! Exposure and shutter (ISO 2720:1974, from memory).

/// Calibration constant for a flat receptor.
pub const CALIBRATION: f64 = 250.0;

/// What a standard profile holds above an 18 % card, stops: log2(sqrt 2 / 0.18), half a stop over a white card
/// (ISO 12232 saturation, from memory).
pub const SATURATION_STOPS: f64 = 2.973_931;

/// Illuminance that a setting needs, lx: E = C N^2 / (t S), the equation of incident light meters (ISO 2720, from memory); time
/// and ISO over 0.
pub fn illuminance_needed_lx(f_number: f64, shutter_s: f64, iso: f64, calibration: f64) -> f64 {
    calibration * f_number * f_number / (shutter_s * iso)
}

/// Exposure value at ISO 100: log2(N^2 / t) - log2(S / 100) (ISO 2720, from memory); all over 0.
pub fn ev100(f_number: f64, shutter_s: f64, iso: f64) -> f64 {
    (f_number * f_number / shutter_s).log2() - (iso / 100.0).log2()
}

/// Exposure times n / (2 mains) that fit into a frame, ascending, s; none where not even one pulse fits. Lamps pulse twice a
/// cycle.
pub fn flicker_free_shutters_s(mains_hz: f64, frame_rate_hz: f64) -> Vec<f64> {
    let most = (2.0 * mains_hz / frame_rate_hz * (1.0 + 1e-12)).floor() as usize;
    (1..=most).map(|n| n as f64 / (2.0 * mains_hz)).collect()
}

/// The flicker-free time nearest to half the frame, in stops; within 0.10 stop of the best the shorter one. Half
/// the frame itself where none fits.
pub fn shutter_s(mains_hz: f64, frame_rate_hz: f64) -> f64 {
    let half = 0.5 / frame_rate_hz;
    let off = |t: f64| (t / half).log2().abs();
    let times = flicker_free_shutters_s(mains_hz, frame_rate_hz);
    let best = times.iter().map(|t| off(*t)).fold(f64::INFINITY, f64::min);
    times.into_iter().find(|t| off(*t) <= best + 0.10).unwrap_or(half)
}

/// Part of a fully pulsing lamp's light by which exposures of this time differ from each other: abs(sinc) of the time
/// over its pulses, of which the mains makes two a cycle; 0 for whole pulses.
pub fn residual_ripple(mains_hz: f64, shutter_s: f64) -> f64 {
    let phase = std::f64::consts::TAU * mains_hz * shutter_s;
    if phase < 1e-12 { 1.0 } else { (phase.sin() / phase).abs() }
}

/// Area of the 16:9 picture of full frame (36 x 20.25 mm), mm2.
const FULL_FRAME_MM2: f64 = 729.0;

/// Stops of light that an image area over 0 mm2 gets less than full frame at equal aperture, time and light: log2 of the areas.
pub fn stops_behind_full_frame(width_mm: f64, height_mm: f64) -> f64 {
    (FULL_FRAME_MM2 / (width_mm * height_mm)).log2()
}

/// The ISO at which full frame has as much noise: by the light of the whole picture, photon noise only (ISO times the ratio of
/// areas).
pub fn full_frame_iso(iso: f64, width_mm: f64, height_mm: f64) -> f64 {
    iso * FULL_FRAME_MM2 / (width_mm * height_mm)
}

const THIRD_STOPS: [f64; 10] = [1.0, 1.25, 1.6, 2.0, 2.5, 3.2, 4.0, 5.0, 6.4, 8.0];
const F_NUMBERS: [f64; 31] = [
    0.7, 0.8, 0.9, 1.0, 1.1, 1.2, 1.4, 1.6, 1.8, 2.0, 2.2, 2.5, 2.8, 3.2, 3.5, 4.0, 4.5, 5.0, 5.6, 6.3, 7.1,
    8.0, 9.0, 10.0, 11.0, 13.0, 14.0, 16.0, 18.0, 20.0, 22.0,
];

/// The nearest ISO on a camera's dial (third stops), within its range.
pub fn iso_on_dial(iso: f64, iso_min: f64, iso_max: f64) -> f64 {
    let wanted = iso.clamp(iso_min, iso_max);
    let decade = 10f64.powf(wanted.log10().floor());
    let nearest = THIRD_STOPS
        .iter()
        .flat_map(|s| [s * decade / 10.0, s * decade, s * decade * 10.0])
        .filter(|s| (iso_min..=iso_max).contains(s))
        .min_by(|a, b| (a / wanted).log2().abs().total_cmp(&(b / wanted).log2().abs()));
    nearest.unwrap_or(wanted)
}

/// The nearest white balance on a camera's dial, K: steps of 50.
pub fn white_balance_on_dial(cct_k: f64) -> f64 {
    ((cct_k / 50.0).round() * 50.0).clamp(1000.0, 25_000.0)
}

/// The nearest f-number engraved on lenses (third stops), within the lens's range.
pub fn f_number_on_dial(f_number: f64, widest: f64, smallest: f64) -> f64 {
    let wanted = f_number.clamp(widest, smallest.max(widest));
    let nearest = F_NUMBERS
        .iter()
        .copied()
        .filter(|n| (widest..=smallest).contains(n))
        .min_by(|a, b| (a / wanted).log2().abs().total_cmp(&(b / wanted).log2().abs()));
    nearest.unwrap_or(wanted)
}
