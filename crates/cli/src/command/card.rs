//! `fogon card`: a plan in, its set-up card out.

use std::path::PathBuf;

use clap::{Args, ValueEnum};
use fogon_core::card::card;
use fogon_core::plan::Plan;
use fogon_core::problem::{Code, Problem};
use fogon_handover::{Paper, csv, html, svg};

use crate::outcome::Failure;
use crate::read;

#[derive(Clone, Copy, ValueEnum)]
enum PaperSize {
    A4,
    Letter,
}

#[derive(Args)]
pub(crate) struct Arguments {
    /// Plan file, or - for standard input
    plan: PathBuf,
    /// File to write; its ending chooses the format: svg, html or csv
    #[arg(long, value_name = "FILE")]
    out: PathBuf,
    /// Paper to lay it out for
    #[arg(long, value_enum, default_value = "a4")]
    paper: PaperSize,
}

pub(crate) fn run(arguments: &Arguments) -> Result<(), Failure> {
    let paper = match arguments.paper {
        PaperSize::A4 => Paper::A4,
        PaperSize::Letter => Paper::Letter,
    };
    let ending = arguments.out.extension().and_then(|e| e.to_str()).unwrap_or_default().to_ascii_lowercase();
    if !matches!(ending.as_str(), "svg" | "html" | "csv") {
        let shown = arguments.out.display().to_string();
        return Err(
            Problem::new("out", shown, "a file name ending in .svg, .html or .csv", Code::BadChoice).into()
        );
    }
    let plan = Plan::read(&read::bytes(&arguments.plan)?)?;
    let unresolved = || Problem::new("layout", "ids", "ids that name gear of the brief", Code::UnknownId);
    let card = card(&plan).ok_or_else(unresolved)?;
    let text = match ending.as_str() {
        "svg" => svg::card(&card, paper),
        "html" => html::card(&card, paper),
        _ => csv::card(&card),
    };
    read::write(&arguments.out, &text)
}
