//! The search: every facing, seat, lens and key side on fixed grids, then lights and microphone at their best
//! legal places. No randomness; the same brief gives the same proposals.

mod furnish;
mod obstacle;
mod seats;
mod why;

use serde::Serialize;
use utoipa::ToSchema;

use crate::assess::Quick;
use crate::assess::carry::{rounded_bearing, rounded_floor, set_pose};
use crate::geometry::{DVec3, bearing_vector};
use crate::person::landmarks_of;
use crate::plan::{
    Brief, Camera, Gear, Id, Layout, LensSchool, Orientation, Plan, Seat, Support, SupportKind, Things,
};
use crate::reading::trapezium;
use crate::shot::framing::{self, Wanted};

use furnish::Furnished;
pub use furnish::replaced;
pub use obstacle::Obstacle;
use seats::{Facing, Place};
pub use why::{Placed, why};

/// Proposals given at most.
const PROPOSALS: usize = 3;
/// Focal lengths tried over a zoom's range.
const FOCAL_STEPS: usize = 6;
/// Candidates with a camera that are lit and judged, for each facing.
const KEPT_A_FACING: usize = 5;
/// Candidates of one facing whose seat and camera are legal that are given up on before the next facing.
const FAILED_A_FACING: usize = 6;

/// One legal arrangement.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Proposal {
    /// Why this one, in one sentence.
    pub reason: String,
    /// 0 to 1.
    pub score: f64,
    /// Whether a recording could start.
    pub ready: bool,
    /// The plan.
    pub plan: Plan,
}

/// What a search found.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Proposals {
    /// Legal layouts, best first; each differs in facing or lens from those before.
    pub proposals: Vec<Proposal>,
    /// If there are none: each rule that forbids the best candidate, by how much, and what would free it.
    pub obstacles: Vec<Obstacle>,
}

/// A candidate that has been judged.
struct Judged {
    facing: Facing,
    focal_length_mm: f64,
    layout: Layout,
    quick: Quick,
    free_floor_m2: f64,
}

/// Looks for the best legal layouts of a brief.
pub fn propose(name: &str, brief: &Brief) -> Proposals {
    let missing = obstacle::missing_gear(brief);
    if !missing.is_empty() {
        return Proposals { proposals: Vec::new(), obstacles: missing };
    }
    let mut judged: Vec<Judged> = Vec::new();
    let mut failed: Vec<furnish::Failed> = Vec::new();
    for facing in seats::facings(brief) {
        let mut shots = shots(brief, &facing);
        shots.sort_by(|a, b| b.promise.total_cmp(&a.promise));
        let (mut kept, mut lost) = (0, 0);
        for shot in shots {
            if kept >= KEPT_A_FACING || lost >= FAILED_A_FACING {
                break;
            }
            match furnish::furnish(brief, &shot) {
                Ok(Furnished { layout, quick, free_floor_m2 }) => {
                    kept += 1;
                    judged.push(Judged {
                        facing: facing.clone(),
                        focal_length_mm: layout.camera.focal_length_mm,
                        layout,
                        quick,
                        free_floor_m2,
                    });
                }
                Err(reason) => {
                    lost += usize::from(!reason.bare);
                    failed.push(reason);
                }
            }
        }
    }
    // Stable: equal candidates stay in grid order.
    judged.sort_by(|a, b| {
        (a.quick.stops, a.quick.fixes)
            .cmp(&(b.quick.stops, b.quick.fixes))
            .then((b.quick.score * 1e6).round().total_cmp(&(a.quick.score * 1e6).round()))
            .then(b.free_floor_m2.total_cmp(&a.free_floor_m2))
    });
    if judged.is_empty() {
        return Proposals { proposals: Vec::new(), obstacles: obstacle::explain(brief, &failed) };
    }
    let mut chosen: Vec<&Judged> = Vec::new();
    for candidate in &judged {
        let differs = chosen.iter().all(|c| {
            c.facing.name != candidate.facing.name
                || (c.focal_length_mm / candidate.focal_length_mm).log2().abs() > 0.4
        });
        if differs {
            chosen.push(candidate);
        }
        if chosen.len() == PROPOSALS {
            break;
        }
    }
    let facings_tried =
        judged.iter().map(|j| &j.facing.name).collect::<std::collections::BTreeSet<_>>().len();
    let best = chosen.first().map(|c| c.quick.score).unwrap_or(0.0);
    let proposals = chosen
        .iter()
        .enumerate()
        .map(|(rank, c)| Proposal {
            reason: reason(brief, c, rank, best, facings_tried),
            score: c.quick.score,
            ready: c.quick.stops == 0 && c.quick.fixes == 0,
            plan: Plan::new(name, brief.clone(), c.layout.clone()),
        })
        .collect();
    Proposals { proposals, obstacles: Vec::new() }
}

fn reason(brief: &Brief, candidate: &Judged, rank: usize, best: f64, facings: usize) -> String {
    let plan = Plan::new("-", brief.clone(), candidate.layout.clone());
    let value = |id: &str| {
        crate::corner::Corner::of(&plan)
            .map(|corner| crate::assess::readings(&corner))
            .and_then(|all| all.into_iter().find(|r| r.id == id).and_then(|r| r.value))
            .unwrap_or(0.0)
    };
    let units = brief.units;
    let behind = units.length(value("room.background_behind_m"));
    let lens = units.length(value("shot.camera.distance_m"));
    let focal = candidate.focal_length_mm.round();
    let facing = &candidate.facing.name;
    if rank == 0 {
        let among = if facings > 1 {
            format!("best of the {facings} facings that fit")
        } else {
            "the only facing that fits".into()
        };
        format!(
            "You face the {facing}: {among}, with {behind} to the wall behind you and the lens {lens} away at {focal} mm."
        )
    } else {
        let points = (100.0 * (best - candidate.quick.score)).max(0.0).round();
        let rank = if points < 1.0 {
            "as good as the best within a point".to_owned()
        } else {
            format!("{points:.0} points of 100 behind the best")
        };
        format!(
            "You face the {facing} instead, {behind} to the wall behind you, the lens {lens} away at {focal} mm; {rank}."
        )
    }
}

/// A camera that frames a person somewhere in the room, before anything else is placed.
#[derive(Debug, Clone)]
pub(crate) struct Shot {
    pub(crate) place: Place,
    pub(crate) camera: Camera,
    pub(crate) facing_name: String,
    /// Score of picture and background alone, to try the promising first.
    pub(crate) promise: f64,
    /// How far the camera is beyond where it may be, m; at most 0 when it fits.
    pub(crate) lacking_m: f64,
}

/// Every seat and focal length for one facing whose camera stands in the room.
fn shots(brief: &Brief, facing: &Facing) -> Vec<Shot> {
    let marks = landmarks_of(brief);
    let mut all = Vec::new();
    for (camera_id, camera) in brief.gear.iter().filter(|(_, g)| g.at_hand()) {
        let Gear::Camera(body) = camera else { continue };
        for (lens_id, gear) in brief.gear.iter().filter(|(_, g)| g.at_hand()) {
            let Gear::Lens(lens) = gear else { continue };
            let (long, short) = body.active_area_mm();
            let portrait = framing::wanted(brief, &marks, long / short).orientation == Orientation::Portrait;
            let image = if portrait { (short, long) } else { (long, short) };
            let want = framing::wanted(brief, &marks, image.0 / image.1);
            for focal in focal_lengths(lens.focal_min_mm, lens.focal_max_mm) {
                for place in seats::places(brief, facing) {
                    let eyes = place.seat_m.extend(marks.eye_m);
                    let pose = framing::pose(brief, &want, focal, image.1, eyes, facing.bearing_deg);
                    let lacking = seats::camera_lacks_m(brief, &pose, focal);
                    if lacking > 0.0 && all.len() > 4000 {
                        continue;
                    }
                    let camera = new_camera(brief, camera_id, lens_id, body, lens, &want, &pose, focal);
                    let promise = promise(brief, &camera, &place, eyes, &pose);
                    all.push(Shot {
                        place,
                        camera,
                        facing_name: facing.name.clone(),
                        promise: promise - lacking.max(0.0) * 10.0,
                        lacking_m: lacking,
                    });
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

#[allow(clippy::too_many_arguments)]
fn new_camera(
    brief: &Brief,
    body_id: &Id,
    lens_id: &Id,
    body: &crate::plan::GearCamera,
    lens: &crate::plan::GearLens,
    want: &Wanted,
    pose: &framing::Pose,
    focal: f64,
) -> Camera {
    let mains = crate::room::mains(brief).frequency_hz.0;
    let frame_rate_hz = crate::shot::frame_rate_hz(brief, mains);
    let mut camera = Camera {
        body: body_id.clone(),
        lens: lens_id.clone(),
        position_m: crate::plan::Point3([0.0; 3]),
        bearing_deg: 0.0,
        tilt_deg: 0.0,
        orientation: want.orientation,
        focal_length_mm: focal,
        f_number: crate::shot::f_number(brief, body, lens, focal),
        shutter_s: crate::exposure::shutter_s(mains, frame_rate_hz),
        iso: body.iso_min,
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
    };
    set_pose(&mut camera, pose, focal);
    camera
}

/// Picture and room scores by the same bands as the assessment, without building a corner.
fn promise(brief: &Brief, camera: &Camera, place: &Place, eyes: DVec3, pose: &framing::Pose) -> f64 {
    let score = |id: &str, value: f64| {
        crate::assess::bands::band_of(id, brief, false).0.map_or(1.0, |band| trapezium(value, band))
    };
    let away = -bearing_vector(pose.bearing_deg + 180.0).truncate();
    let behind = crate::geometry::distance_to_edge(&brief.room.outline(), eyes.truncate(), away);
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
    let to_lens = shot.camera.bearing_deg + 180.0;
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
        },
        camera: shot.camera.clone(),
        lights: Things::new(),
        microphone: None,
        furniture,
    }
}

/// Rounds a layout's dial settings as they are set by hand.
pub(crate) fn dial(value: f64) -> f64 {
    (value * 100.0).round().clamp(1.0, 100.0) / 100.0
}
