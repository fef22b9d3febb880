//! `fogon archive` and `fogon import`: corners with all their saves, out and in again.

use std::path::PathBuf;

use clap::Args;
use fogon_core::problem::{Code, Problem};
use fogon_store::{Archive, Becomes, Outcome, Store, Taking, doctor};

use crate::data::{Database, Whose, refused};
use crate::outcome::Failure;
use crate::read;

#[derive(Args)]
pub(crate) struct Out {
    /// The archive to write (.zip)
    file: PathBuf,
    /// Only the corner of this name
    #[arg(long, value_name = "NAME")]
    corner: Option<String>,
    #[command(flatten)]
    database: Database,
}

#[derive(Args)]
pub(crate) struct In {
    /// The archive
    file: PathBuf,
    /// Only tell what would happen
    #[arg(long)]
    dry_run: bool,
    /// Put corners that the archive does not hold into the bin
    #[arg(long)]
    replace: bool,
    #[command(flatten)]
    database: Database,
}

/// Writes an archive, also while Fogon has the file open.
pub(crate) fn archive(arguments: &Out) -> Result<(), Failure> {
    let path = arguments.database.path(Whose::Own)?;
    let folder = tempfile::tempdir().map_err(|error| Failure::Io(format!("no place for a copy: {error}")))?;
    let copy = folder.path().join("copy.sqlite3");
    doctor::backup(&path, &copy).map_err(refused(&path))?;
    let store = Store::open(&copy).map_err(refused(&path))?;
    let only = match &arguments.corner {
        None => None,
        Some(name) => {
            let page = store.page(None, usize::MAX, name, "").map_err(refused(&path))?;
            let found = page.entries.iter().find(|entry| entry.name == *name);
            let accepted = "the name of a corner, as the list shows it";
            Some(found.ok_or_else(|| Problem::new("corner", name, accepted, Code::UnknownName))?.id)
        }
    };
    let bytes = store.archive(only).map_err(refused(&path))?;
    read::write_bytes(&arguments.file, &bytes)?;
    let what = arguments.corner.as_deref().unwrap_or("everything");
    read::print(&format!("{} holds {what}, in {} bytes.\n", arguments.file.display(), bytes.len()))
}

pub(crate) fn import(arguments: &In) -> Result<(), Failure> {
    let path = arguments.database.path(Whose::Own)?;
    let bytes = std::fs::read(&arguments.file)
        .map_err(|error| Failure::Io(format!("cannot read {}: {error}", arguments.file.display())))?;
    let accepted = "an archive that Fogon wrote, whole";
    let archive = Archive::read(&bytes)
        .map_err(|bad| Problem::new("archive", bad.to_string(), accepted, Code::BadTable))?;
    let store = Store::open(&path).map_err(refused(&path))?;
    let taking = if arguments.replace { Taking::Replace } else { Taking::Merge };
    let outcomes =
        if arguments.dry_run { store.would_take(&archive, taking) } else { store.take(&archive, taking) };
    let outcomes = outcomes.map_err(refused(&path))?;
    let mut lines: Vec<String> = outcomes.iter().map(line).collect();
    if arguments.dry_run {
        lines.push("Nothing was changed.".to_owned());
    }
    read::print(&(lines.join("\n") + "\n"))
}

fn line(Outcome { name, becomes }: &Outcome) -> String {
    let words = match becomes {
        Becomes::New => "new, with all its saves",
        Becomes::Changed => "here already, and stands as in the archive after this: undo brings it back",
        Becomes::Back => "in the bin here: it comes back",
        Becomes::Same => "here already, and the same",
        Becomes::Binned => "not in the archive: it goes into the bin",
    };
    format!("{name}: {words}")
}
