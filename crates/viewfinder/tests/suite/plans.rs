//! Pictures of plans, against what the core says of them.
use std::sync::{LazyLock, Mutex, PoisonError};

use fogon_core::colour::planckian_xy;
use fogon_core::corner::Corner;
use fogon_core::exposure::illuminance_needed_lx;
use fogon_core::geometry::DVec3;
use fogon_core::light::LightField;
use fogon_core::plan::Plan;
use fogon_viewfinder::develop::{Exposure, Tone, balanced, dials};
use fogon_viewfinder::render::{Asked, Rendered, render};
use fogon_viewfinder::stage::Stage;
use fogon_viewfinder::trace::{Care, Tracer};
use fogon_viewfinder::tree::Walk;
use glam::{DQuat, Vec3};
use serde_json::{Value, json};

/// The demo's plan, changed.
pub(crate) fn plan(change: impl FnOnce(&mut Value)) -> Plan {
    let text = include_str!("../../../../docs/examples/box-room.fogon.json");
    let mut document: Value = serde_json::from_str(text).expect("the example is JSON");
    change(&mut document);
    Plan::read(document.to_string().as_bytes()).unwrap_or_else(|problems| panic!("{problems}"))
}

pub(crate) fn small(samples: u32) -> Asked {
    Asked { width: 160, height: 90, samples, seed: 1, smooth: false, matt: false, walk: None }
}

pub(crate) fn taken(plan: &Plan, asked: &Asked) -> Rendered {
    // One stage for all, as a page has one: that what it keeps leaves no trace is a test of its own.
    static STAGE: LazyLock<Mutex<Stage>> = LazyLock::new(Mutex::default);
    let corner = Corner::of(plan).expect("it resolves");
    let walk = asked.walk.unwrap_or_else(Walk::fastest);
    let staged = STAGE.lock().unwrap_or_else(PoisonError::into_inner).staged(&corner, walk);
    render(&staged, asked)
}

/// Every place lies in the picture where the core's frame has it, within a twentieth of a pixel of 960.
#[test]
fn places_lie_where_the_core_has_them() {
    let plan = plan(|_| {});
    let corner = Corner::of(&plan).expect("it resolves");
    let lens = fogon_viewfinder::lens::Lens::of(&corner);
    for step in 0..200 {
        let part = f64::from(step) / 200.0;
        let place = DVec3::new(3.4 * part, 2.9 * (7.3 * part).fract(), 2.4 * (3.7 * part).fract());
        let found = lens.project(place.as_vec3()).map(|(at, _)| at.map(f64::from));
        let wanted = corner.view.project(place);
        assert_eq!(found.is_some(), wanted.is_some(), "{place}");
        if let (Some([x, y]), Some((wanted_x, wanted_y))) = (found, wanted) {
            let most = 0.05 / 960.0 * (1.0 + wanted_x.abs() + wanted_y.abs());
            assert!((x - wanted_x).abs() < most && (y - wanted_y).abs() < most, "{place}: {x} {y}");
        }
    }
}

/// Light on a card before the face, turned to the lens, is what the core's formulas say there: straight from the lamps by Lambert's
/// polygons, from the room by radiosity of its bare walls, which furniture and the person darken a little.
#[test]
fn light_before_the_face_is_the_cores() {
    let plan = plan(|_| {});
    let corner = Corner::of(&plan).expect("it resolves");
    let field = LightField::of(&corner);
    let staged = Stage::default().staged(&corner, Walk::fastest());
    let worth = dials(&staged.groups);
    let tracer = Tracer::new(staged.scene.clone(), &staged.sights, worth, Care::FULL, Walk::fastest(), true);
    for turned_deg in [0.0_f64, 40.0, -40.0] {
        let normal = DQuat::from_rotation_z(turned_deg.to_radians()) * corner.to_lens();
        let point = corner.eyes_m + corner.to_lens() * 0.30;
        let light = tracer.light_at(point.as_vec3(), normal.as_vec3(), 4096);
        let sum = |part: fn(&(Vec3, Vec3)) -> f32| {
            let each = light.iter().zip(worth).map(|(light, worth)| part(light) * worth);
            f64::from(each.sum::<f32>())
        };
        let (straight, thrown) = (sum(|light| light.0.y), sum(|light| light.1.y));
        let (wanted, bounce) = (field.direct_lx(point, normal), field.bounce_lx(point, normal));
        assert!(
            (straight / wanted - 1.0).abs() < 0.01,
            "{turned_deg}: {straight} lx straight, wanted {wanted}"
        );
        assert!((thrown / bounce - 1.0).abs() < 0.25, "{turned_deg}: {thrown} lx thrown back, core {bounce}");
    }
}

/// A white card under the light that the setting needs gives the linear signal 1 (ISO 2720 as the core has it); a filter of a stop
/// halves it.
#[test]
fn exposure_is_the_cores() {
    let signal = |nd_stops: f64| {
        let plan = plan(|document| document["layout"]["camera"]["nd_stops"] = json!(nd_stops));
        let corner = Corner::of(&plan).expect("it resolves");
        let camera = &corner.layout.camera;
        let needed = illuminance_needed_lx(camera.f_number, camera.shutter_s, camera.iso, 250.0);
        let white = (needed / std::f64::consts::PI) as f32;
        Exposure::of(&corner).signal_per_cd_m2 * white
    };
    assert!((signal(0.0) - 1.0).abs() < 1e-4 && (signal(1.0) - 0.5).abs() < 1e-4);
}

#[test]
fn light_of_the_set_temperature_is_white() {
    for kelvin in [2700.0, 4300.0, 5600.0, 9000.0] {
        let white = balanced(planckian_xy(kelvin), kelvin);
        assert!((white - Vec3::ONE).abs().max_element() < 2e-3, "{kelvin} K: {white}");
    }
    // Warmer light is warm under it, and no darker.
    let warm = balanced(planckian_xy(2700.0), 5600.0);
    assert!(warm.x > 1.3 && warm.z < 0.5 && (warm.dot(Vec3::new(0.2126, 0.7152, 0.0722)) - 1.0).abs() < 0.1);
}

/// The tone curve: as it is up to 0.6, without a kink, rising to white just where the recording clips.
#[test]
fn the_tone_curve_reaches_white_where_the_recording_clips() {
    for clips_at in [0.8, 1.0, 1.414, 4.0, 11.5] {
        let tone = Tone::new(clips_at);
        let mut before = -1.0;
        for step in 0..=2000 {
            let signal = clips_at * step as f32 / 2000.0;
            let shown = tone.shown(signal);
            assert!(shown >= before && shown <= 1.0, "{clips_at}: {signal}");
            if signal <= 0.6 {
                assert!((shown - signal).abs() < 1e-6);
            }
            before = shown;
        }
        assert!((tone.shown(clips_at * 0.99999) - 1.0).abs() < if clips_at > 1.0 { 1e-3 } else { 0.21 });
        if clips_at > 1.0 {
            let slope = (tone.shown(0.601) - tone.shown(0.6)) / 0.001;
            assert!((slope - 1.0).abs() < 0.01, "{clips_at}: {slope}");
        }
    }
}
