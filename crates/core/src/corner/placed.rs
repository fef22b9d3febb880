//! Everything placed in a corner as people meet it: the letter of its mark, what it is called, where it is and what
//! carries it. Drawings, card, page and a hand that moves things all go by this list.

use super::{Carried, Corner};
use crate::geometry::{DVec2, DVec3};
use crate::plan::{Part, Role, ThingId};
use crate::units::capital;

/// One placed thing.
#[derive(Debug, Clone)]
pub struct PlacedThing<'a> {
    /// Which thing.
    pub id: ThingId,
    /// Letter of its mark; empty for what gets none.
    pub letter: &'static str,
    /// What people call it.
    pub called: String,
    /// Where it is, m: eyes, lens, middle of a lamp's face, capsule, middle of a screen, foot of a backdrop.
    pub at_m: DVec3,
    /// How it is carried; none of a thing that stands by itself or hangs flat.
    pub carried: Option<Carried<'a>>,
    /// It stays where it is until it is unlocked.
    pub is_locked: bool,
}

impl<'a> Corner<'a> {
    /// Every placed thing in the order in which marks are laid, then all furniture of the room.
    pub fn placed(&self) -> Vec<PlacedThing<'a>> {
        let mut parts: Vec<Part<'a>> = self.layout.parts().collect();
        // Stable: only lights change places among themselves.
        parts.sort_by_key(|part| match part {
            Part::Seat(_) => (0, 0),
            Part::Camera(_) => (1, 0),
            Part::Light(_, light) => {
                (2, Role::IN_ORDER.iter().position(|role| *role == light.role).unwrap_or(0))
            }
            Part::Microphone(_)
            | Part::Screen(_)
            | Part::Backdrop(_)
            | Part::Angle(..)
            | Part::Treatment(..)
            | Part::Furniture(..) => (3, 0),
        });
        let mut all: Vec<PlacedThing<'a>> =
            parts.into_iter().filter_map(|part| self.placed_part(part)).collect();
        for (id, piece) in &self.brief.room.furniture {
            all.push(PlacedThing {
                id: ThingId::Furniture(id.clone()),
                letter: "",
                called: capital(&id.words()),
                at_m: self.furniture_at(id, piece).0,
                carried: None,
                is_locked: self.layout.furniture.get(id).is_some_and(|moved| moved.locked),
            });
        }
        all
    }

    /// One placed thing; none of furniture, which is the room's, and of what names no gear.
    fn placed_part(&self, part: Part<'a>) -> Option<PlacedThing<'a>> {
        let (letter, called, at_m) = match part {
            Part::Seat(_) => ("S", "Seat".to_owned(), self.eyes_m),
            Part::Camera(_) => ("C", "Camera".to_owned(), self.view.position_m),
            Part::Light(id, light) => {
                let at = self.lights.iter().find(|at| at.id == id)?;
                (light.role.letter(), capital(&at.called()), at.position_m)
            }
            Part::Microphone(_) => ("M", "Microphone".to_owned(), self.microphone?.1),
            Part::Screen(_) => {
                let (gear, at) = self.screen?;
                ("D", capital(gear.screen.word()), at)
            }
            Part::Backdrop(used) => {
                let (gear, _) = self.backdrop?;
                ("H", gear.common.label.clone(), DVec2::from(used.position_m).extend(0.0))
            }
            Part::Angle(id, _) => {
                let index = self.angles.iter().position(|angle| angle.id == id)?;
                (crate::plan::Angle::letter(index), capital(&id.words()), self.angles[index].view.position_m)
            }
            Part::Treatment(id, one) => ("", capital(&id.words()), one.position_m.into()),
            Part::Furniture(..) => return None,
        };
        let carried = self.carried_part(part);
        Some(PlacedThing { id: part.id(), letter, called, at_m, carried, is_locked: part.is_locked() })
    }
}
