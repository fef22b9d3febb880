//! Good hours as a table (RFC 4180) and as a calendar (RFC 5545), in UTC.

use chrono::{DateTime, SecondsFormat, Utc};
use fogon_core::day::{GoodHours, SessionPlanned};
use icalendar::{Calendar, Component, Event, EventLike};

use crate::table::Table;

/// One row a stretch.
pub fn csv(hours: &GoodHours) -> String {
    let mut table = Table::new(["start", "end", "wanted", "light", "quiet"]);
    let word = |is: bool| if is { "yes" } else { "no" };
    for one in &hours.intervals {
        table.row([&one.start, &one.end, word(one.wanted), word(one.light), word(one.quiet)]);
    }
    table.text()
}

/// An entry for every stretch in which a take can be made; the same stretch of the same corner always has the same id.
pub fn ics(corner: &str, hours: &GoodHours) -> String {
    let spans = hours.intervals.iter().filter(|one| one.wanted).map(|one| one.span_s);
    calendar("Good hours", "Good light and quiet", corner, spans)
}

/// An entry for every session that is planned.
pub fn sessions_ics(corner: &str, sessions: &[SessionPlanned]) -> String {
    calendar("Sessions", "Record", corner, sessions.iter().map(|one| one.span_s))
}

fn calendar(product: &str, what: &str, corner: &str, spans: impl Iterator<Item = (i64, i64)>) -> String {
    let mut calendar = Calendar::empty();
    calendar.append_property(("VERSION", "2.0"));
    calendar.append_property(("PRODID", &format!("-//Fogon//{product}//EN") as &str));
    let at = |unix_s: i64| DateTime::<Utc>::from_timestamp(unix_s, 0);
    for (from, to) in spans {
        let (Some(start), Some(end)) = (at(from), at(to)) else { continue };
        let mut event = Event::new();
        let begin = start.to_rfc3339_opts(SecondsFormat::Secs, true);
        let kind = if product == "Good hours" { String::new() } else { format!("{}-", slug(product)) };
        event
            .uid(&format!("{kind}{begin}-{}@fogon", slug(corner)))
            // Not when it was written, so that the same hours give the same file.
            .timestamp(start)
            .summary(&format!("{what}: {corner}"))
            .starts(start)
            .ends(end);
        calendar.push(event.done());
    }
    calendar.to_string()
}

/// A name as letters, digits and hyphens.
fn slug(name: &str) -> String {
    let words: Vec<String> = name
        .split(|c: char| !c.is_alphanumeric())
        .filter(|word| !word.is_empty())
        .map(str::to_lowercase)
        .collect();
    words.join("-")
}
