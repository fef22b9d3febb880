//! The API under `/api/v1`, by job.

mod corners;
mod exports;
mod hear;
mod judge;
mod live;
mod reference;

use std::sync::Arc;

use axum::Router;
use axum::extract::{FromRequest, FromRequestParts};
use axum::http::StatusCode;
use axum::response::IntoResponse;
use fogon_core::document::{self, Shape};
use http_body_util::BodyExt;
use serde::de::DeserializeOwned;
use utoipa::OpenApi;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

use crate::problem::Details;
use crate::store::Store;

/// Bodies larger than this are refused; a plan may have 1 MB.
const BODY_BYTES: usize = 1_200_000;
/// So much of a refused body is read and dropped before the connection is.
const DROPPED_BYTES: usize = 40_000_000;

pub(crate) type Shared = Arc<Store>;

#[derive(OpenApi)]
#[openapi(info(
    title = "Fogon",
    description = "Corners, their assessment, proposals, changes and cards. Lengths in metres, angles in degrees. Errors are RFC 9457 problem details.",
    license(name = "MIT OR Apache-2.0")
))]
struct Head;

fn described() -> OpenApiRouter<Shared> {
    OpenApiRouter::with_openapi(Head::openapi())
        .routes(routes!(corners::list, corners::create))
        .routes(routes!(corners::get, corners::save, corners::delete))
        .routes(routes!(corners::undo))
        .routes(routes!(corners::redo))
        .routes(routes!(exports::plan_file))
        .routes(routes!(exports::card))
        .routes(routes!(judge::assess))
        .routes(routes!(judge::move_by_hand))
        .routes(routes!(corners::revisions))
        .routes(routes!(corners::revision))
        .routes(routes!(judge::choices))
        .routes(routes!(judge::angle))
        .routes(routes!(judge::light))
        .routes(routes!(judge::propose))
        .routes(routes!(judge::changes))
        .routes(routes!(judge::apply))
        .routes(routes!(judge::measured))
        .routes(routes!(judge::place))
        .routes(routes!(judge::walk))
        .routes(routes!(hear::sound))
        .routes(routes!(hear::picture))
        .routes(routes!(hear::treatment))
        .routes(routes!(hear::voice, hear::keep_voice, hear::forget_voice))
        .routes(routes!(reference::glossary))
        .routes(routes!(reference::schools))
        .routes(routes!(reference::catalogue))
        .routes(routes!(reference::materials))
        .routes(routes!(reference::plan_schema))
}

/// The routes with their description at `/api/v1/openapi.json`.
pub(crate) fn router(store: Shared) -> Router {
    let (router, _) = described().split_for_parts();
    router
        .route("/api/v1/hand", axum::routing::get(live::hand))
        .route("/api/v1/openapi.json", axum::routing::get(|| async { axum::Json(openapi()).into_response() }))
        .with_state(store)
}

/// The OpenAPI 3.1 document.
pub fn openapi() -> utoipa::openapi::OpenApi {
    described().split_for_parts().1
}

/// A document sent as JSON, held against its schema and against itself: the one way in for everything that is judged.
pub(crate) struct Sent<T>(pub(crate) T);

impl<S: Send + Sync, T: Shape + DeserializeOwned + Send + 'static> FromRequest<S> for Sent<T> {
    type Rejection = Details;

    async fn from_request(request: axum::extract::Request, state: &S) -> Result<Self, Details> {
        let Body(bytes) = Body::from_request(request, state).await?;
        blocking(move || Ok(Self(document::read(&bytes)?))).await
    }
}

/// What stands behind the question mark, refused in our own words.
#[derive(FromRequestParts)]
#[from_request(via(axum::extract::Query), rejection(Details))]
pub(crate) struct Query<T>(pub(crate) T);

/// What stands in the address, refused in our own words.
#[derive(FromRequestParts)]
#[from_request(via(axum::extract::Path), rejection(Details))]
pub(crate) struct Path<T>(pub(crate) T);

/// The body as bytes. Too large a body is refused in our own words, after the rest of it has
/// been read and dropped, so that a browser that is still sending hears the answer.
pub(crate) struct Body(pub(crate) Vec<u8>);

impl<S: Send + Sync> FromRequest<S> for Body {
    type Rejection = Details;

    async fn from_request(request: axum::extract::Request, _: &S) -> Result<Self, Details> {
        let words = "The document is larger than 1 MB, which is more than a plan can need.";
        bytes_of(request, BODY_BYTES, words).await.map(Self)
    }
}

/// A body of at most so many bytes; of a larger one the rest is read and dropped.
async fn bytes_of(
    request: axum::extract::Request,
    most_bytes: usize,
    too_large: &str,
) -> Result<Vec<u8>, Details> {
    let mut body = request.into_body();
    let (mut kept, mut seen) = (Vec::new(), 0);
    while let Some(frame) = body.frame().await {
        let broken = |_| {
            let title = "The request broke off before it was complete.";
            Details::new(StatusCode::BAD_REQUEST, "unreadable", title)
        };
        let Ok(data) = frame.map_err(broken)?.into_data() else { continue };
        seen += data.len();
        if seen <= most_bytes {
            kept.extend_from_slice(&data);
        } else if seen > most_bytes + DROPPED_BYTES {
            break;
        }
    }
    if seen > most_bytes {
        return Err(Details::new(StatusCode::PAYLOAD_TOO_LARGE, "too_large", too_large));
    }
    Ok(kept)
}

/// Runs work that computes or waits for the disk off the threads that answer.
pub(crate) async fn blocking<T: Send + 'static>(
    work: impl FnOnce() -> Result<T, Details> + Send + 'static,
) -> Result<T, Details> {
    tokio::task::spawn_blocking(work).await.unwrap_or_else(|error| {
        tracing::error!(%error, "a request failed");
        Err(Details::new(
            StatusCode::INTERNAL_SERVER_ERROR,
            "failed",
            "The request could not be worked out. This is a fault in the program; nothing was changed.",
        ))
    })
}
