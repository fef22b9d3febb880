//! The open file: whose it is, that nobody else writes to it, how it is read and written.

use std::fs::{File, OpenOptions, TryLockError};
use std::path::{Path, PathBuf};
use std::sync::atomic::{AtomicBool, Ordering};
use std::time::{Duration, SystemTime, UNIX_EPOCH};

use parking_lot::Mutex;
use rusqlite::{Connection, OpenFlags, Transaction, TransactionBehavior};

use crate::identity::{Identity, beside};
use crate::snapshots;
use crate::tables::{APPLICATION_ID, NEWEST, looks_like_ours, migrate};
use crate::trouble::{StoreError, Trouble, WAIT_S};

/// A write waits so long for another program, and as long again for its turn among our own.
const WAIT: Duration = Duration::from_secs(WAIT_S);
/// Readers that are kept open for the next who asks.
const READERS: usize = 8;
/// A larger file is looked through by `fogon doctor` only, bytes: at start that would be felt.
const CHECKED_AT_START_BYTES: u64 = 64_000_000;

/// The corners of one database file.
pub struct Store {
    path: PathBuf,
    writer: Mutex<Connection>,
    readers: Mutex<Vec<Connection>>,
    identity: Identity,
    /// Once SQLite has found it damaged nothing is written any more.
    damaged: AtomicBool,
    /// Something was written since the log was folded in last.
    pub(crate) unfolded: AtomicBool,
    /// Held as long as the file is open.
    _only: File,
}

/// What a file is before it is opened for good.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum Found {
    New,
    Ours { version: i64 },
}

impl Store {
    /// Opens or makes a database file and brings its tables up to date; one of an older version is copied aside first.
    ///
    /// # Errors
    /// [`Trouble`] in one sentence; the file is then as it was.
    pub fn open(path: &Path) -> Result<Self, StoreError> {
        if path.is_dir() {
            return Err(Trouble::Unreachable(format!("{} is a folder", path.display())).into());
        }
        let only = alone(path)?;
        make(path)?;
        let mut writer = connect(path)?;
        let found = found(&writer, path)?;
        writer.pragma_update(None, "foreign_keys", "ON")?;
        // Nothing that is deleted stays readable in the file.
        writer.pragma_update(None, "secure_delete", "ON")?;
        // Refused now and not at the first save: a lock, or a file that may only be read.
        writer.transaction_with_behavior(TransactionBehavior::Immediate)?.rollback()?;
        if let Found::Ours { version } = found
            && version < NEWEST
        {
            snapshots::before_version(&writer, path, version)?;
        }
        writer.pragma_update(None, "journal_mode", "WAL")?;
        writer.pragma_update(None, "synchronous", "FULL")?;
        migrate(&mut writer)?;
        writer.pragma_update(None, "application_id", APPLICATION_ID)?;
        let store = Self {
            path: path.to_owned(),
            identity: Identity::of(path),
            writer: Mutex::new(writer),
            readers: Mutex::default(),
            damaged: AtomicBool::new(false),
            unfolded: AtomicBool::new(true),
            _only: only,
        };
        Ok(store)
    }

    /// The file.
    pub fn path(&self) -> &Path {
        &self.path
    }

    /// Reads beside whoever writes.
    pub(crate) fn read<T>(
        &self,
        work: impl FnOnce(&Connection) -> Result<T, StoreError>,
    ) -> Result<T, StoreError> {
        if !self.identity.holds() {
            return Err(Trouble::Gone.into());
        }
        let kept = self.readers.lock().pop();
        let reader = match kept {
            Some(reader) => reader,
            None => {
                let reader = connect(&self.path)?;
                reader.pragma_update(None, "query_only", "ON")?;
                reader
            }
        };
        let answer = work(&reader).inspect_err(|error| self.note(error));
        let mut readers = self.readers.lock();
        if readers.len() < READERS {
            readers.push(reader);
        }
        answer
    }

    /// One change, whole or not at all; once it is answered it is on the disk.
    pub(crate) fn write<T>(
        &self,
        work: impl FnOnce(&Transaction<'_>) -> Result<T, StoreError>,
    ) -> Result<T, StoreError> {
        self.with_writer(|writer| {
            let change = writer.transaction_with_behavior(TransactionBehavior::Immediate)?;
            let done = work(&change)?;
            change.commit()?;
            Ok(done)
        })
    }

    /// The one connection that writes, while the file is where it was before and after.
    pub(crate) fn with_writer<T>(
        &self,
        work: impl FnOnce(&mut Connection) -> Result<T, StoreError>,
    ) -> Result<T, StoreError> {
        if self.damaged.load(Ordering::Relaxed) {
            return Err(Trouble::Damaged("found while it was open".to_owned()).into());
        }
        // A panic while it is held cannot leave half a change: every change is one transaction.
        let mut writer = self.writer.try_lock_for(WAIT).ok_or(Trouble::Held { waited_s: WAIT_S })?;
        if !self.identity.holds() {
            return Err(Trouble::Gone.into());
        }
        let done = work(&mut writer).inspect_err(|error| self.note(error))?;
        self.unfolded.store(true, Ordering::Relaxed);
        if self.identity.holds() { Ok(done) } else { Err(Trouble::Gone.into()) }
    }

    fn note(&self, error: &StoreError) {
        if let StoreError::File(Trouble::Damaged(words)) = error {
            tracing::error!(%words, "the file is damaged");
            self.damaged.store(true, Ordering::Relaxed);
        }
    }
}

impl Drop for Store {
    /// The log is folded in: the file alone then holds everything.
    fn drop(&mut self) {
        self.readers.lock().clear();
        if let Err(error) = self.fold() {
            tracing::warn!(%error, "the log was not folded in");
        }
    }
}

/// A connection that waits for others.
pub(crate) fn connect(path: &Path) -> Result<Connection, StoreError> {
    let flags = OpenFlags::SQLITE_OPEN_READ_WRITE | OpenFlags::SQLITE_OPEN_NO_MUTEX;
    let connection = Connection::open_with_flags(path, flags)?;
    connection.busy_timeout(WAIT)?;
    connection.set_prepared_statement_cache_capacity(64);
    Ok(connection)
}

/// One file has one Fogon: the lock beside it is held until the process ends, however it ends.
pub(crate) fn alone(path: &Path) -> Result<File, StoreError> {
    let lock = beside(path, ".lock");
    let file = private().create(true).truncate(false).write(true).open(&lock);
    let file = file.map_err(|error| Trouble::of_io(&lock, &error))?;
    match file.try_lock() {
        Ok(()) => Ok(file),
        Err(TryLockError::WouldBlock) => Err(Trouble::InUse.into()),
        Err(TryLockError::Error(error)) => Err(Trouble::of_io(&lock, &error).into()),
    }
}

/// An empty file that only its owner reads, where there is none.
pub(crate) fn make(path: &Path) -> Result<(), StoreError> {
    match private().create_new(true).write(true).open(path) {
        Ok(_) => Ok(()),
        Err(error) if error.kind() == std::io::ErrorKind::AlreadyExists => Ok(()),
        Err(error) => Err(Trouble::of_io(path, &error).into()),
    }
}

/// How a file is made that nobody else may read.
pub(crate) fn private() -> OpenOptions {
    let mut options = OpenOptions::new();
    #[cfg(unix)]
    std::os::unix::fs::OpenOptionsExt::mode(&mut options, 0o600);
    options
}

/// Looks at a file without changing it.
pub(crate) fn found(connection: &Connection, path: &Path) -> Result<Found, StoreError> {
    let number = |name: &str| connection.pragma_query_value(None, name, |row| row.get::<_, i64>(0));
    let (id, version) = (number("application_id")?, number("user_version")?);
    let tables: i64 = connection.query_row("SELECT count(*) FROM sqlite_schema", [], |row| row.get(0))?;
    let found = if id == APPLICATION_ID {
        Found::Ours { version }
    } else if id == 0 && version == 0 && tables == 0 {
        Found::New
    } else if id == 0 && looks_like_ours(connection, version)? {
        Found::Ours { version }
    } else {
        return Err(Trouble::Foreign.into());
    };
    if version > NEWEST {
        return Err(Trouble::Newer { found: version, known: NEWEST }.into());
    }
    if std::fs::metadata(path).is_ok_and(|file| file.len() <= CHECKED_AT_START_BYTES) {
        let said: String = connection.query_row("PRAGMA quick_check(1)", [], |row| row.get(0))?;
        if said != "ok" {
            return Err(Trouble::Damaged(said).into());
        }
    }
    Ok(found)
}

/// Now, ms since 1970.
pub(crate) fn now_ms() -> i64 {
    SystemTime::now()
        .duration_since(UNIX_EPOCH)
        .map_or(0, |d| i64::try_from(d.as_millis()).unwrap_or(i64::MAX))
}
