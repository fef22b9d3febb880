//! Every command that reads a file, given every file that is none of its own: it ends with the exit code of a refusal, says in a
//! line or two of plain words what is the matter with which file, writes nothing, and leaves what was there.

// A helper of a test fails by panicking, as the test does.
#![allow(clippy::unwrap_used)]

use std::path::{Path, PathBuf};
use std::process::{Command, Output, Stdio};

use fogon_testkit::BOX_ROOM;

/// How a command is called on a file: what stands before the file, and after it.
struct Call {
    name: &'static str,
    before: Vec<String>,
    after: Vec<String>,
    /// Reads an archive or a database, not a text.
    binary: bool,
    /// What a file of its own is.
    reads: Reads,
}

#[derive(Clone, Copy, PartialEq)]
enum Reads {
    Brief,
    Plan,
    Archive,
    Recording,
}

fn calls(folder: &Path) -> Vec<Call> {
    let at = |name: &str| folder.join(name).to_str().unwrap().to_owned();
    let call = |name: &'static str, reads: Reads, before: &[&str], after: &[&str]| Call {
        name,
        before: before.iter().map(|one| (*one).to_owned()).collect(),
        after: after.iter().map(|one| (*one).to_owned()).collect(),
        binary: matches!(reads, Reads::Archive | Reads::Recording),
        reads,
    };
    let database = at("corners.sqlite3");
    vec![
        call("propose", Reads::Brief, &[], &[]),
        call("evaluate", Reads::Plan, &[], &[]),
        call("buy", Reads::Plan, &[], &["--budget", "100"]),
        call("hours", Reads::Plan, &["--from", "2026-06-01", "--to", "2026-06-02"], &[]),
        call("card", Reads::Plan, &[], &["--out", &at("out.svg")]),
        call("render", Reads::Plan, &[], &["--out", &at("out.png")]),
        call("export", Reads::Plan, &["--scene", &at("scene")], &[]),
        call("run", Reads::Plan, &[], &[]),
        call("import", Reads::Archive, &["--database", &database], &[]),
        call("restore", Reads::Archive, &["--database", &database], &[]),
        call("take", Reads::Recording, &[], &[]),
    ]
}

/// Files that are none of a command's own.
fn files(folder: &Path) -> Vec<(&'static str, PathBuf)> {
    let plan = std::fs::read(root().join("docs/examples/box-room.fogon.json")).unwrap();
    let cut = plan[..plan.len() / 2].to_vec();
    let wide: Vec<u8> = String::from_utf8_lossy(&plan).encode_utf16().flat_map(u16::to_le_bytes).collect();
    let made: Vec<(&'static str, Vec<u8>)> = vec![
        ("empty", Vec::new()),
        ("half", cut),
        ("list", b"[1, 2, 3]".to_vec()),
        ("note", b"Move the tripod to the left of the shelf.\n".to_vec()),
        ("wide", wide),
        ("zeros", vec![0; 4096]),
        ("noise", (0..4096u32).map(|i| (i.wrapping_mul(2_654_435_761) >> 13) as u8).collect()),
        ("picture", [b"\x89PNG\r\n\x1a\n".as_slice(), &[0; 200]].concat()),
        (
            "archive",
            b"PK\x05\x06\x00\x00\x00\x00\x00\x00\x00\x00\x00\x00\x00\x00\x00\x00\x00\x00\x00\x00".to_vec(),
        ),
        ("database", [b"SQLite format 3\x00".as_slice(), &[7; 4096]].concat()),
        ("sound", [b"RIFF\xff\xff\xff\x7fWAVEfmt ".as_slice(), &[0xee; 64]].concat()),
        (
            "version",
            br#"{"format":"fogon.plan","version":9000,"name":"Later","brief":{},"layout":{}}"#.to_vec(),
        ),
    ];
    made.into_iter()
        .map(|(name, bytes)| {
            let path = folder.join(format!("{name}.file"));
            std::fs::write(&path, bytes).unwrap();
            (name, path)
        })
        .collect()
}

fn root() -> PathBuf {
    Path::new(env!("CARGO_MANIFEST_DIR")).join("../..").canonicalize().unwrap()
}

fn fogon(call: &Call, file: &Path) -> Output {
    Command::new(env!("CARGO_BIN_EXE_fogon"))
        .arg(call.name)
        .args(&call.before)
        .arg(file)
        .args(&call.after)
        .stdin(Stdio::null())
        .output()
        .unwrap()
}

/// Words of the libraries beneath, of no use to a person.
const INNER: [&str; 12] = [
    "panicked",
    "unwrap",
    "serde",
    "rusqlite",
    "thread 'main'",
    "RUST_BACKTRACE",
    "::",
    "Os {",
    "os error",
    "Some(",
    "struct ",
    "stream did not contain",
];

fn assert_refused(call: &Call, what: &str, output: &Output) {
    let told = String::from_utf8_lossy(&output.stderr).into_owned();
    let asked = format!("{} of {what}: {told:.400}", call.name);
    let code = output.status.code().unwrap_or_else(|| panic!("{asked} was killed"));
    // 2 is what is in the file, 3 the file itself, 1 a file that was read and is not well.
    assert!([1, 2, 3].contains(&code), "{code}: {asked}");
    assert!(
        output.stdout.is_empty() || code == 1,
        "{asked}: and {:.200}",
        String::from_utf8_lossy(&output.stdout)
    );
    let said = if told.is_empty() { String::from_utf8_lossy(&output.stdout).into_owned() } else { told };
    assert!((1..=12).contains(&said.lines().count()), "{asked}");
    for inner in INNER {
        assert!(!said.contains(inner), "{asked}: {inner}");
    }
    assert!(said.len() < 4000 && said.chars().any(|c| c.is_ascii_alphabetic()), "{asked}");
}

#[test]
fn every_command_refuses_files_that_are_none_of_its_own() {
    let folder = tempfile::tempdir().unwrap();
    let mut files = files(folder.path());
    let brief = folder.path().join("brief.file");
    std::fs::write(&brief, BOX_ROOM).unwrap();
    files.push(("brief", brief));
    files.push(("plan", root().join("docs/examples/box-room.fogon.json")));
    files.push(("folder", folder.path().join("a-folder")));
    std::fs::create_dir(folder.path().join("a-folder")).unwrap();
    files.push(("nothing at all", folder.path().join("nowhere.file")));
    for call in calls(folder.path()) {
        for (what, file) in &files {
            let is_own = match call.reads {
                Reads::Brief => *what == "brief",
                // What is made of a plan is made of a brief as well where that leads to one.
                Reads::Plan => *what == "plan" || *what == "brief",
                Reads::Archive | Reads::Recording => false,
            };
            if is_own {
                continue;
            }
            let output = fogon(&call, file);
            assert_refused(&call, what, &output);
            if call.binary || *what != "plan" {
                for made in ["out.svg", "out.png", "scene", "corners.sqlite3"] {
                    assert!(!folder.path().join(made).exists(), "{} of {what} left {made}", call.name);
                }
            }
        }
    }
}

/// A file that is refused is told by its name, so that a script over many knows which it was.
#[test]
fn what_cannot_be_read_is_told_by_its_name() {
    let folder = tempfile::tempdir().unwrap();
    for call in calls(folder.path()) {
        let missing = folder.path().join("tuesday.file");
        let output = fogon(&call, &missing);
        let told = String::from_utf8_lossy(&output.stderr);
        assert_eq!(output.status.code(), Some(3), "{}: {told}", call.name);
        assert!(told.contains("tuesday.file"), "{}: {told}", call.name);
    }
}
