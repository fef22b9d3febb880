//! Corners in one SQLite file. Every save is a row in `revision`; an acknowledged save is on the disk (WAL,
//! synchronous FULL).

use std::path::Path;
use std::sync::{Mutex, MutexGuard, PoisonError};
use std::time::{SystemTime, UNIX_EPOCH};

use fogon_core::arrange::propose;
use fogon_core::plan::{Brief, BriefFile, Layout, Plan};
use rusqlite::{Connection, OptionalExtension, Transaction, TransactionBehavior, params};
use rusqlite_migration::{M, Migrations};
use thiserror::Error;

/// Never edit a step that has shipped: add one.
const STEPS: &[M<'static>] = &[
    M::up(
        "CREATE TABLE corner (
        id INTEGER PRIMARY KEY AUTOINCREMENT,
        name TEXT NOT NULL,
        revision INTEGER NOT NULL,
        updated_ms INTEGER NOT NULL,
        document TEXT NOT NULL
    ) STRICT;
    CREATE TABLE revision (
        corner INTEGER NOT NULL REFERENCES corner(id) ON DELETE CASCADE,
        number INTEGER NOT NULL,
        at_ms INTEGER NOT NULL,
        document TEXT NOT NULL,
        PRIMARY KEY (corner, number)
    ) STRICT;",
    ),
    // The revision that undo goes back to, and the one that redo brings back.
    M::up(
        "ALTER TABLE revision ADD COLUMN undo_to INTEGER;
        ALTER TABLE revision ADD COLUMN redo_to INTEGER;
        UPDATE revision SET undo_to = number - 1 WHERE number > 1;",
    ),
    // The user's own dry voice, as the file it came in.
    M::up(
        "CREATE TABLE voice (
        id INTEGER PRIMARY KEY CHECK (id = 1),
        file BLOB NOT NULL
    ) STRICT;",
    ),
    // The key that a page gave a save, so that one that is sent twice is saved once; and corners deleted but not yet gone.
    M::up(
        "ALTER TABLE revision ADD COLUMN save_key TEXT;
        ALTER TABLE corner ADD COLUMN deleted_ms INTEGER;",
    ),
];

/// A deleted corner can be brought back for so long, ms: 30 days, Fogon's own rule.
const KEPT_DELETED_MS: i64 = 30 * 24 * 3600 * 1000;
const MIGRATIONS: Migrations<'static> = Migrations::from_slice(STEPS);

/// What is kept: a plan, or a brief that has no layout yet.
#[derive(Debug, Clone)]
pub struct Document {
    /// Name.
    pub name: String,
    /// What is given.
    pub brief: Brief,
    /// What is chosen, if anything fits.
    pub layout: Option<Layout>,
}

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

/// A corner in the list: as kept, or as a row that this version cannot read.
#[derive(Debug, Clone)]
pub enum Entry {
    /// It reads.
    Kept(Box<Kept>),
    /// It does not; it is kept as it is.
    Unreadable {
        /// Id for good.
        id: i64,
        /// The revision kept now.
        revision: i64,
        /// When it was last saved, ms since 1970.
        updated_ms: i64,
        /// The name it was saved under.
        name: String,
        /// Why it does not read, in words.
        why: String,
    },
}

/// One step through the states of a corner.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Step {
    /// To the state before.
    Undo,
    /// Back to the state that was undone.
    Redo,
}

/// What can go wrong with the store.
#[derive(Debug, Error)]
pub enum StoreError {
    /// No corner with this id.
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
    /// SQLite refused.
    #[error(transparent)]
    Database(#[from] rusqlite::Error),
    /// A stored document does not read.
    #[error("stored document: {0}")]
    Stored(String),
}

impl From<rusqlite_migration::Error> for StoreError {
    fn from(error: rusqlite_migration::Error) -> Self {
        match error {
            rusqlite_migration::Error::RusqliteError { err, .. } => StoreError::Database(err),
            other => StoreError::Stored(other.to_string()),
        }
    }
}

/// The corners of one database file.
pub struct Store {
    connection: Mutex<Connection>,
}

impl Document {
    /// Reads a plan file or a brief file.
    ///
    /// # Errors
    /// As the two readers.
    pub fn read(text: &[u8]) -> Result<Self, fogon_core::problem::Problems> {
        let format = fogon_core::document::parse(text)?;
        if format["format"] == "fogon.brief" {
            let file = BriefFile::read(text)?;
            return Ok(Self { name: file.name, brief: file.brief, layout: None });
        }
        let plan = Plan::read(text)?;
        Ok(Self { name: plan.name, brief: plan.brief, layout: Some(plan.layout) })
    }

    /// The file that [`Document::read`] reads back.
    pub fn to_json(&self) -> String {
        let text = match &self.layout {
            Some(layout) => serde_json::to_string_pretty(&Plan::new(
                self.name.clone(),
                self.brief.clone(),
                layout.clone(),
            )),
            None => serde_json::to_string_pretty(&BriefFile::new(self.name.clone(), self.brief.clone())),
        };
        text.unwrap_or_default()
    }

    /// With the best layout, if it has none yet and one is legal.
    #[must_use]
    pub fn laid_out(mut self) -> Self {
        if self.layout.is_none() {
            self.layout =
                propose(&self.name, &self.brief).proposals.into_iter().next().map(|p| p.plan.layout);
        }
        self
    }
}

impl Store {
    /// Opens or makes a database file and brings its tables up to date.
    ///
    /// # Errors
    /// SQLite cannot open or change it.
    pub fn open(path: &Path) -> Result<Self, StoreError> {
        Self::prepared(Connection::open(path)?)
    }

    fn prepared(mut connection: Connection) -> Result<Self, StoreError> {
        connection.pragma_update(None, "journal_mode", "WAL")?;
        connection.pragma_update(None, "synchronous", "FULL")?;
        connection.pragma_update(None, "foreign_keys", "ON")?;
        connection.busy_timeout(std::time::Duration::from_secs(5))?;
        MIGRATIONS.to_latest(&mut connection)?;
        connection.execute("DELETE FROM corner WHERE deleted_ms < ?1", [now_ms() - KEPT_DELETED_MS])?;
        Ok(Self { connection: Mutex::new(connection) })
    }

    fn lock(&self) -> MutexGuard<'_, Connection> {
        // A panic while holding the lock cannot leave half a change: every change is one transaction.
        self.connection.lock().unwrap_or_else(PoisonError::into_inner)
    }

    /// Keeps first corners where there are none yet.
    ///
    /// # Errors
    /// SQLite refuses.
    pub fn seed(&self, briefs: &[BriefFile]) -> Result<(), StoreError> {
        let some: bool =
            self.lock().query_row("SELECT EXISTS (SELECT 1 FROM corner)", [], |row| row.get(0))?;
        if !some {
            for brief in briefs {
                let document =
                    Document { name: brief.name.clone(), brief: brief.brief.clone(), layout: None };
                self.create(&document.laid_out())?;
            }
        }
        Ok(())
    }

    /// All corners, the last saved first.
    ///
    /// # Errors
    /// SQLite refuses.
    pub fn all(&self) -> Result<Vec<Entry>, StoreError> {
        let rows: Vec<Raw> = {
            let connection = self.lock();
            let mut query = connection.prepare_cached(&format!(
                "{KEPT} WHERE c.deleted_ms IS NULL ORDER BY c.updated_ms DESC, c.id DESC"
            ))?;
            query.query_map([], raw)?.collect::<Result<_, _>>()?
        };
        let entry = |row: Raw| {
            let (id, revision, updated_ms, name) = (row.id, row.revision, row.updated_ms, row.name.clone());
            match read(row) {
                Ok(kept) => Entry::Kept(Box::new(kept)),
                Err(error) => Entry::Unreadable { id, revision, updated_ms, name, why: error.to_string() },
            }
        };
        Ok(rows.into_iter().map(entry).collect())
    }

    /// The document of a corner as it lies in the database, with the corner's name, whether or not it reads.
    ///
    /// # Errors
    /// [`StoreError::Missing`], or SQLite refuses.
    pub fn raw(&self, id: i64) -> Result<(String, String), StoreError> {
        let found = self
            .lock()
            .prepare_cached("SELECT name, document FROM corner WHERE id = ?1 AND deleted_ms IS NULL")?
            .query_row([id], |row| Ok((row.get(0)?, row.get(1)?)))
            .optional()?;
        found.ok_or(StoreError::Missing)
    }

    /// One corner.
    ///
    /// # Errors
    /// [`StoreError::Missing`], or SQLite refuses.
    pub fn get(&self, id: i64) -> Result<Kept, StoreError> {
        let connection = self.lock();
        let row = connection
            .prepare_cached(&format!("{KEPT} WHERE c.id = ?1 AND c.deleted_ms IS NULL"))?
            .query_row([id], raw)
            .optional()?;
        read(row.ok_or(StoreError::Missing)?)
    }

    /// Every save of a corner, the last first; at most the last [`REVISIONS`].
    ///
    /// # Errors
    /// [`StoreError::Missing`], or SQLite refuses.
    pub fn revisions(&self, id: i64) -> Result<Vec<Saved>, StoreError> {
        let connection = self.lock();
        let mut query = connection.prepare_cached(
            "SELECT number, at_ms FROM revision WHERE corner = ?1 ORDER BY number DESC LIMIT ?2",
        )?;
        let saved = |row: &rusqlite::Row<'_>| Ok(Saved { revision: row.get(0)?, at_ms: row.get(1)? });
        let all: Vec<Saved> = query.query_map(params![id, REVISIONS], saved)?.collect::<Result<_, _>>()?;
        if all.is_empty() { Err(StoreError::Missing) } else { Ok(all) }
    }

    /// A corner as it was once saved.
    ///
    /// # Errors
    /// [`StoreError::Missing`], SQLite refuses, or the document does not read.
    pub fn revision(&self, id: i64, number: i64) -> Result<Document, StoreError> {
        let connection = self.lock();
        let text: Option<String> = connection
            .prepare_cached("SELECT document FROM revision WHERE corner = ?1 AND number = ?2")?
            .query_row([id, number], |row| row.get(0))
            .optional()?;
        stored(&text.ok_or(StoreError::Missing)?)
    }

    /// Keeps a new corner.
    ///
    /// # Errors
    /// SQLite refuses.
    pub fn create(&self, document: &Document) -> Result<Kept, StoreError> {
        let text = document.to_json();
        let now = now_ms();
        let mut connection = self.lock();
        let change = connection.transaction_with_behavior(TransactionBehavior::Immediate)?;
        change.execute(
            "INSERT INTO corner (name, revision, updated_ms, document) VALUES (?1, 1, ?2, ?3)",
            params![document.name, now, text],
        )?;
        let id = change.last_insert_rowid();
        change.execute(
            "INSERT INTO revision (corner, number, at_ms, document) VALUES (?1, 1, ?2, ?3)",
            params![id, now, text],
        )?;
        change.commit()?;
        let document = document.clone();
        Ok(Kept { id, revision: 1, updated_ms: now, can_undo: false, can_redo: false, document })
    }

    /// Saves a corner that was read at `revision`. A save of a key that was saved before is answered as then, whatever has
    /// been saved since: the answer may have been lost on its way.
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
        let mut connection = self.lock();
        let change = connection.transaction_with_behavior(TransactionBehavior::Immediate)?;
        if let Some(kept) = key.map(|key| saved_before(&change, id, key)).transpose()?.flatten() {
            return Ok(kept);
        }
        expect(&change, id, revision)?;
        let kept = put(&change, id, revision, document.clone(), Some(revision), None)?;
        change.execute(
            "UPDATE revision SET save_key = ?3 WHERE corner = ?1 AND number = ?2",
            params![id, kept.revision, key],
        )?;
        change.commit()?;
        Ok(kept)
    }

    /// One step back or forth from `revision`: what stood there is saved as a new revision, so that nothing that
    /// was ever acknowledged is lost.
    ///
    /// # Errors
    /// [`StoreError::Missing`], [`StoreError::Conflict`], [`StoreError::NoStep`], or SQLite refuses.
    pub fn step(&self, id: i64, revision: i64, step: Step) -> Result<Kept, StoreError> {
        let mut connection = self.lock();
        let change = connection.transaction_with_behavior(TransactionBehavior::Immediate)?;
        expect(&change, id, revision)?;
        let links = |number: i64| -> Result<(Option<i64>, Option<i64>, String), StoreError> {
            Ok(change
                .prepare_cached(
                    "SELECT undo_to, redo_to, document FROM revision WHERE corner = ?1 AND number = ?2",
                )?
                .query_row([id, number], |row| Ok((row.get(0)?, row.get(1)?, row.get(2)?)))?)
        };
        let (back, forth, _) = links(revision)?;
        let target = if step == Step::Undo { back } else { forth }.ok_or(StoreError::NoStep(step))?;
        let (target_back, target_forth, text) = links(target)?;
        let document = stored(&text)?;
        let (undo_to, redo_to) = match step {
            Step::Undo => (target_back, Some(revision)),
            Step::Redo => (Some(revision), target_forth),
        };
        let kept = put(&change, id, revision, document, undo_to, redo_to)?;
        change.commit()?;
        Ok(kept)
    }

    /// The user's own voice, as the file it came in.
    ///
    /// # Errors
    /// SQLite refuses.
    pub fn voice(&self) -> Result<Option<Vec<u8>>, StoreError> {
        let connection = self.lock();
        let file = connection.query_row("SELECT file FROM voice", [], |row| row.get(0)).optional()?;
        Ok(file)
    }

    /// Keeps the user's own voice in place of any before it, or forgets it.
    ///
    /// # Errors
    /// SQLite refuses.
    pub fn keep_voice(&self, file: Option<&[u8]>) -> Result<(), StoreError> {
        let connection = self.lock();
        match file {
            Some(file) => {
                connection.execute("INSERT OR REPLACE INTO voice (id, file) VALUES (1, ?1)", [file])?
            }
            None => connection.execute("DELETE FROM voice", [])?,
        };
        Ok(())
    }

    /// Takes a corner out of sight; it can be brought back for a while.
    ///
    /// # Errors
    /// [`StoreError::Missing`], [`StoreError::Conflict`], or SQLite refuses.
    pub fn delete(&self, id: i64, revision: i64) -> Result<(), StoreError> {
        let mut connection = self.lock();
        let change = connection.transaction_with_behavior(TransactionBehavior::Immediate)?;
        expect(&change, id, revision)?;
        change.execute("UPDATE corner SET deleted_ms = ?2 WHERE id = ?1", params![id, now_ms()])?;
        change.commit()?;
        Ok(())
    }

    /// Brings a deleted corner back as it was.
    ///
    /// # Errors
    /// [`StoreError::Missing`] of one that is not there any more, or SQLite refuses.
    pub fn restore(&self, id: i64) -> Result<Kept, StoreError> {
        self.lock().execute("UPDATE corner SET deleted_ms = NULL WHERE id = ?1", [id])?;
        self.get(id)
    }
}

/// So many of a corner's last saves are listed.
const REVISIONS: i64 = 100;

/// One save of a corner.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
pub struct Saved {
    /// Its number.
    pub revision: i64,
    /// When, ms since 1970.
    pub at_ms: i64,
}

/// Corners with where undo and redo lead from their last revision.
const KEPT: &str =
    "SELECT c.id, c.revision, c.updated_ms, c.name, c.document, r.undo_to IS NOT NULL, r.redo_to IS NOT NULL
    FROM corner c JOIN revision r ON r.corner = c.id AND r.number = c.revision";

/// A row of [`KEPT`].
struct Raw {
    id: i64,
    revision: i64,
    updated_ms: i64,
    name: String,
    text: String,
    can_undo: bool,
    can_redo: bool,
}

fn raw(row: &rusqlite::Row<'_>) -> rusqlite::Result<Raw> {
    Ok(Raw {
        id: row.get(0)?,
        revision: row.get(1)?,
        updated_ms: row.get(2)?,
        name: row.get(3)?,
        text: row.get(4)?,
        can_undo: row.get(5)?,
        can_redo: row.get(6)?,
    })
}

fn read(row: Raw) -> Result<Kept, StoreError> {
    let Raw { id, revision, updated_ms, text, can_undo, can_redo, .. } = row;
    Ok(Kept { id, revision, updated_ms, can_undo, can_redo, document: stored(&text)? })
}

fn stored(text: &str) -> Result<Document, StoreError> {
    Document::read(text.as_bytes()).map_err(|problems| StoreError::Stored(problems.to_string()))
}

/// Refuses unless the corner stands at `revision`.
fn expect(change: &Transaction<'_>, id: i64, revision: i64) -> Result<(), StoreError> {
    let current: i64 = change
        .query_row("SELECT revision FROM corner WHERE id = ?1 AND deleted_ms IS NULL", [id], |row| row.get(0))
        .optional()?
        .ok_or(StoreError::Missing)?;
    if current == revision { Ok(()) } else { Err(StoreError::Conflict { current }) }
}

/// What a save of this key made, if there was one.
fn saved_before(change: &Transaction<'_>, id: i64, key: &str) -> Result<Option<Kept>, StoreError> {
    let row = change
        .prepare_cached(
            "SELECT ?1, number, at_ms, '', document, undo_to IS NOT NULL, redo_to IS NOT NULL
            FROM revision WHERE corner = ?1 AND save_key = ?2",
        )?
        .query_row(params![id, key], raw)
        .optional()?;
    row.map(read).transpose()
}

/// The next revision of a corner.
fn put(
    change: &Transaction<'_>,
    id: i64,
    revision: i64,
    document: Document,
    undo_to: Option<i64>,
    redo_to: Option<i64>,
) -> Result<Kept, StoreError> {
    let (text, now, next) = (document.to_json(), now_ms(), revision + 1);
    change.execute(
        "UPDATE corner SET name = ?2, revision = ?3, updated_ms = ?4, document = ?5 WHERE id = ?1",
        params![id, document.name, next, now, text],
    )?;
    change.execute(
        "INSERT INTO revision (corner, number, at_ms, document, undo_to, redo_to) VALUES (?1, ?2, ?3, ?4, ?5, ?6)",
        params![id, next, now, text, undo_to, redo_to],
    )?;
    let (can_undo, can_redo) = (undo_to.is_some(), redo_to.is_some());
    Ok(Kept { id, revision: next, updated_ms: now, can_undo, can_redo, document })
}

fn now_ms() -> i64 {
    SystemTime::now()
        .duration_since(UNIX_EPOCH)
        .map_or(0, |d| i64::try_from(d.as_millis()).unwrap_or(i64::MAX))
}

#[cfg(test)]
mod tests {
    use super::*;

    const BRIEF: &str = include_str!("../../../docs/examples/box-room.brief.json");

    fn store() -> Store {
        Store::prepared(Connection::open_in_memory().unwrap()).unwrap()
    }

    fn named(name: &str) -> Document {
        Document { name: name.to_owned(), ..Document::read(BRIEF.as_bytes()).unwrap() }
    }

    fn revisions(store: &Store, corner: i64) -> Vec<(i64, String)> {
        let connection = store.lock();
        let mut query = connection
            .prepare("SELECT number, document FROM revision WHERE corner = ?1 ORDER BY number")
            .unwrap();
        query.query_map([corner], |row| Ok((row.get(0)?, row.get(1)?))).unwrap().map(Result::unwrap).collect()
    }

    #[test]
    fn migrations_are_valid() {
        MIGRATIONS.validate().unwrap();
    }

    /// A file of the first version gains the ways back through what it kept.
    #[test]
    fn an_old_file_can_be_undone() {
        let mut connection = Connection::open_in_memory().unwrap();
        Migrations::from_slice(&STEPS[..1]).to_latest(&mut connection).unwrap();
        let rows = [named("one").to_json(), named("two").to_json()];
        connection
            .execute(
                "INSERT INTO corner (name, revision, updated_ms, document) VALUES ('two', 2, 0, ?1)",
                [&rows[1]],
            )
            .unwrap();
        for (number, text) in (1i64..).zip(&rows) {
            let row = params![number, text];
            connection
                .execute("INSERT INTO revision (corner, number, at_ms, document) VALUES (1, ?1, 0, ?2)", row)
                .unwrap();
        }
        let store = Store::prepared(connection).unwrap();
        let kept = store.get(1).unwrap();
        assert_eq!((kept.can_undo, kept.can_redo, kept.document.name.as_str()), (true, false, "two"));
        let back = store.step(1, 2, Step::Undo).unwrap();
        assert_eq!((back.document.name.as_str(), back.can_undo, back.can_redo), ("one", false, true));
    }

    /// Undo, conflict and history rest on this: every save is a row of its own, as it was written.
    #[test]
    fn every_save_is_a_revision() {
        let store = store();
        let id = store.create(&named("one")).unwrap().id;
        assert_eq!(store.save(id, 1, &named("two"), None).unwrap().revision, 2);
        assert_eq!(store.save(id, 2, &named("three"), None).unwrap().revision, 3);
        let rows = revisions(&store, id);
        assert_eq!(rows.iter().map(|(number, _)| *number).collect::<Vec<_>>(), [1, 2, 3]);
        for ((_, text), name) in rows.iter().zip(["one", "two", "three"]) {
            assert_eq!(Document::read(text.as_bytes()).unwrap().name, name);
        }
        // A save from an old revision changes nothing at all.
        let late = store.save(id, 1, &named("late"), None).unwrap_err();
        assert!(matches!(late, StoreError::Conflict { current: 3 }), "{late}");
        assert_eq!(revisions(&store, id).len(), 3);
        assert_eq!(store.get(id).unwrap().document.name, "three");
    }

    #[test]
    fn a_deleted_corner_is_gone_from_sight_and_comes_back_as_it_was() {
        let store = store();
        let id = store.create(&named("gone")).unwrap().id;
        assert!(matches!(store.delete(id, 9), Err(StoreError::Conflict { current: 1 })));
        store.delete(id, 1).unwrap();
        assert!(matches!(store.get(id), Err(StoreError::Missing)));
        assert!(matches!(store.save(id, 1, &named("ghost"), None), Err(StoreError::Missing)));
        assert!(matches!(store.delete(id, 1), Err(StoreError::Missing)));
        assert!(store.all().unwrap().is_empty() && matches!(store.raw(id), Err(StoreError::Missing)));
        assert_ne!(store.create(&named("next")).unwrap().id, id);
        let back = store.restore(id).unwrap();
        assert_eq!((back.document.name.as_str(), back.revision), ("gone", 1));
        assert_eq!((store.all().unwrap().len(), revisions(&store, id).len()), (2, 1));
        // After a month it leaves nothing behind.
        store.delete(id, 1).unwrap();
        store
            .lock()
            .execute("UPDATE corner SET deleted_ms = deleted_ms - ?1", [KEPT_DELETED_MS + 1])
            .unwrap();
        let connection = store.connection.into_inner().unwrap();
        let again = Store::prepared(connection).unwrap();
        assert!(revisions(&again, id).is_empty() && matches!(again.restore(id), Err(StoreError::Missing)));
    }

    /// An answer that was lost on its way: the same save sent again is answered as then, and saved once.
    #[test]
    fn a_save_that_is_sent_twice_is_saved_once() {
        let store = store();
        let id = store.create(&named("one")).unwrap().id;
        let saved = store.save(id, 1, &named("two"), Some("k")).unwrap();
        let again = store.save(id, 1, &named("two"), Some("k")).unwrap();
        assert_eq!((saved.revision, again.revision, again.can_undo), (2, 2, true));
        // Whatever was saved since stays: what follows on the first answer meets it as a conflict.
        store.save(id, 2, &named("elsewhere"), Some("other")).unwrap();
        assert_eq!(store.save(id, 1, &named("two"), Some("k")).unwrap().revision, 2);
        let late = store.save(id, 2, &named("three"), Some("l")).unwrap_err();
        assert!(matches!(late, StoreError::Conflict { current: 3 }), "{late}");
        assert_eq!(store.get(id).unwrap().document.name, "elsewhere");
        assert_eq!(revisions(&store, id).len(), 3);
    }

    #[test]
    fn a_first_corner_is_kept_once() {
        let store = store();
        let brief = BriefFile::read(BRIEF.as_bytes()).unwrap();
        store.seed(std::slice::from_ref(&brief)).unwrap();
        store.seed(std::slice::from_ref(&brief)).unwrap();
        let all = store.all().unwrap();
        assert_eq!(all.len(), 1);
        assert!(matches!(&all[0], Entry::Kept(kept) if kept.document.layout.is_some()), "it is laid out");
    }

    #[test]
    fn the_last_saved_comes_first() {
        let store = store();
        let ids: Vec<i64> = ["a", "b", "c"].map(|n| store.create(&named(n)).unwrap().id).to_vec();
        std::thread::sleep(std::time::Duration::from_millis(3));
        store.save(ids[0], 1, &named("a again"), None).unwrap();
        let all = store.all().unwrap();
        assert!(matches!(&all[0], Entry::Kept(kept) if kept.document.name == "a again"));
        assert_eq!(all.len(), 3);
    }

    /// A row that this version cannot read is said to be so; it is neither dropped nor overwritten.
    #[test]
    fn an_unreadable_row_is_reported() {
        let store = store();
        let id = store.create(&named("fine")).unwrap().id;
        let newer = "{\"format\": \"fogon.plan\", \"version\": 9}";
        store.lock().execute("UPDATE corner SET document = ?1 WHERE id = ?2", params![newer, id]).unwrap();
        let error = store.get(id).unwrap_err();
        assert!(matches!(&error, StoreError::Stored(words) if words.contains("newer version")), "{error}");
        let kept: String = store
            .lock()
            .query_row("SELECT document FROM corner WHERE id = ?1", [id], |row| row.get(0))
            .unwrap();
        assert_eq!(kept, newer);
        // It takes nothing else with it: the others are listed, a demo starts, and what lies there can be saved.
        store.create(&named("other")).unwrap();
        let all = store.all().unwrap();
        assert!(matches!(&all[0], Entry::Kept(kept) if kept.document.name == "other"));
        assert!(
            matches!(&all[1], Entry::Unreadable { name, why, .. } if name == "fine" && why.contains("newer")),
            "{all:?}"
        );
        store.seed(&[BriefFile::read(BRIEF.as_bytes()).unwrap()]).unwrap();
        assert_eq!(store.all().unwrap().len(), 2);
        assert_eq!(store.raw(id).unwrap(), ("fine".to_owned(), newer.to_owned()));
        store.delete(id, 1).unwrap();
        assert_eq!(store.all().unwrap().len(), 1);
    }

    #[test]
    fn documents_come_back_as_they_went() {
        let bare = named("bare");
        assert!(bare.layout.is_none());
        let again = Document::read(bare.to_json().as_bytes()).unwrap();
        assert_eq!((again.name, again.brief, again.layout), (bare.name.clone(), bare.brief.clone(), None));
        let laid = bare.laid_out();
        let again = Document::read(laid.to_json().as_bytes()).unwrap();
        assert_eq!(again.layout, laid.layout);
        assert!(again.layout.is_some());
    }
}
