//! Text as it can stand on a page, a card or in a table: one line, without characters that cannot be seen.

use std::borrow::Cow;

use serde_json::Value;

/// Takes what cannot be seen out of every text: control characters (a line break or a tab becomes a blank) and code points that
/// Unicode keeps free of characters.
pub(super) fn made_legible(value: &mut Value) {
    match value {
        Value::String(text) if text.contains(|letter| seen(letter) != Some(letter)) => {
            *text = text.chars().filter_map(seen).collect();
        }
        Value::Array(list) => list.iter_mut().for_each(made_legible),
        Value::Object(map) => map.values_mut().for_each(made_legible),
        _ => {}
    }
}

fn seen(letter: char) -> Option<char> {
    match letter {
        '\t' | '\n' | '\r' | '\u{2028}' | '\u{2029}' => Some(' '),
        // U+FDD0 to U+FDEF and the last two of every plane: The Unicode Standard, section 23.7, noncharacters.
        '\u{fdd0}'..='\u{fdef}' => None,
        letter if letter.is_control() || letter as u32 & 0xfffe == 0xfffe => None,
        letter => Some(letter),
    }
}

/// A text as a cell of a table: what a spreadsheet would run as a formula is kept as text by an apostrophe before it.
pub fn as_cell(text: &str) -> Cow<'_, str> {
    if would_run(text) { Cow::Owned(format!("'{text}")) } else { Cow::Borrowed(text) }
}

/// A cell as the text that it was made from.
pub fn from_cell(cell: &str) -> &str {
    cell.strip_prefix('\'').filter(|text| would_run(text)).unwrap_or(cell)
}

/// Spreadsheets look past blanks and line breaks for the sign of a formula.
fn would_run(text: &str) -> bool {
    let seen = text.trim_start_matches(|letter: char| letter.is_whitespace() || letter.is_control());
    seen.starts_with(['=', '+', '-', '@']) || text.starts_with(['\t', '\r', '\n'])
}
