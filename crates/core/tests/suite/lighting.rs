//! Light at the face by a second route: every face cut into small pieces, each a point source with two cosines
//! (Lambert's law), summed here.

use fogon_core::corner::{Corner, Source};
use fogon_core::geometry::DVec3;
use fogon_core::light::face::{at_face, faces, mean_reflectance, room_bounce_lx};
use fogon_core::photometry::{Face, luminance_cd_m2, shape_area_m2};
use fogon_core::plan::{GearLight, Plan, Shape};
use fogon_testkit::{assert_close, box_room, set};
use proptest::prelude::*;
use serde_json::{Value, json};

use crate::support::{best, demo, plain_with, reading, value};

/// Sum over a grid of pieces of a convex outline: fan of triangles from its middle, each halved again and again.
fn summed_lx(face: &Face, point: DVec3, normal: DVec3) -> f64 {
    fn triangle(a: DVec3, b: DVec3, c: DVec3, depth: u32, each: &mut impl FnMut(DVec3, f64)) {
        if depth == 0 {
            each((a + b + c) / 3.0, (b - a).cross(c - a).length() / 2.0);
            return;
        }
        let (ab, bc, ca) = ((a + b) / 2.0, (b + c) / 2.0, (c + a) / 2.0);
        for (p, q, r) in [(a, ab, ca), (ab, b, bc), (ca, bc, c), (ab, bc, ca)] {
            triangle(p, q, r, depth - 1, each);
        }
    }
    let mut sum = 0.0;
    for (a, b) in face.outline.iter().zip(face.outline.iter().cycle().skip(1)) {
        triangle(face.middle, *a, *b, 4, &mut |at, area| {
            let ray = at - point;
            let (square, length) = (ray.length_squared(), ray.length());
            let received = normal.dot(ray) / length;
            let sent = -face.normal.dot(ray) / length;
            sum += face.luminance_cd_m2 * received.max(0.0) * sent.max(0.0) * area / square;
        });
    }
    sum
}

fn lamp(shape: &str, width: f64, height: f64, lux: f64) -> GearLight {
    serde_json::from_value(json!({
        "label": "x", "shape": shape, "width_m": width, "height_m": height, "illuminance_at_1m_lx": lux,
        "cct_min_k": 5600.0, "cct_max_k": 5600.0
    }))
    .unwrap()
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 40, ..ProptestConfig::default() })]

    /// The contour formula and the sum agree for every shape, place and receiver, the horizon's cut included.
    #[test]
    fn faces_agree_with_a_sum_of_point_sources(
        shape in prop_oneof![Just(Shape::Disc), Just(Shape::Rectangle), Just(Shape::Octagon), Just(Shape::Tube)],
        size in (0.1f64..1.0, 0.1f64..1.0),
        at in (-1.0f64..1.0, 0.7f64..2.5, -0.6f64..1.0),
        normal in (-1.0f64..1.0, -0.2f64..1.0, -1.0f64..1.0),
    ) {
        let direction = DVec3::new(normal.0, normal.1, normal.2);
        prop_assume!(direction.length() > 0.2);
        let face = Face::new(shape, size.0, size.1, DVec3::new(at.0, at.1, at.2), DVec3::ZERO, 1000.0);
        let (got, want) = (
            face.illuminance_lx(DVec3::ZERO, direction.normalize()),
            summed_lx(&face, DVec3::ZERO, direction.normalize()),
        );
        assert_close(got, want, 0.01, 0.5, "area formula against the sum");
    }

    /// The catalogue figure comes back: a lamp of any shape gives its lux at 1 m on its axis.
    #[test]
    fn the_catalogue_figure_comes_back(
        shape in prop_oneof![Just("disc"), Just("rectangle"), Just("octagon"), Just("tube"), Just("bulb")],
        width in 0.05f64..1.5, height in 0.05f64..1.5, lux in 50.0f64..20000.0,
    ) {
        let lamp = lamp(shape, width, height, lux);
        let face = Face::new(lamp.shape, width, height, DVec3::Y, DVec3::ZERO, luminance_cd_m2(&lamp));
        assert_close(face.illuminance_lx(DVec3::ZERO, DVec3::Y), lux, 1e-9, 0.0, "lux at 1 m");
        assert_close(face.flux_lm(), std::f64::consts::PI * luminance_cd_m2(&lamp) * shape_area_m2(lamp.shape, width, height), 1e-12, 0.0, "flux");
    }
}

/// Light at the demo's face, each lamp and each cheek, by the sum.
#[test]
fn the_demos_face_is_lit_as_the_sum_says() {
    let plan = demo();
    let corner = Corner::of(&plan).unwrap();
    let lit = at_face(&corner);
    let towards = corner.to_lens();
    let lamps: Vec<Face> = faces(&corner);
    let turned = |degrees: f64| {
        let (sin, cos) = f64::to_radians(degrees).sin_cos();
        DVec3::new(towards.x * cos - towards.y * sin, towards.x * sin + towards.y * cos, 0.0)
    };
    let sum = |normal: DVec3| {
        lamps.iter().map(|f| summed_lx(f, corner.eyes_m, normal)).sum::<f64>() + lit.bounce_lx
    };
    assert_close(lit.camera_lx, sum(towards), 5e-3, 0.0, "towards the lens");
    let (one, other) = (sum(turned(45.0)), sum(turned(-45.0)));
    assert_close(lit.lit_lx, one.max(other), 5e-3, 0.0, "lit cheek");
    assert_close(lit.shadow_lx, one.min(other), 1e-2, 0.0, "shadow cheek");
    assert_close(value(&plan, "light.face.ratio"), lit.lit_lx / lit.shadow_lx, 1e-12, 0.0, "ratio");
}

/// Exposure by ISO 2720:1974 (from memory), C = 250: E = C N^2 / (t S), in stops, neutral density added.
#[test]
fn exposure_counts_stops() {
    let plan = plain_with(&[]);
    let lux = value(&plan, "light.face.illuminance_lx");
    let needed = 250.0 * 16.0 / (0.02 * 250.0);
    assert_close(value(&plan, "light.face.exposure_stops"), (lux / needed).log2(), 0.0, 1e-9, "stops");
    let change = |pointer: &str, setting: Value| {
        value(&plain_with(&[(pointer, setting)]), "light.face.exposure_stops")
    };
    let now = value(&plan, "light.face.exposure_stops");
    assert_close(change("/layout/camera/iso", json!(500)) - now, 1.0, 0.0, 1e-9, "twice the ISO");
    assert_close(change("/layout/camera/f_number", json!(5.656854)) - now, -1.0, 0.0, 1e-5, "a stop down");
    assert_close(change("/layout/camera/shutter_s", json!(0.01)) - now, -1.0, 0.0, 1e-9, "half the time");
    assert_close(change("/layout/camera/nd_stops", json!(2)) - now, -2.0, 0.0, 1e-9, "neutral density");
    assert_close(change("/layout/lights/key/dim", json!(0.5)) - now, -1.0, 0.0, 1e-9, "half the power");
}

/// Sumpner's estimate worked by hand: F rho / (A (1 - rho)), with the usual reflectances by area until they are told.
#[test]
fn the_room_throws_light_back() {
    let plan = plain_with(&[]);
    let corner = Corner::of(&plan).unwrap();
    let (walls, floor): (f64, f64) = (2.0 * (4.0 + 5.0) * 2.6, 4.0 * 5.0);
    let rho = (0.65 * walls + 0.30 * floor + 0.80 * floor) / (walls + 2.0 * floor);
    assert_close(mean_reflectance(&plan.brief).0, rho, 1e-12, 0.0, "mean reflectance");
    let flux = faces(&corner)[0].flux_lm();
    assert_close(
        room_bounce_lx(&corner),
        flux * rho / ((walls + 2.0 * floor) * (1.0 - rho)),
        1e-12,
        0.0,
        "bounce",
    );
    let black = |r: f64| {
        let surface = json!({ "reflectance": r });
        let names = ["wall-0", "wall-1", "wall-2", "wall-3", "floor", "ceiling"];
        let surfaces: serde_json::Map<_, _> =
            names.iter().map(|n| (n.to_string(), surface.clone())).collect();
        plain_with(&[("/brief/room/surfaces", Value::Object(surfaces))])
    };
    assert_eq!(room_bounce_lx(&Corner::of(&black(0.0)).unwrap()), 0.0);
    assert!(
        value(&black(0.0), "light.face.ratio") > value(&black(0.8), "light.face.ratio"),
        "white walls fill"
    );
    let from = reading(&black(0.5), "light.face.ratio")
        .working
        .inputs
        .into_iter()
        .find(|i| i.name == "mean reflectance");
    assert_eq!(from.unwrap().from, fogon_core::reading::From::Typed);
}

/// A board opposite the key lifts the shadow side by one bounce, and no more than it receives.
#[test]
fn a_board_lifts_the_shadow_side() {
    let board = json!({ "kind": "reflector", "label": "Board", "mass_kg": 0.3, "width_m": 0.6, "height_m": 0.9, "reflectance": 0.85 });
    let fill = json!({ "gear": "board", "role": "fill", "position_m": [2.9, 2.0, 1.25], "support": { "kind": "floor" } });
    let with = plain_with(&[("/brief/gear/board", board), ("/layout/lights/fill", fill)]);
    let (with_board, without) =
        (value(&with, "light.face.ratio"), value(&plain_with(&[]), "light.face.ratio"));
    assert!(with_board < without, "{with_board} against {without}");
    let corner = Corner::of(&with).unwrap();
    let lit = faces(&corner).pop().unwrap();
    let key = faces(&corner).remove(0);
    assert!(matches!(corner.lights.iter().find(|l| l.id == "fill").unwrap().source, Source::Board(_)));
    let received = summed_lx(&key, lit.middle, lit.normal);
    assert_close(
        lit.luminance_cd_m2,
        0.85 * received / std::f64::consts::PI,
        0.08,
        0.0,
        "rho E / pi at its middle",
    );
}

/// In a dark room a board is put up; in a white one the walls do.
#[test]
fn a_fill_is_used_where_the_walls_do_not_fill() {
    let paint = |plan: &mut Value, reflectance: f64| {
        for wall in ["wall-0", "wall-1", "wall-2", "wall-3", "floor", "ceiling"] {
            set(plan, &format!("/brief/room/surfaces/{wall}"), json!({ "reflectance": reflectance }));
        }
    };
    let mut document = box_room();
    set(&mut document, "/brief/schools", json!({ "lights": "key-and-fill" }));
    paint(&mut document, 0.2);
    let dark: Plan = best(&document);
    assert!(dark.layout.lights.contains_key("fill"));
    paint(&mut document, 0.85);
    let white = best(&document);
    assert!(!white.layout.lights.contains_key("fill"), "ratio {}", value(&white, "light.face.ratio"));
}
