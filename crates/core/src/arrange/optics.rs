//! Takes: a camera with a lens at hand that frames the person, as it stands to the eyes, before anything else is placed. A shot
//! that no lens reaches is taken nearer, cut out of what is recorded, or wider or tighter.

use super::seats::{Facing, SeatPlace};
use super::stands::highest_hold_m;
use crate::corner::{behind_sensor_m, held_below_m, image_distance_mm, is_flat};
use crate::edit::set_pose;
use crate::geometry::{DVec3, bearing_vector};
use crate::person::landmarks_of;
use crate::plan::{Brief, Camera, GearCamera, GearLens, Id, Orientation, Support, SupportKind};
use crate::shot::framing::{self, Line, Pose, Wanted};
use crate::shot::lens::crop_factor;
use crate::shot::recording::{delivered_px, recorded_px};

/// Focal lengths tried over a zoom's range.
const FOCAL_STEPS: usize = 9;
/// Steps from no crop to the most that the delivered picture allows.
const CROP_STEPS: usize = 4;
/// A lens whose longest focal length is below this, on full frame, is a wide one: its picture may be cropped. Fogon's own
/// rule.
const WIDE_MM: f64 = 50.0;
/// No picture is cropped more.
const CROP_MOST: f64 = 2.0;
/// Sizes of shot that are tried where the wanted one finds no place, parts of its height: wider ones, then tighter ones.
/// Fogon's own rule.
pub(super) const OTHER_SIZES: [f64; 7] = [1.25, 1.5, 1.9, 0.85, 0.72, 0.6, 2.15];

/// A lens that a stand does not hold at its height is lowered until it looks up by so much at most, degrees, in so many steps
/// at most, to within this, m. Fogon's own rule.
const LOOKS_UP_MOST_DEG: f64 = 10.0;
const LOWERED_STEPS: usize = 8;
const WITHIN_M: f64 = 0.001;

/// How the shot is taken: with what focal length, how much of it is kept, how high the frame is against the wanted one.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct Take {
    /// Real, mm.
    pub(super) focal_length_mm: f64,
    /// Recorded over delivered width.
    pub(super) crop: f64,
    /// Height of the frame against the wanted one.
    pub(super) size: f64,
}

/// A camera that frames a person somewhere in the room, before anything else is placed.
#[derive(Debug, Clone)]
pub(super) struct Shot {
    pub(super) facing: Facing,
    pub(super) place: SeatPlace,
    pub(super) camera: Camera,
    pub(super) take: Take,
    /// How far the lens goes beside the line from the eyes where they leave it, m.
    pub(super) aside_m: f64,
    /// How far the camera is beyond where it may be, m; at most 0 when it fits.
    pub(super) lacking_m: f64,
}

/// A camera with a lens, and what it is to frame.
pub(super) struct Optics<'a> {
    pub(super) body_id: &'a Id,
    pub(super) body: &'a GearCamera,
    pub(super) lens_id: &'a Id,
    pub(super) lens: &'a GearLens,
    pub(super) want: Wanted,
    image_mm: (f64, f64),
    pub(super) eye_m: f64,
    /// No stand at hand holds the lens higher, m.
    highest_m: Option<f64>,
}

/// A take with the pose that frames the person from a seat at the origin with the lens to the front.
#[derive(Debug, Clone, Copy)]
pub(super) struct Posed {
    pub(super) take: Take,
    /// Lens from the eyes, level and upward, m.
    pub(super) ahead_m: f64,
    pub(super) rise_m: f64,
    pub(super) pose: Pose,
    /// From the lens back to the end of the room that the camera needs, level, m, and upward.
    pub(super) behind_m: f64,
    pub(super) behind_rise_m: f64,
    /// How far the eyes are nearer than the lens focuses, m.
    pub(super) too_near_m: f64,
}

impl<'a> Optics<'a> {
    /// Every camera at hand with every lens at hand.
    pub(super) fn all(brief: &'a Brief) -> Vec<Self> {
        let marks = landmarks_of(brief);
        let at_hand = || brief.gear.iter().filter(|(_, g)| g.at_hand());
        let highest_hold_m = highest_hold_m(brief);
        let mut all = Vec::new();
        for (body_id, body) in at_hand().filter_map(|(id, g)| Some((id, g.camera()?))) {
            for (lens_id, lens) in at_hand()
                .filter_map(|(id, g)| Some((id, g.lens()?)))
                .filter(|(_, lens)| brief.mounts(body_id, lens))
            {
                let (long, short) = body.active_area_mm();
                let upright =
                    framing::wanted(brief, &marks, long / short).orientation == Orientation::Portrait;
                let image_mm = if upright { (short, long) } else { (long, short) };
                let want = framing::wanted(brief, &marks, image_mm.0 / image_mm.1);
                let highest_m = highest_hold_m.map(|hold| hold + held_below_m(body, lens) - 2.0 * WITHIN_M);
                all.push(Self {
                    body_id,
                    body,
                    lens_id,
                    lens,
                    want,
                    image_mm,
                    eye_m: marks.eye_m,
                    highest_m,
                });
            }
        }
        all
    }

    /// The focal lengths of the lens, and crops of a wide one, for a size of shot.
    pub(super) fn takes(&self, brief: &Brief, size: f64) -> Vec<Take> {
        let take = |focal_length_mm: f64, crop: f64| Take { focal_length_mm, crop, size };
        let mut all: Vec<Take> = focal_lengths(self.lens).into_iter().map(|focal| take(focal, 1.0)).collect();
        let most = self.crop_most(brief);
        let longest = self.lens.focal_max_mm;
        all.extend(
            (1..=CROP_STEPS)
                .map(|step| most.powf(step as f64 / CROP_STEPS as f64))
                .filter(|crop| *crop > 1.02)
                .map(|crop| take(longest, (crop * 1000.0).round() / 1000.0)),
        );
        all
    }

    /// So much a wide lens's picture may be cropped: twice at most, and never below what is delivered.
    pub(super) fn crop_most(&self, brief: &Brief) -> f64 {
        let width = self.image_mm.0.max(self.image_mm.1);
        if self.lens.focal_max_mm * crop_factor(width) >= WIDE_MM {
            return 1.0;
        }
        (recorded_px(self.body) / delivered_px(brief)).clamp(1.0, CROP_MOST)
    }

    /// Height of the delivered image, mm.
    fn image_height_mm(&self, take: Take) -> f64 {
        self.image_mm.1 / take.crop
    }

    /// Room behind the sensor, on what needs least of it, m.
    fn behind_sensor_m(&self) -> f64 {
        let on = if is_flat(self.body, self.lens) { SupportKind::On } else { SupportKind::Floor };
        behind_sensor_m(self.body, self.lens, on)
    }

    /// A take as it stands to the eyes.
    pub(super) fn posed(&self, brief: &Brief, take: Take) -> Posed {
        let want = if take.size == 1.0 { self.want } else { self.want.scaled(take.size) };
        let eyes = DVec3::new(0.0, 0.0, self.eye_m);
        let pose = framing::pose(brief, &want, take.focal_length_mm, self.image_height_mm(take), eyes, 0.0);
        let pose = self.within_reach(&want, take, eyes, pose);
        let image = image_distance_mm(take.focal_length_mm, pose.subject_distance_m)
            .unwrap_or(take.focal_length_mm)
            / 1000.0;
        let back = image + self.behind_sensor_m();
        let (sin, cos) = pose.tilt_deg.to_radians().sin_cos();
        Posed {
            take,
            ahead_m: pose.position_m.y,
            rise_m: pose.position_m.z - self.eye_m,
            pose,
            behind_m: back * cos,
            behind_rise_m: -back * sin,
            too_near_m: self.lens.nearest_focus_m - (pose.subject_distance_m + image),
        }
    }

    /// The same frame from as high as a stand at hand holds the lens, looking up a little, where it would be higher. A stand that
    /// is too short for that leaves the pose as it is: it is told as too short.
    fn within_reach(&self, want: &Wanted, take: Take, eyes: DVec3, pose: Pose) -> Pose {
        let Some(highest) = self.highest_m else { return pose };
        let mut lower = pose;
        for _ in 0..LOWERED_STEPS {
            if lower.position_m.z <= highest {
                break;
            }
            let angle = (highest - eyes.z).atan2(lower.position_m.y);
            if angle.to_degrees() < -LOOKS_UP_MOST_DEG {
                return pose;
            }
            let (focal, image) = (take.focal_length_mm, self.image_height_mm(take));
            lower = framing::pose_on(Line::Elevation(angle), want, focal, image, eyes, 0.0);
        }
        if lower.position_m.z <= highest + WITHIN_M { lower } else { pose }
    }

    /// The shot of a person at a place in one take.
    pub(super) fn shot(&self, brief: &Brief, facing: &Facing, place: SeatPlace, take: Take) -> Shot {
        let posed = self.posed(brief, take);
        self.shot_of(brief, facing, place, &posed)
    }

    /// The shot of a person at a place in a take that is posed.
    pub(super) fn shot_of(&self, brief: &Brief, facing: &Facing, place: SeatPlace, posed: &Posed) -> Shot {
        let eyes = place.seat_m.extend(self.eye_m);
        let to_lens = bearing_vector(facing.bearing_deg);
        let pose = Pose {
            position_m: eyes + to_lens * posed.ahead_m + DVec3::Z * posed.rise_m,
            bearing_deg: crate::geometry::wrap_360(facing.bearing_deg + 180.0),
            ..posed.pose
        };
        let take = posed.take;
        let behind = self.behind_sensor_m();
        let nearest = self.lens.nearest_focus_m;
        let (lacking_m, _) =
            crate::shot::fit::lacks_m(&brief.room, &pose, take.focal_length_mm, nearest, behind);
        let camera = self.camera(brief, &pose, take);
        let want = self.want;
        let ratio = self.image_mm.0 / self.image_mm.1;
        let aside_m = want.aside_m(brief, want.gaze_deg, ratio).abs();
        Shot { facing: facing.clone(), place, camera, take, aside_m, lacking_m }
    }

    fn camera(&self, brief: &Brief, pose: &Pose, take: Take) -> Camera {
        let mains = crate::room::mains(brief).frequency_hz.0;
        let frame_rate_hz = crate::shot::frame_rate_hz(brief, mains);
        let mut camera = Camera {
            body: self.body_id.clone(),
            lens: self.lens_id.clone(),
            position_m: crate::plan::Point3([0.0; 3]),
            bearing_deg: 0.0,
            tilt_deg: 0.0,
            orientation: self.want.orientation,
            focal_length_mm: take.focal_length_mm,
            crop: take.crop,
            f_number: crate::shot::f_number(brief, self.body, self.lens, take.focal_length_mm),
            shutter_s: crate::exposure::shutter_s(mains, frame_rate_hz),
            iso: self.body.iso_min,
            nd_stops: 0.0,
            frame_rate_hz,
            white_balance_k: 5600.0,
            focus_distance_m: 1.0,
            support: Support::new(SupportKind::Floor),
            locked: false,
        };
        set_pose(&mut camera, pose, take.focal_length_mm);
        camera
    }
}

/// Focal lengths of a lens, to a tenth of a millimetre.
fn focal_lengths(lens: &GearLens) -> Vec<f64> {
    let (low, high) = (lens.focal_min_mm, lens.focal_max_mm);
    if high / low < 1.02 {
        return vec![low];
    }
    let steps = FOCAL_STEPS - 1;
    (0..=steps)
        .map(|i| (low * (high / low).powf(i as f64 / steps as f64) * 10.0).round() / 10.0)
        .map(|f| f.clamp(low, high))
        .collect()
}
