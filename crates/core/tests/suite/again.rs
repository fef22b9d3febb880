//! Laid out again after the answers changed: what is locked stays, what hangs and second angles come along, what is gone goes.

use fogon_core::arrange::{AngleKind, Stop, laid_again, with_angle, with_treatment};
use fogon_core::assess::without_moves;
use fogon_core::finding::Severity;
use fogon_core::plan::Plan;
use fogon_testkit::set;
use serde_json::{Value, json};

use crate::support::{demo, read};

fn again(plan: &Plan, edits: &[(&str, Value)]) -> Plan {
    let mut told = serde_json::to_value(plan).unwrap();
    for (pointer, value) in edits {
        set(&mut told, pointer, value.clone());
    }
    // Only the brief counts: the layout may not be legal in it.
    let brief = serde_json::from_value(told["brief"].clone()).unwrap();
    laid_again(&plan.name, &brief, &plan.layout, Stop::NEVER).unwrap().expect("something fits")
}

#[test]
fn what_is_locked_stays_and_the_rest_goes_where_the_new_answers_want_it() {
    let mut document = serde_json::to_value(demo()).unwrap();
    set(&mut document, "/layout/lights/key/locked", json!(true));
    let plan = read(&document);
    let taller = again(&plan, &[("/brief/person/stature_m", json!(1.98))]);
    assert_eq!(taller.layout.lights["key"], plan.layout.lights["key"]);
    assert!(taller.layout.camera.position_m.0[2] > plan.layout.camera.position_m.0[2] + 0.05);
    let stops = without_moves(&taller).findings.into_iter().filter(|f| f.severity == Severity::Stop).count();
    assert_eq!(stops, 0);
}

#[test]
fn what_hangs_and_second_angles_come_along() {
    let plan = with_treatment(&demo(), "panel_50mm", 1.2, 0.6).expect("there is a free wall");
    let plan = with_angle(&plan, AngleKind::Side).unwrap_or(plan);
    let taller = again(&plan, &[("/brief/person/stature_m", json!(1.9))]);
    assert_eq!(taller.layout.treatment, plan.layout.treatment);
    assert_eq!(taller.layout.angles, plan.layout.angles);
}

#[test]
fn what_is_no_longer_at_hand_goes_although_it_was_locked() {
    let mut document = serde_json::to_value(demo()).unwrap();
    set(&mut document, "/layout/lights/back/locked", json!(true));
    let plan = read(&document);
    let gear = plan.layout.lights["back"].gear.clone();
    let mut brief = plan.brief.clone();
    brief.gear.remove(&gear);
    let without = laid_again(&plan.name, &brief, &plan.layout, Stop::NEVER).unwrap().unwrap();
    assert!(!without.brief.gear.contains_key(&gear));
    assert!(without.layout.lights.values().all(|light| light.gear != gear));
}
