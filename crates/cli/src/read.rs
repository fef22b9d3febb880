//! Reading input files and standard input, and writing output. Broken pipes are no failure: whoever reads has
//! read enough.

use std::io::{ErrorKind, Read, Write};
use std::path::Path;

use crate::outcome::Failure;

/// More than any document may have, so that a larger one is refused as such.
const MOST_BYTES: u64 = 20_000_000;

/// The bytes of a file, or of standard input for `-`.
pub(crate) fn bytes(path: &Path) -> Result<Vec<u8>, Failure> {
    let mut text = Vec::new();
    let failed = |error: std::io::Error| Failure::Io(format!("cannot read {}: {error}", path.display()));
    if path.as_os_str() == "-" {
        std::io::stdin().lock().take(MOST_BYTES).read_to_end(&mut text).map_err(failed)?;
    } else {
        std::fs::File::open(path).map_err(failed)?.take(MOST_BYTES).read_to_end(&mut text).map_err(failed)?;
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

/// Writes a file whole, or not at all: to a neighbour first, then renamed.
pub(crate) fn write_bytes(path: &Path, bytes: &[u8]) -> Result<(), Failure> {
    let mut name = path.file_name().unwrap_or_default().to_os_string();
    name.push(".part");
    let part = path.with_file_name(name);
    std::fs::write(&part, bytes).and_then(|()| std::fs::rename(&part, path)).map_err(|error| {
        let _ = std::fs::remove_file(&part);
        Failure::Io(format!("cannot write {}: {error}", path.display()))
    })
}
