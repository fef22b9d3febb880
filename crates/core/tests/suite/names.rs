//! Ids, labels and units are words: whatever a person calls a thing, no number, no choice and no other thing changes by it.

use fogon_core::assess::{Assessment, without_moves};
use fogon_core::card::card;
use fogon_core::corner::Corner;
use fogon_core::geometry::DVec3;
use fogon_core::hand::{handles, moved};
use fogon_core::money::free_moves;
use fogon_core::plan::{Part, Plan, ThingId, thing_named};
use fogon_testkit::{BOX_ROOM, any_brief, set};
use proptest::prelude::*;
use serde_json::{Value, json};

use crate::hand::to;
use crate::support::{bought_among, brief, demo, furnished, proposed, read};

/// Ids that a person may choose: our own names for things, kinds of things, words of ours with a hyphen, plain ones.
fn id() -> impl Strategy<Value = String> {
    prop_oneof![
        prop::sample::select(vec![
            "seat",
            "camera",
            "microphone",
            "screen",
            "backdrop",
            "person",
            "mains",
            "monitor",
            "key",
            "fill",
            "back",
            "light",
            "furniture",
            "angle",
            "treatment",
            "light-camera",
            "camera-light",
            "floor",
            "ceiling",
            "wall-0",
            "body",
            "missing",
        ])
        .prop_map(str::to_owned),
        "[a-z][a-z0-9-]{0,8}[a-z0-9]",
    ]
}

/// What a judgement says beside names: quantities with their values, the score, how much each finding matters.
#[derive(Debug, PartialEq)]
struct Numbers {
    readings: Vec<(String, Option<f64>)>,
    score: f64,
    found: Vec<(String, bool)>,
}

/// Readings and score without the names in their ids, and what is found, sorted.
fn numbers(judged: &Assessment) -> Numbers {
    let quantity =
        |reading: &fogon_core::reading::Reading| (reading.id.quantity.id().to_owned(), reading.value);
    let mut readings: Vec<_> = judged.readings.iter().map(quantity).collect();
    readings.sort_by(|a, b| a.0.cmp(&b.0).then(a.1.partial_cmp(&b.1).unwrap()));
    let mut found: Vec<_> =
        judged.findings.iter().map(|f| (format!("{:?}", f.severity), f.caution.is_some())).collect();
    found.sort();
    Numbers { readings, score: judged.score, found }
}

/// The furnished plan with the ids of its lights, its second angle, its panel and its shelf chosen anew.
fn renamed(ids: &[String; 5]) -> Plan {
    let mut document = serde_json::to_value(furnished()).unwrap();
    let mut rename = |holder: &str, from: &str, to: &str| {
        let map = document.pointer_mut(holder).unwrap().as_object_mut().unwrap();
        let value = map.remove(from).unwrap();
        map.insert(to.to_owned(), value);
    };
    let [key, fill, side, panel, shelf] = ids;
    // By way of names that no one has, so that neither takes the other's place.
    for (from, to) in [("key", "first_"), ("fill", "second_"), ("first_", key), ("second_", fill)] {
        rename("/layout/lights", from, to);
    }
    rename("/layout/angles", "side", side);
    rename("/layout/treatment", "panel", panel);
    rename("/brief/room/furniture", "shelf", shelf);
    rename("/layout/furniture", "shelf", shelf);
    read(&document)
}

/// Lights are told in the order of their ids, and each alone: the same plan with two names keeps their order.
fn ids() -> impl Strategy<Value = [String; 5]> {
    ([id(), id(), id(), id(), id()])
        .prop_filter("two lights need two names, in the old order", |ids| ids[0] > ids[1])
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 40, ..ProptestConfig::default() })]

    /// Whatever things are called, the corner is judged the same, every thing has a name of its own in answers, and that name
    /// leads back to it: in handles, in moves by hand, in pointers.
    #[test]
    fn no_id_is_taken_for_one_of_ours(ids in ids()) {
        let plan = renamed(&ids);
        prop_assert_eq!(numbers(&without_moves(&plan)), numbers(&without_moves(&furnished())), "{:?}", ids);
        let corner = Corner::of(&plan).unwrap();
        let things: Vec<ThingId> = plan.layout.parts().map(Part::id).collect();
        let names: Vec<String> = things.iter().map(|thing| corner.name(thing)).collect();
        for (index, (thing, name)) in things.iter().zip(&names).enumerate() {
            prop_assert!(!names[..index].contains(name), "{name} stands twice in {names:?}");
            let found = thing_named(&plan.brief, &plan.layout, name);
            prop_assert_eq!(found.as_ref(), Some(thing), "{}", name);
        }
        let all = handles(&plan);
        prop_assert!(names.iter().all(|name| all.iter().filter(|handle| handle.id == *name).count() == 1));
        let document = serde_json::to_value(&plan).unwrap();
        for handle in all.iter().filter(|handle| handle.pointer.starts_with('/')) {
            let at = document.pointer(&format!("/layout{}", handle.pointer));
            prop_assert!(at.is_some(), "{} leads nowhere", handle.pointer);
        }
        // Findings name things that are there.
        let judged = without_moves(&plan);
        for finding in judged.findings.iter().map(|f| f.id.to_string()).filter(|id| id.starts_with("legal.")) {
            let name = finding.rsplit('.').next().unwrap();
            let openings = plan.brief.room.openings.keys().any(|id| id.0 == name);
            prop_assert!(openings || ["mains", "person"].contains(&name) || names.iter().any(|own| own == name), "{finding}");
        }
    }

    /// A hand takes hold of each thing by its own name and moves that one alone, up to what is carried along.
    #[test]
    fn a_hand_moves_the_thing_it_names(ids in ids(), which in any::<prop::sample::Index>()) {
        let plan = renamed(&ids);
        let corner = Corner::of(&plan).unwrap();
        // The camera and the seat take others along.
        let alone = |thing: &ThingId| !matches!(thing, ThingId::Seat | ThingId::Camera);
        let things: Vec<ThingId> = plan.layout.parts().map(Part::id).filter(alone).collect();
        let thing = which.get(&things);
        let name = corner.name(thing);
        let at = plan.layout.part(thing).unwrap().position_m();
        let by = if matches!(thing, ThingId::Treatment(_)) { DVec3::new(0.0, 0.2, 0.0) } else { DVec3::new(0.02, 0.03, 0.0) };
        let wanted = (at + by).to_array();
        let after = moved(&plan, &fogon_core::hand::Move { anyway: true, ..to(&name, wanted) })
            .unwrap_or_else(|problems| panic!("{name}: {problems}"))
            .plan;
        prop_assert_eq!(plan.layout.differs(&after.layout), vec![thing.clone()], "{}", name);
        prop_assert!((after.layout.part(thing).unwrap().position_m() - at - by).length() < 2e-3);
        // Locked, it is not moved.
        let mut locked = serde_json::to_value(&plan).unwrap();
        set(&mut locked, &format!("/layout{}/locked", thing.pointer().unwrap()), json!(true));
        let refused = moved(&read(&locked), &to(&name, wanted)).unwrap_err();
        prop_assert!(refused.0[0].accepted.contains("not locked"), "{}", refused);
    }
}

/// Labels that say what they are not.
const LABELS: [&str; 5] =
    ["Wireless, 3 kg, 2.4 m", "Key", "Camera", "f/1.8 XLR phone webcam softbox", "\u{1f600} \"'<>&"];

/// The document with other labels of gear, in turn.
fn relabelled(document: &Value, labels: &[&str]) -> Value {
    let mut other = document.clone();
    let gear = other.pointer_mut("/brief/gear").unwrap().as_object_mut().unwrap();
    gear.values_mut().zip(labels.iter().cycle()).for_each(|(thing, label)| thing["label"] = json!(label));
    other
}

/// Nothing is read out of a label: the same layout is found and judged the same, and the same is bought.
#[test]
fn labels_are_words_only() {
    let document: Value = serde_json::from_str(BOX_ROOM).unwrap();
    let file = brief(&document);
    let found = proposed(&file);
    let bought = |plan: &Plan| -> Vec<String> {
        let advice = bought_among(plan, plan.brief.money.budget, |gear| gear.light().is_some());
        advice.kit.into_iter().map(|item| item.id).collect()
    };
    let before = bought(&found.proposals[0].plan);
    // In turn, from another one on, and one for everything.
    for labels in [&LABELS[..], &LABELS[2..], &LABELS[1..2]] {
        let other = proposed(&brief(&relabelled(&document, labels)));
        assert_eq!(other.proposals.len(), found.proposals.len(), "{labels:?}");
        for (a, b) in found.proposals.iter().zip(&other.proposals) {
            assert_eq!((&a.plan.layout, a.score, a.ready), (&b.plan.layout, b.score, b.ready), "{labels:?}");
        }
        let (a, b) = (card(&found.proposals[0].plan).unwrap(), card(&other.proposals[0].plan).unwrap());
        assert_eq!(
            a.marks.iter().map(|m| m.at_m).collect::<Vec<_>>(),
            b.marks.iter().map(|m| m.at_m).collect::<Vec<_>>()
        );
        assert_eq!(a.cables.len(), b.cables.len(), "{labels:?}");
        if labels == LABELS {
            assert_eq!(bought(&other.proposals[0].plan), before);
        }
    }
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 2, max_shrink_iters: 10, ..ProptestConfig::default() })]

    /// Feet and inches change words alone: the same layouts, readings, scores and moves.
    #[test]
    fn units_are_words_only(document in any_brief()) {
        let in_units = |units: &str| {
            let mut document = document.clone();
            set(&mut document, "/brief/units", json!(units));
            // Mains that nobody told follow the units: here they are told.
            set(&mut document, "/brief/room/mains", json!({ "voltage_v": 230, "frequency_hz": 50, "breaker_a": 16 }));
            proposed(&brief(&document))
        };
        let (metric, imperial) = (in_units("metric"), in_units("imperial"));
        prop_assert_eq!(metric.proposals.len(), imperial.proposals.len());
        for (a, b) in metric.proposals.iter().zip(&imperial.proposals) {
            prop_assert_eq!(&a.plan.layout, &b.plan.layout);
            prop_assert_eq!(numbers(&without_moves(&a.plan)), numbers(&without_moves(&b.plan)));
        }
        let rules = |obstacles: &[fogon_core::arrange::Obstacle]| obstacles.iter().map(|o| (o.rule, o.lacking)).collect::<Vec<_>>();
        prop_assert_eq!(rules(&metric.obstacles), rules(&imperial.obstacles));
    }
}

/// On the demo every move and every purchase is the same in either system.
#[test]
fn the_demos_changes_do_not_depend_on_units() {
    let mut document = serde_json::to_value(demo()).unwrap();
    let metric = free_moves(&read(&document));
    set(&mut document, "/brief/units", json!("imperial"));
    let imperial = free_moves(&read(&document));
    assert_eq!(metric.score_now, imperial.score_now);
    let moves = |found: &fogon_core::money::FreeMoves| {
        found.moves.iter().map(|step| step.patch.clone()).collect::<Vec<_>>()
    };
    assert_eq!(moves(&metric), moves(&imperial));
}
