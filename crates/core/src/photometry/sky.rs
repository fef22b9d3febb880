//! A window under an overcast sky, as a face that shines into the room.

use std::f64::consts::PI;

/// An overcast day on level open ground, lx (common practice, no source; 5 to 20 klx), and what the ground sends back.
pub const OVERCAST_LX: f64 = 10_000.0;
const GROUND: f64 = 0.2;
/// Colour temperature of an overcast sky, K (that of D65, CIE 15, from memory; 6000 to 7000 are usual).
pub const OVERCAST_K: f64 = 6500.0;
/// What a double pane lets through (BS 8206-2:2008, from memory).
pub const PANE: f64 = 0.68;
/// Part of the light on level ground that an overcast sky gives an upright surface: (pi / 6 + 4 / 9) / (7 pi / 9) (Moon
/// and Spencer 1942, CIE S 011, from memory).
const UPRIGHT: f64 = 0.396_177;

/// Light on an upright surface outdoors under an overcast sky, lx: that of the sky and half of what the ground sends back.
pub fn upright_lx(outdoors_lx: f64) -> f64 {
    outdoors_lx * (UPRIGHT + GROUND / 2.0)
}

/// Luminance of a window's pane seen from inside, cd/m2: tau E / pi.
pub fn window_luminance_cd_m2(outdoors_lx: f64) -> f64 {
    PANE * upright_lx(outdoors_lx) / PI
}
