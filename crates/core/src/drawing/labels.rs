//! Where lettered marks and words go, so that none covers another and words keep off what is drawn. Page and
//! paper draw them where this puts them.

use super::view::{Ink, LetterDisc, MARK_RADIUS, Projection, Stroke, View, Word};
use crate::corner::{Corner, PlacedThing, Source};
use crate::geometry::{DVec2, DVec3};
use crate::plan::ThingId;

/// A word stands off the middle of the thing that it names, in parts of the text size.
const BESIDE: f64 = 0.9;
/// Mean width of a letter in parts of the text size, on the wide side for the fonts we ship.
const LETTER: f64 = 0.56;

/// A word or mark that wants a place.
pub(super) struct Label {
    /// Letter of a mark; empty for plain words.
    pub(super) letter: &'static str,
    /// Id of the thing that a mark stands for.
    pub(super) thing: Option<String>,
    /// Words; may be empty.
    pub(super) text: String,
    /// Words where it is told by name and not by letter, if they are others.
    pub(super) name: Option<String>,
    /// What it speaks of, in drawing coordinates.
    pub(super) at: DVec2,
    /// What it belongs to.
    pub(super) ink: Ink,
}

/// What a thing is called on a drawing.
pub(super) struct Called {
    /// Beside its letter.
    pub(super) text: String,
    /// By name, if that is told otherwise; empty where the drawing says it by its shape.
    pub(super) name: Option<String>,
}

impl Called {
    /// The same either way.
    pub(super) fn alike(text: String) -> Self {
        Self { text, name: None }
    }

    pub(super) fn named(text: String, name: String) -> Self {
        Self { text, name: Some(name) }
    }
}

/// A label for every placed thing that has words in this drawing, where the drawing has it.
pub(super) fn of_things(
    corner: &Corner<'_>,
    words: impl Fn(&PlacedThing<'_>) -> Option<Called>,
    at: impl Fn(DVec3) -> DVec2,
) -> Vec<Label> {
    let placed = corner.placed();
    let label = |thing: &PlacedThing<'_>| {
        let Called { text, name } = words(thing)?;
        Some(Label {
            text,
            name,
            letter: thing.letter,
            // Furniture is told by its name alone.
            thing: (!matches!(thing.id, ThingId::Furniture(_))).then(|| corner.name(&thing.id)),
            at: at(thing.at_m),
            ink: ink_of(corner, &thing.id),
        })
    };
    placed.iter().filter_map(label).collect()
}

/// A drawing whose labels have no places yet.
pub(super) struct Bare {
    pub(super) bounds: [f64; 4],
    pub(super) projection: Option<Projection>,
    pub(super) strokes: Vec<Stroke>,
    pub(super) labels: Vec<Label>,
}

impl Bare {
    /// With its labels put where they cover least.
    pub(super) fn labelled(self, text_size: f64, naming: Naming) -> View {
        let Self { bounds, projection, strokes, labels } = self;
        let (marks, words) = place(&labels, &strokes, bounds, text_size, naming);
        View { bounds, projection, strokes, text_size, mark_radius: MARK_RADIUS * text_size, marks, words }
    }
}

/// How things are told apart on a drawing.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Naming {
    /// By a letter in a disc, with words beside it: as a list of marks names them.
    Letters,
    /// By name; by letter only where a name has no room.
    Names,
}

/// How a thing is drawn.
pub(super) fn ink_of(corner: &Corner<'_>, thing: &ThingId) -> Ink {
    match thing {
        ThingId::Person | ThingId::Seat => Ink::Person,
        ThingId::Camera | ThingId::Angle(_) => Ink::Camera,
        ThingId::Light(id) => {
            let board = corner.lights.iter().any(|l| l.id == id && matches!(l.source, Source::Board(_)));
            if board { Ink::Board } else { Ink::Light }
        }
        ThingId::Microphone => Ink::Microphone,
        ThingId::Screen => Ink::Screen,
        ThingId::Backdrop => Ink::Backdrop,
        ThingId::Treatment(_) => Ink::Treatment,
        ThingId::Furniture(_) | ThingId::Mains => Ink::Furniture,
        ThingId::Opening(_) => Ink::Window,
    }
}

#[derive(Clone, Copy)]
struct Box2 {
    low: DVec2,
    high: DVec2,
}

impl Box2 {
    fn of_disc(middle: DVec2, radius: f64) -> Self {
        Self { low: middle - radius, high: middle + radius }
    }

    /// The box of a word whose baseline starts at `at`.
    fn of_word(at: DVec2, width: f64, size: f64) -> Self {
        Self {
            low: DVec2::new(at.x - 0.1 * size, at.y - 0.85 * size),
            high: DVec2::new(at.x + width + 0.1 * size, at.y + 0.27 * size),
        }
    }

    fn meets(&self, other: &Self) -> bool {
        self.low.cmplt(other.high).all() && other.low.cmplt(self.high).all()
    }

    fn within(&self, low: DVec2, high: DVec2) -> bool {
        self.low.cmpge(low).all() && self.high.cmple(high).all()
    }
}

/// How much a word on top of this is to be avoided; nothing for what is only a hint on the floor.
fn weight(ink: Ink) -> f64 {
    match ink {
        Ink::Wall | Ink::Head | Ink::Camera | Ink::Microphone => 3.0,
        Ink::Stand | Ink::Arm | Ink::Intruder => 2.0,
        Ink::Door | Ink::Window => 1.5,
        Ink::Light | Ink::Board | Ink::Person => 0.9,
        Ink::Furniture => 0.6,
        Ink::EyeLine | Ink::Headroom => 0.6,
        Ink::Sharp | Ink::Swing => 0.4,
        _ => 0.0,
    }
}

/// A shape that words keep off, with what is asked of it again and again.
struct Shape {
    ink: Ink,
    weight: f64,
    closed: bool,
    points: Vec<DVec2>,
    extent: Box2,
}

impl Shape {
    /// None for what words may cover.
    fn of(stroke: &Stroke) -> Option<Self> {
        let weight = weight(stroke.ink);
        if weight <= 0.0 {
            return None;
        }
        let points: Vec<DVec2> = stroke.points.iter().map(|p| DVec2::from_array(*p)).collect();
        let (mut low, mut high) = (DVec2::INFINITY, DVec2::NEG_INFINITY);
        for p in &points {
            (low, high) = (low.min(*p), high.max(*p));
        }
        // A level or upright line has no extent across: give it a hair.
        let extent = Box2 { low: low - 1e-6, high: high + 1e-6 };
        Some(Self { ink: stroke.ink, weight, closed: stroke.closed, points, extent })
    }

    /// Part of a box that it covers, by a grid of points; for open lines, whether any piece crosses it.
    fn covers(&self, area: &Box2) -> f64 {
        if !area.meets(&self.extent) {
            return 0.0;
        }
        if !self.closed {
            return 1.0;
        }
        const ACROSS: usize = 8;
        const DOWN: usize = 3;
        let mut inside = 0;
        for i in 0..ACROSS {
            for j in 0..DOWN {
                let part = DVec2::new((i as f64 + 0.5) / ACROSS as f64, (j as f64 + 0.5) / DOWN as f64);
                inside += usize::from(holds(&self.points, area.low + (area.high - area.low) * part));
            }
        }
        // A thin column between the grid's points still counts a little.
        (inside as f64 / (ACROSS * DOWN) as f64).max(0.1)
    }
}

/// Whether a simple polygon holds a point (even-odd rule).
fn holds(polygon: &[DVec2], p: DVec2) -> bool {
    let mut inside = false;
    for (a, b) in polygon.iter().zip(polygon.iter().cycle().skip(1)) {
        if (a.y > p.y) != (b.y > p.y) && p.x < a.x + (p.y - a.y) / (b.y - a.y) * (b.x - a.x) {
            inside = !inside;
        }
    }
    inside
}

/// A word that would cover so much gives way to a letter.
const CROWDED: f64 = 1.0;

/// Marks and words in their places, all within the bounds, no two meeting. By letters: marks first, each stepping aside only
/// from other marks, then words, each on the spot that covers least. By names: words, and marks for what has no room.
fn place(
    labels: &[Label],
    strokes: &[Stroke],
    bounds: [f64; 4],
    size: f64,
    naming: Naming,
) -> (Vec<LetterDisc>, Vec<Word>) {
    let shapes: Vec<Shape> = strokes.iter().filter_map(Shape::of).collect();
    let (low, high) = (DVec2::new(bounds[0], bounds[1]), DVec2::new(bounds[2], bounds[3]));
    let mut sheet = Sheet { low, high, size, shapes, taken: Vec::new() };
    let (mut marks, mut words) = (Vec::new(), Vec::new());
    let lettered = |label: &Label| !label.letter.is_empty();
    let by_letter = naming == Naming::Letters;
    let anchors: Vec<DVec2> = labels
        .iter()
        .map(|label| if by_letter && lettered(label) { sheet.mark(label, &mut marks) } else { label.at })
        .collect();
    for (label, anchor) in labels.iter().zip(anchors) {
        let text = if by_letter { &label.text } else { label.name.as_ref().unwrap_or(&label.text) };
        if text.is_empty() {
            continue;
        }
        let disc = by_letter && lettered(label);
        match sheet.word(label, anchor, text, disc) {
            Some((cost, word, area)) if by_letter || !lettered(label) || cost < CROWDED => {
                sheet.taken.push(area);
                words.push(word);
            }
            _ if !by_letter && lettered(label) => {
                sheet.mark(label, &mut marks);
            }
            _ => {}
        }
    }
    (marks, words)
}

/// What is taken already.
struct Sheet {
    low: DVec2,
    high: DVec2,
    size: f64,
    shapes: Vec<Shape>,
    taken: Vec<Box2>,
}

impl Sheet {
    fn radius(&self) -> f64 {
        MARK_RADIUS * self.size
    }

    /// Puts a letter at what it stands for, or as near as is free; where it is then.
    fn mark(&mut self, label: &Label, marks: &mut Vec<LetterDisc>) -> DVec2 {
        let (radius, low, high) = (self.radius(), self.low, self.high);
        let inside = |p: DVec2| p.clamp(low + radius, (high - radius).max(low + radius));
        let mut spots = (0..40).map(|step| {
            let ring = if step == 0 { 0 } else { (step - 1) / 8 + 1 };
            let angle = f64::from(step) * std::f64::consts::FRAC_PI_4;
            inside(label.at + DVec2::from_angle(angle) * f64::from(ring) * radius * 1.4)
        });
        let free = spots.find(|p| self.taken.iter().all(|t| !t.meets(&Box2::of_disc(*p, radius))));
        let at = free.unwrap_or_else(|| inside(label.at));
        self.taken.push(Box2::of_disc(at, radius));
        marks.push(LetterDisc {
            letter: label.letter,
            thing: label.thing.clone(),
            at: at.to_array(),
            ink: label.ink,
        });
        at
    }

    /// The spot for a word that covers least, with what it covers.
    fn word(&self, label: &Label, anchor: DVec2, text: &str, disc: bool) -> Option<(f64, Word, Box2)> {
        let (size, radius) = (self.size, self.radius());
        let width = text.chars().count() as f64 * LETTER * size;
        let gap = if disc {
            radius + 0.25 * size
        } else if label.letter.is_empty() {
            0.0
        } else {
            // Beside the thing, not on it.
            BESIDE * size
        };
        let mut best: Option<(f64, DVec2, Box2)> = None;
        for (at, away) in spots(anchor, width, gap, size) {
            let least = best.as_ref().map_or(f64::INFINITY, |(cost, ..)| *cost);
            let area = Box2::of_word(at, width, size);
            if away >= least || !area.within(self.low, self.high) || self.taken.iter().any(|t| t.meets(&area))
            {
                continue;
            }
            // A piece of furniture may carry its own name.
            let own = |shape: &Shape| label.ink == Ink::Furniture && shape.ink == Ink::Furniture;
            let mut cost = away;
            for shape in self.shapes.iter().filter(|shape| !own(shape)) {
                cost += shape.weight * shape.covers(&area);
                if cost >= least {
                    break;
                }
            }
            if cost < least {
                best = Some((cost, at, area));
            }
        }
        let (cost, at, area) = best?;
        let nearest = anchor.clamp(area.low, area.high);
        let far = (nearest - anchor).length() > gap + 0.8 * size;
        let leader = far.then(|| {
            let out = (nearest - anchor).normalize_or_zero();
            let from = if disc { anchor + out * radius } else { anchor };
            [from.to_array(), nearest.to_array()]
        });
        Some((cost, Word { text: text.to_owned(), at: at.to_array(), leader }, area))
    }
}

/// Places for a word around its anchor, each with what its distance costs: beside, above and below, then out
/// along eight directions.
fn spots(anchor: DVec2, width: f64, gap: f64, size: f64) -> impl Iterator<Item = (DVec2, f64)> {
    let near = [
        (DVec2::new(gap, 0.33 * size), 0.0),
        (DVec2::new(-gap - width, 0.33 * size), 0.02),
        (DVec2::new(-width / 2.0, gap + 0.9 * size), 0.04),
        (DVec2::new(-width / 2.0, -gap - 0.3 * size), 0.05),
    ];
    let out = (1..=5).flat_map(move |ring| {
        (0..16).map(move |turn| {
            let angle = f64::from(turn) * std::f64::consts::TAU / 16.0;
            let middle = DVec2::from_angle(angle)
                * DVec2::new(gap + width / 2.0 + f64::from(ring) * size, gap + f64::from(ring) * 1.2 * size);
            (middle + DVec2::new(-width / 2.0, 0.33 * size), 0.12 + 0.16 * f64::from(ring))
        })
    });
    near.into_iter().chain(out).map(move |(offset, away)| (anchor + offset, away))
}
