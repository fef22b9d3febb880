//! A first layout for what has none.

use fogon_core::arrange::propose;
use fogon_store::Document;

/// With the best layout, if it has none yet and one is legal.
pub(crate) fn laid_out(mut document: Document) -> Document {
    if document.layout.is_none() {
        let found = propose(&document.name, &document.brief).proposals.into_iter().next();
        document.layout = found.map(|proposal| proposal.plan.layout);
    }
    document
}
