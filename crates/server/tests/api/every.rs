//! Every operation that the description names, asked in every wrong way: nothing breaks, every refusal is one that is described,
//! and it says in plain words what is the matter, not in those of the libraries beneath.

use regex::Regex;
use serde_json::Value;

use crate::described::DESCRIPTION;
use crate::running::{Answer, Server, folder};

/// Bodies that no operation can use.
fn bodies() -> Vec<(&'static str, Vec<u8>)> {
    let deep = |open: &str, close: &str| [open.repeat(200), close.repeat(200)].concat().into_bytes();
    vec![
        ("nothing", Vec::new()),
        ("null", b"null".to_vec()),
        ("a number that is none", b"1e999".to_vec()),
        ("a text", b"\"fogon\"".to_vec()),
        ("an empty list", b"[]".to_vec()),
        ("an empty object", b"{}".to_vec()),
        ("fields that nobody knows", br#"{"levitate":true,"plan":{},"brief":{}}"#.to_vec()),
        (
            "fields of the wrong kind",
            br#"{"plan":7,"brief":[],"entries":{},"name":[],"format":false}"#.to_vec(),
        ),
        ("a list in a list", deep("[", "]")),
        ("an object in an object", deep("{\"plan\":", "}")),
        ("a text that ends in between", br#"{"plan":{"format":"fogon.plan","version":1"#.to_vec()),
        ("bytes that are no text", vec![0xff, 0xfe, 0x00, 0x80, 0x13]),
        ("a picture", b"\x89PNG\r\n\x1a\n\x00\x00\x00\x0dIHDR".to_vec()),
        ("an archive that holds nothing", b"PK\x05\x06\x00\x00\x00\x00".to_vec()),
    ]
}

/// Operations by method and path, the places in the path filled with what does not exist.
fn operations() -> Vec<(String, String, Value)> {
    let mut all = Vec::new();
    for (template, route) in DESCRIPTION["paths"].as_object().unwrap() {
        let path = template
            .replace("{id}", "999")
            .replace("{number}", "77")
            .replace("{session}", "no-such-session")
            .replace("{format}", "csv");
        for method in ["get", "post", "put", "delete"] {
            // It would open a door to other devices.
            let opens = method == "post" && template == "/api/v1/phone";
            if route[method].is_object() && !opens {
                all.push((method.to_uppercase(), path.clone(), route[method].clone()));
            }
        }
    }
    all
}

/// Words of the libraries beneath, of no use to a person.
fn inner_words() -> Regex {
    Regex::new(r"(?i)serde|panick|unwrap|rusqlite|sqlite error|axum|hyper|tokio|::|\bstruct\b|\benum\b|\bOption\b|\bSome\(|line \d+ column|missing field|invalid type|EOF|utf-?8 error")
        .unwrap()
}

fn assert_plain(answer: &Answer, inner: &Regex, asked: &str) {
    assert!(answer.problem().chars().all(|c| c.is_ascii_lowercase() || c == '_'), "{asked}: {}", answer.text);
    let body = answer.json();
    let mut told = vec![body["title"].clone(), body["detail"].clone()];
    for fault in body["errors"].as_array().into_iter().flatten() {
        told.extend([fault["value"].clone(), fault["accepted"].clone()]);
        assert!(fault["field"].is_string(), "{asked}: {fault}");
    }
    for words in told.iter().filter_map(Value::as_str) {
        assert!(!inner.is_match(words), "{asked}: {words}");
        assert!(words.len() < 600, "{asked}: {words}");
    }
}

#[test]
fn every_operation_refuses_what_it_cannot_use_in_plain_words() {
    let folder = folder();
    let server = Server::without_pictures(&folder.path().join("c.sqlite3"));
    let inner = inner_words();
    let (mut asked_for, mut refused) = (0, 0);
    for (method, path, route) in operations() {
        let described: Vec<&String> = route["responses"].as_object().unwrap().keys().collect();
        let kinds = route["requestBody"]["content"].as_object();
        let kind =
            kinds.and_then(|all| all.keys().next().cloned()).unwrap_or_else(|| "application/json".into());
        let takes_a_body = kinds.is_some();
        for (what, body) in bodies().into_iter().take(if takes_a_body { usize::MAX } else { 1 }) {
            let asked = format!("{method} {path} with {what}");
            let answer = server.send_as(&method, &path, &kind, &body);
            asked_for += 1;
            assert!(answer.status < 500, "{asked}: {} {}", answer.status, answer.text);
            let status = answer.status.to_string();
            // What holds for all routes is described at none: a kind of body that nobody takes.
            assert!(described.contains(&&status) || status == "415", "{asked}: {status} is not described");
            if answer.status >= 400 {
                refused += 1;
                assert_plain(&answer, &inner, &asked);
            }
        }
        // Another kind of body, and another way of asking.
        let other = server.send_as(&method, &path, "application/x-unknown", b"?");
        assert!(other.status < 500, "{method} {path} as something unknown: {}", other.text);
        let patched = server.send_as("PATCH", &path, &kind, b"{}");
        assert_eq!(patched.status, 405, "PATCH {path}: {}", patched.text);
        assert_plain(&patched, &inner, &path);
    }
    assert!(asked_for > 400 && refused > 300, "{asked_for} asked, {refused} refused");
    // It is all as it was, and it still answers.
    assert_eq!(server.get("/api/v1/corners").json()["corners"].as_array().map_or(0, Vec::len), 0);
    let made = server.demo();
    assert_eq!(server.plan(made)["format"], "fogon.plan");
}
