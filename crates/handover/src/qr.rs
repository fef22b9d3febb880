//! An address as a picture that a phone reads (ISO/IEC 18004, by the crate `qrcode`).

use qrcode::render::svg::Color;
use qrcode::{EcLevel, QrCode};

/// Pixels of the picture's side at least.
const SIDE_PX: u32 = 220;

/// The picture as an SVG, black on white with its quiet zone; none of a text that is too long for one.
pub fn svg(text: &str) -> Option<String> {
    let code = QrCode::with_error_correction_level(text, EcLevel::M).ok()?;
    Some(code.render::<Color<'_>>().min_dimensions(SIDE_PX, SIDE_PX).quiet_zone(true).build())
}
