//! Light on the background: its colour against the key's, and what of it spills on the face.

use super::AREA_FORMULA;
use super::field::LightField;
use crate::colour::{difference_uv_1976, xy_at};
use crate::corner::{Corner, LightAt};
use crate::plan::{Role, ThingId};
use crate::reading::{Origin, Quantity, Reading};

/// The colour of a light: as set on the lamp, else that of its temperature.
pub fn xy_of(light: &LightAt<'_>) -> [f64; 2] {
    light.light.colour.map_or_else(|| xy_at(light.cct_k(), 0.0), |colour| [colour.x, colour.y])
}

/// A light that may differ in colour on purpose: it lights the background, or is there to be seen.
pub fn is_apart(light: &LightAt<'_>) -> bool {
    matches!(light.light.role, Role::Background | Role::Practical)
}

fn key_xy(corner: &Corner<'_>) -> Option<[f64; 2]> {
    corner.role(Role::Key).next().map(xy_of)
}

pub(super) fn readings(field: &LightField<'_>) -> Vec<Reading> {
    let corner = field.corner();
    let face_lx = field.at_face().camera_lx;
    let mut all = Vec::new();
    for (light, lux) in field.lamps_lx().filter(|(light, _)| is_apart(light)) {
        let (words, name) = (light.words(), corner.name(&ThingId::Light(light.id.clone())));
        if let Some(key) = key_xy(corner) {
            let difference = difference_uv_1976(key, xy_of(light));
            all.push(
                Reading::of(Quantity::LightContrastUv, name.as_str(), difference)
                    .by(
                        "distance from the key's colour in CIE 1976 (u', v')",
                        "CIE 015 (from memory); 0.02 is seen, 0.05 is plain: Fogon's own rule",
                    )
                    .note("On the background a difference is wanted; on the face it is not.")
                    .called(format!("Colour of the {words} against the key")),
            );
        }
        let spill = Reading::of(Quantity::LightSpillStops, name, (lux / face_lx).log2())
            .by("log2(what it gives the face straight / all light on the face)", AREA_FORMULA)
            .with("on the face", lux, "lx", Origin::Computed)
            .with("all light on the face", face_lx, "lx", Origin::Computed)
            .note("Four stops and more below is well, of a coloured light: common practice, no source.")
            .called(format!("The {words} on your face"));
        if spill.value.is_some() {
            all.push(spill);
        }
    }
    all
}
