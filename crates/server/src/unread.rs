//! A request that is answered before all of it was read ends its connection: its answer says so, and whoever asks again takes
//! another one (RFC 9112, 9.6, from memory).

use std::pin::Pin;
use std::sync::Arc;
use std::sync::atomic::{AtomicBool, Ordering};
use std::task::{Context, Poll};

use axum::body::Body;
use axum::http::{HeaderValue, Request, Response, header::CONNECTION};
use hyper::body::{Body as _, Frame, Incoming, SizeHint};

/// Whether a request was read to its end.
pub(crate) struct WasRead(Arc<AtomicBool>);

impl WasRead {
    /// The request, watched while it is read.
    pub(crate) fn watching(request: Request<Incoming>) -> (Self, Request<Body>) {
        let read = Arc::new(AtomicBool::new(request.body().is_end_stream()));
        let request = request.map(|incoming| Body::new(Watched { incoming, read: read.clone() }));
        (Self(read), request)
    }

    /// Says in the answer that the connection ends, where something of the request was left.
    pub(crate) fn told_in(&self, answer: &mut Response<Body>) {
        if !self.0.load(Ordering::Relaxed) {
            answer.headers_mut().insert(CONNECTION, HeaderValue::from_static("close"));
        }
    }
}

struct Watched {
    incoming: Incoming,
    read: Arc<AtomicBool>,
}

impl hyper::body::Body for Watched {
    type Data = <Incoming as hyper::body::Body>::Data;
    type Error = hyper::Error;

    fn poll_frame(
        mut self: Pin<&mut Self>,
        context: &mut Context<'_>,
    ) -> Poll<Option<Result<Frame<Self::Data>, Self::Error>>> {
        let frame = Pin::new(&mut self.incoming).poll_frame(context);
        if matches!(frame, Poll::Ready(None)) || self.incoming.is_end_stream() {
            self.read.store(true, Ordering::Relaxed);
        }
        frame
    }

    fn is_end_stream(&self) -> bool {
        self.incoming.is_end_stream()
    }

    fn size_hint(&self) -> SizeHint {
        self.incoming.size_hint()
    }
}
