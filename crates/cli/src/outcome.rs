//! What a command ends with, and the exit code that says so.

use std::process::ExitCode;

use fogon_core::problem::{Problem, Problems};

/// Why a command did not do what was asked.
#[derive(Debug)]
pub(crate) enum Failure {
    /// `--strict`, and the answer is not good enough. Exit code 1.
    NotGoodEnough,
    /// Bad input. Exit code 2.
    BadInput(Problems),
    /// A recording that cannot be used, in words. Exit code 2.
    Unusable(String),
    /// A file or port that cannot be used. Exit code 3.
    Io(String),
}

impl From<Problems> for Failure {
    fn from(problems: Problems) -> Self {
        Failure::BadInput(problems)
    }
}

impl From<Problem> for Failure {
    fn from(problem: Problem) -> Self {
        Failure::BadInput(problem.into())
    }
}

/// Prints a failure to standard error and turns the outcome into an exit code.
pub(crate) fn exit_code(outcome: Result<(), Failure>) -> ExitCode {
    match outcome {
        Ok(()) => ExitCode::SUCCESS,
        Err(Failure::NotGoodEnough) => ExitCode::from(1),
        Err(Failure::BadInput(problems)) => {
            eprintln!("{problems}");
            ExitCode::from(2)
        }
        Err(Failure::Unusable(message)) => {
            eprintln!("{message}");
            ExitCode::from(2)
        }
        Err(Failure::Io(message)) => {
            eprintln!("{}", without_numbers(&message));
            ExitCode::from(3)
        }
    }
}

/// A message of the system without the number that it puts behind its words.
fn without_numbers(message: &str) -> String {
    let mut parts = message.split(" (os error ");
    let first = parts.next().unwrap_or_default().to_owned();
    parts.fold(first, |all, rest| all + rest.split_once(')').map_or("", |(_, after)| after))
}
