//! The day: its course in a corner, and the hours in which the light holds while it is quiet.

use axum::Json;
use fogon_core::day::{
    Course, GoodHours, REGIONS, Region, Year, course, date, days, good_hours, sun_at_local, zone_of,
};
use fogon_core::daylight::Sun;
use fogon_core::plan::{Place, Plan};
use fogon_core::problem::{Code, Problem, Problems};
use serde::Deserialize;
use utoipa::ToSchema;

use super::{Sent, blocking};
use crate::problem::Details;

/// A plan and a local date.
#[derive(Deserialize, ToSchema)]
pub(crate) struct DayIn {
    plan: Plan,
    /// As `2026-11-28`.
    #[schema(max_length = 10)]
    date: String,
}

/// A plan and local dates, both of them asked for.
#[derive(Deserialize, ToSchema)]
pub(crate) struct HoursIn {
    plan: Plan,
    /// As `2026-11-28`.
    #[schema(max_length = 10)]
    from: String,
    /// At most 400 days later.
    #[schema(max_length = 10)]
    to: String,
}

/// Hours, and how they are written.
#[derive(Deserialize, ToSchema)]
pub(crate) struct HoursFileIn {
    plan: Plan,
    /// As `2026-11-28`.
    #[schema(max_length = 10)]
    from: String,
    /// At most 400 days later.
    #[schema(max_length = 10)]
    to: String,
    format: HoursFormat,
}

/// How hours are written.
#[derive(Clone, Copy, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub(crate) enum HoursFormat {
    /// A table.
    Csv,
    /// A calendar.
    Ics,
}

/// A plan and a year.
#[derive(Deserialize, ToSchema)]
pub(crate) struct YearIn {
    plan: Plan,
    #[schema(minimum = 1900, maximum = 2100)]
    year: i16,
}

/// A place and a time, to find out which way something looks.
#[derive(Deserialize, ToSchema)]
pub(crate) struct SunIn {
    place: Place,
    /// Local time, as `2026-11-28T10:40`.
    #[schema(max_length = 20)]
    local: String,
}

fogon_core::shape!(
    YearIn => |asked: &YearIn| asked.plan.check(),
    SunIn,
    DayIn => |asked: &DayIn| asked.plan.check(),
    HoursIn => |asked: &HoursIn| asked.plan.check(),
    HoursFileIn => |asked: &HoursFileIn| asked.plan.check(),
);

fn hours_of(plan: &Plan, from: &str, to: &str) -> Result<GoodHours, Problems> {
    let zone = zone_of(&plan.brief);
    let days = days(&zone, date("from", from)?, date("to", to)?)?;
    Ok(good_hours(plan, &days, &zone)?)
}

/// Sun, patches and light on the face through a local day
#[utoipa::path(post, path = "/api/v1/day", request_body = DayIn,
    responses((status = 200, body = Course), (status = 422, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn day(Sent(asked): Sent<DayIn>) -> Result<Json<Course>, Details> {
    blocking(move || {
        let zone = zone_of(&asked.plan.brief);
        let on = date("date", &asked.date).map_err(Problems::from)?;
        let found = days(&zone, on, on).map_err(Problems::from)?;
        let day = found.first().ok_or_else(|| {
            let accepted = "a day that this zone has";
            Problems::from(Problem::new("date", &asked.date, accepted, Code::OutOfRange))
        })?;
        Ok(Json(course(&asked.plan, day, &zone).map_err(Problems::from)?))
    })
    .await
}

/// The hours in which the light that is wanted holds while it is quiet
#[utoipa::path(post, path = "/api/v1/hours", request_body = HoursIn,
    responses((status = 200, body = GoodHours), (status = 422, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn hours(Sent(asked): Sent<HoursIn>) -> Result<Json<GoodHours>, Details> {
    blocking(move || Ok(Json(hours_of(&asked.plan, &asked.from, &asked.to)?))).await
}

/// The same as a table (CSV) or as a calendar (iCalendar)
#[utoipa::path(post, path = "/api/v1/hours/file", request_body = HoursFileIn,
    responses((status = 200, body = String, content_type = "text/plain"), (status = 422, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn hours_file(Sent(asked): Sent<HoursFileIn>) -> Result<String, Details> {
    blocking(move || {
        let hours = hours_of(&asked.plan, &asked.from, &asked.to)?;
        Ok(match asked.format {
            HoursFormat::Csv => fogon_handover::hours::csv(&hours),
            HoursFormat::Ics => fogon_handover::hours::ics(&asked.plan.name, &hours),
        })
    })
    .await
}

/// The hours of sun, light and noise on every day of a year
#[utoipa::path(post, path = "/api/v1/year", request_body = YearIn,
    responses((status = 200, body = Year), (status = 422, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn year(Sent(asked): Sent<YearIn>) -> Result<Json<Year>, Details> {
    blocking(move || {
        let zone = zone_of(&asked.plan.brief);
        Ok(Json(fogon_core::day::year(&asked.plan, asked.year, &zone).map_err(Problems::from)?))
    })
    .await
}

/// Where the sun stands over a place at a local time
#[utoipa::path(post, path = "/api/v1/sun", request_body = SunIn,
    responses((status = 200, body = Sun), (status = 422, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn sun(Sent(asked): Sent<SunIn>) -> Result<Json<Sun>, Details> {
    Ok(Json(sun_at_local(&asked.place, &asked.local).map_err(Problems::from)?))
}

/// Places to pick from
#[utoipa::path(get, path = "/api/v1/regions", responses((status = 200, body = Vec<Region>)))]
pub(crate) async fn regions() -> Json<&'static [Region]> {
    Json(&REGIONS)
}
