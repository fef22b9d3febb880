//! Furniture.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::plan::Point3;

/// A piece of furniture.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Furniture {
    /// What it is.
    pub kind: FurnitureKind,
    /// Middle of its footprint and the height of its foot, m.
    pub position_m: Point3,
    /// Bearing its front faces, degrees.
    #[serde(default)]
    #[schema(minimum = 0.0, exclusive_maximum = 360.0)]
    pub bearing_deg: f64,
    /// Width, depth, height, m.
    pub size_m: Size3,
    /// Whether it must stay where it is (default: it may be moved).
    #[serde(default)]
    pub fixed: bool,
}

/// Width, depth and height, m.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
pub struct Size3(pub [f64; 3]);

impl utoipa::PartialSchema for Size3 {
    fn schema() -> utoipa::openapi::RefOr<utoipa::openapi::Schema> {
        use utoipa::openapi::schema::{ArrayBuilder, ObjectBuilder, Type};
        let side = ObjectBuilder::new().schema_type(Type::Number).minimum(Some(0.02)).maximum(Some(10.0));
        ArrayBuilder::new().items(side).min_items(Some(3)).max_items(Some(3)).into()
    }
}

impl ToSchema for Size3 {}

/// The usual pieces; what they absorb and whether one can sit at them follows from the kind.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
#[allow(missing_docs)]
pub enum FurnitureKind {
    Desk,
    Table,
    Chair,
    Shelf,
    Bookcase,
    Bed,
    Sofa,
    Wardrobe,
    Cabinet,
    Radiator,
    Mirror,
    Picture,
    Lamp,
    Plant,
    Box,
}
