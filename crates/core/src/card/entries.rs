//! The entries of a card.

use serde::Serialize;
use utoipa::ToSchema;

use crate::room::CornerMark;

/// A mark on the floor, in the order they are laid.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Mark {
    /// Number in the order of laying.
    pub number: u32,
    /// Letter on the tape.
    pub letter: String,
    /// What stands there.
    pub what: String,
    /// Where, m from left and back wall.
    #[schema(value_type = Vec<f64>)]
    pub at_m: [f64; 2],
    /// The tape lengths.
    pub tape: CornerMark,
    /// Heights and angles of what stands there, in words.
    pub set: String,
}

/// A camera setting.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Setting {
    /// Its name.
    pub name: &'static str,
    /// Its value, with its unit.
    pub value: String,
}

/// A lamp's dial.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Dial {
    /// Letter of its mark.
    pub letter: String,
    /// What it is.
    pub what: String,
    /// Dial in percent; none for boards.
    pub percent: Option<f64>,
    /// Colour temperature, K.
    pub cct_k: Option<f64>,
    /// Where it is, seen from the eyes: angle and side, angle up, distance.
    pub place: String,
}

/// One plug.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Cable {
    /// What is plugged in.
    pub of: String,
    /// What takes it.
    pub to: String,
}
