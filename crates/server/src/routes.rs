//! The API under `/api/v1`, by job.

mod buy;
mod corners;
mod day;
mod exports;
mod hear;
mod judge;
mod judged;
mod lists;
mod live;
mod reference;
mod view;

use std::sync::Arc;
use std::sync::atomic::{AtomicBool, Ordering};

use axum::Router;
use axum::extract::{FromRef, FromRequest, FromRequestParts};
use axum::http::StatusCode;
use axum::response::IntoResponse;
use fogon_core::document::{self, Shape};
use fogon_core::money::Catalogue;
use fogon_store::Store;
use http_body_util::BodyExt;
use serde::de::DeserializeOwned;
use utoipa::OpenApi;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

use crate::desk::Desk;
use crate::problem::Details;
use crate::studio::Studio;

/// Bodies larger than this are refused; a plan may have 1 MB.
const BODY_BYTES: usize = 1_200_000;
/// So much of a refused body is read and dropped before the connection is.
const DROPPED_BYTES: usize = 40_000_000;

pub(crate) type Shared = Arc<Store>;

/// What requests share.
#[derive(Clone, FromRef)]
pub(crate) struct App {
    pub(crate) store: Shared,
    pub(crate) studio: Arc<Studio>,
    pub(crate) desk: Arc<Desk>,
    pub(crate) catalogue: Arc<Catalogue>,
}

#[derive(OpenApi)]
#[openapi(info(
    title = "Fogon",
    description = "Corners, their assessment, proposals, changes and cards. Lengths in metres, angles in degrees. Errors are RFC 9457 problem details.",
    license(name = "MIT OR Apache-2.0")
))]
struct Head;

fn described() -> OpenApiRouter<App> {
    OpenApiRouter::with_openapi(Head::openapi())
        .routes(routes!(corners::list, corners::create))
        .routes(routes!(corners::get, corners::save, corners::delete))
        .routes(routes!(corners::undo))
        .routes(routes!(corners::redo))
        .routes(routes!(corners::restore))
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
        .routes(routes!(judge::free_moves))
        .routes(routes!(buy::buy))
        .routes(routes!(day::day))
        .routes(routes!(day::hours))
        .routes(routes!(day::hours_file))
        .routes(routes!(day::year))
        .routes(routes!(day::sun))
        .routes(routes!(day::regions))
        .routes(routes!(lists::shelf))
        .routes(routes!(lists::shelf_table))
        .routes(routes!(lists::shopping))
        .routes(routes!(lists::ledger))
        .routes(routes!(judge::apply))
        .routes(routes!(judge::measured))
        .routes(routes!(judge::place))
        .routes(routes!(judge::again))
        .routes(routes!(judge::walk))
        .routes(routes!(view::picture))
        .routes(routes!(view::corner_picture))
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
pub(crate) fn router(app: App) -> Router {
    let (router, _) = described().split_for_parts();
    router
        .route("/api/v1/hand", axum::routing::get(live::hand))
        .route("/api/v1/view", axum::routing::get(view::view))
        .route("/api/v1/openapi.json", axum::routing::get(|| async { axum::Json(openapi()).into_response() }))
        .with_state(app)
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

/// Says that nobody waits any more, once it is dropped.
struct Awaited(Arc<AtomicBool>);

impl Drop for Awaited {
    fn drop(&mut self) {
        self.0.store(true, Ordering::Relaxed);
    }
}

/// As [`blocking`], for long work that asks whether anybody still waits for its answer: a page that is left or asks anew
/// does not keep a core busy.
pub(crate) async fn blocking_while_awaited<T: Send + 'static>(
    work: impl FnOnce(&(dyn Fn() -> bool + Sync)) -> Option<T> + Send + 'static,
) -> Result<T, Details> {
    let gone = Arc::new(AtomicBool::new(false));
    let awaited = Awaited(gone.clone());
    let answer = blocking(move || {
        let left = || Details::new(StatusCode::SERVICE_UNAVAILABLE, "left", "Nobody waited for the answer.");
        work(&|| gone.load(Ordering::Relaxed)).ok_or_else(left)
    })
    .await;
    drop(awaited);
    answer
}

#[cfg(test)]
mod tests {
    use std::time::{Duration, Instant};

    use super::*;

    /// Work whose request is dropped is told so, and ends.
    #[tokio::test(flavor = "multi_thread")]
    async fn work_that_nobody_waits_for_is_left() {
        let (began, ended) = (tokio::sync::oneshot::channel(), tokio::sync::oneshot::channel());
        let request = tokio::spawn(blocking_while_awaited(move |gone| {
            began.0.send(()).ok()?;
            let start = Instant::now();
            while !gone() && start.elapsed() < Duration::from_secs(60) {
                std::thread::yield_now();
            }
            ended.0.send(gone()).ok()
        }));
        began.1.await.unwrap();
        request.abort();
        assert!(ended.1.await.unwrap(), "it was told");
        assert!(blocking_while_awaited(|gone| (!gone()).then_some(1)).await.is_ok_and(|one| one == 1));
    }
}
