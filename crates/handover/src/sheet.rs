//! A sheet of paper in millimetres on which lines of words are set by measuring.

use std::fmt::Write as _;

use crate::typeface::{FAMILY, style, width};
use crate::{Paper, escaped, sketch::DEFS};

/// Around every sheet, mm: what usual printers leave white.
pub(crate) const MARGIN_MM: f64 = 11.0;
/// From line to line, in parts of the size.
pub(crate) const LEADING: f64 = 1.35;

/// How words are set.
#[derive(Clone, Copy)]
pub(crate) struct Hand {
    pub(crate) size_mm: f64,
    pub(crate) is_bold: bool,
}

impl Hand {
    pub(crate) const fn plain(size_mm: f64) -> Self {
        Self { size_mm, is_bold: false }
    }

    pub(crate) const fn bold(size_mm: f64) -> Self {
        Self { size_mm, is_bold: true }
    }

    /// Width of words, mm.
    pub(crate) fn width_mm(self, text: &str) -> f64 {
        width(text, self.is_bold) * self.size_mm
    }

    /// Words on lines of at most so many millimetres; a word that is longer than a line is broken.
    pub(crate) fn wrapped(self, text: &str, width_mm: f64) -> Vec<String> {
        let mut lines = vec![String::new()];
        let fits = |line: &str| self.width_mm(line) <= width_mm;
        for word in text.split_whitespace() {
            let last = lines.last().map_or("", String::as_str);
            let joined = if last.is_empty() { word.to_owned() } else { format!("{last} {word}") };
            if fits(&joined) {
                if let Some(line) = lines.last_mut() {
                    *line = joined;
                }
                continue;
            }
            if lines.last().is_some_and(|line| !line.is_empty()) {
                lines.push(String::new());
            }
            for letter in word.chars() {
                let last = lines.last().map_or("", String::as_str);
                let longer = format!("{last}{letter}");
                if fits(&longer) || last.is_empty() {
                    if let Some(line) = lines.last_mut() {
                        *line = longer;
                    }
                } else {
                    lines.push(letter.to_string());
                }
            }
        }
        lines
    }

    /// Height of wrapped words, mm.
    pub(crate) fn height_mm(self, text: &str, width_mm: f64) -> f64 {
        self.wrapped(text, width_mm).len() as f64 * self.size_mm * LEADING
    }
}

/// What is drawn on a sheet so far.
#[derive(Default)]
pub(crate) struct Sheet {
    pub(crate) out: String,
}

impl Sheet {
    /// One line, its baseline at `y`.
    pub(crate) fn text(&mut self, x: f64, y: f64, hand: Hand, text: &str) {
        let weight = if hand.is_bold { 700 } else { 400 };
        let _ = writeln!(
            self.out,
            "<text x=\"{x:.2}\" y=\"{y:.2}\" font-size=\"{:.2}\" font-weight=\"{weight}\">{}</text>",
            hand.size_mm,
            escaped(text)
        );
    }

    /// Wrapped lines from baseline `y` on; returns the next free baseline.
    pub(crate) fn lines(&mut self, x: f64, y: f64, width_mm: f64, hand: Hand, text: &str) -> f64 {
        let mut at = y;
        for line in hand.wrapped(text, width_mm) {
            self.text(x, at, hand, &line);
            at += hand.size_mm * LEADING;
        }
        at
    }

    /// A line whose first words stand apart in bold: a name and its value. Returns the next free baseline.
    pub(crate) fn pair(
        &mut self,
        x: f64,
        y: f64,
        [name_mm, value_mm]: [f64; 2],
        size_mm: f64,
        pair: [&str; 2],
    ) -> f64 {
        let (bold, plain) = (Hand::bold(size_mm), Hand::plain(size_mm));
        let under_name = self.lines(x, y, name_mm - 1.0, bold, pair[0]);
        self.lines(x + name_mm, y, value_mm, plain, pair[1]).max(under_name) + 0.5
    }

    /// A box to tick, before a line with this baseline.
    pub(crate) fn tick_box(&mut self, x: f64, y: f64, size_mm: f64) {
        let side = size_mm * 0.75;
        let _ = writeln!(
            self.out,
            "<rect x=\"{x:.2}\" y=\"{:.2}\" width=\"{side:.2}\" height=\"{side:.2}\" fill=\"none\" stroke=\"#000\" stroke-width=\"0.2\"/>",
            y - side
        );
    }

    pub(crate) fn rule(&mut self, y: f64, from: f64, to: f64) {
        let _ = writeln!(
            self.out,
            "<line x1=\"{from:.2}\" y1=\"{y:.2}\" x2=\"{to:.2}\" y2=\"{y:.2}\" stroke=\"#000\" stroke-width=\"0.2\"/>"
        );
    }

    pub(crate) fn rectangle(&mut self, [left, top]: [f64; 2], [wide, high]: [f64; 2], look: &str) {
        let _ = writeln!(
            self.out,
            "<rect x=\"{left:.2}\" y=\"{top:.2}\" width=\"{wide:.2}\" height=\"{high:.2}\" {look}/>"
        );
    }
}

/// One page: its own title and what is on it.
pub(crate) struct Page {
    /// What it is called.
    pub(crate) title: String,
    pub(crate) sheet: Sheet,
}

/// Fills pages from above; begins another, with its own title, where a piece does not fit.
pub(crate) struct Flow<'a> {
    name: &'a str,
    pub(crate) paper: Paper,
    pub(crate) pages: Vec<Page>,
    pub(crate) y: f64,
}

impl<'a> Flow<'a> {
    /// The first page, of which nothing is written.
    pub(crate) fn new(name: &'a str, paper: Paper) -> Self {
        let first = Page { title: name.to_owned(), sheet: Sheet::default() };
        Self { name, paper, pages: vec![first], y: MARGIN_MM + 5.0 }
    }

    /// A first page with its title written.
    pub(crate) fn titled(name: &'a str, paper: Paper, of: &str) -> Self {
        let mut flow = Self { name, paper, pages: Vec::new(), y: 0.0 };
        flow.turn(of);
        flow
    }

    pub(crate) fn left(&self) -> f64 {
        MARGIN_MM
    }

    pub(crate) fn right(&self) -> f64 {
        self.paper.size_mm().0 - MARGIN_MM
    }

    pub(crate) fn bottom(&self) -> f64 {
        self.paper.size_mm().1 - MARGIN_MM
    }

    pub(crate) fn wide(&self) -> f64 {
        self.right() - self.left()
    }

    /// The page that is written on.
    pub(crate) fn sheet(&mut self) -> &mut Sheet {
        let last = self.pages.len() - 1;
        &mut self.pages[last].sheet
    }

    /// Room for so many millimetres on this page or, under its own title, on another.
    pub(crate) fn make_room(&mut self, high_mm: f64, of: &str) {
        if self.y + high_mm > self.bottom() {
            self.turn(of);
        }
    }

    /// Another page.
    pub(crate) fn turn(&mut self, of: &str) {
        let more =
            if self.pages.is_empty() { String::new() } else { format!(", page {}", self.pages.len() + 1) };
        let title = format!("{}: {of}{more}", self.name);
        self.pages.push(Page { title: title.clone(), sheet: Sheet::default() });
        let (x, y, wide, right) = (self.left(), MARGIN_MM + 5.0, self.wide(), self.right());
        let sheet = self.sheet();
        let y = sheet.lines(x, y, wide, Hand::bold(4.2), &title);
        sheet.rule(y - 2.5, x, right);
        self.y = y + 2.5;
    }
}

/// A page as a file of its own; `brings_type` puts the typeface into it.
pub(crate) fn page_svg(page: &Page, paper: Paper, brings_type: bool) -> String {
    pages_svg(std::slice::from_ref(page), paper, brings_type)
}

/// Pages one under the other in one file.
pub(crate) fn pages_svg(pages: &[Page], paper: Paper, brings_type: bool) -> String {
    let (width, height) = paper.size_mm();
    let whole = height * pages.len() as f64;
    let name = pages.first().map_or("", |page| page.title.as_str());
    let face = if brings_type { format!("<style>{}</style>", style()) } else { String::new() };
    let mut out = format!(
        "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{width}mm\" height=\"{whole:.1}mm\" viewBox=\"0 0 {width} {whole:.1}\" font-family=\"{FAMILY}\" fill=\"#000\">\n<title>{}</title>\n{DEFS}{face}\n<rect width=\"100%\" height=\"100%\" fill=\"#fff\"/>\n",
        escaped(name)
    );
    for (index, page) in pages.iter().enumerate() {
        if index == 0 {
            out.push_str(&page.sheet.out);
        } else {
            let _ = writeln!(out, "<g transform=\"translate(0 {:.2})\">", height * index as f64);
            out.push_str(&page.sheet.out);
            out.push_str("</g>\n");
        }
    }
    out.push_str("</svg>\n");
    out
}
