//! The shot over distance: the chart against closed forms worked out here, the room that ends it, the two schools, and
//! moving along it by hand.

use fogon_core::corner::Corner;
use fogon_core::finding::Rule;
use fogon_core::hand::{Grip, Move, Moved, Sheet, moved};
use fogon_core::plan::{Plan, Point3};
use fogon_core::shot::chart::{Chart, chart};
use fogon_core::shot::perspective::school_scores;
use fogon_testkit::assert_close;
use proptest::prelude::*;
use serde_json::json;

use crate::support::{demo, plain_with, value};

fn chart_of(plan: &Plan) -> Chart {
    chart(&Corner::of(plan).unwrap())
}

fn shot(distance_m: Option<f64>, focal_length_mm: Option<f64>) -> Move {
    Move {
        thing: "camera".into(),
        grip: Grip::Shot,
        to_m: None,
        from_eyes: None,
        bearing_deg: None,
        distance_m,
        focal_length_mm,
        sheet: Sheet::Plan,
        snap: false,
        anyway: false,
    }
}

fn done(plan: &Plan, by: &Move) -> Moved {
    moved(plan, by).unwrap_or_else(|problems| panic!("{problems}"))
}

/// Focal length, mm, with which a lens level with the eyes, `u` deep from them, has the eyes on the upper third and the lower edge
/// `below_m` under them. With p = below / flat distance and t the tangent of the tilt down, both marks give (t - p) / (1 + t p) = -3 t,
/// so t = (sqrt(16 + 12 p^2) - 4) / 6 p; the image lies 1 / 6 t picture heights behind the lens. The flat distance by halving.
fn framing_mm(u: f64, below_m: f64, image_height_mm: f64) -> f64 {
    let tilt = |flat: f64| {
        let p = below_m / flat;
        ((16.0 + 12.0 * p * p).sqrt() - 4.0) / (6.0 * p)
    };
    let depth = |flat: f64| flat * tilt(flat).atan().cos();
    let (mut low, mut high) = (u, 3.0 * u);
    for _ in 0..60 {
        let middle = (low + high) / 2.0;
        if depth(middle) < u { low = middle } else { high = middle }
    }
    let v = image_height_mm / (6.0 * tilt(low));
    v * u * 1000.0 / (v + u * 1000.0)
}

/// The plain corner: stature 1.75 m, so that the chest-up frame is 0.567 m high (0.324 of stature: Drillis and Contini,
/// from memory, thirds); full frame, 36 x 20.25 mm; the wall 1.5 m behind the eyes, the front wall 3.5 m before them.
#[test]
fn the_chart_is_what_the_lens_formulas_give() {
    let plan = plain_with(&[]);
    let told = chart_of(&plan);
    for station in &told.along {
        let u = station.distance_m;
        let focal = station.focal_length_mm;
        assert_close(focal, framing_mm(u, 0.378, 20.25), 1e-4, 0.0, "focal length");
        // Far away the tilt is nothing, and f = u s / (S + s).
        let flat = 1000.0 * u * 20.25 / (567.0 + 20.25);
        assert_close(focal, flat, 0.04 / (u * u), 0.0, "from afar");
        // About f/4 on full frame, but no lens at hand goes beyond 24 to 70 mm.
        let blur = focal * focal / 4.0 * 1500.0 / ((u + 1.5) * 1000.0 * (u * 1000.0 - focal)) / 36.0;
        assert_close(station.blur_percent, 100.0 * blur, 1e-6, 0.0, "blur");
        assert_close(station.background_width_m, 1.008 * (u + 1.5) / u, 1e-9, 0.0, "wall in view");
        // Below the lower edge the mouth is nearer than above the upper one: 2/3 S less 0.04 stature, and 0.10.
        let over = 0.567 / 3.0 + 0.07 + 0.10;
        let under = 0.567 * 2.0 / 3.0 - 0.07 + 0.10;
        assert_close(station.microphone_m, f64::min(over, under), 1e-9, 0.0, "microphone");
        assert_close(
            station.on_camera_db,
            20.0 * (station.microphone_m / u).log10(),
            1e-9,
            0.0,
            "on the camera",
        );
    }
    // 0.22 m behind the sensor, which lies v behind the lens: 3.5 - 0.22 - v, v = f u / (u - f).
    let f = 3.2 * 20.25 / (0.567 + 0.02025) / 1000.0;
    let v = f * 3.2 / (3.2 - f);
    assert_close(told.room_m, 3.5 - 0.22 - v, 0.0, 0.01, "the wall ends it");
    assert_eq!(told.ends_at, "the front wall");
    assert_eq!(told.shots.iter().filter(|s| s.wanted).count(), 1);
    assert!(told.shots.windows(2).all(|s| s[0].frame_height_m < s[1].frame_height_m), "closest first");
    // A lens that would need more room is kept out in words.
    let wide = told.takes.iter().find(|t| t.station.focal_length_mm < 25.0).unwrap();
    assert!(wide.kept_by.is_none() && wide.station.distance_m < 0.8);
    let near = plain_with(&[("/brief/gear/lens/nearest_focus_m", json!(1.2))]);
    let kept = &chart_of(&near).takes[0];
    assert!(kept.kept_by.as_ref().unwrap().contains("focuses"), "{:?}", kept.kept_by);
}

/// Worked examples of the two schools: the least of trapezia over distance, equivalent focal length and blur (ranges
/// common practice, no source).
#[test]
fn each_school_is_the_least_of_its_parts() {
    for (distance, equivalent, blur, near, far) in [
        (0.70, 24.0, 0.009467, 1.0, 0.0),
        (2.2, 85.0, 0.013739, 0.0, 1.0),
        (1.15, 28.0, 0.006, 0.7, 0.0),
        (1.15, 40.0, 0.006, 0.0, 0.333_33),
    ] {
        let (a, b) = school_scores(distance, equivalent, blur);
        assert_close(a, near, 0.0, 1e-4, "near and wide");
        assert_close(b, far, 0.0, 1e-4, "far and long");
    }
    // On a corner: the best of each is at least as good as where the camera stands.
    let plan = demo();
    for school in chart_of(&plan).schools {
        let (id, best) = (school.id, school.best.expect("a lens fits"));
        let (here, there) = match id {
            "near-and-wide" => {
                (value(&plan, "shot.school.near_and_wide_percent"), best.near_and_wide_percent)
            }
            _ => (value(&plan, "shot.school.far_and_long_percent"), best.far_and_long_percent),
        };
        assert!(there >= here - 2.0, "{id}: {there} against {here}");
    }
}

#[test]
fn distance_and_focal_length_move_along_the_frame() {
    let plan = plain_with(&[]);
    // Distance alone keeps the wanted frame, and so does a focal length alone.
    let back = done(&plan, &shot(Some(1.7), None));
    assert!(back.held.is_none(), "{:?}", back.held);
    assert_close(value(&back.plan, "shot.camera.distance_m"), 1.7, 0.0, 0.005, "distance");
    assert!(value(&back.plan, "shot.frame.height_error_percent").abs() < 0.5);
    assert!(value(&back.plan, "shot.frame.eye_line_error").abs() < 0.003);
    let longer = done(&plan, &shot(None, Some(60.0)));
    assert_eq!(longer.plan.layout.camera.focal_length_mm, 60.0);
    assert!(value(&longer.plan, "shot.frame.height_error_percent").abs() < 0.5);
    // Both: free, unless it is nearly the wanted frame.
    let free = done(&plan, &shot(Some(1.5), Some(30.0)));
    assert!(value(&free.plan, "shot.frame.height_error_percent") > 15.0, "a wide frame");
    let f = 1000.0 * 1.6 * 20.25 / 587.25;
    let nearly = Move { snap: true, ..shot(Some(1.6), Some(f * 1.03)) };
    let drawn = done(&plan, &nearly);
    assert_eq!(drawn.snaps, ["The wanted frame."]);
    assert!(value(&drawn.plan, "shot.frame.height_error_percent").abs() < 0.5);
    // Beyond the lens: its end, and why.
    let end = done(&plan, &shot(None, Some(200.0)));
    assert!(end.plan.layout.camera.focal_length_mm <= 70.0);
    assert!(end.held.is_some());
    // Through the wall: as far as it goes.
    let wall = done(&plan, &shot(Some(4.5), Some(40.0)));
    assert_eq!(wall.held.unwrap().rule, Rule::Camera);
    // Further back the same lens sees more: the key would come into the picture before the wall is reached.
    assert!(value(&wall.plan, "shot.camera.distance_m") > 1.5);
}

/// The edge of the picture is drawn through a point of the floor: from there the point lies on the edge.
#[test]
fn the_edge_of_the_picture_is_put_through_a_point() {
    let plan = plain_with(&[]);
    let by = Move { grip: Grip::Zoom, to_m: Some(Point3([2.45, 1.2, 0.0])), ..shot(None, None) };
    let zoomed = done(&plan, &by).plan;
    let corner = Corner::of(&zoomed).unwrap();
    let at = fogon_core::geometry::DVec3::new(2.45, 1.2, corner.view.position_m.z);
    let (x, _) = corner.view.project(at).unwrap();
    // Camera left is the room's right here.
    assert_close(x, 0.0, 0.0, 0.01, "on the left edge");
}

#[test]
fn moves_that_mean_nothing_are_refused() {
    let plan = plain_with(&[]);
    for by in [
        shot(None, None),
        Move { thing: "key".into(), ..shot(Some(1.0), None) },
        Move { to_m: Some(Point3([1.0, 1.0, 1.0])), ..shot(Some(1.0), None) },
        Move { grip: Grip::Zoom, ..shot(None, None) },
    ] {
        assert!(moved(&plan, &by).is_err(), "{by:?}");
    }
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 40, ..ProptestConfig::default() })]

    /// Wherever the dot is dragged: no rule is broken anew, the eyes stay in the middle and on their line, and what kept
    /// it is told.
    #[test]
    fn the_dot_breaks_no_rule(u in 0.3f64..5.0, f in 10.0f64..120.0, snap in any::<bool>()) {
        let plan = demo();
        let before = crate::support::in_the_way(&plan).len();
        let outcome = done(&plan, &Move { snap, ..shot(Some(u), Some(f)) });
        prop_assert!(crate::support::in_the_way(&outcome.plan).iter().filter(|f| f.id.to_string().starts_with("legal.")).count() == 0);
        prop_assert_eq!(before, 0);
        let corner = Corner::of(&outcome.plan).unwrap();
        let (x, _) = corner.view.project(corner.eyes_m).unwrap();
        prop_assert!((x - 0.5).abs() < 0.01, "{}", x);
        let there = (corner.subject_distance_m() - u).abs() < 0.05
            && (outcome.plan.layout.camera.focal_length_mm / f - 1.0).abs() < 0.07;
        prop_assert!(there || outcome.held.is_some(), "{} {:?}", corner.subject_distance_m(), outcome.held);
    }
}
