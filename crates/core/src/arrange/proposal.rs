//! What a search finds: layouts, what is not possible and why; and a candidate that has been judged.

use std::cmp::Ordering;

use serde::Serialize;
use utoipa::ToSchema;

use super::obstacle::Obstacle;
use super::optics::Shot;
use crate::assess::Quick;
use crate::plan::{Layout, Plan};

/// In what a layout differs from the best one.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum Differs {
    /// It is the best one.
    Best,
    /// The person faces another way.
    Bearing,
    /// It follows the other lens school.
    Lens,
    /// It stands on another rig.
    Rig,
    /// It gives more to picture and light.
    Picture,
    /// It gives more to the sound.
    Sound,
    /// It leaves more of the floor free.
    Floor,
}

/// One legal arrangement.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Proposal {
    /// In what it differs from the best.
    pub differs: Differs,
    /// In a few words: what it is.
    pub title: String,
    /// Why this one, or how it differs from the best, in short sentences.
    pub reason: String,
    /// 0 to 1.
    pub score: f64,
    /// Whether a recording could start.
    pub ready: bool,
    /// The plan; where it follows another school than the brief, with that school.
    pub plan: Plan,
}

/// A kind of layout that this corner does not allow.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct NotPossible {
    /// What it would have been.
    pub what: String,
    /// The rule that forbids it, in words.
    pub sentence: String,
    /// What would free it.
    pub frees: String,
}

/// What a search found.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Proposals {
    /// Legal layouts, best first; they differ in what they give up, in bearing, lens or rig.
    pub proposals: Vec<Proposal>,
    /// Kinds of layout that are not among them, and what forbids each.
    pub missing: Vec<NotPossible>,
    /// If there are none: each rule that forbids the best candidate, by how much, and what would free it.
    pub obstacles: Vec<Obstacle>,
    /// Measured readings that were set aside: they belong to another arrangement than these.
    pub set_aside: Vec<String>,
    /// Seats, facings and takes that were looked at.
    pub looked_at: usize,
    /// The search ran out of time: these are the best so far, and there may be better ones, or some where there are none.
    #[serde(skip_serializing_if = "std::ops::Not::not")]
    #[schema(required = false)]
    pub ended_early: bool,
}

/// A candidate that has been judged.
#[derive(Clone)]
pub(super) struct Judged {
    pub(super) shot: Shot,
    pub(super) layout: Layout,
    pub(super) quick: Quick,
    pub(super) free_floor_m2: f64,
}

impl Judged {
    pub(super) fn facing(&self) -> &str {
        &self.shot.facing.name
    }

    pub(super) fn focal_length_mm(&self) -> f64 {
        self.layout.camera.focal_length_mm
    }

    pub(super) fn is_ready(&self) -> bool {
        self.quick.stops == 0 && self.quick.fixes == 0
    }

    /// Ready before not ready, fewest broken rules, fewest things to mend, highest score, better heard, most free floor. Scores are the
    /// same where rounding alone parts them.
    pub(super) fn order(&self, other: &Self) -> Ordering {
        let score = |j: &Self| (j.quick.score * 1e9).round();
        let heard = |j: &Self| (j.quick.heard_sti * 100.0).round();
        let floor = |j: &Self| (j.free_floor_m2 * 100.0).round();
        (self.quick.stops, self.quick.fixes)
            .cmp(&(other.quick.stops, other.quick.fixes))
            .then(score(other).total_cmp(&score(self)))
            .then(heard(other).total_cmp(&heard(self)))
            .then(floor(other).total_cmp(&floor(self)))
    }
}
