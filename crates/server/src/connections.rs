//! Connections: so many at once, none that only pretends to ask, and an end that comes when it is told to.

use std::collections::BTreeMap;
use std::convert::Infallible;
use std::io;
use std::net::SocketAddr;
use std::sync::Arc;
use std::sync::atomic::{AtomicBool, Ordering};
use std::time::Duration;

use axum::Router;
use axum::extract::ConnectInfo;
use axum::http::Request;
use hyper::body::Incoming;
use hyper::service::service_fn;
use hyper_util::rt::{TokioExecutor, TokioIo, TokioTimer};
use hyper_util::server::conn::auto;
use hyper_util::server::graceful::GracefulShutdown;
use parking_lot::Mutex;
use tokio::net::{TcpListener, TcpStream};
use tokio::sync::Notify;
use tower::ServiceExt;

use crate::unread::WasRead;

/// The head of a request, its first as its next, comes within this time.
const HEAD: Duration = Duration::from_secs(10);
/// So many connections are open at once.
const MOST: usize = 256;
/// Answers that are under way when it is told to end have so long.
const GRACE: Duration = Duration::from_secs(5);

/// Answers until `stop` is there, then lets what is under way end: for [`GRACE`] at most, or until `now` is there.
pub(crate) async fn answer(
    listener: TcpListener,
    application: Router,
    stop: impl Future<Output = ()>,
    now: impl Future<Output = ()>,
) {
    let under_way = GracefulShutdown::new();
    let open = Arc::new(Open::default());
    let mut protocol = auto::Builder::new(TokioExecutor::new()).http1_only();
    protocol.http1().timer(TokioTimer::new()).header_read_timeout(HEAD);
    let mut stop = std::pin::pin!(stop);
    loop {
        let (stream, peer) = tokio::select! {
            accepted = accept(&listener) => accepted,
            () = &mut stop => break,
        };
        let Some(place) = open.take_place() else { continue };
        let (application, asked) = (application.clone(), place.one.clone());
        let service = service_fn(move |mut request: Request<Incoming>| {
            request.extensions_mut().insert(ConnectInfo(peer));
            asked.has_asked.store(true, Ordering::Relaxed);
            let (read, request) = WasRead::watching(request);
            let answer = application.clone().oneshot(request);
            async move {
                let mut answer = answer.await?;
                read.told_in(&mut answer);
                Ok::<_, Infallible>(answer)
            }
        });
        let connection = protocol.serve_connection_with_upgrades(TokioIo::new(stream), service).into_owned();
        let connection = under_way.watch(connection);
        tokio::spawn(async move {
            tokio::select! {
                ended = connection => if let Err(error) = ended {
                    tracing::debug!(%error, "a connection broke off");
                },
                () = place.one.close.notified() => {}
            }
            drop(place);
        });
    }
    drop(listener);
    tokio::select! {
        () = under_way.shutdown() => {}
        () = tokio::time::sleep(GRACE) => {}
        () = now => {}
    }
}

async fn accept(listener: &TcpListener) -> (TcpStream, SocketAddr) {
    loop {
        match listener.accept().await {
            Ok((stream, peer)) => {
                // Answers are small and awaited one by one: none may wait for more to send.
                if let Err(error) = stream.set_nodelay(true) {
                    tracing::debug!(%error, "answers may be delayed");
                }
                return (stream, peer);
            }
            // One that went away while it was accepted is no trouble; where none can be opened, some may close.
            Err(error) if error.kind() == io::ErrorKind::ConnectionAborted => {}
            Err(error) => {
                tracing::warn!(%error, "no connection can be accepted");
                tokio::time::sleep(Duration::from_millis(200)).await;
            }
        }
    }
}

/// The connections that are open, the oldest first.
#[derive(Default)]
struct Open(Mutex<(u64, BTreeMap<u64, Arc<One>>)>);

struct One {
    /// It has sent the whole head of a request.
    has_asked: AtomicBool,
    close: Notify,
}

/// Held as long as a connection is open.
struct Place {
    open: Arc<Open>,
    number: u64,
    one: Arc<One>,
}

impl Open {
    /// A place for one more. Where there is none, the oldest that never asked for anything gives way; none where all have.
    fn take_place(self: &Arc<Self>) -> Option<Place> {
        let mut open = self.0.lock();
        if open.1.len() >= MOST {
            let idle = open.1.iter().find(|(_, one)| !one.has_asked.load(Ordering::Relaxed));
            let number = *idle?.0;
            if let Some(one) = open.1.remove(&number) {
                one.close.notify_one();
            }
        }
        open.0 += 1;
        let number = open.0;
        let one = Arc::new(One { has_asked: AtomicBool::new(false), close: Notify::new() });
        open.1.insert(number, one.clone());
        Some(Place { open: self.clone(), number, one })
    }
}

impl Drop for Place {
    fn drop(&mut self) {
        self.open.0.lock().1.remove(&self.number);
    }
}
