//! The floor: the steps in which a corner is laid, what was ticked of them, and how it was laid.

use axum::extract::State;
use axum::{Extension, Json};
use fogon_core::card::{Card, Laid, LaidIn, LayingStep, card, laid as as_laid, laying as steps};
use fogon_core::corner::Corner;
use fogon_core::drawing::{View, draw_away};
use fogon_core::plan::Plan;
use fogon_core::power::{Power, power};
use fogon_core::problem::Problems;
use fogon_core::ready::{Ready, of as ready_of};
use fogon_store::Tick;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::{Path, Sent, Shared, blocking};
use crate::phone::Known;
use crate::problem::Details;

/// A corner step by step.
#[derive(Serialize, ToSchema)]
pub(crate) struct Laying {
    /// Its name.
    name: String,
    /// The verdict in words.
    verdict: String,
    /// Which way round it is meant.
    sides: &'static str,
    steps: Vec<LayingStep>,
    ticks: Vec<Tick>,
    /// The server's clock, ms since 1970: those of phones differ.
    now_ms: u64,
}

/// A corner in the steps in which it is laid, and what is ticked of them
#[utoipa::path(get, path = "/api/v1/corners/{id}/laying", params(("id" = i64, Path)),
    responses((status = 200, body = Laying), (status = 404, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn laying(
    State(store): State<Shared>,
    Path(id): Path<i64>,
) -> Result<Json<Laying>, Details> {
    blocking(move || {
        let (_, plan) = super::corners::plan_of(&store, id)?;
        let made: Card = card(&plan).ok_or_else(|| Details::not_found("card"))?;
        let ticks = store.ticks(id)?;
        Ok(Json(Laying {
            steps: steps(&made),
            name: made.name,
            verdict: made.verdict,
            sides: "Left and right are the camera's.",
            ticks,
            now_ms: now_ms(),
        }))
    })
    .await
}

/// What was ticked.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub(crate) struct TicksIn {
    #[schema(max_items = 600)]
    ticks: Vec<Tick>,
}

fogon_core::shape!(TicksIn => |_: &TicksIn| Ok(()));

/// All that is ticked, and the server's clock.
#[derive(Serialize, ToSchema)]
pub(crate) struct Ticked {
    ticks: Vec<Tick>,
    now_ms: u64,
}

/// Ticks steps, or takes ticks back; of two that speak of one step the later holds
#[utoipa::path(post, path = "/api/v1/corners/{id}/ticks", params(("id" = i64, Path)), request_body = TicksIn,
    responses((status = 200, body = Ticked), (status = 404, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn tick(
    State(store): State<Shared>,
    known: Option<Extension<Known>>,
    Path(id): Path<i64>,
    Sent(TicksIn { mut ticks }): Sent<TicksIn>,
) -> Result<Json<Ticked>, Details> {
    let by = known.map_or_else(|| "desk".to_owned(), |Extension(Known(number))| format!("phone {number}"));
    let now_ms = now_ms();
    for tick in &mut ticks {
        tick.by.clone_from(&by);
        // A clock that is ahead would hold against everybody who ticks after it.
        tick.at_ms = tick.at_ms.min(i64::try_from(now_ms).unwrap_or(i64::MAX));
    }
    blocking(move || {
        // Nothing to add is the usual question.
        let ticks = if ticks.is_empty() { store.ticks(id)? } else { store.tick(id, &ticks)? };
        Ok(Json(Ticked { ticks, now_ms }))
    })
    .await
}

/// How the floor was really laid, from what was taped: places, what must move, and the corner judged as it stands
#[utoipa::path(post, path = "/api/v1/laid", request_body = LaidIn,
    responses((status = 200, body = Laid), (status = 422, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn laid(Sent(asked): Sent<LaidIn>) -> Result<Json<Laid>, Details> {
    blocking(move || Ok(Json(as_laid(&asked)?))).await
}

/// How soon a corner stands, and its plugs and cables.
#[derive(Serialize, ToSchema)]
pub(crate) struct PutUp {
    ready: Ready,
    power: Power,
    /// The floor with every stand in use and put away, and the cables.
    away: View,
}

/// Words of that drawing, in parts of the usual.
const AWAY_TEXT: f64 = 1.3;

/// How soon a corner that was put away can record, where its stands are put away, which plug goes where
#[utoipa::path(post, path = "/api/v1/ready", operation_id = "ready", request_body = Plan,
    responses((status = 200, body = PutUp), (status = 422, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn ready(Sent(plan): Sent<Plan>) -> Result<Json<PutUp>, Details> {
    blocking(move || {
        let corner = Corner::resolved(&plan).map_err(Problems::from)?;
        let (ready, power) = (ready_of(&corner), power(&corner));
        let away = draw_away(&corner, &ready.parked, &power, AWAY_TEXT);
        Ok(Json(PutUp { ready, power, away }))
    })
    .await
}

pub(super) fn now_ms() -> u64 {
    let since = std::time::SystemTime::now().duration_since(std::time::UNIX_EPOCH);
    since.map_or(0, |since| u64::try_from(since.as_millis()).unwrap_or(u64::MAX))
}
