//! A still taken at the seat, held against the plan: where the face is, where the camera really is, how bright face and background
//! are, what is white. The person sets the marks; nothing is looked for in the picture.
//!
//! A still of a camera has a tone curve that nobody tells. Near middle grey all are alike, so that a grey card is exact to a third of a
//! stop and skin to half of one; both are said.

mod marks;
mod pose;
mod seen;
mod told;
mod tones;

use serde::Serialize;
use thiserror::Error;
use utoipa::ToSchema;

use super::before::{Figure, Figures};
use super::measure::MeasureTold;
use super::promise::Promise;
use crate::corner::Corner;

pub use marks::{Marks, Place};
pub use pose::{Pose, Solved};
pub use seen::StillSeen;
pub use tones::{Pixels, Tones, White};

/// So much may the still's sides differ from the plan's picture, in parts.
const SHAPE: f64 = 0.02;

/// Why a still cannot be held against the plan.
#[derive(Debug, Clone, Copy, PartialEq, Error)]
pub enum Unlike {
    /// Its sides are in another ratio than the plan's picture.
    #[error(
        "the still is {found:.2} times as wide as high, the plan's picture {wanted:.2}: take it out of a recording, held as planned"
    )]
    Shape {
        /// As found.
        found: f64,
        /// As planned.
        wanted: f64,
    },
    /// The marks lie on each other.
    #[error("crown, eyes and chin must be marked one under the other")]
    Marks,
}

/// A still held against the plan.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct StillMeasures {
    /// What is seen in it.
    #[serde(flatten)]
    pub seen: StillSeen,
    /// Each in words, with what to move and by how much.
    pub told: Vec<MeasureTold>,
    /// What is kept of it.
    #[schema(value_type = std::collections::BTreeMap<String, f64>)]
    pub figures: Figures,
}

/// Holds a still against a corner.
///
/// # Errors
/// See [`Unlike`].
pub fn measure(corner: &Corner<'_>, pixels: &Pixels<'_>, marks: &Marks) -> Result<StillMeasures, Unlike> {
    let found = pixels.width as f64 / pixels.height.max(1) as f64;
    let wanted = corner.view.width_ratio / corner.view.height_ratio;
    if (found / wanted - 1.0).abs() > SHAPE {
        return Err(Unlike::Shape { found, wanted });
    }
    let in_order = marks.crown[1] < marks.eyes[1] && marks.eyes[1] < marks.chin[1];
    if !in_order {
        return Err(Unlike::Marks);
    }
    // What is recorded is cut in the edit: the still has all of it.
    let crop = corner.layout.camera.crop;
    let cut = |[x, y]: Place| [0.5 + (x - 0.5) * crop, 0.5 + (y - 0.5) * crop];
    let pose = pose::solve(corner, marks, &cut, pixels.width as f64 * 1.0 / crop);
    let places = crate::corner::face_marks(corner);
    let planned = |point| corner.view.project(point).unwrap_or((0.5, 0.5));
    let promise = Promise::of(corner);
    let tones = tones::measure(corner, pixels, marks, &promise);
    let (crown, eyes) = (cut(marks.crown), cut(marks.eyes));
    let seen = StillSeen {
        headroom_fraction: crown[1],
        planned_headroom_fraction: planned(places.crown_m).1,
        eye_line_fraction: eyes[1],
        planned_eye_line_fraction: planned(places.eyes_m).1,
        face_fraction: eyes[0],
        planned_face_fraction: planned(places.eyes_m).0,
        pose,
        tones,
    };
    Ok(StillMeasures { told: told::told(corner, &seen, &promise), figures: figures(&seen), seen })
}

fn figures(still: &StillSeen) -> Figures {
    let tones = &still.tones;
    [
        (Figure::SkinStops, tones.face_stops()),
        (Figure::BackgroundStops, tones.background_stops),
        (Figure::WhiteBalanceK, tones.white.as_ref().map(|white| white.wanted_k)),
        (Figure::CameraHeightM, Some(still.pose.higher.by)),
        (Figure::CameraDistanceM, Some(still.pose.distance_m)),
        (Figure::CameraTiltDeg, Some(still.pose.turned_up.by)),
        (Figure::HeadroomFraction, Some(still.headroom_fraction)),
    ]
    .into_iter()
    .filter_map(|(figure, value)| Some((figure, value?)))
    .collect()
}
