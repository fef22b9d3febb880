//! A local day in a corner as it goes: sun, light on the face, patches, and what is to be said of it.

use jiff::Timestamp;
use jiff::tz::TimeZone;
use serde::Serialize;
use utoipa::ToSchema;

use super::calendar::{LocalDay, utc};
use super::hours::{Interval, Spoils, daylight_of, has_window, hours_in};
use super::light::{DayLight, Moment};
use crate::corner::Corner;
use crate::daylight::{Crossings, crossings};
use crate::plan::{Place, Plan};
use crate::problem::{Code, Problem};
use crate::units::lower_first;

/// The day is looked at every minute, s; every tenth is a moment of the course, every fifth is looked at for how the light goes.
const MINUTE_S: i64 = 60;
const OF_THE_COURSE: usize = 10;
const OF_THE_LIGHT: usize = 5;
/// Heights between which the sun is low and warm, degrees (common practice, no source).
const GOLDEN_DEG: (f64, f64) = (-4.0, 6.0);
/// A change of the light that is seen in a picture whose exposure is locked, stops. Fogon's own rule.
const HOLDS_STOPS: f64 = 1.0 / 3.0;

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
    /// Light of the windows on the face under a clear sky, lx.
    pub clear_lx: f64,
    /// Under an overcast one.
    pub overcast_lx: f64,
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

/// A stretch of a day by the clock.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
pub struct Stretch {
    /// Local time at which it begins.
    pub from: String,
    /// Local time at which it ends.
    pub to: String,
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
    let light = daylight_of(plan, &corner)?;
    let place = plan.brief.place.as_ref().ok_or_else(none)?;
    let wanted = plan.brief.windows_shine();
    let clock = |unix_s: i64| clock(zone, unix_s);
    let minutes: Vec<(i64, Moment)> = (0..)
        .map(|minute| day.start_s + MINUTE_S * minute)
        .take_while(|at| *at < day.end_s)
        .filter_map(|at| Some((at, light.at(at)?)))
        .collect();
    let told = |(at, moment): &(i64, Moment)| {
        let patches = light.sunlight().patches(light.sunlight().to_sun(moment.sun)).into_iter();
        CourseMoment {
            clock: clock(*at),
            utc: utc(*at),
            sun_azimuth_deg: moment.sun.azimuth_deg,
            sun_elevation_deg: moment.sun.elevation_deg,
            clear_lx: moment.clear_lx,
            overcast_lx: moment.overcast_lx,
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
    let mut sentences: Vec<String> = of_the_sun(&rises).into_iter().collect();
    sentences.extend(of_the_beam(&minutes, wanted, &clock));
    sentences.extend(of_the_light(&light, &minutes, wanted, &clock));
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
        hours: hours_in(Some(&light), plan, std::slice::from_ref(day), zone).intervals,
        sentences,
    })
}

/// Local time of day.
fn clock(zone: &TimeZone, unix_s: i64) -> String {
    let Ok(time) = Timestamp::from_second(unix_s) else { return String::new() };
    let local = zone.to_datetime(time);
    format!("{:02}:{:02}", local.hour(), local.minute())
}

/// The zone by name, with its offset at noon: daylight saving is told, not guessed.
fn zone_words(place: &Place, zone: &TimeZone, day: &LocalDay) -> String {
    let Ok(noon) = Timestamp::from_second(day.start_s.midpoint(day.end_s)) else {
        return place.time_zone.clone();
    };
    let info = zone.to_offset_info(noon);
    let seconds = info.offset().seconds();
    let (sign, minutes) = (if seconds < 0 { '-' } else { '+' }, seconds.abs() / 60);
    let saving = if info.dst().is_dst() { ", daylight saving" } else { "" };
    format!("{}, UTC{sign}{:02}:{:02}{saving}", place.time_zone, minutes / 60, minutes % 60)
}

fn golden(place: &Place, day: &LocalDay, clock: &dyn Fn(i64) -> String) -> Vec<Stretch> {
    let at = |elevation_deg: f64| {
        crossings((place.latitude_deg, place.longitude_deg), (day.start_s, day.end_s), Some(elevation_deg))
            .unwrap_or_default()
    };
    let (low, high) = (at(GOLDEN_DEG.0), at(GOLDEN_DEG.1));
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

/// Where it does not rise or does not set.
fn of_the_sun(rises: &Crossings) -> Option<String> {
    match (rises.always_above, rises.always_below) {
        (true, _) => Some("The sun does not set on this day.".to_owned()),
        (_, true) => Some("The sun does not rise on this day.".to_owned()),
        _ => None,
    }
}

/// When the sun shines where it should not.
fn of_the_beam(minutes: &[(i64, Moment)], wanted: bool, clock: &dyn Fn(i64) -> String) -> Vec<String> {
    type Is = fn(&Moment) -> bool;
    let told: [(Is, &str, &str); 3] = [
        (|moment| moment.on_face, "The sun shines into your eyes", "Draw a blind or a white curtain then."),
        (|moment| moment.in_lens, "The sun shines onto the lens", "Shade the lens, or draw a blind then."),
        (
            |moment| moment.behind,
            "A patch of sun lies behind you in the picture",
            "It wanders while you record: draw a blind then.",
        ),
    ];
    told.into_iter()
        .filter_map(|(is, what, mend)| {
            let mut spans: Vec<(i64, i64)> = Vec::new();
            for (at, _) in minutes.iter().filter(|(_, moment)| is(moment)) {
                match spans.last_mut() {
                    Some(last) if last.1 == *at => last.1 += MINUTE_S,
                    _ => spans.push((*at, at + MINUTE_S)),
                }
            }
            let words: Vec<String> =
                spans.iter().map(|(from, to)| format!("from {} to {}", clock(*from), clock(*to))).collect();
            let when = words.join(" and ");
            (!words.is_empty()).then(|| match wanted {
                true => format!("{what} {when}. {mend}"),
                // A covered window lets no sun in.
                false => format!("Left uncovered: {} {when}.", lower_first(what)),
            })
        })
        .collect()
}

/// How the light on the face goes.
fn of_the_light(
    light: &DayLight<'_>,
    minutes: &[(i64, Moment)],
    wanted: bool,
    clock: &dyn Fn(i64) -> String,
) -> Vec<String> {
    let moments: Vec<(i64, Moment)> = minutes.iter().step_by(OF_THE_LIGHT).copied().collect();
    let ends_s = minutes.last().map_or(0, |(at, _)| at + MINUTE_S);
    let brightest = moments.iter().max_by(|a, b| a.1.overcast_lx.total_cmp(&b.1.overcast_lx));
    let Some((_, noon)) = brightest.filter(|(_, noon)| noon.overcast_lx > 1.0) else { return Vec::new() };
    let mut all = Vec::new();
    let swing = (noon.clear_lx / noon.overcast_lx).log2().abs();
    if wanted && swing > HOLDS_STOPS {
        all.push(format!(
            "Between a clear and an overcast sky the light on your face changes by {swing:.1} stops."
        ));
    }
    // From when on, under an overcast sky, a locked exposure holds longest.
    let longest = moments
        .iter()
        .enumerate()
        .filter(|(_, (_, moment))| moment.overcast_lx >= light.needed_lx)
        .map(|(at, (from, moment))| {
            let moved = |other: &Moment| (other.overcast_lx / moment.overcast_lx).log2().abs() > HOLDS_STOPS;
            let until =
                moments[at..].iter().find(|(_, other)| moved(other)).map_or(ends_s, |(until, _)| *until);
            (until - from, *from, until)
        })
        .max();
    if let Some((_, from, until)) = longest.filter(|_| wanted) {
        all.push(format!(
            "Lock the exposure at {}: under an even grey sky it holds until {}.",
            clock(from),
            clock(until)
        ));
    }
    if !wanted && light.lamps_lx > 0.0 {
        let most = (noon.clear_lx.max(noon.overcast_lx) / light.lamps_lx).log2();
        all.push(if most > -3.0 {
            format!(
                "Left uncovered: the windows give your face up to {:.0} % of what the lamps do.",
                100.0 * most.exp2()
            )
        } else {
            "Left uncovered: the windows stay three stops or more below the lamps all day.".to_owned()
        });
    }
    all
}
