//! The card as one HTML page that prints well on A4 and Letter, in black and white. The page itself is
//! `templates/card.html`.

use askama::Template;
use fogon_core::card::Card;

use crate::Paper;
use crate::picture::Photo;
use crate::sketch::DEFS;
use crate::svg::{AIMS, drawing, html_scale};

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

#[derive(Template)]
#[template(path = "card.html")]
struct Page<'a> {
    name: &'a str,
    page: &'static str,
    card: &'a Card,
    defs: &'static str,
    scale: String,
    plan: String,
    side: String,
    frame: String,
    marks: Vec<MarkRow<'a>>,
    aims: &'static str,
    baseline: Option<String>,
    diagonals: Option<String>,
    tape_error: String,
    assumed: String,
}

/// The card's page.
pub fn card(card: &Card, paper: Paper, photo: Option<Photo<'_>>) -> String {
    let (mm, n) = html_scale(card);
    let [left, top, right, bottom] = card.drawing.frame.bounds;
    let frame_mm = (52.0 / (right - left).max(0.1)).min(62.0 / (bottom - top).max(0.1));
    let marks = card.marks.iter().map(|mark| MarkRow {
        number: mark.number,
        letter: &mark.letter,
        what: &mark.what,
        set: &mark.set,
        from_left: card.units.mark(mark.tape.from_left_m),
        from_back: card.units.mark(mark.tape.from_back_m),
        from_corners: mark.tape.corners.each_ref().map(|from| (from.corner, card.units.mark(from.length_m))),
        error: mark.tape.worst_error_m.map_or_else(|| "\u{2013}".into(), |error| card.units.gap(error)),
    });
    let page = Page {
        name: &card.name,
        page: match paper {
            Paper::A4 => "A4",
            Paper::Letter => "letter",
        },
        card,
        defs: DEFS,
        scale: format!("1 : {n:.0}"),
        plan: drawing(&card.drawing.plan, None, mm, "Plan"),
        side: drawing(&card.drawing.side, None, mm, "Side view"),
        frame: drawing(&card.drawing.frame, photo.as_ref(), frame_mm, "Picture as the lens sees it"),
        marks: marks.collect(),
        aims: AIMS,
        baseline: card.baseline_words(),
        diagonals: card.diagonals_words(),
        tape_error: card.units.gap(card.tape_error_m),
        assumed: card.assumed.join("; "),
    };
    // Writing to a string does not fail.
    page.render().unwrap_or_default()
}
