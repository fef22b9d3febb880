//! How walls, floor and ceiling are done up, and where they lie.

use glam::DVec3;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What is known of a surface.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Surface {
    /// Id of a material of the absorption table, as `carpet_thin`.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub material: Option<String>,
    /// What lies or hangs on a part of it, as `rug` or `curtain_heavy`: a row of the same table.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub cover_material: Option<String>,
    /// So much of it is covered, 0 to 1 (0.5).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.0, maximum = 1.0)]
    pub cover_part: Option<f64>,
    /// Diffuse reflectance for light.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.0, maximum = 0.95)]
    pub reflectance: Option<f64>,
    /// How it is done up (as it is).
    #[serde(default, skip_serializing_if = "is_plain")]
    pub look: Look,
}

impl Surface {
    /// What covers a part of it, and how much.
    pub fn cover(&self) -> Option<(&'static crate::material::Material, f64)> {
        let row = crate::material::material(self.cover_material.as_deref()?)?;
        Some((row, self.cover_part.unwrap_or(0.5)))
    }
}

/// How a wall is done up.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum Look {
    /// As it is.
    #[default]
    Plain,
    /// Things hang or stand before it.
    Dressed,
    /// Painted one pure colour, to be keyed out.
    Chroma,
}

impl Look {
    /// Depth it takes off the wall, m. Fogon's own rule.
    pub fn depth_m(self) -> f64 {
        if self == Look::Dressed { 0.10 } else { 0.0 }
    }
}

fn is_plain(look: &Look) -> bool {
    *look == Look::Plain
}

/// A surface of the room on which things hang or lie, as a rectangle that holds it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct FlatSurface {
    /// Its corner: a wall's first corner on the floor, the room's on floor and ceiling, m.
    pub corner_m: DVec3,
    /// Unit vectors along and up (on floor and ceiling along the room's width and depth).
    pub axes: [DVec3; 2],
    /// Length and height, m.
    pub size_m: [f64; 2],
    /// Unit normal into the room.
    pub normal: DVec3,
}

impl FlatSurface {
    /// Where a point lies on it, along and up, m.
    pub fn flat_m(&self, point_m: DVec3) -> [f64; 2] {
        self.axes.map(|axis| (point_m - self.corner_m).dot(axis))
    }

    /// The place nearest to a point at which a thing of a size lies wholly on it; its middle where it is too large.
    pub fn nearest_m(&self, point_m: DVec3, size_m: [f64; 2]) -> DVec3 {
        let at = self.flat_m(point_m);
        let kept: [f64; 2] = std::array::from_fn(|axis| {
            let half = size_m[axis] / 2.0;
            if 2.0 * half >= self.size_m[axis] {
                self.size_m[axis] / 2.0
            } else {
                at[axis].clamp(half, self.size_m[axis] - half)
            }
        });
        self.corner_m + self.axes[0] * kept[0] + self.axes[1] * kept[1]
    }

    /// How far a thing of a size is from lying wholly on it, m.
    pub fn overhang_m(&self, point_m: DVec3, size_m: [f64; 2]) -> f64 {
        let moved = (self.nearest_m(point_m, size_m) - point_m).length();
        let larger = size_m.iter().zip(self.size_m).map(|(size, own)| size - own).fold(0.0, f64::max);
        moved.max(larger)
    }
}
