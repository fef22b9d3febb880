//! Lamps, boards and cloths.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::common::Common;
use crate::plan::Modifier;

/// Outline of an emitting face.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum Shape {
    /// Round; width is the diameter.
    Disc,
    /// Width by height.
    Rectangle,
    /// Regular octagon; width is measured across corners.
    Octagon,
    /// Ring; width is the outer diameter, height the inner one.
    Ring,
    /// Long and thin; it shines around its longer side.
    Tube,
    /// A bulb of its width; it shines all round.
    Bulb,
}

/// A lamp with its modifier on.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct GearLight {
    /// What every kind has.
    #[serde(flatten)]
    pub common: Common,
    /// Outline of the emitting face.
    pub shape: Shape,
    /// Width of the face, m.
    #[schema(minimum = 0.01, maximum = 4.0)]
    pub width_m: f64,
    /// Height of the face, m.
    #[schema(minimum = 0.01, maximum = 4.0)]
    pub height_m: f64,
    /// Depth of lamp and modifier behind the face, m.
    #[serde(default = "lamp_depth")]
    #[schema(minimum = 0.01, maximum = 3.0)]
    pub depth_m: f64,
    /// Illuminance 1 m from the emitting face, on axis, modifier on, full power, lx.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 1.0, maximum = 1_000_000.0)]
    pub illuminance_at_1m_lx: Option<f64>,
    /// The same of the lamp alone with its reflector, lx; then the beam and the modifier's efficiency count.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 1.0, maximum = 1_000_000.0)]
    pub bare_at_1m_lx: Option<f64>,
    /// Beam of the lamp alone, across at half its intensity, degrees (55).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 1.0, maximum = 170.0)]
    pub bare_beam_deg: Option<f64>,
    /// Light of the lamp alone, lm.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 1.0, maximum = 500_000.0)]
    pub flux_lm: Option<f64>,
    /// What it carries before its light source; its efficiency and its warmth follow.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub modifier: Option<Modifier>,
    /// Part of the lamp's light that comes out of the face with the modifier on (usual for the modifier, else 0.5).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.02, maximum = 1.0)]
    pub modifier_efficiency: Option<f64>,
    /// Beam of the face itself, across at half its intensity, degrees (120, a matt face). A tube or bulb without one is
    /// bare and shines round.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 10.0, maximum = 120.0)]
    pub beam_deg: Option<f64>,
    /// Measured on axis with a lux meter, full power, lx.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 1.0, maximum = 1_000_000.0)]
    pub measured_lx: Option<f64>,
    /// So far from the emitting face, m.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.1, maximum = 20.0)]
    pub measured_at_m: Option<f64>,
    /// Until its light holds after it is switched on, s (0, as of LEDs).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.0, maximum = 900.0)]
    pub settles_s: Option<f64>,
    /// Lowest colour temperature, K.
    #[schema(minimum = 1000.0, maximum = 25_000.0)]
    pub cct_min_k: f64,
    /// Highest colour temperature, K.
    #[schema(minimum = 1000.0, maximum = 25_000.0)]
    pub cct_max_k: f64,
}

fn lamp_depth() -> f64 {
    0.25
}

/// A board or cloth that throws light back.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct GearPanel {
    /// What every kind has.
    #[serde(flatten)]
    pub common: Common,
    /// Width, m.
    #[schema(minimum = 0.05, maximum = 4.0)]
    pub width_m: f64,
    /// Height, m.
    #[schema(minimum = 0.05, maximum = 4.0)]
    pub height_m: f64,
    /// Reflectance.
    #[schema(minimum = 0.0, maximum = 0.98)]
    pub reflectance: f64,
    /// Part of the reflected light that goes as in a mirror: 0 a matt board, 1 a smooth foil, a crumpled one between (0).
    #[serde(default)]
    #[schema(minimum = 0.0, maximum = 1.0)]
    pub mirror_part: f64,
    /// Part of the light that passes a cloth or paper; none of a board.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.02, maximum = 0.95)]
    pub transmittance: Option<f64>,
}
