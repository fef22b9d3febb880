//! Local days of a time zone, with its daylight saving, as spans of UTC.

use jiff::civil::{Date, DateTime};
use jiff::tz::TimeZone;
use jiff::{Span, Timestamp};

use crate::daylight::{Air, Sun, YEARS, sun_at};
use crate::plan::{Brief, Day, Place};
use crate::problem::{Code, Problem};

/// Days that are answered for at once, at most.
pub const MOST_DAYS: usize = 400;

/// A local day.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct LocalDay {
    /// Its date.
    pub date: Date,
    /// Where it begins, s since 1970 UTC.
    pub start_s: i64,
    /// Where the next one begins: 23 to 25 hours later where the clock is changed.
    pub end_s: i64,
}

impl LocalDay {
    /// The day of a date; none beyond the calendar's ends.
    pub fn of(zone: &TimeZone, date: Date) -> Option<Self> {
        let begins = |date: Date| Some(date.to_zoned_datetime(zone.clone()).ok()?.timestamp().as_second());
        Some(Self { date, start_s: begins(date)?, end_s: begins(date.tomorrow().ok()?)? })
    }

    /// Its day of the week.
    pub fn weekday(&self) -> Day {
        let from_monday = usize::try_from(self.date.weekday().to_monday_zero_offset()).unwrap_or(0);
        Day::ALL[from_monday % Day::ALL.len()]
    }
}

/// The zone of a brief's place; UTC where nobody told one.
pub fn zone_of(brief: &Brief) -> TimeZone {
    brief.place.as_ref().and_then(Place::zone).unwrap_or(TimeZone::UTC)
}

/// A date as `2026-11-28`.
///
/// # Errors
/// It is no date, or not in 1900 to 2100.
pub fn date(field: &str, text: &str) -> Result<Date, Problem> {
    let refused = || Problem::new(field, text, "a date from 1900 to 2100, as 2026-11-28", Code::OutOfRange);
    let date: Date = text.parse().map_err(|_| refused())?;
    YEARS.contains(&date.year()).then_some(date).ok_or_else(refused)
}

/// The local days from one date to another, both of them in it.
///
/// # Errors
/// The second comes before the first, or more than [`MOST_DAYS`] lie between them.
pub fn days(zone: &TimeZone, from: Date, to: Date) -> Result<Vec<LocalDay>, Problem> {
    if to < from {
        return Err(Problem::new("to", to, format!("{from} or later"), Code::OutOfRange));
    }
    let each = from.series(Span::new().days(1)).take_while(|date| *date <= to);
    let all: Vec<Date> = each.take(MOST_DAYS + 1).collect();
    if all.len() > MOST_DAYS {
        let accepted = format!("a date by which no more than {MOST_DAYS} days have begun since {from}");
        return Err(Problem::new("to", to, accepted, Code::OutOfRange));
    }
    // A day that a zone leaves out, crossing the date line, has no length.
    let all = all.into_iter().filter_map(|date| LocalDay::of(zone, date));
    Ok(all.filter(|day| day.start_s < day.end_s).collect())
}

/// A local time of day, minutes after midnight, in s since 1970 UTC; a time that the clock leaves out is where it goes on, one that
/// it has twice is the first.
pub(super) fn at_minute(zone: &TimeZone, date: Date, minute: i32) -> Option<i64> {
    let (whole_days, within) = (minute.div_euclid(24 * 60), minute.rem_euclid(24 * 60));
    let day = date.checked_add(Span::new().days(i64::from(whole_days))).ok()?;
    let time: DateTime = day.at(i8::try_from(within / 60).ok()?, i8::try_from(within % 60).ok()?, 0, 0);
    Some(zone.to_timestamp(time).ok()?.as_second())
}

/// The sun over a place at a local time, as `2026-11-28T10:40`.
///
/// # Errors
/// The time is none of the place's, or the years that are answered for do not hold it.
pub fn sun_at_local(place: &Place, local: &str) -> Result<Sun, Problem> {
    let refused = || Problem::new("local", local, "a local time, as 2026-11-28T10:40", Code::OutOfRange);
    let time: DateTime = local.parse().map_err(|_| refused())?;
    let zone = place.zone().ok_or_else(refused)?;
    let unix_s = zone.to_timestamp(time).map_err(|_| refused())?.as_second() as f64;
    YEARS
        .contains(&time.year())
        .then(|| sun_at(place.latitude_deg, place.longitude_deg, unix_s, Air::usual(unix_s)))
        .flatten()
        .ok_or_else(refused)
}

/// A time in UTC, as `2026-11-28T12:30:00Z`.
pub fn utc(unix_s: i64) -> String {
    Timestamp::from_second(unix_s).map_or_else(|_| String::new(), |time| time.to_string())
}
