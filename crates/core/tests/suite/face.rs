//! What the light does to a face: parts of the head, the nose's shadow, eyes, glasses, colours, leaning, the background.
//! The plain corner's key stands to camera right; the lens looks along -y at eyes (2, 1.5, 1.25).

use fogon_core::assess::{evaluate, without_moves};
use fogon_core::colour::{cct_duv, mixed_xy, planckian_xy};
use fogon_core::corner::Corner;
use fogon_core::finding::Finding;
use fogon_core::geometry::DVec3;
use fogon_core::light::LightField;
use fogon_core::light::head::{FaceSeen, Spot, face_seen, nose_shadow_m};
use fogon_core::plan::{Plan, apply};
use fogon_testkit::assert_close;
use serde_json::{Value, json};

use crate::support::{plain_with, reading, value};

/// The key at an azimuth (positive to camera right) and elevation, so far from the eyes.
fn key_at(azimuth_deg: f64, elevation_deg: f64, distance_m: f64) -> (&'static str, Value) {
    let (azimuth, elevation) = (azimuth_deg.to_radians(), elevation_deg.to_radians());
    // The camera stands at +y, its right is -x.
    let at = [
        2.0 - distance_m * azimuth.sin() * elevation.cos(),
        1.5 + distance_m * azimuth.cos() * elevation.cos(),
        value(&plain_with(&[]), "person.eye.height_m") + distance_m * elevation.sin(),
    ];
    ("/layout/lights/key/position_m", json!(at))
}

fn seen(plan: &Plan) -> FaceSeen {
    face_seen(&Corner::of(plan).unwrap())
}

fn lux(face: &FaceSeen, spot: Spot) -> f64 {
    face.facets.iter().find(|f| f.spot == spot).unwrap().illuminance_lx
}

fn found(plan: &Plan, id: &str) -> Option<Finding> {
    without_moves(plan).findings.into_iter().find(|f| f.id == id)
}

/// From the right the right cheek is bright and the nose shades the other; mirrored, it is the other way round, to the
/// lux; on the axis both are alike; from high up the sockets are dark and the crown is not.
#[test]
fn a_head_is_lit_from_where_the_lamp_stands() {
    let right = seen(&plain_with(&[key_at(45.0, 30.0, 1.3)]));
    assert!(lux(&right, Spot::CheekRight) > 3.0 * lux(&right, Spot::CheekLeft));
    assert!(lux(&right, Spot::NoseRight) > lux(&right, Spot::NoseLeft));
    // The room is as wide on either side: 4 m, the seat at 2.
    let left = seen(&plain_with(&[key_at(-45.0, 30.0, 1.3)]));
    for (a, b) in [
        (Spot::CheekRight, Spot::CheekLeft),
        (Spot::NoseRight, Spot::NoseLeft),
        (Spot::SocketRight, Spot::SocketLeft),
        (Spot::ShoulderRight, Spot::ShoulderLeft),
        (Spot::Forehead, Spot::Forehead),
    ] {
        // The arm of the microphone stands on one side only.
        assert_close(lux(&right, a), lux(&left, b), 0.02, 1.0, &format!("{a:?}"));
    }
    let high = seen(&plain_with(&[key_at(10.0, 58.0, 1.2)]));
    assert!(lux(&high, Spot::SocketRight) < 0.45 * lux(&high, Spot::Forehead), "the brow shades the eyes");
    assert!(lux(&high, Spot::Crown) > lux(&high, Spot::Chin));
    let stops =
        |face: &FaceSeen, spot: Spot| face.facets.iter().find(|f| f.spot == spot).unwrap().stops.unwrap();
    assert_close(
        stops(&right, Spot::CheekLeft),
        (lux(&right, Spot::CheekLeft) / right.reference_lx).log2(),
        1e-12,
        0.0,
        "stops are against what faces the lens",
    );
    // The lamps and the room make up all of it.
    let sum: f64 = right.lamps.iter().map(|l| l.illuminance_lx).sum();
    assert_close(sum + right.bounce_lx, right.reference_lx, 1e-9, 0.0, "nothing else shines");
    // Without a lamp it is the ceiling light, or the window where it counts, and the same sum.
    let window =
        json!({ "kind": "window", "wall": 1, "from_m": 1.0, "width_m": 1.4, "sill_m": 0.9, "height_m": 1.2 });
    for (school, by_ceiling) in [("shut-out", true), ("key", false)] {
        let face = seen(&plain_with(&[
            ("/layout/lights", json!({})),
            ("/brief/room/openings", json!({ "window": window })),
            ("/brief/schools/window", json!(school)),
        ]));
        assert_eq!((face.ceiling_lx > 1.0, face.windows_lx > 1.0), (by_ceiling, !by_ceiling), "{school}");
        let sum = face.ceiling_lx + face.windows_lx + face.bounce_lx;
        assert_close(sum, face.reference_lx, 1e-9, 0.0, school);
    }
}

/// A lamp behind a board is told as hidden by as much as the board hides, and gives that much less.
#[test]
fn what_stands_in_the_light_is_told() {
    let board = |x: f64| json!({ "kind": "box", "position_m": [x, 1.95, 1.1], "bearing_deg": 0, "size_m": [0.3, 0.02, 0.6], "fixed": true });
    // The key stands at (1.1, 2.4, 1.9): half way to the eyes is (1.55, 1.95, 1.57).
    let part = |x: f64| {
        let plan = plain_with(&[("/brief/room/furniture/board", board(x))]);
        seen(&plan).lamps[0].unhidden
    };
    assert_eq!(part(0.4), 1.0);
    assert!(part(1.55) < 0.02, "a corner looks past it");
    let half = part(1.40);
    assert!(half > 0.2 && half < 0.8, "{half}");
}

/// p tan(azimuth) aside and p tan(elevation) / cos(azimuth) down, p = 25 mm: worked by hand.
#[test]
fn the_nose_throws_its_shadow_away_from_the_lamp() {
    let (aside, down) = nose_shadow_m(45.0, 0.0);
    assert_close(aside, -0.025, 1e-12, 0.0, "to camera left");
    assert_close(down, 0.0, 0.0, 1e-12, "level");
    let (aside, down) = nose_shadow_m(-30.0, 40.0);
    assert_close(aside, 0.025 * 30f64.to_radians().tan(), 1e-12, 0.0, "to camera right");
    assert_close(down, 0.025 * 40f64.to_radians().tan() / 30f64.to_radians().cos(), 1e-12, 0.0, "down");
    let plan = plain_with(&[key_at(45.0, 30.0, 1.2)]);
    assert_close(
        value(&plan, "light.key.nose_shadow_mm"),
        1000.0 * 0.025f64.hypot(0.020_412_4),
        1e-3,
        0.0,
        "both",
    );
    // A disc of 0.4 m at 1.2 m, edge 20 mm before the cheek: 0.4 x 20 / 1.2 mm.
    assert_close(value(&plan, "light.key.penumbra_mm"), 6.667, 1e-3, 0.0, "penumbra");
}

/// Straight from the side no catchlight is left, and it is said; from 45 degrees it sits at a quarter to two.
#[test]
fn the_key_shows_in_the_eyes_or_is_told_not_to() {
    let plan = plain_with(&[key_at(45.0, 30.0, 0.8)]);
    assert_close(value(&plan, "light.key.catchlight_clock_h"), 1.692_28, 0.0, 0.02, "clock");
    assert!(found(&plan, "light.key.catchlight_mm").is_none());
    assert!(found(&plain_with(&[key_at(95.0, 20.0, 1.0)]), "light.key.catchlight_mm").is_some());
}

/// With glasses a low lamp 0.6 m across at 0.9 m and 35 degrees shows in the lens until 18.3 degrees (sampled rays, within
/// 0.4); the smallest move is offered and clears it.
#[test]
fn glasses_mirror_a_low_lamp_until_it_is_raised() {
    let with = |glasses: bool, up: f64| {
        plain_with(&[
            ("/brief/person/glasses", json!(glasses)),
            ("/brief/gear/lamp/width_m", json!(0.6)),
            ("/brief/gear/lamp/height_m", json!(0.6)),
            ("/brief/schools/microphone", json!("lavalier")),
            ("/layout/camera/position_m", json!([2, 3, value(&plain_with(&[]), "person.eye.height_m")])),
            key_at(35.0, up, 1.4),
        ])
    };
    let low = with(true, 5.0);
    let told = found(&low, "light.key.glare_percent").expect("the lamp shows");
    assert!(told.sentence.contains("of a lens of your glasses") && told.advice.starts_with("Raise it to "));
    assert!(found(&with(false, 5.0), "light.key.glare_percent").is_none());
    assert!(found(&with(true, 40.0), "light.key.glare_percent").is_none());
    let judged = evaluate(&low);
    let finding = judged.findings.iter().find(|f| f.id == "light.key.glare_percent").unwrap();
    let fix = finding.fix.as_ref().unwrap_or_else(|| panic!("no move: {}", finding.advice));
    let after = apply(&low, &fix.patch).unwrap();
    assert_eq!(value(&after, "light.key.glare_percent"), 0.0);
    let moved = |plan: &Plan| DVec3::from(plan.layout.lights["key"].position_m);
    assert!((moved(&after) - moved(&low)).length() < 0.8, "a small move");
}

/// Two lamps of 5600 and 3200 K mix as their tristimulus values do, not as kelvins; the difference of 134 mired is told,
/// as is a white balance that suits neither.
#[test]
fn colours_mix_and_are_told_where_they_clash() {
    let other = json!({ "gear": "lamp", "role": "fill", "position_m": [2.9, 2.4, 1.9], "cct_k": 3200, "dim": 1,
        "support": { "kind": "floor", "gear": "stand", "sandbag_kg": 20 } });
    let range = ("/brief/gear/lamp/cct_min_k", json!(2700));
    let plan = plain_with(&[range.clone(), ("/layout/lights/fill", other.clone())]);
    let corner = Corner::of(&plan).unwrap();
    let lit = LightField::of(&corner);
    let lamps = lit.lamps_lx().collect::<Vec<_>>();
    let parts = lamps.iter().map(|(light, lux)| {
        (planckian_xy(if light.id == "fill" { 3200.0 } else { 2e6 / (1e6 / 2700.0 + 1e6 / 5600.0) }), *lux)
    });
    let (cct_k, duv) = cct_duv(mixed_xy(parts).unwrap()).unwrap();
    assert_close(value(&plan, "light.face.cct_k"), cct_k, 1e-9, 0.0, "mixture");
    assert_close(value(&plan, "light.face.duv"), duv, 0.0, 1e-9, "duv");
    let set = plain_with(&[
        range.clone(),
        ("/layout/lights/fill", other),
        ("/layout/lights/key/cct_k", json!(5600)),
    ]);
    let told = found(&set, "light.mixed").expect("they clash");
    assert!(told.sentence.contains("differ by 134 mired"), "{}", told.sentence);
    assert!(found(&plain_with(&[]), "light.mixed").is_none());
    // The lamp is 5600 K: balanced for 4000 K it comes out cold, by 1e6 / 5600 - 1e6 / 4000.
    let off = plain_with(&[("/layout/camera/white_balance_k", json!(4000))]);
    assert_close(value(&off, "light.face.white_balance_mired"), -71.43, 2e-3, 0.0, "mired");
    assert!(found(&off, "light.face.white_balance_mired").unwrap().sentence.ends_with("comes out cold."));
    assert!(found(&plain_with(&[]), "light.face.white_balance_mired").is_none());
}

/// A near lamp changes much when one leans in, a far one little: 2 log2(d / (d - 0.1)) for a small lamp on the axis.
#[test]
fn leaning_in_costs_more_under_a_near_lamp() {
    let black: Vec<(&str, Value)> = ["wall-0", "wall-1", "wall-2", "wall-3", "floor", "ceiling"]
        .iter()
        .map(|name| (*name, json!({ "reflectance": 0.0 })))
        .collect();
    let surfaces: serde_json::Map<String, Value> =
        black.iter().map(|(n, v)| ((*n).to_owned(), v.clone())).collect();
    let lean = |distance: f64| {
        let plan = plain_with(&[
            ("/brief/room/surfaces", Value::Object(surfaces.clone())),
            ("/brief/gear/lamp/width_m", json!(0.05)),
            ("/brief/gear/lamp/height_m", json!(0.05)),
            key_at(0.0, 0.0, distance),
        ]);
        (value(&plan, "light.face.lean_stops"), found(&plan, "light.face.lean_stops").is_some())
    };
    let (near, told) = lean(0.6);
    assert_close(near, 2.0 * (0.6f64 / 0.5).log2(), 0.01, 0.0, "near");
    assert!(told);
    let (far, told) = lean(1.4);
    assert_close(far, 2.0 * (1.4f64 / 1.3).log2(), 0.01, 0.0, "far");
    assert!(!told);
}

/// A keyed wall lit by a lamp at its middle is uneven; the spread is that of the light at the places which the picture
/// shows, worked out here place by place; from further off less of its colour reaches the back.
#[test]
fn a_keyed_screen_is_lit_evenly_or_is_told_not_to_be() {
    let with = |back_m: f64| {
        let spot = json!({ "gear": "lamp", "role": "background", "position_m": [2.9, 0.7, 1.5], "aim_m": [2.0, 0.0, 1.2], "dim": 1,
            "support": { "kind": "floor", "gear": "stand", "sandbag_kg": 20 } });
        plain_with(&[
            ("/brief/purpose", json!("keyed-background")),
            ("/brief/room/surfaces", json!({ "wall-0": { "look": "chroma", "reflectance": 0.35 } })),
            ("/layout/lights/spot", spot),
            ("/layout/seat/position_m", json!([2, back_m])),
            ("/layout/camera/position_m", json!([2, back_m + 1.5, 1.25])),
        ])
    };
    let plan = with(1.5);
    let corner = Corner::of(&plan).unwrap();
    let lit = LightField::of(&corner);
    // 36 x 20.25 mm behind 40 mm focused at 1.5 m, the wall 3 m from the lens.
    let (wide, high) =
        (36.0 / 1000.0 * 3.0 / (0.04 * 1.5 / 1.46), 20.25 / 1000.0 * 3.0 / (0.04 * 1.5 / 1.46));
    let lux: Vec<f64> = [-0.42, 0.0, 0.42]
        .iter()
        .flat_map(|x| [-0.42, 0.0, 0.42].map(|z| DVec3::new(2.0 + x * wide, 0.01, 1.25 + z * high)))
        .map(|at| lit.direct_lx(at, DVec3::Y) + lit.bounce_lx(at, DVec3::Y))
        .collect();
    let spread = lux.iter().fold(0.0f64, |a, b| a.max(*b)) / lux.iter().fold(f64::MAX, |a, b| a.min(*b));
    assert_close(value(&plan, "light.screen.evenness_stops"), spread.log2() / 2.0, 0.02, 0.01, "spread");
    assert!(found(&plan, "light.screen.evenness_stops").is_some(), "one lamp from the side");
    let mean = lux.iter().sum::<f64>() / 9.0;
    let face = value(&plan, "light.face.illuminance_lx");
    assert_close(value(&plan, "light.screen.level_stops"), (mean / face).log2(), 0.0, 0.02, "level");
    // The key stays where it is: the colour on the back itself.
    let spill = |plan: &Plan| {
        let told = reading(plan, "light.screen.spill_stops").working;
        told.inputs.iter().find(|i| i.name == "spill").unwrap().value
    };
    assert!(spill(&with(2.6)) < 0.8 * spill(&plan), "{} {}", spill(&with(2.6)), spill(&plan));
    let all = without_moves(&plain_with(&[])).readings;
    assert!(
        all.iter().all(|r| !r.id.to_string().starts_with("light.screen.")),
        "other purposes have no screen to key"
    );
}

/// log2(rho E / (skin E)): a light wall under a lamp of its own outshines a dark face; a dark wall does not.
#[test]
fn the_background_is_set_against_the_face() {
    let with = |wall: f64, skin: f64| {
        let lamp = json!({ "gear": "lamp", "role": "background", "position_m": [3.4, 0.9, 2.0], "aim_m": [2.0, 0.0, 1.25], "dim": 1,
            "support": { "kind": "floor", "gear": "stand", "sandbag_kg": 20 } });
        plain_with(&[
            ("/layout/lights/wash", lamp),
            ("/brief/room/surfaces", json!({ "wall-0": { "reflectance": wall } })),
            ("/brief/person/skin_reflectance", json!(skin)),
        ])
    };
    let told = reading(&with(0.8, 0.1), "light.background.stops");
    let input = |name: &str| told.working.inputs.iter().find(|i| i.name == name).unwrap().value;
    let by_hand = (0.8 * input("light behind") / (0.1 * input("light on the face"))).log2();
    assert_close(told.value.unwrap(), by_hand, 1e-12, 0.0, "stops");
    assert!(found(&with(0.8, 0.1), "light.background.stops").is_some());
    assert!(found(&with(0.05, 0.4), "light.background.stops").is_none());
}
