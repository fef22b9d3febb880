//! What was deleted: kept for thirty days, brought back, or gone for good.

use rusqlite::{Transaction, params};
use serde::Serialize;
use utoipa::ToSchema;

use crate::corners::{Kept, expect};
use crate::document::drop_unheld;
use crate::file::{Store, now_ms};
use crate::trouble::StoreError;

/// A deleted corner can be brought back for so long, ms: 30 days, Fogon's own rule.
const KEPT_MS: i64 = 30 * 24 * 3600 * 1000;

/// A corner in the bin.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
pub struct Deleted {
    /// Id for good.
    pub id: i64,
    /// Its name.
    pub name: String,
    /// When it was deleted, ms since 1970.
    pub deleted_ms: i64,
    /// When it goes for good, ms since 1970.
    pub goes_ms: i64,
}

impl Store {
    /// Takes a corner out of sight; it can be brought back for a while.
    ///
    /// # Errors
    /// [`StoreError::Missing`], [`StoreError::Conflict`], or SQLite refuses.
    pub fn delete(&self, id: i64, revision: i64) -> Result<(), StoreError> {
        self.write(|change| {
            expect(change, id, revision)?;
            change.execute("UPDATE corner SET deleted_ms = ?2 WHERE id = ?1", params![id, now_ms()])?;
            Ok(())
        })
    }

    /// Brings a deleted corner back as it was.
    ///
    /// # Errors
    /// [`StoreError::Missing`] of one that is not there any more, or SQLite refuses.
    pub fn restore(&self, id: i64) -> Result<Kept, StoreError> {
        self.write(|change| {
            change.execute("UPDATE corner SET deleted_ms = NULL WHERE id = ?1", [id])?;
            Ok(())
        })?;
        self.get(id)
    }

    /// What lies in the bin, the last deleted first.
    ///
    /// # Errors
    /// SQLite refuses.
    pub fn deleted(&self) -> Result<Vec<Deleted>, StoreError> {
        self.read(|connection| {
            let mut query = connection.prepare_cached(
                "SELECT id, name, deleted_ms FROM corner WHERE deleted_ms IS NOT NULL ORDER BY deleted_ms DESC, id DESC",
            )?;
            let rows = query.query_map([], |row| {
                let deleted_ms: i64 = row.get(2)?;
                Ok(Deleted { id: row.get(0)?, name: row.get(1)?, deleted_ms, goes_ms: deleted_ms + KEPT_MS })
            })?;
            Ok(rows.collect::<Result<_, _>>()?)
        })
    }

    /// Deletes what lies in the bin for good, one corner or all of it: neither the file nor a snapshot holds it any more.
    ///
    /// # Errors
    /// SQLite or the disk refuses.
    pub fn empty_bin(&self, only: Option<i64>) -> Result<usize, StoreError> {
        let gone = self.write(|change| {
            let gone = change.execute(
                "DELETE FROM corner WHERE deleted_ms IS NOT NULL AND (?1 IS NULL OR id = ?1)",
                [only],
            )?;
            drop_unheld(change)?;
            Ok(gone)
        })?;
        if gone > 0 {
            self.wipe()?;
            self.renew_snapshots()?;
        }
        Ok(gone)
    }

    /// Deletes for good what has lain in the bin long enough. The snapshots that still hold it go within seven days.
    pub(crate) fn empty_bin_of_old(&self) -> Result<(), StoreError> {
        let gone = self.write(|change| purge(change, now_ms() - KEPT_MS))?;
        if gone > 0 {
            self.wipe()?;
        }
        Ok(())
    }

    /// Leaves nothing readable of what was deleted in the file and its log.
    pub(crate) fn wipe(&self) -> Result<(), StoreError> {
        self.with_writer(|writer| Ok(writer.execute_batch("VACUUM")?))?;
        self.fold()
    }
}

fn purge(change: &Transaction<'_>, before_ms: i64) -> Result<usize, StoreError> {
    let gone = change.execute("DELETE FROM corner WHERE deleted_ms < ?1", [before_ms])?;
    if gone > 0 {
        drop_unheld(change)?;
    }
    Ok(gone)
}
