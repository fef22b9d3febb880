//! What to change, in order: free moves first, then purchases chosen exactly under the budget.

mod free;
mod purchase;
mod select;

use std::sync::OnceLock;

use serde::Serialize;
use utoipa::ToSchema;

use crate::plan::{Gear, Plan, Things};

pub use free::{Baseline, FreeMove};
pub use purchase::{Bought, Purchases, Step};
pub use select::{Candidate, select};

/// Free moves and purchases for one plan.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Changes {
    /// Score now, 0 to 1, from today's arrangement if it was given.
    pub score_now: f64,
    /// What can be done for nothing, in order.
    pub free_moves: Vec<FreeMove>,
    /// What to buy within the budget, in order.
    pub purchases: Purchases,
}

/// The generic catalogue: made-up things with figures and prices.
pub fn catalogue() -> &'static Things<Gear> {
    static CATALOGUE: OnceLock<Things<Gear>> = OnceLock::new();
    // The file is part of the program, and a test reads it with every limit of the schema.
    CATALOGUE.get_or_init(|| serde_json::from_str(include_str!("money/catalogue.json")).unwrap_or_default())
}

/// What to change about a plan.
pub fn changes(plan: &Plan) -> Changes {
    let (score_now, free_moves) = free::free_moves(plan);
    Changes { score_now, free_moves, purchases: purchase::purchases(plan) }
}
