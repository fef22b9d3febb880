//! Everything that a layout places, walked in one place. Whoever deals with all of it matches on [`Part`] or [`ThingId`]
//! without a catch-all arm, so that a new part does not compile until each of them says what it does with it.

use std::fmt;

use glam::{DVec2, DVec3};

use super::{
    Angle, Backdrop, Brief, Camera, FurnitureAt, Id, Layout, Light, Microphone, Point2, Point3, Screen, Seat,
    Support, Today, Treatment,
};

/// Which thing of a corner. Ids that people choose stand in variants of their own, so that a light called `camera` is
/// not taken for the camera.
#[derive(Debug, Clone, PartialEq, Eq, PartialOrd, Ord, Hash)]
#[allow(missing_docs)]
pub enum ThingId {
    Person,
    Seat,
    Camera,
    Light(Id),
    Microphone,
    Screen,
    Backdrop,
    Angle(Id),
    Treatment(Id),
    Furniture(Id),
    /// A door or a window.
    Opening(Id),
    /// The circuit behind the sockets.
    Mains,
}

/// Names of the things that nobody names: of a plan's own ids, one that is spelled like these is told with its kind.
const OWN_NAMES: [&str; 8] =
    ["person", "seat", "camera", "microphone", "screen", "backdrop", "mains", "monitor"];

impl ThingId {
    /// In words: `camera`, `side angle`, `desk`; what is no thing by its role alone is told as a light.
    pub fn words(&self) -> String {
        match self.chosen() {
            Some(("light", id)) if matches!(id.0.as_str(), "back" | "background") => {
                format!("{} light", id.0)
            }
            Some((_, id)) => id.words(),
            None => self.own_name().to_owned(),
        }
    }

    /// Where a layout holds it, as a JSON pointer; none of what no layout places.
    pub fn pointer(&self) -> Option<String> {
        match self {
            ThingId::Seat => Some("/seat".into()),
            ThingId::Camera => Some("/camera".into()),
            ThingId::Light(id) => Some(format!("/lights/{id}")),
            ThingId::Microphone => Some("/microphone".into()),
            ThingId::Screen => Some("/screen".into()),
            ThingId::Backdrop => Some("/backdrop".into()),
            ThingId::Angle(id) => Some(format!("/angles/{id}")),
            ThingId::Treatment(id) => Some(format!("/treatment/{id}")),
            ThingId::Furniture(id) => Some(format!("/furniture/{id}")),
            ThingId::Person | ThingId::Opening(_) | ThingId::Mains => None,
        }
    }

    /// The kind and the id of a thing that a person has named.
    fn chosen(&self) -> Option<(&'static str, &Id)> {
        match self {
            ThingId::Light(id) => Some(("light", id)),
            ThingId::Angle(id) => Some(("angle", id)),
            ThingId::Treatment(id) => Some(("treatment", id)),
            ThingId::Furniture(id) => Some(("furniture", id)),
            ThingId::Opening(id) => Some(("opening", id)),
            ThingId::Person
            | ThingId::Seat
            | ThingId::Camera
            | ThingId::Microphone
            | ThingId::Screen
            | ThingId::Backdrop
            | ThingId::Mains => None,
        }
    }

    /// The name of a thing that there is one of.
    fn own_name(&self) -> &'static str {
        match self {
            ThingId::Person => "person",
            ThingId::Seat => "seat",
            ThingId::Camera => "camera",
            ThingId::Microphone => "microphone",
            ThingId::Screen => "screen",
            ThingId::Backdrop => "backdrop",
            ThingId::Mains => "mains",
            ThingId::Light(_)
            | ThingId::Angle(_)
            | ThingId::Treatment(_)
            | ThingId::Furniture(_)
            | ThingId::Opening(_) => "",
        }
    }
}

/// A thing with its name in ids and answers: `key`, or `light_camera` where the id is not its alone.
#[derive(Debug, Clone, PartialEq, Eq, Hash)]
pub struct Named {
    /// Which thing.
    pub id: ThingId,
    /// Its name, which no other thing of the same plan has.
    pub name: String,
}

impl fmt::Display for Named {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str(&self.name)
    }
}

/// One placed thing of a layout.
#[derive(Debug, Clone, Copy, PartialEq)]
#[allow(missing_docs)]
pub enum Part<'a> {
    Seat(&'a Seat),
    Camera(&'a Camera),
    Light(&'a Id, &'a Light),
    Microphone(&'a Microphone),
    Screen(&'a Screen),
    Backdrop(&'a Backdrop),
    Angle(&'a Id, &'a Angle),
    Treatment(&'a Id, &'a Treatment),
    Furniture(&'a Id, &'a FurnitureAt),
}

/// Where and how a thing stands: what a lock holds. Settings (focal length, dials, sandbags) are not part of it.
#[derive(Debug, Clone, PartialEq)]
struct Pose<'a> {
    gear: Option<&'a Id>,
    position_m: DVec3,
    turned_deg: [f64; 2],
    aim_m: Option<DVec3>,
    foot_m: Option<DVec2>,
    on: Option<&'a Id>,
    quarter_turn: bool,
}

impl<'a> Part<'a> {
    /// Which thing it is.
    pub fn id(self) -> ThingId {
        match self {
            Part::Seat(_) => ThingId::Seat,
            Part::Camera(_) => ThingId::Camera,
            Part::Light(id, _) => ThingId::Light(id.clone()),
            Part::Microphone(_) => ThingId::Microphone,
            Part::Screen(_) => ThingId::Screen,
            Part::Backdrop(_) => ThingId::Backdrop,
            Part::Angle(id, _) => ThingId::Angle(id.clone()),
            Part::Treatment(id, _) => ThingId::Treatment(id.clone()),
            Part::Furniture(id, _) => ThingId::Furniture(id.clone()),
        }
    }

    /// What carries it; none of a thing that stands by itself, hangs flat or is sat on.
    pub fn support(self) -> Option<&'a Support> {
        match self {
            Part::Camera(camera) => Some(&camera.support),
            Part::Light(_, light) => Some(&light.support),
            Part::Microphone(microphone) => Some(&microphone.support),
            Part::Screen(screen) => Some(&screen.support),
            Part::Angle(_, angle) => Some(&angle.support),
            Part::Seat(_) | Part::Backdrop(_) | Part::Treatment(..) | Part::Furniture(..) => None,
        }
    }

    /// Gear that it uses beside what carries it, in the order body, lens, or thing, cloth.
    pub fn gear(self) -> impl Iterator<Item = &'a Id> {
        let (first, second) = match self {
            Part::Seat(_) | Part::Furniture(..) => (None, None),
            Part::Camera(camera) => (Some(&camera.body), Some(&camera.lens)),
            Part::Light(_, light) => (Some(&light.gear), light.cloth.as_ref().map(|cloth| &cloth.gear)),
            Part::Microphone(microphone) => (Some(&microphone.gear), None),
            Part::Screen(screen) => (Some(&screen.gear), None),
            Part::Backdrop(backdrop) => (Some(&backdrop.gear), None),
            Part::Angle(_, angle) => (Some(&angle.body), Some(&angle.lens)),
            Part::Treatment(_, treatment) => (Some(&treatment.gear), None),
        };
        first.into_iter().chain(second)
    }

    /// Whether it stays where it is until it is unlocked.
    pub fn is_locked(self) -> bool {
        match self {
            Part::Seat(seat) => seat.locked,
            Part::Camera(camera) => camera.locked,
            Part::Light(_, light) => light.locked,
            Part::Microphone(microphone) => microphone.locked,
            Part::Screen(screen) => screen.locked,
            Part::Backdrop(backdrop) => backdrop.locked,
            Part::Angle(_, angle) => angle.locked,
            Part::Treatment(_, treatment) => treatment.locked,
            Part::Furniture(_, piece) => piece.locked,
        }
    }

    /// Where it is, m; a thing told by its place on the floor lies at height 0.
    pub fn position_m(self) -> DVec3 {
        match self {
            Part::Seat(seat) => DVec2::from(seat.position_m).extend(0.0),
            Part::Camera(camera) => camera.position_m.into(),
            Part::Light(_, light) => light.position_m.into(),
            Part::Microphone(microphone) => microphone.position_m.into(),
            Part::Screen(screen) => screen.position_m.into(),
            Part::Backdrop(backdrop) => DVec2::from(backdrop.position_m).extend(0.0),
            Part::Angle(_, angle) => angle.position_m.into(),
            Part::Treatment(_, treatment) => treatment.position_m.into(),
            Part::Furniture(_, piece) => piece.position_m.into(),
        }
    }

    fn pose(self) -> Pose<'a> {
        let support = self.support();
        let turned_deg = match self {
            Part::Seat(seat) => [seat.bearing_deg, 0.0],
            Part::Camera(camera) => [camera.bearing_deg, camera.tilt_deg],
            Part::Backdrop(backdrop) => [backdrop.bearing_deg, 0.0],
            Part::Furniture(_, piece) => [piece.bearing_deg, 0.0],
            Part::Light(..)
            | Part::Microphone(_)
            | Part::Screen(_)
            | Part::Angle(..)
            | Part::Treatment(..) => [0.0, 0.0],
        };
        let aim_m = match self {
            Part::Light(_, light) => light.aim_m.map(DVec3::from),
            Part::Angle(_, angle) => Some(angle.aim_m.into()),
            Part::Seat(_)
            | Part::Camera(_)
            | Part::Microphone(_)
            | Part::Screen(_)
            | Part::Backdrop(_)
            | Part::Treatment(..)
            | Part::Furniture(..) => None,
        };
        let (on, quarter_turn) = match self {
            Part::Treatment(_, treatment) => (Some(&treatment.on), treatment.turned),
            _ => (support.and_then(|support| support.on.as_ref()), false),
        };
        Pose {
            gear: self.gear().next(),
            position_m: self.position_m(),
            turned_deg,
            aim_m,
            foot_m: support.and_then(|support| support.base_m).map(DVec2::from),
            on,
            quarter_turn,
        }
    }
}

impl Layout {
    /// Every placed thing, in the order in which marks are laid: seat, camera, lights, microphone, screen, backdrop,
    /// second angles, what hangs against the echo, moved furniture.
    pub fn parts(&self) -> impl Iterator<Item = Part<'_>> {
        // Field by field: a new one has to be walked as well.
        let Self { seat, camera, lights, microphone, screen, backdrop, angles, furniture, treatment } = self;
        [Part::Seat(seat), Part::Camera(camera)]
            .into_iter()
            .chain(lights.iter().map(|(id, light)| Part::Light(id, light)))
            .chain(microphone.iter().map(Part::Microphone))
            .chain(screen.iter().map(Part::Screen))
            .chain(backdrop.iter().map(Part::Backdrop))
            .chain(angles.iter().map(|(id, angle)| Part::Angle(id, angle)))
            .chain(treatment.iter().map(|(id, one)| Part::Treatment(id, one)))
            .chain(furniture.iter().map(|(id, piece)| Part::Furniture(id, piece)))
    }

    /// Opens every lock.
    pub fn unlock(&mut self) {
        // Field by field: a new one has to be opened as well.
        let Self { seat, camera, lights, microphone, screen, backdrop, angles, furniture, treatment } = self;
        seat.locked = false;
        camera.locked = false;
        lights.values_mut().for_each(|light| light.locked = false);
        microphone.iter_mut().for_each(|used| used.locked = false);
        screen.iter_mut().for_each(|used| used.locked = false);
        backdrop.iter_mut().for_each(|used| used.locked = false);
        angles.values_mut().for_each(|angle| angle.locked = false);
        furniture.values_mut().for_each(|piece| piece.locked = false);
        treatment.values_mut().for_each(|one| one.locked = false);
    }

    /// One placed thing; none of a thing that a layout does not place.
    pub fn part(&self, thing: &ThingId) -> Option<Part<'_>> {
        match thing {
            ThingId::Seat => Some(Part::Seat(&self.seat)),
            ThingId::Camera => Some(Part::Camera(&self.camera)),
            ThingId::Light(id) => self.lights.get_key_value(id).map(|(id, light)| Part::Light(id, light)),
            ThingId::Microphone => self.microphone.as_ref().map(Part::Microphone),
            ThingId::Screen => self.screen.as_ref().map(Part::Screen),
            ThingId::Backdrop => self.backdrop.as_ref().map(Part::Backdrop),
            ThingId::Angle(id) => self.angles.get_key_value(id).map(|(id, angle)| Part::Angle(id, angle)),
            ThingId::Treatment(id) => {
                self.treatment.get_key_value(id).map(|(id, treatment)| Part::Treatment(id, treatment))
            }
            ThingId::Furniture(id) => {
                self.furniture.get_key_value(id).map(|(id, piece)| Part::Furniture(id, piece))
            }
            ThingId::Person | ThingId::Opening(_) | ThingId::Mains => None,
        }
    }

    /// Puts a thing in, in place of the one that it names.
    pub fn put(&mut self, part: Part<'_>) {
        match part {
            Part::Seat(seat) => self.seat = seat.clone(),
            Part::Camera(camera) => self.camera = camera.clone(),
            Part::Light(id, light) => drop(self.lights.insert(id.clone(), light.clone())),
            Part::Microphone(microphone) => self.microphone = Some(microphone.clone()),
            Part::Screen(screen) => self.screen = Some(screen.clone()),
            Part::Backdrop(backdrop) => self.backdrop = Some(backdrop.clone()),
            Part::Angle(id, angle) => drop(self.angles.insert(id.clone(), angle.clone())),
            Part::Treatment(id, one) => drop(self.treatment.insert(id.clone(), one.clone())),
            Part::Furniture(id, piece) => drop(self.furniture.insert(id.clone(), piece.clone())),
        }
    }

    /// What carries a thing, to be changed.
    pub fn support_mut(&mut self, thing: &ThingId) -> Option<&mut Support> {
        match thing {
            ThingId::Camera => Some(&mut self.camera.support),
            ThingId::Light(id) => self.lights.get_mut(id).map(|light| &mut light.support),
            ThingId::Microphone => self.microphone.as_mut().map(|microphone| &mut microphone.support),
            ThingId::Screen => self.screen.as_mut().map(|screen| &mut screen.support),
            ThingId::Angle(id) => self.angles.get_mut(id).map(|angle| &mut angle.support),
            ThingId::Person
            | ThingId::Seat
            | ThingId::Backdrop
            | ThingId::Treatment(_)
            | ThingId::Furniture(_)
            | ThingId::Opening(_)
            | ThingId::Mains => None,
        }
    }

    /// Puts a thing elsewhere, m; what stands by a place on the floor keeps to the floor. Nothing else of it changes.
    pub fn put_at(&mut self, thing: &ThingId, position_m: DVec3) {
        let (at, floor) = (Point3::from(position_m), Point2::from(position_m.truncate()));
        match thing {
            ThingId::Seat => self.seat.position_m = floor,
            ThingId::Camera => self.camera.position_m = at,
            ThingId::Light(id) => self.lights.get_mut(id).into_iter().for_each(|light| light.position_m = at),
            ThingId::Microphone => self.microphone.iter_mut().for_each(|used| used.position_m = at),
            ThingId::Screen => self.screen.iter_mut().for_each(|used| used.position_m = at),
            ThingId::Backdrop => self.backdrop.iter_mut().for_each(|used| used.position_m = floor),
            ThingId::Angle(id) => self.angles.get_mut(id).into_iter().for_each(|angle| angle.position_m = at),
            ThingId::Treatment(id) => {
                self.treatment.get_mut(id).into_iter().for_each(|one| one.position_m = at);
            }
            ThingId::Furniture(id) => {
                self.furniture.get_mut(id).into_iter().for_each(|piece| piece.position_m = at);
            }
            ThingId::Person | ThingId::Opening(_) | ThingId::Mains => {}
        }
    }

    /// Gear that carries things in this layout.
    pub fn supports_in_use(&self) -> impl Iterator<Item = &Id> {
        self.parts().filter_map(|part| part.support()?.gear.as_ref())
    }

    /// The things in which two layouts differ, in the order of [`Self::parts`], those of this layout first.
    pub fn differs(&self, other: &Layout) -> Vec<ThingId> {
        let changed = self.parts().filter(|part| other.part(&part.id()) != Some(*part)).map(Part::id);
        let added = other.parts().filter(|part| self.part(&part.id()).is_none()).map(Part::id);
        changed.chain(added).collect()
    }

    /// Makes one thing as it is in another layout: moved, added or taken away. Seat and camera are always there.
    pub fn take(&mut self, thing: &ThingId, from: &Layout) {
        fn entry<T: Clone>(own: &mut super::Things<T>, other: &super::Things<T>, id: &Id) {
            match other.get(id) {
                Some(one) => drop(own.insert(id.clone(), one.clone())),
                None => drop(own.remove(id)),
            }
        }
        match thing {
            ThingId::Seat => self.seat = from.seat.clone(),
            ThingId::Camera => self.camera = from.camera.clone(),
            ThingId::Light(id) => entry(&mut self.lights, &from.lights, id),
            ThingId::Microphone => self.microphone = from.microphone.clone(),
            ThingId::Screen => self.screen = from.screen.clone(),
            ThingId::Backdrop => self.backdrop = from.backdrop.clone(),
            ThingId::Angle(id) => entry(&mut self.angles, &from.angles, id),
            ThingId::Treatment(id) => entry(&mut self.treatment, &from.treatment, id),
            ThingId::Furniture(id) => entry(&mut self.furniture, &from.furniture, id),
            ThingId::Person | ThingId::Opening(_) | ThingId::Mains => {}
        }
    }

    /// The first locked thing that going over to `to` would move, turn, exchange or take away.
    pub fn held_against(&self, to: &Layout) -> Option<ThingId> {
        self.parts()
            .filter(|part| part.is_locked())
            .find(|part| to.part(&part.id()).map(Part::pose) != Some(part.pose()))
            .map(Part::id)
    }
}

/// The name of a thing in ids and answers: its own id, unless that is a name of ours or of another kind of thing in this
/// plan as well; then with its kind before it (`light_camera`), which no id can be.
pub fn name_of(brief: &Brief, layout: &Layout, thing: &ThingId) -> String {
    let Some((kind, id)) = thing.chosen() else { return thing.own_name().to_owned() };
    let ours = OWN_NAMES.contains(&id.0.as_str());
    if ours || plain(brief, layout, id).as_ref() != Some(thing) {
        format!("{kind}_{id}")
    } else {
        id.0.clone()
    }
}

/// The thing of a name that [`name_of`] gives.
pub fn thing_named(brief: &Brief, layout: &Layout, name: &str) -> Option<ThingId> {
    let own = [
        ThingId::Person,
        ThingId::Seat,
        ThingId::Camera,
        ThingId::Microphone,
        ThingId::Screen,
        ThingId::Backdrop,
        ThingId::Mains,
    ];
    if let Some(thing) = own.into_iter().find(|thing| thing.own_name() == name) {
        return Some(thing);
    }
    let Some((kind, id)) = name.split_once('_') else { return plain(brief, layout, &Id::from(name)) };
    let id = Id::from(id);
    match kind {
        "light" => Some(ThingId::Light(id)),
        "angle" => Some(ThingId::Angle(id)),
        "treatment" => Some(ThingId::Treatment(id)),
        "furniture" => Some(ThingId::Furniture(id)),
        "opening" => Some(ThingId::Opening(id)),
        _ => None,
    }
}

/// The thing to which an id goes by itself: the first kind that has it.
fn plain(brief: &Brief, layout: &Layout, id: &Id) -> Option<ThingId> {
    let room = &brief.room;
    [
        (layout.lights.contains_key(id), ThingId::Light(id.clone())),
        (layout.angles.contains_key(id), ThingId::Angle(id.clone())),
        (layout.treatment.contains_key(id), ThingId::Treatment(id.clone())),
        (room.furniture.contains_key(id), ThingId::Furniture(id.clone())),
        (room.openings.contains_key(id), ThingId::Opening(id.clone())),
    ]
    .into_iter()
    .find_map(|(there, thing)| there.then_some(thing))
}

impl Today {
    /// Every thing that is told of how the corner stands, in the order of [`Layout::parts`].
    pub fn parts(&self) -> impl Iterator<Item = Part<'_>> {
        let Self { seat, camera, lights, microphone, screen, backdrop, furniture, treatment } = self;
        seat.iter()
            .map(Part::Seat)
            .chain(camera.iter().map(Part::Camera))
            .chain(lights.iter().flatten().map(|(id, light)| Part::Light(id, light)))
            .chain(microphone.iter().map(Part::Microphone))
            .chain(screen.iter().map(Part::Screen))
            .chain(backdrop.iter().map(Part::Backdrop))
            .chain(treatment.iter().flatten().map(|(id, one)| Part::Treatment(id, one)))
            .chain(furniture.iter().flatten().map(|(id, piece)| Part::Furniture(id, piece)))
    }
}
