//! Joins the trades: readings with their bands, findings, score and verdict. `evaluate` is the whole answer;
//! `quick` is the same without findings, for searches.

pub mod bands;
pub mod choices;
mod judge;
pub mod legal;
pub mod mend;
pub mod score;
mod words;

use crate::plan::Plan;

pub use judge::{AspectScore, Assessment, Quick, Verdict, breaches, is_fine, quick, readings, without_moves};
pub(crate) use words::PRACTICAL_STOPS;

/// Readings, findings with the moves that mend them, score and verdict of a plan.
pub fn evaluate(plan: &Plan) -> Assessment {
    let mut assessment = without_moves(plan);
    mend::offer_moves(plan, &mut assessment);
    assessment
}
