//! The tables, step by step. Never edit a step that has shipped: add one.

use rusqlite::{Connection, Transaction, params};
use rusqlite_migration::{HookResult, M, Migrations};
use uuid::Uuid;

use crate::document::keep;
use crate::trouble::StoreError;

/// "Fogn", by which a file says whose it is.
pub(crate) const APPLICATION_ID: i64 = 0x466f_676e;

/// The steps, in order.
pub(crate) fn steps() -> Vec<M<'static>> {
    vec![
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
        // Each content once and packed; what is told of it kept beside it; corners known by the same name on every machine;
        // revisions that the person named; what the person chose about keeping.
        M::up_with_hook(
            "CREATE TABLE document (
        id INTEGER PRIMARY KEY AUTOINCREMENT,
        hash BLOB NOT NULL UNIQUE,
        body BLOB NOT NULL
    ) STRICT;
    CREATE TABLE told (
        document INTEGER PRIMARY KEY REFERENCES document(id) ON DELETE CASCADE,
        by TEXT NOT NULL,
        words TEXT NOT NULL
    ) STRICT;
    CREATE TABLE picture (
        document INTEGER NOT NULL REFERENCES document(id) ON DELETE CASCADE,
        width INTEGER NOT NULL,
        by TEXT NOT NULL,
        file BLOB NOT NULL,
        PRIMARY KEY (document, width)
    ) STRICT;
    CREATE TABLE choice (
        name TEXT PRIMARY KEY,
        value TEXT NOT NULL
    ) STRICT;
    ALTER TABLE revision RENAME TO revision_before;
    CREATE TABLE revision (
        corner INTEGER NOT NULL REFERENCES corner(id) ON DELETE CASCADE,
        number INTEGER NOT NULL,
        at_ms INTEGER NOT NULL,
        document INTEGER NOT NULL REFERENCES document(id),
        undo_to INTEGER,
        redo_to INTEGER,
        save_key TEXT,
        name TEXT,
        PRIMARY KEY (corner, number)
    ) STRICT;
    CREATE INDEX revision_document ON revision (document);
    ALTER TABLE corner ADD COLUMN uid TEXT;",
            pack,
        ),
        M::up(
            "DROP TABLE revision_before;
        ALTER TABLE corner DROP COLUMN document;
        CREATE UNIQUE INDEX corner_uid ON corner (uid);
        CREATE INDEX corner_updated ON corner (updated_ms DESC, id DESC) WHERE deleted_ms IS NULL;",
        ),
        // What was ticked while a corner is laid.
        M::up(
            "CREATE TABLE tick (
        corner INTEGER NOT NULL REFERENCES corner(id) ON DELETE CASCADE,
        step TEXT NOT NULL,
        done INTEGER NOT NULL,
        at_ms INTEGER NOT NULL,
        by TEXT NOT NULL,
        PRIMARY KEY (corner, step)
    ) STRICT;",
        ),
        // The logbook: what was recorded, by session.
        M::up(
            "CREATE TABLE log (
        corner INTEGER NOT NULL REFERENCES corner(id) ON DELETE CASCADE,
        uid TEXT NOT NULL,
        session TEXT NOT NULL,
        at_ms INTEGER NOT NULL,
        body TEXT NOT NULL,
        written INTEGER NOT NULL,
        PRIMARY KEY (corner, uid)
    ) STRICT;
    CREATE INDEX log_written ON log (corner, written);",
        ),
    ]
}

/// Version of the tables that this program makes: the number of steps.
pub(crate) const NEWEST: i64 = 8;

/// Brings a file's tables up to date.
pub(crate) fn migrate(connection: &mut Connection) -> Result<(), StoreError> {
    Ok(Migrations::new(steps()).to_latest(connection)?)
}

/// Packs what lay as text, and gives every corner its name for all machines.
fn pack(change: &Transaction<'_>) -> HookResult {
    let trouble = |error: StoreError| rusqlite_migration::HookError::Hook(error.to_string());
    let mut rows = change.prepare(
        "SELECT corner, number, at_ms, document, undo_to, redo_to, save_key FROM revision_before ORDER BY corner, number",
    )?;
    let mut put = change.prepare(
        "INSERT INTO revision (corner, number, at_ms, document, undo_to, redo_to, save_key) VALUES (?1, ?2, ?3, ?4, ?5, ?6, ?7)",
    )?;
    let mut rows = rows.query([])?;
    while let Some(row) = rows.next()? {
        let text: String = row.get(3)?;
        // Without blanks, as saves write it from now on; what is no JSON stays as it is.
        let line = serde_json::from_str::<serde_json::Value>(&text).map_or(text, |value| value.to_string());
        let document = keep(change, &line).map_err(trouble)?;
        put.execute(params![
            row.get::<_, i64>(0)?,
            row.get::<_, i64>(1)?,
            row.get::<_, i64>(2)?,
            document,
            row.get::<_, Option<i64>>(4)?,
            row.get::<_, Option<i64>>(5)?,
            row.get::<_, Option<String>>(6)?
        ])?;
    }
    let corners: Vec<i64> = change
        .prepare("SELECT id FROM corner")?
        .query_map([], |row| row.get(0))?
        .collect::<Result<_, _>>()?;
    for corner in corners {
        change.execute("UPDATE corner SET uid = ?2 WHERE id = ?1", params![corner, new_uid()])?;
    }
    Ok(())
}

/// A name that no other corner has, here or on another machine.
pub(crate) fn new_uid() -> String {
    Uuid::new_v4().to_string()
}

/// Whether a file without an application id was made by a Fogon of the time before there was one.
pub(crate) fn looks_like_ours(connection: &Connection, version: i64) -> rusqlite::Result<bool> {
    const TABLES: [&str; 3] = ["corner", "revision", "voice"];
    let mut query = connection.prepare(
        "SELECT name FROM sqlite_schema WHERE type = 'table' AND name NOT LIKE 'sqlite\\_%' ESCAPE '\\'",
    )?;
    let tables: Vec<String> = query.query_map([], |row| row.get(0))?.collect::<Result<_, _>>()?;
    let ours = tables.iter().all(|name| TABLES.contains(&name.as_str()));
    Ok((1..=4).contains(&version) && ours && tables.iter().any(|name| name == "revision"))
}
