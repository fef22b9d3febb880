//! A running server and its answers.

use std::path::Path;
use std::sync::mpsc;
use std::time::Duration;

use fogon_core::money::Catalogue;
use fogon_core::plan::BriefFile;
use fogon_server::{Config, serve};
use fogon_testkit::BOX_ROOM;
use serde_json::Value;

/// A running server; stops when dropped.
pub(crate) struct Server {
    pub(crate) base: String,
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
        Self::started(Config {
            database: database.to_owned(),
            port: 0,
            takes_pictures: false,
            catalogue: Catalogue::of_fogon().clone(),
            first_briefs: Vec::new(),
        })
    }

    /// As `fogon demo` starts: with first corners where there are none.
    pub(crate) fn starting_with(database: &Path, first_briefs: Vec<BriefFile>) -> Self {
        Self::started(Config {
            database: database.to_owned(),
            port: 0,
            takes_pictures: true,
            catalogue: Catalogue::of_fogon().clone(),
            first_briefs,
        })
    }

    fn started(config: Config) -> Self {
        let runtime = tokio::runtime::Runtime::new().unwrap();
        let (tell, hear) = mpsc::channel();
        runtime
            .spawn(async move { serve(config, move |address| tell.send(address).unwrap()).await.unwrap() });
        let address = hear.recv_timeout(Duration::from_secs(20)).expect("the server starts");
        assert!(address.ip().is_loopback());
        let agent = ureq::Agent::config_builder()
            .http_status_as_error(false)
            .timeout_global(Some(Duration::from_secs(60)))
            .build()
            .into();
        Self { base: format!("http://{address}"), runtime: Some(runtime), agent }
    }

    pub(crate) fn send(&self, method: &str, path: &str, headers: &[(&str, &str)], body: &str) -> Answer {
        let mut request = ureq::http::Request::builder().method(method).uri(format!("{}{path}", self.base));
        for (name, value) in headers {
            request = request.header(*name, *value);
        }
        let request = request.header("content-type", "application/json").body(body.to_owned()).unwrap();
        let mut answer = self.agent.run(request).unwrap();
        let header = |name| answer.headers().get(name).map_or("", |v| v.to_str().unwrap()).to_owned();
        let (kind, tag) = (header("content-type"), header("etag"));
        // Sound is no text; those who ask for it look at its bytes themselves.
        let body = answer.body_mut().with_config().limit(50_000_000).read_to_vec().unwrap();
        let text = String::from_utf8_lossy(&body).into_owned();
        Answer { status: answer.status().as_u16(), kind, tag, text, bytes: body }
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

pub(crate) fn folder() -> tempfile::TempDir {
    tempfile::tempdir().unwrap()
}
