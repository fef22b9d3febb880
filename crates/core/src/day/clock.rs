//! Local time in words.

use jiff::Timestamp;
use jiff::tz::TimeZone;
use serde::Serialize;
use utoipa::ToSchema;

use super::calendar::LocalDay;
use crate::plan::Place;

/// s.
pub(super) const MINUTE_S: i64 = 60;

/// A stretch of a day by the clock.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
pub struct Stretch {
    /// Local time at which it begins.
    pub from: String,
    /// Local time at which it ends.
    pub to: String,
}

/// Local time of day, as `09:30`.
pub(super) fn clock(zone: &TimeZone, unix_s: i64) -> String {
    let minute = minute_of_day(zone, unix_s);
    format!("{:02}:{:02}", minute / 60, minute % 60)
}

/// Minutes after local midnight, as the clock shows them.
pub(super) fn minute_of_day(zone: &TimeZone, unix_s: i64) -> u16 {
    let Ok(time) = Timestamp::from_second(unix_s) else { return 0 };
    let local = zone.to_datetime(time);
    u16::from(local.hour().unsigned_abs()) * 60 + u16::from(local.minute().unsigned_abs())
}

/// The zone by name, with its offset at noon: daylight saving is told, not guessed.
pub(super) fn zone_words(place: &Place, zone: &TimeZone, day: &LocalDay) -> String {
    let Ok(noon) = Timestamp::from_second(day.start_s.midpoint(day.end_s)) else {
        return place.time_zone.clone();
    };
    let info = zone.to_offset_info(noon);
    let seconds = info.offset().seconds();
    let (sign, minutes) = (if seconds < 0 { '-' } else { '+' }, seconds.abs() / 60);
    let saving = if info.dst().is_dst() { ", daylight saving" } else { "" };
    format!("{}, UTC{sign}{:02}:{:02}{saving}", place.time_zone, minutes / 60, minutes % 60)
}

/// A span of time, as `2 h 35 min`.
pub(super) fn span_words(minutes: i64) -> String {
    match (minutes / 60, minutes % 60) {
        (0, minutes) => format!("{minutes} min"),
        (hours, 0) => format!("{hours} h"),
        (hours, minutes) => format!("{hours} h {minutes} min"),
    }
}
