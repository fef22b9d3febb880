//! What the person marks in a still.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::problem::{Code, Problem, Problems};

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
