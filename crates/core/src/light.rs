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
pub mod house;
mod keyed;
mod laws;
pub mod mirrored;
pub mod monitor;
pub mod placement;
pub mod power;
pub mod report;
pub mod tint;

use crate::corner::{Corner, Source};
use crate::geometry::angle_between_deg;
use crate::plan::{Brief, LightSchool, Role, ThingId};
use crate::reading::{Origin, Quantity, Reading};

use laws::{AREA_FORMULA, needed_lx};

pub use field::{LightField, windows};
pub use laws::{
    FillNeeded, angular_size_deg, bounce_estimate_lx, fill_needed, inverse_square_lx, lighting_ratio,
    penumbra_m,
};
pub use report::LightReport;

/// Added to half the diagonal field: a light nearer than this to the picture may flare (Fogon's own rule).
pub const FLARE_MARGIN_DEG: f64 = 5.0;

/// How far a light lies outside the cone that holds the picture, less the flare margin, degrees.
pub fn flare_margin_deg(corner: &Corner<'_>, light_m: crate::geometry::DVec3) -> f64 {
    let off_axis = angle_between_deg(corner.view.forward, light_m - corner.view.position_m);
    off_axis - corner.view.fields_deg().2 / 2.0 - FLARE_MARGIN_DEG
}

/// What the light trade reads off a corner.
pub fn readings(corner: &Corner<'_>, lit: &LightField<'_>) -> Vec<Reading> {
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
        let told = key.light.map_or(Origin::Typed, |light| light.common().figures_from());
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
    all.extend(face_readings(lit));
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
        (Some(_), true) => "The key is the light that a wall or the ceiling reflects.",
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
    let (reflectance, assumed) = corner.brief.room.mean_reflectance();
    let from = if assumed { Origin::Assumed } else { Origin::Typed };
    let illuminance = Reading::new(Quantity::LightFaceIlluminanceLx, lit.camera_lx)
        .by("E = L/2 |sum of Gamma (n . g)| over the edges of what is seen of each face, + the room by radiosity", AREA_FORMULA)
        .with("direct, towards the lens", lit.camera_lx - lit.bounce_lx, "lx", Origin::Computed)
        .with("room bounce", lit.bounce_lx, "lx", Origin::Computed)
        .with("mean reflectance", reflectance, "", from)
        .within(lit.camera_lx * 0.23)
        .note("On a surface at the eyes that faces the lens, past what stands in the light. Windows count under an overcast sky where they are the key, else as covered. Good to 0.3 stop.");
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

/// Whether the school of the lights wants a back light.
pub fn wants_back(brief: &Brief) -> bool {
    brief.schools.lights == LightSchool::ThreePoint
}

/// Whether a light entry emits by itself.
pub fn is_lamp(source: Source<'_>) -> bool {
    matches!(source, Source::Lamp(_))
}
