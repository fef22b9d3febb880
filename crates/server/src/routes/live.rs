//! The live channel of a dragging hand: one WebSocket for each page, one move at a time. It answers as `POST /api/v1/move` does; the
//! plan that a drag begins from is sent once and kept for the moves that follow.

use std::sync::Arc;

use axum::extract::ws::{Message, WebSocket};
use axum::extract::{State, WebSocketUpgrade};
use axum::http::StatusCode;
use axum::response::Response;
use fogon_core::document;
use fogon_core::hand::{Move, moved};
use fogon_core::plan::Plan;
use fogon_core::problem::{Code, Problem, Problems};
use serde_json::Value;
use tokio::sync::{OwnedSemaphorePermit, Semaphore};

use super::judged::{Drawn, MovedOut};
use super::{BODY_BYTES, blocking};
use crate::problem::Details;
use crate::queue::{Lines, computing_in};

/// Opens the channel. Messages in: `{"plan": .. (at first, and when another), "move": .., "drawn": ..}`; out: what
/// `/api/v1/move` answers, or problem details.
pub(crate) async fn hand(
    State(channels): State<Channels>,
    State(lines): State<Lines>,
    upgrade: WebSocketUpgrade,
) -> Result<Response, Details> {
    let channel = channels.open()?;
    let upgrade = upgrade.max_message_size(BODY_BYTES).max_frame_size(BODY_BYTES);
    Ok(upgrade.on_upgrade(async move |socket| {
        computing_in(lines.short.clone(), serve(socket)).await;
        drop(channel);
    }))
}

/// The channels that are open.
#[derive(Clone)]
pub(crate) struct Channels(Arc<Semaphore>);

impl Default for Channels {
    fn default() -> Self {
        Self(Arc::new(Semaphore::new(MOST)))
    }
}

/// So many pages drag at once.
const MOST: usize = 32;

impl Channels {
    fn open(&self) -> Result<OwnedSemaphorePermit, Details> {
        self.0.clone().try_acquire_owned().map_err(|_| {
            let words = format!("{MOST} pages are open already: close one of them.");
            Details::new(StatusCode::SERVICE_UNAVAILABLE, "too_many_channels", words)
        })
    }
}

async fn serve(mut socket: WebSocket) {
    let mut plan: Option<Plan> = None;
    while let Some(Ok(message)) = socket.recv().await {
        let Message::Text(text) = message else { continue };
        let from = plan.take();
        let answer = blocking(move || Ok(answer(text.as_bytes(), from))).await;
        let (kept, words) = answer.unwrap_or_else(|details| (None, words(&details)));
        plan = kept;
        if socket.send(Message::Text(words.into())).await.is_err() {
            return;
        }
    }
}

/// The answer to one message, and the plan to keep.
fn answer(text: &[u8], kept: Option<Plan>) -> (Option<Plan>, String) {
    let mut plan = kept;
    let out = moved_by(text, &mut plan);
    let words = out.map_or_else(|details| words(&details), |out| words(&out));
    (plan, words)
}

fn moved_by(text: &[u8], kept: &mut Option<Plan>) -> Result<MovedOut, Details> {
    let mut message = document::parse(text).map_err(Problems::from)?;
    if !message.is_object() {
        return Err(refused("message", "no object"));
    }
    if !message["plan"].is_null() {
        *kept = Some(document::from_value(message["plan"].take())?);
    }
    let by: Move = document::from_value(message["move"].take())?;
    let drawn: Drawn = match message["drawn"].take() {
        Value::Null => Drawn::default(),
        told => serde_json::from_value(told).map_err(|error| refused("drawn", &error.to_string()))?,
    };
    drawn.check()?;
    let from = kept.as_ref().ok_or_else(|| refused("plan", "none was sent before"))?;
    let moved = moved(from, &by)?;
    let judged = drawn.judge(&moved.plan)?;
    Ok(MovedOut::new(moved, judged))
}

fn refused(field: &str, value: &str) -> Details {
    let accepted = "a plan with the first move, and how to draw as in /api/v1/move";
    Problems::from(Problem::new(field, value, accepted, Code::WrongType)).into()
}

fn words(answer: &impl serde::Serialize) -> String {
    serde_json::to_string(answer).unwrap_or_else(|error| {
        tracing::error!(%error, "an answer cannot be written");
        String::new()
    })
}
