//! What to change, in order: free moves first, then purchases chosen exactly under the budget.

mod catalogue;
mod free;
mod lacks;
mod purchase;
mod select;

use serde::Serialize;
use utoipa::ToSchema;

use crate::plan::Plan;

pub use catalogue::catalogue;
pub use free::{Baseline, FreeMove};
pub use purchase::{Bought, Purchases, Step};
pub use select::{Candidate, select};

/// Free moves and purchases for one plan.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Changes {
    /// What can be done, in a sentence.
    pub sentence: String,
    /// Score now, 0 to 1, from today's arrangement if it was given.
    pub score_now: f64,
    /// What can be done for nothing, in order.
    pub free_moves: Vec<FreeMove>,
    /// What to buy within the budget, in order.
    pub purchases: Purchases,
}

/// What to change about a plan: free moves from how it stands today, then what to buy within the budget.
///
/// ```
/// use fogon_core::money::changes;
/// use fogon_core::plan::Plan;
///
/// let text = include_bytes!(concat!(env!("CARGO_MANIFEST_DIR"), "/../../docs/examples/box-room.fogon.json"));
/// let found = changes(&Plan::read(text)?);
/// assert!(found.free_moves.iter().all(|step| step.score_after >= step.score_before || step.cleared > 0));
/// assert!(found.purchases.spent <= found.purchases.budget);
/// # Ok::<(), fogon_core::problem::Problems>(())
/// ```
pub fn changes(plan: &Plan) -> Changes {
    let (score_now, free_moves) = free::free_moves(plan);
    let purchases = purchase::purchases(plan);
    let sentence = in_short(free_moves.len(), &purchases, &plan.brief.money.told(purchases.spent));
    Changes { sentence, score_now, free_moves, purchases }
}

fn in_short(moves: usize, purchases: &Purchases, spent: &str) -> String {
    let free = match moves {
        0 => "Nothing to move".to_owned(),
        1 => "One free move".to_owned(),
        many => format!("{many} free moves"),
    };
    match (moves, purchases.steps.is_empty()) {
        (_, true) if purchases.budget <= 0.0 => format!("{free}, nothing to spend."),
        (_, true) => format!("{free}, nothing worth buying."),
        (0, false) => format!("{free}; {spent} would make it better."),
        (_, false) => format!("{free} first, then {spent} would make it better."),
    }
}
