//! A first layout for what has none.

use fogon_core::arrange::{Stop, propose_until};
use fogon_store::Document;

/// With the best layout, if it has none yet and one is legal; the brief goes along, since without a lamp a window may have become the
/// key.
pub(crate) fn laid_out(mut document: Document, stop: Stop<'_>) -> Document {
    if document.layout.is_none() {
        let found = propose_until(&document.name, &document.brief, stop);
        if let Some(best) = found.and_then(|found| found.proposals.into_iter().next()) {
            document.brief = best.plan.brief;
            document.layout = Some(best.plan.layout);
        }
    }
    document
}
