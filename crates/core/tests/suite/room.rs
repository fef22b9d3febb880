//! Room, sound and stands by a second route: reverberation by hand, marks found again with two tapes, stands by the
//! balance of moments about every edge.

use fogon_core::corner::Corner;
use fogon_core::geometry::DVec2;
use fogon_core::material::{BANDS_HZ, MATERIALS, PERSON_M2, material};
use fogon_core::plan::ThingId;
use fogon_core::reading::Origin;
use fogon_core::room::{Leg, Walk, corner_mark, sandbags, stand_tipping, tape_mark, walked, worst_error_m};
use fogon_testkit::assert_close;
use proptest::prelude::*;
use serde_json::{Value, json};

use crate::support::{plain_with, reading, value};

const SURFACES: [&str; 6] = ["wall-0", "wall-1", "wall-2", "wall-3", "floor", "ceiling"];

fn all_of(material: &str) -> Value {
    SURFACES
        .iter()
        .map(|s| (s.to_string(), json!({ "material": material })))
        .collect::<serde_json::Map<_, _>>()
        .into()
}

/// Eyring's formula by hand for a bare room of one material with one person in it.
#[test]
fn known_surfaces_ring_as_eyring_says() {
    for name in ["tile", "carpet_on_felt", "wood_panelling", "curtain_heavy"] {
        let plan = plain_with(&[("/brief/room/surfaces", all_of(name))]);
        let row = material(name).unwrap();
        let (volume, surface): (f64, f64) = (4.0 * 5.0 * 2.6, 2.0 * (4.0 * 5.0 + 4.0 * 2.6 + 5.0 * 2.6));
        let time = |band: usize| {
            let absorption = surface * row.absorption[band].min(0.99) + PERSON_M2[band];
            // Air at 20 degrees and 50 per cent (ISO 9613-1; worked values at 500 Hz and 1 kHz).
            let air = [6.281_760_99e-4, 1.074_094_21e-3][band - 2];
            let taken = -surface * (1.0 - absorption / surface).ln() + 4.0 * air * volume;
            24.0 * 10f64.ln() / 343.0 * volume / taken
        };
        let got = reading(&plan, "sound.room.rt_mid_s");
        assert_close(got.value.unwrap(), (time(2) + time(3)) / 2.0, 1e-6, 0.0, name);
        assert_eq!(got.from, Origin::Computed);
        // Sabine stands beside it and is never shorter.
        let sabine = got.working.inputs.iter().find(|i| i.name == "Sabine instead").unwrap().value;
        assert!(sabine > got.value.unwrap(), "{name}");
    }
}

#[test]
fn more_absorption_rings_shorter_and_every_row_is_a_number_between_0_and_1() {
    let time =
        |name: &str| value(&plain_with(&[("/brief/room/surfaces", all_of(name))]), "sound.room.rt_mid_s");
    assert!(
        time("tile") > time("hard_average")
            && time("hard_average") > time("rug")
            && time("rug") > time("panel_50mm")
    );
    assert_eq!(BANDS_HZ, [125, 250, 500, 1000, 2000, 4000]);
    assert!(MATERIALS.len() >= 20);
    for row in MATERIALS {
        assert!(row.absorption.iter().all(|a| (0.0..=1.0).contains(a)), "{}", row.id);
    }
}

/// What stands in the room takes its share: beds, sofas and full bookcases do, a bare desk does not.
#[test]
fn soft_furniture_shortens_the_time() {
    let with = |kind: &str| {
        let piece =
            json!({ "kind": kind, "position_m": [3.2, 4.0, 0], "size_m": [1.4, 1.8, 0.7], "fixed": true });
        let plan = plain_with(&[
            ("/brief/room/surfaces", all_of("hard_average")),
            ("/brief/room/furniture/piece", piece),
        ]);
        value(&plan, "sound.room.rt_mid_s")
    };
    let bare = with("desk");
    assert!(with("bed") < bare && with("sofa") < bare && with("bookcase") < bare);
    assert_eq!(with("wardrobe"), bare);
}

/// Half of the surfaces known: still marked assumed, and moved from 0.5 s in the right direction.
#[test]
fn what_is_known_moves_the_assumed_time() {
    let with =
        |floor: &str| plain_with(&[("/brief/room/surfaces", json!({ "floor": { "material": floor } }))]);
    let (unknown, soft) = (plain_with(&[]), with("carpet_on_felt"));
    assert_close(value(&unknown, "sound.room.rt_mid_s"), 0.5, 1e-9, 0.0, "unknown");
    assert!(value(&soft, "sound.room.rt_mid_s") < 0.5);
    assert_eq!(reading(&soft, "sound.room.rt_mid_s").from, Origin::Assumed);
    let measured = plain_with(&[("/brief/measured", json!({ "sound.room.rt_mid_s": 0.33 }))]);
    assert_eq!(reading(&measured, "sound.room.rt_mid_s").from, Origin::Measured);
    assert_eq!(value(&measured, "sound.room.rt_mid_s"), 0.33);
}

/// 20 lg of the distances, from the document's own positions.
#[test]
fn nearness_is_counted_in_decibels() {
    let plan = plain_with(&[]);
    let corner = Corner::of(&plan).unwrap();
    let (voice, lens) = (
        (corner.microphone.unwrap().1 - corner.mouth_m).length(),
        (corner.view.position_m - corner.mouth_m).length(),
    );
    assert_close(value(&plan, "sound.microphone.distance_m"), voice, 1e-12, 0.0, "distance");
    assert_close(
        value(&plan, "sound.microphone.gain_over_camera_db"),
        20.0 * (lens / voice).log10(),
        1e-9,
        0.0,
        "gain",
    );
    // Half the distance brings 6.02 dB (inverse square law).
    let mouth = corner.mouth_m;
    let half = mouth + (corner.microphone.unwrap().1 - mouth) / 2.0;
    let nearer = plain_with(&[("/layout/microphone/position_m", json!(half.to_array()))]);
    let more = value(&nearer, "sound.microphone.gain_over_camera_db")
        - value(&plan, "sound.microphone.gain_over_camera_db");
    assert_close(more, 20.0 * 2f64.log10(), 1e-9, 0.0, "half the distance");
}

proptest! {
    /// Two tapes from the back corners find the mark again (trilateration), and no error of 1 cm in either tape puts it
    /// further off than is said, to first order.
    #[test]
    fn two_tapes_find_the_mark_again(width in 1.0f64..8.0, x in 0.05f64..0.95, y in 0.3f64..6.0) {
        let x = x * width;
        let mark = tape_mark(width, x, y, 0.001);
        let found = |left: f64, right: f64| {
            let across = (left * left - right * right + width * width) / (2.0 * width);
            (across, (left * left - across * across).max(0.0).sqrt())
        };
        let (left, right) = (mark.to_back_left_corner_m, mark.to_back_right_corner_m);
        let (fx, fy) = found(left, right);
        assert_close(fx, x, 0.0, 1e-9, "x");
        assert_close(fy, y, 0.0, 1e-7, "y");
        prop_assert_eq!((mark.from_left_m, mark.from_back_m), (x, y));
        let worst = mark.worst_error_m.unwrap();
        for (dl, dr) in [(0.001, 0.001), (0.001, -0.001), (-0.001, 0.001), (-0.001, -0.001)] {
            let (ex, ey) = found(left + dl, right + dr);
            prop_assert!((ex - x).hypot(ey - y) <= worst * 1.02 + 2e-5, "{} {}", (ex - x).hypot(ey - y), worst);
        }
    }

    /// The bag keeps the stand up: with it, restoring moment is 1.5 times the overturning one about the weakest edge;
    /// moments about every edge of the triangle of feet are summed here from weights and positions.
    #[test]
    fn the_bag_keeps_the_stand_up(
        radius in 0.2f64..0.8, stand in 0.5f64..6.0, load in 0.0f64..5.0, reach in 0.0f64..1.5, knock in 0.0f64..20.0, height in 0.5f64..2.5,
    ) {
        let parts = [(stand, 0.0), (load, reach)];
        let tipping = stand_tipping(radius, &parts, knock, height, radius / 2.0, 1.5);
        assert_close(tipping.tipping_arm_m, radius / 2.0, 1e-12, 0.0, "inradius of the feet");
        // About the edge on the load's side, weights behind it hold, weights beyond it and the knock overturn.
        let edge = radius / 2.0;
        let bag = (tipping.sandbag_kg, -radius / 2.0);
        let (mut holds, mut tips) = (0.0, knock * height / 9.80665);
        for (mass, at) in parts.iter().chain([&bag]) {
            if *at < edge { holds += mass * (edge - at) } else { tips += mass * (at - edge) }
        }
        prop_assert!(holds >= 1.5 * tips - 1e-9, "{holds} against {tips}");
        if tipping.sandbag_kg > 0.0 {
            assert_close(holds, 1.5 * tips, 1e-9, 1e-9, "no more than needed");
        }
    }
}

/// Longer arms and heavier lamps need heavier bags; a wider foot a lighter one.
#[test]
fn bags_follow_load_reach_and_foot() {
    let bag = |edits: &[(&str, Value)], thing: ThingId| {
        let plan = plain_with(edits);
        sandbags(&Corner::of(&plan).unwrap()).into_iter().find(|s| s.thing == thing).unwrap().needed_kg
    };
    let usual = bag(&[], ThingId::Microphone);
    assert!(bag(&[("/layout/microphone/support/base_m", json!([3.1, 1.5]))], ThingId::Microphone) > usual);
    assert!(bag(&[("/brief/gear/voice/mass_kg", json!(1.0))], ThingId::Microphone) > usual);
    assert!(bag(&[("/brief/gear/arm/foot_radius_m", json!(0.6))], ThingId::Microphone) < usual);
    assert_eq!(bag(&[], ThingId::Camera), 0.0, "a tripod carries its camera over its middle");
}

/// Watts over power factor, over volts, over the breaker; assumed values follow the unit system and say so.
#[test]
fn the_breaker_holds_what_is_plugged_in() {
    let plan = plain_with(&[]);
    let load = reading(&plan, "room.mains.load_fraction");
    assert_close(load.value.unwrap(), 60.0 / 230.0 / 16.0, 1e-12, 0.0, "metric");
    assert!(
        load.working
            .inputs
            .iter()
            .filter(|i| ["mains", "breaker"].contains(&i.name))
            .all(|i| i.from == Origin::Assumed)
    );
    let imperial = plain_with(&[("/brief/units", json!("imperial"))]);
    assert_close(value(&imperial, "room.mains.load_fraction"), 60.0 / 120.0 / 15.0, 1e-12, 0.0, "imperial");
    let told = plain_with(&[
        ("/brief/room/mains", json!({ "voltage_v": 110, "breaker_a": 10 })),
        ("/brief/gear/lamp/power_factor", json!(0.5)),
    ]);
    assert_close(value(&told, "room.mains.load_fraction"), 60.0 / 0.5 / 110.0 / 10.0, 1e-12, 0.0, "told");
    // Power unknown: flux at 80 lm/W, said to be assumed.
    let unknown = plain_with(&[("/brief/gear/lamp/power_w", Value::Null)]);
    let watts = reading(&unknown, "room.mains.load_fraction")
        .working
        .inputs
        .into_iter()
        .find(|i| i.name == "lamp")
        .unwrap();
    let flux = std::f64::consts::PI * 2000.0 / (std::f64::consts::PI * 0.04 / (0.04 + 1.0))
        * std::f64::consts::PI
        * 0.04;
    assert_close(watts.value, flux / 80.0, 5e-3, 0.0, "watts from light");
    assert_eq!(watts.from, Origin::Assumed);
}

/// Worked by hand: the eyes at (2, 1.5), the lens straight ahead towards the front wall of 4 x 5 m. A window in the middle
/// of the front wall is in line with the lens; one in the right wall at the eyes' depth lies square to it, to camera left,
/// for the person's right is the camera's left.
#[test]
fn windows_are_placed_as_the_camera_sees_them() {
    let window =
        |wall: u8, from_m: f64| json!({ "kind": "window", "wall": wall, "from_m": from_m, "width_m": 1.0 });
    for (wall, from_m, degrees) in
        [(2, 1.5, 0.0), (1, 1.0, -90.0), (3, 3.0, 90.0), (0, 1.5, 180.0), (1, 3.0, -45.0)]
    {
        let plan = plain_with(&[("/brief/room/openings/window", window(wall, from_m))]);
        let azimuth = value(&plan, "daylight.window.azimuth_deg");
        assert!((azimuth - degrees).abs() < 1e-6, "wall {wall}: {azimuth}");
    }
}

/// An L of 4 x 5 m without its front-right 2 x 2 m, a slope over the back wall from 1.2 m to the ceiling of 2.6 m in
/// 1.4 m, a beam: areas and volume added up by hand.
#[test]
fn areas_and_volumes_of_a_room_with_a_slope_are_as_added_up() {
    let plan = plain_with(&[
        ("/brief/room/floor_m", json!([[0, 0], [4, 0], [4, 3], [2, 3], [2, 5], [0, 5]])),
        ("/brief/room/slopes", json!({ "roof": { "wall": 0, "knee_m": 1.2, "run_m": 1.4 } })),
        (
            "/brief/room/beams",
            json!({ "tie": { "from_m": [0, 4], "to_m": [2, 4], "width_m": 0.2, "drop_m": 0.3 } }),
        ),
    ]);
    let room = &plan.brief.room;
    assert_close(
        room.volume_m3(),
        16.0 * 2.6 - 4.0 * 1.4 * 1.4 / 2.0 - 2.0 * 0.2 * 0.3,
        1e-12,
        0.0,
        "volume",
    );
    let areas = room.surfaces_m2();
    let area = |name: &str| areas.iter().find(|(n, _)| *n == name).unwrap().1;
    assert_close(area("wall-0"), 4.0 * 1.2, 1e-12, 0.0, "the wall under the slope");
    assert_close(area("wall-1"), 3.0 * 2.6 - 0.98, 1e-12, 0.0, "the wall beside it");
    assert_close(area("wall-3"), 2.0 * 2.6, 1e-12, 0.0, "an inner wall");
    assert_close(area("floor"), 16.0, 1e-12, 0.0, "floor");
    let sloping = 4.0 * 1.4f64.hypot(1.4);
    assert_close(area("ceiling"), 16.0 - 5.6 + sloping + 2.0 * 2.0 * 0.3, 1e-12, 0.0, "ceiling");
    for (at, height) in [([1.0, 0.0], 1.2), ([1.0, 0.7], 1.9), ([1.0, 1.4], 2.6), ([1.0, 4.05], 2.3)] {
        assert_close(room.ceiling_m(DVec2::from_array(at)), height, 1e-9, 0.0, "ceiling over a point");
    }
}

proptest! {
    /// Of all pairs of corners the card names the one whose worst error is least; the error is what the farthest of
    /// the four crossings of two circles is off, for a small tape error.
    #[test]
    fn the_best_corners_are_named_and_their_error_is_that_of_crossing_circles(x in 0.2f64..3.8, y in 0.2f64..2.8) {
        let corners = [("a", DVec2::ZERO), ("b", DVec2::new(4.0, 0.0)), ("c", DVec2::new(4.0, 3.0)), ("d", DVec2::new(0.0, 3.0))];
        let at = DVec2::new(x, y);
        let error = 1e-5;
        let mark = corner_mark(at, &corners, error).unwrap();
        let worst = mark.worst_error_m.unwrap();
        for (i, a) in corners.iter().enumerate() {
            for b in &corners[i + 1..] {
                prop_assert!(worst <= worst_error_m(at, [a.1, b.1], error) + 2e-9);
            }
        }
        let [one, other] = mark.corners.each_ref().map(|c| corners.iter().find(|(l, _)| *l == c.corner).unwrap().1);
        let crossing = |r: f64, q: f64| {
            let base = (other - one).normalize();
            let long = one.distance(other);
            let along = (r * r - q * q + long * long) / (2.0 * long);
            let side = if base.perp_dot(at - one) > 0.0 { 1.0 } else { -1.0 };
            one + base * along + base.perp() * side * (r * r - along * along).max(0.0).sqrt()
        };
        let (r, q) = (one.distance(at), other.distance(at));
        let off = [(1.0, 1.0), (1.0, -1.0), (-1.0, 1.0), (-1.0, -1.0)]
            .map(|(i, j)| crossing(r + i * error, q + j * error).distance(at));
        let most = off.into_iter().fold(0.0, f64::max);
        assert_close(most, worst, 2e-2, 0.0, "crossing circles");
    }
}

fn walk(legs: &[(f64, f64)]) -> Walk {
    Walk {
        legs: legs
            .iter()
            .map(|(length_m, turn_deg)| Leg { length_m: *length_m, turn_deg: *turn_deg })
            .collect(),
    }
}

/// An L walked with a tape that is 4 cm short on one wall, its share-out worked by hand: 7.96 m are gone along the back
/// wall's direction there and back, so 4.00, 2.00 and 1.96 m take 20.1, 10.05 and 9.85 mm of it; square stays square.
#[test]
fn what_a_walk_does_not_close_by_is_said_and_shared_out() {
    let legs = [(4.0, 90.0), (2.0, 90.0), (2.0, -90.0), (1.0, 90.0), (1.96, 90.0), (3.0, 90.0)];
    let found = walked(&walk(&legs)).unwrap();
    assert_close(found.closing_error_m, 0.04, 1e-9, 0.0, "closing error");
    assert_close(found.way_m, 13.96, 1e-9, 0.0, "way");
    let want = [[0.0, 0.0], [3.980, 0.0], [3.980, 2.0], [1.970, 2.0], [1.970, 3.0], [0.0, 3.0]];
    for (corner, want) in found.floor_m.iter().zip(want) {
        assert_close(corner.0[0], want[0], 0.0, 6e-4, "x");
        assert_close(corner.0[1], want[1], 0.0, 6e-4, "y");
    }
    // Exact walks come out exact; the room stays as it was, whichever corner is the leftmost.
    let exact = walked(&walk(&[(3.4, 90.0), (2.9, 90.0), (3.4, 90.0), (2.9, 90.0)])).unwrap();
    assert!(exact.closing_error_m < 1e-12);
    assert_eq!(
        exact.floor_m.iter().map(|p| p.0).collect::<Vec<_>>(),
        [[0.0, 0.0], [3.4, 0.0], [3.4, 2.9], [0.0, 2.9]]
    );
    let refused = |legs: &[(f64, f64)]| walked(&walk(legs)).unwrap_err();
    assert!(refused(&[(3.0, 90.0), (3.0, 90.0), (3.0, 90.0), (3.0, -90.0)]).value.contains("180 degrees"));
    assert!(refused(&[(3.0, 90.0), (3.0, 90.0), (1.0, 90.0), (3.0, 90.0)]).value.contains("2.00 m"));
}

proptest! {
    /// Whatever is read wrong by a few centimetres, the floor closes, keeps its walls to what was read wrong, and
    /// stands against both axes.
    #[test]
    fn walks_close(off in prop::collection::vec(-0.03f64..0.03, 6), shift in 0.5f64..1.5) {
        let true_legs = [(4.0, 90.0), (3.0, 90.0), (2.0, -90.0), (shift, 90.0), (2.0, 90.0), (3.0 + shift, 90.0)];
        let legs: Vec<(f64, f64)> = true_legs.iter().zip(&off).map(|((l, t), o)| (l + o, *t)).collect();
        let found = walked(&walk(&legs)).unwrap();
        let corners: Vec<DVec2> = found.floor_m.iter().map(|p| (*p).into()).collect();
        for (i, (long, _)) in legs.iter().enumerate() {
            let wall = corners[i].distance(corners[(i + 1) % corners.len()]);
            prop_assert!((wall - long).abs() <= found.closing_error_m + 2e-3, "wall {i}: {wall} read as {long}");
        }
        let least = corners.iter().copied().fold(DVec2::INFINITY, DVec2::min);
        prop_assert!(least.length() < 1e-9);
    }
}
