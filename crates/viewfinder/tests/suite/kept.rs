//! Small pictures as they were when somebody last looked at them and found them right: told apart by relative error, not by bytes.
//! `FOGON_KEEP_PICTURES=1 cargo tests --test viewfinder kept` keeps those of today; look at them first with `fogon render`.
use std::collections::BTreeMap;

use fogon_core::corner::Corner;
use fogon_core::plan::Plan;
use fogon_viewfinder::lens::size_px;
use fogon_viewfinder::render::Asked;
use glam::Vec3;
use serde_json::{Value, json};

use crate::plans::{plan, small, taken};

/// Pixels along the longer side of what is taken, and how many of them along each side make one that is kept.
const TAKEN_PX: usize = 160;
const EACH: usize = 5;
/// The root mean square of relative differences that noise of so few samples leaves, with room for another processor.
const MOST: f32 = 0.02;

fn alcove() -> Plan {
    let text = include_str!("../../../../docs/examples/crowded-alcove.fogon.json");
    Plan::read(text.as_bytes()).unwrap_or_else(|problems| panic!("{problems}"))
}

fn all() -> Vec<(&'static str, Plan)> {
    let person = |document: &mut Value, hair: &str, skin: f64| {
        document["brief"]["person"]["hair"] = json!(hair);
        document["brief"]["person"]["skin_reflectance"] = json!(skin);
    };
    vec![
        ("box room", plan(|_| {})),
        ("crowded alcove", alcove()),
        (
            "glasses, light hair",
            plan(|document| {
                person(document, "light", 0.42);
                document["brief"]["person"]["glasses"] = json!(true);
            }),
        ),
        (
            "deep skin, bare head, dressed walls",
            plan(|document| {
                person(document, "none", 0.08);
                for wall in ["wall-0", "wall-1", "wall-2", "wall-3"] {
                    document["brief"]["room"]["surfaces"][wall] = json!({ "look": "dressed" });
                }
                document["layout"]["camera"]["focal_length_mm"] = json!(18.0);
            }),
        ),
        (
            "portrait, wide open, warm balance",
            plan(|document| {
                let camera = &mut document["layout"]["camera"];
                camera["orientation"] = json!("portrait");
                camera["f_number"] = json!(1.8);
                camera["white_balance_k"] = json!(4000.0);
            }),
        ),
        (
            "performance, standing",
            plan(|document| {
                document["brief"]["purpose"] = json!("performance");
                document["brief"]["person"]["posture"] = json!("standing");
                document["layout"]["camera"]["focal_length_mm"] = json!(16.0);
                document["layout"]["camera"]["tilt_deg"] = json!(-12.0);
            }),
        ),
    ]
}

/// Means of blocks of pixels: red, green and blue of each.
fn blocks(plan: &Plan) -> Vec<Vec3> {
    let corner = Corner::of(plan).expect("it resolves");
    let [width, height] = size_px(&corner, TAKEN_PX);
    let asked = Asked { width, height, smooth: true, ..small(8) };
    let signal = taken(plan, &asked).signal();
    let (wide, high) = (width / EACH, height / EACH);
    let place = |block: usize| (block % wide * EACH, block / wide * EACH);
    (0..wide * high)
        .map(|block| {
            let (left, top) = place(block);
            let rows = (top..top + EACH).flat_map(|row| (left..left + EACH).map(move |x| row * width + x));
            rows.map(|at| signal[at]).sum::<Vec3>() / (EACH * EACH) as f32
        })
        .collect()
}

#[test]
fn kept_pictures_stay_as_they_were() {
    let file = concat!(env!("CARGO_MANIFEST_DIR"), "/../viewfinder/tests/fixtures/pictures.json");
    let taken: BTreeMap<&str, Vec<Vec3>> = all().iter().map(|(name, plan)| (*name, blocks(plan))).collect();
    if std::env::var_os("FOGON_KEEP_PICTURES").is_some() {
        let rounded = |pixel: &Vec3| pixel.to_array().map(|part| (f64::from(part) * 1e4).round() / 1e4);
        let kept: BTreeMap<&str, Vec<[f64; 3]>> =
            taken.iter().map(|(name, blocks)| (*name, blocks.iter().map(rounded).collect())).collect();
        std::fs::write(file, serde_json::to_string(&kept).expect("numbers")).expect("it can be written");
    }
    let text = std::fs::read_to_string(file).expect("the kept pictures are there");
    let kept: BTreeMap<String, Vec<[f32; 3]>> = serde_json::from_str(&text).expect("they are JSON");
    assert_eq!(kept.len(), taken.len());
    for (name, blocks) in &taken {
        let before: Vec<Vec3> = kept[*name].iter().map(|pixel| Vec3::from(*pixel)).collect();
        assert_eq!(before.len(), blocks.len(), "{name}");
        let error = crate::same::difference(blocks, &before);
        assert!(error < MOST, "{name} is another picture: {error}");
        let mean = |pixels: &[Vec3]| pixels.iter().sum::<Vec3>().element_sum() / pixels.len() as f32;
        assert!((mean(blocks) / mean(&before) - 1.0).abs() < 0.005, "{name} is brighter or darker");
    }
    // One picture is not another: the measure tells them apart.
    let [a, b] = ["box room", "glasses, light hair"].map(|name| &taken[name]);
    assert!(crate::same::difference(a, b) > MOST);
}
