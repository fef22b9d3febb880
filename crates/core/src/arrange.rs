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
use crate::assess::carry::{rounded, rounded_bearing, rounded_floor, set_pose};
use crate::geometry::{DVec3, bearing_of, bearing_vector};
use crate::person::landmarks_of;
use crate::plan::{
    Brief, Camera, Gear, GearCamera, GearLens, Id, Layout, LensSchool, Orientation, Plan, Seat, Support,
    SupportKind, Things,
};
use crate::reading::trapezium;
use crate::shot::framing::{self, Wanted};

pub use angle::{AngleKind, with_angle};
use furnish::Furnished;
pub use furnish::replaced;
pub use ground::{Depth, Gained, Ground, ground};
pub use hang::with_treatment;
pub use lamp::{LampJob, with_light};
pub use obstacle::Obstacle;
use seats::{Facing, Place};
pub use variant::{Variant, varied};
pub use why::{Placed, why};

/// Proposals given at most.
const PROPOSALS: usize = 3;
/// Focal lengths tried over a zoom's range.
const FOCAL_STEPS: usize = 6;
/// Candidates with a camera that are lit and judged, for each facing.
const KEPT_A_FACING: usize = 5;
/// Candidates of one facing whose seat and camera are legal that are given up on before the next facing.
const FAILED_A_FACING: usize = 6;

/// Steps of the refinement, m along and across, and parts of the focal length.
const REFINING_M: [f64; 2] = [0.10, 0.05];
/// Candidates that do not fit are kept up to this many, to explain a failure by.
const SHOTS_MOST: usize = 4000;
/// A seat that gives way gives this much more than it must, so that rounding keeps it, m.
const SLIDE_SLACK_M: f64 = 0.002;

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

/// Looks for the best legal layouts of a brief.
pub fn propose(name: &str, brief: &Brief) -> Proposals {
    let obstacles = obstacle::missing_gear(brief);
    if !obstacles.is_empty() {
        return Proposals { proposals: Vec::new(), missing: Vec::new(), obstacles };
    }
    let optics = Optics::all(brief);
    let Searched { mut judged, failed } = search(brief, &optics, &seats::facings(brief), KEPT_A_FACING);
    if judged.is_empty() {
        let obstacles = obstacle::explain(brief, &failed);
        return Proposals { proposals: Vec::new(), missing: Vec::new(), obstacles };
    }
    refine(brief, &optics, &mut judged[0]);
    let (others, missing) = ways::others(brief, &judged);
    let best = &judged[0];
    let mut proposals = vec![Proposal {
        differs: Differs::Best,
        title: format!("Facing {}", best.facing()),
        reason: why::best(brief, &judged),
        score: best.quick.score,
        ready: best.is_ready(),
        plan: Plan::new(name, brief.clone(), best.layout.clone()),
    }];
    proposals.extend(others.into_iter().map(|way| Proposal {
        differs: way.differs,
        title: way.title(best),
        reason: way.reason(best),
        score: way.judged.quick.score,
        ready: way.judged.is_ready(),
        plan: Plan::new(name, way.brief, way.judged.layout),
    }));
    Proposals { proposals, missing, obstacles: Vec::new() }
}

fn judge(brief: &Brief, shot: Shot) -> Result<Judged, furnish::Failed> {
    let Furnished { layout, quick, free_floor_m2 } = furnish::furnish(brief, &shot)?;
    Ok(Judged { shot, layout, quick, free_floor_m2 })
}

/// Small steps from the best candidate of the grid, as long as one of them is better: the seat along and across
/// the facing, the focal length. The best of each round is taken.
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
}

/// A camera that frames a person somewhere in the room, before anything else is placed.
#[derive(Debug, Clone)]
pub(crate) struct Shot {
    pub(crate) facing: Facing,
    pub(crate) place: Place,
    pub(crate) camera: Camera,
    /// Score of picture and background alone, to try the promising first.
    pub(crate) promise: f64,
    /// How far the lens goes beside the line from the eyes where they leave it, m.
    pub(crate) aside_m: f64,
    /// How far the camera is beyond where it may be, m; at most 0 when it fits.
    pub(crate) lacking_m: f64,
}

/// A camera with a lens, and what it is to frame.
struct Optics<'a> {
    body_id: &'a Id,
    body: &'a GearCamera,
    lens_id: &'a Id,
    lens: &'a GearLens,
    want: Wanted,
    image_height_mm: f64,
    image_ratio: f64,
    eye_m: f64,
}

impl<'a> Optics<'a> {
    /// Every camera at hand with every lens at hand.
    fn all(brief: &'a Brief) -> Vec<Self> {
        let marks = landmarks_of(brief);
        let at_hand = || brief.gear.iter().filter(|(_, g)| g.at_hand());
        let mut all = Vec::new();
        for (body_id, body) in at_hand().filter_map(|(id, g)| Some((id, g.camera()?))) {
            for (lens_id, lens) in at_hand()
                .filter_map(|(id, g)| Some((id, g.lens()?)))
                .filter(|(_, lens)| brief.mounts(body_id, lens))
            {
                let (long, short) = body.active_area_mm();
                let upright =
                    framing::wanted(brief, &marks, long / short).orientation == Orientation::Portrait;
                let (width, height) = if upright { (short, long) } else { (long, short) };
                let want = framing::wanted(brief, &marks, width / height);
                all.push(Self {
                    body_id,
                    body,
                    lens_id,
                    lens,
                    want,
                    image_height_mm: height,
                    image_ratio: width / height,
                    eye_m: marks.eye_m,
                });
            }
        }
        all
    }

    /// The shot of a person at a place by this camera at a focal length.
    fn shot(&self, brief: &Brief, facing: &Facing, place: Place, focal_length_mm: f64) -> Shot {
        let eyes = place.seat_m.extend(self.eye_m);
        let pose =
            framing::pose(brief, &self.want, focal_length_mm, self.image_height_mm, eyes, facing.bearing_deg);
        let (lacking_m, _) =
            crate::shot::fit::lacks_m(&brief.room, &pose, focal_length_mm, self.lens.nearest_focus_m);
        let camera = self.camera(brief, &pose, focal_length_mm);
        let promise = promise(brief, &camera, &place, eyes, &pose) - lacking_m.max(0.0) * 10.0;
        let aside_m = self.want.aside_m(brief, self.want.gaze_deg, self.image_ratio).abs();
        Shot { facing: facing.clone(), place, camera, promise, aside_m, lacking_m }
    }

    fn camera(&self, brief: &Brief, pose: &framing::Pose, focal_length_mm: f64) -> Camera {
        let mains = crate::room::mains(brief).frequency_hz.0;
        let frame_rate_hz = crate::shot::frame_rate_hz(brief, mains);
        let mut camera = Camera {
            body: self.body_id.clone(),
            lens: self.lens_id.clone(),
            position_m: crate::plan::Point3([0.0; 3]),
            bearing_deg: 0.0,
            tilt_deg: 0.0,
            orientation: self.want.orientation,
            focal_length_mm,
            f_number: crate::shot::f_number(brief, self.body, self.lens, focal_length_mm),
            shutter_s: crate::exposure::shutter_s(mains, frame_rate_hz),
            iso: self.body.iso_min,
            nd_stops: 0.0,
            frame_rate_hz,
            white_balance_k: 5600.0,
            focus_distance_m: 1.0,
            support: Support {
                kind: SupportKind::Floor,
                gear: None,
                base_m: None,
                on: None,
                foot_radius_m: None,
                sandbag_kg: 0.0,
            },
            locked: false,
        };
        set_pose(&mut camera, pose, focal_length_mm);
        camera
    }
}

/// Every seat and focal length for one facing. A camera that lacks less than a step of the grid gets that much
/// from the seat, where there is room behind it.
fn shots(brief: &Brief, optics: &[Optics<'_>], facing: &Facing) -> Vec<Shot> {
    let places = seats::places(brief, facing);
    let mut all = Vec::new();
    for optics in optics {
        for focal in focal_lengths(optics.lens.focal_min_mm, optics.lens.focal_max_mm) {
            for place in &places {
                let mut shot = optics.shot(brief, facing, place.clone(), focal);
                if shot.lacking_m > 0.0
                    && shot.lacking_m < seats::GRID_M
                    && let Some(back) =
                        seats::shifted(brief, facing, place, -shot.lacking_m - SLIDE_SLACK_M, 0.0)
                {
                    shot = optics.shot(brief, facing, back, focal);
                }
                if shot.lacking_m <= 0.0 || all.len() < SHOTS_MOST {
                    all.push(shot);
                }
            }
        }
    }
    all
}

fn focal_lengths(low: f64, high: f64) -> Vec<f64> {
    if high / low < 1.02 {
        return vec![low];
    }
    let steps = FOCAL_STEPS - 1;
    (0..=steps)
        .map(|i| (low * (high / low).powf(i as f64 / steps as f64) * 10.0).round() / 10.0)
        .map(|f| f.clamp(low, high))
        .collect()
}

/// Picture and room scores by the same bands as the assessment, without building a corner.
fn promise(brief: &Brief, camera: &Camera, place: &Place, eyes: DVec3, pose: &framing::Pose) -> f64 {
    let score = |id: &str, value: f64| {
        crate::assess::bands::band_of(id, brief, false).0.map_or(1.0, |band| trapezium(value, band))
    };
    let away = -bearing_vector(pose.bearing_deg + 180.0).truncate();
    let behind = crate::corner::behind_m(&brief.room, &brief.room.outline(), eyes, away);
    let width = camera.f_number;
    let blur = brief
        .gear
        .get(&camera.body)
        .and_then(Gear::camera)
        .map(|body| {
            let disc = crate::shot::lens::blur_disc_mm(
                camera.focal_length_mm,
                width,
                pose.subject_distance_m,
                pose.subject_distance_m + behind.max(0.01),
            );
            100.0 * disc / body.active_area_mm().0
        })
        .unwrap_or(0.0);
    // Room to work in around the person: half the distance to the nearest wall counts a little.
    let side = place.side_room_m.min(1.2) / 1.2;
    let lens = if brief.schools.lens == LensSchool::FarAndLong {
        score("shot.background.blur_percent", blur)
    } else {
        1.0
    };
    score("shot.camera.distance_m", pose.subject_distance_m) * 0.10
        + lens * 0.05
        + score("room.background_behind_m", behind) * 0.14
        + side * 0.10
        + behind.min(3.0) * 0.01
}

/// The layout with a seat and a camera only.
pub(crate) fn bare_layout(shot: &Shot, gaze_deg: f64) -> Layout {
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
