//! The run of a day: the run sheet, and the logbook, from desk and phone alike.

use axum::extract::State;
use axum::http::{HeaderValue, StatusCode, header};
use axum::response::{IntoResponse, Response};
use axum::{Extension, Json};
use fogon_core::card::card;
use fogon_core::corner::{Corner, face_marks};
use fogon_core::day::{SessionPlanned, date, days, good_hours, sessions as planned_sessions, zone_of};
use fogon_core::plan::Plan;
use fogon_core::problem::Problems;
use fogon_core::run::{LogIn, Run, run as run_of};
use fogon_handover::hours::sessions_ics;
use fogon_handover::run::log_csv;
use fogon_store::{LogSince, Logging};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::exports::file_name;
use super::floor::now_ms;
use super::{Path, Sent, Shared, blocking};
use crate::phone::Known;
use crate::problem::Details;

/// Where the plan has the marks of a still, parts of its width and height.
#[derive(Serialize, ToSchema)]
pub(crate) struct PlannedMarks {
    /// Width over height of the picture.
    aspect: f64,
    #[schema(value_type = Vec<f64>)]
    crown: [f64; 2],
    #[schema(value_type = Vec<f64>)]
    eyes: [f64; 2],
    #[schema(value_type = Vec<f64>)]
    chin: [f64; 2],
    /// Left and right in the picture.
    #[schema(value_type = Vec<Vec<f64>>)]
    shoulders: [[f64; 2]; 2],
    /// The plan has a screen that is keyed out.
    keyed: bool,
}

/// The run of a corner as it is saved.
#[derive(Serialize, ToSchema)]
pub(crate) struct Running {
    /// The corner's name.
    name: String,
    /// The save at which it stands.
    revision: i64,
    run: Run,
}

/// A run sheet, and where a still of it has its marks.
#[derive(Serialize, ToSchema)]
pub(crate) struct RunTold {
    run: Run,
    planned: PlannedMarks,
}

fn made(plan: &Plan) -> Result<(Run, PlannedMarks), Details> {
    let corner = Corner::resolved(plan).map_err(Problems::from)?;
    let card = card(plan).ok_or_else(|| Details::not_found("card"))?;
    let places = face_marks(&corner);
    // The still shows what is recorded, before it is cut.
    let crop = corner.layout.camera.crop;
    let at = |point| {
        let (x, y) = corner.view.project(point).unwrap_or((0.5, 0.5));
        [0.5 + (x - 0.5) / crop, 0.5 + (y - 0.5) / crop]
    };
    let mut shoulders = places.shoulders_m.map(at);
    shoulders.sort_by(|a, b| a[0].total_cmp(&b[0]));
    let planned = PlannedMarks {
        aspect: corner.view.width_ratio / corner.view.height_ratio,
        crown: at(places.crown_m),
        eyes: at(places.eyes_m),
        chin: at(places.chin_m),
        shoulders,
        keyed: corner.brief.purpose == fogon_core::plan::Purpose::KeyedBackground,
    };
    Ok((run_of(&corner, &card), planned))
}

/// The run sheet of a plan: shots as typed and in the order with the least changes, the script
#[utoipa::path(post, path = "/api/v1/run", operation_id = "run_of", request_body = Plan,
    responses((status = 200, body = RunTold), (status = 422, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn of_plan(Sent(plan): Sent<Plan>) -> Result<Json<RunTold>, Details> {
    blocking(move || {
        let (run, planned) = made(&plan)?;
        Ok(Json(RunTold { run, planned }))
    })
    .await
}

/// The run of a corner as it is saved
#[utoipa::path(get, path = "/api/v1/corners/{id}/run", operation_id = "running", params(("id" = i64, Path)),
    responses((status = 200, body = Running), (status = 404, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn of_corner(
    State(store): State<Shared>,
    Path(id): Path<i64>,
) -> Result<Json<Running>, Details> {
    blocking(move || {
        let (revision, plan) = super::corners::plan_of(&store, id)?;
        let (run, _) = made(&plan)?;
        Ok(Json(Running { name: plan.name, revision, run }))
    })
    .await
}

/// What was written since, and the server's clock.
#[derive(Serialize, ToSchema)]
pub(crate) struct Logged {
    #[serde(flatten)]
    log: LogSince,
    now_ms: u64,
}

/// Adds to the logbook, or takes entries back; of two that speak of one entry the later holds
#[utoipa::path(post, path = "/api/v1/corners/{id}/log", operation_id = "log", params(("id" = i64, Path)), request_body = LogIn,
    responses((status = 200, body = Logged), (status = 404, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn add(
    State(store): State<Shared>,
    known: Option<Extension<Known>>,
    Path(id): Path<i64>,
    Sent(LogIn { mut entries, written }): Sent<LogIn>,
) -> Result<Json<Logged>, Details> {
    let by = known.map_or_else(|| "desk".to_owned(), |Extension(Known(number))| format!("phone {number}"));
    let now_ms = now_ms();
    for entry in &mut entries {
        entry.by.clone_from(&by);
        // A clock that is ahead would hold against everybody who writes after it.
        entry.at_ms = entry.at_ms.min(i64::try_from(now_ms).unwrap_or(i64::MAX));
    }
    blocking(move || {
        // Nothing to add is the usual question.
        let log = if entries.is_empty() {
            store.log_since(id, written)?
        } else {
            store.add_to_log(id, &entries, written)?
        };
        Ok(Json(Logged { log, now_ms }))
    })
    .await
}

/// The logbook of a corner as a file: csv or json
#[utoipa::path(get, path = "/api/v1/corners/{id}/log/{format}", params(("id" = i64, Path), ("format" = String, Path, description = "csv or json")),
    responses((status = 200, body = String, content_type = "text/plain"), (status = 404, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn as_file(
    State(store): State<Shared>,
    Path((id, format)): Path<(i64, String)>,
) -> Result<Response, Details> {
    blocking(move || {
        let (name, _) = store.raw(id)?;
        let entries = store.log(id)?;
        let (kind, text) = match format.as_str() {
            "csv" => ("text/csv; charset=utf-8", log_csv(&entries)),
            "json" => (
                "application/json",
                serde_json::to_string_pretty(&LogIn { entries, written: 0 }).unwrap_or_default(),
            ),
            _ => return Err(Details::not_found("format of the logbook; give csv or json")),
        };
        let mut response = text.into_response();
        let headers = response.headers_mut();
        headers.insert(header::CONTENT_TYPE, HeaderValue::from_static(kind));
        let name = file_name(&name, &format!("log.{format}"));
        if let Ok(value) = HeaderValue::from_str(&format!("attachment; filename=\"{name}\"")) {
            headers.insert(header::CONTENT_DISPOSITION, value);
        }
        Ok(response)
    })
    .await
}

/// Deletes a session from the logbook for good
#[utoipa::path(delete, path = "/api/v1/corners/{id}/sessions/{session}", params(("id" = i64, Path), ("session" = String, Path)),
    responses((status = 204), (status = 404, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn delete_session(
    State(store): State<Shared>,
    Path((id, session)): Path<(i64, String)>,
) -> Result<StatusCode, Details> {
    let gone = blocking(move || Ok(store.delete_session(id, &session)?)).await?;
    if gone == 0 { Err(Details::not_found("session")) } else { Ok(StatusCode::NO_CONTENT) }
}

/// How long sessions are kept
#[utoipa::path(get, path = "/api/v1/logging", responses((status = 200, body = Logging)))]
pub(crate) async fn logging(State(store): State<Shared>) -> Result<Json<Logging>, Details> {
    blocking(move || Ok(Json(store.logging()?))).await
}

/// Changes how long sessions are kept
#[utoipa::path(put, path = "/api/v1/logging", request_body = Logging, responses((status = 204)))]
pub(crate) async fn choose_logging(
    State(store): State<Shared>,
    Sent(rule): Sent<Logging>,
) -> Result<StatusCode, Details> {
    blocking(move || Ok(store.choose_logging(rule)?)).await?;
    Ok(StatusCode::NO_CONTENT)
}

/// Sessions to be put into good hours.
#[derive(Deserialize, ToSchema)]
pub(crate) struct SessionsIn {
    plan: Plan,
    /// As `2026-11-28`.
    #[schema(max_length = 10)]
    from: String,
    /// At most 400 days later.
    #[schema(max_length = 10)]
    to: String,
    /// Length of one, min.
    #[schema(minimum = 5.0, maximum = 720.0)]
    minutes: f64,
    /// So many.
    #[schema(minimum = 1, maximum = 31)]
    count: u8,
}

fogon_core::shape!(SessionsIn => |asked: &SessionsIn| asked.plan.check());

/// Sessions in good hours, and the same as a calendar.
#[derive(Serialize, ToSchema)]
pub(crate) struct Sessions {
    sessions: Vec<SessionPlanned>,
    /// As iCalendar.
    ics: String,
}

/// Puts sessions into the hours in which the light that is wanted holds while it is quiet, one a day at most
#[utoipa::path(post, path = "/api/v1/sessions", request_body = SessionsIn,
    responses((status = 200, body = Sessions), (status = 422, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn sessions(Sent(asked): Sent<SessionsIn>) -> Result<Json<Sessions>, Details> {
    blocking(move || {
        let plan = &asked.plan;
        let zone = zone_of(&plan.brief);
        let from = date("from", &asked.from).map_err(Problems::from)?;
        let to = date("to", &asked.to).map_err(Problems::from)?;
        let days = days(&zone, from, to).map_err(Problems::from)?;
        let hours = good_hours(plan, &days, &zone).map_err(Problems::from)?;
        let sessions = planned_sessions(
            &hours,
            &zone,
            (now_ms() / 1000) as i64,
            asked.minutes,
            usize::from(asked.count),
        );
        Ok(Json(Sessions { ics: sessions_ics(&plan.name, &sessions), sessions }))
    })
    .await
}
