//! Who may talk to this server, and what every answer carries. The Host must name this machine; an Origin, and what a browser says of
//! where a request comes from, must be this server itself; what reads or changes data is for browsers that were let in.

use std::sync::Arc;

use axum::extract::{Request, State};
use axum::http::{HeaderMap, HeaderName, HeaderValue, Method, StatusCode, header};
use axum::middleware::Next;
use axum::response::{IntoResponse, Response};

use crate::access::{Access, refusal};
use crate::problem::Details;

/// Where data is read and changed.
pub(crate) const DATA: &str = "/api/";

/// Turns away whoever may not talk to this server; without `access` everybody on this machine may.
pub(crate) async fn guard(
    State(access): State<Option<Arc<Access>>>,
    request: Request,
    next: Next,
) -> Response {
    let is_data = request.uri().path().starts_with(DATA);
    let mut response = if !is_this_machine(request.headers()) || !is_same_origin(&request, is_data) {
        Details::new(
            StatusCode::FORBIDDEN,
            "forbidden_origin",
            "This server answers only pages opened from 127.0.0.1 or localhost on this machine.",
        )
        .into_response()
    } else {
        match access.as_deref() {
            Some(access) if is_data && !access.lets_in(request.headers()) => refusal().into_response(),
            Some(access) if !is_data => match access.exchanged(request.uri()) {
                Some(exchanged) => exchanged,
                None => next.run(request).await,
            },
            _ => next.run(request).await,
        }
    };
    harden(response.headers_mut(), is_data);
    response
}

fn is_this_machine(headers: &HeaderMap) -> bool {
    text(headers, &header::HOST).is_some_and(names_this_machine)
}

/// A request of a page of this server, of no page at all, or one that opens a page by a link from elsewhere: that holds no data.
pub(crate) fn is_same_origin(request: &Request, is_data: bool) -> bool {
    let headers = request.headers();
    let host = text(headers, &header::HOST).unwrap_or_default();
    let origin_is_ours = match headers.get(header::ORIGIN) {
        None => true,
        Some(origin) => origin
            .to_str()
            .is_ok_and(|origin| origin.strip_prefix("http://").is_some_and(|o| o.eq_ignore_ascii_case(host))),
    };
    let site_is_ours = match text(headers, &HeaderName::from_static("sec-fetch-site")) {
        None | Some("same-origin" | "none") => true,
        Some(_) => {
            let navigates = text(headers, &HeaderName::from_static("sec-fetch-mode")) == Some("navigate");
            !is_data && navigates && request.method() == Method::GET
        }
    };
    origin_is_ours && site_is_ours
}

pub(crate) fn text<'a>(headers: &'a HeaderMap, name: &HeaderName) -> Option<&'a str> {
    headers.get(name).and_then(|value| value.to_str().ok())
}

/// The values of the cookies of a name.
pub(crate) fn cookies<'a>(headers: &'a HeaderMap, name: &'a str) -> impl Iterator<Item = &'a str> {
    let all = headers.get_all(header::COOKIE).into_iter().filter_map(|value| value.to_str().ok());
    all.flat_map(|all| all.split(';'))
        .filter_map(|one| one.trim().split_once('='))
        .filter_map(move |(own, value)| (own == name).then_some(value))
}

fn names_this_machine(host: &str) -> bool {
    let name = match host.rsplit_once(':') {
        Some((name, port)) if port.chars().all(|c| c.is_ascii_digit()) => name,
        _ => host,
    };
    matches!(name, "127.0.0.1" | "[::1]") || name.eq_ignore_ascii_case("localhost")
}

/// An answer is for this page alone, and nothing in it is run or shown but what says so itself.
pub(crate) fn harden(headers: &mut HeaderMap, is_data: bool) {
    let always = [
        ("x-content-type-options", "nosniff"),
        ("cross-origin-opener-policy", "same-origin"),
        ("cross-origin-resource-policy", "same-origin"),
        ("referrer-policy", "no-referrer"),
    ];
    for (name, value) in always {
        headers.insert(HeaderName::from_static(name), HeaderValue::from_static(value));
    }
    headers
        .entry(header::CONTENT_SECURITY_POLICY)
        .or_insert(HeaderValue::from_static("default-src 'none'; frame-ancestors 'none'; sandbox"));
    if is_data {
        headers.entry(header::CACHE_CONTROL).or_insert(HeaderValue::from_static("no-store"));
    }
}

#[cfg(test)]
mod tests {
    use axum::body::Body;

    use super::*;

    fn allowed(path: &str, headers: &[(&str, &str)]) -> bool {
        let mut request = Request::builder().uri(path);
        for (name, value) in headers {
            request = request.header(*name, *value);
        }
        let request = request.body(Body::empty()).unwrap();
        is_this_machine(request.headers()) && is_same_origin(&request, path.starts_with(DATA))
    }

    #[test]
    fn foreign_hosts_origins_and_pages_are_turned_away() {
        let data = "/api/v1/corners";
        let host = ("host", "127.0.0.1:4170");
        assert!(allowed(data, &[host]));
        assert!(allowed(data, &[("host", "LOCALHOST:4170"), ("origin", "http://localhost:4170")]));
        assert!(!allowed(data, &[("host", "rebound.invalid:4170")]));
        assert!(!allowed(data, &[("host", "localhost.invalid:4170")]));
        for origin in ["http://page.invalid", "http://127.0.0.1:9999", "https://127.0.0.1:4170", "null"] {
            assert!(!allowed(data, &[host, ("origin", origin)]), "{origin}");
        }
        for (site, mode, of_data, of_page) in [
            ("same-origin", "cors", true, true),
            ("none", "navigate", true, true),
            ("cross-site", "navigate", false, true),
            ("cross-site", "no-cors", false, false),
            ("same-site", "cors", false, false),
        ] {
            let told = [host, ("sec-fetch-site", site), ("sec-fetch-mode", mode)];
            assert_eq!((allowed(data, &told), allowed("/", &told)), (of_data, of_page), "{site} {mode}");
        }
    }
}
