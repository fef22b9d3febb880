//! A local day in a corner as it goes: sun, light on the face, patches, and what is to be said of it.

use jiff::tz::TimeZone;
use serde::Serialize;
use utoipa::ToSchema;

use super::calendar::{LocalDay, utc};
use super::clock::{MINUTE_S, Stretch, clock, zone_words};
use super::hours::{Interval, Spoils, good_hours_under, has_window};
use super::light::{DayLight, Moment, WindowLight};
use super::ways::{Way, ways};
use super::words::sentences;
use super::year::GOLDEN_DEG;
use crate::corner::Corner;
use crate::daylight::crossings;
use crate::daylight::outdoors::Sky;
use crate::plan::{Place, Plan};
use crate::problem::{Code, Problem};

/// The day is looked at every minute; every tenth is a moment of the course.
const OF_THE_COURSE: usize = 10;

/// A moment of the course.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct CourseMoment {
    /// Local time, as `09:30`.
    pub clock: String,
    /// The same in UTC.
    pub utc: String,
    /// The sun, degrees from true north.
    pub sun_azimuth_deg: f64,
    /// The sun over the horizon, degrees.
    pub sun_elevation_deg: f64,
    /// What the windows do under a clear sky, the sun's own beam left out.
    pub clear: WindowLight,
    /// Under an overcast one.
    pub overcast: WindowLight,
    /// What keeps the light that is wanted from holding.
    pub spoils: Vec<Spoils>,
    /// Where the sun lies.
    pub patches: Vec<SunPatch>,
}

/// A place where the sun lies.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct SunPatch {
    /// `floor`, `wall-1`, or the name of a thing.
    pub on: String,
    /// Its corners, m.
    pub outline_m: Vec<[f64; 3]>,
}

/// A local day.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Course {
    /// Its date.
    pub date: String,
    /// Its zone, with the offset at its noon and whether that is daylight saving.
    pub zone: String,
    /// Local time of sunrise; none where it does not rise.
    pub sunrise: Option<String>,
    /// Local time of sunset.
    pub sunset: Option<String>,
    /// When the sun is low and warm.
    pub golden: Vec<Stretch>,
    /// Light of the lamps on the face, lx.
    pub lamps_lx: f64,
    /// Light that the picture needs, lx.
    pub needed_lx: f64,
    /// The windows are wanted as light.
    pub windows_wanted: bool,
    /// Every ten minutes.
    pub moments: Vec<CourseMoment>,
    /// When a take can be made.
    pub hours: Vec<Interval>,
    /// What is to be said of it.
    pub sentences: Vec<String>,
    /// What can be done about the windows, and what comes of it on this day.
    pub ways: Vec<Way>,
}

/// A local day of a plan.
///
/// # Errors
/// There is a window, and it is not known where on the earth it is or which way it looks; or there is none, and nothing changes.
pub fn course(plan: &Plan, day: &LocalDay, zone: &TimeZone) -> Result<Course, Problem> {
    let none = || {
        Problem::new(
            "brief.room.openings",
            "no window",
            "a window: without one the day changes nothing",
            Code::Conflict,
        )
    };
    if !has_window(plan) {
        return Err(none());
    }
    let corner = Corner::resolved(plan)?;
    let light = DayLight::of(plan, &corner)?;
    let place = plan.brief.place.as_ref().ok_or_else(none)?;
    let wanted = plan.brief.windows_shine();
    let clock = |unix_s: i64| clock(zone, unix_s);
    let path = light.path(day).ok_or_else(none)?;
    let minutes: Vec<(i64, Moment)> = (0..)
        .map(|minute| day.start_s + MINUTE_S * minute)
        .take_while(|at| *at < day.end_s)
        .map(|at| (at, light.under(path.at(at))))
        .collect();
    let told = |(at, moment): &(i64, Moment)| {
        let patches = light.sunlight().patches(light.sunlight().to_sun(moment.sun)).into_iter();
        CourseMoment {
            clock: clock(*at),
            utc: utc(*at),
            sun_azimuth_deg: moment.sun.azimuth_deg,
            sun_elevation_deg: moment.sun.elevation_deg,
            clear: light.windows(Sky::Clear, moment.sun),
            overcast: light.windows(Sky::Overcast, moment.sun),
            spoils: light.spoils(wanted, moment),
            patches: patches
                .map(|patch| SunPatch {
                    on: patch.on,
                    outline_m: patch.outline_m.iter().map(|corner| corner.to_array()).collect(),
                })
                .collect(),
        }
    };
    let rises = crossings((place.latitude_deg, place.longitude_deg), (day.start_s, day.end_s), None)
        .unwrap_or_default();
    Ok(Course {
        date: day.date.to_string(),
        zone: zone_words(place, zone, day),
        sunrise: rises.rises_s.first().map(|at| clock(*at)),
        sunset: rises.sets_s.last().map(|at| clock(*at)),
        golden: golden(place, day, &clock),
        lamps_lx: light.lamps_lx,
        needed_lx: light.needed_lx,
        windows_wanted: wanted,
        moments: minutes.iter().step_by(OF_THE_COURSE).map(told).collect(),
        hours: good_hours_under(&light, plan, std::slice::from_ref(day), zone).intervals,
        sentences: sentences(&light, &minutes, &rises, &clock),
        ways: ways(plan, &light, day, zone),
    })
}

fn golden(place: &Place, day: &LocalDay, clock: &dyn Fn(i64) -> String) -> Vec<Stretch> {
    let at = |elevation_deg: f64| {
        crossings((place.latitude_deg, place.longitude_deg), (day.start_s, day.end_s), Some(elevation_deg))
            .unwrap_or_default()
    };
    let (low, high) = (at(*GOLDEN_DEG.start()), at(*GOLDEN_DEG.end()));
    let mut all: Vec<(i64, i64)> = Vec::new();
    for (starts, ends) in [(&low.rises_s, &high.rises_s), (&high.sets_s, &low.sets_s)] {
        for start in starts {
            let end = ends.iter().copied().find(|end| end > start).unwrap_or(day.end_s);
            all.push((*start, end));
        }
    }
    all.sort_unstable();
    all.iter().map(|(from, to)| Stretch { from: clock(*from), to: clock(*to) }).collect()
}
