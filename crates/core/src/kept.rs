//! What takes long to work out and is asked for again soon.

use std::fmt;
use std::hash::Hash;
use std::num::NonZeroUsize;
use std::sync::{Arc, Mutex, PoisonError};

use lru::LruCache;

/// Answers by what decides them, those that were asked for last.
pub(crate) struct Kept<K: Hash + Eq, V>(Mutex<LruCache<K, Arc<V>>>);

impl<K: Hash + Eq, V> Kept<K, V> {
    /// Keeps so many.
    pub(crate) fn new(most: NonZeroUsize) -> Self {
        Self(Mutex::new(LruCache::new(most)))
    }

    /// The answer that is kept, else one that is made. A key decides its answer whole, so that it makes no difference which
    /// of two threads that ask at once has made it.
    pub(crate) fn get(&self, key: K, make: impl FnOnce() -> V) -> Arc<V> {
        // A thread that broke off while it held the list has left it whole.
        let kept = || self.0.lock().unwrap_or_else(PoisonError::into_inner);
        if let Some(found) = kept().get(&key) {
            return found.clone();
        }
        let made = Arc::new(make());
        kept().put(key, made.clone());
        made
    }
}

impl<K: Hash + Eq, V> fmt::Debug for Kept<K, V> {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.debug_struct("Kept").finish_non_exhaustive()
    }
}
