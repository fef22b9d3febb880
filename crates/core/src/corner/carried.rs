//! What is carried by what: every placed thing that has a support, with its stand, where it is held and how heavy it is.

use super::Corner;
use super::things::microphone_tail_m;
use crate::geometry::DVec3;
use crate::plan::{GearSupport, Part, Support, SupportKind, ThingId};

/// A placed thing that something carries.
#[derive(Debug, Clone)]
pub struct Carried<'a> {
    /// Which thing.
    pub id: ThingId,
    /// How it is carried.
    pub support: &'a Support,
    /// The stand's gear, if the support names one.
    pub stand: Option<&'a GearSupport>,
    /// Where it is held, m.
    pub hold_m: DVec3,
    /// The middle of its mass, m.
    pub middle_m: DVec3,
    /// kg.
    pub mass_kg: f64,
    /// People brush against it: a lamp, a microphone or a screen out in the room.
    pub is_brushed: bool,
}

impl Carried<'_> {
    /// It stands on the floor.
    pub fn stands(&self) -> bool {
        matches!(self.support.kind, SupportKind::Floor | SupportKind::Boom)
    }

    /// It is fixed to wall or ceiling.
    pub fn is_fixed(&self) -> bool {
        matches!(self.support.kind, SupportKind::Ceiling | SupportKind::Wall)
    }
}

impl<'a> Corner<'a> {
    /// Every placed thing that has a support, in the order of the layout's parts.
    pub fn carried(&self) -> Vec<Carried<'a>> {
        let layout: &'a crate::plan::Layout = self.layout;
        layout.parts().filter_map(|part| self.carried_part(part)).collect()
    }

    pub(super) fn carried_part(&self, part: Part<'a>) -> Option<Carried<'a>> {
        let support = part.support()?;
        let one = |hold_m: DVec3, middle_m: DVec3, mass_kg: f64, is_brushed: bool| Carried {
            id: part.id(),
            support,
            stand: self.support_gear(support),
            hold_m,
            middle_m,
            mass_kg,
            is_brushed,
        };
        match part {
            Part::Camera(_) => {
                let own = self.body.common.mass_kg + self.lens.common.mass_kg;
                // A screen without a stand of its own hangs on the camera's.
                let screen = self.screen.filter(|_| self.screen_is_on_camera());
                let more = screen.map_or(0.0, |(gear, _)| gear.common.mass_kg);
                Some(one(self.camera_hold_m(), self.view.position_m, own + more, false))
            }
            Part::Light(id, _) => {
                let light = self.lights.iter().find(|light| light.id == id)?;
                // The mass of a lamp sits between its face and where it is held.
                let middle = (light.position_m + light.hold_m()) / 2.0;
                Some(one(light.hold_m(), middle, light.mass_kg(), true))
            }
            Part::Microphone(_) => {
                let (gear, at) = self.microphone?;
                Some(one(microphone_tail_m(self, at), at, gear.common.mass_kg, true))
            }
            Part::Screen(_) => {
                let (gear, at) = self.screen?;
                let under = at - DVec3::Z * (gear.height_m() / 2.0);
                Some(one(under, at, gear.common.mass_kg, true))
            }
            Part::Angle(id, _) => {
                let angle = self.angles.iter().find(|angle| angle.id == id)?;
                let at = angle.view.position_m;
                Some(one(at, at, angle.body.common.mass_kg + angle.lens.common.mass_kg, false))
            }
            Part::Seat(_) | Part::Backdrop(_) | Part::Treatment(..) | Part::Furniture(..) => None,
        }
    }
}
