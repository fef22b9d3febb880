//! The card as CSV (RFC 4180): one row for each mark, check, thing that hangs, setting, dial and plug; lengths in metres.

use csv::{Terminator, Writer, WriterBuilder};
use fogon_core::card::{Card, Mark};
use fogon_core::document::as_cell;

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

/// Rows in memory: writing them does not fail.
struct Table(Writer<Vec<u8>>);

impl Table {
    fn row(&mut self, fields: [&str; COLUMNS.len()]) {
        let _ = self.0.write_record(fields.map(as_cell).iter().map(|cell| cell.as_bytes()));
    }

    fn plain(&mut self, kind: &str, letter: &str, what: &str, value: &str) {
        self.row([kind, "", letter, what, "", "", "", "", "", "", "", value]);
    }

    fn mark(&mut self, mark: &Mark) {
        let metres = |v: f64| format!("{v:.3}");
        let [one, other] = &mark.tape.corners;
        self.row([
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
}

/// The card's marks, settings, dials, microphone, plugs and cautions.
pub fn card(card: &Card) -> String {
    let mut table = Table(WriterBuilder::new().terminator(Terminator::CRLF).from_writer(Vec::new()));
    table.row(COLUMNS);
    for mark in &card.marks {
        table.mark(mark);
    }
    if let Some(words) = card.baseline_words() {
        table.plain("baseline", "X", "Baseline", &words);
    }
    for line in &card.diagonals {
        let [one, other] = &line.letters;
        table.plain(
            "diagonal",
            &format!("{one}-{other}"),
            "Check with the tape",
            &format!("{:.3}", line.length_m),
        );
    }
    for hung in &card.hung {
        table.plain("hung", "", &hung.what, &hung.place);
    }
    for setting in &card.settings {
        table.plain("setting", "", setting.name, &setting.value);
    }
    for dial in &card.dials {
        let percent = dial.percent.map(|p| format!("{p:.0} %, ")).unwrap_or_default();
        let cct = dial.cct_k.map(|k| format!("{k:.0} K, ")).unwrap_or_default();
        table.plain("dial", &dial.letter, &dial.what, &format!("{percent}{cct}{}", dial.place));
    }
    table.plain("microphone", "M", "Microphone", &card.microphone);
    for cable in &card.cables {
        table.plain("plug", "", &cable.of, &cable.to);
    }
    for caution in &card.cautions {
        table.plain("caution", "", "Caution", caution);
    }
    let bytes = table.0.into_inner().unwrap_or_default();
    String::from_utf8(bytes).unwrap_or_default()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn fields_are_quoted_and_never_run() {
        let mut table = Table(WriterBuilder::new().terminator(Terminator::CRLF).from_writer(Vec::new()));
        table.plain("a,\"b\"", "", "", "=1+1");
        let text = String::from_utf8(table.0.into_inner().unwrap()).unwrap();
        assert_eq!(text, "\"a,\"\"b\"\"\",,,,,,,,,,,'=1+1\r\n");
    }
}
