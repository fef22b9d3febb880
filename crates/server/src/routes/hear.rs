//! Hearing a corner: the response of its room, a voice through it, and the user's own voice, which never leaves the machine.

use axum::Json;
use axum::extract::{FromRequest, Request, State};
use axum::http::{HeaderName, HeaderValue, StatusCode, header};
use axum::response::{IntoResponse, Response};
use fogon_core::arrange::{Variant, varied, with_treatment};
use fogon_core::corner::Corner;
use fogon_core::document;
use fogon_core::material::BANDS_HZ;
use fogon_core::plan::Plan;
use fogon_core::problem::{Code, Problem, Problems};
use fogon_core::sound::hear::{Unheard, hear, impulse};
use fogon_core::sound::impulse::{RATE_HZ, decay_db};
use fogon_core::sound::spectrum::in_bands;
use fogon_recording::{Unreadable, dry_voice, read, wav_24_bit};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::{Body, Shared, blocking, bytes_of};
use crate::problem::Details;

/// Points of the picture of a response, and so far it is drawn, s.
const PICTURE: usize = 600;
const PICTURE_S: f64 = 0.12;
/// Points of a decay.
const DECAY: usize = 80;

/// A corner, and in which way it is to be heard.
#[derive(Serialize, Deserialize, ToSchema)]
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

fogon_core::shape!(HearIn, TreatmentIn);

/// What a clap at the mouth would write at the microphone.
#[derive(Serialize, ToSchema)]
pub(crate) struct ImpulseSeen {
    /// Times after the direct sound of what is drawn: first and last, ms.
    from_ms: f64,
    to_ms: f64,
    /// Largest value in each of as many equal stretches, against the direct sound, dB; null under -60.
    levels_db: Vec<Option<f64>>,
    /// Octave bands, Hz.
    bands_hz: [u32; 6],
    /// Seconds of each point of the decays.
    decay_s: Vec<f64>,
    /// Level of what is still to come in each band, dB, band by band.
    decays_db: Vec<Vec<f64>>,
    /// Reverberation time by band, s.
    rt60_s: [f64; 6],
    /// First reflections: their delay and their level against the direct sound.
    reflections: Vec<ImpulseReflection>,
    /// The room is a box, whose images are complete to 50 ms; another room is heard with single reflections and a tail.
    is_box: bool,
}

/// A first reflection in a response.
#[derive(Serialize, ToSchema)]
pub(crate) struct ImpulseReflection {
    /// The surface, in words.
    words: String,
    /// After the direct sound, ms.
    delay_ms: f64,
    /// Against it, dB.
    level_db: f64,
}

fn asked(bytes: &[u8]) -> Result<(Plan, bool), Details> {
    let asked: HearIn = document::from_value(document::parse(bytes).map_err(Problems::from)?)?;
    asked.plan.check()?;
    let plan = varied(&asked.plan, asked.variant).map_err(Problems::from)?;
    Ok((plan, asked.own_voice))
}

fn unresolved() -> Details {
    Problems::from(Problem::new("layout", "ids", "ids that name gear of the brief", Code::UnknownId)).into()
}

fn unheard(error: Unheard) -> Details {
    Details::new(StatusCode::CONFLICT, "nothing_to_hear", sentence(&error.to_string()))
}

/// As a sentence.
fn sentence(words: &str) -> String {
    let mut letters = words.chars();
    letters.next().map_or(String::new(), |first| format!("{}{}.", first.to_uppercase(), letters.as_str()))
}

/// A voice as this corner would record it, a WAV file of 24 bits at 48 kHz: at -23 LUFS where its peaks allow, its noise with
/// it. Headers tell by how much it was turned up, how loud it is now and its true peak
#[utoipa::path(post, path = "/api/v1/hear", request_body = HearIn,
    responses((status = 200, body = Vec<u8>, content_type = "audio/wav"), (status = 409, body = Details, content_type = "application/problem+json"), (status = 422, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn sound(State(store): State<Shared>, Body(bytes): Body) -> Result<Response, Details> {
    blocking(move || {
        let (plan, own_voice) = asked(&bytes)?;
        let corner = Corner::of(&plan).ok_or_else(unresolved)?;
        let own = if own_voice { store.voice()? } else { None };
        let voice = match &own {
            Some(kept) => read(kept).map_err(unreadable)?.samples,
            None => dry_voice().to_vec(),
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
pub(crate) async fn picture(Body(bytes): Body) -> Result<Json<ImpulseSeen>, Details> {
    blocking(move || {
        let (plan, _) = asked(&bytes)?;
        let corner = Corner::of(&plan).ok_or_else(unresolved)?;
        let made = impulse(&corner).ok_or_else(|| unheard(Unheard::NoMicrophone))?;
        let response = &made.response;
        let direct = response.direct_s;
        let (from_s, to_s) = (-0.002, PICTURE_S);
        let peak = |from_s: f64, to_s: f64| {
            let from = response.index(direct + from_s);
            let to = response.index(direct + to_s).max(from + 1).min(response.samples.len());
            response.samples[from.min(to)..to].iter().fold(0.0f32, |most, s| most.max(s.abs()))
        };
        let loudest = f64::from(peak(-0.0005, 0.0005)).max(1e-12);
        let step = (to_s - from_s) / PICTURE as f64;
        let levels_db = (0..PICTURE)
            .map(|i| {
                let at = from_s + i as f64 * step;
                let level = 20.0 * (f64::from(peak(at, at + step)) / loudest).log10();
                (level > -60.0).then_some(level)
            })
            .collect();
        let bands = in_bands(&response.samples[response.index(direct - 0.001)..]);
        let length = bands[0].len();
        let at = |point: usize| point * (length - 1) / (DECAY - 1);
        let decays_db = bands
            .iter()
            .map(|band| {
                let curve = decay_db(band.iter().map(|s| f64::from(*s).powi(2)));
                (0..DECAY).map(|point| curve[at(point)].max(-90.0)).collect()
            })
            .collect();
        let reflections = fogon_core::sound::hear::reflections_seen(
            &corner,
            &fogon_core::sound::absorption::Absorption::of(&corner),
        )
        .into_iter()
        .map(|r| ImpulseReflection { words: r.words, delay_ms: r.delay_ms, level_db: r.level_db })
        .collect();
        Ok(Json(ImpulseSeen {
            from_ms: from_s * 1000.0,
            to_ms: to_s * 1000.0,
            levels_db,
            bands_hz: BANDS_HZ,
            decay_s: (0..DECAY).map(|point| at(point) as f64 / RATE_HZ).collect(),
            decays_db,
            rt60_s: made.rt60_s,
            reflections,
            is_box: made.is_box,
        }))
    })
    .await
}

/// A plan, and what is to hang or lie in it.
#[derive(Serialize, Deserialize, ToSchema)]
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
pub(crate) async fn treatment(Body(bytes): Body) -> Result<Json<Plan>, Details> {
    blocking(move || {
        let asked: TreatmentIn = document::from_value(document::parse(&bytes).map_err(Problems::from)?)?;
        asked.plan.check()?;
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
        let recording = read(&bytes).map_err(unreadable)?;
        Ok(Self {
            seconds: Some(recording.seconds()),
            sample_rate_hz: Some(recording.sample_rate_hz),
            channels: u32::try_from(recording.channels).ok(),
        })
    }
}

fn unreadable(error: Unreadable) -> Details {
    let status = if matches!(error, Unreadable::TooLarge(_)) {
        StatusCode::PAYLOAD_TOO_LARGE
    } else {
        StatusCode::UNPROCESSABLE_ENTITY
    };
    Details::new(status, "unreadable_recording", sentence(&error.to_string()))
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
        // A decoder that breaks down over a hostile file takes its own thread with it, not the server.
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
