//! The steps of the work, how one can stand, and readings that are looked at together.

use serde::Serialize;
use utoipa::ToSchema;

/// A step of the work.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
#[schema(as = WorkStep)]
#[allow(missing_docs)]
pub enum Step {
    Room,
    You,
    Shot,
    Light,
    Day,
    Sound,
    Money,
    Card,
}

impl Step {
    /// Every one, in the order of the work.
    pub const ALL: [Step; 8] =
        [Step::Room, Step::You, Step::Shot, Step::Light, Step::Day, Step::Sound, Step::Money, Step::Card];

    /// What it is called.
    pub fn title(self) -> &'static str {
        match self {
            Step::Room => "Room",
            Step::You => "You",
            Step::Shot => "Shot",
            Step::Light => "Light",
            Step::Day => "Day",
            Step::Sound => "Sound",
            Step::Money => "Money",
            Step::Card => "Card",
        }
    }
}

/// How a step stands.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
#[schema(as = StepState)]
pub enum State {
    /// In order.
    Good,
    /// Something could be better.
    Consider,
    /// Something has to be mended.
    Fix,
    /// Something stands in the way.
    Stop,
    /// It waits for other steps.
    Open,
}

/// Readings that are looked at together.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Group {
    /// What they tell of; empty where a step has one group.
    pub name: &'static str,
    /// Their ids.
    pub readings: Vec<String>,
}
