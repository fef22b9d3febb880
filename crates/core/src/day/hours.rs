//! Good hours: the light that is wanted holds, and it is quiet.

use jiff::tz::TimeZone;
use serde::Serialize;
use utoipa::ToSchema;

use super::calendar::{LocalDay, utc};
use super::changes::changes_of;
use super::light::{DayLight, Moment};
use super::noise::noisy_s;
use crate::corner::Corner;
use crate::parallel::in_parallel;
use crate::plan::{Opening, Plan};
use crate::problem::Problem;

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
    /// The windows are not wanted, and no lamp is there.
    NoLamp,
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
        if !windows_wanted && self.lamps_lx <= 0.0 {
            all.push(Spoils::NoLamp);
        } else if !windows_wanted && clear.max(overcast) * HARMLESS_STOPS.exp2() > self.lamps_lx {
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
    Ok(good_hours_under(&DayLight::of(plan, &corner)?, plan, days, zone))
}

/// The good hours under a daylight: the light that the brief wants holds.
pub(super) fn good_hours_under(
    light: &DayLight<'_>,
    plan: &Plan,
    days: &[LocalDay],
    zone: &TimeZone,
) -> GoodHours {
    let wanted = plan.brief.windows_shine();
    let holds = |moment: &Moment| light.spoils(wanted, moment).is_empty();
    hours_in(Some((light, &holds)), plan, days, zone)
}

/// Whether the room has a window: else the day changes nothing.
pub(super) fn has_window(plan: &Plan) -> bool {
    plan.brief.room.openings.values().any(Opening::is_open_to_light)
}

/// A daylight, and whether its light does what is wanted of it at a moment.
pub(super) type Holds<'a> = (&'a DayLight<'a>, &'a (dyn Fn(&Moment) -> bool + Sync));

/// The good hours under a daylight; without one the lamps are all there is.
pub(super) fn hours_in(
    light: Option<Holds<'_>>,
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
        Some((light, holds)) => {
            let of_day = |day: &LocalDay| {
                let Some(path) = light.path(day) else { return vec![(day.start_s, false)] };
                changes_of(day, |at| holds(&light.under(path.at(at))))
            };
            in_parallel(days, of_day).into_iter().flatten().collect()
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
