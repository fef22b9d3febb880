//! Good hours: the light that is wanted holds, and it is quiet.

use jiff::tz::TimeZone;
use serde::Serialize;
use utoipa::ToSchema;

use super::calendar::{LocalDay, utc};
use super::light::{DayLight, Moment};
use super::noise::noisy_s;
use crate::corner::Corner;
use crate::parallel::in_parallel;
use crate::plan::{OpeningKind, Plan};
use crate::problem::{Code, Problem};

/// The light is looked at every so many seconds; where it changes between, to the minute.
const STEP_S: i64 = 300;
const MINUTE_S: i64 = 60;
/// Windows do no harm where the lamps give the face so much more than they do, stops. Fogon's own rule.
const HARMLESS_STOPS: f64 = 3.0;

/// A stretch of time in which nothing changes.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
pub struct Interval {
    /// Where it begins, UTC, as `2026-11-28T09:30:00Z`.
    pub start: String,
    /// Where it ends; the end is not in it.
    pub end: String,
    /// A take can be made: the light holds, and it is quiet.
    pub wanted: bool,
    /// The light that is wanted holds.
    pub light: bool,
    /// Nothing of the weekly pattern is heard.
    pub quiet: bool,
    /// Beginning and end, s since 1970 UTC.
    #[serde(skip)]
    pub span_s: (i64, i64),
}

/// What keeps the light from holding.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum Spoils {
    /// The sun shines into the eyes.
    SunOnFace,
    /// The sun shines into the lens.
    SunInLens,
    /// A patch of sun shows behind the person.
    SunBehind,
    /// The windows give too little.
    TooDark,
    /// The windows give too much beside the lamps.
    TooBright,
}

/// Every stretch from one local day to another.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
pub struct GoodHours {
    /// Ascending, without a gap.
    pub intervals: Vec<Interval>,
}

impl DayLight<'_> {
    /// What spoils the light at a moment, worst first: of a window that is the key it has to be enough, and without sun where it
    /// burns; of windows that are not wanted, little beside the lamps.
    pub fn spoils(&self, windows_wanted: bool, moment: &Moment) -> Vec<Spoils> {
        let sun = [
            (moment.on_face, Spoils::SunOnFace),
            (moment.in_lens, Spoils::SunInLens),
            (moment.behind, Spoils::SunBehind),
        ];
        let mut all: Vec<Spoils> = sun.into_iter().filter(|(is, _)| *is).map(|(_, what)| what).collect();
        let (clear, overcast) = (moment.clear_lx, moment.overcast_lx);
        if windows_wanted && clear.min(overcast) < self.needed_lx {
            all.push(Spoils::TooDark);
        }
        if !windows_wanted && clear.max(overcast) * HARMLESS_STOPS.exp2() > self.lamps_lx {
            all.push(Spoils::TooBright);
        }
        all
    }
}

/// The good hours of a plan over local days that follow each other.
///
/// # Errors
/// There is a window, and it is not known where on the earth it is or which way it looks.
pub fn good_hours(plan: &Plan, days: &[LocalDay], zone: &TimeZone) -> Result<GoodHours, Problem> {
    if !has_window(plan) {
        return Ok(hours_in(None, plan, days, zone));
    }
    let corner = Corner::resolved(plan)?;
    Ok(hours_in(Some(&daylight_of(plan, &corner)?), plan, days, zone))
}

/// Whether the room has a window: else the day changes nothing.
pub(super) fn has_window(plan: &Plan) -> bool {
    plan.brief.room.openings.values().any(|opening| opening.kind == OpeningKind::Window)
}

/// The daylight of a corner with a window.
pub(super) fn daylight_of<'a>(plan: &Plan, corner: &'a Corner<'a>) -> Result<DayLight<'a>, Problem> {
    let missing = |field: &str, accepted: &str| Problem::new(field, "nothing", accepted, Code::MissingField);
    if plan.brief.place.is_none() {
        return Err(missing("brief.place", "latitude_deg, longitude_deg and time_zone"));
    }
    DayLight::of(plan, corner)
        .ok_or_else(|| missing("brief.room.north_deg", "the bearing of north in the plan, degrees"))
}

/// The good hours under a daylight; without one the lamps are all there is.
pub(super) fn hours_in(
    light: Option<&DayLight<'_>>,
    plan: &Plan,
    days: &[LocalDay],
    zone: &TimeZone,
) -> GoodHours {
    let brief = &plan.brief;
    let (Some(first), Some(last)) = (days.first(), days.last()) else {
        return GoodHours { intervals: Vec::new() };
    };
    let (start_s, end_s) = (first.start_s, last.end_s);
    let lit: Vec<(i64, bool)> = match light {
        Some(light) => {
            let wanted = brief.windows_shine();
            let holds =
                |unix_s: i64| light.at(unix_s).is_some_and(|moment| light.spoils(wanted, &moment).is_empty());
            in_parallel(days, |day| changes_of(day, &holds)).into_iter().flatten().collect()
        }
        None => vec![(start_s, true)],
    };
    let noisy = noisy_s(zone, days, &brief.quiet);
    let mut breaks: Vec<i64> = lit.iter().map(|(at, _)| *at).collect();
    breaks.extend(noisy.iter().flat_map(|(from, to)| [*from, *to]));
    breaks.retain(|at| (start_s..end_s).contains(at));
    breaks.sort_unstable();
    breaks.dedup();
    let mut intervals: Vec<Interval> = Vec::new();
    for (at, from) in breaks.iter().enumerate() {
        let to = breaks.get(at + 1).copied().unwrap_or(end_s);
        let light =
            lit[..lit.partition_point(|(change, _)| change <= from)].last().is_some_and(|(_, on)| *on);
        let quiet = !noisy.iter().any(|(noise, over)| (noise..over).contains(&from));
        match intervals.last_mut() {
            Some(last) if last.light == light && last.quiet == quiet => {
                (last.end, last.span_s.1) = (utc(to), to);
            }
            _ => intervals.push(Interval {
                start: utc(*from),
                end: utc(to),
                wanted: light && quiet,
                light,
                quiet,
                span_s: (*from, to),
            }),
        }
    }
    GoodHours { intervals }
}

/// Where the light begins or ceases to hold in a day, and how it is from there on; whole minutes.
fn changes_of(day: &LocalDay, holds: &(dyn Fn(i64) -> bool + Sync)) -> Vec<(i64, bool)> {
    let mut is = holds(day.start_s);
    let mut all = vec![(day.start_s, is)];
    let mut at = day.start_s;
    loop {
        let next = at + STEP_S;
        if next >= day.end_s {
            return all;
        }
        if holds(next) != is {
            // The first minute at which it is as it is then.
            let (mut before, mut after) = (at, next);
            while after - before > MINUTE_S {
                let middle = before + (after - before) / (2 * MINUTE_S) * MINUTE_S;
                if holds(middle) == is { before = middle } else { after = middle }
            }
            is = !is;
            all.push((after, is));
        }
        at = next;
    }
}
