//! The integer program behind every choice: things taken or left, rows that bound them, a budget (good_lp over microlp).

use good_lp::{Expression, ProblemVariables, Solution, SolverModel, Variable, microlp, variable};

/// Sums that differ by less are the same: the solver works in floating point.
pub(super) const SAME: f64 = 1e-7;

/// Things with price and gain, and what bounds them.
#[derive(Debug, Default)]
pub(super) struct Program {
    things: Vec<Thing>,
    bounds: Vec<Bound>,
}

#[derive(Debug)]
struct Thing {
    price: f64,
    gain: f64,
}

/// The sum of the factors of what is taken is at most this.
#[derive(Debug)]
struct Bound {
    factors: Vec<(usize, f64)>,
    at_most: f64,
}

impl Program {
    /// Adds a thing; its index.
    pub(super) fn add(&mut self, price: f64, gain: f64) -> usize {
        self.things.push(Thing { price, gain });
        self.things.len() - 1
    }

    pub(super) fn bound(&mut self, factors: Vec<(usize, f64)>, at_most: f64) {
        self.bounds.push(Bound { factors, at_most });
    }

    pub(super) fn price(&self, taken: &[bool]) -> f64 {
        self.sum(taken, |thing| thing.price)
    }

    /// The largest gain under the budget and, at that gain, the least money; none where nothing is legal.
    pub(super) fn best(&self, budget: f64) -> Option<Vec<bool>> {
        let best = self.solve(budget, None, &[])?;
        let gain = self.sum(&best, |thing| thing.gain);
        Some(self.cheapest(budget, gain, &[]).unwrap_or(best))
    }

    /// The least money that reaches a gain, with the first things taken or left as fixed.
    pub(super) fn cheapest(&self, budget: f64, least_gain: f64, fixed: &[bool]) -> Option<Vec<bool>> {
        self.solve(budget, Some(least_gain), fixed)
    }

    pub(super) fn gain(&self, taken: &[bool]) -> f64 {
        self.sum(taken, |thing| thing.gain)
    }

    fn sum(&self, taken: &[bool], value: impl Fn(&Thing) -> f64) -> f64 {
        self.things.iter().zip(taken).filter(|(_, taken)| **taken).map(|(thing, _)| value(thing)).sum()
    }

    fn solve(&self, budget: f64, least_gain: Option<f64>, fixed: &[bool]) -> Option<Vec<bool>> {
        let mut variables = ProblemVariables::new();
        let taken: Vec<Variable> = self.things.iter().map(|_| variables.add(variable().binary())).collect();
        let sum = |value: fn(&Thing) -> f64| -> Expression {
            self.things.iter().zip(&taken).map(|(thing, x)| value(thing) * *x).sum()
        };
        let price = sum(|thing| thing.price);
        let gain = sum(|thing| thing.gain);
        let mut model = match least_gain {
            None => variables.maximise(gain.clone()).using(microlp),
            Some(_) => variables.minimise(price.clone()).using(microlp),
        };
        // A budget met to the last unit is met.
        model = model.with(price.leq(budget * (1.0 + 1e-9) + 1e-12));
        if let Some(least) = least_gain {
            model = model.with(gain.geq(least - SAME));
        }
        for (x, is_taken) in taken.iter().zip(fixed) {
            model = model.with(Expression::from(*x).eq(if *is_taken { 1.0 } else { 0.0 }));
        }
        for bound in &self.bounds {
            let sum: Expression = bound.factors.iter().map(|(at, factor)| *factor * taken[*at]).sum();
            model = model.with(sum.leq(bound.at_most));
        }
        let solution = model.solve().ok()?;
        Some(taken.iter().map(|x| solution.value(*x) > 0.5).collect())
    }
}
