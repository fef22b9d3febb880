//! Whether a camera fits where a shot wants it: walls and slopes with room behind the sensor, floor, ceiling, nearest
//! focus. Lights and stands are the legal rules' matter.

use super::framing::Pose;
use crate::corner::image_distance_mm;
use crate::geometry::{DVec3, bearing_vector, beyond_m, distance_to_edge, inside};
use crate::plan::Room;

/// Least height of a lens and least air above it, m. Fogon's own rule.
const LOWEST_M: f64 = 0.2;
const ABOVE_M: f64 = 0.1;

/// What keeps a camera from where it is wanted.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
#[allow(missing_docs)]
pub enum Stop {
    Wall,
    Overhead,
    Floor,
    NearestFocus,
}

/// How far a camera is beyond where it may be, m, and what stops it; at most 0 when it fits.
pub fn lacks_m(
    room: &Room,
    pose: &Pose,
    focal_length_mm: f64,
    nearest_focus_m: f64,
    behind_sensor_m: f64,
) -> (f64, Stop) {
    let floor = room.outline();
    let (sin, cos) = pose.tilt_deg.to_radians().sin_cos();
    let forward = bearing_vector(pose.bearing_deg) * cos + DVec3::Z * sin;
    let image =
        image_distance_mm(focal_length_mm, pose.subject_distance_m).unwrap_or(focal_length_mm) / 1000.0;
    let behind = pose.position_m - forward * (image + behind_sensor_m);
    let over = behind.z - room.ceiling_m(behind.truncate());
    let behind = behind.truncate();
    // Out of the room, or behind a wall that stands between.
    let eyes = (pose.position_m + forward * pose.subject_distance_m).truncate();
    let line = behind - eyes;
    let cut_off = line.length() - distance_to_edge(&floor, eyes, line.normalize_or_zero());
    let beyond =
        beyond_m(&floor, behind).max(if inside(&floor, eyes, 0.0) { cut_off } else { f64::NEG_INFINITY });
    let ceiling = room.ceiling_m(pose.position_m.truncate());
    [
        (beyond, Stop::Wall),
        (over.max(pose.position_m.z + ABOVE_M - ceiling), Stop::Overhead),
        (LOWEST_M - pose.position_m.z, Stop::Floor),
        (nearest_focus_m - (pose.subject_distance_m + image), Stop::NearestFocus),
    ]
    .into_iter()
    .max_by(|a, b| a.0.total_cmp(&b.0))
    .unwrap_or((0.0, Stop::Wall))
}
