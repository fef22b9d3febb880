//! One walk over everything that a layout places: patches, comparing, locks and the rules about stands leave no part out.

use fogon_core::assess::without_moves;
use fogon_core::corner::Corner;
use fogon_core::geometry::DVec3;
use fogon_core::money::free_moves;
use fogon_core::plan::{Gear, Hung, Id, Layout, Part, Plan, Point2, SupportKind, ThingId, apply, change};
use fogon_testkit::set;
use proptest::prelude::*;
use serde_json::json;

use crate::support::furnished;

/// What becomes of one part: nothing, moved, its lock turned round, taken away where that is possible.
#[derive(Debug, Clone, Copy)]
enum Becomes {
    Same,
    Moved([f64; 3]),
    Locked,
    Gone,
}

fn becomes() -> impl Strategy<Value = Becomes> {
    prop_oneof![
        3 => Just(Becomes::Same),
        2 => [-0.1f64..0.1, -0.1f64..0.1, 0.0f64..0.1].prop_map(Becomes::Moved),
        1 => Just(Becomes::Locked),
        1 => Just(Becomes::Gone),
    ]
}

/// The furnished plan with every part changed in its own way.
fn any_layout() -> impl Strategy<Value = Layout> {
    let layout = furnished().layout;
    let things: Vec<ThingId> = layout.parts().map(Part::id).collect();
    prop::collection::vec(becomes(), things.len()).prop_map(move |all| {
        let mut changed = serde_json::to_value(&layout).unwrap();
        for (thing, becomes) in things.iter().zip(all) {
            let at = thing.pointer().unwrap();
            match becomes {
                Becomes::Same => {}
                Becomes::Moved(by) => {
                    let position = changed.pointer_mut(&format!("{at}/position_m")).unwrap();
                    // What hangs on the wall to the right slides along it.
                    let by = if matches!(thing, ThingId::Treatment(_)) { [0.0, by[1], by[2]] } else { by };
                    for (axis, by) in position.as_array_mut().unwrap().iter_mut().zip(by) {
                        *axis = json!(axis.as_f64().unwrap() + by);
                    }
                }
                Becomes::Locked => set(&mut changed, &format!("{at}/locked"), json!(true)),
                Becomes::Gone if matches!(thing, ThingId::Seat | ThingId::Camera) => {}
                Becomes::Gone => {
                    let (holder, name) = at.rsplit_once('/').unwrap();
                    let holder =
                        if holder.is_empty() { Some(&mut changed) } else { changed.pointer_mut(holder) };
                    holder.unwrap().as_object_mut().unwrap().remove(name);
                }
            }
        }
        serde_json::from_value(changed).unwrap()
    })
}

/// One way in which a support fails what it carries.
#[derive(Debug, Clone, Copy)]
enum Fault {
    Payload,
    Reach,
    TooHigh,
    TooLow,
    Tips,
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 60, ..ProptestConfig::default() })]

    /// Layouts that differ in any part are told apart, and the patch between them makes them equal.
    #[test]
    fn layouts_that_differ_have_a_patch(a in any_layout(), b in any_layout()) {
        let of = |layout: &Layout| Plan { layout: layout.clone(), ..furnished() };
        let patch = change(&of(&a), &of(&b));
        let things = a.differs(&b);
        prop_assert_eq!(patch.is_empty(), a == b);
        prop_assert_eq!(things.is_empty(), a == b);
        prop_assert_eq!(&apply(&of(&a), &patch).unwrap().layout, &b);
        let mut taken = a.clone();
        for thing in &things {
            prop_assert!(taken != b);
            taken.take(thing, &b);
        }
        prop_assert_eq!(&taken, &b);
        // A locked thing that would go elsewhere is in the way; nothing else is.
        let held = a.held_against(&b);
        let moves = |thing: &ThingId| b.part(thing).is_none_or(|other| {
            a.part(thing).is_some_and(|own| (own.position_m() - other.position_m()).length() > 0.0)
        });
        let locked: Vec<ThingId> = a.parts().filter(|part| part.is_locked()).map(Part::id).collect();
        prop_assert_eq!(held, locked.into_iter().find(moves));
    }

    /// Whatever stands or hangs on a support is checked for what the support can bear.
    #[test]
    fn every_carried_thing_is_checked(
        which in any::<prop::sample::Index>(),
        fault in prop::sample::select(vec![Fault::Payload, Fault::Reach, Fault::TooHigh, Fault::TooLow, Fault::Tips]),
        by in 0.05f64..2.0,
    ) {
        let mut plan = furnished();
        let broken = |plan: &Plan| {
            let found = without_moves(plan).findings.into_iter().map(|f| f.id.to_string());
            found.filter(|id| id.starts_with("legal.support.")).collect::<Vec<_>>()
        };
        prop_assert!(broken(&plan).is_empty(), "{:?}", broken(&plan));
        let carried: Vec<ThingId> = plan.layout.parts().filter(|part| part.support().is_some()).map(Part::id).collect();
        let thing = which.get(&carried).clone();
        let corner = Corner::of(&plan).unwrap();
        let held = corner.carried().into_iter().find(|carried| carried.id == thing).unwrap();
        let (hold_m, mass_kg) = (held.hold_m, held.mass_kg);
        let support = plan.layout.support_mut(&thing).unwrap();
        let id = support.gear.clone().unwrap();
        let Some(Gear::Support(stand)) = plan.brief.gear.get_mut(&id) else { panic!("a stand") };
        match fault {
            Fault::Payload => stand.payload_kg = mass_kg / (1.0 + by),
            Fault::Reach => {
                support.kind = SupportKind::Boom;
                support.base_m = Some(Point2([hold_m.x, hold_m.y + 0.25 + stand.reach_m + by]));
            }
            Fault::TooHigh => stand.height_max_m = hold_m.z - 0.01 - by / 10.0,
            Fault::TooLow => stand.height_min_m = hold_m.z + 0.01 + by,
            Fault::Tips => {
                support.sandbag_kg = 0.0;
                stand.foot_radius_m = 0.05;
                stand.common.mass_kg = 0.1;
                support.kind = SupportKind::Boom;
                support.base_m = Some(Point2([hold_m.x, hold_m.y + 0.2]));
            }
        }
        let name = Corner::of(&plan).unwrap().name(&thing);
        prop_assert!(broken(&plan).contains(&format!("legal.support.{name}")), "{fault:?} of {name}: {:?}", broken(&plan));
    }
}

/// A backdrop on its own two stands is checked as well.
#[test]
fn the_stands_of_a_backdrop_can_tip() {
    let mut plan = furnished();
    plan.layout.backdrop.as_mut().unwrap().sandbag_kg = 0.0;
    let judged = without_moves(&plan);
    assert!(judged.findings.iter().any(|f| f.id == "legal.support.backdrop"));
    plan.layout.backdrop.as_mut().unwrap().hung = Hung::Ceiling;
    assert!(without_moves(&plan).findings.iter().all(|f| f.id != "legal.support.backdrop"));
}

/// The camera of a second angle at 2.2 m on an arm that carries 0.1 kg, reaches 0.2 m and goes up to 1.0 m.
#[test]
fn an_arm_too_weak_for_a_second_angle_is_not_ready() {
    let mut plan = furnished();
    let Some(Gear::Support(arm)) = plan.brief.gear.get_mut("stand-side") else { panic!("an arm") };
    (arm.payload_kg, arm.reach_m, arm.height_max_m) = (0.1, 0.2, 1.0);
    plan.layout.put_at(&ThingId::Angle(Id::from("side")), DVec3::new(0.6, 3.4, 2.2));
    let judged = without_moves(&plan);
    assert!(!judged.verdict.ready);
    let told = &judged.findings.iter().find(|f| f.id == "legal.support.side").unwrap().sentence;
    assert!(told.contains("goes from") && told.contains("carries 0.1 kg"), "{told}");
}

/// Free moves, made one after the other from the plan as it stands, each change it; a panel that lies about is hung.
#[test]
fn a_free_move_changes_something() {
    let mut plan = furnished();
    plan.layout.treatment.clear();
    let moves = free_moves(&plan).moves;
    for free in &moves {
        let moved = apply(&plan, &free.patch).unwrap_or_else(|problems| panic!("{}: {problems}", free.label));
        assert_ne!(moved, plan, "{}", free.label);
        plan = moved;
    }
    let labels: Vec<&String> = moves.iter().map(|free| &free.label).collect();
    assert!(
        !plan.layout.treatment.is_empty() && labels.iter().any(|label| label.contains("panel")),
        "{labels:?}"
    );
}
