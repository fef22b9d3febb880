//! From what is known of a lamp to the luminance of its face at full power: the one place. In the order of trust: lux
//! measured at a distance, lux at 1 m as used, lux at 1 m without the modifier, lumens, watts.

use std::f64::consts::PI;

use super::Face;
use crate::geometry::DVec3;
use crate::plan::{GearLight, Modifier};
use crate::reading::Origin;

/// A bare lamp's own reflector, degrees across at half the intensity; light for each watt of an LED (both common practice,
/// no source).
const BARE_BEAM_DEG: f64 = 55.0;
const LED_LM_W: f64 = 95.0;
/// The beam of a matt face, degrees.
const MATT_BEAM_DEG: f64 = 120.0;

/// What a lamp's luminance was worked out from.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Known {
    /// At full power, cd/m2.
    pub luminance_cd_m2: f64,
    /// Whether that is measured, told or assumed.
    pub from: Origin,
    /// Which figure.
    pub by: &'static str,
}

/// Exponent m of I = I0 cos^m whose intensity falls to half at half the beam angle: ln 0.5 / ln cos(beam / 2); 1 for a
/// matt face (beam angle as in IEC TR 61341, from memory).
pub fn beam_exponent(beam_deg: f64) -> f64 {
    0.5f64.ln() / (beam_deg / 2.0).to_radians().cos().ln()
}

/// Flux of a beam of that form, lm: 2 pi I0 / (m + 1).
pub fn beam_flux_lm(intensity_cd: f64, beam_deg: f64) -> f64 {
    2.0 * PI * intensity_cd / (beam_exponent(beam_deg) + 1.0)
}

/// The exponent of a lamp's own face.
fn exponent_of(lamp: &GearLight) -> f64 {
    lamp.beam_deg
        .map_or(1.0, |beam| if (beam - MATT_BEAM_DEG).abs() < 1e-9 { 1.0 } else { beam_exponent(beam) })
}

/// A lamp's face of a luminance; a tube or bulb whose beam is told has a shade, and shines to one side.
pub(super) fn shaped(lamp: &GearLight, middle: DVec3, towards: DVec3, luminance_cd_m2: f64) -> Face {
    let (width, height) = (lamp.width_m, lamp.height_m);
    let face = Face::new(lamp.shape, width, height, middle, towards, luminance_cd_m2);
    match lamp.beam_deg {
        Some(_) => Face { exponent: exponent_of(lamp), ..face },
        None => face.round(lamp.shape, width, height),
    }
}

/// Part of a bare lamp's light that comes out of a modifier: the middle of what is usual (common practice, no source).
fn usual_efficiency(modifier: Option<Modifier>) -> f64 {
    match modifier {
        None => 0.5,
        Some(Modifier::Bare) => 1.0,
        Some(Modifier::Softbox) => 0.57,
        Some(Modifier::DoubleSoftbox) => 0.42,
        Some(Modifier::GridSoftbox) => 0.34,
        Some(Modifier::Globe) => 0.55,
        Some(Modifier::WhiteUmbrella) => 0.57,
        Some(Modifier::SilverUmbrella) => 0.75,
        Some(Modifier::ShootThroughUmbrella) => 0.42,
    }
}

/// What is known of a lamp's luminance; 0 where nothing is, which `Plan::check` refuses.
pub fn known(lamp: &GearLight) -> Known {
    let told = lamp.common.figures_from();
    let unit = shaped(lamp, DVec3::ZERO, DVec3::X, 1.0);
    let at = |lux: f64, distance_m: f64| lux / unit.illuminance_lx(DVec3::X * distance_m, -DVec3::X);
    let of_flux = |flux_lm: f64| flux_lm / unit.flux_lm();
    let told_efficiency = lamp.modifier_efficiency;
    let efficiency = told_efficiency.unwrap_or_else(|| usual_efficiency(lamp.modifier));
    let known = |luminance_cd_m2, from, by| Known { luminance_cd_m2, from, by };
    if let (Some(lux), Some(distance)) = (lamp.measured_lx, lamp.measured_at_m) {
        known(at(lux, distance), Origin::Measured, "lux measured")
    } else if let Some(lux) = lamp.illuminance_at_1m_lx {
        known(at(lux, 1.0), told, "lux told")
    } else if let Some(lux) = lamp.bare_at_1m_lx {
        let flux = beam_flux_lm(lux, lamp.bare_beam_deg.unwrap_or(BARE_BEAM_DEG));
        let whole = lamp.bare_beam_deg.is_some() && told_efficiency.is_some();
        let from = if whole { told } else { Origin::Assumed };
        known(of_flux(flux * efficiency), from, "lux without modifier")
    } else if let Some(flux) = lamp.flux_lm {
        let from = if told_efficiency.is_some() { told } else { Origin::Assumed };
        known(of_flux(flux * efficiency), from, "lumens")
    } else {
        let flux = lamp.common.power_w.unwrap_or(0.0) * LED_LM_W;
        known(of_flux(flux * efficiency), Origin::Assumed, "watts")
    }
}
