//! The marks on the floor, in the order in which they are laid, with their tape lengths.

use super::entries::Mark;
use crate::corner::{Carried, Corner, Kind, PlacedThing, What, base_of, bounds, is_worn, things};
use crate::geometry::{DVec2, DVec3, Solid};
use crate::plan::{Support, SupportKind, ThingId};
use crate::room::{CornerMark, corner_mark};
use crate::units::{INCH_M, UnitSystem, decimals};

/// A tape lies this high over the floor, m.
const TAPE_HEIGHT_M: f64 = 0.02;

/// What a mark says of its thing: what is plumb over it, where that is, and what is set there.
type Words = (String, DVec2, String);

/// Error of one tape reading, m: a centimetre, or half an inch.
pub(super) fn tape_error_m(units: UnitSystem) -> f64 {
    match units {
        UnitSystem::Metric => 0.01,
        UnitSystem::Imperial => INCH_M / 2.0,
    }
}

pub(super) fn marks(corner: &Corner<'_>) -> Vec<Mark> {
    let sight = Sight::new(corner);
    let mut all = Vec::new();
    for thing in corner.placed() {
        let Some((what, at, set)) = words(corner, &thing) else { continue };
        let Some(tape) = sight.tape(at) else { continue };
        let number = all.len() as u32 + 1;
        all.push(Mark { number, letter: thing.letter.to_owned(), what, at_m: at.to_array(), tape, set });
    }
    all
}

/// The words of a thing's mark; none of what is worn, hangs on the camera or lies flat, and of furniture, which the
/// drawing shows.
fn words(corner: &Corner<'_>, thing: &PlacedThing<'_>) -> Option<Words> {
    let units = corner.brief.units;
    let height = units.length(thing.at_m.z);
    match &thing.id {
        ThingId::Seat => {
            let set = format!("eyes {height}, {}", facing(corner.layout.seat.gaze_offset_deg));
            Some(("Seat, plumb under the eyes".into(), thing.at_m.truncate(), set))
        }
        ThingId::Camera => {
            let camera = &corner.layout.camera;
            let tilt = match camera.tilt_deg {
                tilt if tilt.abs() < 0.05 => "level".to_owned(),
                tilt => {
                    let way = if tilt < 0.0 { "down" } else { "up" };
                    format!("{way} {}\u{b0}", decimals(tilt.abs(), 1))
                }
            };
            let part = corner.layout.part(&ThingId::Camera);
            let on = part
                .and_then(|part| corner.carried_words(part))
                .map_or(String::new(), |on| format!(", {on}"));
            let set = format!("lens {height}, {tilt}{on}{}", bag(units, camera.support.sandbag_kg));
            Some(("Camera, plumb under the lens".into(), thing.at_m.truncate(), set))
        }
        ThingId::Light(_) => Some(carried(corner, thing, format!("centre {height}"))?),
        ThingId::Microphone => {
            let worn = corner.microphone.is_some_and(|(gear, _)| is_worn(gear.mounting));
            (!worn).then(|| carried(corner, thing, format!("capsule {height}"))).flatten()
        }
        ThingId::Screen if corner.screen_is_on_camera() => None,
        ThingId::Screen => carried(corner, thing, format!("middle {height}")),
        ThingId::Angle(id) => {
            let angle = corner.layout.angles.get(id)?;
            carried(corner, thing, format!("lens {height}, {} mm", decimals(angle.focal_length_mm, 0)))
        }
        ThingId::Backdrop => {
            let off = units.length(corner.backdrop_behind_m().unwrap_or(0.0));
            let kg = corner.layout.backdrop.as_ref().map_or(0.0, |used| used.sandbag_kg);
            let each = if kg > 0.0 { " on each stand" } else { "" };
            let set = format!("{off} behind the eyes{}{each}", bag(units, kg));
            Some((format!("{}, middle of its lower edge", thing.called), thing.at_m.truncate(), set))
        }
        ThingId::Treatment(_)
        | ThingId::Furniture(_)
        | ThingId::Person
        | ThingId::Opening(_)
        | ThingId::Mains => None,
    }
}

fn facing(aside_deg: f64) -> String {
    if aside_deg.abs() < 0.5 {
        return "chest towards C".to_owned();
    }
    let side = if aside_deg > 0.0 { "right" } else { "left" };
    format!("chest {}\u{b0} camera {side} of C", decimals(aside_deg.abs(), 0))
}

/// The words of a thing on a support: what stands there, the arm it hangs on, its bag.
fn carried(corner: &Corner<'_>, thing: &PlacedThing<'_>, set: String) -> Option<Words> {
    let units = corner.brief.units;
    let Carried { support, hold_m, .. } = thing.carried.as_ref()?;
    let (what, at) = foot(&thing.called, support, *hold_m);
    let on = corner.layout.part(&thing.id).and_then(|part| corner.carried_words(part));
    let on = on.map_or(String::new(), |on| format!(", {on}"));
    let mut set = format!("{set}{on}{}", bag(units, support.sandbag_kg));
    if support.kind == SupportKind::Boom {
        set = format!("arm reaches {}, {set}", units.length((hold_m.truncate() - at).length()));
    }
    Some((what, at, set))
}

fn bag(units: UnitSystem, kg: f64) -> String {
    if kg > 0.0 { format!(", sandbag {}", units.mass(kg)) } else { String::new() }
}

/// What the mark stands for, and where its foot is.
fn foot(name: &str, support: &Support, hold: DVec3) -> (String, DVec2) {
    match support.kind {
        SupportKind::Floor => (format!("{name}, middle of the stand"), base_of(support, hold)),
        SupportKind::Boom => (format!("{name}, middle of the boom stand"), base_of(support, hold)),
        SupportKind::Clamp | SupportKind::On => (format!("{name}, plumb under it"), hold.truncate()),
        SupportKind::Wall => (format!("{name}, plumb under its fixing on the wall"), base_of(support, hold)),
        SupportKind::Ceiling => (format!("{name}, plumb under its ceiling fixing"), hold.truncate()),
    }
}

/// The room's corners, and what a tape along the floor cannot pass.
struct Sight {
    tape_error_m: f64,
    corners: Vec<(&'static str, DVec2)>,
    solids: Vec<Solid>,
}

impl Sight {
    fn new(corner: &Corner<'_>) -> Self {
        let room = &corner.brief.room;
        let lettered = corner.floor_m.iter().enumerate();
        let corners = lettered.map(|(index, at)| (room.corner_letter(index), *at)).collect();
        let furniture = things(corner).into_iter().filter(|thing| thing.kind == Kind::Furniture);
        // Between the legs of a desk a tape goes through.
        let bodies =
            furniture.flat_map(|thing| thing.pieces).filter(|part| part.what != What::Leg).map(|p| p.solid);
        let solids = bounds(room, 0.0).into_iter().map(|bound| bound.solid).chain(bodies).collect();
        Self { tape_error_m: tape_error_m(corner.brief.units), corners, solids }
    }

    /// Tape lengths of a mark: from the corners in sight, or from all where no two are.
    fn tape(&self, at: DVec2) -> Option<CornerMark> {
        let in_sight = |corner: DVec2| {
            let inwards = (at - corner).normalize_or_zero() * 0.02;
            let (from, to) = ((corner + inwards).extend(TAPE_HEIGHT_M), at.extend(TAPE_HEIGHT_M));
            !self.solids.iter().any(|solid| solid.blocks(from, to))
        };
        let seen: Vec<_> = self.corners.iter().copied().filter(|(_, corner)| in_sight(*corner)).collect();
        corner_mark(at, &seen, self.tape_error_m)
            .or_else(|| corner_mark(at, &self.corners, self.tape_error_m))
    }
}
