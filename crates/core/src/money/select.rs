//! The exact choice: which candidates, under the budget, with every need met and at most one of each group.
//! An integer program (good_lp over microlp); first the largest gain, then the least money for it.

use std::collections::BTreeMap;

use good_lp::{Expression, ProblemVariables, Solution, SolverModel, Variable, microlp, variable};

/// One thing that can be taken.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Candidate {
    /// Its price; 0 for what is owned.
    pub price: f64,
    /// What it adds by itself.
    pub gain: f64,
    /// At most one of a group is taken: one key, one microphone.
    pub group: Option<String>,
    /// Tags it cannot work without; each uses up one offer.
    pub needs: Vec<String>,
    /// Tags it brings, each for one other thing.
    pub offers: Vec<String>,
}

/// Indices of the best choice, ascending: the largest sum of gains under `budget`, among equals the cheapest.
pub fn select(candidates: &[Candidate], budget: f64) -> Vec<usize> {
    let Some(best) = solve(candidates, budget, None) else { return Vec::new() };
    let gain: f64 = best.iter().map(|i| candidates[*i].gain).sum();
    solve(candidates, budget, Some(gain)).unwrap_or(best)
}

/// With `least_gain`, the cheapest choice that reaches it.
fn solve(candidates: &[Candidate], budget: f64, least_gain: Option<f64>) -> Option<Vec<usize>> {
    let mut variables = ProblemVariables::new();
    let taken: Vec<Variable> = candidates.iter().map(|_| variables.add(variable().binary())).collect();
    let sum = |value: &dyn Fn(&Candidate) -> f64| -> Expression {
        candidates.iter().zip(&taken).map(|(c, x)| value(c) * *x).sum()
    };
    let cost = sum(&|c| c.price);
    let gain = sum(&|c| c.gain);
    let mut model = match least_gain {
        None => variables.maximise(gain.clone()).using(microlp),
        Some(_) => variables.minimise(cost.clone()).using(microlp),
    };
    // A budget met to the last unit is met (1e-9 relative).
    model = model.with(cost.leq(budget * (1.0 + 1e-9)));
    if let Some(least) = least_gain {
        model = model.with(gain.geq(least - 1e-9));
    }
    let mut groups: BTreeMap<&str, Vec<Variable>> = BTreeMap::new();
    let mut tags: BTreeMap<&str, Expression> = BTreeMap::new();
    for (candidate, x) in candidates.iter().zip(&taken) {
        if let Some(group) = &candidate.group {
            groups.entry(group).or_default().push(*x);
        }
        for need in &candidate.needs {
            *tags.entry(need).or_default() += *x;
        }
        for offer in &candidate.offers {
            *tags.entry(offer).or_default() -= *x;
        }
    }
    for members in groups.into_values() {
        model = model.with(members.into_iter().sum::<Expression>().leq(1.0));
    }
    for balance in tags.into_values() {
        model = model.with(balance.leq(0.0));
    }
    let solution = model.solve().ok()?;
    Some((0..candidates.len()).filter(|i| solution.value(taken[*i]) > 0.5).collect())
}

#[cfg(test)]
mod tests {
    use super::*;

    fn item(price: f64, gain: f64) -> Candidate {
        Candidate { price, gain, ..Candidate::default() }
    }

    /// By hand: greedy by score takes A (0.30), the optimum is B + C (0.55).
    #[test]
    fn two_small_things_beat_one_large() {
        let items = [item(60.0, 0.30), item(50.0, 0.28), item(50.0, 0.27)];
        assert_eq!(select(&items, 100.0), [1, 2]);
    }

    /// By hand: at 120 the lavalier, at 170 the microphone with its interface.
    #[test]
    fn a_need_brings_its_interface_along() {
        let microphone =
            Candidate { needs: vec!["xlr-input".into()], group: Some("m".into()), ..item(80.0, 0.40) };
        let interface = Candidate { offers: vec!["xlr-input".into()], ..item(90.0, 0.0) };
        let lavalier = Candidate { group: Some("m".into()), ..item(45.0, 0.32) };
        let items = [microphone, interface, lavalier];
        assert_eq!(select(&items, 120.0), [2]);
        assert_eq!(select(&items, 170.0), [0, 1]);
        assert_eq!(select(&items, 10.0), Vec::<usize>::new());
    }
}
