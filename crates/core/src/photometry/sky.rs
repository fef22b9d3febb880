//! A window under an overcast sky, as a face that shines into the room.

use std::f64::consts::PI;

/// An overcast day on level open ground, lx (common practice, no source; 5 to 20 klx).
pub const OVERCAST_LX: f64 = 10_000.0;
/// What the ground sends back of the light that falls on it (common practice, no source).
pub const GROUND: f64 = 0.2;
/// Colour temperature of an overcast sky, K (that of D65, CIE 15, from memory; 6000 to 7000 are usual).
pub const OVERCAST_K: f64 = 6500.0;
/// What a double pane lets through (BS 8206-2:2008, from memory).
pub const PANE: f64 = 0.68;
/// Part of the light on level ground that an overcast sky gives an upright surface (Moon and Spencer 1942, CIE S 011, from
/// memory).
const UPRIGHT: f64 = (PI / 6.0 + 4.0 / 9.0) / (7.0 * PI / 9.0);

/// Light on an upright surface outdoors under an overcast sky, lx: that of the sky and half of what the ground sends back.
pub fn upright_lx(outdoors_lx: f64, ground: f64) -> f64 {
    outdoors_lx * (UPRIGHT + ground / 2.0)
}

/// Luminance of a window's pane seen from inside, cd/m2: tau E / pi.
pub fn window_luminance_cd_m2(outdoors_lx: f64) -> f64 {
    luminance_behind_cd_m2(outdoors_lx, GROUND, PANE)
}

/// As [`window_luminance_cd_m2`], over ground of a reflectance and behind a pane that lets through a part.
pub fn luminance_behind_cd_m2(outdoors_lx: f64, ground: f64, pane: f64) -> f64 {
    pane * upright_lx(outdoors_lx, ground) / PI
}
