//! Rooms that are no plain boxes, worked by hand in the plain corner: what inner corners, slopes and beams forbid, and
//! that they are drawn where they are.

use fogon_core::drawing::{Ink, View, draw};
use fogon_core::plan::Plan;
use fogon_testkit::assert_close;
use serde_json::{Value, json};

use crate::support::{in_the_way, plain_with, value};

/// The plain corner without its front-right part.
fn l_shaped(more: &[(&str, Value)]) -> Plan {
    let floor = json!([[0, 0], [4, 0], [4, 2.5], [2.6, 2.5], [2.6, 5], [0, 5]]);
    plain_with(&[&[("/brief/room/floor_m", floor)], more].concat())
}

/// The plain corner under a roof that comes down to 20 cm at the front wall: 1.25 m high 0.9625 m from it.
fn under_a_roof(more: &[(&str, Value)]) -> Plan {
    let roof = json!({ "roof": { "wall": 2, "knee_m": 0.2, "run_m": 2.2 } });
    plain_with(&[&[("/brief/room/slopes", roof)], more].concat())
}

fn says(plan: &Plan, id: &str, words: &str) {
    let found = in_the_way(plan);
    let finding = found.iter().find(|f| f.id == id && f.sentence.contains(words));
    assert!(
        finding.is_some(),
        "no {id} with “{words}” in {:#?}",
        found.iter().map(|f| (&f.id, &f.sentence)).collect::<Vec<_>>()
    );
}

fn is_free(plan: &Plan) {
    let found = in_the_way(plan);
    assert!(found.iter().all(|f| !f.id.to_string().starts_with("legal.")), "{found:#?}");
}

#[test]
fn inner_corners_slopes_and_beams_are_kept_out_of() {
    is_free(&l_shaped(&[]));
    is_free(&under_a_roof(&[]));
    let lens_at = |y: f64| {
        [
            ("/layout/camera/position_m", json!([2, y, 1.25])),
            ("/layout/camera/focus_distance_m", json!(y - 1.5)),
        ]
    };
    says(&under_a_roof(&lens_at(4.4)), "legal.room.camera", "into the slope at the front wall");
    // The body still fits; hand and plugs 22 cm behind the sensor do not.
    says(&under_a_roof(&lens_at(3.87)), "legal.camera.camera", "behind the sensor");
    let room_for_it = in_the_way(&under_a_roof(&lens_at(3.6)));
    assert!(room_for_it.iter().all(|f| !f.id.to_string().ends_with(".camera")), "{room_for_it:#?}");
    let beam = |drop: f64| json!({ "tie": { "from_m": [0, 2.4], "to_m": [4, 2.4], "width_m": 0.6, "drop_m": drop } });
    is_free(&plain_with(&[("/brief/room/beams", beam(0.2))]));
    says(&plain_with(&[("/brief/room/beams", beam(0.8))]), "legal.room.key", "into the beam");
    let near = plain_with(&[("/brief/room/beams", beam(0.39))]);
    says(&near, "legal.room.key", "of the beam; 10 cm are needed");
    // A stand in the right part whose feet reach round the corner's wall.
    let foot = l_shaped(&[("/layout/lights/key/position_m", json!([3.1, 2.3, 1.9]))]);
    says(&foot, "legal.room.key", "into the wall");
    // Round the corner the lamp does not reach the face.
    let round = plain_with(&[
        ("/brief/room/floor_m", json!([[0, 0], [4, 0], [4, 2], [2.4, 2], [2.4, 5], [0, 5]])),
        ("/layout/seat/position_m", json!([3.2, 1.2])),
        ("/layout/lights/key/position_m", json!([1.1, 4, 1.9])),
    ]);
    says(&round, "legal.sight.key", "The wall stands between the key and the face");
}

/// A slope over the back wall from 0.5 m to the ceiling of 2.6 m in 1.4 m is as high as the eyes 0.5 m from the wall.
#[test]
fn a_slope_behind_the_head_is_the_background() {
    let roof = json!({ "roof": { "wall": 0, "knee_m": 0.5, "run_m": 1.4 } });
    let plan = plain_with(&[("/brief/room/slopes", roof), ("/layout/seat/position_m", json!([2, 1.9]))]);
    assert_close(value(&plan, "room.background_behind_m"), 1.4, 0.0, 0.021, "to the slope");
    let side = draw(&plan).unwrap().side;
    let floor = outline(&side, Ink::Floor);
    let at_the_wall = floor.iter().filter(|p| (p[0] - floor_left(&floor)).abs() < 1e-6).map(|p| -p[1]);
    assert_close(at_the_wall.fold(0.0, f64::max), 0.5, 0.0, 1e-3, "the ceiling at the wall");
    assert_close(-floor.iter().map(|p| p[1]).fold(0.0, f64::min), 2.6, 0.0, 1e-3, "the flat ceiling");
}

fn outline(view: &View, ink: Ink) -> Vec<[f64; 2]> {
    view.strokes.iter().find(|s| s.ink == ink).unwrap().points.clone()
}

fn floor_left(points: &[[f64; 2]]) -> f64 {
    points.iter().map(|p| p[0]).fold(f64::INFINITY, f64::min)
}

fn area(points: &[[f64; 2]]) -> f64 {
    let next = points.iter().cycle().skip(1);
    points.iter().zip(next).map(|(a, b)| a[0] * b[1] - a[1] * b[0]).sum::<f64>().abs() / 2.0
}

/// What the plan shades as seen is what is seen: of points on a grid, those within the field whose line to the lens
/// stays in the room, step by step.
#[test]
fn the_field_goes_round_no_corner() {
    let plan = l_shaped(&[
        ("/layout/camera/position_m", json!([1.2, 4.3, 1.25])),
        ("/layout/camera/bearing_deg", json!(150)),
        ("/layout/camera/focal_length_mm", json!(24)),
        ("/layout/camera/focus_distance_m", json!(3)),
    ]);
    let in_the_room = |x: f64, y: f64| {
        (0.0..=4.0).contains(&x) && (0.0..=2.5).contains(&y)
            || (0.0..=2.6).contains(&x) && (0.0..=5.0).contains(&y)
    };
    // The plain corner's picture: 36 mm wide at f u / (u - f).
    let half = 18.0 / (24.0 * 3000.0 / (3000.0 - 24.0));
    let (sin, cos) = 150f64.to_radians().sin_cos();
    let (mut seen, step) = (0.0, 0.025);
    for i in 0..160 {
        for j in 0..200 {
            let (x, y) = ((f64::from(i) + 0.5) * step, (f64::from(j) + 0.5) * step);
            let (dx, dy) = (x - 1.2, y - 4.3);
            let (ahead, aside) = (dx * sin + dy * cos, dx * cos - dy * sin);
            let free =
                (0..=60).all(|k| in_the_room(1.2 + dx * f64::from(k) / 60.0, 4.3 + dy * f64::from(k) / 60.0));
            if ahead > 0.0 && aside.abs() < half * ahead && free {
                seen += step * step;
            }
        }
    }
    let field = area(&outline(&draw(&plan).unwrap().plan, Ink::Field));
    assert!(seen > 3.0, "{seen}");
    assert_close(field, seen, 0.02, 0.0, "seen floor, m2");
    let sharp = area(&outline(&draw(&plan).unwrap().plan, Ink::Sharp));
    assert!(sharp < field, "{sharp} of {field}");
}
