//! Why nothing fits: the rules that the best candidate broke, by how much, and what would free it.

use serde::Serialize;
use utoipa::ToSchema;

use super::furnish::Failed;
use crate::finding::Rule;
use crate::plan::{Brief, Gear, Posture};

/// One reason why no layout is legal.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Obstacle {
    /// The rule.
    pub rule: Rule,
    /// The facing of the best candidate.
    pub facing: String,
    /// How much is lacking; 0 where no number tells it.
    pub lacking: f64,
    /// The unit of that number, empty where there is none.
    pub unit: &'static str,
    /// In words, with the amount.
    pub sentence: String,
    /// What would free it.
    pub frees: String,
}

/// Without a camera and a lens there is nothing to place.
pub(super) fn missing_gear(brief: &Brief) -> Vec<Obstacle> {
    let has = |pick: fn(&Gear) -> bool| brief.gear.values().any(|g| g.at_hand() && pick(g));
    let mut all = Vec::new();
    let mut say = |what: &str, frees: &str| {
        all.push(Obstacle {
            rule: Rule::Gear,
            facing: String::new(),
            lacking: 0.0,
            unit: "",
            sentence: format!("No {what} is owned."),
            frees: frees.into(),
        });
    };
    if !has(|g| g.camera().is_some()) {
        say("camera", "Put a camera on the shelf of owned gear; a phone will do.");
    }
    if !has(|g| g.lens().is_some()) {
        say("lens", "Put a lens on the shelf of owned gear; a phone's own counts.");
    }
    all
}

/// The breaches of the candidate that came nearest, one obstacle for each rule.
pub(super) fn explain(brief: &Brief, failed: &[Failed]) -> Vec<Obstacle> {
    let total = |f: &Failed| f.breaches.iter().map(|b| b.lacking.value().max(0.01)).sum::<f64>();
    let nearest = failed
        .iter()
        .filter(|f| !f.breaches.is_empty())
        .min_by(|a, b| a.breaches.len().cmp(&b.breaches.len()).then(total(a).total_cmp(&total(b))));
    let Some(nearest) = nearest else {
        return vec![Obstacle {
            rule: Rule::Room,
            facing: String::new(),
            lacking: 0.0,
            unit: "",
            sentence: match brief.person.posture {
                Posture::Seated => "There is no place for the chair in this room.".into(),
                Posture::Standing => "There is no place to stand in this room.".into(),
            },
            frees: "Take furniture out, or mark the desk as free to move.".into(),
        }];
    };
    let mut all: Vec<Obstacle> = Vec::new();
    for breach in &nearest.breaches {
        if all.iter().any(|o| o.rule == breach.rule && o.sentence == breach.sentence) {
            continue;
        }
        all.push(Obstacle {
            rule: breach.rule,
            facing: nearest.facing.clone(),
            lacking: breach.lacking.value(),
            unit: breach.lacking.unit(),
            sentence: breach.sentence.clone(),
            frees: breach.frees.clone(),
        });
    }
    let desk = brief.person.seat_at.as_ref().and_then(|id| brief.room.furniture.get(id));
    if desk.is_some_and(|desk| desk.fixed) {
        for obstacle in &mut all {
            obstacle.frees += " Or mark the desk as free to move: then all facings are tried.";
        }
    }
    all
}
