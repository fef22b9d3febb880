//! What is told of a plan.

use fogon_core::plan::Plan;
use fogon_handover::file::CardFile;
use fogon_testkit::set;
use serde_json::{Value, json};

use crate::running::{Server, folder};

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
    let free = server.post("/api/v1/free-moves", &plan).json();
    assert!(free["score_now"].is_number() && free["moves"].is_array(), "{free}");
    assert!(server.post("/api/v1/place", &plan).json()["layout"]["lights"]["key"].is_object());
}

/// The description that the page's types are made from is the one the server gives.
#[test]
fn the_committed_description_is_current() {
    let folder = folder();
    let server = Server::on(&folder.path().join("c.sqlite3"));
    let served = server.get("/api/v1/openapi.json").json();
    let committed: Value =
        serde_json::from_str(include_str!("../../../../web/src/api/openapi.json")).unwrap();
    assert!(served == committed, "run: cargo xtask types");
    assert!(served["openapi"].as_str().unwrap().starts_with("3.1"));
    // Two types of one name would stand for each other here.
    let schemas = &served["components"]["schemas"];
    let of = |name: &str, field: &str| {
        let link = schemas[name]["properties"][field]["items"]["$ref"].as_str().unwrap().to_owned();
        schemas[link.rsplit('/').next().unwrap()].clone()
    };
    assert!(
        of("Reading", "belongs_to")["enum"].as_array().is_some_and(|all| all.contains(&json!("windows")))
    );
    assert!(of("FaceSeen", "facets")["properties"]["illuminance_lx"].is_object());
    assert!(served["paths"].as_object().unwrap().len() >= 12);
    let asked = &served["paths"]["/api/v1/corners/{id}/card/{format}"]["get"]["parameters"][1];
    assert_eq!(asked["description"], CardFile::ALL.map(CardFile::ending).join(", "));
    for table in ["schools", "catalogue", "materials", "schema/plan"] {
        assert_eq!(server.get(&format!("/api/v1/{table}")).status, 200, "{table}");
    }
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
    let asked = nearer.json()["plan"]["layout"]["camera"]["focal_length_mm"].as_f64().unwrap();
    assert!((asked - 40.0).abs() < 0.5, "40 mm, or as near as the rules let it: {asked}");
    assert_eq!(moved(json!({ "thing": "key", "grip": "shot", "distance_m": 1 })).status, 422);
    assert!(
        moved(json!({ "thing": "camera", "grip": "shot", "distance_m": -1 })).text.contains("distance_m")
    );
}

/// What was measured goes with the arrangement on every route that makes another one, and each says what went.
#[test]
fn measured_values_go_with_what_they_measured_on_every_route() {
    let folder = folder();
    let server = Server::on(&folder.path().join("c.sqlite3"));
    let mut plan = server.plan(server.demo());
    let all = json!({ "sound.room.rt_mid_s": 0.9, "sound.microphone.distance_m": 1.5, "light.face.illuminance_lx": 150, "room.mains.voltage_v": 228 });
    set(&mut plan, "/brief/measured", all.clone());
    let left = |plan: &Value| -> Vec<String> {
        plan["brief"]["measured"].as_object().map(|map| map.keys().cloned().collect()).unwrap_or_default()
    };
    let here = server.post("/api/v1/assess", &plan).json();
    let measured = |judged: &Value| -> Vec<String> {
        let readings = judged["assessment"]["readings"].as_array().unwrap().clone();
        readings
            .iter()
            .filter(|r| r["from"] == "measured")
            .map(|r| r["id"].as_str().unwrap().to_owned())
            .collect()
    };
    assert_eq!(measured(&here).len(), 4, "in its own arrangement each counts: {:?}", measured(&here));
    let brief = json!({ "format": "fogon.brief", "version": 1, "name": "Again", "brief": plan["brief"] });
    let found = server.post("/api/v1/propose", &brief).json();
    let mut aside: Vec<&str> =
        found["set_aside"].as_array().unwrap().iter().filter_map(Value::as_str).collect();
    aside.sort_unstable();
    assert_eq!(aside, ["light.face.illuminance_lx", "sound.microphone.distance_m"]);
    for proposal in found["proposals"].as_array().unwrap() {
        assert_eq!(left(&proposal["plan"]), ["room.mains.voltage_v", "sound.room.rt_mid_s"]);
        assert_eq!(proposal["ready"], found["proposals"][0]["ready"]);
    }
    let hung = json!({ "plan": plan, "material": "rug", "width_m": 1.2, "height_m": 0.9 });
    let hung = server.post("/api/v1/treatment", &hung).json();
    assert!(!left(&hung).contains(&"sound.room.rt_mid_s".to_owned()), "{:?}", left(&hung));
    assert!(left(&hung).contains(&"sound.microphone.distance_m".to_owned()));
    // By hand: what the change makes untrue is named, what it leaves stays.
    let mut moved = plan.clone();
    let x = plan["layout"]["lights"]["key"]["position_m"][0].as_f64().unwrap();
    set(&mut moved, "/layout/lights/key/position_m/0", json!(x + 0.1));
    let state = |plan: &Value| json!({ "brief": plan["brief"], "layout": plan["layout"] });
    let answer =
        server.post("/api/v1/measured", &json!({ "before": state(&plan), "after": state(&moved) })).json();
    assert_eq!(answer["dropped"], json!(["light.face.illuminance_lx"]));
    assert_eq!(answer["measured"].as_object().unwrap().len(), 3);
    let same =
        server.post("/api/v1/measured", &json!({ "before": state(&plan), "after": state(&plan) })).json();
    assert_eq!((&same["dropped"], same["measured"].as_object().unwrap().len()), (&json!([]), 4));
    let by =
        json!({ "thing": "microphone", "to_m": plan["layout"]["microphone"]["position_m"], "anyway": true });
    let held = server.post("/api/v1/move", &json!({ "plan": plan, "move": by })).json();
    assert!(left(&held["plan"]).len() >= 3, "{:?} {held:.400}", left(&held["plan"]));
    // Placed anew with the key elsewhere to begin with, the light is another.
    let placed = server.post("/api/v1/place", &moved).json();
    assert!(left(&placed).iter().all(|id| id != "light.face.illuminance_lx"), "{:?}", left(&placed));
}

/// The other words for units are words alone: the same corner in feet and inches gives the same numbers on the wire.
#[test]
fn the_wire_is_metric_whatever_people_read() {
    let folder = folder();
    let server = Server::on(&folder.path().join("c.sqlite3"));
    let mut plan = server.plan(server.demo());
    let metric = server.post("/api/v1/assess?chart=true&sound=true&light=true", &plan).json();
    set(&mut plan, "/brief/units", json!("imperial"));
    let imperial = server.post("/api/v1/assess?chart=true&sound=true&light=true", &plan).json();
    let values = |judged: &Value| -> Vec<(String, Value)> {
        let readings = judged["assessment"]["readings"].as_array().unwrap();
        readings
            .iter()
            .map(|r| (r["id"].to_string() + r["unit"].as_str().unwrap(), r["value"].clone()))
            .collect()
    };
    assert_eq!(values(&metric), values(&imperial));
    assert_eq!(metric["assessment"]["score"], imperial["assessment"]["score"]);
    assert_eq!(metric["handles"], imperial["handles"]);
    assert_eq!(metric["chart"]["along"], imperial["chart"]["along"]);
    assert_ne!(metric["placed"], imperial["placed"], "the words differ");
    let words = imperial["placed"].to_string();
    assert!(words.contains('\u{2019}') || words.contains('\''), "{words}");
}
