//! Where the corners lie: the database file that several commands work on.

use std::path::PathBuf;

use clap::Args;
use directories::ProjectDirs;
use fogon_store::StoreError;

use crate::outcome::Failure;

/// The file of the corners.
#[derive(Args)]
pub(crate) struct Database {
    /// Database file (corners.sqlite3 in this account's data folder; the demo has a file of its own there)
    #[arg(long, value_name = "FILE")]
    database: Option<PathBuf>,
}

/// Whose corners.
#[derive(Clone, Copy, PartialEq, Eq)]
pub(crate) enum Whose {
    /// The person's own.
    Own,
    /// Those that ship with the program.
    Demo,
}

impl Database {
    /// The file that is named, or the one in the data folder of this account, which is made where it is missing.
    pub(crate) fn path(&self, whose: Whose) -> Result<PathBuf, Failure> {
        if let Some(path) = &self.database {
            return Ok(path.clone());
        }
        let none = || Failure::Io("This account has no data folder: name a file with --database.".to_owned());
        let folder = ProjectDirs::from("", "", "Fogon").ok_or_else(none)?.data_dir().to_owned();
        let mut make = std::fs::DirBuilder::new();
        #[cfg(unix)]
        std::os::unix::fs::DirBuilderExt::mode(&mut make, 0o700);
        make.recursive(true)
            .create(&folder)
            .map_err(|error| Failure::Io(format!("cannot make {}: {error}", folder.display())))?;
        Ok(folder.join(match whose {
            Whose::Own => "corners.sqlite3",
            Whose::Demo => "demo.sqlite3",
        }))
    }
}

/// What a file does not allow, with its name.
pub(crate) fn refused(path: &std::path::Path) -> impl Fn(StoreError) -> Failure + '_ {
    move |error| Failure::Io(format!("{}: {error}", path.display()))
}
