//! Every save of a corner: listed, read, named, brought back; and thinned by a rule that the person can change.

use std::collections::{BTreeMap, HashMap, HashSet};

use rusqlite::{OptionalExtension, Transaction, params};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::corners::{Kept, Next, at, expect, put};
use crate::document::{Document, drop_unheld, stored};
use crate::file::{Store, now_ms};
use crate::trouble::StoreError;

const HOUR_MS: i64 = 3600 * 1000;
const DAY_MS: i64 = 24 * HOUR_MS;
/// So many saves are listed at a time.
const LISTED: i64 = 100;

/// One save of a corner.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
pub struct Saved {
    /// Its number.
    pub revision: i64,
    /// When, ms since 1970.
    pub at_ms: i64,
    /// What the person calls it; such a save is never thinned out.
    pub name: Option<String>,
}

/// Which saves are kept: all of the first days, then one an hour, then one a day. Named ones always stay, and the last.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Thinning {
    /// So many days every save is kept.
    #[schema(minimum = 1, maximum = 36500)]
    pub all_days: u16,
    /// So many days one an hour.
    #[schema(minimum = 1, maximum = 36500)]
    pub hourly_days: u16,
    /// So many days one a day; none to keep them for good.
    pub daily_days: Option<u16>,
}

fogon_core::shape!(Thinning => |_: &Thinning| Ok(()));

impl Default for Thinning {
    /// All of a day, one an hour for a week, one a day for good. Fogon's own rule.
    fn default() -> Self {
        Self { all_days: 1, hourly_days: 7, daily_days: None }
    }
}

impl Store {
    /// Saves of a corner before a number, the last first; a hundred at most.
    ///
    /// # Errors
    /// [`StoreError::Missing`], or SQLite refuses.
    pub fn revisions(&self, id: i64, before: Option<i64>) -> Result<Vec<Saved>, StoreError> {
        self.read(|connection| {
            let known: bool = connection.query_row(
                "SELECT EXISTS (SELECT 1 FROM corner WHERE id = ?1 AND deleted_ms IS NULL)",
                [id],
                |row| row.get(0),
            )?;
            if !known {
                return Err(StoreError::Missing);
            }
            let mut query = connection.prepare_cached(
                "SELECT number, at_ms, name FROM revision WHERE corner = ?1 AND number < ?2 ORDER BY number DESC LIMIT ?3",
            )?;
            let rows = query.query_map(params![id, before.unwrap_or(i64::MAX), LISTED], |row| {
                Ok(Saved { revision: row.get(0)?, at_ms: row.get(1)?, name: row.get(2)? })
            })?;
            Ok(rows.collect::<Result<_, _>>()?)
        })
    }

    /// A corner as it was once saved.
    ///
    /// # Errors
    /// [`StoreError::Missing`], SQLite refuses, or the document does not read.
    pub fn revision(&self, id: i64, number: i64) -> Result<Document, StoreError> {
        self.read(|connection| {
            let body: Option<Vec<u8>> = connection
                .prepare_cached(
                    "SELECT d.body FROM revision r JOIN document d ON d.id = r.document
                    WHERE r.corner = ?1 AND r.number = ?2",
                )?
                .query_row([id, number], |row| row.get(0))
                .optional()?;
            stored(&body.ok_or(StoreError::Missing)?)
        })
    }

    /// Names a save, or takes its name away.
    ///
    /// # Errors
    /// [`StoreError::Missing`], or SQLite refuses.
    pub fn name_revision(&self, id: i64, number: i64, name: Option<&str>) -> Result<(), StoreError> {
        self.write(|change| {
            let found = change.execute(
                "UPDATE revision SET name = ?3 WHERE corner = ?1 AND number = ?2",
                params![id, number, name],
            )?;
            if found == 0 { Err(StoreError::Missing) } else { Ok(()) }
        })
    }

    /// Brings back how a corner once stood, as a new revision after `revision`.
    ///
    /// # Errors
    /// [`StoreError::Missing`], [`StoreError::Conflict`], the document does not read, or SQLite refuses.
    pub fn bring_back(&self, id: i64, revision: i64, number: i64) -> Result<Kept, StoreError> {
        self.write(|change| {
            expect(change, id, revision)?;
            let there = at(change, id, number)?;
            let document = stored(&there.body)?;
            let next =
                Next { content: there.content, document, undo_to: Some(revision), redo_to: None, key: None };
            put(change, id, revision, next)
        })
    }

    /// The rule by which saves are thinned out.
    ///
    /// # Errors
    /// SQLite refuses.
    pub fn thinning(&self) -> Result<Thinning, StoreError> {
        Ok(self.choice(THINNING)?.and_then(|text| serde_json::from_str(&text).ok()).unwrap_or_default())
    }

    /// Changes the rule; what it drops goes the next time the house is kept.
    ///
    /// # Errors
    /// SQLite refuses.
    pub fn choose_thinning(&self, rule: Thinning) -> Result<(), StoreError> {
        self.choose(THINNING, &serde_json::to_string(&rule).unwrap_or_default())
    }

    /// Drops what the rule does not keep; how many saves.
    ///
    /// # Errors
    /// SQLite refuses.
    pub fn thin(&self) -> Result<usize, StoreError> {
        let rule = self.thinning()?;
        self.write(|change| thin(change, rule, now_ms()))
    }
}

const THINNING: &str = "thinning";

/// A save, as thinning looks at it.
struct Row {
    corner: i64,
    number: i64,
    at_ms: i64,
    undo_to: Option<i64>,
    redo_to: Option<i64>,
    stays: bool,
}

pub(crate) fn thin(change: &Transaction<'_>, rule: Thinning, now_ms: i64) -> Result<usize, StoreError> {
    let rows: Vec<Row> = change
        .prepare(
            "SELECT r.corner, r.number, r.at_ms, r.undo_to, r.redo_to, r.name IS NOT NULL OR c.revision = r.number
            FROM revision r JOIN corner c ON c.id = r.corner ORDER BY r.corner, r.number DESC",
        )?
        .query_map([], |row| {
            Ok(Row {
                corner: row.get(0)?,
                number: row.get(1)?,
                at_ms: row.get(2)?,
                undo_to: row.get(3)?,
                redo_to: row.get(4)?,
                stays: row.get(5)?,
            })
        })?
        .collect::<Result<_, _>>()?;
    let mut dropped = 0;
    for of_one in rows.chunk_by(|a, b| a.corner == b.corner) {
        dropped += thin_one(change, of_one, rule, now_ms)?;
    }
    if dropped > 0 {
        drop_unheld(change)?;
    }
    Ok(dropped)
}

/// Thins the saves of one corner, the last first.
fn thin_one(
    change: &Transaction<'_>,
    rows: &[Row],
    rule: Thinning,
    now_ms: i64,
) -> Result<usize, StoreError> {
    let mut seen = HashSet::new();
    let gone: BTreeMap<i64, &Row> = rows
        .iter()
        .filter(|row| {
            let age_ms = now_ms - row.at_ms;
            let days = |days: u16| i64::from(days) * DAY_MS;
            let kept = if age_ms < days(rule.all_days) {
                true
            } else if age_ms < days(rule.hourly_days) {
                seen.insert(("hour", row.at_ms / HOUR_MS))
            } else {
                rule.daily_days.is_none_or(|most| age_ms < days(most))
                    && seen.insert(("day", row.at_ms / DAY_MS))
            };
            !(kept || row.stays)
        })
        .map(|row| (row.number, row))
        .collect();
    if gone.is_empty() {
        return Ok(0);
    }
    // A way back or forth through a save that goes leads on to where that one led.
    let follow = |mut to: Option<i64>, on: fn(&Row) -> Option<i64>| {
        let mut steps = 0;
        while let Some(row) = to.and_then(|number| gone.get(&number)) {
            steps += 1;
            to = on(row).filter(|_| steps <= rows.len());
        }
        to
    };
    let mut links = HashMap::new();
    for row in rows.iter().filter(|row| !gone.contains_key(&row.number)) {
        let now = (follow(row.undo_to, |row| row.undo_to), follow(row.redo_to, |row| row.redo_to));
        if now != (row.undo_to, row.redo_to) {
            links.insert(row.number, now);
        }
    }
    let corner = rows.first().map_or(0, |row| row.corner);
    for (number, (undo_to, redo_to)) in links {
        change
            .prepare_cached(
                "UPDATE revision SET undo_to = ?3, redo_to = ?4 WHERE corner = ?1 AND number = ?2",
            )?
            .execute(params![corner, number, undo_to, redo_to])?;
    }
    for number in gone.keys() {
        change
            .prepare_cached("DELETE FROM revision WHERE corner = ?1 AND number = ?2")?
            .execute([corner, *number])?;
    }
    Ok(gone.len())
}
