//! The hard rules, checked on the whole thing: head, body, column, feet and arm. A breach names the rule, the
//! things, how much is lacking, and what would free it.

mod camera;
mod carried;
mod exit;
mod place;
mod sight;
mod way;

pub use way::is_open as way_is_open;

use crate::corner::{Bound, Corner, Kind, Thing, bounds, door_swing, exit_spaces, head, is_blocked};
use crate::finding::Rule;
use crate::geometry::{DVec3, Plane, Solid, hull, inside};
use crate::plan::{Id, OpeningKind, Role, ThingId};
use crate::units::Amount;

/// Things may touch or overlap by this much, m.
const TOLERANCE_M: f64 = 0.01;
/// Air between a lamp and the ceiling, m.
const CEILING_M: f64 = 0.10;

/// One broken rule.
#[derive(Debug, Clone, PartialEq)]
pub struct Breach {
    /// Which rule.
    pub rule: Rule,
    /// The thing that breaks it.
    pub thing: ThingId,
    /// How much is lacking.
    pub lacking: Amount,
    /// In words, with the amount.
    pub sentence: String,
    /// What would free it.
    pub frees: String,
}

impl Breach {
    /// A breach in words.
    pub fn new(
        rule: Rule,
        thing: ThingId,
        lacking: Amount,
        sentence: impl Into<String>,
        frees: impl Into<String>,
    ) -> Self {
        Self { rule, thing, lacking, sentence: sentence.into(), frees: frees.into() }
    }
}

/// Breaches as they are found. A search asks only whether there is any, and is spared the words.
struct Breaches {
    breaches: Vec<Breach>,
    any: bool,
    in_words: bool,
}

impl Breaches {
    fn new(in_words: bool) -> Self {
        Self { breaches: Vec::new(), any: false, in_words }
    }

    /// Whether a search has its answer.
    fn is_enough(&self) -> bool {
        self.any && !self.in_words
    }

    /// One breach, lacking so many metres; `words` gives its sentence and what would free it.
    fn say(&mut self, rule: Rule, thing: &Thing, lacking_m: f64, words: impl FnOnce() -> (String, String)) {
        self.any = true;
        if self.in_words {
            let (sentence, frees) = words();
            let lacking = Amount::Length(lacking_m);
            self.breaches.push(Breach::new(rule, thing.id.clone(), lacking, sentence, frees));
        }
    }
}

/// The fixed part of the check: what stands in the room whatever is moved.
pub struct Rules<'a> {
    corner: &'a Corner<'a>,
    swings: Vec<(Id, Solid)>,
    /// The head that lamps keep away from.
    head: Solid,
    /// The outermost walls, normals into the room.
    walls: Vec<Plane>,
    /// Inner corners, slopes and beams.
    bounds: Vec<Bound>,
    /// Slopes and beams with the air that a lamp needs under them.
    air: Vec<Bound>,
    /// The places to get out of the chair that lie inside the room.
    exits: Vec<Solid>,
    /// Landmarks that the picture shows.
    landmarks: Vec<(&'static str, DVec3)>,
}

impl<'a> Rules<'a> {
    /// Prepares the rules of a corner.
    pub fn new(corner: &'a Corner<'a>) -> Self {
        let swings = corner
            .brief
            .room
            .openings
            .iter()
            .filter(|(_, opening)| opening.kind == OpeningKind::Door)
            .filter_map(|(id, opening)| {
                let outline = door_swing(opening, &corner.floor_m);
                (!outline.is_empty())
                    .then(|| (id.clone(), Solid::prism(&outline, 0.0, opening.height_or_usual_m())))
            })
            .collect();
        let room = &corner.brief.room;
        let air = bounds(room, CEILING_M).into_iter().filter(|bound| bound.overhead).collect();
        let bounds = bounds(room, 0.0);
        let exits = exit_spaces(corner)
            .into_iter()
            .filter(|(_, outline, space)| {
                outline.iter().all(|p| inside(&corner.floor_m, *p, TOLERANCE_M))
                    && bounds.iter().all(|bound| bound.solid.overlap_m(space) <= TOLERANCE_M)
            })
            .map(|(_, _, space)| space)
            .collect();
        let outermost =
            if corner.brief.room.is_rectangle() { corner.floor_m.clone() } else { hull(&corner.floor_m) };
        let walls = outermost
            .iter()
            .zip(outermost.iter().cycle().skip(1))
            .map(|(a, b)| Plane {
                point_m: a.extend(0.0),
                normal: (*b - *a).normalize_or_zero().perp().extend(0.0),
            })
            .collect();
        Self {
            corner,
            swings,
            head: head(corner),
            walls,
            bounds,
            air,
            exits,
            landmarks: landmarks_in_frame(corner),
        }
    }

    /// A small length in words.
    fn gap(&self, metres: f64) -> String {
        self.corner.brief.units.gap(metres)
    }

    /// All breaches of a complete corner.
    pub fn all(&self, things: &[Thing]) -> Vec<Breach> {
        let mut found = self.all_but_the_way(things);
        found.extend(self.way(things));
        found
    }

    /// As [`Self::all`], the way from a door to the chair left out: it costs as much as all others together.
    pub fn all_but_the_way(&self, things: &[Thing]) -> Vec<Breach> {
        let mut found = Breaches::new(true);
        for (index, thing) in things.iter().enumerate() {
            self.place(thing, &mut found);
            for other in &things[..index] {
                self.pair(other, thing, &mut found);
            }
        }
        let mut found = found.breaches;
        self.exit(things, &mut found);
        self.camera(&mut found);
        self.angles(&mut found);
        self.sight(things, &mut found);
        self.carried(&mut found);
        found
    }

    /// Whether one more light or microphone may stand where it does, with `others` already there.
    pub fn allows(&self, thing: &Thing, others: &[Thing]) -> bool {
        let mut found = Breaches::new(false);
        self.place(thing, &mut found);
        for other in others {
            if found.any {
                return false;
            }
            self.pair(other, thing, &mut found);
        }
        if found.any || self.is_cut_off(thing) {
            return false;
        }
        let blocks = |from: DVec3, to: DVec3| thing.pieces.iter().any(|p| p.solid.blocks(from, to));
        if thing.glass {
            return true;
        }
        if self.landmarks.iter().any(|(_, mark)| blocks(self.corner.view.position_m, *mark)) {
            return false;
        }
        let is_own = |key: &Id| thing.id == ThingId::Light(key.clone());
        if self
            .corner
            .role(Role::Key)
            .any(|key| !is_own(key.id) && blocks(key.position_m, self.corner.eyes_m))
        {
            return false;
        }
        let capsule = self.corner.microphone.filter(|_| thing.kind != Kind::Microphone);
        if capsule.is_some_and(|(_, at)| blocks(at, self.corner.mouth_m)) {
            return false;
        }
        // Somewhere to get out must be left.
        self.exits.iter().any(|space| {
            others.iter().chain([thing]).filter(|t| t.kind != Kind::Person).all(|t| !touches(t, space))
        })
    }

    /// Whether a wall, slope or beam lies between a lamp or microphone and the head.
    fn is_cut_off(&self, thing: &Thing) -> bool {
        thing.pieces.first().is_some_and(|head| {
            let (low, high) = head.solid.bounds();
            is_blocked(&self.bounds, (low + high) / 2.0, self.corner.eyes_m)
        })
    }
}

fn landmarks_in_frame(corner: &Corner<'_>) -> Vec<(&'static str, DVec3)> {
    let marks = &corner.landmarks;
    [
        ("eyes", marks.eye_m),
        ("crown", marks.crown_m - 0.02),
        ("chin", marks.chin_m),
        ("shoulders", marks.shoulder_m),
        ("chest", marks.chest_m),
    ]
    .into_iter()
    .map(|(name, z)| (name, corner.eyes_m.with_z(z)))
    .filter(|(_, at)| corner.view.sees(*at))
    .collect()
}

/// How deep a thing reaches into a space, m.
fn overlap(thing: &Thing, space: &Solid) -> f64 {
    thing.pieces.iter().map(|p| p.solid.overlap_m(space)).fold(f64::NEG_INFINITY, f64::max)
}

fn touches(thing: &Thing, space: &Solid) -> bool {
    overlap(thing, space) > TOLERANCE_M
}
