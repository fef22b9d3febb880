//! The cards of ordinary corners, in every form: the marks are where the plan has its things, told the same on paper, in the table and
//! in the text, and the tape's lengths obey Pythagoras.

// A helper of a test fails by panicking, as the test does.
#![allow(clippy::unwrap_used)]

use std::collections::BTreeMap;
use std::sync::LazyLock;

use csv::ReaderBuilder;
use fogon_core::arrange::propose;
use fogon_core::card::{Card, card};
use fogon_core::plan::{BriefFile, Plan};
use fogon_handover::Paper;
use fogon_handover::file::CardFile;
use serde_json::{Value, json};

/// One of so many of the examples.
const EVERY: usize = 5;
/// A tape is told to the millimetre, m.
const TOLD_M: f64 = 0.0011;

/// The best layout of each, searched for once.
static PLANS: LazyLock<Vec<Plan>> = LazyLock::new(|| {
    let folder = format!("{}/../../docs/examples/ordinary", env!("CARGO_MANIFEST_DIR"));
    let mut paths: Vec<_> = std::fs::read_dir(folder).unwrap().map(|entry| entry.unwrap().path()).collect();
    paths.sort();
    let all = paths.iter().enumerate().filter(|(at, _)| at % EVERY == 0).filter_map(|(at, path)| {
        let mut document: Value = serde_json::from_slice(&std::fs::read(path).unwrap()).unwrap();
        // Every other one in feet.
        document["brief"]["units"] =
            json!(if (at / EVERY).is_multiple_of(2) { "metric" } else { "imperial" });
        let file = BriefFile::read(document.to_string().as_bytes()).unwrap();
        propose(&file.name, &file.brief).proposals.into_iter().next().map(|first| first.plan)
    });
    all.collect()
});

/// Where a thing of the plan meets the floor, by the name that the card gives it.
fn floor(plan: &Plan) -> BTreeMap<String, [f64; 2]> {
    let layout = serde_json::to_value(&plan.layout).unwrap();
    let point = |value: &Value| value.as_array().map(|xy| [xy[0].as_f64().unwrap(), xy[1].as_f64().unwrap()]);
    let mut all = BTreeMap::new();
    let mut put = |name: &str, at: Option<[f64; 2]>| all.extend(at.map(|at| (name.to_owned(), at)));
    put("seat", point(&layout["seat"]["position_m"]));
    put("camera", point(&layout["camera"]["position_m"]));
    for (id, light) in layout["lights"].as_object().into_iter().flatten() {
        put(id, point(&light["support"]["base_m"]));
    }
    put("microphone", point(&layout["microphone"]["support"]["base_m"]));
    all
}

fn apart(a: [f64; 2], b: [f64; 2]) -> f64 {
    (a[0] - b[0]).hypot(a[1] - b[1])
}

/// The marks of the table: letter, from the left wall, from the back wall.
fn in_the_table(card: &Card) -> Vec<(String, [f64; 2])> {
    let bytes = CardFile::Csv.bytes(card, Paper::A4, None).unwrap();
    let mut reader = ReaderBuilder::new().from_reader(bytes.as_slice());
    let rows: Vec<_> = reader.records().map(Result::unwrap).filter(|row| &row[0] == "mark").collect();
    rows.iter()
        .map(|row| (row[2].to_owned(), [row[4].parse::<f64>().unwrap(), row[5].parse::<f64>().unwrap()]))
        .collect()
}

#[test]
fn every_form_of_a_card_tells_the_same_marks() {
    assert!(PLANS.len() > 10, "{} plans", PLANS.len());
    let mut compared = 0;
    for plan in &*PLANS {
        let told = card(plan).unwrap();
        let name = &told.name;
        let floor = floor(plan);
        let table = in_the_table(&told);
        assert_eq!(table.len(), told.marks.len(), "{name}");
        for (mark, (letter, at)) in told.marks.iter().zip(&table) {
            assert_eq!(&mark.letter, letter, "{name}");
            assert!(apart(mark.at_m, *at) < TOLD_M, "{name}: {letter} at {at:?}, {:?}", mark.at_m);
            // Both walls are walls of the room: nothing lies outside.
            assert!(at.iter().all(|metres| (-1e-6..20.0).contains(metres)), "{name}: {letter} at {at:?}");
        }
        // However the walls are named: two marks are as far apart as the plan's things.
        let placed: Vec<(&str, [f64; 2], [f64; 2])> = told
            .marks
            .iter()
            .filter_map(|mark| Some((mark.id.as_str(), mark.at_m, *floor.get(&mark.id)?)))
            .collect();
        assert!(placed.len() >= 2, "{name}: {:?} among {floor:?}", told.marks);
        for (i, (one, on_card, in_plan)) in placed.iter().enumerate() {
            for (other, other_on_card, other_in_plan) in &placed[i + 1..] {
                let (card_m, plan_m) = (apart(*on_card, *other_on_card), apart(*in_plan, *other_in_plan));
                assert!((card_m - plan_m).abs() < TOLD_M, "{name}: {one} to {other}: {card_m}, {plan_m}");
                compared += 1;
            }
        }
        // The diagonals are Pythagoras over the marks.
        let at = |letter: &str| told.marks.iter().find(|mark| mark.letter == letter).map(|mark| mark.at_m);
        for line in &told.diagonals {
            let [Some(a), Some(b)] = [at(&line.letters[0]), at(&line.letters[1])] else { continue };
            assert!((line.length_m - apart(a, b)).abs() < TOLD_M, "{name}: {:?}", line.letters);
        }
    }
    assert!(compared > 3 * PLANS.len(), "{compared} distances");
}

#[test]
fn every_form_of_a_card_is_written_and_holds_its_words() {
    for plan in &*PLANS {
        let told = card(plan).unwrap();
        for form in CardFile::ALL {
            for paper in [Paper::A4, Paper::Letter] {
                let bytes =
                    form.bytes(&told, paper, None).unwrap_or_else(|fault| panic!("{form:?}: {fault:?}"));
                assert!(bytes.len() > 40, "{}: {form:?} is empty", told.name);
                let Ok(text) = String::from_utf8(bytes) else { continue };
                for slip in ["NaN", "inf", "None", "Some(", "undefined"] {
                    let word = |c: char| !c.is_ascii_alphanumeric();
                    assert!(!text.split(word).any(|one| one == slip), "{}: {form:?} says {slip}", told.name);
                }
            }
        }
        let text = String::from_utf8(CardFile::Text.bytes(&told, Paper::A4, None).unwrap()).unwrap();
        for mark in &told.marks {
            let from_left = told.units.mark(mark.tape.from_left_m);
            let line =
                text.lines().find(|line| line.starts_with(&format!("- {} {}: ", mark.number, mark.letter)));
            let line = line.unwrap_or_else(|| panic!("{}: {} is not in the text", told.name, mark.what));
            assert!(line.contains(&from_left) && line.contains(&mark.what), "{}: {line}", told.name);
        }
        for setting in &told.settings {
            assert!(text.contains(&setting.value), "{}: {}", told.name, setting.value);
        }
    }
}
