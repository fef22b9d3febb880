//! Striped cloth on a grid of pixels: whether it crawls (Nyquist and Shannon; the classes common practice, no
//! source).

use serde::Serialize;

/// How a striped cloth comes out.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[serde(rename_all = "snake_case")]
pub enum Moire {
    /// Six pixels or more for a pair of stripes: drawn as it is.
    Low,
    /// Four to six: try it before the take.
    Watch,
    /// Less than 0.7: finer than the picture can show, an even grey.
    LowBlurred,
    /// Between: coloured bands that crawl.
    Risk,
}

/// Pixels for one light and one dark stripe of `stripe_pitch_mm` in a frame of this width at the cloth.
pub fn pixels_per_pitch(stripe_pitch_mm: f64, frame_width_m: f64, width_px: f64) -> f64 {
    stripe_pitch_mm * width_px / (1000.0 * frame_width_m)
}

/// The class of so many pixels for a pair of stripes.
pub fn moire(pixels_per_pitch: f64) -> Moire {
    let at_least = |limit: f64| pixels_per_pitch >= limit * (1.0 - 1e-9);
    if at_least(6.0) {
        Moire::Low
    } else if at_least(4.0) {
        Moire::Watch
    } else if at_least(0.7) {
        Moire::Risk
    } else {
        Moire::LowBlurred
    }
}
