//! What is best done next in a step: mend what is worst; else tell what is only assumed; else go on.

use serde::Serialize;
use utoipa::ToSchema;

use super::kind::{State, Step};
use crate::finding::{Finding, Missing, Severity, Topic};
use crate::reading::Quantity;

/// The part of a step's page where something is done.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum Tab {
    /// How it stands.
    Now,
    /// Figures to type and things to move.
    ByHand,
    /// Other ways to do it.
    Choices,
    /// Every reading.
    Numbers,
}

/// What a press does.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
#[serde(tag = "kind", rename_all = "kebab-case")]
pub enum Action {
    /// Applies the move that mends the finding.
    Mend,
    /// Opens a part of a step.
    Open {
        /// Which step.
        step: Step,
        /// Which part of it.
        tab: Tab,
    },
    /// Prints the card.
    Print,
}

/// The next best thing to do.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Next {
    /// What it is about.
    pub sentence: String,
    /// What to do about it; empty where the button says it all.
    pub detail: String,
    /// Id of the finding that it comes from.
    pub finding: Option<String>,
    /// What the button says.
    pub label: String,
    /// What it does.
    pub action: Action,
}

/// The next best thing to do in a step; `findings` are its own, worst first.
pub(super) fn next(step: Step, findings: &[&Finding], states: &[(Step, State)]) -> Next {
    if step == Step::Card {
        return card(states);
    }
    let Some(worst) = findings.first() else { return go_on("Nothing to mend here.", step, states) };
    // Of the worst ones, one that a press mends.
    let alike = findings.iter().take_while(|finding| finding.severity == worst.severity);
    let finding = alike.into_iter().find(|finding| finding.fix.is_some()).unwrap_or(worst);
    if let Some(fix) = &finding.fix {
        return Next {
            sentence: finding.sentence.clone(),
            detail: String::new(),
            finding: Some(finding.id.to_string()),
            label: fix.label.clone(),
            action: Action::Mend,
        };
    }
    if finding.severity == Severity::Consider && !is_for_a_person(&finding.id) {
        return go_on("Nothing here has to be mended.", step, states);
    }
    let (label, step, tab) = place_for(&finding.id, step);
    Next {
        sentence: finding.sentence.clone(),
        detail: finding.advice.clone().into_owned(),
        finding: Some(finding.id.to_string()),
        label: label.to_owned(),
        action: Action::Open { step, tab },
    }
}

/// Something that a person alone can tell or get.
fn is_for_a_person(topic: &Topic) -> bool {
    match topic {
        Topic::Reading(id) => id.quantity == Quantity::SoundRoomRtMidS,
        Topic::Missing(_) => true,
        Topic::Broken(..) | Topic::Hot(_) | Topic::Jump(_) | Topic::Note(_) => false,
    }
}

/// Where something is done about a finding that no single move mends.
fn place_for(topic: &Topic, step: Step) -> (&'static str, Step, Tab) {
    match topic {
        Topic::Missing(
            Missing::Microphone
            | Missing::Key
            | Missing::Back
            | Missing::Support(_)
            | Missing::Need(..)
            | Missing::Screen,
        ) => ("See what to buy", Step::Money, Tab::Now),
        Topic::Reading(id) if id.quantity == Quantity::SoundRoomRtMidS => {
            ("Say what is in the room", Step::Sound, Tab::ByHand)
        }
        Topic::Reading(_) | Topic::Broken(..) | Topic::Hot(_) | Topic::Jump(_) | Topic::Note(_) => {
            ("Change it by hand", step, Tab::ByHand)
        }
    }
}

/// On to the step that needs it most, else to the next one.
fn go_on(here: &str, step: Step, states: &[(Step, State)]) -> Next {
    let worst = [State::Stop, State::Fix]
        .iter()
        .find_map(|wanted| states.iter().find(|(other, state)| other != &step && state == wanted));
    let open = |sentence: String, to: Step| Next {
        sentence,
        detail: String::new(),
        finding: None,
        label: format!("Go to {}", to.title()),
        action: Action::Open { step: to, tab: Tab::Now },
    };
    match worst {
        Some((other, _)) => open(format!("{here} Go on with {}.", other.title()), *other),
        None => {
            let at = Step::ALL.iter().position(|one| *one == step).unwrap_or(0);
            let following = Step::ALL.get(at + 1).copied().unwrap_or(Step::Card);
            open(here.to_owned(), following)
        }
    }
}

fn card(states: &[(Step, State)]) -> Next {
    match go_on("", Step::Card, states) {
        next @ Next { action: Action::Open { step, .. }, .. } if step != Step::Card => {
            Next { sentence: format!("Not everything is ready: go on with {}.", step.title()), ..next }
        }
        _ => Next {
            sentence: "Lay the marks in the order of their numbers.".to_owned(),
            detail: String::new(),
            finding: None,
            label: "Print the card".to_owned(),
            action: Action::Print,
        },
    }
}
