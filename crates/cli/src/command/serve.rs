//! `fogon serve` and `fogon demo`.

use std::path::{Path, PathBuf};

use clap::Args;
use fogon_core::money::Catalogue;
use fogon_core::plan::BriefFile;
use fogon_server::{Config, ServeError};

use crate::outcome::Failure;
use crate::prices::Prices;
use crate::read;

/// The demo corners, part of the binary.
const DEMO: [&str; 3] = [
    include_str!("../../../../docs/examples/box-room.brief.json"),
    include_str!("../../../../docs/examples/alcove.brief.json"),
    include_str!("../../../../docs/examples/hallway.brief.json"),
];

#[derive(Args)]
pub(crate) struct Serve {
    /// Database file; made if it is missing
    #[arg(long, value_name = "FILE", default_value = "fogon.sqlite3")]
    database: PathBuf,
    /// Port on 127.0.0.1; 0 takes a free one
    #[arg(long, default_value_t = 4170)]
    port: u16,
    /// No photographs: line drawings alone, for a slow machine
    #[arg(long)]
    no_pictures: bool,
    #[command(flatten)]
    prices: Prices,
}

#[derive(Args)]
pub(crate) struct Demo {
    /// Database file; made if it is missing
    #[arg(long, value_name = "FILE", default_value = "fogon-demo.sqlite3")]
    database: PathBuf,
    /// Port on 127.0.0.1; 0 takes a free one
    #[arg(long, default_value_t = 4170)]
    port: u16,
    /// No photographs: line drawings alone, for a slow machine
    #[arg(long)]
    no_pictures: bool,
    #[command(flatten)]
    prices: Prices,
}

pub(crate) fn serve(arguments: &Serve) -> Result<(), Failure> {
    start(
        &arguments.database,
        arguments.port,
        !arguments.no_pictures,
        arguments.prices.catalogue()?,
        Vec::new(),
    )
}

pub(crate) fn demo(arguments: &Demo) -> Result<(), Failure> {
    let first_briefs =
        DEMO.iter().map(|brief| BriefFile::read(brief.as_bytes())).collect::<Result<Vec<_>, _>>()?;
    start(
        &arguments.database,
        arguments.port,
        !arguments.no_pictures,
        arguments.prices.catalogue()?,
        first_briefs,
    )
}

fn start(
    database: &Path,
    port: u16,
    takes_pictures: bool,
    catalogue: Catalogue,
    first_briefs: Vec<BriefFile>,
) -> Result<(), Failure> {
    let config = Config { database: database.to_owned(), port, takes_pictures, catalogue, first_briefs };
    tracing_subscriber::fmt()
        .with_env_filter(
            tracing_subscriber::EnvFilter::try_from_default_env().unwrap_or_else(|_| "warn".into()),
        )
        .with_writer(std::io::stderr)
        .init();
    let runtime = tokio::runtime::Builder::new_multi_thread()
        .enable_all()
        .build()
        .map_err(|error| Failure::Io(format!("cannot start: {error}")))?;
    let ready = |address: std::net::SocketAddr| {
        let _ = read::print(&format!("Fogon is at http://{address}/  (Ctrl-C stops it)\n"));
    };
    runtime
        .block_on(fogon_server::serve(config, ready))
        .map_err(|error: ServeError| Failure::Io(error.to_string()))
}
