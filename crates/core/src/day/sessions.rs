//! Sessions put into good hours: at most one a day, spread over the days.

use std::collections::BTreeMap;

use jiff::Timestamp;
use jiff::civil::{Date, Time};
use jiff::tz::TimeZone;
use serde::Serialize;
use utoipa::ToSchema;

use super::calendar::utc;
use super::hours::GoodHours;

/// Nobody is asked to film earlier or later than this, local hours. Fogon's own rule.
const HOURS: (i8, i8) = (8, 21);

/// A session that is planned.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
pub struct SessionPlanned {
    /// Where it begins, UTC, as `2026-11-28T09:30:00Z`.
    pub start: String,
    /// Where it ends.
    pub end: String,
    /// The same, s since 1970 UTC.
    #[serde(skip)]
    pub span_s: (i64, i64),
}

/// So many sessions of so many minutes in good hours, none before a second, the days spread as evenly as they fall; fewer where there are not so many days.
pub fn sessions(
    hours: &GoodHours,
    zone: &TimeZone,
    not_before_s: i64,
    minutes: f64,
    count: usize,
) -> Vec<SessionPlanned> {
    let long_s = (minutes * 60.0).ceil() as i64;
    let mut days: BTreeMap<Date, (i64, i64)> = BTreeMap::new();
    for interval in hours.intervals.iter().filter(|one| one.wanted) {
        let (from, to) = interval.span_s;
        let Ok(mut at) = Timestamp::from_second(from) else { continue };
        // A stretch may run over midnight: each day has its part of it.
        while at.as_second() < to {
            let day = zone.to_datetime(at).date();
            let of_day = |hour: i8| second_of(day, hour, zone);
            let (Some(first), Some(last)) = (of_day(HOURS.0), of_day(HOURS.1)) else { break };
            let (begin, end) = (from.max(first).max(not_before_s), to.min(last));
            let longest = days.get(&day).map_or(0, |(from, to)| to - from);
            if end - begin >= long_s && end - begin > longest {
                days.insert(day, (begin, end));
            }
            let next = day.tomorrow().ok().and_then(|day| second_of(day, 0, zone));
            let Some(next) = next.and_then(|second| Timestamp::from_second(second).ok()) else { break };
            at = next;
        }
    }
    let all: Vec<(i64, i64)> = days.into_values().collect();
    let wanted = count.min(all.len());
    let picked = (0..wanted).map(|index| match wanted {
        0 | 1 => 0,
        _ => (index * (all.len() - 1) + (wanted - 1) / 2) / (wanted - 1),
    });
    picked
        .map(|index| {
            let (from, _) = all[index];
            let span_s = (from, from + long_s);
            SessionPlanned { start: utc(span_s.0), end: utc(span_s.1), span_s }
        })
        .collect()
}

/// The second at which a local hour begins.
fn second_of(day: Date, hour: i8, zone: &TimeZone) -> Option<i64> {
    let time = day.to_datetime(Time::new(hour, 0, 0, 0).ok()?);
    Some(zone.to_timestamp(time).ok()?.as_second())
}
