//! What is not bought, and by which rule.

use serde::Serialize;
use utoipa::ToSchema;

/// The rule by which a thing is passed over.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum PassedBy {
    /// Its owner has ruled it out, or it is at hand already.
    Owner,
    /// Nothing is spent on what was only assumed: it is measured first.
    Measure,
    /// It does not go with what it is used on.
    Mount,
    /// It does not focus where the room puts it.
    Focus,
    /// It does not frame the person in this room.
    Framing,
    /// It gets hot enough to burn.
    Heat,
    /// It finds no legal place in this room, or what is owned does its work.
    Place,
    /// No stand carries it here.
    Stand,
    /// It needs what cannot be had.
    Need,
    /// What it gains would be neither seen nor heard.
    Gain,
    /// Another does as much for less.
    Dearer,
    /// It costs more than is left.
    Budget,
}

/// A thing that is passed over.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct PassedOver {
    /// Catalogue id.
    pub id: String,
    /// In words.
    pub label: String,
    /// What it would cost with all that it needs, as far as that was found.
    pub price: f64,
    /// The rule.
    pub rule: PassedBy,
    /// Why, in a sentence.
    pub reason: String,
    /// What it would gain, points of 100; none where it was not laid out.
    pub gain: Option<f64>,
}

/// Why a thing cannot be used here.
#[derive(Debug, Clone, PartialEq)]
pub(super) struct Refused {
    pub(super) rule: PassedBy,
    pub(super) reason: String,
}

impl Refused {
    pub(super) fn new(rule: PassedBy, reason: impl Into<String>) -> Self {
        Self { rule, reason: reason.into() }
    }
}
