//! What is told of a corner's light, each thing worked out once for all who ask: the field, the head under it, the glasses,
//! the colour.

use std::cell::OnceCell;
use std::ops::Deref;

use super::field::LightField;
use super::head::{Facet, facets};
use super::mirrored::{Mirrored, mirrored};
use super::tint::{Mixture, mixture};
use crate::corner::Corner;

/// A corner's light with what others read off it.
pub struct LightReport<'a> {
    field: LightField<'a>,
    facets: OnceCell<Vec<Facet>>,
    mirrored: OnceCell<Vec<Mirrored<'a>>>,
    mixture: OnceCell<Option<Mixture>>,
}

impl<'a> LightReport<'a> {
    /// The report of a corner.
    pub fn of(corner: &'a Corner<'a>) -> Self {
        Self {
            field: LightField::of(corner),
            facets: OnceCell::new(),
            mirrored: OnceCell::new(),
            mixture: OnceCell::new(),
        }
    }

    /// What shows in the glasses.
    pub fn mirrored(&self) -> &[Mirrored<'a>] {
        self.mirrored.get_or_init(|| mirrored(self.field.corner()))
    }

    /// What lamps and windows mix to on the face; `None` where nothing shines.
    pub fn mixture(&self) -> Option<&Mixture> {
        self.mixture.get_or_init(|| mixture(&self.field)).as_ref()
    }

    /// The light on every part of the head, against that on a surface which faces the lens.
    pub fn facets(&self) -> &[Facet] {
        self.facets.get_or_init(|| facets(&self.field))
    }
}

impl<'a> Deref for LightReport<'a> {
    type Target = LightField<'a>;

    fn deref(&self) -> &Self::Target {
        &self.field
    }
}
