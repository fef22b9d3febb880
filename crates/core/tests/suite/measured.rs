//! A measured value belongs to the arrangement in which it was measured: it judges no other one, and what is set aside is told.

use fogon_core::arrange::{replaced, with_treatment};
use fogon_core::assess::choices::choices;
use fogon_core::money::free_moves;
use fogon_core::plan::{Layout, MeasuredId, Part, Plan, Point2, Point3, ThingId, still_known};
use fogon_core::reading::{Origin, Quantity};
use fogon_testkit::{assert_close, box_room, set};
use serde_json::{Value, json};

use crate::support::{best, brief, demo, furnished, plain_with, proposed, reading, value};

fn measured(readings: &Value) -> Value {
    let mut document = box_room();
    set(&mut document, "/brief/measured", readings.clone());
    document
}

fn ids(plan: &Plan) -> Vec<&str> {
    plan.brief.measured.keys().map(|id| id.0.as_str()).collect()
}

/// A microphone that was 1.5 m away once, and a face at 150 lx, judge no layout that the search finds; both are told as set
/// aside, the room's own value is not.
#[test]
fn what_was_measured_of_one_arrangement_judges_no_other() {
    let plain = proposed(&brief(&box_room()));
    for (id, value) in [
        ("sound.microphone.distance_m", 1.5),
        ("light.face.illuminance_lx", 150.0),
        ("light.face.ratio", 12.0),
    ] {
        let document = measured(&json!({ id: value, "room.mains.voltage_v": 228 }));
        let file = brief(&document);
        let found = proposed(&file);
        assert_eq!(found.set_aside, [id]);
        assert_eq!(found.proposals.len(), plain.proposals.len());
        for (proposal, other) in found.proposals.iter().zip(&plain.proposals) {
            assert_eq!((proposal.ready, proposal.score), (other.ready, other.score), "{id}");
            assert_eq!(proposal.plan.layout, other.plan.layout, "{id}");
            assert_eq!(ids(&proposal.plan), ["room.mains.voltage_v"]);
        }
    }
}

/// In the arrangement in which it was measured the value counts, and says so.
#[test]
fn in_its_own_arrangement_a_measured_value_counts() {
    let mut plan = demo();
    plan.brief.measured.insert(MeasuredId("sound.microphone.distance_m".into()), 0.9);
    let told = reading(&plan, "sound.microphone.distance_m");
    assert_eq!((told.value, told.from), (Some(0.9), Origin::Measured));
    // It stays where nothing that it belongs to is moved, and goes where something is.
    let stays = |edit: &dyn Fn(&mut Layout)| {
        let mut layout = plan.layout.clone();
        edit(&mut layout);
        ids(&plan.with_layout(layout)).len() == 1
    };
    assert!(stays(&|_| {}));
    assert!(stays(&|layout| layout.lights.clear()));
    assert!(stays(&|layout| layout.camera.iso = 800.0));
    assert!(!stays(&|layout| layout.microphone = None));
    assert!(!stays(&|layout| layout.seat.position_m = Point2([1.5, 1.0])));
    assert!(!stays(&|layout| {
        let used = layout.microphone.as_mut().unwrap();
        used.position_m = Point3([used.position_m.0[0] + 0.1, used.position_m.0[1], used.position_m.0[2]]);
    }));
}

/// A reverberation of 0.9 s is the bare room's: after panels are hung it is computed again and lies below.
#[test]
fn a_measured_reverberation_goes_with_the_panels() {
    let mut plan = furnished();
    plan.layout.treatment.clear();
    plan.brief.measured.insert(MeasuredId("sound.room.rt_mid_s".into()), 0.9);
    assert_eq!(value(&plan, "sound.room.rt_mid_s"), 0.9);
    let treated = with_treatment(&plan, "panel_50mm", 3.0, 2.4).unwrap_or_else(|problem| panic!("{problem}"));
    assert_eq!(ids(&treated), Vec::<&str>::new());
    let told = reading(&treated, "sound.room.rt_mid_s");
    assert_ne!(told.from, Origin::Measured);
    // What was measured still tells of the room without the panel.
    assert!((0.4..0.8).contains(&told.value.unwrap()), "{:?} after 0.9 s", told.value);
    // The panel on the shelf hung as a free move: no promise rests on the old value.
    for free in free_moves(&plan).moves {
        assert!(free.score_after >= free.score_before || free.cleared > 0, "{}", free.label);
    }
}

/// Placing anew judges layouts that nobody has measured; a school that changes the light makes what was measured of it untrue,
/// one that changes only how the picture is judged does not.
#[test]
fn placing_anew_and_another_light_set_measured_values_aside() {
    let mut plan = demo();
    let without = replaced(&plan).unwrap();
    plan.brief.measured.insert(MeasuredId("light.face.illuminance_lx".into()), 150.0);
    plan.brief.measured.insert(MeasuredId("sound.microphone.distance_m".into()), 1.5);
    let again = replaced(&plan).unwrap();
    assert_eq!(again.layout, without.layout);
    let left = |school: &str, choice: &str| {
        let mut brief = serde_json::to_value(&plan.brief).unwrap();
        set(&mut brief, "/schools", json!({ school: choice }));
        let other = plan.with_brief(serde_json::from_value(brief).unwrap());
        ids(&other).into_iter().map(str::to_owned).collect::<Vec<_>>()
    };
    assert_eq!(left("placement", "centred"), ["light.face.illuminance_lx", "sound.microphone.distance_m"]);
    assert_eq!(left("window", "key"), ["sound.microphone.distance_m"]);
    let told = choices(&plan);
    let window = told.iter().find(|effect| effect.choice == "key").unwrap();
    let light = window.changes.iter().find(|change| change.reading == "light.face.illuminance_lx");
    assert!(light.is_some_and(|change| change.from == Some(150.0) && change.to != Some(150.0)), "{window:?}");
}

/// Nobody can measure a computed stop: it is refused by name, as is a value that makes no sense.
#[test]
fn what_nobody_can_measure_is_refused() {
    let refused = |readings: Value| {
        let document = measured(&readings);
        let problems = fogon_core::plan::BriefFile::read(document.to_string().as_bytes()).unwrap_err().0;
        (problems[0].field.clone(), problems[0].accepted.clone())
    };
    for quantity in Quantity::ALL {
        let id = quantity.id().replace('*', "key");
        match quantity.measurable() {
            None => {
                let (field, accepted) = refused(json!({ &id: 0 }));
                assert_eq!(field, "brief.measured", "{id}");
                assert!(accepted.contains("sound.room.rt_mid_s"), "{id}: {accepted}");
            }
            Some(measurable) => {
                let (low, high) = measurable.range;
                for off in [low - 0.001 - 0.01 * low.abs(), high * 1.01] {
                    let (field, accepted) = refused(json!({ &id: off }));
                    assert_eq!(
                        (field, accepted),
                        (format!("brief.measured.{id}"), format!("{low} to {high}"))
                    );
                }
                brief(&measured(&json!({ &id: low.midpoint(high) })));
            }
        }
    }
    // Typed by hand, exposure would hide a face that is too bright.
    assert_eq!(refused(json!({ "light.face.exposure_stops": 0 })).0, "brief.measured");
    assert_eq!(refused(json!({ "sound.room.loudness": 1 })).0, "brief.measured");
}

/// Every part of a layout and of a brief that a value belongs to sets it aside, and no other part does.
#[test]
fn values_go_with_the_parts_that_they_belong_to() {
    let all = json!({
        "sound.room.rt_mid_s": 0.5, "sound.room.noise_dba": 30, "sound.microphone.distance_m": 0.5,
        "light.face.illuminance_lx": 300, "person.eye.height_m": 1.2, "shot.recording.card_min": 60, "room.mains.voltage_v": 229
    });
    let plan = {
        let mut document = serde_json::to_value(furnished()).unwrap();
        set(&mut document, "/brief/measured", all);
        crate::support::read(&document)
    };
    let light = "light.face.illuminance_lx";
    let (noise, rt) = ("sound.room.noise_dba", "sound.room.rt_mid_s");
    let distance = "sound.microphone.distance_m";
    let gone = |thing: &ThingId| -> Vec<String> {
        let mut layout = plan.layout.clone();
        let at = layout.part(thing).unwrap().position_m();
        layout.put_at(thing, at + fogon_core::geometry::DVec3::new(0.0, 0.05, 0.0));
        assert_ne!(layout, plan.layout, "{thing:?}");
        let other = plan.with_layout(layout);
        plan.brief.set_aside_in(&other.brief)
    };
    let things: Vec<ThingId> = plan.layout.parts().map(Part::id).collect();
    for thing in &things {
        let expected: &[&str] = match thing {
            ThingId::Seat => &[light, distance],
            ThingId::Camera => &[light],
            ThingId::Light(_) => &[light, noise],
            ThingId::Microphone => &[distance],
            // How the room rang with other things hung is kept.
            ThingId::Treatment(_) => &[noise],
            ThingId::Furniture(_) => &[light],
            ThingId::Screen | ThingId::Backdrop | ThingId::Angle(_) => &[],
            ThingId::Person | ThingId::Opening(_) | ThingId::Mains => {
                panic!("{thing:?} is no part of a layout")
            }
        };
        assert_eq!(gone(thing), expected, "{thing:?}");
    }
    // What is given changes as well: another wall colour, another chair.
    let mut repainted = plan.brief.clone();
    repainted.room.height_m += 0.1;
    let left = plan.with_brief(repainted);
    assert_eq!(
        ids(&left),
        ["person.eye.height_m", "room.mains.voltage_v", "shot.recording.card_min", distance]
    );
    let mut lower = plan.brief.clone();
    lower.person.seat_height_m = Some(0.40);
    assert!(!ids(&plan.with_brief(lower)).contains(&"person.eye.height_m"));
    // A value that was measured by the very change stays.
    let (mut before, mut after) = (plan.brief.clone(), plan.brief.clone());
    before.measured.insert(MeasuredId(rt.into()), 0.5);
    after.room.height_m += 0.1;
    after.measured.insert(MeasuredId(rt.into()), 0.7);
    let kept = still_known((&before, Some(&plan.layout)), (&after, Some(&plan.layout)));
    assert_close(kept.measured[&MeasuredId(rt.into())], 0.7, 0.0, 1e-12, "measured anew");
}

/// A corner with measured values still gets its layouts where the values hold whatever is moved.
#[test]
fn values_of_the_room_judge_every_candidate() {
    let plan = best(&measured(&json!({ "sound.room.rt_mid_s": 0.31 })));
    assert_eq!(value(&plan, "sound.room.rt_mid_s"), 0.31);
    let plan = plain_with(&[("/brief/measured", json!({ "sound.room.noise_dba": 41 }))]);
    assert_eq!(reading(&plan, "sound.room.noise_dba").from, Origin::Measured);
}

/// A time that was measured still tells how the room rings once panels hang in it, by Eyring's formula; taken down again, it is the
/// measured one.
#[test]
fn a_clap_outlives_what_is_hung() {
    let rt = "sound.room.rt_mid_s";
    let plan = plain_with(&[
        ("/brief/measured", json!({ rt: 1.2 })),
        (
            "/brief/gear/panel",
            json!({ "kind": "treatment", "label": "Panel", "material": "panel_50mm", "width_m": 1.2, "height_m": 0.6, "thickness_m": 0.05 }),
        ),
    ]);
    let mut hung = plan.layout.clone();
    hung.treatment = serde_json::from_value(
        json!({ "panel": { "gear": "panel", "on": "wall-1", "position_m": [4, 2, 1.4] } }),
    )
    .unwrap();
    let with = plan.with_layout(hung);
    assert!(with.brief.measured.is_empty() && with.brief.clap.as_ref().unwrap().rt_mid_s == 1.2);
    // 4 x 5 x 2.6 m: the absorption area that rings for 1.2 s, then with 0.72 m2 that take 0.5 to 1.1 of what comes, in place of
    // wall that takes next to nothing. Air is left out: it takes less than the tolerance.
    let (volume, surface, k) = (52.0, 86.8, 24.0 * 10f64.ln() / 343.0);
    let area = surface * (1.0 - (-k * volume / (surface * 1.2)).exp());
    let rings = |area: f64| k * volume / (-surface * (1.0 - area / surface).ln());
    let now = value(&with, rt);
    assert!((rings(area + 0.72 * 1.1)..rings(area + 0.72 * 0.5)).contains(&now), "{now}");
    assert_eq!(reading(&with, rt).from, Origin::Computed);
    let without = with.with_layout(plan.layout.clone());
    assert_close(value(&without, rt), 1.2, 1e-4, 0.0, "taken down again");
    // Who takes the value out by hand no longer trusts it.
    let mut taken_out = plan.brief.clone();
    taken_out.measured.clear();
    assert!(plan.with_brief(taken_out).brief.clap.is_none());
    // In another room it tells nothing.
    let mut higher = with.brief.clone();
    higher.room.height_m += 0.2;
    assert!(with.with_brief(higher).brief.clap.is_none());
    // It is checked like any measured value.
    let mut wrong = with.brief.clone();
    wrong.clap.as_mut().unwrap().rt_mid_s = 40.0;
    let problems = wrong.check_with(None).unwrap_err();
    assert_eq!(problems.0[0].field, "brief.clap.rt_mid_s");
}
