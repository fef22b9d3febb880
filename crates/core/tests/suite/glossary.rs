//! The words of docs/glossary.md: each has a home and a meaning, each reading its word.

use fogon_core::glossary::terms;
use fogon_core::reading::Quantity;

const TEXT: &str = include_str!("../../../../docs/glossary.md");

#[test]
fn every_row_is_whole_and_names_a_module() {
    // A word belongs to a module of the core or to a crate beside it.
    let modules = include_str!("../../src/lib.rs");
    let crates = std::path::Path::new(env!("CARGO_MANIFEST_DIR")).join("..");
    // Other tables have fewer columns.
    let rows = TEXT.lines().filter(|l| l.starts_with('|') && l.matches('|').count() == 8).count();
    assert_eq!(terms().len(), rows - 4, "two heads of two lines each");
    for (index, term) in terms().iter().enumerate() {
        let home = modules.contains(&format!("pub mod {};", term.module))
            || (!term.module.is_empty() && crates.join(term.module).join("Cargo.toml").is_file());
        assert!(home, "{}: {}", term.word, term.module);
        assert!(term.meaning.ends_with('.') && term.meaning.len() > 15, "{}", term.word);
        assert!(terms()[..index].iter().all(|t| t.word != term.word), "{} stands twice", term.word);
    }
}

/// Every reading has its word, with the range that the glossary tells; and the glossary names no other.
#[test]
fn readings_and_glossary_agree() {
    for quantity in Quantity::ALL {
        let id = quantity.id();
        let term = quantity.term().unwrap_or_else(|| panic!("{id} is not in docs/glossary.md"));
        let range = quantity.measurable().map(|measurable| measurable.range);
        let told = range.map_or(String::new(), |(low, high)| format!("{low} to {high}"));
        assert_eq!(term.range, told, "{id}");
        assert_eq!(Quantity::of_id(&id.replace('*', "some-thing")), Some(*quantity), "{id}");
    }
    assert_eq!(terms().iter().filter(|t| !t.reading.is_empty()).count(), Quantity::ALL.len());
}
