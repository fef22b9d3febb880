//! The end-to-end tests: the demo server on a free port and a fresh database, Playwright against it.
//!
//! `FOGON_SPECS=take,floor cargo tests --test browser` runs those files alone.

// A helper of a test fails by panicking, as the test does.
#![allow(clippy::unwrap_used)]

mod running;

use std::path::{Path, PathBuf};
use std::process::{Command, Stdio};

use running::Running;

/// Runs projects of the page's own tests, as `web/playwright.config.ts` names them.
fn play(projects: &[&str], environment: &[(&str, &str)]) {
    let web = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../web").canonicalize().unwrap();
    let playwright: PathBuf = web.join("node_modules/.bin/playwright");
    assert!(
        playwright.exists() && web.join("dist/index.html").exists(),
        "the page is not built: run `cargo xtask test`, which installs and builds what the tests need"
    );
    let status = Command::new(playwright)
        .arg("test")
        .args(projects.iter().map(|project| format!("--project={project}")))
        .args(environment.iter().filter(|(name, _)| *name == SPECS).flat_map(|(_, files)| files.split(',')))
        .current_dir(web)
        .envs(environment.iter().copied())
        .stdin(Stdio::null())
        .status()
        .unwrap();
    assert!(status.success(), "see the list above");
}

/// Files of tests to be run alone, by a part of their names.
const SPECS: &str = "FOGON_SPECS";

#[test]
fn the_page_works_in_a_browser() {
    let folder = tempfile::tempdir().unwrap();
    let demo = Running::start("demo", &folder.path().join("corners.sqlite3"));
    let url = format!("http://{}", demo.address);
    if let Ok(specs) = std::env::var(SPECS) {
        return play(&["tests", "touch", "pictures"], &[("FOGON_URL", &url), (SPECS, &specs)]);
    }
    play(&["tests", "touch"], &[("FOGON_URL", &url)]);
    play(&["pictures"], &[("FOGON_URL", &url)]);
}

/// Two pages, a wire that is cut and a server that is killed: shorter than by hand, where it runs for two minutes.
#[test]
fn nothing_typed_is_lost_while_wire_and_server_come_and_go() {
    if std::env::var(SPECS).is_ok() {
        return;
    }
    play(&["outage"], &[("FOGON_BIN", env!("CARGO_BIN_EXE_fogon")), ("FOGON_OUTAGE_S", "20")]);
}
