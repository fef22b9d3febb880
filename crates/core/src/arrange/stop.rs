//! Ending a search early: because nobody waits for it any more, or because its time is up.

/// Asked again and again; answers for good once it has said yes.
type Asked<'a> = &'a (dyn Fn() -> bool + Sync);

/// Whether a search is to be ended. It is asked before every candidate.
#[derive(Clone, Copy)]
pub struct Stop<'a> {
    left: Option<Asked<'a>>,
    late: Option<Asked<'a>>,
}

impl<'a> Stop<'a> {
    /// The search runs to its end.
    pub const NEVER: Stop<'static> = Stop { left: None, late: None };

    /// The search is left without an answer once this says so.
    pub fn when(left: Asked<'a>) -> Self {
        Self { left: Some(left), late: None }
    }

    /// Once this says so, the best that was found so far is the answer.
    pub fn or_late(self, late: Asked<'a>) -> Self {
        Self { late: Some(late), ..self }
    }

    /// The search is to end.
    pub(crate) fn is_wanted(self) -> bool {
        self.is_left() || self.is_late()
    }

    /// Nobody waits any more.
    pub(crate) fn is_left(self) -> bool {
        self.left.is_some_and(|asked| asked())
    }

    /// Its time is up.
    pub(crate) fn is_late(self) -> bool {
        self.late.is_some_and(|asked| asked())
    }
}
