//! What leaves: the plan file and the set-up card.

use std::sync::Arc;

use axum::extract::State;
use axum::http::{HeaderValue, StatusCode, header};
use axum::response::{IntoResponse, Response};
use fogon_core::card::card as make_card;
use fogon_core::corner::Corner;
use fogon_core::problem::Problems;
use fogon_handover::Paper;
use fogon_handover::file::CardFile;
use fogon_handover::picture::Photo;
use serde::Deserialize;
use serde::de::IgnoredAny;

use super::{Path, Query, Shared, blocking};
use crate::problem::Details;
use crate::queue::{Lines, computing_in};
use crate::studio::{Still, Studio};

/// How to lay a card out.
#[derive(Deserialize)]
pub(crate) struct Options {
    /// a4 or letter.
    paper: Option<String>,
    /// `lines`: the line drawing in place of the photograph, which takes its time.
    picture: Option<String>,
    /// Offer it as a download.
    download: Option<String>,
}

fn file(body: impl IntoResponse, kind: &'static str, name: Option<String>) -> Response {
    let mut response = body.into_response();
    let headers = response.headers_mut();
    headers.insert(header::CONTENT_TYPE, HeaderValue::from_static(kind));
    // The card is a page of its own: styles and a picture inside it, no script at all.
    headers.insert(
        header::CONTENT_SECURITY_POLICY,
        HeaderValue::from_static(
            "default-src 'none'; style-src 'unsafe-inline'; img-src data:; font-src data:; frame-ancestors 'self'; sandbox allow-same-origin allow-modals",
        ),
    );
    if let Some(name) = name
        && let Ok(value) = HeaderValue::from_str(&format!("attachment; filename=\"{name}\""))
    {
        headers.insert(header::CONTENT_DISPOSITION, value);
    }
    response
}

/// A file name of letters, digits and hyphens.
pub(super) fn file_name(name: &str, ending: &str) -> String {
    let words: String =
        name.to_lowercase().chars().map(|c| if c.is_ascii_alphanumeric() { c } else { '-' }).collect();
    let words: Vec<&str> = words.split('-').filter(|w| !w.is_empty()).collect();
    let stem = if words.is_empty() { "corner".to_owned() } else { words.join("-") };
    format!("{stem}.{ending}")
}

/// The corner as a plan file (or a brief file, while nothing fits)
#[utoipa::path(get, path = "/api/v1/corners/{id}/file", params(("id" = i64, Path)),
    responses((status = 200, body = serde_json::Value, description = "A plan, or a brief; text where it can no longer be read"), (status = 404, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn plan_file(State(store): State<Shared>, Path(id): Path<i64>) -> Result<Response, Details> {
    blocking(move || {
        // As it lies in the database: also where this version does not read it.
        let (name, document) = store.raw(id)?;
        let is_json = serde_json::from_str::<IgnoredAny>(&document).is_ok();
        let kind = if is_json { "application/json" } else { "text/plain; charset=utf-8" };
        Ok(file(document + "\n", kind, Some(file_name(&name, "fogon.json"))))
    })
    .await
}

/// Pixels along the longer side of the card's picture.
const CARD_PX: usize = 480;

/// The set-up card, its pages, drawings and tables as files
#[utoipa::path(get, path = "/api/v1/corners/{id}/card/{format}",
    params(("id" = i64, Path), ("format" = String, Path, description = "html, all.html, svg, pdf, csv, txt, dxf, plan.svg, side.svg, marks.csv, marks.json, cables.csv"),
        ("paper" = Option<String>, Query, description = "a4 or letter"),
        ("picture" = Option<String>, Query, description = "lines: the line drawing in place of the photograph"), ("download" = Option<String>, Query)),
    responses((status = 200, body = String), (status = 404, body = Details, content_type = "application/problem+json")))]
pub(crate) async fn card(
    State(store): State<Shared>,
    State(studio): State<Arc<Studio>>,
    State(lines): State<Lines>,
    Path((id, format)): Path<(i64, String)>,
    Query(options): Query<Options>,
) -> Result<Response, Details> {
    let named = options.paper.as_deref().unwrap_or("a4");
    let paper = Paper::named(named)
        .ok_or_else(|| Details::new(StatusCode::BAD_REQUEST, "bad_choice", "paper: give a4 or letter."))?;
    let is_drawn = match options.picture.as_deref() {
        None => false,
        Some("lines") => true,
        Some(_) => {
            let words = "picture: give lines, or leave it out.";
            return Err(Details::new(StatusCode::BAD_REQUEST, "bad_choice", words));
        }
    };
    let format = CardFile::named(&format).ok_or_else(|| {
        let all = CardFile::ALL.map(CardFile::ending).join(", ");
        Details::not_found(&format!("card format; give one of {all}"))
    })?;
    let has_photo = format.has_picture() && !is_drawn && studio.is_open().is_ok();
    let line = if has_photo { lines.pictures } else { lines.short };
    let card = blocking(move || {
        let (_, plan) = super::corners::plan_of(&store, id)?;
        let picture = if has_photo { studio.still(&plan, &Still::whole(CARD_PX), &|| true)? } else { None };
        let aspect = Corner::resolved(&plan)
            .map(|corner| corner.image_mm.0 / corner.image_mm.1)
            .map_err(Problems::from)?;
        let photo = picture.as_deref().map(|png| Photo { png, aspect });
        let card = make_card(&plan).ok_or_else(|| Details::not_found("card"))?;
        let bytes = format.bytes(&card, paper, photo).map_err(Problems::from)?;
        let name = options.download.is_some().then(|| file_name(&plan.name, format.ending()));
        Ok(file(bytes, format.media_type(), name))
    });
    computing_in(line, card).await
}
