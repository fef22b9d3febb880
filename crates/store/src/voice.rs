//! The user's own dry voice.

use rusqlite::OptionalExtension;

use crate::file::Store;
use crate::trouble::StoreError;

impl Store {
    /// The user's own voice, as the file it came in.
    ///
    /// # Errors
    /// SQLite refuses.
    pub fn voice(&self) -> Result<Option<Vec<u8>>, StoreError> {
        self.read(|connection| {
            Ok(connection.query_row("SELECT file FROM voice", [], |row| row.get(0)).optional()?)
        })
    }

    /// Keeps the user's own voice in place of any before it, or forgets it: then nothing of it stays readable.
    ///
    /// # Errors
    /// SQLite or the disk refuses.
    pub fn keep_voice(&self, file: Option<&[u8]>) -> Result<(), StoreError> {
        let had = self.write(|change| {
            let had = change.execute("DELETE FROM voice", [])?;
            if let Some(file) = file {
                change.execute("INSERT INTO voice (id, file) VALUES (1, ?1)", [file])?;
            }
            Ok(had > 0)
        })?;
        if had {
            self.wipe()?;
            self.renew_snapshots()?;
        }
        Ok(())
    }
}
