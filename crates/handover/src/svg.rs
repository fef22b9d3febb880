//! The card as one SVG page in millimetres; plan and side view to a stated scale.

use std::fmt::Write as _;

use fogon_core::card::Card;
use fogon_core::drawing::View;
use fogon_core::room::FromCorner;
use fogon_core::units::{FOOT_M, UnitSystem};

use crate::picture::Photo;
use crate::sketch::{DEFS, frame, view};
use crate::{Paper, escaped};

/// Round scales, largest first.
const SCALES: [f64; 10] = [15.0, 20.0, 25.0, 30.0, 40.0, 50.0, 60.0, 75.0, 100.0, 200.0];
const MARGIN_MM: f64 = 11.0;
/// What holds for every mark.
pub(crate) const AIMS: &str =
    "Lamps are aimed at the eyes, the microphone as told above; sandbags lie on the rear leg.";

/// Width and height of a view, in its own units; of one that has none a little.
fn size(view: &View) -> (f64, f64) {
    let [left, top, right, bottom] = view.bounds;
    let side = |long: f64| if long.is_finite() { long.max(0.01) } else { 0.01 };
    (side(right - left), side(bottom - top))
}

/// Millimetres of paper for a metre of room, and the scale 1 : n, so that both views fit.
fn scale(card: &Card, width_mm: f64, height_mm: f64) -> (f64, f64) {
    let (plan, side) = (size(&card.drawing.plan), size(&card.drawing.side));
    let fits = |n: f64| {
        let mm = 1000.0 / n;
        plan.0.max(side.0) * mm <= width_mm && (plan.1 + side.1) * mm + 8.0 <= height_mm
    };
    let n = SCALES.into_iter().find(|n| fits(*n)).unwrap_or(500.0);
    (1000.0 / n, n)
}

/// A word that is longer than a line, in pieces; any other whole.
fn pieces(word: &str, most: usize) -> Vec<String> {
    let letters: Vec<char> = word.chars().collect();
    letters.chunks(most).map(|piece| piece.iter().collect()).collect()
}

/// Words on lines of at most `width_mm`, by the mean width of a letter.
fn wrapped(text: &str, width_mm: f64, size_mm: f64) -> Vec<String> {
    let most = (width_mm / (size_mm * 0.57)).max(8.0) as usize;
    let mut lines = vec![String::new()];
    let words = text.split_whitespace().flat_map(|word| pieces(word, most));
    for word in words {
        let line = lines.last_mut().map_or(0, |l| l.chars().count());
        if line > 0 && line + 1 + word.chars().count() > most {
            lines.push(String::new());
        }
        if let Some(line) = lines.last_mut() {
            if !line.is_empty() {
                line.push(' ');
            }
            line.push_str(&word);
        }
    }
    lines
}

struct Sheet {
    out: String,
}

impl Sheet {
    fn text(&mut self, x: f64, y: f64, size: f64, weight: u32, text: &str) {
        let _ = writeln!(
            self.out,
            "<text x=\"{x:.2}\" y=\"{y:.2}\" font-size=\"{size:.2}\" font-weight=\"{weight}\">{}</text>",
            escaped(text)
        );
    }

    /// Wrapped lines from `y` on; returns the next free baseline.
    fn lines(&mut self, x: f64, y: f64, width: f64, size: f64, text: &str) -> f64 {
        let mut at = y;
        for line in wrapped(text, width, size) {
            self.text(x, at, size, 400, &line);
            at += size * 1.35;
        }
        at
    }

    fn rule(&mut self, y: f64, from: f64, to: f64) {
        let _ = writeln!(
            self.out,
            "<line x1=\"{from:.2}\" y1=\"{y:.2}\" x2=\"{to:.2}\" y2=\"{y:.2}\" stroke=\"#000\" stroke-width=\"0.2\"/>"
        );
    }
}

/// The whole card on one page; what does not fit is made smaller, never dropped.
pub fn card(card: &Card, paper: Paper, photo: Option<Photo<'_>>) -> String {
    let (width, height) = paper.size_mm();
    let left = MARGIN_MM;
    let right = width - MARGIN_MM;
    let mut sheet = Sheet { out: String::new() };
    // A long name is set smaller, on as many lines as it takes.
    let name_size = if wrapped(&card.name, right - left, 5.6).len() > 1 { 4.2 } else { 5.6 };
    let mut top = MARGIN_MM + 5.0;
    for line in wrapped(&card.name, right - left, name_size) {
        sheet.text(left, top, name_size, 700, &line);
        top += name_size;
    }
    let top = sheet.lines(
        left,
        top,
        right - left,
        3.2,
        &format!("Set-up card. Room {}. {} Left and right are the camera's.", card.room, card.verdict),
    );
    sheet.rule(top, left, right);
    let drawing_width = (right - left) * 0.60;
    let (mm, n) = scale(card, drawing_width, height * 0.50);
    let (plan_height, side_height) = (size(&card.drawing.plan).1 * mm, size(&card.drawing.side).1 * mm);
    sheet.text(left, top + 4.0, 2.8, 700, &format!("Plan and side view, 1 : {n:.0}"));
    sheet.out += &view(&card.drawing.plan, left, top + 5.5, mm);
    let side_top = top + 5.5 + plan_height + 2.0;
    sheet.out += &view(&card.drawing.side, left, side_top, mm);
    let bar = side_top + side_height + 2.5;
    // One metre, or three feet, to lay a ruler on.
    let (long_m, long_words) = match card.units {
        UnitSystem::Metric => (1.0, "1 m"),
        UnitSystem::Imperial => (3.0 * FOOT_M, "3 ft"),
    };
    let long_mm = long_m * mm;
    let _ = writeln!(
        sheet.out,
        "<path d=\"M{left:.2} {bar:.2}h{long_mm:.2}m0 -1v2M{left:.2} {:.2}v2\" fill=\"none\" stroke=\"#000\" stroke-width=\"0.25\"/>",
        bar - 1.0
    );
    sheet.text(left + long_mm + 1.5, bar + 0.9, 2.4, 400, long_words);

    let column = left + drawing_width + 5.0;
    let column_width = right - column;
    let [left_edge, upper_edge, right_edge, lower_edge] = card.drawing.frame.bounds;
    let (frame_across, frame_down) = (right_edge - left_edge, lower_edge - upper_edge);
    let frame_mm = (column_width / frame_across).min(70.0 / frame_down);
    let (frame_width, frame_height) = (frame_mm * frame_across, frame_mm * frame_down);
    sheet.text(column, top + 4.0, 2.8, 700, "Picture");
    let frame_top = top + 5.5;
    sheet.out += &frame(&card.drawing.frame, photo.as_ref(), column, frame_top, frame_mm);
    let _ = writeln!(
        sheet.out,
        "<rect x=\"{column:.2}\" y=\"{frame_top:.2}\" width=\"{frame_width:.2}\" height=\"{frame_height:.2}\" fill=\"none\" stroke=\"#000\" stroke-width=\"0.4\"/>"
    );
    let mut y = frame_top + frame_height + 6.0;
    sheet.text(column, y, 2.8, 700, "Camera");
    y += 4.0;
    for setting in &card.settings {
        sheet.text(column, y, 2.4, 700, setting.name);
        y = sheet.lines(column + 22.0, y, column_width - 22.0, 2.4, &setting.value) + 0.5;
    }
    y += 2.5;
    sheet.text(column, y, 2.8, 700, "Lights");
    y += 4.0;
    for dial in &card.dials {
        let percent = dial.percent.map(|p| format!("{p:.0} %, ")).unwrap_or_default();
        let cct = dial.cct_k.map(|k| format!("{k:.0} K, ")).unwrap_or_default();
        sheet.text(column, y, 2.4, 700, &dial.letter);
        y = sheet.lines(
            column + 5.0,
            y,
            column_width - 5.0,
            2.4,
            &format!("{}: {percent}{cct}{}.", dial.what, dial.place),
        ) + 0.5;
    }
    y += 2.5;
    sheet.text(column, y, 2.8, 700, "Microphone");
    y = sheet.lines(column, y + 4.0, column_width, 2.4, &card.microphone);
    for cable in &card.cables {
        let plug = format!("{} into {}.", cable.of, cable.to);
        y = sheet.lines(column, y, column_width, 2.4, &plug);
    }

    let mut y = y.max(bar + 2.0) + 5.0;
    sheet.rule(y - 3.5, left, right);
    let columns = [0.0, 9.0, 62.0, 84.0, 106.0, 132.0];
    let titles = ["", "Mark", "from left wall", "from back wall", "from corner", "from corner"];
    for (x, title) in columns.iter().zip(titles) {
        sheet.text(left + x, y, 2.3, 700, title);
    }
    y += 4.0;
    let mark = |v: f64| card.units.mark(v);
    let tape_error = card.units.gap(card.tape_error_m);
    for m in &card.marks {
        sheet.text(left, y, 2.7, 700, &format!("{} {}", m.number, m.letter));
        let what = wrapped(&m.what, columns[2] - columns[1] - 2.0, 2.5);
        for (line, words) in what.iter().enumerate() {
            sheet.text(left + columns[1], y + 3.0 * line as f64, 2.5, 400, words);
        }
        let [first, second] = &m.tape.corners;
        let from_corner = |from: &FromCorner| format!("{} {}", from.corner, mark(from.length_m));
        let values =
            [mark(m.tape.from_left_m), mark(m.tape.from_back_m), from_corner(first), from_corner(second)];
        for (x, value) in columns[2..].iter().zip(values) {
            sheet.text(left + x, y, 2.7, 700, &value);
        }
        y += 3.4 + 3.0 * (what.len() - 1) as f64;
        let error = m
            .tape
            .worst_error_m
            .map(|e| format!(" {tape_error} of tape error: up to {} off by the corners.", card.units.gap(e)));
        y = sheet.lines(
            left + columns[1],
            y,
            right - left - columns[1],
            2.2,
            &format!("{}.{}", m.set, error.unwrap_or_default()),
        ) + 0.9;
    }
    let more = [card.baseline_words(), card.diagonals_words(), Some(AIMS.to_owned())];
    let hung = card.hung.iter().map(|hung| format!("{}: {}.", hung.what, hung.place));
    for words in more.into_iter().flatten().chain(hung) {
        y = sheet.lines(left, y + 0.4, right - left, 2.2, &words) + 0.9;
    }
    sheet.rule(y - 1.5, left, right);
    y += 2.0;
    let half = (right - left) / 2.0 - 2.0;
    let mut before = y;
    sheet.text(left, before, 2.6, 700, "Before every take");
    before += 3.6;
    for line in &card.before {
        before = sheet.lines(left, before, half, 2.2, &format!("\u{2610} {line}")) + 0.3;
    }
    let mut caution = y;
    sheet.text(left + half + 4.0, caution, 2.6, 700, "Cautions");
    caution += 3.6;
    for line in &card.cautions {
        caution = sheet.lines(left + half + 4.0, caution, half, 2.2, &format!("! {line}")) + 0.3;
    }
    if !card.assumed.is_empty() {
        caution = sheet.lines(
            left + half + 4.0,
            caution + 1.0,
            half,
            2.2,
            &format!("Assumed, not measured: {}.", card.assumed.join("; ")),
        );
    }
    let bottom = before.max(caution);
    // A crowded card grows its sheet; scale stays true, the printer fits it to the page.
    let page = height.max(bottom + 6.0);
    format!(
        "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{width}mm\" height=\"{page:.1}mm\" viewBox=\"0 0 {width} {page:.1}\" font-family=\"'Atkinson Hyperlegible Next', 'DejaVu Sans', Arial, sans-serif\" fill=\"#000\">\n<title>{}</title>\n{DEFS}\n<rect width=\"100%\" height=\"100%\" fill=\"#fff\"/>\n{}</svg>\n",
        escaped(&card.name),
        sheet.out
    )
}

/// One drawing alone, for a page of HTML, over a photograph if there is one.
pub(crate) fn drawing(drawn: &View, photo: Option<&Photo<'_>>, mm: f64, title: &str) -> String {
    let (width, height) = size(drawn);
    let (width, height) = (width * mm, height * mm);
    format!(
        "<svg xmlns=\"http://www.w3.org/2000/svg\" role=\"img\" aria-label=\"{}\" width=\"{width:.1}mm\" height=\"{height:.1}mm\" viewBox=\"0 0 {width:.2} {height:.2}\">{}</svg>",
        escaped(title),
        frame(drawn, photo, 0.0, 0.0, mm)
    )
}

/// Scale of the plan on an HTML card.
pub(crate) fn html_scale(card: &Card) -> (f64, f64) {
    scale(card, 104.0, 122.0)
}
