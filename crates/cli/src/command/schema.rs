//! `fogon schema`: the published schemas.

use clap::{Args, ValueEnum};
use fogon_core::document::Shape;
use fogon_core::plan::{BriefFile, Plan};

use crate::outcome::Failure;
use crate::read;

#[derive(Clone, Copy, ValueEnum)]
enum Which {
    Plan,
    Brief,
    Openapi,
}

#[derive(Args)]
pub(crate) struct Arguments {
    /// Which one
    #[arg(value_enum, default_value = "plan")]
    which: Which,
}

pub(crate) fn run(arguments: &Arguments) -> Result<(), Failure> {
    match arguments.which {
        Which::Plan => read::print_json(Plan::shape()),
        Which::Brief => read::print_json(BriefFile::shape()),
        Which::Openapi => read::print_json(&fogon_server::openapi()),
    }
}
