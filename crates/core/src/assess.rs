//! Joins the trades: readings with their bands, findings, score and verdict. `evaluate` is the whole answer;
//! `quick` is the same without findings, for searches.

pub mod bands;
pub mod choices;
mod judge;
pub mod legal;
pub mod mend;
pub mod score;
pub mod severity;
mod words;

use crate::plan::Plan;

pub use judge::{AspectScore, Assessment, Quick, Verdict, breaches, is_fine, quick, readings, without_moves};
pub(crate) use words::PRACTICAL_STOPS;

/// Readings, findings with the moves that mend them, score and verdict of a plan.
///
/// ```
/// use fogon_core::assess::evaluate;
/// use fogon_core::plan::{Plan, apply};
///
/// let text = include_bytes!(concat!(env!("CARGO_MANIFEST_DIR"), "/../../docs/examples/box-room.fogon.json"));
/// let mut plan = Plan::read(text)?;
/// assert!(evaluate(&plan).verdict.ready);
///
/// // Two stops too bright: told, with the move that mends it.
/// plan.layout.camera.iso *= 4.0;
/// let judged = evaluate(&plan);
/// let bright = judged.findings.iter().find(|f| f.id == "light.face.exposure_stops").expect("it is told");
/// let mended = apply(&plan, &bright.fix.as_ref().expect("and mended").patch)?;
/// assert!(evaluate(&mended).verdict.ready);
/// # Ok::<(), fogon_core::problem::Problems>(())
/// ```
pub fn evaluate(plan: &Plan) -> Assessment {
    let mut assessment = without_moves(plan);
    mend::offer_moves(plan, &mut assessment);
    assessment
}
