//! The page, embedded in the binary. Paths of the application all answer with its one document.

use axum::http::{HeaderValue, StatusCode, Uri, header};
use axum::response::{IntoResponse, Response};
use rust_embed::RustEmbed;

use crate::problem::Details;

#[derive(RustEmbed)]
#[folder = "../../web/dist"]
#[allow_missing = true]
struct Files;

/// No script, style, font or picture from anywhere else.
const POLICY: &str = "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; frame-src 'self'; frame-ancestors 'self'; base-uri 'none'; form-action 'self'";

pub(crate) async fn page(uri: Uri) -> Response {
    let path = uri.path().trim_start_matches('/');
    if path.starts_with("api/") {
        return Details::not_found("address").into_response();
    }
    if let Some(file) = Files::get(path).filter(|_| !path.is_empty()) {
        // Names under assets/ hold a hash of their content.
        let keep =
            if path.starts_with("assets/") { "public, max-age=31536000, immutable" } else { "no-cache" };
        return with_headers(file.data.into_owned(), file.metadata.mimetype(), keep);
    }
    match Files::get("index.html") {
        Some(file) => with_headers(file.data.into_owned(), "text/html; charset=utf-8", "no-cache"),
        None => Details::new(
            StatusCode::NOT_FOUND,
            "no_page",
            "This binary was built without its page. Run `cargo xtask demo`, which builds the page first.",
        )
        .into_response(),
    }
}

fn with_headers(body: Vec<u8>, kind: &str, keep: &'static str) -> Response {
    let mut response = body.into_response();
    let headers = response.headers_mut();
    if let Ok(kind) = HeaderValue::from_str(kind) {
        headers.insert(header::CONTENT_TYPE, kind);
    }
    headers.insert(header::CACHE_CONTROL, HeaderValue::from_static(keep));
    headers.insert(header::CONTENT_SECURITY_POLICY, HeaderValue::from_static(POLICY));
    headers.insert(header::X_CONTENT_TYPE_OPTIONS, HeaderValue::from_static("nosniff"));
    response
}
