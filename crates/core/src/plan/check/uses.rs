//! What a layout uses and where it puts it: every id names a thing of the right kind, every place lies in the room or near
//! it.

use super::refusals::{conflict, unknown};
use crate::geometry::{DVec2, DVec3, beyond_m};
use crate::plan::{Brief, Gear, Id, OpeningKind, Part, Support, SupportKind, Treatment};
use crate::problem::{Code, Problem};

/// A placed thing may lie so far outside the room, m: up to here it is told as a broken rule, from here on the plan is
/// refused as mistyped. Fogon's own rule.
pub const OUTSIDE_M: f64 = 1.0;

/// Every part of one layout, at a path of the document.
pub(super) struct Uses<'a> {
    pub(super) brief: &'a Brief,
    pub(super) at: &'a str,
    pub(super) found: &'a mut Vec<Problem>,
}

impl Uses<'_> {
    /// Checks one part.
    pub(super) fn part(&mut self, part: Part<'_>) {
        let field = match part {
            Part::Seat(_) => "seat".to_owned(),
            Part::Camera(_) => "camera".to_owned(),
            Part::Light(id, _) => format!("lights.{id}"),
            Part::Microphone(_) => "microphone".to_owned(),
            Part::Screen(_) => "screen".to_owned(),
            Part::Backdrop(_) => "backdrop".to_owned(),
            Part::Angle(id, _) => format!("angles.{id}"),
            Part::Treatment(id, _) => format!("treatment.{id}"),
            Part::Furniture(id, _) => format!("furniture.{id}"),
        };
        match part {
            Part::Seat(_) => {}
            Part::Camera(camera) => self.optics(&field, &camera.body, &camera.lens),
            Part::Light(_, light) => {
                let lamp = |g: &Gear| g.light().is_some() || g.reflector().is_some();
                self.gear(&format!("{field}.gear"), &light.gear, "a light or reflector", lamp);
                if let Some(cloth) = &light.cloth {
                    let thin = |g: &Gear| g.reflector().is_some_and(|panel| panel.transmittance.is_some());
                    let what = "a panel that light passes";
                    self.gear(&format!("{field}.cloth.gear"), &cloth.gear, what, thin);
                }
            }
            Part::Microphone(microphone) => {
                let is_one = |g: &Gear| g.microphone().is_some();
                self.gear("microphone.gear", &microphone.gear, "a microphone", is_one);
            }
            Part::Screen(screen) => {
                self.gear("screen.gear", &screen.gear, "a monitor", |g| g.monitor().is_some());
            }
            Part::Backdrop(backdrop) => {
                self.gear("backdrop.gear", &backdrop.gear, "a backdrop", |g| g.backdrop().is_some());
            }
            Part::Angle(_, angle) => self.optics(&field, &angle.body, &angle.lens),
            Part::Treatment(_, treatment) => self.treatment(&field, treatment),
            Part::Furniture(id, _) => self.furniture(&field, id),
        }
        self.place(&format!("{field}.position_m"), part.position_m());
        if let Some(support) = part.support() {
            self.support(&format!("{field}.support"), support);
        }
    }

    fn say(&mut self, field: &str, value: impl std::fmt::Display, accepted: String, code: Code) {
        self.found.push(Problem::new(format!("{}.{field}", self.at), value, accepted, code));
    }

    fn place(&mut self, field: &str, at: DVec3) {
        let room = &self.brief.room;
        let beside = beyond_m(&room.outline(), at.truncate());
        let over = (at.z - room.height_m).max(-at.z);
        let out = beside.max(over);
        if out.is_nan() || out > OUTSIDE_M {
            let accepted = format!("a place in the room, or at most {OUTSIDE_M} m outside it");
            self.say(field, format!("a place {out:.2} m outside the room"), accepted, Code::OutOfRange);
        }
    }

    fn optics(&mut self, field: &str, body: &Id, lens: &Id) {
        self.gear(&format!("{field}.body"), body, "a camera", |g| g.camera().is_some());
        self.gear(&format!("{field}.lens"), lens, "a lens", |g| g.lens().is_some());
        self.mounts(&format!("{field}.lens"), body, lens);
    }
    fn treatment(&mut self, field: &str, treatment: &Treatment) {
        let is_treatment = |g: &Gear| g.treatment().is_some();
        self.gear(&format!("{field}.gear"), &treatment.gear, "something that absorbs sound", is_treatment);
        let room = &self.brief.room;
        let at = self.at;
        let Some(surface) = room.surface(&treatment.on.0) else {
            let walls = room.floor_m.len().saturating_sub(1);
            let accepted = format!("wall-0 to wall-{walls}, floor or ceiling");
            self.found.push(unknown(&format!("{at}.{field}.on"), &treatment.on, &accepted));
            return;
        };
        let Some(gear) = self.brief.gear.get(&treatment.gear).and_then(Gear::treatment) else { return };
        let off = surface.overhang_m(treatment.position_m.into(), treatment.size_m(gear));
        if off > 0.02 {
            let accepted = format!("a place on {}, {off:.2} m from there", treatment.on);
            self.found.push(conflict(format!("{at}.{field}.position_m"), off, accepted));
        }
    }

    fn gear(&mut self, field: &str, id: &Id, what: &str, fits: impl Fn(&Gear) -> bool) {
        if !self.brief.gear.get(id).is_some_and(fits) {
            let at = self.at;
            self.found.push(unknown(
                &format!("{at}.{field}"),
                id,
                &format!("the id of {what} in brief.gear"),
            ));
        }
    }

    /// A lens that is built into one body is used on no other, nor another lens on that body.
    fn mounts(&mut self, field: &str, body: &Id, lens: &Id) {
        let gear = &self.brief.gear;
        let Some(glass) = gear.get(lens).and_then(Gear::lens) else { return };
        if gear.get(body).and_then(Gear::camera).is_none() || self.brief.mounts(body, glass) {
            return;
        }
        let accepted = match &glass.built_into {
            Some(own) => format!("a lens that fits {body}; this one is built into {own}"),
            None => format!("a lens built into {body}, whose lens cannot be changed"),
        };
        self.found.push(Problem::new(format!("{}.{field}", self.at), lens, accepted, Code::Conflict));
    }

    fn furniture(&mut self, field: &str, id: &Id) {
        if !self.brief.room.furniture.contains_key(id) {
            let at = self.at;
            self.found.push(unknown(&format!("{at}.{field}"), id, "the id of a piece of furniture"));
        }
    }

    fn support(&mut self, field: &str, support: &Support) {
        if let Some(id) = &support.gear {
            self.gear(&format!("{field}.gear"), id, "a support", |g| g.support().is_some());
        }
        let is_door = |id: &Id| {
            self.brief.room.openings.get(id).is_some_and(|opening| opening.kind == OpeningKind::Door)
        };
        if let Some(id) = &support.on
            && !(support.kind == SupportKind::Clamp && is_door(id))
        {
            self.furniture(&format!("{field}.on"), id);
        }
        if let Some(base) = support.base_m {
            self.place(&format!("{field}.base_m"), DVec2::from(base).extend(0.0));
        }
        if support.kind == SupportKind::Wall && support.base_m.is_none() {
            let at = format!("{}.{field}.base_m", self.at);
            let accepted = "the place on the wall where the arm is fixed, as [x, y]";
            self.found.push(Problem::new(at, "missing", accepted, Code::MissingField));
        }
    }
}
