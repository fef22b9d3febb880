//! The door to the phone: opened, shut and told on this machine; the code is given on the phone.

use std::net::SocketAddr;
use std::time::Instant;

use axum::extract::{ConnectInfo, State};
use axum::http::{HeaderValue, StatusCode, header};
use axum::middleware::from_fn_with_state;
use axum::response::{IntoResponse, Response};
use axum::{Extension, Json};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::{App, Path, Sent, Shared, blocking, phone_router};
use crate::pages;
use crate::phone::{Admitting, DoorTold, Refusal, SESSION_S, admit, cookie_name};
use crate::problem::Details;

/// How the door to the phone stands
#[utoipa::path(get, path = "/api/v1/phone", responses((status = 200, body = DoorTold)))]
pub(crate) async fn door(State(app): State<App>) -> Json<DoorTold> {
    Json(app.phone.told())
}

/// Opens the door: Fogon listens on the home network from now on
#[utoipa::path(post, path = "/api/v1/phone", responses((status = 200, body = DoorTold),
    (status = 409, body = Details, content_type = "application/problem+json", description = "This machine is on no network")))]
pub(crate) async fn open(State(app): State<App>) -> Result<Json<DoorTold>, Details> {
    let behind = app.clone();
    let application = move |sessions, address| {
        let admitting = Admitting { sessions, address };
        phone_router(behind)
            .fallback(pages::page)
            .layer(Extension(admitting.clone()))
            .layer(from_fn_with_state(admitting, admit))
    };
    app.phone.open(application).await?;
    Ok(Json(app.phone.told()))
}

/// Shuts the door: Fogon listens on this machine alone, and every phone is put out
#[utoipa::path(delete, path = "/api/v1/phone", responses((status = 204)))]
pub(crate) async fn shut(State(app): State<App>) -> StatusCode {
    app.phone.shut();
    StatusCode::NO_CONTENT
}

/// Puts one phone out
#[utoipa::path(delete, path = "/api/v1/phone/{number}", params(("number" = u32, Path)),
    responses((status = 204), (status = 404, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn put_out(State(app): State<App>, Path(number): Path<u32>) -> Result<StatusCode, Details> {
    if app.phone.put_out(number) { Ok(StatusCode::NO_CONTENT) } else { Err(Details::not_found("phone")) }
}

/// The code that the computer shows.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub(crate) struct PairIn {
    #[schema(pattern = "^[0-9]{6}$")]
    code: String,
}

fogon_core::shape!(PairIn => |_: &PairIn| Ok(()));

/// Lets this phone in that knows the code; on the home network alone
#[utoipa::path(post, path = "/api/v1/phone/pair", request_body = PairIn, responses((status = 204),
    (status = 404, body = Details, content_type = "application/problem+json", description = "Here no phone is let in"),
    (status = 409, body = Details, content_type = "application/problem+json", description = "As many phones as there may be"),
    (status = 429, body = Details, content_type = "application/problem+json", description = "Too many wrong codes")))]
pub(crate) async fn pair(
    admitting: Option<Extension<Admitting>>,
    peer: Option<Extension<ConnectInfo<SocketAddr>>>,
    Sent(PairIn { code }): Sent<PairIn>,
) -> Result<Response, Details> {
    // On this machine itself nobody needs a code.
    let (Some(Extension(admitting)), Some(Extension(ConnectInfo(peer)))) = (admitting, peer) else {
        return Err(Details::not_found("door to a phone here"));
    };
    let paired = admitting.sessions.lock().pair(&code, peer.ip(), Instant::now());
    let token = paired.map_err(refusal)?;
    let name = cookie_name(admitting.address.port());
    let cookie = format!("{name}={token}; Path=/; Max-Age={SESSION_S}; HttpOnly; SameSite=Strict");
    let mut response = StatusCode::NO_CONTENT.into_response();
    if let Ok(cookie) = HeaderValue::from_str(&cookie) {
        response.headers_mut().insert(header::SET_COOKIE, cookie);
    }
    Ok(response)
}

fn refusal(refusal: Refusal) -> Details {
    match refusal {
        Refusal::Wrong => Details::new(
            StatusCode::UNAUTHORIZED,
            "wrong_code",
            "That is not the code. Look again: each one is good for one phone and for five minutes.",
        ),
        Refusal::Pause(pause_s) => Details::new(
            StatusCode::TOO_MANY_REQUESTS,
            "too_many_codes",
            format!("Too many wrong codes. Wait {pause_s} seconds, then type the one that is shown."),
        ),
        Refusal::Full => Details::new(
            StatusCode::CONFLICT,
            "too_many_phones",
            "Eight phones are let in already. Put one out on the computer first.",
        ),
    }
}

/// A corner to lay.
#[derive(Serialize, ToSchema)]
pub(crate) struct ToLay {
    id: i64,
    name: String,
}

/// So many corners are named on a phone.
const NAMED: usize = 100;

/// The corners that can be laid, the last saved first
#[utoipa::path(get, path = "/api/v1/phone/corners", responses((status = 200, body = Vec<ToLay>)))]
pub(crate) async fn corners(State(store): State<Shared>) -> Result<Json<Vec<ToLay>>, Details> {
    blocking(move || {
        let page = store.page(None, NAMED, "", crate::BUILD)?;
        Ok(Json(page.entries.into_iter().map(|entry| ToLay { id: entry.id, name: entry.name }).collect()))
    })
    .await
}
