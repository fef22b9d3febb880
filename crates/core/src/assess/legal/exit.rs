//! Room to get out of the chair, and a way to a door.

use super::{Breach, Rules, TOLERANCE_M, overlap, way};
use crate::corner::{EXIT_M, Kind, Thing, exit_spaces};
use crate::finding::Rule;
use crate::geometry::beyond_m;
use crate::plan::{Posture, ThingId};
use crate::units::{Amount, capital};

impl Rules<'_> {
    pub(super) fn exit(&self, things: &[Thing], found: &mut Vec<Breach>) {
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
            let out = match self.corner.brief.person.posture {
                Posture::Seated => "There is no way out of the chair",
                Posture::Standing => "There is no room to step aside",
            };
            let chair = self.chair();
            found.push(Breach::new(
                Rule::Exit,
                ThingId::Person,
                Amount::Length(lacking),
                format!(
                    "{out}: {blocker} takes {} of the {} {side} {chair}.",
                    self.gap(lacking),
                    self.gap(EXIT_M)
                ),
                format!("Keep {} free beside or behind {chair}.", self.gap(EXIT_M)),
            ));
        }
    }

    /// Where the person is, in words.
    fn chair(&self) -> &'static str {
        match self.corner.brief.person.posture {
            Posture::Seated => "the chair",
            Posture::Standing => "the place where you stand",
        }
    }

    /// A way from a door to the chair.
    pub fn way(&self, things: &[Thing]) -> Option<Breach> {
        let thing = way::barred_by(self.corner, things)?;
        let (width, chair) = (self.gap(way::WIDTH_M), self.chair());
        Some(Breach::new(
            Rule::Way,
            thing.id.clone(),
            Amount::Length(way::WIDTH_M),
            format!("{} blocks the way from the door to {chair}.", capital(&thing.label)),
            format!("Leave a way {width} wide, or move {chair} nearer to the door."),
        ))
    }
}
