//! Laws of light that hold in any room and with anything in the way.

use fogon_core::corner::Corner;
use fogon_core::geometry::{DVec3, Solid};
use fogon_core::light::bounce;
use fogon_core::light::head::face_seen;
use fogon_core::photometry::{Blockers, Face, LightSource};
use fogon_core::plan::{Plan, Shape};
use fogon_testkit::{any_shape, assert_close, set};
use proptest::prelude::*;
use serde_json::json;

use crate::lighting::kept_lm;
use crate::support::{brief, plain, plain_with, read};

/// The plain corner with a block somewhere between key and face, or not.
fn with_block(at: Option<[f64; 3]>, size: [f64; 3], dim: f64) -> Plan {
    let mut document = plain();
    set(&mut document, "/layout/lights/key/dim", json!(dim));
    if let Some(at) = at {
        let block =
            json!({ "kind": "box", "position_m": at, "bearing_deg": 20, "size_m": size, "fixed": true });
        set(&mut document, "/brief/room/furniture/block", block);
    }
    read(&document)
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 32, ..ProptestConfig::default() })]

    /// What a lamp gives is what walls, floor and ceiling keep, in any room: round corners, under slopes and beams,
    /// whatever the paint. No surface is darker than black, and white rooms are lighter than dark ones.
    #[test]
    fn no_light_is_lost_or_won_in_any_room(document in any_shape(), paint in 0.1f64..0.9, lamp in (0.2f64..0.8, 0.2f64..0.8, 0.4f64..0.9)) {
        let mut document = document;
        let walls = document["brief"]["room"]["floor_m"].as_array().unwrap().len();
        let names = (0..walls).map(|w| format!("wall-{w}")).chain(["floor".into(), "ceiling".into()]);
        let surfaces: serde_json::Map<String, serde_json::Value> =
            names.map(|name| (name, json!({ "reflectance": paint }))).collect();
        set(&mut document, "/brief/room/surfaces", serde_json::Value::Object(surfaces));
        let given = brief(&document).brief;
        let [width, depth, height] = given.room.dimensions_m();
        let at = DVec3::new(lamp.0 * width, lamp.1 * depth, lamp.2 * height);
        let face = Face::new(Shape::Disc, 0.5, 0.5, at, at + DVec3::new(0.3, -0.5, -0.4), 2000.0);
        let room = bounce::enclosure(&given);
        let glow = room.lit_by(std::iter::once(&face));
        prop_assert!(glow.luminances_cd_m2.iter().all(|l| l.is_finite() && *l >= 0.0));
        assert_close(kept_lm(&room, &glow), face.flux_lm(), 1e-5, 0.0, "kept");
        // The same room again is the same exchange, not a new one.
        prop_assert!(std::sync::Arc::ptr_eq(&room, &bounce::enclosure(&given)));
    }

    /// Whatever is put in the way, no part of the face gets more light straight from the lamp; and light is linear in the
    /// dial, shadows and all.
    #[test]
    fn a_block_takes_light_and_a_dial_scales_it(
        at in (0.8f64..2.4, 1.2f64..2.6, 0.8f64..1.9), size in (0.05f64..0.6, 0.05f64..0.6, 0.05f64..0.6), dim in 0.05f64..1.0,
    ) {
        let place = Some([at.0, at.1, at.2]);
        let size = [size.0, size.1, size.2];
        let lit = |plan: &Plan| face_seen(&Corner::of(plan).unwrap());
        let (open, blocked) = (lit(&with_block(None, size, 1.0)), lit(&with_block(place, size, 1.0)));
        for (a, b) in open.facets.iter().zip(&blocked.facets) {
            prop_assert!(b.illuminance_lx <= a.illuminance_lx + 1e-6, "{:?} {} {}", a.spot, a.illuminance_lx, b.illuminance_lx);
        }
        prop_assert!(blocked.lamps[0].unhidden <= 1.0 + 1e-9);
        let dimmed = lit(&with_block(place, size, dim));
        assert_close(dimmed.reference_lx, dim * blocked.reference_lx, 1e-9, 1e-9, "towards the lens");
        for (a, b) in blocked.facets.iter().zip(&dimmed.facets) {
            assert_close(b.illuminance_lx, dim * a.illuminance_lx, 1e-9, 1e-9, "every part");
        }
    }

    /// Two blocks hide at least what one of them does and at most what both do; in which order they are told is all one.
    #[test]
    fn shadows_join(
        first in (-0.3f64..0.3, 0.4f64..0.9, -0.3f64..0.3), second in (-0.3f64..0.3, 0.4f64..0.9, -0.3f64..0.3), size in 0.05f64..0.3,
    ) {
        let face = LightSource::new(Face::new(Shape::Rectangle, 0.7, 0.5, DVec3::Y * 1.4, DVec3::ZERO, 1000.0), None);
        let cube = |(x, y, z): (f64, f64, f64)| {
            let half = size / 2.0;
            Solid::oriented_box(DVec3::new(x, y, z), [DVec3::X * half, DVec3::Y * half, DVec3::Z * half])
        };
        let lux = |solids: &[&Solid]| {
            let mut blockers = Blockers::default();
            solids.iter().enumerate().for_each(|(number, solid)| blockers.add(solid, number));
            face.illuminance_lx(DVec3::ZERO, DVec3::Y, &blockers, None)
        };
        let (a, b) = (cube(first), cube(second));
        let (open, one, other, both) = (lux(&[]), lux(&[&a]), lux(&[&b]), lux(&[&a, &b]));
        prop_assert!(both <= one.min(other) + 1e-6);
        prop_assert!(both >= one + other - open - 1e-6);
        assert_close(both, lux(&[&b, &a]), 1e-6, 1e-6, "either way round");
    }
}

/// Round the inner corner of an L no lamp shines straight; the walls still do.
#[test]
fn light_goes_round_a_corner_only_by_the_walls() {
    use fogon_core::light::LightField;
    let plan = plain_with(&[
        ("/brief/room/floor_m", json!([[0, 0], [4, 0], [4, 2.8], [2.6, 2.8], [2.6, 5], [0, 5]])),
        ("/layout/lights/key/position_m", json!([1.1, 2.4, 1.9])),
    ]);
    let corner = Corner::of(&plan).unwrap();
    let lit = LightField::of(&corner);
    // From the far end of the short arm the key, 1.9 m up at (1.1, 2.4), is hidden for a lamp in the long arm's end.
    let lamp = plain_with(&[
        ("/brief/room/floor_m", json!([[0, 0], [4, 0], [4, 2.8], [2.6, 2.8], [2.6, 5], [0, 5]])),
        ("/layout/lights/key/position_m", json!([1.0, 4.6, 1.9])),
        ("/layout/lights/key/aim_m", json!([3.6, 2.4, 1.2])),
    ]);
    let other = Corner::of(&lamp).unwrap();
    let round = LightField::of(&other);
    let (at, normal) = (DVec3::new(3.8, 2.6, 1.2), DVec3::new(-0.6, 0.8, 0.0));
    assert_eq!(round.direct_lx(at, normal), 0.0);
    assert!(round.bounce_lx(at, DVec3::new(-1.0, 0.0, 0.0)) > 1.0);
    assert!(lit.direct_lx(corner.eyes_m, corner.to_lens()) > 0.0);
}
