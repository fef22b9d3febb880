//! What people look for in the picture: skin, hair, eyes, glasses, background, against what the core says of the same plan.
use fogon_core::corner::Corner;
use fogon_core::light::mirrored;
use fogon_core::plan::Plan;
use fogon_viewfinder::render::{Asked, Rendered};
use glam::Vec3;
use serde_json::{Value, json};

use crate::plans::{plan, small, taken};

fn clean(plan: &Plan) -> Rendered {
    taken(plan, &Asked { width: 240, height: 135, smooth: true, ..small(4) })
}

/// Close to the face: a lens from the same place that sees 40 cm of it.
fn close(change: impl FnOnce(&mut Value)) -> Plan {
    plan(|document| {
        let camera = &mut document["layout"]["camera"];
        camera["focal_length_mm"] = json!(90.0);
        camera["tilt_deg"] = json!(0.0);
        camera["f_number"] = json!(8.0);
        change(document);
    })
}

/// Luminances of the pixels in which a thing is met.
fn of(picture: &Rendered, name: &str) -> Vec<f32> {
    let is_it = |number: &u16| picture.things.get(*number).is_some_and(|(known, _)| known == name);
    let pixels = picture.luminance();
    picture
        .seen
        .iter()
        .zip(pixels)
        .filter(|(number, _)| is_it(number))
        .map(|(_, pixel)| bright(pixel))
        .collect()
}

fn bright(pixel: Vec3) -> f32 {
    pixel.dot(Vec3::new(0.2126, 0.7152, 0.0722))
}

fn mean(values: &[f32]) -> f32 {
    values.iter().sum::<f32>() / values.len().max(1) as f32
}

/// The brightest hundredth.
fn top(mut values: Vec<f32>) -> f32 {
    values.sort_by(|a, b| b.total_cmp(a));
    values.truncate((values.len() / 100).max(4));
    mean(&values)
}

/// Skin is as bright as its reflectance makes it, but for its sheen and what it throws upon itself.
#[test]
fn skin_follows_its_reflectance() {
    let skin = |reflectance: f64| {
        let plan = close(|document| document["brief"]["person"]["skin_reflectance"] = json!(reflectance));
        mean(&of(&clean(&plan), "skin"))
    };
    let (light, deep) = (skin(0.44), skin(0.11));
    assert!(
        (3.0..4.4).contains(&(light / deep)),
        "four times the reflectance is {} times as bright",
        light / deep
    );
}

/// Hair of a told lightness, or none; what is worn has its colour and its reflectance.
#[test]
fn hair_and_clothes_are_as_told() {
    let with = |hair: &str, colour: &str, reflectance: f64| {
        clean(&plan(|document| {
            let person = &mut document["brief"]["person"];
            person["hair"] = json!(hair);
            person["clothing_colour"] = json!(colour);
            person["clothing_reflectance"] = json!(reflectance);
        }))
    };
    let (dark, light, none) =
        (with("dark", "red", 0.2), with("light", "green", 0.2), with("none", "grey", 0.4));
    assert!(of(&none, "hair").is_empty());
    assert!(mean(&of(&light, "hair")) > 2.5 * mean(&of(&dark, "hair")));
    let times = mean(&of(&none, "clothes")) / mean(&of(&dark, "clothes"));
    assert!((1.8..2.3).contains(&times), "twice the reflectance is {times} times as bright");
    // Which channel leads in the mean of the cloth.
    let leads = |picture: &Rendered| {
        let is_cloth = |number: &u16| picture.things.get(*number).is_some_and(|(name, _)| name == "clothes");
        let signal = picture.signal();
        let sum: Vec3 =
            picture.seen.iter().zip(signal).filter(|(n, _)| is_cloth(n)).map(|(_, pixel)| pixel).sum();
        [sum.x / sum.y, sum.z / sum.y]
    };
    let (red, green) = (leads(&dark), leads(&light));
    assert!(red[0] > 1.8 && green[0] < 0.75 && green[1] < 0.9, "{red:?} {green:?}");
}

/// A light from behind draws an edge along the hair; without it there is none.
#[test]
fn hair_takes_a_rim_light() {
    let rim = |dim: f64| {
        let plan = plan(|document| {
            let lights = &mut document["layout"]["lights"];
            lights["key"]["dim"] = json!(0.05);
            lights["back"]["dim"] = json!(dim);
        });
        top(of(&clean(&plan), "hair"))
    };
    let (with, without) = (rim(1.0), rim(0.001));
    assert!(with > 2.0 * without, "{with} and {without} cd/m2");
}

/// The key stands in the eyes as its mirror image on the iris: a few hundredths of the lamp's luminance (Fresnel at 1.376: 0.025
/// straight on), and it goes where the key goes.
#[test]
fn the_key_stands_in_the_eyes() {
    // The brightest of both irises, over their middle.
    let irises = |change: fn(&mut Value)| {
        let plan = close(|document| {
            document["layout"]["camera"]["focal_length_mm"] = json!(300.0);
            document["layout"]["lights"].as_object_mut().expect("lights").remove("back");
            change(document);
        });
        let picture = clean(&plan);
        let corner = Corner::of(&plan).expect("it resolves");
        let pupils = [-1.0, 1.0].map(|side| corner.eyes_m + corner.view.right * (0.0315 * side));
        let width_m = corner.view.frame_width_m(corner.view.depth_m(corner.eyes_m));
        let mut found: Vec<f32> = Vec::new();
        for (at, pixel) in picture.luminance().iter().enumerate() {
            let place = [(at % 240) as f64 / 240.0, (at / 240) as f64 / 135.0];
            let is_near = pupils
                .iter()
                .filter_map(|pupil| corner.view.project(*pupil))
                .any(|(x, y)| (x - place[0]).hypot((y - place[1]) * 9.0 / 16.0) * width_m < 0.0045);
            let is_eye = picture.things.get(picture.seen[at]).is_some_and(|(name, _)| name == "an eye");
            if is_near && is_eye {
                found.push(bright(*pixel));
            }
        }
        assert!(found.len() > 80, "the eyes fill the picture: {}", found.len());
        let key = corner.lights.iter().find(|light| light.id.0 == "key").expect("it has a key");
        found.sort_by(|a, b| b.total_cmp(a));
        (found[1], found[found.len() / 2], key.face().luminance_cd_m2 as f32)
    };
    let (spot, middle, lamp) = irises(|_| {});
    assert!(
        (0.015..0.06).contains(&(spot / lamp)) && spot > 3.0 * middle,
        "{spot} over {middle}, lamp {lamp}"
    );
    // The lamp from behind: no spot.
    let (none, _, _) = irises(|document| {
        let seat = document["layout"]["seat"]["position_m"].clone();
        let [x, y] = [0, 1].map(|at| seat[at].as_f64().expect("a number"));
        let bearing = document["layout"]["seat"]["bearing_deg"].as_f64().expect("a number").to_radians();
        document["layout"]["lights"]["key"]["position_m"] =
            json!([x - 1.0 * bearing.sin(), y - 1.0 * bearing.cos(), 1.9]);
    });
    assert!(none < 0.2 * spot, "{none} without, {spot} with");
}

/// Glasses mirror the key where the core says that they do, and do not where it says that they do not.
#[test]
fn glasses_glare_where_the_core_says_so() {
    let mut seen = Vec::new();
    // From beside the lens at eye level up to high above: the key's height is what takes the glare away.
    for height_m in [1.25, 2.05] {
        let with = |glasses: bool| {
            close(|document| {
                document["brief"]["person"]["glasses"] = json!(glasses);
                document["layout"]["lights"].as_object_mut().expect("lights").remove("back");
                let lens = document["layout"]["camera"]["position_m"].clone();
                let seat = document["layout"]["seat"]["position_m"].clone();
                let number = |of: &Value, at: usize| of[at].as_f64().expect("a number");
                let (dx, dy) = (number(&lens, 0) - number(&seat, 0), number(&lens, 1) - number(&seat, 1));
                // 0.8 of the way to the lens, 25 cm beside its axis.
                let length = dx.hypot(dy);
                let [x, y] = [
                    number(&seat, 0) + 0.8 * dx - 0.32 * dy / length,
                    number(&seat, 1) + 0.8 * dy + 0.32 * dx / length,
                ];
                document["layout"]["lights"]["key"]["position_m"] = json!([x, y, height_m]);
            })
        };
        let glazed_plan = with(true);
        let corner = Corner::of(&glazed_plan).expect("it resolves");
        let glare = corner.lights.iter().map(|light| mirrored::glare(&corner, light)).fold(0.0, f64::max);
        let (clear, glazed) = (clean(&with(false)), clean(&glazed_plan));
        // What the lenses add to the brightest of the eyes' surroundings.
        let added: f32 = clear
            .luminance()
            .iter()
            .zip(glazed.luminance())
            .zip(glazed.seen.iter().zip(&clear.seen))
            .filter(|(_, (a, b))| a == b)
            .map(|((before, after), _)| (bright(after) - bright(*before)).max(0.0))
            .fold(0.0, f32::max);
        seen.push((height_m, glare, added));
    }
    assert!(seen.iter().any(|(_, glare, _)| *glare > 0.05) && seen.iter().any(|(_, glare, _)| *glare == 0.0));
    for (height_m, glare, added) in seen {
        // The lamp is hundreds of times as bright as what else a lens mirrors.
        assert_eq!(glare > 0.005, added > 20.0, "key at {height_m} m: {glare} of a lens, {added} cd/m2");
    }
}

/// What is behind the person melts with a wide opening and stands sharp with a small one; the face stays sharp.
#[test]
fn the_background_melts_with_the_opening() {
    let edges = |f_number: f64| {
        let plan = plan(|document| {
            document["layout"]["camera"]["f_number"] = json!(f_number);
            // The same exposure.
            document["layout"]["camera"]["iso"] = json!(100.0 * (f_number / 1.8).powi(2));
        });
        let picture = taken(&plan, &Asked { width: 320, height: 180, smooth: false, ..small(24) });
        let signal = picture.signal();
        ["the door", "an eye"].map(|name| {
            let is_it =
                |at: usize| picture.things.get(picture.seen[at]).is_some_and(|(known, _)| known == name);
            let steps =
                (0..signal.len() - 1).filter(|at| (at + 1) % 320 != 0 && is_it(*at) && is_it(*at + 1));
            let mut all: Vec<f32> = steps
                .map(|at| {
                    let (a, b) = (bright(signal[at]), bright(signal[at + 1]));
                    (a - b).abs() / (a + b).max(1e-6)
                })
                .collect();
            all.sort_by(|a, b| b.total_cmp(a));
            mean(&all[..all.len() / 20])
        })
    };
    let ([door_open, open], [door_closed, closed]) = (edges(1.8), edges(16.0));
    assert!(door_closed > 1.5 * door_open, "edges of the door: {door_closed} at f/16, {door_open} at f/1.8");
    assert!((closed / open - 1.0).abs() < 0.35, "edges in the eyes: {closed} at f/16, {open} at f/1.8");
}
