//! Pages that go with the card: how it is put up and put away, a sign for the door, labels for the tape.

use std::fmt::Write as _;

use fogon_core::card::{Card, Mark};
use fogon_core::ready::{PlannedAction, in_words};

use crate::Paper;
use crate::sheet::{Flow, Hand, MARGIN_MM, Page, Sheet, page_svg};
use crate::sketch::view;
use crate::svg::{scale, size};

/// What the page of putting up is called.
const PUT_UP: &str = "put up, put away";
const HEADING: Hand = Hand::bold(3.0);
const WORDS: Hand = Hand::plain(2.6);
/// The column beside the drawing may reach down to this part of the page.
const COLUMN: f64 = 0.62;
/// A label for a mark, mm.
const LABEL_MM: [f64; 2] = [60.0, 62.0];

/// All of them, in order.
pub(crate) fn further(card: &Card, paper: Paper) -> Vec<Page> {
    let mut all = put_up(card, paper);
    all.push(sign(paper));
    all.extend(labels(card, paper));
    all
}

/// Each as an SVG of its own, to stand in a page that brings the typeface.
pub(crate) fn further_svg(card: &Card, paper: Paper) -> Vec<(String, String)> {
    let page = |page: Page| {
        let svg = page_svg(&page, paper, false);
        // Inside a page of HTML no XML declaration stands before it.
        let svg = svg.split_once("?>\n").map_or(svg.clone(), |(_, rest)| rest.to_owned());
        (page.title, svg)
    };
    further(card, paper).into_iter().map(page).collect()
}

/// Where stands are put away, which plugs go where, and what is done in which order.
fn put_up(card: &Card, paper: Paper) -> Vec<Page> {
    let mut flow = Flow::titled(&card.name, paper, PUT_UP);
    let (left, right, top) = (flow.left(), flow.right(), flow.y);
    let aim = format!(
        "{} The aim is {}. Marks are taped: without them it takes {} longer.",
        card.ready.sentence,
        in_words(card.ready.target_s),
        in_words(card.ready.marks_gain_s)
    );
    let wide = right - left;
    let top = flow.sheet().lines(left, top, wide, Hand::plain(3.2), &aim) + 1.0;
    let drawn_wide = wide * 0.56;
    let (mm, n) = scale(&[&card.away], drawn_wide, flow.paper.size_mm().1 * 0.40);
    let sheet = flow.sheet();
    sheet.text(left, top, HEADING, &format!("Floor, 1 : {n:.0}"));
    sheet.out += &view(&card.away, left, top + 1.5, mm);
    let under = top + 1.5 + size(&card.away).1 * mm + 4.0;
    let key = "Dotted, with a letter in brackets: where a stand is put away. Thick lines: cables.";
    let drawn_to = sheet.lines(left, under, drawn_wide, WORDS, key);
    let column = left + drawn_wide + 5.0;
    let lines = told(card);
    let column_mm: f64 = lines.iter().map(|line| line.high_mm(right - column)).sum();
    if top + column_mm <= flow.bottom() * COLUMN {
        let mut y = top;
        let wide = right - column;
        let sheet = flow.sheet();
        for line in &lines {
            y = line.put(sheet, [column, y], wide);
        }
        flow.y = drawn_to.max(y) + 3.0;
    } else {
        // More than the column holds goes on under the drawing.
        flow.y = drawn_to + 2.0;
        for line in &lines {
            flow.make_room(line.high_mm(wide), PUT_UP);
            let y = flow.y;
            flow.y = line.put(flow.sheet(), [left, y], wide);
        }
        flow.y += 3.0;
    }
    actions(card, &mut flow);
    gains(card, &mut flow);
    flow.pages
}

/// A line of the column beside the drawing.
enum Line {
    Heading(&'static str),
    /// A letter and what is said of its thing.
    Lettered(String, String),
    Plain(String),
}

impl Line {
    /// A letter takes so much of the line, mm.
    const LETTER_MM: f64 = 8.0;

    fn high_mm(&self, wide: f64) -> f64 {
        match self {
            Line::Heading(_) => 6.2,
            Line::Lettered(_, words) => WORDS.height_mm(words, wide - Self::LETTER_MM) + 0.5,
            Line::Plain(words) => WORDS.height_mm(words, wide) + 0.4,
        }
    }

    fn put(&self, sheet: &mut Sheet, [x, y]: [f64; 2], wide: f64) -> f64 {
        match self {
            Line::Heading(words) => {
                sheet.text(x, y + 2.0, HEADING, words);
                y + 6.2
            }
            Line::Lettered(letter, words) => {
                sheet.pair(x, y, [Self::LETTER_MM, wide - Self::LETTER_MM], WORDS.size_mm, [letter, words])
            }
            Line::Plain(words) => sheet.lines(x, y, wide, WORDS, words) + 0.4,
        }
    }
}

/// Stands, plugs and loads.
fn told(card: &Card) -> Vec<Line> {
    let power = &card.power;
    let mut all = Vec::new();
    if !card.ready.parked.is_empty() {
        all.push(Line::Heading("Put away"));
    }
    let stands = card.ready.parked.iter();
    all.extend(stands.map(|stand| Line::Lettered(stand.letter.clone(), stand.words.clone())));
    if power.plugs.is_empty() {
        return all;
    }
    all.push(Line::Heading("Mains"));
    let plugs = power.plugs.iter().map(|plug| plug.words.clone());
    let circuits = power.circuits.iter().map(|circuit| circuit.words.clone());
    let strips = power.strips.iter().map(|strip| strip.words.clone());
    let more = [power.one_switch.words.clone()].into_iter().chain(power.batteries.iter().cloned());
    let lines = plugs.chain(circuits).chain(strips).chain(more).chain([power.caution.to_owned()]);
    all.extend(lines.map(Line::Plain));
    all
}

/// What is done, each with its bar along the time and a line for a time of one's own.
fn actions(card: &Card, flow: &mut Flow<'_>) {
    const ROW_MM: f64 = 4.4;
    let (left, right) = (flow.left(), flow.right());
    let (bars, own) = (left + 108.0, right - 22.0);
    let per_second = (own - bars - 4.0) / card.ready.time_s.max(1.0);
    let titles = |flow: &mut Flow<'_>| {
        let y = flow.y;
        let sheet = flow.sheet();
        sheet.text(left, y, HEADING, "In this order");
        sheet.text(left + 88.0, y, Hand::bold(2.6), "takes");
        sheet.text(own, y, Hand::bold(2.6), "your time");
        flow.y = y + 4.6;
    };
    flow.make_room(3.0 * ROW_MM, PUT_UP);
    titles(flow);
    for done in &card.ready.actions {
        let words = if done.by_hand { done.what.clone() } else { format!("{} (by itself)", done.what) };
        let lines = WORDS.wrapped(&words, 84.0);
        let high = ROW_MM.max(lines.len() as f64 * 3.5 + 0.9);
        if flow.y + high > flow.bottom() {
            flow.turn(PUT_UP);
            titles(flow);
        }
        let y = flow.y;
        let sheet = flow.sheet();
        for (line, words) in lines.iter().enumerate() {
            sheet.text(left, y + 3.5 * line as f64, WORDS, words);
        }
        sheet.text(left + 88.0, y, WORDS, &in_words(done.seconds));
        bar(sheet, done, [bars, y], per_second);
        if done.by_hand {
            sheet.rule(y + 0.6, own, right);
        }
        flow.y = y + high;
    }
    flow.y += 2.0;
}

/// What is done by hand is a full bar, what runs by itself a hollow one; what the finish hangs on is black.
fn bar(sheet: &mut Sheet, done: &PlannedAction, [x, y]: [f64; 2], per_second: f64) {
    let look = match (done.by_hand, done.is_on_path) {
        (true, true) => "fill=\"#000\"",
        (true, false) => "fill=\"#999\"",
        (false, _) => "fill=\"#fff\" stroke=\"#000\" stroke-width=\"0.2\"",
    };
    let wide = (done.seconds * per_second).max(0.4);
    sheet.rectangle([x + done.start_s * per_second, y - 2.2], [wide, 2.2], look);
}

fn gains(card: &Card, flow: &mut Flow<'_>) {
    let (left, wide) = (flow.left(), flow.wide());
    let told =
        card.ready.shorter.iter().map(|one| format!("{}: {} sooner.", one.what, in_words(one.seconds)));
    let lines: Vec<String> =
        std::iter::once(format!("Takes longest: {}.", card.ready.longest)).chain(told).collect();
    for line in lines {
        flow.make_room(WORDS.height_mm(&line, wide) + 1.0, PUT_UP);
        let y = flow.y;
        flow.y = flow.sheet().lines(left, y, wide, WORDS, &line) + 0.4;
    }
}

/// A sign for the door.
fn sign(paper: Paper) -> Page {
    let (width, height) = paper.size_mm();
    let mut sheet = Sheet::default();
    let mut line = |text: &str, at: f64, most_mm: f64, is_bold: bool| {
        let one = Hand { size_mm: 1.0, is_bold }.width_mm(text);
        let hand = Hand { size_mm: ((width - 3.0 * MARGIN_MM) / one).min(most_mm), is_bold };
        sheet.text((width - hand.width_mm(text)) / 2.0, height * at, hand, text);
    };
    line("Recording", 0.34, 60.0, true);
    line("Please do not come in yet,", 0.48, 16.0, false);
    line("and be quiet in the hall.", 0.55, 16.0, false);
    line("Back at ____ : ____", 0.72, 16.0, false);
    Page { title: "Sign for the door".to_owned(), sheet }
}

/// A label for every mark: letter, colour, and an arrow that is laid towards what the thing faces.
fn labels(card: &Card, paper: Paper) -> Vec<Page> {
    let (width, height) = paper.size_mm();
    let [wide, high] = LABEL_MM;
    let head_mm = 12.0;
    let across = ((width - 2.0 * MARGIN_MM) / wide) as usize;
    let down = ((height - 2.0 * MARGIN_MM - head_mm) / high) as usize;
    let pages = card.marks.chunks((across * down).max(1)).enumerate();
    let page = |(number, marks): (usize, &[Mark])| {
        let more = if number == 0 { String::new() } else { format!(", page {}", number + 1) };
        let title = format!("{}: labels for the tape{more}", card.name);
        let mut sheet = Sheet::default();
        let hand = Hand::bold(3.4);
        let told = "Cut them out; the arrow points to the letter beside it.";
        let first = hand.wrapped(&title, width - 2.0 * MARGIN_MM).into_iter().next().unwrap_or_default();
        sheet.text(MARGIN_MM, MARGIN_MM + 3.5, hand, &first);
        sheet.text(MARGIN_MM, MARGIN_MM + 8.0, WORDS, told);
        for (index, mark) in marks.iter().enumerate() {
            let at = [(index % across) as f64 * wide, (index / across) as f64 * high];
            label(&mut sheet, mark, [MARGIN_MM + at[0], MARGIN_MM + head_mm + at[1]]);
        }
        Page { title, sheet }
    };
    pages.map(page).collect()
}

fn label(sheet: &mut Sheet, mark: &Mark, [x, y]: [f64; 2]) {
    let [wide, high] = LABEL_MM;
    let cut = "fill=\"none\" stroke=\"#777\" stroke-width=\"0.2\" stroke-dasharray=\"1.5 1\"";
    sheet.rectangle([x, y], LABEL_MM, cut);
    sheet.text(x + 5.0, y + 33.0, Hand::bold(36.0), &mark.letter);
    sheet.text(x + 5.0, y + 48.0, Hand::bold(4.5), mark.colour);
    // An arrow upwards.
    let (middle, foot, tip) = (x + wide - 14.0, y + 40.0, y + 7.0);
    let _ = writeln!(
        sheet.out,
        "<path d=\"M{middle:.2} {foot:.2}V{:.2}h-4L{middle:.2} {tip:.2}l4 9h-4\" fill=\"#000\" stroke=\"#000\" stroke-width=\"1.2\"/>",
        tip + 9.0
    );
    let faces = format!("to {}", mark.faces);
    sheet.text(middle - Hand::plain(4.0).width_mm(&faces) / 2.0, y + 48.0, Hand::plain(4.0), &faces);
    let small = Hand::plain(2.6);
    let mut at = y + high - 8.5;
    for line in small.wrapped(&mark.what, wide - 10.0).into_iter().take(2) {
        sheet.text(x + 5.0, at, small, &line);
        at += 3.4;
    }
}
