//! Keeping corners on the command line: backup, restore, doctor, archives; where files are written; and how the server ends.

// A helper of a test fails by panicking, as the test does.
#![allow(clippy::unwrap_used)]

mod running;

use std::io::Write;
use std::net::TcpStream;
use std::path::Path;
use std::process::{Command, Output};
use std::time::{Duration, Instant};

use running::Running;

fn fogon(arguments: &[&str], folder: &Path) -> Output {
    Command::new(env!("CARGO_BIN_EXE_fogon"))
        .args(arguments)
        .current_dir(folder)
        // The data folder of this account, of this test alone.
        .env("HOME", folder)
        .env("XDG_DATA_HOME", folder.join("data"))
        .output()
        .unwrap()
}

fn said(output: &Output) -> String {
    assert!(output.status.success(), "{}", String::from_utf8_lossy(&output.stderr));
    String::from_utf8(output.stdout.clone()).unwrap()
}

fn refused(output: &Output) -> String {
    assert!(!output.status.success());
    String::from_utf8(output.stderr.clone()).unwrap()
}

/// The demo's three corners in a file, while they are served.
fn served(folder: &Path) -> Running {
    Running::start("demo", &folder.join("c.sqlite3"))
}

#[test]
fn a_backup_is_taken_while_it_is_served_and_put_back_afterwards() {
    let folder = tempfile::tempdir().unwrap();
    let path = folder.path();
    let server = served(path);
    let taken = said(&fogon(&["backup", "b.sqlite3", "--database", "c.sqlite3"], path));
    assert!(taken.starts_with("b.sqlite3 holds everything"), "{taken}");
    // Not over another file, and not while it is open.
    assert!(
        refused(&fogon(&["backup", "b.sqlite3", "--database", "c.sqlite3"], path)).contains("there already")
    );
    assert!(
        refused(&fogon(&["restore", "b.sqlite3", "--database", "c.sqlite3"], path)).contains("Another Fogon")
    );
    drop(server);
    let whole = std::fs::read(path.join("b.sqlite3")).unwrap();
    // What is damaged is not put back, and the file stays as it is.
    let mut damaged = whole.clone();
    let middle = damaged.len() / 2;
    damaged[middle..middle + 4096].fill(0x5a);
    std::fs::write(path.join("bad.sqlite3"), &damaged).unwrap();
    let words = refused(&fogon(&["restore", "bad.sqlite3", "--database", "c.sqlite3"], path));
    assert!(words.contains("damaged"), "{words}");
    std::fs::remove_file(path.join("c.sqlite3")).unwrap();
    for log in ["c.sqlite3-wal", "c.sqlite3-shm"] {
        let _ = std::fs::remove_file(path.join(log));
    }
    let back = said(&fogon(&["restore", "b.sqlite3", "--database", "c.sqlite3"], path));
    assert!(back.contains("is back as it was backed up"), "{back}");
    let found = said(&fogon(&["doctor", "--database", "c.sqlite3", "--strict"], path));
    assert!(found.contains("3 corners") && found.contains("Nothing is wrong"), "{found}");
}

#[test]
fn the_doctor_says_what_is_wrong_and_mends_it() {
    let folder = tempfile::tempdir().unwrap();
    let path = folder.path();
    drop(served(path));
    let doctor = |more: &[&str]| fogon(&[&["doctor", "--database", "c.sqlite3"], more].concat(), path);
    said(&doctor(&["--strict"]));
    // A page in the middle is lost. The log would bring it back.
    said(&fogon(&["backup", "whole.sqlite3", "--database", "c.sqlite3"], path));
    for log in ["c.sqlite3-wal", "c.sqlite3-shm"] {
        let _ = std::fs::remove_file(path.join(log));
    }
    let mut bytes = std::fs::read(path.join("whole.sqlite3")).unwrap();
    let last = bytes.len() - 4096;
    bytes[last..].fill(0);
    std::fs::write(path.join("c.sqlite3"), &bytes).unwrap();
    let found = doctor(&["--strict"]);
    assert_eq!(found.status.code(), Some(1));
    let words = String::from_utf8(found.stdout).unwrap();
    assert!(words.contains("damaged") && words.contains("With --mend:"), "{words}");
    let mended = said(&doctor(&["--mend"]));
    assert!(mended.contains("Mended:") && mended.contains("is kept as"), "{mended}");
    let report: serde_json::Value = serde_json::from_str(&said(&doctor(&["--strict", "--json"]))).unwrap();
    assert!(report["wrong"].as_array().unwrap().is_empty() && report["mending"].is_null(), "{report}");
}

#[test]
fn an_archive_goes_out_and_comes_in() {
    let folder = tempfile::tempdir().unwrap();
    let path = folder.path();
    let server = served(path);
    said(&fogon(&["archive", "all.zip", "--database", "c.sqlite3"], path));
    drop(server);
    // Without a name the corners lie in the data folder of the account.
    let would = said(&fogon(&["import", "all.zip", "--dry-run"], path));
    assert_eq!(
        would.lines().filter(|line| line.ends_with(": new, with all its saves")).count(),
        3,
        "{would}"
    );
    assert!(would.ends_with("Nothing was changed.\n"));
    said(&fogon(&["import", "all.zip"], path));
    let own = path.join("data/fogon/corners.sqlite3");
    assert!(own.is_file());
    said(&fogon(&["archive", "again.zip"], path));
    assert_eq!(std::fs::read(path.join("again.zip")).unwrap(), std::fs::read(path.join("all.zip")).unwrap());
    let name = would.split(':').next().unwrap();
    said(&fogon(&["archive", "one.zip", "--corner", name], path));
    let replaced = said(&fogon(&["import", "one.zip", "--replace", "--dry-run"], path));
    assert_eq!(
        replaced.lines().filter(|line| line.ends_with("it goes into the bin")).count(),
        2,
        "{replaced}"
    );
    assert!(refused(&fogon(&["archive", "x.zip", "--corner", "nobody"], path)).contains("nobody"));
    std::fs::write(path.join("no.zip"), "no archive").unwrap();
    assert!(refused(&fogon(&["import", "no.zip"], path)).contains("no archive of Fogon"));
}

/// A link keeps leading to its file, a file keeps its mode, and a device is written to, not replaced.
#[cfg(unix)]
#[test]
fn what_is_written_to_stays_what_it_is() {
    use std::os::unix::fs::{PermissionsExt, symlink};
    let folder = tempfile::tempdir().unwrap();
    let path = folder.path();
    let brief = concat!(env!("CARGO_MANIFEST_DIR"), "/../../docs/examples/box-room.brief.json");
    let target = path.join("target.json");
    std::fs::write(&target, "old").unwrap();
    std::fs::set_permissions(&target, std::fs::Permissions::from_mode(0o600)).unwrap();
    symlink("target.json", path.join("link.json")).unwrap();
    let null = Path::new("/dev/null");
    said(&fogon(&["propose", brief, "--plan", "link.json"], path));
    assert!(std::fs::symlink_metadata(path.join("link.json")).unwrap().is_symlink());
    let written = std::fs::read_to_string(&target).unwrap();
    assert!(written.contains("fogon.plan"), "{written}");
    assert_eq!(std::fs::metadata(&target).unwrap().permissions().mode() & 0o777, 0o600);
    said(&fogon(&["propose", brief, "--plan", "/dev/null"], path));
    assert!(!std::fs::metadata(null).unwrap().is_file());
    said(&fogon(&["card", "link.json", "--out", "card.svg"], path));
    // A new file is made as every program makes one.
    std::fs::write(path.join("usual"), "").unwrap();
    let mode = |name: &str| std::fs::metadata(path.join(name)).unwrap().permissions().mode();
    assert_eq!(mode("card.svg"), mode("usual"));
    let left = std::fs::read_dir(path)
        .unwrap()
        .filter(|entry| entry.as_ref().unwrap().file_name().to_string_lossy().contains(".part"));
    assert_eq!(left.count(), 0);
}

/// Told to stop, as soon as it says where it is, the server ends in order. It does not wait for one who never finishes asking;
/// told again, not even for those who do.
#[cfg(unix)]
#[test]
fn the_server_ends_when_it_is_told_to() {
    let folder = tempfile::tempdir().unwrap();
    for (times, after_ms) in [(1, 0), (1, 300), (2, 300)] {
        let server = served(folder.path());
        let mut half = TcpStream::connect(&server.address).unwrap();
        half.write_all(b"POST /api/v1/corners HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Length: 9\r\n\r\n{")
            .unwrap();
        std::thread::sleep(Duration::from_millis(after_ms));
        for _ in 0..times {
            let told = Command::new("kill").args(["-INT", &server.id()]).status().unwrap();
            assert!(told.success());
            std::thread::sleep(Duration::from_millis(300));
        }
        let began = Instant::now();
        let status = loop {
            if let Some(status) = server.ended() {
                break status;
            }
            assert!(began.elapsed() < Duration::from_secs(60), "it does not end");
            std::thread::sleep(Duration::from_millis(50));
        };
        assert!(status.success(), "{status}");
        // Everything is in the one file.
        assert!(!folder.path().join("c.sqlite3-wal").metadata().is_ok_and(|log| log.len() > 0));
    }
}
