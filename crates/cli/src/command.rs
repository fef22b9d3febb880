//! The commands, one file each.

mod archive;
mod backup;
mod buy;
mod calc;
mod card;
mod doctor;
mod evaluate;
mod export;
mod hours;
mod propose;
mod render;
mod run;
mod schema;
mod serve;
mod take;

use clap::Subcommand;

use crate::outcome::Failure;

/// What can be asked.
#[derive(Subcommand)]
pub(crate) enum Command {
    /// Serve the page and the API on 127.0.0.1
    Serve(serve::Arguments),
    /// Serve with the demo corners in a database of their own
    Demo(serve::Arguments),
    /// Propose layouts for a brief: {"proposals": [..], "obstacles": [..]}
    Propose(propose::Arguments),
    /// Judge a plan: readings, findings, score, verdict
    Evaluate(evaluate::Arguments),
    /// Say what to move for nothing and what to buy for a sum, in which order
    Buy(buy::Arguments),
    /// Say in which hours the light that is wanted holds while it is quiet
    Hours(hours::Arguments),
    /// Run one named calculation on a JSON object from standard input
    Calc(calc::Arguments),
    /// Write the set-up card of a plan as .svg, .html or .csv
    Card(card::Arguments),
    /// Take a plan's picture: a .png as the camera makes it, or a .pfm of linear light
    Render(render::Arguments),
    /// Write what a plan's picture is made of: triangles, lamps and camera
    Export(export::Arguments),
    /// Write every corner with all its saves, and the own voice, into one archive
    Archive(archive::Out),
    /// Take an archive in, or tell what that would do
    Import(archive::In),
    /// Copy the whole database file, also while Fogon has it open
    Backup(backup::Arguments),
    /// Put a backup in the place of the database file, which is kept aside
    Restore(backup::Arguments),
    /// Say what is wrong with the database file, and mend it
    Doctor(doctor::Arguments),
    /// Measure a test recording, and hold it against a plan
    Take(take::Arguments),
    /// Print the run sheet of a plan: shots, their best order, the script
    Run(run::Arguments),
    /// Print the JSON Schema of a plan or brief file, or the OpenAPI document
    Schema(schema::Arguments),
}

/// Runs one command.
pub(crate) fn run(command: Command) -> Result<(), Failure> {
    match command {
        Command::Serve(arguments) => serve::serve(&arguments),
        Command::Demo(arguments) => serve::demo(&arguments),
        Command::Propose(arguments) => propose::run(&arguments),
        Command::Evaluate(arguments) => evaluate::run(&arguments),
        Command::Buy(arguments) => buy::run(&arguments),
        Command::Hours(arguments) => hours::run(&arguments),
        Command::Calc(arguments) => calc::run(&arguments),
        Command::Card(arguments) => card::run(&arguments),
        Command::Render(arguments) => render::run(&arguments),
        Command::Export(arguments) => export::run(&arguments),
        Command::Archive(arguments) => archive::archive(&arguments),
        Command::Import(arguments) => archive::import(&arguments),
        Command::Backup(arguments) => backup::backup(&arguments),
        Command::Restore(arguments) => backup::restore(&arguments),
        Command::Doctor(arguments) => doctor::run(&arguments),
        Command::Take(arguments) => take::run(&arguments),
        Command::Run(arguments) => run::run(&arguments),
        Command::Schema(arguments) => schema::run(&arguments),
    }
}
