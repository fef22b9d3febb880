//! Who is answered at the door to the phone: the address that was paired, from pages of that address alone, and beyond the page
//! itself only phones that were let in.

use std::net::{IpAddr, Ipv4Addr, SocketAddr, UdpSocket};
use std::sync::Arc;
use std::time::Instant;

use axum::extract::{ConnectInfo, Request, State};
use axum::http::{StatusCode, header};
use axum::middleware::Next;
use axum::response::{IntoResponse, Response};
use parking_lot::Mutex;

use super::Sessions;
use crate::guard::{DATA, cookies, harden, is_same_origin, text};
use crate::problem::Details;

/// The one address that is asked for without a session: the code is given there.
const PAIR: &str = "/api/v1/phone/pair";

/// The door as its guard knows it.
#[derive(Clone)]
pub(crate) struct Admitting {
    pub(crate) sessions: Arc<Mutex<Sessions>>,
    pub(crate) address: SocketAddr,
}

/// Which phone asks.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Known(pub(crate) u32);

/// The name of the cookie at a port: browsers tell cookies apart by host alone.
pub(crate) fn cookie_name(port: u16) -> String {
    format!("fogon_phone_{port}")
}

pub(crate) async fn admit(
    State(Admitting { sessions, address }): State<Admitting>,
    ConnectInfo(peer): ConnectInfo<SocketAddr>,
    mut request: Request,
    next: Next,
) -> Response {
    let is_data = request.uri().path().starts_with(DATA);
    let host = text(request.headers(), &header::HOST).unwrap_or_default();
    let is_here = host.parse() == Ok(address) || (address.port() == 80 && host.parse() == Ok(address.ip()));
    let mut response = if !is_here || !is_same_origin(&request, is_data) {
        let words = format!("This address answers only pages opened from http://{address}.");
        Details::new(StatusCode::FORBIDDEN, "forbidden_origin", words).into_response()
    } else if !is_data || request.uri().path() == PAIR {
        next.run(request).await
    } else {
        let name = cookie_name(address.port());
        let known = {
            let mut sessions = sessions.lock();
            cookies(request.headers(), &name)
                .find_map(|token| sessions.known(token, peer.ip(), Instant::now()))
        };
        match known {
            Some(number) => {
                request.extensions_mut().insert(Known(number));
                next.run(request).await
            }
            None => {
                let words = "Type the code that Fogon shows on your computer.";
                Details::new(StatusCode::UNAUTHORIZED, "not_let_in", words).into_response()
            }
        }
    };
    harden(response.headers_mut(), is_data);
    response
}

/// The address by which this machine is known on its network: that from which it would send something away. Nothing is sent.
pub(super) fn address() -> Option<IpAddr> {
    // An address that is kept for documents and belongs to nobody (RFC 5737).
    const ELSEWHERE: (Ipv4Addr, u16) = (Ipv4Addr::new(192, 0, 2, 1), 9);
    let socket = UdpSocket::bind((Ipv4Addr::UNSPECIFIED, 0)).ok()?;
    socket.connect(ELSEWHERE).ok()?;
    let own = socket.local_addr().ok()?.ip();
    (!own.is_loopback() && !own.is_unspecified()).then_some(own)
}
