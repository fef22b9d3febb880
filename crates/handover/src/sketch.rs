//! One view as SVG elements in millimetres, readable in black and white: kinds differ by line and hatch, marks
//! by letter.

use std::fmt::Write as _;

use fogon_core::drawing::{Ink, View};

use crate::escaped;
use crate::picture::Photo;

/// Hatches that the shapes refer to.
pub(crate) const DEFS: &str = r##"<defs>
<pattern id="hatch" width="1.6" height="1.6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)"><line x1="0" y1="0" x2="0" y2="1.6" stroke="#777" stroke-width="0.18"/></pattern>
<pattern id="dots" width="1.2" height="1.2" patternUnits="userSpaceOnUse"><circle cx="0.6" cy="0.6" r="0.16" fill="#999"/></pattern>
</defs>"##;

/// Fill, stroke, stroke width (mm) and dashes of an ink.
fn pen(ink: Ink) -> (&'static str, &'static str, f64, &'static str) {
    match ink {
        Ink::Wall => ("#333", "none", 0.0, ""),
        Ink::Floor => ("#fff", "none", 0.0, ""),
        Ink::Window => ("#fff", "#333", 0.25, ""),
        Ink::Door => ("#fff", "#999", 0.15, ""),
        Ink::Swing => ("url(#hatch)", "#777", 0.2, "0.8 0.6"),
        Ink::Overhead => ("none", "#777", 0.2, "2 0.7 0.5 0.7"),
        Ink::Furniture => ("#eee", "#666", 0.2, ""),
        Ink::Detail => ("none", "#888", 0.12, ""),
        Ink::Chair => ("#fff", "#555", 0.2, ""),
        Ink::Person => ("#ddd", "#222", 0.25, ""),
        Ink::Head => ("#fff", "#222", 0.3, ""),
        Ink::Camera => ("#222", "#222", 0.2, ""),
        Ink::Light => ("#bbb", "#111", 0.3, ""),
        Ink::LampFace => ("#fff", "#111", 0.6, ""),
        Ink::Board => ("#fff", "#111", 0.35, "1.2 0.6"),
        Ink::Microphone => ("#111", "#111", 0.3, ""),
        Ink::Screen => ("#fff", "#111", 0.3, "0.3 0.3"),
        Ink::Backdrop => ("#f4f4f4", "#444", 0.3, "1.5 0.4"),
        Ink::Treatment => ("url(#dots)", "#333", 0.25, ""),
        Ink::Parked => ("#fff", "#111", 0.3, "0.2 0.5"),
        Ink::Cable => ("none", "#000", 0.45, ""),
        Ink::Stand => ("#555", "none", 0.0, ""),
        Ink::Feet => ("none", "#777", 0.15, "0.5 0.5"),
        Ink::Leg => ("none", "#555", 0.25, ""),
        Ink::Arm => ("#555", "#555", 0.15, ""),
        Ink::Field => ("none", "#555", 0.18, ""),
        Ink::Sharp => ("url(#dots)", "#999", 0.12, ""),
        Ink::Axis => ("none", "#555", 0.15, "1.6 0.6 0.3 0.6"),
        Ink::Aim => ("none", "#777", 0.15, "0.3 0.5"),
        Ink::Intruder => ("url(#hatch)", "#000", 0.6, ""),
        Ink::Guide => ("none", "#bbb", 0.12, "0.6 0.6"),
        Ink::Centre
        | Ink::SafeArea
        | Ink::VerticalCut
        | Ink::HeadroomBand
        | Ink::Isolux
        | Ink::Cone
        | Ink::KeepOut
        | Ink::Voice
        | Ink::Echo => ("none", "none", 0.0, ""),
        Ink::EyeLine => ("none", "#444", 0.18, "2 0.8"),
        Ink::Headroom => ("none", "#222", 0.3, ""),
        Ink::CutOff => ("rgb(255 255 255 / 0.7)", "none", 0.0, ""),
        Ink::DeliveredEdge => ("none", "#000", 0.4, ""),
    }
}

/// The picture: where there is a photograph, that with its guides; else as it is drawn.
pub(crate) fn frame(view: &View, photo: Option<&Photo<'_>>, left: f64, top: f64, mm: f64) -> String {
    let Some(photo) = photo else { return self::view(view, left, top, mm) };
    // What is recorded beyond the picture is around it.
    let image = photo.element(left - view.bounds[0] * mm, top - view.bounds[1] * mm, mm);
    image + &drawn(view, left, top, mm, &|ink| !is_in_photo(ink))
}

/// What a photograph shows itself.
fn is_in_photo(ink: Ink) -> bool {
    matches!(
        ink,
        Ink::Wall
            | Ink::Window
            | Ink::Door
            | Ink::Furniture
            | Ink::Backdrop
            | Ink::Person
            | Ink::Head
            | Ink::Floor
    )
}

/// A view drawn at `mm` millimetres per unit with its top left at (`left`, `top`).
pub(crate) fn view(view: &View, left: f64, top: f64, mm: f64) -> String {
    drawn(view, left, top, mm, &|_| true)
}

fn drawn(view: &View, left: f64, top: f64, mm: f64, shows: &dyn Fn(Ink) -> bool) -> String {
    let x = |v: f64| left + (v - view.bounds[0]) * mm;
    let y = |v: f64| top + (v - view.bounds[1]) * mm;
    let mut out = String::new();
    // Guides that a screen switches on and off stay off paper.
    let switched =
        |ink: Ink| matches!(ink, Ink::Centre | Ink::SafeArea | Ink::VerticalCut | Ink::HeadroomBand);
    for stroke in view.strokes.iter().filter(|stroke| !switched(stroke.ink) && shows(stroke.ink)) {
        let points: Vec<String> =
            stroke.points.iter().map(|p| format!("{:.2},{:.2}", x(p[0]), y(p[1]))).collect();
        let element = if stroke.closed { "polygon" } else { "polyline" };
        let (fill, line, width, dash) = pen(stroke.ink);
        // A wall seen in the frame is a line, not a solid.
        let (fill, line, width) = match (stroke.closed, line) {
            (false, "none") => ("none", "#666", 0.2),
            (false, _) => ("none", line, width),
            (true, _) => (fill, line, width),
        };
        let dash = if dash.is_empty() { String::new() } else { format!(" stroke-dasharray=\"{dash}\"") };
        let _ = writeln!(
            out,
            "<{element} points=\"{}\" fill=\"{fill}\" stroke=\"{line}\" stroke-width=\"{width}\"{dash}/>",
            points.join(" ")
        );
    }
    out.push_str(&words(view, x, y, mm));
    out
}

/// Lettered marks and words, where the drawing has put them.
fn words(view: &View, x: impl Fn(f64) -> f64, y: impl Fn(f64) -> f64, mm: f64) -> String {
    let size = view.text_size * mm;
    let mut out = String::new();
    for mark in &view.marks {
        let (cx, cy) = (x(mark.at[0]), y(mark.at[1]));
        let _ = writeln!(
            out,
            "<circle cx=\"{cx:.2}\" cy=\"{cy:.2}\" r=\"{:.2}\" fill=\"#fff\" stroke=\"#000\" stroke-width=\"0.25\"/><text x=\"{cx:.2}\" y=\"{:.2}\" font-size=\"{:.2}\" text-anchor=\"middle\" font-weight=\"700\">{}</text>",
            view.mark_radius * mm,
            cy + size * 0.34,
            size * 0.95,
            mark.letter
        );
    }
    for word in &view.words {
        if let Some([from, to]) = word.leader {
            let _ = writeln!(
                out,
                "<line x1=\"{:.2}\" y1=\"{:.2}\" x2=\"{:.2}\" y2=\"{:.2}\" stroke=\"#333\" stroke-width=\"0.15\"/>",
                x(from[0]),
                y(from[1]),
                x(to[0]),
                y(to[1])
            );
        }
        let _ = writeln!(
            out,
            "<text x=\"{:.2}\" y=\"{:.2}\" font-size=\"{size:.2}\" paint-order=\"stroke\" stroke=\"#fff\" stroke-width=\"0.7\" stroke-linejoin=\"round\">{}</text>",
            x(word.at[0]),
            y(word.at[1]),
            escaped(&word.text)
        );
    }
    out
}
