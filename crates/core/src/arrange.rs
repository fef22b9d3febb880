//! The search: every facing, seat, lens and key side on fixed grids, then lights and microphone at their best
//! legal places. No randomness; the same brief gives the same proposals.

mod angle;
mod backdrop;
mod bare;
mod behind;
mod cast;
mod furnish;
mod ground;
mod hang;
mod lamp;
mod lights;
mod obstacle;
mod optics;
mod proposal;
mod reasons;
mod screen;
mod search;
mod seats;
mod settle;
mod stands;
mod variant;
mod ways;
mod why;

use std::cmp::Ordering;

use crate::plan::{Brief, Layout, Plan, Things};

pub use angle::{AngleKind, with_angle};
pub use furnish::replaced;
pub use ground::{Depth, Gained, Ground, ground};
pub use hang::with_treatment;
pub use lamp::{LampJob, with_light};
pub use obstacle::Obstacle;
pub use proposal::{Differs, NotPossible, Proposal, Proposals};
pub use variant::{Variant, varied};
pub use why::{Placed, why};

use optics::{Optics, Shot};
use proposal::Judged;
use search::{KEPT_A_FACING, Searched, judge, search};

/// Steps of the refinement, m along and across, and parts of the focal length.
const REFINING_M: [f64; 2] = [0.10, 0.05];

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
    let general = &*brief.of_any_layout();
    let set_aside = brief.set_aside_in(general);
    let none = |obstacles| Proposals {
        proposals: Vec::new(),
        missing: Vec::new(),
        obstacles,
        set_aside: Vec::new(),
    };
    let obstacles = obstacle::missing_gear(general);
    if !obstacles.is_empty() {
        return none(obstacles);
    }
    let optics = Optics::all(general);
    let Searched { mut judged, failed } = search(general, &optics, &seats::facings(general), KEPT_A_FACING);
    if judged.is_empty() {
        return none(obstacle::explain(general, &failed));
    }
    refine(general, &optics, &mut judged[0]);
    let (others, missing) = ways::others(general, &judged);
    let best = &judged[0];
    let mut proposals = vec![Proposal {
        differs: Differs::Best,
        title: format!("Facing {}", best.facing()),
        reason: reasons::best(general, &judged),
        score: best.quick.score,
        ready: best.is_ready(),
        plan: Plan::new(name, general.clone(), best.layout.clone()),
    }];
    proposals.extend(others.into_iter().map(|way| Proposal {
        differs: way.differs,
        title: way.title(best),
        reason: way.reason(best),
        score: way.judged.quick.score,
        ready: way.judged.is_ready(),
        plan: Plan::new(name, way.brief, way.judged.layout),
    }));
    Proposals { proposals, missing, obstacles: Vec::new(), set_aside }
}

/// Small steps from the best candidate of the grid, as long as one of them is better: the seat along and across
/// the facing, the focal length, then another lamp as the key. The best of each round is taken.
fn refine(brief: &Brief, optics: &[Optics<'_>], best: &mut Judged) {
    let used =
        |o: &&Optics<'_>| *o.body_id == best.layout.camera.body && *o.lens_id == best.layout.camera.lens;
    let Some(optics) = optics.iter().find(used) else { return };
    for step in REFINING_M {
        let Judged { shot: Shot { facing, place, camera, .. }, .. } = &*best;
        let seats = [(step, 0.0), (-step, 0.0), (0.0, step), (0.0, -step)]
            .into_iter()
            .filter_map(|(ahead, aside)| Some((seats::shifted(brief, facing, place, ahead, aside)?, 1.0)));
        let focals = [1.0 + step, 1.0 / (1.0 + step)].into_iter().map(|by| (place.clone(), by));
        let next = seats
            .chain(focals)
            .filter_map(|(place, by)| {
                let focal = (camera.focal_length_mm * by * 10.0).round() / 10.0;
                let focal = focal.clamp(optics.lens.focal_min_mm, optics.lens.focal_max_mm);
                judge(brief, optics.shot(brief, facing, place, focal)).ok()
            })
            .min_by(Judged::order);
        if let Some(next) = next.filter(|next| next.order(best) == Ordering::Less) {
            *best = next;
        }
    }
    // Which lamp does best as the key shows only in place.
    let bare = Layout { lights: Things::new(), ..best.layout.clone() };
    for (id, _) in cast::keys(brief, &bare).into_iter().take(furnish::KEYS_TRIED).skip(1) {
        let other = judge(brief, Shot { key: Some(id.clone()), ..best.shot.clone() });
        if let Some(other) = other.ok().filter(|other| other.order(best) == Ordering::Less) {
            *best = other;
        }
    }
}
