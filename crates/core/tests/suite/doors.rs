//! Doors and ways out: the floor that a door sweeps and the places to get up from the chair, by hand.

use fogon_core::corner::{Corner, door_swing, exit_spaces};
use fogon_core::geometry::{DVec2, inside, signed_area_m2};
use fogon_core::plan::Opening;
use fogon_testkit::assert_close;
use proptest::prelude::*;
use serde_json::json;

use crate::support::plain_with;

fn door(wall: u8, from_m: f64, width_m: f64, swing: &str) -> Opening {
    serde_json::from_value(
        json!({ "kind": "door", "wall": wall, "from_m": from_m, "width_m": width_m, "swing": swing }),
    )
    .unwrap()
}

fn floor(width: f64, depth: f64) -> Vec<DVec2> {
    vec![DVec2::ZERO, DVec2::new(width, 0.0), DVec2::new(width, depth), DVec2::new(0.0, depth)]
}

proptest! {
    /// A quarter circle from the hinge, inside the room, as wide as the door; the other hinge mirrors it.
    #[test]
    fn a_door_sweeps_a_quarter_circle(wall in 0u8..4, from in 0.0f64..1.5, width in 0.6f64..1.1, w in 3.0f64..6.0, d in 3.0f64..6.0) {
        let outline = floor(w, d);
        let (left, right) = (door_swing(&door(wall, from, width, "in-left"), &outline), door_swing(&door(wall, from, width, "in-right"), &outline));
        for swept in [&left, &right] {
            // Six chords lie a little inside the arc.
            assert_close(signed_area_m2(swept), std::f64::consts::FRAC_PI_4 * width * width, 0.02, 0.0, "area");
            for p in swept.iter() {
                prop_assert!(inside(&outline, *p, 1e-9), "{p} is outside the room");
            }
        }
        // Both hang in the same opening: together they span it, each from its own end.
        let (start, end) = (outline[usize::from(wall)], outline[(usize::from(wall) + 1) % 4]);
        let along = (end - start).normalize();
        let reach = |swept: &[DVec2]| {
            let at: Vec<f64> = swept.iter().map(|p| along.dot(*p - start)).collect();
            (at.iter().copied().fold(f64::INFINITY, f64::min), at.iter().copied().fold(f64::NEG_INFINITY, f64::max))
        };
        for swept in [&left, &right] {
            let (low, high) = reach(swept);
            assert_close(low, from, 0.0, 1e-9, "near edge");
            assert_close(high, from + width, 0.0, 1e-9, "far edge");
        }
        // Seen from inside, facing the wall, its direction runs to the left: the left hinge stands at its far end. The
        // open leaf leaves the wall there.
        let open_leaf = |swept: &[DVec2]| {
            let deepest = swept.iter().copied().max_by(|a, b| along.perp_dot(*a - start).total_cmp(&along.perp_dot(*b - start))).unwrap();
            along.dot(deepest - start)
        };
        assert_close(open_leaf(&left), from + width, 0.0, 1e-9, "left hinge");
        assert_close(open_leaf(&right), from, 0.0, 1e-9, "right hinge");
    }
}

#[test]
fn doors_that_open_outwards_or_slide_need_no_floor() {
    for swing in ["out", "sliding"] {
        assert!(door_swing(&door(1, 0.2, 0.8, swing), &floor(4.0, 5.0)).is_empty(), "{swing}");
    }
}

/// Sixty centimetres at either side of the chair and behind it (common practice, no source), turned with the person.
#[test]
fn three_ways_out_of_the_chair() {
    for bearing in [0.0, 30.0, 90.0, 215.0] {
        let plan = plain_with(&[("/layout/seat/bearing_deg", json!(bearing))]);
        let corner = Corner::of(&plan).unwrap();
        let facing = fogon_core::geometry::bearing_vector(bearing).truncate();
        let spaces = exit_spaces(&corner);
        assert_eq!(spaces.each_ref().map(|s| s.0), ["left of", "right of", "behind"]);
        let chair = corner.eyes_m.truncate() - facing * 0.15;
        for (side, outline, solid) in &spaces {
            assert_close(signed_area_m2(outline).abs(), 0.60 * 0.46, 1e-9, 0.0, side);
            let middle = outline.iter().copied().sum::<DVec2>() / 4.0;
            assert_close((middle - chair).length(), 0.23 + 0.30, 1e-9, 0.0, side);
            let ahead = facing.dot(middle - chair);
            assert_close(ahead, if *side == "behind" { -0.53 } else { 0.0 }, 0.0, 1e-9, side);
            assert_eq!(solid.bounds().0.z, 0.0, "from the floor up");
        }
        let aside = |index: usize| {
            let outline = &spaces[index].1;
            facing.perp_dot(outline.iter().copied().sum::<DVec2>() / 4.0 - chair)
        };
        // Their left is to the left of where they face.
        assert!(aside(0) > 0.5 && aside(1) < -0.5);
    }
}
