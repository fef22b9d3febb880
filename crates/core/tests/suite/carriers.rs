//! What carries camera, lamps and microphone besides stands on the floor: clamps on furniture, on a door, on the camera's stand;
//! books and small stands on a desk. Loads and reaches worked out here.

use fogon_core::arrange::{propose, why};
use fogon_core::assess::without_moves;
use fogon_core::corner::Corner;
use fogon_core::finding::Severity;
use fogon_core::money::Catalogue;
use fogon_core::plan::{Id, Plan, SupportKind};
use fogon_testkit::{assert_close, box_room, set};
use serde_json::{Value, json};

use crate::support::{best, bought_among, brief, plain, plain_with, read, value};

fn clamp(offer: &str, reach_m: f64) -> Value {
    json!({ "kind": "support", "label": "Clamp", "mass_kg": 0.4, "offers": ["furniture", offer],
        "height_min_m": 0.05, "height_max_m": 0.45, "foot_radius_m": 0.05, "payload_kg": 1.5, "reach_m": reach_m })
}

fn broken(plan: &Plan) -> Vec<String> {
    let found = without_moves(plan).findings.into_iter();
    found
        .filter(|f| f.id.to_string().starts_with("legal."))
        .map(|f| format!("{} {}", f.id, f.sentence))
        .collect()
}

/// The plain corner's key 0.3 m beside its tripod, clamped to it: camera 1 kg, lamp 1 kg and clamp 0.4 kg on 5 kg.
#[test]
fn a_lamp_clamped_to_the_cameras_stand_weighs_on_it() {
    let with = |height: f64, lamp_kg: f64| {
        plain_with(&[
            ("/brief/gear/clamp", clamp("light", 0.5)),
            ("/brief/gear/lamp/mass_kg", json!(lamp_kg)),
            ("/layout/lights/key/position_m", json!([1.65, 3.15, height])),
            ("/layout/lights/key/support", json!({ "kind": "clamp", "gear": "clamp" })),
        ])
    };
    let plan = with(1.35, 1.0);
    assert_eq!(broken(&plan), [""; 0]);
    assert_close(value(&plan, "room.camera.payload_times"), 5.0 / 2.4, 1e-9, 0.0, "payload");
    let told = |placed: &str| why(&plan).into_iter().find(|p| p.letter == placed).unwrap().place;
    assert!(told("K").ends_with("clamped to the camera's stand."), "{}", told("K"));
    // Its head is 1.2 m up, the clamp grips to 0.25 m below and reaches 0.45 m.
    let high = broken(&with(1.75, 1.0));
    assert!(
        high.len() == 1 && high[0].contains("on the camera's stand it can be from 0.45 m to 1.40 m"),
        "{high:?}"
    );
    let heavy = broken(&with(1.35, 1.6));
    assert!(heavy.len() == 1 && heavy[0].contains("Clamp carries 1.5 kg"), "{heavy:?}");
    // A second lamp's weight tips the tripod sooner: the bag has to grow.
    let bag = |plan: &Plan| value(plan, "room.camera.sandbag_kg");
    assert!(bag(&plan) > bag(&plain_with(&[])));
}

/// A door 2 m high in the right wall, a lamp clamped to its upper edge: it goes with the door, on a stand it would bar it.
#[test]
fn a_lamp_clamped_to_a_door_goes_with_it() {
    let door = json!({ "door": { "kind": "door", "wall": 1, "from_m": 2.1, "width_m": 0.8, "height_m": 2.0, "swing": "in-left" },
        "window": { "kind": "window", "wall": 3, "from_m": 2.0, "width_m": 1.0 } });
    let with = |support: Value| {
        plain_with(&[
            ("/brief/room/openings", door.clone()),
            ("/brief/gear/clamp", clamp("light", 0.4)),
            ("/layout/lights/key/position_m", json!([3.6, 2.6, 2.1])),
            ("/layout/lights/key/support", support),
        ])
    };
    assert_eq!(broken(&with(json!({ "kind": "clamp", "gear": "clamp", "on": "door" }))), [""; 0]);
    let stand = json!({ "kind": "floor", "gear": "stand", "base_m": [3.6, 2.6], "sandbag_kg": 20 });
    assert!(broken(&with(stand)).iter().any(|b| b.starts_with("legal.door.key")));
    // Nothing is clamped to a window, and nothing stands on a door.
    let mut refused = plain();
    set(&mut refused, "/brief/room/openings", door);
    for support in [json!({ "kind": "clamp", "on": "window" }), json!({ "kind": "on", "on": "door" })] {
        set(&mut refused, "/layout/lights/key/support", support);
        let problems = Plan::read(refused.to_string().as_bytes()).unwrap_err();
        assert_eq!(problems.0[0].field, "layout.lights.key.support.on");
    }
}

/// With clamps in place of every stand for lamps, the search clamps them where they reach, and breaks no rule.
#[test]
fn clamps_are_used_where_there_is_no_stand() {
    let mut document = box_room();
    for stand in ["key-stand", "board-stand", "hair-arm"] {
        set(&mut document, &format!("/brief/gear/{stand}"), clamp("light", 0.5));
    }
    set(&mut document, "/brief/gear/octa/mass_kg", json!(1.2));
    let plan = best(&document);
    assert_eq!(broken(&plan), [""; 0]);
    let clamped = plan.layout.lights.values().filter(|l| l.support.kind == SupportKind::Clamp);
    assert!(clamped.count() >= 1, "{:?}", plan.layout.lights);
    let corner = Corner::of(&plan).unwrap();
    for light in &corner.lights {
        let carrier = corner.carrier(&light.light.support).expect("clamped");
        assert!(carrier.beside_m(light.hold_m().truncate()) <= 0.5 + 1e-9);
    }
}

/// The ordinary phone corner without a part of its gear.
fn phone_corner_without(gear: &str) -> Value {
    let name = "talk-to-lens.square.phone.brief.json";
    let path = format!("{}/../../docs/examples/ordinary/{name}", env!("CARGO_MANIFEST_DIR"));
    let mut document: Value = serde_json::from_slice(&std::fs::read(path).unwrap()).unwrap();
    document["brief"]["gear"].as_object_mut().unwrap().remove(gear);
    document
}

/// In a room with nothing to clamp to, a lamp on an arm of 0.6 m goes on the tripod, which gets the bag that holds both.
#[test]
fn a_clamp_alone_goes_on_the_tripod() {
    let mut document = phone_corner_without("panel-stand");
    set(&mut document, "/brief/gear/clamp", clamp("light", 0.6));
    set(&mut document, "/brief/gear/clamp/height_max_m", json!(0.6));
    set(&mut document, "/brief/room/openings", json!({}));
    set(&mut document, "/brief/room/furniture", json!({}));
    set(&mut document, "/brief/person/seat_at", Value::Null);
    let plan = best(&document);
    assert_eq!(broken(&plan), [""; 0]);
    let key = &plan.layout.lights.values().next().expect("a key").support;
    assert!(key.kind == SupportKind::Clamp && key.on.is_none(), "{key:?}");
    assert!(plan.layout.camera.support.sandbag_kg >= value(&plan, "room.camera.sandbag_kg") - 0.05);
}

/// An arm that is clamped to the desk carries the microphone over the picture, in from beside it.
#[test]
fn a_desk_arm_carries_the_microphone() {
    let mut document = phone_corner_without("lavalier");
    let boom = json!({ "kind": "microphone", "label": "Voice", "mass_kg": 0.2, "mounting": "boom", "pattern_a": 0.25, "self_noise_dba": 14 });
    let gear = document["brief"]["gear"].as_object_mut().unwrap();
    gear.insert("voice".into(), boom);
    gear.insert(
        "arm".into(),
        serde_json::to_value(&Catalogue::of_fogon().offers[&Id::from("desk-arm-microphone")].gear).unwrap(),
    );
    set(&mut document, "/brief/gear/arm/state", json!("owned"));
    let plan = best(&document);
    assert_eq!(broken(&plan), [""; 0]);
    let used = plan.layout.microphone.as_ref().expect("carried");
    assert_eq!(
        (used.support.kind, used.support.gear.as_ref().unwrap().0.as_str()),
        (SupportKind::Clamp, "arm")
    );
}

/// Without a tripod a phone stands on the desk, on books; that is said, it does not stand in the way, and what carries it
/// better is offered for money.
#[test]
fn without_a_tripod_books_will_do_and_a_stand_is_offered() {
    let mut document = phone_corner_without("tripod");
    set(&mut document, "/brief/money", json!({ "budget": 150, "currency": "EUR" }));
    let found = propose("Books", &brief(&document).brief);
    let plan = &found.proposals[0].plan;
    assert!(found.proposals[0].ready);
    let support = &plan.layout.camera.support;
    assert!(support.kind == SupportKind::On && support.on.is_some() && support.gear.is_none());
    let told = without_moves(plan).findings.into_iter().find(|f| f.id == "support.camera.missing").unwrap();
    assert_eq!(told.severity, Severity::Consider);
    assert!(
        told.sentence.contains("over the desk, on books or the upper edge of a monitor"),
        "{}",
        told.sentence
    );
    let steps = bought_among(plan, 150.0, |gear| gear.support().is_some()).path;
    let offered = steps.iter().find(|step| step.reason.contains("back there at once")).expect("offered");
    assert!(offered.price <= 150.0 && Some(offered.score) >= offered.score_before, "{offered:?}");
}

/// A lamp that is owned and not used is told of with what keeps it out, whatever its job would be.
#[test]
fn a_lamp_that_is_left_out_is_told_of() {
    let mut document = box_room();
    let mut spare = document["brief"]["gear"]["octa"].clone();
    spare["label"] = json!("Second softbox");
    set(&mut document, "/brief/gear/second", spare);
    let gear = document["brief"]["gear"].as_object_mut().unwrap();
    gear.retain(|id, _| !["board-stand", "hair-arm"].contains(&id.as_str()));
    // Nothing for a small lamp to stand on either.
    set(&mut document, "/brief/room/furniture", json!({}));
    set(&mut document, "/brief/person/seat_at", Value::Null);
    let plan = best(&document);
    let unused: Vec<_> = why(&plan).into_iter().filter(|p| p.place == "Not used.").collect();
    let lamps = plan.brief.gear.values().filter(|g| g.light().is_some()).count();
    assert!(
        plan.layout.lights.values().filter(|l| plan.brief.gear[&l.gear].light().is_some()).count() < lamps
    );
    let said = |letter: &str| &unused.iter().find(|p| p.letter == letter).expect("told").why;
    assert!(
        said("B").contains("is at hand. Nothing that is left carries it: it needs a stand"),
        "{unused:?}"
    );
    assert!(said("F").contains("second softbox"), "{unused:?}");
}

/// A microphone of a performance is aimed between mouth and instrument, and loses of the voice what its pattern gives less to
/// that side: a + (1 - a) cos of the angle at the capsule.
#[test]
fn a_performance_is_heard_between_mouth_and_instrument() {
    let with = |purpose: &str| {
        let mut document = plain();
        set(&mut document, "/brief/purpose", json!(purpose));
        set(&mut document, "/brief/gear/voice/pattern_a", json!(0.25));
        read(&document)
    };
    let (talk, play) = (with("talk-to-lens"), with("performance"));
    let corner = Corner::of(&play).unwrap();
    let (_, capsule) = corner.microphone.unwrap();
    let (to_mouth, aim) = (corner.mouth_m - capsule, corner.sounds_from_m() - capsule);
    assert!(aim.z < to_mouth.z - 0.1, "lower than the mouth");
    let cosine = to_mouth.normalize().dot(aim.normalize());
    let less = 20.0 * (0.25 + 0.75 * cosine).log10();
    let ratio = |plan: &Plan| value(plan, "sound.microphone.direct_to_reverberant_db");
    assert_close(ratio(&play) - ratio(&talk), less, 0.0, 0.02, "direct sound");
    let said = fogon_core::card::card(&play).map(|card| card.microphone);
    assert!(said.is_some_and(|words| words.contains("between mouth and instrument")));
}
