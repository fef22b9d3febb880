//! The set-up card: everything on it follows from the plan, and a person with one tape can use it.

use fogon_core::card::{Card, card};
use fogon_core::plan::Plan;
use fogon_testkit::{assert_close, box_room, set};
use serde_json::{Value, json};

use crate::support::{best, demo, plain_with, value};

fn of(plan: &Plan) -> Card {
    card(plan).unwrap()
}

fn setting(card: &Card, name: &str) -> String {
    card.settings.iter().find(|s| s.name == name).unwrap_or_else(|| panic!("no {name}")).value.clone()
}

#[test]
fn marks_stand_in_the_order_they_are_laid_and_where_the_plan_says() {
    let plan = demo();
    let card = of(&plan);
    let letters: Vec<&str> = card.marks.iter().map(|m| m.letter.as_str()).collect();
    assert_eq!(letters, ["S", "C", "K", "B", "M"]);
    assert!(card.marks.iter().zip(1..).all(|(m, n)| m.number == n));
    assert_eq!(card.marks[0].at_m, plan.layout.seat.position_m.0);
    let camera = plan.layout.camera.position_m.0;
    assert_eq!(card.marks[1].at_m, [camera[0], camera[1]]);
    let foot = plan.layout.microphone.as_ref().unwrap().support.base_m.unwrap().0;
    assert_eq!(card.marks[4].at_m, foot, "an arm is marked by its foot");
    for mark in &card.marks {
        let [x, y] = mark.at_m;
        assert_close(mark.tape.from_left_m, x, 1e-12, 0.0, &mark.letter);
        assert_close(mark.tape.from_back_m, y, 1e-12, 0.0, &mark.letter);
        let corners = [("a", [0.0, 0.0]), ("b", [3.4, 0.0]), ("c", [3.4, 2.9]), ("d", [0.0, 2.9])];
        for from in &mark.tape.corners {
            let [cx, cy] = corners.iter().find(|(letter, _)| *letter == from.corner).unwrap().1;
            assert_close(from.length_m, (x - cx).hypot(y - cy), 1e-12, 0.0, &mark.letter);
        }
    }
    assert!(card.marks[0].set.starts_with(&format!("eyes {:.2} m", value(&plan, "person.eye.height_m"))));
    assert!(card.marks[0].set.ends_with("chest towards C"));
}

#[test]
fn settings_and_dials_are_the_plans() {
    let plan = plain_with(&[
        ("/layout/camera/nd_stops", json!(1.5)),
        ("/layout/lights/key/dim", json!(0.4)),
        ("/layout/lights/key/cct_k", json!(5600)),
    ]);
    let card = of(&plan);
    assert_eq!(setting(&card, "Shutter"), "1/50 s");
    assert_eq!(setting(&card, "Aperture"), "f/4");
    assert_eq!(setting(&card, "ISO"), "250");
    assert_eq!(setting(&card, "Focal length"), "40 mm (40 mm in full-frame terms)");
    assert_eq!(setting(&card, "Frame rate"), "25 per second");
    assert_eq!(setting(&card, "Neutral density"), "1.5 stops");
    assert!(setting(&card, "White balance").starts_with("5600 K"));
    // u + v = f (2 + m + 1/m): 1.5 m and 41 mm.
    assert_eq!(setting(&card, "Focus"), "on the eyes, 1.50 m from the lens, 1.54 m on the focus scale");
    let key = &card.dials[0];
    assert_eq!((key.letter.as_str(), key.percent, key.cct_k), ("K", Some(40.0), Some(5600.0)));
    assert!(key.place.starts_with("45\u{b0} camera right, "), "{}", key.place);
    assert_eq!(setting(&of(&plain_with(&[])), "Held"), "landscape");
    assert!(of(&plain_with(&[])).settings.iter().all(|s| s.name != "Neutral density"));
}

/// Left and right are the camera's: the same key on the other side.
#[test]
fn sides_are_the_cameras() {
    let left = plain_with(&[
        ("/layout/lights/key/position_m", json!([2.9, 2.4, 1.9])),
        ("/layout/microphone/support/base_m", json!([1.1, 1.5])),
    ]);
    assert!(of(&left).dials[0].place.starts_with("45\u{b0} camera left, "), "{}", of(&left).dials[0].place);
    let mut document = box_room();
    set(&mut document, "/brief/purpose", json!("audition-tape"));
    let audition = best(&document);
    let side = if audition.layout.seat.gaze_offset_deg > 0.0 { "right" } else { "left" };
    assert!(of(&audition).marks[0].set.ends_with(&format!("chest 8\u{b0} camera {side} of C")));
}

#[test]
fn feet_and_inches_to_the_quarter_inch() {
    let mut plan = demo();
    plan.brief.units = fogon_core::units::UnitSystem::Imperial;
    let card = of(&plan);
    assert_eq!(card.room, "11' 1\u{be}\" \u{d7} 9' 6\u{bc}\" \u{d7} 8' \u{bd}\"");
    for mark in &card.marks {
        let text = card.units.mark(mark.tape.from_left_m);
        let metres = inches(&text) * 0.0254;
        assert!(
            (metres - mark.tape.from_left_m).abs() <= 0.125 * 0.0254 + 1e-9,
            "{text} for {}",
            mark.tape.from_left_m
        );
    }
    assert!(card.marks.iter().all(|m| !m.set.contains(" m,") && !m.set.contains(" cm")), "no metric length");
}

/// Reads `9' 6 1/4"` as the card writes it.
fn inches(text: &str) -> f64 {
    let (feet, rest) = text.split_once("' ").map_or((0.0, text), |(f, r)| (f.parse().unwrap(), r));
    let rest = rest.trim_end_matches('"');
    let quarter = [('\u{bc}', 0.25), ('\u{bd}', 0.5), ('\u{be}', 0.75)]
        .into_iter()
        .find(|(glyph, _)| rest.ends_with(*glyph))
        .map_or(0.0, |(_, part)| part);
    let whole: f64 = rest.trim_end_matches(['\u{bc}', '\u{bd}', '\u{be}']).parse().unwrap_or(0.0);
    feet * 12.0 + whole + quarter
}

#[test]
fn what_to_check_and_heed_follows_the_corner() {
    let usual = of(&plain_with(&[]));
    assert!(
        usual.before.iter().any(|b| b.contains("stand-in"))
            && usual.before.iter().all(|b| !b.contains("glasses"))
    );
    assert!(usual.before.iter().any(|b| b.contains("turned down")), "headphones are turned down first");
    let tracked = of(&plain_with(&[
        ("/brief/person/face_tracking", json!(true)),
        ("/brief/gear/body/face_tracking", json!(true)),
        ("/brief/person/glasses", json!(true)),
    ]));
    assert!(
        tracked.before.iter().any(|b| b.contains("Face tracking"))
            && tracked.before.iter().any(|b| b.contains("glasses"))
    );
    assert!(usual.cautions.iter().any(|c| c.contains("Local electrical codes")));
    let dimmed = of(&plain_with(&[("/layout/lights/key/dim", json!(0.5))]));
    assert!(
        dimmed.cautions.iter().any(|c| c.contains("flicker"))
            && usual.cautions.iter().all(|c| !c.contains("flicker"))
    );
    let overload = of(&plain_with(&[
        ("/brief/gear/lamp/power_w", json!(2000)),
        ("/brief/room/mains/breaker_a", json!(6)),
    ]));
    assert!(overload.verdict.starts_with("Not ready") && overload.cautions.len() > usual.cautions.len());
}

/// Nothing is told of lamps, bags, a microphone or a window that are not there (Fogon's own rule).
#[test]
fn what_is_not_there_is_not_told() {
    let bare = of(&plain_with(&[
        ("/layout/lights", json!({})),
        ("/layout/microphone", Value::Null),
        ("/layout/camera/support/sandbag_kg", json!(0.0)),
        ("/brief/room/openings", json!({})),
    ]));
    assert_eq!(bare.aims, None);
    let told = bare.before.join(" ");
    assert!(!told.contains("plugged in") && !told.to_lowercase().contains("window"), "{told}");
    // Nothing else lights it: what the plan counts on stays on.
    assert!(told.contains("Ceiling light on, phone and fridge silent."), "{told}");
    let window = json!({ "window": { "kind": "window", "wall": 2, "from_m": 0.5, "width_m": 1.0, "sill_m": 0.9, "height_m": 1.2 } });
    let lit = of(&plain_with(&[
        ("/brief/room/openings", window),
        ("/layout/lights/key/support/sandbag_kg", json!(4.0)),
    ]));
    let aims = lit.aims.unwrap();
    assert!(
        aims.starts_with("Lamps that light you are aimed at the eyes") && aims.contains("sandbags"),
        "{aims}"
    );
    assert!(lit.before.iter().any(|b| b.contains("window covered")), "{:?}", lit.before);
}

/// What nobody gave is listed as assumed; what was given is not.
#[test]
fn assumptions_are_owned_up_to() {
    let bare = of(&plain_with(&[]));
    for word in ["mains", "breaker", "lean", "reflectance", "absorption"] {
        assert!(bare.assumed.iter().any(|a| a.contains(word)), "{word} in {:?}", bare.assumed);
    }
    let told = of(&plain_with(&[
        ("/brief/person/lean_m", json!(0.03)),
        ("/brief/room/mains", json!({ "voltage_v": 230, "frequency_hz": 50, "breaker_a": 16 })),
    ]));
    assert!(
        told.assumed.iter().all(|a| !a.contains("lean") && !a.contains("mains") && !a.contains("breaker")),
        "{:?}",
        told.assumed
    );
}

/// A worn microphone has no mark; without one the card says so.
#[test]
fn the_microphone_has_a_mark_only_where_it_stands() {
    let worn = plain_with(&[
        ("/brief/gear/voice/mounting", json!("lavalier")),
        ("/layout/microphone/position_m", json!([2, 1.54, 0.95])),
        ("/layout/microphone/support", json!({ "kind": "on" })),
    ]);
    assert!(of(&worn).marks.iter().all(|m| m.letter != "M") && of(&worn).microphone.contains("worn"));
    let none = plain_with(&[("/layout/microphone", Value::Null)]);
    assert!(of(&none).microphone.starts_with("The camera's own microphone, 1."), "{}", of(&none).microphone);
}

/// A picture that is cut out of a wider recording says so, and how much of it is kept: 3840 / 1.5 = 2560.
#[test]
fn a_crop_is_told_beside_the_focal_length() {
    let told =
        |plan: &Plan| of(plan).settings.into_iter().find(|s| s.name == "Cut in the edit").map(|s| s.value);
    assert_eq!(told(&plain_with(&[])), None);
    let cropped = plain_with(&[("/layout/camera/crop", json!(1.5))]);
    assert_eq!(told(&cropped).as_deref(), Some("the middle 2560 of 3840 pixels across"));
}

/// A screen on a stand, a backdrop and a second angle have marks of their own, after the rest; what hangs on the camera
/// has none, for it goes where the camera goes.
#[test]
fn screens_backdrops_and_angles_are_marked() {
    let support =
        |kind: &str| json!({ "kind": kind, "gear": "stand", "base_m": [3.2, 4.4], "sandbag_kg": 20 });
    let edits = |screen: Value| {
        plain_with(&[
            (
                "/brief/gear/monitor",
                json!({ "kind": "monitor", "label": "Monitor", "mass_kg": 0.5, "screen": "television" }),
            ),
            (
                "/brief/gear/cloth",
                json!({ "kind": "backdrop", "label": "cloth", "mass_kg": 2, "backdrop": "cloth", "width_m": 2.0, "height_m": 2.0 }),
            ),
            ("/layout/screen", screen),
            (
                "/layout/backdrop",
                json!({ "gear": "cloth", "position_m": [2.0, 0.3], "bearing_deg": 0, "hung": "ceiling" }),
            ),
            (
                "/layout/angles",
                json!({ "side-angle": { "body": "body", "lens": "lens", "position_m": [3.5, 2.6, 1.3], "aim_m": [2.0, 1.5, 1.25],
                    "focal_length_mm": 35, "support": { "kind": "floor", "gear": "tripod", "base_m": [3.5, 2.6] } } }),
            ),
        ])
    };
    let standing =
        of(&edits(json!({ "gear": "monitor", "position_m": [3.2, 4.4, 1.0], "support": support("floor") })));
    let letters: Vec<&str> = standing.marks.iter().map(|m| m.letter.as_str()).collect();
    assert_eq!(letters, ["S", "C", "K", "M", "D", "H", "2"]);
    let mark = |letter: &str| standing.marks.iter().find(|m| m.letter == letter).unwrap();
    assert_eq!(mark("2").at_m, [3.5, 2.6]);
    assert_eq!(mark("H").at_m, [2.0, 0.3]);
    assert!(mark("H").set.starts_with("1.20 m behind"), "{}", mark("H").set);
    assert_eq!(mark("D").at_m, [3.2, 4.4]);
    let hung =
        of(&edits(json!({ "gear": "monitor", "position_m": [2.0, 3.0, 1.1], "support": { "kind": "on" } })));
    assert!(hung.marks.iter().all(|m| m.letter != "D"));
    // The background is the cloth, 1.2 m behind the eyes, not the wall at 1.5 m.
    let plan = edits(Value::Null);
    assert_close(value(&plan, "room.background_behind_m"), 1.2, 1e-9, 0.0, "to the cloth");
    // 2 m of cloth against the framed width there: 36 x (1500 - 40) / 40 mm at the eyes, 2.7 / 1.5 times as much.
    let margin = (2.0 - 1.314 * 2.7 / 1.5) / 2.0;
    assert_close(value(&plan, "shot.background.backdrop_margin_m"), margin, 1e-6, 0.0, "beyond the picture");
}
