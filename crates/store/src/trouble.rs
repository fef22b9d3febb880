//! What can go wrong with the file and with what lies in it, in sentences that say what to do.

use std::path::Path;

use rusqlite::ErrorCode;
use thiserror::Error;

use crate::corners::Step;

/// What can go wrong with the store.
#[derive(Debug, Error)]
pub enum StoreError {
    /// No corner, or no revision of it, with this number.
    #[error("no such corner")]
    Missing,
    /// Saved by someone else since it was read.
    #[error("changed elsewhere, now revision {current}")]
    Conflict {
        /// The revision kept now.
        current: i64,
    },
    /// Nothing to undo, or nothing undone to bring back.
    #[error("no such step")]
    NoStep(Step),
    /// A stored document does not read.
    #[error("stored document: {0}")]
    Stored(String),
    /// The file as a whole cannot be used.
    #[error("{0}")]
    File(#[from] Trouble),
}

/// Why a file cannot be used, or not be written.
#[derive(Debug, Clone, PartialEq, Eq, Error)]
pub enum Trouble {
    /// It is no SQLite file.
    #[error("The file is no database at all. It was left as it is: name another one.")]
    NoDatabase,
    /// It belongs to another program.
    #[error("The file is another program's database. It was left as it is: name another one.")]
    Foreign,
    /// A newer Fogon has written it.
    #[error(
        "A newer Fogon wrote the file (version {found}; this one knows up to {known}). Use that one; nothing was changed."
    )]
    Newer {
        /// Version of its tables.
        found: i64,
        /// Version that this program makes.
        known: i64,
    },
    /// An older Fogon wrote it, and it is not brought up to date by being mended.
    #[error(
        "An older Fogon wrote the file (version {found}). It is not mended: put a snapshot in its place with `fogon restore`."
    )]
    Older {
        /// Version of its tables.
        found: i64,
    },
    /// SQLite finds it damaged.
    #[error(
        "The file is damaged ({0}). Nothing is written to it any more. Stop Fogon and run `fogon doctor`: it says what can be mended, and where the snapshots are."
    )]
    Damaged(String),
    /// Another program writes to it.
    #[error(
        "Another program holds the file for writing and did not let go for {waited_s} seconds. Nothing was saved: close that program and try again."
    )]
    Held {
        /// How long was waited, s.
        waited_s: u64,
    },
    /// Another Fogon serves it.
    #[error("Another Fogon has the file open. Use that one, or stop it first: one file has one Fogon.")]
    InUse,
    /// It may not be written.
    #[error("The file may only be read. Allow writing to it and to its folder, or name another file.")]
    ReadOnly,
    /// It is not there any more, or another stands in its place.
    #[error(
        "The file of your corners was removed or replaced while Fogon was running, so nothing is saved. Save your open corners as files, then start Fogon again."
    )]
    Gone,
    /// No room on the disk.
    #[error(
        "The disk is full. Nothing of this was saved; what was saved before is safe. Make room and try again."
    )]
    Full,
    /// A folder, or one that cannot be entered, or a disk that fails.
    #[error("The file cannot be opened: {0}.")]
    Unreachable(String),
    /// SQLite refuses for another reason: a fault in this program.
    #[error("SQLite refused: {0}. This is a fault in the program; nothing was changed.")]
    Refused(String),
}

/// So long a write waits for another program, s.
pub(crate) const WAIT_S: u64 = 5;

impl From<rusqlite::Error> for Trouble {
    fn from(error: rusqlite::Error) -> Self {
        let words = error.to_string();
        match error.sqlite_error_code() {
            Some(ErrorCode::NotADatabase) => Self::NoDatabase,
            Some(ErrorCode::DatabaseCorrupt) => Self::Damaged(words),
            Some(
                ErrorCode::DatabaseBusy | ErrorCode::DatabaseLocked | ErrorCode::FileLockingProtocolFailed,
            ) => Self::Held { waited_s: WAIT_S },
            Some(ErrorCode::ReadOnly | ErrorCode::PermissionDenied) => Self::ReadOnly,
            Some(ErrorCode::DiskFull) => Self::Full,
            Some(ErrorCode::CannotOpen | ErrorCode::SystemIoFailure) => Self::Unreachable(words),
            _ => Self::Refused(words),
        }
    }
}

impl From<rusqlite::Error> for StoreError {
    fn from(error: rusqlite::Error) -> Self {
        Self::File(error.into())
    }
}

impl From<rusqlite_migration::Error> for StoreError {
    fn from(error: rusqlite_migration::Error) -> Self {
        match error {
            rusqlite_migration::Error::RusqliteError { err, .. } => err.into(),
            other => Self::File(Trouble::Refused(other.to_string())),
        }
    }
}

impl Trouble {
    /// What a failed call to the system means for a file.
    pub(crate) fn of_io(path: &Path, error: &std::io::Error) -> Self {
        use std::io::ErrorKind::{PermissionDenied, ReadOnlyFilesystem, StorageFull};
        match error.kind() {
            PermissionDenied | ReadOnlyFilesystem => Self::ReadOnly,
            StorageFull => Self::Full,
            _ => Self::Unreachable(format!("{}: {error}", path.display())),
        }
    }
}
