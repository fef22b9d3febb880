//! Every save of a corner: listed, read, named, brought back.

use axum::Json;
use axum::extract::State;
use axum::http::{HeaderMap, StatusCode};
use axum::response::Response;
use fogon_core::plan::{Brief, Layout};
use fogon_store::{Document, Saved};
use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};

use super::corners::{CornerKept, answer, if_match};
use super::{Path, Query, Sent, Shared, blocking};
use crate::problem::Details;

/// A corner as it was once saved.
#[derive(Serialize, ToSchema)]
pub(crate) struct Once {
    revision: i64,
    name: String,
    brief: Brief,
    /// None while nothing fitted.
    layout: Option<Layout>,
}

/// Which saves.
#[derive(Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub(crate) struct Before {
    /// Those before this number (all).
    before: Option<i64>,
}

/// Saves of a corner, the last first, a hundred at a time
#[utoipa::path(get, path = "/api/v1/corners/{id}/revisions", params(("id" = i64, Path), Before),
    responses((status = 200, body = Vec<Saved>), (status = 404, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn revisions(
    State(store): State<Shared>,
    Path(id): Path<i64>,
    Query(Before { before }): Query<Before>,
) -> Result<Json<Vec<Saved>>, Details> {
    blocking(move || Ok(Json(store.revisions(id, before)?))).await
}

/// A corner as it was once saved
#[utoipa::path(get, path = "/api/v1/corners/{id}/revisions/{number}", params(("id" = i64, Path), ("number" = i64, Path)),
    responses((status = 200, body = Once), (status = 404, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn revision(
    State(store): State<Shared>,
    Path((id, number)): Path<(i64, i64)>,
) -> Result<Json<Once>, Details> {
    blocking(move || {
        let Document { name, brief, layout } = store.revision(id, number)?;
        Ok(Json(Once { revision: number, name, brief, layout }))
    })
    .await
}

/// What a save is called.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub(crate) struct Called {
    /// At most 120 characters; null takes the name away.
    #[schema(max_length = 120)]
    #[serde(default)]
    name: Option<String>,
}

fogon_core::shape!(Called => |_: &Called| Ok(()));

/// Names a save, so that it is never thinned out
#[utoipa::path(put, path = "/api/v1/corners/{id}/revisions/{number}", params(("id" = i64, Path), ("number" = i64, Path)),
    request_body = Called,
    responses((status = 204), (status = 404, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn name(
    State(store): State<Shared>,
    Path((id, number)): Path<(i64, i64)>,
    Sent(Called { name }): Sent<Called>,
) -> Result<StatusCode, Details> {
    let name = name.map(|name| name.trim().to_owned()).filter(|name| !name.is_empty());
    blocking(move || Ok(store.name_revision(id, number, name.as_deref())?)).await?;
    Ok(StatusCode::NO_CONTENT)
}

/// Brings a save back as the newest one
#[utoipa::path(post, path = "/api/v1/corners/{id}/revisions/{number}/restore",
    params(("id" = i64, Path), ("number" = i64, Path), ("If-Match" = String, Header)),
    responses((status = 200, body = CornerKept), (status = 404, body = Details, content_type = "application/problem+json"),
        (status = 412, body = Details, content_type = "application/problem+json"), (status = 428, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn bring_back(
    State(store): State<Shared>,
    Path((id, number)): Path<(i64, i64)>,
    headers: HeaderMap,
) -> Result<Response, Details> {
    let revision = if_match(&headers)?;
    blocking(move || Ok(answer(StatusCode::OK, store.bring_back(id, revision, number)?))).await
}
