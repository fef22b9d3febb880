//! Other ways to do it: the best layout turned another way, with the other lens school, on another rig. Three in all
//! are shown; for what is not among them the rule that forbids it is told.

use super::optics::Optics;
use super::proposal::{Differs, Judged, NotPossible};
use super::search::search;
use super::stands::has_rig;
use super::{furnish, obstacle, reasons, seats};
use crate::plan::{Brief, LensSchool, RigSchool, Support, SupportKind};

/// Proposals given at most.
const PROPOSALS: usize = 3;
/// Facings on which other schools and rigs are tried: those that did best.
const FACINGS: usize = 3;
/// Candidates judged for each.
const KEPT_A_FACING: usize = 2;
/// Focal lengths nearer to each other than this are one lens school, octaves.
const SAME_LENS: f64 = 0.4;

/// A layout that differs from the best one.
pub(super) struct Way {
    pub(super) differs: Differs,
    /// The brief with the school that it follows.
    pub(super) brief: Brief,
    pub(super) judged: Judged,
}

impl Way {
    /// What it is, in a few words.
    pub(super) fn title(&self, best: &Judged) -> String {
        match self.differs {
            Differs::Best | Differs::Bearing if self.judged.facing() == best.facing() => {
                let nearer = self.judged.focal_length_mm() < best.focal_length_mm();
                format!(
                    "Facing {}, {}",
                    self.judged.facing(),
                    if nearer { "nearer" } else { "from further back" }
                )
            }
            Differs::Best | Differs::Bearing => format!("Facing {}", self.judged.facing()),
            Differs::Lens => lens_words(self.brief.schools.lens).to_owned(),
            Differs::Rig => rig_words(self.brief.schools.rig).to_owned(),
        }
    }

    /// How it differs, in one sentence.
    pub(super) fn reason(&self, best: &Judged) -> String {
        reasons::instead(&self.brief, &self.judged, best, self.differs)
    }
}

fn lens_words(school: LensSchool) -> &'static str {
    match school {
        LensSchool::FarAndLong => "Longer lens, further back",
        LensSchool::NearAndWide => "Wide lens, near",
    }
}

fn rig_words(rig: RigSchool) -> &'static str {
    match rig {
        RigSchool::Separate => "Separate stands",
        RigSchool::Column => "One rolling column",
        RigSchool::Fixed => "Fixed to wall or ceiling",
    }
}

/// The other ways, best first, and what forbids those that are not among them.
pub(super) fn others(brief: &Brief, judged: &[Judged]) -> (Vec<Way>, Vec<NotPossible>) {
    let best = &judged[0];
    let mut facings: Vec<&str> = Vec::new();
    for candidate in judged {
        if !facings.contains(&candidate.facing()) {
            facings.push(candidate.facing());
        }
    }
    let tried: Vec<_> = seats::facings(brief)
        .into_iter()
        .filter(|f| facings.iter().take(FACINGS).any(|n| *n == f.name))
        .collect();
    let optics = Optics::all(brief);
    let (mut ways, mut missing) = (Vec::new(), Vec::new());
    for (differs, other) in schools(brief) {
        let what = match differs {
            Differs::Lens => lens_words(other.schools.lens),
            _ => rig_words(other.schools.rig),
        };
        let mut found = search(&other, &optics, &tried, KEPT_A_FACING);
        let same = |a: &Judged| {
            differs == Differs::Lens
                && (a.focal_length_mm() / best.focal_length_mm()).log2().abs() <= SAME_LENS
        };
        found.judged.retain(|candidate| !same(candidate) && stands_so(differs, &other, candidate));
        match found.judged.into_iter().next() {
            Some(judged) => ways.push(Way { differs, brief: other, judged }),
            None => missing.extend(forbidden(&other, what, differs, &found.failed)),
        }
    }
    // After what other schools give, other bearings, then other distances.
    let bearing = judged.iter().filter(|c| c.facing() != best.facing());
    let distance = judged
        .iter()
        .filter(|c| c.facing() == best.facing())
        .filter(|c| (c.focal_length_mm() / best.focal_length_mm()).log2().abs() > SAME_LENS);
    for candidate in bearing.chain(distance) {
        let is_new = ways.iter().all(|way: &Way| {
            way.differs != Differs::Bearing
                || way.judged.facing() != candidate.facing()
                || (way.judged.focal_length_mm() / candidate.focal_length_mm()).log2().abs() > SAME_LENS
        });
        if ways.len() + 1 < PROPOSALS && is_new {
            ways.push(Way { differs: Differs::Bearing, brief: brief.clone(), judged: candidate.clone() });
        }
    }
    ways.truncate(PROPOSALS - 1);
    if ways.len() + 1 < PROPOSALS && facings.len() < 2 {
        missing.push(NotPossible {
            what: "Facing another way".into(),
            sentence: "No other facing holds seat, camera and lights without breaking a rule.".into(),
            frees: "Take furniture out, or mark the desk as free to move.".into(),
        });
    }
    ways.sort_by(|a, b| a.judged.order(&b.judged));
    (ways, missing)
}

/// The brief with the other lens school, and with each other rig for which gear is at hand.
fn schools(brief: &Brief) -> Vec<(Differs, Brief)> {
    let mut all = Vec::new();
    let mut other = brief.clone();
    other.schools.lens = match brief.schools.lens {
        LensSchool::FarAndLong => LensSchool::NearAndWide,
        LensSchool::NearAndWide => LensSchool::FarAndLong,
    };
    all.push((Differs::Lens, other));
    for rig in [RigSchool::Separate, RigSchool::Column, RigSchool::Fixed] {
        if rig != brief.schools.rig && has_rig(brief, rig) {
            let mut other = brief.clone();
            other.schools.rig = rig;
            all.push((Differs::Rig, other));
        }
    }
    all
}

/// A layout for another rig does stand on it: key and camera on one column, something fixed to wall or ceiling.
fn stands_so(differs: Differs, brief: &Brief, candidate: &Judged) -> bool {
    let layout = &candidate.layout;
    let camera = &layout.camera.support;
    let mut lights = layout.lights.values().map(|light| &light.support);
    match (differs, brief.schools.rig) {
        (Differs::Rig, RigSchool::Column) => lights.any(|support| support.is_one_with(camera)),
        (Differs::Rig, RigSchool::Fixed) => {
            let up = |support: &Support| matches!(support.kind, SupportKind::Ceiling | SupportKind::Wall);
            lights.any(up) || up(camera)
        }
        _ => true,
    }
}

fn forbidden(brief: &Brief, what: &str, differs: Differs, failed: &[furnish::Failed]) -> Option<NotPossible> {
    let what = what.to_owned();
    if failed.iter().all(|f| f.breaches.is_empty()) {
        let (sentence, frees) = match differs {
            Differs::Lens => (
                "No lens at hand frames you from such a distance here.",
                "A lens for the other school, or another place for the seat.",
            ),
            _ => (
                "The arms of this rig do not reach key and microphone from the camera's place.",
                "A stand with a longer arm, or a camera nearer to the seat.",
            ),
        };
        return Some(NotPossible { what, sentence: sentence.into(), frees: frees.into() });
    }
    let first = obstacle::explain(brief, failed).into_iter().next()?;
    Some(NotPossible { what, sentence: first.sentence, frees: first.frees })
}
