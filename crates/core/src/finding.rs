//! A finding: what is wrong or could be better, how we know, and the change that mends it.

use std::borrow::Cow;

use serde::Serialize;
use utoipa::ToSchema;

use crate::plan::Fix;

/// How much a finding matters.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum Severity {
    /// A legal rule or a safety limit is broken, or nothing would be recorded.
    Stop,
    /// A reading is poor.
    Fix,
    /// A reading is fair, or advice; never blocks.
    Consider,
}

/// A reading that a finding rests on.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Evidence {
    /// Id of the reading, or a plain name.
    pub reading: String,
    /// Its value.
    pub value: Option<f64>,
    /// Its unit.
    pub unit: &'static str,
}

/// What is wrong or could be better.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Finding {
    /// Id of the reading or rule, with the thing where a rule can speak of several.
    pub id: String,
    /// How much it matters.
    pub severity: Severity,
    /// What it rests on.
    pub evidence: Vec<Evidence>,
    /// What is the matter, and by how much.
    pub sentence: String,
    /// Why it matters.
    pub reason: &'static str,
    /// Where that is published.
    pub source: &'static str,
    /// The school it depends on, if any.
    pub school: Option<&'static str>,
    /// The usual caution, where someone can be hurt.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub caution: Option<&'static str>,
    /// The change that mends it, if a move can.
    pub fix: Option<Fix>,
    /// Without such a change: what to measure, buy or change in the brief.
    #[serde(skip_serializing_if = "str::is_empty")]
    #[schema(value_type = String)]
    pub advice: Cow<'static, str>,
}

impl Finding {
    /// A finding without evidence, caution or fix yet.
    pub fn new(id: impl Into<String>, severity: Severity, sentence: impl Into<String>) -> Self {
        Self {
            id: id.into(),
            severity,
            evidence: Vec::new(),
            sentence: sentence.into(),
            reason: "",
            source: "",
            school: None,
            caution: None,
            fix: None,
            advice: Cow::Borrowed(""),
        }
    }

    /// With why it matters and where that is published.
    #[must_use]
    pub fn because(mut self, reason: &'static str, source: &'static str) -> Self {
        self.reason = reason;
        self.source = source;
        self
    }

    /// With one thing it rests on.
    #[must_use]
    pub fn on(mut self, reading: impl Into<String>, value: Option<f64>, unit: &'static str) -> Self {
        self.evidence.push(Evidence { reading: reading.into(), value, unit });
        self
    }

    /// With what to do where no move mends it.
    #[must_use]
    pub fn advise(mut self, advice: impl Into<Cow<'static, str>>) -> Self {
        self.advice = advice.into();
        self
    }

    /// With a caution.
    #[must_use]
    pub fn caution(mut self, caution: &'static str) -> Self {
        self.caution = Some(caution);
        self
    }
}
