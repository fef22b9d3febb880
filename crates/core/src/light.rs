//! The light: where key, fill and back light stand, what reaches the face, and whether it suffices.

pub mod apparent;
pub mod bounce;
pub mod catchlight;
pub mod cloth;
pub mod coloured;
pub mod detail;
pub mod field;
pub mod glasses;
pub mod head;
pub mod highlight;
mod keyed;
pub mod mirrored;
pub mod monitor;
pub mod placement;
pub mod power;
pub mod report;
pub mod tint;

use crate::corner::{Corner, Source};
use crate::exposure::{CALIBRATION, illuminance_needed_lx};
use crate::geometry::angle_between_deg;
use crate::plan::{Role, ThingId};
use crate::reading::{Origin, Quantity, Reading};

use field::mean_reflectance;

pub use field::LightField;
pub use report::LightReport;

/// Added to half the diagonal field: a light nearer than this to the picture may flare (Fogon's own rule).
pub const FLARE_MARGIN_DEG: f64 = 5.0;

const AREA_FORMULA: &str = "Lambert 1760; Baum, Rushmeier and Winget 1989; Arvo 1995 (area formula)";

/// Illuminance at another distance by the inverse square law, lx.
pub fn inverse_square_lx(illuminance_lx: f64, at_distance_m: f64, wanted_distance_m: f64) -> f64 {
    illuminance_lx * (at_distance_m / wanted_distance_m).powi(2)
}

/// Lighting ratio (key + fill) : fill, and the same in stops.
pub fn lighting_ratio(key_lx: f64, fill_lx: f64) -> (f64, f64) {
    let ratio = (key_lx + fill_lx) / fill_lx;
    (ratio, ratio.log2())
}

/// Angle that a disc of some diameter fills, degrees: 2 atan(D / 2d).
pub fn angular_size_deg(diameter_m: f64, distance_m: f64) -> f64 {
    2.0 * (diameter_m / (2.0 * distance_m)).atan().to_degrees()
}

/// Width of the soft edge of a shadow, m: D t / d, t from the edge that casts it to the skin, d from the source to the edge.
pub fn penumbra_m(source_diameter_m: f64, source_to_edge_m: f64, edge_to_surface_m: f64) -> f64 {
    source_diameter_m * edge_to_surface_m / source_to_edge_m
}

/// What a fill has to bring to reach a ratio, and the highest ratio that the ambient light leaves.
#[derive(Debug, Clone, Copy, PartialEq, serde::Serialize)]
pub struct FillNeeded {
    /// On the shadow side beyond the ambient light, lx; never below 0.
    pub extra_fill_lx: f64,
    /// The ambient light is not too much already.
    pub reachable: bool,
    /// With no fill at all; null without ambient light.
    pub max_reachable_ratio: Option<f64>,
}

/// Fill for a ratio (key + fill) : fill, all ambient light counting as fill: F = K / (R - 1).
pub fn fill_needed(key_lx: f64, ambient_lx: f64, wanted_ratio: f64) -> FillNeeded {
    let fill = key_lx / (wanted_ratio - 1.0);
    FillNeeded {
        extra_fill_lx: (fill - ambient_lx).max(0.0),
        reachable: ambient_lx <= fill * (1.0 + 1e-9),
        max_reachable_ratio: (ambient_lx > 0.0).then(|| (key_lx + ambient_lx) / ambient_lx),
    }
}

/// First estimate of the light that a room throws back, lx: F rho / (A (1 - rho)) (Sumpner 1892).
pub fn bounce_estimate_lx(flux_lm: f64, surface_m2: f64, mean_reflectance: f64) -> f64 {
    flux_lm * mean_reflectance / (surface_m2 * (1.0 - mean_reflectance))
}

/// How far a light lies outside the cone that holds the picture, less the flare margin, degrees.
pub fn flare_margin_deg(corner: &Corner<'_>, light_m: crate::geometry::DVec3) -> f64 {
    let off_axis = angle_between_deg(corner.view.forward, light_m - corner.view.position_m);
    off_axis - corner.view.fields_deg().2 / 2.0 - FLARE_MARGIN_DEG
}

/// What the light trade reads off a corner.
pub fn readings(corner: &Corner<'_>, lit: Option<&LightField<'_>>) -> Vec<Reading> {
    let mut all = Vec::new();
    if let Some(key) = apparent::key(corner) {
        let (azimuth, elevation) = corner.light_angles_deg(key.seen.middle_m);
        let what = key_words(&key);
        all.push(
            Reading::new(Quantity::LightKeyAzimuthDeg, azimuth.abs())
                .by(
                    "angle at the eyes between lens and key, seen from above",
                    "30 to 45 degrees: common practice, no source",
                )
                .with("azimuth, positive to camera right", azimuth, "\u{b0}", Origin::Computed)
                .within(2.0)
                .note(what),
        );
        all.push(
            Reading::new(Quantity::LightKeyElevationDeg, elevation)
                .by("angle of the key above the eyes", "15 to 45 degrees: common practice, no source")
                .with("key height", key.seen.middle_m.z, "m", Origin::Typed)
                .with("eye height", corner.eyes_m.z, "m", Origin::Computed)
                .within(2.0),
        );
        let distance = key.seen.distance_m(corner);
        let told = key.light.map_or(Origin::Typed, |light| light.common().told());
        all.push(
            Reading::new(Quantity::LightKeyAngularSizeDeg, angular_size_deg(key.seen.diameter_m, distance))
                .by(
                    "2 atan(D / 2d), D of the disc of equal area",
                    "geometry; words soft and hard: Fogon's own rule",
                )
                .with("diameter of equal area", key.seen.diameter_m, "m", told)
                .with("distance", distance, "m", Origin::Computed),
        );
    }
    all.extend(lit.into_iter().flat_map(face_readings));
    for back in corner.role(Role::Back) {
        // The back light is called so where it is the only one, whatever its id.
        let several = corner.role(Role::Back).count() > 1;
        let name = if several { corner.name(&ThingId::Light(back.id.clone())) } else { "back".to_owned() };
        let half_diagonal = corner.view.fields_deg().2 / 2.0;
        all.push(
            Reading::of(Quantity::LightFlareMarginDeg, name, flare_margin_deg(corner, back.position_m))
                .by(
                    "angle off the lens axis - half the diagonal field - 5",
                    "geometry; margin is Fogon's own rule",
                )
                .with("half the diagonal field", half_diagonal, "\u{b0}", Origin::Computed)
                .note("A hood or a flag between lamp and lens mends what a move cannot."),
        );
    }
    all
}

/// What the key is, beside a lamp that faces the person.
fn key_words(key: &apparent::Key<'_>) -> &'static str {
    match (key.light, key.seen.bounced) {
        (None, _) => "The key is the window, under an overcast sky.",
        (Some(_), true) => "The key is what a wall or the ceiling throws back.",
        (Some(light), false) if light.cloth.is_some() => "The key is the cloth before the lamp.",
        _ => "",
    }
}

/// What is told of the light and not scored.
pub fn details(lit: &LightReport<'_>) -> Vec<Reading> {
    let mut all = highlight::readings(lit.corner(), &lit.at_face());
    all.extend(detail::readings(lit));
    all.extend(lit.mixture().map_or_else(Vec::new, |mixture| tint::readings(lit.corner(), mixture)));
    all.extend(coloured::readings(lit));
    all.extend(power::readings(lit));
    all.extend(monitor::readings(lit));
    all.extend(keyed::readings(lit));
    all
}

fn face_readings(lit: &LightField<'_>) -> Vec<Reading> {
    let corner = lit.corner();
    let lit = lit.at_face();
    let camera = &corner.layout.camera;
    let needed = needed_lx(corner);
    let (reflectance, assumed) = mean_reflectance(corner.brief);
    let from = if assumed { Origin::Assumed } else { Origin::Typed };
    let illuminance = Reading::new(Quantity::LightFaceIlluminanceLx, lit.camera_lx)
        .by("E = L/2 |sum of Gamma (n . g)| over the edges of what is seen of each face, + the room by radiosity", AREA_FORMULA)
        .with("direct, towards the lens", lit.camera_lx - lit.bounce_lx, "lx", Origin::Computed)
        .with("room bounce", lit.bounce_lx, "lx", Origin::Computed)
        .with("mean reflectance", reflectance, "", from)
        .within(lit.camera_lx * 0.23)
        .note("On a surface at the eyes that faces the lens, past what stands in the light. Windows count under an overcast sky where they are the key, else as shut out. Good to 0.3 stop.");
    let (towards_lens_lx, told) = field::towards_lens_lx(corner, &lit);
    let exposure = Reading::new(Quantity::LightFaceExposureStops, (towards_lens_lx / needed).log2())
        .by("log2(E / (C N^2 2^ND / (t S)))", "ISO 2720:1974, C = 250 (from memory)")
        .with("light at the face", towards_lens_lx, "lx", told)
        .with("light needed", needed, "lx", Origin::Computed)
        .with("f-number", camera.f_number, "", Origin::Typed)
        .with("shutter", camera.shutter_s, "s", Origin::Typed)
        .with("ISO", camera.iso, "", Origin::Typed)
        .with("neutral density", camera.nd_stops, "stops", Origin::Typed)
        .with("script glass", corner.glass_stops(), "stops", Origin::Computed)
        .within(0.3);
    let ratio = Reading::new(Quantity::LightFaceRatio, lit.lit_lx / lit.shadow_lx)
        .by("all light on the cheek turned 45 degrees to the key / the other cheek", AREA_FORMULA)
        .with("lit cheek", lit.lit_lx, "lx", Origin::Computed)
        .with("shadow cheek", lit.shadow_lx, "lx", Origin::Computed)
        .with("of it room bounce", lit.shadow_bounce_lx, "lx", Origin::Computed)
        .with("apart", (lit.lit_lx / lit.shadow_lx).log2(), "stops", Origin::Computed)
        .with("lit cheek against the lens", (lit.lit_lx / lit.camera_lx).log2(), "stops", Origin::Computed)
        .with(
            "shadow cheek against the lens",
            (lit.shadow_lx / lit.camera_lx).log2(),
            "stops",
            Origin::Computed,
        )
        .with("mean reflectance", reflectance, "", from)
        .within(lit.lit_lx / lit.shadow_lx * 0.2);
    vec![illuminance, exposure, ratio]
}

/// Light that the camera's settings need at the face, lx, with filter and script glass.
fn needed_lx(corner: &Corner<'_>) -> f64 {
    let camera = &corner.layout.camera;
    illuminance_needed_lx(camera.f_number, camera.shutter_s, camera.iso, CALIBRATION)
        * (camera.nd_stops + corner.glass_stops()).exp2()
}

/// Whether a light entry emits by itself.
pub fn is_lamp(source: Source<'_>) -> bool {
    matches!(source, Source::Lamp(_))
}
