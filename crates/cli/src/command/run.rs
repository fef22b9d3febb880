//! `fogon run`: a plan in, its run sheet out.

use std::path::PathBuf;

use clap::{Args, ValueEnum};
use fogon_core::card::card;
use fogon_core::corner::Corner;
use fogon_core::plan::Plan;
use fogon_core::run;
use fogon_handover::run::{csv, text};

use crate::outcome::Failure;
use crate::read;

#[derive(Clone, Copy, ValueEnum)]
enum Format {
    Json,
    Text,
    Csv,
}

#[derive(Args)]
pub(crate) struct Arguments {
    /// Plan file, or - for standard input
    plan: PathBuf,
    /// How to print it
    #[arg(long, value_enum, default_value = "json")]
    format: Format,
}

pub(crate) fn run(arguments: &Arguments) -> Result<(), Failure> {
    let plan = Plan::read(&read::bytes(&arguments.plan)?)?;
    let corner = Corner::resolved(&plan)?;
    let card = card(&plan).ok_or_else(|| Failure::Unusable("the plan does not resolve".into()))?;
    let run = run::run(&corner, &card);
    match arguments.format {
        Format::Json => read::print_json(&run),
        Format::Text => read::print(&text(&plan.name, &run)),
        Format::Csv => read::print(&csv(&run)),
    }
}
