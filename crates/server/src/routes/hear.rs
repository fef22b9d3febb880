//! Hearing a corner: the response of its room, a voice through it, and the user's own voice, which never leaves the machine.

use std::borrow::Cow;

use axum::Json;
use axum::extract::{FromRequest, Request, State};
use axum::http::{HeaderName, HeaderValue, StatusCode, header};
use axum::response::{IntoResponse, Response};
use fogon_core::arrange::{Variant, varied, with_treatment};
use fogon_core::corner::Corner;
use fogon_core::plan::Plan;
use fogon_core::problem::Problems;
use fogon_core::sound::clap::{ImpulseSeen, clap};
use fogon_core::sound::hear::{Unheard, hear};
use fogon_recording::{dry_voice, read, wav_24_bit};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::{Sent, Shared, blocking, bytes_of};
use crate::problem::{Details, sentence};

/// A corner, and in which way it is to be heard.
#[derive(Deserialize, ToSchema)]
pub(crate) struct HearIn {
    /// The corner.
    plan: Plan,
    /// What is other than planned (nothing).
    #[serde(default)]
    variant: Variant,
    /// The user's own voice in place of the one that ships (no).
    #[serde(default)]
    own_voice: bool,
}

fogon_core::shape!(
    HearIn => |asked: &HearIn| asked.plan.check(),
    TreatmentIn => |asked: &TreatmentIn| asked.plan.check(),
);

fn unheard(error: Unheard) -> Details {
    Details::new(StatusCode::CONFLICT, "nothing_to_hear", sentence(&error.to_string()))
}

/// A voice as this corner would record it, a WAV file of 24 bits at 48 kHz: at -23 LUFS where its peaks allow, its noise with
/// it. Headers tell by how much it was turned up, how loud it is now and its true peak
#[utoipa::path(post, path = "/api/v1/hear", request_body = HearIn,
    responses((status = 200, body = Vec<u8>, content_type = "audio/wav"), (status = 409, body = Details, content_type = "application/problem+json"), (status = 422, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn sound(
    State(store): State<Shared>,
    Sent(asked): Sent<HearIn>,
) -> Result<Response, Details> {
    blocking(move || {
        let plan = varied(&asked.plan, asked.variant).map_err(Problems::from)?;
        let corner = Corner::resolved(&plan).map_err(Problems::from)?;
        let own = if asked.own_voice { store.voice()? } else { None };
        let voice: Cow<'_, [f32]> = match &own {
            Some(kept) => read(kept)?.samples.into(),
            None => dry_voice().into(),
        };
        let heard = hear(&corner, &voice).map_err(unheard)?;
        let mut response = wav_24_bit(&heard.samples).into_response();
        let headers = response.headers_mut();
        headers.insert(header::CONTENT_TYPE, HeaderValue::from_static("audio/wav"));
        headers.insert(header::CACHE_CONTROL, HeaderValue::from_static("no-store"));
        for (name, value) in [
            ("fogon-gain-db", heard.gain_db),
            ("fogon-loudness-lufs", heard.loudness_lufs),
            ("fogon-true-peak-dbtp", heard.true_peak_dbtp),
            ("fogon-level-dba", heard.pickup.speech_dba),
            ("fogon-snr-db", heard.pickup.snr_dba),
            ("fogon-sti", heard.pickup.sti),
        ] {
            if let Ok(value) = HeaderValue::from_str(&format!("{value:.3}")) {
                headers.insert(HeaderName::from_static(name), value);
            }
        }
        Ok(response)
    })
    .await
}

/// What a clap at the mouth would write at the microphone: its picture, its decay by band, its first reflections
#[utoipa::path(post, path = "/api/v1/impulse", request_body = HearIn,
    responses((status = 200, body = ImpulseSeen), (status = 409, body = Details, content_type = "application/problem+json"), (status = 422, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn picture(Sent(asked): Sent<HearIn>) -> Result<Json<ImpulseSeen>, Details> {
    blocking(move || {
        let plan = varied(&asked.plan, asked.variant).map_err(Problems::from)?;
        let corner = Corner::resolved(&plan).map_err(Problems::from)?;
        Ok(Json(clap(&corner)))
    })
    .await
}

/// A plan, and what is to hang or lie in it.
#[derive(Deserialize, ToSchema)]
pub(crate) struct TreatmentIn {
    /// The plan.
    plan: Plan,
    /// Row of the absorption table.
    material: String,
    /// Width as it hangs or lies, m.
    width_m: f64,
    /// Height as it hangs, or length as it lies, m.
    height_m: f64,
}

/// A plan with one more thing against the echo, in its best place
#[utoipa::path(post, path = "/api/v1/treatment", request_body = TreatmentIn,
    responses((status = 200, body = Plan), (status = 422, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn treatment(Sent(asked): Sent<TreatmentIn>) -> Result<Json<Plan>, Details> {
    blocking(move || {
        let plan = with_treatment(&asked.plan, &asked.material, asked.width_m, asked.height_m);
        Ok(Json(plan.map_err(Problems::from)?))
    })
    .await
}

/// What is kept of the user's own voice.
#[derive(Serialize, ToSchema)]
pub(crate) struct OwnVoice {
    /// Length, s; null where none is kept.
    seconds: Option<f64>,
    /// Sample rate of the file, Hz.
    sample_rate_hz: Option<u32>,
    /// Channels of the file.
    channels: Option<u32>,
}

impl OwnVoice {
    fn of(kept: Option<Vec<u8>>) -> Result<Self, Details> {
        let none = Self { seconds: None, sample_rate_hz: None, channels: None };
        let Some(bytes) = kept else { return Ok(none) };
        let recording = read(&bytes)?;
        Ok(Self {
            seconds: Some(recording.seconds()),
            sample_rate_hz: Some(recording.sample_rate_hz),
            channels: u32::try_from(recording.channels).ok(),
        })
    }
}

/// The user's own voice, as kept
#[utoipa::path(get, path = "/api/v1/voice", responses((status = 200, body = OwnVoice)))]
pub(crate) async fn voice(State(store): State<Shared>) -> Result<Json<OwnVoice>, Details> {
    blocking(move || OwnVoice::of(store.voice()?).map(Json)).await
}

/// Keeps a dry recording of the user's own voice, WAV or FLAC, 1 to 60 s, at most 20 MB, on this machine
#[utoipa::path(put, path = "/api/v1/voice", request_body(content = Vec<u8>, content_type = "application/octet-stream"),
    responses((status = 200, body = OwnVoice), (status = 413, body = Details, content_type = "application/problem+json"), (status = 422, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn keep_voice(
    State(store): State<Shared>,
    Upload(bytes): Upload,
) -> Result<Json<OwnVoice>, Details> {
    blocking(move || {
        // Only what reads is kept.
        let kept = OwnVoice::of(Some(bytes.clone()))?;
        store.keep_voice(Some(&bytes))?;
        Ok(Json(kept))
    })
    .await
}

/// Forgets the user's own voice
#[utoipa::path(delete, path = "/api/v1/voice", responses((status = 204)))]
pub(crate) async fn forget_voice(State(store): State<Shared>) -> Result<StatusCode, Details> {
    blocking(move || Ok(store.keep_voice(None)?)).await?;
    Ok(StatusCode::NO_CONTENT)
}

/// The bytes of a recording.
pub(crate) struct Upload(Vec<u8>);

impl<S: Send + Sync> FromRequest<S> for Upload {
    type Rejection = Details;

    async fn from_request(request: Request, _: &S) -> Result<Self, Details> {
        let words =
            "The recording is larger than 20 MB. A minute of one channel at 48 kHz and 24 bits has 9 MB.";
        bytes_of(request, fogon_recording::MOST_BYTES, words).await.map(Self)
    }
}
