//! The search: facings, refusals, order, determinism, and the reasons it gives.

use std::sync::atomic::Ordering::Relaxed;

use fogon_core::arrange::{Differs, Stop, propose, propose_until, why};
use fogon_core::assess::{Quick, quick, without_moves};
use fogon_core::finding::Rule;
use fogon_core::plan::Plan;
use fogon_testkit::{any_brief, box_room, set};
use proptest::prelude::*;
use serde_json::{Value, json};

use crate::support::{best, brief, demo, proposed, value};

fn rank(plan: &Plan) -> (usize, usize, f64) {
    let Quick { stops, fixes, score, .. } = quick(&plan.brief, &plan.layout);
    (stops, fixes, -score)
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 4, max_shrink_iters: 20, ..ProptestConfig::default() })]

    /// The same brief gives the same answer; the best comes first, whatever makes the others differ.
    #[test]
    fn answers_are_repeatable_ordered_and_different(document in any_brief()) {
        let file = brief(&document);
        let (one, again) = (proposed(&file), propose(&file.name, &file.brief));
        prop_assert_eq!(&one, &again);
        prop_assert!(one.proposals.len() <= 3);
        for pair in one.proposals.windows(2) {
            let (a, b) = (rank(&pair[0].plan), rank(&pair[1].plan));
            prop_assert!((a.0, a.1) < (b.0, b.1) || ((a.0, a.1) == (b.0, b.1) && a.2 <= b.2 + 2e-6), "{:?} {:?}", a, b);
        }
        let bests = one.proposals.iter().filter(|proposal| proposal.differs == Differs::Best).count();
        prop_assert_eq!(bests, usize::from(!one.proposals.is_empty()));
        for (index, proposal) in one.proposals.iter().enumerate() {
            prop_assert!(proposal.reason.ends_with('.'));
            prop_assert_eq!(proposal.plan.brief != file.brief, proposal.differs == Differs::Rig);
            prop_assert!(index == 0 || proposal.plan.layout != one.proposals[0].plan.layout);
        }
    }
}

/// In a long narrow room the person sits along it, whichever way it lies.
#[test]
fn depth_is_found_where_the_room_has_it() {
    for (width, depth, along) in [(1.9, 4.6, [0.0, 180.0]), (4.6, 1.9, [90.0, 270.0])] {
        let mut document = box_room();
        set(&mut document, "/brief/room/floor_m", json!([[0, 0], [width, 0], [width, depth], [0, depth]]));
        set(&mut document, "/brief/room/openings", json!({}));
        set(&mut document, "/brief/room/furniture", json!({}));
        set(&mut document, "/brief/person/seat_at", Value::Null);
        let plan = best(&document);
        let off = along.map(|a: f64| ((plan.layout.camera.bearing_deg - a + 540.0) % 360.0 - 180.0).abs());
        assert!(off.iter().any(|o| *o < 46.0), "{width} x {depth}: {}", plan.layout.camera.bearing_deg);
        assert!(value(&plan, "room.background_behind_m") >= 1.0);
    }
}

/// A desk that cannot be moved is sat at where it stands, facing across it.
#[test]
fn a_fixed_desk_decides_the_facing() {
    let mut document = box_room();
    set(&mut document, "/brief/room/floor_m", json!([[0, 0], [4, 0], [4, 4], [0, 4]]));
    set(&mut document, "/brief/room/openings", json!({}));
    set(
        &mut document,
        "/brief/room/furniture",
        json!({
            "desk": { "kind": "desk", "position_m": [2, 2, 0], "bearing_deg": 180, "size_m": [1.2, 0.6, 0.74], "fixed": true }
        }),
    );
    let plan = best(&document);
    let [x, y] = plan.layout.seat.position_m.0;
    assert!((x - 2.0).abs() <= 0.351 && ((y - 1.58).abs() < 0.02 || (y - 2.42).abs() < 0.02), "{x} {y}");
    let bearing = plan.layout.seat.bearing_deg;
    assert!(bearing < 1.0 || (bearing - 180.0).abs() < 1.0 || bearing > 359.0, "{bearing}");
    assert!(plan.layout.furniture.is_empty(), "the desk stays");
    // At the wall the camera stands on the desk, with a wide lens; with a long one nothing fits, and the answer says what
    // would free it.
    set(&mut document, "/brief/room/furniture/desk/position_m", json!([2, 3.69, 0]));
    assert_eq!(best(&document).layout.camera.support.on.unwrap().0, "desk");
    for end in ["min", "max"] {
        set(&mut document, &format!("/brief/gear/zoom/focal_{end}_mm"), json!(85));
    }
    let found = propose("Desk", &brief(&document).brief);
    assert!(found.proposals.is_empty());
    assert!(
        found.obstacles.iter().any(|o| o.frees.contains("desk as free to move")),
        "{:?}",
        found.obstacles
    );
    set(&mut document, "/brief/room/furniture/desk/fixed", json!(false));
    assert!(!best(&document).layout.furniture.is_empty(), "then it is moved along");
}

/// A search that is to be left ends at the next candidate and gives no answer; asked and never told to, it finds what it finds.
#[test]
fn a_search_can_be_left() {
    let file = brief(&box_room());
    let asked = std::sync::atomic::AtomicU32::new(0);
    let after = |most: u32| {
        asked.store(0, Relaxed);
        let stop = || asked.fetch_add(1, Relaxed) + 1 > most;
        propose_until(&file.name, &file.brief, Stop::when(&stop))
    };
    let whole = after(u32::MAX).expect("never left");
    assert_eq!(whole, propose(&file.name, &file.brief));
    let times = asked.load(Relaxed);
    assert!(times > 30, "asked {times} times");
    for most in [0, 5, times / 2] {
        assert!(after(most).is_none());
        // What is under way when it is told asks a few times more on its way out, and looks at no further candidate.
        assert!(asked.load(Relaxed) < most + 25, "asked {} times after {most}", asked.load(Relaxed));
    }
}

/// The reason is the real one: with the change that is told, and not with less, the same corner is laid out.
#[test]
fn the_reason_is_what_frees_the_corner() {
    let with = |edits: &[(&str, Value)]| {
        let mut document = box_room();
        set(&mut document, "/brief/room/openings", json!({}));
        set(&mut document, "/brief/room/furniture", json!({}));
        set(&mut document, "/brief/person/seat_at", Value::Null);
        edits.iter().for_each(|(at, value)| set(&mut document, at, value.clone()));
        propose("Tight", &brief(&document).brief)
    };
    // A lens of 85 mm wants more than a room of 2 m: not the feet of a stand, but the lens.
    let small = ("/brief/room/floor_m", json!([[0, 0], [2.0, 0], [2.0, 2.0], [0, 2.0]]));
    let lens = |mm: f64| {
        [("/brief/gear/zoom/focal_min_mm", json!(mm)), ("/brief/gear/zoom/focal_max_mm", json!(mm))]
    };
    let [low, high] = lens(85.0);
    let told = with(&[small.clone(), low, high]);
    assert!(told.proposals.is_empty());
    let reason = told.obstacles.iter().find(|o| o.rule == Rule::Lens).expect("the lens is told");
    let words: Vec<&str> = reason.frees.split(' ').collect();
    let freed: f64 = words[words.iter().position(|w| *w == "mm").unwrap() - 1].parse().unwrap();
    let [low, high] = lens(freed);
    let near = ("/brief/gear/zoom/nearest_focus_m", json!(0.25));
    assert!(!with(&[small, low, high, near]).proposals.is_empty(), "{freed} mm frees it");
    // Somebody of 1.93 m who stands, a tripod that ends at 1.20 m, nothing else to stand a camera on: laid out as if there
    // were one, and told with both heights.
    let tall = ("/brief/person", json!({ "stature_m": 1.93, "posture": "standing" }));
    let tripod = |high_m: f64| ("/brief/gear/tripod/height_max_m", json!(high_m));
    let told = with(&[tall.clone(), tripod(1.2)]);
    assert!(!told.proposals[0].ready);
    let judged = without_moves(&told.proposals[0].plan);
    let missing = judged.findings.iter().find(|f| f.id == "support.camera.missing").expect("told");
    assert!(missing.sentence.contains("to 1.20 m; the camera has to be held at 1.7"), "{}", missing.sentence);
    assert!(with(&[tall, tripod(1.8)]).proposals[0].ready);
}

#[test]
fn without_gear_the_answer_says_what_is_missing() {
    for (gone, word) in [("camera", "camera"), ("zoom", "lens")] {
        let mut document = box_room();
        document["brief"]["gear"].as_object_mut().unwrap().remove(gone);
        let file = brief(&document);
        let found = propose(&file.name, &file.brief);
        assert!(found.proposals.is_empty() && found.obstacles.len() == 1, "{gone}");
        assert!(found.obstacles[0].sentence.contains(word), "{}", found.obstacles[0].sentence);
    }
    // A thing that is only wanted, or ruled out, is not used.
    for state in ["wanted", "never"] {
        let mut document = box_room();
        set(&mut document, "/brief/gear/camera/state", json!(state));
        let file = brief(&document);
        assert!(propose(&file.name, &file.brief).proposals.is_empty(), "{state}");
    }
    let mut document = box_room();
    set(&mut document, "/brief/gear/camera/state", json!("borrowed"));
    best(&document);
}

/// The key comes from the window's side, and what is said of it is true.
#[test]
fn reasons_are_true_of_the_plan() {
    let plan = demo();
    let placed = why(&plan);
    let letters: Vec<&str> = placed.iter().map(|p| p.letter).collect();
    assert!(letters.starts_with(&["S", "C", "K", "B"]) && letters.ends_with(&["M"]), "{letters:?}");
    let of = |letter: &str| placed.iter().find(|p| p.letter == letter).unwrap();
    let azimuth = value(&plan, "light.key.azimuth_deg");
    assert!(of("K").place.starts_with(&format!("{azimuth:.0} degrees camera ")), "{}", of("K").place);
    assert!(of("K").why.contains("window's side"));
    let behind = value(&plan, "room.background_behind_m");
    assert!(of("S").why.contains(&format!("{behind:.2} m to the wall behind you")), "{}", of("S").why);
    let distance = value(&plan, "sound.microphone.distance_m");
    assert!(of("M").place.starts_with(&format!("{distance:.2} m from the mouth")));
    // Walked to the axis, the key is no longer praised.
    let mut flat = plan.clone();
    let camera = flat.layout.camera.position_m.0;
    flat.layout.lights.get_mut("key").unwrap().position_m =
        fogon_core::plan::Point3([camera[0], camera[1], 2.0]);
    let said = why(&flat).into_iter().find(|p| p.letter == "K").unwrap().why;
    assert!(said.contains("would model the face better"), "{said}");
    // Without a window nothing is said of one.
    flat.brief.room.openings.clear();
    assert!(why(&flat).iter().all(|p| !p.why.contains("window")));
}

/// A search whose time is up answers with the best so far and says so: never with a reason that was not looked into.
#[test]
fn a_search_whose_time_is_up_has_an_answer() {
    let file = brief(&box_room());
    let whole = propose(&file.name, &file.brief);
    assert!(!whole.ended_early && serde_json::to_value(&whole).unwrap().get("ended_early").is_none());
    let mut found_some = false;
    for most in [0, 2, 5, 20, 60] {
        let asked = std::sync::atomic::AtomicUsize::new(0);
        let late = || asked.fetch_add(1, Relaxed) >= most;
        let found = propose_until(&file.name, &file.brief, Stop::NEVER.or_late(&late)).unwrap();
        assert!(found.ended_early && found.obstacles.is_empty(), "after {most}: {:?}", found.obstacles);
        assert!(found.proposals.iter().all(|proposal| proposal.plan.check().is_ok()));
        assert!(found.looked_at <= whole.looked_at);
        found_some |= !found.proposals.is_empty();
    }
    assert!(found_some);
    // Left by everybody it has none, late or not.
    assert!(propose_until(&file.name, &file.brief, Stop::when(&|| true).or_late(&|| true)).is_none());
}
