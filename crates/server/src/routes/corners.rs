//! Corners kept: listed, created, read, saved, deleted.

use axum::Json;
use axum::extract::State;
use axum::http::{HeaderMap, HeaderName, HeaderValue, StatusCode, header};
use axum::response::{IntoResponse, Response};
use fogon_core::assess::{Assessment, Verdict, without_moves};
use fogon_core::plan::{Brief, BriefFile, Layout, Plan};
use fogon_core::units::UnitSystem;
use fogon_store::{Cursor, Document, Entry, Kept, Step, Store, Told as ToldOf};
use serde::{Deserialize, Serialize};
use serde_json::Value;
use utoipa::{IntoParams, ToSchema};

use super::{Body, Path, Query, Shared, blocking, searching};
use crate::BUILD;
use crate::laid_out::laid_out;
use crate::problem::Details;
use crate::queue::{Lines, computing_in};

/// A corner in the list.
#[derive(Serialize, ToSchema)]
pub(crate) struct Listed {
    id: i64,
    revision: i64,
    name: String,
    /// When it was last saved, ms since 1970.
    updated_ms: i64,
    /// What is told of it; none where it does not read.
    #[schema(value_type = Option<Told>)]
    told: Option<Value>,
    /// Why it does not read or cannot be judged, in words; the rest of the list stands.
    trouble: Option<String>,
}

/// What the list tells of a corner.
#[derive(Serialize, ToSchema)]
pub(crate) struct Told {
    /// Units to read it in.
    units: UnitSystem,
    /// Width, depth and height, m.
    #[schema(value_type = Vec<f64>)]
    room_m: [f64; 3],
    /// None while nothing fits.
    verdict: Option<Verdict>,
    /// 0 to 1; none while nothing fits.
    score: Option<f64>,
}

/// A corner, whole.
#[derive(Serialize, ToSchema)]
pub(crate) struct CornerKept {
    id: i64,
    /// Rises with every save; the ETag.
    revision: i64,
    updated_ms: i64,
    name: String,
    brief: Brief,
    /// None while nothing fits.
    layout: Option<Layout>,
    /// There is a state before this one.
    can_undo: bool,
    /// The last step was an undo that can be taken back.
    can_redo: bool,
}

impl From<Kept> for CornerKept {
    fn from(kept: Kept) -> Self {
        let Kept { id, revision, updated_ms, can_undo, can_redo, document } = kept;
        let Document { name, brief, layout } = document;
        Self { id, revision, updated_ms, name, brief, layout, can_undo, can_redo }
    }
}

pub(super) fn answer(status: StatusCode, kept: Kept) -> Response {
    let tag = HeaderValue::from_str(&format!("\"{}\"", kept.revision));
    let mut response = (status, Json(CornerKept::from(kept))).into_response();
    if let Ok(tag) = tag {
        response.headers_mut().insert(header::ETAG, tag);
    }
    response
}

/// Which corners.
#[derive(Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub(crate) struct Page {
    /// Part of their names (all).
    #[param(max_length = 200)]
    name: Option<String>,
    /// So many at most, 1 to 500 (60).
    #[param(minimum = 1, maximum = 500)]
    limit: Option<u16>,
    /// Those after one, as the Link header of the page before told.
    after: Option<String>,
}

/// Corners on a page where nothing else is asked for.
const LISTED: u16 = 60;

impl Page {
    fn check(&self) -> Result<(usize, Option<Cursor>), Details> {
        let refused = |words: &str| Details::new(StatusCode::BAD_REQUEST, "bad_choice", words);
        let limit = self.limit.unwrap_or(LISTED);
        if !(1..=500).contains(&limit) {
            return Err(refused("limit: give 1 to 500."));
        }
        let parsed = |text: &str| {
            let (updated_ms, id) = text.split_once('-')?;
            Some(Cursor { updated_ms: updated_ms.parse().ok()?, id: id.parse().ok()? })
        };
        let after = match self.after.as_deref() {
            None => None,
            Some(text) => Some(
                parsed(text)
                    .ok_or_else(|| refused("after: give what the page before told in its Link header."))?,
            ),
        };
        Ok((usize::from(limit), after))
    }
}

/// Corners, the last saved first, a page at a time: the header Link leads to the next page, Fogon-Count tells how many there are
#[utoipa::path(get, path = "/api/v1/corners", params(Page),
    responses((status = 200, body = Vec<Listed>, headers(("Link" = String, description = "the next page, as rel=\"next\""), ("Fogon-Count" = i64)))))]
pub(crate) async fn list(
    State(store): State<Shared>,
    Query(asked): Query<Page>,
) -> Result<Response, Details> {
    let (limit, after) = asked.check()?;
    blocking(move || {
        let page = store.page(after, limit, asked.name.as_deref().unwrap_or_default(), BUILD)?;
        let rows: Vec<(Listed, bool)> =
            page.entries.iter().map(|entry| listed(entry, without_moves)).collect();
        let new: Vec<(&Entry, String)> = page
            .entries
            .iter()
            .zip(&rows)
            .filter(|(_, (_, is_new))| *is_new)
            .filter_map(|(entry, (row, _))| Some((entry, row.told.as_ref()?.to_string())))
            .collect();
        // What is told again the next time is no loss.
        if let Err(error) = store.keep_told(&new, BUILD) {
            tracing::warn!(%error, "verdicts are not kept");
        }
        let mut response = Json(rows.into_iter().map(|(row, _)| row).collect::<Vec<_>>()).into_response();
        let headers = response.headers_mut();
        headers.insert(COUNT, page.count.into());
        if let Some(Cursor { updated_ms, id }) = page.next
            && let Ok(link) =
                HeaderValue::from_str(&format!("<?after={updated_ms}-{id}&limit={limit}>; rel=\"next\""))
        {
            headers.insert(header::LINK, link);
        }
        Ok(response)
    })
    .await
}

/// How many corners there are on all pages.
const COUNT: HeaderName = HeaderName::from_static("fogon-count");

/// A row of the list, and whether what is told in it was worked out now.
fn listed(entry: &Entry, judge: fn(&Plan) -> Assessment) -> (Listed, bool) {
    let (id, revision, updated_ms, name) = (entry.id, entry.revision, entry.updated_ms, entry.name.clone());
    let row = |told, trouble: Option<&str>| Listed {
        id,
        revision,
        name,
        updated_ms,
        told,
        trouble: trouble.map(str::to_owned),
    };
    match &entry.told {
        ToldOf::Unreadable(why) => {
            tracing::error!(id, %why, "a corner does not read");
            (row(None, Some("This version cannot read it. Nothing of it is lost.")), false)
        }
        ToldOf::Kept(words) => (row(serde_json::from_str(words).ok(), None), false),
        ToldOf::Not(document) => {
            let (told, trouble) = told_of(document, judge);
            (row(serde_json::to_value(told).ok(), trouble), trouble.is_none())
        }
    }
}

/// What is told of a document, and what is wrong where it cannot be judged.
fn told_of(document: &Document, judge: fn(&Plan) -> Assessment) -> (Told, Option<&'static str>) {
    let Document { name, brief, layout } = document;
    let judged =
        layout.as_ref().map(|layout| judged(&Plan::new(name.clone(), brief.clone(), layout.clone()), judge));
    let trouble =
        matches!(judged, Some(None)).then_some("It could not be judged. This is a fault in the program.");
    let judged = judged.flatten();
    let (units, room_m, score) =
        (brief.units, brief.room.dimensions_m(), judged.as_ref().map(|judged| judged.score));
    (Told { units, room_m, score, verdict: judged.map(|judged| judged.verdict) }, trouble)
}

/// A plan judged; none where that fails, which must not take the list with it.
fn judged(plan: &Plan, judge: fn(&Plan) -> Assessment) -> Option<Assessment> {
    std::panic::catch_unwind(|| judge(plan))
        .inspect_err(|_| tracing::error!("a corner cannot be judged"))
        .ok()
}

/// Keeps a new corner from a brief file (the best layout is found for it) or a plan file
#[utoipa::path(post, path = "/api/v1/corners", request_body = BriefFile,
    responses((status = 201, body = CornerKept), (status = 422, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn create(
    State(store): State<Shared>,
    State(lines): State<Lines>,
    Body(bytes): Body,
) -> Result<Response, Details> {
    let document = blocking(move || Ok(Document::read(&bytes)?)).await?;
    // Only what has to be looked for waits in line.
    let document = if document.layout.is_none() {
        let search = searching(move |stop| Some(laid_out(document, stop)));
        computing_in(lines.long.clone(), search).await?
    } else {
        document
    };
    blocking(move || Ok(answer(StatusCode::CREATED, store.create(&document)?))).await
}

/// One corner
#[utoipa::path(get, path = "/api/v1/corners/{id}", params(("id" = i64, Path)),
    responses((status = 200, body = CornerKept), (status = 404, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn get(State(store): State<Shared>, Path(id): Path<i64>) -> Result<Response, Details> {
    blocking(move || Ok(answer(StatusCode::OK, store.get(id)?))).await
}

/// A corner's plan as it is saved, with its revision; a refusal where nothing fits.
pub(super) fn plan_of(store: &Store, id: i64) -> Result<(i64, Plan), Details> {
    let Kept { revision, document: Document { name, brief, layout }, .. } = store.get(id)?;
    let nothing = "Nothing fits this corner yet: there is no card and no picture.";
    let layout = layout.ok_or_else(|| Details::new(StatusCode::CONFLICT, "no_layout", nothing))?;
    Ok((revision, Plan::new(name, brief, layout)))
}

/// Longest key of a save that is heeded.
const KEY_LENGTH: usize = 100;

/// Saves a corner read at the revision in `If-Match`, from a plan file or, where nothing fits, a brief file. Sent again
/// under the same `Idempotency-Key` it is saved once
#[utoipa::path(put, path = "/api/v1/corners/{id}", params(("id" = i64, Path), ("If-Match" = String, Header),
        ("Idempotency-Key" = Option<String>, Header)), request_body = Plan,
    responses((status = 200, body = CornerKept), (status = 412, body = Details, content_type = "application/problem+json"),
        (status = 422, body = Details, content_type = "application/problem+json"), (status = 428, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn save(
    State(store): State<Shared>,
    Path(id): Path<i64>,
    headers: HeaderMap,
    Body(bytes): Body,
) -> Result<Response, Details> {
    let revision = if_match(&headers)?;
    let key = headers.get("Idempotency-Key").and_then(|key| key.to_str().ok());
    let key = key.filter(|key| (1..=KEY_LENGTH).contains(&key.len())).map(str::to_owned);
    blocking(move || {
        let document = Document::read(&bytes)?;
        Ok(answer(StatusCode::OK, store.save(id, revision, &document, key.as_deref())?))
    })
    .await
}

/// Goes back to the state before the last change, as a new revision
#[utoipa::path(post, path = "/api/v1/corners/{id}/undo", params(("id" = i64, Path), ("If-Match" = String, Header)),
    responses((status = 200, body = CornerKept), (status = 409, body = Details, content_type = "application/problem+json"),
        (status = 412, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn undo(
    State(store): State<Shared>,
    Path(id): Path<i64>,
    headers: HeaderMap,
) -> Result<Response, Details> {
    let revision = if_match(&headers)?;
    blocking(move || Ok(answer(StatusCode::OK, store.step(id, revision, Step::Undo)?))).await
}

/// Takes the last undo back, as a new revision
#[utoipa::path(post, path = "/api/v1/corners/{id}/redo", params(("id" = i64, Path), ("If-Match" = String, Header)),
    responses((status = 200, body = CornerKept), (status = 409, body = Details, content_type = "application/problem+json"),
        (status = 412, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn redo(
    State(store): State<Shared>,
    Path(id): Path<i64>,
    headers: HeaderMap,
) -> Result<Response, Details> {
    let revision = if_match(&headers)?;
    blocking(move || Ok(answer(StatusCode::OK, store.step(id, revision, Step::Redo)?))).await
}

/// Takes a corner read at the revision in `If-Match` out of the list; it can be restored for 30 days
#[utoipa::path(delete, path = "/api/v1/corners/{id}", params(("id" = i64, Path), ("If-Match" = String, Header)),
    responses((status = 204), (status = 412, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn delete(
    State(store): State<Shared>,
    Path(id): Path<i64>,
    headers: HeaderMap,
) -> Result<StatusCode, Details> {
    let revision = if_match(&headers)?;
    blocking(move || {
        store.delete(id, revision)?;
        Ok(StatusCode::NO_CONTENT)
    })
    .await
}

pub(super) fn if_match(headers: &HeaderMap) -> Result<i64, Details> {
    let missing = || {
        Details::new(
            StatusCode::PRECONDITION_REQUIRED,
            "if_match_missing",
            "Say which revision you changed, in the header If-Match, as \"3\".",
        )
    };
    let text = headers.get(header::IF_MATCH).and_then(|v| v.to_str().ok()).ok_or_else(missing)?;
    text.trim().trim_start_matches("W/").trim_matches('"').parse().map_err(|_| missing())
}

#[cfg(test)]
mod tests {
    use super::*;

    const PLAN: &str = include_str!("../../../../docs/examples/box-room.fogon.json");

    fn plan() -> Document {
        Document::read(PLAN.as_bytes()).unwrap()
    }

    /// A judgement that breaks down is told in its own row, with all that is known without it.
    #[test]
    fn a_verdict_that_cannot_be_computed_is_told_in_its_row() {
        let (told, trouble) = told_of(&plan(), |_| panic!("a fault"));
        assert!(trouble.is_some_and(|words| words.contains("could not be judged")));
        assert!(told.verdict.is_none() && told.score.is_none() && told.room_m == [3.4, 2.9, 2.45]);
        let (told, trouble) = told_of(&plan(), without_moves);
        assert!(trouble.is_none() && told.verdict.is_some_and(|verdict| verdict.ready));
    }
}
