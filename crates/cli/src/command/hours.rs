//! `fogon hours`: the hours in which a plan's light holds while it is quiet.

use std::path::PathBuf;

use clap::{Args, ValueEnum};
use fogon_core::day::{date, days, good_hours, zone_of};
use fogon_core::plan::Plan;

use crate::outcome::Failure;
use crate::read;

#[derive(Args)]
pub(crate) struct Arguments {
    /// Plan file, or - for standard input
    plan: PathBuf,
    /// First local date, as 2026-11-28
    #[arg(long, value_name = "D")]
    from: String,
    /// Last local date, which is in it; at most 400 days
    #[arg(long, value_name = "D")]
    to: String,
    /// How it is written; the calendar holds the hours in which a take can be made
    #[arg(long, value_enum, default_value = "json")]
    format: Format,
}

#[derive(Clone, Copy, ValueEnum)]
enum Format {
    Json,
    Csv,
    Ics,
}

pub(crate) fn run(arguments: &Arguments) -> Result<(), Failure> {
    let plan = Plan::read(&read::bytes(&arguments.plan)?)?;
    let zone = zone_of(&plan.brief);
    let days = days(&zone, date("from", &arguments.from)?, date("to", &arguments.to)?)?;
    let hours = good_hours(&plan, &days, &zone)?;
    match arguments.format {
        Format::Json => read::print_json(&hours),
        Format::Csv => read::print(&fogon_handover::hours::csv(&hours)),
        Format::Ics => read::print(&fogon_handover::hours::ics(&plan.name, &hours)),
    }
}
