//! A file that may be damaged: what is wrong with it, what can be mended, what that would cost; and a backup put in its place.

use std::cmp::Ordering;
use std::path::{Path, PathBuf};

use rusqlite::config::DbConfig;
use rusqlite::{Connection, OpenFlags, OptionalExtension, params};
use serde::Serialize;
use utoipa::ToSchema;

use crate::document::stored;
use crate::file::{Found, Store, alone, connect, found, now_ms};
use crate::identity::beside;
use crate::snapshots::{Snapshot, all, copy};
use crate::tables::NEWEST;
use crate::trouble::{StoreError, Trouble};

/// What was found in a file.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
pub struct Report {
    /// Corners that read, those in the bin included.
    pub corners: usize,
    /// Saves that read.
    pub saves: usize,
    /// What is wrong, in words; nothing if it is sound.
    pub wrong: Vec<String>,
    /// What mending would cost, in words; none if nothing can be mended or needs to be.
    pub mending: Option<String>,
    /// Copies of it, the last first.
    pub snapshots: Vec<Snapshot>,
}

/// What mending did.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Mended {
    /// Corners and saves that were carried over.
    pub carried: (usize, usize),
    /// Saves that could not be read.
    pub lost: usize,
    /// Where the old file lies now.
    pub aside: PathBuf,
}

/// Looks a whole file through, without changing it.
///
/// # Errors
/// It cannot be looked at: it is no Fogon file, a newer one wrote it, it is not there.
pub fn examine(path: &Path) -> Result<Report, StoreError> {
    let mut wrong = Vec::new();
    let connection = look(path)?;
    let version: i64 = match found(&connection, path) {
        Ok(_) => connection.pragma_query_value(None, "user_version", |row| row.get(0))?,
        Err(StoreError::File(Trouble::Damaged(words))) => {
            wrong.push(format!("SQLite finds it damaged: {words}."));
            connection.pragma_query_value(None, "user_version", |row| row.get(0)).unwrap_or(NEWEST)
        }
        Err(error) => return Err(error),
    };
    if wrong.is_empty() {
        wrong.extend(
            check(&connection, "integrity_check")
                .into_iter()
                .map(|words| format!("SQLite finds it damaged: {words}.")),
        );
    }
    #[cfg(unix)]
    if std::os::unix::fs::MetadataExt::mode(&std::fs::metadata(path).map_err(|e| Trouble::of_io(path, &e))?)
        & 0o077
        != 0
    {
        wrong.push("Other accounts of this machine may read it.".to_owned());
    }
    let damaged = !wrong.is_empty();
    let salvage = if version == NEWEST { Salvage::of(&connection) } else { Salvage::default() };
    for (corner, number) in &salvage.unreadable {
        wrong.push(format!("Save {number} of corner {corner} does not read. It is kept as it is."));
    }
    for (corner, number) in &salvage.lost {
        wrong.push(format!("Save {number} of corner {corner} is lost."));
    }
    let mending = (damaged || !salvage.lost.is_empty()).then(|| {
        if version != NEWEST {
            return "It is of an older version and damaged: go on from a snapshot.".to_owned();
        }
        let (corners, saves) = (salvage.corners.len(), salvage.saves.len());
        let lost = match salvage.lost.len() {
            0 => "nothing is lost".to_owned(),
            1 => "1 save is lost".to_owned(),
            more => format!("{more} saves are lost"),
        };
        format!("A new file of what reads, {corners} corners with {saves} saves: {lost}. The old file is kept aside.")
    });
    Ok(Report {
        corners: salvage.corners.len(),
        saves: salvage.saves.len(),
        wrong,
        mending,
        snapshots: all(path),
    })
}

/// Carries everything that reads over into a new file in the place of the old one, which is kept aside.
///
/// # Errors
/// Another Fogon has it open, the tables are of another version, or the disk refuses.
pub fn mend(path: &Path) -> Result<Mended, StoreError> {
    let only = alone(path)?;
    let old = look(path)?;
    let version: i64 = old.pragma_query_value(None, "user_version", |row| row.get(0))?;
    match version.cmp(&NEWEST) {
        Ordering::Less => return Err(Trouble::Older { found: version }.into()),
        Ordering::Greater => return Err(Trouble::Newer { found: version, known: NEWEST }.into()),
        Ordering::Equal => {}
    }
    let salvage = Salvage::of(&old);
    let fresh = beside(path, &format!("-mended-{}", now_ms()));
    {
        let store = Store::open(&fresh)?;
        store.write(|change| salvage.carry(&old, change))?;
    }
    drop(old);
    let aside = set_aside(path, "damaged")?;
    put_in_place(&fresh, path)?;
    drop(only);
    Ok(Mended { carried: (salvage.corners.len(), salvage.saves.len()), lost: salvage.lost.len(), aside })
}

/// Copies a whole file into a new one, also while Fogon has it open.
///
/// # Errors
/// It is no Fogon file, it is damaged, the new file is there already, or the disk refuses.
pub fn backup(path: &Path, to: &Path) -> Result<(), StoreError> {
    let from = look(path)?;
    ours(&from, path)?;
    copy(&from, to)
}

/// Puts a backup in the place of a file: checked whole first, the old file kept aside. Where the old one lies now, if there was one.
///
/// # Errors
/// The backup is no sound Fogon file, another Fogon has the file open, or the disk refuses; nothing was changed then.
pub fn restore(backup: &Path, path: &Path) -> Result<Option<PathBuf>, StoreError> {
    let only = alone(path)?;
    let from = look(backup)?;
    ours(&from, backup)?;
    if let Some(words) = check(&from, "integrity_check").into_iter().next() {
        return Err(Trouble::Damaged(words).into());
    }
    let fresh = beside(path, &format!("-restored-{}", now_ms()));
    copy(&from, &fresh)?;
    let aside = if path.exists() { Some(set_aside(path, "replaced")?) } else { None };
    put_in_place(&fresh, path)?;
    drop(only);
    Ok(aside)
}

/// Refuses what is no file of Fogon, one that is empty as well: nothing is put in the place of everything.
fn ours(connection: &Connection, path: &Path) -> Result<(), StoreError> {
    match found(connection, path)? {
        Found::Ours { .. } => Ok(()),
        Found::New => Err(Trouble::Foreign.into()),
    }
}

/// A connection that changes nothing.
fn look(path: &Path) -> Result<Connection, StoreError> {
    if !path.is_file() {
        return Err(Trouble::Unreachable(format!("there is no file {}", path.display())).into());
    }
    // A log that was left behind can only be read by who may write.
    let connection = connect(path).or_else(|_| {
        Ok::<_, StoreError>(Connection::open_with_flags(path, OpenFlags::SQLITE_OPEN_READ_ONLY)?)
    })?;
    // Nor is a log that was left behind folded in when this is closed.
    connection.set_db_config(DbConfig::SQLITE_DBCONFIG_NO_CKPT_ON_CLOSE, true)?;
    Ok(connection)
}

/// What a check of SQLite says, but that all is well.
fn check(connection: &Connection, name: &str) -> Vec<String> {
    let said = || -> rusqlite::Result<Vec<String>> {
        connection.prepare(&format!("PRAGMA {name}(5)"))?.query_map([], |row| row.get(0))?.collect()
    };
    match said() {
        Ok(said) => said.into_iter().filter(|words| words != "ok").collect(),
        Err(error) => vec![error.to_string()],
    }
}

/// Moves a file and its log out of the way, together.
fn set_aside(path: &Path, why: &str) -> Result<PathBuf, StoreError> {
    let aside = beside(path, &format!("-{why}-{}", now_ms()));
    for part in ["", "-wal", "-shm"] {
        let from = beside(path, part);
        if from.exists() {
            std::fs::rename(&from, beside(&aside, part)).map_err(|error| Trouble::of_io(&from, &error))?;
        }
    }
    Ok(aside)
}

fn put_in_place(fresh: &Path, path: &Path) -> Result<(), StoreError> {
    std::fs::rename(fresh, path).map_err(|error| Trouble::of_io(path, &error))?;
    for part in ["-wal", "-shm", ".lock"] {
        let left = beside(fresh, part);
        if left.exists() {
            std::fs::remove_file(&left).map_err(|error| Trouble::of_io(&left, &error))?;
        }
    }
    Ok(())
}

/// What can be read of a file, row by row: one damaged page takes no other row with it.
#[derive(Default)]
struct Salvage {
    /// Rows of the corners.
    corners: Vec<i64>,
    /// Rows of the saves whose content unpacks.
    saves: Vec<i64>,
    /// Corner and number of saves whose content is there and does not read as a document.
    unreadable: Vec<(i64, i64)>,
    /// Corner and number of saves whose content is gone.
    lost: Vec<(i64, i64)>,
}

impl Salvage {
    fn of(connection: &Connection) -> Self {
        let mut found = Self { corners: rows(connection, "corner"), ..Self::default() };
        for row in rows(connection, "revision") {
            let Some((corner, number, content)) = one(
                connection,
                "SELECT corner, number, document FROM revision WHERE rowid = ?1",
                row,
                |row| Ok((row.get(0)?, row.get(1)?, row.get::<_, i64>(2)?)),
            ) else {
                continue;
            };
            let body = one(connection, "SELECT body FROM document WHERE id = ?1", content, |row| {
                row.get::<_, Vec<u8>>(0)
            });
            match body.map(|body| stored(&body)) {
                None => found.lost.push((corner, number)),
                Some(read) => {
                    found.saves.push(row);
                    if read.is_err() {
                        found.unreadable.push((corner, number));
                    }
                }
            }
        }
        found
    }

    /// Writes it into a new file. A corner stands at the last of its saves that is left.
    fn carry(&self, old: &Connection, new: &Connection) -> Result<(), StoreError> {
        for row in &self.corners {
            let Some(corner) = one(
                old,
                "SELECT id, name, revision, updated_ms, deleted_ms, uid FROM corner WHERE id = ?1",
                *row,
                |row| {
                    Ok((
                        row.get::<_, i64>(0)?,
                        row.get::<_, String>(1)?,
                        row.get::<_, i64>(2)?,
                        row.get::<_, i64>(3)?,
                        row.get::<_, Option<i64>>(4)?,
                        row.get::<_, Option<String>>(5)?,
                    ))
                },
            ) else {
                continue;
            };
            new.execute(
                "INSERT INTO corner (id, name, revision, updated_ms, deleted_ms, uid) VALUES (?1, ?2, ?3, ?4, ?5, ?6)",
                params![corner.0, corner.1, corner.2, corner.3, corner.4, corner.5],
            )?;
        }
        for row in &self.saves {
            let Some(save) = one(
                old,
                "SELECT corner, number, at_ms, document, undo_to, redo_to, save_key, name FROM revision WHERE rowid = ?1",
                *row,
                |row| {
                    Ok((
                        (
                            row.get::<_, i64>(0)?,
                            row.get::<_, i64>(1)?,
                            row.get::<_, i64>(2)?,
                            row.get::<_, i64>(3)?,
                        ),
                        (row.get::<_, Option<i64>>(4)?, row.get::<_, Option<i64>>(5)?),
                        (row.get::<_, Option<String>>(6)?, row.get::<_, Option<String>>(7)?),
                    ))
                },
            ) else {
                continue;
            };
            let ((corner, number, at_ms, content), (undo_to, redo_to), (key, name)) = save;
            let document = one(old, "SELECT hash, body FROM document WHERE id = ?1", content, |row| {
                Ok((row.get::<_, Vec<u8>>(0)?, row.get::<_, Vec<u8>>(1)?))
            });
            let Some((hash, body)) = document else { continue };
            new.execute(
                "INSERT OR IGNORE INTO document (id, hash, body) VALUES (?1, ?2, ?3)",
                params![content, hash, body],
            )?;
            // A save whose corner is lost has a corner of its own again.
            new.execute(
                "INSERT OR IGNORE INTO corner (id, name, revision, updated_ms) VALUES (?1, 'Found again', ?2, ?3)",
                params![corner, number, at_ms],
            )?;
            new.execute(
                "INSERT INTO revision (corner, number, at_ms, document, undo_to, redo_to, save_key, name)
                VALUES (?1, ?2, ?3, ?4, ?5, ?6, ?7, ?8)",
                params![corner, number, at_ms, content, undo_to, redo_to, key, name],
            )?;
        }
        // Ways back or forth end where a save is lost; a corner without any save is one no more.
        new.execute_batch(
            "UPDATE revision SET undo_to = NULL WHERE undo_to NOT IN (SELECT number FROM revision r WHERE r.corner = revision.corner);
            UPDATE revision SET redo_to = NULL WHERE redo_to NOT IN (SELECT number FROM revision r WHERE r.corner = revision.corner);
            UPDATE corner SET revision = (SELECT max(number) FROM revision WHERE corner = corner.id)
            WHERE id IN (SELECT corner FROM revision);
            DELETE FROM corner WHERE id NOT IN (SELECT corner FROM revision);",
        )?;
        for (table, columns) in [("voice", "id, file"), ("choice", "name, value")] {
            // What does not read of these is chosen or recorded anew.
            let copied = || -> rusqlite::Result<()> {
                let mut query = old.prepare(&format!("SELECT {columns} FROM {table}"))?;
                let mut rows = query.query([])?;
                while let Some(row) = rows.next()? {
                    let (first, second): (rusqlite::types::Value, rusqlite::types::Value) =
                        (row.get(0)?, row.get(1)?);
                    new.execute(
                        &format!("INSERT OR REPLACE INTO {table} ({columns}) VALUES (?1, ?2)"),
                        params![first, second],
                    )?;
                }
                Ok(())
            };
            if let Err(error) = copied() {
                tracing::warn!(%error, table, "not carried over");
            }
        }
        Ok(())
    }
}

/// Numbers of the rows of a table that can be reached, walking past those that cannot.
fn rows(connection: &Connection, table: &str) -> Vec<i64> {
    let mut all = Vec::new();
    let (mut after, mut gap) = (0i64, 1i64);
    // A damaged page makes what follows unreachable until the next row is asked for by a number beyond it.
    while gap <= MOST_ROWS {
        let next = connection
            .prepare_cached(&format!("SELECT min(rowid) FROM {table} WHERE rowid > ?1"))
            .and_then(|mut query| query.query_row([after], |row| row.get::<_, Option<i64>>(0)).optional());
        match next.map(Option::flatten) {
            Ok(Some(row)) => {
                all.push(row);
                (after, gap) = (row, 1);
            }
            Ok(None) => break,
            Err(_) => {
                after += gap;
                gap *= 2;
            }
        }
    }
    all
}

/// No table has more rows than this.
const MOST_ROWS: i64 = 1 << 40;

fn one<T>(
    connection: &Connection,
    query: &str,
    row: i64,
    read: impl FnOnce(&rusqlite::Row<'_>) -> rusqlite::Result<T>,
) -> Option<T> {
    connection.prepare_cached(query).and_then(|mut query| query.query_row([row], read)).ok()
}
