//! The exact choice: which candidates, under the budget, with every need met and at most one of each group; first the largest gain,
//! then the least money for it.

use std::collections::BTreeMap;

use super::program::Program;

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
    let mut program = Program::default();
    let mut groups: BTreeMap<&str, Vec<(usize, f64)>> = BTreeMap::new();
    let mut tags: BTreeMap<&str, Vec<(usize, f64)>> = BTreeMap::new();
    for candidate in candidates {
        let at = program.add(candidate.price, candidate.gain);
        if let Some(group) = &candidate.group {
            groups.entry(group).or_default().push((at, 1.0));
        }
        for need in &candidate.needs {
            tags.entry(need).or_default().push((at, 1.0));
        }
        for offer in &candidate.offers {
            tags.entry(offer).or_default().push((at, -1.0));
        }
    }
    groups.into_values().for_each(|members| program.bound(members, 1.0));
    tags.into_values().for_each(|balance| program.bound(balance, 0.0));
    let taken = program.best(budget).unwrap_or_default();
    (0..candidates.len()).filter(|at| taken.get(*at) == Some(&true)).collect()
}
