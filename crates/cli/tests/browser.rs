//! The end-to-end tests: the demo server on a free port and a fresh database, Playwright against it.

// A helper of a test fails by panicking, as the test does.
#![allow(clippy::unwrap_used)]

mod running;

use std::path::{Path, PathBuf};
use std::process::{Command, Stdio};

use running::Running;

#[test]
fn the_page_works_in_a_browser() {
    let web = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../web").canonicalize().unwrap();
    let playwright: PathBuf = web.join("node_modules/.bin/playwright");
    assert!(
        playwright.exists() && web.join("dist/index.html").exists(),
        "the page is not built: run `cargo xtask test`, which installs and builds what the tests need"
    );
    let folder = tempfile::tempdir().unwrap();
    let demo = Running::start("demo", &folder.path().join("corners.sqlite3"));
    let status = Command::new(playwright)
        .args(["test", "--project", "tests"])
        .current_dir(web)
        .env("FOGON_URL", format!("http://{}", demo.address))
        .stdin(Stdio::null())
        .status()
        .unwrap();
    assert!(status.success(), "see the list above");
}
