//! Where the room is on the earth, and when it is noisy there.

use jiff::tz::TimeZone;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A place on the earth.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Place {
    /// Degrees north of the equator.
    #[schema(minimum = -90.0, maximum = 90.0)]
    pub latitude_deg: f64,
    /// Degrees east of Greenwich.
    #[schema(minimum = -180.0, maximum = 180.0)]
    pub longitude_deg: f64,
    /// The time zone's name in the IANA database, as `Europe/Madrid`.
    #[schema(min_length = 1, max_length = 64)]
    pub time_zone: String,
}

impl Place {
    /// The time zone with its rules; none of that name.
    pub fn zone(&self) -> Option<TimeZone> {
        TimeZone::get(&self.time_zone).ok()
    }
}

/// Hours of the week in which something can be heard that spoils a take.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct NoisyHours {
    /// The days on which they begin.
    #[schema(min_items = 1, max_items = 7)]
    pub days: Vec<Day>,
    /// When they begin, local time, as `07:30`.
    #[schema(pattern = "^([01][0-9]|2[0-3]):[0-5][0-9]$")]
    pub from: String,
    /// When they end, as `09:00`; at or before the beginning it is on the next day.
    #[schema(pattern = "^(([01][0-9]|2[0-3]):[0-5][0-9]|24:00)$")]
    pub to: String,
    /// What is heard.
    pub kind: NoisyKind,
}

impl NoisyHours {
    /// Beginning and end, minutes after the midnight before the day on which they begin; the end may lie beyond the next one.
    pub fn minutes(&self) -> (i32, i32) {
        let minutes = |text: &str| {
            let (hours, minutes) = text.split_once(':').unwrap_or((text, "0"));
            60 * hours.parse::<i32>().unwrap_or(0) + minutes.parse::<i32>().unwrap_or(0)
        };
        let (from, to) = (minutes(&self.from), minutes(&self.to));
        (from, if to > from { to } else { to + 24 * 60 })
    }
}

/// A day of the week.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
#[allow(missing_docs)]
pub enum Day {
    Mon,
    Tue,
    Wed,
    Thu,
    Fri,
    Sat,
    Sun,
}

impl Day {
    /// From Monday on.
    pub const ALL: [Day; 7] = [Day::Mon, Day::Tue, Day::Wed, Day::Thu, Day::Fri, Day::Sat, Day::Sun];
}

/// What is heard at certain hours.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum NoisyKind {
    /// Cars, trains or aircraft.
    Traffic,
    /// A school or a playground.
    School,
    /// Neighbours.
    Neighbours,
    /// Building work.
    BuildingWork,
    /// The own household.
    Household,
}

impl NoisyKind {
    /// In words.
    pub fn words(self) -> &'static str {
        match self {
            NoisyKind::Traffic => "traffic",
            NoisyKind::School => "the school",
            NoisyKind::Neighbours => "neighbours",
            NoisyKind::BuildingWork => "building work",
            NoisyKind::Household => "your own household",
        }
    }
}
