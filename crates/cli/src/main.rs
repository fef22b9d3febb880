//! The one binary. Parses the command, calls the core, prints the answer; exit codes are made here only.

mod command;
mod outcome;
mod read;

use std::process::ExitCode;

use clap::Parser;

use command::Command;

/// Camera, light and microphone for one person filming themselves at home.
#[derive(Parser)]
#[command(name = "fogon", version, about)]
struct Arguments {
    #[command(subcommand)]
    command: Command,
}

fn main() -> ExitCode {
    let arguments = match Arguments::try_parse() {
        Ok(arguments) => arguments,
        Err(error) => {
            // Help and version are answers; everything else is bad input.
            let code = if error.use_stderr() { 2 } else { 0 };
            let _ = error.print();
            return ExitCode::from(code);
        }
    };
    outcome::exit_code(command::run(arguments.command))
}
