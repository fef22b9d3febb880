//! The marks on the floor, in the order in which they are laid, with their tape lengths.

use super::entries::{Baseline, Diagonal, Mark};
use super::sight::Sight;
use crate::corner::{Carried, Corner, PlacedThing, base_of, is_worn};
use crate::geometry::{DVec2, DVec3};
use crate::plan::{Role, Support, SupportKind, ThingId, WALL_NAMES, name_of};
use crate::room::corner_mark;
use crate::units::{INCH_M, UnitSystem, decimals, focal_mm};

/// Letters of the two points that are taped where corners are hidden: the seat's, and one that nothing else has.
const BASELINE: [&str; 2] = ["S", "X"];
/// Shorter distances between marks check nothing, m; more of them are not asked for. Fogon's own rule.
const SHORT_M: f64 = 0.3;
const DIAGONALS: usize = 5;

/// What a mark says of its thing: what is plumb over it, where that is, and what is set there.
type Words = (String, DVec2, String);

/// Error of one tape reading, m: a centimetre, or half an inch.
pub(super) fn tape_error_m(units: UnitSystem) -> f64 {
    match units {
        UnitSystem::Metric => 0.01,
        UnitSystem::Imperial => INCH_M / 2.0,
    }
}

/// The marks, what they are measured from and what checks them.
pub(super) struct Floor {
    pub(super) marks: Vec<Mark>,
    pub(super) baseline: Option<Baseline>,
    pub(super) diagonals: Vec<Diagonal>,
}

pub(super) fn floor(corner: &Corner<'_>) -> Floor {
    let sight = Sight::new(corner);
    let error_m = tape_error_m(corner.brief.units);
    let seat = corner.eyes_m.truncate();
    let told: Vec<_> = corner
        .placed()
        .into_iter()
        .filter_map(|thing| {
            let (what, at, set) = words(corner, &thing)?;
            Some((thing, what, at, set, sight.tape(at, error_m)))
        })
        .collect();
    let hidden = told.iter().filter(|(_, _, at, _, tape)| tape.is_none() && *at != seat);
    let hidden: Vec<DVec2> = hidden.map(|(_, _, at, ..)| *at).collect();
    let second = sight.baseline(seat, &hidden);
    let from_baseline = |at: DVec2| {
        let points = [(BASELINE[0], seat), (BASELINE[1], second?)];
        corner_mark(at, &points, error_m).filter(|_| at != seat)
    };
    let marks = told.into_iter().zip(1..).filter_map(|((thing, what, at, set, tape), number)| {
        let tape = tape.or_else(|| from_baseline(at)).or_else(|| corner_mark(at, &sight.corners, error_m))?;
        Some(Mark {
            id: name_of(corner.brief, corner.layout, &thing.id),
            number,
            letter: thing.letter.to_owned(),
            colour: colour(&thing, corner),
            faces: if thing.id == ThingId::Seat { "C" } else { "S" },
            what,
            at_m: at.to_array(),
            tape,
            set,
        })
    });
    let marks: Vec<Mark> = marks.collect();
    let baseline =
        second.map(|at| Baseline { letters: BASELINE, at_m: at.to_array(), length_m: at.distance(seat) });
    Floor { diagonals: diagonals(corner, &sight, &marks), marks, baseline }
}

/// Colour of the tape for a thing, in a word. Fogon's own rule.
fn colour(thing: &PlacedThing<'_>, corner: &Corner<'_>) -> &'static str {
    match &thing.id {
        ThingId::Seat => "white",
        ThingId::Camera => "red",
        ThingId::Light(id) => match corner.layout.lights.get(id).map(|light| light.role) {
            Some(Role::Key) | None => "yellow",
            Some(Role::Fill) => "green",
            Some(Role::Back) => "blue",
            Some(Role::Background) => "brown",
            Some(Role::Practical) => "grey",
        },
        ThingId::Microphone => "orange",
        ThingId::Screen => "violet",
        ThingId::Backdrop => "black",
        ThingId::Angle(_) => "pink",
        ThingId::Treatment(_)
        | ThingId::Furniture(_)
        | ThingId::Person
        | ThingId::Opening(_)
        | ThingId::Mains => "",
    }
}

/// From the seat to each mark, and from the camera to the key: what a tape reaches without leaving the floor.
fn diagonals(corner: &Corner<'_>, sight: &Sight, marks: &[Mark]) -> Vec<Diagonal> {
    let at = |mark: &Mark| DVec2::from(mark.at_m);
    let find = |id: &str| marks.iter().find(|mark| mark.id == id);
    let key = corner.lights.iter().find(|light| light.light.role == Role::Key);
    let key = key.map(|light| name_of(corner.brief, corner.layout, &ThingId::Light(light.id.clone())));
    let from_seat = marks.iter().skip(1).filter_map(|mark| Some((marks.first()?, mark)));
    let crossing = find("camera").zip(key.as_deref().and_then(find));
    let mut all: Vec<Diagonal> = from_seat
        .chain(crossing)
        .filter(|(one, other)| at(one).distance(at(other)) > SHORT_M && sight.is_free(at(one), at(other)))
        .map(|(one, other)| Diagonal {
            between: [one.id.clone(), other.id.clone()],
            letters: [one.letter.clone(), other.letter.clone()],
            length_m: at(one).distance(at(other)),
        })
        .collect();
    all.truncate(DIAGONALS);
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
            carried(corner, thing, format!("lens {height}, {} mm", focal_mm(angle.focal_length_mm)))
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
    let fixed = fixing(corner, support, *hold_m).map_or(String::new(), |fixed| format!(", {fixed}"));
    let mut set = format!("{set}{on}{fixed}{}", bag(units, support.sandbag_kg));
    if support.kind == SupportKind::Boom {
        set = format!("arm reaches {}, {set}", units.length((hold_m.truncate() - at).length()));
    }
    Some((what, at, set))
}

/// Where something is fixed to a wall: how far along and how high.
fn fixing(corner: &Corner<'_>, support: &Support, hold: DVec3) -> Option<String> {
    if support.kind != SupportKind::Wall {
        return None;
    }
    let (room, units) = (&corner.brief.room, corner.brief.units);
    let at = base_of(support, hold).extend(hold.z);
    let off = |wall: usize| {
        let plane = room.surface(WALL_NAMES.get(wall)?)?;
        let [along, _] = plane.flat_m(at);
        let beyond = (along - along.clamp(0.0, plane.size_m[0])).abs();
        Some((wall, along, (at - plane.corner_m).dot(plane.normal).abs() + beyond))
    };
    let walls = (0..corner.floor_m.len()).filter_map(off);
    let (wall, along, _) = walls.min_by(|a, b| a.2.total_cmp(&b.2))?;
    Some(format!(
        "fixed {} from corner {} along {}, {} high",
        units.mark(along),
        room.corner_letter(wall),
        room.wall_name(wall),
        units.mark(hold.z)
    ))
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
