//! Reading input files and standard input, and writing output. Broken pipes are no failure: whoever reads has
//! read enough.

use std::io::{ErrorKind, Read, Write};
use std::path::Path;

use crate::outcome::Failure;

/// More than any document may have, so that a larger one is refused as such.
const MOST_BYTES: u64 = 20_000_000;

/// The bytes of a file, or of standard input for `-`.
pub(crate) fn bytes(path: &Path) -> Result<Vec<u8>, Failure> {
    bytes_up_to(path, MOST_BYTES)
}

/// As [`bytes`], of a file that may be larger than a document: no more than so many are read.
pub(crate) fn bytes_up_to(path: &Path, most: u64) -> Result<Vec<u8>, Failure> {
    let mut text = Vec::new();
    let failed = |error: std::io::Error| Failure::Io(format!("cannot read {}: {error}", path.display()));
    if path.as_os_str() == "-" {
        std::io::stdin().lock().take(most).read_to_end(&mut text).map_err(failed)?;
    } else {
        std::fs::File::open(path).map_err(failed)?.take(most).read_to_end(&mut text).map_err(failed)?;
    }
    Ok(text)
}

/// Prints text to standard output.
pub(crate) fn print(text: &str) -> Result<(), Failure> {
    let mut out = std::io::stdout().lock();
    match out.write_all(text.as_bytes()).and_then(|()| out.flush()) {
        Err(error) if error.kind() != ErrorKind::BrokenPipe => {
            Err(Failure::Io(format!("cannot write to standard output: {error}")))
        }
        _ => Ok(()),
    }
}

/// Prints a value as indented JSON with a final newline.
pub(crate) fn print_json(value: &impl serde::Serialize) -> Result<(), Failure> {
    let text = serde_json::to_string_pretty(value)
        .map_err(|error| Failure::Io(format!("cannot write the answer as JSON: {error}")))?;
    print(&(text + "\n"))
}

/// Writes a text whole, or not at all; `-` is standard output.
pub(crate) fn write(path: &Path, text: &str) -> Result<(), Failure> {
    if path.as_os_str() == "-" { print(text) } else { write_bytes(path, text.as_bytes()) }
}

/// Writes a file whole, or not at all: to a neighbour first, then renamed. What a link leads to is written, and keeps its mode;
/// what is no file, a device or a pipe, is written to as it is.
pub(crate) fn write_bytes(path: &Path, bytes: &[u8]) -> Result<(), Failure> {
    written(path, bytes).map_err(|error| Failure::Io(format!("cannot write {}: {error}", path.display())))
}

fn written(path: &Path, bytes: &[u8]) -> std::io::Result<()> {
    let target = std::fs::canonicalize(path).unwrap_or_else(|_| path.to_owned());
    let there = std::fs::metadata(&target).ok();
    if there.as_ref().is_some_and(|there| !there.is_file())
        || std::fs::symlink_metadata(&target).is_ok_and(|m| m.is_symlink())
    {
        return std::fs::OpenOptions::new()
            .write(true)
            .create(true)
            .truncate(true)
            .open(&target)?
            .write_all(bytes);
    }
    let folder = target.parent().filter(|folder| !folder.as_os_str().is_empty()).unwrap_or(Path::new("."));
    let mut part = tempfile::Builder::new();
    part.prefix(".fogon-").suffix(".part");
    // As the system makes a new file; an old one keeps what it has.
    #[cfg(unix)]
    part.permissions(std::os::unix::fs::PermissionsExt::from_mode(0o666));
    let mut part = part.tempfile_in(folder)?;
    if let Some(there) = there {
        part.as_file().set_permissions(there.permissions())?;
    }
    part.write_all(bytes)?;
    part.as_file().sync_all()?;
    part.persist(&target)?;
    Ok(())
}
