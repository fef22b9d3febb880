//! The same picture again: whatever the threads, whatever the processor, whichever dial was turned first.
use fogon_core::corner::Corner;
use fogon_core::plan::Plan;
use fogon_viewfinder::render::{Asked, Rendered, render};
use fogon_viewfinder::stage::Stage;
use fogon_viewfinder::tree::Walk;
use glam::Vec3;
use serde_json::json;

use crate::plans::{plan, small, taken};

fn demo() -> Plan {
    plan(|document| document["brief"]["person"]["glasses"] = json!(true))
}

/// Root mean square of the differences over the values, as the comparison with another renderer has it.
pub(crate) fn difference(a: &[Vec3], b: &[Vec3]) -> f32 {
    let mean = b.iter().map(|pixel| pixel.element_sum()).sum::<f32>() / (3 * b.len()) as f32;
    let least = (0.05 * mean).powi(2);
    let sum: f32 = a
        .iter()
        .zip(b)
        .flat_map(|(a, b)| [0, 1, 2].map(|i| (a[i] - b[i]).powi(2) / (b[i] * b[i] + least)))
        .sum();
    (sum / (3 * b.len()) as f32).sqrt()
}

#[test]
fn any_number_of_threads_takes_the_same_picture() {
    let plan = demo();
    let with = |threads: usize| {
        let pool = rayon::ThreadPoolBuilder::new().num_threads(threads).build().expect("threads start");
        pool.install(|| taken(&plan, &Asked { smooth: true, ..small(2) }).signal())
    };
    assert_eq!(with(1), with(3));
}

/// Before anything is smoothed, pixel by pixel.
#[test]
fn the_plain_walk_takes_the_same_picture_as_the_vector_walk() {
    let plan = demo();
    let with = |walk| taken(&plan, &Asked { walk: Some(walk), ..small(2) }).signal();
    let (plain, fastest) = (with(Walk::Plain), with(Walk::fastest()));
    for (a, b) in plain.iter().zip(&fastest) {
        let most = 1e-4 * b.abs().max_element().max(1e-6);
        assert!((*a - *b).abs().max_element() <= most, "{a} and {b}");
    }
}

/// A dial turned, a colour and a setting changed: mixed anew from the light that was gathered, it is what a new picture is.
#[test]
fn a_dial_turned_afterwards_gives_what_a_new_picture_gives() {
    let before = plan(|_| {});
    let after = plan(|document| {
        document["layout"]["lights"]["key"]["dim"] = json!(0.2);
        document["layout"]["lights"]["back"]["cct_k"] = json!(3200.0);
        document["layout"]["camera"]["iso"] = json!(400.0);
        document["layout"]["camera"]["white_balance_k"] = json!(4300.0);
    });
    let old = taken(&before, &small(4));
    let new = taken(&after, &small(4));
    let again = Rendered { groups: new.groups.clone(), exposure: new.exposure, ..old };
    assert!(difference(&again.signal(), &new.signal()) < 1e-3);
}

/// What is kept from picture to picture leaves no trace: a lamp moved there and back gives the first picture again.
#[test]
fn what_is_kept_leaves_no_trace() {
    let (here, there) = (
        plan(|_| {}),
        plan(|document| {
            document["layout"]["lights"]["key"]["position_m"] = json!([1.4, 2.4, 1.9]);
            document["layout"]["seat"]["position_m"] = json!([1.7, 1.4]);
            // Books on shelves that were not there before, by chance and always the same.
            document["brief"]["room"]["surfaces"]["wall-0"] = json!({ "look": "dressed" });
            document["brief"]["room"]["furniture"]["bookcase"] = json!({
                "kind": "bookcase", "position_m": [3.1, 0.2, 0.0], "bearing_deg": 0.0, "size_m": [0.5, 0.3, 1.4], "fixed": true,
            });
        }),
    );
    let mut stage = Stage::default();
    let mut take = |plan: &Plan| {
        let corner = Corner::of(plan).expect("it resolves");
        let staged = stage.staged(&corner, Walk::fastest());
        render(&staged, &small(1)).signal()
    };
    let first = take(&here);
    let other = take(&there);
    assert_ne!(first, other);
    assert_eq!(take(&here), first);
    let corner = Corner::of(&there).expect("it resolves");
    assert_eq!(render(&Stage::default().staged(&corner, Walk::fastest()), &small(1)).signal(), other);
}

/// Smoothing brings few samples nearer to many, and moves no region's mean by more than a percent or two.
#[test]
fn smoothing_removes_noise_and_not_light() {
    let plan = plan(|_| {});
    let many = taken(&plan, &small(128)).luminance();
    let few = taken(&plan, &small(2)).luminance();
    let smooth = taken(&plan, &Asked { smooth: true, ..small(2) }).luminance();
    let (raw_error, error) = (difference(&few, &many), difference(&smooth, &many));
    assert!(error < 0.75 * raw_error, "{error} smoothed, {raw_error} before");
    let mean = |pixels: &[Vec3]| pixels.iter().map(|pixel| pixel.y).sum::<f32>() / pixels.len() as f32;
    assert!((mean(&smooth) / mean(&many) - 1.0).abs() < 0.015, "{} {}", mean(&smooth), mean(&many));
}
