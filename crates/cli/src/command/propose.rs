//! `fogon propose`: a brief in, layouts or obstacles out.

use std::path::PathBuf;

use clap::Args;
use fogon_core::arrange::propose;
use fogon_core::plan::BriefFile;

use crate::outcome::Failure;
use crate::read;

#[derive(Args)]
pub(crate) struct Arguments {
    /// Brief file, or - for standard input
    brief: PathBuf,
    /// Write the plan of the best proposal to this file as well
    #[arg(long, value_name = "FILE")]
    plan: Option<PathBuf>,
    /// Exit with 1 if nothing legal is found
    #[arg(long)]
    strict: bool,
}

pub(crate) fn run(arguments: &Arguments) -> Result<(), Failure> {
    let file = BriefFile::read(&read::bytes(&arguments.brief)?)?;
    let found = propose(&file.name, &file.brief);
    if let (Some(path), Some(best)) = (&arguments.plan, found.proposals.first()) {
        let text = serde_json::to_string_pretty(&best.plan).map_err(|e| Failure::Io(e.to_string()))?;
        read::write(path, &(text + "\n"))?;
    }
    read::print_json(&found)?;
    if arguments.strict && found.proposals.is_empty() { Err(Failure::NotGoodEnough) } else { Ok(()) }
}
