//! The logbook of a corner: entries from the desk and from phones; of two that speak of one entry the later holds.

use fogon_core::run::{Entry, What};
use rusqlite::{Connection, Transaction, params};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::file::{Store, now_ms};
use crate::trouble::StoreError;

const DAY_MS: i64 = 24 * 3600 * 1000;
/// So many entries are remembered for a corner; those that were touched longest ago give way.
const KEPT: i64 = 20_000;
/// Name of the choice.
const LOGGING: &str = "logging";

/// How long the logbook is kept.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Logging {
    /// Sessions go after so many days; none to keep them for good.
    #[schema(minimum = 1, maximum = 36500)]
    pub days: Option<u16>,
}

/// What was written into a logbook after a write, and how it stands.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct LogSince {
    /// Entries, by the time they were touched.
    pub entries: Vec<Entry>,
    /// The last write.
    pub written: i64,
    /// So many entries there are in all: fewer than are known where something was deleted.
    pub count: i64,
}

fogon_core::shape!(Logging => |_: &Logging| Ok(()));

impl Store {
    /// All entries of a corner, by the time they were touched.
    ///
    /// # Errors
    /// An entry does not read, or SQLite refuses.
    pub fn log(&self, corner: i64) -> Result<Vec<Entry>, StoreError> {
        self.read(|connection| read(connection, corner, 0))
    }

    /// What was written into a corner's logbook after a write, and how it stands: who asks often is told only what is new.
    ///
    /// # Errors
    /// An entry does not read, or SQLite refuses.
    pub fn log_since(&self, corner: i64, written: i64) -> Result<LogSince, StoreError> {
        self.read(|connection| since(connection, corner, written))
    }

    /// Adds entries, made here or elsewhere; what was written after a write then, these included. Sent twice they are there once. The
    /// save at which a session's corner stands gets a name, so that it is never thinned out.
    ///
    /// # Errors
    /// [`StoreError::Missing`], or SQLite refuses.
    pub fn add_to_log(&self, corner: i64, entries: &[Entry], written: i64) -> Result<LogSince, StoreError> {
        self.write(|change| {
            let there = "SELECT EXISTS (SELECT 1 FROM corner WHERE id = ?1 AND deleted_ms IS NULL)";
            if !change.prepare_cached(there)?.query_row([corner], |row| row.get::<_, bool>(0))? {
                return Err(StoreError::Missing);
            }
            for entry in entries {
                keep(change, corner, entry)?;
                if let What::Session(session) = &entry.what {
                    change
                        .prepare_cached(
                            "UPDATE revision SET name = 'Recorded' WHERE corner = ?1 AND number = ?2 AND name IS NULL",
                        )?
                        .execute([corner, session.revision])?;
                }
            }
            change
                .prepare_cached(
                    "DELETE FROM log WHERE corner = ?1 AND uid NOT IN
                    (SELECT uid FROM log WHERE corner = ?1 ORDER BY at_ms DESC, uid LIMIT ?2)",
                )?
                .execute([corner, KEPT])?;
            since(change, corner, written)
        })
    }

    /// Deletes a session with everything in it: neither the file nor a snapshot holds it any more. How many entries that were.
    ///
    /// # Errors
    /// SQLite or the disk refuses.
    pub fn delete_session(&self, corner: i64, session: &str) -> Result<usize, StoreError> {
        let gone = self.write(|change| {
            Ok(change
                .execute("DELETE FROM log WHERE corner = ?1 AND session = ?2", params![corner, session])?)
        })?;
        if gone > 0 {
            self.wipe()?;
            self.renew_snapshots()?;
        }
        Ok(gone)
    }

    /// How long sessions are kept.
    ///
    /// # Errors
    /// SQLite refuses.
    pub fn logging(&self) -> Result<Logging, StoreError> {
        Ok(self.choice(LOGGING)?.and_then(|text| serde_json::from_str(&text).ok()).unwrap_or_default())
    }

    /// Changes how long sessions are kept; what is older goes the next time the house is kept.
    ///
    /// # Errors
    /// SQLite refuses.
    pub fn choose_logging(&self, rule: Logging) -> Result<(), StoreError> {
        self.choose(LOGGING, &serde_json::to_string(&rule).unwrap_or_default())
    }

    /// Deletes sessions of which nothing was touched for as long as the person wants them kept.
    pub(crate) fn forget_old_sessions(&self) -> Result<(), StoreError> {
        let Some(days) = self.logging()?.days else { return Ok(()) };
        let before = now_ms() - i64::from(days) * DAY_MS;
        let gone = self.write(|change| {
            Ok(change.execute(
                "DELETE FROM log WHERE (corner, session) IN
                (SELECT corner, session FROM log GROUP BY corner, session HAVING max(at_ms) < ?1)",
                [before],
            )?)
        })?;
        if gone > 0 {
            self.wipe()?;
        }
        Ok(())
    }
}

/// Keeps one entry, unless a later one of its name is there.
pub(crate) fn keep(change: &Transaction<'_>, corner: i64, entry: &Entry) -> Result<(), StoreError> {
    // Entries have no key that JSON cannot hold.
    let body = serde_json::to_string(&entry).unwrap_or_default();
    change
        .prepare_cached(
            "INSERT INTO log (corner, uid, session, at_ms, body, written)
            VALUES (?1, ?2, ?3, ?4, ?5, (SELECT coalesce(max(written), 0) + 1 FROM log WHERE corner = ?1))
            ON CONFLICT (corner, uid) DO UPDATE SET session = excluded.session, at_ms = excluded.at_ms, body = excluded.body,
            written = excluded.written WHERE excluded.at_ms > log.at_ms",
        )?
        .execute(params![corner, entry.uid, entry.session, entry.at_ms, body])?;
    Ok(())
}

pub(crate) fn read(connection: &Connection, corner: i64, written: i64) -> Result<Vec<Entry>, StoreError> {
    let mut rows = connection
        .prepare_cached("SELECT body FROM log WHERE corner = ?1 AND written > ?2 ORDER BY at_ms, uid")?;
    let all = rows.query_map([corner, written], |row| row.get::<_, String>(0))?;
    all.map(|body| serde_json::from_str(&body?).map_err(|error| StoreError::Stored(error.to_string())))
        .collect()
}

fn since(connection: &Connection, corner: i64, written: i64) -> Result<LogSince, StoreError> {
    let mut stand =
        connection.prepare_cached("SELECT coalesce(max(written), 0), count(*) FROM log WHERE corner = ?1")?;
    let (newest, count) = stand.query_row([corner], |row| Ok((row.get(0)?, row.get(1)?)))?;
    Ok(LogSince { entries: read(connection, corner, written)?, written: newest, count })
}
