//! A still taken at the seat, held against the plan: where the face is, where the camera really is, how bright face and background
//! are, what is white. The person sets the marks; nothing is looked for in the picture.
//!
//! A still of a camera has a tone curve that nobody tells. Near middle grey all are alike, so that a grey card is exact to a third of a
//! stop and skin to half of one; both are said.

mod pose;
mod told;
mod tones;

use serde::{Deserialize, Serialize};
use thiserror::Error;
use utoipa::ToSchema;

use super::before::{Figure, Figures};
use super::promise::Promise;
use crate::corner::Corner;
use crate::problem::{Code, Problem, Problems};

pub use pose::{Pose, Solved};
pub use told::{PictureMeasure, PictureTold};
pub use tones::{Tones, White};

/// So much may the still's sides differ from the plan's picture, in parts.
const SHAPE: f64 = 0.02;

/// A picture of 8 bits a colour, sRGB, row by row from the top.
#[derive(Debug, Clone, Copy)]
pub struct Pixels<'a> {
    /// Pixels across.
    pub width: usize,
    /// Pixels down.
    pub height: usize,
    /// Red, green, blue of each.
    pub rgb: &'a [u8],
}

/// A place in the still: parts of its width from the left and of its height from the top.
pub type Place = [f64; 2];

/// What the person marked.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Marks {
    /// Top of the head, hair included.
    #[schema(value_type = Vec<f64>, min_items = 2, max_items = 2)]
    pub crown: Place,
    /// Tip of the chin.
    #[schema(value_type = Vec<f64>, min_items = 2, max_items = 2)]
    pub chin: Place,
    /// Between the eyes.
    #[schema(value_type = Vec<f64>, min_items = 2, max_items = 2)]
    pub eyes: Place,
    /// The end of one shoulder.
    #[schema(value_type = Vec<f64>, min_items = 2, max_items = 2)]
    pub shoulder: Place,
    /// Upright edges, a door frame or a shelf, by two points each; the second tells a camera that is not level from one that is tilted.
    #[serde(default)]
    #[schema(value_type = Vec<Vec<Vec<f64>>>, max_items = 2)]
    pub edges: Vec<[Place; 2]>,
    /// A grey card held beside the face.
    #[serde(default)]
    #[schema(value_type = Option<Vec<f64>>)]
    pub grey: Option<Place>,
    /// Something white or grey, for the white balance.
    #[serde(default)]
    #[schema(value_type = Option<Vec<f64>>)]
    pub neutral: Option<Place>,
    /// Skin (the cheek between eyes and chin on the key's side).
    #[serde(default)]
    #[schema(value_type = Option<Vec<f64>>)]
    pub skin: Option<Place>,
    /// Background beside the head.
    #[serde(default)]
    #[schema(value_type = Option<Vec<f64>>)]
    pub background: Option<Place>,
    /// Two corners of a part of the keyed screen in which nobody stands.
    #[serde(default)]
    #[schema(value_type = Option<Vec<Vec<f64>>>)]
    pub screen: Option<[Place; 2]>,
}

impl Marks {
    /// Every mark lies in the picture.
    ///
    /// # Errors
    /// The marks that do not.
    pub fn check(&self) -> Result<(), Problems> {
        let must =
            [("crown", self.crown), ("chin", self.chin), ("eyes", self.eyes), ("shoulder", self.shoulder)];
        let may = [
            ("grey", self.grey),
            ("neutral", self.neutral),
            ("skin", self.skin),
            ("background", self.background),
        ];
        let edges = self.edges.iter().flatten().map(|place| ("edges", *place));
        let screen = self.screen.iter().flatten().map(|place| ("screen", *place));
        let all = must.into_iter().chain(may.into_iter().filter_map(|(name, place)| Some((name, place?))));
        let outside = all
            .chain(edges)
            .chain(screen)
            .flat_map(|(name, place)| place.map(|part| (name, part)))
            .filter(|(_, part)| !(0.0..=1.0).contains(part))
            .map(|(name, part)| {
                Problem::new(name, part, "0 to 1, parts of width and height", Code::OutOfRange)
            });
        let found: Vec<Problem> = outside.collect();
        if found.is_empty() { Ok(()) } else { Err(Problems(found)) }
    }
}

crate::shape!(Marks => Marks::check);

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
    /// Each in words, with what to move and by how much.
    pub told: Vec<PictureTold>,
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
    let mut still = StillMeasures {
        headroom_fraction: crown[1],
        planned_headroom_fraction: planned(places.crown_m).1,
        eye_line_fraction: eyes[1],
        planned_eye_line_fraction: planned(places.eyes_m).1,
        face_fraction: eyes[0],
        planned_face_fraction: planned(places.eyes_m).0,
        pose,
        tones,
        told: Vec::new(),
        figures: Figures::new(),
    };
    still.told = told::told(corner, &still, &promise);
    still.figures = figures(&still);
    Ok(still)
}

fn figures(still: &StillMeasures) -> Figures {
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
