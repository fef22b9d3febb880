//! `fogon doctor`: what is wrong with the file, what can be mended, what that would cost; and mending it.

use clap::Args;
use fogon_store::doctor::{Report, examine, mend};

use crate::data::{Database, Whose, refused};
use crate::outcome::Failure;
use crate::read;

#[derive(Args)]
pub(crate) struct Arguments {
    #[command(flatten)]
    database: Database,
    /// Mend what can be mended; the old file is kept aside
    #[arg(long)]
    mend: bool,
    /// Answer as JSON
    #[arg(long, conflicts_with = "mend")]
    json: bool,
    /// Exit with 1 if anything is wrong
    #[arg(long)]
    strict: bool,
}

pub(crate) fn run(arguments: &Arguments) -> Result<(), Failure> {
    let path = arguments.database.path(Whose::Own)?;
    let report = examine(&path).map_err(refused(&path))?;
    if arguments.json {
        read::print_json(&report)?;
    } else {
        read::print(&format!("{}\n{}", path.display(), words(&report)))?;
    }
    let mended = if arguments.mend && report.mending.is_some() {
        let mended = mend(&path).map_err(refused(&path))?;
        let (corners, saves) = mended.carried;
        let lost = if mended.lost == 0 { String::new() } else { format!(", {} lost", mended.lost) };
        read::print(&format!(
            "Mended: {corners} corners with {saves} saves{lost}. The old file is kept as {}.\n",
            mended.aside.display()
        ))?;
        true
    } else {
        false
    };
    if arguments.strict && !report.wrong.is_empty() && !mended { Err(Failure::NotGoodEnough) } else { Ok(()) }
}

fn words(report: &Report) -> String {
    let mut lines = vec![format!("It holds {} corners with {} saves.", report.corners, report.saves)];
    if report.wrong.is_empty() {
        lines.push("Nothing is wrong with it.".to_owned());
    }
    lines.extend(report.wrong.iter().cloned());
    if let Some(mending) = &report.mending {
        lines.push(format!("With --mend: {mending}"));
    }
    match report.snapshots.as_slice() {
        [] => lines.push("There is no snapshot of it yet.".to_owned()),
        [last, ..] => {
            lines.push(format!(
                "{} snapshots, the last one {}.",
                report.snapshots.len(),
                last.path.display()
            ));
        }
    }
    lines.join("\n") + "\n"
}
