//! The key of a file: whoever has it is let in by the server that keeps the file. It lies beside it, for its owner's eyes alone, and
//! goes neither into backups nor into archives.

use std::io::{Read, Write};
use std::path::Path;

use crate::file::private;
use crate::identity::beside;
use crate::trouble::{StoreError, Trouble};

/// Hexadecimal digits.
const DIGITS: usize = 64;

/// The key of a file; made where there is none.
///
/// # Errors
/// The folder cannot be written, or the key not be read.
pub fn key(path: &Path) -> Result<String, StoreError> {
    let place = beside(path, ".key");
    let io = |error: std::io::Error| StoreError::from(Trouble::of_io(&place, &error));
    let mut kept = String::new();
    match std::fs::File::open(&place) {
        Ok(mut file) => {
            file.read_to_string(&mut kept).map_err(io)?;
        }
        Err(error) if error.kind() == std::io::ErrorKind::NotFound => {}
        Err(error) => return Err(io(error)),
    }
    if kept.len() == DIGITS && kept.bytes().all(|digit| digit.is_ascii_hexdigit()) {
        return Ok(kept);
    }
    let one = || uuid::Uuid::new_v4().simple().to_string();
    let made = format!("{}{}", one(), one());
    let mut file = private().create(true).truncate(true).write(true).open(&place).map_err(io)?;
    file.write_all(made.as_bytes()).and_then(|()| file.sync_all()).map_err(io)?;
    Ok(made)
}
