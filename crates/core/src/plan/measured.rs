//! Measured readings and changes of layout: what was measured with things elsewhere is set aside.

use std::borrow::Cow;

use super::{Brief, Layout, Plan};

impl Plan {
    /// This plan with another layout, without the measured readings that the change makes untrue.
    #[must_use]
    pub fn with_layout(&self, layout: Layout) -> Self {
        let brief = self.brief.after_change(&self.layout, &layout).into_owned();
        Self { brief, layout, ..self.clone() }
    }
}

impl Brief {
    /// This brief without the measured readings that going from one layout to another makes untrue.
    pub fn after_change(&self, was: &Layout, is: &Layout) -> Cow<'_, Self> {
        if self.measured.keys().all(|id| holds(&id.0, was, is)) {
            return Cow::Borrowed(self);
        }
        let mut brief = self.clone();
        brief.measured.retain(|id, _| holds(&id.0, was, is));
        Cow::Owned(brief)
    }
}

/// Whether a reading measured under one layout still holds under another; the person measured another corner if not.
fn holds(reading: &str, was: &Layout, is: &Layout) -> bool {
    let seat = was.seat.position_m != is.seat.position_m || was.seat.bearing_deg != is.seat.bearing_deg;
    let camera = was.camera.position_m != is.camera.position_m;
    let moved = match reading {
        id if id.starts_with("light.face.") => seat || camera || was.lights != is.lights,
        id if id.starts_with("sound.microphone.") => seat || was.microphone != is.microphone,
        "room.background_behind_m" => seat || camera,
        _ => false,
    };
    !moved
}
