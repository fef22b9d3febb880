//! The marks alone, for other programs: as JSON and as CSV (RFC 4180), lengths in metres; and the cables as CSV.

use fogon_core::card::Card;
use serde_json::json;

use crate::table::Table;

/// The marks with their lengths, the baseline and the check diagonals.
pub fn json(card: &Card) -> String {
    let document = json!({
        "format": "fogon.marks", "version": 1, "name": card.name, "unit": "m",
        "tape_error_m": card.tape_error_m, "marks": card.marks, "baseline": card.baseline, "diagonals": card.diagonals,
    });
    format!("{document:#}\n")
}

/// One row for each mark.
pub fn csv(card: &Card) -> String {
    let mut table = Table::new([
        "number",
        "letter",
        "colour",
        "what",
        "from_left_m",
        "from_back_m",
        "corner",
        "from_corner_m",
        "other_corner",
        "from_other_corner_m",
        "worst_error_m",
    ]);
    let metres = |length: f64| format!("{length:.3}");
    for mark in &card.marks {
        let [one, other] = &mark.tape.corners;
        table.row([
            &mark.number.to_string(),
            &mark.letter,
            mark.colour,
            &mark.what,
            &metres(mark.tape.from_left_m),
            &metres(mark.tape.from_back_m),
            one.corner,
            &metres(one.length_m),
            other.corner,
            &metres(other.length_m),
            &mark.tape.worst_error_m.map(metres).unwrap_or_default(),
        ]);
    }
    table.text()
}

/// One row for each cable: of the mains with its length, and from thing to thing.
pub fn cables(card: &Card) -> String {
    let mut table = Table::new(["kind", "of", "into", "power_w", "at_least_m", "crosses"]);
    for plug in &card.power.plugs {
        table.row([
            "mains",
            &plug.what,
            plug.socket.as_deref().unwrap_or_default(),
            &format!("{:.0}", plug.power_w),
            &plug.cable_m.map(|metres| format!("{metres:.2}")).unwrap_or_default(),
            &plug.crosses.join(" and "),
        ]);
    }
    for cable in &card.cables {
        table.row(["signal", &cable.of, &cable.to, "", "", ""]);
    }
    table.text()
}
