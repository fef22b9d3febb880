//! What was taped, and what comes of it.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::card::entries::Mark;
use crate::plan::Plan;
use crate::reading::Change;

/// What a distance was taped from.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum GotFrom {
    /// A corner of the room, by its letter.
    Corner(String),
    /// The wall on the left (`left`) or at the back (`back`), square to it.
    Wall(String),
    /// Another mark, by the name of what stands there.
    Mark(String),
}

/// A distance that was really taped.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Got {
    /// The mark that it leads to, by the name of what stands there.
    #[schema(max_length = 60)]
    pub mark: String,
    /// Where it begins.
    pub from: GotFrom,
    /// m.
    #[schema(minimum = 0.0, maximum = 60.0)]
    pub length_m: f64,
}

/// A plan and what was taped on its floor.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct LaidIn {
    /// The plan that was laid.
    pub plan: Plan,
    /// What was taped.
    #[schema(max_items = 200)]
    pub got: Vec<Got>,
}

crate::shape!(LaidIn => |asked: &LaidIn| asked.plan.check());

/// How far what was taped of a mark can be trusted.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum Trust {
    /// Too few distances to know where it is.
    Unknown,
    /// Just enough: a misread tape would not show.
    Unchecked,
    /// More than enough, and they fit together.
    Checked,
    /// They do not fit together, and which of them is wrong cannot be told.
    Contradicted,
    /// They do not fit together but for one, which is named and left out.
    Named,
}

/// A mark as it was laid.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct LaidMark {
    /// The name of what stands there.
    pub id: String,
    /// Letter on the tape.
    pub letter: String,
    /// How far it can be trusted.
    pub trust: Trust,
    /// Where it is, m from left and back wall.
    #[schema(value_type = Option<Vec<f64>>)]
    pub at_m: Option<[f64; 2]>,
    /// It is nearer to that place than this, 95 times in 100, m.
    pub within_m: Option<f64>,
    /// How far it is from where it should be, to the right and to the front of the plan, m; none where it stands well enough.
    #[schema(value_type = Option<Vec<f64>>)]
    pub stray_m: Option<[f64; 2]>,
    /// What that means and what to do.
    pub words: String,
}

/// A floor as it was laid.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Laid {
    /// All marks as they should be, in the order they are laid.
    pub floor: Vec<Mark>,
    /// Marks of which anything was taped, in the order they are laid.
    pub marks: Vec<LaidMark>,
    /// The distances that contradict the rest and were left out: their places in the list.
    pub left_out: Vec<usize>,
    /// The plan as it stands, its locks open: what is off by more than it can be trusted stands where it is.
    pub plan: Plan,
    /// The verdict on it, in words.
    pub verdict: String,
    /// Readings whose standing changed for the worse or the better.
    pub changes: Vec<Change>,
}

/// Where the marks are by what was taped.
#[derive(Debug, Clone, PartialEq)]
pub struct Places {
    /// All marks as they should be, in the order they are laid.
    pub floor: Vec<Mark>,
    /// Marks of which anything was taped, in the same order.
    pub marks: Vec<LaidMark>,
    /// The distances that contradict the rest: their places in the list.
    pub left_out: Vec<usize>,
}
