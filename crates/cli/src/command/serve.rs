//! `fogon serve` and `fogon demo`.

use clap::Args;
use fogon_core::plan::BriefFile;
use fogon_server::{Config, ServeError};
use tracing_subscriber::filter::{LevelFilter, Targets};
use tracing_subscriber::layer::SubscriberExt;
use tracing_subscriber::util::SubscriberInitExt;

use crate::data::{Database, Whose};
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
pub(crate) struct Arguments {
    #[command(flatten)]
    database: Database,
    /// Port on 127.0.0.1; 0 takes a free one
    #[arg(long, default_value_t = 4170)]
    port: u16,
    /// For scripts: without a token every account of this machine gets in
    #[arg(long)]
    no_token: bool,
    /// This machine's address on the home network, for a phone that is let in (found out by itself)
    #[arg(long, value_name = "ADDRESS")]
    home: Option<std::net::IpAddr>,
    /// The database file becomes no larger than this, MB (as large as the disk allows)
    #[arg(long, value_name = "MB", value_parser = clap::value_parser!(u64).range(1..1_000_000))]
    most_mb: Option<u64>,
    /// One JSON object a line in the log on standard error
    #[arg(long)]
    json_log: bool,
    /// No photographs: line drawings alone, for a slow machine
    #[arg(long)]
    no_pictures: bool,
    #[command(flatten)]
    prices: Prices,
}

pub(crate) fn serve(arguments: &Arguments) -> Result<(), Failure> {
    start(arguments, Whose::Own, Vec::new())
}

pub(crate) fn demo(arguments: &Arguments) -> Result<(), Failure> {
    let briefs = DEMO.iter().map(|brief| BriefFile::read(brief.as_bytes())).collect::<Result<Vec<_>, _>>()?;
    start(arguments, Whose::Demo, briefs)
}

fn start(arguments: &Arguments, whose: Whose, first_briefs: Vec<BriefFile>) -> Result<(), Failure> {
    let config = Config {
        database: arguments.database.path(whose)?,
        port: arguments.port,
        needs_token: !arguments.no_token,
        home: arguments.home,
        most_bytes: arguments.most_mb.map(|mb| mb * 1_000_000),
        takes_pictures: !arguments.no_pictures,
        catalogue: arguments.prices.catalogue()?,
        first_briefs,
    };
    // A file that is no recording is told to whoever sent it; the reader's own complaint is no fault of the server.
    let usual =
        || Targets::new().with_default(LevelFilter::WARN).with_target("symphonia_core", LevelFilter::OFF);
    let asked = std::env::var("RUST_LOG").ok().and_then(|asked| asked.parse().ok());
    let log = tracing_subscriber::registry().with(asked.unwrap_or_else(usual));
    let lines = tracing_subscriber::fmt::layer().with_writer(std::io::stderr);
    if arguments.json_log {
        log.with(lines.json()).init();
    } else {
        log.with(lines).init();
    }
    let runtime = tokio::runtime::Builder::new_multi_thread()
        .enable_all()
        .build()
        .map_err(|error| Failure::Io(format!("cannot start: {error}")))?;
    let (file, no_token) = (config.database.display().to_string(), arguments.no_token);
    let ready = |address: std::net::SocketAddr, token: &str| {
        let open = if no_token { "Every account of this machine gets in: there is no token.\n" } else { "" };
        let words = format!(
            "Fogon is at http://{address}/{token}  (Ctrl-C stops it)\nThe corners are kept in {file}\n{open}"
        );
        let _ = read::print(&words);
    };
    let ended = runtime.block_on(fogon_server::serve(config, ready));
    // What still computes for somebody who is gone is not waited for.
    runtime.shutdown_background();
    ended.map_err(|error: ServeError| Failure::Io(error.to_string()))
}
