//! Sources as they are, each worked by a second route; and what the schools of light make of them.

use fogon_core::assess::without_moves;
use fogon_core::corner::{Corner, Pane};
use fogon_core::geometry::DVec3;
use fogon_core::light::LightField;
use fogon_core::light::apparent::{apparent, key};
use fogon_core::light::cloth::{self, hot_spot_stops};
use fogon_core::light::power::{Change, dials, power};
use fogon_core::photometry::{Blockers, Face, LightSource, face_of, sky};
use fogon_core::plan::{GearLight, GearPanel, Gel, Id, Plan, Role, Shape};
use fogon_testkit::{assert_close, box_room, set};
use proptest::prelude::*;
use serde_json::{Value, json};

use crate::support::{best, in_the_way, plain_with, reading, value};

fn lamp(edits: Value) -> GearLight {
    let mut lamp = json!({ "label": "x", "shape": "disc", "width_m": 0.1, "height_m": 0.1, "cct_min_k": 5600, "cct_max_k": 5600 });
    for (field, value) in edits.as_object().unwrap() {
        lamp[field.as_str()] = value.clone();
    }
    serde_json::from_value(lamp).unwrap()
}

/// A tube gives E = I' / d (alpha + sin alpha cos alpha), I' = L w, alpha = atan(l / 2d), and pi^2 L w l in all; a bulb I / d^2
/// all round and 4 pi I in all; with a shade both are flat faces again. Sums over short pieces stand for the places off
/// the middle.
#[test]
fn tubes_and_bulbs_shine_round() {
    let tube = Face::new(Shape::Tube, 1.2, 0.038, DVec3::Z, DVec3::Z + DVec3::Y, 9000.0).round(
        Shape::Tube,
        1.2,
        0.038,
    );
    let alpha: f64 = (1.2f64 / (2.0 * 0.7)).atan();
    let by_hand = 9000.0 * 0.038 / 0.7 * (alpha + alpha.sin() * alpha.cos());
    assert_close(by_hand, 587.626, 1e-5, 0.0, "the formula");
    for way in [DVec3::Y, -DVec3::Y, DVec3::Z, DVec3::new(0.0, 0.6, -0.8)] {
        assert_close(
            tube.illuminance_lx(DVec3::Z + way * 0.7, -way),
            by_hand,
            2e-3,
            0.0,
            "all round the tube",
        );
    }
    assert_close(tube.flux_lm(), 4050.49, 1e-5, 0.0, "flux of the tube");
    let (at, normal) = (DVec3::new(0.9, 0.5, 1.2), -DVec3::new(0.8, 0.5, 0.1).normalize());
    let summed: f64 = (0..4000)
        .map(|i| {
            let piece = DVec3::Z + DVec3::X * (-0.6 + 1.2 * (f64::from(i) + 0.5) / 4000.0);
            let off = at - piece;
            let sine = off.normalize().reject_from_normalized(DVec3::X).length();
            9000.0 * 0.038 * (1.2 / 4000.0) * sine * normal.dot(-off.normalize()).max(0.0)
                / off.length_squared()
        })
        .sum();
    assert_close(tube.illuminance_lx(at, normal), summed, 5e-3, 0.0, "off its middle");

    let bulb = face_of(
        &lamp(
            json!({ "shape": "bulb", "width_m": 0.06, "height_m": 0.06, "flux_lm": 800, "modifier": "bare" }),
        ),
        DVec3::ZERO,
        DVec3::Y,
    );
    assert_close(bulb.flux_lm(), 800.0, 1e-9, 0.0, "flux of the bulb");
    for way in [DVec3::Y, -DVec3::Y, DVec3::X, DVec3::Z] {
        assert_close(
            bulb.illuminance_lx(way * 2.0, -way),
            800.0 / (4.0 * std::f64::consts::PI) / 4.0,
            1e-3,
            0.0,
            "all round",
        );
    }
    let shaded = face_of(
        &lamp(json!({ "shape": "bulb", "width_m": 0.06, "height_m": 0.06, "flux_lm": 800, "beam_deg": 60 })),
        DVec3::ZERO,
        DVec3::Y,
    );
    assert_eq!(shaded.illuminance_lx(-DVec3::Y, DVec3::Y), 0.0, "not through the shade");
}

/// 6000 lm in a white umbrella of 1.0 m whose efficiency is told as 0.65 are 1580.61 cd/m2 and 639.901 lx at 1.3 m: E = pi L r^2 / (r^2
/// + d^2). Untold it is the usual one of its kind, and the luminance is assumed.
#[test]
fn umbrellas_are_discs() {
    let told = lamp(
        json!({ "width_m": 1.0, "height_m": 1.0, "flux_lm": 6000, "modifier": "white-umbrella", "modifier_efficiency": 0.65 }),
    );
    let face = face_of(&told, DVec3::ZERO, DVec3::Y);
    assert_close(face.luminance_cd_m2, 1580.61, 1e-5, 0.0, "luminance");
    assert_close(face.illuminance_lx(DVec3::Y * 1.3, -DVec3::Y), 639.901, 2e-3, 0.0, "at 1.3 m");
    let known = |modifier: &str| {
        fogon_core::photometry::known(&lamp(json!({ "flux_lm": 6000, "modifier": modifier })))
    };
    let order = ["grid-softbox", "double-softbox", "softbox", "silver-umbrella", "bare"].map(known);
    assert!(order.windows(2).all(|w| w[0].luminance_cd_m2 < w[1].luminance_cd_m2));
    assert!(order.iter().all(|k| k.from == fogon_core::reading::Origin::Assumed));
}

/// A cloth of 1.2 m before a spot of 9000 cd and 110 degrees 0.8 m behind, passing 0.45: 2014.3 cd/m2 in its middle and
/// 406.4 in its corners, 1192.83 lx on a face at 1 m; the sum over 1,000,000 places of it by hand.
#[test]
fn a_cloth_is_bright_in_its_middle() {
    let spot =
        lamp(json!({ "width_m": 0.01, "height_m": 0.01, "illuminance_at_1m_lx": 9000, "beam_deg": 110 }));
    let gear: GearPanel = serde_json::from_value(json!({ "label": "cloth", "width_m": 1.2, "height_m": 1.2, "reflectance": 0.4, "transmittance": 0.45 })).unwrap();
    let sheet = Face::new(Shape::Rectangle, 1.2, 1.2, DVec3::ZERO, DVec3::Y, 0.0);
    let behind = face_of(&spot, -DVec3::Y * 0.8, DVec3::Y);
    let all = cloth::lit(&sheet, &behind, &gear).pieces;
    let lux: f64 = all.iter().map(|p| p.illuminance_lx(DVec3::Y, -DVec3::Y)).sum();
    let m = 0.5f64.ln() / 55f64.to_radians().cos().ln();
    let luminance = |x: f64, z: f64| {
        let r2 = x * x + z * z + 0.64;
        let cosine = 0.8 / r2.sqrt();
        0.45 * 9000.0 * cosine.powf(m) * cosine / r2 / std::f64::consts::PI
    };
    assert_close(luminance(0.0, 0.0), 2014.30, 1e-5, 0.0, "middle");
    assert_close(luminance(0.6, 0.6), 406.427, 1e-5, 0.0, "corner");
    let step = 1.2 / 1000.0;
    let at = |i: i32| -0.6 + step * (f64::from(i) + 0.5);
    let summed: f64 = (0..1000)
        .flat_map(|i| (0..1000).map(move |j| (i, j)))
        .map(|(i, j)| luminance(at(i), at(j)) * step * step / (at(i).powi(2) + at(j).powi(2) + 1.0).powi(2))
        .sum();
    assert_close(summed, 1192.83, 1e-3, 0.0, "the sum");
    assert_close(lux, summed, 5e-3, 0.0, "pieces");
    let stops = hot_spot_stops(&all);
    assert!((1.7..2.309).contains(&stops), "of pieces, a little less than of points: {stops}");
}

/// In a corner: the cloth is what the face sees, the lamp stands behind it; too near behind it the cloth is told to be
/// uneven, and one press moves the lamp back.
#[test]
fn a_cloth_before_a_lamp_is_the_key() {
    let sheet = json!({ "kind": "reflector", "label": "Curtain", "mass_kg": 0.4, "width_m": 0.7, "height_m": 0.7, "reflectance": 0.4, "transmittance": 0.5 });
    let with = |ahead: f64| {
        plain_with(&[
            ("/brief/gear/curtain", sheet.clone()),
            ("/layout/lights/key/cloth", json!({ "gear": "curtain", "ahead_m": ahead })),
        ])
    };
    let near = with(0.4);
    let bare = plain_with(&[]);
    assert!(value(&near, "light.key.angular_size_deg") > 1.8 * value(&bare, "light.key.angular_size_deg"));
    let corner = Corner::of(&near).unwrap();
    let lit = LightField::of(&corner);
    let light = &corner.lights[0];
    let (cloth, _) = light.cloth.unwrap();
    let by_hand: f64 = cloth::lit(&light.dark_face(), &light.face(), cloth)
        .pieces
        .iter()
        .map(|p| p.illuminance_lx(corner.eyes_m, corner.to_lens()))
        .sum();
    assert_close(lit.lamps_lx().next().unwrap().1, by_hand, 1e-9, 0.0, "past nothing");
    assert_close((light.face().middle - light.position_m).length(), 0.4, 1e-9, 0.0, "the lamp behind");
    assert_close(
        value(&bare, "light.face.cct_k") - value(&near, "light.face.cct_k"),
        5600.0 - 1e6 / (1e6 / 5600.0 + 10.0),
        0.02,
        0.0,
        "cloth warms",
    );
    let told =
        fogon_core::assess::evaluate(&near).findings.into_iter().find(|f| f.id == "light.key.hot_spot_stops");
    let fix = told.expect("a hot spot is told").fix.expect("and mended");
    let mended = fogon_core::plan::apply(&near, &fix.patch).unwrap();
    assert!(value(&mended, "light.key.hot_spot_stops") < 1.0 && fix.label.contains("behind its cloth"));
    // A hot lamp behind cloth stands in the way, whatever else is right.
    let mut hot = with(0.8);
    if let Some(fogon_core::plan::Gear::Light(lamp)) = hot.brief.gear.get_mut("lamp") {
        lamp.common.power_w = Some(800.0);
    }
    let stop = in_the_way(&hot).into_iter().find(|f| f.id == "light.key.hot").expect("told");
    assert!(stop.caution.is_some() && stop.sentence.contains("cloth"));
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 24, ..ProptestConfig::default() })]

    /// A mirror shows the lamp within its edges: the image's light against rays sent to 40,000 places of the mirror and on.
    #[test]
    fn a_foil_mirrors_within_its_edges(
        lamp_at in (-0.8f64..0.8, 0.6f64..1.5, -0.5f64..0.8), size in 0.2f64..0.8,
        mirror in (0.15f64..0.6, 0.15f64..0.6), turn in -0.5f64..0.5,
    ) {
        let lamp = Face::new(Shape::Rectangle, size, size, DVec3::new(lamp_at.0, lamp_at.1, lamp_at.2), DVec3::ZERO, 1000.0);
        let foil = Face::new(Shape::Rectangle, mirror.0, mirror.1, DVec3::ZERO, DVec3::new(turn, 1.0, 0.1), 0.0);
        let image = LightSource::mirrored(&lamp, &foil, 0.88, None);
        let (eye, normal) = (DVec3::new(-0.5, 0.9, 0.0), DVec3::new(0.4, -0.9, 0.0).normalize());
        let got = image.map_or(0.0, |i| i.illuminance_lx(eye, normal, &Blockers::default(), None));
        let [a, b, _, d] = foil.outline[..] else { unreachable!() };
        let n = 200;
        let cell = (b - a).length() * (d - a).length() / f64::from(n * n);
        let mut summed = 0.0;
        for (i, j) in (0..n).flat_map(|i| (0..n).map(move |j| (i, j))) {
            let q = a + (b - a) * ((f64::from(i) + 0.5) / f64::from(n)) + (d - a) * ((f64::from(j) + 0.5) / f64::from(n));
            let ray = (q - eye).normalize();
            let out = ray - foil.normal * (2.0 * ray.dot(foil.normal));
            let rate = out.dot(lamp.normal);
            let t = (lamp.middle - q).dot(lamp.normal) / rate;
            let hit = q + out * t - lamp.middle;
            let (side, up) = ((lamp.outline[1] - lamp.outline[0]).normalize(), (lamp.outline[3] - lamp.outline[0]).normalize());
            let inside = hit.dot(side).abs() < size / 2.0 && hit.dot(up).abs() < size / 2.0;
            if rate < 0.0 && t > 0.0 && inside && (eye - q).dot(foil.normal) > 0.0 {
                let cosines = (-ray.dot(foil.normal)).max(0.0) * ray.dot(normal).max(0.0);
                summed += 880.0 * cosines * cell / (q - eye).length_squared();
            }
        }
        let whole = 880.0 * foil.area_m2 / (eye - foil.middle).length_squared();
        assert_close(got, summed, 0.02, 0.01 * whole, "image against rays");
    }
}

/// A foil board in a corner: half of it mirrored. Between a matt board and a mirror, and told as a range.
#[test]
fn crumpled_foil_lies_between() {
    let with = |mirror: f64| {
        let board = json!({ "kind": "reflector", "label": "Foil", "mass_kg": 0.3, "width_m": 0.6, "height_m": 0.9, "reflectance": 0.85, "mirror_part": mirror });
        // Where the mirrored key meets the face: half-way between the two ways.
        let fill = json!({ "gear": "board", "role": "fill", "position_m": [2.9, 2.1, 1.25], "aim_m": [1.139, 1.7, 1.586], "support": { "kind": "floor" } });
        plain_with(&[("/brief/gear/board", board), ("/layout/lights/fill", fill)])
    };
    let shadow = |plan: &Plan| {
        let corner = Corner::of(plan).unwrap();
        let lit = LightField::of(&corner);
        let light = corner.role(Role::Fill).next().unwrap();
        lit.light_lx(light, corner.eyes_m, lit.cheeks()[1])
    };
    let (matt, foil, mirror) = (shadow(&with(0.0)), shadow(&with(0.5)), shadow(&with(1.0)));
    assert_close(foil, (matt + mirror) / 2.0, 1e-9, 0.0, "half of each");
    assert!(mirror > 2.0 * matt, "turned so that it shows the key: {mirror} against {matt}");
    let told = reading(&with(0.5), "light.fill.fills_lx");
    let input = |name: &str| told.working.inputs.iter().find(|i| i.name == name).unwrap().value;
    assert_close(input("as a smooth mirror"), mirror, 1e-6, 0.0, "mirror");
    assert_close(input("as a matt board"), matt, 1e-6, 0.0, "matt");
}

/// A window of 1.4 x 1.3 m under an overcast sky of 10 klx: 4961.77 lx upright, 1073.98 cd/m2, 639.280 lx on a face 1.5 m
/// before it, 0.35 m under its middle. In a corner it shines only where the schools let it; then it is the key.
#[test]
fn a_window_is_a_source_where_it_may_be() {
    assert_close(sky::upright_lx(10_000.0, sky::GROUND), 4961.77, 1e-6, 0.0, "upright");
    let luminance = sky::window_luminance_cd_m2(10_000.0);
    assert_close(luminance, 1073.98, 1e-5, 0.0, "pane");
    let pane = Face::new(Shape::Rectangle, 1.4, 1.3, DVec3::ZERO, DVec3::Y, luminance);
    assert_close(pane.illuminance_lx(DVec3::new(0.0, 1.5, -0.35), -DVec3::Y), 639.280, 1e-4, 0.0, "face");
    // In the front wall, 3.5 m before the person and 1.2 m to camera right, the lamps off.
    let window =
        json!({ "kind": "window", "wall": 2, "from_m": 2.6, "width_m": 1.2, "sill_m": 0.9, "height_m": 1.2 });
    let with = |school: &str, lights: Value| {
        plain_with(&[
            ("/brief/room/openings/window", window.clone()),
            ("/brief/schools", json!({ "lights": school })),
            ("/layout/lights", lights),
        ])
    };
    let open = with("window-only", json!({}));
    let corner = Corner::of(&open).unwrap();
    let lit = LightField::of(&corner);
    let found = key(&corner).expect("the window is the key");
    assert!(found.id == "window" && found.light.is_none() && !found.seen.bounced);
    let face = Face::flat(
        Pane::of(&open.brief.room, &open.brief.room.openings["window"])
            .unwrap()
            .corners()
            .into_iter()
            .rev()
            .collect(),
        luminance,
    );
    // All that comes back from the room here is the window's own.
    assert_close(
        lit.windows_lx() - lit.at_face().bounce_lx,
        face.illuminance_lx(corner.eyes_m, corner.to_lens()),
        1e-9,
        0.0,
        "nothing between",
    );
    assert!(lit.at_face().bounce_lx > 0.0 && lit.at_face().lit_lx > lit.at_face().shadow_lx);
    assert!(!without_moves(&open).findings.iter().any(|f| f.id == "light.key.missing"));
    let shut = with("one", json!({}));
    assert!(
        fogon_core::light::house::shines(&Corner::of(&shut).unwrap()),
        "shut out: the ceiling light is left"
    );
    assert!(without_moves(&shut).findings.iter().any(|f| f.id == "light.key.missing"));
}

/// A key turned to the ceiling: what the face sees is the lit patch over it, softer than any softbox, and the face is lit.
#[test]
fn a_lamp_turned_to_the_ceiling_lights_by_it() {
    let up = plain_with(&[
        ("/layout/lights/key/position_m", json!([1.4, 2.6, 1.9])),
        ("/layout/lights/key/aim_m", json!([1.4, 2.6, 2.6])),
    ]);
    let corner = Corner::of(&up).unwrap();
    let seen = apparent(&corner, &corner.lights[0]);
    assert!(seen.bounced);
    // The ceiling before the face in squares of 5 cm, each lit by a matt disc 0.7 m below it and matt itself: where their
    // light on the face comes from, and how wide they spread as a disc of the same angular variance does.
    let (eyes, lamp) = (corner.eyes_m, DVec3::new(1.4, 2.6, 1.9));
    let squares: Vec<(DVec3, f64)> = (0..80)
        .flat_map(|i| (0..70).map(move |j| (0.025 + 0.05 * f64::from(i), 1.525 + 0.05 * f64::from(j))))
        .map(|(x, y)| {
            let at = DVec3::new(x, y, 2.6);
            let (down, off) = ((at - lamp).length_squared(), at - eyes);
            let lit = (0.7 * 0.7) / (down * down);
            (off.normalize(), lit * (2.6 - eyes.z) / off.length().powi(3))
        })
        .collect();
    let whole: f64 = squares.iter().map(|(_, lux)| lux).sum();
    let towards = squares.iter().map(|(way, lux)| *way * *lux).sum::<DVec3>().normalize();
    let told = (seen.middle_m - eyes).normalize();
    let off_deg = told.angle_between(towards).to_degrees();
    assert!(off_deg < 5.0, "{off_deg} degrees off");
    assert!((2.2..=2.6).contains(&seen.middle_m.z), "in the room, under the ceiling: {}", seen.middle_m);
    let variance: f64 =
        squares.iter().map(|(way, lux)| lux * way.angle_between(towards).powi(2)).sum::<f64>() / whole;
    let diameter_m = 2.0 * (seen.middle_m - eyes).length() * (2.0 * variance).sqrt().tan();
    assert_close(seen.diameter_m, diameter_m, 0.2, 0.0, "the patch");
    let straight = plain_with(&[("/layout/lights/key/position_m", json!([1.4, 2.6, 1.9]))]);
    assert!(value(&up, "light.key.angular_size_deg") > 1.5 * value(&straight, "light.key.angular_size_deg"));
    assert!(value(&up, "light.face.illuminance_lx") > 50.0);
    assert_eq!(LightField::of(&corner).lamps_lx().next().unwrap().1, 0.0, "nothing straight");
}

/// From lamps that shine up at every height the direction of the light goes over steadily, from the lamp itself to the
/// ceiling over it: no step of 2 cm turns it by more than 4 degrees.
#[test]
fn a_lamp_turned_up_is_told_steadily() {
    let elevation = |height: f64| {
        let plan = plain_with(&[
            ("/layout/lights/key/position_m", json!([1.3, 2.9, height])),
            ("/layout/lights/key/aim_m", json!([1.6, 2.5, 2.6])),
        ]);
        value(&plan, "light.key.elevation_deg")
    };
    let all: Vec<f64> = (0..50).map(|i| elevation(0.9 + 0.02 * f64::from(i))).collect();
    let most = all.windows(2).map(|pair| (pair[1] - pair[0]).abs()).fold(0.0, f64::max);
    assert!(most < 4.0, "{most}: {all:?}");
    assert!(all[0] < all[49] && all[49] > 20.0, "{all:?}");
}

/// Dials as told: set so, the face has its light and its ratio.
#[test]
fn the_told_dials_expose_the_face() {
    let fill = json!({ "gear": "small", "role": "fill", "position_m": [3.1, 2.4, 1.4], "dim": 0.3, "support": { "kind": "floor" } });
    let small = json!({ "kind": "light", "label": "Small", "mass_kg": 1, "power_w": 30, "shape": "rectangle", "width_m": 0.3, "height_m": 0.2, "illuminance_at_1m_lx": 900, "cct_min_k": 5600, "cct_max_k": 5600 });
    let mut dark = json!({});
    for name in ["wall-0", "wall-1", "wall-2", "wall-3", "floor", "ceiling"] {
        dark[name] = json!({ "reflectance": 0.1 });
    }
    let mut plan = plain_with(&[
        ("/brief/gear/small", small),
        ("/brief/room/surfaces", dark),
        ("/layout/lights/fill", fill),
        ("/layout/camera/iso", json!(800)),
    ]);
    let told = {
        let corner = Corner::of(&plan).unwrap();
        dials(&LightField::of(&corner))
    };
    assert_eq!(told.len(), 2);
    for (id, dial) in &told {
        assert_close(value(&plan, &format!("light.{id}.dial_percent")), 100.0 * dial, 1e-9, 0.0, "reading");
    }
    for (id, dial) in told {
        plan.layout.lights.get_mut(&id).unwrap().dim = dial;
    }
    assert_close(value(&plan, "light.face.exposure_stops"), 0.0, 0.0, 0.06, "exposed");
    assert_close(value(&plan, "light.face.ratio"), 2.8, 0.06, 0.0, "ratio");
}

/// A lamp that is too weak: each change that is told to mend it does, by itself.
#[test]
fn every_remedy_for_weak_lamps_mends() {
    let plan = plain_with(&[
        ("/brief/gear/lamp/illuminance_at_1m_lx", json!(75)),
        ("/brief/gear/body/iso_max", json!(51200)),
        ("/layout/camera/iso", json!(6400)),
        ("/layout/camera/f_number", json!(5.6)),
    ]);
    let of = |plan: &Plan| {
        let corner = Corner::of(plan).unwrap();
        power(&LightField::of(&corner)).unwrap()
    };
    let weak = of(&plan);
    assert!((-1.5..-0.2).contains(&weak.in_hand_stops), "{}", weak.in_hand_stops);
    assert!(weak.changes.len() >= 3, "{:?}", weak.changes);
    for change in weak.changes {
        let mut mended = plan.clone();
        match change {
            Change::Open(n) => mended.layout.camera.f_number = n,
            Change::Stronger(times) => {
                if let Some(fogon_core::plan::Gear::Light(lamp)) = mended.brief.gear.get_mut("lamp") {
                    lamp.illuminance_at_1m_lx = Some(75.0 * times);
                }
            }
            Change::Iso(iso) => {
                mended.layout.camera.iso = iso;
                assert_close(value(&mended, "light.face.exposure_stops"), 0.0, 0.0, 0.02, "by ISO");
                continue;
            }
            Change::Nearer(m) => {
                let corner = Corner::of(&plan).unwrap();
                let at = corner.eyes_m + (corner.lights[0].position_m - corner.eyes_m).normalize() * m;
                mended.layout.lights.get_mut("key").unwrap().position_m =
                    fogon_core::plan::Point3(at.to_array());
            }
        }
        assert!(of(&mended).in_hand_stops.abs() < 0.25, "{change:?} leaves {}", of(&mended).in_hand_stops);
    }
    let told =
        without_moves(&plan).findings.into_iter().find(|f| f.id == "light.face.exposure_stops").unwrap();
    assert!(
        told.advice.contains("Open the lens") && told.advice.contains("times the light"),
        "{}",
        told.advice
    );
}

/// Foils shift by mireds and cost stops: 5600 K behind a full orange foil is 1e6 / (1e6 / 5600 + 159) = 2962.34 K and 0.55 of
/// the light. Daylight and lamplight differ by 0.0559 in (u', v') (CIE 015, worked with colour-science).
#[test]
fn foils_and_coloured_lamps() {
    let with = |edits: &[(&str, Value)]| plain_with(edits);
    let warm = with(&[("/layout/lights/key/gel", json!("warm-full"))]);
    let corner = Corner::of(&warm).unwrap();
    assert_close(corner.lights[0].cct_k(), 2962.336, 1e-6, 0.0, "shifted");
    let bare = with(&[]);
    let part = value(&warm, "light.face.illuminance_lx") / value(&bare, "light.face.illuminance_lx");
    assert_close(part, Gel::WarmFull.transmittance(), 1e-9, 0.0, "passed");
    assert!(value(&warm, "light.face.cct_k") < 3050.0);
    let wall = |colour: (&str, Value)| {
        let light = json!({ "gear": "lamp", "role": "background", "position_m": [3.4, 0.9, 0.9], "aim_m": [2, 0, 1.3], "dim": 0.3, "support": { "kind": "floor" } });
        let path = format!("/layout/lights/wall/{}", colour.0);
        with(&[
            ("/brief/gear/lamp/cct_min_k", json!(2700)),
            ("/layout/lights/key/cct_k", json!(5600)),
            ("/layout/lights/wall", light),
            (&path, colour.1),
        ])
    };
    let amber = wall(("cct_k", json!(3200)));
    assert_close(value(&amber, "light.wall.contrast_uv"), 0.055_919, 1e-3, 0.0, "contrast");
    assert_close(
        value(&amber, "light.face.cct_k"),
        5600.0,
        2e-3,
        0.0,
        "the background's light is left out of the mix",
    );
    let red = wall(("colour", json!({ "x": 0.64, "y": 0.33 })));
    assert!(value(&red, "light.wall.contrast_uv") > 0.2);
    assert!(!without_moves(&red).readings.iter().any(|r| r.id == "light.wall.spill_stops"), "turned away");
    // Turned to the person it tints the face, and that is told.
    let mut spilt = red.clone();
    spilt.layout.lights.get_mut("wall").unwrap().aim_m = Some(fogon_core::plan::Point3([2.0, 1.6, 1.25]));
    spilt.layout.lights.get_mut("wall").unwrap().position_m = fogon_core::plan::Point3([3.2, 2.2, 1.3]);
    assert!(without_moves(&spilt).findings.iter().any(|f| f.id == "light.wall.spill_stops"));
    // Two colours on the face: the foil that is offered brings them together.
    let fill = json!({ "gear": "bulb", "role": "fill", "position_m": [3.0, 2.4, 1.4], "dim": 1, "support": { "kind": "floor" } });
    let bulb = json!({ "kind": "light", "label": "Bulb", "mass_kg": 1, "power_w": 30, "shape": "disc", "width_m": 0.2, "height_m": 0.2, "illuminance_at_1m_lx": 900, "cct_min_k": 3100, "cct_max_k": 3100 });
    let mixed = with(&[("/brief/gear/bulb", bulb), ("/layout/lights/fill", fill)]);
    let told =
        fogon_core::assess::evaluate(&mixed).findings.into_iter().find(|f| f.id == "light.mixed").unwrap();
    let fix = told.fix.expect("a foil mends it");
    assert!(fix.label.contains("blue gel"), "{}", fix.label);
    assert!(
        !without_moves(&fogon_core::plan::apply(&mixed, &fix.patch).unwrap())
            .findings
            .iter()
            .any(|f| f.id == "light.mixed")
    );
}

/// P / (0.33 n V + h A) by hand; five hundred watts in the plain corner are told, sixty are not.
#[test]
fn a_session_warms_the_room() {
    let (volume, surface) = (4.0 * 5.0 * 2.6, 2.0 * 4.0 * 5.0 + 18.0 * 2.6);
    let by_hand = (60.0 + 100.0) / (0.33 * 0.5 * volume + surface);
    assert_close(value(&plain_with(&[]), "room.heat.rise_k"), by_hand, 1e-9, 0.0, "rise");
    let told = |watts: f64| {
        let plan = plain_with(&[
            ("/brief/gear/lamp/power_w", json!(watts)),
            ("/brief/gear/lamp/illuminance_at_1m_lx", json!(20_000)),
        ]);
        without_moves(&plan).findings.into_iter().find(|f| f.id == "room.heat.rise_k")
    };
    assert!(told(60.0).is_none() && told(800.0).is_some_and(|f| f.caution.is_some()));
}

/// A screen in front showing white gives E = L x (configuration factor) pi on the face; near and large it is told.
#[test]
fn a_bright_screen_is_a_lamp() {
    let gear =
        json!({ "kind": "monitor", "label": "Screen", "mass_kg": 3, "screen": "laptop", "width_m": 0.6 });
    let screen = json!({ "gear": "screen", "position_m": [2.0, 2.2, 1.05], "support": { "kind": "on" } });
    let plan = plain_with(&[
        ("/brief/gear/screen", gear),
        ("/layout/screen", screen),
        ("/layout/lights/key/dim", json!(0.2)),
    ]);
    let corner = Corner::of(&plan).unwrap();
    let (monitor, at) = corner.screen.unwrap();
    let flat = Face::new(Shape::Rectangle, 0.6, monitor.height_m(), at, corner.eyes_m, 300.0);
    let lux = flat.illuminance_lx(corner.eyes_m, corner.to_lens());
    let face = value(&plan, "light.face.illuminance_lx");
    assert_close(value(&plan, "light.monitor.spill_stops"), (lux / face).log2(), 1e-9, 1e-9, "spill");
    assert!(without_moves(&plan).findings.iter().any(|f| f.id == "light.monitor.spill_stops"));
}

fn demo_with(edits: &[(&str, Value)]) -> Plan {
    let mut document = box_room();
    for (pointer, value) in edits {
        set(&mut document, pointer, value.clone());
    }
    best(&document)
}

fn lamp_gear(shape: &str, width: f64, height: f64, lux: f64) -> Value {
    json!({ "kind": "light", "label": "Another lamp", "mass_kg": 0.8, "power_w": 40, "shape": shape, "width_m": width, "height_m": height, "depth_m": 0.05, "illuminance_at_1m_lx": lux, "cct_min_k": 3000, "cct_max_k": 5600 })
}

fn stand_gear() -> Value {
    json!({ "kind": "support", "label": "Third stand", "mass_kg": 1.6, "offers": ["light"], "height_min_m": 0.4, "height_max_m": 2.2, "foot_radius_m": 0.35, "payload_kg": 4 })
}

/// Each school of light leads to what it says, legal in the demo room; nothing of it stands in the way.
#[test]
fn every_school_of_light_is_laid_out() {
    let ring = demo_with(&[
        ("/brief/gear/ring", lamp_gear("ring", 0.48, 0.36, 900.0)),
        ("/brief/schools", json!({ "lights": "ring" })),
    ]);
    let corner = Corner::of(&ring).unwrap();
    let key = corner.role(Role::Key).next().expect("the ring is the key");
    assert_eq!(key.light.gear.0, "ring");
    assert!((key.position_m - corner.view.position_m).length() < 0.25, "round the lens");
    assert!(value(&ring, "light.face.ratio") < 1.3 && value(&ring, "light.key.azimuth_deg") < 8.0);
    assert!(in_the_way(&ring).is_empty(), "{:?}", in_the_way(&ring));

    let even = demo_with(&[
        ("/brief/gear/octa-2", lamp_gear("octagon", 0.5, 0.5, 1500.0)),
        ("/brief/gear/stand-3", stand_gear()),
        ("/brief/schools", json!({ "lights": "even" })),
    ]);
    let corner = Corner::of(&even).unwrap();
    let side = |role: Role| corner.light_angles_deg(corner.role(role).next().unwrap().position_m).0;
    assert!(side(Role::Key) * side(Role::Fill) < 0.0, "from both sides");
    assert!(value(&even, "light.face.ratio") < 1.6, "{}", value(&even, "light.face.ratio"));

    let window = demo_with(&[("/brief/schools", json!({ "lights": "window-only" }))]);
    let corner = Corner::of(&window).unwrap();
    assert!(corner.lights.iter().all(|l| l.light.role == Role::Fill), "no lamp");
    let found = fogon_core::light::apparent::key(&corner).expect("the window");
    let azimuth = corner.light_angles_deg(found.seen.middle_m).0.abs();
    assert!(found.id == "window" && (20.0..110.0).contains(&azimuth), "{azimuth}");
    assert!(value(&window, "light.face.illuminance_lx") > 50.0);
}

/// Lamps that are left light the background: the wall where it would come out dark, at its level; a bulb on a shelf in the
/// picture, at its own.
#[test]
fn spare_lamps_light_the_background() {
    let mut dark = json!({});
    for name in ["wall-0", "wall-1", "wall-2", "wall-3"] {
        dark[name] = json!({ "reflectance": 0.08 });
    }
    // A room with a place for five stands.
    let large = ("/brief/room/floor_m", json!([[0, 0], [4.4, 0], [4.4, 4.6], [0, 4.6]]));
    let plan = demo_with(&[
        large.clone(),
        ("/brief/gear/wall-lamp", lamp_gear("rectangle", 0.2, 0.15, 500.0)),
        ("/brief/gear/stand-3", stand_gear()),
        ("/brief/room/surfaces", dark),
    ]);
    let light = &plan.layout.lights["background"];
    assert_eq!(light.role, Role::Background);
    let stops = value(&plan, "light.background.stops");
    assert!((-2.0..=-1.0).contains(&stops) || light.dim > 0.99, "{stops} at {}", light.dim);
    assert!(in_the_way(&plan).is_empty(), "{:?}", in_the_way(&plan));
    // Natural and bright enough it needs none; wanted in colour it gets the other end of the lamp's range.
    let spare = [
        ("/brief/gear/wall-lamp", lamp_gear("rectangle", 0.2, 0.15, 500.0)),
        ("/brief/gear/stand-3", stand_gear()),
    ];
    assert!(!demo_with(&spare).layout.lights.contains_key(&Id::from("background")));
    let coloured = demo_with(&[
        large,
        spare[0].clone(),
        spare[1].clone(),
        ("/brief/schools", json!({ "background": "coloured" })),
    ]);
    assert_eq!(coloured.layout.lights["background"].cct_k, Some(3000.0));
    assert!(value(&coloured, "light.background.contrast_uv") > 0.05);
}

/// Where a lamp finds no place, what of its kind would: a smaller one as told does fit.
#[test]
fn what_would_fit_is_told_and_does() {
    let mut document = box_room();
    set(&mut document, "/brief/gear/panel/state", json!("never"));
    set(&mut document, "/brief/gear/octa/width_m", json!(2.4));
    set(&mut document, "/brief/gear/octa/height_m", json!(2.4));
    set(&mut document, "/brief/gear/octa/depth_m", json!(0.9));
    let plan = best(&document);
    assert!(!plan.layout.lights.contains_key(&Id::from("key")), "2.4 m find no place");
    let told = fogon_core::arrange::why(&plan).into_iter().find(|p| p.thing == "Key").expect("told");
    let width = told.why.split("no wider than ").nth(1).and_then(|w| w.split(' ').next()).expect("a width");
    let width: f64 = width.parse().unwrap();
    for (field, size) in [("width_m", width), ("height_m", width), ("depth_m", 0.9 * width / 2.4)] {
        set(&mut document, &format!("/brief/gear/octa/{field}"), json!(size));
    }
    let smaller = best(&document);
    assert!(smaller.layout.lights.contains_key(&Id::from("key")), "one of {width} m fits");
}

/// One more light for every job: legal where it is put, dimmed to its job; refused in words where there is no place or the
/// gear is none.
#[test]
fn one_more_light_is_put_where_it_may_stand() {
    use fogon_core::arrange::{LampJob, with_light};
    let mut document = box_room();
    set(&mut document, "/brief/schools", json!({ "lights": "one" }));
    for number in 3..6 {
        set(&mut document, &format!("/brief/gear/stand-{number}"), stand_gear());
    }
    for name in ["one", "two"] {
        set(&mut document, &format!("/brief/gear/{name}"), lamp_gear("rectangle", 0.2, 0.15, 500.0));
    }
    let ceiling = json!({ "kind": "light", "label": "Ceiling light", "mass_kg": 0.8, "shape": "disc", "width_m": 0.3, "height_m": 0.3, "depth_m": 0.08, "flux_lm": 1500, "modifier": "bare", "cct_min_k": 3000, "cct_max_k": 3000 });
    set(&mut document, "/brief/gear/house", ceiling);
    let start = best(&document);
    let stops = |plan: &Plan| in_the_way(plan).iter().map(|f| f.id.clone()).collect::<Vec<_>>();
    let fresh = |plan: &Plan| {
        plan.layout.lights.keys().find(|id| !start.layout.lights.contains_key(*id)).unwrap().clone()
    };
    for (gear, job, role) in [
        ("one", LampJob::Fill, Role::Fill),
        ("one", LampJob::Back, Role::Back),
        ("two", LampJob::Background, Role::Background),
        ("board", LampJob::Fill, Role::Fill),
    ] {
        let made = with_light(&start, &Id::from(gear), job).unwrap_or_else(|e| panic!("{job:?}: {e}"));
        let id = fresh(&made);
        assert_eq!(made.layout.lights[&id].role, role);
        let broken: Vec<String> = stops(&made)
            .into_iter()
            .filter(|id| id.to_string().starts_with("legal.") && !stops(&start).contains(id))
            .map(|id| id.to_string())
            .collect();
        assert!(broken.is_empty(), "{job:?}: {broken:?}");
    }
    // The lamp of the house shines down from under the ceiling, breaks no rule, darkens the eyes; one press switches it off.
    let lit = with_light(&start, &Id::from("house"), LampJob::Ceiling).unwrap();
    let id = fresh(&lit);
    assert_eq!(stops(&lit), stops(&start));
    assert!(lit.layout.lights[&id].position_m.0[2] > 2.3, "under the ceiling");
    let mut only = lit.clone();
    only.layout.lights.retain(|other, _| *other == id);
    let darker = value(&only, "light.face.socket_stops");
    assert!(darker < value(&start, "light.face.socket_stops"), "{darker}");
    assert!(without_moves(&lit).findings.iter().all(|f| f.id != "room.overhead"), "nobody hung it");
    // A bulb needs something to stand on that the picture shows.
    set(&mut document, "/brief/gear/globe", lamp_gear("bulb", 0.15, 0.15, 60.0));
    let with_bulb = Plan { brief: crate::support::brief(&document).brief, ..start.clone() };
    let refused = with_light(&with_bulb, &Id::from("globe"), LampJob::Practical).unwrap_err();
    assert!(refused.accepted.contains("that the picture shows"), "{refused}");
    for gear in ["camera", "no-such-thing"] {
        let refused = with_light(&start, &Id::from(gear), LampJob::Key).unwrap_err();
        assert!(refused.accepted.contains("a light at hand"), "{refused}");
    }
    let twice = with_light(&start, &start.layout.lights["key"].gear.clone(), LampJob::Fill).unwrap_err();
    assert!(twice.accepted.contains("does not use yet"), "{twice}");
    // With a cabinet in sight it stands on it, dimmed to its brightness.
    let view = Corner::of(&with_bulb).unwrap().view;
    let at = view.position_m + view.forward * 2.7 - view.right * 0.5;
    let mut shown = with_bulb.clone();
    let cabinet = json!({ "kind": "cabinet", "position_m": [at.x, at.y, 0.0], "bearing_deg": 0, "size_m": [0.25, 0.25, 1.1], "fixed": true });
    shown.brief.room.furniture.insert(Id::from("cabinet"), serde_json::from_value(cabinet).unwrap());
    let made = with_light(&shown, &Id::from("globe"), LampJob::Practical).unwrap_or_else(|e| panic!("{e}"));
    let lamp = &made.layout.lights["practical"];
    assert_eq!(lamp.support.on, Some(Id::from("cabinet")));
    let over = value(&made, "light.practical.highlight_stops");
    assert!((0.8..1.7).contains(&over) || lamp.dim >= 0.99 || lamp.dim <= 0.011, "{over} at {}", lamp.dim);
}

/// Lines of equal light, read back into the room by each drawing's projection: on a surface that faces the lamp there is the
/// light that the line says, against that at the eyes; the wedge is as wide as the reading; no word covers another.
#[test]
fn lines_of_equal_light_lie_where_the_light_is() {
    use fogon_core::drawing::{Ink, draw, draw_light};
    let plan = crate::support::demo();
    let corner = Corner::of(&plan).unwrap();
    let drawing = draw(&plan).unwrap();
    let sheets = draw_light(&plan, &drawing, true).unwrap();
    let facing = |id: &str, at: DVec3| {
        let face = corner.lights.iter().find(|l| l.id == id).unwrap().face();
        face.illuminance_lx(at, (face.middle - at).normalize())
    };
    for (sheet, view, level) in [(&sheets.plan, &drawing.plan, true), (&sheets.side, &drawing.side, false)] {
        let projection = view.projection.unwrap();
        let back = |[x, y]: [f64; 2]| {
            let at = DVec3::from(projection.origin_m)
                + DVec3::from(projection.right) * x
                + DVec3::from(projection.down) * y;
            if level { at.with_z(corner.eyes_m.z) } else { at }
        };
        let lines: Vec<_> = sheet.strokes.iter().filter(|s| s.ink == Ink::Isolux).collect();
        assert!(lines.len() >= 4, "{}", lines.len());
        for line in lines {
            let id = line.thing.as_deref().unwrap();
            let mut stops: Vec<f64> = line
                .points
                .iter()
                .map(|p| (facing(id, back(*p)) / facing(id, corner.eyes_m)).log2())
                .filter(|stops| stops.is_finite())
                .collect();
            stops.sort_by(f64::total_cmp);
            let middle = stops[stops.len() / 2];
            assert!((middle - middle.round()).abs() < 0.02, "{id}: {middle}");
        }
        let wedges: Vec<_> = sheet.strokes.iter().filter(|s| s.ink == Ink::Cone).collect();
        assert_eq!(wedges.len(), 2, "of key and back light");
        assert_eq!(sheet.strokes.iter().filter(|s| s.ink == Ink::KeepOut).count(), if level { 2 } else { 1 });
        let boxes: Vec<[f64; 4]> = sheet
            .words
            .iter()
            .filter(|w| w.thing == "key")
            .map(|w| {
                [
                    w.word.at[0],
                    w.word.at[1],
                    view.text_size * w.word.text.chars().count() as f64 * 0.6,
                    view.text_size,
                ]
            })
            .collect();
        assert!(boxes.len() >= 2);
        for (i, a) in boxes.iter().enumerate() {
            for b in &boxes[..i] {
                assert!(
                    (a[0] - b[0]).abs() > (a[2] + b[2]) / 2.0 - 1e-9 || (a[1] - b[1]).abs() > a[3] - 1e-9
                );
            }
        }
    }
    // The picture's edge with its margin: 5 cm beside the ray to the edge, all the way.
    let [right, left, ..] = corner.view.planes();
    let projection = drawing.plan.projection.unwrap();
    for line in sheets.plan.strokes.iter().filter(|s| s.ink == Ink::KeepOut) {
        for [x, y] in &line.points {
            let at = DVec3::from(projection.right) * *x + DVec3::from(projection.down) * *y;
            let out = [&right, &left].map(|plane| plane.distance_m(at.with_z(corner.view.position_m.z)));
            assert_close(out[0].max(out[1]), 0.05, 0.0, 3e-3, "margin");
        }
    }
}

/// A keyed screen gets two lamps where they are owned, one on each side, lit level with the face; what it takes of the room and
/// the back light against its colour are told.
#[test]
fn a_keyed_screen_gets_its_lamps() {
    let chroma = json!({ "kind": "backdrop", "label": "Chroma", "backdrop": "chroma", "mass_kg": 4, "width_m": 1.8, "height_m": 2.0, "reflectance": 0.3, "offers": ["wall"] });
    let mut edits = vec![
        ("/brief/purpose".to_owned(), json!("keyed-background")),
        ("/brief/room/floor_m".to_owned(), json!([[0, 0], [4.4, 0], [4.4, 4.6], [0, 4.6]])),
        ("/brief/gear/chroma".to_owned(), chroma),
    ];
    for number in 3..6 {
        edits.push((format!("/brief/gear/stand-{number}"), stand_gear()));
        edits.push((format!("/brief/gear/wash-{number}"), lamp_gear("rectangle", 0.2, 0.15, 400.0)));
    }
    let edits: Vec<(&str, Value)> = edits.iter().map(|(p, v)| (p.as_str(), v.clone())).collect();
    let plan = demo_with(&edits);
    let corner = Corner::of(&plan).unwrap();
    let on_it: Vec<_> = corner.role(Role::Background).collect();
    assert_eq!(on_it.len(), 2, "{:?}", plan.layout.lights.keys().collect::<Vec<_>>());
    let depth = value(&plan, "light.screen.depth_m");
    assert!(depth > corner.background_behind_m() - 0.05 && depth < corner.background_behind_m() + 0.6);
    let level = value(&plan, "light.screen.level_stops");
    let full = on_it.iter().all(|l| l.light.dim > 0.99);
    assert!((-1.2..=0.3).contains(&level) || full, "{level}");
    if corner.role(Role::Back).next().is_some() {
        let told = reading(&plan, "light.screen.rim_stops").working;
        let input = |name: &str| told.inputs.iter().find(|i| i.name == name).unwrap().value;
        assert_close(
            value(&plan, "light.screen.rim_stops"),
            (input("back light") / input("spill")).log2(),
            1e-9,
            1e-9,
            "rim",
        );
    }
}

/// Glasses mirror the screen that is watched as well as lamps: one below the lens is caught, a mirror is none.
#[test]
fn a_screen_shows_in_the_glasses() {
    let with = |kind: &str| {
        let gear =
            json!({ "kind": "monitor", "label": "Screen", "mass_kg": 3, "screen": kind, "width_m": 0.5 });
        let screen = json!({ "gear": "screen", "position_m": [2.0, 2.3, 0.95], "support": { "kind": "on" } });
        plain_with(&[
            ("/brief/gear/screen", gear),
            ("/layout/screen", screen),
            ("/brief/person/glasses", json!(true)),
        ])
    };
    let shown = value(&with("laptop"), "light.screen.glare_percent");
    assert!(shown > 5.0, "{shown}");
    let told = without_moves(&with("laptop"))
        .findings
        .into_iter()
        .find(|f| f.id == "light.screen.glare_percent")
        .unwrap();
    assert!(told.sentence.contains("screen") && told.advice.contains("brightness"));
    assert!(without_moves(&with("mirror")).readings.iter().all(|r| r.id != "light.screen.glare_percent"));
}
