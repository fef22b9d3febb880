//! What is refused, on every route alike, in plain words; and that nothing is lost by it.

use std::time::Duration;

use fogon_testkit::{box_room, set};
use serde_json::{Value, json};

use crate::running::{Server, folder};

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
    assert_eq!(server.get("/api/v1/corners/x").problem(), "not_found");
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

/// What `/assess` refuses, with the field that it names. Those under `brief` are wrong in a brief as well.
fn wrong(plan: &Value) -> Vec<(&'static str, Value)> {
    let changed = |pointer: &str, value: Value| {
        let mut bad = plan.clone();
        set(&mut bad, pointer, value);
        bad
    };
    vec![
        ("brief.person.stature_m", changed("/brief/person/stature_m", json!(99))),
        ("brief.room.height_m", changed("/brief/room/height_m", json!(500))),
        ("brief.room.height_m", changed("/brief/room/height_m", json!("high"))),
        ("brief.room.ceiling", changed("/brief/room/ceiling", json!(2))),
        ("brief.gear.octa.power_w", changed("/brief/gear/octa/power_w", json!(-1))),
        ("brief.purpose", changed("/brief/purpose", json!("opera"))),
        ("brief.person.seat_at", changed("/brief/person/seat_at", json!("throne"))),
        ("brief.room.openings.door.width_m", changed("/brief/room/openings/door/width_m", json!(9))),
        ("brief.measured", changed("/brief/measured", json!({ "light.face.exposure_stops": 0 }))),
        ("layout.camera.iso", changed("/layout/camera/iso", json!(0))),
        ("layout.camera.body", changed("/layout/camera/body", json!("nothing"))),
        ("layout.camera.position_m", changed("/layout/camera/position_m", json!([1, 60, 1]))),
        ("layout.seat.position_m", changed("/layout/seat/position_m", json!([1, 1e300]))),
        ("layout.piano", changed("/layout/piano", json!({}))),
        ("layout.lights.key.support.on", changed("/layout/lights/key/support/on", json!("roof"))),
    ]
}

/// A request to every route that takes a document, with that document in its place.
fn requests(path: &str, document: &Value) -> Option<(&'static str, Value)> {
    let plan = document.clone();
    // The sun hangs on where the room is and which way it looks.
    let mut placed = document.clone();
    let place = json!({ "latitude_deg": 40.0, "longitude_deg": -4.0, "time_zone": "Europe/Madrid" });
    set(&mut placed, "/brief/place", place);
    set(&mut placed, "/brief/room/north_deg", json!(30));
    let state = json!({ "brief": document["brief"], "layout": document["layout"] });
    let brief = json!({ "format": "fogon.brief", "version": 1, "name": document["name"], "brief": document["brief"] });
    Some(match path {
        "/api/v1/assess" | "/api/v1/free-moves" | "/api/v1/choices" | "/api/v1/place" | "/api/v1/ready"
        | "/api/v1/run" | "/api/v1/corners" => ("POST", plan),
        "/api/v1/buy" => ("POST", json!({ "plan": plan, "budget": 100 })),
        "/api/v1/day" => ("POST", json!({ "plan": placed, "date": "2026-11-28" })),
        "/api/v1/year" => ("POST", json!({ "plan": placed, "year": 2026 })),
        "/api/v1/hours" => ("POST", json!({ "plan": placed, "from": "2026-11-28", "to": "2026-11-29" })),
        "/api/v1/sessions" => {
            let asked = json!({ "plan": placed, "from": "2026-11-28", "to": "2026-11-29", "minutes": 45, "count": 1 });
            ("POST", asked)
        }
        "/api/v1/hours/file" => {
            let asked = json!({ "plan": placed, "from": "2026-11-28", "to": "2026-11-29", "format": "ics" });
            ("POST", asked)
        }
        "/api/v1/shopping" => {
            let prices = json!({ "name": "", "source": "", "currency": "", "dated": "" });
            ("POST", json!({ "plan": plan, "items": [], "prices": prices, "format": "csv" }))
        }
        "/api/v1/ledger" | "/api/v1/shelf/table" => ("POST", json!({ "brief": document["brief"] })),
        "/api/v1/corners/{id}" => ("PUT", plan),
        "/api/v1/propose" => ("POST", brief),
        "/api/v1/angle" => ("POST", json!({ "plan": plan, "kind": "side" })),
        "/api/v1/light" => ("POST", json!({ "plan": plan, "gear": "panel", "job": "background" })),
        "/api/v1/apply" => ("POST", json!({ "plan": plan, "patch": [] })),
        "/api/v1/hear" | "/api/v1/impulse" => ("POST", json!({ "plan": plan })),
        "/api/v1/picture" => ("POST", json!({ "plan": plan, "width": 96 })),
        "/api/v1/treatment" => {
            ("POST", json!({ "plan": plan, "material": "rug", "width_m": 1.2, "height_m": 0.9 }))
        }
        "/api/v1/again" => ("POST", json!({ "before": plan, "brief": document["brief"] })),
        "/api/v1/measured" => ("POST", json!({ "before": state, "after": state })),
        "/api/v1/laid" => ("POST", json!({ "plan": plan, "got": [] })),
        "/api/v1/move" => {
            ("POST", json!({ "plan": plan, "move": { "thing": "seat", "to_m": [1.7, 1.2, 1.2] } }))
        }
        _ => return None,
    })
}

/// Every route of the description that takes a plan or a brief refuses what `/assess` refuses, as the same kind of problem with
/// the same field; and takes a good one. A new route has to be put into the table above.
#[test]
fn every_route_refuses_what_assess_refuses() {
    let folder = folder();
    let server = Server::on(&folder.path().join("c.sqlite3"));
    let id = server.demo();
    let plan = server.plan(id);
    let described = server.get("/api/v1/openapi.json").json();
    let mut asked = 0;
    for (path, methods) in described["paths"].as_object().unwrap() {
        let takes_json = methods
            .as_object()
            .unwrap()
            .values()
            .any(|m| m["requestBody"]["content"]["application/json"].is_object());
        let Some((method, good)) = requests(path, &plan) else {
            // A way over the floor, a place on the earth, ticks, entries of the logbook, a code, a name and rules are no documents.
            let is_small = [
                "/api/v1/walk",
                "/api/v1/sun",
                "/api/v1/thinning",
                "/api/v1/logging",
                "/api/v1/corners/{id}/log",
                "/api/v1/corners/{id}/ticks",
                "/api/v1/phone/pair",
                "/api/v1/corners/{id}/revisions/{number}",
            ]
            .contains(&path.as_str());
            assert!(!takes_json || is_small, "{path} takes a document and is not in the table");
            continue;
        };
        let address = path.replace("{id}", &id.to_string());
        let send = |body: &Value| server.send(method, &address, &[("if-match", "\"1\"")], &body.to_string());
        for (field, bad) in wrong(&plan) {
            let of_brief =
                ["/api/v1/propose", "/api/v1/ledger", "/api/v1/shelf/table"].contains(&path.as_str());
            if of_brief && field.starts_with("layout") {
                continue;
            }
            let (_, body) = requests(path, &bad).unwrap();
            let answer = send(&body);
            assert_eq!(
                (answer.status, answer.problem().as_str()),
                (422, "bad_input"),
                "{path} takes a wrong {field}"
            );
            let named = answer.json()["errors"].as_array().unwrap().clone();
            let names = |error: &Value| error["field"].as_str().is_some_and(|f| f.contains(field));
            assert!(named.iter().any(names), "{path} should name {field}: {named:?}");
            assert!(named.iter().all(|e| e["sentence"].as_str().is_some_and(|s| s.len() > 20)), "{named:?}");
            asked += 1;
        }
        // A field that nobody knows beside the document, and no document at all.
        if good["plan"].is_object() || good["before"].is_object() {
            let mut more = good.clone();
            more["towards"] = json!(3);
            let refused = send(&more);
            assert_eq!(
                (refused.status, refused.problem().as_str()),
                (422, "bad_input"),
                "{path}: {}",
                refused.text
            );
        }
        for empty in [json!({}), json!([]), json!(null)] {
            assert_eq!(send(&empty).problem(), "bad_input", "{path} takes {empty}");
        }
        let taken = send(&good);
        // The demo's small room may have no free place for one thing more: that is told as a conflict, not as a bad plan.
        let is_full = taken.status == 422 && taken.json()["errors"][0]["code"] == "conflict";
        assert!((200..300).contains(&taken.status) || is_full, "{path}: {} {}", taken.status, taken.text);
    }
    assert!(asked > 180, "{asked} requests");
}

/// What stands behind the question mark or in the address is refused in our own words as well.
#[test]
fn addresses_are_refused_in_plain_words() {
    let folder = folder();
    let server = Server::on(&folder.path().join("c.sqlite3"));
    let id = server.demo();
    let plan = server.plan(id);
    for query in ["text_scale=large", "fixes=maybe", "quarter_turns=-1", "light=1e9"] {
        let refused = server.post(&format!("/api/v1/assess?{query}"), &plan);
        assert_eq!((refused.status, refused.problem().as_str()), (400, "bad_choice"), "{query}");
    }
    for address in [
        "corners/x",
        "corners/99999999999999999999",
        "corners/1/revisions/first",
        "corners/-1",
        "corners/7/file",
    ] {
        let refused = server.get(&format!("/api/v1/{address}"));
        assert!(matches!(refused.status, 400 | 404), "{address}: {}", refused.status);
        refused.problem();
    }
}
