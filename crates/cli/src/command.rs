//! The commands, one file each.

mod card;
mod evaluate;
mod propose;

use clap::Subcommand;

use crate::outcome::Failure;

/// What can be asked.
#[derive(Subcommand)]
pub(crate) enum Command {
    /// Propose layouts for a brief: {"proposals": [..], "obstacles": [..]}
    Propose(propose::Arguments),
    /// Judge a plan: readings, findings, score, verdict
    Evaluate(evaluate::Arguments),
    /// Write the set-up card of a plan as .svg, .html or .csv
    Card(card::Arguments),
}

/// Runs one command.
pub(crate) fn run(command: Command) -> Result<(), Failure> {
    match command {
        Command::Propose(arguments) => propose::run(&arguments),
        Command::Evaluate(arguments) => evaluate::run(&arguments),
        Command::Card(arguments) => card::run(&arguments),
    }
}
