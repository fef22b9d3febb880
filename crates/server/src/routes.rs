//! The API under `/api/v1`, by job.

mod archives;
mod buy;
mod corners;
mod day;
mod exports;
mod floor;
mod hear;
mod history;
mod house;
mod judge;
mod judged;
mod lists;
mod live;
mod phone;
mod reference;
mod run;
mod take;
mod view;

use std::sync::Arc;
use std::sync::atomic::{AtomicBool, Ordering};
use std::time::{Duration, Instant};

use axum::Router;
use axum::extract::{DefaultBodyLimit, FromRef, FromRequest, FromRequestParts};
use axum::http::StatusCode;
use axum::middleware::from_fn_with_state;
use axum::response::IntoResponse;
use fogon_core::arrange::Stop;
use fogon_core::document::{self, Shape};
use fogon_core::money::Catalogue;
use fogon_store::Store;
use http_body_util::BodyExt;
use serde::de::DeserializeOwned;
use utoipa::OpenApi;
use utoipa::openapi::path::{Operation, ParameterIn};
use utoipa::openapi::{ContentBuilder, Ref, RefOr, ResponseBuilder};
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

use crate::desk::Desk;
use crate::phone::Phone;
use crate::problem::Details;
use crate::queue::{Line, Lines, in_line, my_turn};
use crate::studio::Studio;

/// Bodies larger than this are refused; a plan may have 1 MB.
const BODY_BYTES: usize = 1_200_000;
/// So much of a refused body is read and dropped before the connection is.
const DROPPED_BYTES: usize = 40_000_000;
/// The next piece of a body comes within this time, and all of it within the longer one.
const PIECE: Duration = Duration::from_secs(10);
const WHOLE: Duration = Duration::from_secs(60);
/// A search takes no longer than this: the best so far is its answer then.
pub(crate) const PATIENCE: Duration = Duration::from_secs(20);

pub(crate) type Shared = Arc<Store>;

/// What requests share.
#[derive(Clone, FromRef)]
pub(crate) struct App {
    pub(crate) store: Shared,
    pub(crate) studio: Arc<Studio>,
    pub(crate) desk: Arc<Desk>,
    pub(crate) catalogue: Arc<Catalogue>,
    pub(crate) lines: Lines,
    pub(crate) channels: live::Channels,
    pub(crate) phone: Arc<Phone>,
}

#[derive(OpenApi)]
#[openapi(info(
    title = "Fogon",
    description = "Corners, their assessment, proposals, changes and cards. Lengths in metres, angles in degrees. Errors are RFC 9457 problem details.",
    license(name = "MIT OR Apache-2.0")
))]
struct Head;

/// What reads, saves or looks up. What of it computes now and then stands in line for that alone.
fn kept() -> OpenApiRouter<App> {
    OpenApiRouter::with_openapi(Head::openapi())
        .routes(routes!(corners::list, corners::create))
        .routes(routes!(corners::get, corners::save, corners::delete))
        .routes(routes!(corners::undo))
        .routes(routes!(corners::redo))
        .routes(routes!(exports::plan_file))
        .routes(routes!(exports::card))
        .routes(routes!(view::corner_picture))
        .routes(routes!(history::revisions))
        .routes(routes!(history::revision, history::name))
        .routes(routes!(history::bring_back))
        .routes(routes!(floor::laying))
        .routes(routes!(floor::tick))
        .routes(routes!(phone::door, phone::open, phone::shut))
        .routes(routes!(phone::put_out))
        .routes(routes!(house::deleted, house::empty_bin))
        .routes(routes!(house::restore, house::delete_for_good))
        .routes(routes!(house::thinning, house::choose_thinning))
        .routes(routes!(house::file, house::snapshot))
        .routes(routes!(run::add))
        .routes(routes!(run::as_file))
        .routes(routes!(run::delete_session))
        .routes(routes!(run::logging, run::choose_logging))
        .routes(routes!(archives::everything, archives::take))
        .routes(routes!(archives::one))
        .routes(routes!(archives::would_take))
        .routes(routes!(day::regions))
        .routes(routes!(lists::shelf))
        .routes(routes!(lists::shelf_table))
        .routes(routes!(lists::shopping))
        .routes(routes!(lists::ledger))
        .routes(routes!(hear::voice, hear::keep_voice, hear::forget_voice))
        .routes(routes!(reference::glossary))
        .routes(routes!(reference::schools))
        .routes(routes!(reference::catalogue))
        .routes(routes!(reference::materials))
        .routes(routes!(reference::plan_schema))
}

/// What computes for some milliseconds.
fn short() -> OpenApiRouter<App> {
    OpenApiRouter::new()
        .routes(routes!(judge::assess))
        .routes(routes!(judge::move_by_hand))
        .routes(routes!(judge::choices))
        .routes(routes!(judge::angle))
        .routes(routes!(judge::light))
        .routes(routes!(judge::apply))
        .routes(routes!(judge::measured))
        .routes(routes!(judge::place))
        .routes(routes!(judge::walk))
        .routes(routes!(floor::laid))
        .routes(routes!(floor::ready))
        .routes(routes!(run::of_plan))
        .routes(routes!(run::of_corner))
        .routes(routes!(run::sessions))
        .merge(takes())
        .routes(routes!(day::day))
        .routes(routes!(day::hours))
        .routes(routes!(day::hours_file))
        .routes(routes!(day::year))
        .routes(routes!(day::sun))
        .routes(routes!(hear::sound))
        .routes(routes!(hear::picture))
        .routes(routes!(hear::treatment))
}

/// Files of a take, which are larger than a document.
fn takes() -> OpenApiRouter<App> {
    OpenApiRouter::new()
        .routes(routes!(take::of_sound))
        .routes(routes!(take::fitted))
        .routes(routes!(take::of_still))
        // Each part has a bound of its own.
        .layer(DefaultBodyLimit::disable())
}

/// What searches for some seconds. The advice on purchases stands in the same line by itself.
fn long() -> OpenApiRouter<App> {
    OpenApiRouter::new()
        .routes(routes!(judge::propose))
        .routes(routes!(judge::free_moves))
        .routes(routes!(judge::again))
}

/// What uses every processor for a picture.
fn pictures() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(view::picture))
}

fn described(lines: &Lines) -> OpenApiRouter<App> {
    let waiting = |routes: OpenApiRouter<App>, line: &Line| {
        routes.route_layer(from_fn_with_state(line.clone(), in_line))
    };
    kept()
        .routes(routes!(phone::pair))
        .routes(routes!(phone::corners))
        .routes(routes!(buy::buy))
        .merge(waiting(short(), &lines.short))
        .merge(waiting(long(), &lines.long))
        .merge(waiting(pictures(), &lines.pictures))
}

/// The routes with their description at `/api/v1/openapi.json`.
pub(crate) fn router(app: App) -> Router {
    let (router, _) = described(&app.lines).split_for_parts();
    router
        .route("/api/v1/hand", axum::routing::get(live::hand))
        .route("/api/v1/view", axum::routing::get(view::view))
        .route("/api/v1/openapi.json", axum::routing::get(|| async { axum::Json(openapi()).into_response() }))
        .with_state(app)
}

/// What a phone may do: lay marks and tick them, count takes.
fn on_phones() -> OpenApiRouter<App> {
    OpenApiRouter::new()
        .routes(routes!(phone::pair))
        .routes(routes!(phone::corners))
        .routes(routes!(floor::laying))
        .routes(routes!(floor::tick))
        .routes(routes!(run::of_corner))
        .routes(routes!(run::add))
}

/// The routes at the door to the phone.
pub(crate) fn phone_router(app: App) -> Router {
    on_phones().split_for_parts().0.with_state(app)
}

/// The OpenAPI 3.1 document.
pub fn openapi() -> utoipa::openapi::OpenApi {
    let mut document = described(&Lines::new()).split_for_parts().1;
    for item in document.paths.paths.values_mut() {
        let operations = [&mut item.get, &mut item.put, &mut item.post, &mut item.delete, &mut item.patch];
        for operation in operations.into_iter().flatten() {
            everywhere(operation);
        }
    }
    document
}

/// Refusals that every request may meet, whatever it asks.
fn everywhere(operation: &mut Operation) {
    let mut refusals = vec![
        ("400", "What stands behind the question mark, or the request itself, cannot be read"),
        ("401", "The browser was not let in: open the address that was printed at start"),
        ("403", "The request comes from elsewhere than this server's pages"),
        ("500", "A fault, or the file cannot be written: the sentence says which"),
        ("503", "Too much is being worked on"),
    ];
    if operation.request_body.is_some() {
        refusals.extend([
            ("408", "The request did not arrive in time"),
            ("413", "The document is too large"),
            ("422", "The document is not accepted: every refused field is named"),
        ]);
    }
    let parameters = operation.parameters.iter().flatten();
    for parameter in parameters {
        let RefOr::T(parameter) = parameter else { continue };
        match (&parameter.parameter_in, parameter.name.as_str()) {
            (ParameterIn::Path, _) => refusals.push(("404", "There is no such thing")),
            (ParameterIn::Header, "If-Match") => refusals.extend([
                ("412", "It was changed elsewhere meanwhile"),
                ("428", "If-Match is missing: say which revision was changed"),
            ]),
            _ => {}
        }
    }
    for (status, words) in refusals {
        let refusal = || {
            let content = ContentBuilder::new().schema(Some(Ref::from_schema_name("Details"))).build();
            ResponseBuilder::new().description(words).content("application/problem+json", content).build()
        };
        operation.responses.responses.entry(status.to_owned()).or_insert_with(|| refusal().into());
    }
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
    let began = Instant::now();
    loop {
        let piece = PIECE.min(WHOLE.saturating_sub(began.elapsed()));
        let Some(frame) = tokio::time::timeout(piece, body.frame()).await.map_err(|_| too_slow())? else {
            break;
        };
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

fn too_slow() -> Details {
    let words = "The request did not arrive in time. Send it again.";
    Details::new(StatusCode::REQUEST_TIMEOUT, "too_slow", words)
}

/// Runs work that computes or waits for the disk off the threads that answer, once it is its turn where its route has a line.
pub(crate) async fn blocking<T: Send + 'static>(
    work: impl FnOnce() -> Result<T, Details> + Send + 'static,
) -> Result<T, Details> {
    let turn = my_turn().await?;
    let work = move || {
        let _turn = turn;
        work()
    };
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

/// As [`blocking_while_awaited`], for a search: left when nobody waits, ended with the best so far when its time is up.
pub(crate) async fn searching<T: Send + 'static>(
    work: impl FnOnce(Stop<'_>) -> Option<T> + Send + 'static,
) -> Result<T, Details> {
    blocking_while_awaited(move |gone| {
        let began = Instant::now();
        work(Stop::when(gone).or_late(&|| began.elapsed() > PATIENCE))
    })
    .await
}

#[cfg(test)]
mod tests {
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
