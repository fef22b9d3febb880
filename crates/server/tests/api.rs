//! The API as a browser meets it: the real server on a free port, a real SQLite file, requests over loopback.

// A helper of a test fails by panicking, as the test does.
#![allow(clippy::unwrap_used)]

use std::path::Path;
use std::sync::mpsc;
use std::time::Duration;

use fogon_core::plan::Plan;
use fogon_server::{Config, serve};
use fogon_testkit::{BOX_ROOM, box_room, set};
use serde_json::{Value, json};

/// A running server; stops when dropped.
struct Server {
    base: String,
    runtime: Option<tokio::runtime::Runtime>,
    agent: ureq::Agent,
}

/// An answer: status, headers of interest, body.
struct Answer {
    status: u16,
    kind: String,
    tag: String,
    text: String,
}

impl Answer {
    fn json(&self) -> Value {
        serde_json::from_str(&self.text).unwrap_or_else(|e| panic!("{e}: {}", self.text))
    }

    /// The word of a problem, after checking that it is one in plain words.
    fn problem(&self) -> String {
        assert_eq!(self.kind, "application/problem+json", "{}", self.text);
        let body = self.json();
        assert_eq!(body["status"], self.status);
        assert!(body["title"].as_str().is_some_and(|t| t.len() > 10), "{body}");
        body["type"].as_str().unwrap().trim_start_matches("problem:").to_owned()
    }
}

impl Server {
    fn on(database: &Path) -> Self {
        let runtime = tokio::runtime::Runtime::new().unwrap();
        let (tell, hear) = mpsc::channel();
        let config = Config { database: database.to_owned(), port: 0, first_briefs: Vec::new() };
        runtime
            .spawn(async move { serve(config, move |address| tell.send(address).unwrap()).await.unwrap() });
        let address = hear.recv_timeout(Duration::from_secs(20)).expect("the server starts");
        assert!(address.ip().is_loopback());
        let agent = ureq::Agent::config_builder()
            .http_status_as_error(false)
            .timeout_global(Some(Duration::from_secs(60)))
            .build()
            .into();
        Self { base: format!("http://{address}"), runtime: Some(runtime), agent }
    }

    fn send(&self, method: &str, path: &str, headers: &[(&str, &str)], body: &str) -> Answer {
        let mut request = ureq::http::Request::builder().method(method).uri(format!("{}{path}", self.base));
        for (name, value) in headers {
            request = request.header(*name, *value);
        }
        let request = request.header("content-type", "application/json").body(body.to_owned()).unwrap();
        let mut answer = self.agent.run(request).unwrap();
        let header = |name| answer.headers().get(name).map_or("", |v| v.to_str().unwrap()).to_owned();
        let (kind, tag) = (header("content-type"), header("etag"));
        let text = answer.body_mut().with_config().limit(50_000_000).read_to_string().unwrap();
        Answer { status: answer.status().as_u16(), kind, tag, text }
    }

    fn get(&self, path: &str) -> Answer {
        self.send("GET", path, &[], "")
    }

    fn post(&self, path: &str, body: &Value) -> Answer {
        self.send("POST", path, &[], &body.to_string())
    }

    /// Keeps the demo corner; its id.
    fn demo(&self) -> i64 {
        let made = self.send("POST", "/api/v1/corners", &[], BOX_ROOM);
        assert_eq!(made.status, 201, "{}", made.text);
        made.json()["id"].as_i64().unwrap()
    }

    fn plan(&self, id: i64) -> Value {
        self.get(&format!("/api/v1/corners/{id}/file")).json()
    }
}

impl Drop for Server {
    fn drop(&mut self) {
        if let Some(runtime) = self.runtime.take() {
            runtime.shutdown_timeout(Duration::from_secs(2));
        }
    }
}

fn folder() -> tempfile::TempDir {
    tempfile::tempdir().unwrap()
}

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
    assert!(listed[0]["verdict"]["sentence"].as_str().unwrap().contains("Not ready"), "{listed}");
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

/// Every kind of bad input: a problem in plain words that names the field, and what was kept stays as it was.
#[test]
fn bad_input_is_named_and_nothing_is_lost() {
    let folder = folder();
    let server = Server::on(&folder.path().join("c.sqlite3"));
    let id = server.demo();
    let path = format!("/api/v1/corners/{id}");
    let kept = server.get(&path).text;
    let plan = server.plan(id);
    let changed = |pointer: &str, value: Value| {
        let mut bad = plan.clone();
        set(&mut bad, pointer, value);
        bad.to_string()
    };
    let cases = [
        (changed("/brief/room/height_m", json!(0)), "brief.room.height_m"),
        (changed("/brief/room/height_m", json!(-1)), "brief.room.height_m"),
        (changed("/brief/room/height_m", json!(1e6)), "brief.room.height_m"),
        (changed("/brief/room/height_m", json!("high")), "brief.room.height_m"),
        (changed("/brief/room/openings/door/width_m", json!(9)), "brief.room.openings.door.width_m"),
        (changed("/brief/room/furniture/shelf/position_m", json!([9, 1, 0])), "brief.room.furniture.shelf"),
        (changed("/brief/person/seat_at", json!("throne")), "brief.person.seat_at"),
        (changed("/brief/room/ceiling", json!(2)), "brief.room.ceiling"),
        (changed("/version", json!(7)), "version"),
        (plan.to_string().replacen("2.45", "NaN", 1), "document"),
        ("[".repeat(5000), "document"),
        ("not json".to_owned(), "document"),
    ];
    for (body, field) in cases {
        for answer in [
            server.send("PUT", &path, &[("if-match", "\"1\"")], &body),
            server.send("POST", "/api/v1/corners", &[], &body),
            server.send("POST", "/api/v1/assess", &[], &body),
        ] {
            assert_eq!((answer.status, answer.problem().as_str()), (422, "bad_input"), "{field}");
            let named = answer.json()["errors"][0].clone();
            assert!(named["field"].as_str().unwrap().starts_with(field), "{named} should name {field}");
            assert!(named["accepted"].as_str().is_some_and(|a| !a.is_empty()), "{named}");
        }
    }
    let huge = format!("{{\"name\":\"{}\"}}", "x".repeat(10_000_000));
    let answer = server.send("POST", "/api/v1/corners", &[], &huge);
    assert_eq!((answer.status, answer.problem().as_str()), (413, "too_large"));
    assert_eq!(server.get("/api/v1/corners/x").status, 400);
    assert_eq!(server.get("/api/v1/nothing").problem(), "not_found");
    assert_eq!(server.post("/api/v1/assess?text_scale=NaN", &plan).problem(), "bad_choice");
    assert_eq!(server.get(&path).text, kept);
}

#[test]
fn only_pages_of_this_machine_are_answered() {
    let folder = folder();
    let server = Server::on(&folder.path().join("c.sqlite3"));
    let from = |name, value| server.send("GET", "/api/v1/corners", &[(name, value)], "");
    assert_eq!(from("origin", "http://elsewhere.invalid").problem(), "forbidden_origin");
    assert_eq!(from("host", "rebound.invalid").problem(), "forbidden_origin");
    assert_eq!(from("origin", &server.base).status, 200);
    let page = server.get("/");
    assert_eq!((page.status, page.kind.as_str()), (200, "text/html; charset=utf-8"));
}

/// A plan is judged, mended by the fix that is offered, and comes back without that finding.
#[test]
fn a_fix_is_offered_and_applied() {
    let folder = folder();
    let server = Server::on(&folder.path().join("c.sqlite3"));
    let id = server.demo();
    let mut plan = server.plan(id);
    set(&mut plan, "/layout/camera/iso", json!(1600));
    let judged = server.post("/api/v1/assess", &plan).json();
    let finding = judged["assessment"]["findings"]
        .as_array()
        .unwrap()
        .iter()
        .find(|f| f["id"] == "light.face.exposure_stops")
        .unwrap()
        .clone();
    assert_eq!(
        (finding["severity"].as_str(), judged["assessment"]["verdict"]["ready"].as_bool()),
        (Some("fix"), Some(false))
    );
    let change = json!({ "plan": plan, "patch": finding["fix"]["patch"] });
    // A browser writes 1600 where the server wrote 1600.0.
    let change: Value =
        serde_json::from_str(&change.to_string().replace(".0,", ",").replace(".0}", "}")).unwrap();
    let mended = server.post("/api/v1/apply", &change).json();
    let after = server.post("/api/v1/assess", &mended).json();
    assert_eq!(after["assessment"]["verdict"]["ready"], true, "{}", after["assessment"]["verdict"]);
    assert!(judged["placed"].as_array().unwrap().iter().any(|p| p["letter"] == "K"));
    // The face under its light: eleven parts of the head; lamps and room make up all of the light.
    let face = &judged["face"];
    assert_eq!(face["facets"].as_array().unwrap().len(), 11);
    let lamps = face["lamps"].as_array().unwrap().iter().map(|l| l["illuminance_lx"].as_f64().unwrap());
    let all = lamps.sum::<f64>() + face["bounce_lx"].as_f64().unwrap();
    let told = face["reference_lx"].as_f64().unwrap();
    assert!((all / told - 1.0).abs() < 1e-9, "{all} of {told}");
    // A patch made for another state of the plan is refused whole.
    let stale = json!({ "plan": mended, "patch": finding["fix"]["patch"] });
    assert_eq!(server.post("/api/v1/apply", &stale).problem(), "bad_input");
    let changes = server.post("/api/v1/changes", &plan).json();
    assert!(changes["score_now"].is_number() && changes["purchases"]["budget"] == 300.0);
    assert!(server.post("/api/v1/place", &plan).json()["layout"]["lights"]["key"].is_object());
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
    // Where nothing fits there is a brief and no card.
    let mut brief = box_room();
    set(&mut brief, "/brief/gear", json!({}));
    let bare = server.post("/api/v1/corners", &brief).json();
    assert!(bare["layout"].is_null());
    let bare = bare["id"].as_i64().unwrap();
    assert_eq!(server.get(&format!("/api/v1/corners/{bare}/card/html")).problem(), "no_layout");
    assert_eq!(server.plan(bare)["format"], "fogon.brief");
}

/// The description that the page's types are made from is the one the server gives.
#[test]
fn the_committed_description_is_current() {
    let folder = folder();
    let server = Server::on(&folder.path().join("c.sqlite3"));
    let served = server.get("/api/v1/openapi.json").json();
    let committed: Value = serde_json::from_str(include_str!("../../../web/src/api/openapi.json")).unwrap();
    assert!(served == committed, "run: cargo xtask types");
    assert!(served["openapi"].as_str().unwrap().starts_with("3.1"));
    assert!(served["paths"].as_object().unwrap().len() >= 12);
    for table in ["schools", "catalogue", "materials", "schema/plan"] {
        assert_eq!(server.get(&format!("/api/v1/{table}")).status, 200, "{table}");
    }
}

/// As many things as a document may hold, and one more.
#[test]
fn documents_have_bounds() {
    let folder = folder();
    let server = Server::on(&folder.path().join("c.sqlite3"));
    let with_gear = |count: usize| {
        let mut brief = box_room();
        let stand = brief["brief"]["gear"]["tripod"].clone();
        let gear = brief["brief"]["gear"].as_object_mut().unwrap();
        let have = gear.len();
        gear.extend((have..count).map(|i| (format!("stand-{i}"), stand.clone())));
        server.post("/api/v1/corners", &brief)
    };
    assert_eq!(with_gear(200).status, 201);
    let more = with_gear(201);
    assert_eq!((more.status, more.json()["errors"][0]["field"].as_str()), (422, Some("brief.gear")));
    let with_furniture = |count: usize| {
        let mut brief = box_room();
        let chest =
            json!({ "kind": "box", "position_m": [0.3, 2.6, 0], "size_m": [0.2, 0.2, 0.2], "fixed": true });
        set(&mut brief, "/brief/person/seat_at", Value::Null);
        let pieces: serde_json::Map<_, _> =
            (0..count).map(|i| (format!("chest-{i}"), chest.clone())).collect();
        set(&mut brief, "/brief/room/furniture", Value::Object(pieces));
        server.post("/api/v1/corners", &brief).status
    };
    assert_eq!((with_furniture(40), with_furniture(41)), (201, 422));
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
fn a_hand_moves_one_thing_and_bad_moves_are_named() {
    let folder = folder();
    let server = Server::on(&folder.path().join("corners.sqlite3"));
    let plan = server.plan(server.demo());
    let ask = |by: Value| {
        server.post("/api/v1/move?fixes=false&quarter_turns=0", &json!({ "plan": plan, "move": by }))
    };
    let at = plan["layout"]["lights"]["key"]["position_m"].clone();
    let x = at[0].as_f64().unwrap();
    let moved = ask(json!({ "thing": "key", "to_m": [x + 0.02, at[1], at[2]] }));
    assert_eq!(moved.status, 200, "{}", moved.text);
    let answer = moved.json();
    assert!(
        (answer["plan"]["layout"]["lights"]["key"]["position_m"][0].as_f64().unwrap() - x - 0.02).abs()
            < 2e-3
    );
    assert_eq!(answer["held"], Value::Null);
    assert_eq!(answer["judged"]["drawing"]["quarter_turns"], 0);
    let handles = answer["judged"]["handles"].as_array().unwrap();
    assert!(
        ["seat", "camera", "key", "microphone", "desk"]
            .iter()
            .all(|id| handles.iter().any(|h| h["id"] == *id))
    );
    // Beyond the wall it is held, and what it returns is a plan that can be saved.
    let held = ask(json!({ "thing": "key", "to_m": [x + 9.0, at[1], at[2]] })).json();
    assert!(held["held"]["sentence"].as_str().is_some_and(|s| s.len() > 10), "{}", held["held"]);
    assert!(Plan::read(held["plan"].to_string().as_bytes()).is_ok());
    for (by, code, field) in [
        (json!({ "thing": "piano", "to_m": [1, 1, 1] }), "unknown_id", "move.thing"),
        (json!({ "thing": "key", "to_m": [1, 1] }), "wrong_type", "move.to_m"),
        (json!({ "thing": "key", "to_m": [1, 1, 1e9] }), "out_of_range", "move.to_m"),
        (json!({ "thing": "key", "towards": 3, "to_m": [1, 1, 1] }), "unknown_field", "move.towards"),
        (json!({ "to_m": [1, 1, 1] }), "missing_field", "move.thing"),
        (json!({ "thing": "key" }), "conflict", "move"),
    ] {
        let refused = ask(by.clone());
        assert_eq!(refused.status, 422, "{by}: {}", refused.text);
        let error = refused.json()["errors"][0].clone();
        assert!(error["field"].as_str().unwrap().starts_with(field), "{by}: {error}");
        if code != "wrong_type" {
            assert_eq!(error["code"], code, "{by}: {error}");
        }
    }
    for query in ["text_scale=9", "frame_text_scale=0", "quarter_turns=4"] {
        let refused = server.post(&format!("/api/v1/assess?{query}"), &plan);
        assert_eq!((refused.status, refused.problem().as_str()), (400, "bad_choice"), "{query}");
    }
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

/// The live channel is a WebSocket, which no browser rule guards: a page of another origin must be turned away here.
#[test]
fn the_live_channel_opens_for_our_own_page_alone() {
    use std::io::{Read, Write};
    let folder = folder();
    let server = Server::on(&folder.path().join("corners.sqlite3"));
    let host = server.base.trim_start_matches("http://").to_owned();
    let open = |origin: &str| {
        let mut stream = std::net::TcpStream::connect(&host).unwrap();
        stream.set_read_timeout(Some(Duration::from_secs(10))).unwrap();
        // The key of the example in RFC 6455, 1.3.
        let head = format!(
            "GET /api/v1/hand HTTP/1.1\r\nHost: {host}\r\nOrigin: {origin}\r\nConnection: Upgrade\r\nUpgrade: websocket\r\nSec-WebSocket-Version: 13\r\nSec-WebSocket-Key: dGhlIHNhbXBsZSBub25jZQ==\r\n\r\n"
        );
        stream.write_all(head.as_bytes()).unwrap();
        let mut start = [0; 512];
        let read = stream.read(&mut start).unwrap();
        String::from_utf8_lossy(&start[..read]).into_owned()
    };
    let own = open(&server.base);
    assert!(own.starts_with("HTTP/1.1 101"), "{own}");
    // The answer that RFC 6455, 1.3 gives for that key.
    assert!(own.contains("s3pPLMBiTxaQ9kYGzzhZRbK+xOo="), "{own}");
    assert!(open("http://page.invalid").starts_with("HTTP/1.1 403"));
    assert!(open("null").starts_with("HTTP/1.1 403"));
}

#[test]
fn words_of_the_trade_are_handed_out() {
    let folder = folder();
    let server = Server::on(&folder.path().join("corners.sqlite3"));
    let words = server.get("/api/v1/glossary").json();
    let ids: Vec<&str> = words.as_array().unwrap().iter().filter_map(|w| w["reading"].as_str()).collect();
    let plan = server.plan(server.demo());
    for reading in server.post("/api/v1/assess", &plan).json()["assessment"]["readings"].as_array().unwrap() {
        let id = reading["id"].as_str().unwrap();
        let fits = |pattern: &&str| match pattern.split_once('*') {
            Some((head, tail)) => id.starts_with(head) && id.ends_with(tail),
            None => *pattern == id,
        };
        let known = ids.iter().filter(|pattern| !pattern.is_empty()).any(fits);
        assert!(known && !reading["label"].as_str().unwrap().is_empty(), "{id}");
    }
}

#[test]
fn a_walk_round_the_room_gives_its_floor_or_says_why_not() {
    let folder = folder();
    let server = Server::on(&folder.path().join("c.sqlite3"));
    let legs = |last: f64, turn: f64| {
        let leg = |length: f64, turn: f64| json!({ "length_m": length, "turn_deg": turn });
        json!({ "legs": [leg(4.0, 90.0), leg(3.0, 90.0), leg(last, 90.0), leg(3.0, turn)] })
    };
    let floor = server.post("/api/v1/walk", &legs(3.98, 90.0)).json();
    assert_eq!(floor["floor_m"].as_array().unwrap().len(), 4);
    assert!((floor["closing_error_m"].as_f64().unwrap() - 0.02).abs() < 1e-9, "{floor}");
    for refused in [legs(3.98, -90.0), legs(1.0, 90.0), json!({ "legs": [] }), json!({ "legs": "round" })] {
        let answer = server.post("/api/v1/walk", &refused);
        assert_eq!(answer.status, 422);
        assert!(
            answer.json()["errors"][0]["field"].as_str().unwrap().starts_with("legs"),
            "{}",
            answer.json()
        );
    }
}

/// Every save can be looked at again; the schools tell their effect; the chart comes where it is asked for.
#[test]
fn saves_schools_and_the_chart_are_handed_out() {
    let folder = folder();
    let server = Server::on(&folder.path().join("fogon.db"));
    let id = server.demo();
    let mut plan = server.plan(id);
    plan["name"] = json!("Renamed");
    let saved =
        server.send("PUT", &format!("/api/v1/corners/{id}"), &[("If-Match", "\"1\"")], &plan.to_string());
    assert_eq!(saved.status, 200);
    let all = server.get(&format!("/api/v1/corners/{id}/revisions")).json();
    let numbers: Vec<i64> = all.as_array().unwrap().iter().map(|r| r["revision"].as_i64().unwrap()).collect();
    assert_eq!(numbers, [2, 1], "the last first");
    let first = server.get(&format!("/api/v1/corners/{id}/revisions/1")).json();
    assert_ne!(first["name"], "Renamed");
    assert_eq!(first["layout"], plan["layout"]);
    for missing in [format!("/api/v1/corners/{id}/revisions/99"), "/api/v1/corners/999/revisions".to_owned()]
    {
        assert_eq!(server.get(&missing).status, 404, "{missing}");
    }
    let effects = server.post("/api/v1/choices", &plan).json();
    assert!(effects.as_array().unwrap().len() > 35);
    assert!(
        effects.as_array().unwrap().iter().any(|e| e["choice"] == "near-and-wide" && e["chosen"] == false)
    );
    let without = server.post("/api/v1/assess", &plan).json();
    assert!(without["chart"].is_null() && without["ground"].is_null(), "only where it is asked for");
    let with = server.post("/api/v1/assess?chart=true", &plan).json();
    assert!(with["chart"]["along"].as_array().unwrap().len() > 40);
    assert!(with["ground"]["depths"].as_array().unwrap().len() >= 8);
    // A shot by hand, and one that is refused by name.
    let moved = |by: Value| server.post("/api/v1/move?chart=true", &json!({ "plan": plan, "move": by }));
    let nearer = moved(json!({ "thing": "camera", "grip": "shot", "focal_length_mm": 40 }));
    assert_eq!(nearer.json()["plan"]["layout"]["camera"]["focal_length_mm"], 40.0);
    assert_eq!(moved(json!({ "thing": "key", "grip": "shot", "distance_m": 1 })).status, 422);
    assert!(
        moved(json!({ "thing": "camera", "grip": "shot", "distance_m": -1 })).text.contains("distance_m")
    );
}

/// A corner is heard as a WAV file with its figures, nearer is clearer; broken or hostile recordings are refused in words and
/// nothing is kept of them; the user's own voice is kept, heard and forgotten.
#[test]
fn a_corner_is_heard_and_recordings_are_kept_within_bounds() {
    let folder = folder();
    let server = Server::on(&folder.path().join("fogon.db"));
    let id = server.demo();
    let plan = server.plan(id);
    let bytes = |path: &str, method: &str, kind: &str, body: Vec<u8>| {
        let request = ureq::http::Request::builder()
            .method(method)
            .uri(format!("{}{path}", server.base))
            .header("content-type", kind)
            .body(body)
            .unwrap();
        let mut answer = server.agent.run(request).unwrap();
        let header = |name: &str| {
            answer.headers().get(name).map_or(f64::NAN, |v| v.to_str().unwrap().parse().unwrap())
        };
        let figures =
            ["fogon-sti", "fogon-snr-db", "fogon-loudness-lufs", "fogon-true-peak-dbtp"].map(header);
        let status = answer.status().as_u16();
        (status, figures, answer.body_mut().with_config().limit(50_000_000).read_to_vec().unwrap())
    };
    let hear =
        |body: &Value| bytes("/api/v1/hear", "POST", "application/json", body.to_string().into_bytes());
    let (status, near, wav) = hear(&json!({ "plan": plan }));
    assert_eq!(status, 200);
    let recording = fogon_recording::read(&wav).unwrap();
    assert!(recording.seconds() > 8.9 && recording.seconds() < 13.0 && recording.sample_rate_hz == 48_000);
    assert!(near[2] > -26.0 && near[2] < -22.9 && near[3] <= -0.99, "{near:?}");
    let measured = fogon_core::sound::loudness::integrated_lufs(&[&recording.samples], 48_000.0).unwrap();
    assert!((measured - near[2]).abs() < 0.1, "{measured} for {}", near[2]);
    let (_, far, _) = hear(&json!({ "plan": plan, "variant": "built-in" }));
    assert!(far[0] < near[0] && far[1] < near[1], "{far:?} against {near:?}");
    let picture = server.post("/api/v1/impulse", &json!({ "plan": plan })).json();
    assert!(picture["is_box"] == true && picture["decays_db"].as_array().unwrap().len() == 6);
    assert!(picture["reflections"].as_array().unwrap().iter().all(|r| r["level_db"].as_f64().unwrap() < 0.0));
    let sound = server.post("/api/v1/assess?sound=true", &plan).json();
    assert!(sound["sound"]["choices"].as_array().unwrap().len() == 7 && !sound["sound_sheets"].is_null());
    assert!(server.post("/api/v1/assess", &plan).json()["sound"].is_null());
    let hung = json!({ "plan": plan, "material": "rug", "width_m": 1.2, "height_m": 0.9 });
    let hung = server.post("/api/v1/treatment", &hung);
    assert!(
        hung.status == 200 && hung.json()["layout"]["treatment"]["rug"]["on"] == "floor",
        "{}",
        hung.text
    );
    // Refusals, each by its name.
    let mut deaf = plan.clone();
    deaf["layout"]["microphone"] = Value::Null;
    let (status, _, words) = hear(&json!({ "plan": deaf }));
    assert!(status == 409 && String::from_utf8(words).unwrap().contains("no microphone"));
    let bad = server.post(
        "/api/v1/treatment",
        &json!({ "plan": plan, "material": "velvet", "width_m": 1, "height_m": 1 }),
    );
    assert!(bad.status == 422 && bad.text.contains("material"));
    assert_eq!(server.post("/api/v1/hear", &json!({ "plan": plan, "variant": "whisper" })).status, 422);
    // The user's own voice.
    let put = |body: Vec<u8>| bytes("/api/v1/voice", "PUT", "application/octet-stream", body);
    for (body, code, words) in [
        (b"no sound at all".to_vec(), 422, "no WAV or FLAC"),
        (wav[..wav.len() / 2].to_vec(), 422, "broken after"),
        (vec![0; 21_000_000], 413, "20 MB"),
        (fogon_recording::wav_24_bit(&[0.1; 2_000]), 422, "give 1 to 60 s"),
    ] {
        let (status, _, answer) = put(body);
        assert_eq!(status, code);
        assert!(String::from_utf8(answer).unwrap().contains(words));
    }
    assert!(server.get("/api/v1/voice").json()["seconds"].is_null());
    let own: Vec<f32> = fogon_recording::dry_voice()[..96_000].to_vec();
    assert_eq!(put(fogon_recording::wav_24_bit(&own)).0, 200);
    assert_eq!(server.get("/api/v1/voice").json()["seconds"], 2.0);
    let (_, _, mine) = hear(&json!({ "plan": plan, "own_voice": true }));
    assert!(fogon_recording::read(&mine).unwrap().seconds() < 6.0);
    // Silence is a recording, but nothing to hear.
    assert_eq!(put(fogon_recording::wav_24_bit(&[0.0; 96_000])).0, 200);
    assert_eq!(hear(&json!({ "plan": plan, "own_voice": true })).0, 409);
    assert_eq!(server.send("DELETE", "/api/v1/voice", &[], "").status, 204);
    assert!(server.get("/api/v1/voice").json()["seconds"].is_null());
}
