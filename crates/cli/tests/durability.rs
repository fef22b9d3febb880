//! An acknowledged save outlives `kill -9`: the real binary, killed between requests (dropping it is SIGKILL), started again on its file.

// A helper of a test fails by panicking, as the test does.
#![allow(clippy::unwrap_used)]

mod running;

use std::process::Command;
use std::sync::atomic::{AtomicUsize, Ordering};
use std::time::Duration;

use fogon_testkit::{BOX_ROOM, set};
use serde_json::{Value, json};

use running::{Running, from_env};

#[test]
fn what_was_acknowledged_is_there_after_kill_9() {
    let folder = tempfile::tempdir().unwrap();
    let database = folder.path().join("corners.sqlite3");
    let server = Running::start("serve", &database);
    let made = server.made(BOX_ROOM);
    let path = format!("/api/v1/corners/{}", made["id"]);
    drop(server);
    for round in 1..=4 {
        let server = Running::start("serve", &database);
        let (status, kept) = server.send("GET", &path, "", "");
        assert_eq!((status, kept["revision"].as_i64()), (200, Some(round)), "round {round}");
        let mut plan = json!({
            "format": "fogon.plan", "version": 1, "name": format!("Round {round}"), "brief": kept["brief"], "layout": kept["layout"]
        });
        set(&mut plan, "/layout/camera/iso", json!(100 * round));
        let (status, saved) =
            server.send("PUT", &path, &format!("If-Match: \"{round}\"\r\n"), &plan.to_string());
        assert_eq!((status, saved["revision"].as_i64()), (200, Some(round + 1)));
        drop(server);
        let again = Running::start("serve", &database);
        let (_, kept) = again.send("GET", &path, "", "");
        assert_eq!(
            (kept["name"].as_str(), kept["layout"]["camera"]["iso"].as_f64()),
            (Some(format!("Round {round}").as_str()), Some(100.0 * round as f64))
        );
        drop(again);
    }
}

/// A save that was acknowledged.
struct Saved {
    revision: i64,
    name: String,
}

/// Saves one after the other until the server is gone; those that were acknowledged.
fn saves(
    server: &Running,
    path: &str,
    plan: &Value,
    from: i64,
    names: &str,
    count: &AtomicUsize,
) -> Vec<Saved> {
    let mut acknowledged: Vec<Saved> = Vec::new();
    let mut revision = from;
    loop {
        let name = format!("{names} {revision}");
        let mut plan = plan.clone();
        plan["name"] = json!(name);
        plan["layout"]["camera"]["iso"] = json!(100 + revision % 1000);
        let headers = format!("If-Match: \"{revision}\"\r\nIdempotency-Key: {name}\r\n");
        let Some((status, saved)) = server.try_send("PUT", path, &headers, &plan.to_string()) else {
            return acknowledged;
        };
        assert_eq!(status, 200, "{saved}");
        revision = saved["revision"].as_i64().unwrap();
        acknowledged.push(Saved { revision, name });
        count.fetch_add(1, Ordering::Relaxed);
    }
}

/// Four writers, each on a corner of its own, and a `kill -9` in their midst: every save that was acknowledged is there, under
/// its number. FOGON_ROUNDS rounds, 3 where none are told; the moments of the kills come from FOGON_SEED.
#[test]
fn four_writers_lose_nothing_that_was_acknowledged() {
    let (rounds, seed) = (from_env("FOGON_ROUNDS", 3), from_env("FOGON_SEED", 1));
    let folder = tempfile::tempdir().unwrap();
    let database = folder.path().join("corners.sqlite3");
    let server = Running::start("serve", &database);
    let ids: Vec<i64> = (0..4).map(|_| server.made(BOX_ROOM)["id"].as_i64().unwrap()).collect();
    let (_, plan) = server.send("GET", &format!("/api/v1/corners/{}/file", ids[0]), "", "");
    drop(server);
    let mut all = 0;
    for round in 0..rounds {
        let server = Running::start("serve", &database);
        let count = AtomicUsize::new(0);
        let moment_ms = (seed + round).wrapping_mul(2_654_435_761) % 900;
        let written: Vec<(i64, Vec<Saved>)> = std::thread::scope(|scope| {
            let writers: Vec<_> = ids
                .iter()
                .map(|id| {
                    let (server, plan, count) = (&server, &plan, &count);
                    scope.spawn(move || {
                        let path = format!("/api/v1/corners/{id}");
                        // It may be gone before it was asked for the first time.
                        let saved = server.try_send("GET", &path, "", "").map(|(_, kept)| {
                            let now = kept["revision"].as_i64().unwrap();
                            saves(server, &path, plan, now, &format!("Round {round}"), count)
                        });
                        (*id, saved.unwrap_or_default())
                    })
                })
                .collect();
            while count.load(Ordering::Relaxed) == 0 {
                std::thread::sleep(Duration::from_millis(1));
            }
            std::thread::sleep(Duration::from_millis(moment_ms));
            server.kill();
            writers.into_iter().map(|writer| writer.join().unwrap()).collect()
        });
        drop(server);
        let again = Running::start("serve", &database);
        for (id, saved) in &written {
            for Saved { revision, name } in saved {
                let (status, once) =
                    again.send("GET", &format!("/api/v1/corners/{id}/revisions/{revision}"), "", "");
                assert_eq!((status, once["name"].as_str()), (200, Some(name.as_str())), "round {round}");
            }
            all += saved.len();
        }
    }
    assert!(all > 4 * rounds as usize, "only {all} saves: nothing was tried");
    println!("{rounds} rounds of kill -9 under 4 writers: {all} saves acknowledged, 0 lost");
}

/// A file that is no database is refused in one sentence, and left as it was.
#[test]
fn a_file_that_is_no_database_is_left_alone() {
    let folder = tempfile::tempdir().unwrap();
    let file = folder.path().join("notes.txt");
    let text = "This is a shopping list, not a database. ".repeat(200);
    std::fs::write(&file, &text).unwrap();
    let output = Command::new(env!("CARGO_BIN_EXE_fogon"))
        .args(["serve", "--port", "0", "--database"])
        .arg(&file)
        .output()
        .unwrap();
    assert_eq!(output.status.code(), Some(3));
    let said = String::from_utf8(output.stderr).unwrap();
    assert!(said.starts_with("cannot use the database ") && said.lines().count() == 1, "{said}");
    assert_eq!(std::fs::read_to_string(&file).unwrap(), text);
}
