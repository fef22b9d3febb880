//! From what is known of a lamp to the luminance of its face at full power: the one place. In the order of trust: lux
//! measured at a distance, lux at 1 m as used, lux at 1 m without the modifier, lumens, watts.

use std::f64::consts::PI;

use super::{Face, shape_area_m2};
use crate::geometry::DVec3;
use crate::plan::GearLight;
use crate::reading::From;

/// A bare lamp's own reflector, degrees across at half the intensity; the part of its light that comes out of a modifier;
/// light for each watt of an LED (all common practice, no source).
const BARE_BEAM_DEG: f64 = 55.0;
const MODIFIER_EFFICIENCY: f64 = 0.5;
const LED_LM_W: f64 = 95.0;
/// The beam of a matt face, degrees.
const MATT_BEAM_DEG: f64 = 120.0;

/// What a lamp's luminance was worked out from.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Known {
    /// At full power, cd/m2.
    pub luminance_cd_m2: f64,
    /// Whether that is measured, told or assumed.
    pub from: From,
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
pub(super) fn exponent_of(lamp: &GearLight) -> f64 {
    lamp.beam_deg
        .map_or(1.0, |beam| if (beam - MATT_BEAM_DEG).abs() < 1e-9 { 1.0 } else { beam_exponent(beam) })
}

/// What is known of a lamp's luminance; 0 where nothing is, which `Plan::check` refuses.
pub fn known(lamp: &GearLight) -> Known {
    let told = lamp.common.told();
    let at = |lux: f64, distance_m: f64| {
        let unit = Face::new(lamp.shape, lamp.width_m, lamp.height_m, DVec3::ZERO, DVec3::X, 1.0);
        lux / unit.illuminance_lx(DVec3::X * distance_m, -DVec3::X)
    };
    // L A pi 2 / (m + 1) leaves the face.
    let of_flux = |flux_lm: f64| {
        let area = shape_area_m2(lamp.shape, lamp.width_m, lamp.height_m);
        flux_lm * (exponent_of(lamp) + 1.0) / (2.0 * PI * area)
    };
    let efficiency = lamp.modifier_efficiency;
    let known = |luminance_cd_m2, from, by| Known { luminance_cd_m2, from, by };
    if let (Some(lux), Some(distance)) = (lamp.measured_lx, lamp.measured_at_m) {
        known(at(lux, distance), From::Measured, "lux measured")
    } else if let Some(lux) = lamp.illuminance_at_1m_lx {
        known(at(lux, 1.0), told, "lux at 1 m")
    } else if let Some(lux) = lamp.bare_at_1m_lx {
        let flux = beam_flux_lm(lux, lamp.bare_beam_deg.unwrap_or(BARE_BEAM_DEG));
        let whole = lamp.bare_beam_deg.is_some() && efficiency.is_some();
        let from = if whole { told } else { From::Assumed };
        known(of_flux(flux * efficiency.unwrap_or(MODIFIER_EFFICIENCY)), from, "lux at 1 m without modifier")
    } else if let Some(flux) = lamp.flux_lm {
        let from = if efficiency.is_some() { told } else { From::Assumed };
        known(of_flux(flux * efficiency.unwrap_or(MODIFIER_EFFICIENCY)), from, "lumens")
    } else {
        let flux = lamp.common.power_w.unwrap_or(0.0) * LED_LM_W;
        known(of_flux(flux * efficiency.unwrap_or(MODIFIER_EFFICIENCY)), From::Assumed, "watts")
    }
}
