//! A year in a corner, day by day: when the sun lies where it should not, when the light holds, when it is quiet.

use jiff::civil::Date;
use jiff::tz::TimeZone;
use serde::Serialize;
use utoipa::ToSchema;

use super::calendar::LocalDay;
use super::changes::{changes_of, stretches};
use super::clock::{minute_of_day, span_words};
use super::hours::has_window;
use super::light::DayLight;
use super::noise::noisy_s;
use crate::corner::Corner;
use crate::parallel::in_parallel;
use crate::plan::Plan;
use crate::problem::{Code, Problem};

/// Heights between which the sun is low and warm, degrees (common practice, no source).
pub(super) const GOLDEN_DEG: std::ops::RangeInclusive<f64> = -4.0..=6.0;

/// A stretch of a day.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
pub struct Span {
    /// Where it begins, minutes after local midnight.
    pub from_min: u16,
    /// Where it ends; 1440 is the next midnight.
    pub to_min: u16,
}

/// A day of the year.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
pub struct YearDay {
    /// Its date.
    pub date: String,
    /// The sun is up.
    pub up: Vec<Span>,
    /// It is low and warm.
    pub golden: Vec<Span>,
    /// It shines into the eyes.
    pub on_face: Vec<Span>,
    /// It shines into the lens.
    pub in_lens: Vec<Span>,
    /// It lies behind the person in the picture.
    pub behind: Vec<Span>,
    /// The light that is wanted holds.
    pub light: Vec<Span>,
    /// Something of the weekly pattern is heard.
    pub noisy: Vec<Span>,
}

/// A year in a corner.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
pub struct Year {
    /// Every day that the zone has.
    pub days: Vec<YearDay>,
    /// What is to be said of it.
    pub sentences: Vec<String>,
}

/// What is looked at.
#[derive(Clone, Copy, PartialEq)]
struct State {
    up: bool,
    golden: bool,
    on_face: bool,
    in_lens: bool,
    behind: bool,
    light: bool,
}

/// A calendar year of a plan.
///
/// # Errors
/// There is no window; or it is not known where on the earth it is or which way it looks.
pub fn year(plan: &Plan, year: i16, zone: &TimeZone) -> Result<Year, Problem> {
    if !has_window(plan) {
        let accepted = "a window: without one the year changes nothing";
        return Err(Problem::new("brief.room.openings", "no window", accepted, Code::Conflict));
    }
    let corner = Corner::resolved(plan)?;
    let light = DayLight::of(plan, &corner)?;
    let first = Date::new(year, 1, 1)
        .map_err(|_| Problem::new("year", year, "a year from 1900 to 2100", Code::OutOfRange))?;
    let dates = first.series(jiff::Span::new().days(1)).take_while(|date| date.year() == year);
    // A day that a zone leaves out, crossing the date line, has no length.
    let days: Vec<LocalDay> =
        dates.filter_map(|date| LocalDay::of(zone, date)).filter(|day| day.start_s < day.end_s).collect();
    let noisy = noisy_s(zone, &days, &plan.brief.quiet);
    let all = in_parallel(&days, |day| of_day(&light, day, zone, &noisy));
    let sentences = sentences(&all, plan.brief.windows_shine());
    Ok(Year { days: all, sentences })
}

fn of_day(light: &DayLight<'_>, day: &LocalDay, zone: &TimeZone, noisy: &[(i64, i64)]) -> YearDay {
    let wanted = light.corner().brief.windows_shine();
    let path = light.path(day);
    let state = |at: i64| {
        path.as_ref().map(|path| {
            let moment = light.under(path.at(at));
            State {
                // Half of it over the horizon.
                up: moment.sun.elevation_deg > 0.0,
                golden: GOLDEN_DEG.contains(&path.true_elevation_deg(at)),
                on_face: moment.on_face,
                in_lens: moment.in_lens,
                behind: moment.behind,
                light: light.spoils(wanted, &moment).is_empty(),
            }
        })
    };
    let changes = changes_of(day, state);
    let by_clock = |(from, to): (i64, i64)| {
        let to_min = if to >= day.end_s { 24 * 60 } else { minute_of_day(zone, to) };
        Span { from_min: minute_of_day(zone, from), to_min }
    };
    let spans = |is: fn(&State) -> bool| -> Vec<Span> {
        let found = stretches(&changes, day.end_s, |state| state.as_ref().is_some_and(is));
        found.into_iter().map(by_clock).filter(|span| span.from_min < span.to_min).collect()
    };
    let of_noise = noisy.iter().map(|(from, to)| (*from.max(&day.start_s), *to.min(&day.end_s)));
    YearDay {
        date: day.date.to_string(),
        up: spans(|state| state.up),
        golden: spans(|state| state.golden),
        on_face: spans(|state| state.on_face),
        in_lens: spans(|state| state.in_lens),
        behind: spans(|state| state.behind),
        light: spans(|state| state.light),
        noisy: of_noise.filter(|(from, to)| from < to).map(by_clock).collect(),
    }
}

/// A date without its year, as `21 December`.
fn day_words(date: Date) -> String {
    date.strftime("%-d %B").to_string()
}

fn minutes(spans: &[Span]) -> i64 {
    spans.iter().map(|span| i64::from(span.to_min.saturating_sub(span.from_min))).sum()
}

/// On how many days the sun lies where it should not, and on which it does so longest.
fn sentences(days: &[YearDay], wanted: bool) -> Vec<String> {
    type Spans = fn(&YearDay) -> &[Span];
    let told: [(Spans, &str); 3] = [
        (|day| &day.on_face, "The sun reaches your eyes"),
        (|day| &day.in_lens, "The sun reaches the lens"),
        (|day| &day.behind, "A patch of sun lies behind you"),
    ];
    let mut all: Vec<String> = told
        .into_iter()
        .filter_map(|(spans, what)| {
            let on = days.iter().filter(|day| !spans(day).is_empty()).count();
            let most = days.iter().max_by_key(|day| minutes(spans(day))).filter(|_| on > 0)?;
            let count = if on == 1 { "1 day".to_owned() } else { format!("{on} days") };
            let on = most.date.parse::<Date>().map_or_else(|_| most.date.clone(), day_words);
            Some(format!(
                "{what} on {count} of the year, longest on {on}: {}.",
                span_words(minutes(spans(most)))
            ))
        })
        .collect();
    if all.is_empty() {
        all.push(
            "The sun reaches neither your eyes nor the lens nor what is behind you on any day.".to_owned(),
        );
    }
    let hours: i64 = days.iter().map(|day| minutes(&day.light)).sum::<i64>() / 60;
    let holds = if wanted {
        "The window is enough, and no sun disturbs, for"
    } else {
        "Left uncovered, the window does no harm for"
    };
    all.push(format!("{holds} {hours} hours of the year."));
    all
}
