//! The card as one HTML page that prints well on A4 and Letter, in black and white. The page itself is `templates/card.html`; where a
//! sheet is full is found by measuring its words.

use askama::Template;
use fogon_core::card::{Card, Dial};
use fogon_core::drawing::View;

use crate::Paper;
use crate::pages::further_svg;
use crate::picture::Photo;
use crate::sheet::Hand;
use crate::sketch::DEFS;
use crate::svg::{drawing, html_scale, size};
use crate::typeface::style;

/// Millimetres in a point.
const MM_PER_PT: f64 = 25.4 / 72.0;
/// What browsers print round a page, mm, as the template has it.
const MARGIN_MM: f64 = 9.0;
/// What plan and side view may take down the sheet, mm, the largest first.
const DRAWN_MM: [f64; 3] = [122.0, 104.0, 86.0];
/// Words come out this much longer than measured at most: browsers round.
const ROUNDING: f64 = 1.03;

/// A mark with its lengths in words.
struct MarkRow<'a> {
    number: u32,
    letter: &'a str,
    what: &'a str,
    set: &'a str,
    from_left: String,
    from_back: String,
    from_corners: [(&'a str, String); 2],
    error: String,
}

/// What follows the drawings, on one sheet.
#[derive(Default)]
struct SheetOf<'a> {
    /// None of the first sheet, whose title is the card's.
    title: Option<String>,
    lights: &'a [Dial],
    marks: Vec<MarkRow<'a>>,
    has_notes: bool,
    has_checks: bool,
}

#[derive(Template)]
#[template(path = "card.html")]
struct Page<'a> {
    name: &'a str,
    page: &'static str,
    card: &'a Card,
    typeface: &'static str,
    defs: &'static str,
    scale: String,
    plan: String,
    side: String,
    frame: String,
    /// In the column beside the drawings; empty where they have a place of their own.
    lights: &'a [Dial],
    sheets: Vec<SheetOf<'a>>,
    further: Vec<(String, String)>,
    baseline: Option<String>,
    diagonals: Option<String>,
    tape_error: String,
    assumed: String,
}

/// The card's page.
pub fn card(card: &Card, paper: Paper, photo: Option<Photo<'_>>) -> String {
    rendered(card, paper, photo, Vec::new())
}

/// The card's page with all further ones.
pub fn card_with_all(card: &Card, paper: Paper, photo: Option<Photo<'_>>) -> String {
    rendered(card, paper, photo, further_svg(card, paper))
}

fn rendered(card: &Card, paper: Paper, photo: Option<Photo<'_>>, further: Vec<(String, String)>) -> String {
    let [left, top, right, bottom] = card.drawing.frame.bounds;
    let frame_mm = (52.0 / (right - left).max(0.1)).min(62.0 / (bottom - top).max(0.1));
    // The drawings as large as leaves everything on one sheet.
    let tried = DRAWN_MM.map(|drawn_mm| {
        let (mm, n) = html_scale(card, drawn_mm);
        let views = [&card.drawing.plan, &card.drawing.side].map(|view: &View| size(view));
        let mut fit = Fit::of(card, paper);
        let wide = views[0].0.max(views[1].0) * mm;
        fit.drawings([wide, (views[0].1 + views[1].1) * mm], (bottom - top) * frame_mm);
        (mm, n, fit.sheets())
    });
    let fewest = tried.iter().map(|(.., (_, sheets))| sheets.len()).min();
    let best = tried.into_iter().find(|(.., (_, sheets))| Some(sheets.len()) == fewest);
    let Some((mm, n, (lights_beside, sheets))) = best else { return String::new() };
    let page = Page {
        name: &card.name,
        page: match paper {
            Paper::A4 => "A4",
            Paper::Letter => "letter",
        },
        card,
        typeface: style(),
        defs: DEFS,
        scale: format!("1 : {n:.0}"),
        plan: drawing(&card.drawing.plan, None, mm, "Plan"),
        side: drawing(&card.drawing.side, None, mm, "Side view"),
        frame: drawing(&card.drawing.frame, photo.as_ref(), frame_mm, "Picture as the lens sees it"),
        lights: if lights_beside { &card.dials } else { &[] },
        sheets,
        further,
        baseline: card.baseline_words(),
        diagonals: card.diagonals_words(),
        tape_error: card.units.gap(card.tape_error_m),
        assumed: card.assumed.join("; "),
    };
    // Writing to a string does not fail.
    page.render().unwrap_or_default()
}

/// How far down each sheet is full, mm.
struct Fit<'a> {
    card: &'a Card,
    wide: f64,
    high: f64,
    y: f64,
    lights_beside: bool,
}

/// Height of words set in points over a width.
fn words_mm(text: &str, points: f64, leading: f64, wide: f64) -> f64 {
    let hand = Hand::plain(points * MM_PER_PT * ROUNDING);
    hand.wrapped(text, wide).len() as f64 * points * MM_PER_PT * leading
}

impl<'a> Fit<'a> {
    /// Under a heading.
    const HEADING_MM: f64 = 6.7;

    fn of(card: &'a Card, paper: Paper) -> Self {
        let (width, height) = paper.size_mm();
        let wide = width - 2.0 * MARGIN_MM;
        let told =
            format!("Set-up card. Room {}. {} Left and right are the camera's.", card.room, card.verdict);
        let name = Hand::bold(16.0 * MM_PER_PT * ROUNDING).wrapped(&card.name, wide).len() as f64;
        let y = name * 16.0 * MM_PER_PT * 1.15 + words_mm(&told, 8.8, 1.2, wide) + 3.8;
        Self { card, wide, high: height - 2.0 * MARGIN_MM, y, lights_beside: true }
    }

    /// Drawings with picture, camera, lights, microphone and plugs beside them, or under them where there is no room beside.
    fn drawings(&mut self, [wide, high]: [f64; 2], frame_mm: f64) {
        let card = self.card;
        let beside = self.wide - wide - 6.0;
        let is_beside = beside >= 58.0;
        let column = if is_beside { beside } else { self.wide };
        let value = |name: f64, text: &str| words_mm(text, 9.0, 1.2, column - name - 3.0) + 0.3;
        let names = card
            .settings
            .iter()
            .map(|one| Hand::bold(9.0 * MM_PER_PT).width_mm(one.name))
            .fold(0.0, f64::max);
        let camera: f64 = card.settings.iter().map(|one| value(names, &one.value)).sum();
        let plug =
            card.cables.iter().map(|one| Hand::bold(9.0 * MM_PER_PT).width_mm(&one.of)).fold(0.0, f64::max);
        let plugs: f64 =
            card.cables.iter().map(|one| value(plug.min(column * 0.7), &format!("into {}", one.to))).sum();
        let microphone = words_mm(&card.microphone, 8.8, 1.2, column) + 2.0;
        let headings = if card.cables.is_empty() { 4.0 } else { 5.0 } * Self::HEADING_MM;
        let fixed = headings + frame_mm + 1.0 + camera + microphone + plugs;
        let lights: f64 =
            card.dials.iter().map(|dial| value(5.0, &format!("{}: {}", dial.what, dial.words()))).sum();
        let drawn = Self::HEADING_MM + high + 2.0;
        let most = if is_beside { (self.high - self.y).min(drawn.max(fixed) + 70.0) } else { 90.0 };
        self.lights_beside = fixed + lights <= most;
        let column_mm = if self.lights_beside { fixed + lights } else { fixed };
        self.y += if is_beside { drawn.max(column_mm) } else { drawn + column_mm };
    }

    /// What follows on this sheet and on further ones.
    fn sheets(mut self) -> (bool, Vec<SheetOf<'a>>) {
        let card = self.card;
        let mut all = vec![SheetOf::default()];
        if !self.lights_beside {
            let lights: f64 = card
                .dials
                .iter()
                .map(|dial| {
                    words_mm(&format!("{}: {}", dial.what, dial.words()), 9.0, 1.2, self.wide - 8.0) + 0.3
                })
                .sum();
            self.room(lights + Self::HEADING_MM, "lights", &mut all);
            if let Some(last) = all.last_mut() {
                last.lights = &card.dials;
            }
        }
        const HEAD_MM: f64 = 8.0;
        let mut is_first = true;
        for row in rows(card) {
            let what = self.wide * 0.45 - 2.5;
            let high = words_mm(row.what, 8.8, 1.2, what * 0.97) + words_mm(row.set, 7.8, 1.2, what) + 0.9;
            let head = if is_first { HEAD_MM + Self::HEADING_MM } else { 0.0 };
            if self.room(high + head, "marks", &mut all) {
                self.y += HEAD_MM;
            }
            is_first = false;
            if let Some(last) = all.last_mut() {
                last.marks.push(row);
            }
        }
        let notes = [
            card.baseline_words(),
            card.diagonals_words(),
            Some(format!("{}{}", card.aims.as_deref().unwrap_or_default(), " ".repeat(120))),
        ];
        let mut high: f64 =
            notes.iter().flatten().map(|note| words_mm(note, 7.6, 1.2, self.wide) + 0.6).sum::<f64>() + 3.4;
        if !card.hung.is_empty() {
            let names = card
                .hung
                .iter()
                .map(|one| Hand::bold(9.0 * MM_PER_PT).width_mm(&one.what))
                .fold(0.0, f64::max);
            let wide = (self.wide - names - 4.0).max(40.0);
            high += Self::HEADING_MM;
            high += card.hung.iter().map(|one| words_mm(&one.place, 9.0, 1.2, wide) + 0.3).sum::<f64>();
        }
        self.room(high, "marks", &mut all);
        if let Some(last) = all.last_mut() {
            last.has_notes = true;
        }
        let half = (self.wide - 6.0) / 2.0;
        let list = |text: &str| words_mm(text, 7.8, 1.25, half - 5.5);
        let before: f64 = card.before.iter().map(|line| list(line)).sum();
        let assumed = format!("Assumed, not measured: {}.", card.assumed.join("; "));
        let cautions: f64 = card.cautions.iter().map(|line| list(line)).sum::<f64>()
            + if card.assumed.is_empty() { 0.0 } else { words_mm(&assumed, 7.8, 1.2, half) + 2.0 };
        self.room(before.max(cautions) + Self::HEADING_MM, "checks and cautions", &mut all);
        if let Some(last) = all.last_mut() {
            last.has_checks = true;
        }
        (self.lights_beside, all)
    }

    /// Takes so much of this sheet or, under its own title, of another; whether it was another.
    fn room(&mut self, high: f64, of: &str, all: &mut Vec<SheetOf<'a>>) -> bool {
        let is_full = self.y + high > self.high;
        if is_full {
            let title = format!("{}: {of}, set-up card, page {}", self.card.name, all.len() + 1);
            self.y = words_mm(&title, 12.0, 1.2, self.wide) + 4.0;
            all.push(SheetOf { title: Some(title), ..SheetOf::default() });
        }
        self.y += high;
        is_full
    }
}

fn rows(card: &Card) -> impl Iterator<Item = MarkRow<'_>> {
    card.marks.iter().map(|mark| MarkRow {
        number: mark.number,
        letter: &mark.letter,
        what: &mark.what,
        set: &mark.set,
        from_left: card.units.mark(mark.tape.from_left_m),
        from_back: card.units.mark(mark.tape.from_back_m),
        from_corners: mark.tape.corners.each_ref().map(|from| (from.corner, card.units.mark(from.length_m))),
        error: mark.tape.worst_error_m.map_or_else(|| "\u{2013}".into(), |error| card.units.gap(error)),
    })
}
