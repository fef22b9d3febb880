//! Every kind of finding that a move can mend: the fix is offered, says what it does, begins with tests, touches the
//! layout only, and applying it takes the finding away without bringing another that stands in the way.

use fogon_core::assess::{evaluate, without_moves};
use fogon_core::finding::Severity;
use fogon_core::plan::{Plan, apply};
use serde_json::{Value, json};

use crate::support::{demo, plain_with, read};

fn spoilt(edits: &[(&str, Value)]) -> Plan {
    let mut document = serde_json::to_value(demo()).unwrap();
    for (pointer, value) in edits {
        fogon_testkit::set(&mut document, pointer, value.clone());
    }
    read(&document)
}

fn blocking(plan: &Plan) -> Vec<String> {
    without_moves(plan)
        .findings
        .into_iter()
        .filter(|f| f.severity != Severity::Consider)
        .map(|f| f.id.to_string())
        .collect()
}

/// Applies the fix of one finding and holds it to its promise; what it says it does.
fn mended(plan: &Plan, id: &str) -> String {
    let judged = evaluate(plan);
    let finding = judged.findings.iter().find(|f| f.id == id).unwrap_or_else(|| {
        panic!("{id} is not found: {:?}", judged.findings.iter().map(|f| &f.id).collect::<Vec<_>>())
    });
    let fix = finding.fix.as_ref().unwrap_or_else(|| panic!("{id} has no fix: {}", finding.sentence));
    assert!(fix.patch.iter().all(|step| step.path.starts_with("/layout/")));
    let first_change = fix.patch.iter().position(|step| step.op != "test").unwrap();
    assert!(fix.patch[first_change..].iter().all(|step| step.op != "test"), "{id}: tests come first");
    // A bag changes no reading: it answers one.
    assert!(!fix.changes.is_empty() || fix.label.starts_with("Hang "), "{id} changes no reading");
    let had = blocking(plan);
    let after = apply(plan, &fix.patch).unwrap();
    let has = blocking(&after);
    assert!(without_moves(&after).findings.iter().all(|f| f.id != id), "{id} is still there");
    assert!(has.iter().all(|new| had.contains(new)), "{id}: {has:?} after {had:?}");
    // The readings it promises are those that come.
    for change in &fix.changes {
        let now = without_moves(&after).readings.into_iter().find(|r| r.id == change.reading.as_str());
        assert_eq!(now.and_then(|r| r.value), change.to, "{id} promised {}", change.reading);
    }
    fix.label.clone()
}

#[test]
fn a_badly_set_camera_is_set_right() {
    for (edit, value, id) in [
        ("/layout/camera/iso", json!(1600), "light.face.exposure_stops"),
        ("/layout/camera/iso", json!(12800), "light.face.exposure_stops"),
        ("/layout/camera/shutter_s", json!(0.0125), "shot.exposure.flicker_percent"),
        ("/layout/camera/tilt_deg", json!(-9), "shot.frame.eye_line_error"),
        ("/layout/camera/tilt_deg", json!(4), "shot.frame.headroom_fraction"),
        ("/layout/camera/focal_length_mm", json!(30), "shot.frame.height_error_percent"),
        ("/layout/camera/focus_distance_m", json!(1.3), "shot.focus.front_tolerance_m"),
    ] {
        let label = mended(&spoilt(&[(edit, value.clone())]), id);
        assert!(!label.is_empty(), "{edit} {value}");
    }
}

/// Eyes that leave the lens for camera right with the face in the middle have too little room to look into: the pan is
/// offered.
#[test]
fn eyes_that_leave_the_lens_get_room_to_look_into() {
    let plan =
        plain_with(&[("/layout/seat/gaze_offset_deg", json!(10)), ("/brief/purpose", json!("performance"))]);
    mended(&plan, "shot.frame.look_room_fraction");
}

/// A practical lamp may show; one that burns out is dimmed to where it reads well, 0.5 to 2 stops over the face (common
/// practice, no source).
#[test]
fn a_practical_that_burns_out_is_dimmed() {
    let lamp = json!({ "gear": "lamp", "role": "practical", "position_m": [2.5, 0.4, 1.3], "aim_m": [2.0, 3.0, 1.25], "dim": 1,
        "support": { "kind": "floor", "gear": "stand", "sandbag_kg": 20 } });
    let plan = plain_with(&[("/layout/lights/desk-lamp", lamp)]);
    assert!(blocking(&plan).iter().all(|id| !id.starts_with("legal.picture")), "it is there to be seen");
    assert!(mended(&plan, "light.desk-lamp.highlight_stops").starts_with("Dim the desk lamp to "));
}

#[test]
fn a_light_in_the_wrong_place_is_walked_round() {
    // On the lens axis, beyond the camera: flat. The plain corner has room to walk it round.
    let flat = plain_with(&[("/layout/lights/key/position_m", json!([2, 3.75, 1.9]))]);
    let label = mended(&flat, "light.key.azimuth_deg");
    assert!(label.starts_with("Move the key to ") && label.contains("degrees camera"), "{label}");
    let shown = plain_with(&[("/layout/lights/key/position_m", json!([1.75, 2.0, 1.5]))]);
    assert!(mended(&shown, "legal.picture.key").starts_with("Move the key"));
    let high = plain_with(&[("/layout/lights/key/position_m", json!([1.4, 2.1, 2.3]))]);
    assert!(mended(&high, "light.key.elevation_deg").starts_with("Move the key"));
}

#[test]
fn a_microphone_far_off_is_brought_near() {
    let far = plain_with(&[
        ("/layout/microphone/position_m", json!([2.0, 1.75, 2.35])),
        ("/layout/microphone/support/base_m", json!([2.9, 1.5])),
    ]);
    let label = mended(&far, "sound.microphone.distance_m");
    assert!(label.starts_with("Bring the microphone to 0."), "{label}");
    let shown = plain_with(&[("/layout/microphone/position_m", json!([2, 1.75, 1.5]))]);
    mended(&shown, "legal.picture.microphone");
}

#[test]
fn a_stand_that_could_tip_gets_its_bag_and_a_stray_foot_comes_back() {
    let bare = plain_with(&[("/layout/lights/key/support/sandbag_kg", json!(0))]);
    assert!(mended(&bare, "legal.support.key").starts_with("Hang "));
    let stray = plain_with(&[("/layout/lights/key/support/base_m", json!([1.1, 3.6]))]);
    assert!(mended(&stray, "legal.support.key").starts_with("Move the foot"));
}

#[test]
fn where_no_move_helps_the_advice_says_what_to_buy_measure_or_change() {
    // A lens that cannot focus so near, at the only focal length it has.
    let plan = plain_with(&[
        ("/brief/gear/lens/focal_min_mm", json!(40)),
        ("/brief/gear/lens/focal_max_mm", json!(40)),
        ("/brief/gear/lens/nearest_focus_m", json!(4.5)),
    ]);
    let judged = evaluate(&plan);
    let near = judged.findings.iter().find(|f| f.id == "legal.camera.camera").unwrap();
    assert!(near.fix.is_none() && near.advice.contains("lens that focuses nearer"), "{near:?}");
    let echo = judged.findings.iter().find(|f| f.id == "sound.room.rt_mid_s").unwrap();
    assert_eq!(echo.severity, Severity::Consider);
    assert!(
        echo.fix.is_none() && echo.advice.contains("clap once"),
        "what nobody told is measured first: {echo:?}"
    );
}
