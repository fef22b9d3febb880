//! The hard rules, checked on the whole thing: head, body, column, feet and arm. A breach names the rule, the
//! things, how much is lacking, and what would free it.

use super::way;
use crate::corner::{
    BEHIND_SENSOR_M, Bound, Corner, EXIT_M, Kind, Part, Thing, bounds, door_swing, exit_spaces, is_blocked,
    is_worn,
};
use crate::geometry::{DVec3, Plane, Solid, beyond_m, hull, inside};
use crate::light::placement::{MARGIN_M as LIGHT_MARGIN_M, NEAREST_M};
use crate::plan::{OpeningKind, Role, ScreenType, SupportKind};
use crate::sound::placement::{MARGIN_M as MICROPHONE_MARGIN_M, may_show};
use crate::units::capital;

/// Things may touch or overlap by this much, m.
const TOLERANCE_M: f64 = 0.01;
/// A fixing so near to a wall is on it, m.
const ON_WALL_M: f64 = 0.02;
/// Air between a lamp and the ceiling, m.
const CEILING_M: f64 = 0.10;

/// One broken rule.
#[derive(Debug, Clone, PartialEq)]
pub struct Breach {
    /// Which rule: `room`, `collision`, `door`, `exit`, `way`, `camera`, `picture`, `sight`, `near`, `support`.
    pub rule: &'static str,
    /// Id of the thing that breaks it.
    pub thing: String,
    /// How much is lacking, m or kg.
    pub lacking: f64,
    /// In words, with the amount.
    pub sentence: String,
    /// What would free it.
    pub frees: String,
}

/// Breaches as they are found. A search asks only whether there is any, and is spared the words.
struct Found {
    breaches: Vec<Breach>,
    any: bool,
    in_words: bool,
}

impl Found {
    fn new(in_words: bool) -> Self {
        Self { breaches: Vec::new(), any: false, in_words }
    }

    /// Whether a search has its answer.
    fn is_enough(&self) -> bool {
        self.any && !self.in_words
    }

    /// One breach; `words` gives its sentence and what would free it.
    fn say(
        &mut self,
        rule: &'static str,
        thing: &str,
        lacking: f64,
        words: impl FnOnce() -> (String, String),
    ) {
        self.any = true;
        if self.in_words {
            let (sentence, frees) = words();
            self.breaches.push(Breach { rule, thing: thing.to_owned(), lacking, sentence, frees });
        }
    }
}

/// The fixed part of the check: what stands in the room whatever is moved.
pub struct Rules<'a> {
    corner: &'a Corner<'a>,
    swings: Vec<(String, Solid)>,
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
                    .then(|| (id.0.clone(), Solid::prism(&outline, 0.0, opening.height_or_usual_m())))
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
        Self { corner, swings, walls, bounds, air, exits, landmarks: landmarks_in_frame(corner) }
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
        let mut found = Found::new(true);
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
        self.supports(&mut found);
        found
    }

    /// Whether one more light or microphone may stand where it does, with `others` already there.
    pub fn allows(&self, thing: &Thing, others: &[Thing]) -> bool {
        let mut found = Found::new(false);
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
        let blocks = |from: DVec3, to: DVec3| thing.parts.iter().any(|p| p.solid.blocks(from, to));
        if thing.glass {
            return true;
        }
        if self.landmarks.iter().any(|(_, mark)| blocks(self.corner.view.position_m, *mark)) {
            return false;
        }
        if self
            .corner
            .role(Role::Key)
            .any(|key| key.id != thing.id && blocks(key.position_m, self.corner.eyes_m))
        {
            return false;
        }
        let lit_by: Option<DVec3> = match thing.kind {
            Kind::Microphone => None,
            _ => self.corner.microphone.map(|(_, at)| at),
        };
        if lit_by.is_some_and(|at| blocks(at, self.corner.mouth_m)) {
            return false;
        }
        // Somewhere to get out must be left.
        self.exits.iter().any(|space| {
            others.iter().chain([thing]).filter(|t| t.kind != Kind::Person).all(|t| !touches(t, space))
        })
    }

    /// Whether a wall, slope or beam lies between a lamp or microphone and the head.
    fn is_cut_off(&self, thing: &Thing) -> bool {
        thing.parts.first().is_some_and(|head| {
            let (low, high) = head.solid.bounds();
            is_blocked(&self.bounds, (low + high) / 2.0, self.corner.eyes_m)
        })
    }

    /// Room, ceiling, picture, doors, nearness: rules about one thing.
    fn place(&self, thing: &Thing, found: &mut Found) {
        let corner = self.corner;
        let height = corner.room_m[2];
        for part in &thing.parts {
            let (low, high) = part.solid.bounds();
            let beyond = self
                .walls
                .iter()
                .map(|wall| wall.normal.dot(wall.point_m) - part.solid.least_along(wall.normal))
                .fold((high.z - height).max(-low.z), f64::max);
            if beyond > TOLERANCE_M {
                found.say("room", &thing.id, beyond, || {
                    (
                        format!(
                            "The {} of {} {} {} beyond the room.",
                            part.what,
                            thing.label,
                            if part.what == "feet" { "reach" } else { "reaches" },
                            self.gap(beyond)
                        ),
                        "Move it inwards, or use a smaller one.".into(),
                    )
                });
                break;
            }
        }
        self.within_bounds(thing, found);
        if found.is_enough() {
            return;
        }
        if thing.kind == Kind::Light && !self.is_of_the_house(thing) {
            let heads = thing.parts.iter().filter(|part| part.what == "head");
            let top = heads.map(|p| p.solid.bounds().1.z).fold(0.0, f64::max);
            let lacking = top + CEILING_M - height;
            if lacking > TOLERANCE_M && lacking <= CEILING_M + TOLERANCE_M {
                found.say("room", &thing.id, lacking, || {
                    (
                        format!(
                            "{} comes within {} of the ceiling; {} are needed.",
                            thing.label,
                            self.gap(height - top),
                            self.gap(CEILING_M)
                        ),
                        "Lower it, or use a smaller one.".into(),
                    )
                });
            }
        }
        self.distance_to_head(thing, found);
        self.out_of_picture(thing, found);
        if found.is_enough() {
            return;
        }
        for (id, swing) in &self.swings {
            if thing.kind == Kind::Furniture && !thing.moved {
                continue; // as the person lives with it
            }
            let deepest = overlap(thing, swing);
            if deepest > TOLERANCE_M {
                found.say("door", &thing.id, deepest, || {
                    (
                        format!(
                            "{} stands {} into the swing of the {id}.",
                            capital(&thing.label),
                            self.gap(deepest)
                        ),
                        "Move it, or let the door open outwards or slide.".into(),
                    )
                });
            }
        }
    }

    /// Inner corners, slopes and beams: nothing reaches into them, and lamps keep their air below.
    fn within_bounds(&self, thing: &Thing, found: &mut Found) {
        let deepest = self.bounds.iter().flat_map(|bound| {
            thing.parts.iter().map(move |part| (part.solid.overlap_m(&bound.solid), part, bound))
        });
        let worst = deepest.max_by(|a, b| a.0.total_cmp(&b.0)).filter(|(deep, ..)| *deep > TOLERANCE_M);
        if let Some((deep, part, bound)) = worst {
            found.say("room", &thing.id, deep, || {
                let reach = if part.what == "feet" { "reach" } else { "reaches" };
                let sentence = format!(
                    "The {} of {} {reach} {} into {}.",
                    part.what,
                    thing.label,
                    self.gap(deep),
                    bound.what
                );
                (sentence, "Move it away from there, or use a smaller one.".into())
            });
            return;
        }
        let Some(head) = thing.parts.first().filter(|_| thing.kind == Kind::Light) else { return };
        let near = self.air.iter().map(|bound| (head.solid.overlap_m(&bound.solid), bound));
        if let Some((lacking, bound)) =
            near.max_by(|a, b| a.0.total_cmp(&b.0)).filter(|(lacking, _)| *lacking > TOLERANCE_M)
        {
            found.say("room", &thing.id, lacking, || {
                let sentence = format!(
                    "{} comes within {} of {}; {} are needed.",
                    thing.label,
                    self.gap((CEILING_M - lacking).max(0.0)),
                    bound.what,
                    self.gap(CEILING_M)
                );
                (sentence, "Lower it, or use a smaller one.".into())
            });
        }
    }

    fn out_of_picture(&self, thing: &Thing, found: &mut Found) {
        let corner = self.corner;
        let margin = match thing.kind {
            // A practical lamp is there to be seen.
            Kind::Light if self.role_of(thing) == Some(Role::Practical) => return,
            Kind::Light => LIGHT_MARGIN_M,
            Kind::Microphone => match corner.microphone {
                Some((gear, _)) if may_show(corner, gear) => return,
                _ => MICROPHONE_MARGIN_M,
            },
            Kind::Screen if !thing.glass => LIGHT_MARGIN_M,
            // Its sheet is what is filmed; what holds it up is not.
            Kind::Backdrop | Kind::Angle => LIGHT_MARGIN_M,
            _ => return,
        };
        let mut worst: Option<(f64, f64, &Part)> = None;
        for part in thing.parts.iter().filter(|part| part.what != "sheet") {
            // The microphone itself keeps its own margin, what carries it that of all supports.
            let margin = if part.what == "head" { margin } else { LIGHT_MARGIN_M };
            let lacking = margin - corner.view.clearance_m(&part.solid);
            if worst.as_ref().is_none_or(|(most, ..)| lacking > *most) {
                worst = Some((lacking, margin, part));
            }
        }
        let Some((lacking, margin, part)) = worst.filter(|(lacking, ..)| *lacking > 1e-6) else { return };
        found.say("picture", &thing.id, lacking, || {
            let are = if part.what == "feet" { "are" } else { "is" };
            let (state, frees) = if lacking > margin {
                (
                    format!("{are} {} inside the picture", self.gap(lacking - margin)),
                    "Move it out of the picture",
                )
            } else {
                let (edge, needed) = (self.gap(margin - lacking), self.gap(margin));
                (format!("{are} {edge} from the picture's edge; {needed} are needed"), "Move it outwards")
            };
            let mount = if part.what == "column" || part.what == "feet" {
                ", or hang it from an arm, a shelf or the ceiling."
            } else {
                ", or tighten the shot."
            };
            (format!("The {} of {} {state}.", part.what, thing.label), format!("{frees}{mount}"))
        });
    }

    fn is_of_the_house(&self, thing: &Thing) -> bool {
        self.corner.lights.iter().any(|light| light.id == thing.id && crate::corner::is_of_the_house(light))
    }

    fn role_of(&self, thing: &Thing) -> Option<Role> {
        self.corner.layout.lights.get(thing.id.as_str()).map(|light| light.role)
    }

    fn distance_to_head(&self, thing: &Thing, found: &mut Found) {
        if thing.kind != Kind::Light {
            return;
        }
        let heads = thing.parts.iter().filter(|part| part.what == "head");
        let nearest =
            heads.map(|head| head.solid.distance_m(self.corner.eyes_m)).fold(f64::INFINITY, f64::min);
        if nearest < NEAREST_M - 1e-6 {
            found.say("near", &thing.id, NEAREST_M - nearest, || {
                (
                    format!(
                        "{} is {} from the head; {} are needed.",
                        thing.label,
                        self.gap(nearest),
                        self.gap(NEAREST_M)
                    ),
                    "Move it away from the head.".into(),
                )
            });
        }
    }

    fn pair(&self, a: &Thing, b: &Thing, found: &mut Found) {
        // How furniture stands already is the person's own business.
        if a.kind == Kind::Furniture && b.kind == Kind::Furniture && !a.moved && !b.moved {
            return;
        }
        // The glass sits on the camera it serves.
        let camera = a.kind == Kind::Camera || b.kind == Kind::Camera;
        if camera && (a.glass || b.glass) {
            return;
        }
        let carried = self.carried_by(b).is_some_and(|id| id == a.id)
            || self.carried_by(a).is_some_and(|id| id == b.id);
        let one_stand = a.stand.is_some() && a.stand == b.stand;
        let of_stand = |what: &str| matches!(what, "column" | "feet" | "boom");
        let mut worst = 0.0f64;
        for first in &a.parts {
            for second in &b.parts {
                // A stand's spread feet can be turned to straddle a table leg.
                if matches!((first.what, second.what), ("leg", "feet") | ("feet", "leg")) {
                    continue;
                }
                if one_stand && of_stand(first.what) && of_stand(second.what) {
                    continue;
                }
                if carried && (first.what == "column" || second.what == "column") {
                    continue;
                }
                worst = worst.max(first.solid.overlap_m(&second.solid));
            }
        }
        if worst > TOLERANCE_M {
            found.say("collision", &b.id, worst, || {
                (
                    format!("{} and {} overlap by {}.", capital(&a.label), b.label, self.gap(worst)),
                    "Move one of them.".into(),
                )
            });
        }
    }

    fn carried_by(&self, thing: &Thing) -> Option<&str> {
        let layout = self.corner.layout;
        let support = match thing.kind {
            Kind::Camera => &layout.camera.support,
            Kind::Microphone => &layout.microphone.as_ref()?.support,
            Kind::Light => &layout.lights.get(thing.id.as_str())?.support,
            Kind::Screen => &layout.screen.as_ref()?.support,
            Kind::Angle => &layout.angles.get(thing.id.as_str())?.support,
            Kind::Person | Kind::Furniture | Kind::Backdrop => return None,
        };
        support.on.as_ref().map(|id| id.0.as_str())
    }

    fn exit(&self, things: &[Thing], found: &mut Vec<Breach>) {
        let mut least: Option<(f64, &str, String)> = None;
        for (side, outline, space) in exit_spaces(self.corner) {
            let beyond =
                outline.iter().map(|p| beyond_m(&self.corner.floor_m, *p)).fold(f64::NEG_INFINITY, f64::max);
            let mut worst = (beyond, "the wall".to_owned());
            for thing in things.iter().filter(|t| t.kind != Kind::Person) {
                let deep = overlap(thing, &space);
                if deep > worst.0 {
                    worst = (deep, thing.label.clone());
                }
            }
            for bound in &self.bounds {
                let deep = bound.solid.overlap_m(&space);
                if deep > worst.0 {
                    worst = (deep, bound.what.clone());
                }
            }
            if worst.0 <= TOLERANCE_M {
                return;
            }
            if least.as_ref().is_none_or(|(least, ..)| worst.0 < *least) {
                least = Some((worst.0, side, worst.1));
            }
        }
        if let Some((lacking, side, blocker)) = least {
            found.push(Breach {
                rule: "exit",
                thing: "person".into(),
                lacking,
                sentence: format!(
                    "There is no way out of the chair: {blocker} takes {} of the {} {side} it.",
                    self.gap(lacking),
                    self.gap(EXIT_M)
                ),
                frees: format!("Keep {} free beside or behind the chair.", self.gap(EXIT_M)),
            });
        }
    }

    /// A way from a door to the chair.
    pub fn way(&self, things: &[Thing]) -> Option<Breach> {
        let thing = way::barred_by(self.corner, things)?;
        let width = self.gap(way::WIDTH_M);
        Some(Breach {
            rule: "way",
            thing: thing.id.clone(),
            lacking: way::WIDTH_M,
            sentence: format!("{} bars the way from the door to the chair.", capital(&thing.label)),
            frees: format!("Leave a way {width} wide, or move the chair nearer to the door."),
        })
    }

    fn camera(&self, found: &mut Vec<Breach>) {
        let corner = self.corner;
        let camera = &corner.layout.camera;
        let sensor = corner.image_distance_mm / 1000.0;
        let behind = corner.view.position_m - corner.view.forward * (sensor + BEHIND_SENSOR_M);
        // Plugs, hands and screen stay under a slope as well, and in sight of the camera.
        let over = behind.z - corner.brief.room.ceiling_m(behind.truncate());
        let mut room = -beyond_m(&corner.floor_m, behind.truncate()).max(over);
        if is_blocked(&self.bounds, corner.view.position_m, behind) {
            room = room.min(-BEHIND_SENSOR_M);
        }
        let mut say = |lacking: f64, sentence: String, frees: &str| {
            found.push(Breach {
                rule: "camera",
                thing: "camera".into(),
                lacking,
                sentence,
                frees: frees.into(),
            });
        };
        if room < -1e-6 {
            say(
                -room,
                format!(
                    "The camera lacks {} of the {} it needs behind the sensor.",
                    self.gap(-room),
                    self.gap(BEHIND_SENSOR_M)
                ),
                "Bring it forward, or use a shorter focal length.",
            );
        }
        let reach = sensor + camera.focus_distance_m;
        if reach < corner.lens.nearest_focus_m - 1e-9 {
            let lacking = corner.lens.nearest_focus_m - reach;
            say(
                lacking,
                format!(
                    "The lens focuses no nearer than {} from the sensor; the eyes are {} too near.",
                    corner.brief.units.length(corner.lens.nearest_focus_m),
                    self.gap(lacking)
                ),
                "Move back, or use a lens that focuses nearer.",
            );
        }
        let focal = camera.focal_length_mm;
        if focal < corner.lens.focal_min_mm - 1e-6 || focal > corner.lens.focal_max_mm + 1e-6 {
            say(
                0.0,
                format!(
                    "{focal:.0} mm is not on this lens, which goes from {} to {} mm.",
                    corner.lens.focal_min_mm, corner.lens.focal_max_mm
                ),
                "Choose a focal length that the lens has.",
            );
        }
        let widest = corner.lens.widest_f_number(focal);
        if camera.f_number < widest - 0.05 || camera.f_number > corner.lens.f_number_limit + 0.05 {
            say(
                0.0,
                format!(
                    "f/{} is not on this lens, which goes from f/{widest:.1} to f/{}.",
                    camera.f_number, corner.lens.f_number_limit
                ),
                "Choose an aperture that the lens has.",
            );
        }
        if camera.iso < corner.body.iso_min - 1e-6 || camera.iso > corner.body.iso_max + 1e-6 {
            say(
                0.0,
                format!(
                    "ISO {} is not on this camera, which goes from {} to {}.",
                    camera.iso, corner.body.iso_min, corner.body.iso_max
                ),
                "Choose an ISO that the camera has.",
            );
        }
    }

    /// Nearest focus of the second angles' lenses.
    fn angles(&self, found: &mut Vec<Breach>) {
        let corner = self.corner;
        for angle in &corner.angles {
            let v = crate::corner::image_distance_mm(angle.angle.focal_length_mm, angle.distance_m);
            let lacking = angle.lens.nearest_focus_m - angle.distance_m - v.unwrap_or(0.0) / 1000.0;
            if lacking > 1e-9 {
                found.push(Breach {
                    rule: "camera",
                    thing: angle.id.to_owned(),
                    lacking,
                    sentence: format!(
                        "The lens of the {} focuses no nearer than {} from the sensor; {} are lacking.",
                        angle.id.replace('-', " "),
                        corner.brief.units.length(angle.lens.nearest_focus_m),
                        self.gap(lacking)
                    ),
                    frees: "Move it back, or use a lens that focuses nearer.".into(),
                });
            }
        }
    }

    /// Free lines from lens to face, key to face and microphone to mouth; one breach for each thing in the way, so
    /// that moving the first does not bring the second to light.
    fn sight(&self, things: &[Thing], found: &mut Vec<Breach>) {
        let corner = self.corner;
        let mut lines: Vec<(String, DVec3, DVec3, &str)> = self
            .landmarks
            .iter()
            .map(|(name, mark)| (format!("the lens and the {name}"), corner.view.position_m, *mark, "camera"))
            .collect();
        for key in corner.role(Role::Key) {
            lines.push(("the key and the face".into(), key.position_m, corner.eyes_m, key.id));
        }
        if let Some((gear, capsule)) = corner.microphone
            && !is_worn(gear.mounting)
        {
            lines.push(("the microphone and the mouth".into(), capsule, corner.mouth_m, "microphone"));
        }
        if let Some((screen, at)) = corner.screen
            && screen.screen != ScreenType::Script
        {
            lines.push(("the eyes and the screen".into(), at, corner.eyes_m, "screen"));
        }
        for (line, from, to, own) in &lines {
            if let Some(bound) = self.bounds.iter().find(|bound| bound.solid.blocks(*from, *to)) {
                found.push(Breach {
                    rule: "sight",
                    thing: (*own).to_owned(),
                    lacking: 0.0,
                    sentence: format!("{} stands between {line}.", capital(&bound.what)),
                    frees: "Move it to where the line is free.".into(),
                });
            }
        }
        for thing in things.iter().filter(|t| t.kind != Kind::Person && !t.glass) {
            let cut = lines.iter().find(|(_, from, to, own)| {
                // A screen stands behind the camera, seen past it.
                let past = *own == "screen" && thing.kind == Kind::Camera;
                thing.id != *own && !past && thing.parts.iter().any(|p| p.solid.blocks(*from, *to))
            });
            if let Some((line, ..)) = cut {
                found.push(Breach {
                    rule: "sight",
                    thing: thing.id.clone(),
                    lacking: 0.0,
                    sentence: format!("{} stands between {line}.", capital(&thing.label)),
                    frees: "Move it out of the line.".into(),
                });
            }
        }
    }

    /// Reach, height, payload and sandbag of what carries things; the load on the breaker.
    fn supports(&self, found: &mut Vec<Breach>) {
        let corner = self.corner;
        let mut carried = vec![("camera", &corner.layout.camera.support, corner.view.position_m)];
        for light in &corner.lights {
            carried.push((light.id, &light.light.support, light.hold_m()));
        }
        if let (Some((_, at)), Some(used)) = (corner.microphone, &corner.layout.microphone) {
            carried.push(("microphone", &used.support, at));
        }
        if let (Some((gear, at)), Some(used)) = (corner.screen, &corner.layout.screen) {
            carried.push(("screen", &used.support, at - DVec3::Z * (gear.height_m() / 2.0)));
        }
        let states = crate::room::sandbags(corner);
        for (id, support, at) in carried {
            let mut say = |lacking: f64, sentence: String, frees: &str| {
                found.push(Breach {
                    rule: "support",
                    thing: id.to_owned(),
                    lacking,
                    sentence,
                    frees: frees.into(),
                });
            };
            if support.kind == SupportKind::Wall {
                let fixed = crate::corner::base_of(support, at);
                let off = beyond_m(&corner.floor_m, fixed).abs();
                if off > ON_WALL_M {
                    say(
                        off,
                        format!("The arm of {id} is fixed {} off the wall.", self.gap(off)),
                        "Fix it to the wall.",
                    );
                } else if let Some(opening) = corner.brief.room.opening_at(fixed, at.z) {
                    say(
                        0.0,
                        format!("The arm of {id} would be fixed in the {}.", opening.0.replace('-', " ")),
                        "Fix it beside the opening.",
                    );
                }
            }
            if let Some(stand) = corner.support_gear(support) {
                let label = &stand.common.label;
                let length = |m: f64| corner.brief.units.length(m);
                let (low, high) = (stand.height_min_m, stand.height_max_m);
                if at.z < low - TOLERANCE_M || at.z > high + TOLERANCE_M {
                    let lacking = (low - at.z).max(at.z - high);
                    say(
                        lacking,
                        format!(
                            "{label} goes from {} to {}; {id} hangs at {}.",
                            length(low),
                            length(high),
                            length(at.z)
                        ),
                        "Change its height, or use another stand.",
                    );
                }
                let reach = (at.truncate() - crate::corner::base_of(support, at)).length();
                if reach > stand.reach_m.max(0.25) + TOLERANCE_M {
                    let lacking = reach - stand.reach_m.max(0.25);
                    say(
                        lacking,
                        if stand.reach_m < 0.25 {
                            format!("{label} has no arm; {id} hangs {} beside its column.", length(reach))
                        } else {
                            format!(
                                "{label} reaches {} from its column; {id} needs {}.",
                                length(stand.reach_m),
                                length(reach)
                            )
                        },
                        "Bring the foot nearer, or use a longer arm.",
                    );
                }
                if let Some(state) = states.iter().find(|s| s.thing == id)
                    && state.load_kg > stand.payload_kg + 1e-9
                {
                    say(
                        state.load_kg - stand.payload_kg,
                        format!(
                            "{label} carries {:.1} kg; {id} weighs {:.1} kg.",
                            stand.payload_kg, state.load_kg
                        ),
                        "Use a stronger stand.",
                    );
                }
            }
            if let Some(state) = states.iter().find(|s| s.thing == id)
                && state.present_kg < state.needed_kg - 0.05
            {
                say(
                    state.needed_kg - state.present_kg,
                    format!(
                        "The stand of {id} can tip: it needs {:.1} kg on its rear leg and has {:.1} kg.",
                        state.needed_kg, state.present_kg
                    ),
                    "Hang a sandbag on the rear leg.",
                );
            }
        }
        let fraction = crate::room::mains_load(corner).value.unwrap_or(0.0);
        if fraction > 1.0 + 1e-9 {
            found.push(Breach {
                rule: "mains",
                thing: "mains".into(),
                lacking: fraction - 1.0,
                sentence: format!("The lamps draw {:.0} % of what the breaker holds.", 100.0 * fraction),
                frees: "Use fewer or more efficient lamps, or another circuit.".into(),
            });
        }
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

fn overlap(thing: &Thing, space: &Solid) -> f64 {
    thing.parts.iter().map(|p| p.solid.overlap_m(space)).fold(f64::NEG_INFINITY, f64::max)
}

fn touches(thing: &Thing, space: &Solid) -> bool {
    overlap(thing, space) > TOLERANCE_M
}
