//! Drawings against a projection and a plan written out here from the document's definitions: what is drawn is where it
//! is, to one scale.

use fogon_core::assess::without_moves;
use fogon_core::drawing::{
    Drawing, FieldOf, Ink, Naming, Screen, Stroke, Style, View, draw, draw_field, draw_for,
};
use fogon_core::geometry::DVec3;
use fogon_core::plan::Plan;
use fogon_testkit::{any_brief, assert_close};
use proptest::prelude::*;
use serde_json::{Value, json};

use crate::support::{brief, demo, plain_with, proposed};

fn drawn(plan: &Plan) -> Drawing {
    draw(plan).unwrap()
}

fn strokes(view: &View, ink: Ink) -> Vec<&Stroke> {
    view.strokes.iter().filter(|s| s.ink == ink).collect()
}

fn span(points: &[[f64; 2]]) -> [f64; 4] {
    points.iter().fold([f64::INFINITY, f64::INFINITY, f64::NEG_INFINITY, f64::NEG_INFINITY], |b, p| {
        [b[0].min(p[0]), b[1].min(p[1]), b[2].max(p[0]), b[3].max(p[1])]
    })
}

/// The plain corner's camera is level at 1.25 m, 1.5 m in front of eyes at 1.25 m, with 36 x 20.25 mm at
/// f u / (u - f): a point d deep and z high lies (1.25 - z) / d x image / 20.25 below the middle.
fn from_top(depth: f64, z: f64) -> f64 {
    let image = 40.0 * 1500.0 / (1500.0 - 40.0);
    0.5 + (1.25 - z) / depth * image / 20.25
}

#[test]
fn the_figure_stands_where_the_lens_sees_it() {
    let frame = drawn(&plain_with(&[])).frame;
    assert!((frame.bounds[2] - 16.0 / 9.0).abs() < 1e-12 && frame.bounds[3] == 1.0, "{:?}", frame.bounds);
    // Eye line and crown by the body's ratios: 1.25 m and 1.25 + 0.064 x 1.75 m (Drillis and Contini, from memory).
    let line = strokes(&frame, Ink::EyeLine)[0];
    assert_close(line.points[0][1], from_top(1.5, 1.25), 0.0, 1e-3, "eye line");
    let crown = 1.25 + 0.064 * 1.75;
    let head = span(&strokes(&frame, Ink::Head).iter().find(|s| s.closed).unwrap().points);
    assert_close(head[1], from_top(1.5, crown), 0.0, 1e-3, "crown");
    let chin = 1.25 - 0.066 * 1.75;
    assert_close(head[3], from_top(1.5, chin), 0.0, 1e-3, "chin");
    assert_close((head[0] + head[2]) / 2.0, 8.0 / 9.0, 0.0, 1e-3, "in the middle");
    // Thirds.
    let mut thirds: Vec<f64> =
        strokes(&frame, Ink::Guide).iter().map(|s| s.points[0][1]).filter(|y| *y > 0.01).collect();
    thirds.sort_by(f64::total_cmp);
    assert_close(thirds[0], 1.0 / 3.0, 0.0, 1e-3, "upper third");
}

/// Recorded half as wide again as delivered: the delivered frame keeps its place, 1 high, and the recorded one lies round it,
/// with what it shows beyond.
#[test]
fn the_recorded_frame_is_drawn_round_the_delivered_one() {
    let cropped = drawn(&plain_with(&[("/layout/camera/crop", json!(1.5))])).frame;
    let a = 16.0 / 9.0;
    for (got, want) in cropped.bounds.iter().zip([-0.25 * a, -0.25, 1.25 * a, 1.25]) {
        assert_close(*got, want, 1e-12, 0.0, "recorded frame");
    }
    let edge = span(&strokes(&cropped, Ink::DeliveredEdge)[0].points);
    for (got, want) in edge.iter().zip([0.0, 0.0, a, 1.0]) {
        assert_close(*got, want, 1e-4, 0.0, "delivered frame");
    }
    // The crown is drawn where a sensor of two thirds the size would have it.
    let crown = 1.25 + 0.064 * 1.75;
    let head = span(&strokes(&cropped, Ink::Head).iter().find(|s| s.closed).unwrap().points);
    assert_close(head[1], 0.5 + 1.5 * (from_top(1.5, crown) - 0.5), 0.0, 1e-3, "crown");
    let body = span(&strokes(&cropped, Ink::Person)[0].points);
    assert!(body[3] > 1.1, "the body goes on below what is delivered: {body:?}");
    assert_eq!(strokes(&cropped, Ink::CutOff).len(), 4);
    assert!(strokes(&drawn(&plain_with(&[])).frame, Ink::CutOff).is_empty());
}

#[test]
fn window_and_furniture_are_projected_where_they_are() {
    let plan = plain_with(&[
        (
            "/brief/room/openings/window",
            json!({ "kind": "window", "wall": 0, "from_m": 1.8, "width_m": 0.4, "sill_m": 1.0, "height_m": 0.5 }),
        ),
        (
            "/brief/room/furniture/chest",
            json!({ "kind": "cabinet", "position_m": [1.6, 0.3, 0], "size_m": [0.4, 0.4, 1.1], "fixed": true }),
        ),
    ]);
    let frame = drawn(&plan).frame;
    // The back wall lies 3 m from the lens; camera right is the room's left.
    let window = span(&strokes(&frame, Ink::Window)[0].points);
    assert_close(window[1], from_top(3.0, 1.5), 0.0, 1e-3, "head of the window");
    assert_close(window[3], from_top(3.0, 1.0), 0.0, 1e-3, "sill");
    let image = 40.0 * 1500.0 / (1500.0 - 40.0);
    let across = |x: f64, depth: f64| 16.0 / 9.0 * (0.5 + (2.0 - x) / depth * image / 36.0);
    assert_close(window[0], across(2.2, 3.0), 0.0, 1e-3, "the window's left edge");
    assert_close(window[2], across(1.8, 3.0), 0.0, 1e-3, "its right edge");
    let chest = span(&strokes(&frame, Ink::Furniture)[0].points);
    assert_close(chest[1], from_top(2.9, 1.1), 0.0, 1e-3, "far edge of the chest's top");
    assert_close(chest[2], across(1.4, 2.5), 0.0, 1e-3, "its near right edge");
}

#[test]
fn what_intrudes_is_drawn_as_intruding_and_nothing_else_is() {
    let clean = drawn(&plain_with(&[])).frame;
    assert!(strokes(&clean, Ink::Intruder).is_empty());
    let plan = plain_with(&[("/layout/lights/key/position_m", json!([1.7, 2.0, 1.3]))]);
    let frame = drawn(&plan).frame;
    let intruders = strokes(&frame, Ink::Intruder);
    assert!(intruders.iter().all(|s| s.thing.as_deref() == Some("key")) && !intruders.is_empty());
    assert!(without_moves(&plan).findings.iter().any(|f| f.id == "legal.picture.key"));
}

/// The plan is the room turned by quarter turns: lengths are kept, the lens looks to the left.
#[test]
fn plan_and_side_view_keep_lengths_and_share_a_scale() {
    for (seat, camera, bearing) in
        [([2.0, 1.5], [2.0, 3.0], 180.0), ([1.2, 2.5], [2.7, 2.5], 270.0), ([2.0, 3.5], [2.0, 2.0], 0.0)]
    {
        let plan = plain_with(&[
            ("/layout/seat/position_m", json!(seat)),
            ("/layout/seat/bearing_deg", json!((bearing + 180.0) % 360.0)),
            ("/layout/camera/position_m", json!([camera[0], camera[1], 1.25])),
            ("/layout/camera/bearing_deg", json!(bearing)),
        ]);
        let drawing = drawn(&plan);
        let axis = strokes(&drawing.plan, Ink::Axis)[0];
        assert!(axis.points[1][0] < axis.points[0][0] - 0.1, "the lens looks to the left");
        assert_close(axis.points[1][1], axis.points[0][1], 0.0, 1e-6, "the axis is level");
        let floor = span(&strokes(&drawing.plan, Ink::Floor)[0].points);
        let mut sides = [floor[2] - floor[0], floor[3] - floor[1]];
        sides.sort_by(f64::total_cmp);
        assert_eq!(sides.map(|s| (s * 1e6).round() / 1e6), [4.0, 5.0]);
        let heads = |view: &View| {
            // The nose is drawn apart.
            let all = strokes(view, Ink::Head).into_iter().map(|s| span(&s.points));
            let head = all.max_by(|a, b| (a[2] - a[0]).total_cmp(&(b[2] - b[0]))).unwrap();
            (head[0] + head[2]) / 2.0
        };
        let camera_at = |view: &View| strokes(view, Ink::Axis)[0].points[0][0];
        let (above, beside) = (
            camera_at(&drawing.plan) - heads(&drawing.plan),
            camera_at(&drawing.side) - heads(&drawing.side),
        );
        assert_close(above, beside, 0.0, 2e-3, "head to lens in plan and side view");
        let section = span(&strokes(&drawing.side, Ink::Floor)[0].points);
        assert_close(section[3] - section[1], 2.6, 0.0, 1e-6, "ceiling height");
    }
}

/// The sharp band in the plan reaches from the near to the far limit of the depth of field, worked here for 40 mm, f/4,
/// 1.5 m and diagonal / 1500: h = f^2 / (N c) + f (Ray, Applied Photographic Optics, from memory).
#[test]
fn the_sharp_band_is_the_depth_of_field() {
    let drawing = drawn(&plain_with(&[]));
    let (f, n, u, c) = (40.0, 4.0, 1500.0, 36f64.hypot(20.25) / 1500.0);
    let h = f * f / (n * c) + f;
    let (near, far) = (u * (h - f) / (h + u - 2.0 * f) / 1000.0, u * (h - f) / (h - u) / 1000.0);
    let lens = strokes(&drawing.plan, Ink::Axis)[0].points[0][0];
    let band = span(&strokes(&drawing.plan, Ink::Sharp)[0].points);
    assert_close(lens - band[2], near, 0.0, 1e-3, "near limit");
    assert_close(lens - band[0], far, 0.0, 1e-3, "far limit");
    assert!(near < 1.5 && far > 1.5);
}

#[test]
fn feet_and_arms_are_drawn_at_their_size() {
    let drawing = drawn(&plain_with(&[]));
    let feet = strokes(&drawing.plan, Ink::Feet);
    let of_camera = |stroke: &Stroke| stroke.thing.as_deref() == Some("camera");
    let legs = strokes(&drawing.plan, Ink::Stand).into_iter().filter(|s| of_camera(s)).count();
    // The tripod's fourth is its column.
    assert_eq!((legs, feet.len()), (4, 2), "three legs of the tripod, lamp stand, microphone stand");
    // The chair's back is drawn as they are.
    assert_eq!(strokes(&drawing.plan, Ink::Leg).len(), 7, "three legs of each other stand");
    for (stroke, radius) in
        feet.iter().map(|s| (s, if s.thing.as_deref() == Some("microphone") { 0.35 } else { 0.4 }))
    {
        let size = span(&stroke.points);
        // The outline of twelve corners holds the circle.
        assert_close(
            (size[2] - size[0]) / 2.0,
            radius,
            0.04,
            0.0,
            stroke.thing.as_deref().unwrap_or_default(),
        );
    }
    let arm = span(&strokes(&drawing.plan, Ink::Arm)[0].points);
    assert!((arm[2] - arm[0]).hypot(arm[3] - arm[1]) > 0.7);
}

#[test]
fn words_speak_the_persons_units_and_grow_on_request() {
    let metric = drawn(&demo());
    assert!(metric.plan.words.iter().any(|w| w.text.starts_with("key ") && w.text.ends_with(" m")));
    let mut imperial = demo();
    imperial.brief.units = fogon_core::units::UnitSystem::Imperial;
    assert!(drawn(&imperial).plan.words.iter().any(|w| w.text.starts_with("key ") && w.text.ends_with('"')));
    let large =
        draw_for(&demo(), Style { text_scale: 1.7, frame_text_scale: 1.7, ..Style::default() }).unwrap();
    assert_close(large.plan.text_size / metric.plan.text_size, 1.7, 1e-9, 0.0, "text size");
    assert_eq!(large.plan.strokes, metric.plan.strokes);
}

/// The field of what is sharp ends where the sharp band does: blur at the depth of field's limits is one circle of confusion.
#[test]
fn the_field_of_what_is_sharp_agrees_with_the_band() {
    let plan = plain_with(&[]);
    let drawing = drawn(&plan);
    let field = draw_field(&plan, &drawing, FieldOf::Shot, true).unwrap();
    let sharp = field.plan.iter().find(|area| area.level == 1.0).unwrap();
    let band = span(&strokes(&drawing.plan, Ink::Sharp)[0].points);
    let on_axis = span(&sharp.rings.iter().flatten().copied().collect::<Vec<_>>());
    assert_close(on_axis[0], band[0], 0.0, 0.09, "far limit");
    assert_close(on_axis[2], band[2], 0.0, 0.09, "near limit");
}

/// Stops against the face fall as the inverse square from a small lamp, and are none at the face itself.
#[test]
fn the_field_of_light_falls_off_as_the_inverse_square() {
    let small = plain_with(&[
        ("/brief/gear/lamp/width_m", json!(0.1)),
        ("/brief/gear/lamp/height_m", json!(0.1)),
        ("/layout/lights/key/position_m", json!([2, 3.0, 1.25])),
        ("/layout/camera/position_m", json!([2, 3.6, 1.25])),
    ]);
    let drawing = drawn(&small);
    let field = draw_field(&small, &drawing, FieldOf::Light, true).unwrap();
    let projection = drawing.plan.projection.unwrap();
    let flat = |at: [f64; 3]| {
        let off = DVec3::from(at) - DVec3::from(projection.origin_m);
        [projection.right, projection.down].map(|axis| DVec3::from(axis).dot(off))
    };
    let (lamp, eyes) = (flat([2.0, 3.0, 1.25]), flat([2.0, 1.5, 1.25]));
    let off = |p: &[f64; 2], from: [f64; 2]| (p[0] - from[0]).hypot(p[1] - from[1]);
    let distance = off(&eyes, lamp);
    for (stops, level) in [(0.0, 0.0), (1.0, -1.0)] {
        let area = field.plan.iter().find(|area| area.level == level).unwrap();
        // Straight on from lamp and face.
        let line =
            |p: &&[f64; 2]| (p[1] - lamp[1]).abs() < 0.08 && (p[0] - lamp[0]) * (eyes[0] - lamp[0]) > 0.0;
        let reach = area.rings.iter().flatten().filter(line).map(|p| off(p, lamp)).fold(0.0, f64::max);
        assert_close(reach, distance * 2f64.powf(stops / 2.0), 0.04, 0.0, "where the light has fallen");
    }
}

/// On a screen words keep their height in px whatever the room's size, and things go by name where there is room.
#[test]
fn on_a_screen_words_keep_their_height_and_names_stand_where_there_is_room() {
    let on = |plan: &Plan, width_px: f64| {
        let screen = Some(Screen { width_px, height_px: 0.4 * width_px });
        draw_for(plan, Style { screen, naming: Naming::Names, ..Style::default() }).unwrap()
    };
    let text_px = |view: &View, width_px: f64| view.text_size * width_px / (view.bounds[2] - view.bounds[0]);
    for plan in [
        plain_with(&[]),
        demo(),
        plain_with(&[("/brief/room/floor_m", json!([[0, 0], [12, 0], [12, 9], [0, 9]]))]),
    ] {
        let wide = on(&plan, 600.0);
        assert!(text_px(&wide.plan, 600.0) >= 11.9, "{}", text_px(&wide.plan, 600.0));
    }
    let (wide, narrow) = (on(&demo(), 900.0), on(&demo(), 130.0));
    let named =
        |drawing: &Drawing, name: &str| drawing.plan.words.iter().any(|word| word.text.starts_with(name));
    for name in ["camera ", "key ", "back ", "microphone "] {
        assert!(named(&wide, name), "{name}: {:?}", wide.plan.words);
    }
    assert!(wide.plan.marks.is_empty(), "{:?}", wide.plan.marks);
    // Where no name has room there is a letter.
    assert!(!narrow.plan.marks.is_empty(), "{:?}", narrow.plan.words);
    assert!(narrow.plan.marks.iter().all(|mark| mark.letter.len() == 1));
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 5, max_shrink_iters: 20, ..ProptestConfig::default() })]

    /// Whatever the room, every mark and word lies inside its drawing and covers no other.
    #[test]
    fn marks_and_words_never_cover_each_other(document in any_brief()) {
        let found = proposed(&brief(&document));
        for proposal in found.proposals.iter().take(1) {
            let drawing = drawn(&proposal.plan);
            for view in [&drawing.plan, &drawing.side, &drawing.frame] {
                let size = view.text_size;
                let mut boxes: Vec<[f64; 4]> = view.marks.iter().map(|m| {
                    let r = view.mark_radius;
                    [m.at[0] - r, m.at[1] - r, m.at[0] + r, m.at[1] + r]
                }).collect();
                boxes.extend(view.words.iter().map(|w| {
                    [w.at[0], w.at[1] - 0.8 * size, w.at[0] + 0.5 * size * w.text.chars().count() as f64, w.at[1] + 0.2 * size]
                }));
                for (i, a) in boxes.iter().enumerate() {
                    let b = view.bounds;
                    prop_assert!(a[0] >= b[0] - 1e-9 && a[1] >= b[1] - 1e-9 && a[2] <= b[2] + 1e-9 && a[3] <= b[3] + 1e-9);
                    for c in &boxes[i + 1..] {
                        prop_assert!(a[2] <= c[0] || c[2] <= a[0] || a[3] <= c[1] || c[3] <= a[1], "{:?} {:?}", a, c);
                    }
                }
            }
        }
    }
}

/// What is drawn carries what it is, so that a page can find it.
#[test]
fn shapes_say_what_they_belong_to() {
    let drawing = serde_json::to_value(drawn(&demo())).unwrap();
    let things: Vec<&Value> =
        drawing["plan"]["strokes"].as_array().unwrap().iter().filter_map(|s| s.get("thing")).collect();
    for id in ["person", "camera", "key", "back", "microphone", "desk", "shelf", "door"] {
        assert!(things.iter().any(|t| *t == id), "nothing drawn belongs to {id}");
    }
}

/// A drawing says how it stands in the room, so that a hand on it can be brought back there: however the plan is turned,
/// each lettered mark that has not stepped aside lies where the projection puts its thing; both axes are of unit length
/// and square to each other.
#[test]
fn a_drawing_leads_back_into_the_room() {
    let plan = demo();
    let things = fogon_core::hand::handles(&plan);
    for turns in 0..4 {
        let style = Style { quarter_turns: Some(turns), ..Style::default() };
        let drawing = draw_for(&plan, style).unwrap();
        assert_eq!(drawing.quarter_turns, turns);
        assert!(drawing.frame.projection.is_none());
        let mut met = 0;
        for view in [&drawing.plan, &drawing.side] {
            let projection = view.projection.unwrap();
            let [origin, right, down] = [projection.origin_m, projection.right, projection.down]
                .map(fogon_core::geometry::DVec3::from);
            assert!((right.length() - 1.0).abs() < 1e-12 && (down.length() - 1.0).abs() < 1e-12);
            assert!(right.dot(down).abs() < 1e-12);
            for mark in &view.marks {
                let thing = things.iter().find(|h| Some(&h.id) == mark.thing.as_ref()).unwrap();
                let off = fogon_core::geometry::DVec3::from(thing.position_m) - origin;
                let beside = (right.dot(off) - mark.at[0]).hypot(down.dot(off) - mark.at[1]);
                // A mark steps aside by a few of its own discs at most.
                assert!(beside < 8.0 * view.mark_radius, "{} by {beside}", mark.letter);
                met += usize::from(beside < 1e-4);
            }
        }
        assert!(met >= 8, "{met} marks stand where their things do, turned {turns} times");
    }
}
