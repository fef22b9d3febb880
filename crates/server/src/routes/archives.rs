//! One corner or everything as one archive, out and in again.

use axum::Json;
use axum::extract::{FromRequest, Request, State};
use axum::http::{HeaderValue, StatusCode, header};
use axum::response::{IntoResponse, Response};
use fogon_store::{Archive, Outcome, Taking};
use serde::Deserialize;
use utoipa::{IntoParams, ToSchema};

use super::exports::file_name;
use super::{Path, Query, Shared, blocking, bytes_of};
use crate::problem::Details;

/// A larger archive is taken in on the command line, where it need not travel.
const MOST_BYTES: usize = 200_000_000;

/// A ZIP file.
#[derive(ToSchema)]
#[schema(value_type = String, format = Binary)]
#[allow(dead_code)]
pub(crate) struct Zip(Vec<u8>);

fn zip(bytes: Vec<u8>, name: &str) -> Response {
    let mut response = bytes.into_response();
    let headers = response.headers_mut();
    headers.insert(header::CONTENT_TYPE, HeaderValue::from_static("application/zip"));
    if let Ok(value) = HeaderValue::from_str(&format!("attachment; filename=\"{name}\"")) {
        headers.insert(header::CONTENT_DISPOSITION, value);
    }
    response
}

/// Everything as one archive: every save of every corner, and the own voice
#[utoipa::path(get, path = "/api/v1/archive", responses((status = 200, body = Zip, content_type = "application/zip")))]
pub(crate) async fn everything(State(store): State<Shared>) -> Result<Response, Details> {
    blocking(move || Ok(zip(store.archive(None)?, "fogon-archive.zip"))).await
}

/// One corner with all its saves as an archive
#[utoipa::path(get, path = "/api/v1/corners/{id}/archive", params(("id" = i64, Path)),
    responses((status = 200, body = Zip, content_type = "application/zip"), (status = 404, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn one(State(store): State<Shared>, Path(id): Path<i64>) -> Result<Response, Details> {
    blocking(move || {
        let (name, _) = store.raw(id)?;
        Ok(zip(store.archive(Some(id))?, &file_name(&name, "fogon.zip")))
    })
    .await
}

/// What happens to what is here already.
#[derive(Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub(crate) struct How {
    /// merge keeps it; replace puts what the archive does not hold into the bin (merge).
    #[param(inline)]
    taking: Option<Taking>,
}

impl How {
    fn taking(&self) -> Taking {
        self.taking.unwrap_or(Taking::Merge)
    }
}

/// Tells what taking an archive in would do; nothing is changed
#[utoipa::path(post, path = "/api/v1/archive/would", params(How), request_body(content = Vec<u8>, content_type = "application/zip"),
    responses((status = 200, body = Vec<Outcome>)))]
pub(crate) async fn would_take(
    State(store): State<Shared>,
    Query(how): Query<How>,
    Sealed(bytes): Sealed,
) -> Result<Json<Vec<Outcome>>, Details> {
    blocking(move || Ok(Json(store.would_take(&read(&bytes)?, how.taking())?))).await
}

/// Takes an archive in, whole or not at all; tells what it did
#[utoipa::path(post, path = "/api/v1/archive", params(How), request_body(content = Vec<u8>, content_type = "application/zip"),
    responses((status = 200, body = Vec<Outcome>)))]
pub(crate) async fn take(
    State(store): State<Shared>,
    Query(how): Query<How>,
    Sealed(bytes): Sealed,
) -> Result<Json<Vec<Outcome>>, Details> {
    blocking(move || Ok(Json(store.take(&read(&bytes)?, how.taking())?))).await
}

fn read(bytes: &[u8]) -> Result<Archive, Details> {
    Archive::read(bytes)
        .map_err(|bad| Details::new(StatusCode::UNPROCESSABLE_ENTITY, "bad_archive", bad.to_string()))
}

/// The bytes of an archive.
pub(crate) struct Sealed(Vec<u8>);

impl<S: Send + Sync> FromRequest<S> for Sealed {
    type Rejection = Details;

    async fn from_request(request: Request, _: &S) -> Result<Self, Details> {
        let words = "The archive is larger than 200 MB. Take it in with the command `fogon import`.";
        bytes_of(request, MOST_BYTES, words).await.map(Self)
    }
}
