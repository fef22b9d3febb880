//! Copies of the whole file: one a day, one before the tables change, the last seven of them kept; and by hand.

use std::path::{Path, PathBuf};
use std::sync::atomic::Ordering;

use rusqlite::Connection;
use serde::Serialize;
use utoipa::ToSchema;

use crate::file::{Store, connect, now_ms, private};
use crate::identity::beside;
use crate::trouble::{StoreError, Trouble};

/// So many are kept.
const KEPT: usize = 7;
/// One is due after so long, ms.
const DUE_MS: i64 = 24 * 3600 * 1000;

/// A copy of the whole file.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
pub struct Snapshot {
    /// Its file.
    #[schema(value_type = String)]
    pub path: PathBuf,
    /// When it was taken, ms since 1970.
    pub at_ms: i64,
    /// How large it is, bytes.
    pub bytes: u64,
}

impl Store {
    /// Snapshots there are, the last first.
    pub fn snapshots(&self) -> Vec<Snapshot> {
        all(self.path())
    }

    /// The last is a day old, or there is none.
    pub(crate) fn snapshot_is_due(&self) -> bool {
        self.snapshots().first().is_none_or(|last| now_ms() - last.at_ms >= DUE_MS)
    }

    /// Takes a snapshot now, and drops all but the last seven.
    ///
    /// # Errors
    /// As [`Store::backup`].
    pub fn snapshot(&self) -> Result<Snapshot, StoreError> {
        let path = fresh(self.path(), "day")?;
        self.backup(&path)?;
        thin(self.path());
        let bytes = std::fs::metadata(&path).map_or(0, |file| file.len());
        Ok(Snapshot { path, at_ms: now_ms(), bytes })
    }

    /// Writes everything into one new file, while saves go on.
    ///
    /// # Errors
    /// The file is there already, or SQLite or the disk refuses.
    pub fn backup(&self, to: &Path) -> Result<(), StoreError> {
        copy(&connect(self.path())?, to)
    }

    /// Drops every snapshot there is and takes one of how it stands: what was deleted for good is in none.
    pub(crate) fn renew_snapshots(&self) -> Result<(), StoreError> {
        let old = self.snapshots();
        if !old.is_empty() {
            self.snapshot()?;
        }
        for one in old {
            remove(&one.path);
        }
        Ok(())
    }

    /// Folds the log into the file, so that a copy of the file alone holds everything; nothing if nothing was written.
    ///
    /// # Errors
    /// SQLite refuses.
    pub fn fold(&self) -> Result<(), StoreError> {
        if !self.unfolded.load(Ordering::Relaxed) {
            return Ok(());
        }
        self.with_writer(|writer| {
            // Readers that are open may keep it from being emptied: then the next time.
            writer.query_row("PRAGMA wal_checkpoint(TRUNCATE)", [], |_| Ok(()))?;
            Ok(())
        })?;
        self.unfolded.store(false, Ordering::Relaxed);
        Ok(())
    }
}

/// A snapshot of a file whose tables are about to change.
pub(crate) fn before_version(connection: &Connection, path: &Path, version: i64) -> Result<(), StoreError> {
    let to = fresh(path, &format!("version-{version}"))?;
    copy(connection, &to)?;
    thin(path);
    Ok(())
}

/// Where the snapshots of a file lie.
pub fn folder(path: &Path) -> PathBuf {
    beside(path, "-snapshots")
}

/// All snapshots of a file, the last first.
pub(crate) fn all(path: &Path) -> Vec<Snapshot> {
    let Ok(entries) = std::fs::read_dir(folder(path)) else { return Vec::new() };
    let mut all: Vec<Snapshot> = entries
        .filter_map(|entry| {
            let path = entry.ok()?.path();
            let at_ms = path.file_stem()?.to_str()?.split('-').next()?.parse().ok()?;
            let bytes = std::fs::metadata(&path).ok()?.len();
            (path.extension()? == "sqlite3").then_some(Snapshot { path, at_ms, bytes })
        })
        .collect();
    all.sort_by(|a, b| b.at_ms.cmp(&a.at_ms).then(b.path.cmp(&a.path)));
    all
}

/// A name that no snapshot has: when, and why.
fn fresh(path: &Path, why: &str) -> Result<PathBuf, StoreError> {
    let folder = folder(path);
    let mut make = std::fs::DirBuilder::new();
    #[cfg(unix)]
    std::os::unix::fs::DirBuilderExt::mode(&mut make, 0o700);
    make.recursive(true).create(&folder).map_err(|error| Trouble::of_io(&folder, &error))?;
    Ok((now_ms()..)
        .map(|at| folder.join(format!("{at}-{why}.sqlite3")))
        .find(|path| !path.exists())
        .unwrap_or(folder))
}

fn thin(path: &Path) {
    for old in all(path).iter().skip(KEPT) {
        remove(&old.path);
    }
}

fn remove(path: &Path) {
    if let Err(error) = std::fs::remove_file(path) {
        tracing::warn!(%error, "a snapshot stays");
    }
}

/// Everything as one file without a log, made whole beside its place first.
pub(crate) fn copy(connection: &Connection, to: &Path) -> Result<(), StoreError> {
    let there = || Trouble::Unreachable(format!("{} is there already", to.display()));
    if to.exists() {
        return Err(there().into());
    }
    let part = beside(to, ".part");
    let io = |error: std::io::Error| StoreError::from(Trouble::of_io(to, &error));
    // SQLite fills a file that is there and empty: nobody else may read it from its first byte on.
    let made = private().create(true).truncate(true).write(true).open(&part).map_err(io)?;
    let name = part.to_str().ok_or_else(|| Trouble::Unreachable(format!("{} is no text", part.display())))?;
    let copied = connection.execute("VACUUM INTO ?1", [name]);
    if let Err(error) = copied {
        remove(&part);
        return Err(error.into());
    }
    made.sync_all().map_err(io)?;
    std::fs::rename(&part, to).map_err(io)
}
