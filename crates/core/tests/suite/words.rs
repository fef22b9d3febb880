//! Every sentence that a person reads, read by rule: units of their own system, no figure without its unit, no slip of a
//! template. The corners are the examples and some that go wrong on purpose.

use std::sync::OnceLock;

use fogon_core::arrange::why;
use fogon_core::assess::choices::choices;
use fogon_core::assess::evaluate;
use fogon_core::card::card;
use fogon_core::corner::Corner;
use fogon_core::money::{Advice, Catalogue, free_moves};
use fogon_core::plan::{BriefFile, Plan};
use fogon_core::reading::Reading;
use fogon_core::sound::seen::seen;
use fogon_core::steps::steps;
use fogon_testkit::{BOX_ROOM, any_brief, any_kit, set};
use proptest::prelude::*;
use proptest::strategy::ValueTree;
use proptest::test_runner::TestRunner;
use regex::Regex;
use serde_json::{Value, json};

use crate::support::{PLAN, bought_among, brief, furnished, plain_with, proposed, read};

const ALCOVE: &str = include_str!("../../../../docs/examples/alcove.brief.json");
const HALLWAY: &str = include_str!("../../../../docs/examples/hallway.brief.json");
const CROWDED: &str = include_str!("../../../../docs/examples/crowded-alcove.fogon.json");

/// Fields that hold words for scripts, sources, formulas or typed labels, and no sentence of ours.
const NO_SENTENCE: [&str; 24] = [
    "id", "unit", "units", "formula", "source", "reading", "path", "op", "letter", "kind", "gear", "on",
    "school", "choice", "working", "band", "topic", "thing", "schema", "plan", "patch", "from", "rule",
    "tokens",
];

/// Every sentence in an answer, with the field that holds it.
fn sentences(value: &Value, field: &str, all: &mut Vec<(String, String)>) {
    match value {
        Value::String(text) if text.contains(' ') => all.push((field.to_owned(), text.clone())),
        Value::Array(list) => list.iter().for_each(|item| sentences(item, field, all)),
        Value::Object(map) => {
            for (key, item) in map {
                // The note of a working is read; its formula and source are cited.
                if key == "working" {
                    sentences(&item["note"], "note", all);
                } else if !NO_SENTENCE.contains(&key.as_str()) {
                    sentences(item, key, all);
                }
            }
        }
        _ => {}
    }
}

/// All that is said of a plan: as it stands, what to move for nothing, what each school would change.
fn said_of(plan: &Plan) -> Sentences {
    let mut all = told_of(plan);
    sentences(&json!([free_moves(plan), choices(plan)]), "", &mut all);
    all
}

/// What is said of a plan as it stands: judgement, reasons, card, sound, steps.
fn told_of(plan: &Plan) -> Sentences {
    let corner = Corner::of(plan).expect("a readable plan resolves");
    let judged = evaluate(plan);
    let told = |reading: &Reading| {
        ("told".to_owned(), format!("{}: {}", reading.label, reading.in_words(plan.brief.units)))
    };
    let mut all: Sentences = judged.readings.iter().map(told).collect();
    for answer in [
        json!(judged),
        json!(why(plan)),
        json!(card(plan)),
        json!(seen(&corner)),
        json!(steps(&corner, &judged)),
    ] {
        sentences(&answer, "", &mut all);
    }
    all
}

fn said_of_brief(file: &BriefFile) -> Sentences {
    let found = proposed(file);
    let mut all = Vec::new();
    sentences(&json!({ "missing": found.missing, "obstacles": found.obstacles }), "", &mut all);
    for (rank, proposal) in found.proposals.iter().enumerate() {
        all.push(("title".into(), proposal.title.clone()));
        all.push(("reason".into(), proposal.reason.clone()));
        // Moves and schools are asked for in the one that is taken.
        all.extend(if rank == 0 { said_of(&proposal.plan) } else { told_of(&proposal.plan) });
    }
    all
}

/// Plans in which much is wrong, so that much is said: things pushed about, gear that is too weak, missing or too hot.
fn spoilt() -> Vec<Value> {
    let at = |edits: &[(&str, Value)]| serde_json::to_value(plain_with(edits)).unwrap();
    let mut whole = serde_json::to_value(furnished()).unwrap();
    set(&mut whole, "/layout/screen/support/sandbag_kg", json!(0));
    vec![
        whole,
        at(&[("/layout/camera/position_m", json!([2, 2.2, 1.6])), ("/layout/camera/iso", json!(12800))]),
        at(&[("/layout/camera/tilt_deg", json!(20)), ("/layout/camera/focus_distance_m", json!(0.5))]),
        at(&[
            ("/layout/lights/key/position_m", json!([2.1, 1.7, 2.5])),
            ("/layout/lights/key/dim", json!(0.01)),
        ]),
        at(&[
            ("/layout/lights/key/position_m", json!([2.0, 2.9, 0.4])),
            ("/layout/lights/key/support/sandbag_kg", json!(0)),
        ]),
        at(&[("/brief/gear/stand/payload_kg", json!(0.3)), ("/brief/gear/tripod/height_max_m", json!(1.0))]),
        at(&[
            ("/brief/gear/lamp/power_w", json!(6000)),
            ("/brief/gear/lamp/cct_min_k", json!(3200)),
            ("/layout/lights/key/cct_k", json!(3200)),
        ]),
        at(&[
            ("/brief/gear/arm/reach_m", json!(0.2)),
            ("/layout/microphone/position_m", json!([2, 3.2, 2.3])),
        ]),
        at(&[("/layout/microphone", Value::Null), ("/layout/lights", json!({}))]),
        at(&[("/layout/seat/position_m", json!([2, -0.02])), ("/brief/person/posture", json!("standing"))]),
        at(&[("/layout/seat/position_m", json!([3.9, 0.1])), ("/brief/room/height_m", json!(2.1))]),
        at(&[
            ("/brief/gear/body/needs", json!(["card", "camera-power"])),
            ("/brief/gear/voice/needs", json!(["xlr-input"])),
        ]),
        at(&[
            ("/brief/purpose", json!("audition-tape")),
            ("/brief/schools", json!({ "lens": "near-and-wide", "lights": "ring" })),
        ]),
        at(&[
            (
                "/brief/room/openings",
                json!({
            "door": { "kind": "door", "wall": 0, "from_m": 1.5, "width_m": 0.9, "swing": "in-left" },
            "window": { "kind": "window", "wall": 3, "from_m": 1, "width_m": 1.4, "sill_m": 0.8, "height_m": 1.3 } }),
            ),
            ("/brief/schools/window", json!("key")),
        ]),
    ]
}

fn plans(units: &str) -> Vec<Plan> {
    let examples = [PLAN, CROWDED].map(|text| serde_json::from_str(text).unwrap());
    let all = examples.into_iter().chain(spoilt());
    all.map(|mut document| {
        set(&mut document, "/brief/units", json!(units));
        read(&document)
    })
    .collect()
}

fn briefs(units: &str) -> Vec<BriefFile> {
    let in_units = |mut document: Value| {
        set(&mut document, "/brief/units", json!(units));
        brief(&document)
    };
    let mut all: Vec<BriefFile> = [BOX_ROOM, ALCOVE, HALLWAY]
        .iter()
        .map(|text| in_units(serde_json::from_str(text).unwrap()))
        .collect();
    let mut runner = TestRunner::deterministic();
    // In feet and inches, whose sentences are the same but for their figures, the examples alone.
    for _ in 0..if units == "metric" { 2 } else { 0 } {
        let (mut document, kit) = (any_brief(), any_kit()).new_tree(&mut runner).unwrap().current();
        kit.into_iter().for_each(|(pointer, value)| set(&mut document, &pointer, value));
        all.push(in_units(document));
    }
    all
}

/// Each with the field that holds it.
type Sentences = Vec<(String, String)>;

/// What is said of purchases, with a camera and nothing else.
fn purchases() -> Advice {
    let mut poor = plans("metric").remove(0);
    poor.brief.gear.retain(|_, gear| gear.camera().is_some() || gear.lens().is_some());
    poor.brief.today = None;
    poor.layout.lights.clear();
    (poor.layout.microphone, poor.layout.camera.support.gear) = (None, None);
    let poor = fogon_core::arrange::replaced(&poor).unwrap_or(poor);
    bought_among(&poor, 600.0, |gear| gear.camera().is_none() && gear.treatment().is_none())
}

/// Everything that is said of all these corners, said once; of purchases in metres alone.
fn all_said(units: &str) -> &'static Sentences {
    static METRIC: OnceLock<Sentences> = OnceLock::new();
    static IMPERIAL: OnceLock<Sentences> = OnceLock::new();
    let told = if units == "metric" { &METRIC } else { &IMPERIAL };
    told.get_or_init(|| {
        // In feet and inches the moves and schools of the examples alone.
        let whole = if units == "metric" { usize::MAX } else { 2 };
        let said = |(at, plan): (usize, &Plan)| if at < whole { said_of(plan) } else { told_of(plan) };
        let mut all: Sentences = plans(units).iter().enumerate().flat_map(said).collect();
        all.extend(briefs(units).iter().flat_map(said_of_brief));
        if units == "metric" {
            sentences(&json!(purchases()), "", &mut all);
        }
        all.sort();
        all.dedup();
        assert!(all.len() > 500, "{} sentences", all.len());
        all
    })
}

fn fail_on(found: Vec<&(String, String)>, what: &str) {
    assert!(
        found.is_empty(),
        "{what}, {} times:\n{}",
        found.len(),
        found
            .iter()
            .take(60)
            .map(|(field, text)| format!("  {field}: {text}"))
            .collect::<Vec<_>>()
            .join("\n")
    );
}

/// In feet and inches no sentence holds a metric length, mass or temperature. Focal lengths and sensors are told in
/// millimetres everywhere, and labels of gear are the owner's words.
#[test]
fn no_imperial_sentence_holds_a_metric_unit() {
    let metric = Regex::new(r"\d[\d.,]*[\s\u{a0}\u{202f}]?(?:m|cm|km|kg|g|m²|m³|m2|sq m|metres?|°C|kilograms?)(?:[^\p{L}\p{N}/²³]|$)").unwrap();
    let millimetres = Regex::new(r"\d[\s\u{a0}]?mm\b").unwrap();
    let of_lens = Regex::new(r"(?i)lens|focal|full.frame|sensor|\bmm f/|prime|zoom|equivalent").unwrap();
    let mut labels: Vec<String> =
        Catalogue::of_fogon().offers.values().map(|offer| offer.gear.common().label.clone()).collect();
    let briefs: Vec<_> = briefs("imperial")
        .into_iter()
        .map(|file| file.brief)
        .chain(plans("imperial").into_iter().map(|p| p.brief))
        .collect();
    labels
        .extend(briefs.iter().flat_map(|brief| brief.gear.values().map(|gear| gear.common().label.clone())));
    // The longer first: one may stand within another.
    labels.sort_by_key(|label| std::cmp::Reverse(label.len()));
    let all = all_said("imperial");
    let without_labels = |text: &str| {
        labels.iter().fold(text.to_owned(), |text, label| {
            let lower = label.to_lowercase();
            text.replace(label.as_str(), "LABEL").replace(&lower, "LABEL")
        })
    };
    let found = all.iter().filter(|(field, text)| {
        let of_camera = || field == "value" || of_lens.is_match(text);
        (metric.is_match(text) || millimetres.is_match(text) && !of_camera()) && {
            let text = without_labels(text);
            metric.is_match(&text) || millimetres.is_match(&text)
        }
    });
    fail_on(found.collect(), "a metric unit in feet and inches");
}

/// A figure is followed by its unit or by what it counts, in either system.
#[test]
fn no_sentence_names_a_figure_without_its_unit() {
    // A figure that ends a clause. What comes before may say what it is: a dial, a ratio, a sensitivity.
    let bare = Regex::new(r"(?:^|[\s(])[−-]?\d+(?:[.,]\d+)?(?:[,;:.)](?:\s|$)|$)").unwrap();
    let named = Regex::new(r"(?i)(?:ISO|f/|1/|sensitivity|wall|page|ISO \d+ to|step|of|CRI|revision|factor|angle|reflectance|behind|skin|acuity) ?[−-]?\d+(?:[.,]\d+)?(?:[,;:.)]|$)").unwrap();
    for units in ["metric", "imperial"] {
        let all = all_said(units);
        let found = all
            .iter()
            .filter(|(field, text)| bare.is_match(text) && !named.is_match(text) && field != "told");
        fail_on(found.collect(), "a figure without its unit");
    }
}

/// No slip of a template: nothing said twice in a row, no empty place, no sentence without its end.
#[test]
fn no_sentence_shows_its_template() {
    let slips = Regex::new(
        r"(?i)\b(the the|a a|of of|to to|and and)\b|\{|\}|  |\bNaN\b|\binf\b| ,| \.$|\.\.|\b(?:a|an) (?:\d+ )?(?:lamps|boards|panels)\b|−0(?:\.0+)?(?:[^\d.]|$)| 1 (?:things|panels|lamps|metres|stops|bags)\b|\b0\.0 stops\b|\bof 1\.0 times\b|\bin 0 %|\bonly −",
    )
    .unwrap();
    let all = all_said("metric");
    fail_on(all.iter().filter(|(_, text)| slips.is_match(text)).collect(), "a slip");
    for (field, text) in all {
        if field == "sentence" {
            assert!(text.ends_with(['.', ':', '!', '?']), "{text}");
        }
    }
}

/// What the glossary says otherwise: each with the word that it has for it.
fn said_otherwise() -> Vec<(Regex, &'static str)> {
    let table = include_str!("../../../../docs/glossary.md").split("## Say it so").nth(1).unwrap();
    let rows =
        table.lines().filter_map(|line| line.strip_prefix("| ")?.strip_suffix(" |")?.split_once(" | "));
    let all = rows.filter(|(say, _)| *say != "say");
    all.flat_map(|(say, not)| not.split(", ").map(move |not| (say, not)))
        .map(|(say, not)| (Regex::new(&format!(r"(?i)\b{not}\b")).unwrap(), say))
        .collect()
}

#[test]
fn no_sentence_uses_a_word_that_the_glossary_replaces() {
    let replaced = said_otherwise();
    assert!(replaced.len() > 20);
    let slips = |(_, text): &&(String, String)| replaced.iter().any(|(not, _)| not.is_match(text));
    fail_on(all_said("metric").iter().filter(slips).collect(), "a word that the glossary replaces");
}
