//! The order of the work: everything that is judged belongs to one step, each step says how it stands, and its button
//! leads on. Fogon's own rules.

use std::collections::BTreeSet;

use fogon_core::assess::{Assessment, evaluate};
use fogon_core::corner::Corner;
use fogon_core::plan::{Plan, apply};
use fogon_core::steps::{Action, State, Step, StepTold, Tab, steps};
use serde_json::json;

use crate::support::{demo, furnished, plain, plain_with, read};

fn told(plan: &Plan) -> (Assessment, Vec<StepTold>) {
    let assessment = evaluate(plan);
    let corner = Corner::of(plan).unwrap();
    let steps = steps(&corner, &assessment);
    (assessment, steps)
}

fn of(steps: &[StepTold], step: Step) -> &StepTold {
    steps.iter().find(|one| one.step == step).unwrap()
}

/// Corners in which much stands, and much is wrong.
fn corners() -> Vec<Plan> {
    vec![
        demo(),
        furnished(),
        plain_with(&[("/layout/microphone", json!(null)), ("/layout/lights", json!({}))]),
        plain_with(&[
            ("/layout/camera/position_m", json!([2, 2.2, 1.6])),
            ("/layout/camera/iso", json!(12800)),
        ]),
        plain_with(&[("/layout/seat/position_m", json!([3.9, 0.1])), ("/brief/room/height_m", json!(2.1))]),
    ]
}

/// The step Light names the side of the key as the card does; the plain corner's lens looks along -y, so that low x is camera right.
#[test]
fn the_key_is_told_on_its_side() {
    for (x, side) in [(1.1, "camera right"), (2.9, "camera left")] {
        let plan = plain_with(&[("/layout/lights/key/position_m/0", json!(x))]);
        let (_, steps) = told(&plan);
        let sentence = &of(&steps, Step::Light).sentence;
        assert!(sentence.contains(side), "{sentence}");
        let key = fogon_core::arrange::why(&plan).into_iter().find(|placed| placed.letter == "K").unwrap();
        assert!(key.place.contains(side), "{}", key.place);
    }
}

#[test]
fn every_finding_reading_and_thing_belongs_to_one_step() {
    for plan in corners() {
        let (assessment, steps) = told(&plan);
        assert_eq!(steps.iter().map(|s| s.step).collect::<Vec<_>>(), Step::ALL);
        let mut findings: Vec<String> = steps.iter().flat_map(|s| s.findings.clone()).collect();
        let mut all: Vec<String> = assessment.findings.iter().map(|f| f.id.to_string()).collect();
        findings.sort();
        all.sort();
        assert_eq!(findings, all);
        let mut readings: Vec<String> =
            steps.iter().flat_map(|s| &s.groups).flat_map(|g| g.readings.clone()).collect();
        let mut all: Vec<String> = assessment.readings.iter().map(|r| r.id.to_string()).collect();
        readings.sort();
        all.sort();
        assert_eq!(readings, all);
        let things: Vec<&String> = steps.iter().flat_map(|s| &s.things).collect();
        assert_eq!(things.len(), things.iter().collect::<BTreeSet<_>>().len(), "{things:?}");
        for name in ["seat", "camera"] {
            assert!(things.iter().any(|thing| *thing == name), "{name}");
        }
    }
}

#[test]
fn a_step_stands_as_its_worst_finding_and_its_button_does_something_about_it() {
    for plan in corners() {
        let (assessment, steps) = told(&plan);
        let severity = |id: &String| assessment.findings.iter().find(|f| f.id == *id.as_str()).unwrap();
        for step in &steps {
            for (worse, better) in step.findings.iter().zip(step.findings.iter().skip(1)) {
                assert!(severity(worse).severity <= severity(better).severity);
            }
            assert_eq!(
                matches!(step.state, State::Stop | State::Fix | State::Consider),
                !step.findings.is_empty(),
                "{step:?}"
            );
            assert!(step.tiles.len() <= 4);
            assert!(step.sentence.ends_with('.') && !step.headline.is_empty(), "{step:?}");
            assert!(!step.next.label.is_empty() && !step.next.sentence.is_empty());
            if step.next.action == Action::Mend {
                let id = step.next.finding.as_ref().unwrap();
                let fix = severity(id).fix.as_ref().expect("a press mends it");
                let mended = apply(&plan, &fix.patch).unwrap();
                assert!(mended != plan, "{}", fix.label);
            }
        }
    }
}

#[test]
fn without_a_microphone_the_sound_leads_to_what_to_buy() {
    let mut document = plain();
    document["layout"].as_object_mut().unwrap().remove("microphone");
    document["brief"]["gear"].as_object_mut().unwrap().remove("voice");
    let plan = read(&document);
    let (_, steps) = told(&plan);
    let sound = of(&steps, Step::Sound);
    assert_ne!(sound.state, State::Good);
    assert!(sound.next.label.contains("buy"), "{sound:?}");
    assert_eq!(sound.next.action, Action::Open { step: Step::Money, tab: Tab::Now });
}

#[test]
fn a_window_is_covered_or_lights_you_and_the_day_says_which() {
    let of_day = |school: &str| {
        let mut document = serde_json::to_value(demo()).unwrap();
        document["brief"]["schools"] = json!({ "window": school, "lights": "window-only" });
        let (_, steps) = told(&read(&document));
        of(&steps, Step::Day).sentence.clone()
    };
    assert!(of_day("key").contains("lights you"), "{}", of_day("key"));
    let mut covered = serde_json::to_value(demo()).unwrap();
    covered["brief"]["schools"] = json!({ "window": "shut-out" });
    let (_, steps) = told(&read(&covered));
    assert!(of(&steps, Step::Day).sentence.starts_with("Cover the window"), "{:?}", of(&steps, Step::Day));
    let none = plain_with(&[]);
    assert!(of(&told(&none).1, Step::Day).sentence.contains("no window"));
}

#[test]
fn what_is_in_order_leads_on_and_at_last_to_print() {
    let (assessment, steps) = told(&demo());
    assert!(assessment.verdict.ready);
    for step in steps.iter().filter(|s| s.state == State::Good && s.step != Step::Card) {
        let Action::Open { step: to, tab: Tab::Now } = step.next.action else { panic!("{step:?}") };
        assert_ne!(to, step.step);
    }
    assert_eq!(of(&steps, Step::Card).next.action, Action::Print);
    // A card of what is not ready leads to what is in the way.
    let (_, steps) = told(&plain_with(&[("/layout/seat/position_m", json!([3.9, 0.1]))]));
    let card = of(&steps, Step::Card);
    assert_eq!(card.state, State::Open);
    let Action::Open { step: to, .. } = card.next.action else { panic!("{card:?}") };
    assert!(matches!(of(&steps, to).state, State::Stop | State::Fix));
}
