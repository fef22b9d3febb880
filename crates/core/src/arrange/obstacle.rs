//! Why nothing fits: the rules that the best candidate broke, by how much, and what would free it.

use serde::Serialize;
use utoipa::ToSchema;

use super::furnish::Failed;
use crate::plan::{Brief, Gear};

/// One reason why no layout is legal.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Obstacle {
    /// The rule: room, collision, door, exit, way, camera, picture, sight, near, support, mains, gear.
    pub rule: String,
    /// The facing of the best candidate.
    pub facing: String,
    /// How much is lacking, m (kg for supports); 0 where it is not a length.
    pub lacking: f64,
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
            rule: "gear".into(),
            facing: String::new(),
            lacking: 0.0,
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
    let total = |f: &Failed| f.breaches.iter().map(|b| b.lacking.max(0.01)).sum::<f64>();
    let nearest = failed
        .iter()
        .filter(|f| !f.breaches.is_empty())
        .min_by(|a, b| a.breaches.len().cmp(&b.breaches.len()).then(total(a).total_cmp(&total(b))));
    let Some(nearest) = nearest else {
        return vec![Obstacle {
            rule: "room".into(),
            facing: String::new(),
            lacking: 0.0,
            sentence: "There is no place for the chair in this room.".into(),
            frees: "Take furniture out, or mark the desk as free to move.".into(),
        }];
    };
    let mut all: Vec<Obstacle> = Vec::new();
    for breach in &nearest.breaches {
        if all.iter().any(|o| o.rule == breach.rule && o.sentence == breach.sentence) {
            continue;
        }
        all.push(Obstacle {
            rule: breach.rule.into(),
            facing: nearest.facing.clone(),
            lacking: breach.lacking,
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
