//! What to buy, as it becomes known; the shelf, the shopping list and the ledger as files.

use serde_json::{Value, json};

use crate::running::{Server, folder};

fn lines(text: &str) -> Vec<Value> {
    text.lines().map(|line| serde_json::from_str(line).unwrap()).collect()
}

/// How far it is, then the table, then the advice; another sum for the same corner is answered from what is known.
#[test]
fn advice_comes_line_by_line_and_is_true() {
    let folder = folder();
    let server = Server::without_pictures(&folder.path().join("c.sqlite3"));
    let mut plan = server.plan(server.demo());
    plan["layout"].as_object_mut().unwrap().remove("microphone");
    let gear = plan["brief"]["gear"].as_object_mut().unwrap();
    gear.retain(|_, thing| thing["kind"] != "microphone");
    plan["brief"].as_object_mut().unwrap().remove("today");
    let answer = server.post("/api/v1/buy", &json!({ "plan": plan, "budget": 200 }));
    assert_eq!((answer.status, answer.kind.as_str()), (200, "application/x-ndjson"));
    let all = lines(&answer.text);
    let kinds: Vec<&str> = all.iter().map(|line| line["line"].as_str().unwrap()).collect();
    assert!(kinds.first() == Some(&"progress") && kinds.contains(&"table"), "{kinds:?}");
    let advice = all.last().unwrap();
    assert_eq!(advice["line"], "advice");
    assert!(advice["spent"].as_f64().unwrap() <= 200.0 && !advice["path"].as_array().unwrap().is_empty());
    let judged = server.post("/api/v1/assess", &advice["plan"]).json();
    assert_eq!(judged["assessment"]["score"], advice["score"]);
    let other = lines(&server.post("/api/v1/buy", &json!({ "plan": plan, "budget": 15 })).text);
    assert_eq!(other[0]["line"], "table", "{other:?}");
    assert!(other.last().unwrap()["spent"].as_f64().unwrap() <= 15.0);
    // Own weights: at once from the table that is there, then laid out.
    plan["brief"]["money"]["weights"] =
        json!({ "sound": 1.0, "light": 0.1, "room": 0.1, "picture": 0.1, "comfort": 0.1 });
    let weighed = lines(&server.post("/api/v1/buy", &json!({ "plan": plan, "budget": 200 })).text);
    assert_eq!(weighed[0]["line"], "table", "{:?}", weighed[0]);
    assert_eq!(weighed.last().unwrap()["line"], "advice");
    // The list of it, to take along.
    let list = |format: &str| {
        let asked =
            json!({ "plan": plan, "items": advice["kit"], "prices": advice["prices"], "format": format });
        server.post("/api/v1/shopping", &asked).text
    };
    assert!(list("csv").starts_with("id,what,count,price") && list("markdown").contains("- [ ] "));
}

/// A shelf goes out as a table and comes back the same; a wrong row is told by its line.
#[test]
fn a_shelf_goes_out_and_comes_back() {
    let folder = folder();
    let server = Server::without_pictures(&folder.path().join("c.sqlite3"));
    let brief = server.plan(server.demo())["brief"].clone();
    let table = server.post("/api/v1/shelf/table", &json!({ "brief": brief }));
    assert_eq!(table.status, 200, "{}", table.text);
    let back = server.send("POST", "/api/v1/shelf", &[], &table.text).json();
    for (id, thing) in brief["gear"].as_object().unwrap() {
        for (name, value) in thing.as_object().unwrap() {
            let read = &back["gear"][id][name];
            let same = read == value || read.as_f64().is_some_and(|read| Some(read) == value.as_f64());
            assert!(same || value == &json!([]), "{id} {name}: {read} for {value}");
        }
    }
    let wrong = server.send("POST", "/api/v1/shelf", &[], "kind,label,price\naccessory,A,1\nlamp,B,2\n");
    assert_eq!(wrong.problem(), "bad_input");
    assert!(wrong.json()["errors"][0]["field"] == "line 3, kind", "{}", wrong.text);
    let ledger = server.post("/api/v1/ledger", &json!({ "brief": brief })).json();
    assert!(ledger["rows"].is_array() && ledger["paid"].is_number());
}
