//! The search: every facing, seat, lens and key side on fixed grids, then lights and microphone at their best
//! legal places. No randomness; the same brief gives the same proposals.

mod angle;
mod backdrop;
mod behind;
mod cast;
mod furnish;
mod ground;
mod hang;
mod lamp;
mod lights;
mod obstacle;
mod optics;
mod screen;
mod seats;
mod settle;
mod stands;
mod variant;
mod ways;
mod why;

use std::cmp::Ordering;

use serde::Serialize;
use utoipa::ToSchema;

use crate::assess::Quick;
use crate::assess::carry::{rounded, rounded_bearing, rounded_floor};
use crate::geometry::{DVec3, bearing_of, bearing_vector};
use crate::plan::{Brief, Layout, Plan, Seat, Things};

pub use angle::{AngleKind, with_angle};
use furnish::Furnished;
pub use furnish::replaced;
pub use ground::{Depth, Gained, Ground, ground};
pub use hang::with_treatment;
pub use lamp::{LampJob, with_light};
pub use obstacle::Obstacle;
use optics::{Optics, Shot, shots};
use seats::Facing;
pub use variant::{Variant, varied};
pub use why::{Placed, why};

/// Proposals given at most.
const PROPOSALS: usize = 3;
/// Candidates with a camera that are lit and judged, for each facing.
const KEPT_A_FACING: usize = 5;
/// Candidates of one facing whose seat and camera are legal that are given up on before the next facing.
const FAILED_A_FACING: usize = 6;

/// Steps of the refinement, m along and across, and parts of the focal length.
const REFINING_M: [f64; 2] = [0.10, 0.05];

/// In what a layout differs from the best one.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum Differs {
    /// It is the best one.
    Best,
    /// The person faces another way.
    Bearing,
    /// It follows the other lens school.
    Lens,
    /// It stands on another rig.
    Rig,
}

/// One legal arrangement.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Proposal {
    /// In what it differs from the best.
    pub differs: Differs,
    /// In a few words: what it is.
    pub title: String,
    /// Why this one, in one sentence.
    pub reason: String,
    /// 0 to 1.
    pub score: f64,
    /// Whether a recording could start.
    pub ready: bool,
    /// The plan; where it follows another school than the brief, with that school.
    pub plan: Plan,
}

/// A kind of layout that this corner does not allow.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Missing {
    /// What it would have been.
    pub what: String,
    /// The rule that forbids it, in words.
    pub sentence: String,
    /// What would free it.
    pub frees: String,
}

/// What a search found.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Proposals {
    /// Legal layouts, best first; each differs in bearing, lens school or rig from those before.
    pub proposals: Vec<Proposal>,
    /// Kinds of layout that are not among them, and what forbids each.
    pub missing: Vec<Missing>,
    /// If there are none: each rule that forbids the best candidate, by how much, and what would free it.
    pub obstacles: Vec<Obstacle>,
    /// Measured readings that were set aside: they belong to another arrangement than these.
    pub set_aside: Vec<String>,
}

/// A candidate that has been judged.
#[derive(Clone)]
struct Judged {
    shot: Shot,
    layout: Layout,
    quick: Quick,
    free_floor_m2: f64,
}

impl Judged {
    fn facing(&self) -> &str {
        &self.shot.facing.name
    }

    fn focal_length_mm(&self) -> f64 {
        self.layout.camera.focal_length_mm
    }

    fn is_ready(&self) -> bool {
        self.quick.stops == 0 && self.quick.fixes == 0
    }

    /// Fewest broken rules, fewest poor readings, highest score, most free floor.
    fn order(&self, other: &Self) -> Ordering {
        let score = |j: &Self| (j.quick.score * 1e6).round();
        (self.quick.stops, self.quick.fixes)
            .cmp(&(other.quick.stops, other.quick.fixes))
            .then(score(other).total_cmp(&score(self)))
            .then(other.free_floor_m2.total_cmp(&self.free_floor_m2))
    }
}

/// What was judged and what fell, over some facings.
#[derive(Default)]
struct Searched {
    judged: Vec<Judged>,
    failed: Vec<furnish::Failed>,
}

/// Tries the most promising shots of each facing until enough are legal.
fn search(brief: &Brief, optics: &[Optics<'_>], facings: &[Facing], most: usize) -> Searched {
    let mut found = Searched::default();
    for facing in facings {
        let mut shots = shots(brief, optics, facing);
        shots.sort_by(|a, b| b.promise.total_cmp(&a.promise));
        let (mut kept, mut lost) = (0, 0);
        for shot in shots {
            if kept >= most || lost >= FAILED_A_FACING {
                break;
            }
            match judge(brief, shot) {
                Ok(candidate) => {
                    kept += 1;
                    found.judged.push(candidate);
                }
                Err(reason) => {
                    lost += usize::from(!reason.bare);
                    found.failed.push(reason);
                }
            }
        }
    }
    // Stable: equal candidates stay in grid order.
    found.judged.sort_by(Judged::order);
    found
}

/// Looks for the best legal layouts of a brief. What was measured of one arrangement is set aside: it says nothing of others.
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
        reason: why::best(general, &judged),
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

fn judge(brief: &Brief, shot: Shot) -> Result<Judged, furnish::Failed> {
    let Furnished { layout, quick, free_floor_m2 } = furnish::furnish(brief, &shot)?;
    Ok(Judged { shot, layout, quick, free_floor_m2 })
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

/// The layout with a seat and a camera only.
fn bare_layout(shot: &Shot, gaze_deg: f64) -> Layout {
    let mut camera = shot.camera.clone();
    if gaze_deg != 0.0 {
        let across = bearing_vector(camera.bearing_deg + 90.0) * shot.aside_m * gaze_deg.signum();
        camera.position_m = rounded(DVec3::from(camera.position_m) + across);
        camera.support.base_m = Some(rounded_floor(DVec3::from(camera.position_m).truncate()));
    }
    let eyes: DVec3 = shot.place.seat_m.extend(0.0);
    let to_lens = bearing_of((DVec3::from(camera.position_m) - eyes).with_z(0.0));
    let mut furniture = Things::new();
    if let Some((id, at)) = &shot.place.desk {
        furniture.insert(id.clone(), at.clone());
    }
    Layout {
        seat: Seat {
            position_m: rounded_floor(shot.place.seat_m),
            bearing_deg: rounded_bearing(to_lens - gaze_deg),
            // Never minus zero: it would be written so.
            gaze_offset_deg: gaze_deg + 0.0,
            locked: false,
        },
        camera,
        lights: Things::new(),
        microphone: None,
        screen: None,
        backdrop: None,
        angles: Things::new(),
        furniture,
        treatment: Things::new(),
    }
}

/// Rounds a layout's dial settings as they are set by hand.
pub(crate) fn dial(value: f64) -> f64 {
    (value * 100.0).round().clamp(1.0, 100.0) / 100.0
}
