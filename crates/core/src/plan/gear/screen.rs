//! Screens, mirrors, script glasses and backdrops.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::common::Common;
use crate::reading::Origin;

/// What a person sees themselves on.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum ScreenType {
    /// A small monitor at the camera.
    #[default]
    Field,
    /// A phone that shows the camera's picture.
    Phone,
    /// A television or large monitor behind the camera.
    Television,
    /// A laptop below or behind the camera.
    Laptop,
    /// A mirror behind the camera, in which its own screen is seen.
    Mirror,
    /// A half-silvered glass before the lens, over a screen that lies flat.
    Script,
}

impl ScreenType {
    /// What people call it.
    pub fn word(self) -> &'static str {
        match self {
            ScreenType::Field => "field monitor",
            ScreenType::Phone => "phone",
            ScreenType::Television => "television",
            ScreenType::Laptop => "laptop",
            ScreenType::Mirror => "mirror",
            ScreenType::Script => "script screen",
        }
    }
}

/// A screen, a mirror or a script glass.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct GearMonitor {
    /// What every kind has.
    #[serde(flatten)]
    pub common: Common,
    /// What it is (a field monitor).
    #[serde(default)]
    pub screen: ScreenType,
    /// Width of the picture, or of the mirror, m (usual for its type).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.04, maximum = 3.0)]
    pub width_m: Option<f64>,
    /// Pixels across (1920).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 100.0, maximum = 16_384.0)]
    pub width_px: Option<f64>,
    /// Part of the light that a script glass lets through to the lens (0.7).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.05, maximum = 1.0)]
    pub transmittance: Option<f64>,
    /// Energy of its battery, Wh.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.0, maximum = 100_000.0)]
    pub energy_wh: Option<f64>,
}

impl GearMonitor {
    /// Width as given, else usual for its type, m (common practice, no source), and whether it was given.
    pub fn width(&self) -> (f64, Origin) {
        let usual = match self.screen {
            ScreenType::Field => 0.155,
            ScreenType::Phone => 0.14,
            ScreenType::Television => 0.89,
            ScreenType::Laptop => 0.30,
            ScreenType::Mirror => 0.30,
            ScreenType::Script => 0.20,
        };
        self.width_m.map_or((usual, Origin::Assumed), |width| (width, self.common.figures_from()))
    }

    /// Part of the light that a script glass lets through: as given, else 0.7 (common practice, no source).
    pub fn script_transmittance(&self) -> f64 {
        self.transmittance.unwrap_or(0.7)
    }

    /// Height of a 16:9 picture, m.
    pub fn height_m(&self) -> f64 {
        self.width().0 * 9.0 / 16.0
    }
}

/// What hangs or stands behind the person.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum BackdropType {
    /// A roll of paper.
    Paper,
    /// A curtain.
    Curtain,
    /// Boards or panels.
    Boards,
    /// A plain cloth.
    Cloth,
    /// A screen of one pure colour, to be keyed out.
    Chroma,
}

impl BackdropType {
    /// Reflectance where none is told (common practice, no source).
    pub fn usual_reflectance(self) -> f64 {
        match self {
            BackdropType::Chroma => 0.35,
            BackdropType::Paper | BackdropType::Curtain | BackdropType::Boards | BackdropType::Cloth => 0.5,
        }
    }
}

/// A backdrop.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct GearBackdrop {
    /// What every kind has.
    #[serde(flatten)]
    pub common: Common,
    /// What it is.
    pub backdrop: BackdropType,
    /// Width, m.
    #[schema(minimum = 0.5, maximum = 12.0)]
    pub width_m: f64,
    /// Height, m.
    #[schema(minimum = 0.5, maximum = 6.0)]
    pub height_m: f64,
    /// Diffuse reflectance (0.5).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.02, maximum = 0.95)]
    pub reflectance: Option<f64>,
}
