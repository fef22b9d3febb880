//! An acknowledged save outlives `kill -9`: the real binary, killed between requests (dropping it is SIGKILL), started again on its file.

// A helper of a test fails by panicking, as the test does.
#![allow(clippy::unwrap_used)]

mod running;

use std::io::{Read, Write};
use std::net::TcpStream;
use std::path::Path;
use std::process::Command;

use fogon_testkit::{BOX_ROOM, set};
use serde_json::{Value, json};

use running::Running;

struct Server(Running);

impl Server {
    fn on(database: &Path) -> Self {
        Self(Running::start("serve", database))
    }

    /// One request over a socket of its own; status and body.
    fn send(&self, method: &str, path: &str, headers: &str, body: &str) -> (u16, Value) {
        let mut socket = TcpStream::connect(&self.0.address).unwrap();
        let request = format!(
            "{method} {path} HTTP/1.1\r\nHost: {}\r\nConnection: close\r\nContent-Length: {}\r\n{headers}\r\n{body}",
            self.0.address,
            body.len()
        );
        socket.write_all(request.as_bytes()).unwrap();
        let mut answer = String::new();
        socket.read_to_string(&mut answer).unwrap();
        let status = answer.split(' ').nth(1).unwrap().parse().unwrap();
        let start = answer.find("{\"").unwrap_or(answer.len());
        let end = answer.rfind('}').map_or(answer.len(), |at| at + 1);
        (status, serde_json::from_str(answer.get(start..end).unwrap_or_default()).unwrap_or(Value::Null))
    }
}

#[test]
fn what_was_acknowledged_is_there_after_kill_9() {
    let folder = tempfile::tempdir().unwrap();
    let database = folder.path().join("corners.sqlite3");
    let server = Server::on(&database);
    let (status, made) = server.send("POST", "/api/v1/corners", "", BOX_ROOM);
    assert_eq!(status, 201);
    let path = format!("/api/v1/corners/{}", made["id"]);
    drop(server);
    for round in 1..=4 {
        let server = Server::on(&database);
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
        let again = Server::on(&database);
        let (_, kept) = again.send("GET", &path, "", "");
        assert_eq!(
            (kept["name"].as_str(), kept["layout"]["camera"]["iso"].as_f64()),
            (Some(format!("Round {round}").as_str()), Some(100.0 * round as f64))
        );
        drop(again);
    }
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
