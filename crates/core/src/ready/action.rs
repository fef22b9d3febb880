//! How long things take that are done to put a corner up.

use crate::plan::ActionKind;

/// Somebody who fetches a stand goes so fast, m/s. Fogon's own rule.
pub(super) const WALKS_M_S: f64 = 1.0;

/// The usual time of an action, s, and whether hands do it. Fogon's own rule: to be replaced by times of one's own.
pub(super) fn usual(kind: ActionKind) -> (f64, bool) {
    match kind {
        ActionKind::Roll => (15.0, true),
        ActionKind::Carry => (25.0, true),
        ActionKind::Measure => (60.0, true),
        ActionKind::Level => (45.0, true),
        ActionKind::Mount => (30.0, true),
        ActionKind::Clip => (8.0, true),
        ActionKind::SetDown => (15.0, true),
        ActionKind::Hang => (180.0, true),
        ActionKind::LetDown => (15.0, true),
        ActionKind::Wear => (20.0, true),
        ActionKind::Plug => (10.0, true),
        ActionKind::Switch => (3.0, true),
        ActionKind::Dial => (10.0, true),
        ActionKind::Chair => (10.0, true),
        ActionKind::Quiet => (15.0, true),
        ActionKind::Start => (5.0, true),
        ActionKind::CheckPicture => (15.0, true),
        ActionKind::CheckSound => (40.0, true),
        ActionKind::Starting => (8.0, false),
        ActionKind::Settling => (0.0, false),
    }
}
