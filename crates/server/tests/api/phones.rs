//! The door to the phone, tried from 127.0.0.2, .3 and .4, which stand for the home network.

use std::io::{Read, Write};
use std::net::{SocketAddr, TcpStream};
use std::time::Duration;

use serde_json::{Value, json};

use crate::running::{Server, folder};

/// A request of a phone at an address of its own: status, cookie set, body.
struct Said {
    status: u16,
    cookie: Option<String>,
    body: Value,
}

/// Asks at the door from an address, with headers as they stand.
fn ask(
    from: [u8; 4],
    to: SocketAddr,
    method: &str,
    path: &str,
    headers: &[(&str, &str)],
    body: &Value,
) -> Said {
    let socket = socket2::Socket::new(socket2::Domain::IPV4, socket2::Type::STREAM, None).unwrap();
    socket.bind(&SocketAddr::from((from, 0)).into()).unwrap();
    socket.connect(&to.into()).unwrap();
    let mut stream: TcpStream = socket.into();
    stream.set_read_timeout(Some(Duration::from_secs(20))).unwrap();
    let body = if body.is_null() { String::new() } else { body.to_string() };
    let mut text =
        format!("{method} {path} HTTP/1.1\r\nConnection: close\r\nContent-Length: {}\r\n", body.len());
    if !headers.iter().any(|(name, _)| *name == "Host") {
        text += &format!("Host: {to}\r\n");
    }
    for (name, value) in headers {
        text += &format!("{name}: {value}\r\n");
    }
    stream.write_all(format!("{text}\r\n{body}").as_bytes()).unwrap();
    let mut answer = Vec::new();
    stream.read_to_end(&mut answer).unwrap();
    let answer = String::from_utf8_lossy(&answer).into_owned();
    let (head, body) = answer.split_once("\r\n\r\n").unwrap();
    let cookie = head.lines().find_map(|line| line.strip_prefix("set-cookie: ")).map(str::to_owned);
    Said {
        status: head[9..12].parse().unwrap(),
        cookie,
        body: serde_json::from_str(body).unwrap_or(Value::Null),
    }
}

const HERE: [u8; 4] = [127, 0, 0, 3];
const ELSEWHERE: [u8; 4] = [127, 0, 0, 4];

struct Door {
    to: SocketAddr,
    code: String,
}

fn opened(server: &Server) -> Door {
    let told = server.post("/api/v1/phone", &Value::Null).json();
    let address = told["address"].as_str().unwrap();
    let to = address.strip_prefix("http://").unwrap().strip_suffix("/phone").unwrap().parse().unwrap();
    assert!(told["picture"].as_str().unwrap().contains("<svg"));
    assert!(!address.contains(told["code"].as_str().unwrap()), "no code in an address that is kept");
    Door { to, code: told["code"].as_str().unwrap().to_owned() }
}

fn pair(door: &Door, from: [u8; 4], code: &str) -> Said {
    ask(from, door.to, "POST", "/api/v1/phone/pair", &[], &json!({ "code": code }))
}

fn wrong(door: &Door) -> &'static str {
    if door.code == "000000" { "000001" } else { "000000" }
}

#[test]
fn only_a_phone_that_knows_the_code_is_let_in_and_only_to_the_floor() {
    let folder = folder();
    let server = Server::on(&folder.path().join("c.sqlite3"));
    let id = server.demo();
    assert!(server.get("/api/v1/phone").json()["address"].is_null(), "shut until it is opened");
    let door = opened(&server);
    let list = "/api/v1/phone/corners";
    let get =
        |from, cookie: &str, path: &str| ask(from, door.to, "GET", path, &[("Cookie", cookie)], &Value::Null);
    assert_eq!(
        get(HERE, "", "/phone").status,
        if server.get("/").status == 200 { 200 } else { 404 },
        "the page holds no data"
    );
    assert_eq!(get(HERE, "", list).status, 401);
    assert_eq!(pair(&door, HERE, wrong(&door)).status, 401);
    assert_eq!(pair(&door, HERE, "12345x").status, 422);
    let said = pair(&door, HERE, &door.code);
    assert_eq!(said.status, 204);
    let set = said.cookie.unwrap();
    assert!(set.contains("; HttpOnly") && set.contains("; SameSite=Strict"), "{set}");
    let cookie = set.split(';').next().unwrap().to_owned();
    assert_eq!(get(HERE, &cookie, list).body[0]["id"], id);
    // Replayed, the code is used up; stolen, the cookie is another address's.
    assert_eq!(pair(&door, ELSEWHERE, &door.code).status, 401);
    assert_eq!(get(ELSEWHERE, &cookie, list).status, 401);
    // A rebound name, a page from elsewhere.
    let with = |name: &str, value: &str| {
        ask(HERE, door.to, "GET", list, &[(name, value), ("Cookie", &cookie)], &Value::Null).status
    };
    assert_eq!(with("Host", "rebound.invalid"), 403);
    assert_eq!(with("Host", &format!("127.0.0.1:{}", door.to.port())), 403);
    assert_eq!(with("Origin", "http://page.invalid"), 403);
    assert_eq!(with("Sec-Fetch-Site", "cross-site"), 403);
    assert_eq!(with("Origin", &format!("http://{}", door.to)), 200);
    // Laying is all that a phone does.
    for (method, path) in [
        ("GET", "/api/v1/corners".to_owned()),
        ("GET", format!("/api/v1/corners/{id}")),
        ("DELETE", format!("/api/v1/corners/{id}")),
        ("GET", "/api/v1/archive".to_owned()),
        ("GET", "/api/v1/phone".to_owned()),
        ("DELETE", "/api/v1/phone".to_owned()),
        ("GET", "/api/v1/hand".to_owned()),
    ] {
        let said = ask(HERE, door.to, method, &path, &[("Cookie", &cookie)], &Value::Null);
        assert!(matches!(said.status, 404 | 405), "{method} {path}: {}", said.status);
    }
    // On this machine nothing changed: the phone's cookie is worth nothing here, and no code is asked for.
    assert_eq!(server.get("/api/v1/corners").status, 200);
    assert_eq!(server.post("/api/v1/phone/pair", &json!({ "code": door.code })).problem(), "not_found");
    // A second phone has a code of its own.
    let second = server.get("/api/v1/phone").json()["code"].as_str().unwrap().to_owned();
    assert_ne!(second, door.code);
    let other = pair(&door, ELSEWHERE, &second).cookie.unwrap();
    let other = other.split(';').next().unwrap();
    assert_eq!(get(ELSEWHERE, other, list).status, 200);
    let phones = server.get("/api/v1/phone").json()["phones"].clone();
    assert_eq!((phones.as_array().unwrap().len(), &phones[1]["at"]), (2, &json!("127.0.0.4")));
    // Put out, it is out; shut, nobody listens.
    assert_eq!(server.send("DELETE", "/api/v1/phone/1", &[], "").status, 204);
    assert_eq!((get(HERE, &cookie, list).status, get(ELSEWHERE, other, list).status), (401, 200));
    assert_eq!(server.send("DELETE", "/api/v1/phone/1", &[], "").status, 404);
    assert_eq!(server.send("DELETE", "/api/v1/phone", &[], "").status, 204);
    let shut = (0..100).any(|_| {
        std::thread::sleep(Duration::from_millis(20));
        TcpStream::connect(door.to).is_err()
    });
    assert!(shut && server.get("/api/v1/phone").json()["phones"] == json!([]));
    assert_eq!(server.get("/api/v1/corners").status, 200);
}

#[test]
fn wrong_codes_bring_a_pause_for_everybody() {
    let folder = folder();
    let server = Server::on(&folder.path().join("c.sqlite3"));
    let door = opened(&server);
    for at in 0..5 {
        assert_eq!(pair(&door, [127, 0, 0, 10 + at], wrong(&door)).status, 401);
    }
    let said = pair(&door, HERE, &door.code);
    assert_eq!((said.status, &said.body["type"]), (429, &json!("problem:too_many_codes")));
    assert!(server.get("/api/v1/phone").json()["pause_s"].as_u64().unwrap() <= 31);
}

/// Two devices tick one corner; what was ticked without the network comes later, and of two that speak of one step the later holds.
#[test]
fn ticks_of_two_devices_are_one_list() {
    let folder = folder();
    let server = Server::on(&folder.path().join("c.sqlite3"));
    let id = server.demo();
    let door = opened(&server);
    let cookie = pair(&door, HERE, &door.code).cookie.unwrap();
    let cookie = cookie.split(';').next().unwrap();
    let laying = server.get(&format!("/api/v1/corners/{id}/laying")).json();
    let steps: Vec<&str> =
        laying["steps"].as_array().unwrap().iter().map(|s| s["id"].as_str().unwrap()).collect();
    assert!(steps.len() > 10 && steps[0].starts_with("mark.seat."));
    let now = laying["now_ms"].as_i64().unwrap();
    let path = format!("/api/v1/corners/{id}/ticks");
    let tick = |step: &str, done: bool, at_ms: i64| json!({ "ticks": [{ "step": step, "done": done, "at_ms": at_ms }] });
    let phone = |body: Value| ask(HERE, door.to, "POST", &path, &[("Cookie", cookie)], &body);
    assert_eq!(server.post(&path, &tick(steps[0], true, now - 500)).status, 200);
    // The phone ticked another step before that, and hears of both.
    let both = phone(tick(steps[1], true, now - 900));
    assert_eq!((both.status, both.body["ticks"].as_array().unwrap().len()), (200, 2));
    // It took the first back earlier than it was ticked at the desk: the desk holds. Later: the phone holds. Sent twice: the same.
    let held = |said: &Value| {
        said["ticks"].as_array().unwrap().iter().find(|t| t["step"] == steps[0]).unwrap().clone()
    };
    assert_eq!(held(&phone(tick(steps[0], false, now - 600)).body)["done"], true);
    for _ in 0..2 {
        let taken = held(&phone(tick(steps[0], false, now - 400)).body);
        assert_eq!((&taken["done"], &taken["by"]), (&json!(false), &json!("phone 1")));
    }
    // A clock that is a year ahead does not hold for a year.
    phone(tick(steps[1], false, now + 31_536_000_000));
    let after = server.post(&path, &tick(steps[1], true, now + 60_000)).json();
    assert_eq!(after["ticks"].as_array().unwrap().iter().filter(|t| t["done"] == true).count(), 1);
    for (body, status) in [
        (tick("Not a step", true, 1), 422),
        (json!({ "ticks": [{ "step": "a", "done": "yes", "at_ms": 1 }] }), 422),
        (json!({}), 422),
    ] {
        assert_eq!(server.post(&path, &body).status, status, "{body}");
    }
    assert_eq!(server.post("/api/v1/corners/99/ticks", &tick("a", true, 1)).status, 404);
    // What was taped is judged.
    let plan = server.get(&format!("/api/v1/corners/{id}/file")).json();
    let got = json!([{ "mark": "seat", "from": { "wall": "left" }, "length_m": 1.0 }, { "mark": "seat", "from": { "wall": "back" }, "length_m": 1.0 }]);
    let laid = server.post("/api/v1/laid", &json!({ "plan": plan, "got": got }));
    assert_eq!((laid.status, &laid.json()["marks"][0]["trust"]), (200, &json!("unchecked")), "{}", laid.text);
}
