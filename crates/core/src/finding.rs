//! A finding: what is wrong or could be better, how we know, and the change that mends it.

use std::borrow::Cow;
use std::fmt;

use serde::Serialize;
use utoipa::ToSchema;

use crate::plan::{Fix, Named};
use crate::reading::{Quantity, ReadingId};
use crate::units::spells;

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

/// A rule of which a breach stops a recording.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord, Serialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum Rule {
    /// Inside the room, with air under the ceiling.
    Room,
    /// Nothing passes through anything.
    Collision,
    /// Doors swing freely.
    Door,
    /// Room to get out of the chair.
    Exit,
    /// A way from a door to the chair.
    Way,
    /// The camera fits, focuses, and has what it is set to.
    Camera,
    /// Out of the picture.
    Picture,
    /// Free lines of sight, light and sound.
    Sight,
    /// Lamps keep away from the head.
    Near,
    /// What carries a thing reaches, holds and stays upright.
    Support,
    /// The breaker holds.
    Mains,
    /// Something to film with is at hand.
    Gear,
    /// A lens at hand goes so far.
    Lens,
}

impl Rule {
    /// The word in ids and answers.
    pub fn word(self) -> &'static str {
        match self {
            Rule::Room => "room",
            Rule::Collision => "collision",
            Rule::Door => "door",
            Rule::Exit => "exit",
            Rule::Way => "way",
            Rule::Camera => "camera",
            Rule::Picture => "picture",
            Rule::Sight => "sight",
            Rule::Near => "near",
            Rule::Support => "support",
            Rule::Mains => "mains",
            Rule::Gear => "gear",
            Rule::Lens => "lens",
        }
    }
}

/// Something that is not there.
#[derive(Debug, Clone, PartialEq, Eq, Hash)]
pub enum Missing {
    /// A microphone for the voice.
    Microphone,
    /// A key light.
    Key,
    /// A back light that the school wants.
    Back,
    /// The screen of the monitor school.
    Screen,
    /// What would carry a thing.
    Support(Named),
    /// What a thing in use cannot work without: an input, a cable.
    Need(Named, String),
}

/// What a finding speaks of that is neither a reading nor a rule nor something missing.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
#[allow(missing_docs)]
pub enum Note {
    Unresolved,
    Overhead,
    Session,
    SlowCard,
    Enlarged,
    Glass,
    Stretched,
    Verticals,
    Moire,
    ScriptBeside,
    Grows,
    SmallThings,
    NotPlain,
    WindowBehind,
    MirrorBehind,
    ClothesAlike,
    HairAlike,
    BackdropEdge,
    NoKeyScreen,
    KeyedClothes,
    MixedLight,
    Flutter,
    Drift,
}

impl Note {
    fn id(self) -> &'static str {
        match self {
            Note::Unresolved => "plan",
            Note::Overhead => "room.overhead",
            Note::Session => "shot.recording.session",
            Note::SlowCard => "shot.recording.slow-card",
            Note::Enlarged => "shot.recording.enlarged",
            Note::Glass => "shot.screen.glass",
            Note::Stretched => "shot.frame.stretched",
            Note::Verticals => "shot.frame.verticals",
            Note::Moire => "shot.cloth.moire",
            Note::ScriptBeside => "shot.script.beside",
            Note::Grows => "shot.background.grows",
            Note::SmallThings => "shot.background.small-things",
            Note::NotPlain => "shot.background.not-plain",
            Note::WindowBehind => "shot.background.window",
            Note::MirrorBehind => "shot.background.mirror",
            Note::ClothesAlike => "shot.background.alike",
            Note::HairAlike => "shot.background.hair",
            Note::BackdropEdge => "shot.background.edge",
            Note::NoKeyScreen => "shot.background.no-key-screen",
            Note::KeyedClothes => "shot.cloth.keyed",
            Note::MixedLight => "light.mixed",
            Note::Flutter => "sound.room.flutter",
            Note::Drift => "sound.record.drift",
        }
    }
}

/// What a finding speaks of; its text is the finding's id.
#[derive(Debug, Clone, PartialEq, Eq, Hash)]
pub enum Topic {
    /// A reading that is not good.
    Reading(ReadingId),
    /// A broken rule, and the thing that breaks it.
    Broken(Rule, Named),
    /// Something that is not there.
    Missing(Missing),
    /// A lamp that runs hot.
    Hot(Named),
    /// A second angle too near to the first.
    Jump(Named),
    /// Anything else.
    Note(Note),
}

impl fmt::Display for Topic {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match self {
            Topic::Reading(id) => id.fmt(f),
            Topic::Broken(rule, thing) => write!(f, "legal.{}.{thing}", rule.word()),
            Topic::Missing(Missing::Microphone) => f.write_str("microphone.missing"),
            Topic::Missing(Missing::Key) => f.write_str("light.key.missing"),
            Topic::Missing(Missing::Back) => f.write_str("light.back.missing"),
            Topic::Missing(Missing::Screen) => f.write_str("shot.screen.missing"),
            Topic::Missing(Missing::Support(thing)) => write!(f, "support.{thing}.missing"),
            Topic::Missing(Missing::Need(thing, need)) => write!(f, "{thing}.{need}.missing"),
            Topic::Hot(thing) => write!(f, "light.{thing}.hot"),
            Topic::Jump(thing) => write!(f, "shot.{thing}.jump"),
            Topic::Note(note) => f.write_str(note.id()),
        }
    }
}

impl Serialize for Topic {
    fn serialize<S: serde::Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
        serializer.collect_str(self)
    }
}

impl From<Quantity> for Topic {
    fn from(quantity: Quantity) -> Self {
        Topic::Reading(quantity.into())
    }
}

impl From<ReadingId> for Topic {
    fn from(reading: ReadingId) -> Self {
        Topic::Reading(reading)
    }
}

impl From<Note> for Topic {
    fn from(note: Note) -> Self {
        Topic::Note(note)
    }
}

impl From<Missing> for Topic {
    fn from(missing: Missing) -> Self {
        Topic::Missing(missing)
    }
}

impl PartialEq<str> for Topic {
    fn eq(&self, text: &str) -> bool {
        spells(self, text)
    }
}

impl PartialEq<&str> for Topic {
    fn eq(&self, text: &&str) -> bool {
        self == *text
    }
}

/// Something with its unit that a finding rests on.
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
    #[schema(value_type = String)]
    pub id: Topic,
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
    pub fn new(id: impl Into<Topic>, severity: Severity, sentence: impl Into<String>) -> Self {
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

    /// With a reading it rests on.
    #[must_use]
    pub fn on(mut self, reading: impl Into<ReadingId>, value: Option<f64>) -> Self {
        let id: ReadingId = reading.into();
        self.evidence.push(Evidence { reading: id.to_string(), value, unit: id.quantity.unit() });
        self
    }

    /// With something it rests on that is no reading.
    #[must_use]
    pub fn beside(mut self, name: impl Into<String>, value: f64, unit: &'static str) -> Self {
        self.evidence.push(Evidence { reading: name.into(), value: Some(value), unit });
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
