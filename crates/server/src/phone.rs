//! The door to the phone: a second address, on the home network, that is open only while the person allows it. What a phone may do
//! there is laid marks and ticks, nothing else (`routes::on_phones`).

mod home;
mod sessions;

use std::net::{IpAddr, SocketAddr};
use std::sync::Arc;
use std::time::Instant;

use axum::Router;
use axum::http::StatusCode;
use parking_lot::Mutex;
use serde::Serialize;
use tokio::net::TcpListener;
use tokio::sync::oneshot;
use utoipa::ToSchema;

use crate::connections;
use crate::problem::Details;

pub(crate) use home::{Admitting, Known, admit, cookie_name};
pub(crate) use sessions::{Refusal, SESSION_S, Sessions};

/// How a phone's page that plain HTTP serves is protected, in one sentence.
const PLAIN: &str =
    "On the home network nothing is encrypted: whoever can listen in on it can see the marks and the ticks.";

/// The door, open or shut.
pub(crate) struct Phone {
    /// Where to listen, in place of the address by which this machine is known on the home network.
    home: Option<IpAddr>,
    /// The port of the page itself: the same is tried first.
    port: u16,
    open: Mutex<Option<Open>>,
}

struct Open {
    address: SocketAddr,
    sessions: Arc<Mutex<Sessions>>,
    /// Dropped, it ends the listening.
    _stop: oneshot::Sender<()>,
}

/// A phone that was let in.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub(crate) struct Paired {
    /// Its number, by which it is put out again.
    pub(crate) number: u32,
    /// Where it is.
    pub(crate) at: String,
    /// When it was let in, seconds ago.
    pub(crate) paired_s: u64,
    /// When it last asked for something, seconds ago.
    pub(crate) seen_s: u64,
    /// It is put out by itself in so many seconds.
    pub(crate) left_s: u64,
}

/// The door as it stands.
#[derive(Debug, Default, Serialize, ToSchema)]
pub(crate) struct DoorTold {
    /// Where phones find it; none while it is shut.
    pub(crate) address: Option<String>,
    /// The same to be photographed: an SVG.
    pub(crate) picture: Option<String>,
    /// The code to type there, good for one phone.
    pub(crate) code: Option<String>,
    /// That code is good for so many seconds.
    pub(crate) code_s: Option<u64>,
    /// Too many wrong codes: none is taken for so many seconds.
    pub(crate) pause_s: Option<u64>,
    /// Phones that are let in.
    pub(crate) phones: Vec<Paired>,
    /// What is not protected.
    pub(crate) caution: &'static str,
}

impl Phone {
    pub(crate) fn new(home: Option<IpAddr>, port: u16) -> Self {
        Self { home, port, open: Mutex::new(None) }
    }

    /// How it stands; a code that is too old gives way to a new one.
    pub(crate) fn told(&self) -> DoorTold {
        let open = self.open.lock();
        let Some(open) = open.as_ref() else {
            return DoorTold { caution: PLAIN, ..DoorTold::default() };
        };
        let now = Instant::now();
        let mut sessions = open.sessions.lock();
        let (code, code_s) = sessions.code(now);
        let address = format!("http://{}/phone", open.address);
        DoorTold {
            picture: fogon_handover::qr::svg(&address),
            address: Some(address),
            code: Some(code),
            code_s: Some(code_s),
            pause_s: sessions.pause_s(now),
            phones: sessions.phones(now),
            caution: PLAIN,
        }
    }

    /// Opens the door, where it is shut; `application` answers behind it, once a phone is known.
    ///
    /// # Errors
    /// This machine is on no network, or its address there cannot be listened at.
    pub(crate) async fn open(
        &self,
        application: impl FnOnce(Arc<Mutex<Sessions>>, SocketAddr) -> Router,
    ) -> Result<(), Details> {
        if self.open.lock().is_some() {
            return Ok(());
        }
        let home = match self.home {
            Some(home) => home,
            None => home::address().ok_or_else(no_network)?,
        };
        // The same port is free there: the page itself listens on this machine alone.
        let listener = match TcpListener::bind((home, self.port)).await {
            Ok(listener) => listener,
            Err(_) => TcpListener::bind((home, 0)).await.map_err(|error| not_there(home, &error))?,
        };
        let address = listener.local_addr().map_err(|error| not_there(home, &error))?;
        let sessions = Arc::new(Mutex::new(Sessions::new(Instant::now())));
        let (stop, stopped) = oneshot::channel::<()>();
        let application = application(sessions.clone(), address);
        // An end of the sender is the end of the door, whether or not it says so.
        let ended = async move { drop(stopped.await) };
        tokio::spawn(connections::answer(listener, application, ended, std::future::pending()));
        *self.open.lock() = Some(Open { address, sessions, _stop: stop });
        Ok(())
    }

    /// Shuts the door: nobody is let in or answered there any more.
    pub(crate) fn shut(&self) {
        if let Some(open) = self.open.lock().take() {
            open.sessions.lock().put_out_all();
        }
    }

    /// Puts one phone out; whether there was such a one.
    pub(crate) fn put_out(&self, number: u32) -> bool {
        self.open.lock().as_ref().is_some_and(|open| open.sessions.lock().put_out(number))
    }
}

fn no_network() -> Details {
    Details::new(
        StatusCode::CONFLICT,
        "no_network",
        "This machine is on no network that a phone could reach. Join your home network, then try again.",
    )
}

fn not_there(home: IpAddr, error: &std::io::Error) -> Details {
    let words = format!("Fogon cannot listen at {home}: {error}.");
    Details::new(StatusCode::CONFLICT, "no_network", words)
}
