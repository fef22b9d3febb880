//! History, bin, thinning, archives and the file, as the page asks for them.

use fogon_testkit::{box_room, set};
use serde_json::{Value, json};

use crate::running::{Server, folder};

fn saved(server: &Server, id: i64, revision: i64, name: &str) -> i64 {
    let mut plan = server.plan(id);
    set(&mut plan, "/name", json!(name));
    let answer = server.send(
        "PUT",
        &format!("/api/v1/corners/{id}"),
        &[("if-match", &format!("\"{revision}\""))],
        &plan.to_string(),
    );
    assert_eq!(answer.status, 200, "{}", answer.text);
    answer.json()["revision"].as_i64().unwrap()
}

#[test]
fn a_save_is_named_and_brought_back() {
    let folder = folder();
    let server = Server::on(&folder.path().join("c.sqlite3"));
    let id = server.demo();
    let first = server.get(&format!("/api/v1/corners/{id}")).json();
    let second = saved(&server, id, 1, "Another name");
    let of = |path: &str| format!("/api/v1/corners/{id}/revisions{path}");
    assert_eq!(server.send("PUT", &of("/1"), &[], "{\"name\":\"  Before\\nthe move \"}").status, 204);
    let listed = server.get(&of("")).json();
    assert_eq!((listed[0]["name"].clone(), &listed[1]["name"]), (Value::Null, &json!("Before the move")));
    assert_eq!(server.get(&of("?before=2")).json().as_array().unwrap().len(), 1);
    let back = |revision: i64| {
        server.send("POST", &of("/1/restore"), &[("if-match", &format!("\"{revision}\""))], "")
    };
    assert_eq!(back(1).problem(), "changed_elsewhere");
    let now = back(second).json();
    assert_eq!(
        (&now["name"], &now["layout"], &now["can_undo"]),
        (&first["name"], &first["layout"], &json!(true))
    );
    assert_eq!(server.send("POST", &of("/1/restore"), &[], "").problem(), "if_match_missing");
    assert_eq!(server.send("PUT", &of("/99"), &[], "{\"name\":null}").problem(), "not_found");
    let long = json!({"name": "x".repeat(121)}).to_string();
    assert_eq!(server.send("PUT", &of("/1"), &[], &long).problem(), "bad_input");
}

#[test]
fn the_bin_gives_back_or_lets_go_for_good() {
    let folder = folder();
    let server = Server::on(&folder.path().join("c.sqlite3"));
    let (kept, gone) = (server.demo(), server.demo());
    for id in [kept, gone] {
        let answer = server.send("DELETE", &format!("/api/v1/corners/{id}"), &[("if-match", "\"1\"")], "");
        assert_eq!(answer.status, 204);
    }
    let bin = server.get("/api/v1/bin").json();
    assert_eq!(bin.as_array().unwrap().len(), 2);
    let days = (bin[0]["goes_ms"].as_i64().unwrap() - bin[0]["deleted_ms"].as_i64().unwrap()) / 86_400_000;
    assert_eq!(days, 30);
    assert_eq!(server.send("POST", &format!("/api/v1/bin/{kept}"), &[], "").status, 200);
    assert_eq!(server.send("DELETE", &format!("/api/v1/bin/{gone}"), &[], "").status, 204);
    assert_eq!(server.send("POST", &format!("/api/v1/bin/{gone}"), &[], "").problem(), "not_found");
    // What is in sight is not in the bin.
    assert_eq!(server.send("DELETE", &format!("/api/v1/bin/{kept}"), &[], "").problem(), "not_found");
    assert_eq!(server.send("DELETE", "/api/v1/bin", &[], "").status, 204);
    assert_eq!(server.get("/api/v1/bin").json(), json!([]));
    assert_eq!(server.get(&format!("/api/v1/corners/{kept}")).status, 200);
}

#[test]
fn how_long_saves_are_kept_can_be_chosen() {
    let folder = folder();
    let server = Server::on(&folder.path().join("c.sqlite3"));
    let rule = json!({"all_days": 3, "hourly_days": 30, "daily_days": 365});
    assert_eq!(server.get("/api/v1/thinning").json()["all_days"], 1);
    assert_eq!(server.send("PUT", "/api/v1/thinning", &[], &rule.to_string()).status, 204);
    assert_eq!(server.get("/api/v1/thinning").json(), rule);
    for bad in [
        "{\"all_days\":0,\"hourly_days\":7}",
        "{\"all_days\":1}",
        "{\"all_days\":1,\"hourly_days\":7,\"x\":1}",
    ] {
        let answer = server.send("PUT", "/api/v1/thinning", &[], bad);
        assert_eq!((answer.status, answer.problem().as_str()), (422, "bad_input"), "{bad}");
    }
    assert_eq!(server.get("/api/v1/thinning").json(), rule);
}

/// Everything goes out and comes in again on another machine; what it would do is told first, and told right.
#[test]
fn an_archive_carries_everything_to_another_machine() {
    let folder = folder();
    let here = Server::on(&folder.path().join("here.sqlite3"));
    let there = Server::on(&folder.path().join("there.sqlite3"));
    let id = here.demo();
    saved(&here, id, 1, "Second name");
    there.demo();
    let archive = here.get("/api/v1/archive");
    assert_eq!(archive.kind, "application/zip");
    let one = here.get(&format!("/api/v1/corners/{id}/archive"));
    assert_eq!(one.bytes, archive.bytes, "there is only one");
    let send = |path: &str| there.send_bytes("POST", path, &archive.bytes);
    let would = send("/api/v1/archive/would?taking=replace").json();
    assert_eq!(
        would.as_array().unwrap().iter().map(|one| one["becomes"].clone()).collect::<Vec<_>>(),
        ["new", "binned"]
    );
    assert_eq!(there.get("/api/v1/corners").json().as_array().unwrap().len(), 1, "nothing was changed");
    assert_eq!(send("/api/v1/archive?taking=replace").json(), would);
    let listed = there.get("/api/v1/corners").json();
    assert_eq!((listed.as_array().unwrap().len(), &listed[0]["name"]), (1, &json!("Second name")));
    assert_eq!(send("/api/v1/archive/would").json()[0]["becomes"], "same");
    assert_eq!(there.get("/api/v1/archive").bytes, archive.bytes, "the same bytes come out again");
    // What is damaged on its way is refused whole.
    let mut damaged = archive.bytes.clone();
    let middle = damaged.len() / 2;
    damaged[middle] ^= 0xff;
    for bytes in [&damaged[..], b"no archive", b""] {
        let answer = there.send_bytes("POST", "/api/v1/archive", bytes);
        assert_eq!((answer.status, answer.problem().as_str()), (422, "bad_archive"));
    }
    assert_eq!(there.get("/api/v1/archive").bytes, archive.bytes);
}

/// The list comes a page at a time, found by name, each corner once.
#[test]
fn the_list_comes_in_pages() {
    let folder = folder();
    let server = Server::on(&folder.path().join("c.sqlite3"));
    let id = server.demo();
    let plan = server.plan(id);
    for number in 0..6 {
        let mut plan = plan.clone();
        set(&mut plan, "/name", json!(format!("Corner {number}")));
        assert_eq!(server.post("/api/v1/corners", &plan).status, 201);
    }
    let (mut seen, mut next) = (Vec::new(), "?limit=3".to_owned());
    loop {
        let page = server.get(&format!("/api/v1/corners{next}"));
        assert_eq!(page.headers["fogon-count"], "7");
        seen.extend(page.json().as_array().unwrap().iter().map(|one| one["id"].as_i64().unwrap()));
        let Some(link) = page.headers.get("link") else { break };
        next = link.to_str().unwrap().split(['<', '>']).nth(1).unwrap().to_owned();
    }
    let mut once = seen.clone();
    once.sort_unstable();
    once.dedup();
    assert_eq!((seen.len(), once.len()), (7, 7), "{seen:?}");
    let found = server.get("/api/v1/corners?name=corner%203");
    assert_eq!(
        (&found.json()[0]["name"], found.headers["fogon-count"].to_str().unwrap()),
        (&json!("Corner 3"), "1")
    );
    for bad in ["?limit=0", "?limit=501", "?after=x", "?after=1", "?limit=x"] {
        assert_eq!(server.get(&format!("/api/v1/corners{bad}")).problem(), "bad_choice", "{bad}");
    }
}

#[test]
fn the_file_is_looked_through_and_copied() {
    let folder = folder();
    let server = Server::on(&folder.path().join("c.sqlite3"));
    server.demo();
    let before = server.get("/api/v1/file").json();
    assert_eq!((&before["report"]["corners"], &before["report"]["wrong"]), (&json!(1), &json!([])));
    let taken = server.send("POST", "/api/v1/file", &[], "");
    assert_eq!(taken.status, 201);
    let path = taken.json()["path"].as_str().unwrap().to_owned();
    let of_copy = Server::on(std::path::Path::new(&path));
    assert_eq!(of_copy.get("/api/v1/corners").json()[0]["name"], box_room()["name"]);
}
