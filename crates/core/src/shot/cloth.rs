//! Striped cloth on a grid of pixels: whether it crawls (Nyquist and Shannon; the classes common practice, no
//! source).

use serde::Serialize;

use super::recording::{DELIVERED_PX, video_width_px};
use crate::corner::Corner;
use crate::reading::{Origin, Quantity, Reading};

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

/// The class when recorded and delivered at different widths: each halves the samples that the other may need.
pub fn moire_delivered(recorded: f64, delivered: f64) -> Moire {
    let at_least = |value: f64, limit: f64| value >= limit * (1.0 - 1e-9);
    if at_least(recorded, 6.0) && at_least(delivered, 3.0) {
        Moire::Low
    } else if at_least(recorded, 4.0) && at_least(delivered, 2.0) {
        Moire::Watch
    } else if !at_least(recorded, 0.7) && !at_least(delivered, 0.7) {
        Moire::LowBlurred
    } else {
        Moire::Risk
    }
}

/// Recorded and delivered pixels for a pair of the stripes that are worn; `None` where nothing is striped.
pub fn stripes_px(corner: &Corner<'_>) -> Option<(f64, f64)> {
    let pitch = corner.brief.person.stripe_pitch_mm?;
    let width = corner.view.frame_width_m(corner.subject_distance_m());
    let delivered = corner.brief.recording.delivered_width_px.unwrap_or(DELIVERED_PX);
    Some((
        pixels_per_pitch(pitch, width, video_width_px(corner).0),
        pixels_per_pitch(pitch, width, delivered),
    ))
}

pub(super) fn readings(corner: &Corner<'_>) -> Option<Reading> {
    let (recorded, delivered) = stripes_px(corner)?;
    let width = corner.view.frame_width_m(corner.subject_distance_m());
    let (px, from) = video_width_px(corner);
    let reading = Reading::new(Quantity::ShotClothStripePx, recorded)
        .by(
            "stripe pair x recorded pixels / framed width",
            "sampling theorem (Nyquist, Shannon); classes common practice, no source",
        )
        .with("stripe pair", corner.brief.person.stripe_pitch_mm.unwrap_or(0.0), "mm", Origin::Typed)
        .with("recorded width", px, "px", from)
        .with("framed width at the eyes", width, "m", Origin::Computed)
        .with("the same as delivered", delivered, "px", Origin::Computed)
        .note("6 or more, and 3 or more as delivered: drawn as it is. A sleeve turned away halves it.");
    Some(reading)
}
