//! The picture against an independent projection: OpenCV's, by `reference/projection` (see the fixtures' README).

use fogon_core::drawing::{Ink, draw};
use fogon_core::geometry::{DVec3, Pinhole};
use serde_json::{Value, json};

use crate::support::plain_with;

const MOST_PX: f64 = 0.2;

fn fixture() -> Value {
    serde_json::from_str(include_str!("../fixtures/projection.json")).unwrap()
}

fn numbers(value: &Value) -> Vec<f64> {
    value.as_array().unwrap().iter().map(|v| v.as_f64().unwrap()).collect()
}

fn point(value: &Value) -> DVec3 {
    let n = numbers(value);
    DVec3::new(n[0], n[1], n[2])
}

#[test]
fn points_come_where_an_independent_projection_has_them() {
    let told = fixture();
    let width = told["width_px"].as_f64().unwrap();
    let mut seen = 0;
    for scene in told["scenes"].as_array().unwrap() {
        let camera = &scene["camera"];
        let number = |field: &str| camera[field].as_f64().unwrap();
        let image = numbers(&camera["image_mm"]);
        let (f, u) = (number("focal_length_mm"), number("focus_distance_m"));
        let distance = fogon_core::corner::image_distance_mm(f, u).unwrap();
        let view = Pinhole::new(
            point(&camera["position_m"]),
            number("bearing_deg"),
            number("tilt_deg"),
            image[0],
            image[1],
            distance,
        );
        let height = width * image[1] / image[0];
        for (at, pixel) in
            scene["points_m"].as_array().unwrap().iter().zip(scene["pixels"].as_array().unwrap())
        {
            let (x, y) = view.project(point(at)).expect("before the lens");
            let want = numbers(pixel);
            // Points are told to a tenth of a millimetre: far beside the picture that is more of a pixel.
            let off = (x * width - want[0]).hypot(y * height - want[1]);
            assert!(off < MOST_PX, "{camera} sees {at} {off} pixels away");
            seen += 1;
        }
    }
    assert_eq!(seen, 24 * 12);
}

/// The chest as it is drawn: every corner of its outline is one that the reference has, to 0.2 pixels.
#[test]
fn what_is_drawn_is_what_is_projected() {
    let plan = plain_with(&[
        ("/layout/camera/bearing_deg", json!(188)),
        ("/layout/camera/tilt_deg", json!(-6)),
        (
            "/brief/room/furniture/chest",
            json!({ "kind": "cabinet", "position_m": [1.45, 0.45, 0], "size_m": [0.5, 0.5, 1.15], "fixed": true }),
        ),
    ]);
    let frame = draw(&plan).unwrap().frame;
    let told = fixture();
    let corners: Vec<Vec<f64>> = told["chest"]["pixels"].as_array().unwrap().iter().map(numbers).collect();
    let height = 1080.0;
    let outline = frame.strokes.iter().find(|s| s.ink == Ink::Furniture).expect("the chest is drawn");
    let inside: Vec<[f64; 2]> = outline
        .points
        .iter()
        .copied()
        .filter(|[x, y]| *x > 1e-3 && *x < 16.0 / 9.0 - 1e-3 && *y > 1e-3 && *y < 1.0 - 1e-3)
        .collect();
    assert!(inside.len() >= 2, "some corners are in the picture: {:?}", outline.points);
    for [x, y] in inside {
        let off = corners
            .iter()
            .map(|c| (x * height - c[0]).hypot(y * height - c[1]))
            .fold(f64::INFINITY, f64::min);
        assert!(off < MOST_PX, "a corner at {x}, {y} lies {off} pixels from any of the reference");
    }
}
