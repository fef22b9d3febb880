//! What is done by itself while the file is at rest; and what the person chose about keeping.

use rusqlite::{OptionalExtension, params};

use crate::file::Store;
use crate::trouble::StoreError;

impl Store {
    /// Folds the log in; once a day a snapshot is taken and what is old enough goes. Worth calling at start and now and then.
    ///
    /// # Errors
    /// The first thing that did not work; the rest was tried.
    pub fn keep_house(&self) -> Result<(), StoreError> {
        let mut done = Vec::new();
        if self.snapshot_is_due() {
            done = vec![
                self.snapshot().map(|_| ()),
                self.empty_bin_of_old(),
                self.thin().map(|_| ()),
                self.forget_old_sessions(),
            ];
        }
        done.push(self.fold());
        done.into_iter().collect()
    }

    /// How large the file may become, bytes: what would make it larger is refused as if the disk were full.
    ///
    /// # Errors
    /// SQLite refuses.
    pub fn limit(&self, most_bytes: Option<u64>) -> Result<(), StoreError> {
        self.with_writer(|writer| {
            let page: i64 = writer.pragma_query_value(None, "page_size", |row| row.get(0))?;
            // As many as SQLite can have.
            let most = most_bytes
                .map_or(i64::from(u32::MAX) - 1, |bytes| (bytes / page.max(1) as u64).max(1) as i64);
            Ok(writer.query_row(&format!("PRAGMA max_page_count = {most}"), [], |_| Ok(()))?)
        })
    }

    /// What the person chose.
    pub(crate) fn choice(&self, name: &str) -> Result<Option<String>, StoreError> {
        self.read(|connection| {
            Ok(connection
                .query_row("SELECT value FROM choice WHERE name = ?1", [name], |row| row.get(0))
                .optional()?)
        })
    }

    pub(crate) fn choose(&self, name: &str, value: &str) -> Result<(), StoreError> {
        self.write(|change| {
            change.execute(
                "INSERT OR REPLACE INTO choice (name, value) VALUES (?1, ?2)",
                params![name, value],
            )?;
            Ok(())
        })
    }
}
