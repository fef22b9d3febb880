//! What is kept of a corner, and how it lies in the file: each content once, packed.

use std::io::{Read, Write};

use flate2::Compression;
use flate2::read::ZlibDecoder;
use flate2::write::ZlibEncoder;
use fogon_core::plan::{Brief, BriefFile, Layout, Plan};
use fogon_core::problem::Problems;
use rusqlite::{OptionalExtension, Transaction, params};
use serde::Serialize;
use sha2::{Digest, Sha256};

use crate::trouble::StoreError;

/// A stored document unpacks to no more than this, bytes: one that was tampered with fills no memory.
const UNPACKED_BYTES: u64 = 8_000_000;

/// What is kept: a plan, or a brief that has no layout yet.
#[derive(Debug, Clone)]
pub struct Document {
    /// Name.
    pub name: String,
    /// What is given.
    pub brief: Brief,
    /// What is chosen, if anything fits.
    pub layout: Option<Layout>,
}

impl Document {
    /// Reads a plan file or a brief file.
    ///
    /// # Errors
    /// As the two readers.
    pub fn read(text: &[u8]) -> Result<Self, Problems> {
        let format = fogon_core::document::parse(text)?;
        if format["format"] == "fogon.brief" {
            let file = BriefFile::read(text)?;
            return Ok(Self { name: file.name, brief: file.brief, layout: None });
        }
        let plan = Plan::read(text)?;
        Ok(Self { name: plan.name, brief: plan.brief, layout: Some(plan.layout) })
    }

    /// The file that [`Document::read`] reads back, in lines that a person can follow.
    pub fn to_json(&self) -> String {
        // Plans and briefs have no key that JSON cannot hold.
        serde_json::to_string_pretty(&self.file()).unwrap_or_default()
    }

    /// The same without blanks.
    pub(crate) fn to_line(&self) -> String {
        serde_json::to_string(&self.file()).unwrap_or_default()
    }

    fn file(&self) -> File {
        let (name, brief) = (self.name.clone(), self.brief.clone());
        match self.layout.clone() {
            Some(layout) => File::Plan(Box::new(Plan::new(name, brief, layout))),
            None => File::Brief(Box::new(BriefFile::new(name, brief))),
        }
    }
}

#[derive(Serialize)]
#[serde(untagged)]
enum File {
    Plan(Box<Plan>),
    Brief(Box<BriefFile>),
}

/// Number of a document's text in the file; one that lies there already is not stored again.
pub(crate) fn keep(change: &Transaction<'_>, text: &str) -> Result<i64, StoreError> {
    let hash = Sha256::digest(text.as_bytes());
    let there = change
        .prepare_cached("SELECT id FROM document WHERE hash = ?1")?
        .query_row([&hash[..]], |row| row.get(0))
        .optional()?;
    if let Some(id) = there {
        return Ok(id);
    }
    change
        .prepare_cached("INSERT INTO document (hash, body) VALUES (?1, ?2)")?
        .execute(params![&hash[..], packed(text)])?;
    Ok(change.last_insert_rowid())
}

/// Documents that no revision holds any more go, with all that is told of them.
pub(crate) fn drop_unheld(change: &Transaction<'_>) -> Result<usize, StoreError> {
    Ok(change.execute("DELETE FROM document WHERE id NOT IN (SELECT document FROM revision)", [])?)
}

/// A text as it lies in the file.
pub(crate) fn packed(text: &str) -> Vec<u8> {
    let mut packer = ZlibEncoder::new(Vec::new(), Compression::default());
    // Writing to memory does not fail.
    let _ = packer.write_all(text.as_bytes());
    packer.finish().unwrap_or_default()
}

/// The text that lies packed in the file.
pub(crate) fn unpacked(body: &[u8]) -> Result<String, StoreError> {
    let mut text = String::new();
    ZlibDecoder::new(body)
        .take(UNPACKED_BYTES)
        .read_to_string(&mut text)
        .map_err(|error| StoreError::Stored(format!("it does not unpack: {error}")))?;
    Ok(text)
}

/// A stored text in lines that a person can follow; what is no JSON as it is.
pub(crate) fn legible(line: String) -> String {
    serde_json::from_str::<serde_json::Value>(&line)
        .and_then(|value| serde_json::to_string_pretty(&value))
        .unwrap_or(line)
}

/// The document that lies packed in the file.
pub(crate) fn stored(body: &[u8]) -> Result<Document, StoreError> {
    Document::read(unpacked(body)?.as_bytes()).map_err(|problems| StoreError::Stored(problems.to_string()))
}
