//! A plan file: refused in words, or judged and put on a card.
#![no_main]

use fogon_core::assess::without_moves;
use fogon_core::card::card;
use fogon_core::plan::Plan;
use fogon_handover::{Paper, csv, svg};
use libfuzzer_sys::{fuzz_mutator, fuzz_target};

fuzz_target!(|bytes: &[u8]| {
    let Ok(plan) = Plan::read(bytes) else { return };
    let judged = without_moves(&plan);
    let text = serde_json::to_string(&judged).expect("an assessment is JSON");
    // A document once read can be written and read again.
    let again = serde_json::to_vec(&plan).expect("a plan is JSON");
    assert!(Plan::read(&again).is_ok(), "{}", String::from_utf8_lossy(&again));
    if let Some(card) = card(&plan) {
        let paper = Paper::named("a4").expect("A4 is known");
        for text in [svg::card(&card, paper, None), csv::card(&card)] {
            for word in text.split(|letter: char| !letter.is_ascii_alphanumeric()) {
                assert!(!["NaN", "inf", "Infinity"].contains(&word), "{word} on a card");
            }
        }
    }
    std::hint::black_box(text);
});

fuzz_mutator!(|data: &mut [u8], size: usize, max_size: usize, seed: u32| {
    fogon_fuzz::changed(data, size, max_size, seed)
});
