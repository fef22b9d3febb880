//! Refusals that several checks make.

use crate::plan::Id;
use crate::problem::{Code, Problem};

/// Two tape readings of one wall may differ by this much, m.
pub(super) const TAPE_M: f64 = 0.001;

pub(super) fn unknown(field: &str, id: &Id, accepted: &str) -> Problem {
    Problem::new(field, id, accepted, Code::UnknownId)
}

/// What is wrong with the name of a row of the absorption table.
pub(super) fn no_material(field: String, row: &str) -> Option<Problem> {
    let known = crate::material::material(row).is_some();
    (!known).then(|| Problem::new(field, row, crate::material::material_names(), Code::BadChoice))
}

pub(super) fn conflict(field: String, value: f64, accepted: String) -> Problem {
    Problem::new(field, format!("{value} m"), accepted, Code::Conflict)
}
