//! What is kept, how long and where: the bin, the rule by which saves are thinned, the file and its snapshots.

use axum::Json;
use axum::extract::State;
use axum::http::StatusCode;
use axum::response::Response;
use fogon_store::doctor::{Report, examine};
use fogon_store::{Deleted, Snapshot, Thinning};
use serde::Serialize;
use utoipa::ToSchema;

use super::corners::{CornerKept, answer};
use super::{Path, Sent, Shared, blocking};
use crate::problem::Details;

/// What was deleted and can be brought back, the last first
#[utoipa::path(get, path = "/api/v1/bin", responses((status = 200, body = Vec<Deleted>)))]
pub(crate) async fn deleted(State(store): State<Shared>) -> Result<Json<Vec<Deleted>>, Details> {
    blocking(move || Ok(Json(store.deleted()?))).await
}

/// Brings a deleted corner back
#[utoipa::path(post, path = "/api/v1/bin/{id}", params(("id" = i64, Path)),
    responses((status = 200, body = CornerKept), (status = 404, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn restore(State(store): State<Shared>, Path(id): Path<i64>) -> Result<Response, Details> {
    blocking(move || Ok(answer(StatusCode::OK, store.restore(id)?))).await
}

/// Deletes a corner that lies in the bin for good
#[utoipa::path(delete, path = "/api/v1/bin/{id}", params(("id" = i64, Path)),
    responses((status = 204), (status = 404, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn delete_for_good(
    State(store): State<Shared>,
    Path(id): Path<i64>,
) -> Result<StatusCode, Details> {
    let gone = blocking(move || Ok(store.empty_bin(Some(id))?)).await?;
    if gone == 0 { Err(Details::not_found("corner in the bin")) } else { Ok(StatusCode::NO_CONTENT) }
}

/// Deletes everything in the bin for good
#[utoipa::path(delete, path = "/api/v1/bin", responses((status = 204)))]
pub(crate) async fn empty_bin(State(store): State<Shared>) -> Result<StatusCode, Details> {
    blocking(move || Ok(store.empty_bin(None)?)).await?;
    Ok(StatusCode::NO_CONTENT)
}

/// By which rule old saves are thinned
#[utoipa::path(get, path = "/api/v1/thinning", responses((status = 200, body = Thinning)))]
pub(crate) async fn thinning(State(store): State<Shared>) -> Result<Json<Thinning>, Details> {
    blocking(move || Ok(Json(store.thinning()?))).await
}

/// Changes the rule by which old saves are thinned
#[utoipa::path(put, path = "/api/v1/thinning", request_body = Thinning, responses((status = 204)))]
pub(crate) async fn choose_thinning(
    State(store): State<Shared>,
    Sent(rule): Sent<Thinning>,
) -> Result<StatusCode, Details> {
    blocking(move || Ok(store.choose_thinning(rule)?)).await?;
    Ok(StatusCode::NO_CONTENT)
}

/// Where the corners lie, and how the file is.
#[derive(Serialize, ToSchema)]
pub(crate) struct FileTold {
    /// The file.
    path: String,
    /// How large it is, bytes.
    bytes: u64,
    /// What was found in it.
    report: Report,
}

/// Looks the file through: where it lies, what is wrong with it, which snapshots there are
#[utoipa::path(get, path = "/api/v1/file", responses((status = 200, body = FileTold)))]
pub(crate) async fn file(State(store): State<Shared>) -> Result<Json<FileTold>, Details> {
    blocking(move || {
        let path = store.path();
        let report = examine(path)?;
        let bytes = std::fs::metadata(path).map_or(0, |file| file.len());
        Ok(Json(FileTold { path: path.display().to_string(), bytes, report }))
    })
    .await
}

/// Takes a snapshot of everything now
#[utoipa::path(post, path = "/api/v1/file", responses((status = 201, body = Snapshot)))]
pub(crate) async fn snapshot(State(store): State<Shared>) -> Result<(StatusCode, Json<Snapshot>), Details> {
    blocking(move || Ok((StatusCode::CREATED, Json(store.snapshot()?)))).await
}
