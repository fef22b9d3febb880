//! Leaving a search that nobody waits for any more.

/// Whether a search is to be left. It is asked before every candidate, and answers for the rest of the search once it has said
/// yes.
#[derive(Clone, Copy)]
pub struct Stop<'a>(Option<&'a (dyn Fn() -> bool + Sync)>);

impl<'a> Stop<'a> {
    /// The search runs to its end.
    pub const NEVER: Stop<'static> = Stop(None);

    /// The search is left once this says so.
    pub fn when(asked: &'a (dyn Fn() -> bool + Sync)) -> Self {
        Self(Some(asked))
    }

    pub(crate) fn is_wanted(self) -> bool {
        self.0.is_some_and(|asked| asked())
    }
}
