//! Shots: a camera with a lens at hand that frames the person from a seat, before anything else is placed.

use super::seats::{self, Facing, SeatPlace};
use crate::assess::bands::{Row, band_of};
use crate::edit::set_pose;
use crate::geometry::{DVec3, bearing_vector};
use crate::person::landmarks_of;
use crate::plan::{
    Brief, Camera, Gear, GearCamera, GearLens, Id, LensSchool, Orientation, Support, SupportKind,
};
use crate::reading::{Quantity, trapezium};
use crate::shot::framing::{self, Wanted};

/// Focal lengths tried over a zoom's range.
const FOCAL_STEPS: usize = 6;
/// Candidates that do not fit are kept up to this many, to explain a failure by.
const SHOTS_MOST: usize = 4000;
/// A seat that gives way gives this much more than it must, so that rounding keeps it, m.
const SLIDE_SLACK_M: f64 = 0.002;

/// A camera that frames a person somewhere in the room, before anything else is placed.
#[derive(Debug, Clone)]
pub(super) struct Shot {
    pub(super) facing: Facing,
    pub(super) place: SeatPlace,
    pub(super) camera: Camera,
    /// The lamp that is to be the key; the first that the school wants where it is none.
    pub(super) key: Option<Id>,
    /// Score of picture and background alone, to try the promising first.
    pub(super) promise: f64,
    /// How far the lens goes beside the line from the eyes where they leave it, m.
    pub(super) aside_m: f64,
    /// How far the camera is beyond where it may be, m; at most 0 when it fits.
    pub(super) lacking_m: f64,
}

/// A camera with a lens, and what it is to frame.
pub(super) struct Optics<'a> {
    pub(super) body_id: &'a Id,
    body: &'a GearCamera,
    pub(super) lens_id: &'a Id,
    pub(super) lens: &'a GearLens,
    want: Wanted,
    image_height_mm: f64,
    image_ratio: f64,
    eye_m: f64,
}

impl<'a> Optics<'a> {
    /// Every camera at hand with every lens at hand.
    pub(super) fn all(brief: &'a Brief) -> Vec<Self> {
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
    pub(super) fn shot(
        &self,
        brief: &Brief,
        facing: &Facing,
        place: SeatPlace,
        focal_length_mm: f64,
    ) -> Shot {
        let eyes = place.seat_m.extend(self.eye_m);
        let pose =
            framing::pose(brief, &self.want, focal_length_mm, self.image_height_mm, eyes, facing.bearing_deg);
        let (lacking_m, _) =
            crate::shot::fit::lacks_m(&brief.room, &pose, focal_length_mm, self.lens.nearest_focus_m);
        let camera = self.camera(brief, &pose, focal_length_mm);
        let promise = promise(brief, &camera, &place, eyes, &pose) - lacking_m.max(0.0) * 10.0;
        let aside_m = self.want.aside_m(brief, self.want.gaze_deg, self.image_ratio).abs();
        Shot { facing: facing.clone(), place, camera, key: None, promise, aside_m, lacking_m }
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
            support: Support::new(SupportKind::Floor),
            locked: false,
        };
        set_pose(&mut camera, pose, focal_length_mm);
        camera
    }
}

/// Every seat and focal length for one facing. A camera that lacks less than a step of the grid gets that much
/// from the seat, where there is room behind it.
pub(super) fn shots(brief: &Brief, optics: &[Optics<'_>], facing: &Facing) -> Vec<Shot> {
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
fn promise(brief: &Brief, camera: &Camera, place: &SeatPlace, eyes: DVec3, pose: &framing::Pose) -> f64 {
    let row = Row::before_layout(brief);
    let score =
        |quantity: Quantity, value: f64| band_of(quantity, &row).0.map_or(1.0, |band| trapezium(value, band));
    let away = -bearing_vector(pose.bearing_deg + 180.0).truncate();
    let behind = crate::corner::behind_m(&brief.room, &brief.room.outline(), eyes, away);
    let blur = brief
        .gear
        .get(&camera.body)
        .and_then(Gear::camera)
        .map(|body| {
            let disc = crate::shot::lens::blur_disc_mm(
                camera.focal_length_mm,
                camera.f_number,
                pose.subject_distance_m,
                pose.subject_distance_m + behind.max(0.01),
            );
            100.0 * disc / body.active_area_mm().0
        })
        .unwrap_or(0.0);
    // Room to work in around the person: half the distance to the nearest wall counts a little.
    let side = place.side_room_m.min(1.2) / 1.2;
    let lens = if brief.schools.lens == LensSchool::FarAndLong {
        score(Quantity::ShotBackgroundBlurPercent, blur)
    } else {
        1.0
    };
    score(Quantity::ShotCameraDistanceM, pose.subject_distance_m) * 0.10
        + lens * 0.05
        + score(Quantity::RoomBackgroundBehindM, behind) * 0.14
        + side * 0.10
        + behind.min(3.0) * 0.01
}
