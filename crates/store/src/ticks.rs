//! What was ticked while a corner is laid: by whom, when; of two that speak of one step the later one holds.

use rusqlite::params;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::file::Store;
use crate::trouble::StoreError;

/// So many steps are remembered for a corner; those that were touched longest ago give way.
const KEPT: i64 = 600;

/// A step that was ticked, or whose tick was taken back.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Tick {
    /// The step's name.
    #[schema(pattern = "^[a-z0-9._-]{1,120}$")]
    pub step: String,
    /// It is done.
    pub done: bool,
    /// When it was touched, ms since 1970.
    #[schema(minimum = 0)]
    pub at_ms: i64,
    /// Where: the desk, or which phone. Whatever is sent, the server knows better.
    #[serde(default)]
    #[schema(max_length = 40)]
    pub by: String,
}

impl Store {
    /// Everything that was ticked in a corner.
    ///
    /// # Errors
    /// SQLite refuses.
    pub fn ticks(&self, corner: i64) -> Result<Vec<Tick>, StoreError> {
        self.read(|connection| read(connection, corner))
    }

    /// Adds what was ticked, here or meanwhile elsewhere; all there is then. Sent twice it is there once.
    ///
    /// # Errors
    /// [`StoreError::Missing`], or SQLite refuses.
    pub fn tick(&self, corner: i64, ticks: &[Tick]) -> Result<Vec<Tick>, StoreError> {
        self.write(|change| {
            let there = "SELECT EXISTS (SELECT 1 FROM corner WHERE id = ?1 AND deleted_ms IS NULL)";
            if !change.prepare_cached(there)?.query_row([corner], |row| row.get::<_, bool>(0))? {
                return Err(StoreError::Missing);
            }
            let mut put = change.prepare_cached(
                "INSERT INTO tick (corner, step, done, at_ms, by) VALUES (?1, ?2, ?3, ?4, ?5)
                ON CONFLICT (corner, step) DO UPDATE SET done = excluded.done, at_ms = excluded.at_ms, by = excluded.by
                WHERE excluded.at_ms >= tick.at_ms",
            )?;
            for tick in ticks {
                put.execute(params![corner, tick.step, tick.done, tick.at_ms, tick.by])?;
            }
            change
                .prepare_cached(
                    "DELETE FROM tick WHERE corner = ?1 AND step NOT IN
                    (SELECT step FROM tick WHERE corner = ?1 ORDER BY at_ms DESC, step LIMIT ?2)",
                )?
                .execute([corner, KEPT])?;
            read(change, corner)
        })
    }
}

fn read(connection: &rusqlite::Connection, corner: i64) -> Result<Vec<Tick>, StoreError> {
    let mut rows = connection
        .prepare_cached("SELECT step, done, at_ms, by FROM tick WHERE corner = ?1 ORDER BY step")?;
    let all = rows.query_map([corner], |row| {
        Ok(Tick { step: row.get(0)?, done: row.get(1)?, at_ms: row.get(2)?, by: row.get(3)? })
    })?;
    Ok(all.collect::<Result<_, _>>()?)
}
