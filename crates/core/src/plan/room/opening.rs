//! Doors and windows.

use glam::DVec2;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::plan::Id;

/// Depth of a reveal that nobody measured, m. Fogon's own rule.
const USUAL_REVEAL_M: f64 = 0.1;
/// What a white curtain lets through (common practice, no source: a thin one two thirds, a lined one a third).
const WHITE_CURTAIN: f64 = 0.5;

/// A door or a window in a wall.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Opening {
    /// Door or window.
    pub kind: OpeningKind,
    /// The wall, from the corner of this number to the next; in a rectangle 0 back, 1 right, 2 front, 3 left.
    #[schema(maximum = 11)]
    pub wall: u8,
    /// From the wall's first corner to the near edge, m.
    #[schema(minimum = 0.0, maximum = 50.0)]
    pub from_m: f64,
    /// Width, m.
    #[schema(minimum = 0.2, maximum = 20.0)]
    pub width_m: f64,
    /// Height of the lower edge, m (0 for a door).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.0, maximum = 6.0)]
    pub sill_m: Option<f64>,
    /// Height of the opening itself, m (a door 2.0, a window 1.2).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.2, maximum = 8.0)]
    pub height_m: Option<f64>,
    /// Depth of the reveal from the inner face of the wall to the pane, m (0.1).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.0, maximum = 2.0)]
    pub reveal_m: Option<f64>,
    /// How high what stands opposite rises over the horizon, seen from the window, degrees (0).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.0, maximum = 89.0)]
    pub horizon_deg: Option<f64>,
    /// The slope of the ceiling that a roof window lies in; its height is measured along the slope.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub slope: Option<Id>,
    /// How far a blind is drawn down over it, m (0).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.0, maximum = 8.0)]
    pub blind_m: Option<f64>,
    /// A curtain that is drawn before it, whole (none).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub curtain: Option<Curtain>,
    /// How a door opens; hinges are named as seen from inside, facing the door (default in-left).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub swing: Option<Swing>,
    /// How a window is glazed (double).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub glazing: Option<Glazing>,
}

/// Door or window.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum OpeningKind {
    /// A door.
    Door,
    /// A window.
    Window,
}

/// How a door opens.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum Swing {
    /// Into the room, hinged on the left.
    InLeft,
    /// Into the room, hinged on the right.
    InRight,
    /// Out of the room.
    Out,
    /// Along the wall.
    Sliding,
}

/// A curtain before a window.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum Curtain {
    /// White and thin: half of the light comes through, scattered.
    White,
    /// Nothing comes through.
    Dark,
}

impl Curtain {
    /// The part of the light that comes through.
    pub fn transmittance(self) -> f64 {
        match self {
            Self::White => WHITE_CURTAIN,
            Self::Dark => 0.0,
        }
    }
}

/// How a window is made, or left.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum Glazing {
    /// One pane.
    Single,
    /// Two panes.
    Double,
    /// It closes badly.
    Leaky,
    /// Tilted open.
    Tilted,
}

impl Glazing {
    /// How much less gets in, R'w, dB: the middle of the usual range (common figures, no source).
    pub fn insulation_db(self) -> f64 {
        match self {
            Glazing::Single => 29.0,
            Glazing::Double => 31.5,
            Glazing::Leaky => 23.5,
            Glazing::Tilted => 10.0,
        }
    }

    /// Row of the absorption table.
    pub fn material(self) -> &'static str {
        match self {
            Glazing::Single | Glazing::Leaky => "window_single",
            Glazing::Double | Glazing::Tilted => "window_double_10mm",
        }
    }
}

impl Opening {
    /// Middle of the opening on the floor line of its wall, m.
    pub fn middle_m(&self, floor: &[DVec2]) -> DVec2 {
        let wall = usize::from(self.wall);
        let (start, end) = (floor[wall % floor.len()], floor[(wall + 1) % floor.len()]);
        start + (end - start).normalize_or_zero() * (self.from_m + self.width_m / 2.0)
    }

    /// Height of the lower edge, m: as given, else 0 for a door and 0.9 for a window.
    pub fn sill_or_usual_m(&self) -> f64 {
        self.sill_m.unwrap_or(if self.kind == OpeningKind::Door { 0.0 } else { 0.9 })
    }

    /// Height of the opening, m: as given, else 2.0 for a door and 1.2 for a window.
    pub fn height_or_usual_m(&self) -> f64 {
        self.height_m.unwrap_or(if self.kind == OpeningKind::Door { 2.0 } else { 1.2 })
    }

    /// Height that no blind covers, m.
    pub fn clear_height_m(&self) -> f64 {
        (self.height_or_usual_m() - self.blind_m.unwrap_or(0.0)).max(0.0)
    }

    /// The part of the light that what hangs before it lets through: 1 with nothing there.
    pub fn curtain_lets_through(&self) -> f64 {
        self.curtain.map_or(1.0, Curtain::transmittance)
    }

    /// A window through which light may come.
    pub fn is_open_to_light(&self) -> bool {
        self.kind == OpeningKind::Window && self.curtain != Some(Curtain::Dark) && self.clear_height_m() > 0.0
    }

    /// Depth of the reveal, m: as given, else 0.1.
    pub fn reveal_or_usual_m(&self) -> f64 {
        self.reveal_m.unwrap_or(USUAL_REVEAL_M)
    }

    /// The way a door opens; in-left where nothing is said.
    pub fn swing_or_usual(&self) -> Swing {
        self.swing.unwrap_or(Swing::InLeft)
    }
}
