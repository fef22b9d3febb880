//! Where practitioners disagree: every choice that is said to work changes the layout or its readings as it says, and
//! those without effect yet are stored and say so.

use fogon_core::plan::{Plan, all_schools};
use fogon_testkit::{box_room, set};
use serde_json::{Value, json};

use crate::support::{best, brief, reading, value};

fn with(school: &str, choice: &str) -> Plan {
    let mut document = box_room();
    set(&mut document, "/brief/schools", json!({ school: choice }));
    best(&document)
}

#[test]
fn the_table_is_complete_and_its_defaults_come_first() {
    let expected: [(&str, &[&str]); 14] = [
        ("placement", &["thirds", "centred"]),
        ("lens", &["far-and-long", "near-and-wide"]),
        ("aperture", &["about-f4", "wide-open"]),
        ("camera-height", &["level", "slightly-below"]),
        ("lights", &["three-point", "key-and-fill", "one", "ring", "even", "window-only"]),
        ("source", &["big-soft", "small-near"]),
        ("microphone", &["boom", "lavalier", "desk", "in-shot"]),
        ("spending", &["sound", "light", "lens", "set-and-light"]),
        ("frame-rate", &["by-mains", "24", "25", "30", "60"]),
        ("window", &["shut-out", "key"]),
        ("record", &["into-camera", "separate"]),
        ("rig", &["separate", "column", "fixed"]),
        ("monitor", &["flip-screen", "field", "phone", "television", "mirror"]),
        ("background", &["natural", "coloured"]),
    ];
    let table = all_schools();
    assert_eq!(table.len(), expected.len());
    for (school, (id, choices)) in table.iter().zip(expected) {
        assert_eq!(school.id, id);
        assert_eq!(school.choices.iter().map(|c| c.id).collect::<Vec<_>>(), choices, "{id}");
        assert!(!school.reason.is_empty() && !school.source.is_empty());
        assert!(!school.readings.is_empty(), "{id}");
        for choice in choices {
            let mut document = box_room();
            set(&mut document, "/brief/schools", json!({ id: choice }));
            let kept = serde_json::to_value(brief(&document).brief.schools).unwrap();
            let is_default = *choice == choices[0];
            assert_eq!(
                kept.get(id).and_then(Value::as_str),
                (!is_default).then_some(*choice),
                "{id} {choice}"
            );
        }
    }
}

#[test]
fn centred_puts_the_eyes_in_the_middle_and_thirds_on_the_upper_third() {
    let line = |plan: &Plan| {
        let found = reading(plan, "shot.frame.eye_line_error");
        found.working.inputs.iter().find(|i| i.name == "found").unwrap().value
    };
    assert!((line(&with("placement", "thirds")) - 1.0 / 3.0).abs() < 0.01);
    assert!((line(&with("placement", "centred")) - 0.5).abs() < 0.01);
}

#[test]
fn near_and_wide_comes_closer_with_a_shorter_lens() {
    let (far, near) = (with("lens", "far-and-long"), with("lens", "near-and-wide"));
    assert!(value(&far, "shot.camera.distance_m") >= 1.3);
    assert!(value(&near, "shot.camera.distance_m") <= 1.0 + 1e-6);
    assert!(near.layout.camera.focal_length_mm < far.layout.camera.focal_length_mm);
}

#[test]
fn wide_open_opens_and_about_f4_keeps_the_depth_of_full_frame() {
    // f/4 on full frame is f/2.6 on a sensor 23.5 mm wide, as depth of field goes; the lens has f/2.8 at best.
    assert_eq!(with("aperture", "about-f4").layout.camera.f_number, 2.8);
    let mut document = box_room();
    set(&mut document, "/brief/gear/zoom/f_number_at_min", json!(1.8));
    set(&mut document, "/brief/gear/zoom/f_number_at_max", json!(1.8));
    assert_eq!(best(&document).layout.camera.f_number, 2.5);
    set(&mut document, "/brief/schools", json!({ "aperture": "wide-open" }));
    assert_eq!(best(&document).layout.camera.f_number, 1.8);
}

#[test]
fn slightly_below_looks_up_by_a_few_degrees() {
    assert!(value(&with("camera-height", "level"), "shot.camera.view_angle_deg").abs() < 0.5);
    let below = value(&with("camera-height", "slightly-below"), "shot.camera.view_angle_deg");
    assert!((-10.0..=-3.0).contains(&below), "{below}");
}

#[test]
fn the_lights_are_as_many_as_the_school_wants() {
    let roles = |plan: &Plan| plan.layout.lights.keys().map(|id| id.0.clone()).collect::<Vec<_>>();
    assert!(roles(&with("lights", "three-point")).contains(&"back".to_owned()));
    assert!(!roles(&with("lights", "key-and-fill")).contains(&"back".to_owned()));
    assert_eq!(roles(&with("lights", "one")), ["key"]);
}

#[test]
fn the_microphone_of_the_school_is_taken_where_it_is_owned() {
    let mut document = box_room();
    let clip = json!({ "kind": "microphone", "label": "Clip", "mounting": "lavalier", "pattern_a": 1, "self_noise_dba": 26 });
    set(&mut document, "/brief/gear/clip", clip);
    let used = |document: &Value| best(document).layout.microphone.unwrap().gear.0;
    assert_eq!(used(&document), "boom-microphone");
    set(&mut document, "/brief/schools", json!({ "microphone": "lavalier" }));
    assert_eq!(used(&document), "clip");
    // In the picture it may come nearer than the picture's edge allows.
    let distance = |choice: &str| value(&with("microphone", choice), "sound.microphone.distance_m");
    assert!(distance("in-shot") < distance("boom"));
}

#[test]
fn the_frame_rate_follows_the_mains_unless_it_is_chosen() {
    for (choice, hertz, rate, shutter) in [
        ("by-mains", 50, 25.0, 1.0 / 50.0),
        ("by-mains", 60, 30.0, 1.0 / 60.0),
        ("24", 50, 24.0, 1.0 / 50.0),
        ("60", 60, 60.0, 1.0 / 120.0),
    ] {
        let mut document = box_room();
        set(&mut document, "/brief/schools", json!({ "frame-rate": choice }));
        set(&mut document, "/brief/room/mains/frequency_hz", json!(hertz));
        let camera = best(&document).layout.camera;
        assert_eq!(camera.frame_rate_hz, rate, "{choice} at {hertz} Hz");
        assert!((camera.shutter_s - shutter).abs() < 1e-12, "{choice} at {hertz} Hz: {}", camera.shutter_s);
    }
}
