//! Pictures: PNG (ISO/IEC 15948) for people, portable float maps for what computes on.
use base64::Engine as _;
use fogon_core::problem::{Code, Problem};
use glam::Vec3;

/// A picture that is put into a page: its PNG, and its width over its height.
#[derive(Debug, Clone, Copy)]
pub struct Photo<'a> {
    /// The file.
    pub png: &'a [u8],
    /// Width over height.
    pub aspect: f64,
}

impl Photo<'_> {
    /// As an element of an SVG, its upper left corner at a place, so high.
    pub(crate) fn element(&self, left: f64, top: f64, high: f64) -> String {
        let data = base64::engine::general_purpose::STANDARD.encode(self.png);
        let wide = self.aspect * high;
        format!(
            "<image x=\"{left:.2}\" y=\"{top:.2}\" width=\"{wide:.2}\" height=\"{high:.2}\" preserveAspectRatio=\"none\" href=\"data:image/png;base64,{data}\"/>\n"
        )
    }
}

/// A PNG of red, green, blue and opacity, sRGB, with a text that says how it was taken.
///
/// # Errors
/// If the pixels are not as many as width and height say.
pub fn png(width: usize, height: usize, pixels: &[u8], settings: &str) -> Result<Vec<u8>, Problem> {
    let failed = |error: png::EncodingError| {
        Problem::new("picture", error, "a picture that can be written", Code::OutOfRange)
    };
    let mut bytes = Vec::new();
    let mut encoder = png::Encoder::new(&mut bytes, width as u32, height as u32);
    encoder.set_color(png::ColorType::Rgba);
    encoder.set_depth(png::BitDepth::Eight);
    encoder.set_source_srgb(png::SrgbRenderingIntent::Perceptual);
    encoder.add_itxt_chunk("Description".to_owned(), settings.to_owned()).map_err(failed)?;
    let mut writer = encoder.write_header().map_err(failed)?;
    writer.write_image_data(pixels).map_err(failed)?;
    writer.finish().map_err(failed)?;
    Ok(bytes)
}

/// A portable float map: red, green and blue as 32-bit floats, little end first, rows from below.
pub fn pfm(width: usize, height: usize, pixels: &[Vec3]) -> Vec<u8> {
    let mut bytes = format!("PF\n{width} {height}\n-1.0\n").into_bytes();
    for row in pixels.chunks(width.max(1)).rev() {
        bytes.extend(row.iter().flat_map(|pixel| pixel.to_array()).flat_map(f32::to_le_bytes));
    }
    bytes
}
