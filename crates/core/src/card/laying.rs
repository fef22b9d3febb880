//! The card one step at a time, in letters that are read from two metres: for a phone on the floor.

use serde::Serialize;
use utoipa::ToSchema;

use super::Card;
use super::entries::{Dial, Mark};
use crate::plan::ActionKind;
use crate::reading::Origin;
use crate::ready::in_words;

/// What is done in a step.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum Work {
    /// A mark is taped to the floor.
    Mark,
    /// A distance between two marks is checked.
    Tape,
    /// Something is hung against the echo.
    Hang,
    /// A plug goes in.
    Plug,
    /// A dial or the camera is set.
    Set,
    /// Something is looked at before the take.
    Check,
    /// What was put away is put up again.
    PutUp,
}

/// One length or value, large.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Measure {
    /// What it is.
    pub label: String,
    /// With its unit.
    pub value: String,
}

/// One step.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct LayingStep {
    /// Its name; another as soon as anything of it changes, so that a tick holds only for what was ticked.
    pub id: String,
    /// What is done.
    pub work: Work,
    /// Letter on the tape, if it has one.
    pub letter: Option<String>,
    /// What it is about.
    pub title: String,
    /// The lengths or values.
    pub measures: Vec<Measure>,
    /// What else to know or to look for.
    pub notes: Vec<String>,
    /// What kind of action it is, where its time is taken.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub timed: Option<ActionKind>,
}

impl LayingStep {
    fn new(work: Work, name: &str, title: impl Into<String>) -> Self {
        let (title, id) = (title.into(), name.to_owned());
        Self { id, work, letter: None, title, measures: Vec::new(), notes: Vec::new(), timed: None }
    }

    fn with(mut self, label: impl Into<String>, value: String) -> Self {
        self.measures.push(Measure { label: label.into(), value });
        self
    }

    fn noting(mut self, note: impl Into<String>) -> Self {
        self.notes.push(note.into());
        self
    }

    fn lettered(mut self, letter: &str) -> Self {
        self.letter = Some(letter.to_owned());
        self
    }

    /// Adds to its name what it says, so that a change of it is another step.
    fn sealed(mut self) -> Self {
        let said = self.measures.iter().flat_map(|one| [&one.label, &one.value]);
        let said = std::iter::once(&self.title).chain(said).chain(&self.notes);
        // FNV-1a, 32 bits: short, and the same everywhere.
        let hash = said
            .flat_map(|text| text.bytes().chain([0]))
            .fold(0x811c_9dc5_u32, |hash, byte| (hash ^ u32::from(byte)).wrapping_mul(0x0100_0193));
        self.id = format!("{}.{hash:08x}", self.id);
        self
    }
}

/// All steps of a card, in the order they are done: marks, what hangs, plugs, dials and camera, checks; then what puts it up again.
pub fn laying(card: &Card) -> Vec<LayingStep> {
    let baseline = card.baseline.iter().map(|line| {
        let [x, y] = line.at_m;
        LayingStep::new(Work::Mark, "baseline", "A point to measure from: nothing stands on it")
            .lettered(line.letters[1])
            .with("from left wall", card.units.mark(x))
            .with("from back wall", card.units.mark(y))
            .noting(format!(
                "{} from S. Furniture hides the corners from here on.",
                card.units.mark(line.length_m)
            ))
    });
    let mut marks = card.marks.iter().map(|mark| of_mark(card, mark));
    let seat = marks.next();
    let diagonals = card.diagonals.iter().enumerate().map(|(index, line)| {
        let [one, other] = &line.letters;
        LayingStep::new(Work::Tape, &format!("diagonal.{index}"), format!("Tape from {one} to {other}"))
            .with("should be", card.units.mark(line.length_m))
            .noting("A few centimetres off: one of the two marks is in the wrong place.")
    });
    let hung = card.hung.iter().map(|hung| {
        LayingStep::new(Work::Hang, &format!("hang.{}", hung.id), hung.what.clone())
            .noting(hung.place.clone())
    });
    let cables = card.cables.iter().enumerate().map(|(index, cable)| {
        LayingStep::new(Work::Plug, &format!("plug.{index}"), cable.of.clone()).with("into", cable.to.clone())
    });
    let dials = card.dials.iter().enumerate().map(|(index, dial)| of_dial(index, dial));
    let settings = card.settings.iter().map(|setting| {
        let step = LayingStep::new(Work::Set, &name(setting.name), "Camera")
            .with(setting.name, setting.value.clone());
        setting.look_for.into_iter().fold(step, LayingStep::noting)
    });
    let checks = card.before.iter().enumerate().map(|(index, check)| {
        LayingStep::new(Work::Check, &format!("check.{index}"), "Before every take").noting(check.clone())
    });
    let all = seat.into_iter().chain(baseline).chain(marks).chain(diagonals).chain(hung).chain(cables);
    let put_up = card.ready.actions.iter().filter(|action| action.by_hand).map(|action| {
        let by = if action.from == Origin::Measured { "your time" } else { "usually" };
        let step = LayingStep::new(Work::PutUp, &format!("put-up.{}", action.id), action.what.clone());
        let letter = (!action.letter.is_empty()).then(|| action.letter.clone());
        LayingStep { timed: Some(action.kind), letter, ..step.with(by, in_words(action.seconds)) }
    });
    let laid = all.chain(dials).chain(settings).chain(checks);
    laid.chain(put_up).map(LayingStep::sealed).collect()
}

fn of_mark(card: &Card, mark: &Mark) -> LayingStep {
    let step =
        LayingStep::new(Work::Mark, &format!("mark.{}", mark.id), mark.what.clone()).lettered(&mark.letter);
    let from = mark.tape.corners.iter();
    let step = from.fold(step, |step, from| {
        let point = if from.corner.starts_with(char::is_lowercase) { "corner" } else { "mark" };
        step.with(format!("from {point} {}", from.corner), card.units.mark(from.length_m))
    });
    let step = step.noting(format!(
        "Or {} from the left wall, {} from the back wall.",
        card.units.mark(mark.tape.from_left_m),
        card.units.mark(mark.tape.from_back_m)
    ));
    step.noting(mark.set.clone())
}

fn of_dial(index: usize, dial: &Dial) -> LayingStep {
    let step = LayingStep::new(Work::Set, &format!("dial.{index}"), dial.what.clone()).lettered(&dial.letter);
    let percent = dial.percent.map(|percent| ("dial", format!("{percent:.0} %")));
    let cct = dial.cct_k.map(|cct_k| ("colour temperature", format!("{cct_k:.0} K")));
    let step = percent.into_iter().chain(cct).fold(step, |step, (label, value)| step.with(label, value));
    step.noting(dial.place.clone())
}

fn name(setting: &str) -> String {
    format!("camera.{}", setting.to_lowercase().replace(' ', "-"))
}
