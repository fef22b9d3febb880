//! A reading: one number about a corner with its band, score and working. Which readings there are stands in
//! `quantity`; the bands themselves in `assess::bands`.

mod quantity;

use std::borrow::Cow;
use std::fmt;

use serde::Serialize;
use utoipa::ToSchema;

use crate::units::{UnitSystem, spells};

pub use quantity::{Aspect, Banded, Condition, Measurable, Quantity};

/// Where a value comes from.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum Origin {
    /// Given in the brief or the layout.
    Typed,
    /// Read off with an instrument.
    Measured,
    /// Not given; the usual value stands in.
    Assumed,
    /// Worked out from other values.
    Computed,
}

/// One input of a working.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Input {
    /// Its name.
    pub name: &'static str,
    /// Its value.
    pub value: f64,
    /// Its unit.
    pub unit: &'static str,
    /// Where it comes from.
    pub from: Origin,
}

/// How a reading came about.
#[derive(Debug, Clone, Default, PartialEq, Serialize, ToSchema)]
pub struct Working {
    /// The formula.
    pub formula: &'static str,
    /// What went in.
    pub inputs: Vec<Input>,
    /// Where the formula is published.
    pub source: &'static str,
    /// What to keep in mind.
    #[serde(skip_serializing_if = "str::is_empty")]
    #[schema(value_type = String)]
    pub note: Cow<'static, str>,
}

/// How a value stands in its band.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
#[allow(missing_docs)]
pub enum Standing {
    Good,
    Fair,
    Poor,
    /// No band: information only.
    Plain,
}

/// Good between the middle two, fair between the outer ones; `None` = open end.
pub type Band = [Option<f64>; 4];

/// Which reading it is: a quantity, of a thing where there are several. Its text, `module.thing.quantity_unit`, never
/// changes meaning.
#[derive(Debug, Clone, PartialEq, Eq, Hash)]
pub struct ReadingId {
    /// What it reports.
    pub quantity: Quantity,
    /// Name of the thing that it is told of, where its id has a place for one.
    pub thing: Option<Box<str>>,
}

impl ReadingId {
    /// A quantity of one thing, by its name.
    pub fn of(quantity: Quantity, thing: impl Into<Box<str>>) -> Self {
        Self { quantity, thing: Some(thing.into()) }
    }
}

impl From<Quantity> for ReadingId {
    fn from(quantity: Quantity) -> Self {
        Self { quantity, thing: None }
    }
}

impl fmt::Display for ReadingId {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match (self.quantity.id().split_once('*'), &self.thing) {
            (Some((head, tail)), Some(thing)) => write!(f, "{head}{thing}{tail}"),
            _ => f.write_str(self.quantity.id()),
        }
    }
}

impl Serialize for ReadingId {
    fn serialize<S: serde::Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
        serializer.collect_str(self)
    }
}

impl PartialEq<Quantity> for ReadingId {
    fn eq(&self, quantity: &Quantity) -> bool {
        self.quantity == *quantity
    }
}

impl PartialEq<str> for ReadingId {
    fn eq(&self, text: &str) -> bool {
        spells(self, text)
    }
}

impl PartialEq<&str> for ReadingId {
    fn eq(&self, text: &&str) -> bool {
        self == *text
    }
}

/// One number about a corner.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Reading {
    /// `module.thing.quantity_unit`.
    #[schema(value_type = String)]
    pub id: ReadingId,
    /// In words.
    #[schema(value_type = String)]
    pub label: Cow<'static, str>,
    /// The value; null where it does not exist.
    pub value: Option<f64>,
    /// Its unit.
    pub unit: &'static str,
    /// The band, if it has one.
    #[schema(value_type = Option<Vec<Option<f64>>>)]
    pub band: Option<Band>,
    /// How it stands.
    pub standing: Standing,
    /// 0 to 1 over the band.
    pub score: Option<f64>,
    /// Plus or minus, in the same unit.
    pub uncertainty: Option<f64>,
    /// Least and most that it may be, where it rests on something that nobody told.
    #[schema(value_type = Option<Vec<f64>>)]
    pub assumed_range: Option<[f64; 2]>,
    /// What it speaks for.
    pub aspect: Option<Aspect>,
    /// Computed, measured or assumed.
    pub from: Origin,
    /// What a measured value in its place may be; none if nobody can measure it.
    #[schema(value_type = Option<Vec<f64>>)]
    pub measured_range: Option<[f64; 2]>,
    /// What a measured value belongs to: where one of these changes, it is set aside.
    #[serde(skip_serializing_if = "<[Condition]>::is_empty")]
    #[schema(value_type = Vec<Condition>, required = false)]
    pub belongs_to: &'static [Condition],
    /// How it came about.
    pub working: Working,
}

/// A reading before and after a change.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Change {
    /// Its id.
    pub reading: String,
    /// In words.
    pub label: String,
    /// Before.
    pub from: Option<f64>,
    /// After.
    pub to: Option<f64>,
    /// Its unit.
    pub unit: &'static str,
}

impl Reading {
    /// A computed reading; label, unit and aspect follow from the quantity. A value that is not finite becomes null.
    pub fn new(quantity: Quantity, value: f64) -> Self {
        Self::with_id(quantity.into(), value)
    }

    /// The same of one thing of several, by its name.
    pub fn of(quantity: Quantity, thing: impl Into<Box<str>>, value: f64) -> Self {
        Self::with_id(ReadingId::of(quantity, thing), value)
    }

    fn with_id(id: ReadingId, value: f64) -> Self {
        let quantity = id.quantity;
        let measurable = quantity.measurable();
        Self {
            value: value.is_finite().then_some(value),
            id,
            label: quantity.label().into(),
            unit: quantity.unit(),
            band: None,
            standing: Standing::Plain,
            score: None,
            uncertainty: None,
            assumed_range: None,
            aspect: quantity.aspect(),
            from: Origin::Computed,
            measured_range: measurable.map(|measurable| [measurable.range.0, measurable.range.1]),
            belongs_to: measurable.map_or(&[], |measurable| measurable.belongs_to),
            working: Working::default(),
        }
    }

    /// With a name of its own, where the glossary's word would stand for several.
    #[must_use]
    pub fn called(mut self, label: impl Into<Cow<'static, str>>) -> Self {
        self.label = label.into();
        self
    }

    /// With a formula and its source.
    #[must_use]
    pub fn by(mut self, formula: &'static str, source: &'static str) -> Self {
        self.working.formula = formula;
        self.working.source = source;
        self
    }

    /// With one more input.
    #[must_use]
    pub fn with(mut self, name: &'static str, value: f64, unit: &'static str, from: Origin) -> Self {
        self.working.inputs.push(Input { name, value, unit, from });
        self
    }

    /// With a note.
    #[must_use]
    pub fn note(mut self, note: impl Into<Cow<'static, str>>) -> Self {
        self.working.note = note.into();
        self
    }

    /// Its value with its unit, as people of a unit system read it; lenses are told in millimetres everywhere.
    pub fn in_words(&self, units: UnitSystem) -> String {
        let of_lens = self.id.quantity == Quantity::ShotLensEquivalentMm;
        let units = if of_lens { UnitSystem::Metric } else { units };
        let digits = if matches!(self.unit, "lx" | "\u{b0}" | "K" | "Hz") { 0 } else { 2 };
        self.value.map_or("\u{2013}".into(), |value| units.with_unit(value, self.unit, digits))
    }

    /// With what it may be at least and at most, as it rests on something that nobody told.
    #[must_use]
    pub fn assumed_within(mut self, one: f64, other: f64) -> Self {
        self.assumed_range = Some([one.min(other), one.max(other)]);
        self
    }

    /// With an uncertainty.
    #[must_use]
    pub fn within(mut self, uncertainty: f64) -> Self {
        self.uncertainty = Some(uncertainty);
        self
    }
}

/// Score of a value over a band: 1 between b and c, falling to 0 at a and d (`None` = open end).
pub fn trapezium(value: f64, [a, b, c, d]: Band) -> f64 {
    let rise = match (a, b) {
        (_, Some(b)) if value >= b => 1.0,
        (Some(a), Some(b)) if value > a => (value - a) / (b - a),
        (_, None) => 1.0,
        _ => 0.0,
    };
    let fall = match (c, d) {
        (Some(c), _) if value <= c => 1.0,
        (Some(c), Some(d)) if value < d => (d - value) / (d - c),
        (None, _) => 1.0,
        _ => 0.0,
    };
    rise.min(fall)
}

/// Good on [b, c], fair out to a and d, poor beyond.
pub fn standing(value: f64, [a, b, c, d]: Band) -> Standing {
    // A limit that is met counts as met, whatever the last bit says.
    let slack = 1e-9 * value.abs().max(1.0);
    let over = |limit: Option<f64>| limit.is_none_or(|l| value >= l - slack);
    let under = |limit: Option<f64>| limit.is_none_or(|l| value <= l + slack);
    if over(b) && under(c) {
        Standing::Good
    } else if over(a.or(b)) && under(d.or(c)) {
        Standing::Fair
    } else {
        Standing::Poor
    }
}
