//! What is to be shot, in which order it was written down, and the script.

use std::collections::BTreeMap;

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::Id;
use crate::problem::{Code, Problem};

/// How large somebody or something is in a picture.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum ShotSize {
    /// The whole of what is done.
    Wide,
    /// From the waist or chest up.
    Medium,
    /// Hands, a thing, a face.
    Close,
}

impl ShotSize {
    /// From the widest.
    pub const ALL: [ShotSize; 3] = [ShotSize::Wide, ShotSize::Medium, ShotSize::Close];

    /// In words.
    pub fn word(self) -> &'static str {
        match self {
            ShotSize::Wide => "wide",
            ShotSize::Medium => "medium",
            ShotSize::Close => "close",
        }
    }
}

/// What kind of shot it is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum ShotKind {
    /// What is told or played.
    Take,
    /// Name and piece, into the lens, before the takes of an audition.
    Slate,
    /// A try that is looked at and not kept.
    Test,
    /// Something that is shown between.
    Insert,
    /// The same, slowed down when it is played.
    SlowInsert,
    /// The picture without anybody in it.
    Empty,
}

/// A shot that is wanted.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct WantedShot {
    /// Its place in the order that was written down.
    #[schema(minimum = 0, maximum = 999)]
    pub place: u16,
    /// What is seen.
    #[schema(min_length = 1, max_length = 120)]
    pub what: String,
    /// What kind of shot it is.
    pub kind: ShotKind,
    /// How large.
    pub size: ShotSize,
    /// The second angle that it is shot from (the camera).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub angle: Option<Id>,
    /// The backdrop, by a name of one's own (as planned).
    #[serde(default, skip_serializing_if = "String::is_empty")]
    #[schema(max_length = 60)]
    pub backdrop: String,
    /// The light, by a name of one's own (as planned).
    #[serde(default, skip_serializing_if = "String::is_empty")]
    #[schema(max_length = 60)]
    pub light: String,
    /// What is done in it: of every action a wide, a medium and a close shot are looked for.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    #[schema(max_length = 80)]
    pub action: String,
    /// How long one take lasts, s.
    #[schema(minimum = 1.0, maximum = 7200.0)]
    pub seconds: f64,
    /// How many takes at least.
    #[schema(minimum = 1, maximum = 50)]
    pub takes: u8,
    /// Speed at which it is played, 1 as it was (1).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.02, maximum = 1.0)]
    pub speed: Option<f64>,
    /// Stillness at both ends, s (0).
    #[serde(default, skip_serializing_if = "is_zero")]
    #[schema(minimum = 0.0, maximum = 10.0)]
    pub stillness_s: f64,
    /// What to keep in mind.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    #[schema(max_length = 200)]
    pub note: String,
}

fn is_zero(value: &f64) -> bool {
    *value == 0.0
}

/// What is to be shot.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct RunSheet {
    /// Shots that are wanted (those of purpose and angles).
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub shots: BTreeMap<Id, WantedShot>,
    /// What is read or told, paragraph by paragraph.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 400)]
    pub script: Vec<String>,
    /// How files are named: `{date}`, `{corner}`, `{shot}`, `{size}`, `{take}` (`{date}-{shot}-{take}`).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(min_length = 1, max_length = 120)]
    pub file_pattern: Option<String>,
}

impl RunSheet {
    /// Nothing is told of it.
    pub fn is_usual(&self) -> bool {
        *self == Self::default()
    }
}

/// What a file pattern can hold.
pub const FILE_FIELDS: [&str; 5] = ["date", "corner", "shot", "size", "take"];

/// What is wrong with a pattern, if anything: a field that there is not, or a brace alone.
pub(super) fn bad_pattern(pattern: &str) -> Option<Problem> {
    let field = "brief.run.file_pattern";
    let accepted = || format!("text with {}", FILE_FIELDS.map(|name| format!("{{{name}}}")).join(", "));
    let mut rest = pattern;
    while let Some(at) = rest.find(['{', '}']) {
        let named = rest[at..].strip_prefix('{').and_then(|after| after.split_once('}'));
        match named {
            Some((name, after)) if FILE_FIELDS.contains(&name) => rest = after,
            _ => return Some(Problem::new(field, pattern, accepted(), Code::BadChoice)),
        }
    }
    None
}
