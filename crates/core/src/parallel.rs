//! Many independent pieces of work on all processors, answers in the order of the pieces.

use std::num::NonZero;
use std::sync::atomic::{AtomicUsize, Ordering};

/// Threads at most.
const MOST: usize = 8;

pub(crate) fn in_parallel<T: Sync, R: Send>(pieces: &[T], work: impl Fn(&T) -> R + Sync) -> Vec<R> {
    let threads = std::thread::available_parallelism().map_or(1, NonZero::get).min(MOST).min(pieces.len());
    let next = AtomicUsize::new(0);
    let run = || {
        let mut own = Vec::new();
        loop {
            let at = next.fetch_add(1, Ordering::Relaxed);
            let Some(piece) = pieces.get(at) else { return own };
            own.push((at, work(piece)));
        }
    };
    let mut all: Vec<(usize, R)> = std::thread::scope(|scope| {
        let handles: Vec<_> = (0..threads).map(|_| scope.spawn(run)).collect();
        let joined = handles.into_iter().map(|handle| match handle.join() {
            Ok(own) => own,
            Err(panic) => std::panic::resume_unwind(panic),
        });
        joined.flatten().collect()
    });
    all.sort_by_key(|(at, _)| *at);
    all.into_iter().map(|(_, answer)| answer).collect()
}
