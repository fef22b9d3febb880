//! Measured readings and changes: what was measured belongs to one arrangement, and is set aside wherever a part that it
//! belongs to is another (`reading::Facet`).

use std::borrow::Cow;

use super::{Brief, Layout, Light, Plan, Things};
use crate::reading::{Facet, Quantity};

impl Plan {
    /// This plan with another layout, without the measured readings that the change makes untrue.
    #[must_use]
    pub fn with_layout(&self, layout: Layout) -> Self {
        let brief = self.brief.after_change(&self.layout, &layout).into_owned();
        Self { brief, layout, ..self.clone() }
    }

    /// This plan with another brief, without the measured readings that the change makes untrue.
    #[must_use]
    pub fn with_brief(&self, mut brief: Brief) -> Self {
        let shone = self.brief.windows_shine() == brief.windows_shine();
        brief.measured.retain(|id, _| shone || !belongs_to(&id.0, &[Facet::Windows]));
        Self { brief, ..self.clone() }
    }
}

impl Brief {
    /// The measured value of a reading.
    pub fn measured_value(&self, quantity: Quantity) -> Option<f64> {
        self.measured.get(quantity.id()).copied()
    }

    /// Ids of measured readings that another brief of the same corner no longer has.
    pub fn set_aside_in(&self, other: &Brief) -> Vec<String> {
        let measured = self.measured.keys();
        measured.filter(|id| !other.measured.contains_key(*id)).map(|id| id.0.clone()).collect()
    }

    /// This brief without the measured readings that going from one layout to another makes untrue.
    pub fn after_change(&self, was: &Layout, is: &Layout) -> Cow<'_, Self> {
        if self.measured.is_empty() {
            return Cow::Borrowed(self);
        }
        let differing = differing(was, is);
        self.without(|id| belongs_to(id, &differing))
    }

    /// This brief without what was measured of one arrangement: a search looks at others.
    pub fn of_any_layout(&self) -> Cow<'_, Self> {
        self.without(|id| !belongs_to_nothing(id))
    }

    fn without(&self, is_untrue: impl Fn(&str) -> bool) -> Cow<'_, Self> {
        if !self.measured.keys().any(|id| is_untrue(&id.0)) {
            return Cow::Borrowed(self);
        }
        let mut brief = self.clone();
        brief.measured.retain(|id, _| !is_untrue(&id.0));
        Cow::Owned(brief)
    }
}

fn facets(id: &str) -> &'static [Facet] {
    Quantity::of_id(id).and_then(Quantity::measurable).map_or(&[], |measurable| measurable.belongs_to)
}

fn belongs_to_nothing(id: &str) -> bool {
    facets(id).is_empty()
}

fn belongs_to(id: &str, differing: &[Facet]) -> bool {
    facets(id).iter().any(|facet| differing.contains(facet))
}

/// Things as they give light, whatever is locked and however their stands are weighed down.
fn settled<T: Clone>(things: &Things<T>, settle: impl Fn(&mut T)) -> Things<T> {
    let mut all = things.clone();
    all.values_mut().for_each(settle);
    all
}

fn unlocked_light(light: &mut Light) {
    light.locked = false;
    light.support.sandbag_kg = 0.0;
}

/// In what two layouts differ, as far as measured values ask.
fn differing(was: &Layout, is: &Layout) -> Vec<Facet> {
    let differs = |facet: &Facet| match facet {
        Facet::Seat => {
            let place = |layout: &Layout| (layout.seat.position_m, layout.seat.bearing_deg);
            place(was) != place(is)
        }
        Facet::Camera => was.camera.position_m != is.camera.position_m,
        Facet::Body => was.camera.body != is.camera.body,
        Facet::Lights => settled(&was.lights, unlocked_light) != settled(&is.lights, unlocked_light),
        Facet::Microphone => {
            let place = |layout: &Layout| layout.microphone.as_ref().map(|m| (m.gear.clone(), m.position_m));
            place(was) != place(is)
        }
        Facet::Backdrop => {
            let place = |layout: &Layout| {
                layout.backdrop.as_ref().map(|b| (b.gear.clone(), b.position_m, b.bearing_deg, b.hung))
            };
            place(was) != place(is)
        }
        Facet::Furniture => {
            let place = |layout: &Layout| -> Vec<_> {
                layout.furniture.iter().map(|(id, at)| (id.clone(), at.position_m, at.bearing_deg)).collect()
            };
            place(was) != place(is)
        }
        Facet::Treatment => {
            let place = |layout: &Layout| -> Vec<_> {
                layout
                    .treatment
                    .values()
                    .map(|t| (t.gear.clone(), t.on.clone(), t.position_m, t.turned))
                    .collect()
            };
            place(was) != place(is)
        }
        // A layout does not tell.
        Facet::Windows => false,
    };
    let all = [
        Facet::Seat,
        Facet::Camera,
        Facet::Body,
        Facet::Lights,
        Facet::Microphone,
        Facet::Backdrop,
        Facet::Furniture,
        Facet::Treatment,
        Facet::Windows,
    ];
    all.into_iter().filter(differs).collect()
}
