//! Moves by hand: what follows, what is drawn, what is resisted, what stays. The figures are worked by hand from the
//! plain corner's round numbers; tolerances and what follows are Fogon's own rules.

use fogon_core::assess::evaluate;
use fogon_core::corner::{Corner, things};
use fogon_core::finding::Rule;
use fogon_core::hand::{FromEyes, Grip, Move, Moved, Sheet, handles, moved};
use fogon_core::money::free_moves;
use fogon_core::plan::{Id, Plan, Point3, apply, change};
use proptest::prelude::*;
use serde_json::json;

use crate::support::{demo, plain_with, reading, value};

pub(crate) fn to(thing: &str, at: [f64; 3]) -> Move {
    Move::to(thing, Point3(at))
}

fn done(plan: &Plan, by: &Move) -> Moved {
    moved(plan, by).unwrap_or_else(|problems| panic!("{problems}"))
}

/// Where a thing is and the eyes' place in the picture.
fn at(plan: &Plan, thing: &str) -> [f64; 3] {
    handles(plan).into_iter().find(|h| h.id == thing).unwrap().position_m.0
}

fn eyes_in_picture(plan: &Plan) -> (f64, f64) {
    let corner = Corner::of(plan).unwrap();
    corner.view.project(corner.eyes_m).unwrap()
}

fn broken(plan: &Plan) -> Vec<(String, f64)> {
    let corner = Corner::of(plan).unwrap();
    let breaches = fogon_core::assess::breaches(&corner, &things(&corner));
    breaches.into_iter().map(|b| (format!("{:?} {:?}", b.rule, b.thing), b.lacking.value())).collect()
}

#[test]
fn a_moved_camera_or_seat_keeps_the_person_in_the_picture_and_in_focus() {
    // An aim given as the eyes' place follows them.
    let plan = plain_with(&[("/layout/lights/key/aim_m", json!([2, 1.5, 1.25]))]);
    let before = eyes_in_picture(&plan);
    for (thing, place) in [("camera", [2.6, 3.1, 1.4]), ("seat", [1.8, 1.7, 0.0])] {
        let after = done(&plan, &Move { anyway: true, ..to(thing, place) }).plan;
        let now = eyes_in_picture(&after);
        assert!((now.0 - before.0).abs() < 2e-3 && (now.1 - before.1).abs() < 4e-3, "{thing}: {now:?}");
        let corner = Corner::of(&after).unwrap();
        assert!((corner.layout.camera.focus_distance_m - corner.subject_distance_m()).abs() < 0.01);
        let facing = fogon_core::geometry::bearing_of(corner.to_lens());
        assert!((fogon_core::geometry::wrap_180(corner.layout.seat.bearing_deg - facing)).abs() < 0.02);
        assert!(
            (corner.lights[0].aim_m - corner.eyes_m).length() < 2e-3,
            "{thing}: the key still faces the eyes"
        );
    }
    // The tripod stays plumb under the camera, though its place was never written down.
    let corner_of = |plan: &Plan| handles(plan).into_iter().find(|h| h.id == "camera").unwrap();
    let camera = corner_of(&done(&plan, &to("camera", [2.2, 3.2, 1.25])).plan);
    assert_eq!(camera.foot_m.unwrap().0, [2.2, 3.2]);
}

#[test]
fn a_boom_goes_as_a_whole_and_a_foot_alone() {
    let plan = plain_with(&[]);
    let after = done(&plan, &to("microphone", [2.05, 1.8, 1.8])).plan;
    let foot = |plan: &Plan| plan.layout.microphone.as_ref().unwrap().support.base_m.unwrap().0;
    // The foot goes where the arm's end goes, which turns a little as the microphone is aimed at the mouth again.
    let [x, y] = foot(&after);
    assert!((x - 2.95).hypot(y - 1.55) < 0.02, "{x} {y}");
    let footed = done(&plan, &Move { grip: Grip::Foot, ..to("microphone", [2.9, 1.2, 0.0]) }).plan;
    assert_eq!((foot(&footed), at(&footed, "microphone")), ([2.9, 1.2], [2.0, 1.75, 1.75]));
    // Beyond the arm's 1.2 m the foot is held, with the reason.
    let far = done(&plan, &Move { grip: Grip::Foot, ..to("microphone", [3.5, 1.5, 0.0]) });
    let held = far.held.unwrap();
    assert_eq!(held.rule, Rule::Support);
    assert!(held.sentence.contains("reaches"), "{}", held.sentence);
    let reach = (foot(&far.plan)[0] - 2.0).hypot(foot(&far.plan)[1] - 1.75);
    assert!((1.1..1.215).contains(&reach), "as far as it reaches: {reach}");
}

#[test]
fn what_is_nearly_right_is_made_right_and_said() {
    let plan = plain_with(&[]);
    let snapped = |by: Move| done(&plan, &Move { snap: true, ..by });
    // 44 degrees off the lens at 1.2 m goes to 45; 40 degrees stays.
    let key_at = |degrees: f64| {
        let (sin, cos) = degrees.to_radians().sin_cos();
        [2.0 - 1.2 * sin, 1.5 + 1.2 * cos, 1.9]
    };
    let near = snapped(to("key", key_at(44.0)));
    assert_eq!(near.snaps, ["45 degrees camera right."]);
    assert!((value(&near.plan, "light.key.azimuth_deg") - 45.0).abs() < 0.1);
    let far = snapped(to("key", key_at(40.0)));
    assert!(far.snaps.is_empty() && (value(&far.plan, "light.key.azimuth_deg") - 40.0).abs() < 0.1);
    // Not unless asked: a typed place is exact.
    assert!(done(&plan, &to("key", key_at(44.0))).snaps.is_empty());
    // On the side sheet: level with the eyes, 45 degrees above them.
    let side = |at| Move { sheet: Sheet::Side, ..to("key", at) };
    let up = snapped(side([1.4, 2.1, 1.25 + 0.8485 + 0.02]));
    assert_eq!(up.snaps, ["45 degrees above the eyes."]);
    assert!((value(&up.plan, "light.key.elevation_deg") - 45.0).abs() < 0.1);
    let lens = snapped(Move { sheet: Sheet::Side, ..to("camera", [2.0, 3.0, 1.27]) });
    assert_eq!(lens.snaps, ["Level with the eyes."]);
    assert!((at(&lens.plan, "camera")[2] - at(&plan, "seat")[2]).abs() < 1e-3);
    // A stand whose feet end 2 cm from a wall goes against it: 0.40 m of feet.
    let wall = snapped(to("key", [0.57, 2.6, 1.9]));
    assert!(wall.snaps.iter().any(|s| s == "Against the left wall."), "{:?}", wall.snaps);
    let foot = handles(&wall.plan).into_iter().find(|h| h.id == "key").unwrap().foot_m.unwrap();
    assert!((foot.0[0] - 0.40).abs() < 0.02, "{foot:?}");
}

#[test]
fn the_edge_of_the_picture_draws_and_then_holds() {
    let plan = plain_with(&[]);
    // Lowered towards the picture: the microphone may come to its margin and no further.
    let lowered = |z: f64, snap: bool| {
        done(&plan, &Move { sheet: Sheet::Side, snap, ..to("microphone", [2.0, 1.75, z]) })
    };
    let held = lowered(1.30, false);
    let reason = held.held.expect("it would show");
    assert_eq!(reason.rule, Rule::Picture);
    let lowest = at(&held.plan, "microphone")[2];
    assert!((1.3..1.75).contains(&lowest), "{lowest}");
    assert!(broken(&held.plan).is_empty());
    let x = at(&held.plan, "microphone")[0];
    assert!((x - 2.0).abs() < 1e-9, "it stays on the sheet");
    // Anyway: it goes, and the finding says so.
    let anyway = done(&plan, &Move { anyway: true, ..to("microphone", [2.0, 1.75, 1.30]) });
    assert_eq!((at(&anyway.plan, "microphone"), anyway.held), ([2.0, 1.75, 1.30], None));
    assert!(broken(&anyway.plan).iter().any(|(id, _)| id == "Picture Microphone"));
    // Two centimetres above its margin it is drawn down to it.
    let edge = (0..40).map(|i| lowered(lowest + 0.002 * f64::from(i), true)).find(|m| !m.snaps.is_empty());
    assert_eq!(edge.expect("drawn").snaps, ["At the edge of the picture, with its margin."]);
}

#[test]
fn locked_things_stay() {
    let mut plan = demo();
    plan.brief.today = None;
    // Spoil it, so that there is something to mend and to move.
    plan.layout.camera.tilt_deg -= 9.0;
    for light in plan.layout.lights.values_mut() {
        light.position_m.0[0] += 0.1;
    }
    assert!(evaluate(&plan).findings.iter().any(|f| f.fix.is_some()), "unlocked, there is a fix");
    assert!(!free_moves(&plan).moves.is_empty());
    plan.layout.seat.locked = true;
    plan.layout.camera.locked = true;
    plan.layout.lights.values_mut().for_each(|l| l.locked = true);
    if let Some(microphone) = &mut plan.layout.microphone {
        microphone.locked = true;
    }
    plan.check().unwrap();
    let pose = |p: &Plan| {
        let layout = &p.layout;
        let lights: Vec<_> = layout.lights.values().map(|l| (l.position_m, l.aim_m)).collect();
        (layout.camera.position_m, layout.camera.tilt_deg, lights, layout.seat.position_m)
    };
    for finding in evaluate(&plan).findings {
        if let Some(fix) = finding.fix {
            assert_eq!(pose(&apply(&plan, &fix.patch).unwrap()), pose(&plan), "{}", fix.label);
        }
    }
    let mut now = plan.clone();
    for step in free_moves(&plan).moves {
        now = apply(&now, &step.patch).unwrap();
        assert_eq!(pose(&now), pose(&plan), "{}", step.label);
    }
    let refusal = moved(&plan, &to("key", [1.0, 1.0, 1.9])).unwrap_err();
    assert!(refusal.to_string().contains("locked"), "{refusal}");
}

#[test]
fn what_stands_on_a_piece_of_furniture_goes_along_and_what_is_locked_does_not() {
    let desk =
        json!({ "kind": "table", "position_m": [3.3, 4.3, 0], "size_m": [0.8, 0.6, 0.7], "bearing_deg": 0 });
    let on_desk = json!({ "gear": "lamp", "role": "practical", "position_m": [3.3, 4.3, 1.0], "dim": 0.5,
        "support": { "kind": "on", "on": "desk" } });
    let plan = plain_with(&[("/brief/room/furniture/desk", desk), ("/layout/lights/shelf-lamp", on_desk)]);
    let after = done(&plan, &to("desk", [3.1, 4.2, 0.0])).plan;
    assert_eq!((at(&after, "desk"), at(&after, "shelf-lamp")), ([3.1, 4.2, 0.0], [3.1, 4.2, 1.0]));
    let mut locked = plan.clone();
    if let Some(light) = locked.layout.lights.get_mut(&Id::from("shelf-lamp")) {
        light.locked = true;
    }
    let after = done(&locked, &to("desk", [3.2, 4.25, 0.0])).plan;
    assert_eq!((at(&after, "desk"), at(&after, "shelf-lamp")), ([3.2, 4.25, 0.0], [3.3, 4.3, 1.0]));
    // A locked camera neither turns nor focuses after the person.
    let mut still = plain_with(&[]);
    still.layout.camera.locked = true;
    let moved_seat = done(&still, &Move { anyway: true, ..to("seat", [2.2, 1.6, 0.0]) }).plan;
    assert_eq!(moved_seat.layout.camera, still.layout.camera);
    // Turned into its neighbour, a table is refused; turned by a right angle, it stays where it is.
    let turn = |bearing_deg| Move { to_m: None, bearing_deg: Some(bearing_deg), ..to("desk", [0.0; 3]) };
    let turned = done(&plan, &turn(90.0)).plan;
    assert_eq!(turned.layout.furniture[&Id::from("desk")].bearing_deg, 90.0);
    assert_eq!(at(&turned, "desk"), [3.3, 4.3, 0.0]);
}

/// Moved in a mirrored corner to the mirrored place, everything lands mirrored: no side is favoured.
#[test]
fn a_mirrored_move_is_the_mirrored_move() {
    let mirrored = |plan: &Plan| {
        let mut m = plan.clone();
        let flip = |p: &mut Point3| p.0[0] = 4.0 - p.0[0];
        m.layout.seat.position_m.0[0] = 4.0 - m.layout.seat.position_m.0[0];
        flip(&mut m.layout.camera.position_m);
        for light in m.layout.lights.values_mut() {
            flip(&mut light.position_m);
        }
        if let Some(microphone) = &mut m.layout.microphone {
            flip(&mut microphone.position_m);
            if let Some(foot) = &mut microphone.support.base_m {
                foot.0[0] = 4.0 - foot.0[0];
            }
        }
        m
    };
    let plan = plain_with(&[]);
    let other = mirrored(&plan);
    for (thing, place, sheet) in [
        ("key", [0.9, 2.0, 2.0], Sheet::Plan),
        ("key", [1.0, 2.5, 1.2], Sheet::Side),
        ("key", [0.1, 2.6, 1.9], Sheet::Plan),
        ("camera", [2.3, 3.3, 1.3], Sheet::Plan),
        ("microphone", [1.9, 1.8, 1.4], Sheet::Side),
        ("seat", [1.8, 1.7, 0.0], Sheet::Plan),
    ] {
        for snap in [false, true] {
            let mut twin = place;
            twin[0] = 4.0 - twin[0];
            let one = done(&plan, &Move { sheet, snap, ..to(thing, place) });
            let two = done(&other, &Move { sheet, snap, ..to(thing, twin) });
            assert_eq!(one.held.is_some(), two.held.is_some(), "{thing} {place:?}");
            assert_eq!(one.snaps.len(), two.snaps.len(), "{thing} {place:?} {:?} {:?}", one.snaps, two.snaps);
            let (a, b) = (at(&one.plan, thing), at(&two.plan, thing));
            let off = (a[0] - (4.0 - b[0])).abs().max((a[1] - b[1]).abs()).max((a[2] - b[2]).abs());
            assert!(off < 3e-3, "{thing} {place:?} snap {snap}: {a:?} against {b:?}");
        }
    }
}

#[test]
fn what_cannot_be_moved_says_why() {
    let plan = demo();
    let fixed = |by: Move| moved(&plan, &by).unwrap_err().to_string();
    assert!(fixed(to("piano", [1.0; 3])).contains("piano"));
    assert!(fixed(Move { grip: Grip::Aim, ..to("seat", [1.0; 3]) }).contains("an aim for camera and lights"));
    assert!(fixed(Move { to_m: None, ..to("key", [1.0; 3]) }).contains("one of to_m"));
    assert!(fixed(Move { bearing_deg: Some(10.0), ..to("seat", [1.0; 3]) }).contains("one of to_m"));
}

/// A light told to go where it is seen already stays, to the millimetre; told another angle, it is seen at that.
#[test]
fn places_as_seen_from_the_eyes_go_there_and_back() {
    let plan = plain_with(&[]);
    let seen = |plan: &Plan| handles(plan).into_iter().find(|h| h.id == "key").unwrap().from_eyes.unwrap();
    let go =
        |from_eyes| done(&plan, &Move { to_m: None, from_eyes: Some(from_eyes), ..to("key", [0.0; 3]) }).plan;
    let now = seen(&plan);
    // Worked by hand: 0.9 to the side and 0.9 ahead is 45 degrees; 0.65 up over 1.2728 flat is 27.1 degrees.
    assert!((now.azimuth_deg - 45.0).abs() < 1e-6 && (now.elevation_deg - 27.05).abs() < 0.05, "{now:?}");
    let same = at(&go(now), "key");
    assert!((0..3).all(|i| (same[i] - at(&plan, "key")[i]).abs() < 1.1e-3), "{same:?}");
    let wanted = FromEyes { azimuth_deg: -35.0, elevation_deg: 32.0, distance_m: 1.3 };
    let there = seen(&go(wanted));
    assert!((there.azimuth_deg + 35.0).abs() < 0.1 && (there.elevation_deg - 32.0).abs() < 0.1, "{there:?}");
    assert!((there.distance_m - 1.3).abs() < 2e-3);
}

/// The zoom that frames from where the camera stands: the readings that judge the frame become right.
#[test]
fn framing_from_here_gives_the_wanted_shot() {
    let plan = plain_with(&[
        ("/layout/camera/position_m", json!([2.1, 3.2, 1.35])),
        ("/layout/camera/tilt_deg", json!(5)),
    ]);
    let by = Move { grip: Grip::Frame, to_m: None, ..to("camera", [0.0; 3]) };
    let framed = done(&plan, &by).plan;
    assert!(value(&framed, "shot.frame.height_error_percent").abs() < 0.5);
    assert!(value(&framed, "shot.frame.eye_line_error").abs() < 0.003);
    assert_eq!(at(&framed, "camera"), at(&plan, "camera"));
}

/// Along the wanted frame the camera goes as far as it is asked to, however it is tilted: steps one by one add up.
#[test]
fn steps_along_the_wanted_frame_add_up() {
    for rise_m in [0.0, -0.25, 0.2] {
        let mut plan = demo();
        plan.layout.camera.position_m.0[2] += rise_m;
        let framed = done(&plan, &Move { grip: Grip::Frame, to_m: None, ..to("camera", [0.0; 3]) });
        let mut plan = framed.plan;
        let depth = |plan: &Plan| Corner::of(plan).unwrap().subject_distance_m();
        let from = depth(&plan);
        for step in 1..=5 {
            let asked = depth(&plan) - 0.02;
            let by = Move {
                grip: Grip::Shot,
                to_m: None,
                distance_m: Some(asked),
                anyway: true,
                ..to("camera", [0.0; 3])
            };
            plan = done(&plan, &by).plan;
            assert!(
                (depth(&plan) - (from - 0.02 * f64::from(step))).abs() < 4e-3,
                "{rise_m} {step}: {}",
                depth(&plan)
            );
            assert!(value(&plan, "shot.frame.height_error_percent").abs() < 1.0, "{rise_m}");
        }
    }
}

/// What was measured with things elsewhere is set aside; what the move cannot change stays.
#[test]
fn measured_values_stand_until_what_they_measured_has_moved() {
    let measured = json!({ "light.face.illuminance_lx": 900, "sound.room.rt_mid_s": 0.31, "person.eye.height_m": 1.27,
        "sound.microphone.distance_m": 0.6, "room.mains.voltage_v": 118 });
    let plan = plain_with(&[("/brief/measured", measured)]);
    // 900 lx measured against 250 x 16 / (0.02 x 250) = 800 lx needed (ISO 2720, C = 250, from memory): +0.17 stop.
    assert!((value(&plan, "light.face.exposure_stops") - (900.0f64 / 800.0).log2()).abs() < 1e-6);
    let watts = 60.0;
    assert!((value(&plan, "room.mains.load_fraction") - watts / 118.0 / 16.0).abs() < 1e-9);
    let eyes = reading(&plan, "person.eye.height_m");
    assert_eq!((eyes.value, eyes.from), (Some(1.27), fogon_core::reading::Origin::Measured));
    assert_eq!(eyes.measured_range, Some([0.5, 2.3]));
    let light = done(&plan, &to("key", [1.05, 2.4, 1.9]));
    assert_eq!(light.dropped, ["light.face.illuminance_lx"]);
    let microphone = done(&plan, &to("microphone", [2.0, 1.75, 1.8]));
    assert_eq!(microphone.dropped, ["sound.microphone.distance_m"]);
    // A fix or a free move arrives as a patch: it sets the same aside; one that moves nothing sets nothing aside.
    let patched = apply(&plan, &change(&plan, &light.plan)).unwrap();
    assert_eq!(patched.brief.measured, light.plan.brief.measured);
    let mut dimmed = plan.clone();
    dimmed.layout.camera.f_number = 5.6;
    assert_eq!(apply(&plan, &change(&plan, &dimmed)).unwrap().brief.measured, plan.brief.measured);
    let left: Vec<_> = light.plan.brief.measured.keys().map(|id| id.0.clone()).collect();
    assert!(left.contains(&"sound.room.rt_mid_s".to_owned()) && left.len() == 4, "{left:?}");
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(if cfg!(debug_assertions) { 24 } else { 96 }))]

    /// Wherever a hand wants a thing, no rule is broken that was not, none deeper, and either it is there or the
    /// reason is said; it never ends farther from there than it stood.
    #[test]
    fn no_hand_breaks_a_rule(which in 0usize..9, x in -1.0f64..5.0, y in -1.0f64..5.0, z in 0.0f64..3.0, side in any::<bool>(), snap in any::<bool>()) {
        let plan = demo();
        let all = handles(&plan);
        let handle = &all[which % all.len()];
        prop_assume!(handle.movable);
        let sheet = if side && handle.lifts { Sheet::Side } else { Sheet::Plan };
        let wanted = if handle.lifts { [x, y, z] } else { [x, y, handle.position_m.0[2]] };
        let result = done(&plan, &Move { sheet, snap, ..to(&handle.id, wanted) });
        let had = broken(&plan);
        for (id, lacking) in broken(&result.plan) {
            let before = had.iter().filter(|(b, _)| *b == id).map(|(_, l)| *l).fold(f64::NEG_INFINITY, f64::max);
            prop_assert!(lacking <= before + 2e-3, "{id} {lacking} after moving {}", handle.id);
        }
        let is = at(&result.plan, &handle.id);
        let off_by = |at: [f64; 3]| (0..3).map(|i| (at[i] - wanted[i]).powi(2)).sum::<f64>().sqrt();
        let off = off_by(is);
        prop_assert!(snap || off <= off_by(handle.position_m.0) + 2e-3, "{off} from there, farther than before");
        prop_assert!(off < 2e-3 || result.held.is_some() || !result.snaps.is_empty(), "{off} unsaid");
    }
}
