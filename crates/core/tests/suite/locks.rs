//! What is locked stays: whatever places, mends, moves for nothing or buys, and whichever part it is.

use fogon_core::arrange::{LampJob, replaced, with_angle, with_light, with_treatment};
use fogon_core::assess::evaluate;
use fogon_core::hand::{Move, moved};
use fogon_core::money::free_moves;
use fogon_core::plan::{Id, Part, Plan, ThingId, apply};
use fogon_testkit::set;
use proptest::prelude::*;
use serde_json::json;

use crate::hand::to;
use crate::support::{demo, furnished, read};

/// The furnished plan with some of its parts locked.
fn locked(which: &[bool]) -> (Plan, Vec<ThingId>) {
    let plan = furnished();
    let things: Vec<ThingId> = plan.layout.parts().map(Part::id).collect();
    let chosen: Vec<ThingId> =
        things.into_iter().zip(which).filter(|(_, locked)| **locked).map(|(thing, _)| thing).collect();
    let mut document = serde_json::to_value(&plan).unwrap();
    for thing in &chosen {
        set(&mut document, &format!("/layout{}/locked", thing.pointer().unwrap()), json!(true));
    }
    (read(&document), chosen)
}

/// Every locked thing is where it was, of the same gear, and locked.
fn check_kept(before: &Plan, after: &Plan, chosen: &[ThingId], by: &str) {
    for thing in chosen {
        let (was, is) = (before.layout.part(thing).unwrap(), after.layout.part(thing));
        let is = is.unwrap_or_else(|| panic!("{by} takes the {} away", thing.words()));
        assert_eq!(was.position_m(), is.position_m(), "{by} moves the {}", thing.words());
        assert!(was.gear().eq(is.gear()), "{by} swaps the {}", thing.words());
        assert!(is.is_locked(), "{by} unlocks the {}", thing.words());
    }
    assert!(
        before.layout.held_against(&after.layout).is_none(),
        "{by}: {:?}",
        before.layout.held_against(&after.layout)
    );
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 10, max_shrink_iters: 10, ..ProptestConfig::default() })]

    /// Placing anew, and every move that is offered for a finding.
    #[test]
    fn what_is_locked_stays_through_placing_and_mending(which in prop::collection::vec(any::<bool>(), 12), dim in 0.02f64..1.0) {
        let (mut plan, chosen) = locked(&which);
        if let Some(anew) = replaced(&plan) {
            check_kept(&plan, &anew, &chosen, "placing anew");
        }
        // Something to mend.
        plan.layout.lights.values_mut().for_each(|light| light.dim *= dim);
        plan.layout.camera.iso = 6400.0;
        for finding in evaluate(&plan).findings {
            let Some(fix) = finding.fix else { continue };
            let mended = apply(&plan, &fix.patch).unwrap_or_else(|problems| panic!("{}: {problems}", fix.label));
            check_kept(&plan, &mended, &chosen, &fix.label);
        }
    }
}

/// Free moves from today's arrangement leave what is locked in the plan; what is added finds its place round it.
#[test]
fn what_is_locked_stays_through_free_moves_and_additions() {
    let all = vec![true; 12];
    let (plan, chosen) = locked(&all);
    let mut now = plan.clone();
    for step in free_moves(&plan).moves {
        now = apply(&now, &step.patch).unwrap_or_else(|problems| panic!("{}: {problems}", step.label));
        check_kept(&plan, &now, &chosen, &step.label);
    }
    if let Ok(more) = with_treatment(&plan, "rug", 1.2, 0.9) {
        check_kept(&plan, &more, &chosen, "a rug");
    }
    if let Ok(more) = with_light(&plan, &Id::from("lamp"), LampJob::Background) {
        check_kept(&plan, &more, &chosen, "one more light");
    }
    if let Ok(more) = with_angle(&plan, fogon_core::arrange::AngleKind::Overhead) {
        check_kept(&plan, &more, &chosen, "one more angle");
    }
}

/// The key that a person locked stays the key, and the microphone stays that one, though others would do better.
#[test]
fn a_locked_key_and_microphone_are_not_replaced() {
    let mut document = serde_json::to_value(demo()).unwrap();
    let mut better = document["brief"]["gear"]["octa"].clone();
    better["width_m"] = json!(1.2);
    better["height_m"] = json!(1.2);
    better["illuminance_at_1m_lx"] = json!(5000);
    set(&mut document, "/brief/gear/big", better);
    let mut quiet = document["brief"]["gear"]["boom-microphone"].clone();
    quiet["self_noise_dba"] = json!(6);
    set(&mut document, "/brief/gear/a-quiet-one", quiet);
    for thing in ["lights/key", "microphone"] {
        set(&mut document, &format!("/layout/{thing}/locked"), json!(true));
    }
    let plan = read(&document);
    let anew = replaced(&plan).expect("the rest finds its place");
    check_kept(&plan, &anew, &[ThingId::Light(Id::from("key")), ThingId::Microphone], "placing anew");
    assert_eq!(anew.layout.lights["key"].gear, Id::from("octa"));
    assert_eq!(anew.layout.microphone.as_ref().unwrap().gear, Id::from("boom-microphone"));
}

/// By hand nothing locked is moved, turned or aimed, by whichever grip; unlocked again, it is.
#[test]
fn a_hand_does_not_move_what_is_locked() {
    let (plan, chosen) = locked(&[true; 12]);
    let corner = fogon_core::corner::Corner::of(&plan).unwrap();
    for thing in &chosen {
        let name = corner.name(thing);
        let at = plan.layout.part(thing).unwrap().position_m().to_array();
        let turned = Move { to_m: None, bearing_deg: Some(10.0), ..to(&name, at) };
        for by in [to(&name, at), Move { anyway: true, ..to(&name, at) }, turned] {
            let refused = moved(&plan, &by).unwrap_err();
            assert!(refused.0[0].accepted.contains("unlock it first"), "{name}: {refused}");
        }
    }
    let free = furnished();
    let corner = fogon_core::corner::Corner::of(&free).unwrap();
    for thing in free.layout.parts().map(Part::id) {
        let at = free.layout.part(&thing).unwrap().position_m().to_array();
        let by = Move { anyway: true, ..to(&corner.name(&thing), at) };
        assert!(moved(&free, &by).is_ok(), "{}", thing.words());
    }
}
