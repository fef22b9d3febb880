//! The end-to-end tests: the demo server on a free port and a fresh database, Playwright against it.

// A helper of a test fails by panicking, as the test does.
#![allow(clippy::unwrap_used)]

use std::io::{BufRead, BufReader};
use std::path::{Path, PathBuf};
use std::process::{Child, Command, Stdio};

struct Demo(Child);

impl Drop for Demo {
    fn drop(&mut self) {
        let _ = self.0.kill();
        let _ = self.0.wait();
    }
}

/// Starts `fogon demo`; its address.
fn demo(database: &Path) -> (Demo, String) {
    let mut child = Command::new(env!("CARGO_BIN_EXE_fogon"))
        .args(["demo", "--port", "0", "--database"])
        .arg(database)
        .stdout(Stdio::piped())
        .spawn()
        .unwrap();
    let mut line = String::new();
    BufReader::new(child.stdout.take().unwrap()).read_line(&mut line).unwrap();
    let address = line.split_whitespace().find(|w| w.starts_with("http://")).expect("an address is printed");
    (Demo(child), address.trim_end_matches('/').to_owned())
}

#[test]
fn the_page_works_in_a_browser() {
    let web = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../web").canonicalize().unwrap();
    let playwright: PathBuf = web.join("node_modules/.bin/playwright");
    assert!(
        playwright.exists() && web.join("dist/index.html").exists(),
        "the page is not built: run `cargo xtask test`, which installs and builds what the tests need"
    );
    let folder = tempfile::tempdir().unwrap();
    let (_demo, address) = demo(&folder.path().join("corners.sqlite3"));
    let status = Command::new(playwright)
        .args(["test", "--project", "tests"])
        .current_dir(web)
        .env("FOGON_URL", address)
        .stdin(Stdio::null())
        .status()
        .unwrap();
    assert!(status.success(), "see the list above");
}
