//! Against the echo: what is advised helps as it says, what is hung hangs where it fits and does what the table says, by hand
//! and by search; the same corner in another way; the schools of microphones; the way into a file.

use fogon_core::arrange::{Variant, varied, with_treatment};
use fogon_core::corner::Corner;
use fogon_core::drawing::{Area, FieldOf, Ink, draw, draw_field, draw_sound};
use fogon_core::geometry::DVec3;
use fogon_core::hand::moved;
use fogon_core::material::material;
use fogon_core::plan::Plan;
use fogon_core::sound::absorption::Absorption;
use fogon_core::sound::choices::{MicrophoneKind, choices};
use fogon_core::sound::record::{RecordPath, record};
use fogon_core::sound::reflections;
use fogon_core::sound::seen::seen;
use fogon_core::sound::treatment::advice;
use fogon_testkit::{any_brief, assert_close, box_room, set};
use proptest::prelude::*;
use serde_json::{Value, json};

use crate::support::{best, bought_among, brief, demo, plain_with, proposed, read, value};

/// A bare room of known surfaces.
fn bare() -> Plan {
    let hard = |name: &str| (name.to_owned(), json!({ "material": "rendered_brick" }));
    let mut surfaces: serde_json::Map<String, Value> =
        ["wall-0", "wall-1", "wall-2", "wall-3"].map(hard).into_iter().collect();
    surfaces.insert("floor".into(), json!({ "material": "wood_floor" }));
    surfaces.insert("ceiling".into(), json!({ "material": "plasterboard_cavity" }));
    plain_with(&[("/brief/room/surfaces", Value::Object(surfaces))])
}

/// Every thing that is hung lies wholly on its surface, clear of doors, windows and the others.
fn check_hung(plan: &Plan) {
    let room = &plan.brief.room;
    let mut taken: Vec<(String, [f64; 2], [f64; 2])> = Vec::new();
    for opening in room.openings.values() {
        let low = opening.sill_m.unwrap_or(if opening.kind == fogon_core::plan::OpeningKind::Door {
            0.0
        } else {
            0.9
        });
        let high = low + opening.height_m.unwrap_or(if low == 0.0 { 2.0 } else { 1.2 });
        taken.push((
            format!("wall-{}", opening.wall),
            [opening.from_m, low],
            [opening.from_m + opening.width_m, high],
        ));
    }
    for (id, one) in &plan.layout.treatment {
        let gear = plan.brief.gear[&one.gear].treatment().unwrap();
        let plane = room.surface(&one.on.0).unwrap();
        let size = one.size_m(gear);
        let at = DVec3::from(one.position_m) - plane.corner_m;
        assert!(at.dot(plane.normal).abs() < 0.01, "{id} is {} m off its surface", at.dot(plane.normal));
        let flat = [at.dot(plane.axes[0]), at.dot(plane.axes[1])];
        let low: [f64; 2] = std::array::from_fn(|i| flat[i] - size[i] / 2.0);
        let high: [f64; 2] = std::array::from_fn(|i| flat[i] + size[i] / 2.0);
        for i in 0..2 {
            assert!(low[i] > -0.01 && high[i] < plane.size_m[i] + 0.01, "{id} sticks out: {low:?} {high:?}");
        }
        for (on, from, to) in &taken {
            let apart = (0..2).any(|i| high[i] <= from[i] + 0.01 || low[i] >= to[i] - 0.01);
            assert!(apart || *on != one.on.0, "{id} covers something on {on}");
        }
        taken.push((one.on.0.clone(), low, high));
    }
}

/// Each step of the advice, hung by a press, shortens the room by about what it says; together they reach the target, each
/// gains less than the one before of its kind would alone.
#[test]
fn advice_holds_when_it_is_followed() {
    let plan = bare();
    let corner = Corner::of(&plan).unwrap();
    let told = advice(&corner, &Absorption::of(&corner));
    assert!(told.rt_mid_s > 0.8 && told.steps.len() >= 3, "{}", told.rt_mid_s);
    let mut now = plan.clone();
    for step in &told.steps {
        let side = step.area_m2.sqrt();
        let Ok(next) = with_treatment(&now, &step.material, step.area_m2 / side, side) else { break };
        check_hung(&next);
        let before = value(&now, "sound.room.rt_mid_s");
        let after = value(&next, "sound.room.rt_mid_s");
        assert!(after < before, "{}", step.label);
        assert_close(before - after, step.gain_s, 0.25, 0.03, &step.label);
        let gained = step.sti_gain.unwrap();
        let sti = |plan: &Plan| value(plan, "sound.microphone.speech_transmission_index");
        assert_close(sti(&next) - sti(&now), gained, 0.3, 0.015, &step.label);
        now = next;
    }
    assert!(now.layout.treatment.len() >= 2);
    // An area that alone reaches the target does so.
    for alone in told.alone.iter().filter(|one| one.area_m2.is_some()) {
        assert_close(alone.reaches_s, told.target_s, 0.12, 0.0, &alone.label);
    }
    // First the wall that the voice is aimed at; the ceiling with its caution.
    assert!(told.places[0].sentence.contains("behind the camera"));
    assert!(told.places.iter().all(|p| p.surface != "ceiling" || p.sentence.contains("safety")));
    // A room that is soft already lacks nothing.
    let soft = ["wall-0", "wall-1", "wall-2", "wall-3", "floor", "ceiling"]
        .map(|name| (name.to_owned(), json!({ "material": "curtain_heavy" })));
    let soft = plain_with(&[("/brief/room/surfaces", Value::from_iter(soft))]);
    let told = {
        let corner = Corner::of(&soft).unwrap();
        advice(&corner, &Absorption::of(&corner))
    };
    assert!(told.missing_m2 == 0.0 && told.steps.is_empty());
}

/// Absorption by hand: what hangs takes its area from the wall and gives its row; a rug, a curtain over a part, glazing.
#[test]
fn what_hangs_absorbs_as_the_table_says() {
    let plan = bare();
    let hung = with_treatment(&plan, "panel_50mm", 2.0, 1.2).unwrap();
    let total = |plan: &Plan| Absorption::of(&Corner::of(plan).unwrap()).total_m2();
    let row = |id: &str| material(id).unwrap().absorption;
    for band in 0..6 {
        let more = 2.4 * (row("panel_50mm")[band] - row("rendered_brick")[band]);
        assert_close(total(&hung)[band] - total(&plan)[band], more, 1e-9, 1e-9, "panel");
    }
    let mut rug = serde_json::to_value(&plan).unwrap();
    set(&mut rug, "/brief/room/surfaces/floor/cover_material", json!("rug"));
    set(&mut rug, "/brief/room/surfaces/floor/cover_part", json!(0.25));
    let rug = read(&rug);
    for band in 0..6 {
        // At low tones the boards under it still give.
        let over = if band < 2 { row("rug")[band].max(row("wood_floor")[band]) } else { row("rug")[band] };
        assert_close(
            total(&rug)[band] - total(&plan)[band],
            5.0 * (over - row("wood_floor")[band]),
            1e-9,
            1e-9,
            "rug",
        );
    }
    // Where the voice hits it, the panel throws less back than the wall did.
    let level = |plan: &Plan| {
        let corner = Corner::of(plan).unwrap();
        let on = &plan.layout.treatment.values().next().map_or("wall-2".to_owned(), |one| one.on.0.clone());
        seen(&corner).reflections.iter().find(|r| r.surface == *on).map(|r| r.level_db)
    };
    if let (Some(with), Some(without)) = (level(&hung), level(&plan)) {
        assert!(with < without - 3.0, "{with} against {without}");
    }
    // A measured time is met by what everything else is told from.
    let mut measured = serde_json::to_value(&plan).unwrap();
    set(&mut measured, "/brief/measured", json!({"sound.room.rt_mid_s": 0.6}));
    let absorption = Absorption::of(&Corner::of(&read(&measured)).unwrap());
    assert_close(absorption.rt_mid_s(), 0.6, 0.03, 0.0, "measured");
}

#[test]
fn a_hand_slides_it_along_and_round_the_walls() {
    let plan = with_treatment(&bare(), "blanket_pleated", 1.5, 1.2).unwrap();
    let id = plan.layout.treatment.keys().next().unwrap().clone();
    let to = |plan: &Plan, at: [f64; 3]| {
        let by = crate::hand::to(&id.0, at);
        moved(plan, &by).unwrap().plan
    };
    for (at, wall, lies) in [
        ([0.2, 2.5, 1.0], "wall-3", [0.0, 2.5, 1.0]),
        ([3.95, 4.5, 2.5], "wall-1", [4.0, 4.25, 2.0]),
        ([2.0, 0.1, 0.1], "wall-0", [2.0, 0.0, 0.6]),
    ] {
        let next = to(&plan, at);
        let one = &next.layout.treatment[&id];
        assert_eq!(one.on.0, wall);
        for (got, want) in one.position_m.0.iter().zip(lies) {
            assert_close(*got, want, 0.0, 0.011, wall);
        }
        check_hung(&next);
    }
    // What a hand hung without owning it stays when lights and microphone are placed anew and something owned is hung.
    let mut owning = serde_json::to_value(&plan).unwrap();
    set(
        &mut owning,
        "/brief/gear/wool",
        json!({"kind": "treatment", "label": "Wool", "material": "panel_50mm", "width_m": 1.2, "height_m": 0.6, "state": "owned"}),
    );
    let anew = fogon_core::arrange::replaced(&read(&owning)).unwrap();
    assert!(anew.layout.treatment.contains_key(&id) && anew.layout.treatment.len() == 2);
    check_hung(&anew);
    // Locked, it stays.
    let mut locked = serde_json::to_value(&plan).unwrap();
    set(&mut locked, &format!("/layout/treatment/{}/locked", id.0), json!(true));
    let by = json!({"plan": locked, "move": {"thing": id.0, "to_m": [0.2, 2.5, 1.0]}});
    let asked: fogon_core::hand::MoveIn = serde_json::from_value(by).unwrap();
    assert!(moved(&asked.plan, &asked.by).is_err());
    // Off its wall, on no wall, of no row: refused by name.
    for (pointer, bad, field) in [
        ("position_m", json!([2.0, 2.0, 1.0]), "layout.treatment"),
        ("on", json!("wall-9"), "layout.treatment"),
        ("gear", json!("lamp"), "layout.treatment"),
    ] {
        let mut spoilt = serde_json::to_value(&plan).unwrap();
        set(&mut spoilt, &format!("/layout/treatment/{}/{pointer}", id.0), bad);
        let problems = Plan::read(spoilt.to_string().as_bytes()).unwrap_err();
        assert!(problems.0[0].field.starts_with(field), "{problems}");
    }
    assert!(
        with_treatment(&plan, "velvet", 1.0, 1.0).is_err()
            && with_treatment(&plan, "rug", 11.0, 1.0).is_err()
    );
    assert!(with_treatment(&plan, "panel_50mm", 5.1, 2.5).is_err(), "no wall is so long");
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(3))]

    /// What is on the shelf is hung in every room that fits, where it fits; the time is shorter than without.
    #[test]
    fn a_search_hangs_what_is_at_hand(document in any_brief()) {
        let mut with = document.clone();
        for (id, row, width, height) in [("blankets", "blanket_pleated", 1.4, 1.2), ("mat", "rug", 1.2, 0.9), ("panel", "panel_50mm", 0.6, 1.2)] {
            set(&mut with, &format!("/brief/gear/{id}"), json!({"kind": "treatment", "label": id, "material": row, "width_m": width, "height_m": height, "state": "owned"}));
        }
        let found = proposed(&brief(&with)).proposals;
        for proposal in &found {
            check_hung(&proposal.plan);
            prop_assert!(proposal.plan.layout.treatment.len() >= 2, "{:?}", proposal.plan.layout.treatment.keys());
        }
        if let (Some(with), Some(without)) = (found.first(), proposed(&brief(&document)).proposals.first()) {
            prop_assert!(value(&with.plan, "sound.room.rt_mid_s") < value(&without.plan, "sound.room.rt_mid_s"));
        }
    }
}

/// Side by side: nearer schools are clearer, everyone has a place, and each can be heard in place of the plan's.
#[test]
fn schools_of_microphones_stand_side_by_side() {
    let plan = demo();
    let corner = Corner::of(&plan).unwrap();
    let all = choices(&corner, &Absorption::of(&corner));
    assert_eq!(all.len(), 7);
    assert_eq!(all.iter().filter(|choice| choice.chosen).count(), 1);
    let of = |kind: MicrophoneKind| all.iter().find(|choice| choice.kind == kind).unwrap();
    assert!(all.windows(2).all(|pair| pair[0].sti >= pair[1].sti));
    assert!(of(MicrophoneKind::Headset).distance_m < of(MicrophoneKind::Lavalier).distance_m);
    assert!(
        of(MicrophoneKind::OnCamera).direct_to_reverberant_db
            < of(MicrophoneKind::Boom).direct_to_reverberant_db - 6.0
    );
    assert!(
        of(MicrophoneKind::BuiltIn).sti < of(MicrophoneKind::Boom).sti
            && !of(MicrophoneKind::Boom).in_picture
    );
    // The distance factors of Eargle's table: round 1, hypercardioid 2.
    assert_close(of(MicrophoneKind::Lavalier).distance_factor, 1.0, 1e-9, 0.0, "round");
    assert!((1.9..2.2).contains(&of(MicrophoneKind::Boom).distance_factor));
    for variant in [
        Variant::Planned,
        Variant::BuiltIn,
        Variant::OnCamera,
        Variant::BoomShotgun,
        Variant::Boom,
        Variant::Lavalier,
        Variant::Desk,
        Variant::Headset,
        Variant::Bare,
        Variant::Treated,
    ] {
        let other = varied(&plan, variant).unwrap();
        other.check().unwrap();
        assert!(Corner::of(&other).is_some());
        assert_eq!(
            other == plan,
            matches!(variant, Variant::Planned | Variant::Boom | Variant::Bare),
            "{variant:?}"
        );
    }
    let treated = varied(&plan, Variant::Treated).unwrap();
    assert!(!treated.layout.treatment.is_empty());
    assert!(value(&treated, "sound.room.rt_mid_s") < value(&plan, "sound.room.rt_mid_s"));
}

/// The drawings' ways: reflection points on the surfaces, lengths as the mirror says, the circle where voice and room are
/// equally loud.
#[test]
fn ways_of_the_voice_are_drawn_where_they_go() {
    let plan = demo();
    let corner = Corner::of(&plan).unwrap();
    let drawing = draw(&plan).unwrap();
    let sheets = draw_sound(&plan, &drawing).unwrap();
    let hits = reflections::first(&corner);
    assert!(hits.len() >= 3, "{:?}", hits.iter().map(|hit| &hit.surface).collect::<Vec<_>>());
    let walls = hits.iter().filter(|hit| hit.surface.starts_with("wall")).count();
    let echoes =
        |strokes: &[fogon_core::drawing::Stroke]| strokes.iter().filter(|s| s.ink == Ink::Echo).count();
    assert_eq!(echoes(&sheets.plan), walls);
    assert!(echoes(&sheets.side) >= 1 && sheets.side.iter().any(|s| s.ink == Ink::KeepOut));
    for stroke in sheets.plan.iter().filter(|s| s.ink == Ink::Echo) {
        let hit = hits.iter().find(|hit| Some(&hit.surface) == stroke.thing.as_ref()).unwrap();
        let [a, b, c] = stroke.points[..] else { panic!("three points") };
        let long = (a[0] - b[0]).hypot(a[1] - b[1]) + (b[0] - c[0]).hypot(b[1] - c[1]);
        let rise = (corner.microphone.unwrap().1.z - corner.mouth_m.z).abs();
        assert_close(long.hypot(rise), hit.path_m, 0.0, 0.01, &hit.surface);
    }
    // On the circle the chart has voice and room alike.
    let chart = seen(&corner).chart;
    let radius = chart.critical_distance_m;
    let near = chart
        .points
        .iter()
        .min_by(|a, b| (a.distance_m - radius).abs().total_cmp(&(b.distance_m - radius).abs()));
    let near = near.unwrap();
    assert!(
        (near.direct_dba - near.reverberant_dba - 20.0 * (radius / near.distance_m).log10()).abs() < 0.05
    );
    // The field's edge at 0 dB is there too, as far as the mouth speaks that way; each area lies within the one before.
    let field = draw_field(&plan, &drawing, FieldOf::Sound, true).unwrap();
    let projection = drawing.plan.projection.unwrap();
    let off = corner.mouth_m - DVec3::from(projection.origin_m);
    let mouth = [projection.right, projection.down].map(|axis| DVec3::from(axis).dot(off));
    let reach = |area: &Area| {
        let points = area.rings.iter().flatten();
        points
            .map(|p| (p[0] - mouth[0]).hypot(p[1] - mouth[1]))
            .fold((f64::INFINITY, 0.0), |(low, high), r| (r.min(low), r.max(high)))
    };
    let edges: Vec<(f64, f64)> = field.plan.iter().map(reach).collect();
    assert_eq!(field.plan[0].level, 0.0);
    assert!(edges[0].0 < 1.1 * radius && edges[0].1 > 0.9 * radius, "{:?} about {radius}", edges[0]);
    // Least behind the head, most ahead: speech is directional.
    assert!(edges[0].1 > 1.5 * edges[0].0, "{:?}", edges[0]);
    assert!(edges.windows(2).all(|pair| pair[1].1 < pair[0].1), "{edges:?}");
    // What hangs is drawn on both sheets where it shows.
    let hung = with_treatment(&plan, "panel_50mm", 1.2, 0.6).unwrap();
    assert!(draw(&hung).unwrap().plan.strokes.iter().any(|s| s.ink == Ink::Treatment));
}

#[test]
fn the_way_into_a_file_is_told_with_what_fails_silently() {
    let plan = demo();
    let told = record(&Corner::of(&plan).unwrap());
    assert!(
        told.before_each_take.len() >= 4
            && told.before_each_take.iter().any(|line| line.contains("gain off"))
    );
    // Down the stand, along the floor, up to the camera: longer than the straight line, not round the room.
    let corner = Corner::of(&plan).unwrap();
    let straight = (corner.microphone.unwrap().1 - corner.view.position_m).length();
    let cable = told.cable_m.unwrap();
    assert!(cable > straight + 1.0 && cable < straight + 6.0, "{cable} for {straight}");
    let mut apart = serde_json::to_value(&plan).unwrap();
    set(&mut apart, "/brief/schools/record", json!("separate"));
    set(&mut apart, "/brief/recording", json!({"session_min": 60}));
    set(
        &mut apart,
        "/brief/gear/recorder",
        json!({"kind": "recorder", "label": "Field recorder", "offers": ["xlr-input"], "state": "owned", "gain_max_db": 20}),
    );
    let apart = read(&apart);
    let told = record(&Corner::of(&apart).unwrap());
    assert_eq!(told.path, RecordPath::Recorder);
    // 20 parts in a million over an hour are 72 ms.
    assert_close(told.drift_ms.unwrap(), 72.0, 1e-9, 0.0, "drift");
    assert!(told.before_each_take.iter().any(|line| line.contains("clap")));
    let findings = fogon_core::assess::without_moves(&apart).findings;
    assert!(findings.iter().any(|f| f.id == "sound.record.drift"));
    assert!(findings.iter().any(|f| f.id == "sound.microphone.gain_db"), "20 dB are too little");
    // A loud noise is named with what to do.
    let mut loud = serde_json::to_value(&plan).unwrap();
    set(
        &mut loud,
        "/brief/room/noises",
        json!({"old-fan": {"kind": "fan", "position_m": [1.5, 1.5, 0.5], "level_1m_dba": 62, "can_stop": true}}),
    );
    let findings = fogon_core::assess::without_moves(&read(&loud)).findings;
    let noisy = findings.iter().find(|f| f.id == "sound.microphone.snr_db").unwrap();
    assert!(noisy.advice.contains("Stop the old fan"), "{}", noisy.advice);
    // Money goes to the echo of a room that was told.
    let echoing = {
        let mut room = box_room();
        for name in ["wall-0", "wall-1", "wall-2", "wall-3", "floor", "ceiling"] {
            set(&mut room, &format!("/brief/room/surfaces/{name}"), json!({"material": "rendered_brick"}));
        }
        set(&mut room, "/brief/room/surfaces/floor", json!({"material": "carpet_on_felt"}));
        set(&mut room, "/brief/money", json!({"budget": 100, "currency": "EUR"}));
        best(&room)
    };
    let bought = bought_among(&echoing, 100.0, |gear| gear.treatment().is_some() || gear.support().is_some());
    let catalogue = &fogon_core::money::Catalogue::of_fogon().offers;
    let against = bought.kit.iter().filter(|item| catalogue[item.id.as_str()].gear.treatment().is_some());
    assert!(against.count() >= 1, "{:?}", bought.kit);
}

/// Noises, covers, things to hang and figures of inputs that make no sense are refused at their field; those that do are read
/// back the same.
#[test]
fn what_contradicts_itself_is_refused_at_its_field() {
    let plain = serde_json::to_value(demo()).unwrap();
    let panel = json!({"kind": "treatment", "label": "Panel", "material": "panel_50mm", "width_m": 1.2, "height_m": 0.6});
    for (pointer, bad, field) in [
        (
            "/brief/room/noises/fan",
            json!({"kind": "fan", "position_m": [9.0, 1.0, 1.0]}),
            "brief.room.noises.fan.position_m",
        ),
        (
            "/brief/room/noises/fan",
            json!({"kind": "fan", "position_m": [1.0, 1.0, 5.0]}),
            "brief.room.noises.fan.position_m[2]",
        ),
        ("/brief/room/noises/fan", json!({"kind": "drum"}), "brief.room.noises.fan.kind"),
        (
            "/brief/room/noises/fan",
            json!({"kind": "fan", "level_1m_dba": 140}),
            "brief.room.noises.fan.level_1m_dba",
        ),
        (
            "/brief/room/surfaces/floor/cover_material",
            json!("moss"),
            "brief.room.surfaces.floor.cover_material",
        ),
        ("/brief/room/surfaces/floor/cover_part", json!(1.5), "brief.room.surfaces.floor.cover_part"),
        ("/brief/room/openings/window/glazing", json!("triple"), "brief.room.openings.window.glazing"),
        ("/brief/person/voice", json!("shouted"), "brief.person.voice"),
        (
            "/brief/gear/wool",
            json!({"kind": "treatment", "label": "P", "material": "moss", "width_m": 1, "height_m": 1}),
            "brief.gear.wool.material",
        ),
        (
            "/brief/gear/wool",
            json!({"kind": "treatment", "label": "P", "material": "rug", "width_m": 0, "height_m": 1}),
            "brief.gear.wool.width_m",
        ),
        (
            "/layout/treatment/panel",
            json!({"gear": "none", "on": "wall-0", "position_m": [1, 0, 1]}),
            "layout.treatment.panel.gear",
        ),
    ] {
        let mut spoilt = plain.clone();
        set(&mut spoilt, pointer, bad);
        let problems = Plan::read(spoilt.to_string().as_bytes()).unwrap_err();
        assert!(problems.0.iter().any(|p| p.field == field), "{field}: {problems}");
    }
    let mut whole = plain;
    set(&mut whole, "/brief/gear/wool", panel);
    set(
        &mut whole,
        "/layout/treatment/panel",
        json!({"gear": "wool", "on": "wall-2", "position_m": [1.0, 2.9, 1.4], "turned": true}),
    );
    set(&mut whole, "/brief/room/noises", json!({"road": {"kind": "street", "level_1m_dba": 62}}));
    set(&mut whole, "/brief/person/voice", json!("raised"));
    let plan = read(&whole);
    assert_eq!(Plan::read(serde_json::to_string(&plan).unwrap().as_bytes()).unwrap(), plan);
    check_hung(&plan);
}
