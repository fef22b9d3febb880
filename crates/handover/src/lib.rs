//! Formats that leave the building: values in, bytes out. Nothing here decides anything.

pub mod csv;
pub mod dxf;
pub mod file;
pub mod hours;
pub mod html;
pub mod life_size;
pub mod marks;
pub mod pages;
pub mod pdf;
pub mod picture;
pub mod qr;
pub mod run;
pub mod scene;
pub mod shopping;
pub mod svg;
pub mod text;

mod sheet;
mod sketch;
mod table;
mod typeface;

/// Text made safe inside XML and HTML.
pub(crate) fn escaped(text: &str) -> String {
    let mut out = String::with_capacity(text.len());
    for c in text.chars() {
        match c {
            '&' => out.push_str("&amp;"),
            '<' => out.push_str("&lt;"),
            '>' => out.push_str("&gt;"),
            '"' => out.push_str("&quot;"),
            '\'' => out.push_str("&#39;"),
            // Control characters are not allowed in XML 1.0.
            c if c.is_control() && c != '\n' && c != '\t' => out.push(' '),
            c => out.push(c),
        }
    }
    out
}

/// Paper to print on.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub enum Paper {
    /// 210 x 297 mm.
    #[default]
    A4,
    /// 8.5 x 11 in.
    Letter,
}

impl Paper {
    /// Width and height, mm.
    pub fn size_mm(self) -> (f64, f64) {
        match self {
            Paper::A4 => (210.0, 297.0),
            Paper::Letter => (215.9, 279.4),
        }
    }

    /// From the word in a request; `None` for other words.
    pub fn named(name: &str) -> Option<Self> {
        match name {
            "a4" => Some(Paper::A4),
            "letter" => Some(Paper::Letter),
            _ => None,
        }
    }
}
