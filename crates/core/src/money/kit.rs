//! The best kit for a sum out of things with known scores: exact, by an integer program (good_lp over microlp).

use std::collections::{BTreeMap, BTreeSet};

use good_lp::{Expression, ProblemVariables, Solution, SolverModel, Variable, microlp, variable};

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

/// Sums that differ by less are the same: the solver works in floating point.
const SAME: f64 = 1e-7;

/// Indices of the best kit under a budget, ascending: the highest score, then the lowest price, then the things that stand first
/// in the list. A weight that is not given is 1.
pub fn best_kit(things: &[Scored], budget: f64, weights: &BTreeMap<String, f64>) -> Vec<usize> {
    let program = Program { things, budget, weights };
    let nothing = Vec::new();
    let Some(best) = program.solve(Goal::Score, &[]) else { return nothing };
    let score = program.score(&best);
    let Some(cheapest) = program.solve(Goal::Price { score }, &[]) else { return best };
    let price = program.price(&cheapest);
    // Of equal kits the one with the first things: each in turn is taken where the rest can still be as good and as cheap.
    let mut fixed: Vec<bool> = Vec::new();
    let mut found = cheapest;
    for at in 0..things.len() {
        if found.contains(&at) {
            fixed.push(true);
            continue;
        }
        fixed.push(true);
        let other = program.solve(Goal::Price { score }, &fixed);
        match other.filter(|other| program.price(other) <= price + SAME) {
            Some(other) => found = other,
            None => fixed[at] = false,
        }
    }
    found
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

/// What is asked for.
#[derive(Clone, Copy)]
enum Goal {
    Score,
    /// The lowest price at that score.
    Price {
        score: f64,
    },
}

struct Program<'a> {
    things: &'a [Scored],
    budget: f64,
    weights: &'a BTreeMap<String, f64>,
}

impl Program<'_> {
    fn score(&self, chosen: &[usize]) -> f64 {
        kit_score(self.things, self.weights, chosen)
    }

    fn price(&self, chosen: &[usize]) -> f64 {
        chosen.iter().map(|at| self.things[*at].price).sum()
    }

    /// A best choice in which the first things are taken or left as fixed; none where that cannot be.
    fn solve(&self, goal: Goal, fixed: &[bool]) -> Option<Vec<usize>> {
        let mut variables = ProblemVariables::new();
        let taken: Vec<Variable> = self.things.iter().map(|_| variables.add(variable().binary())).collect();
        // Whether a thing is the one of its aspect that counts.
        let counts: Vec<Option<Variable>> = self
            .things
            .iter()
            .map(|t| t.aspect.as_ref().map(|_| variables.add(variable().binary())))
            .collect();
        let mut score = Expression::default();
        for (at, thing) in self.things.iter().enumerate() {
            match (counts[at], &thing.aspect) {
                (Some(one), Some(aspect)) => score += weight(self.weights, aspect) * thing.score * one,
                _ => score += thing.score * taken[at],
            }
        }
        let price: Expression = self.things.iter().zip(&taken).map(|(thing, x)| thing.price * *x).sum();
        let mut model = match goal {
            Goal::Score => variables.maximise(score.clone()).using(microlp),
            Goal::Price { .. } => variables.minimise(price.clone()).using(microlp),
        };
        // A budget met to the last unit is met.
        model = model.with(price.leq(self.budget * (1.0 + 1e-9) + 1e-12));
        if let Goal::Price { score: least } = goal {
            model = model.with(score.geq(least - SAME));
        }
        for (at, is_taken) in fixed.iter().enumerate() {
            model = model.with(Expression::from(taken[at]).eq(if *is_taken { 1.0 } else { 0.0 }));
        }
        let mut aspects: BTreeMap<&str, Expression> = BTreeMap::new();
        let mut apart: BTreeSet<(usize, usize)> = BTreeSet::new();
        for (at, thing) in self.things.iter().enumerate() {
            if let (Some(one), Some(aspect)) = (counts[at], &thing.aspect) {
                model = model.with((one - taken[at]).leq(0.0));
                *aspects.entry(aspect).or_default() += one;
            }
            for need in &thing.needs {
                model = model.with((taken[at] - taken[*need]).leq(0.0));
            }
            apart.extend(thing.excludes.iter().map(|other| (at.min(*other), at.max(*other))));
        }
        for (a, b) in apart {
            model = model.with((taken[a] + taken[b]).leq(1.0));
        }
        for sum in aspects.into_values() {
            model = model.with(sum.leq(1.0));
        }
        let solution = model.solve().ok()?;
        Some((0..self.things.len()).filter(|at| solution.value(taken[*at]) > 0.5).collect())
    }
}
