//! Every file that a card can be saved as, opened by somebody else's reader.

// A helper of a test fails by panicking, as the test does.
#![allow(clippy::unwrap_used)]

use csv::ReaderBuilder;
use fogon_core::card::{Card, card};
use fogon_core::plan::Plan;
use fogon_handover::Paper;
use fogon_handover::file::CardFile;
use fogon_testkit::set;
use lopdf::Document;
use serde_json::{Value, json};

const PLAN: &str = include_str!("../../../docs/examples/box-room.fogon.json");

fn with(edits: &[(&str, Value)]) -> Card {
    let mut document: Value = serde_json::from_str(PLAN).unwrap();
    for (pointer, value) in edits {
        set(&mut document, pointer, value.clone());
    }
    card(&Plan::read(document.to_string().as_bytes()).unwrap()).unwrap()
}

fn bytes(file: CardFile, card: &Card) -> Vec<u8> {
    file.bytes(card, Paper::A4, None).unwrap()
}

/// Text of a page without blanks: readers set them differently.
fn text(document: &Document, page: u32) -> String {
    let text = document.extract_text(&[page]).unwrap();
    text.chars().filter(|letter| !letter.is_whitespace()).collect()
}

fn close(text: &str) -> String {
    text.chars().filter(|letter| !letter.is_whitespace()).collect()
}

/// By lopdf: as many pages as there are, each as large as its paper, with words that can be searched.
#[test]
fn the_pdf_has_its_pages_and_words() {
    let told = with(&[]);
    let document = Document::load_mem(&bytes(CardFile::Pdf, &told)).unwrap();
    let pages = document.get_pages();
    // The card, putting up, the sign, the labels.
    assert_eq!(pages.len(), 4);
    for id in pages.values() {
        let page = document.get_dictionary(*id).unwrap();
        let size: Vec<f32> = page
            .get(b"MediaBox")
            .unwrap()
            .as_array()
            .unwrap()
            .iter()
            .map(|side| side.as_float().unwrap())
            .collect();
        assert!((size[2] - 595.28).abs() < 0.05 && (size[3] - 841.89).abs() < 0.05, "{size:?}");
    }
    let first = text(&document, 1);
    assert!(first.contains(&close(&told.name)) && first.contains(&close(&told.verdict)), "{first}");
    for mark in &told.marks {
        assert!(first.contains(&close(&told.units.mark(mark.tape.from_left_m))), "{}", mark.what);
    }
    let second = text(&document, 2);
    assert!(
        second.contains(&close("put up, put away")) && second.contains(&close(&told.ready.sentence)),
        "{second}"
    );
    assert!(text(&document, 3).contains("Recording"));
    assert!(text(&document, 4).contains("yellow"));
    // The same each time.
    assert_eq!(bytes(CardFile::Pdf, &told), bytes(CardFile::Pdf, &told));
}

/// Whatever is on it, a card that is full goes on to pages with titles of their own.
#[test]
fn a_full_card_goes_on() {
    let mut document: Value = serde_json::from_str(PLAN).unwrap();
    let lamp = document["layout"]["lights"].as_object().unwrap().values().next().unwrap().clone();
    // As many as there may be.
    for number in 0..10 {
        document["layout"]["lights"][format!("lamp-{number}")] = lamp.clone();
    }
    let told = card(&Plan::read(document.to_string().as_bytes()).unwrap()).unwrap();
    let read = Document::load_mem(&bytes(CardFile::Pdf, &told)).unwrap();
    let second = text(&read, 2);
    assert!(
        second.contains(&close(&told.name)) && second.contains(&close("set-up card, page 2")),
        "{second}"
    );
    // Every mark and dial is on one of them.
    let all: String = read.get_pages().keys().map(|page| text(&read, *page)).collect();
    for dial in &told.dials {
        assert!(all.contains(&close(&dial.place)), "{}", dial.what);
    }
}

/// By `csv`: as many fields in each row, and the figures of the card.
#[test]
fn tables_are_tables() {
    let sockets = json!({ "by-the-door": { "position_m": [0.0, 2.0, 0.3] } });
    let told = with(&[("/brief/room/sockets", sockets)]);
    let rows = |file: CardFile| -> Vec<Vec<String>> {
        let bytes = bytes(file, &told);
        let mut reader = ReaderBuilder::new().has_headers(false).from_reader(bytes.as_slice());
        reader.records().map(|row| row.unwrap().iter().map(str::to_owned).collect()).collect()
    };
    let marks = rows(CardFile::MarksCsv);
    assert_eq!(marks.len(), told.marks.len() + 1);
    for (row, mark) in marks[1..].iter().zip(&told.marks) {
        assert_eq!((&row[1], &row[2]), (&mark.letter, &mark.colour.to_owned()));
        assert!((row[4].parse::<f64>().unwrap() - mark.tape.from_left_m).abs() < 5e-4);
    }
    let cables = rows(CardFile::CablesCsv);
    assert_eq!(cables.len(), 1 + told.power.plugs.len() + told.cables.len());
    for (row, plug) in cables[1..].iter().zip(&told.power.plugs) {
        assert_eq!((row[0].as_str(), row[2].as_str()), ("mains", "by the door"));
        assert!((row[4].parse::<f64>().unwrap() - plug.cable_m.unwrap()).abs() < 5e-3);
    }
    let json: Value = serde_json::from_slice(&bytes(CardFile::MarksJson, &told)).unwrap();
    assert_eq!(json["marks"].as_array().unwrap().len(), told.marks.len());
    assert_eq!(json["marks"][0]["tape"]["from_left_m"].as_f64(), Some(told.marks[0].tape.from_left_m));
}

/// Table and text leave out nothing that is on paper; the text has it in the corner's own units, on lines of their own.
#[test]
fn table_and_text_have_all_that_is_on_paper() {
    for units in ["metric", "imperial"] {
        let told = with(&[("/brief/units", json!(units))]);
        let text = String::from_utf8(bytes(CardFile::Text, &told)).unwrap();
        let table = String::from_utf8(bytes(CardFile::Csv, &told)).unwrap();
        let mut reader = ReaderBuilder::new().from_reader(table.as_bytes());
        let cells: Vec<String> = reader
            .records()
            .flat_map(|row| row.unwrap().iter().map(str::to_owned).collect::<Vec<_>>())
            .collect();
        let once =
            [told.name.clone(), told.verdict.clone(), told.microphone.clone(), told.ready.sentence.clone()];
        let all = once
            .into_iter()
            .chain(told.aims.clone())
            .chain(told.settings.iter().map(|one| one.value.clone()))
            .chain(told.dials.iter().map(|one| one.words()))
            .chain(told.marks.iter().map(|one| one.set.clone()))
            .chain(told.cables.iter().map(|one| one.to.clone()))
            .chain(told.before.iter().cloned())
            .chain(told.cautions.iter().cloned())
            .chain(told.assumed.iter().cloned());
        let mut many = 0;
        for words in all {
            assert!(text.contains(words.trim_end()), "{words} is not in the text");
            assert!(cells.contains(&words), "{words} is not in the table");
            many += 1;
        }
        assert!(many > 20, "{many}");
        for mark in &told.marks {
            let start = format!("- {} {}: {}, ", mark.number, mark.letter, mark.what);
            let line = text.lines().find(|line| line.starts_with(&start)).unwrap();
            assert!(line.contains(&told.units.mark(mark.tape.from_left_m)), "{line}");
            assert!(line.contains(if units == "metric" {
                " m from the left wall"
            } else {
                "\" from the left wall"
            }));
        }
    }
}

/// Each file has one ending, found by the longest that fits.
#[test]
fn endings_name_files() {
    for file in CardFile::ALL {
        assert_eq!(CardFile::named(file.ending()), Some(file));
        assert_eq!(CardFile::of_file_name(&format!("my card.{}", file.ending().to_uppercase())), Some(file));
    }
    assert_eq!(CardFile::of_file_name("plan.doc"), None);
    assert_eq!(CardFile::of_file_name("svg"), None);
}
