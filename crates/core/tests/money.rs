//! What to change: free moves cost nothing and gain, purchases are the best that the budget allows.

use fogon_core::arrange::propose;
use fogon_core::money::{Candidate, changes, select};
use fogon_core::plan::{BriefFile, Plan};
use fogon_testkit::{box_room, set};
use proptest::prelude::*;
use serde_json::{Value, json};

fn best(brief: &Value) -> Plan {
    let file = BriefFile::read(brief.to_string().as_bytes()).unwrap();
    propose(&file.name, &file.brief).proposals.into_iter().next().expect("the room fits").plan
}

fn candidate() -> impl Strategy<Value = Candidate> {
    let tags = || prop::collection::vec(prop_oneof![Just("a".to_owned()), Just("b".to_owned())], 0..2);
    let group = prop::option::of(prop_oneof![Just("g".to_owned()), Just("h".to_owned())]);
    (1u32..120, 0u32..40, group, tags(), tags()).prop_map(|(price, gain, group, needs, offers)| Candidate {
        price: f64::from(price),
        gain: f64::from(gain) / 100.0,
        group,
        needs,
        offers,
    })
}

/// Gain and price of the best set by trying every one.
fn exhaustive(items: &[Candidate], budget: f64) -> (f64, f64) {
    let mut best = (0.0, 0.0);
    for mask in 0u32..1 << items.len() {
        let set: Vec<&Candidate> =
            items.iter().enumerate().filter(|(i, _)| mask >> i & 1 == 1).map(|(_, c)| c).collect();
        let price: f64 = set.iter().map(|c| c.price).sum();
        let gain: f64 = set.iter().map(|c| c.gain).sum();
        let grouped = |name: &str| set.iter().filter(|c| c.group.as_deref() == Some(name)).count() <= 1;
        let count = |tag: &str, pick: fn(&Candidate) -> &Vec<String>| {
            set.iter().flat_map(|c| pick(c)).filter(|t| *t == tag).count()
        };
        let met = |tag: &str| count(tag, |c| &c.needs) <= count(tag, |c| &c.offers);
        let legal = price <= budget && grouped("g") && grouped("h") && met("a") && met("b");
        if legal && (gain > best.0 + 1e-9 || (gain > best.0 - 1e-9 && price < best.1)) {
            best = (gain, price);
        }
    }
    best
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 60, ..ProptestConfig::default() })]

    #[test]
    fn the_choice_is_exact(items in prop::collection::vec(candidate(), 1..10), budget in 0u32..300) {
        let budget = f64::from(budget);
        let chosen = select(&items, budget);
        let gain: f64 = chosen.iter().map(|i| items[*i].gain).sum();
        let price: f64 = chosen.iter().map(|i| items[*i].price).sum();
        let (best_gain, best_price) = exhaustive(&items, budget);
        prop_assert!((gain - best_gain).abs() < 1e-8, "{gain} against {best_gain}");
        prop_assert!((price - best_price).abs() < 1e-6, "{price} against {best_price}");
    }
}

#[test]
fn a_corner_without_a_microphone_is_told_to_buy_one_within_the_budget() {
    let mut brief = box_room();
    brief["brief"]["gear"].as_object_mut().unwrap().remove("boom-microphone");
    brief["brief"]["gear"].as_object_mut().unwrap().remove("microphone-arm");
    set(&mut brief, "/brief/money/budget", json!(120));
    let bought = changes(&best(&brief)).purchases;
    assert!(bought.spent > 0.0 && bought.spent <= 120.0);
    assert!(bought.steps.iter().any(|s| s.cleared > 0), "{bought:?}");
    // Everything a step buys is usable: an XLR microphone comes with input and cable.
    for step in &bought.steps {
        let ids: Vec<&str> = step.items.iter().map(|i| i.id.as_str()).collect();
        if ids[0].starts_with("boom-condenser") {
            assert!(ids.iter().any(|i| i.starts_with("interface") || i.starts_with("recorder")), "{ids:?}");
        }
    }
    set(&mut brief, "/brief/money/budget", json!(0));
    assert!(changes(&best(&brief)).purchases.steps.is_empty());
}

/// The lamp on the lens axis and far away, the microphone on the camera: moving them costs nothing and gains.
#[test]
fn free_moves_mend_a_corner_that_is_only_badly_placed() {
    let mut plan = best(&box_room());
    let camera = plan.layout.camera.position_m.0;
    let used = plan.layout.microphone.as_mut().unwrap();
    used.position_m = fogon_core::plan::Point3([camera[0], camera[1] - 0.05, camera[2] + 0.25]);
    used.support.base_m = None;
    plan.layout.lights.get_mut("key").unwrap().dim = 0.05;
    let found = changes(&plan);
    assert!(!found.free_moves.is_empty());
    for step in &found.free_moves {
        assert!(step.score_after > step.score_before || step.cleared > 0, "{}", step.label);
        assert!(step.patch.iter().all(|p| p.path.starts_with("/layout/")));
    }
}
