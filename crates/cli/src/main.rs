//! The one binary. Parses the command, calls the core, prints the answer; exit codes are made here only.

mod command;
mod data;
mod outcome;
mod prices;
mod read;

use std::process::ExitCode;

use clap::Parser;

use command::Command;

/// Gives memory back to the system as soon as it is free, as `.cargo/config.toml` sets it: a picture needs a lot for a short time.
#[cfg(all(unix, feature = "jemalloc"))]
#[global_allocator]
static ALLOCATOR: tikv_jemallocator::Jemalloc = tikv_jemallocator::Jemalloc;

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
