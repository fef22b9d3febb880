//! For tests and benchmarks only: briefs to start from, rooms at random, numbers to compare.

use proptest::prelude::*;
use serde_json::{Value, json};

/// The demo brief as committed.
pub const BOX_ROOM: &str = include_str!("../../../docs/examples/box-room.brief.json");

/// Fails unless `got` is `want` within a relative or an absolute tolerance.
///
/// # Panics
/// When it is not.
#[track_caller]
pub fn assert_close(got: f64, want: f64, relative: f64, absolute: f64, what: &str) {
    let most = (relative * want.abs()).max(absolute);
    assert!((got - want).abs() <= most, "{what}: got {got}, want {want} within {most}");
}

/// The demo brief as a value to change, without how its corner stands today.
///
/// # Panics
/// If the committed example is no JSON.
pub fn box_room() -> Value {
    let mut brief: Value = serde_json::from_str(BOX_ROOM).expect("the example is JSON");
    brief["brief"]["today"] = Value::Null;
    brief
}

/// Sets a value by JSON pointer, making objects on the way.
pub fn set(document: &mut Value, pointer: &str, value: Value) {
    let mut at = document;
    for part in pointer.split('/').skip(1) {
        if at.is_null() {
            *at = json!({});
        }
        at = match at {
            Value::Array(list) => {
                let index: usize = part.parse().unwrap_or(0);
                &mut list[index]
            }
            other => &mut other[part],
        };
    }
    *at = value;
}

/// Briefs of random rooms, people and purposes with the demo's gear: some fit, some do not.
pub fn any_brief() -> impl Strategy<Value = Value> {
    let room = (1.9f64..5.5, 1.9f64..5.5, 2.1f64..3.2);
    let door =
        (0u8..4, 0.0f64..0.6, prop_oneof![Just("in-left"), Just("in-right"), Just("out"), Just("sliding")]);
    let person = (1.45f64..2.0, any::<bool>(), any::<bool>());
    let purpose = prop_oneof![
        3 => Just("talk-to-lens"),
        3 => Just("audition-tape"),
        3 => Just("vertical-short"),
        1 => Just("screen-lesson"),
        1 => Just("performance"),
        1 => Just("keyed-background"),
    ];
    let schools = (any::<bool>(), any::<bool>(), 0usize..4);
    (room, door, person, purpose, schools).prop_map(|((w, d, h), (wall, from, swing), (stature, seated, desk), purpose, schools)| {
        let round = |v: f64| (v * 100.0).round() / 100.0;
        let (w, d, h) = (round(w), round(d), round(h));
        let mut brief = box_room();
        set(&mut brief, "/brief/room/floor_m", json!([[0, 0], [w, 0], [w, d], [0, d]]));
        set(&mut brief, "/brief/room/height_m", json!(h));
        set(&mut brief, "/brief/room/openings", json!({
            "door": { "kind": "door", "wall": wall, "from_m": round(from), "width_m": 0.8, "swing": swing }
        }));
        let desk_piece = json!({ "kind": "desk", "position_m": [w / 2.0, d / 2.0, 0], "size_m": [1.1, 0.55, 0.74] });
        set(&mut brief, "/brief/room/furniture", if desk { json!({ "desk": desk_piece }) } else { json!({}) });
        set(&mut brief, "/brief/person", json!({
            "stature_m": round(stature),
            "posture": if seated || desk { "seated" } else { "standing" },
            "seat_at": if desk { json!("desk") } else { Value::Null },
        }));
        set(&mut brief, "/brief/purpose", json!(purpose));
        let microphone = ["boom", "lavalier", "desk", "in-shot"][schools.2];
        set(&mut brief, "/brief/schools", json!({
            "placement": if schools.0 { "thirds" } else { "centred" },
            "lens": if schools.1 { "far-and-long" } else { "near-and-wide" },
            "microphone": microphone,
        }));
        brief
    })
}

/// Rigs, screens, backdrops and a phone's two cameras on top of a brief's own gear, each there or not.
pub fn any_kit() -> impl Strategy<Value = Vec<(String, Value)>> {
    let rig = prop_oneof![Just("separate"), Just("column"), Just("ceiling"), Just("wall")];
    let screen = prop::option::of(prop_oneof![
        Just("field"),
        Just("phone"),
        Just("television"),
        Just("mirror"),
        Just("script")
    ]);
    let backdrop = prop::option::of((
        prop_oneof![Just("paper"), Just("chroma"), Just("cloth")],
        1.2f64..2.6,
        prop_oneof![Just(json!([])), Just(json!(["ceiling"])), Just(json!(["wall"]))],
    ));
    (rig, screen, backdrop, any::<bool>()).prop_map(|(rig, screen, backdrop, phone)| {
        let school = if matches!(rig, "ceiling" | "wall") { "fixed" } else { rig };
        let mut kit = vec![("/brief/schools/rig".to_owned(), json!(school))];
        let mut own = |id: &str, thing: Value| kit.push((format!("/brief/gear/{id}"), thing));
        match rig {
            "column" => own(
                "column",
                json!({ "kind": "support", "label": "Column", "mass_kg": 16, "offers": ["camera", "light", "microphone"],
                    "height_min_m": 0.6, "height_max_m": 2.4, "foot_radius_m": 0.5, "payload_kg": 12, "reach_m": 1.3, "castors": true }),
            ),
            "ceiling" | "wall" => {
                for (id, purpose) in [("drop-a", "light"), ("drop-b", "light"), ("drop-c", "camera"), ("drop-d", "microphone")] {
                    own(
                        id,
                        json!({ "kind": "support", "label": "Fixed arm", "mass_kg": 2, "offers": [rig, purpose],
                            "height_min_m": 0.4, "height_max_m": 2.6, "foot_radius_m": 0.1, "payload_kg": 6, "reach_m": 1.2 }),
                    );
                }
            }
            _ => {}
        }
        if let Some(screen) = screen {
            own("own-screen", json!({ "kind": "monitor", "label": "Screen", "mass_kg": 0.6, "screen": screen }));
        }
        if let Some((kind, width, offers)) = backdrop {
            let width = (width * 100.0).round() / 100.0;
            own(
                "backdrop",
                json!({ "kind": "backdrop", "label": "Backdrop", "mass_kg": 4, "backdrop": kind, "width_m": width, "height_m": 2.0, "offers": offers }),
            );
        }
        if phone {
            own(
                "selfie",
                json!({ "kind": "camera", "label": "Selfie camera", "mass_kg": 0.2, "sensor_width_mm": 4.8, "sensor_height_mm": 3.6,
                    "iso_min": 50, "iso_max": 3200, "flip_screen_width_m": 0.14 }),
            );
            own(
                "selfie-lens",
                json!({ "kind": "lens", "label": "Selfie lens", "focal_min_mm": 3.1, "focal_max_mm": 3.1, "f_number_at_min": 2.2,
                    "f_number_at_max": 2.2, "f_number_limit": 2.2, "nearest_focus_m": 0.25, "built_into": "selfie" }),
            );
        }
        match screen {
            Some("script") => kit.push(("/brief/recording/script_words".into(), json!(500))),
            Some(screen) => kit.push(("/brief/schools/monitor".into(), json!(screen))),
            None => {}
        }
        kit
    })
}

/// Briefs of rooms that are no plain rectangles, with the demo's gear: L-shapes, alcoves, bays, a cut-off corner;
/// under slopes and beams, with two doors.
pub fn any_shape() -> impl Strategy<Value = Value> {
    let sides = (2.7f64..5.0, 2.9f64..5.0, 2.25f64..2.9);
    let slope = prop::option::of((0.6f64..1.7, 0.5f64..1.8, 0usize..4));
    let beam = prop::option::of((0.1f64..0.35, 0.2f64..0.8));
    let person = (1.5f64..1.95, any::<bool>(), any::<bool>());
    (0usize..4, sides, slope, beam, person).prop_map(|(shape, (w, d, h), slope, beam, (stature, seated, desk))| {
        let round = |v: f64| (v * 100.0).round() / 100.0;
        let (w, d, h) = (round(w), round(d), round(h));
        let part = |of: f64, by: f64| round(of * by);
        let floor = match shape {
            0 => json!([[0, 0], [w, 0], [w, part(d, 0.6)], [part(w, 0.55), part(d, 0.6)], [part(w, 0.55), d], [0, d]]),
            1 => json!([[0, 0.6], [part(w, 0.2), 0.6], [part(w, 0.2), 0], [part(w, 0.8), 0], [part(w, 0.8), 0.6], [w, 0.6], [w, d], [0, d]]),
            2 => json!([[0, 0], [w, 0], [w, part(d, 0.8)], [part(w, 0.7), part(d, 0.8)], [part(w, 0.6), d], [part(w, 0.4), d], [part(w, 0.3), part(d, 0.8)], [0, part(d, 0.8)]]),
            _ => json!([[0, 0], [w, 0], [w, part(d, 0.7)], [part(w, 0.7), d], [0, d]]),
        };
        let walls = floor.as_array().map_or(4, Vec::len);
        let mut brief = box_room();
        set(&mut brief, "/brief/room/floor_m", floor);
        set(&mut brief, "/brief/room/height_m", json!(h));
        set(&mut brief, "/brief/room/openings", json!({
            "door": { "kind": "door", "wall": walls - 1, "from_m": 0.1, "width_m": 0.8, "swing": "in-left" },
            "door-2": { "kind": "door", "wall": walls - 1, "from_m": 1.2, "width_m": 0.7, "swing": "in-right" },
        }));
        if let Some((knee, run, wall)) = slope {
            set(&mut brief, "/brief/room/slopes", json!({ "slope": { "wall": wall, "knee_m": round(knee), "run_m": round(run) } }));
        }
        if let Some((drop, at)) = beam {
            let y = part(d, at);
            set(&mut brief, "/brief/room/beams", json!({ "beam": { "from_m": [0, y], "to_m": [w, y], "width_m": 0.2, "drop_m": round(drop) } }));
        }
        let desk_piece = json!({ "kind": "desk", "position_m": [part(w, 0.4), part(d, 0.4), 0], "size_m": [1.0, 0.5, 0.74] });
        set(&mut brief, "/brief/room/furniture", if desk { json!({ "desk": desk_piece }) } else { json!({}) });
        set(&mut brief, "/brief/person", json!({
            "stature_m": round(stature),
            "posture": if seated || desk { "seated" } else { "standing" },
            "seat_at": if desk { json!("desk") } else { Value::Null },
        }));
        brief
    })
}
