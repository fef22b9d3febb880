//! The best kit for a sum out of things with known scores: exact, by an integer program.

use std::collections::{BTreeMap, BTreeSet};

use super::program::{Program, SAME};

/// A thing with a score.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Scored {
    /// Its price.
    pub price: f64,
    /// Its score.
    pub score: f64,
    /// Of the things of one aspect only the best that is chosen counts, times the aspect's weight; without one scores add.
    pub aspect: Option<String>,
    /// Indices of the things without which it is not chosen.
    pub needs: Vec<usize>,
    /// Indices of the things beside which it is not chosen.
    pub excludes: Vec<usize>,
}

/// Indices of the best kit under a budget, ascending: the highest score, then the lowest price, then the things that stand first
/// in the list. A weight that is not given is 1.
pub fn best_kit(things: &[Scored], budget: f64, weights: &BTreeMap<String, f64>) -> Vec<usize> {
    let program = program(things, weights);
    let Some(mut found) = program.best(budget) else { return Vec::new() };
    let (gain, price) = (program.gain(&found), program.price(&found));
    // Of equal kits the one with the first things: each in turn is taken where the rest can still be as good and as cheap.
    let mut fixed: Vec<bool> = Vec::new();
    for at in 0..things.len() {
        fixed.push(true);
        if !found[at] {
            let other = program.cheapest(budget, gain, &fixed);
            match other.filter(|other| program.price(other) <= price + SAME) {
                Some(other) => found = other,
                None => fixed[at] = false,
            }
        }
    }
    (0..things.len()).filter(|at| found[*at]).collect()
}

/// The things, then for each that has an aspect whether it is the one of its aspect that counts.
fn program(things: &[Scored], weights: &BTreeMap<String, f64>) -> Program {
    let mut program = Program::default();
    for thing in things {
        program.add(thing.price, if thing.aspect.is_none() { thing.score } else { 0.0 });
    }
    let mut counting: BTreeMap<&str, Vec<(usize, f64)>> = BTreeMap::new();
    let mut apart: BTreeSet<(usize, usize)> = BTreeSet::new();
    for (at, thing) in things.iter().enumerate() {
        if let Some(aspect) = &thing.aspect {
            let counts = program.add(0.0, weight(weights, aspect) * thing.score);
            program.bound(vec![(counts, 1.0), (at, -1.0)], 0.0);
            counting.entry(aspect).or_default().push((counts, 1.0));
        }
        for need in &thing.needs {
            program.bound(vec![(at, 1.0), (*need, -1.0)], 0.0);
        }
        apart.extend(thing.excludes.iter().map(|other| (at.min(*other), at.max(*other))));
    }
    counting.into_values().for_each(|of_one| program.bound(of_one, 1.0));
    apart.into_iter().for_each(|(a, b)| program.bound(vec![(a, 1.0), (b, 1.0)], 1.0));
    program
}

/// The score of a chosen set, as [`best_kit`] counts it.
pub fn kit_score(things: &[Scored], weights: &BTreeMap<String, f64>, chosen: &[usize]) -> f64 {
    let mut best: BTreeMap<&str, f64> = BTreeMap::new();
    let mut sum = 0.0;
    for thing in chosen.iter().map(|at| &things[*at]) {
        match &thing.aspect {
            None => sum += thing.score,
            Some(aspect) => {
                let own = best.entry(aspect).or_insert(0.0);
                *own = own.max(thing.score);
            }
        }
    }
    sum + best.iter().map(|(aspect, score)| weight(weights, aspect) * score).sum::<f64>()
}

fn weight(weights: &BTreeMap<String, f64>, aspect: &str) -> f64 {
    weights.get(aspect).copied().unwrap_or(1.0)
}
