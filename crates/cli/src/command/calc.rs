//! `fogon calc`: one named calculation.

use std::path::Path;

use clap::Args;
use fogon_core::calc;

use crate::outcome::Failure;
use crate::read;

#[derive(Args)]
pub(crate) struct Arguments {
    /// Name of the calculation
    #[arg(required_unless_present = "list")]
    name: Option<String>,
    /// Print every calculation with its fields, units, ranges, formula and source
    #[arg(long, conflicts_with = "name")]
    list: bool,
}

pub(crate) fn run(arguments: &Arguments) -> Result<(), Failure> {
    if arguments.list {
        return read::print_json(&calc::list());
    }
    let name = arguments.name.as_deref().unwrap_or_default();
    // An unknown name is said before standard input is waited for.
    if !calc::calculations().iter().any(|c| c.name == name) {
        calc::run(name, b"{}")?;
    }
    read::print_json(&calc::run(name, &read::bytes(Path::new("-"))?)?)
}
