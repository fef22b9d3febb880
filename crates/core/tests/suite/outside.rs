//! Places outside the room: near it they are told, far from it they are refused, and nothing hangs or panics on the way.

use fogon_core::arrange::{propose, replaced, why};
use fogon_core::assess::{evaluate, without_moves};
use fogon_core::card::card;
use fogon_core::drawing::{draw, draw_light, draw_sound};
use fogon_core::finding::Severity;
use fogon_core::money::free_moves;
use fogon_core::plan::{Part, Plan, ThingId};
use fogon_core::problem::Code;
use fogon_testkit::{any_shape, set};
use proptest::prelude::*;
use serde_json::{Value, json};

use crate::support::{Dice, best, brief, furnished, plain, proposed};

/// All that a page may ask of a plan.
fn look_at_all_of(plan: &Plan) {
    let judged = evaluate(plan);
    assert!(judged.score.is_finite(), "{}", judged.score);
    let drawing = draw(plan).expect("a readable plan is drawn");
    draw_light(plan, &drawing, false);
    draw_sound(plan, &drawing);
    why(plan);
    let card = card(plan).expect("a readable plan has a card");
    let all = serde_json::to_string(&(judged, card)).unwrap();
    for broken in ["infm", "inf ", "inf\"", "NaN"] {
        assert!(!all.contains(broken), "{broken} in {all}");
    }
}

/// A room under a slope with a beam across it, and someone in it.
fn under_a_slope() -> Value {
    let mut document = plain();
    set(&mut document, "/brief/room/slopes", json!({ "slope": { "wall": 1, "knee_m": 1.2, "run_m": 1.5 } }));
    let beam = json!({ "from_m": [0, 4], "to_m": [4, 4], "width_m": 0.2, "drop_m": 0.2 });
    set(&mut document, "/brief/room/beams", json!({ "beam": beam }));
    document
}

fn read(document: &Value) -> Result<Plan, Vec<(String, Code)>> {
    Plan::read(document.to_string().as_bytes())
        .map_err(|problems| problems.0.into_iter().map(|p| (p.field, p.code)).collect())
}

/// The seat 2 cm outside a room that has a slope and a beam, on each side of it, however the person looks.
#[test]
fn a_seat_just_outside_a_room_with_a_slope_is_told_and_does_not_hang() {
    for (seat, turn) in [([2.0, -0.02], 0), ([2.0, 5.02], 180), ([-0.02, 2.0], 90), ([4.02, 2.0], 270)] {
        for by in [0, 45, 90] {
            let mut document = under_a_slope();
            set(
                &mut document,
                "/layout/seat",
                json!({ "position_m": seat, "bearing_deg": (turn + by) % 360 }),
            );
            let plan = read(&document).unwrap();
            look_at_all_of(&plan);
            let judged = without_moves(&plan);
            let told =
                judged.findings.iter().find(|f| f.id == "legal.room.person" || f.id == "legal.room.seat");
            assert_eq!(told.map(|f| f.severity), Some(Severity::Stop), "{:?}", judged.findings);
            assert!(!judged.verdict.ready);
        }
    }
}

/// A camera that was typed 60 m away is refused with the place named, and the farthest that is taken has a card in figures.
#[test]
fn a_camera_far_outside_is_refused_and_one_near_it_has_a_card() {
    let mut document = plain();
    set(&mut document, "/layout/camera/position_m", json!([2, 63, 1.25]));
    let refused = read(&document).unwrap_err();
    assert!(refused.len() == 1 && refused[0].0.starts_with("layout.camera.position_m"), "{refused:?}");
    assert_eq!(refused[0].1, Code::OutOfRange);
    set(&mut document, "/layout/camera/position_m", json!([2, 5.99, 1.25]));
    look_at_all_of(&read(&document).unwrap());
}

/// The brief that a plan was made for may be laid out anew wherever its layout is, and a stand-in put in its place.
#[test]
fn a_layout_outside_the_room_can_be_laid_out_anew() {
    let mut document = under_a_slope();
    set(&mut document, "/layout/seat/position_m", json!([2, -0.02]));
    let plan = read(&document).unwrap();
    assert!(!propose(&plan.name, &plan.brief).proposals.is_empty());
    assert!(replaced(&plan).is_none(), "nothing can be placed legally about a seat outside the room");
    free_moves(&plan);
}

/// How far something is pushed, from a millimetre to the ends of what a number can hold.
fn distance() -> impl Strategy<Value = f64> {
    prop_oneof![
        6 => (-3.0f64..2.0).prop_map(|power| 10f64.powf(power)),
        1 => prop::sample::select(vec![1e9, 1e150, f64::MAX / 4.0, f64::MAX, 5e-324]),
    ]
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 48, max_shrink_iters: 30, ..ProptestConfig::default() })]

    /// Any one thing of a furnished corner pushed out of its room by any length in any direction: taken up to a metre
    /// outside, and judged, drawn and printed there; refused beyond, with its own field named.
    #[test]
    fn whatever_is_pushed_outside_is_judged_or_refused(
        which in any::<prop::sample::Index>(),
        by in distance(),
        way in 0usize..6,
        slope in any::<bool>(),
    ) {
        let plan = furnished();
        let things: Vec<ThingId> = plan.layout.parts().map(Part::id).collect();
        let thing = which.get(&things);
        let mut document = serde_json::to_value(&plan).unwrap();
        if slope {
            set(&mut document, "/brief/room/slopes", json!({ "slope": { "wall": 3, "knee_m": 1.2, "run_m": 1.5 } }));
        }
        let at = format!("/layout{}/position_m", thing.pointer().unwrap());
        let place = document.pointer_mut(&at).unwrap().as_array_mut().unwrap();
        // The room is 4 x 5 x 2.6 m.
        let pushed = [(0, 4.0 + by), (0, -by), (1, 5.0 + by), (1, -by), (2, 2.6 + by), (2, -by)][way];
        let axis = pushed.0.min(place.len() - 1);
        place[axis] = json!(pushed.1);
        let far = if axis == pushed.0 { by > 1.0 } else { pushed.1 > 6.0 || pushed.1 < -1.0 };
        match read(&document) {
            Ok(plan) => {
                prop_assert!(!far, "{thing:?} at {pushed:?} is taken");
                look_at_all_of(&plan);
            }
            Err(problems) => {
                let own = problems.iter().all(|(field, _)| field.starts_with("layout."));
                prop_assert!(own && (far || matches!(thing, ThingId::Treatment(_))), "{problems:?}");
            }
        }
    }

}

proptest! {
    // The same rooms as those of the laws, whose layouts are searched for once.
    #![proptest_config(ProptestConfig { cases: 5, max_shrink_iters: 30, ..ProptestConfig::default() })]

    /// The whole search's own plans, each with its seat, camera, lamps and microphone pushed about at random.
    #[test]
    fn plans_of_odd_rooms_are_pushed_about(document in any_shape()) {
        let mut dice = Dice(12);
        let by: Vec<f64> = (0..12).map(|_| dice.within(-0.9, 0.9)).collect();
        let Some(found) = proposed(&brief(&document)).proposals.into_iter().next() else { return Ok(()) };
        let mut plan = found.plan;
        let things: Vec<ThingId> = plan.layout.parts().map(Part::id).collect();
        for (thing, by) in things.iter().zip(by.chunks(3)) {
            let at = plan.layout.part(thing).unwrap().position_m();
            plan.layout.put_at(thing, at + fogon_core::geometry::DVec3::new(by[0], by[1], by[2]) * 2.0);
        }
        if let Ok(plan) = read(&serde_json::to_value(&plan).unwrap()) {
            look_at_all_of(&plan);
        }
    }
}

/// The demo's best plan is one that can be looked at whole: the check itself holds nothing back.
#[test]
fn the_look_at_all_of_a_plan_holds_for_the_demo() {
    look_at_all_of(&best(&fogon_testkit::box_room()));
}
