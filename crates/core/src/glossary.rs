//! The words of the trade, from `docs/glossary.md`: one word for one thing in code, API and page.

use std::sync::OnceLock;

use serde::Serialize;
use utoipa::ToSchema;

const TEXT: &str = include_str!("../../../docs/glossary.md");

/// One word.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Term {
    /// The word.
    pub word: &'static str,
    /// Its symbol in formulas and on drawings.
    pub symbol: &'static str,
    /// Its unit.
    pub unit: &'static str,
    /// Least and most, in words.
    pub range: &'static str,
    /// The module of the core that it belongs to.
    pub module: &'static str,
    /// The reading that reports it; `*` stands for the id of a thing.
    pub reading: &'static str,
    /// What it means, in a sentence or two.
    pub meaning: &'static str,
}

/// All words, in the order of the file.
pub fn terms() -> &'static [Term] {
    static TERMS: OnceLock<Vec<Term>> = OnceLock::new();
    TERMS.get_or_init(|| TEXT.lines().filter_map(row).collect())
}

/// One row of a table; the head and the line under it are none.
fn row(line: &'static str) -> Option<Term> {
    let cells: Vec<&'static str> =
        line.strip_prefix('|')?.strip_suffix('|')?.split('|').map(str::trim).collect();
    let [word, symbol, unit, range, module, reading, meaning] = cells.try_into().ok()?;
    (word != "word" && !word.starts_with("---")).then_some(Term {
        word,
        symbol,
        unit,
        range,
        module,
        reading,
        meaning,
    })
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_row_is_whole_and_names_a_module() {
        // A word belongs to a module of the core or to a crate beside it.
        let modules = include_str!("lib.rs");
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
}
