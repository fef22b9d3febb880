//! The local server: parse, call the core, answer. The page is embedded.

mod desk;
mod guard;
mod laid_out;
mod pages;
mod problem;
mod routes;
mod studio;

use std::net::{Ipv4Addr, SocketAddr};
use std::path::{Path, PathBuf};
use std::sync::{Arc, Weak};
use std::time::Duration;

use axum::Router;
use axum::handler::Handler;
use axum::serve::ListenerExt;
use fogon_core::money::Catalogue;
use fogon_store::{Document, Store, StoreError};
use thiserror::Error;
use tower_http::compression::CompressionLayer;
use tower_http::trace::TraceLayer;

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
    /// The server broke off.
    #[error("the server stopped: {0}")]
    Serve(std::io::Error),
}

/// The whole application over a store, for callers that bring their own listener.
pub fn application(store: Arc<Store>, takes_pictures: bool, catalogue: Catalogue) -> Router {
    let app = routes::App {
        store,
        studio: Arc::new(studio::Studio::new(takes_pictures)),
        desk: Arc::default(),
        catalogue: Arc::new(catalogue),
    };
    routes::router(app)
        // Answers of the API stay as they are: on one machine, packing costs more than it saves.
        .fallback(pages::page.layer(CompressionLayer::new()))
        .layer(axum::middleware::from_fn(guard::same_machine))
        .layer(TraceLayer::new_for_http())
}

/// Opens the store and serves until the process is told to stop; `ready` hears the address once it listens.
///
/// # Errors
/// The database or the port cannot be used.
pub async fn serve(config: Config, ready: impl FnOnce(SocketAddr)) -> Result<(), ServeError> {
    let shown = |path: &Path| path.display().to_string();
    let failed = |source| ServeError::Store { path: shown(&config.database), source };
    let store = Arc::new(Store::open(&config.database).map_err(failed)?);
    if !config.first_briefs.is_empty() {
        let first = |brief: &fogon_core::plan::BriefFile| {
            let (name, brief) = (brief.name.clone(), brief.brief.clone());
            laid_out::laid_out(Document { name, brief, layout: None })
        };
        store.seed(|| config.first_briefs.iter().map(first).collect()).map_err(failed)?;
    }
    let listen = |source| ServeError::Listen { port: config.port, source };
    let listener = tokio::net::TcpListener::bind((Ipv4Addr::LOCALHOST, config.port)).await.map_err(listen)?;
    ready(listener.local_addr().map_err(listen)?);
    tokio::spawn(keep_house(Arc::downgrade(&store)));
    // Answers are small and awaited one by one: none may wait for more to send.
    let listener = listener.tap_io(|stream| {
        if let Err(error) = stream.set_nodelay(true) {
            tracing::debug!(%error, "answers may be delayed");
        }
    });
    axum::serve(listener, application(store, config.takes_pictures, config.catalogue))
        .with_graceful_shutdown(stopped())
        .await
        .map_err(ServeError::Serve)
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

async fn stopped() {
    // Without a signal to wait for, only the end of the process stops the server.
    if tokio::signal::ctrl_c().await.is_err() {
        std::future::pending::<()>().await;
    }
}
