//! Only pages that this server sent may talk to it: the Host must name this machine, and an Origin, where a
//! browser sends one, must be the same.

use axum::extract::Request;
use axum::http::{HeaderMap, StatusCode, header};
use axum::middleware::Next;
use axum::response::{IntoResponse, Response};

use crate::problem::Details;

pub(crate) async fn same_machine(request: Request, next: Next) -> Response {
    if allowed(request.headers()) {
        return next.run(request).await;
    }
    Details::new(
        StatusCode::FORBIDDEN,
        "forbidden_origin",
        "This server answers only pages opened from 127.0.0.1 or localhost on this machine.",
    )
    .into_response()
}

fn allowed(headers: &HeaderMap) -> bool {
    let text = |name| headers.get(name).and_then(|v| v.to_str().ok());
    let Some(host) = text(header::HOST).filter(|h| names_this_machine(h)) else { return false };
    match headers.get(header::ORIGIN) {
        None => true,
        Some(origin) => origin.to_str().is_ok_and(|o| o.strip_prefix("http://") == Some(host)),
    }
}

fn names_this_machine(host: &str) -> bool {
    let name = match host.rsplit_once(':') {
        Some((name, port)) if port.chars().all(|c| c.is_ascii_digit()) => name,
        _ => host,
    };
    matches!(name, "127.0.0.1" | "localhost" | "[::1]")
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn foreign_hosts_and_origins_are_turned_away() {
        let headers = |host: &str, origin: Option<&str>| {
            let mut map = HeaderMap::new();
            map.insert(header::HOST, host.parse().unwrap());
            if let Some(origin) = origin {
                map.insert(header::ORIGIN, origin.parse().unwrap());
            }
            map
        };
        assert!(allowed(&headers("127.0.0.1:4170", None)));
        assert!(allowed(&headers("localhost:4170", Some("http://localhost:4170"))));
        assert!(!allowed(&headers("rebound.invalid:4170", None)));
        assert!(!allowed(&headers("127.0.0.1:4170", Some("http://page.invalid"))));
        assert!(!allowed(&headers("127.0.0.1:4170", Some("http://127.0.0.1:9999"))));
        assert!(!allowed(&headers("127.0.0.1:4170", Some("null"))));
    }
}
