//! One thing of a layout in words, and how a reading stands in its band.

use serde::Serialize;
use utoipa::ToSchema;

use crate::assess::bands::{Row, band_of};
use crate::corner::Corner;
use crate::reading::{Quantity, Standing, standing};

/// One thing of a layout.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Placed {
    /// Letter of its mark.
    pub letter: &'static str,
    /// What it is.
    pub thing: String,
    /// Where it stands, in words.
    pub place: String,
    /// What decides that.
    pub why: String,
}

/// How a value of a quantity stands in this corner.
pub(super) fn stands(corner: &Corner<'_>, quantity: Quantity, value: f64) -> Standing {
    band_of(quantity, &Row::of(corner)).0.map_or(Standing::Plain, |band| standing(value, band))
}
