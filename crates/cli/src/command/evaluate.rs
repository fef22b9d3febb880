//! `fogon evaluate`: a plan in, its assessment out.

use std::fmt::Write as _;
use std::path::PathBuf;

use clap::{Args, ValueEnum};
use fogon_core::arrange::why;
use fogon_core::assess::{Assessment, evaluate};
use fogon_core::finding::Severity;
use fogon_core::plan::Plan;
use fogon_core::reading::Standing;

use crate::outcome::Failure;
use crate::read;

#[derive(Clone, Copy, ValueEnum)]
enum Format {
    Json,
    Text,
}

#[derive(Args)]
pub(crate) struct Arguments {
    /// Plan file, or - for standard input
    plan: PathBuf,
    /// How to print it
    #[arg(long, value_enum, default_value = "json")]
    format: Format,
    /// Exit with 1 if a finding says stop
    #[arg(long)]
    strict: bool,
}

pub(crate) fn run(arguments: &Arguments) -> Result<(), Failure> {
    let plan = Plan::read(&read::bytes(&arguments.plan)?)?;
    let assessment = evaluate(&plan);
    match arguments.format {
        Format::Json => read::print_json(&assessment)?,
        Format::Text => read::print(&text(&plan, &assessment))?,
    }
    let stopped = assessment.findings.iter().any(|f| f.severity == Severity::Stop);
    if arguments.strict && stopped { Err(Failure::NotGoodEnough) } else { Ok(()) }
}

/// The assessment for people.
fn text(plan: &Plan, assessment: &Assessment) -> String {
    let mut out = String::new();
    let _ = writeln!(
        out,
        "{}\n{} Score {:.0} of 100.\n",
        plan.name,
        assessment.verdict.sentence,
        100.0 * assessment.score
    );
    for finding in &assessment.findings {
        let word = match finding.severity {
            Severity::Stop => "STOP",
            Severity::Fix => "FIX",
            Severity::Consider => "consider",
        };
        let _ = writeln!(out, "{word:9} {}", finding.sentence);
        if let Some(fix) = &finding.fix {
            let _ = writeln!(out, "          -> {}.", fix.label);
        } else if !finding.advice.is_empty() {
            let _ = writeln!(out, "          -> {}", finding.advice);
        }
        if let Some(caution) = finding.caution {
            let _ = writeln!(out, "          Caution: {caution}");
        }
    }
    let _ = writeln!(out);
    for placed in why(plan) {
        let _ = writeln!(out, "{} {:12} {} {}", placed.letter, placed.thing, placed.place, placed.why);
    }
    let _ = writeln!(out);
    for reading in &assessment.readings {
        let word = match reading.standing {
            Standing::Good => "good",
            Standing::Fair => "fair",
            Standing::Poor => "poor",
            Standing::Plain => "",
        };
        let value = reading.in_words(plan.brief.units);
        let _ = writeln!(out, "{:<44} {value:>14} {word}", reading.label);
    }
    out
}
