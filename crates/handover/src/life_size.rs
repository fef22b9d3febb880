//! Plan and side view at 1 : 1, in millimetres, each kind of line in a layer of its own: for other programs, not for paper.

use std::collections::BTreeMap;
use std::fmt::Write as _;

use fogon_core::drawing::{Ink, View};
use serde_json::Value;

use crate::{escaped, svg::size};

/// The name of a layer: what its lines are.
pub(crate) fn layer(ink: Ink) -> String {
    match serde_json::to_value(ink) {
        Ok(Value::String(name)) => name,
        _ => "lines".to_owned(),
    }
}

/// Lines of a view by their layers, in the order in which they are drawn.
pub(crate) fn layers(view: &View) -> Vec<(String, Vec<&fogon_core::drawing::Stroke>)> {
    let mut order: Vec<String> = Vec::new();
    let mut all: BTreeMap<String, Vec<_>> = BTreeMap::new();
    for stroke in &view.strokes {
        let name = layer(stroke.ink);
        if !all.contains_key(&name) {
            order.push(name.clone());
        }
        all.entry(name).or_default().push(stroke);
    }
    order.into_iter().filter_map(|name| Some((name.clone(), all.remove(&name)?))).collect()
}

/// A view as an SVG as large as the room.
pub fn svg(view: &View, title: &str) -> String {
    const MM: f64 = 1000.0;
    let [left, top, ..] = view.bounds;
    let (width, height) = size(view);
    let at = |[x, y]: [f64; 2]| format!("{:.1},{:.1}", (x - left) * MM, (y - top) * MM);
    let mut out = format!(
        "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{0:.1}mm\" height=\"{1:.1}mm\" viewBox=\"0 0 {0:.1} {1:.1}\" fill=\"none\" stroke=\"#000\" stroke-width=\"4\" font-family=\"sans-serif\">\n<title>{2}</title>\n",
        width * MM,
        height * MM,
        escaped(title)
    );
    for (name, strokes) in layers(view) {
        let _ = writeln!(out, "<g id=\"{name}\">");
        for stroke in strokes {
            let element = if stroke.closed { "polygon" } else { "polyline" };
            let points: Vec<String> = stroke.points.iter().map(|point| at(*point)).collect();
            let thing = stroke.thing.as_deref().map(|thing| format!("<title>{}</title>", escaped(thing)));
            let _ = writeln!(
                out,
                "<{element} points=\"{}\">{}</{element}>",
                points.join(" "),
                thing.unwrap_or_default()
            );
        }
        out.push_str("</g>\n");
    }
    out.push_str("<g id=\"words\" fill=\"#000\" stroke=\"none\">\n");
    let size_mm = view.text_size * MM;
    let words = view.words.iter().map(|word| (word.at, word.text.as_str()));
    for (place, text) in words.chain(view.marks.iter().map(|mark| (mark.at, mark.letter))) {
        let [x, y] = [(place[0] - left) * MM, (place[1] - top) * MM];
        let _ = writeln!(
            out,
            "<text x=\"{x:.1}\" y=\"{y:.1}\" font-size=\"{size_mm:.1}\">{}</text>",
            escaped(text)
        );
    }
    out.push_str("</g>\n</svg>\n");
    out
}
