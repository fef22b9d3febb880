//! The local server: parse, call the core, answer. The page is embedded.

mod access;
mod connections;
mod desk;
mod guard;
mod laid_out;
mod pages;
mod phone;
mod problem;
mod queue;
mod routes;
mod stop_signal;
mod studio;
mod unread;

use std::net::{IpAddr, Ipv4Addr, SocketAddr};
use std::path::{Path, PathBuf};
use std::sync::{Arc, Weak};
use std::time::Duration;

use axum::Router;
use axum::handler::Handler;
use fogon_core::arrange::Stop;
use fogon_core::money::Catalogue;
use fogon_store::{Document, Store, StoreError};
use thiserror::Error;
use tower_http::compression::CompressionLayer;
use tower_http::trace::TraceLayer;

use stop_signal::StopSignal;

pub use access::Access;
pub use routes::openapi;

/// What this build computes with, in a word.
pub(crate) const BUILD: &str = env!("FOGON_BUILD");

/// How to start.
#[derive(Debug, Clone)]
pub struct Config {
    /// The database file; made if it is missing.
    pub database: PathBuf,
    /// Port on 127.0.0.1; 0 takes a free one.
    pub port: u16,
    /// Only browsers that opened the address printed at start are let in; else everybody on this machine is.
    pub needs_token: bool,
    /// Where phones on the home network find this machine, once the person lets them; found out where none.
    pub home: Option<IpAddr>,
    /// The file may have so many bytes; none for as many as the disk has room for.
    pub most_bytes: Option<u64>,
    /// Photographs are taken; else the line drawings stand alone.
    pub takes_pictures: bool,
    /// What can be bought.
    pub catalogue: Catalogue,
    /// Briefs to start a new database with.
    pub first_briefs: Vec<fogon_core::plan::BriefFile>,
}

/// Why the server does not start, or stops.
#[derive(Debug, Error)]
pub enum ServeError {
    /// The database cannot be used.
    #[error("cannot use the database {path}: {source}")]
    Store {
        /// The file.
        path: String,
        /// Why not.
        source: StoreError,
    },
    /// The port cannot be used.
    #[error("cannot listen on 127.0.0.1:{port}: {source}")]
    Listen {
        /// The port asked for.
        port: u16,
        /// Why not.
        source: std::io::Error,
    },
    /// The system does not say when it is to stop.
    #[error("cannot hear Ctrl-C: {source}")]
    Signals {
        /// Why not.
        source: std::io::Error,
    },
}

/// Where a phone would find this machine.
#[derive(Debug, Clone, Copy)]
pub struct Door {
    /// Its address on the home network; found out where none.
    pub home: Option<IpAddr>,
    /// Its port; another where that is taken.
    pub port: u16,
}

/// The whole application over a store, for callers that bring their own listener.
pub fn application(
    store: Arc<Store>,
    access: Option<Access>,
    door: Door,
    takes_pictures: bool,
    catalogue: Catalogue,
) -> Router {
    let lines = queue::Lines::new();
    let app = routes::App {
        store,
        studio: Arc::new(studio::Studio::new(takes_pictures)),
        desk: Arc::new(desk::Desk::new(lines.long.clone())),
        lines,
        channels: Default::default(),
        phone: Arc::new(phone::Phone::new(door.home, door.port)),
        catalogue: Arc::new(catalogue),
    };
    routes::router(app)
        // Answers of the API stay as they are: on one machine, packing costs more than it saves.
        .fallback(pages::page.layer(CompressionLayer::new()))
        .method_not_allowed_fallback(async || problem::Details::no_such_way())
        .layer(axum::middleware::from_fn_with_state(access.map(Arc::new), guard::guard))
        .layer(TraceLayer::new_for_http().make_span_with(span))
}

/// What the log tells of a request: neither what it asks for by name, nor a token.
fn span(request: &axum::extract::Request) -> tracing::Span {
    tracing::debug_span!("request", method = %request.method(), path = request.uri().path())
}

/// Opens the store and serves until the process is told to stop; `ready` hears the address to open once it listens. Told to stop
/// again it ends at once.
///
/// # Errors
/// The database or the port cannot be used, or the word to stop cannot be heard.
pub async fn serve(config: Config, ready: impl FnOnce(SocketAddr, &str)) -> Result<(), ServeError> {
    let shown = |path: &Path| path.display().to_string();
    let failed = |source| ServeError::Store { path: shown(&config.database), source };
    let store = Arc::new(Store::open(&config.database).map_err(failed)?);
    store.limit(config.most_bytes).map_err(failed)?;
    if !config.first_briefs.is_empty() {
        let first = |brief: &fogon_core::plan::BriefFile| {
            let (name, brief) = (brief.name.clone(), brief.brief.clone());
            laid_out::laid_out(Document { name, brief, layout: None }, Stop::NEVER)
        };
        store.seed(|| config.first_briefs.iter().map(first).collect()).map_err(failed)?;
    }
    let listen = |source| ServeError::Listen { port: config.port, source };
    let listener = tokio::net::TcpListener::bind((Ipv4Addr::LOCALHOST, config.port)).await.map_err(listen)?;
    let address = listener.local_addr().map_err(listen)?;
    let access = if config.needs_token {
        let key = fogon_store::key(&config.database).map_err(failed)?;
        Some(Access::new(&key, address.port()))
    } else {
        None
    };
    let query = access.as_ref().map_or_else(String::new, Access::query);
    let door = Door { home: config.home, port: address.port() };
    let application = application(store.clone(), access, door, config.takes_pictures, config.catalogue);
    let stop = StopSignal::listen().map_err(|source| ServeError::Signals { source })?;
    ready(address, &query);
    tokio::spawn(keep_house(Arc::downgrade(&store)));
    connections::answer(listener, application, stop.has_come(1), stop.has_come(2)).await;
    // What still computes for somebody may hold the store beyond this.
    store.fold().map_err(failed)
}

/// So often the log is folded in, and it is looked whether a snapshot is due.
const AT_REST: Duration = Duration::from_secs(60);

/// Looks after the file as long as it is open.
async fn keep_house(store: Weak<Store>) {
    let mut every = tokio::time::interval(AT_REST);
    loop {
        every.tick().await;
        let Some(store) = store.upgrade() else { return };
        let kept = tokio::task::spawn_blocking(move || store.keep_house()).await;
        if let Ok(Err(error)) = kept {
            tracing::warn!(%error, "the file was not looked after");
        }
    }
}
