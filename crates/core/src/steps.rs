//! The order of the work: eight steps, what belongs to each, how it stands in a sentence, and what is best done next.

mod belongs;
mod kind;
mod next;
mod told;

use serde::Serialize;
use utoipa::ToSchema;

use crate::assess::Assessment;
use crate::corner::Corner;
use crate::finding::{Finding, Severity};

pub use kind::{Group, State, Step};
pub use next::{Action, Next, Tab};

/// One step of one corner.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct StepTold {
    /// Which one.
    pub step: Step,
    /// What it is called.
    pub title: &'static str,
    /// How it stands.
    pub state: State,
    /// The number that tells most, in few words.
    pub headline: String,
    /// How it stands, in one sentence.
    pub sentence: String,
    /// What that rests on; empty where there is no more to say.
    pub detail: String,
    /// What is best done next.
    pub next: Next,
    /// Ids of the findings that belong to it, worst first.
    pub findings: Vec<String>,
    /// Ids of the readings to look at first, at most four.
    pub tiles: Vec<String>,
    /// All its readings.
    pub groups: Vec<Group>,
    /// Names of the things that are placed in it.
    pub things: Vec<String>,
}

/// Every step of a corner, in the order of the work.
pub fn steps(corner: &Corner<'_>, assessment: &Assessment) -> Vec<StepTold> {
    let own = Step::ALL.map(|step| {
        let findings = assessment.findings.iter();
        findings.filter(|f| belongs::step_of(corner, &f.id) == step).collect::<Vec<&Finding>>()
    });
    let state = |index: usize| state_of(Step::ALL[index], &own[index], assessment);
    let states: Vec<(Step, State)> =
        Step::ALL.into_iter().enumerate().map(|(i, step)| (step, state(i))).collect();
    let placed = corner.placed();
    let tell = |(step, state): &(Step, State), findings: &[&Finding]| {
        let words = told::told(corner, assessment, *step);
        let things = placed.iter().filter(|thing| belongs::of_thing(&thing.id) == *step);
        StepTold {
            step: *step,
            title: step.title(),
            state: *state,
            headline: words.headline,
            sentence: words.sentence,
            detail: words.detail,
            next: next::next(*step, findings, &states),
            findings: findings.iter().map(|finding| finding.id.to_string()).collect(),
            tiles: belongs::tiles(*step, &assessment.readings),
            groups: belongs::groups(corner, *step, &assessment.readings),
            things: things.map(|thing| corner.name(&thing.id)).collect(),
        }
    };
    states.iter().zip(&own).map(|(step, findings)| tell(step, findings)).collect()
}

fn state_of(step: Step, findings: &[&Finding], assessment: &Assessment) -> State {
    // Findings come worst first.
    match findings.first().map(|finding| finding.severity) {
        Some(Severity::Stop) => State::Stop,
        Some(Severity::Fix) => State::Fix,
        Some(Severity::Consider) => State::Consider,
        None if step == Step::Card && !assessment.verdict.ready => State::Open,
        None => State::Good,
    }
}
