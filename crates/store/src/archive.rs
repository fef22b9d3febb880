//! One corner or everything as one open archive: a ZIP of JSON documents, each save as it can be read by itself, with a manifest
//! that holds a checksum of every file. The same corners always give the same bytes.

use std::collections::BTreeMap;
use std::io::{Cursor, Read, Write};

use fogon_core::document::fault;
use fogon_core::run::{Entry, LogIn};
use rusqlite::{Connection, OptionalExtension, Transaction, params};
use serde::{Deserialize, Serialize};
use sha2::{Digest, Sha256};
use thiserror::Error;
use utoipa::ToSchema;
use zip::write::SimpleFileOptions;
use zip::{CompressionMethod, DateTime, ZipArchive, ZipWriter};

use crate::corners::{Next, at, put};
use crate::document::{Document, keep, legible, unpacked};
use crate::file::{Store, now_ms};
use crate::log;
use crate::trouble::StoreError;

const MANIFEST: &str = "manifest.json";
const VOICE: &str = "voice";
const FORMAT: &str = "fogon.archive";
const VERSION: u32 = 1;
/// An archive unpacks to no more than this, bytes, in no more files.
const UNPACKED_BYTES: u64 = 500_000_000;
const FILES: usize = 200_000;

/// Why an archive is not taken in: it is none of ours, or was damaged on its way. Names the file that is at fault.
#[derive(Debug, Clone, PartialEq, Eq, Error)]
#[error("{0}")]
pub struct BadArchive(String);

impl From<BadArchive> for StoreError {
    fn from(bad: BadArchive) -> Self {
        Self::Stored(bad.0)
    }
}

/// What an archive holds: the file `manifest.json` in it.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
struct Manifest {
    format: String,
    version: u32,
    corners: Vec<InArchive>,
    /// SHA-256 of every other file, in hexadecimal digits.
    files: BTreeMap<String, String>,
}

/// A corner in an archive.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
struct InArchive {
    /// The same on every machine.
    uid: String,
    name: String,
    updated_ms: i64,
    /// The save that it stands at.
    revision: i64,
    saves: Vec<SaveInArchive>,
    /// Its logbook, a list of entries; none where nothing was recorded.
    #[serde(skip_serializing_if = "Option::is_none", default)]
    log: Option<String>,
}

/// A save of a corner in an archive.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
struct SaveInArchive {
    number: i64,
    at_ms: i64,
    #[serde(skip_serializing_if = "Option::is_none", default)]
    name: Option<String>,
    #[serde(skip_serializing_if = "Option::is_none", default)]
    undo_to: Option<i64>,
    #[serde(skip_serializing_if = "Option::is_none", default)]
    redo_to: Option<i64>,
    /// Its document, a plan or a brief.
    file: String,
}

/// What happens to what is here already.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum Taking {
    /// It stays; what the archive has otherwise becomes its next save.
    Merge,
    /// What the archive does not hold goes into the bin.
    Replace,
}

/// What becomes of a corner.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum Becomes {
    /// It is not here yet: it comes with all its saves.
    New,
    /// It is here and stands otherwise: as it stands in the archive becomes its next save, which can be undone.
    Changed,
    /// It is here, in the bin: it comes back, as it stands in the archive.
    Back,
    /// It is here and stands the same.
    Same,
    /// The archive does not hold it: it goes into the bin.
    Binned,
}

/// What taking an archive in would do, or did, to one corner.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
pub struct Outcome {
    /// Its name.
    pub name: String,
    /// What becomes of it.
    pub becomes: Becomes,
}

/// An archive that was read and found whole.
#[derive(Debug, Clone)]
pub struct Archive {
    manifest: Manifest,
    files: BTreeMap<String, Vec<u8>>,
}

impl Archive {
    /// Reads an archive and holds every file against its checksum and its format.
    ///
    /// # Errors
    /// [`BadArchive`].
    pub fn read(bytes: &[u8]) -> Result<Self, BadArchive> {
        let bad = |words: String| BadArchive(words);
        let none = "It is no archive of Fogon: it cannot be opened as a ZIP file.";
        let mut zip = ZipArchive::new(Cursor::new(bytes)).map_err(|_| bad(none.to_owned()))?;
        if zip.len() > FILES {
            return Err(bad(format!("It holds {} files; at most {FILES} are read.", zip.len())));
        }
        let mut files = BTreeMap::new();
        let mut left = UNPACKED_BYTES;
        for index in 0..zip.len() {
            let file = zip.by_index(index).map_err(|error| bad(format!("It is damaged: {error}.")))?;
            let name = file.name().map_err(|error| bad(format!("It is damaged: {error}.")))?.into_owned();
            let mut content = Vec::new();
            file.take(left + 1)
                .read_to_end(&mut content)
                .map_err(|error| bad(format!("Its file {name} is damaged: {error}.")))?;
            left = left
                .checked_sub(content.len() as u64)
                .ok_or_else(|| bad(format!("It unpacks to more than {UNPACKED_BYTES} bytes.")))?;
            files.insert(name, content);
        }
        let manifest = files.remove(MANIFEST).ok_or_else(|| bad(format!("It has no {MANIFEST}.")))?;
        let version =
            |value: &serde_json::Value| (value["format"] == FORMAT).then(|| value["version"].as_u64());
        let value: serde_json::Value = serde_json::from_slice(&manifest)
            .map_err(|error| bad(format!("Its {MANIFEST} does not read: it is {}.", fault(&error))))?;
        match version(&value) {
            None => return Err(bad("It is no archive of Fogon.".to_owned())),
            Some(found) if found != Some(u64::from(VERSION)) => {
                return Err(bad(format!("A newer Fogon wrote it: this one reads version {VERSION}.")));
            }
            Some(_) => {}
        }
        let manifest: Manifest = serde_json::from_value(value)
            .map_err(|_| bad(format!("Its {MANIFEST} does not read: it lacks what Fogon writes there.")))?;
        let archive = Self { manifest, files };
        archive.check()?;
        Ok(archive)
    }

    fn check(&self) -> Result<(), BadArchive> {
        let bad = |words: String| Err(BadArchive(words));
        for (name, sum) in &self.manifest.files {
            match self.files.get(name) {
                None => return bad(format!("Its file {name} is missing.")),
                Some(content) if checksum(content) != *sum => {
                    return bad(format!("Its file {name} is not what was put in: the checksum differs."));
                }
                Some(_) => {}
            }
        }
        if let Some(other) = self.files.keys().find(|name| !self.manifest.files.contains_key(*name)) {
            return bad(format!("Its file {other} is not in its {MANIFEST}."));
        }
        for corner in &self.manifest.corners {
            if !corner.saves.iter().any(|save| save.number == corner.revision) {
                return bad(format!("Its corner {} has no save {}.", corner.name, corner.revision));
            }
            let ascending = corner.saves.windows(2).all(|pair| pair[0].number < pair[1].number);
            if !ascending || corner.saves.iter().any(|save| save.number < 1) {
                return bad(format!("The saves of its corner {} are not in order.", corner.name));
            }
            for save in &corner.saves {
                self.document(save)?;
            }
            self.log(corner)?;
        }
        Ok(())
    }

    fn document(&self, save: &SaveInArchive) -> Result<Document, BadArchive> {
        let content = self.files.get(&save.file);
        let content = content.ok_or_else(|| BadArchive(format!("Its file {} is missing.", save.file)))?;
        Document::read(content)
            .map_err(|problems| BadArchive(format!("Its file {} does not read: {problems}", save.file)))
    }

    /// The logbook of a corner.
    fn log(&self, corner: &InArchive) -> Result<Vec<Entry>, BadArchive> {
        let Some(name) = &corner.log else { return Ok(Vec::new()) };
        let content =
            self.files.get(name).ok_or_else(|| BadArchive(format!("Its file {name} is missing.")))?;
        let bad = |problem: String| BadArchive(format!("Its file {name} does not read: {problem}"));
        let read: LogIn =
            fogon_core::document::read(content).map_err(|problems| bad(problems.to_string()))?;
        Ok(read.entries)
    }

    fn now(&self, corner: &InArchive) -> Result<Document, BadArchive> {
        let save = corner.saves.iter().find(|save| save.number == corner.revision);
        self.document(save.ok_or_else(|| BadArchive(format!("{} has no save.", corner.name)))?)
    }
}

impl Store {
    /// One corner, or everything, as the bytes of an archive.
    ///
    /// # Errors
    /// [`StoreError::Missing`], a document does not unpack, or SQLite refuses.
    pub fn archive(&self, only: Option<i64>) -> Result<Vec<u8>, StoreError> {
        let (corners, mut files) = self.read(|connection| {
            let mut files = BTreeMap::new();
            let corners = corners(connection, only, &mut files)?;
            Ok((corners, files))
        })?;
        if only.is_some() && corners.is_empty() {
            return Err(StoreError::Missing);
        }
        if only.is_none()
            && let Some(voice) = self.voice()?
        {
            files.insert(VOICE.to_owned(), voice);
        }
        let sums = files.iter().map(|(name, content)| (name.clone(), checksum(content))).collect();
        let manifest = Manifest { format: FORMAT.to_owned(), version: VERSION, corners, files: sums };
        let refused = |error: zip::result::ZipError| StoreError::Stored(error.to_string());
        // No clock and no owner: the same corners give the same bytes.
        let options = SimpleFileOptions::default()
            .compression_method(CompressionMethod::Deflated)
            .last_modified_time(DateTime::default())
            .unix_permissions(0o600);
        let mut zip = ZipWriter::new(Cursor::new(Vec::new()));
        let text = serde_json::to_vec_pretty(&manifest).unwrap_or_default();
        for (name, content) in
            std::iter::once((MANIFEST, &text)).chain(files.iter().map(|(n, c)| (n.as_str(), c)))
        {
            zip.start_file(name, options).map_err(refused)?;
            zip.write_all(content).map_err(|error| StoreError::Stored(error.to_string()))?;
        }
        Ok(zip.finish().map_err(refused)?.into_inner())
    }

    /// What taking an archive in would do; nothing is changed.
    ///
    /// # Errors
    /// SQLite refuses.
    pub fn would_take(&self, archive: &Archive, taking: Taking) -> Result<Vec<Outcome>, StoreError> {
        self.read(|connection| outcomes(connection, archive, taking))
    }

    /// Takes an archive in, whole or not at all; what it did.
    ///
    /// # Errors
    /// SQLite refuses; nothing was changed then.
    pub fn take(&self, archive: &Archive, taking: Taking) -> Result<Vec<Outcome>, StoreError> {
        self.write(|change| take(change, archive, taking))
    }
}

/// Corners with all their saves, whose documents go into `files`.
fn corners(
    connection: &Connection,
    only: Option<i64>,
    files: &mut BTreeMap<String, Vec<u8>>,
) -> Result<Vec<InArchive>, StoreError> {
    let mut query = connection.prepare(
        "SELECT id, uid, name, updated_ms, revision FROM corner
        WHERE deleted_ms IS NULL AND (?1 IS NULL OR id = ?1) ORDER BY uid",
    )?;
    let rows = query.query_map([only], |row| {
        let corner = InArchive {
            uid: row.get(1)?,
            name: row.get(2)?,
            updated_ms: row.get(3)?,
            revision: row.get(4)?,
            saves: Vec::new(),
            log: None,
        };
        Ok((row.get::<_, i64>(0)?, corner))
    })?;
    let mut all = Vec::new();
    for row in rows {
        let (id, mut corner) = row?;
        let mut query = connection.prepare_cached(
            "SELECT r.number, r.at_ms, r.name, r.undo_to, r.redo_to, d.body FROM revision r
            JOIN document d ON d.id = r.document WHERE r.corner = ?1 ORDER BY r.number",
        )?;
        let mut rows = query.query([id])?;
        while let Some(row) = rows.next()? {
            let number: i64 = row.get(0)?;
            let file = format!("corners/{}/{number:06}.json", corner.uid);
            let text = legible(unpacked(&row.get::<_, Vec<u8>>(5)?)?);
            files.insert(file.clone(), text.into_bytes());
            corner.saves.push(SaveInArchive {
                number,
                at_ms: row.get(1)?,
                name: row.get(2)?,
                undo_to: row.get(3)?,
                redo_to: row.get(4)?,
                file,
            });
        }
        let entries = log::read(connection, id, 0)?;
        if !entries.is_empty() {
            let file = format!("corners/{}/log.json", corner.uid);
            let text = serde_json::to_string_pretty(&LogIn { entries, written: 0 }).unwrap_or_default();
            files.insert(file.clone(), text.into_bytes());
            corner.log = Some(file);
        }
        all.push(corner);
    }
    Ok(all)
}

/// A corner here that an archive holds too: id, in the bin, as it stands.
fn here(connection: &Connection, uid: &str) -> Result<Option<(i64, bool, String)>, StoreError> {
    let row = connection
        .prepare_cached(
            "SELECT c.id, c.deleted_ms IS NOT NULL, d.body FROM corner c
            JOIN revision r ON r.corner = c.id AND r.number = c.revision JOIN document d ON d.id = r.document
            WHERE c.uid = ?1",
        )?
        .query_row([uid], |row| Ok((row.get(0)?, row.get(1)?, row.get::<_, Vec<u8>>(2)?)))
        .optional()?;
    row.map(|(id, binned, body)| Ok((id, binned, unpacked(&body)?))).transpose()
}

fn outcomes(connection: &Connection, archive: &Archive, taking: Taking) -> Result<Vec<Outcome>, StoreError> {
    let mut all = Vec::new();
    for corner in &archive.manifest.corners {
        let becomes = match here(connection, &corner.uid)? {
            None => Becomes::New,
            Some((_, true, _)) => Becomes::Back,
            Some((_, false, line)) if line == archive.now(corner)?.to_line() => Becomes::Same,
            Some(_) => Becomes::Changed,
        };
        all.push(Outcome { name: corner.name.clone(), becomes });
    }
    if taking == Taking::Replace {
        for (_, name) in others(connection, archive)? {
            all.push(Outcome { name, becomes: Becomes::Binned });
        }
    }
    Ok(all)
}

/// Corners here that an archive does not hold.
fn others(connection: &Connection, archive: &Archive) -> Result<Vec<(i64, String)>, StoreError> {
    let mut query =
        connection.prepare("SELECT id, name, uid FROM corner WHERE deleted_ms IS NULL ORDER BY id")?;
    let rows = query.query_map([], |row| Ok(((row.get(0)?, row.get(1)?), row.get::<_, String>(2)?)))?;
    let mut all = Vec::new();
    for row in rows {
        let (corner, uid) = row?;
        if !archive.manifest.corners.iter().any(|held| held.uid == uid) {
            all.push(corner);
        }
    }
    Ok(all)
}

fn take(change: &Transaction<'_>, archive: &Archive, taking: Taking) -> Result<Vec<Outcome>, StoreError> {
    let told = outcomes(change, archive, taking)?;
    let others = others(change, archive)?;
    for corner in &archive.manifest.corners {
        let Some((id, binned, line)) = here(change, &corner.uid)? else {
            insert(change, archive, corner)?;
            continue;
        };
        keep_log(change, archive, corner, id)?;
        if binned {
            change.execute("UPDATE corner SET deleted_ms = NULL WHERE id = ?1", [id])?;
        }
        let document = archive.now(corner)?;
        let text = document.to_line();
        if text != line {
            let revision: i64 =
                change.query_row("SELECT revision FROM corner WHERE id = ?1", [id], |row| row.get(0))?;
            let content = keep(change, &text)?;
            let undo_to = Some(revision);
            put(change, id, revision, Next { content, document, undo_to, redo_to: None, key: None })?;
        }
    }
    if taking == Taking::Replace {
        for (id, _) in others {
            change.execute("UPDATE corner SET deleted_ms = ?2 WHERE id = ?1", params![id, now_ms()])?;
        }
    }
    if let Some(voice) = archive.files.get(VOICE) {
        let how = if taking == Taking::Replace { "REPLACE" } else { "IGNORE" };
        change.execute(&format!("INSERT OR {how} INTO voice (id, file) VALUES (1, ?1)"), [voice])?;
    }
    Ok(told)
}

/// A corner that is not here yet, with all its saves as they were.
fn insert(change: &Transaction<'_>, archive: &Archive, corner: &InArchive) -> Result<(), StoreError> {
    change.execute(
        "INSERT INTO corner (name, revision, updated_ms, uid) VALUES (?1, ?2, ?3, ?4)",
        params![corner.name, corner.revision, corner.updated_ms, corner.uid],
    )?;
    let id = change.last_insert_rowid();
    for save in &corner.saves {
        let content = keep(change, &archive.document(save)?.to_line())?;
        change.execute(
            "INSERT INTO revision (corner, number, at_ms, document, undo_to, redo_to, name)
                VALUES (?1, ?2, ?3, ?4, ?5, ?6, ?7)",
            params![id, save.number, save.at_ms, content, save.undo_to, save.redo_to, save.name],
        )?;
    }
    keep_log(change, archive, corner, id)?;
    // It stands as its save says.
    at(change, id, corner.revision)?;
    Ok(())
}

/// The logbook that came with a corner joins the one that is here.
fn keep_log(
    change: &Transaction<'_>,
    archive: &Archive,
    corner: &InArchive,
    id: i64,
) -> Result<(), StoreError> {
    for entry in archive.log(corner)? {
        log::keep(change, id, &entry)?;
    }
    Ok(())
}

fn checksum(content: &[u8]) -> String {
    Sha256::digest(content).iter().map(|byte| format!("{byte:02x}")).collect()
}
