//! A running server and its answers.

use std::path::Path;
use std::sync::mpsc;
use std::time::Duration;

use fogon_core::money::Catalogue;
use fogon_core::plan::BriefFile;
use fogon_server::{Config, serve};
use fogon_testkit::BOX_ROOM;
use serde_json::Value;

use crate::described;

/// A running server; stops when dropped.
pub(crate) struct Server {
    pub(crate) base: String,
    /// What stands behind the address to be let in; empty where nothing needs to.
    pub(crate) token: String,
    runtime: Option<tokio::runtime::Runtime>,
    pub(crate) agent: ureq::Agent,
}

/// An answer: status, headers of interest, body.
pub(crate) struct Answer {
    pub(crate) status: u16,
    pub(crate) kind: String,
    pub(crate) tag: String,
    pub(crate) text: String,
    pub(crate) bytes: Vec<u8>,
    pub(crate) headers: ureq::http::HeaderMap,
}

impl Answer {
    pub(crate) fn json(&self) -> Value {
        serde_json::from_str(&self.text).unwrap_or_else(|e| panic!("{e}: {}", self.text))
    }

    /// The word of a problem, after checking that it is one in plain words.
    pub(crate) fn problem(&self) -> String {
        assert_eq!(self.kind, "application/problem+json", "{}", self.text);
        let body = self.json();
        assert_eq!(body["status"], self.status);
        assert!(body["title"].as_str().is_some_and(|t| t.len() > 10), "{body}");
        body["type"].as_str().unwrap().trim_start_matches("problem:").to_owned()
    }
}

impl Server {
    pub(crate) fn on(database: &Path) -> Self {
        Self::starting_with(database, Vec::new())
    }

    /// As `fogon serve --no-pictures` starts.
    pub(crate) fn without_pictures(database: &Path) -> Self {
        Self::started(Config { takes_pictures: false, ..config(database) })
    }

    /// As `fogon serve` starts, with its token; what stands behind the address to be let in.
    pub(crate) fn with_token(database: &Path) -> Self {
        Self::started(Config { needs_token: true, ..config(database) })
    }

    /// As `fogon demo` starts: with first corners where there are none.
    pub(crate) fn starting_with(database: &Path, first_briefs: Vec<BriefFile>) -> Self {
        Self::started(Config { first_briefs, ..config(database) })
    }

    fn started(config: Config) -> Self {
        let runtime = tokio::runtime::Runtime::new().unwrap();
        let (tell, hear) = mpsc::channel();
        runtime.spawn(async move {
            let ready = move |address, token: &str| tell.send((address, token.to_owned())).unwrap();
            serve(config, ready).await.unwrap();
        });
        let (address, token) = hear.recv_timeout(Duration::from_secs(20)).expect("the server starts");
        let address: std::net::SocketAddr = address;
        assert!(address.ip().is_loopback());
        let agent = ureq::Agent::config_builder()
            .http_status_as_error(false)
            .max_redirects(0)
            .max_redirects_will_error(false)
            .timeout_global(Some(Duration::from_secs(60)))
            // The server closes a connection on which nothing was asked for ten seconds.
            .max_idle_age(Duration::from_secs(5))
            .build()
            .into();
        Self { base: format!("http://{address}"), token, runtime: Some(runtime), agent }
    }

    pub(crate) fn send(&self, method: &str, path: &str, headers: &[(&str, &str)], body: &str) -> Answer {
        self.answer(method, path, headers, "application/json", body.as_bytes())
    }

    /// Sends a body of some kind.
    pub(crate) fn send_as(&self, method: &str, path: &str, kind: &str, body: &[u8]) -> Answer {
        self.answer(method, path, &[], kind, body)
    }

    pub(crate) fn send_bytes(&self, method: &str, path: &str, body: &[u8]) -> Answer {
        self.answer(method, path, &[], "application/json", body)
    }

    fn answer(&self, method: &str, path: &str, headers: &[(&str, &str)], kind: &str, body: &[u8]) -> Answer {
        let mut request = ureq::http::Request::builder().method(method).uri(format!("{}{path}", self.base));
        for (name, value) in headers {
            request = request.header(*name, *value);
        }
        let request = request.header("content-type", kind).body(body.to_vec()).unwrap();
        let mut answer = self.agent.run(request).unwrap();
        let header = |name| answer.headers().get(name).map_or("", |v| v.to_str().unwrap()).to_owned();
        let (kind, tag) = (header("content-type"), header("etag"));
        let headers = answer.headers().clone();
        // Sound is no text; those who ask for it look at its bytes themselves.
        let body = answer.body_mut().with_config().limit(50_000_000).read_to_vec().unwrap();
        let text = String::from_utf8_lossy(&body).into_owned();
        let status = answer.status().as_u16();
        described::hold(method, path, status, &kind, &text);
        Answer { status, kind, tag, text, bytes: body, headers }
    }

    pub(crate) fn get(&self, path: &str) -> Answer {
        self.send("GET", path, &[], "")
    }

    pub(crate) fn post(&self, path: &str, body: &Value) -> Answer {
        self.send("POST", path, &[], &body.to_string())
    }

    /// Keeps the demo corner; its id.
    pub(crate) fn demo(&self) -> i64 {
        let made = self.send("POST", "/api/v1/corners", &[], BOX_ROOM);
        assert_eq!(made.status, 201, "{}", made.text);
        made.json()["id"].as_i64().unwrap()
    }

    pub(crate) fn plan(&self, id: i64) -> Value {
        self.get(&format!("/api/v1/corners/{id}/file")).json()
    }
}

impl Drop for Server {
    fn drop(&mut self) {
        if let Some(runtime) = self.runtime.take() {
            runtime.shutdown_timeout(Duration::from_secs(2));
        }
    }
}

fn config(database: &Path) -> Config {
    Config {
        database: database.to_owned(),
        port: 0,
        needs_token: false,
        home: Some(std::net::Ipv4Addr::new(127, 0, 0, 2).into()),
        most_bytes: None,
        takes_pictures: true,
        catalogue: Catalogue::of_fogon().clone(),
        first_briefs: Vec::new(),
    }
}

pub(crate) fn folder() -> tempfile::TempDir {
    tempfile::tempdir().unwrap()
}
