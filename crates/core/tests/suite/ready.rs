//! How soon a corner stands that was put away: the order, the ways, the plugs.

use fogon_core::corner::{Carrier, Corner};
use fogon_core::geometry::{DVec2, beyond_m};
use fogon_core::plan::{ActionKind, OpeningKind, Plan};
use fogon_core::power::power;
use fogon_core::ready::schedule::{Task, least};
use fogon_core::ready::{Ready, in_words, ready};
use fogon_testkit::assert_close;
use serde_json::{Value, json};

use crate::support::{plain_with, value};

const EXAMPLES: [&str; 2] = [
    include_str!("../../../../docs/examples/box-room.fogon.json"),
    include_str!("../../../../docs/examples/crowded-alcove.fogon.json"),
];

fn of(plan: &Plan) -> Ready {
    ready(plan).unwrap()
}

/// A hundred sets of up to eight actions and twenty of twenty-four by OR-Tools (reference/ready/schedules.py): the same least finish,
/// by an order in which hands do one thing at a time and nothing comes before what it needs.
#[test]
fn the_least_finish_is_another_solvers() {
    let sets: Vec<Value> = serde_json::from_str(include_str!("../fixtures/schedules.json")).unwrap();
    assert_eq!(sets.len(), 120);
    for set in sets {
        let tasks: Vec<Task> = set["actions"].as_array().unwrap().iter().map(task).collect();
        let found = least(&tasks);
        assert!(found.is_least, "{set}");
        assert_close(found.finish_s, set["finish_s"].as_f64().unwrap(), 0.0, 1e-9, &set.to_string());
        let end = |index: usize| found.starts_s[index] + tasks[index].seconds;
        for (index, task) in tasks.iter().enumerate() {
            assert!(task.after.iter().all(|before| end(*before) <= found.starts_s[index] + 1e-9));
            let others = (0..index).filter(|other| tasks[*other].by_hand && task.by_hand);
            for other in others {
                let apart =
                    end(other) <= found.starts_s[index] + 1e-9 || end(index) <= found.starts_s[other] + 1e-9;
                assert!(apart, "{other} and {index} at once in {set}");
            }
        }
        // The finish hangs on a chain without a gap, from the beginning to the end.
        let path = &found.path;
        assert_close(found.starts_s[path[0]], 0.0, 0.0, 1e-9, "the path begins");
        assert_close(end(path[path.len() - 1]), found.finish_s, 0.0, 1e-9, "the path ends");
        assert!(path.windows(2).all(|pair| (end(pair[0]) - found.starts_s[pair[1]]).abs() < 1e-9));
    }
}

fn task(told: &Value) -> Task {
    let after = told["after"].as_array().unwrap().iter().map(|index| index.as_u64().unwrap() as usize);
    Task {
        seconds: told["seconds"].as_f64().unwrap(),
        by_hand: told["by_hand"].as_bool().unwrap(),
        after: after.collect(),
    }
}

/// The plain corner by hand: what one pair of hands does adds up; only the camera's start runs beside it.
#[test]
fn a_plain_corner_is_put_up_in_the_time_of_its_actions() {
    let plain = of(&plain_with(&[]));
    let ways: f64 = plain.parked.iter().map(|stand| 2.0 * stand.way_m).sum();
    let kinds = |kind: ActionKind| plain.actions.iter().filter(|action| action.kind == kind).count() as f64;
    assert_eq!(
        (kinds(ActionKind::Carry), kinds(ActionKind::Level), kinds(ActionKind::Mount)),
        (3.0, 1.0, 1.0)
    );
    // Carry 25 s and its way, level 45, screw on 30, plug 10 (the lamp; the microphone's too where it has one), switch 3, chair 10,
    // quiet 15, start 5, look 15, listen 40: Fogon's own rule.
    let plugs = kinds(ActionKind::Plug);
    let by_hand = 3.0 * 25.0
        + ways
        + 45.0
        + 30.0
        + plugs * 10.0
        + 3.0
        + 10.0
        + 15.0
        + 5.0
        + 15.0
        + 40.0
        + kinds(ActionKind::Dial) * 10.0;
    assert_close(plain.time_s, by_hand, 0.0, 1e-6, "hands are never idle");
    assert!(plain.is_least);
    assert_close(value(&plain_with(&[]), "ready.corner.time_s"), plain.time_s, 0.0, 1e-9, "the reading");
    assert_eq!(plain.sentence, format!("Put up in {} by usual times.", in_words(plain.time_s)));
    // Without marks every stand and the seat would be measured again, a minute each.
    assert_close(plain.marks_gain_s, 4.0 * 60.0, 0.0, 1e-6, "what the marks gain");
    assert!(plain.longest.starts_with("Level the camera"), "{}", plain.longest);
}

/// Times of one's own replace the usual ones, ways included; a plate, wheels and a place of one's own count.
#[test]
fn own_times_and_habits_count() {
    let usual = of(&plain_with(&[]));
    let timed = of(&plain_with(&[("/brief/habits", json!({ "times_s": { "level": 20.0, "carry": 30.0 } }))]));
    let ways: f64 = usual.parked.iter().map(|stand| 2.0 * stand.way_m).sum();
    assert_close(usual.time_s - timed.time_s, 25.0 + 3.0 * (25.0 - 30.0) + ways, 0.0, 1e-6, "timed");
    assert!(timed.sentence.contains("your own times"), "{}", timed.sentence);
    let plate = of(&plain_with(&[("/brief/habits", json!({ "plate": true }))]));
    assert_close(usual.time_s - plate.time_s, 22.0, 0.0, 1e-6, "clipped, not screwed");
    let told = usual.shorter.iter().find(|one| one.what.starts_with("A plate")).unwrap();
    assert_close(told.seconds, 22.0, 0.0, 1e-6, "and it says so");
    assert!(!plate.shorter.iter().any(|one| one.what.starts_with("A plate")), "it is there already");
    // A corner of the room's other end, told by the person.
    let parked = json!({ "parked": { "key": [3.5, 4.5] } });
    let far = of(&plain_with(&[("/brief/habits", parked)]));
    let own = |ready: &Ready| ready.parked.iter().find(|stand| stand.id == "key").unwrap().clone();
    assert_eq!(own(&far).at_m, [3.5, 4.5]);
    let more = 2.0 * (own(&far).way_m - own(&usual).way_m);
    assert!(more > 1.0);
    assert_close(far.time_s - usual.time_s, more, 0.0, 1e-6, "a longer way");
    let [x, y] = own(&far).standing_m;
    assert_close(
        own(&far).way_m,
        DVec2::new(x, y).distance(DVec2::new(3.5, 4.5)),
        0.0,
        1e-9,
        "straight: nothing stands there",
    );
    for (field, habits) in [
        ("brief.habits.parked.key", json!({ "parked": { "key": [9.0, 1.0] } })),
        ("brief.habits.times_s.level", json!({ "times_s": { "level": 0.1 } })),
    ] {
        let mut document = serde_json::to_value(plain_with(&[])).unwrap();
        document["brief"]["habits"] = habits;
        let refused = Plan::read(document.to_string().as_bytes()).unwrap_err();
        assert!(refused.to_string().contains(field), "{refused}");
    }
}

/// Put away, a stand is inside the room, off furniture, doors and other stands, and stays where there is no such place.
#[test]
fn stands_are_put_away_out_of_the_way() {
    for text in EXAMPLES {
        let plan = Plan::read(text.as_bytes()).unwrap();
        let corner = Corner::of(&plan).unwrap();
        let told = of(&plan);
        assert!(told.is_least);
        for (index, stand) in told.parked.iter().enumerate().filter(|(_, stand)| !stand.stays) {
            let at = DVec2::from(stand.at_m);
            assert!(beyond_m(&corner.floor_m, at) <= -stand.radius_m, "{} {}", plan.name, stand.what);
            let openings = plan.brief.room.openings.values();
            for opening in openings.filter(|opening| opening.kind == OpeningKind::Door) {
                let swing = fogon_core::corner::door_swing(opening, &corner.floor_m);
                assert!(
                    swing.is_empty() || beyond_m(&swing, at) >= stand.radius_m,
                    "{} {}",
                    plan.name,
                    stand.what
                );
            }
            // Clear of furniture where the plan puts it and where the room has it.
            for (id, piece) in &plan.brief.room.furniture {
                let (moved, bearing_deg) = corner.furniture_at(id, piece);
                for (place, turned) in [(moved, bearing_deg), (piece.position_m.into(), piece.bearing_deg)] {
                    let outline = Carrier::of_piece(id, piece, place, turned);
                    assert!(outline.beside_m(at) >= stand.radius_m, "{} {} {id}", plan.name, stand.what);
                }
            }
            let others = told.parked[..index].iter().filter(|other| !other.stays);
            for other in others {
                assert!(at.distance(other.at_m.into()) >= stand.radius_m + other.radius_m);
            }
            assert!(
                stand.way_m >= at.distance(stand.standing_m.into()) - 1e-9,
                "no way is shorter than straight"
            );
        }
    }
    // Cupboards along every wall leave no place.
    let cupboard = |x: f64, y: f64, w: f64, d: f64| json!({ "kind": "shelf", "position_m": [x, y, 0], "bearing_deg": 0, "size_m": [w, d, 2.0], "fixed": true });
    let full = plain_with(&[(
        "/brief/room/furniture",
        json!({
            "back": cupboard(2.0, 0.2, 4.0, 0.4), "front": cupboard(2.0, 4.8, 4.0, 0.4),
            "left": cupboard(0.2, 2.5, 0.4, 4.2), "right": cupboard(3.8, 2.5, 0.4, 4.2),
        }),
    )]);
    let told = of(&full);
    assert!(!told.parked.is_empty() && told.parked.iter().all(|stand| stand.stays), "{:?}", told.parked);
    assert!(!told.actions.iter().any(|action| action.kind == ActionKind::Carry));
}

/// Cables by hand: down the stand, over the floor, up to the socket, half a metre of slack; the breaker's arithmetic.
#[test]
fn cables_and_circuits_by_hand() {
    let none = power(&Corner::of(&plain_with(&[])).unwrap());
    assert!(none.plugs.iter().all(|plug| plug.cable_m.is_none() && plug.socket.is_none()));
    let sockets = json!({
        "near": { "position_m": [0.0, 2.4, 0.3], "circuit": "a" }, "far": { "position_m": [4.0, 4.9, 0.3], "circuit": "b" },
    });
    let plan = plain_with(&[("/brief/room/sockets", sockets.clone())]);
    let told = power(&Corner::of(&plan).unwrap());
    let key = told.plugs.iter().find(|plug| plug.id == "key").unwrap();
    assert_eq!(key.socket.as_deref(), Some("near"));
    let [x, y, _] = plan.layout.lights.values().next().unwrap().position_m.0;
    let points: Vec<DVec2> = key.points_m.iter().map(|at| DVec2::from(*at)).collect();
    assert_eq!(points.last(), Some(&DVec2::new(0.0, 2.4)));
    let floor: f64 = points.windows(2).map(|pair| pair[0].distance(pair[1])).sum();
    let down = key.cable_m.unwrap() - floor - 0.3 - 0.5;
    assert!(down > 0.5 && down < 2.6, "{down} m of {x} {y}");
    // 60 W at 230 V are 0.26 A of 16 A.
    assert_close(told.circuits[0].load_a, 60.0 / 230.0, 1e-9, 0.0, "one lamp");
    assert_close(told.circuits[0].fraction, 60.0 / 230.0 / 16.0, 1e-9, 0.0, "of the breaker");
    // Two lamps of 2,000 W: 17.4 A are more than one breaker of 16 A should carry, so each gets its own.
    let mut lamp = plan.layout.lights.values().next().unwrap().clone();
    lamp.position_m.0[0] = 3.0;
    lamp.support.base_m = None;
    let mut two = serde_json::to_value(&plan).unwrap();
    two["layout"]["lights"]["second"] = serde_json::to_value(lamp).unwrap();
    two["layout"]["lights"]["second"]["role"] = json!("fill");
    two["brief"]["gear"]["lamp"]["power_w"] = json!(2000.0);
    let two = Plan::read(two.to_string().as_bytes()).unwrap();
    let told = power(&Corner::of(&two).unwrap());
    let mut names: Vec<&str> = told.circuits.iter().map(|circuit| circuit.name.as_str()).collect();
    names.sort_unstable();
    assert_eq!(names, ["a", "b"]);
    assert!(told.circuits.iter().all(|circuit| circuit.fraction <= 0.8));
    assert!(
        !told.one_switch.is_allowed && told.one_switch.words.contains("17.4 A"),
        "{}",
        told.one_switch.words
    );
    assert!(told.caution.contains("local electrical codes"));
}

/// A lamp on a battery takes no socket; the battery's minutes stand against the session: 85 % of 60 Wh feed 60 W for 51 min.
#[test]
fn batteries_stand_against_the_session() {
    let plan = plain_with(&[
        ("/brief/gear/lamp/needs", json!(["battery"])),
        (
            "/brief/gear/pack",
            json!({ "kind": "power", "label": "Pack", "energy_wh": 60, "offers": ["battery"] }),
        ),
        ("/brief/recording", json!({ "session_min": 90 })),
    ]);
    let told = power(&Corner::of(&plan).unwrap());
    assert!(told.plugs.iter().all(|plug| plug.id != "key"), "{:?}", told.plugs);
    assert_eq!(
        told.batteries,
        ["The battery of the key lasts 51 min, the session 90 min: it is not enough."]
    );
    let kinds: Vec<ActionKind> = of(&plan).actions.iter().map(|action| action.kind).collect();
    assert!(
        kinds.contains(&ActionKind::Switch)
            && kinds.iter().filter(|kind| **kind == ActionKind::Plug).count() == 0
    );
}

/// A phone goes into a holder and has no plate; a webcam hangs where it hung.
#[test]
fn a_phone_is_held_and_a_webcam_stays() {
    let phone = of(&plain_with(&[
        ("/brief/gear/lens/built_into", json!("body")),
        ("/brief/gear/body/mass_kg", json!(0.2)),
        ("/brief/habits", json!({ "plate": true })),
    ]));
    let usual = of(&plain_with(&[]));
    assert!(
        phone.actions.iter().any(|action| action.what == "Put the camera into its holder"),
        "{:?}",
        phone.actions
    );
    assert_close(usual.time_s - phone.time_s, 15.0, 0.0, 1e-6, "held, not screwed on");
    let on_desk = json!({ "kind": "on", "on": "desk" });
    let desk = json!({ "desk": { "kind": "desk", "position_m": [2.0, 3.1, 0.0], "bearing_deg": 180, "size_m": [1.4, 0.7, 1.1], "fixed": false } });
    let edits = [("/layout/camera/support", on_desk), ("/brief/room/furniture", desk)];
    let put = of(&plain_with(&edits));
    let webcam = of(&plain_with(&[&edits[..], &[("/brief/gear/body/needs", json!(["usb-input"]))]].concat()));
    assert_close(put.time_s - webcam.time_s, 15.0, 0.0, 1e-6, "it is there already");
}

/// Of a rolling column everything comes at once and there is one plug; what is fixed stays, and a lamp that settles does so meanwhile.
#[test]
fn columns_roll_and_fixed_things_stay() {
    let usual = of(&plain_with(&[]));
    let wheels = plain_with(&[
        ("/brief/gear/tripod/castors", json!(true)),
        ("/brief/gear/stand/castors", json!(true)),
        ("/brief/gear/arm/castors", json!(true)),
        ("/brief/schools/rig", json!("column")),
    ]);
    let rolled = of(&wheels);
    let told = usual.shorter.iter().find(|one| one.what.starts_with("Wheels")).unwrap();
    // Stands on wheels are put away as wide as their feet, so that their ways differ a little from those of folded ones.
    let ways = |ready: &Ready| ready.parked.iter().map(|stand| 2.0 * stand.way_m).sum::<f64>();
    let gained = usual.time_s - rolled.time_s - (ways(&usual) - ways(&rolled));
    assert_close(gained, told.seconds, 0.0, 1e-6, "wheels gain what they were said to");
    assert!(
        !rolled.actions.iter().any(|action| matches!(action.kind, ActionKind::Level | ActionKind::Carry))
    );
    assert_eq!(rolled.target_s, 120.0);
    let fixed = plain_with(&[
        ("/layout/lights/key/support", json!({ "kind": "ceiling" })),
        ("/brief/gear/lamp/settles_s", json!(500)),
    ]);
    let warm = of(&fixed);
    assert!(
        !warm.actions.iter().any(|action| action.id.ends_with(".key") && action.kind == ActionKind::Carry)
    );
    // Only its switch is left, first of all, so that 500 s of settling end the rest by a look at the picture.
    assert_close(warm.time_s, 3.0 + 500.0 + 15.0, 0.0, 1e-6, "the lamp is waited for");
    let settling = warm.actions.iter().find(|action| action.kind == ActionKind::Settling).unwrap();
    assert!(settling.is_on_path && !settling.by_hand);
}

/// A cable goes along the walls where straight on it would cross the way between seat and camera.
#[test]
fn a_cable_goes_round_the_way() {
    let socket = json!({ "right": { "position_m": [4.0, 2.4, 0.3] } });
    let plan = plain_with(&[("/brief/room/sockets", socket)]);
    let told = power(&Corner::of(&plan).unwrap());
    let key = told.plugs.iter().find(|plug| plug.id == "key").unwrap();
    assert!(key.crosses.is_empty(), "{:?}", key.crosses);
    assert!(key.points_m.len() > 2, "round by the walls: {:?}", key.points_m);
    // A socket outside the room is refused by name.
    let mut outside = serde_json::to_value(&plan).unwrap();
    outside["brief"]["room"]["sockets"]["right"]["position_m"] = json!([4.5, 2.4, 0.3]);
    let refused = Plan::read(outside.to_string().as_bytes()).unwrap_err();
    assert!(refused.to_string().contains("brief.room.sockets.right.position_m"), "{refused}");
}
