//! The entries of a card.

use serde::Serialize;
use utoipa::ToSchema;

use crate::room::CornerMark;

/// A mark on the floor, in the order they are laid.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Mark {
    /// The name of what stands there in answers.
    pub id: String,
    /// Number in the order of laying.
    pub number: u32,
    /// Letter on the tape.
    pub letter: String,
    /// Colour of the tape, in a word.
    pub colour: &'static str,
    /// Letter of the mark that what stands there faces.
    pub faces: &'static str,
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

/// Two points of the floor that are taped once, and from which everything is measured that sees no two corners of the room.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Baseline {
    /// Letters of both points: the seat's mark and a point of its own.
    pub letters: [&'static str; 2],
    /// The second point, m from left and back wall.
    #[schema(value_type = Vec<f64>)]
    pub at_m: [f64; 2],
    /// From the first to the second, m.
    pub length_m: f64,
}

/// A distance between two marks: taped at the end, it shows whether both are where they belong.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Diagonal {
    /// Names of both marks' things.
    pub between: [String; 2],
    /// Letters of both marks.
    pub letters: [String; 2],
    /// m.
    pub length_m: f64,
}

/// What hangs or lies against the echo, and where.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Hung {
    /// Its name in answers.
    pub id: String,
    /// What it is.
    pub what: String,
    /// Where its edges are, in words.
    pub place: String,
}

/// A camera setting.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Setting {
    /// Its name.
    pub name: &'static str,
    /// Its value, with its unit.
    pub value: String,
    /// What to look for once it is set; none where there is nothing to see.
    pub look_for: Option<&'static str>,
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

impl Dial {
    /// How it is set and where it is: `50 %, 5600 K, 40\u{b0} camera right ...`.
    pub fn words(&self) -> String {
        let percent = self.percent.map(|percent| format!("{percent:.0} %, ")).unwrap_or_default();
        let cct = self.cct_k.map(|kelvins| format!("{kelvins:.0} K, ")).unwrap_or_default();
        format!("{percent}{cct}{}", self.place)
    }
}

/// One plug.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Cable {
    /// What is plugged in.
    pub of: String,
    /// What takes it.
    pub to: String,
}
