//! Laws that hold in any room: what a user would notice if they did not.

use fogon_core::assess::{evaluate, without_moves};
use fogon_core::corner::Corner;
use fogon_core::finding::Rule;
use fogon_core::finding::Severity;
use fogon_core::plan::{Plan, apply};
use fogon_core::reading::Standing;
use fogon_testkit::{any_brief, any_kit, any_shape, assert_close, box_room, set};
use proptest::prelude::*;
use serde_json::{Value, json};

use crate::support::{best, brief, proposed, value};

fn no_bad_number(value: &Value) {
    match value {
        Value::Number(n) => assert!(n.as_f64().is_some_and(f64::is_finite)),
        Value::Array(list) => list.iter().for_each(no_bad_number),
        Value::Object(map) => map.values().for_each(no_bad_number),
        _ => {}
    }
}

fn proposals_are_legal(document: &Value) -> Vec<Plan> {
    let found = proposed(&brief(document));
    assert_eq!(found.proposals.is_empty(), !found.obstacles.is_empty());
    for obstacle in &found.obstacles {
        assert!(!obstacle.sentence.is_empty() && !obstacle.frees.is_empty());
    }
    for proposal in &found.proposals {
        proposal.plan.check().unwrap();
        let text = serde_json::to_vec(&proposal.plan).unwrap();
        assert_eq!(&Plan::read(&text).unwrap(), &proposal.plan);
        crate::by_hand::assert_legal(&serde_json::to_value(&proposal.plan).unwrap());
        let judged = without_moves(&proposal.plan);
        let stops: Vec<_> = judged.findings.iter().filter(|f| f.severity == Severity::Stop).collect();
        assert!(stops.is_empty(), "{stops:?}");
        no_bad_number(&serde_json::to_value(&judged).unwrap());
        no_bad_number(&serde_json::to_value(fogon_core::card::card(&proposal.plan)).unwrap());
    }
    found.proposals.into_iter().map(|proposal| proposal.plan).collect()
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 5, max_shrink_iters: 40, ..ProptestConfig::default() })]

    /// Every proposal is legal; where there is none, a rule is named with a remedy. Nothing is ever NaN.
    #[test]
    fn proposals_are_legal_in_random_rooms(document in any_brief()) {
        proposals_are_legal(&document);
    }

    /// Nor does a camera, a person or a stand ever stand inside something round a corner, under a slope or a beam.
    #[test]
    fn proposals_are_legal_in_rooms_of_any_shape(document in any_shape()) {
        proposals_are_legal(&document);
    }

    /// Nor with any rig, screen, backdrop and a second camera; and the same gear gives the same answer.
    #[test]
    fn proposals_are_legal_with_any_kit(document in any_brief(), kit in any_kit()) {
        let mut document = document;
        for (at, thing) in kit {
            set(&mut document, &at, thing);
        }
        // A camera only carries a lens that fits it.
        for plan in proposals_are_legal(&document) {
            let camera = &plan.layout.camera;
            prop_assert_eq!(camera.body.0 == "selfie", camera.lens.0 == "selfie-lens");
        }
    }

    /// The chart of any corner that was laid out: the room ends it no nearer than the camera stands, and where nothing is
    /// said to keep a focal length away, the camera fits there.
    #[test]
    fn the_chart_agrees_with_the_rules(document in any_shape()) {
        let Some(first) = proposed(&brief(&document)).proposals.into_iter().next() else { return Ok(()) };
        let corner = Corner::of(&first.plan).unwrap();
        let chart = fogon_core::shot::chart::chart(&corner);
        if !chart.now.frames {
            // Told as wider or tighter: no lens at hand reaches the shot in such a room.
            prop_assert!(without_moves(&first.plan).findings.iter().any(|f| f.id == "shot.frame.height_error_percent"));
            return Ok(());
        }
        prop_assert!(chart.room_m > chart.now.distance_m - 0.02, "{} {}", chart.room_m, chart.now.distance_m);
        prop_assert!(chart.along.windows(2).all(|s| s[0].focal_length_mm < s[1].focal_length_mm));
        for take in chart.takes.iter().filter(|take| take.kept_by.is_none()) {
            let mut by: fogon_core::hand::Move = serde_json::from_value(json!({ "thing": "camera", "grip": "shot" })).unwrap();
            by.focal_length_mm = Some(take.station.focal_length_mm);
            by.anyway = true;
            let plan = fogon_core::hand::moved(&first.plan, &by).unwrap().plan;
            let out = without_moves(&plan).findings.into_iter().find(|f| f.id == "legal.camera.camera");
            // To the centimetre: the camera's place is rounded, and the chart looks along one line.
            let lacking = out.and_then(|f| f.evidence.first().and_then(|e| e.value)).unwrap_or(0.0);
            prop_assert!(lacking < 0.02, "{} mm lacks {}", take.station.focal_length_mm, lacking);
        }
    }

    /// Whatever is spoilt, every offered fix removes its finding and adds no stop and no fix.
    #[test]
    fn offered_fixes_hold(
        iso in 50.0f64..6400.0, focal in 16.0f64..50.0, tilt in -12.0f64..12.0, key in (0.2f64..3.2, 0.2f64..2.7, 0.9f64..2.2),
        microphone in (0.3f64..3.1, 0.3f64..2.6, 1.0f64..2.2),
    ) {
        let mut plan = best(&box_room());
        plan.layout.camera.iso = iso;
        plan.layout.camera.focal_length_mm = focal;
        plan.layout.camera.tilt_deg = tilt;
        if let Some(light) = plan.layout.lights.get_mut("key") {
            light.position_m = fogon_core::plan::Point3([key.0, key.1, key.2]);
            light.support.base_m = None;
        }
        if let Some(used) = plan.layout.microphone.as_mut() {
            used.position_m = fogon_core::plan::Point3([microphone.0, microphone.1, microphone.2]);
        }
        let before = evaluate(&plan);
        let blocking = |findings: &[fogon_core::finding::Finding]| -> Vec<String> {
            findings.iter().filter(|f| f.severity != Severity::Consider).map(|f| f.id.to_string()).collect()
        };
        let had = blocking(&before.findings);
        for finding in &before.findings {
            prop_assert!(finding.fix.is_some() || !finding.advice.is_empty(), "{} says nothing to do", finding.id);
            let Some(fix) = &finding.fix else { continue };
            let after = without_moves(&apply(&plan, &fix.patch).unwrap());
            prop_assert!(after.findings.iter().all(|f| f.id != finding.id), "{} is still there", finding.id);
            prop_assert!(blocking(&after.findings).iter().all(|id| had.contains(id)));
        }
    }
}

#[test]
fn nearer_is_brighter_and_louder() {
    let plan = best(&box_room());
    let corner = Corner::of(&plan).unwrap();
    let eyes = corner.eyes_m;
    let key: fogon_core::geometry::DVec3 = plan.layout.lights["key"].position_m.into();
    let capsule: fogon_core::geometry::DVec3 = plan.layout.microphone.as_ref().unwrap().position_m.into();
    let mouth = corner.mouth_m;
    let (mut light, mut level) = (f64::INFINITY, f64::INFINITY);
    for part in [0.8, 1.0, 1.3, 1.7, 2.2] {
        let mut moved = plan.clone();
        moved.layout.lights.get_mut("key").unwrap().position_m = (eyes + (key - eyes) * part).into();
        moved.layout.microphone.as_mut().unwrap().position_m = (mouth + (capsule - mouth) * part).into();
        let now = (
            value(&moved, "light.face.illuminance_lx"),
            value(&moved, "sound.microphone.gain_over_camera_db"),
        );
        assert!(now.0 < light && now.1 < level, "at {part}");
        (light, level) = now;
    }
}

/// The same tape in feet and inches is the same corner, but for the mains that follow the unit system.
#[test]
fn metric_and_imperial_agree() {
    let metric = best(&box_room());
    let mut document = box_room();
    set(&mut document, "/brief/units", json!("imperial"));
    let imperial = best(&document);
    assert_eq!(metric.layout, imperial.layout);
    let card = fogon_core::card::card(&imperial).unwrap();
    assert!(card.room.starts_with("11' 1\u{be}\" \u{d7} 9' 6\u{bc}\""), "{}", card.room);
    set(&mut document, "/brief/room/mains", json!({}));
    let assumed = best(&document);
    assert_eq!(assumed.layout.camera.frame_rate_hz, 30.0);
    assert_close(assumed.layout.camera.shutter_s, 1.0 / 60.0, 1e-12, 0.0, "shutter");
}

#[test]
fn measured_values_stand_in_place_of_computed_ones() {
    let mut document = box_room();
    set(
        &mut document,
        "/brief/measured",
        json!({ "sound.room.rt_mid_s": 0.31, "person.eye.height_m": 1.19 }),
    );
    let plan = best(&document);
    let readings = without_moves(&plan).readings;
    let room = readings.iter().find(|r| r.id == "sound.room.rt_mid_s").unwrap();
    assert_eq!((room.value, room.from), (Some(0.31), fogon_core::reading::Origin::Measured));
    assert_close(plan.layout.camera.position_m.0[2], 1.19, 0.0, 0.005, "lens at the measured eye height");
}

/// Surfaces unknown: 0.5 s and said to be assumed. Surfaces known: Eyring of what they are.
#[test]
fn reverberation_is_assumed_until_the_surfaces_are_known() {
    let mut document = box_room();
    let unknown = best(&document);
    assert_close(value(&unknown, "sound.room.rt_mid_s"), 0.5, 0.05, 0.0, "unknown room");
    let hard: Value = ["wall-0", "wall-1", "wall-2", "wall-3", "floor", "ceiling"]
        .iter()
        .map(|s| (s.to_string(), json!({ "material": "tile" })))
        .collect::<serde_json::Map<_, _>>()
        .into();
    set(&mut document, "/brief/room/surfaces", hard);
    let tiled = best(&document);
    assert!(value(&tiled, "sound.room.rt_mid_s") > 1.0);
    let findings = without_moves(&tiled).findings;
    assert!(
        findings.iter().any(|f| f.id == "sound.room.rt_mid_s" && f.severity == Severity::Fix),
        "told, words blur"
    );
    let told = without_moves(&unknown).findings.into_iter().find(|f| f.id == "sound.room.rt_mid_s").unwrap();
    assert_eq!(told.severity, Severity::Consider, "assumed, it is told as a range");
    assert!(told.sentence.contains("0.4 to 0.8 s"), "{}", told.sentence);
}

/// A cupboard of a room: the answer says what forbids it, by how much, and what would free it.
#[test]
fn nothing_fits_says_why() {
    let mut document = box_room();
    set(&mut document, "/brief/room/floor_m", json!([[0, 0], [1.2, 0], [1.2, 1.3], [0, 1.3]]));
    set(&mut document, "/brief/room/furniture", json!({}));
    set(&mut document, "/brief/person/seat_at", Value::Null);
    set(&mut document, "/brief/room/openings", json!({}));
    let found = proposed(&brief(&document));
    assert!(found.proposals.is_empty());
    assert!(found.obstacles.iter().any(|o| o.lacking > 0.0), "{:?}", found.obstacles);
    set(&mut document, "/brief/gear", json!({}));
    let bare = proposed(&brief(&document));
    assert!(bare.obstacles.iter().all(|o| o.rule == Rule::Gear) && bare.obstacles.len() == 2);
}

/// The camera level and the eyes just beside the lens for an audition; shoulders inside a vertical short.
#[test]
fn purposes_set_shot_and_gaze() {
    let mut document = box_room();
    set(&mut document, "/brief/purpose", json!("audition-tape"));
    let audition = best(&document);
    assert_eq!(audition.layout.camera.tilt_deg, 0.0);
    assert!((5.0..=12.0).contains(&audition.layout.seat.gaze_offset_deg.abs()));
    set(&mut document, "/brief/purpose", json!("vertical-short"));
    let vertical = best(&document);
    assert!(value(&vertical, "shot.frame.shoulder_fraction") <= 0.9 + 1e-3);
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 3, max_shrink_iters: 10, ..ProptestConfig::default() })]

    /// In any corner that is found, with any rig, screen and backdrop: an id stands once, every finding has a sentence, what
    /// stands in the way has a remedy, the verdict says what the findings say, and every reading that a band judges has a score
    /// between 0 and 1 that fits its standing.
    #[test]
    fn a_judgement_agrees_with_itself(document in any_brief(), kit in any_kit()) {
        let mut document = document;
        kit.into_iter().for_each(|(pointer, value)| set(&mut document, &pointer, value));
        for proposal in proposed(&brief(&document)).proposals {
            let judged = evaluate(&proposal.plan);
            let mut ids: Vec<String> = judged.findings.iter().map(|f| f.id.to_string()).collect();
            let count = ids.len();
            ids.sort();
            ids.dedup();
            prop_assert_eq!(ids.len(), count, "an id twice");
            let blocking = judged.findings.iter().filter(|f| f.severity != Severity::Consider).count();
            prop_assert_eq!(judged.verdict.ready, blocking == 0);
            prop_assert_eq!(proposal.ready, judged.verdict.ready);
            prop_assert!((proposal.score - judged.score).abs() < 1e-9);
            for finding in &judged.findings {
                prop_assert!(finding.sentence.len() > 15 && !finding.reason.is_empty() && !finding.source.is_empty(), "{:?}", finding);
                let has_remedy = finding.fix.is_some() || !finding.advice.is_empty();
                prop_assert!(has_remedy, "no remedy: {}", finding.sentence);
            }
            let mut names: Vec<String> = judged.readings.iter().map(|r| r.id.to_string()).collect();
            let count = names.len();
            names.sort();
            names.dedup();
            prop_assert_eq!(names.len(), count, "a reading twice");
            for reading in &judged.readings {
                match (reading.band, reading.score) {
                    (Some(_), Some(score)) => {
                        prop_assert!((0.0..=1.0).contains(&score));
                        // A role that nothing fills counts as nothing, whatever is read there.
                        let is_unfilled = score == 0.0 && (reading.value.is_none() || ids.iter().any(|id| id.ends_with(".missing")));
                        prop_assert!(is_unfilled || (score > 1.0 - 1e-9) == (reading.standing == Standing::Good), "{:?}", reading);
                    }
                    (None, score) => prop_assert!(score.is_none() && reading.standing == Standing::Plain, "{reading:?}"),
                    (Some(_), None) => prop_assert!(reading.value.is_none(), "{}", reading.id),
                }
                prop_assert!(!reading.label.is_empty());
                prop_assert!(reading.measured_range.is_none() == reading.id.quantity.measurable().is_none());
            }
        }
    }

    /// A mirrored room gives the mirrored layout: left and right are treated alike.
    #[test]
    fn mirrored_rooms_give_mirrored_layouts(shift in 0.2f64..1.4, desk in any::<bool>()) {
        let mut document = box_room();
        set(&mut document, "/brief/room/furniture", if desk {
            json!({ "desk": { "kind": "desk", "position_m": [1.7, 2.5, 0], "size_m": [1.2, 0.6, 0.74] } })
        } else { json!({}) });
        set(&mut document, "/brief/person/seat_at", if desk { json!("desk") } else { Value::Null });
        let openings = |mirrored: bool| json!({
            "window": { "kind": "window", "wall": if mirrored { 1 } else { 3 }, "from_m": if mirrored { shift } else { 2.9 - shift - 1.2 }, "width_m": 1.2 },
            "door": { "kind": "door", "wall": if mirrored { 3 } else { 1 }, "from_m": if mirrored { 2.0 } else { 0.1 }, "width_m": 0.8, "swing": "sliding" },
        });
        set(&mut document, "/brief/room/openings", openings(false));
        let one = best(&document);
        set(&mut document, "/brief/room/openings", openings(true));
        let other = best(&document);
        let mirrored = |what: &str, a: &[f64], b: &[f64]| {
            assert_close(a[0], 3.4 - b[0], 0.0, 0.002, what);
            a[1..].iter().zip(&b[1..]).for_each(|(a, b)| assert_close(*a, *b, 0.0, 0.002, what));
        };
        mirrored("seat", &one.layout.seat.position_m.0, &other.layout.seat.position_m.0);
        mirrored("camera", &one.layout.camera.position_m.0, &other.layout.camera.position_m.0);
        prop_assert!(one.layout.lights.keys().eq(other.layout.lights.keys()));
        for (id, light) in &one.layout.lights {
            mirrored(&id.0, &light.position_m.0, &other.layout.lights[id].position_m.0);
        }
        let microphone = |plan: &Plan| plan.layout.microphone.as_ref().map(|m| m.position_m.0);
        mirrored("microphone", &microphone(&one).unwrap(), &microphone(&other).unwrap());
        let (a, b) = (without_moves(&one).score, without_moves(&other).score);
        assert_close(a, b, 0.0, 1e-6, "score");
    }
}
