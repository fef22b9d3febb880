//! Rules about where one thing is, and about two things: inside the room, out of the picture, clear of doors, head and each
//! other.

use super::{Breaches, CEILING_M, Rules, TOLERANCE_M, overlap};
use crate::corner::{Kind, LightAt, Piece, Thing, What, is_of_the_house};
use crate::finding::Rule;
use crate::light::placement::{MARGIN_M as LIGHT_MARGIN_M, NEAREST_M};
use crate::plan::{Role, ThingId};
use crate::sound::placement::{MARGIN_M as MICROPHONE_MARGIN_M, may_show};
use crate::units::capital;

impl Rules<'_> {
    /// Room, ceiling, picture, doors, nearness: rules about one thing.
    pub(super) fn place(&self, thing: &Thing, found: &mut Breaches) {
        let corner = self.corner;
        let height = corner.room_m[2];
        for part in &thing.pieces {
            let (low, high) = part.solid.bounds();
            let beyond = self
                .walls
                .iter()
                .map(|wall| wall.normal.dot(wall.point_m) - part.solid.least_along(wall.normal))
                .fold((high.z - height).max(-low.z), f64::max);
            if beyond > TOLERANCE_M {
                found.say(Rule::Room, thing, beyond, || {
                    (
                        format!(
                            "{} {} {} beyond the room.",
                            capital(&thing.piece_words(part.what)),
                            reach_words(part.what),
                            self.gap(beyond)
                        ),
                        format!("Move {} inwards{}.", it(thing), or_smaller(thing)),
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
            let heads = thing.pieces.iter().filter(|part| part.what == What::Head);
            let top = heads.map(|p| p.solid.bounds().1.z).fold(0.0, f64::max);
            let lacking = top + CEILING_M - height;
            if lacking > TOLERANCE_M && lacking <= CEILING_M + TOLERANCE_M {
                found.say(Rule::Room, thing, lacking, || {
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
            if matches!(&thing.on, Some(ThingId::Opening(on)) if on == id) {
                continue; // it goes with the door
            }
            let deepest = overlap(thing, swing);
            if deepest > TOLERANCE_M {
                found.say(Rule::Door, thing, deepest, || {
                    (
                        format!(
                            "{} {} {} into the swing of the {}.",
                            capital(&thing.label),
                            if thing.kind == Kind::Person { "reach" } else { "stands" },
                            self.gap(deepest),
                            id.words()
                        ),
                        format!("Move {}, or let the door open outwards or slide.", it(thing)),
                    )
                });
            }
        }
    }

    /// Inner corners, slopes and beams: nothing reaches into them, and lamps keep their air below.
    fn within_bounds(&self, thing: &Thing, found: &mut Breaches) {
        let deepest = self.bounds.iter().flat_map(|bound| {
            thing.pieces.iter().map(move |part| (part.solid.overlap_m(&bound.solid), part, bound))
        });
        let worst = deepest.max_by(|a, b| a.0.total_cmp(&b.0)).filter(|(deep, ..)| *deep > TOLERANCE_M);
        if let Some((deep, part, bound)) = worst {
            found.say(Rule::Room, thing, deep, || {
                let sentence = format!(
                    "{} {} {} into {}.",
                    capital(&thing.piece_words(part.what)),
                    reach_words(part.what),
                    self.gap(deep),
                    bound.what
                );
                (sentence, format!("Move {} away from there{}.", it(thing), or_smaller(thing)))
            });
            return;
        }
        let Some(head) = thing.pieces.first().filter(|_| thing.kind == Kind::Light) else { return };
        let near = self.air.iter().map(|bound| (head.solid.overlap_m(&bound.solid), bound));
        if let Some((lacking, bound)) =
            near.max_by(|a, b| a.0.total_cmp(&b.0)).filter(|(lacking, _)| *lacking > TOLERANCE_M)
        {
            found.say(Rule::Room, thing, lacking, || {
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

    fn out_of_picture(&self, thing: &Thing, found: &mut Breaches) {
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
        let mut worst: Option<(f64, f64, &Piece)> = None;
        for part in thing.pieces.iter().filter(|part| part.what != What::Sheet) {
            // The microphone itself keeps its own margin, what carries it that of all supports.
            let margin = if part.what == What::Head { margin } else { LIGHT_MARGIN_M };
            let lacking = margin - corner.view.clearance_m(&part.solid);
            if worst.as_ref().is_none_or(|(most, ..)| lacking > *most) {
                worst = Some((lacking, margin, part));
            }
        }
        let Some((lacking, margin, part)) = worst.filter(|(lacking, ..)| *lacking > 1e-6) else { return };
        found.say(Rule::Picture, thing, lacking, || {
            let are = if part.what == What::Feet { "are" } else { "is" };
            let (state, frees) = if lacking > margin {
                (
                    format!("{are} {} inside the picture", self.gap(lacking - margin)),
                    "Move it out of the picture",
                )
            } else {
                let (edge, needed) = (self.gap(margin - lacking), self.gap(margin));
                (format!("{are} {edge} from the picture's edge; {needed} are needed"), "Move it outwards")
            };
            let mount = if matches!(part.what, What::Column | What::Feet | What::Tripod) {
                ", or hang it from an arm, a shelf or the ceiling."
            } else {
                ", or tighten the shot."
            };
            let piece = capital(&thing.piece_words(part.what));
            (format!("{piece} {state}."), format!("{frees}{mount}"))
        });
    }

    /// The light that a thing is, if it is one.
    fn light_of(&self, thing: &Thing) -> Option<&LightAt<'_>> {
        self.corner.lights.iter().find(|light| thing.id == ThingId::Light(light.id.clone()))
    }

    fn is_of_the_house(&self, thing: &Thing) -> bool {
        self.light_of(thing).is_some_and(is_of_the_house)
    }

    fn role_of(&self, thing: &Thing) -> Option<Role> {
        match &thing.id {
            ThingId::Light(id) => self.corner.layout.lights.get(id).map(|light| light.role),
            _ => None,
        }
    }

    /// A lamp keeps away from the head, skin to skin.
    fn distance_to_head(&self, thing: &Thing, found: &mut Breaches) {
        if thing.kind != Kind::Light {
            return;
        }
        let heads = thing.pieces.iter().filter(|piece| piece.what == What::Head);
        let nearest = heads
            .filter(|piece| piece.solid.box_gap_m(&self.head) < NEAREST_M)
            .map(|piece| piece.solid.gap_m(&self.head, NEAREST_M))
            .fold(f64::INFINITY, f64::min);
        if nearest < NEAREST_M - 1e-3 {
            found.say(Rule::Near, thing, NEAREST_M - nearest, || {
                (
                    format!(
                        "{} is {} from the head; {} are needed.",
                        capital(&thing.label),
                        self.gap(nearest),
                        self.gap(NEAREST_M)
                    ),
                    "Move it away from the head.".into(),
                )
            });
        }
    }

    pub(super) fn pair(&self, a: &Thing, b: &Thing, found: &mut Breaches) {
        // How furniture stands already is the person's own business.
        if a.kind == Kind::Furniture && b.kind == Kind::Furniture && !a.moved && !b.moved {
            return;
        }
        // The glass sits on the camera it serves.
        let camera = a.kind == Kind::Camera || b.kind == Kind::Camera;
        if camera && (a.glass || b.glass) {
            return;
        }
        let carried = b.on.as_ref() == Some(&a.id) || a.on.as_ref() == Some(&b.id);
        let one_stand = a.stand.is_some() && a.stand == b.stand;
        let mut worst = 0.0f64;
        for first in &a.pieces {
            for second in &b.pieces {
                // A stand's spread feet can be turned to straddle a table leg.
                let spread = |what: What| matches!(what, What::Feet | What::Tripod);
                if first.what == What::Leg && spread(second.what)
                    || spread(first.what) && second.what == What::Leg
                {
                    continue;
                }
                if one_stand && first.what.is_of_stand() && second.what.is_of_stand() {
                    continue;
                }
                let holds = |what: What| matches!(what, What::Column | What::Boom);
                if carried && (holds(first.what) || holds(second.what)) {
                    continue;
                }
                worst = worst.max(first.solid.overlap_m(&second.solid));
            }
        }
        if worst > TOLERANCE_M {
            found.say(Rule::Collision, b, worst, || {
                (
                    format!("{} and {} overlap by {}.", capital(&a.label), b.label, self.gap(worst)),
                    "Move one of them.".into(),
                )
            });
        }
    }
}

fn reach_words(what: What) -> &'static str {
    if matches!(what, What::Feet | What::Legs) { "reach" } else { "reaches" }
}

/// What is moved: the person with the seat.
fn it(thing: &Thing) -> &'static str {
    if thing.kind == Kind::Person { "the seat" } else { "it" }
}

/// The other way out, of what can be had in other sizes.
fn or_smaller(thing: &Thing) -> &'static str {
    match thing.kind {
        Kind::Person | Kind::Angle => "",
        Kind::Furniture | Kind::Camera | Kind::Light | Kind::Microphone | Kind::Screen | Kind::Backdrop => {
            ", or use a smaller one"
        }
    }
}
