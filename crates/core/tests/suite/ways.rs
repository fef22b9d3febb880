//! Three ways to lay out a corner: what they differ in, the rigs they stand on, what forbids the rest; the way to the
//! chair; the schools on a corner as it stands.

use fogon_core::arrange::{Differs, Proposals, ground};
use fogon_core::assess::choices::choices;
use fogon_core::corner::Corner;
use fogon_core::plan::ThingId;
use fogon_core::plan::{LensSchool, Plan, RigSchool, SupportKind};
use fogon_core::room::sandbags;
use fogon_testkit::{assert_close, box_room, set};
use serde_json::{Value, json};

use crate::support::{brief, demo, in_the_way, plain_with, proposed, value};

fn found(document: &Value) -> Proposals {
    proposed(&brief(document))
}

fn column() -> Value {
    json!({ "kind": "support", "label": "Column", "mass_kg": 16, "offers": ["camera", "light", "microphone"],
        "height_min_m": 0.6, "height_max_m": 2.4, "foot_radius_m": 0.5, "payload_kg": 12, "reach_m": 1.3, "castors": true })
}

fn fixing(purpose: &str, to: &str) -> Value {
    json!({ "kind": "support", "label": "Fixed arm", "mass_kg": 2, "offers": [to, purpose],
        "height_min_m": 0.4, "height_max_m": 2.6, "foot_radius_m": 0.1, "payload_kg": 6, "reach_m": 1.2 })
}

/// The demo's three: each is ready, differs in what it gives up, and its sentence says so.
#[test]
fn the_three_differ_in_what_they_give_up() {
    let all = found(&box_room());
    let kinds: Vec<Differs> = all.proposals.iter().map(|p| p.differs).collect();
    assert_eq!(kinds.len(), 3);
    assert!(kinds.contains(&Differs::Best) && kinds.contains(&Differs::Lens), "{kinds:?}");
    assert!(all.looked_at > 40_000, "{}", all.looked_at);
    let first = value(&all.proposals[0].plan, "room.floor.in_use_m2");
    for proposal in &all.proposals {
        assert!(proposal.ready && !proposal.title.is_empty());
        assert_eq!(proposal.plan.brief.schools.lens, LensSchool::FarAndLong, "judged by what was chosen");
        match proposal.differs {
            Differs::Lens => {
                assert!(value(&proposal.plan, "shot.camera.distance_m") <= 1.5);
                assert!(proposal.reason.contains("gives up"), "{}", proposal.reason);
            }
            Differs::Floor => assert!(value(&proposal.plan, "room.floor.in_use_m2") < first - 0.2),
            _ => {}
        }
    }
    // A single long lens frames nobody from near: said, with what would help.
    let mut long = box_room();
    set(&mut long, "/brief/gear/zoom/focal_min_mm", json!(35));
    set(&mut long, "/brief/gear/zoom/focal_max_mm", json!(35));
    let told = found(&long);
    assert!(told.proposals.iter().all(|p| p.differs != Differs::Lens));
    assert!(
        told.missing.iter().any(|m| m.what == "Wide lens, near" && !m.frees.is_empty()),
        "{:?}",
        told.missing
    );
}

/// With a column at hand one way carries camera and key on it; its bag is that of all loads together.
#[test]
fn a_rolling_column_carries_camera_and_key() {
    let mut document = box_room();
    set(&mut document, "/brief/gear/column", column());
    let all = found(&document);
    let rig = all.proposals.iter().find(|p| p.differs == Differs::Rig).expect("the column is tried");
    assert_eq!(rig.plan.brief.schools.rig, RigSchool::Column);
    assert!(in_the_way(&rig.plan).iter().all(|f| !f.id.to_string().starts_with("legal.")));
    let corner = Corner::of(&rig.plan).unwrap();
    let layout = &rig.plan.layout;
    let (camera, key) = (
        &layout.camera.support,
        &layout.lights.values().find(|l| l.support.is_one_with(&layout.camera.support)).unwrap().support,
    );
    assert_eq!(camera.base_m, key.base_m);
    // Statics by moments about the foot, worked out here: every load at its lever towards the side they pull to.
    let base = camera.base_m.unwrap().0;
    let state = sandbags(&corner).into_iter().find(|s| s.thing == ThingId::Camera).unwrap();
    let mut loads: Vec<([f64; 2], f64, f64)> = Vec::new();
    let camera_kg = corner.body.common.mass_kg + corner.lens.common.mass_kg;
    let lens = corner.view.position_m;
    loads.push(([lens.x - base[0], lens.y - base[1]], camera_kg, lens.z));
    for light in corner.lights.iter().filter(|l| l.light.support.is_one_with(camera)) {
        let at = (light.position_m + light.hold_m()) / 2.0;
        loads.push(([at.x - base[0], at.y - base[1]], light.mass_kg(), at.z));
    }
    if let Some(used) = layout.microphone.as_ref().filter(|m| m.support.is_one_with(camera)) {
        let at = used.position_m.0;
        loads.push(([at[0] - base[0], at[1] - base[1]], 0.2, at[2]));
    }
    let pull = loads
        .iter()
        .fold([0.0, 0.0], |p, (at, kg, _)| [p[0] + at[0] * (kg + 0.5), p[1] + at[1] * (kg + 0.5)]);
    let length = pull[0].hypot(pull[1]);
    let towards = [pull[0] / length, pull[1] / length];
    // Overturning about the edge at half the foot radius: what reaches beyond it, with a 10 N knock at the highest; arms
    // of 1 kg at half their reach. Restoring: what lies inside, the stand above all. Factor 1.5; bag at half the radius.
    let edge = 0.25;
    let (mut over, mut back) = (10.0 / 9.81 * loads.iter().map(|l| l.2).fold(0.0, f64::max), 16.0 * edge);
    for (at, kg, _) in &loads {
        let lever = at[0] * towards[0] + at[1] * towards[1];
        for (mass, arm) in [(*kg, lever), (1.0, lever / 2.0)] {
            let beyond = arm - edge;
            if beyond > 0.0 { over += mass * beyond } else { back -= mass * beyond }
        }
    }
    let bag = ((1.5 * over - back) / (edge + 0.25)).max(0.0);
    assert_close(state.needed_kg, bag, 0.02, 0.1, "the column's bag");
    assert!(camera.sandbag_kg + 0.05 >= state.needed_kg);
    // In use and parked: a column keeps its feet, folded stands do not.
    assert!(value(&rig.plan, "room.floor.parked_m2") > 0.6);
    let folds = |plan: &Plan| plan.layout.supports_in_use().all(|id| id.0 != "column");
    let other = all.proposals.iter().find(|p| folds(&p.plan)).expect("one on stands that fold");
    assert!(value(&other.plan, "room.floor.parked_m2") < 0.3);
}

/// Fixed to ceiling or wall, lamps and camera take no floor; whatever hangs is told with its caution.
#[test]
fn what_hangs_takes_no_floor() {
    for (to, kind) in [("ceiling", SupportKind::Ceiling), ("wall", SupportKind::Wall)] {
        let mut document = box_room();
        for (id, purpose) in
            [("arm-a", "light"), ("arm-b", "light"), ("arm-c", "camera"), ("arm-d", "microphone")]
        {
            set(&mut document, &format!("/brief/gear/{id}"), fixing(purpose, to));
        }
        set(&mut document, "/brief/schools/rig", json!("fixed"));
        let all = found(&document);
        let plan = &all.proposals[0].plan;
        let layout = &plan.layout;
        let hung = |support: &fogon_core::plan::Support| support.kind == kind;
        assert!(layout.lights.values().any(|l| hung(&l.support)), "{to}");
        assert!(hung(&layout.camera.support) || kind == SupportKind::Wall, "an arm may not reach so far");
        assert!(
            in_the_way(plan).iter().all(|f| !f.id.to_string().starts_with("legal.")),
            "{:?}",
            in_the_way(plan)
        );
        crate::by_hand::assert_legal(&serde_json::to_value(plan).unwrap());
        let mut on_stands = document.clone();
        set(&mut on_stands, "/brief/schools/rig", json!("separate"));
        let separate = found(&on_stands).proposals.swap_remove(0);
        assert!(value(plan, "room.floor.in_use_m2") < value(&separate.plan, "room.floor.in_use_m2"));
        let judged = fogon_core::assess::without_moves(plan);
        let told = judged.findings.iter().find(|f| f.id == "room.overhead").expect("told");
        assert!(
            told.sentence.contains("key") && told.caution.is_some_and(|c| c.contains("tether")),
            "{told:?}"
        );
        let card = fogon_core::card::card(plan).unwrap();
        assert!(card.cautions.iter().any(|c| c.contains("tether")), "on the card as well");
    }
}

/// An arm on the wall reaches from its wall and from nowhere else: off it, in a window or too far away it is refused,
/// and moved by hand it is fixed where it reaches.
#[test]
fn an_arm_on_the_wall_is_fixed_to_it() {
    let on = |base: [f64; 2]| {
        vec![
            ("/brief/gear/arm-a", fixing("light", "wall")),
            ("/layout/lights/key/position_m", json!([0.9, 2.4, 1.9])),
            ("/layout/lights/key/support", json!({ "kind": "wall", "gear": "arm-a", "base_m": base })),
            (
                "/brief/room/openings/window",
                json!({ "kind": "window", "wall": 3, "from_m": 3.2, "width_m": 0.8, "sill_m": 0.9, "height_m": 1.3 }),
            ),
        ]
    };
    let breach = |base: [f64; 2]| {
        in_the_way(&plain_with(&on(base)))
            .into_iter()
            .find(|f| f.id == "legal.support.key")
            .map(|f| f.sentence)
    };
    assert_eq!(breach([0.0, 2.4]), None);
    assert_eq!(breach([0.3, 2.4]).as_deref(), Some("The arm of the key is fixed 30 cm off the wall."));
    // The left wall runs from its front end: the window lies at y = 1.0 to 1.8.
    assert_eq!(breach([0.0, 1.7]).as_deref(), Some("The arm of the key would be fixed in the window."));
    assert!(breach([0.0, 4.2]).unwrap().contains("reaches 1.20 m"));
    let plan = plain_with(&on([0.0, 2.4]));
    let by: fogon_core::hand::Move =
        serde_json::from_value(json!({ "thing": "key", "grip": "place", "to_m": [0.9, 3.7, 1.9] })).unwrap();
    let moved = fogon_core::hand::moved(&plan, &by).unwrap().plan;
    let arm = &moved.layout.lights["key"].support;
    assert_eq!(arm.kind, SupportKind::Wall);
    assert!(arm.base_m.unwrap().0[0].abs() < 1e-9, "still on the left wall");
    assert!(in_the_way(&moved).iter().all(|f| f.id != "legal.support.key"));
    // Without a place on the wall there is no such arm.
    let mut document = crate::support::plain();
    for (at, value) in on([0.0, 2.4]) {
        set(&mut document, at, value);
    }
    document["layout"]["lights"]["key"]["support"].as_object_mut().unwrap().remove("base_m");
    let refused = Plan::read(document.to_string().as_bytes()).unwrap_err();
    assert_eq!(refused.0[0].field, "layout.lights.key.support.base_m");
}

/// The floor across the feet is twice their radius; what a stand may carry is set against what it does.
#[test]
fn stands_tell_their_floor_and_their_strength() {
    let plan = plain_with(&[("/brief/gear/stand/payload_kg", json!(1.2))]);
    assert_close(value(&plan, "room.camera.footprint_m"), 0.8, 1e-12, 0.0, "a circle of 0.4 m");
    // Body 0.6 kg and lens 0.4 kg on 5 kg; lamp 1 kg on 1.2 kg.
    assert_close(value(&plan, "room.camera.payload_times"), 5.0, 1e-12, 0.0, "tripod");
    assert_close(value(&plan, "room.key.payload_times"), 1.2, 1e-12, 0.0, "stand");
    let told = |plan: &Plan| -> Vec<String> {
        let all = fogon_core::assess::without_moves(plan).findings;
        all.into_iter()
            .filter(|f| f.id.to_string().ends_with("payload_times"))
            .map(|f| f.id.to_string())
            .collect()
    };
    assert_eq!(told(&plan), ["room.key.payload_times"]);
    assert!(told(&plain_with(&[])).is_empty());
}

/// A stand in the only way from the door bars it; beside the way it does not; furniture that always stood there is the
/// person's own business.
#[test]
fn the_way_to_the_chair_stays_open() {
    // A corridor 1 m wide between the left wall and a row of fixed cupboards, door at the front, seat at the back.
    let with = |edits: &[(&str, Value)]| {
        let mut all = vec![
            (
                "/brief/room/openings/door",
                json!({ "kind": "door", "wall": 2, "from_m": 3.1, "width_m": 0.8, "swing": "out" }),
            ),
            (
                "/brief/room/furniture/cupboards",
                json!({ "kind": "cabinet", "position_m": [2.5, 4.1, 0], "size_m": [3.0, 1.0, 2.0], "fixed": true }),
            ),
        ];
        all.extend(edits.iter().cloned());
        plain_with(&all)
    };
    let barred = |plan: &Plan| {
        in_the_way(plan).into_iter().find(|f| f.id.to_string().starts_with("legal.way")).map(|f| f.sentence)
    };
    assert_eq!(barred(&with(&[])), None);
    let stand = json!({ "gear": "lamp", "role": "practical", "position_m": [0.5, 4.2, 1.6], "dim": 1,
        "support": { "kind": "floor", "gear": "stand", "sandbag_kg": 20 } });
    assert_eq!(
        barred(&with(&[("/layout/lights/practical", stand)])).as_deref(),
        Some("Lamp blocks the way from the door to the chair.")
    );
    let chest =
        json!({ "kind": "cabinet", "position_m": [0.5, 4.2, 0], "size_m": [0.9, 0.6, 1.0], "fixed": true });
    assert_eq!(barred(&with(&[("/brief/room/furniture/chest", chest)])), None, "it always stood there");
}

/// Depths through the seat by hand: the plain room is 4 x 5 m with the seat at (2, 1.5); a background further behind is
/// blurred more.
#[test]
fn the_ground_tells_depths_and_what_distance_buys() {
    let plan = plain_with(&[]);
    let ground = ground(&Corner::of(&plan).unwrap());
    let depth = |facing: &str| ground.depths.iter().find(|d| d.facing == facing).unwrap().depth_m;
    assert_close(depth("the front wall"), 5.0, 1e-9, 0.0, "5 m deep");
    assert_close(depth("the left wall"), 4.0, 1e-9, 0.0, "4 m wide");
    // To the front-right corner's bearing, atan(4 / 5): ahead to a side wall, back to the back wall.
    let angle = 0.8f64.atan();
    assert_close(
        depth("the front-right corner"),
        2.0 / angle.sin() + 1.5 / angle.cos(),
        1e-9,
        0.0,
        "diagonal",
    );
    assert!(ground.depths.windows(2).all(|d| d[0].depth_m >= d[1].depth_m));
    assert!(ground.bought.windows(2).all(|b| b[0].blur_percent <= b[1].blur_percent + 1e-12));
    assert_eq!(ground.bought.iter().filter(|b| b.now).count(), 1);
    // The key, 0.4 m across at (1.1, 2.4, 1.9), loses from the eyes (2, 1.5, 1.25) to a point behind them what the point
    // formula says, E ~ cos cos / d^2, but for the disc's size.
    let lit = |y: f64| {
        let (to_eyes, to_point) = ([0.9, -0.9, -0.65], [0.9, y - 2.4, -0.65]);
        let length = |v: [f64; 3]| (v[0] * v[0] + v[1] * v[1] + v[2] * v[2]).sqrt();
        let dot = (0..3).map(|i| to_eyes[i] * to_point[i]).sum::<f64>();
        dot / (length(to_eyes) * length(to_point)) * -to_point[1] / length(to_point).powi(3)
    };
    for one in &ground.bought {
        let stops = (lit(1.5) / lit(1.5 - one.behind_m)).log2();
        assert_close(one.separation_stops.unwrap(), stops, 0.0, 0.05, "separation");
    }
}

/// Every choice of every school is told; the chosen ones change nothing; what a choice says is what comes of choosing it.
#[test]
fn each_choice_tells_what_choosing_it_does() {
    let plan = demo();
    let all = choices(&plan);
    assert!(all.len() > 35);
    for effect in all.iter().filter(|e| e.chosen) {
        assert!(
            effect.changes.is_empty() && effect.comes.is_empty() && effect.goes.is_empty(),
            "{}",
            effect.school
        );
    }
    let wide = all.iter().find(|e| e.choice == "near-and-wide").unwrap();
    let mut other = plan.clone();
    other.brief.schools.lens = LensSchool::NearAndWide;
    let then = fogon_core::assess::without_moves(&other);
    assert_eq!(wide.ready, then.verdict.ready);
    assert_close(wide.score, then.score, 1e-12, 0.0, "score");
    assert!(wide.comes.iter().all(|sentence| then.findings.iter().any(|f| f.sentence == *sentence)));
}

/// The other purposes frame what they ask for: head and shoulders, or the performer with the instrument.
#[test]
fn purposes_frame_what_they_ask_for() {
    use fogon_core::person::landmarks;
    use fogon_core::shot::framing::wanted;
    let frame = |purpose: &str, width: Option<f64>| {
        let mut document = box_room();
        set(&mut document, "/brief/purpose", json!(purpose));
        set(&mut document, "/brief/person/stature_m", json!(1.75));
        set(&mut document, "/brief/person/instrument_width_m", json!(width));
        let file = brief(&document);
        wanted(&file.brief, &landmarks(1.75, Some(0.45)), 16.0 / 9.0)
    };
    // Head and shoulders at the eyes on the upper third: 0.2505 of stature (armpit, from memory).
    assert_close(frame("screen-lesson", None).frame_height_m, 0.2505 * 1.75, 1e-9, 0.0, "head and shoulders");
    // A keyboard 1.5 m wide decides by width: 1.5 / (16/9 x 0.9); a narrow instrument by height: crown 1.36 m to the lap
    // at 0.40 m over 1 - 0.08 - 0.02.
    assert_close(
        frame("performance", Some(1.75)).frame_height_m,
        1.75 / (16.0 / 9.0 * 0.9),
        1e-9,
        0.0,
        "by width",
    );
    assert_close(frame("performance", Some(0.6)).frame_height_m, 0.96 / 0.9, 1e-9, 0.0, "by height");
    // A landscape frame that survives its vertical cut holds the shoulders in 0.895 of 81/256 of its width: 0.900310 m.
    let mut document = box_room();
    set(&mut document, "/brief/person/stature_m", json!(1.75));
    set(&mut document, "/brief/recording", json!({ "vertical_cut": true }));
    let file = brief(&document);
    let want = wanted(&file.brief, &landmarks(1.75, Some(0.45)), 16.0 / 9.0);
    assert_close(want.frame_height_m, 0.900310, 1e-5, 0.0, "survives the cut");
}
