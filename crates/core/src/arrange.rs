//! The search: every facing, seat and take on fixed grids by closed forms, then lights and microphone at their best legal
//! places, then small steps to a local optimum. No randomness; the same brief gives the same proposals.

mod again;
mod angle;
mod backdrop;
mod bare;
mod behind;
mod carriers;
mod cast;
mod furnish;
mod ground;
mod hang;
mod lamp;
mod left_out;
mod lens_fit;
mod lights;
mod microphone;
mod obstacle;
mod optics;
mod placed;
mod promise;
mod proposal;
mod reasons;
mod refine;
mod relax;
mod screen;
mod search;
mod seats;
mod settle;
mod stands;
mod stop;
mod variant;
mod ways;
mod why;

use std::cmp::Ordering;

use crate::plan::{Brief, Opening, Plan, WindowSchool};

pub use again::laid_again;
pub use angle::{AngleKind, with_angle};
pub use furnish::replaced;
pub use ground::{Depth, Gained, Ground, ground};
pub use hang::with_treatment;
pub use lamp::{LampJob, with_light};
pub use lens_fit::{LensFit, lens_fit};
pub use obstacle::Obstacle;
pub use placed::Placed;
pub use proposal::{Differs, NotPossible, Proposal, Proposals};
pub use seats::nearest_facing;
pub use stop::Stop;
pub use variant::{Variant, varied};
pub use why::why;

pub(crate) use left_out::no_room;
pub(crate) use settle::settle as settle_light;

use furnish::Terms;
use optics::{OTHER_SIZES, Optics};
use proposal::Judged;
use search::{Effort, search};

/// Candidates with a camera that are lit and judged, for each facing.
const KEPT_A_FACING: usize = 3;

/// Looks for the best legal layouts of a brief: up to three, best first, or what forbids every one. What was measured of one
/// arrangement is set aside: it says nothing of others. The same brief gives the same answer.
///
/// ```
/// use fogon_core::arrange::propose;
/// use fogon_core::plan::BriefFile;
///
/// let text = include_bytes!(concat!(env!("CARGO_MANIFEST_DIR"), "/../../docs/examples/box-room.brief.json"));
/// let file = BriefFile::read(text)?;
/// let found = propose(&file.name, &file.brief);
/// assert!(found.proposals[0].ready && found.obstacles.is_empty());
///
/// // Without a camera there is nothing to lay out, and the answer says so.
/// let mut bare = file.brief.clone();
/// bare.gear.clear();
/// assert!(propose("Bare", &bare).obstacles[0].sentence.contains("camera"));
/// # Ok::<(), fogon_core::problem::Problems>(())
/// ```
pub fn propose(name: &str, brief: &Brief) -> Proposals {
    proposed(name, brief, Stop::NEVER)
}

/// As [`propose`], ended early once `stop` says so: with no answer where nobody waits, with the best so far where its time is up.
pub fn propose_until(name: &str, brief: &Brief, stop: Stop<'_>) -> Option<Proposals> {
    let found = proposed(name, brief, stop);
    (!stop.is_left()).then_some(found)
}

fn proposed(name: &str, brief: &Brief, stop: Stop<'_>) -> Proposals {
    let general = &*brief.of_any_layout(None);
    let set_aside = brief.set_aside_in(general);
    let none = |obstacles, looked_at| Proposals {
        proposals: Vec::new(),
        missing: Vec::new(),
        obstacles,
        set_aside: Vec::new(),
        looked_at,
        ended_early: stop.is_late(),
    };
    let obstacles = obstacle::missing_gear(general);
    if !obstacles.is_empty() {
        return none(obstacles, 0);
    }
    let found = find(general, stop);
    let mut looked_at = found.looked_at;
    // Without a lamp the window may be the better one: the plan then says so.
    let by_window = with_window(general).map(|other| {
        let found = find(&other, stop);
        (other, found)
    });
    let (brief, found) = match by_window {
        Some((other, by_window)) => {
            looked_at += by_window.looked_at;
            let better = match (by_window.judged.first(), found.judged.first()) {
                (Some(window), Some(dark)) => window.order(dark) == Ordering::Less,
                (window, _) => window.is_some(),
            };
            if better { (other, by_window) } else { (general.clone(), found) }
        }
        None => (general.clone(), found),
    };
    if found.judged.is_empty() && stop.is_wanted() {
        return none(Vec::new(), looked_at);
    }
    if found.judged.is_empty() {
        let reasons = relax::reasons(general, stop);
        let obstacles = if reasons.is_empty() { obstacle::explain(general, &found.failed) } else { reasons };
        return none(obstacles, looked_at);
    }
    let mut judged = found.judged.clone();
    let (mut others, mut missing) = ways::others(&brief, &judged, found.size, stop);
    // What another search found may do better by the same schools: then that is the best.
    let is_better =
        |way: &ways::Way| way.differs != Differs::Rig && way.judged.order(&judged[0]) == Ordering::Less;
    if let Some(at) = others.iter().position(is_better) {
        let mut better = others.swap_remove(at).judged;
        refine::choices(&brief, &mut better);
        judged.insert(0, better);
        (others, missing) = ways::others(&brief, &judged, found.size, stop);
    }
    let best = &judged[0];
    let mut all: Vec<(&Judged, Proposal)> = vec![(
        best,
        Proposal {
            differs: Differs::Best,
            title: format!("Facing {}", best.facing()),
            reason: reasons::best(&brief, &judged),
            score: best.quick.score,
            ready: best.is_ready(),
            plan: Plan::new(name, brief.clone(), best.layout.clone()),
        },
    )];
    all.extend(others.iter().map(|way| {
        let proposal = Proposal {
            differs: way.differs,
            title: way.title(best),
            reason: way.reason(best),
            score: way.judged.quick.score,
            ready: way.judged.is_ready(),
            plan: Plan::new(name, way.brief.clone(), way.judged.layout.clone()),
        };
        (&way.judged, proposal)
    }));
    all.sort_by(|a, b| a.0.order(b.0));
    let proposals = all.into_iter().map(|(_, proposal)| proposal).collect();
    Proposals { proposals, missing, obstacles: Vec::new(), set_aside, looked_at, ended_early: stop.is_late() }
}

/// What a search of one brief found: the best first, as good as small steps make it.
struct Found {
    judged: Vec<Judged>,
    failed: Vec<furnish::Failed>,
    looked_at: usize,
    /// Height of the frame against the wanted one.
    size: f64,
}

fn find(brief: &Brief, stop: Stop<'_>) -> Found {
    let optics = Optics::all(brief);
    let facings = seats::facings(brief);
    let (mut failed, mut looked_at) = (Vec::new(), 0);
    let sizes = std::iter::once(1.0).chain(OTHER_SIZES);
    // A screen that is to be keyed out comes before everything else, and gives way where no seat has room for it.
    let screens: &[bool] = if backdrop::is_keyed(brief) { &[true, false] } else { &[false] };
    let terms = screens.iter().flat_map(|with_screen| {
        let with_screen = *with_screen;
        [false, true].map(|may_leave_out| Terms { may_leave_out, with_screen })
    });
    for (size, terms) in sizes.flat_map(|size| terms.clone().map(move |terms| (size, terms))) {
        if stop.is_wanted() {
            break;
        }
        // Leaving lamps out helps only where seat and camera stood.
        if terms.may_leave_out && failed.iter().all(|failed: &furnish::Failed| failed.bare) {
            continue;
        }
        let effort = Effort::keeping(KEPT_A_FACING, terms);
        let found = search(brief, &optics, &facings, effort, size, stop);
        looked_at += found.looked_at;
        failed.extend(found.failed);
        let mut judged = found.judged;
        if let Some(best) = judged.first_mut() {
            let steps: [&dyn Fn(&mut Judged); 3] =
                [&|best| refine::shot(brief, &optics, best), &|best| refine::roles(brief, best), &|best| {
                    refine::choices(brief, best)
                }];
            steps.iter().take_while(|_| !stop.is_wanted()).for_each(|step| step(best));
            judged.sort_by(Judged::order);
            return Found { judged, failed, looked_at, size };
        }
    }
    Found { judged: Vec::new(), failed, looked_at, size: 1.0 }
}

/// The brief with its windows as the key, where no lamp is at hand and there is a window that does not count yet.
fn with_window(brief: &Brief) -> Option<Brief> {
    let has_lamp = brief.gear.values().any(|gear| gear.at_hand() && gear.light().is_some());
    let has_window = brief.room.openings.values().any(Opening::is_open_to_light);
    if has_lamp || !has_window || brief.windows_shine() {
        return None;
    }
    let mut other = brief.clone();
    other.schools.window = WindowSchool::Key;
    Some(other)
}
