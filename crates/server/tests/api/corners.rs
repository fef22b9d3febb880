//! Corners kept: saved, undone, listed, taken out and brought back.

use fogon_core::plan::{BriefFile, Plan};
use fogon_testkit::{BOX_ROOM, box_room, set};
use serde_json::{Value, json};

use crate::running::{Answer, Server, folder};

#[test]
fn a_corner_is_kept_changed_and_forgotten() {
    let folder = folder();
    let database = folder.path().join("corners.sqlite3");
    let server = Server::on(&database);
    let id = server.demo();
    let path = format!("/api/v1/corners/{id}");
    let first = server.get(&path);
    assert_eq!((first.status, first.tag.as_str()), (200, "\"1\""));
    assert!(first.json()["layout"]["camera"].is_object(), "a layout is found without being asked for");
    let mut plan = server.plan(id);
    set(&mut plan, "/layout/camera/iso", json!(400));
    let saved = server.send("PUT", &path, &[("if-match", "\"1\"")], &plan.to_string());
    assert_eq!((saved.status, saved.tag.as_str()), (200, "\"2\""));
    let listed = server.get("/api/v1/corners").json();
    assert_eq!(listed.as_array().unwrap().len(), 1);
    assert!(listed[0]["told"]["verdict"]["sentence"].as_str().unwrap().contains("Not ready"), "{listed}");
    drop(server);

    // An acknowledged save outlives the process.
    let again = Server::on(&database);
    assert_eq!(again.get(&path).json()["layout"]["camera"]["iso"], 400.0);
    assert_eq!(again.send("DELETE", &path, &[("if-match", "\"1\"")], "").problem(), "changed_elsewhere");
    assert_eq!(again.send("DELETE", &path, &[("if-match", "\"2\"")], "").status, 204);
    assert_eq!(again.get(&path).problem(), "not_found");
    assert_eq!(again.get("/api/v1/corners").json(), json!([]));
}

#[test]
fn two_windows_get_a_conflict_and_never_a_silent_overwrite() {
    let folder = folder();
    let server = Server::on(&folder.path().join("c.sqlite3"));
    let id = server.demo();
    let path = format!("/api/v1/corners/{id}");
    let (mut one, mut other) = (server.plan(id), server.plan(id));
    set(&mut one, "/name", json!("First window"));
    set(&mut other, "/name", json!("Second window"));
    let put = |tag: &[(&str, &str)], body: &Value| server.send("PUT", &path, tag, &body.to_string());
    assert_eq!(put(&[("if-match", "\"1\"")], &one).status, 200);
    let late = put(&[("if-match", "\"1\"")], &other);
    assert_eq!((late.status, late.json()["revision"].as_i64()), (412, Some(2)));
    let untagged = put(&[], &other);
    assert_eq!((untagged.status, untagged.problem().as_str()), (428, "if_match_missing"));
    assert_eq!(server.get(&path).json()["name"], "First window");
    // Many at once: one wins, the rest are told.
    let wins = std::thread::scope(|scope| {
        let tries: Vec<_> =
            (0..8).map(|_| scope.spawn(|| put(&[("if-match", "\"2\"")], &other).status)).collect();
        tries.into_iter().map(|t| t.join().unwrap()).filter(|status| *status == 200).count()
    });
    assert_eq!(wins, 1);
}

#[test]
fn what_leaves_comes_back_the_same() {
    let folder = folder();
    let server = Server::on(&folder.path().join("c.sqlite3"));
    let id = server.demo();
    let file = server.get(&format!("/api/v1/corners/{id}/file"));
    assert!(Plan::read(file.text.as_bytes()).is_ok());
    let again = server.send("POST", "/api/v1/corners", &[], &file.text).json();
    assert_eq!(server.plan(again["id"].as_i64().unwrap()), file.json());
    let card = |format: &str| server.get(&format!("/api/v1/corners/{id}/card/{format}"));
    for (format, kind, holds) in [
        ("html", "text/html; charset=utf-8", "size:A4"),
        ("html?paper=letter", "text/html; charset=utf-8", "size:letter"),
        ("svg", "image/svg+xml", "width=\"210mm\""),
        ("csv", "text/csv; charset=utf-8", "Seat, plumb under the eyes"),
    ] {
        let answer = card(format);
        assert_eq!((answer.status, answer.kind.as_str()), (200, kind), "{format}");
        assert!(answer.text.contains(holds), "{format} lacks {holds}");
    }
    assert_eq!(card("docx").problem(), "not_found");
    assert_eq!(card("html?paper=foolscap").problem(), "bad_choice");
    assert_eq!(card("html?picture=blue").problem(), "bad_choice");
    // The photograph takes its time: without it the card is there at once.
    let (drawn, whole) = (card("html?picture=lines"), card("html"));
    assert!(!drawn.text.contains("data:image/png") && whole.text.contains("data:image/png"));
    // Where nothing fits there is a brief and no card.
    let mut brief = box_room();
    set(&mut brief, "/brief/gear", json!({}));
    let bare = server.post("/api/v1/corners", &brief).json();
    assert!(bare["layout"].is_null());
    let bare = bare["id"].as_i64().unwrap();
    assert_eq!(server.get(&format!("/api/v1/corners/{bare}/card/html")).problem(), "no_layout");
    assert_eq!(server.plan(bare)["format"], "fogon.brief");
}

/// Readers are answered while others write, and every answer is whole.
#[test]
fn many_at_once_are_all_answered() {
    let folder = folder();
    let server = Server::on(&folder.path().join("c.sqlite3"));
    let id = server.demo();
    let plan = server.plan(id);
    std::thread::scope(|scope| {
        for worker in 0..6 {
            let (server, plan) = (&server, &plan);
            scope.spawn(move || {
                for _ in 0..5 {
                    match worker % 3 {
                        0 => assert_eq!(
                            server.post("/api/v1/assess", plan).json()["assessment"]["verdict"]["ready"],
                            true
                        ),
                        1 => assert!(
                            server.get("/api/v1/corners").json().as_array().is_some_and(|c| !c.is_empty())
                        ),
                        _ => assert_eq!(server.post("/api/v1/corners", plan).status, 201),
                    }
                }
            });
        }
    });
    assert_eq!(server.get("/api/v1/corners").json().as_array().unwrap().len(), 11);
}

#[test]
fn steps_go_back_and_forth_and_survive_a_restart() {
    let folder = folder();
    let database = folder.path().join("corners.sqlite3");
    let server = Server::on(&database);
    let id = server.demo();
    let path = format!("/api/v1/corners/{id}");
    let mut plan = server.plan(id);
    let step = |server: &Server, which: &str, revision: i64| {
        server.send("POST", &format!("{path}/{which}"), &[("if-match", &format!("\"{revision}\""))], "")
    };
    assert_eq!(step(&server, "undo", 1).problem(), "no_such_step");
    for (revision, iso) in [(1, 200), (2, 400)] {
        set(&mut plan, "/layout/camera/iso", json!(iso));
        let saved =
            server.send("PUT", &path, &[("if-match", &format!("\"{revision}\""))], &plan.to_string()).json();
        assert_eq!((&saved["can_undo"], &saved["can_redo"]), (&json!(true), &json!(false)));
    }
    let iso = |answer: &Answer| answer.json()["layout"]["camera"]["iso"].as_f64().unwrap();
    let back = step(&server, "undo", 3);
    assert_eq!((back.status, iso(&back), back.tag.as_str()), (200, 200.0, "\"4\""));
    // From an old revision nothing is stepped.
    assert_eq!(step(&server, "undo", 3).status, 412);
    drop(server);
    let server = Server::on(&database);
    let kept = server.get(&path);
    assert_eq!((iso(&kept), &kept.json()["can_redo"]), (200.0, &json!(true)));
    let forth = step(&server, "redo", 4);
    assert_eq!((iso(&forth), &forth.json()["can_redo"]), (400.0, &json!(false)));
    assert_eq!(step(&server, "redo", 5).problem(), "no_such_step");
    // All the way back, a new change, and there is no way forward to what it replaced.
    assert_eq!(iso(&step(&server, "undo", 5)), 200.0);
    let first = step(&server, "undo", 6);
    assert_eq!(first.json()["can_undo"], false);
    let changed = server.send("PUT", &path, &[("if-match", "\"7\"")], &plan.to_string());
    assert_eq!((iso(&changed), &changed.json()["can_redo"]), (400.0, &json!(false)));
}

/// Puts a text in the place of a corner's last save, and a name.
fn spoil(database: &std::path::Path, id: i64, text: &str) {
    let mut packer = flate2::write::ZlibEncoder::new(Vec::new(), flate2::Compression::fast());
    std::io::Write::write_all(&mut packer, text.as_bytes()).unwrap();
    let connection = rusqlite::Connection::open(database).unwrap();
    connection
        .execute(
            "INSERT OR IGNORE INTO document (hash, body) VALUES (?1, ?2)",
            (format!("spoilt {text}").as_bytes(), packer.finish().unwrap()),
        )
        .unwrap();
    let content = connection.last_insert_rowid();
    connection
        .execute(
            "UPDATE revision SET document = ?1 WHERE corner = ?2 AND number = (SELECT revision FROM corner WHERE id = ?2)",
            (content, id),
        )
        .unwrap();
    connection.execute("UPDATE corner SET name = 'Spoilt' WHERE id = ?1", [id]).unwrap();
}

/// A row that no version reads: the list shows it with its name and why, its raw document can be saved, the other corners work,
/// and a server that starts on such a file starts.
#[test]
fn an_unreadable_row_takes_nothing_with_it() {
    let folder = folder();
    let database = folder.path().join("corners.sqlite3");
    let (good, bad) = {
        let server = Server::on(&database);
        (server.demo(), server.demo())
    };
    let outside = {
        let server = Server::on(&database);
        let mut plan = server.plan(good);
        set(&mut plan, "/layout/seat/position_m", json!([1.7, -30]));
        plan.to_string()
    };
    for text in ["no document", "{\"format\":\"fogon.plan\",\"version\":9}", &outside] {
        spoil(&database, bad, text);
        let server = Server::on(&database);
        let listed = server.get("/api/v1/corners").json();
        let of = |id: i64| listed.as_array().unwrap().iter().find(|row| row["id"] == id).unwrap().clone();
        assert_eq!(listed.as_array().unwrap().len(), 2);
        assert_eq!((&of(bad)["name"], &of(bad)["told"]), (&json!("Spoilt"), &Value::Null));
        assert!(of(bad)["trouble"].as_str().is_some_and(|t| t.contains("cannot read")), "{}", of(bad));
        assert!(of(good)["trouble"].is_null() && of(good)["told"]["verdict"]["sentence"].is_string());
        // It is refused in words, its document leaves as it lies, and it can be deleted.
        assert_eq!(server.get(&format!("/api/v1/corners/{bad}")).problem(), "unreadable");
        let raw = server.get(&format!("/api/v1/corners/{bad}/file"));
        assert_eq!(raw.status, 200);
        match serde_json::from_str::<Value>(text) {
            Ok(value) => assert_eq!(raw.json(), value),
            Err(_) => assert_eq!(raw.text.trim_end(), text),
        }
        assert_eq!(server.get(&format!("/api/v1/corners/{good}")).status, 200);
        assert_eq!(server.post("/api/v1/assess", &server.plan(good)).status, 200);
    }
    let server = Server::on(&database);
    let revision = server.get("/api/v1/corners").json()[0]["revision"].clone();
    let gone = server.send(
        "DELETE",
        &format!("/api/v1/corners/{bad}"),
        &[("if-match", &format!("\"{revision}\""))],
        "",
    );
    assert_eq!(gone.status, 204);
    assert_eq!(server.get("/api/v1/corners").json().as_array().unwrap().len(), 1);
}

/// A seat 2 cm outside a room with a slope is imported, listed and judged; one far outside is refused at the door.
#[test]
fn a_seat_outside_the_room_stops_nothing_but_the_recording() {
    let folder = folder();
    let server = Server::on(&folder.path().join("c.sqlite3"));
    let mut plan = server.plan(server.demo());
    set(&mut plan, "/brief/room/slopes", json!({ "slope": { "wall": 1, "knee_m": 1.2, "run_m": 1.0 } }));
    set(&mut plan, "/layout/seat/position_m", json!([1.7, -0.02]));
    let made = server.post("/api/v1/corners", &plan);
    assert_eq!(made.status, 201, "{}", made.text);
    let listed = server.get("/api/v1/corners").json();
    let row = listed.as_array().unwrap().iter().find(|row| row["id"] == made.json()["id"]).unwrap().clone();
    assert_eq!(row["told"]["verdict"]["ready"], false);
    let judged = server.post("/api/v1/assess", &plan);
    assert!(judged.status == 200 && judged.text.contains("legal.room."), "{}", judged.status);
    // Moved there by hand, against the rules, it is judged as well.
    let by = json!({ "thing": "seat", "to_m": [1.7, -0.05, 0], "anyway": true });
    let moved = server.post("/api/v1/move", &json!({ "plan": plan, "move": by }));
    assert_eq!(moved.status, 200, "{}", moved.text);
    set(&mut plan, "/layout/seat/position_m", json!([1.7, -3.0]));
    assert_eq!(server.post("/api/v1/corners", &plan).problem(), "bad_input");
}

/// What a search decides about the brief is kept with its layout: without a lamp the window is the key, and the corner is as ready as the
/// search says.
#[test]
fn without_a_lamp_the_window_is_kept_as_the_key() {
    let folder = folder();
    let server = Server::on(&folder.path().join("c.sqlite3"));
    let mut brief: Value = serde_json::from_str(BOX_ROOM).unwrap();
    let gear = brief["brief"]["gear"].as_object_mut().unwrap();
    gear.retain(|_, one| one["kind"] != "light");
    brief["brief"].as_object_mut().unwrap().remove("today");
    let found = server.post("/api/v1/propose", &brief).json()["proposals"][0].clone();
    assert_eq!(found["plan"]["brief"]["schools"]["window"], "key", "{found}");
    let made = server.post("/api/v1/corners", &brief).json();
    assert_eq!(made["brief"]["schools"], found["plan"]["brief"]["schools"]);
    let listed = server.get("/api/v1/corners").json();
    assert_eq!(listed[0]["told"]["verdict"]["ready"], found["ready"], "{listed}");
}

/// What is locked stays where it is when everything else is placed anew, and stays locked.
#[test]
fn placing_anew_keeps_what_is_locked() {
    let folder = folder();
    let server = Server::on(&folder.path().join("c.sqlite3"));
    let mut plan = server.plan(server.demo());
    for thing in ["/layout/lights/key", "/layout/microphone"] {
        set(&mut plan, &format!("{thing}/locked"), json!(true));
    }
    let at = plan["layout"]["lights"]["key"]["position_m"].clone();
    set(&mut plan, "/layout/lights/key/position_m/2", json!(at[2].as_f64().unwrap() - 0.1));
    let placed = server.post("/api/v1/place", &plan).json();
    for thing in ["/layout/lights/key", "/layout/microphone"] {
        let (was, is) = (plan.pointer(thing).unwrap(), placed.pointer(thing).unwrap());
        assert_eq!(
            (&was["position_m"], &was["gear"], &was["locked"]),
            (&is["position_m"], &is["gear"], &is["locked"]),
            "{thing}"
        );
    }
}

/// The demo's first corners come where there are none, once; a file with a row that no version reads starts as any other and is
/// not filled up again.
#[test]
fn the_demo_starts_on_any_file() {
    let folder = folder();
    let database = folder.path().join("demo.sqlite3");
    let first = || vec![BriefFile::read(BOX_ROOM.as_bytes()).unwrap()];
    let count = |server: &Server| server.get("/api/v1/corners").json().as_array().unwrap().len();
    let names = |server: &Server| server.get("/api/v1/corners").json()[0]["name"].clone();
    assert_eq!(count(&Server::starting_with(&database, first())), 1);
    let server = Server::starting_with(&database, first());
    assert_eq!((count(&server), names(&server)), (1, json!("Field botany, box room")));
    drop(server);
    spoil(&database, 1, "{");
    let server = Server::starting_with(&database, first());
    assert_eq!((count(&server), names(&server)), (1, json!("Spoilt")));
    assert!(server.get("/api/v1/corners").json()[0]["trouble"].is_string());
    // Work goes on beside it.
    let id = server.demo();
    let mut plan = server.plan(id);
    set(&mut plan, "/layout/camera/iso", json!(400));
    let path = format!("/api/v1/corners/{id}");
    assert_eq!(server.send("PUT", &path, &[("if-match", "\"1\"")], &plan.to_string()).status, 200);
    assert_eq!(server.send("POST", &format!("{path}/undo"), &[("if-match", "\"2\"")], "").status, 200);
    assert_eq!(count(&server), 2);
}

/// The saves of a corner whose current row does not read are still there: one of them brings it back.
#[test]
fn an_older_save_brings_an_unreadable_corner_back() {
    let folder = folder();
    let database = folder.path().join("c.sqlite3");
    let server = Server::on(&database);
    let id = server.demo();
    let path = format!("/api/v1/corners/{id}");
    let mut plan = server.plan(id);
    set(&mut plan, "/layout/camera/iso", json!(400));
    assert_eq!(server.send("PUT", &path, &[("if-match", "\"1\"")], &plan.to_string()).status, 200);
    drop(server);
    spoil(&database, id, "torn");
    let server = Server::on(&database);
    assert_eq!(server.get(&path).problem(), "unreadable");
    let first = server.get(&format!("{path}/revisions/1")).json();
    let file = json!({ "format": "fogon.plan", "version": 1, "name": first["name"], "brief": first["brief"], "layout": first["layout"] });
    let saved = server.send("PUT", &path, &[("if-match", "\"2\"")], &file.to_string());
    assert_eq!(saved.status, 200, "{}", saved.text);
    assert_eq!(server.get(&path).json()["layout"], first["layout"]);
}
