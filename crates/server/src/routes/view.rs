//! The viewfinder: one WebSocket for each picture that is looked at, and pictures by themselves.
//!
//! In, as text: `{"generation": n, "plan": .., "width": .., "overlay": "none" | "clipping" | "stops", "hour": {"utc": .., "sky":
//! "clear" | "overcast"}}` takes up a plan, a later one in place of an earlier, with an hour as it looks then with nothing drawn
//! before the windows; `{"seen": n}` says that a picture was drawn, and only then the next is sent; `{"look": [x, y]}` asks what
//! is at a place. Out: as text what a look found or problem details; as bytes a picture: generation, width, height, samples (the
//! highest bit set on the last one) and the length of what it tells as five little-endian 32-bit numbers, what it tells as JSON,
//! then red, green, blue and opacity of each pixel.

use std::borrow::Cow;
use std::sync::Arc;

use axum::extract::ws::{Message, WebSocket};
use axum::extract::{State, WebSocketUpgrade};
use axum::http::header;
use axum::response::{IntoResponse, Response};
use fogon_core::corner::Corner;
use fogon_core::day::{Hour, hour_light, with_windows_open};
use fogon_core::document;
use fogon_core::plan::Plan;
use fogon_core::problem::{Code, Problem, Problems};
use fogon_viewfinder::lens::size_px;
use fogon_viewfinder::overlay::Overlay;
use fogon_viewfinder::viewing::{GoneOn, Picture, TakenUp, Viewing, Wanted};
use futures_util::{SinkExt, StreamExt};
use serde::{Deserialize, Serialize};
use serde_json::Value;
use tokio::sync::{Notify, SemaphorePermit, mpsc, watch};
use utoipa::{IntoParams, ToSchema};

use super::{BODY_BYTES, Path, Query, Sent, Shared, blocking, blocking_while_awaited};
use crate::BUILD;
use crate::problem::Details;
use crate::queue::{Lines, computing_in};
use crate::studio::{Of, Still, Studio, Viewfinder, WIDTHS};

/// What is asked to be shown.
#[derive(Clone)]
struct Asked {
    generation: u32,
    plan: Arc<Plan>,
    width: usize,
    overlay: Overlay,
    hour: Option<Hour>,
}

/// What comes over the channel.
#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct Told {
    #[serde(default)]
    generation: Option<u32>,
    #[serde(default)]
    plan: Option<Value>,
    #[serde(default)]
    width: Option<usize>,
    #[serde(default)]
    overlay: Option<Overlay>,
    #[serde(default)]
    hour: Option<Hour>,
    #[serde(default)]
    seen: Option<u32>,
    #[serde(default)]
    look: Option<[f32; 2]>,
}

/// What a picture tells beside its pixels.
#[derive(Serialize)]
struct Beside {
    face_stops: f32,
    clipped_percent: f32,
    sides_stops: Option<[f32; 2]>,
    /// Places on the face: which, from the left, from the top, stops over the face.
    spots: Vec<(usize, f32, f32, f32)>,
}

/// Opens the channel.
pub(crate) async fn view(State(studio): State<Arc<Studio>>, upgrade: WebSocketUpgrade) -> Response {
    upgrade
        .max_message_size(BODY_BYTES)
        .max_frame_size(BODY_BYTES)
        .on_upgrade(move |socket| serve(socket, studio))
}

/// Reads what is asked, on one side; a thread of its own looks, on the other.
async fn serve(socket: WebSocket, studio: Arc<Studio>) {
    let (mut out, mut incoming) = socket.split();
    let viewfinder = match studio.viewfinder() {
        Ok(viewfinder) => viewfinder,
        Err(details) => {
            // Told once; whoever closed the channel would be asked again and again.
            let words = serde_json::to_string(&details).unwrap_or_default();
            if out.send(Message::Text(words.into())).await.is_ok() {
                while let Some(Ok(_)) = incoming.next().await {}
            }
            return;
        }
    };
    let (ask, asked) = watch::channel::<Option<Asked>>(None);
    let (looks, to_look) = std::sync::mpsc::channel::<[f32; 2]>();
    // One picture is under way: the next waits until it was drawn.
    let (send, mut to_send) = mpsc::channel::<Message>(4);
    let drawn = Arc::new(Notify::new());
    let looking = {
        let (send, drawn) = (send.clone(), drawn.clone());
        let waits = tokio::runtime::Handle::current();
        std::thread::Builder::new().name("viewfinder".into()).spawn(move || {
            Looking { studio: viewfinder, asked, to_look, send, drawn, waits, viewing: Viewing::default() }
                .run();
        })
    };
    if let Err(error) = looking {
        tracing::error!(%error, "no thread for a viewfinder");
        return;
    }
    loop {
        tokio::select! {
            message = to_send.recv() => {
                let Some(message) = message else { return };
                if out.send(message).await.is_err() {
                    break;
                }
            }
            message = incoming.next() => {
                let Some(Ok(message)) = message else { break };
                let Message::Text(text) = message else { continue };
                let before = ask.borrow().clone();
                match read(text.as_bytes(), before.as_ref()) {
                    Ok(Read::Plan(new)) => {
                        ask.send_replace(Some(new));
                    }
                    Ok(Read::Seen) => drawn.notify_one(),
                    Ok(Read::Look(at)) => {
                        if looks.send(at).is_err() {
                            break;
                        }
                        // Wakes the thread where it waits, or has it stop for a moment.
                        ask.send_modify(|_| {});
                    }
                    Err(details) => {
                        let words = serde_json::to_string(&details).unwrap_or_default();
                        if out.send(Message::Text(words.into())).await.is_err() {
                            break;
                        }
                    }
                }
            }
        }
    }
    // Whoever looks stops: nobody is there.
    drop(ask);
    drawn.notify_one();
}

enum Read {
    Plan(Asked),
    Seen,
    Look([f32; 2]),
}

fn read(text: &[u8], before: Option<&Asked>) -> Result<Read, Details> {
    let refused = |field: &str, value: &str, accepted: &str| {
        Details::from(Problems::from(Problem::new(field, value, accepted, Code::WrongType)))
    };
    let value = document::parse(text).map_err(Problems::from)?;
    let told: Told = serde_json::from_value(value).map_err(|error| {
        refused(
            "message",
            &error.to_string(),
            "a plan to show, a picture that was seen, or a place to look at",
        )
    })?;
    if let Some(at) = told.look {
        return Ok(Read::Look(at.map(|part| if part.is_finite() { part.clamp(0.0, 1.0) } else { 0.5 })));
    }
    if told.seen.is_some() {
        return Ok(Read::Seen);
    }
    let plan = match told.plan {
        Some(plan) => Arc::new(document::from_value::<Plan>(plan)?),
        None => before
            .map(|before| before.plan.clone())
            .ok_or_else(|| refused("plan", "none", "a plan at first"))?,
    };
    let width = told.width.or(before.map(|before| before.width)).unwrap_or(960);
    if !WIDTHS.contains(&width) {
        let accepted = format!("a width from {} to {} pixels", WIDTHS.start(), WIDTHS.end());
        return Err(refused("width", &width.to_string(), &accepted));
    }
    let overlay = told.overlay.or(before.map(|before| before.overlay)).unwrap_or_default();
    Ok(Read::Plan(Asked { generation: told.generation.unwrap_or(0), plan, width, overlay, hour: told.hour }))
}

/// One who looks through a viewfinder.
struct Looking {
    studio: Viewfinder,
    asked: watch::Receiver<Option<Asked>>,
    to_look: std::sync::mpsc::Receiver<[f32; 2]>,
    send: mpsc::Sender<Message>,
    drawn: Arc<Notify>,
    waits: tokio::runtime::Handle,
    viewing: Viewing,
}

impl Looking {
    fn run(mut self) {
        let mut is_finished = true;
        let mut shown: Option<Asked> = None;
        loop {
            self.answer_looks();
            // While there is nothing finer to come, wait for another plan.
            if is_finished && self.waits.block_on(self.asked.changed()).is_err() {
                return;
            }
            if self.asked.has_changed().is_err() {
                return;
            }
            let asked = self.asked.borrow_and_update().clone();
            let Some(asked) = asked else { continue };
            let is_new = shown.as_ref().is_none_or(|before| !is_same(before, &asked));
            if !is_new && is_finished {
                continue;
            }
            // The first, coarse picture is there sooner than a hand stops: under a drag one follows the other. What makes it finer
            // is left for a newer plan and for a place to look at.
            let asked_for = self.asked.clone();
            let is_there = || asked_for.has_changed().is_ok();
            let studio = &self.studio.0;
            let goes_on = || matches!(asked_for.has_changed(), Ok(false)) && studio.is_free();
            let outcome = if is_new {
                take_up(studio, &mut self.viewing, &asked, &is_there)
            } else {
                let turn = self.waits.block_on(turn_or_newer(studio, asked_for.clone()));
                if turn.is_none() {
                    continue;
                }
                Ok(studio.work(|| self.viewing.go_on(&goes_on)) == GoneOn::Finer)
            };
            match outcome {
                Ok(true) => {
                    shown = Some(asked.clone());
                    let viewing = &self.viewing;
                    let picture = self.studio.0.work(|| viewing.picture(asked.overlay));
                    let Some(picture) = picture else { continue };
                    is_finished = picture.is_finished;
                    if !self.show(&asked, &picture) {
                        return;
                    }
                }
                // Nothing to show yet, or left for something newer, which is looked at next.
                Ok(false) => is_finished = false,
                Err(problems) => {
                    is_finished = true;
                    shown = None;
                    let words = serde_json::to_string(&Details::from(problems)).unwrap_or_default();
                    if self.send.blocking_send(Message::Text(words.into())).is_err() {
                        return;
                    }
                }
            }
        }
    }

    /// Sends a picture and waits until it was drawn; false when nobody is there.
    fn show(&self, asked: &Asked, picture: &Picture) -> bool {
        if self.send.blocking_send(Message::Binary(bytes(asked.generation, picture).into())).is_err() {
            return false;
        }
        self.waits.block_on(self.drawn.notified());
        !self.send.is_closed()
    }

    fn answer_looks(&self) {
        let viewing = &self.viewing;
        while let Ok(at) = self.to_look.try_recv() {
            let Some(found) = self.studio.0.work(|| viewing.look(at)) else { continue };
            let words = serde_json::to_string(&found).unwrap_or_default();
            if self.send.blocking_send(Message::Text(words.into())).is_err() {
                return;
            }
        }
    }
}

/// A turn at a finer picture; none when something else was asked for meanwhile.
async fn turn_or_newer(
    studio: &Studio,
    mut asked: watch::Receiver<Option<Asked>>,
) -> Option<SemaphorePermit<'_>> {
    tokio::select! {
        biased;
        _ = asked.changed() => None,
        turn = studio.turn() => turn,
    }
}

fn is_same(a: &Asked, b: &Asked) -> bool {
    Arc::ptr_eq(&a.plan, &b.plan)
        && a.width == b.width
        && a.overlay == b.overlay
        && a.generation == b.generation
}

fn take_up(
    studio: &Studio,
    viewing: &mut Viewing,
    asked: &Asked,
    goes_on: &(dyn Fn() -> bool + Sync),
) -> Result<bool, Problems> {
    let plan = match &asked.hour {
        Some(_) => Cow::Owned(with_windows_open(&asked.plan)),
        None => Cow::Borrowed(asked.plan.as_ref()),
    };
    let corner = Corner::resolved(&plan)?;
    let hour = asked.hour.as_ref().map(|hour| hour_light(&corner, hour)).transpose()?;
    let wanted = Wanted { hour, ..Wanted::whole(&corner, size_px(&corner, asked.width)) };
    let _first = studio.first();
    let taken = studio.work(|| viewing.take_up(&corner, &plan, &wanted, goes_on));
    Ok(taken != TakenUp::Left)
}

fn bytes(generation: u32, picture: &Picture) -> Vec<u8> {
    const LAST: u32 = 1 << 31;
    let told = Beside {
        face_stops: picture.told.face_stops,
        clipped_percent: 100.0 * picture.told.clipped_part,
        sides_stops: picture.told.sides_stops,
        spots: picture.told.spots.iter().map(|spot| (spot.which, spot.x, spot.y, spot.stops)).collect(),
    };
    let told = serde_json::to_vec(&told).unwrap_or_default();
    let samples = picture.samples | if picture.is_finished { LAST } else { 0 };
    let numbers = [generation, picture.width as u32, picture.height as u32, samples, told.len() as u32];
    let mut bytes: Vec<u8> = numbers.into_iter().flat_map(u32::to_le_bytes).collect();
    bytes.extend(told);
    bytes.extend(&picture.pixels);
    bytes
}

#[derive(Deserialize, IntoParams)]
pub(crate) struct Wide {
    /// Pixels across, of a portrait picture down (480).
    #[serde(default)]
    width: Option<usize>,
}

/// A PNG.
#[derive(ToSchema)]
#[schema(value_type = String, format = Binary)]
#[allow(dead_code)]
pub(crate) struct Png(Vec<u8>);

fn png(bytes: &[u8]) -> Response {
    ([(header::CONTENT_TYPE, "image/png")], bytes.to_vec()).into_response()
}

/// A plan, and what is wanted of its picture.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub(crate) struct PictureIn {
    /// The plan.
    plan: Plan,
    /// Pixels across, of a portrait picture down (480).
    #[serde(default)]
    #[schema(minimum = 64, maximum = 1920)]
    width: Option<usize>,
    /// Which part of it (the whole).
    #[serde(default)]
    of: Of,
    /// The plan by whose camera settings it is exposed (its own): two pictures that stand beside each other.
    #[serde(default)]
    like: Option<Plan>,
}

fogon_core::shape!(
    PictureIn => |asked: &PictureIn| {
        asked.plan.check()?;
        asked.like.as_ref().map_or(Ok(()), Plan::check)
    },
);

/// A plan's picture
#[utoipa::path(post, path = "/api/v1/picture", operation_id = "picture", request_body = PictureIn,
    responses((status = 200, body = Png, content_type = "image/png"),
        (status = 409, body = Details, content_type = "application/problem+json", description = "Pictures are switched off"),
        (status = 422, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn picture(
    State(studio): State<Arc<Studio>>,
    Sent(asked): Sent<PictureIn>,
) -> Result<Response, Details> {
    let PictureIn { plan, width, of, like } = asked;
    still(&studio, plan, Still { width: width.unwrap_or(WIDTH), of, like }).await
}

/// The picture of a corner as it is saved
#[utoipa::path(get, path = "/api/v1/corners/{id}/picture", operation_id = "corner_picture",
    params(("id" = i64, Path), Wide),
    responses((status = 200, body = Png, content_type = "image/png"),
        (status = 409, body = Details, content_type = "application/problem+json", description = "Pictures are switched off"),
        (status = 404, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn corner_picture(
    State(store): State<Shared>,
    State(studio): State<Arc<Studio>>,
    State(lines): State<Lines>,
    Path(id): Path<i64>,
    Query(Wide { width }): Query<Wide>,
) -> Result<Response, Details> {
    studio.is_open()?;
    let width = width.unwrap_or(WIDTH);
    let there = store.clone();
    if let Some(file) = blocking(move || Ok(there.picture(id, width, BUILD)?)).await? {
        return Ok(png(&file));
    }
    let there = store.clone();
    let (revision, plan) = blocking(move || super::corners::plan_of(&there, id)).await?;
    let taken = computing_in(lines.pictures, taken(&studio, plan, Still::whole(width))).await?;
    let file = taken.clone();
    blocking(move || {
        // A picture that is taken again the next time is no loss.
        if let Err(error) = store.keep_picture((id, revision), width, BUILD, &file) {
            tracing::warn!(%error, "a picture is not kept");
        }
        Ok(())
    })
    .await?;
    Ok(png(&taken))
}

/// Width of a picture where none is told.
const WIDTH: usize = 480;

async fn still(studio: &Arc<Studio>, plan: Plan, wanted: Still) -> Result<Response, Details> {
    studio.is_open()?;
    Ok(png(&taken(studio, plan, wanted).await?))
}

async fn taken(studio: &Arc<Studio>, plan: Plan, wanted: Still) -> Result<Arc<Vec<u8>>, Details> {
    let studio = Arc::clone(studio);
    let taken =
        blocking_while_awaited(move |gone| studio.still(&plan, &wanted, &|| !gone()).transpose()).await?;
    Ok(taken?)
}
