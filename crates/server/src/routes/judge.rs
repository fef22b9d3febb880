//! Stateless questions: judge a plan, propose layouts, say what to change, apply a change.

use axum::Json;
use axum::extract::Query;
use axum::http::StatusCode;
use fogon_core::arrange::{Placed, Proposals, propose as search, why};
use fogon_core::assess::{Assessment, evaluate};
use fogon_core::document;
use fogon_core::drawing::{Drawing, draw_for};
use fogon_core::money::{Changes, changes as what_to_change};
use fogon_core::plan::{BriefFile, PatchStep, Plan, apply as apply_patch};
use fogon_core::problem::{Code, Problem, Problems};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::{Body, blocking};
use crate::problem::Details;

/// A plan judged, explained and drawn.
#[derive(Serialize, ToSchema)]
pub(crate) struct Judged {
    assessment: Assessment,
    /// Where everything stands and what decides that, in the order the marks are laid.
    placed: Vec<Placed>,
    drawing: Drawing,
}

/// How to draw.
#[derive(Deserialize)]
pub(crate) struct Drawn {
    /// Size of the words on the drawings, 0.5 to 4 times the usual.
    text_scale: Option<f64>,
}

/// A plan and a change to it.
#[derive(Serialize, Deserialize, ToSchema)]
pub(crate) struct PlanChange {
    plan: Plan,
    #[schema(max_items = 400)]
    patch: Vec<PatchStep>,
}

/// Readings, findings, verdict, reasons and drawings of a plan
#[utoipa::path(post, path = "/api/v1/assess", request_body = Plan,
    params(("text_scale" = Option<f64>, Query, description = "size of the words on the drawings, 0.5 to 4 times the usual")),
    responses((status = 200, body = Judged), (status = 422, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn assess(Query(drawn): Query<Drawn>, Body(bytes): Body) -> Result<Json<Judged>, Details> {
    let text_scale = drawn.text_scale.unwrap_or(1.0);
    if !(0.5..=4.0).contains(&text_scale) {
        return Err(Details::new(StatusCode::BAD_REQUEST, "bad_choice", "text_scale: give 0.5 to 4."));
    }
    blocking(move || {
        let plan = Plan::read(&bytes)?;
        let unresolved = || Problem::new("layout", "ids", "ids that name gear of the brief", Code::UnknownId);
        let drawing =
            draw_for(&plan, text_scale).ok_or_else(|| Details::from(Problems::from(unresolved())))?;
        Ok(Json(Judged { assessment: evaluate(&plan), placed: why(&plan), drawing }))
    })
    .await
}

/// Legal layouts for a brief, best first, or what forbids one
#[utoipa::path(post, path = "/api/v1/propose", request_body = BriefFile,
    responses((status = 200, body = Proposals), (status = 422, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn propose(Body(bytes): Body) -> Result<Json<Proposals>, Details> {
    blocking(move || {
        let file = BriefFile::read(&bytes)?;
        Ok(Json(search(&file.name, &file.brief)))
    })
    .await
}

/// What to change: free moves first, then purchases
#[utoipa::path(post, path = "/api/v1/changes", request_body = Plan,
    responses((status = 200, body = Changes), (status = 422, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn changes(Body(bytes): Body) -> Result<Json<Changes>, Details> {
    blocking(move || Ok(Json(what_to_change(&Plan::read(&bytes)?)))).await
}

/// A plan with a change applied, all or nothing
#[utoipa::path(post, path = "/api/v1/apply", request_body = PlanChange,
    responses((status = 200, body = Plan), (status = 422, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn apply(Body(bytes): Body) -> Result<Json<Plan>, Details> {
    blocking(move || {
        let value = document::parse(&bytes).map_err(Problems::from)?;
        let change: PlanChange = serde_json::from_value(value).map_err(|error| {
            let problem = Problem::new("document", error, "a plan and a patch", Code::WrongType);
            Details::from(Problems::from(problem))
        })?;
        Ok(Json(apply_patch(&change.plan, &change.patch)?))
    })
    .await
}

/// The same seat and camera with lights and microphone placed anew, as after gear has changed
#[utoipa::path(post, path = "/api/v1/place", request_body = Plan,
    responses((status = 200, body = Plan), (status = 422, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn place(Body(bytes): Body) -> Result<Json<Plan>, Details> {
    blocking(move || {
        let plan = Plan::read(&bytes)?;
        let placed = fogon_core::arrange::replaced(&plan).ok_or_else(|| {
            let problem = Problem::new(
                "layout",
                "this seat and camera",
                "a seat and camera with legal places around them",
                Code::Conflict,
            );
            Details::from(Problems::from(problem))
        })?;
        Ok(Json(placed))
    })
    .await
}
