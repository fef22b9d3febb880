//! One view as SVG elements in millimetres, readable in black and white: kinds differ by line and hatch, marks
//! by letter.

use std::fmt::Write as _;

use fogon_core::drawing::{Ink, Label, View};

use crate::escaped;

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
        Ink::Furniture => ("#eee", "#666", 0.2, ""),
        Ink::Person => ("#ddd", "#222", 0.25, ""),
        Ink::Head => ("#fff", "#222", 0.3, ""),
        Ink::Camera => ("#222", "#222", 0.2, ""),
        Ink::Light => ("#fff", "#111", 0.5, ""),
        Ink::Board => ("#fff", "#111", 0.35, "1.2 0.6"),
        Ink::Microphone => ("#111", "#111", 0.3, ""),
        Ink::Stand => ("#555", "none", 0.0, ""),
        Ink::Feet => ("none", "#777", 0.15, "0.5 0.5"),
        Ink::Arm => ("#555", "#555", 0.15, ""),
        Ink::Field => ("none", "#555", 0.18, ""),
        Ink::Sharp => ("url(#dots)", "#999", 0.12, ""),
        Ink::Axis => ("none", "#555", 0.15, "1.6 0.6 0.3 0.6"),
        Ink::Aim => ("none", "#777", 0.15, "0.3 0.5"),
        Ink::Intruder => ("url(#hatch)", "#000", 0.6, ""),
        Ink::Guide => ("none", "#bbb", 0.12, "0.6 0.6"),
        Ink::EyeLine => ("none", "#444", 0.18, "2 0.8"),
        Ink::Headroom => ("none", "#222", 0.3, ""),
    }
}

/// A view drawn at `mm` millimetres per unit with its top left at (`left`, `top`).
pub(crate) fn view(view: &View, left: f64, top: f64, mm: f64, text_mm: f64) -> String {
    let x = |v: f64| left + (v - view.bounds[0]) * mm;
    let y = |v: f64| top + (v - view.bounds[1]) * mm;
    let mut out = String::new();
    for stroke in &view.strokes {
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
    let (width, height) = ((view.bounds[2] - view.bounds[0]) * mm, (view.bounds[3] - view.bounds[1]) * mm);
    out.push_str(&labels(&view.labels, x, y, text_mm, [left, top, left + width, top + height]));
    out
}

/// Lettered marks first, then words where they meet nothing.
fn labels(
    labels: &[Label],
    x: impl Fn(f64) -> f64,
    y: impl Fn(f64) -> f64,
    size: f64,
    [left, top, right, bottom]: [f64; 4],
) -> String {
    let radius = size * 0.72;
    let mut taken: Vec<[f64; 4]> = Vec::new();
    let clear = |b: &[f64; 4], taken: &[[f64; 4]]| {
        b[0] >= left
            && b[1] >= top
            && b[2] <= right
            && b[3] <= bottom
            && taken.iter().all(|t| b[2] <= t[0] || b[0] >= t[2] || b[3] <= t[1] || b[1] >= t[3])
    };
    let mut out = String::new();
    let mut places = Vec::new();
    for label in labels {
        let (mut cx, mut cy) = (
            x(label.at[0]).clamp(left + radius, right - radius),
            y(label.at[1]).clamp(top + radius, bottom - radius),
        );
        if !label.letter.is_empty() {
            // Marks that would cover each other step aside.
            for step in 0..24 {
                let angle = f64::from(step) * std::f64::consts::FRAC_PI_4;
                let far = f64::from(step / 8 + i32::from(step > 0)) * radius * 1.5;
                let (tx, ty) = (x(label.at[0]) + far * angle.cos(), y(label.at[1]) + far * angle.sin());
                let b = [tx - radius, ty - radius, tx + radius, ty + radius];
                if clear(&b, &taken) {
                    (cx, cy) = (tx, ty);
                    break;
                }
            }
            taken.push([cx - radius, cy - radius, cx + radius, cy + radius]);
            let _ = writeln!(
                out,
                "<circle cx=\"{cx:.2}\" cy=\"{cy:.2}\" r=\"{radius:.2}\" fill=\"#fff\" stroke=\"#000\" stroke-width=\"0.25\"/><text x=\"{cx:.2}\" y=\"{:.2}\" font-size=\"{:.2}\" text-anchor=\"middle\" font-weight=\"700\">{}</text>",
                cy + size * 0.34,
                size * 0.95,
                label.letter
            );
        }
        places.push((cx, cy));
    }
    for (label, (cx, cy)) in labels.iter().zip(places) {
        if label.text.is_empty() {
            continue;
        }
        let width = label.text.chars().count() as f64 * size * 0.54;
        let gap = if label.letter.is_empty() { 0.0 } else { radius + size * 0.25 };
        let spots = [
            (cx + gap, cy + size * 0.33),
            (cx - gap - width, cy + size * 0.33),
            (cx - width / 2.0, cy - gap - size * 0.3),
            (cx - width / 2.0, cy + gap + size * 0.9),
            (cx + gap, cy - gap),
            (cx + gap, cy + gap + size * 0.6),
            (cx - gap - width, cy - gap),
            (cx - gap - width, cy + gap + size * 0.6),
            (cx - width, cy + size * 0.33),
        ];
        let spot = spots.into_iter().find_map(|(tx, ty)| {
            let b = [tx - 0.2, ty - size * 0.85, tx + width + 0.2, ty + size * 0.25];
            clear(&b, &taken).then_some((tx, ty, b))
        });
        if let Some((tx, ty, b)) = spot {
            taken.push(b);
            let _ = writeln!(
                out,
                "<text x=\"{tx:.2}\" y=\"{ty:.2}\" font-size=\"{size:.2}\" paint-order=\"stroke\" stroke=\"#fff\" stroke-width=\"0.7\" stroke-linejoin=\"round\">{}</text>",
                escaped(&label.text)
            );
        }
    }
    out
}
