//! The test take: files in, measures out. Files are measured in memory and dropped; nothing of them is kept.

use std::collections::BTreeMap;
use std::time::Instant;

use axum::Json;
use axum::extract::multipart::Multipart;
use axum::extract::{FromRequest, Request, State};
use axum::http::{HeaderValue, StatusCode, header};
use axum::response::{IntoResponse, Response};
use fogon_core::corner::Corner;
use fogon_core::document;
use fogon_core::problem::Problems;
use fogon_core::run::What;
use fogon_core::take::before::{Against, Figures, against, figures};
use fogon_core::take::picture::{Marks, Pixels, StillMeasures};
use fogon_core::take::sound::{Recorded, SoundMeasures};
use fogon_core::take::sync::{Apart, Sync, synchronise};
use fogon_core::take::{MeasureTold, Promise, picture, sound, summary, told};
use fogon_recording::{MOST_STILL_BYTES, MOST_TAKE_BYTES, Take, read_still, read_take};
use fogon_store::Store;
use serde::Serialize;
use utoipa::ToSchema;

use super::{DROPPED_BYTES, PIECE, Path, Shared, WHOLE, blocking, too_slow};
use crate::problem::{Details, sentence};

/// Marks in words take no more than this, bytes.
const MOST_WORDS: usize = 20_000;
/// A take is held against so many before it.
const BEFORE: usize = 5;

/// Files of one take.
#[derive(ToSchema)]
#[allow(dead_code)]
pub(crate) struct TakeFiles {
    /// WAV or FLAC, 1 to 120 s, at most 50 MB.
    #[schema(value_type = String, format = Binary)]
    file: Vec<u8>,
    /// The other file of the same take, the camera's.
    #[schema(value_type = Option<String>, format = Binary)]
    second: Option<Vec<u8>>,
}

/// A still and what was marked in it.
#[derive(ToSchema)]
#[allow(dead_code)]
pub(crate) struct StillFiles {
    /// PNG or JPEG, at most 30 MB.
    #[schema(value_type = String, format = Binary)]
    file: Vec<u8>,
    /// What was marked, as JSON.
    marks: Marks,
}

/// How two files of a take go together.
#[derive(Serialize, ToSchema)]
pub(crate) struct SyncTold {
    sync: Sync,
    /// Over the session.
    over_session: Apart,
    /// Length of the session, min.
    session_min: f64,
    /// What to do.
    sentence: String,
}

/// A recording, measured and told.
#[derive(Serialize, ToSchema)]
pub(crate) struct SoundTaken {
    /// Nothing stands in the way of recording.
    ready: bool,
    /// In one sentence.
    summary: String,
    told: Vec<MeasureTold>,
    measures: SoundMeasures,
    /// The room's reverberation time as a clap tells it, s, to be taken as measured; null without a clap that can be believed.
    measured_rt_mid_s: Option<f64>,
    sync: Option<SyncTold>,
    /// Why the two files do not go together.
    unmatched: Option<String>,
    /// Beside the last takes of this corner.
    against: Against,
    /// What is kept of it.
    #[schema(value_type = BTreeMap<String, f64>)]
    figures: Figures,
}

/// A still, measured and told.
#[derive(Serialize, ToSchema)]
pub(crate) struct StillTaken {
    #[serde(flatten)]
    still: StillMeasures,
    /// Beside the last takes of this corner.
    against: Against,
}

fn recorded(take: &Take) -> Recorded<'_> {
    Recorded { channels: &take.channels, rate_hz: f64::from(take.sample_rate_hz) }
}

/// What was measured of the last takes of a corner, the last first.
fn before(store: &Store, corner: i64) -> Result<Vec<Figures>, Details> {
    let log = store.log(corner)?;
    let measured = log.into_iter().rev().filter(|entry| !entry.gone).filter_map(|entry| match entry.what {
        What::Measured(measured) => Some(measured.figures),
        _ => None,
    });
    Ok(measured.take(BEFORE).collect())
}

/// Sound and picture are measured each by themselves: only figures of one kind are held against each other.
fn alike(now: &Figures, all: Vec<Figures>) -> Vec<Figures> {
    all.into_iter().filter(|one| one.keys().any(|figure| now.contains_key(figure))).collect()
}

/// Measures a test recording, holds it against the plan and against the last takes; of two files it tells how they go together
#[utoipa::path(post, path = "/api/v1/corners/{id}/take/sound", params(("id" = i64, Path)),
    request_body(content = TakeFiles, content_type = "multipart/form-data"),
    responses((status = 200, body = SoundTaken), (status = 413, body = Details, content_type = "application/problem+json"), (status = 422, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn of_sound(
    State(store): State<Shared>,
    Path(id): Path<i64>,
    parts: Parts,
) -> Result<Json<SoundTaken>, Details> {
    blocking(move || {
        let (_, plan) = super::corners::plan_of(&store, id)?;
        let corner = Corner::resolved(&plan).map_err(Problems::from)?;
        let take = read_take(parts.get("file")?)?;
        let measures = sound::measure(&recorded(&take));
        let all = told(&measures, Some(&Promise::of(&corner)));
        let (ready, summary) = summary(&all);
        let (mut sync, mut unmatched) = (None, None);
        if let Some(bytes) = parts.0.get("second") {
            let second = read_take(bytes).and_then(|second| second.at(take.sample_rate_hz))?;
            match synchronise(&recorded(&take), &recorded(&second)) {
                Ok(found) => sync = Some(sync_told(&corner, found)),
                Err(error) => unmatched = Some(sentence(&error.to_string())),
            }
        }
        let own = figures(&measures);
        let before = alike(&own, before(&store, id)?);
        Ok(Json(SoundTaken {
            ready,
            summary,
            told: all,
            measured_rt_mid_s: measures.rt.as_ref().and_then(|rt| rt.mid_s),
            sync,
            unmatched,
            against: against(&own, &before),
            figures: own,
            measures,
        }))
    })
    .await
}

fn sync_told(corner: &Corner<'_>, sync: Sync) -> SyncTold {
    let session_min = corner.brief.recording.session_min.unwrap_or(fogon_core::sound::record::SESSION_MIN);
    let over_session = sync.over(session_min, corner.layout.camera.frame_rate_hz);
    SyncTold {
        sentence: sync.told(session_min, corner.layout.camera.frame_rate_hz),
        sync,
        over_session,
        session_min,
    }
}

/// The first of two files as WAV, shifted and stretched to fit the second
#[utoipa::path(post, path = "/api/v1/corners/{id}/take/fitted", params(("id" = i64, Path)),
    request_body(content = TakeFiles, content_type = "multipart/form-data"),
    responses((status = 200, body = Vec<u8>, content_type = "audio/wav"), (status = 409, body = Details, content_type = "application/problem+json"), (status = 413, body = Details, content_type = "application/problem+json"), (status = 422, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn fitted(
    State(store): State<Shared>,
    Path(id): Path<i64>,
    parts: Parts,
) -> Result<Response, Details> {
    blocking(move || {
        store.get(id)?;
        let take = read_take(parts.get("file")?)?;
        let second = read_take(parts.get("second")?).and_then(|second| second.at(take.sample_rate_hz))?;
        let sync = synchronise(&recorded(&take), &recorded(&second)).map_err(|error| {
            Details::new(StatusCode::CONFLICT, "nothing_in_common", sentence(&error.to_string()))
        })?;
        let fitted = take.fitted(sync.offset_s, sync.drift_ppm)?;
        let mut response = fitted.wav_24_bit().into_response();
        response.headers_mut().insert(header::CONTENT_TYPE, HeaderValue::from_static("audio/wav"));
        response.headers_mut().insert(header::CACHE_CONTROL, HeaderValue::from_static("no-store"));
        Ok(response)
    })
    .await
}

/// Holds a still against the plan: where the camera really is, how bright and of which colour the picture is
#[utoipa::path(post, path = "/api/v1/corners/{id}/take/still", params(("id" = i64, Path)),
    request_body(content = StillFiles, content_type = "multipart/form-data"),
    responses((status = 200, body = StillTaken), (status = 409, body = Details, content_type = "application/problem+json"), (status = 413, body = Details, content_type = "application/problem+json"), (status = 422, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn of_still(
    State(store): State<Shared>,
    Path(id): Path<i64>,
    parts: Parts,
) -> Result<Json<StillTaken>, Details> {
    blocking(move || {
        let (_, plan) = super::corners::plan_of(&store, id)?;
        let corner = Corner::resolved(&plan).map_err(Problems::from)?;
        let marks: Marks = document::read(parts.get("marks")?)?;
        let still = read_still(parts.get("file")?)?;
        let pixels = Pixels { width: still.width, height: still.height, rgb: &still.rgb };
        let still = picture::measure(&corner, &pixels, &marks)
            .map_err(|error| Details::new(StatusCode::CONFLICT, "unlike", sentence(&error.to_string())))?;
        let before = alike(&still.figures, before(&store, id)?);
        Ok(Json(StillTaken { against: against(&still.figures, &before), still }))
    })
    .await
}

/// The parts of a form, each within its bounds; they are read as they come.
pub(crate) struct Parts(BTreeMap<String, Vec<u8>>);

/// What a part may have, bytes; none of a name that is not known.
fn most(name: &str, is_still: bool) -> Option<usize> {
    match name {
        "file" if is_still => Some(MOST_STILL_BYTES),
        "file" | "second" => Some(MOST_TAKE_BYTES),
        "marks" => Some(MOST_WORDS),
        _ => None,
    }
}

impl Parts {
    fn get(&self, name: &str) -> Result<&[u8], Details> {
        let missing = || {
            let words = format!("{name}: nothing is not accepted, give a file in a part of this name.");
            Details::new(StatusCode::UNPROCESSABLE_ENTITY, "missing_field", words)
        };
        self.0.get(name).map(Vec::as_slice).ok_or_else(missing)
    }
}

impl<S: Send + std::marker::Sync> FromRequest<S> for Parts {
    type Rejection = Details;

    async fn from_request(request: Request, state: &S) -> Result<Self, Details> {
        let began = Instant::now();
        let is_still = request.uri().path().ends_with("/still");
        let left = || PIECE.min(WHOLE.saturating_sub(began.elapsed()));
        let bad = |words: &str| Details::new(StatusCode::BAD_REQUEST, "unreadable", words);
        let mut form = Multipart::from_request(request, state)
            .await
            .map_err(|_| bad("The request is no form with files: send multipart/form-data."))?;
        let mut parts = BTreeMap::new();
        let (mut dropped, mut refused) = (0, None);
        loop {
            let next = tokio::time::timeout(left(), form.next_field()).await.map_err(|_| too_slow())?;
            let field = next.map_err(|_| bad("The request broke off before it was complete."))?;
            let Some(mut field) = field else { break };
            let name = field.name().unwrap_or_default().to_owned();
            let most = most(&name, is_still);
            let refusal = || match most {
                Some(most) => too_large_part(most),
                None => Details::new(
                    StatusCode::UNPROCESSABLE_ENTITY,
                    "unknown_field",
                    format!("{name}: there is no such part, give file, second or marks."),
                ),
            };
            let mut kept: Vec<u8> = Vec::new();
            let mut fits = most.is_some();
            loop {
                let next = tokio::time::timeout(left(), field.chunk()).await.map_err(|_| too_slow())?;
                let chunk = next.map_err(|_| bad("The request broke off before it was complete."))?;
                let Some(chunk) = chunk else { break };
                fits &= most.is_some_and(|most| kept.len() + chunk.len() <= most);
                if fits {
                    kept.extend_from_slice(&chunk);
                } else {
                    // Whoever is still sending hears the answer, up to a point.
                    dropped += chunk.len();
                    if dropped > DROPPED_BYTES {
                        return Err(refusal());
                    }
                }
            }
            if !fits {
                refused.get_or_insert_with(refusal);
                continue;
            }
            if parts.insert(name.clone(), kept).is_some() {
                return Err(bad("The request holds a part twice."));
            }
        }
        refused.map_or(Ok(Self(parts)), Err)
    }
}

fn too_large_part(most: usize) -> Details {
    let words = format!(
        "The file is larger than {} MB. Ten to twenty seconds are enough: cut a piece out, or record a short test.",
        most / 1_000_000
    );
    Details::new(StatusCode::PAYLOAD_TOO_LARGE, "too_large", words)
}
