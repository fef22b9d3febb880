//! When it is not quiet, by the week.

use jiff::Span;
use jiff::tz::TimeZone;

use super::calendar::{LocalDay, at_minute};
use crate::plan::NoisyHours;

/// Spans of UTC in which something is heard, ascending and apart, s since 1970; those that began on the day before the first are in
/// it.
pub(super) fn noisy_s(zone: &TimeZone, days: &[LocalDay], pattern: &[NoisyHours]) -> Vec<(i64, i64)> {
    let Some(first) = days.first() else { return Vec::new() };
    let before = first.date.checked_sub(Span::new().days(1)).ok().and_then(|date| LocalDay::of(zone, date));
    let mut all: Vec<(i64, i64)> = before
        .iter()
        .chain(days)
        .flat_map(|day| {
            let today = pattern.iter().filter(|noisy| noisy.days.contains(&day.weekday()));
            today.filter_map(|noisy| {
                let (from, to) = noisy.minutes();
                Some((at_minute(zone, day.date, from)?, at_minute(zone, day.date, to)?))
            })
        })
        .filter(|(from, to)| from < to)
        .collect();
    all.sort_unstable();
    let mut apart: Vec<(i64, i64)> = Vec::new();
    for (from, to) in all {
        match apart.last_mut() {
            Some(last) if from <= last.1 => last.1 = last.1.max(to),
            _ => apart.push((from, to)),
        }
    }
    apart
}
