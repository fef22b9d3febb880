//! What is seen in a still, beside where the plan has it.

use serde::Serialize;
use utoipa::ToSchema;

use super::pose::Pose;
use super::tones::Tones;

/// What is seen in a still.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct StillSeen {
    /// Where the camera is.
    pub pose: Pose,
    /// Air over the head, parts of the picture's height, and as planned.
    pub headroom_fraction: f64,
    /// As planned.
    pub planned_headroom_fraction: f64,
    /// The eyes from the top, parts of the height, and as planned.
    pub eye_line_fraction: f64,
    /// As planned.
    pub planned_eye_line_fraction: f64,
    /// The face from the left, parts of the width, and as planned.
    pub face_fraction: f64,
    /// As planned.
    pub planned_face_fraction: f64,
    /// How bright it is.
    pub tones: Tones,
}
