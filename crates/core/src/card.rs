//! The set-up card: what to tape, set and heed, in the order it is laid. Left and right are the camera's.

use serde::Serialize;
use utoipa::ToSchema;

use crate::assess::evaluate;
use crate::corner::Corner;
use crate::drawing::{Drawing, Style, View, draw_away, draw_for};
use crate::plan::Plan;
use crate::power::{Power, power};
use crate::ready::{self, Ready};
use crate::units::UnitSystem;

mod entries;
mod laid;
mod laying;
mod marks;
mod sight;
mod words;

pub use entries::{Baseline, Cable, Diagonal, Dial, Hung, Mark, Setting};
pub use laid::{Got, GotFrom, Laid, LaidIn, LaidMark, Places, Trust, laid, places};
pub use laying::{LayingStep, Measure, Work, laying};

/// Words on paper are read at arm's length: this much larger than on the page.
const CARD_TEXT: f64 = 1.25;

/// The card of one plan.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Card {
    /// The corner's name.
    pub name: String,
    /// Units it is written in.
    pub units: UnitSystem,
    /// The verdict in words.
    pub verdict: String,
    /// Size of the room in words.
    pub room: String,
    /// Marks in the order they are laid.
    pub marks: Vec<Mark>,
    /// Two points to measure from where furniture hides the corners; none where every mark sees two corners.
    pub baseline: Option<Baseline>,
    /// What holds for all marks, in words; none where nothing is aimed or weighted.
    pub aims: Option<String>,
    /// Distances between marks, to check them by.
    pub diagonals: Vec<Diagonal>,
    /// What hangs or lies against the echo.
    pub hung: Vec<Hung>,
    /// Error of one tape reading for which the marks' errors are told, m.
    pub tape_error_m: f64,
    /// Camera settings.
    pub settings: Vec<Setting>,
    /// Lamps and boards.
    pub dials: Vec<Dial>,
    /// Where the microphone is, in words.
    pub microphone: String,
    /// What is plugged into what.
    pub cables: Vec<Cable>,
    /// What to check before every take.
    pub before: Vec<String>,
    /// Cautions.
    pub cautions: Vec<String>,
    /// What was assumed rather than measured.
    pub assumed: Vec<String>,
    /// The drawings.
    pub drawing: Drawing,
    /// How it is put up, how soon, and where it is put away.
    pub ready: Ready,
    /// Plugs, cables and loads of the mains.
    pub power: Power,
    /// The floor with every stand in use and put away, and the cables.
    pub away: View,
}

impl Card {
    /// The second point of the baseline and how it is found, in words.
    pub fn baseline_words(&self) -> Option<String> {
        let Baseline { letters: [first, second], at_m: [x, y], length_m } = self.baseline.as_ref()?;
        let mark = |metres: f64| self.units.mark(metres);
        Some(format!(
            "Furniture hides the corners: first tape {second}, {} from the left wall, {} from the back wall, {} from {first}.",
            mark(*x),
            mark(*y),
            mark(*length_m)
        ))
    }

    /// The distances by which the marks are checked, in words.
    pub fn diagonals_words(&self) -> Option<String> {
        let told = self.diagonals.iter().map(|line| {
            let [one, other] = &line.letters;
            format!("{one}\u{2013}{other} {}", self.units.mark(line.length_m))
        });
        (!self.diagonals.is_empty())
            .then(|| format!("Check with the tape: {}.", told.collect::<Vec<_>>().join(", ")))
    }
}

/// The card of a plan; `None` where it does not resolve, which no plan that was read does.
///
/// ```
/// use fogon_core::card::card;
/// use fogon_core::plan::Plan;
///
/// let text = include_bytes!(concat!(env!("CARGO_MANIFEST_DIR"), "/../../docs/examples/box-room.fogon.json"));
/// let card = card(&Plan::read(text)?).expect("a plan that was read resolves");
/// assert_eq!((card.marks[0].number, card.marks[0].letter.as_str()), (1, "S"));
/// # Ok::<(), fogon_core::problem::Problems>(())
/// ```
pub fn card(plan: &Plan) -> Option<Card> {
    let corner = Corner::of(plan)?;
    let assessment = evaluate(plan);
    let units = plan.brief.units;
    let floor = marks::floor(&corner);
    let (ready, power) = (ready::of(&corner), power(&corner));
    Some(Card {
        name: plan.name.clone(),
        units,
        verdict: assessment.verdict.sentence.clone(),
        room: room_in_words(&corner),
        aims: words::aims(&corner),
        diagonals: floor.diagonals,
        marks: floor.marks,
        baseline: floor.baseline,
        hung: words::hung(&corner),
        tape_error_m: marks::tape_error_m(units),
        settings: words::settings(&corner),
        dials: words::dials(&corner),
        microphone: words::microphone(&corner),
        cables: words::cables(&corner),
        before: words::before(&corner),
        cautions: words::cautions(&corner, &assessment),
        assumed: words::assumed(&corner, &assessment),
        drawing: draw_for(
            plan,
            Style { text_scale: CARD_TEXT, frame_text_scale: CARD_TEXT, ..Style::default() },
        )?,
        away: draw_away(&corner, &ready.parked, &power, CARD_TEXT),
        ready,
        power,
    })
}

/// The box that holds the room, and what it is beside a box.
fn room_in_words(corner: &Corner<'_>) -> String {
    let (room, units) = (&corner.brief.room, corner.brief.units);
    let mut words = corner.room_m.map(|side| units.length(side)).join(" \u{d7} ");
    if !room.is_rectangle() {
        words += &format!(", {} corners", room.floor_m.len());
    }
    if !room.slopes.is_empty() {
        words += ", under a slope";
    }
    words
}
