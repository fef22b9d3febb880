//! The card as CSV (RFC 4180): one row for each mark, distance to check, thing that hangs, setting, dial, plug, check before a
//! take, caution and assumption; lengths in metres.

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

/// Everything on the card but its drawings.
pub fn card(card: &Card) -> String {
    let mut table = Table::new(COLUMNS);
    let Card {
        name,
        units: _,
        verdict,
        room,
        marks,
        aims,
        baseline: _,
        diagonals,
        hung,
        tape_error_m: _,
        settings,
        dials,
        microphone,
        cables,
        before,
        cautions,
        assumed,
        drawing: _,
        ready,
        power: _,
        away: _,
    } = card;
    for (kind, what, words) in [
        ("corner", "Corner", name),
        ("room", "Room", room),
        ("verdict", "Verdict", verdict),
        ("ready", "Ready", &ready.sentence),
    ] {
        plain(&mut table, kind, "", what, words);
    }
    for mark in marks {
        of_mark(&mut table, mark);
    }
    if let Some(words) = card.baseline_words() {
        plain(&mut table, "baseline", "X", "Baseline", &words);
    }
    if let Some(words) = aims {
        plain(&mut table, "aim", "", "Aims and bags", words);
    }
    for line in diagonals {
        let [one, other] = &line.letters;
        plain(
            &mut table,
            "diagonal",
            &format!("{one}-{other}"),
            "Check with the tape",
            &format!("{:.3}", line.length_m),
        );
    }
    for hung in hung {
        plain(&mut table, "hung", "", &hung.what, &hung.place);
    }
    for setting in settings {
        plain(&mut table, "setting", "", setting.name, &setting.value);
    }
    for dial in dials {
        plain(&mut table, "dial", &dial.letter, &dial.what, &dial.words());
    }
    plain(&mut table, "microphone", "M", "Microphone", microphone);
    for cable in cables {
        plain(&mut table, "plug", "", &cable.of, &cable.to);
    }
    for line in before {
        plain(&mut table, "before", "", "Before every take", line);
    }
    for caution in cautions {
        plain(&mut table, "caution", "", "Caution", caution);
    }
    for line in assumed {
        plain(&mut table, "assumed", "", "Assumed, not measured", line);
    }
    table.text()
}
