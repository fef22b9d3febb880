//! The run of a day and the logbook as tables (RFC 4180); times in UTC (RFC 3339).

use chrono::{DateTime, SecondsFormat, Utc};
use fogon_core::run::{Entry, Run, TakeVerdict, What};

use crate::table::Table;

/// The run sheet in the best order: one row a shot.
pub fn csv(run: &Run) -> String {
    let mut table = Table::new([
        "order",
        "number",
        "shot",
        "what",
        "kind",
        "size",
        "set_up",
        "takes",
        "seconds",
        "speed",
        "stillness_s",
        "file",
        "note",
    ]);
    let in_order = run.best.shots.iter().filter_map(|id| run.shots.iter().find(|told| told.id == *id));
    for (index, told) in in_order.enumerate() {
        let shot = &told.shot;
        table.row([
            &(index + 1).to_string(),
            &told.number.to_string(),
            &told.id.0,
            &shot.what,
            word(&shot.kind),
            shot.size.word(),
            &told.set_up,
            &shot.takes.to_string(),
            &number(shot.seconds),
            &shot.speed.map(number).unwrap_or_default(),
            &number(shot.stillness_s),
            &told.file,
            &shot.note,
        ]);
    }
    table.text()
}

/// The run sheet for people.
pub fn text(name: &str, run: &Run) -> String {
    let mut out = format!("{name}\n{}\n\n", run.sentence);
    let mut group = 0;
    for told in run.best.shots.iter().filter_map(|id| run.shots.iter().find(|told| told.id == *id)) {
        if told.group != group {
            group = told.group;
            out += &format!("Set-up {group}: {}\n", told.set_up);
        }
        let shot = &told.shot;
        let takes = if shot.takes == 1 { "1 take".to_owned() } else { format!("{} takes", shot.takes) };
        let speed =
            shot.speed.map_or(String::new(), |speed| format!(", played at {} of its speed", number(speed)));
        let still = if shot.stillness_s > 0.0 {
            format!(", still for {} s at both ends", number(shot.stillness_s))
        } else {
            String::new()
        };
        out += &format!("  [ ] {} ({takes} of {} s{speed}{still})\n", shot.what, number(shot.seconds));
        if !shot.note.is_empty() {
            out += &format!("      {}\n", shot.note);
        }
    }
    if let Some(script) = &run.script {
        out += &format!(
            "\nScript: {} words, {} min at {} words a minute\n",
            script.words,
            number(script.seconds / 60.0),
            number(script.words_per_minute)
        );
    }
    out += "\nBefore every take:\n";
    for line in &run.before {
        out += &format!("  [ ] {line}\n");
    }
    out
}

/// The logbook: one row an entry, by the time it was touched.
pub fn log_csv(entries: &[Entry]) -> String {
    let mut table = Table::new([
        "session",
        "kind",
        "at",
        "by",
        "take",
        "shot",
        "what",
        "seconds",
        "verdict",
        "file",
        "card_left_min",
        "battery_left_min",
        "revision",
        "ready_s",
        "note",
    ]);
    for entry in entries.iter().filter(|entry| !entry.gone) {
        let mut row: [String; 15] = std::array::from_fn(|_| String::new());
        row[0].clone_from(&entry.session);
        row[1] = entry.what.word().to_owned();
        row[2] = time(entry.at_ms);
        row[3].clone_from(&entry.by);
        let optional = |value: Option<f64>| value.map(number).unwrap_or_default();
        match &entry.what {
            What::Session(session) => {
                row[2] = time(session.begun_ms);
                row[6].clone_from(&session.name);
                row[7] = optional(session.ended_ms.map(|ended| (ended - session.begun_ms) as f64 / 1000.0));
                row[12] = session.revision.to_string();
                row[13] = optional(session.ready_s);
                row[14] = session.learnt.join("; ");
            }
            What::Check(check) => {
                row[6] = check.in_order.join("; ");
                row[7] = number(check.seconds);
                row[14] = check.left.join("; ");
            }
            What::Take(take) => {
                row[2] = time(take.begun_ms);
                row[4] = take.number.to_string();
                row[5].clone_from(&take.shot);
                row[6].clone_from(&take.what);
                row[7] = optional(take.seconds);
                row[8] = verdict(take.verdict).to_owned();
                row[9].clone_from(&take.file);
                row[10] = optional(take.card_left_min);
                row[11] = optional(take.battery_left_min);
                row[14].clone_from(&take.note);
            }
            What::Measured(measured) => {
                row[6].clone_from(&measured.summary);
                row[9].clone_from(&measured.file);
                let told = measured.figures.iter().map(|(figure, value)| {
                    format!("{} {} {}", figure.label(), number(*value), figure.unit())
                });
                row[14] = told.collect::<Vec<_>>().join("; ");
            }
            What::Shot(shot) => {
                row[5].clone_from(&shot.shot);
                row[8] = if shot.done { "done" } else { "open" }.to_owned();
            }
        }
        table.row(std::array::from_fn(|at| row[at].as_str()));
    }
    table.text()
}

fn verdict(verdict: TakeVerdict) -> &'static str {
    match verdict {
        TakeVerdict::Open => "",
        TakeVerdict::Keep => "keep",
        TakeVerdict::Maybe => "maybe",
        TakeVerdict::Again => "again",
    }
}

fn time(ms: i64) -> String {
    let at = DateTime::<Utc>::from_timestamp_millis(ms);
    at.map(|at| at.to_rfc3339_opts(SecondsFormat::Secs, true)).unwrap_or_default()
}

fn number(value: f64) -> String {
    let text = format!("{value:.2}");
    text.trim_end_matches('0').trim_end_matches('.').to_owned()
}

/// A shot's kind as it stands in documents.
fn word(kind: &fogon_core::plan::ShotKind) -> &'static str {
    use fogon_core::plan::ShotKind as Kind;
    match kind {
        Kind::Take => "take",
        Kind::Slate => "slate",
        Kind::Test => "test",
        Kind::Insert => "insert",
        Kind::SlowInsert => "slow-insert",
        Kind::Empty => "empty",
    }
}
