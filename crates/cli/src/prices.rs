//! Which catalogue is bought from, as several commands ask for it.

use std::path::PathBuf;

use clap::Args;
use fogon_core::money::Catalogue;

use crate::outcome::Failure;
use crate::read;

/// What can be bought, and for how much.
#[derive(Args)]
pub(crate) struct Prices {
    /// Catalogue file (CSV), whose things are put in or take the place of those of the same id
    #[arg(long, value_name = "FILE")]
    catalogue: Option<PathBuf>,
    /// Only the things of that catalogue
    #[arg(long, requires = "catalogue")]
    only: bool,
}

impl Prices {
    pub(crate) fn catalogue(&self) -> Result<Catalogue, Failure> {
        let Some(path) = &self.catalogue else { return Ok(Catalogue::of_fogon().clone()) };
        let own = Catalogue::read(&read::bytes(path)?)?;
        Ok(if self.only { own } else { Catalogue::of_fogon().extended(own) })
    }
}
