//! The logbook: what is kept of a session. Entries are made on the desk or on a phone, without network too; each carries a name of
//! its own, and of two that speak of one entry the later holds.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::take::before::Figures;

/// What became of a take.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum TakeVerdict {
    /// Not said.
    #[default]
    Open,
    /// It is kept.
    Keep,
    /// It may be used.
    Maybe,
    /// It is not used.
    Again,
}

/// A session: one time of recording.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct SessionLogged {
    /// When it was begun, ms since 1970.
    #[schema(minimum = 0)]
    pub begun_ms: i64,
    /// When it was ended.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0)]
    pub ended_ms: Option<i64>,
    /// The save at which the corner stood.
    #[schema(minimum = 1)]
    pub revision: i64,
    /// What it was about.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    #[schema(max_length = 120)]
    pub name: String,
    /// What was learnt, line by line.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 40)]
    pub learnt: Vec<String>,
    /// How long it took to put the corner up, s.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.0, maximum = 86400.0)]
    pub ready_s: Option<f64>,
    /// What stood where.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 60)]
    pub stood: Vec<String>,
    /// What was set.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 60)]
    pub settings: Vec<String>,
}

/// The list that was gone through before a take.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct CheckLogged {
    /// What was found in order.
    #[schema(max_items = 40)]
    pub in_order: Vec<String>,
    /// What was left.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 40)]
    pub left: Vec<String>,
    /// How long it took, s.
    #[schema(minimum = 0.0, maximum = 86400.0)]
    pub seconds: f64,
}

/// A take.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct TakeLogged {
    /// Its number, counted through the session.
    #[schema(minimum = 1, maximum = 9999)]
    pub number: u32,
    /// The shot that it is of, by its id.
    #[schema(max_length = 32)]
    pub shot: String,
    /// The same in words.
    #[schema(max_length = 120)]
    pub what: String,
    /// When it was begun, ms since 1970.
    #[schema(minimum = 0)]
    pub begun_ms: i64,
    /// How long it lasts, s; none while it runs.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.0, maximum = 86400.0)]
    pub seconds: Option<f64>,
    /// What became of it.
    #[serde(default)]
    pub verdict: TakeVerdict,
    /// What to remember.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    #[schema(max_length = 500)]
    pub note: String,
    /// The file's name.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    #[schema(max_length = 200)]
    pub file: String,
    /// Left on the card, min, as the camera tells or as reckoned.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.0, maximum = 100000.0)]
    pub card_left_min: Option<f64>,
    /// Left in the battery, min.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.0, maximum = 100000.0)]
    pub battery_left_min: Option<f64>,
}

/// What was measured of a test take.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct TestLogged {
    /// The file's name; the file itself is not kept.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    #[schema(max_length = 200)]
    pub file: String,
    /// In one sentence.
    #[schema(max_length = 400)]
    pub summary: String,
    /// The figures that the next takes are held against.
    #[schema(value_type = std::collections::BTreeMap<String, f64>)]
    pub figures: Figures,
}

/// A shot that was ticked by hand.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ShotLogged {
    /// The shot, by its id.
    #[schema(max_length = 32)]
    pub shot: String,
    /// It is done.
    pub done: bool,
}

/// What an entry is about.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case", tag = "kind")]
pub enum What {
    /// A session.
    Session(SessionLogged),
    /// The list before a take.
    Check(CheckLogged),
    /// A take.
    Take(TakeLogged),
    /// A test take, measured.
    Measured(TestLogged),
    /// A shot that was ticked.
    Shot(ShotLogged),
}

impl What {
    /// Its word.
    pub fn word(&self) -> &'static str {
        match self {
            What::Session(_) => "session",
            What::Check(_) => "check",
            What::Take(_) => "take",
            What::Measured(_) => "measured",
            What::Shot(_) => "shot",
        }
    }
}

/// An entry of the logbook.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Entry {
    /// Its name, made where it was made; that of a session names the session.
    #[schema(pattern = "^[a-z0-9-]{8,64}$")]
    pub uid: String,
    /// The session that it belongs to.
    #[schema(pattern = "^[a-z0-9-]{8,64}$")]
    pub session: String,
    /// When it was touched last, ms since 1970.
    #[schema(minimum = 0)]
    pub at_ms: i64,
    /// Where: the desk, or which phone. Whatever is sent, the server knows better.
    #[serde(default)]
    #[schema(max_length = 40)]
    pub by: String,
    /// It was taken back.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub gone: bool,
    /// What it is about.
    pub what: What,
}

/// Entries that are sent.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct LogIn {
    /// At most so many at once.
    #[schema(max_items = 20_000)]
    pub entries: Vec<Entry>,
    /// The last write that is known already: what came after it is answered (0).
    #[serde(default, skip_serializing_if = "is_zero")]
    #[schema(minimum = 0)]
    pub written: i64,
}

fn is_zero(written: &i64) -> bool {
    *written == 0
}

crate::shape!(LogIn => |_: &LogIn| Ok(()));
