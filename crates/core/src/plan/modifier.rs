//! What is put before a lamp: modifiers that belong to it, gels, cloths hung on their own.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::Id;

/// What a lamp carries before its light source.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum Modifier {
    /// Nothing, or its own reflector.
    Bare,
    /// A softbox with one cloth.
    Softbox,
    /// A softbox with two cloths.
    DoubleSoftbox,
    /// A softbox with a grid before its cloth.
    GridSoftbox,
    /// A globe of paper or cloth.
    Globe,
    /// An umbrella, white inside, that throws the light back.
    WhiteUmbrella,
    /// An umbrella, silver inside, that throws the light back.
    SilverUmbrella,
    /// A thin white umbrella that the light goes through.
    ShootThroughUmbrella,
}

impl Modifier {
    /// How much warmer its light comes out, mired: cloth warms by about 10 (common practice, no source).
    pub fn warms_mired(self) -> f64 {
        match self {
            Modifier::Bare | Modifier::WhiteUmbrella | Modifier::SilverUmbrella => 0.0,
            _ => 10.0,
        }
    }
}

/// A gel that turns daylight into lamplight, or the other way, whole or in part (figures common practice, no
/// source).
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum Gel {
    /// Orange, whole: 5600 K becomes 2960 K.
    WarmFull,
    /// Orange, half.
    WarmHalf,
    /// Orange, a quarter.
    WarmQuarter,
    /// Blue, whole: 3200 K becomes 5700 K.
    CoolFull,
    /// Blue, half.
    CoolHalf,
}

impl Gel {
    /// Every one.
    pub const ALL: [Gel; 5] = [Gel::WarmFull, Gel::WarmHalf, Gel::WarmQuarter, Gel::CoolHalf, Gel::CoolFull];

    /// Shift in mired, positive to warm.
    pub fn shift_mired(self) -> f64 {
        match self {
            Gel::WarmFull => 159.0,
            Gel::WarmHalf => 81.0,
            Gel::WarmQuarter => 42.0,
            Gel::CoolFull => -137.0,
            Gel::CoolHalf => -78.0,
        }
    }

    /// Part of the light that passes.
    pub fn transmittance(self) -> f64 {
        match self {
            Gel::WarmFull => 0.55,
            Gel::WarmHalf => 0.70,
            Gel::WarmQuarter => 0.80,
            Gel::CoolFull => 0.34,
            Gel::CoolHalf => 0.52,
        }
    }

    /// In words.
    pub fn label(self) -> &'static str {
        match self {
            Gel::WarmFull => "a full orange gel",
            Gel::WarmHalf => "a half orange gel",
            Gel::WarmQuarter => "a quarter orange gel",
            Gel::CoolFull => "a full blue gel",
            Gel::CoolHalf => "a half blue gel",
        }
    }
}

/// A cloth, curtain or sheet of paper hung before a lamp: what the face sees is the cloth.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Cloth {
    /// Gear id: a panel whose transmittance is known.
    pub gear: Id,
    /// From the lamp's face to the cloth, m.
    #[schema(minimum = 0.05, maximum = 4.0)]
    pub ahead_m: f64,
}

/// A colour as CIE 1931 chromaticity coordinates.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Chromaticity {
    /// x.
    #[schema(minimum = 0.05, maximum = 0.74)]
    pub x: f64,
    /// y.
    #[schema(minimum = 0.02, maximum = 0.84)]
    pub y: f64,
}
