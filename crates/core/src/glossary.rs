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
