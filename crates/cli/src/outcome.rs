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
            eprintln!("{message}");
            ExitCode::from(3)
        }
    }
}
