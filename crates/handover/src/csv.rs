//! The card as CSV (RFC 4180): one row for each mark, setting and dial; lengths in metres.

use fogon_core::card::Card;

/// Quoted where it must be; a leading sign that a spreadsheet would run as a formula is kept as text.
fn field(text: &str) -> String {
    let risky = text.starts_with(['=', '+', '-', '@', '\t']);
    let text = if risky { format!("'{text}") } else { text.to_owned() };
    if text.contains([',', '"', '\n', '\r']) { format!("\"{}\"", text.replace('"', "\"\"")) } else { text }
}

fn row(fields: &[String]) -> String {
    fields.iter().map(|f| field(f)).collect::<Vec<_>>().join(",") + "\r\n"
}

/// The card's marks, settings and dials.
pub fn card(card: &Card) -> String {
    let header = [
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
    let mut out = row(&header.map(str::to_owned));
    let metres = |v: f64| format!("{v:.3}");
    for mark in &card.marks {
        out += &row(&[
            "mark".into(),
            mark.number.to_string(),
            mark.letter.clone(),
            mark.what.clone(),
            metres(mark.tape.from_left_m),
            metres(mark.tape.from_back_m),
            mark.tape.corners[0].corner.into(),
            metres(mark.tape.corners[0].length_m),
            mark.tape.corners[1].corner.into(),
            metres(mark.tape.corners[1].length_m),
            mark.tape.worst_error_m.map(metres).unwrap_or_default(),
            mark.set.clone(),
        ]);
    }
    let empty = || std::iter::repeat_n(String::new(), 7);
    let mut plain = |kind: &str, letter: &str, what: &str, value: String| {
        let mut fields = vec![kind.to_owned(), String::new(), letter.to_owned(), what.to_owned()];
        fields.extend(empty());
        fields.push(value);
        out += &row(&fields);
    };
    for setting in &card.settings {
        plain("setting", "", setting.name, setting.value.clone());
    }
    for dial in &card.dials {
        let percent = dial.percent.map(|p| format!("{p:.0} %, ")).unwrap_or_default();
        let cct = dial.cct_k.map(|k| format!("{k:.0} K, ")).unwrap_or_default();
        plain("dial", &dial.letter, &dial.what, format!("{percent}{cct}{}", dial.place));
    }
    plain("microphone", "M", "Microphone", card.microphone.clone());
    for caution in &card.cautions {
        plain("caution", "", "Caution", caution.clone());
    }
    out
}

#[cfg(test)]
mod tests {
    #[test]
    fn fields_are_quoted_and_never_run() {
        assert_eq!(super::field("a,\"b\""), "\"a,\"\"b\"\"\"");
        assert_eq!(super::field("=1+1"), "'=1+1");
    }
}
