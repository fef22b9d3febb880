//! Corners: listed, made, read, saved, a step back and forth.

use rusqlite::{OptionalExtension, Row, Transaction, params};

use crate::document::{Document, keep, legible, stored, unpacked};
use crate::file::{Store, now_ms};
use crate::tables::new_uid;
use crate::trouble::StoreError;

/// A corner as kept.
#[derive(Debug, Clone)]
pub struct Kept {
    /// Id for good.
    pub id: i64,
    /// Rises with every save.
    pub revision: i64,
    /// When it was last saved, ms since 1970.
    pub updated_ms: i64,
    /// There is a state before this one.
    pub can_undo: bool,
    /// The last step was an undo that can be taken back.
    pub can_redo: bool,
    /// Its content.
    pub document: Document,
}

/// One step through the states of a corner.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Step {
    /// To the state before.
    Undo,
    /// Back to the state that was undone.
    Redo,
}

impl Store {
    /// Keeps first corners where there are none yet: all of them or none.
    ///
    /// # Errors
    /// SQLite refuses.
    pub fn seed(&self, documents: impl FnOnce() -> Vec<Document>) -> Result<(), StoreError> {
        let some = |c: &rusqlite::Connection| {
            c.query_row("SELECT EXISTS (SELECT 1 FROM corner)", [], |row| row.get(0))
        };
        if self.read(|connection| Ok(some(connection)?))? {
            return Ok(());
        }
        let documents = documents();
        self.write(|change| {
            for document in &documents {
                insert(change, document)?;
            }
            Ok(())
        })
    }

    /// One corner.
    ///
    /// # Errors
    /// [`StoreError::Missing`], the document does not read, or SQLite refuses.
    pub fn get(&self, id: i64) -> Result<Kept, StoreError> {
        self.read(|connection| {
            let row = connection
                .prepare_cached(&format!("{KEPT} WHERE c.id = ?1 AND c.deleted_ms IS NULL"))?
                .query_row([id], raw)
                .optional()?;
            read(row.ok_or(StoreError::Missing)?)
        })
    }

    /// The document of a corner as it lies in the file, with the corner's name, whether or not it reads.
    ///
    /// # Errors
    /// [`StoreError::Missing`], or SQLite refuses.
    pub fn raw(&self, id: i64) -> Result<(String, String), StoreError> {
        self.read(|connection| {
            let row = connection
                .prepare_cached(&format!("{KEPT} WHERE c.id = ?1 AND c.deleted_ms IS NULL"))?
                .query_row([id], |row| Ok((row.get::<_, String>(6)?, row.get::<_, Vec<u8>>(3)?)))
                .optional()?;
            let (name, body) = row.ok_or(StoreError::Missing)?;
            Ok((name, legible(unpacked(&body)?)))
        })
    }

    /// Keeps a new corner.
    ///
    /// # Errors
    /// SQLite refuses.
    pub fn create(&self, document: &Document) -> Result<Kept, StoreError> {
        self.write(|change| insert(change, document))
    }

    /// Saves a corner that was read at `revision`. A save of a key that was saved before is answered as then, whatever has
    /// been saved since: the answer may have been lost on its way. What changes nothing makes no new revision.
    ///
    /// # Errors
    /// [`StoreError::Missing`], [`StoreError::Conflict`], or SQLite refuses.
    pub fn save(
        &self,
        id: i64,
        revision: i64,
        document: &Document,
        key: Option<&str>,
    ) -> Result<Kept, StoreError> {
        let text = document.to_line();
        self.write(|change| {
            if let Some(kept) = key.map(|key| saved_before(change, id, key)).transpose()?.flatten() {
                return Ok(kept);
            }
            expect(change, id, revision)?;
            let content = keep(change, &text)?;
            if content == at(change, id, revision)?.content {
                return current(change, id);
            }
            let document = document.clone();
            put(change, id, revision, Next { content, document, undo_to: Some(revision), redo_to: None, key })
        })
    }

    /// One step back or forth from `revision`: what stood there is saved as a new revision, so that nothing that
    /// was ever acknowledged is lost.
    ///
    /// # Errors
    /// [`StoreError::Missing`], [`StoreError::Conflict`], [`StoreError::NoStep`], or SQLite refuses.
    pub fn step(&self, id: i64, revision: i64, step: Step) -> Result<Kept, StoreError> {
        self.write(|change| {
            expect(change, id, revision)?;
            let here = at(change, id, revision)?;
            let target = if step == Step::Undo { here.undo_to } else { here.redo_to };
            let there = at(change, id, target.ok_or(StoreError::NoStep(step))?)?;
            let (undo_to, redo_to) = match step {
                Step::Undo => (there.undo_to, Some(revision)),
                Step::Redo => (Some(revision), there.redo_to),
            };
            let document = stored(&there.body)?;
            put(change, id, revision, Next { content: there.content, document, undo_to, redo_to, key: None })
        })
    }
}

/// A revision as undo, redo and history follow it.
pub(crate) struct At {
    pub(crate) content: i64,
    pub(crate) body: Vec<u8>,
    undo_to: Option<i64>,
    redo_to: Option<i64>,
}

/// A revision of a corner.
pub(crate) fn at(change: &Transaction<'_>, id: i64, number: i64) -> Result<At, StoreError> {
    change
        .prepare_cached(
            "SELECT r.document, d.body, r.undo_to, r.redo_to FROM revision r JOIN document d ON d.id = r.document
            WHERE r.corner = ?1 AND r.number = ?2",
        )?
        .query_row([id, number], |row| {
            Ok(At { content: row.get(0)?, body: row.get(1)?, undo_to: row.get(2)?, redo_to: row.get(3)? })
        })
        .optional()?
        .ok_or(StoreError::Missing)
}

/// Corners with where undo and redo lead from their last revision.
pub(crate) const KEPT: &str =
    "SELECT c.id, c.revision, c.updated_ms, d.body, r.undo_to IS NOT NULL, r.redo_to IS NOT NULL, c.name, r.document
    FROM corner c JOIN revision r ON r.corner = c.id AND r.number = c.revision JOIN document d ON d.id = r.document";

/// A row of [`KEPT`].
pub(crate) struct Raw {
    id: i64,
    revision: i64,
    updated_ms: i64,
    body: Vec<u8>,
    can_undo: bool,
    can_redo: bool,
}

pub(crate) fn raw(row: &Row<'_>) -> rusqlite::Result<Raw> {
    Ok(Raw {
        id: row.get(0)?,
        revision: row.get(1)?,
        updated_ms: row.get(2)?,
        body: row.get(3)?,
        can_undo: row.get(4)?,
        can_redo: row.get(5)?,
    })
}

pub(crate) fn read(row: Raw) -> Result<Kept, StoreError> {
    let Raw { id, revision, updated_ms, body, can_undo, can_redo } = row;
    Ok(Kept { id, revision, updated_ms, can_undo, can_redo, document: stored(&body)? })
}

/// A corner as it stands inside a change.
pub(crate) fn current(change: &Transaction<'_>, id: i64) -> Result<Kept, StoreError> {
    let row = change.prepare_cached(&format!("{KEPT} WHERE c.id = ?1"))?.query_row([id], raw).optional()?;
    read(row.ok_or(StoreError::Missing)?)
}

/// Refuses unless the corner stands at `revision`.
pub(crate) fn expect(change: &Transaction<'_>, id: i64, revision: i64) -> Result<(), StoreError> {
    let current: i64 = change
        .prepare_cached("SELECT revision FROM corner WHERE id = ?1 AND deleted_ms IS NULL")?
        .query_row([id], |row| row.get(0))
        .optional()?
        .ok_or(StoreError::Missing)?;
    if current == revision { Ok(()) } else { Err(StoreError::Conflict { current }) }
}

/// What a save of this key made, if there was one.
fn saved_before(change: &Transaction<'_>, id: i64, key: &str) -> Result<Option<Kept>, StoreError> {
    let row = change
        .prepare_cached(
            "SELECT r.corner, r.number, r.at_ms, d.body, r.undo_to IS NOT NULL, r.redo_to IS NOT NULL
            FROM revision r JOIN document d ON d.id = r.document WHERE r.corner = ?1 AND r.save_key = ?2",
        )?
        .query_row(params![id, key], raw)
        .optional()?;
    row.map(read).transpose()
}

/// A new corner.
pub(crate) fn insert(change: &Transaction<'_>, document: &Document) -> Result<Kept, StoreError> {
    let now = now_ms();
    change.execute(
        "INSERT INTO corner (name, revision, updated_ms, uid) VALUES (?1, 1, ?2, ?3)",
        params![document.name, now, new_uid()],
    )?;
    let id = change.last_insert_rowid();
    let content = keep(change, &document.to_line())?;
    change.execute(
        "INSERT INTO revision (corner, number, at_ms, document) VALUES (?1, 1, ?2, ?3)",
        params![id, now, content],
    )?;
    let document = document.clone();
    Ok(Kept { id, revision: 1, updated_ms: now, can_undo: false, can_redo: false, document })
}

/// What the next revision of a corner holds.
pub(crate) struct Next<'a> {
    pub(crate) content: i64,
    pub(crate) document: Document,
    pub(crate) undo_to: Option<i64>,
    pub(crate) redo_to: Option<i64>,
    pub(crate) key: Option<&'a str>,
}

/// The next revision of a corner.
pub(crate) fn put(
    change: &Transaction<'_>,
    id: i64,
    revision: i64,
    next: Next<'_>,
) -> Result<Kept, StoreError> {
    let now = now_ms();
    let Next { content, document, undo_to, redo_to, key } = next;
    change
        .prepare_cached(
            "INSERT INTO revision (corner, number, at_ms, document, undo_to, redo_to, save_key)
            VALUES (?1, ?2, ?3, ?4, ?5, ?6, ?7)",
        )?
        .execute(params![id, revision + 1, now, content, undo_to, redo_to, key])?;
    change
        .prepare_cached("UPDATE corner SET name = ?2, revision = ?3, updated_ms = ?4 WHERE id = ?1")?
        .execute(params![id, document.name, revision + 1, now])?;
    let (can_undo, can_redo) = (undo_to.is_some(), redo_to.is_some());
    Ok(Kept { id, revision: revision + 1, updated_ms: now, can_undo, can_redo, document })
}
