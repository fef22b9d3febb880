//! What the light does to this face, beyond what is scored: shadow of the nose, eye sockets, catchlight, glasses, leaning,
//! the background.

use super::apparent::{Key, key};
use super::catchlight::catchlight;
use super::field::LightField;
use super::glasses::Glasses;
use super::head::{Spot, nose_shadow_m};
use super::mirrored::as_seen;
use super::report::LightReport;
use super::{AREA_FORMULA, penumbra_m};
use crate::corner::{Corner, LightAt, Source};
use crate::geometry::DVec3;
use crate::person::given;
use crate::plan::{GearPanel, ThingId, WALL_NAMES};
use crate::reading::{Origin, Quantity, Reading};
use crate::units::capital;

/// From the edge of the nose to the cheek that it shades, m (common practice, no source).
const EDGE_M: f64 = 0.02;
/// How far a person leans in for this, m.
pub const LEAN_M: f64 = 0.10;
/// Source and lens farther apart than this as seen from the eye: the image leaves the iris, degrees.
const CATCH_MOST_DEG: f64 = 89.7;
/// Images higher than this over the middle of the eye lie under the lid, mm (common practice, no source).
const LID_MM: f64 = 4.0;

pub(super) fn readings(lit: &LightReport<'_>) -> Vec<Reading> {
    let corner = lit.corner();
    let mut all = Vec::new();
    if let Some(key) = key(corner) {
        all.extend(nose(corner, &key));
        all.extend(catch(corner, &key));
    }
    all.extend(cloths(corner));
    all.extend(foils(lit));
    all.push(sockets(lit));
    all.push(lean(lit));
    all.extend(background(lit));
    for found in lit.mirrored() {
        let name = corner.name(&found.id);
        let mut reading = Reading::of(Quantity::LightGlarePercent, name, 100.0 * found.part)
            .by(
                "part of 61 x 61 normals of the lens that mirror the lamp into the camera",
                "law of reflection; pantoscopic tilt and wrap as in ISO 13666 (from memory)",
            )
            .with("pantoscopic tilt", Glasses::default().pantoscopic_tilt_deg, "\u{b0}", Origin::Assumed)
            .with("wrap", Glasses::default().wrap_deg, "\u{b0}", Origin::Assumed)
            .with("front radius", Glasses::default().front_radius_m, "m", Origin::Assumed)
            .within(3.0);
        if let Some(clear) = found.clear_elevation_deg {
            reading = reading.with("clear from this elevation on", clear, "\u{b0}", Origin::Computed);
        }
        all.push(reading.called(format!("{} in the glasses", capital(&found.id.words()))));
    }
    all
}

fn nose(corner: &Corner<'_>, key: &Key<'_>) -> Vec<Reading> {
    let (azimuth, elevation) = corner.light_angles_deg(key.seen.middle_m);
    let azimuth = azimuth - corner.layout.seat.gaze_offset_deg;
    let (distance, diameter) = (key.seen.distance_m(corner), key.seen.diameter_m);
    let told = key.light.map_or(Origin::Typed, |light| light.common().figures_from());
    let mut all = Vec::new();
    if azimuth.abs() < 89.0 && elevation.abs() < 89.0 {
        let (aside, down) = nose_shadow_m(azimuth, elevation);
        all.push(
            Reading::new(Quantity::LightKeyNoseShadowMm, 1000.0 * aside.hypot(down))
                .by(
                    "p tan(azimuth) aside, p tan(elevation) / cos(azimuth) down, p = 25 mm",
                    "geometry of a nose on a flat face",
                )
                .with("aside, positive to camera right", 1000.0 * aside, "mm", Origin::Computed)
                .with("down", 1000.0 * down, "mm", Origin::Computed)
                .within(8.0)
                .note(if aside.abs() > 0.05 {
                    "It meets the shadow of the cheek: split."
                } else if aside.abs() < 0.009 {
                    "Straight below the nose: flat."
                } else {
                    "It stays on the cheek: modelled."
                }),
        );
    }
    all.push(
        Reading::new(Quantity::LightKeyPenumbraMm, 1000.0 * penumbra_m(diameter, distance, EDGE_M))
            .by("D t / d, t = 20 mm from the nose to the cheek", "similar triangles")
            .with("diameter of equal area", diameter, "m", told)
            .with("distance", distance, "m", Origin::Computed)
            .note("The wider the edge of the shadow, the softer the light."),
    );
    all
}

/// The key's image in the eyes; none where it leaves the iris or lies under the lid.
fn catch(corner: &Corner<'_>, key: &Key<'_>) -> Vec<Reading> {
    let at = as_seen(corner, &key.seen);
    let found = catchlight(at.azimuth_deg, at.elevation_deg, at.diameter_m, at.distance_m);
    let (azimuth, elevation) = (at.azimuth_deg.to_radians(), at.elevation_deg.to_radians());
    let apart_deg = (azimuth.cos() * elevation.cos()).clamp(-1.0, 1.0).acos().to_degrees();
    let is_seen = apart_deg < CATCH_MOST_DEG && found.up_mm < LID_MM;
    let diameter = if is_seen { found.diameter_mm } else { 0.0 };
    let mut all = vec![
        Reading::new(Quantity::LightKeyCatchlightMm, diameter)
            .by("D f / (d + f), f = 3.9 mm", "mirror of the cornea, radius 7.8 mm: Le Grand (from memory)")
            .with("to camera right", found.right_mm, "mm", Origin::Computed)
            .with("up", found.up_mm, "mm", Origin::Computed)
            .note(format!(
                "In an iris of {}. Eyes without any look dead: common practice, no source.",
                corner.brief.units.fine(12.0)
            )),
    ];
    if let Some(clock) = found.clock_h.filter(|_| is_seen) {
        all.push(
            Reading::new(Quantity::LightKeyCatchlightClockH, clock)
                .by("atan2(right, up) / 30 degrees", "normal of the cornea midway between lens and lamp")
                .note("Ten to eleven, or one to two o'clock, is liked: common practice, no source."),
        );
    }
    all
}

fn sockets(lit: &LightReport<'_>) -> Reading {
    let facets = lit.facets();
    let stops = |spot: Spot| facets.iter().find(|f| f.spot == spot).and_then(|f| f.stops).unwrap_or(f64::NAN);
    let (right, left) = (stops(Spot::SocketRight), stops(Spot::SocketLeft));
    let of = |spot: Spot| facets.iter().find(|f| f.spot == spot).map_or(0.0, |f| f.illuminance_lx);
    Reading::new(Quantity::LightFaceSocketStops, right.min(left))
        .by(
            "log2 of the light in the darker eye socket over that on a surface that faces the lens",
            AREA_FORMULA,
        )
        .with("camera right", of(Spot::SocketRight), "lx", Origin::Computed)
        .with("camera left", of(Spot::SocketLeft), "lx", Origin::Computed)
        .within(0.5)
        .note(format!(
            "Under a brow of {}: light from high up leaves the eyes in the dark.",
            lit.corner().brief.units.fine(14.0)
        ))
}

/// How unevenly a cloth before a lamp is lit.
fn cloths(corner: &Corner<'_>) -> Vec<Reading> {
    let lit = corner.lights.iter().filter_map(|light| Some((light, light.cloth?)));
    let reading = |(light, (cloth, ahead_m)): (&LightAt<'_>, (&GearPanel, f64))| {
        let stops = super::cloth::hot_spot_stops(&super::cloth::faces(light));
        let mut reading = Reading::of(Quantity::LightHotSpotStops, corner.name(&ThingId::Light(light.id.clone())), stops)
            .by("log2(brightest / darkest of 8 x 8 pieces), L = tau E / pi", AREA_FORMULA)
            .with("lamp to cloth", ahead_m, "m", Origin::Typed)
            .with("passes", cloth.transmittance.unwrap_or(0.0), "", cloth.common.figures_from())
            .note("More than a stop: the cloth is smaller than it looks. Thin cloth lets the lamp itself show through.");
        reading.label = format!("Unevenness of the cloth of the {}", light.words()).into();
        reading
    };
    lit.map(reading).collect()
}

/// What a foil gives the shadow side: between a smooth mirror and a matt board, by how crumpled it is.
fn foils(lit: &LightField<'_>) -> Vec<Reading> {
    let corner = lit.corner();
    let [_, shadow] = lit.cheeks();
    let mut all = Vec::new();
    for light in &corner.lights {
        let Source::Board(board) = light.source else { continue };
        if board.mirror_part <= 0.0 {
            continue;
        }
        let lux = lit.light_lx(light, corner.eyes_m, shadow);
        let matt = lit.matt_lx(light, corner.eyes_m, shadow) / (1.0 - board.mirror_part).max(1e-3);
        let mirror = (lux - lit.matt_lx(light, corner.eyes_m, shadow)) / board.mirror_part;
        let mut reading =
            Reading::of(Quantity::LightFillsLx, corner.name(&ThingId::Light(light.id.clone())), lux)
                .by("mirror part x image within its edges + the rest as a matt board", AREA_FORMULA)
                .with("as a smooth mirror", mirror, "lx", Origin::Computed)
                .with("as a matt board", matt.min(1e6), "lx", Origin::Computed)
                .with("mirror part", board.mirror_part, "", board.common.figures_from())
                .within((mirror - matt).abs() / 2.0)
                .note("Crumpled foil lies between the two; a smooth one lights little more than a patch.");
        reading.label = format!("The {} on the shadow side", light.words()).into();
        all.push(reading);
    }
    all
}

/// What leaning in by 10 cm does to the exposure.
fn lean(lit: &LightField<'_>) -> Reading {
    let corner = lit.corner();
    let towards = corner.to_lens();
    // What the room throws back hardly changes over 10 cm.
    let here = lit.at_face().camera_lx;
    let in_front =
        lit.direct_lx(corner.eyes_m + towards * LEAN_M, towards) + lit.at_eyes().illuminance_lx(towards);
    Reading::new(Quantity::LightFaceLeanStops, (in_front / here).log2())
        .by("log2 of the light a hand's breadth nearer to the lens over that at the eyes", AREA_FORMULA)
        .with("at the eyes", here, "lx", Origin::Computed)
        .with("a hand's breadth in front", in_front, "lx", Origin::Computed)
        .note("More than 0.3 stop is seen: a lamp further off and larger is steadier.")
}

/// How bright the background comes out beside the face.
fn background(lit: &LightField<'_>) -> Option<Reading> {
    let seen = behind(lit)?;
    let Behind { behind_lx, face_lx, reflectance, from, skin, skin_from, .. } = seen;
    let reading = Reading::new(Quantity::LightBackgroundStops, seen.stops())
        .by(
            "log2(rho E behind / (skin x E on the face))",
            "Lambert; -1 to -2.5 is liked: common practice, no source",
        )
        .with("light behind", behind_lx, "lx", Origin::Computed)
        .with("light on the face", face_lx, "lx", Origin::Computed)
        .with("reflectance behind", reflectance, "", from)
        .with("reflectance of the skin", skin, "", skin_from)
        .within(0.5);
    Some(reading)
}

/// The background where the line from the lens through the eyes meets it, beside the face.
#[derive(Debug, Clone, Copy)]
pub struct Behind {
    /// A centimetre before it, m.
    pub at_m: DVec3,
    /// Light there on a surface that faces the lens, and on the face, lx.
    pub behind_lx: f64,
    /// lx.
    pub face_lx: f64,
    /// Reflectance of the background, and of the skin.
    pub reflectance: f64,
    from: Origin,
    /// Reflectance of the skin.
    pub skin: f64,
    skin_from: Origin,
}

impl Behind {
    /// How much brighter than the face it comes out, stops.
    pub fn stops(&self) -> f64 {
        (self.reflectance * self.behind_lx / (self.skin * self.face_lx)).log2()
    }
}

/// `None` where there is nothing behind.
pub fn behind(lit: &LightField<'_>) -> Option<Behind> {
    let corner = lit.corner();
    let towards = corner.to_lens();
    let behind = corner.background_behind_m();
    // Not within the sheet or the wall itself.
    let at = corner.eyes_m - towards * (behind - 0.01).max(0.05);
    let behind_lx = lit.direct_lx(at, towards) + lit.bounce_lx(at, towards);
    let face_lx = lit.at_face().camera_lx;
    let (skin, skin_from) = given(corner.brief.person.skin_reflectance, super::highlight::SKIN);
    let (reflectance, from) = match corner.backdrop {
        Some((gear, _)) if corner.backdrop_behind_m().is_some() => {
            given(gear.reflectance, gear.backdrop.usual_reflectance())
        }
        _ => {
            let (wall, _) = corner.wall_behind()?;
            let (value, told) = corner.brief.room.reflectance(WALL_NAMES[wall]);
            (value, if told { Origin::Typed } else { Origin::Assumed })
        }
    };
    Some(Behind { at_m: at, behind_lx, face_lx, reflectance, from, skin, skin_from })
}
