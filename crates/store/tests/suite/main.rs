//! The store as callers meet it: real files in a folder of their own.

// A helper of a test fails by panicking, as the test does.
#![allow(clippy::unwrap_used)]

mod archive;
mod damage;
mod hands;
mod history;
mod kept;
mod listing;
mod log;
mod troubles;
mod versions;

use std::path::PathBuf;

use fogon_store::{Document, Store};
use tempfile::TempDir;

pub(crate) const BRIEF: &str = include_str!("../../../../docs/examples/box-room.brief.json");

/// A new file in a folder that lives as long as the value.
pub(crate) struct Place {
    _folder: TempDir,
    pub(crate) path: PathBuf,
}

impl Place {
    pub(crate) fn new() -> Self {
        let folder = tempfile::tempdir().unwrap();
        Self { path: folder.path().join("corners.sqlite3"), _folder: folder }
    }

    pub(crate) fn open(&self) -> Store {
        Store::open(&self.path).unwrap()
    }

    /// A connection of somebody else.
    pub(crate) fn connection(&self) -> rusqlite::Connection {
        rusqlite::Connection::open(&self.path).unwrap()
    }
}

pub(crate) fn named(name: &str) -> Document {
    Document { name: name.to_owned(), ..Document::read(BRIEF.as_bytes()).unwrap() }
}
