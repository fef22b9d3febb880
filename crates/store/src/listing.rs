//! The list of corners, a page at a time. What is told of a corner in it is kept beside its content, so that nothing is worked
//! out again to list it.

use rusqlite::{OptionalExtension, params};

use crate::document::{Document, stored};
use crate::file::Store;
use crate::trouble::StoreError;

/// A corner in the list.
#[derive(Debug, Clone)]
pub struct Entry {
    /// Id for good.
    pub id: i64,
    /// The revision kept now.
    pub revision: i64,
    /// When it was last saved, ms since 1970.
    pub updated_ms: i64,
    /// The name it was saved under.
    pub name: String,
    /// What is told of it.
    pub told: Told,
    content: i64,
}

/// What is told of a corner's content.
#[derive(Debug, Clone)]
pub enum Told {
    /// As it was kept.
    Kept(String),
    /// Nothing yet: its content, of which it is to be told.
    Not(Box<Document>),
    /// It does not read; it is kept as it is. Why, in words.
    Unreadable(String),
}

/// A page of the list.
#[derive(Debug, Clone)]
pub struct Page {
    /// Corners, the last saved first.
    pub entries: Vec<Entry>,
    /// How many there are on all pages.
    pub count: i64,
    /// From where the next page begins, if there is one.
    pub next: Option<Cursor>,
}

/// The last corner of a page.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Cursor {
    /// When it was last saved, ms since 1970.
    pub updated_ms: i64,
    /// Its id.
    pub id: i64,
}

impl Store {
    /// The next corners after one, at most `most`, whose names hold `part`; told by whoever names itself `by`.
    ///
    /// # Errors
    /// SQLite refuses.
    pub fn page(&self, after: Option<Cursor>, most: usize, part: &str, by: &str) -> Result<Page, StoreError> {
        let Cursor { updated_ms, id } = after.unwrap_or(Cursor { updated_ms: i64::MAX, id: i64::MAX });
        let part = format!("%{}%", part.replace('\\', "\\\\").replace('%', "\\%").replace('_', "\\_"));
        self.read(|connection| {
            let count = connection
                .prepare_cached(
                    "SELECT count(*) FROM corner WHERE deleted_ms IS NULL AND name LIKE ?1 ESCAPE '\\'",
                )?
                .query_row([&part], |row| row.get(0))?;
            let mut query = connection.prepare_cached(
                "SELECT c.id, c.revision, c.updated_ms, c.name, r.document, t.words
                FROM corner c JOIN revision r ON r.corner = c.id AND r.number = c.revision
                LEFT JOIN told t ON t.document = r.document AND t.by = ?4
                WHERE c.deleted_ms IS NULL AND (c.updated_ms, c.id) < (?1, ?2) AND c.name LIKE ?3 ESCAPE '\\'
                ORDER BY c.updated_ms DESC, c.id DESC LIMIT ?5",
            )?;
            let limit = i64::try_from(most).unwrap_or(i64::MAX);
            let rows = query.query_map(params![updated_ms, id, part, by, limit], |row| {
                Ok((
                    (row.get(0)?, row.get(1)?, row.get(2)?, row.get::<_, String>(3)?),
                    row.get::<_, i64>(4)?,
                    row.get::<_, Option<String>>(5)?,
                ))
            })?;
            let mut entries = Vec::new();
            for row in rows {
                let ((id, revision, updated_ms, name), content, words) = row?;
                let told = match words {
                    Some(words) => Told::Kept(words),
                    None => {
                        let body: Option<Vec<u8>> = connection
                            .prepare_cached("SELECT body FROM document WHERE id = ?1")?
                            .query_row([content], |row| row.get(0))
                            .optional()?;
                        match stored(&body.unwrap_or_default()) {
                            Ok(document) => Told::Not(Box::new(document)),
                            Err(error) => Told::Unreadable(error.to_string()),
                        }
                    }
                };
                entries.push(Entry { id, revision, updated_ms, name, told, content });
            }
            let full = entries.len() == most;
            let next = entries
                .last()
                .filter(|_| full)
                .map(|last| Cursor { updated_ms: last.updated_ms, id: last.id });
            Ok(Page { entries, count, next })
        })
    }

    /// Keeps what is told of corners on a page, for the next time.
    ///
    /// # Errors
    /// SQLite refuses.
    pub fn keep_told(&self, told: &[(&Entry, String)], by: &str) -> Result<(), StoreError> {
        if told.is_empty() {
            return Ok(());
        }
        self.write(|change| {
            for (entry, words) in told {
                // Its content may have gone meanwhile.
                change.execute(
                    "INSERT OR REPLACE INTO told (document, by, words) SELECT id, ?2, ?3 FROM document WHERE id = ?1",
                    params![entry.content, by, words],
                )?;
            }
            Ok(())
        })
    }

    /// The picture of a corner's content as it was kept, if `by` made it.
    ///
    /// # Errors
    /// SQLite refuses.
    pub fn picture(&self, id: i64, width: usize, by: &str) -> Result<Option<Vec<u8>>, StoreError> {
        self.read(|connection| {
            Ok(connection
                .prepare_cached(
                    "SELECT p.file FROM corner c JOIN revision r ON r.corner = c.id AND r.number = c.revision
                    JOIN picture p ON p.document = r.document
                    WHERE c.id = ?1 AND c.deleted_ms IS NULL AND p.width = ?2 AND p.by = ?3",
                )?
                .query_row(params![id, width as i64, by], |row| row.get(0))
                .optional()?)
        })
    }

    /// Keeps the picture of a corner's content at a revision.
    ///
    /// # Errors
    /// SQLite refuses.
    pub fn keep_picture(
        &self,
        (id, revision): (i64, i64),
        width: usize,
        by: &str,
        file: &[u8],
    ) -> Result<(), StoreError> {
        self.write(|change| {
            change.execute(
                "INSERT OR REPLACE INTO picture (document, width, by, file)
                SELECT document, ?3, ?4, ?5 FROM revision WHERE corner = ?1 AND number = ?2",
                params![id, revision, width as i64, by, file],
            )?;
            Ok(())
        })
    }
}
