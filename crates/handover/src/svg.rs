//! The card as SVG pages in millimetres, set by measuring; plan and side view to a stated scale. What does not fit on the first page
//! goes on to a further one with its own title.

use std::fmt::Write as _;

use fogon_core::card::{Card, Dial, Mark};
use fogon_core::drawing::View;
use fogon_core::room::FromCorner;
use fogon_core::units::{FOOT_M, UnitSystem};

use crate::picture::Photo;
use crate::sheet::{Flow, Hand, LEADING, Page, Sheet, pages_svg};
use crate::sketch::{frame, view};
use crate::{Paper, escaped};

/// Round scales, largest first.
const SCALES: [f64; 10] = [15.0, 20.0, 25.0, 30.0, 40.0, 50.0, 60.0, 75.0, 100.0, 200.0];
/// Parts of a page's height that plan and side view may take, the largest first.
const DRAWN: [f64; 3] = [0.54, 0.46, 0.38];
/// From the left edge: number, what stands there, two walls, two corners, mm.
const COLUMNS_MM: [f64; 6] = [0.0, 9.0, 70.0, 94.0, 118.0, 150.0];
/// What further pages are called.
const LIGHTS: &str = "lights, set-up card";
const MARKS: &str = "marks, set-up card";
const CHECKS: &str = "checks and cautions, set-up card";
const HEADING: Hand = Hand::bold(2.8);
const SMALL: Hand = Hand::plain(2.2);

/// Width and height of a view, in its own units; of one that has none a little.
pub(crate) fn size(view: &View) -> (f64, f64) {
    let [left, top, right, bottom] = view.bounds;
    let side = |long: f64| if long.is_finite() { long.max(0.01) } else { 0.01 };
    (side(right - left), side(bottom - top))
}

/// Millimetres of paper for a metre of room, and the scale 1 : n, so that views fit one under the other.
pub(crate) fn scale(views: &[&View], width_mm: f64, height_mm: f64) -> (f64, f64) {
    let sizes: Vec<(f64, f64)> = views.iter().map(|view| size(view)).collect();
    let across = sizes.iter().map(|size| size.0).fold(0.0, f64::max);
    let down: f64 = sizes.iter().map(|size| size.1).sum();
    let fits = |n: f64| {
        let mm = 1000.0 / n;
        across * mm <= width_mm && down * mm + 8.0 <= height_mm
    };
    let n = SCALES.into_iter().find(|n| fits(*n)).unwrap_or(500.0);
    (1000.0 / n, n)
}

/// The card's pages: one, unless there is more than a page holds.
pub(crate) fn pages(card: &Card, paper: Paper, photo: Option<&Photo<'_>>) -> Vec<Page> {
    // The drawings as large as leaves everything on one page.
    let tried = DRAWN.map(|part| set(card, paper, photo, part));
    let [.., smallest] = &tried;
    let fewest = tried.iter().map(Vec::len).min().unwrap_or(smallest.len());
    tried.into_iter().find(|pages| pages.len() == fewest).unwrap_or_default()
}

fn set(card: &Card, paper: Paper, photo: Option<&Photo<'_>>, drawn: f64) -> Vec<Page> {
    let mut flow = Flow::new(&card.name, paper);
    head(card, &mut flow);
    let (lights_wait, bottom) = drawings(card, &mut flow, photo, drawn);
    flow.y = bottom;
    if lights_wait {
        lights(card, &mut flow);
    }
    marks(card, &mut flow);
    notes(card, &mut flow);
    checks(card, &mut flow);
    flow.pages
}

/// The whole card in one file: its pages one under the other.
pub fn card(card: &Card, paper: Paper, photo: Option<Photo<'_>>) -> String {
    pages_svg(&pages(card, paper, photo.as_ref()), paper, true)
}

fn head(card: &Card, flow: &mut Flow<'_>) {
    let (left, wide) = (flow.left(), flow.wide());
    // A long name is set smaller, on as many lines as it takes.
    let mut hand = Hand::bold(5.6);
    if hand.wrapped(&card.name, wide).len() > 1 {
        hand = Hand::bold(4.2);
    }
    let y = flow.y;
    let y = flow.sheet().lines(left, y, wide, hand, &card.name) - hand.size_mm * (LEADING - 1.0);
    let told = format!("Set-up card. Room {}. {} Left and right are the camera's.", card.room, card.verdict);
    let y = flow.sheet().lines(left, y, wide, Hand::plain(3.2), &told);
    let right = flow.right();
    flow.sheet().rule(y - 1.5, left, right);
    flow.y = y;
}

/// Plan, side view and picture with the camera's settings beside; lights and microphone too where they fit. Returns whether the lights
/// still wait, and where the next piece begins.
fn drawings(card: &Card, flow: &mut Flow<'_>, photo: Option<&Photo<'_>>, drawn: f64) -> (bool, f64) {
    let (left, right, top, bottom) = (flow.left(), flow.right(), flow.y, flow.bottom());
    let height = flow.paper.size_mm().1;
    let wide = (right - left) * 0.60;
    let (mm, n) = scale(&[&card.drawing.plan, &card.drawing.side], wide, height * drawn);
    let (plan_high, side_high) = (size(&card.drawing.plan).1 * mm, size(&card.drawing.side).1 * mm);
    let sheet = flow.sheet();
    sheet.text(left, top + 2.0, HEADING, &format!("Plan and side view, 1 : {n:.0}"));
    sheet.out += &view(&card.drawing.plan, left, top + 3.5, mm);
    let side_top = top + 3.5 + plan_high + 2.0;
    sheet.out += &view(&card.drawing.side, left, side_top, mm);
    let bar = side_top + side_high + 2.5;
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
    sheet.text(left + long_mm + 1.5, bar + 0.9, Hand::plain(2.4), long_words);

    let column = left + wide + 5.0;
    let column_wide = right - column;
    let (across, down) = size(&card.drawing.frame);
    let frame_mm = (column_wide / across).min(62.0 / down);
    sheet.text(column, top + 2.0, HEADING, "Picture");
    let frame_top = top + 3.5;
    sheet.out += &frame(&card.drawing.frame, photo, column, frame_top, frame_mm);
    let edge = "fill=\"none\" stroke=\"#000\" stroke-width=\"0.4\"";
    sheet.rectangle([column, frame_top], [frame_mm * across, frame_mm * down], edge);
    let mut y = frame_top + frame_mm * down + 5.0;
    sheet.text(column, y, HEADING, "Camera");
    y += 4.0;
    for setting in &card.settings {
        y = sheet.pair(column, y, [22.0, column_wide - 22.0], 2.4, [setting.name, &setting.value]);
    }
    y += 2.0;
    sheet.text(column, y, HEADING, "Microphone");
    y = sheet.lines(column, y + 4.0, column_wide, Hand::plain(2.4), &card.microphone);
    for cable in &card.cables {
        let plug = format!("{} into {}.", cable.of, cable.to);
        y = sheet.lines(column, y, column_wide, Hand::plain(2.4), &plug);
    }
    // What is left of the column is for the lights, if they all fit.
    let most = bottom.min(bar.max(y) + 60.0);
    let needed: f64 = card.dials.iter().map(|dial| dial_mm(dial, column_wide)).sum::<f64>() + 8.0;
    let lights_fit = y + needed <= most;
    if lights_fit && !card.dials.is_empty() {
        y += 2.5;
        sheet.text(column, y, HEADING, "Lights");
        y += 4.0;
        for dial in &card.dials {
            y = dial_line(sheet, dial, [column, y], column_wide);
        }
    }
    (!lights_fit, y.max(bar + 2.0) + 2.5)
}

fn dial_words(dial: &Dial) -> String {
    format!("{}: {}.", dial.what, dial.words())
}

fn dial_mm(dial: &Dial, wide: f64) -> f64 {
    Hand::plain(2.4).height_mm(&dial_words(dial), wide - 5.0) + 0.5
}

fn dial_line(sheet: &mut Sheet, dial: &Dial, [x, y]: [f64; 2], wide: f64) -> f64 {
    sheet.text(x, y, Hand::bold(2.4), &dial.letter);
    sheet.lines(x + 5.0, y, wide - 5.0, Hand::plain(2.4), &dial_words(dial)) + 0.5
}

/// The lights over the whole width, where the column had no room.
fn lights(card: &Card, flow: &mut Flow<'_>) {
    flow.make_room(8.0, LIGHTS);
    let (left, wide) = (flow.left(), flow.wide());
    let y = flow.y + 2.0;
    flow.sheet().text(left, y, HEADING, "Lights");
    flow.y = y + 4.0;
    for dial in &card.dials {
        flow.make_room(dial_mm(dial, wide), LIGHTS);
        let y = flow.y;
        flow.y = dial_line(flow.sheet(), dial, [left, y], wide);
    }
}

fn marks_head(flow: &mut Flow<'_>) {
    let titles = [
        "",
        "Mark, in the order to lay them",
        "from left wall",
        "from back wall",
        "from corner",
        "from corner",
    ];
    let (left, right, y) = (flow.left(), flow.right(), flow.y);
    let sheet = flow.sheet();
    sheet.rule(y - 1.0, left, right);
    for (x, title) in COLUMNS_MM.iter().zip(titles) {
        sheet.text(left + x, y + 2.5, Hand::bold(2.3), title);
    }
    flow.y = y + 6.5;
}

fn marks(card: &Card, flow: &mut Flow<'_>) {
    let (left, right) = (flow.left(), flow.right());
    let what_wide = COLUMNS_MM[2] - COLUMNS_MM[1] - 2.0;
    let set_wide = right - left - COLUMNS_MM[1];
    let set = |mark: &Mark| {
        let tape_error = card.units.gap(card.tape_error_m);
        let error = mark.tape.worst_error_m;
        let off = error
            .map(|e| format!(" {tape_error} of tape error: up to {} off by the corners.", card.units.gap(e)));
        format!("{}.{}", mark.set, off.unwrap_or_default())
    };
    let what_mm = |mark: &Mark| Hand::plain(2.5).wrapped(&mark.what, what_wide).len() as f64 * 3.2;
    let high = |mark: &Mark| what_mm(mark) + SMALL.height_mm(&set(mark), set_wide) + 1.0;
    flow.make_room(8.0 + card.marks.first().map_or(0.0, high), MARKS);
    marks_head(flow);
    for mark in &card.marks {
        if flow.y + high(mark) > flow.bottom() {
            flow.turn(MARKS);
            marks_head(flow);
        }
        let y = flow.y;
        let sheet = flow.sheet();
        sheet.text(left, y, Hand::bold(2.7), &format!("{} {}", mark.number, mark.letter));
        for (line, words) in Hand::plain(2.5).wrapped(&mark.what, what_wide).iter().enumerate() {
            sheet.text(left + COLUMNS_MM[1], y + 3.2 * line as f64, Hand::plain(2.5), words);
        }
        let length = |metres: f64| card.units.mark(metres);
        let from_corner = |from: &FromCorner| format!("{} {}", from.corner, length(from.length_m));
        let [first, second] = &mark.tape.corners;
        let values = [
            length(mark.tape.from_left_m),
            length(mark.tape.from_back_m),
            from_corner(first),
            from_corner(second),
        ];
        for (x, value) in COLUMNS_MM[2..].iter().zip(values) {
            sheet.text(left + x, y, Hand::bold(2.7), &value);
        }
        let y = y + what_mm(mark);
        flow.y = sheet.lines(left + COLUMNS_MM[1], y, set_wide, SMALL, &set(mark)) + 1.0;
    }
}

/// What is said of all marks, and what hangs.
fn notes(card: &Card, flow: &mut Flow<'_>) {
    let more = [card.baseline_words(), card.diagonals_words(), card.aims.clone()];
    let hung = card.hung.iter().map(|hung| format!("{}: {}.", hung.what, hung.place));
    for words in more.into_iter().flatten().chain(hung) {
        let (left, wide) = (flow.left(), flow.wide());
        flow.make_room(SMALL.height_mm(&words, wide) + 1.0, MARKS);
        let y = flow.y + 0.4;
        flow.y = flow.sheet().lines(left, y, wide, SMALL, &words) + 0.6;
    }
}

/// Before every take, beside the cautions.
fn checks(card: &Card, flow: &mut Flow<'_>) {
    let half = flow.wide() / 2.0 - 2.0;
    let assumed =
        (!card.assumed.is_empty()).then(|| format!("Assumed, not measured: {}.", card.assumed.join("; ")));
    let high = |lines: &[String], indent: f64| -> f64 {
        lines.iter().map(|line| SMALL.height_mm(line, half - indent) + 0.3).sum()
    };
    let before: Vec<String> = card.before.clone();
    let cautions: Vec<String> = card.cautions.iter().cloned().chain(assumed).collect();
    flow.make_room(high(&before, 4.0).max(high(&cautions, 3.0)) + 6.0, CHECKS);
    let (left, right, top) = (flow.left(), flow.right(), flow.y);
    let sheet = flow.sheet();
    sheet.rule(top - 1.0, left, right);
    let y = top + 2.5;
    sheet.text(left, y, Hand::bold(2.6), "Before every take");
    sheet.text(left + half + 4.0, y, Hand::bold(2.6), "Cautions");
    let mut at = y + 3.6;
    for line in &before {
        sheet.tick_box(left, at, SMALL.size_mm);
        at = sheet.lines(left + 4.0, at, half - 4.0, SMALL, line) + 0.3;
    }
    let mut other = y + 3.6;
    for (index, line) in cautions.iter().enumerate() {
        if index < card.cautions.len() {
            sheet.text(left + half + 4.0, other, SMALL, "!");
        }
        other = sheet.lines(left + half + 7.0, other, half - 3.0, SMALL, line) + 0.3;
    }
    flow.y = at.max(other);
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

/// Scale of plan and side view on an HTML card, so that both take at most so many millimetres down.
pub(crate) fn html_scale(card: &Card, height_mm: f64) -> (f64, f64) {
    scale(&[&card.drawing.plan, &card.drawing.side], 104.0, height_mm)
}
