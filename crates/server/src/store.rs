//! Corners in one SQLite file. Every save is a row in `revision`; an acknowledged save is on the disk (WAL,
//! synchronous FULL).

use std::path::Path;
use std::sync::{Mutex, MutexGuard, PoisonError};
use std::time::{SystemTime, UNIX_EPOCH};

use fogon_core::arrange::propose;
use fogon_core::plan::{Brief, BriefFile, Layout, Plan};
use rusqlite::{Connection, OptionalExtension, TransactionBehavior, params};
use rusqlite_migration::{M, Migrations};
use thiserror::Error;

/// Never edit a step that has shipped: add one.
const STEPS: &[M<'static>] = &[M::up(
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
)];
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
    /// Its content.
    pub document: Document,
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
        Ok(Self { connection: Mutex::new(connection) })
    }

    fn lock(&self) -> MutexGuard<'_, Connection> {
        // A panic while holding the lock cannot leave half a change: every change is one transaction.
        self.connection.lock().unwrap_or_else(PoisonError::into_inner)
    }

    /// Keeps a first corner where there is none yet.
    ///
    /// # Errors
    /// SQLite refuses.
    pub fn seed(&self, brief: &BriefFile) -> Result<(), StoreError> {
        if self.all()?.is_empty() {
            let document = Document { name: brief.name.clone(), brief: brief.brief.clone(), layout: None };
            self.create(&document.laid_out())?;
        }
        Ok(())
    }

    /// All corners, the last saved first.
    ///
    /// # Errors
    /// SQLite refuses, or a document does not read.
    pub fn all(&self) -> Result<Vec<Kept>, StoreError> {
        let connection = self.lock();
        let mut query = connection.prepare_cached(
            "SELECT id, revision, updated_ms, document FROM corner ORDER BY updated_ms DESC, id DESC",
        )?;
        let rows: Result<Vec<_>, _> = query.query_map([], raw)?.collect();
        rows?.into_iter().map(read).collect()
    }

    /// One corner.
    ///
    /// # Errors
    /// [`StoreError::Missing`], or SQLite refuses.
    pub fn get(&self, id: i64) -> Result<Kept, StoreError> {
        let connection = self.lock();
        let row = connection
            .prepare_cached("SELECT id, revision, updated_ms, document FROM corner WHERE id = ?1")?
            .query_row([id], raw)
            .optional()?;
        read(row.ok_or(StoreError::Missing)?)
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
        Ok(Kept { id, revision: 1, updated_ms: now, document: document.clone() })
    }

    /// Saves a corner that was read at `revision`.
    ///
    /// # Errors
    /// [`StoreError::Missing`], [`StoreError::Conflict`], or SQLite refuses.
    pub fn save(&self, id: i64, revision: i64, document: &Document) -> Result<Kept, StoreError> {
        let text = document.to_json();
        let now = now_ms();
        let mut connection = self.lock();
        let change = connection.transaction_with_behavior(TransactionBehavior::Immediate)?;
        let current: i64 = change
            .query_row("SELECT revision FROM corner WHERE id = ?1", [id], |row| row.get(0))
            .optional()?
            .ok_or(StoreError::Missing)?;
        if current != revision {
            return Err(StoreError::Conflict { current });
        }
        let next = revision + 1;
        change.execute(
            "UPDATE corner SET name = ?2, revision = ?3, updated_ms = ?4, document = ?5 WHERE id = ?1",
            params![id, document.name, next, now, text],
        )?;
        change.execute(
            "INSERT INTO revision (corner, number, at_ms, document) VALUES (?1, ?2, ?3, ?4)",
            params![id, next, now, text],
        )?;
        change.commit()?;
        Ok(Kept { id, revision: next, updated_ms: now, document: document.clone() })
    }

    /// Forgets a corner and its revisions.
    ///
    /// # Errors
    /// [`StoreError::Missing`], [`StoreError::Conflict`], or SQLite refuses.
    pub fn delete(&self, id: i64, revision: i64) -> Result<(), StoreError> {
        let mut connection = self.lock();
        let change = connection.transaction_with_behavior(TransactionBehavior::Immediate)?;
        let current: Option<i64> = change
            .query_row("SELECT revision FROM corner WHERE id = ?1", [id], |row| row.get(0))
            .optional()?;
        match current {
            None => return Err(StoreError::Missing),
            Some(current) if current != revision => return Err(StoreError::Conflict { current }),
            Some(_) => {}
        }
        change.execute("DELETE FROM corner WHERE id = ?1", [id])?;
        change.commit()?;
        Ok(())
    }
}

type Raw = (i64, i64, i64, String);

fn raw(row: &rusqlite::Row<'_>) -> rusqlite::Result<Raw> {
    Ok((row.get(0)?, row.get(1)?, row.get(2)?, row.get(3)?))
}

fn read((id, revision, updated_ms, text): Raw) -> Result<Kept, StoreError> {
    let document =
        Document::read(text.as_bytes()).map_err(|problems| StoreError::Stored(problems.to_string()))?;
    Ok(Kept { id, revision, updated_ms, document })
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

    /// Undo, conflict and history rest on this: every save is a row of its own, as it was written.
    #[test]
    fn every_save_is_a_revision() {
        let store = store();
        let id = store.create(&named("one")).unwrap().id;
        assert_eq!(store.save(id, 1, &named("two")).unwrap().revision, 2);
        assert_eq!(store.save(id, 2, &named("three")).unwrap().revision, 3);
        let rows = revisions(&store, id);
        assert_eq!(rows.iter().map(|(number, _)| *number).collect::<Vec<_>>(), [1, 2, 3]);
        for ((_, text), name) in rows.iter().zip(["one", "two", "three"]) {
            assert_eq!(Document::read(text.as_bytes()).unwrap().name, name);
        }
        // A save from an old revision changes nothing at all.
        let late = store.save(id, 1, &named("late")).unwrap_err();
        assert!(matches!(late, StoreError::Conflict { current: 3 }), "{late}");
        assert_eq!(revisions(&store, id).len(), 3);
        assert_eq!(store.get(id).unwrap().document.name, "three");
    }

    #[test]
    fn a_deleted_corner_leaves_nothing_and_its_id_is_not_used_again() {
        let store = store();
        let id = store.create(&named("gone")).unwrap().id;
        assert!(matches!(store.delete(id, 9), Err(StoreError::Conflict { current: 1 })));
        store.delete(id, 1).unwrap();
        assert!(matches!(store.get(id), Err(StoreError::Missing)));
        assert!(matches!(store.save(id, 1, &named("ghost")), Err(StoreError::Missing)));
        assert!(matches!(store.delete(id, 1), Err(StoreError::Missing)));
        assert!(revisions(&store, id).is_empty());
        assert_ne!(store.create(&named("next")).unwrap().id, id);
    }

    #[test]
    fn a_first_corner_is_kept_once() {
        let store = store();
        let brief = BriefFile::read(BRIEF.as_bytes()).unwrap();
        store.seed(&brief).unwrap();
        store.seed(&brief).unwrap();
        let all = store.all().unwrap();
        assert_eq!(all.len(), 1);
        assert!(all[0].document.layout.is_some(), "it is laid out");
    }

    #[test]
    fn the_last_saved_comes_first() {
        let store = store();
        let ids: Vec<i64> = ["a", "b", "c"].map(|n| store.create(&named(n)).unwrap().id).to_vec();
        std::thread::sleep(std::time::Duration::from_millis(3));
        store.save(ids[0], 1, &named("a again")).unwrap();
        let names: Vec<String> = store.all().unwrap().into_iter().map(|k| k.document.name).collect();
        assert_eq!(names[0], "a again");
        assert_eq!(names.len(), 3);
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
