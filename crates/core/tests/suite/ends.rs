//! Every figure of a plan, one after the other, as far up and down as the document takes it: what is accepted is judged with figures
//! that are finite, told in whole sentences and put on a card; what is not is refused with its field. Nothing in between.

use fogon_core::assess::without_moves;
use fogon_core::card::card;
use fogon_core::finding::Severity;
use fogon_core::plan::Plan;
use serde_json::{Value, json};

use crate::support::{demo, furnished};

/// Where the figures of a document stand, by JSON pointer.
fn figures(value: &Value, at: &str, all: &mut Vec<(String, f64)>) {
    match value {
        Value::Number(number) => all.push((at.to_owned(), number.as_f64().unwrap())),
        Value::Array(list) => {
            list.iter().enumerate().for_each(|(i, one)| figures(one, &format!("{at}/{i}"), all));
        }
        Value::Object(map) => map.iter().for_each(|(key, one)| {
            figures(one, &format!("{at}/{}", key.replace('~', "~0").replace('/', "~1")), all);
        }),
        _ => {}
    }
}

/// From far below to far above what stands there.
static OTHERS: [fn(f64) -> f64; 5] = [|_| 0.0, |_| 1e12, |value| value * 0.1, |value| value * 10.0, |_| -1.0];

/// What a person would stumble over in a sentence.
const SLIPS: [&str; 8] = ["NaN", "inf", "null", "{", "}", "  ", "-0 ", "e+"];

fn assert_told(plan: &Plan, what: &str) {
    let judged = without_moves(plan);
    assert!((0.0..=1.0).contains(&judged.score), "{what}: score {}", judged.score);
    for reading in &judged.readings {
        assert!(reading.value.is_none_or(f64::is_finite), "{what}: {} is {:?}", reading.id, reading.value);
        assert!(reading.score.is_none_or(|score| (0.0..=1.0).contains(&score)), "{what}: {}", reading.id);
    }
    for finding in &judged.findings {
        for words in [finding.sentence.as_ref(), finding.advice.as_ref()] {
            let slip = SLIPS.iter().find(|slip| words.contains(*slip));
            assert!(slip.is_none(), "{what}: {:?} in {words}", slip);
            assert!(words.is_empty() || words.ends_with(['.', '!', '?']), "{what}: {words}");
        }
    }
    // A verdict that says ready has nothing in its way.
    let blocked = judged.findings.iter().any(|finding| finding.severity != Severity::Consider);
    assert_eq!(judged.verdict.ready, !blocked, "{what}");
    let card = card(plan).unwrap_or_else(|| panic!("{what}: no card"));
    assert!(!card.marks.is_empty() && !card.verdict.is_empty(), "{what}");
    for setting in &card.settings {
        assert!(SLIPS.iter().all(|slip| !setting.value.contains(slip)), "{what}: {}", setting.value);
    }
}

/// Each figure in turn becomes each of the others that are given for it.
fn go_to_their_ends(plan: &Plan, others: impl Fn(usize) -> &'static [fn(f64) -> f64]) {
    let (mut accepted, mut refused) = (0, 0);
    let document = serde_json::to_value(plan).unwrap();
    let mut all = Vec::new();
    figures(&document, "", &mut all);
    assert!(all.len() > 60, "{} figures", all.len());
    for (index, (pointer, value)) in all.into_iter().enumerate() {
        for other in others(index).iter().map(|other| other(value)) {
            let mut changed = document.clone();
            *changed.pointer_mut(&pointer).unwrap() = json!(other);
            let what = format!("{pointer} {value} -> {other}");
            match Plan::read(changed.to_string().as_bytes()) {
                Ok(plan) => {
                    accepted += 1;
                    assert_told(&plan, &what);
                }
                Err(problems) => {
                    refused += 1;
                    let told = problems.to_string();
                    assert!(told.contains("is not accepted, give "), "{what}: {told}");
                    assert!(SLIPS[..2].iter().all(|slip| !told.contains(slip)), "{what}: {told}");
                }
            }
        }
    }
    assert!(accepted > 50 && refused > 50, "{accepted} accepted, {refused} refused");
}

#[test]
fn every_figure_of_the_demo_may_go_to_its_ends() {
    go_to_their_ends(&demo(), |_| &OTHERS);
}

#[test]
fn every_figure_of_a_corner_with_everything_may_go_to_its_ends() {
    // The steps between are the demo's; one figure goes down, the next one up.
    go_to_their_ends(&furnished(), |index| &OTHERS[index % 2..][..1]);
}
