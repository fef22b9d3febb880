//! What can be bought, and what most homes have: generic things with figures and prices, kept in open files.

use std::sync::OnceLock;

use super::rows::{self, Offer};
use crate::plan::{GearState, Id, Things};
use crate::problem::{Code, Problem, Problems};

/// Things with prices.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Catalogue {
    /// What it is called.
    pub name: String,
    /// Where its prices come from.
    pub source: String,
    /// The currency of its prices.
    pub currency: String,
    /// When they were looked up.
    pub dated: String,
    /// What it offers, by id.
    pub offers: Things<Offer>,
}

impl Catalogue {
    /// The one that ships with Fogon: made-up things, with its own estimates of prices.
    pub fn of_fogon() -> &'static Catalogue {
        static CATALOGUE: OnceLock<Catalogue> = OnceLock::new();
        // The file is part of the program; a test reads it with every limit.
        CATALOGUE.get_or_init(|| Self::read(include_bytes!("catalogue.csv")).unwrap_or_default())
    }

    /// What most homes have, for nothing.
    pub fn of_households() -> &'static Catalogue {
        static HOUSEHOLD: OnceLock<Catalogue> = OnceLock::new();
        HOUSEHOLD.get_or_init(|| Self::read(include_bytes!("household.csv")).unwrap_or_default())
    }

    /// Reads a catalogue as `docs/catalogue.md` describes it.
    ///
    /// # Errors
    /// Problems by line.
    pub fn read(text: &[u8]) -> Result<Self, Problems> {
        let read = rows::read(text)?;
        if read.rows.is_empty() {
            return Err(Problem::new("line 2", "no rows", "one row a thing", Code::BadTable).into());
        }
        let told = |name: &str| read.told.get(name).cloned().unwrap_or_default();
        let [name, source, currency, dated] = ["name", "source", "currency", "dated"].map(told);
        let offers = read.rows.into_iter().map(|mut row| {
            // Nothing of a catalogue is at hand yet.
            row.offer.gear.common_mut().state = GearState::Wanted;
            (row.id, row.offer)
        });
        Ok(Self { name, source, currency, dated, offers: offers.collect() })
    }

    /// This one with another's things put in, or in place of those of the same id.
    pub fn extended(&self, other: Catalogue) -> Self {
        let mut offers = self.offers.clone();
        offers.extend(other.offers);
        Self { offers, ..other }
    }

    /// One thing.
    pub fn get(&self, id: &Id) -> Option<&Offer> {
        self.offers.get(id)
    }
}
