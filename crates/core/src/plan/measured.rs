//! Measured readings and changes: what was measured belongs to one arrangement in one room, and is set aside wherever a
//! part that it belongs to is another (`reading::Condition`).

use std::borrow::Cow;
use std::collections::BTreeMap;

use super::{
    Backdrop, Brief, Clap, Gear, Id, Layout, Light, Mains, MeasuredId, Plan, Room, Things, Treatment,
};
use crate::reading::{Condition, Quantity};

impl Plan {
    /// This plan with another layout, without the measured readings that the change makes untrue.
    #[must_use]
    pub fn with_layout(&self, layout: Layout) -> Self {
        let brief = self.brief.after_change(&self.layout, &layout).into_owned();
        Self { brief, layout, ..self.clone() }
    }

    /// This plan with another brief, without the measured readings that the change makes untrue.
    #[must_use]
    pub fn with_brief(&self, brief: Brief) -> Self {
        let (was, is) = ((&self.brief, Some(&self.layout)), (&brief, Some(&self.layout)));
        let Known { measured, clap } = still_known(was, is);
        Self { brief: Brief { measured, clap, ..brief }, ..self.clone() }
    }
}

/// What is given, with what is chosen where something is.
pub type State<'a> = (&'a Brief, Option<&'a Layout>);

/// What is still known of a state by measuring.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Known {
    /// Measured readings that hold.
    pub measured: BTreeMap<MeasuredId, f64>,
    /// The reverberation time as it was measured while other things hung.
    pub clap: Option<Clap>,
}

/// What is known by measuring of a state that came of another one by hand, without what the change makes untrue. What was measured
/// anew by the same change stays; how a room rang before other things hung in it still tells of the room.
pub fn still_known(before: State<'_>, after: State<'_>) -> Known {
    let differing = differing(before, after);
    let mut measured = after.0.measured.clone();
    let is_old = |id: &MeasuredId, value: f64| before.0.measured.get(id) == Some(&value);
    measured.retain(|id, value| !(is_old(id, *value) && belongs_to(&id.0, &differing)));
    let hung = before.1.map_or_else(|| hung_today(before.0), |layout| layout.treatment.clone());
    let is_set_aside = after.0.measured.contains_key(RT) && !measured.contains_key(RT);
    let clap = match () {
        () if differing.contains(&Condition::Room) || measured.contains_key(RT) => None,
        () if is_set_aside => before.0.clapped(hung),
        () => after.0.clap.clone(),
    };
    Known { measured, clap }
}

/// What belongs to the room and to what hangs in it.
const RT: &str = Quantity::SoundRoomRtMidS.id();

fn hung_today(brief: &Brief) -> BTreeMap<Id, Treatment> {
    brief.today.as_ref().and_then(|today| today.treatment.clone()).unwrap_or_default()
}

impl Brief {
    /// The measured value of a reading.
    pub fn measured_value(&self, quantity: Quantity) -> Option<f64> {
        self.measured.get(quantity.id()).copied()
    }

    /// Ids of measured readings that another brief of the same corner no longer has, nor knows of.
    pub fn set_aside_in(&self, other: &Brief) -> Vec<String> {
        let is_known =
            |id: &MeasuredId| other.measured.contains_key(id) || other.clap.is_some() && id.0 == RT;
        self.measured.keys().filter(|id| !is_known(id)).map(|id| id.0.clone()).collect()
    }

    /// The reverberation time that was measured while these things hung.
    fn clapped(&self, treatment: BTreeMap<Id, Treatment>) -> Option<Clap> {
        self.measured_value(Quantity::SoundRoomRtMidS).map(|rt_mid_s| Clap { rt_mid_s, treatment })
    }

    /// This brief without the measured readings that going from one layout to another makes untrue.
    pub fn after_change(&self, was: &Layout, is: &Layout) -> Cow<'_, Self> {
        if self.measured.is_empty() {
            return Cow::Borrowed(self);
        }
        let differing = differing((self, Some(was)), (self, Some(is)));
        self.without(|id| belongs_to(id, &differing), || was.treatment.clone())
    }

    /// This brief without what was measured of one arrangement - of a layout, or as things stand today -, as far as a search may
    /// come to another.
    pub fn of_any_layout(&self, measured_in: Option<&Layout>) -> Cow<'_, Self> {
        self.without(
            |id| conditions(id).iter().any(|condition| self.may_come_out_otherwise(*condition)),
            || measured_in.map_or_else(|| hung_today(self), |layout| layout.treatment.clone()),
        )
    }

    /// Whether a search may lay this out in another way than it was when it was measured.
    fn may_come_out_otherwise(&self, condition: Condition) -> bool {
        let at_hand =
            |is: fn(&Gear) -> bool| self.gear.values().filter(|gear| gear.at_hand() && is(gear)).count();
        let today = self.today.as_ref();
        match condition {
            Condition::Room | Condition::Posture | Condition::Windows => false,
            Condition::Seat | Condition::Camera | Condition::Lights | Condition::Microphone => true,
            Condition::Body => at_hand(|gear| gear.camera().is_some()) > 1,
            Condition::Backdrop => {
                at_hand(|gear| gear.backdrop().is_some()) > 0
                    || today.is_some_and(|today| today.backdrop.is_some())
            }
            Condition::Furniture => {
                self.room.furniture.values().any(|piece| !piece.fixed)
                    || today.is_some_and(|today| today.furniture.is_some())
            }
            Condition::Treatment => {
                at_hand(|gear| gear.treatment().is_some()) > 0
                    || today.is_some_and(|today| today.treatment.is_some())
            }
        }
    }

    fn without(
        &self,
        is_untrue: impl Fn(&str) -> bool,
        hung: impl FnOnce() -> BTreeMap<Id, Treatment>,
    ) -> Cow<'_, Self> {
        if !self.measured.keys().any(|id| is_untrue(&id.0)) {
            return Cow::Borrowed(self);
        }
        let mut brief = self.clone();
        if is_untrue(RT) {
            brief.clap = self.clapped(hung()).or(brief.clap);
        }
        brief.measured.retain(|id, _| !is_untrue(&id.0));
        Cow::Owned(brief)
    }
}

fn conditions(id: &str) -> &'static [Condition] {
    Quantity::of_id(id).and_then(Quantity::measurable).map_or(&[], |measurable| measurable.belongs_to)
}

fn belongs_to(id: &str, differing: &[Condition]) -> bool {
    conditions(id).iter().any(|condition| differing.contains(condition))
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

/// In what two states differ, as far as measured values ask. A layout that is there on one side only differs in all.
fn differing((was, was_laid): State<'_>, (is, is_laid): State<'_>) -> Vec<Condition> {
    fn laid<T: PartialEq>(was: Option<&Layout>, is: Option<&Layout>, of: impl Fn(&Layout) -> T) -> bool {
        was.map(&of) != is.map(&of)
    }
    let other = |condition: &Condition| match condition {
        Condition::Room => {
            // The mains are no part of what is heard and seen.
            let room = |brief: &Brief| Room {
                mains: Mains::default(),
                sockets: Default::default(),
                ..brief.room.clone()
            };
            room(was) != room(is)
        }
        Condition::Posture => {
            let posture =
                |brief: &Brief| (brief.person.posture, brief.person.seat_height_m, brief.person.stature_m);
            posture(was) != posture(is)
        }
        Condition::Windows => was.windows_shine() != is.windows_shine(),
        Condition::Seat => {
            laid(was_laid, is_laid, |layout| (layout.seat.position_m, layout.seat.bearing_deg))
        }
        Condition::Camera => laid(was_laid, is_laid, |layout| layout.camera.position_m),
        Condition::Body => laid(was_laid, is_laid, |layout| layout.camera.body.clone()),
        Condition::Lights => laid(was_laid, is_laid, |layout| settled(&layout.lights, unlocked_light)),
        Condition::Microphone => laid(was_laid, is_laid, |layout| {
            layout.microphone.as_ref().map(|used| (used.gear.clone(), used.position_m))
        }),
        Condition::Backdrop => laid(was_laid, is_laid, |layout| {
            let place = |b: &Backdrop| (b.gear.clone(), b.position_m, b.bearing_deg, b.hung);
            layout.backdrop.as_ref().map(place)
        }),
        Condition::Furniture => laid(was_laid, is_laid, |layout| -> Vec<_> {
            let moved = layout.furniture.iter();
            moved.map(|(id, at)| (id.clone(), at.position_m, at.bearing_deg)).collect()
        }),
        Condition::Treatment => laid(was_laid, is_laid, |layout| -> Vec<_> {
            let hung = layout.treatment.values();
            hung.map(|t| (t.gear.clone(), t.on.clone(), t.position_m, t.turned)).collect()
        }),
    };
    Condition::ALL.into_iter().filter(other).collect()
}
