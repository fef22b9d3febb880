//! The two set-up commands as steps that say what they do and how long it took.

use std::env;
use std::io::{BufRead, BufReader};
use std::path::Path;
use std::process::{Command, Stdio};
use std::time::Instant;

use crate::{directions, licences};

/// Packages with Debian's Chromium: without a window of its own, which is faster in tests, and the usual one.
const CHROMIUM: [&str; 2] = ["chromium-headless-shell", "chromium"];

/// Random tests try the same cases on every machine here; `cargo test` by hand tries others each time.
const SAME_CASES: (&str, &str) = ("PROPTEST_RNG_SEED", "22");

/// Builds the page and the binary, then serves the demo corner until it is stopped.
pub(crate) fn demo(arguments: &[String]) -> Result<(), String> {
    from_the_root()?;
    build_page()?;
    say("Building the server (the first time takes some minutes)");
    run("cargo", &["build", "--release", "--package", "fogon"])?;
    let mut demo = vec!["demo"];
    demo.extend(arguments.iter().map(String::as_str));
    run("target/release/fogon", &demo)
}

/// Everything that must hold, or the parts named.
pub(crate) fn test(parts: &[String]) -> Result<(), String> {
    from_the_root()?;
    let wanted = |part: &str| parts.is_empty() || parts.iter().any(|p| p == part);
    let known = ["format", "lint", "directions", "licences", "types", "web", "rust"];
    if let Some(other) = parts.iter().find(|p| !known.contains(&p.as_str())) {
        return Err(format!("{other} is no part of the tests; the parts are {}.", known.join(", ")));
    }
    if wanted("format") {
        step("Formatting", || run("cargo", &["fmt", "--all", "--check"]))?;
    }
    if wanted("directions") {
        step("Directions of dependencies", directions::check)?;
    }
    if wanted("licences") {
        step("Licences of dependencies", licences::check)?;
    }
    if wanted("web") || wanted("rust") || wanted("types") {
        step("The page", build_page)?;
    }
    if wanted("web") {
        step("Linting and testing the page", || side_by_side(["lint", "test"]))?;
    }
    // Both together are built once, by a compiler that lints.
    let lints = format!("{}/rustc-with-lints.sh", env!("CARGO_MANIFEST_DIR"));
    let mut variables = vec![SAME_CASES];
    if wanted("lint") && wanted("rust") {
        variables.push(("RUSTC_WORKSPACE_WRAPPER", &lints));
        let all = ["tests", "--tests", "--bench", "*", "--no-run"];
        step("Building and linting", || run_with(".", "cargo", &all, &variables))?;
    } else if wanted("lint") {
        let arguments = ["clippy", "--workspace", "--all-targets", "--", "-D", "warnings"];
        step("Clippy", || run("cargo", &arguments))?;
    }
    if wanted("rust") {
        step("Chromium", chromium)?;
        step("Tests", || run_with(".", "cargo", &["tests"], &variables))?;
    }
    if wanted("types") {
        step("The page's types follow the API", types_are_current)?;
    }
    say("All parts hold.");
    Ok(())
}

/// Writes everything that is made from the core's types again: schemas, OpenAPI document, the page's types.
pub(crate) fn types() -> Result<(), String> {
    from_the_root()?;
    packages()?;
    // The whole workspace, as the tests build it: what is built already is used.
    run("cargo", &["build", "--quiet", "--workspace", "--no-default-features"])?;
    for (which, path) in [
        ("plan", "docs/schema/plan.schema.json"),
        ("brief", "docs/schema/brief.schema.json"),
        ("openapi", "web/src/api/openapi.json"),
    ] {
        let output = Command::new("target/debug/fogon")
            .args(["schema", which])
            .output()
            .map_err(|e| format!("cannot start fogon: {e}"))?;
        if !output.status.success() {
            return Err(String::from_utf8_lossy(&output.stderr).into_owned());
        }
        std::fs::write(path, &output.stdout).map_err(|e| format!("cannot write {path}: {e}"))?;
    }
    npm(&["run", "types"])
}

/// The pictures of docs/screenshots, from demo data on a server of its own.
pub(crate) fn screenshots() -> Result<(), String> {
    from_the_root()?;
    build_page()?;
    chromium()?;
    run("cargo", &["build", "--release", "--package", "fogon"])?;
    let folder = env::temp_dir().join(format!("fogon-screenshots-{}", std::process::id()));
    std::fs::create_dir_all(&folder).map_err(|e| format!("cannot make {}: {e}", folder.display()))?;
    let mut server = Command::new("target/release/fogon")
        .args(["demo", "--port", "0", "--no-token", "--home", "127.0.0.2", "--database"])
        .arg(folder.join("corners.sqlite3"))
        .stdout(Stdio::piped())
        .spawn()
        .map_err(|e| format!("cannot start the demo: {e}"))?;
    let mut line = String::new();
    let heard = server.stdout.take().map(|out| BufReader::new(out).read_line(&mut line));
    let address = line.split_whitespace().find(|w| w.starts_with("http://"));
    let taken = match (heard, address) {
        (Some(Ok(_)), Some(address)) => run_with(
            "web",
            "npx",
            &["playwright", "test", "--project", "screenshots"],
            &[("FOGON_URL", address)],
        ),
        _ => Err("the demo server printed no address.".into()),
    };
    let _ = server.kill();
    let _ = server.wait();
    let _ = std::fs::remove_dir_all(&folder);
    taken
}

/// Regenerates the types and fails if that changes a committed file. The document itself is compared in Rust.
fn types_are_current() -> Result<(), String> {
    let files = ["web/src/api/schema.d.ts", "web/src/api/limits.ts"];
    let read = || files.map(|f| std::fs::read_to_string(f).unwrap_or_default());
    let before = read();
    npm(&["run", "types"])?;
    if read() == before {
        Ok(())
    } else {
        Err("The page's types were stale. Commit what `cargo xtask types` wrote.".into())
    }
}

fn build_page() -> Result<(), String> {
    packages()?;
    say("Building the page");
    npm(&["run", "build"])
}

/// Node packages by the lock file; npm's own marker says whether they are there already.
fn packages() -> Result<(), String> {
    let newer = |a: &str, b: &str| -> Option<bool> {
        Some(
            Path::new(a).metadata().ok()?.modified().ok()?
                >= Path::new(b).metadata().ok()?.modified().ok()?,
        )
    };
    if newer("web/node_modules/.package-lock.json", "web/package-lock.json") == Some(true) {
        return Ok(());
    }
    say("Installing the page's packages");
    npm(&["ci", "--no-audit", "--no-fund"])
}

/// Debian's Chromium: there, or installed if that is permitted.
fn chromium() -> Result<(), String> {
    let there = || CHROMIUM.iter().any(|package| Path::new("/usr/bin").join(package).exists());
    if there() {
        return Ok(());
    }
    say("Installing Chromium from Debian's packages");
    let [faster, _] = CHROMIUM;
    let installed = run("apt-get", &["update"])
        .and_then(|()| run("apt-get", &["install", "--yes", "--no-install-recommends", faster]));
    if installed.is_ok() && there() {
        return Ok(());
    }
    Err(format!(
        "The browser tests need Debian's Chromium in /usr/bin. Install it with `sudo apt-get install {faster}`, then run this again."
    ))
}

fn from_the_root() -> Result<(), String> {
    let root = Path::new(env!("CARGO_MANIFEST_DIR")).parent().ok_or("no workspace above xtask")?;
    env::set_current_dir(root).map_err(|e| format!("cannot enter {}: {e}", root.display()))
}

fn npm(arguments: &[&str]) -> Result<(), String> {
    run_in("web", "npm", arguments)
}

/// Two of the page's scripts at a time: neither has work for two processors.
fn side_by_side([one, other]: [&str; 2]) -> Result<(), String> {
    std::thread::scope(|both| {
        let first = both.spawn(|| npm(&["run", one]));
        let second = npm(&["run", other]);
        first.join().unwrap_or_else(|_| Err(format!("`npm run {one}` broke off."))).and(second)
    })
}

fn run(program: &str, arguments: &[&str]) -> Result<(), String> {
    run_in(".", program, arguments)
}

fn run_in(folder: &str, program: &str, arguments: &[&str]) -> Result<(), String> {
    run_with(folder, program, arguments, &[])
}

fn run_with(
    folder: &str,
    program: &str,
    arguments: &[&str],
    variables: &[(&str, &str)],
) -> Result<(), String> {
    let shown = format!("{program} {}", arguments.join(" "));
    let status = Command::new(program)
        .args(arguments)
        .current_dir(folder)
        .env("PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD", "1")
        .envs(variables.iter().copied())
        .stdin(Stdio::null())
        .status()
        .map_err(|e| format!("cannot start {program}: {e}. Is it installed?"))?;
    if status.success() { Ok(()) } else { Err(format!("`{shown}` failed in {folder}.")) }
}

fn say(text: &str) {
    println!("== {text}");
}

fn step(name: &str, work: impl FnOnce() -> Result<(), String>) -> Result<(), String> {
    say(name);
    let start = Instant::now();
    let outcome = work();
    println!(
        "== {name}: {} in {:.0} s",
        if outcome.is_ok() { "holds" } else { "FAILED" },
        start.elapsed().as_secs_f64()
    );
    outcome
}
