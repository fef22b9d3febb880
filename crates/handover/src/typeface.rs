//! The card's typeface, Atkinson Hyperlegible Next (SIL Open Font License 1.1), and how wide words are in it.

use std::fmt::Write as _;
use std::sync::OnceLock;

use base64::Engine as _;
use ttf_parser::Face;

/// Regular and bold, as files that Rust reads.
pub(crate) const REGULAR: &[u8] = include_bytes!("../assets/atkinson-regular.ttf");
pub(crate) const BOLD: &[u8] = include_bytes!("../assets/atkinson-bold.ttf");
/// All weights, as a file that pages read.
const OF_PAGES: &[u8] = include_bytes!("../assets/atkinson.woff2");

/// Its name in pages, and what stands in for letters that it does not have.
pub(crate) const FAMILY: &str = "'Atkinson Hyperlegible Next','DejaVu Sans',Arial,sans-serif";

/// A letter that the typeface does not have is taken to be this wide, in parts of the size: a square sign.
const UNKNOWN: f64 = 1.0;

/// The style that brings the typeface with it, so that words are as wide everywhere as they were measured.
pub(crate) fn style() -> &'static str {
    static STYLE: OnceLock<String> = OnceLock::new();
    STYLE.get_or_init(|| {
        let mut style = String::from(
            "@font-face{font-family:'Atkinson Hyperlegible Next';font-weight:200 800;src:url(data:font/woff2;base64,",
        );
        base64::engine::general_purpose::STANDARD.encode_string(OF_PAGES, &mut style);
        let _ = write!(style, ") format('woff2')}}");
        style
    })
}

/// Width of words at a size of 1.
pub(crate) fn width(text: &str, is_bold: bool) -> f64 {
    let Some(widths) = widths(is_bold) else { return UNKNOWN * text.chars().count() as f64 };
    text.chars()
        .map(|letter| {
            let glyph = widths.0.glyph_index(letter).and_then(|glyph| widths.0.glyph_hor_advance(glyph));
            glyph.map_or(UNKNOWN, |advance| f64::from(advance) / widths.1)
        })
        .sum()
}

/// Whether the typeface has every letter of a text.
pub(crate) fn has(text: &str) -> bool {
    widths(false).is_some_and(|(face, _)| {
        text.chars().all(|letter| letter.is_control() || face.glyph_index(letter).is_some())
    })
}

fn widths(is_bold: bool) -> Option<&'static (Face<'static>, f64)> {
    static FACES: OnceLock<[Option<(Face<'static>, f64)>; 2]> = OnceLock::new();
    let faces = FACES.get_or_init(|| {
        [REGULAR, BOLD].map(|bytes| {
            let face = Face::parse(bytes, 0).ok()?;
            let units = f64::from(face.units_per_em());
            Some((face, units))
        })
    });
    faces[usize::from(is_bold)].as_ref()
}

#[cfg(test)]
mod tests {
    use super::*;

    /// Widths as fontTools 4.68 reads them off the files (reference/fonts).
    #[test]
    fn words_are_as_wide_as_their_letters() {
        for (text, plain, bold) in [("a", 0.525, 0.552), ("W", 0.856, 0.886), ("m1", 1.252, 1.322)] {
            assert!(
                (width(text, false) - plain).abs() < 1e-9 && (width(text, true) - bold).abs() < 1e-9,
                "{text}"
            );
        }
        assert!(has("Key light, 1\u{bd} m \u{2013} \u{b0}\u{d7}\u{2019}") && !has("\u{4e2d}"));
    }
}
