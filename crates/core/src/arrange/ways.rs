//! Other ways to do it: what gives more to picture and light, to the sound or to the floor; with the other lens, on another rig,
//! turned another way. Three in all are shown; for what is not among them the rule that forbids it is told.

use super::optics::Optics;
use super::proposal::{Differs, Judged, NotPossible};
use super::search::{Effort, rejudged, search};
use super::stands::{Stands, has_rig};
use super::stop::Stop;
use super::{furnish, obstacle, reasons, seats};
use crate::assess::legal::Rules;
use crate::assess::score::weights;
use crate::corner::{Corner, things};
use crate::plan::{Brief, Layout, LensSchool, RigSchool, Role, Support, SupportKind};

/// Proposals given at most.
const PROPOSALS: usize = 3;
/// Facings on which other lens schools and rigs are tried: those that did best.
const FACINGS: usize = 2;
/// Candidates judged for each.
const KEPT_A_FACING: usize = 1;
/// Focal lengths nearer to each other than this are one lens school, octaves.
const SAME_LENS: f64 = 0.4;
/// What a layout must gain to be told as better for picture and light, or for sound, parts of 1; and free floor, m2. Fogon's
/// own rule.
const GAINED: f64 = 0.02;
const GAINED_M2: f64 = 0.25;

/// A layout that differs from the best one.
pub(super) struct Way {
    pub(super) differs: Differs,
    /// The brief with the rig that it follows.
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
            Differs::Lens => lens_words(other_lens(&self.brief)).to_owned(),
            Differs::Rig => rig_words(self.brief.schools.rig).to_owned(),
            Differs::Picture => "Best picture and light".to_owned(),
            Differs::Sound => "Best sound".to_owned(),
            Differs::Floor => "Most free floor".to_owned(),
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
pub(super) fn others(
    brief: &Brief,
    judged: &[Judged],
    size: f64,
    stop: Stop<'_>,
) -> (Vec<Way>, Vec<NotPossible>) {
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
    let (mut choices, mut missing) = (Vec::new(), Vec::new());
    for (differs, other) in schools(brief) {
        let what = match differs {
            Differs::Lens => lens_words(other.schools.lens),
            _ => rig_words(other.schools.rig),
        };
        let mut found = search(
            &other,
            &optics,
            &tried,
            Effort::keeping(KEPT_A_FACING, furnish::Terms::default()),
            size,
            stop,
        );
        let same = |a: &Judged| {
            differs == Differs::Lens
                && (a.focal_length_mm() / best.focal_length_mm()).log2().abs() <= SAME_LENS
        };
        found.judged.retain(|candidate| !same(candidate) && stands_so(differs, &other, candidate));
        match found.judged.into_iter().next() {
            // The other lens is judged by the school that was chosen: what it gives up is told.
            Some(judged) if differs == Differs::Lens => {
                let layout = judged.layout.clone();
                choices.push(Way { differs, brief: brief.clone(), judged: rejudged(brief, &judged, layout) });
            }
            Some(judged) => choices.push(Way { differs, brief: other, judged }),
            // What was not looked for to its end may be possible.
            None if stop.is_wanted() => {}
            None => missing.extend(forbidden(&other, what, differs, &found.failed)),
        }
    }
    let bearing = judged.iter().filter(|c| c.facing() != best.facing());
    let distance = judged
        .iter()
        .skip(1)
        .filter(|c| c.facing() == best.facing())
        .filter(|c| (c.focal_length_mm() / best.focal_length_mm()).log2().abs() > SAME_LENS);
    let turned = bearing.chain(distance).map(|c| Way {
        differs: Differs::Bearing,
        brief: brief.clone(),
        judged: c.clone(),
    });
    choices.extend(turned);
    choices.extend(variants(brief, best).into_iter().map(|judged| Way {
        differs: Differs::Floor,
        brief: brief.clone(),
        judged,
    }));
    if facings.len() < 2 && !stop.is_wanted() {
        missing.push(NotPossible {
            what: "Facing another way".into(),
            sentence: "No other facing holds seat, camera and lights without breaking a rule.".into(),
            frees: "Take furniture out, or mark the desk as free to move.".into(),
        });
    }
    (told_apart(brief, best, choices), missing)
}

/// The best corner with less in it, or with another microphone that is owned: what leaves more floor, or sounds better.
fn variants(brief: &Brief, best: &Judged) -> Vec<Judged> {
    let mut all = Vec::new();
    let mut fewer = best.layout.clone();
    fewer.lights.retain(|_, light| light.role == Role::Key || light.locked);
    if fewer.lights.len() < best.layout.lights.len() {
        super::settle::settle(brief, &mut fewer);
        all.extend(complete(brief, best, fewer));
    }
    let used = best.layout.microphone.as_ref().map(|used| &used.gear);
    let locked = best.layout.microphone.as_ref().is_some_and(|used| used.locked);
    for (id, _) in super::cast::microphones(brief).iter().filter(|(id, _)| Some(*id) != used && !locked) {
        let mut other = Layout { microphone: None, ..best.layout.clone() };
        let mut stands = Stands::unused(brief, &other);
        super::microphone::place(brief, &mut other, &mut stands, 1.0, Some(id));
        if other.microphone.is_some() {
            all.extend(complete(brief, best, other));
        }
    }
    all
}

/// A changed layout of the same shot, if it is legal.
fn complete(brief: &Brief, best: &Judged, layout: Layout) -> Option<Judged> {
    let corner = Corner::from_parts(brief, &layout)?;
    let all = things(&corner);
    let free_floor_m2 = furnish::free_floor_m2(&corner, &all);
    let is_legal = Rules::new(&corner).all(&all).is_empty();
    is_legal.then(|| Judged { free_floor_m2, ..rejudged(brief, best, layout) })
}

/// Which of the others is meant (any, where none is told), as what it is told, by what it is measured, and what it must gain.
type Measure<'a> = (Option<Differs>, Differs, &'a dyn Fn(&Judged) -> f64, f64);

/// Those that are told: what gives most to picture and light, to the sound, to the floor; then another lens, another rig,
/// another bearing. A layout that is not ready stands beside none that is.
fn told_apart(brief: &Brief, best: &Judged, mut choices: Vec<Way>) -> Vec<Way> {
    choices.retain(|way| way.judged.is_ready() || !best.is_ready());
    let [sound, light, _, picture, _] = weights(brief).map(|(_, weight)| weight);
    let seen = |j: &Judged| (picture * j.quick.aspects[3] + light * j.quick.aspects[1]) / (picture + light);
    let heard = |j: &Judged| if sound > 0.0 { j.quick.aspects[0] } else { 0.0 };
    let floor = |j: &Judged| j.free_floor_m2;
    let any = |_: &Judged| 0.0;
    let measures: [Measure<'_>; 6] = [
        (None, Differs::Picture, &seen, GAINED),
        (None, Differs::Sound, &heard, GAINED),
        (Some(Differs::Rig), Differs::Rig, &any, 0.0),
        (None, Differs::Floor, &floor, GAINED_M2),
        (Some(Differs::Lens), Differs::Lens, &any, 0.0),
        (Some(Differs::Bearing), Differs::Bearing, &any, 0.0),
    ];
    let mut told: Vec<Way> = Vec::new();
    for (only, differs, measure, gained) in measures {
        let fits = |way: &Way| {
            only.is_none_or(|only| way.differs == only)
                && measure(&way.judged) - measure(best) >= gained
                && told.iter().all(|other| other.differs != way.differs || only.is_none())
        };
        // Of those that gain, the one that does it best, not the one that gives up most for it.
        let at = (0..choices.len())
            .filter(|i| fits(&choices[*i]))
            .min_by(|a, b| choices[*a].judged.order(&choices[*b].judged));
        if let Some(at) = at.filter(|_| told.len() + 1 < PROPOSALS) {
            let way = choices.remove(at);
            // Another lens or rig is told as that; its sentence says what it gains.
            let differs =
                if matches!(way.differs, Differs::Lens | Differs::Rig) { way.differs } else { differs };
            told.push(Way { differs, ..way });
        }
    }
    told.sort_by(|a, b| a.judged.order(&b.judged));
    told
}

/// The lens school that a brief does not follow.
fn other_lens(brief: &Brief) -> LensSchool {
    match brief.schools.lens {
        LensSchool::FarAndLong => LensSchool::NearAndWide,
        LensSchool::NearAndWide => LensSchool::FarAndLong,
    }
}

/// The brief with the other lens school, and with each other rig for which gear is at hand.
fn schools(brief: &Brief) -> Vec<(Differs, Brief)> {
    let mut all = Vec::new();
    let mut other = brief.clone();
    other.schools.lens = other_lens(brief);
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
