//! The card as CSV (RFC 4180): one row for each mark, check, thing that hangs, setting, dial and plug; lengths in metres.

use fogon_core::card::{Card, Mark};

use crate::table::Table;

const COLUMNS: [&str; 12] = [
    "kind",
    "number",
    "letter",
    "what",
    "from_left_m",
    "from_back_m",
    "corner",
    "from_corner_m",
    "other_corner",
    "from_other_corner_m",
    "worst_error_m",
    "value",
];

fn plain(table: &mut Table<12>, kind: &str, letter: &str, what: &str, value: &str) {
    table.row([kind, "", letter, what, "", "", "", "", "", "", "", value]);
}

fn of_mark(table: &mut Table<12>, mark: &Mark) {
    let metres = |v: f64| format!("{v:.3}");
    let [one, other] = &mark.tape.corners;
    table.row([
        "mark",
        &mark.number.to_string(),
        &mark.letter,
        &mark.what,
        &metres(mark.tape.from_left_m),
        &metres(mark.tape.from_back_m),
        one.corner,
        &metres(one.length_m),
        other.corner,
        &metres(other.length_m),
        &mark.tape.worst_error_m.map(metres).unwrap_or_default(),
        &mark.set,
    ]);
}

/// The card's marks, settings, dials, microphone, plugs and cautions.
pub fn card(card: &Card) -> String {
    let mut table = Table::new(COLUMNS);
    for mark in &card.marks {
        of_mark(&mut table, mark);
    }
    if let Some(words) = card.baseline_words() {
        plain(&mut table, "baseline", "X", "Baseline", &words);
    }
    for line in &card.diagonals {
        let [one, other] = &line.letters;
        plain(
            &mut table,
            "diagonal",
            &format!("{one}-{other}"),
            "Check with the tape",
            &format!("{:.3}", line.length_m),
        );
    }
    for hung in &card.hung {
        plain(&mut table, "hung", "", &hung.what, &hung.place);
    }
    for setting in &card.settings {
        plain(&mut table, "setting", "", setting.name, &setting.value);
    }
    for dial in &card.dials {
        plain(&mut table, "dial", &dial.letter, &dial.what, &dial.words());
    }
    plain(&mut table, "microphone", "M", "Microphone", &card.microphone);
    for cable in &card.cables {
        plain(&mut table, "plug", "", &cable.of, &cable.to);
    }
    for caution in &card.cautions {
        plain(&mut table, "caution", "", "Caution", caution);
    }
    table.text()
}
