//! Who gets in: a browser that opened the address that was printed at start. The token in it is good for this start; it is exchanged
//! for a cookie that holds the file's own key, so that open pages go on when Fogon is started anew.

use axum::http::{HeaderMap, HeaderValue, StatusCode, Uri, header};
use axum::response::{IntoResponse, Response};
use subtle::ConstantTimeEq;

use crate::guard::cookies;
use crate::problem::Details;

/// The name of the token in the address.
const TOKEN: &str = "token";
/// A browser keeps the cookie for so long, s: 400 days, the longest that browsers keep one.
const KEPT_S: u32 = 34_560_000;

/// What opens the door.
#[derive(Debug, Clone)]
pub struct Access {
    token: String,
    key: String,
    cookie: String,
}

impl Access {
    /// With a new token beside the key of a file, for the server at a port: browsers tell cookies apart by host alone.
    pub fn new(key: &str, port: u16) -> Self {
        let token = uuid::Uuid::new_v4().simple().to_string();
        Self { token, key: key.to_owned(), cookie: format!("fogon_{port}") }
    }

    /// What stands behind the address to let a browser in.
    pub fn query(&self) -> String {
        format!("?{TOKEN}={}", self.token)
    }

    /// The answer to a page that was asked for with a token: the same address without it, and the cookie where it is the right one.
    pub(crate) fn exchanged(&self, uri: &Uri) -> Option<Response> {
        let pairs: Vec<&str> = uri.query()?.split('&').collect();
        let token = pairs.iter().find_map(|pair| pair.strip_prefix(TOKEN)?.strip_prefix('='))?;
        let rest: Vec<&str> =
            pairs.iter().copied().filter(|pair| !pair.starts_with(&format!("{TOKEN}="))).collect();
        // Only a path of this server: two slashes at the beginning would name another.
        let path = format!("/{}", uri.path().trim_start_matches('/'));
        let to = if rest.is_empty() { path } else { format!("{path}?{}", rest.join("&")) };
        let mut response = StatusCode::SEE_OTHER.into_response();
        let headers = response.headers_mut();
        headers.insert(header::LOCATION, HeaderValue::from_str(&to).ok()?);
        headers.insert(header::CACHE_CONTROL, HeaderValue::from_static("no-store"));
        if same(token, &self.token) {
            let cookie =
                format!("{}={}; Path=/; Max-Age={KEPT_S}; HttpOnly; SameSite=Strict", self.cookie, self.key);
            headers.insert(header::SET_COOKIE, HeaderValue::from_str(&cookie).ok()?);
        }
        Some(response)
    }

    /// The browser has been let in.
    pub(crate) fn lets_in(&self, headers: &HeaderMap) -> bool {
        cookies(headers, &self.cookie).any(|value| same(value, &self.key))
    }
}

/// The refusal of whoever was not let in.
pub(crate) fn refusal() -> Details {
    Details::new(
        StatusCode::UNAUTHORIZED,
        "not_let_in",
        "Open the address that Fogon printed when it was started: it lets this browser in.",
    )
}

/// Takes as long for a wrong one as for the right one.
pub(crate) fn same(a: &str, b: &str) -> bool {
    a.as_bytes().ct_eq(b.as_bytes()).into()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_token_is_exchanged_for_a_cookie_and_gone_from_the_address() {
        let access = Access { token: "right".into(), key: "secret".into(), cookie: "fogon_1".into() };
        let exchanged = |uri: &str| access.exchanged(&uri.parse().unwrap());
        let header = |response: &Response, name| {
            response.headers().get(name).map(|value| value.to_str().unwrap().to_owned())
        };
        let right = exchanged("/corners/3?tab=a&token=right").unwrap();
        assert_eq!(header(&right, header::LOCATION).unwrap(), "/corners/3?tab=a");
        let cookie = header(&right, header::SET_COOKIE).unwrap();
        assert!(cookie.contains("HttpOnly") && cookie.contains("SameSite=Strict"), "{cookie}");
        assert_eq!(
            header(&exchanged("//elsewhere.invalid/?token=x").unwrap(), header::LOCATION).unwrap(),
            "/elsewhere.invalid/"
        );
        assert!(header(&exchanged("/?token=wrong").unwrap(), header::SET_COOKIE).is_none());
        assert!(exchanged("/?other=right").is_none());
        let with = |cookie: &str| {
            let mut headers = HeaderMap::new();
            headers.insert(header::COOKIE, cookie.parse().unwrap());
            access.lets_in(&headers)
        };
        assert!(with("a=b; fogon_1=secret"));
        assert!(!with("fogon_2=secret") && !with("fogon_1=secre") && !access.lets_in(&HeaderMap::new()));
    }
}
