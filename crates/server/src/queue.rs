//! What computes waits its turn: so many at once, so many in line, and whoever comes then is told to ask again. Reading and saving
//! never wait here.

use std::sync::Arc;
use std::sync::atomic::{AtomicUsize, Ordering};

use axum::extract::{Request, State};
use axum::http::StatusCode;
use axum::middleware::Next;
use axum::response::Response;
use tokio::sync::{OwnedSemaphorePermit, Semaphore};

use crate::problem::Details;

tokio::task_local! {
    /// Where the computing of this request waits.
    static LINE: Line;
}

/// A line before a few places.
#[derive(Clone)]
pub(crate) struct Line(Arc<Inner>);

struct Inner {
    places: Arc<Semaphore>,
    waiting: AtomicUsize,
    most_waiting: usize,
}

/// The lines: a short answer never waits behind a search.
#[derive(Clone)]
pub(crate) struct Lines {
    /// Readings and drawings, some milliseconds each.
    pub(crate) short: Line,
    /// Searches, some seconds each.
    pub(crate) long: Line,
    /// Pictures by themselves, which use every processor: one after the other.
    pub(crate) pictures: Line,
}

impl Lines {
    pub(crate) fn new() -> Self {
        let processors = std::thread::available_parallelism().map_or(2, usize::from);
        Self {
            // Hearing a corner takes a second: readings go on beside it.
            short: Line::new(2 * processors, 64),
            long: Line::new((processors / 2).max(2), 32),
            pictures: Line::new(1, 64),
        }
    }
}

impl Line {
    fn new(at_once: usize, most_waiting: usize) -> Self {
        let places = Arc::new(Semaphore::new(at_once));
        Self(Arc::new(Inner { places, waiting: AtomicUsize::new(0), most_waiting }))
    }

    /// Stands in line.
    ///
    /// # Errors
    /// The line is as long as it may be.
    pub(crate) fn stand(&self) -> Result<Standing, Details> {
        let standing = Standing(self.clone());
        let before = self.0.waiting.fetch_add(1, Ordering::Relaxed);
        if before < self.0.most_waiting + self.0.places.available_permits() {
            return Ok(standing);
        }
        let words = format!("Fogon is still working on {before} other questions. Ask again in a moment.");
        Err(Details::new(StatusCode::SERVICE_UNAVAILABLE, "busy", words))
    }
}

/// Somebody in line; leaves it when dropped.
pub(crate) struct Standing(Line);

impl Standing {
    /// Waits for a place, which is held until what is returned is dropped.
    pub(crate) async fn turn(self) -> Option<OwnedSemaphorePermit> {
        self.0.0.places.clone().acquire_owned().await.ok()
    }
}

impl Drop for Standing {
    fn drop(&mut self) {
        self.0.0.waiting.fetch_sub(1, Ordering::Relaxed);
    }
}

/// Has the computing of a request wait in a line.
pub(crate) async fn in_line(State(line): State<Line>, request: Request, next: Next) -> Response {
    computing_in(line, next.run(request)).await
}

/// Has whatever work computes wait in a line.
pub(crate) async fn computing_in<T>(line: Line, work: impl Future<Output = T>) -> T {
    LINE.scope(line, work).await
}

/// A turn in the line of this request; none is needed where it has no line.
///
/// # Errors
/// As [`Line::stand`].
pub(crate) async fn my_turn() -> Result<Option<OwnedSemaphorePermit>, Details> {
    match LINE.try_with(Line::clone) {
        Ok(line) => Ok(line.stand()?.turn().await),
        Err(_) => Ok(None),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    /// So many at once, so many in line, the next is refused in words; who leaves the line makes room.
    #[tokio::test]
    async fn a_line_has_an_end() {
        let line = Line::new(1, 2);
        let held = line.stand().unwrap().turn().await.unwrap();
        let (second, third) = (line.stand().unwrap(), line.stand().unwrap());
        let refused = line.stand().err().unwrap();
        assert!(serde_json::to_string(&refused).unwrap().contains("Ask again in a moment"));
        drop(third);
        let fourth = line.stand().unwrap();
        drop(held);
        let held = second.turn().await.unwrap();
        drop(held);
        assert!(fourth.turn().await.is_some());
    }
}
