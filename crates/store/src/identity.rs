//! Which file it is that is written to: one that is removed or replaced while it is open would take every save with it.

use std::path::{Path, PathBuf};

/// A file and its log as they were when they were opened.
#[derive(Debug)]
pub(crate) struct Identity {
    parts: [(PathBuf, Option<Inode>); 2],
}

type Inode = (u64, u64);

impl Identity {
    /// Of a database in WAL mode that has been written to or read.
    pub(crate) fn of(path: &Path) -> Self {
        let log = beside(path, "-wal");
        Self { parts: [path.to_owned(), log].map(|path| (path.clone(), inode(&path))) }
    }

    /// Both are still where they were. A log that was not there yet may come.
    pub(crate) fn holds(&self) -> bool {
        self.parts.iter().all(|(path, was)| was.is_none() || inode(path) == *was)
    }
}

/// A file beside a database: its name with something after it.
pub(crate) fn beside(path: &Path, after: &str) -> PathBuf {
    let mut name = path.as_os_str().to_owned();
    name.push(after);
    PathBuf::from(name)
}

// Only looked up, never opened: closing any handle of a database file gives up SQLite's own locks on it.
#[cfg(unix)]
fn inode(path: &Path) -> Option<Inode> {
    use std::os::unix::fs::MetadataExt;
    std::fs::metadata(path).ok().map(|file| (file.dev(), file.ino()))
}

#[cfg(not(unix))]
fn inode(path: &Path) -> Option<Inode> {
    std::fs::metadata(path).ok().map(|_| (0, 0))
}
