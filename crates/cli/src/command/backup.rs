//! `fogon backup` and `fogon restore`: the whole file, out and in again.

use std::path::PathBuf;

use clap::Args;
use fogon_store::doctor;

use crate::data::{Database, Whose, refused};
use crate::outcome::Failure;
use crate::read;

#[derive(Args)]
pub(crate) struct Arguments {
    /// The backup
    file: PathBuf,
    #[command(flatten)]
    database: Database,
}

pub(crate) fn backup(arguments: &Arguments) -> Result<(), Failure> {
    let from = arguments.database.path(Whose::Own)?;
    doctor::backup(&from, &arguments.file).map_err(refused(&from))?;
    let bytes = std::fs::metadata(&arguments.file).map_or(0, |file| file.len());
    read::print(&format!("{} holds everything, in {bytes} bytes.\n", arguments.file.display()))
}

pub(crate) fn restore(arguments: &Arguments) -> Result<(), Failure> {
    let to = arguments.database.path(Whose::Own)?;
    let (backup, file) = (arguments.file.display(), to.display());
    let aside = doctor::restore(&arguments.file, &to)
        .map_err(|error| Failure::Io(format!("cannot put {backup} in the place of {file}: {error}")))?;
    let before = aside.map_or_else(
        || "There was no file before.".to_owned(),
        |aside| format!("The file that was there before is kept as {}.", aside.display()),
    );
    read::print(&format!("{file} is back as it was backed up. {before}\n"))
}
