//! The page, embedded in the binary. Paths of the application all answer with its one document.

use axum::http::{HeaderValue, StatusCode, Uri, header};
use axum::response::{IntoResponse, Response};
use rust_embed::RustEmbed;

use crate::problem::Details;

#[derive(RustEmbed)]
#[folder = "../../web/dist"]
#[allow_missing = true]
struct Files;

/// The word that stands in the page where every answer puts one that was never used before.
const NONCE: &str = "fogon-nonce";

/// No script, style, font or picture from anywhere else, and no style but the files and what carries the word of this answer.
fn policy(nonce: &str) -> String {
    format!(
        "default-src 'none'; script-src 'self'; style-src 'self' 'nonce-{nonce}'; img-src 'self' data: blob:; font-src 'self'; \
        connect-src 'self'; frame-src 'self'; frame-ancestors 'none'; base-uri 'none'; form-action 'none'"
    )
}

pub(crate) async fn page(uri: Uri) -> Response {
    let path = uri.path().trim_start_matches('/');
    if path.starts_with("api/") {
        return Details::not_found("address").into_response();
    }
    if let Some(file) = Files::get(path).filter(|_| !path.is_empty() && path != "index.html") {
        // Names under assets/ hold a hash of their content.
        let keep =
            if path.starts_with("assets/") { "public, max-age=31536000, immutable" } else { "no-cache" };
        return with_headers(file.data.into_owned(), file.metadata.mimetype(), keep);
    }
    match Files::get("index.html") {
        Some(file) => {
            let nonce = uuid::Uuid::new_v4().simple().to_string();
            let text = String::from_utf8_lossy(&file.data).replace(NONCE, &nonce);
            let mut response = with_headers(text.into_bytes(), "text/html; charset=utf-8", "no-store");
            if let Ok(policy) = HeaderValue::from_str(&policy(&nonce)) {
                response.headers_mut().insert(header::CONTENT_SECURITY_POLICY, policy);
            }
            response
        }
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
    response
}
