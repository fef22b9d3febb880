//! Good and bad documents: our reader and an independent schema validator give the same answer, and ours names the field.

use fogon_core::document::{Shape, as_cell, from_cell, parse};
use fogon_core::money::Catalogue;
use fogon_core::plan::{BriefFile, Plan, apply, change};
use fogon_testkit::{BOX_ROOM, box_room, set};
use serde::Deserialize;
use serde_json::{Value, json};

const PLAN: &str = include_str!("../../../../docs/examples/box-room.fogon.json");

/// Where to change the plan file, to what, the code it is refused with (none = good), and the field named.
fn corpus() -> Vec<(&'static str, Value, Option<&'static str>, &'static str)> {
    vec![
        ("/name", json!("Corner"), None, ""),
        ("/brief/person/lean_m", Value::Null, None, ""),
        ("/brief/measured", json!({ "sound.room.rt_mid_s": 0.42 }), None, ""),
        ("/brief/schools", json!({ "lens": "near-and-wide", "window": "key" }), None, ""),
        ("/brief/room/mains/frequency_hz", json!(60), None, ""),
        ("/name", json!(""), Some("out_of_range"), "name"),
        ("/name", json!(7), Some("wrong_type"), "name"),
        ("/format", json!("other.plan"), Some("bad_choice"), "format"),
        ("/brief/room/height_m", json!(0), Some("not_positive"), "brief.room.height_m"),
        ("/brief/room/height_m", json!(-2.4), Some("not_positive"), "brief.room.height_m"),
        ("/brief/room/height_m", json!(1e9), Some("out_of_range"), "brief.room.height_m"),
        ("/brief/room/height_m", json!("2.4"), Some("wrong_type"), "brief.room.height_m"),
        ("/brief/room/height_m", json!(true), Some("wrong_type"), "brief.room.height_m"),
        ("/brief/room/floor_m", json!([[0, 0], [3, 0]]), Some("out_of_range"), "brief.room.floor_m"),
        ("/brief/room/floor_m/2", json!([3.4]), Some("out_of_range"), "brief.room.floor_m[2]"),
        ("/brief/room/mains/frequency_hz", json!(55), Some("out_of_range"), "brief.room.mains.frequency_hz"),
        ("/brief/room/openings/Door 1", json!({}), Some("missing_field"), "brief.room.openings.Door 1.kind"),
        ("/brief/room/colour", json!("red"), Some("unknown_field"), "brief.room.colour"),
        ("/brief/purpose", json!("opera"), Some("bad_choice"), "brief.purpose"),
        ("/brief/schools", json!({ "lens": "fisheye" }), Some("bad_choice"), "brief.schools.lens"),
        ("/brief/gear/camera/kind", json!("kettle"), Some("bad_choice"), "brief.gear.camera.kind"),
        (
            "/brief/gear/camera/sensor_width_mm",
            json!(71),
            Some("out_of_range"),
            "brief.gear.camera.sensor_width_mm",
        ),
        ("/layout/seat/bearing_deg", json!(360), Some("out_of_range"), "layout.seat.bearing_deg"),
        ("/layout/camera/iso", json!([]), Some("wrong_type"), "layout.camera.iso"),
        ("/layout/lights", json!([]), Some("wrong_type"), "layout.lights"),
        ("/brief/run", json!({ "file_pattern": "{date} {take}" }), None, ""),
        (
            "/brief/run",
            json!({ "file_pattern": "{date}-{shoot}" }),
            Some("bad_choice"),
            "brief.run.file_pattern",
        ),
        ("/brief/run", json!({ "file_pattern": "a}b" }), Some("bad_choice"), "brief.run.file_pattern"),
    ]
}

#[test]
fn refusals_carry_their_code_and_field() {
    let good: Value = serde_json::from_str(PLAN).unwrap();
    for (pointer, value, refused, field) in corpus() {
        let mut document = good.clone();
        set(&mut document, pointer, value);
        let ours = Plan::read(document.to_string().as_bytes());
        match refused {
            None => assert!(ours.is_ok(), "{pointer}: {}", ours.unwrap_err()),
            Some(code) => {
                let problems = ours.unwrap_err().0;
                assert_eq!((problems[0].code.as_str(), problems[0].field.as_str()), (code, field));
            }
        }
    }
}

/// One change to the example plan, judged by jsonschema of PyPI (`reference/documents`).
#[derive(Deserialize)]
struct Changed {
    pointer: String,
    change: String,
    value: Value,
    valid: bool,
    /// Places that it finds fault with, as `brief/room/floor_m/2`.
    named: Vec<String>,
}

/// 1,503 changes, every value of the plan taken out, made another type, pushed to its ends and past them: what an independent
/// validator accepts of the published schema we accept, and where it finds fault we name that field or one right under it.
#[test]
fn an_independent_validator_gives_the_same_answer() {
    let all: Vec<Changed> = serde_json::from_str(include_str!("../fixtures/documents.json")).unwrap();
    let good: Value = serde_json::from_str(PLAN).unwrap();
    let (mut accepted, mut refused) = (0, 0);
    for Changed { pointer, change, value, valid, named } in &all {
        let mut document = good.clone();
        match change.as_str() {
            "remove" => {
                let (holder, key) = pointer.rsplit_once('/').unwrap();
                document.pointer_mut(holder).unwrap().as_object_mut().unwrap().remove(key);
            }
            _ => set(&mut document, pointer, value.clone()),
        }
        let problems = Plan::checker().check(&document);
        assert_eq!(problems.is_empty(), *valid, "{change} {pointer} {value}: {problems:?}");
        if *valid {
            accepted += 1;
            continue;
        }
        refused += 1;
        // A field that lacks or is unknown is named itself by us, and by its object there.
        let is_named = |field: &str| {
            let path = field.replace(['.', '['], "/").replace(']', "");
            let parent = path.rsplit_once('/').map_or("", |(parent, _)| parent);
            named.iter().any(|place| *place == path || place == parent)
        };
        let fields: Vec<&str> = problems.iter().map(|problem| problem.field.as_str()).collect();
        assert!(
            fields.iter().any(|field| is_named(field)),
            "{change} {pointer}: {fields:?}, there {named:?}"
        );
    }
    assert!(accepted > 300 && refused > 900, "{accepted} accepted, {refused} refused");
}

/// What a schema cannot say: two values that contradict each other, ids that name nothing.
#[test]
fn contradictions_name_the_field() {
    let refused = |pointer: &str, value: Value| {
        let mut brief = box_room();
        set(&mut brief, pointer, value);
        BriefFile::read(brief.to_string().as_bytes()).unwrap_err().0[0].clone()
    };
    let door = refused("/brief/room/openings/door/width_m", json!(3.5));
    assert_eq!(door.field, "brief.room.openings.door.width_m");
    assert!(door.accepted.contains("2.9"), "{door}");
    let shelf = refused("/brief/room/furniture/shelf/position_m", json!([3.3, 0.2, 0]));
    assert_eq!(shelf.field, "brief.room.furniture.shelf.position_m[0]");
    assert_eq!(refused("/brief/person/seat_at", json!("throne")).code.as_str(), "unknown_id");
    assert_eq!(refused("/brief/room/floor_m/3/0", json!(-1.0)).field, "brief.room.floor_m");
    assert_eq!(refused("/brief/gear/zoom/focal_min_mm", json!(70)).field, "brief.gear.zoom.focal_min_mm");
    assert_eq!(refused("/brief/measured", json!({ "sound.room.warmth": 1 })).code.as_str(), "unknown_id");
    let mut newer = box_room();
    set(&mut newer, "/version", json!(2));
    set(&mut newer, "/brief/hologram", json!(true));
    let newer = BriefFile::read(newer.to_string().as_bytes()).unwrap_err().0[0].clone();
    assert_eq!(newer.field, "version");
}

#[test]
fn hostile_text_is_refused_before_it_is_understood() {
    let deep = "[".repeat(40) + &"]".repeat(40);
    let huge = format!("{{\"name\":\"{}\"}}", "x".repeat(10_000_000));
    for text in [deep.as_bytes(), huge.as_bytes(), b"\xff\xfe", b"", b"{\"a\":NaN}", b"{} {}"] {
        assert_eq!(parse(text).unwrap_err().code.as_str(), "bad_json");
    }
}

#[test]
fn plans_round_trip_and_patches_land_only_where_they_were_made() {
    let plan = Plan::read(PLAN.as_bytes()).unwrap();
    let text = serde_json::to_vec(&plan).unwrap();
    assert_eq!(Plan::read(&text).unwrap(), plan);
    let mut moved = plan.clone();
    moved.layout.camera.iso = 800.0;
    moved.layout.lights.clear();
    let patch = change(&plan, &moved);
    let applied = apply(&plan, &patch).unwrap();
    assert_eq!(applied, moved);
    assert!(patch.iter().all(|s| s.path.starts_with("/layout/")) && patch[0].op == "test");
    assert_eq!(apply(&moved, &patch).unwrap_err().0[0].code.as_str(), "patch_refused");
    let mut outside = patch;
    outside[0].path = "/brief/name".into();
    assert!(apply(&plan, &outside).is_err());
}

/// The committed example plan is what the committed brief leads to; `fogon propose --plan` writes it.
#[test]
fn the_example_plan_is_current() {
    let file = BriefFile::read(BOX_ROOM.as_bytes()).unwrap();
    let best = fogon_core::arrange::propose(&file.name, &file.brief).proposals.remove(0);
    let committed = Plan::read(PLAN.as_bytes()).unwrap();
    assert!(
        best.plan == committed,
        "run: fogon propose docs/examples/box-room.brief.json --plan docs/examples/box-room.fogon.json"
    );
}

#[test]
fn the_catalogue_holds_what_the_job_needs() {
    let catalogue = Catalogue::read(include_bytes!("../../src/money/catalogue.csv")).unwrap();
    assert_eq!(&catalogue, Catalogue::of_fogon());
    assert!(catalogue.offers.len() >= 180 && !catalogue.source.is_empty(), "{}", catalogue.offers.len());
    let offered = |tag: &str| catalogue.offers.values().any(|o| o.gear.common().offers(tag));
    let mut kinds = std::collections::BTreeSet::new();
    for (id, offer) in &catalogue.offers {
        let common = offer.gear.common();
        kinds.insert(serde_json::to_value(&offer.gear).unwrap()["kind"].to_string());
        assert!(offer.price_used.is_none_or(|used| used <= common.price), "{id}");
        assert!(common.price <= 0.0 || common.life_years.is_some(), "{id}");
        assert!(
            common.needs.iter().all(|n| offered(n) || n == "usb-input"),
            "{id} needs what nothing offers"
        );
    }
    assert_eq!(kinds.len(), 15, "{kinds:?}");
    let household = Catalogue::read(include_bytes!("../../src/money/household.csv")).unwrap();
    assert!(household.offers.values().all(|offer| offer.price() <= 0.0 && !offer.caution.is_empty()));
}

/// Every value in the plan spoilt in every way: our reader and the general validator agree on each, and a refusal names
/// a field and says what would be accepted.
#[test]
fn every_value_spoilt_in_every_way_gets_the_same_answer() {
    let validator = jsonschema::validator_for(Plan::shape()).unwrap();
    let good: Value = serde_json::from_str(PLAN).unwrap();
    let mut pointers = Vec::new();
    paths(&good, String::new(), &mut pointers);
    assert!(pointers.len() > 300, "{}", pointers.len());
    let spoils = [
        json!(-1),
        json!(0),
        json!(1e7),
        json!(0.5),
        json!("word"),
        json!(""),
        json!(true),
        json!([]),
        json!({}),
        json!([1, 2, 3]),
        json!({ "unheard": 1 }),
    ];
    let (mut accepted, mut refused) = (0, 0);
    for pointer in &pointers {
        for spoil in &spoils {
            let mut document = good.clone();
            *document.pointer_mut(pointer).unwrap() = spoil.clone();
            let problems = Plan::checker().check(&document);
            assert_eq!(
                validator.is_valid(&document),
                problems.is_empty(),
                "{pointer} = {spoil}: {:?}",
                problems.iter().map(ToString::to_string).collect::<Vec<_>>()
            );
            if problems.is_empty() {
                accepted += 1;
                continue;
            }
            refused += 1;
            let problem = &problems[0];
            assert!(
                !problem.field.is_empty() && !problem.accepted.is_empty(),
                "{pointer} = {spoil}: {problem}"
            );
            // What is refused is refused by the reader as well, never a panic and never another reason.
            assert!(Plan::read(document.to_string().as_bytes()).is_err(), "{pointer} = {spoil}");
        }
    }
    assert!(accepted > 100 && refused > 2000, "{accepted} accepted, {refused} refused");
}

fn paths(value: &Value, at: String, all: &mut Vec<String>) {
    match value {
        Value::Object(map) => map.iter().for_each(|(key, v)| {
            paths(v, format!("{at}/{}", key.replace('~', "~0").replace('/', "~1")), all)
        }),
        Value::Array(list) => list.iter().enumerate().for_each(|(i, v)| paths(v, format!("{at}/{i}"), all)),
        _ => {}
    }
    if !at.is_empty() {
        all.push(at);
    }
}

/// A field left out is either required, and named, or has a default.
#[test]
fn every_field_left_out_is_named_or_has_a_default() {
    let validator = jsonschema::validator_for(Plan::shape()).unwrap();
    let good: Value = serde_json::from_str(PLAN).unwrap();
    let mut pointers = Vec::new();
    paths(&good, String::new(), &mut pointers);
    for pointer in pointers {
        let (parent, key) = pointer.rsplit_once('/').unwrap();
        let mut document = good.clone();
        let Some(map) = document.pointer_mut(parent).and_then(Value::as_object_mut) else { continue };
        map.remove(key);
        let problems = Plan::checker().check(&document);
        assert_eq!(validator.is_valid(&document), problems.is_empty(), "without {pointer}: {problems:?}");
        if let Some(problem) = problems.first() {
            assert_eq!(problem.code.as_str(), "missing_field", "without {pointer}: {problem}");
            assert!(problem.field.ends_with(key), "without {pointer}: {problem}");
        }
    }
}

/// Names of things: short, lower case, nothing that a path or a file name could trip over.
#[test]
fn ids_are_plain() {
    for (id, fits) in [
        ("key", true),
        ("key-2", true),
        ("Key", false),
        ("a b", false),
        ("a/b", false),
        ("", false),
        ("x".repeat(33).as_str(), false),
    ] {
        let mut document = box_room();
        let stand = document["brief"]["gear"]["tripod"].clone();
        document["brief"]["gear"].as_object_mut().unwrap().insert(id.to_owned(), stand);
        assert_eq!(BriefFile::read(document.to_string().as_bytes()).is_ok(), fits, "{id:?}");
    }
}

/// What one value cannot show: each contradiction named at its field, with what would be accepted.
#[test]
fn contradictions_of_every_kind() {
    let cases = [
        (
            "/brief/room/openings/door/from_m",
            json!(2.5),
            "brief.room.openings.door.width_m",
            "conflict",
            "wall",
        ),
        (
            "/brief/room/openings/window/height_m",
            json!(2.0),
            "brief.room.openings.window.height_m",
            "conflict",
            "ceiling",
        ),
        (
            "/brief/room/furniture/shelf/position_m",
            json!([0.45, 2.9, 0]),
            "brief.room.furniture.shelf.position_m[1]",
            "conflict",
            "",
        ),
        (
            "/brief/room/furniture/shelf/size_m",
            json!([0.8, 0.28, 2.6]),
            "brief.room.furniture.shelf.position_m[2]",
            "conflict",
            "",
        ),
        (
            "/brief/room/floor_m",
            json!([[0, 0], [0, 2.9], [3.4, 2.9], [3.4, 0]]),
            "brief.room.floor_m",
            "conflict",
            "counter-clockwise",
        ),
        (
            "/brief/room/floor_m",
            json!([[0, 0], [3.4, 0], [0, 2.9], [3.4, 2.9]]),
            "brief.room.floor_m",
            "conflict",
            "walk round",
        ),
        (
            "/brief/room/floor_m",
            json!([[0, 0], [3.4, 0], [3.4, 1.6], [2.0, 1.6], [2.0, 2.9], [0, 2.9]]),
            "brief.room.furniture.desk.position_m",
            "conflict",
            "clear of the walls",
        ),
        (
            "/brief/room/openings/door/wall",
            json!(4),
            "brief.room.openings.door.wall",
            "unknown_id",
            "4 walls",
        ),
        (
            "/brief/room/slopes",
            json!({ "roof": { "wall": 0, "from_m": 3.0, "length_m": 1.0, "knee_m": 1.0, "run_m": 1.0 } }),
            "brief.room.slopes.roof.length_m",
            "conflict",
            "3.400 m",
        ),
        (
            "/brief/room/slopes",
            json!({ "roof": { "wall": 0, "knee_m": 2.5, "run_m": 1.0 } }),
            "brief.room.slopes.roof.knee_m",
            "conflict",
            "2.450 m",
        ),
        (
            "/brief/room/beams",
            json!({ "tie": { "from_m": [0, 1], "to_m": [3.4, 1], "width_m": 0.2, "drop_m": 2.5 } }),
            "brief.room.beams.tie.drop_m",
            "conflict",
            "2.450 m",
        ),
        (
            "/brief/room/floor_m",
            json!([[0, 0], [0.2, 0], [0.2, 2.9], [0, 2.9]]),
            "brief.room.floor_m",
            "out_of_range",
            "",
        ),
        (
            "/brief/room/surfaces",
            json!({ "wall-9": { "material": "tile" } }),
            "brief.room.surfaces",
            "unknown_id",
            "ceiling",
        ),
        (
            "/brief/room/surfaces",
            json!({ "floor": { "material": "moss" } }),
            "brief.room.surfaces.floor.material",
            "bad_choice",
            "carpet",
        ),
        ("/brief/gear/zoom/f_number_limit", json!(1.2), "brief.gear.zoom.f_number_at_min", "conflict", ""),
        ("/brief/gear/tripod/height_min_m", json!(1.6), "brief.gear.tripod.height_min_m", "conflict", ""),
        ("/brief/gear/camera/iso_max", json!(50), "brief.gear.camera.iso_min", "conflict", ""),
        ("/brief/gear/octa/resale", json!(900), "brief.gear.octa.resale", "conflict", ""),
        (
            "/brief/measured",
            json!({ "sound.room.rt_mid_s": 90 }),
            "brief.measured.sound.room.rt_mid_s",
            "out_of_range",
            "0.05 to 10",
        ),
    ];
    for (pointer, value, field, code, accepted) in cases {
        let mut document = box_room();
        set(&mut document, pointer, value);
        let problems = BriefFile::read(document.to_string().as_bytes()).expect_err(pointer).0;
        let problem =
            problems.iter().find(|p| p.field == field).unwrap_or_else(|| panic!("{pointer}: {problems:?}"));
        assert_eq!(problem.code.as_str(), code, "{pointer}: {problem}");
        assert!(problem.accepted.contains(accepted) && !problem.accepted.is_empty(), "{pointer}: {problem}");
    }
    // A plan's layout and today's arrangement name only what the brief has, and of the right kind.
    let mut plan: Value = serde_json::from_str(PLAN).unwrap();
    for (pointer, value, field) in [
        ("/layout/camera/lens", json!("camera"), "layout.camera.lens"),
        ("/layout/lights/key/gear", json!("tripod"), "layout.lights.key.gear"),
        ("/layout/microphone/gear", json!("octa"), "layout.microphone.gear"),
        ("/layout/camera/support/gear", json!("zoom"), "layout.camera.support.gear"),
        ("/layout/furniture/piano", json!({ "position_m": [1, 1, 0], "bearing_deg": 0 }), "layout.furniture"),
        ("/brief/today/lights/key/gear", json!("sun"), "brief.today.lights.key.gear"),
        (
            "/layout/screen",
            json!({ "gear": "octa", "position_m": [1, 1, 1], "support": { "kind": "on" } }),
            "layout.screen.gear",
        ),
        (
            "/layout/backdrop",
            json!({ "gear": "octa", "position_m": [1, 1], "bearing_deg": 0, "hung": "wall" }),
            "layout.backdrop.gear",
        ),
        (
            "/layout/angles",
            json!({ "side": { "body": "zoom", "lens": "zoom", "position_m": [1, 1, 1], "aim_m": [2, 2, 1], "focal_length_mm": 35,
                "support": { "kind": "floor" } } }),
            "layout.angles.side.body",
        ),
    ] {
        let good = plan.clone();
        set(&mut plan, pointer, value);
        let problems = Plan::read(plan.to_string().as_bytes()).expect_err(pointer).0;
        assert!(
            problems.iter().any(|p| p.field.starts_with(field) && p.code.as_str() == "unknown_id"),
            "{pointer}: {problems:?}"
        );
        plan = good;
    }
}

/// A phone's lens fits no other body, and its body takes no other lens; both are said by name, in second angles and in
/// today's arrangement as well. Neither screen nor backdrop of today may name what is not there.
#[test]
fn a_built_in_lens_stays_where_it_is_built_in() {
    let with = |edits: &[(&str, Value)]| {
        let mut plan: Value = serde_json::from_str(PLAN).unwrap();
        plan["brief"]["gear"]["phone"] = plan["brief"]["gear"]["camera"].clone();
        plan["brief"]["gear"]["phone-lens"] = plan["brief"]["gear"]["zoom"].clone();
        set(&mut plan, "/brief/gear/phone-lens/built_into", json!("phone"));
        for (at, value) in edits {
            set(&mut plan, at, value.clone());
        }
        Plan::read(plan.to_string().as_bytes()).map_err(|problems| problems.0)
    };
    assert!(with(&[]).is_ok());
    let phone = [("/layout/camera/body", json!("phone")), ("/layout/camera/lens", json!("phone-lens"))];
    assert!(with(&phone).is_ok());
    let refused = |edits: &[(&str, Value)], field: &str, words: &str| {
        let problems = with(edits).expect_err(field);
        assert_eq!((problems.len(), problems[0].field.as_str()), (1, field), "{problems:?}");
        assert!(problems[0].accepted.contains(words), "{}", problems[0]);
    };
    refused(&phone[1..], "layout.camera.lens", "built into phone");
    refused(&phone[..1], "layout.camera.lens", "cannot be changed");
    let angle = json!({ "body": "camera", "lens": "phone-lens", "position_m": [1, 1, 1], "aim_m": [2, 2, 1],
        "focal_length_mm": 35, "support": { "kind": "floor" } });
    refused(&[("/layout/angles/side", angle)], "layout.angles.side.lens", "built into phone");
    let mut today = serde_json::from_str::<Value>(PLAN).unwrap()["layout"]["camera"].clone();
    today["lens"] = json!("phone-lens");
    refused(&[("/brief/today", json!({ "camera": today }))], "brief.today.camera.lens", "fits camera");
    let screen =
        json!({ "screen": { "gear": "octa", "position_m": [1, 1, 1], "support": { "kind": "on" } } });
    refused(&[("/brief/today", screen)], "brief.today.screen.gear", "a monitor");
}

/// All that is wrong is told at once, so that nobody mends one thing to hear of the next.
#[test]
fn problems_of_a_kind_come_together() {
    let mut document = box_room();
    set(&mut document, "/brief/room/height_m", json!(0));
    set(&mut document, "/brief/person/stature_m", json!(9));
    set(&mut document, "/brief/gear/octa/width_m", json!(-1));
    let problems = BriefFile::read(document.to_string().as_bytes()).unwrap_err().0;
    let fields: Vec<&str> = problems.iter().map(|p| p.field.as_str()).collect();
    for field in ["brief.room.height_m", "brief.person.stature_m", "brief.gear.octa.width_m"] {
        assert!(fields.contains(&field), "{field} in {fields:?}");
    }
    // A slip of the hand is met with the nearest known name.
    let mut slip = box_room();
    slip["brief"]["room"]["heigth_m"] = json!(2.4);
    let problem = BriefFile::read(slip.to_string().as_bytes()).unwrap_err().0.remove(0);
    assert!(problem.accepted.contains("perhaps height_m"), "{problem}");
}

/// Files from before screens had figures still read; so do twelve walls told one by one.
#[test]
fn older_files_and_many_walls_read() {
    let mut document = box_room();
    set(
        &mut document,
        "/brief/gear/monitor",
        json!({ "kind": "monitor", "label": "Old monitor", "energy_wh": 20 }),
    );
    let file = BriefFile::read(document.to_string().as_bytes()).unwrap();
    let monitor = file.brief.gear["monitor"].monitor().unwrap();
    assert_eq!(monitor.screen, fogon_core::plan::ScreenType::Field);
    assert!(
        (monitor.width().0 - 0.155).abs() < 1e-12
            && monitor.width().1 == fogon_core::reading::Origin::Assumed
    );
    let round: Vec<[f64; 2]> = (0..12)
        .map(|i| {
            let (sin, cos) = (f64::from(i) * std::f64::consts::TAU / 12.0).sin_cos();
            [2.5 + 2.5 * cos, 2.5 + 2.5 * sin]
        })
        .collect();
    set(&mut document, "/brief/room/floor_m", json!(round));
    set(&mut document, "/brief/room/openings", json!({}));
    set(&mut document, "/brief/room/furniture", json!({}));
    set(&mut document, "/brief/person/seat_at", Value::Null);
    for wall in 0..12 {
        set(
            &mut document,
            &format!("/brief/room/surfaces/wall-{wall}"),
            json!({ "look": "dressed", "reflectance": 0.4 }),
        );
    }
    BriefFile::read(document.to_string().as_bytes()).unwrap();
    set(&mut document, "/brief/room/surfaces/wall-12", json!({ "look": "dressed" }));
    let problems = BriefFile::read(document.to_string().as_bytes()).unwrap_err().0;
    assert!(problems.iter().any(|p| p.field == "brief.room.surfaces"), "{problems:?}");
}

/// A line break becomes a blank; what cannot be seen, and code points that are kept free of characters, are taken out.
#[test]
fn what_cannot_be_seen_is_taken_out() {
    let mut document = box_room();
    set(&mut document, "/name", json!("A\u{0}b\nc\u{fffe}d\u{1b}e"));
    set(&mut document, "/brief/gear/camera/label", json!("\u{1ffff}Küche, 漢字 🎬"));
    let read = BriefFile::read(document.to_string().as_bytes()).unwrap();
    assert_eq!(read.name, "Ab cde");
    assert!(read.brief.gear.values().any(|gear| gear.common().label == "Küche, 漢字 🎬"));
}

#[test]
fn no_cell_runs_as_a_formula() {
    for text in ["=1+1", "\r=1", "\n@a", "  =1", "\u{a0}-2", "+1", "\tx", "'=1"] {
        let cell = as_cell(text);
        assert!(cell.starts_with('\''), "{text:?} as {cell:?}");
    }
    for text in ["=1+1", " =1", "Lamp", "Lamp = 1", "'quoted'", ""] {
        assert_eq!(from_cell(&as_cell(text)), text);
    }
}
