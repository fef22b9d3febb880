//! What is said of a mark as it was laid.

use super::entries::{Got, GotFrom, LaidMark, Trust};
use super::solve::Solved;
use crate::card::entries::Mark;
use crate::corner::Corner;
use crate::geometry::DVec2;
use crate::units::{UnitSystem, decimals};

/// A mark nearer to its place than this is left alone, m. Fogon's own rule.
const NEAR_M: f64 = 0.02;
/// A way that leads this straight to the person or from them is told so: the cosine of 20 degrees.
const STRAIGHT: f64 = 0.94;
/// A part of a way shorter than this is not told, m: of a way worth telling the other part is longer.
const WORTH_M: f64 = 0.01;

/// Sentences on marks.
pub(super) struct Words<'a> {
    pub(super) corner: &'a Corner<'a>,
    pub(super) got: &'a [Got],
    pub(super) left_out: &'a [usize],
    pub(super) planned: &'a [DVec2],
}

impl Words<'_> {
    pub(super) fn mark(&self, index: usize, mark: &Mark, solved: &Solved) -> LaidMark {
        let units = self.corner.brief.units;
        let planned = self.planned[index];
        let stray = solved.stray(planned);
        let place = match (solved.at, solved.within_m) {
            (Some(at), Some(within)) => match stray {
                Some(off) => format!("{}: move it {}.", mark.letter, self.way(index, at, -off)),
                None => {
                    format!("{} stands where it should, to {}.", mark.letter, units.gap(within.max(0.005)))
                }
            },
            _ => String::new(),
        };
        let doubt = match solved.trust {
            Trust::Unknown => format!(
                "{}: too few distances to know where it stands. Tape a second one, from a point that is not in line with the first.",
                mark.letter
            ),
            Trust::Unchecked => {
                "Two distances cannot show a misread tape: a third one checks them.".to_owned()
            }
            Trust::Checked => String::new(),
            Trust::Contradicted => format!(
                "{}: the distances do not fit together, so one of them is misread. Tape it again, or one more, and Fogon can say which.",
                mark.letter
            ),
            Trust::Named => self.named(mark),
        };
        let words =
            [place, doubt].iter().filter(|words| !words.is_empty()).cloned().collect::<Vec<_>>().join(" ");
        LaidMark {
            id: mark.id.clone(),
            letter: mark.letter.clone(),
            trust: solved.trust,
            at_m: solved.at.map(|at| at.to_array()),
            within_m: solved.within_m,
            stray_m: stray.map(|off| off.to_array()),
            words,
        }
    }

    /// The distance that contradicts the others.
    fn named(&self, mark: &Mark) -> String {
        let own = self.left_out.iter().filter_map(|index| self.got.get(*index));
        let own = own.filter(|got| got.mark == mark.id).map(|got| {
            let from = match &got.from {
                GotFrom::Corner(letter) => format!("corner {letter}"),
                GotFrom::Wall(wall) => format!("the {wall} wall"),
                GotFrom::Mark(other) => format!("the mark of the {other}"),
            };
            let length = self.corner.brief.units.mark(got.length_m);
            format!("{length} from {from} does not fit the others and is left out: tape it again.")
        });
        own.collect::<Vec<_>>().join(" ")
    }

    /// A way on the floor in words: straight to or from the person where it goes there, else as the camera sees it.
    fn way(&self, index: usize, at: DVec2, by: DVec2) -> String {
        let units = self.corner.brief.units;
        let to_you = (self.corner.eyes_m.truncate() - at).normalize_or_zero();
        let near = by.dot(to_you);
        if index != 0 && near.abs() >= STRAIGHT * by.length() {
            let way = if near > 0.0 { "towards" } else { "away from" };
            return format!("{} {way} you", gap(units, by.length()));
        }
        let view = &self.corner.view;
        let ahead = by.dot(view.forward.truncate().normalize_or(DVec2::Y));
        let across = by.dot(view.right.truncate().normalize_or(DVec2::X));
        let ways = [
            (ahead, ["away from the camera", "towards the camera"]),
            (across, ["to camera right", "to camera left"]),
        ];
        let told = ways.iter().filter(|(by, _)| by.abs() >= WORTH_M).map(|(by, [plus, minus])| {
            format!("{} {}", gap(units, *by), if *by > 0.0 { plus } else { minus })
        });
        told.collect::<Vec<_>>().join(" and ")
    }
}

fn gap(units: UnitSystem, metres: f64) -> String {
    match units {
        UnitSystem::Metric => format!("{} cm", decimals(metres.abs() * 100.0, 0)),
        UnitSystem::Imperial => units.gap(metres),
    }
}

impl Solved {
    /// How far off it is, where that is more than it may be off by the tape and worth a move.
    fn stray(&self, planned: DVec2) -> Option<DVec2> {
        let off = self.at? - planned;
        (off.length() > self.within_m?.max(NEAR_M)).then_some(off)
    }
}
