//! What a purpose wants framed, and where the camera must be for it. Solved on the one projection, so that
//! what is solved is what is drawn.

use crate::geometry::{DVec3, bearing_of, bearing_vector, wrap_360};
use crate::person::Landmarks;
use crate::plan::{Brief, CameraHeight, Orientation, Placement, Purpose};
use crate::shot::lens::distance_for_frame_m;

/// Shoulders may take this part of a portrait frame's width (Fogon's own rule).
pub const SHOULDER_PART: f64 = 0.9;
/// Headroom of wider shots, where thirds would leave too much (common practice, no source).
const HEADROOM_MEDIUM: f64 = 0.10;
/// Thirds are kept while they leave no more headroom than this (Fogon's own rule).
const HEADROOM_MOST: f64 = 0.15;
/// How far the lens goes below the eyes in the school slightly-below, degrees.
const BELOW_DEG: f64 = 6.0;
/// Where the eyes look in an audition tape, degrees beside the lens (5-12 common practice).
const AUDITION_GAZE_DEG: f64 = 8.0;

/// What is to be framed.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Wanted {
    /// Height of the frame at the eyes, m.
    pub frame_height_m: f64,
    /// Eye line as a fraction from the top.
    pub eye_line: f64,
    /// How the camera is turned.
    pub orientation: Orientation,
    /// Gaze beside the lens, degrees, positive to camera right.
    pub gaze_deg: f64,
    /// The optical axis must be level.
    pub level_axis: bool,
}

/// The frame that a brief's purpose and placement school ask for; `image_ratio` is width over height.
pub fn wanted(brief: &Brief, marks: &Landmarks, image_ratio: f64) -> Wanted {
    let (bottom_m, orientation) = match brief.purpose {
        Purpose::TalkToLens | Purpose::AuditionTape => (marks.chest_m, Orientation::Landscape),
        Purpose::VerticalShort => (marks.waist_m, Orientation::Portrait),
    };
    let (mut height, mut eye_line) = match brief.schools.placement {
        Placement::Centred => ((marks.eye_m - bottom_m) * 2.0, 0.5),
        Placement::Thirds => {
            let height = (marks.eye_m - bottom_m) * 1.5;
            let headroom = (bottom_m + height - marks.crown_m) / height;
            if headroom <= HEADROOM_MOST {
                (height, 1.0 / 3.0)
            } else {
                let height = (marks.crown_m - bottom_m) / (1.0 - HEADROOM_MEDIUM);
                (height, HEADROOM_MEDIUM + (marks.crown_m - marks.eye_m) / height)
            }
        }
    };
    if brief.purpose == Purpose::VerticalShort {
        let least = brief.person.shoulder_breadth_m() / SHOULDER_PART / image_ratio;
        if height < least {
            if brief.schools.placement == Placement::Thirds {
                eye_line = HEADROOM_MEDIUM + (marks.crown_m - marks.eye_m) / least;
            }
            height = least;
        }
    }
    Wanted {
        frame_height_m: height,
        eye_line,
        orientation,
        gaze_deg: if brief.purpose == Purpose::AuditionTape { AUDITION_GAZE_DEG } else { 0.0 },
        level_axis: brief.purpose == Purpose::AuditionTape,
    }
}

/// A camera's place and direction.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Pose {
    /// Camera point, m.
    pub position_m: DVec3,
    /// Bearing of the axis, degrees.
    pub bearing_deg: f64,
    /// Tilt, degrees, positive up.
    pub tilt_deg: f64,
    /// Depth of the eyes along the axis, m; also the focus distance.
    pub subject_distance_m: f64,
}

/// Where a lens of `focal_length_mm` on an image of `image_height_mm` must be to frame what is wanted, when the
/// person at `eyes_m` has the lens at bearing `to_lens_deg`.
pub fn pose(
    brief: &Brief,
    wanted: &Wanted,
    focal_length_mm: f64,
    image_height_mm: f64,
    eyes_m: DVec3,
    to_lens_deg: f64,
) -> Pose {
    let u = distance_for_frame_m(image_height_mm, focal_length_mm, wanted.frame_height_m);
    let rise = (0.5 - wanted.eye_line) * wanted.frame_height_m;
    let eye_angle = (rise / u).atan();
    let tilt = if wanted.level_axis {
        0.0
    } else {
        match brief.schools.camera_height {
            CameraHeight::Level => -eye_angle,
            CameraHeight::SlightlyBelow => BELOW_DEG.to_radians() - eye_angle,
        }
    };
    let (sin, cos) = tilt.sin_cos();
    let (flat, up) = (u * cos - rise * sin, u * sin + rise * cos);
    let to_lens = bearing_vector(to_lens_deg);
    Pose {
        position_m: eyes_m + to_lens * flat - DVec3::Z * up,
        bearing_deg: wrap_360(bearing_of(-to_lens)),
        tilt_deg: tilt.to_degrees(),
        subject_distance_m: u,
    }
}
