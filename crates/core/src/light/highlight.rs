//! Bright things in the picture: a lamp, the shade of a lit lamp among the furniture, a window by day; in stops over the
//! face, and whether the recording still holds them.

use std::f64::consts::PI;

use super::field::{self, FaceLight};
use crate::corner::{Corner, LightAt, Source, shown};
use crate::exposure::SATURATION_STOPS;
use crate::geometry::signed_area_m2;
use crate::person::given;
use crate::photometry::sky;
use crate::plan::{Furniture, FurnitureKind, Role, ThingId};
use crate::reading::{Origin, Quantity, Reading};
use crate::units::capital;

/// Reflectance of the skin where it is not told. Fogon's own rule: an average that fits nobody.
pub(super) const SKIN: f64 = 0.35;
/// What a bulb of a lamp among the furniture gives, lm, and the part that its shade lets through (common practice, no
/// source).
const BULB_LM: f64 = 470.0;
const SHADE: f64 = 0.5;
/// A shade is so much of its width high. Fogon's own rule.
const SHADE_HIGH: f64 = 0.8;
/// Smaller than this part of the picture nothing counts.
const SEEN: f64 = 0.0005;

/// What is bright.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Bright {
    /// A lamp of the layout.
    Lamp,
    /// A lamp among the furniture, lit.
    Shade,
    /// A window by day.
    Window,
}

/// Something bright in the picture.
#[derive(Debug, Clone, PartialEq)]
pub struct Highlight {
    /// The light, the piece of furniture or the window.
    pub id: ThingId,
    /// What it is.
    pub what: Bright,
    /// Its luminance, cd/m2.
    pub luminance_cd_m2: f64,
    /// Part of the picture that it fills.
    pub part: f64,
    /// Over the face, stops.
    pub over_face_stops: f64,
    /// What the recording holds above it, stops; negative where it burns out.
    pub margin_stops: f64,
}

/// Luminance of a lamp shade: flux x transmittance / (pi x area of its side), cd/m2.
pub fn shade_luminance_cd_m2(flux_lm: f64, transmittance: f64, lateral_area_m2: f64) -> f64 {
    flux_lm * transmittance / (PI * lateral_area_m2)
}

/// The shade of a lamp among the furniture, lit: its height, m, and its luminance, cd/m2.
pub fn shade(lamp: &Furniture) -> (f64, f64) {
    let [width, depth, height] = lamp.size_m.0;
    let high = (SHADE_HIGH * width).min(height);
    (high, shade_luminance_cd_m2(BULB_LM, SHADE, 2.0 * (width + depth) * high))
}

/// How many stops a luminance lies over a matt surface of this reflectance under this illuminance.
pub fn stops_over(luminance_cd_m2: f64, illuminance_lx: f64, reflectance: f64) -> f64 {
    (luminance_cd_m2 * PI / (reflectance * illuminance_lx)).log2()
}

/// Everything bright that the picture shows, as the camera is set.
pub fn highlights(corner: &Corner<'_>, lit: &FaceLight) -> Vec<Highlight> {
    let (face_lx, _) = field::towards_lens_lx(corner, lit);
    if face_lx <= 0.0 {
        return Vec::new();
    }
    let skin = skin(corner).0;
    let needed_lx = super::needed_lx(corner);
    bright(corner)
        .into_iter()
        .map(|(id, what, luminance_cd_m2, part)| Highlight {
            id,
            what,
            luminance_cd_m2,
            part,
            over_face_stops: stops_over(luminance_cd_m2, face_lx, skin),
            margin_stops: headroom(corner).0 - stops_over(luminance_cd_m2, needed_lx, 0.18),
        })
        .collect()
}

fn skin(corner: &Corner<'_>) -> (f64, Origin) {
    given(corner.brief.person.skin_reflectance, SKIN)
}

fn headroom(corner: &Corner<'_>) -> (f64, Origin) {
    let told = corner.body.common.figures_from();
    corner.body.headroom_stops.map_or((SATURATION_STOPS, Origin::Assumed), |stops| (stops, told))
}

/// Id, kind, luminance and part of the picture of what is bright and in it.
fn bright(corner: &Corner<'_>) -> Vec<(ThingId, Bright, f64, f64)> {
    let mut all = Vec::new();
    let seen = |corners: &[crate::geometry::DVec3]| {
        let outline = corner.outline_in_picture(corners)?;
        let (low, high) = shown(&outline)?;
        let part = signed_area_m2(&outline).abs().min((high.x - low.x) * (high.y - low.y));
        (part >= SEEN).then_some(part)
    };
    // A backdrop hides what is behind it.
    let screened = corner.backdrop_behind_m();
    let hidden = |at: crate::geometry::DVec3| {
        screened.is_some_and(|to| (corner.eyes_m - at).dot(corner.to_lens()) > to)
    };
    for light in corner.lights.iter().filter(|l| shines_at_lens(corner, l) && !hidden(l.position_m)) {
        let face = light.face();
        if let Some(part) = seen(&face.outline) {
            all.push((ThingId::Light(light.id.clone()), Bright::Lamp, face.luminance_cd_m2, part));
        }
    }
    let room = &corner.brief.room;
    for (id, piece) in room.furniture.iter().filter(|(_, piece)| piece.kind == FurnitureKind::Lamp) {
        let (high, luminance_cd_m2) = shade(piece);
        let mut corners = corner.furniture_box(id, piece);
        let lift = piece.size_m.0[2] - high;
        corners[..4].iter_mut().for_each(|c| c.z += lift);
        if !hidden(corners[0])
            && let Some(part) = seen(&corners)
        {
            all.push((ThingId::Furniture(id.clone()), Bright::Shade, luminance_cd_m2, part));
        }
    }
    for (id, opening, pane) in corner.clear_windows() {
        let corners = pane.corners();
        if !hidden(corners[0])
            && let Some(part) = seen(&corners)
        {
            all.push((
                ThingId::Opening(id.clone()),
                Bright::Window,
                sky::window_luminance_cd_m2(sky::OVERCAST_LX) * opening.curtain_lets_through(),
                part,
            ));
        }
    }
    all
}

/// A lamp in view whose bright side looks to the lens; boards throw back less than the face.
fn shines_at_lens(corner: &Corner<'_>, light: &LightAt<'_>) -> bool {
    let round = light.light.role == Role::Practical;
    matches!(light.source, Source::Lamp(_))
        && light.light.dim > 0.0
        && (round || light.face().shines_towards(corner.view.position_m))
}

pub(super) fn readings(corner: &Corner<'_>, lit: &FaceLight) -> Vec<Reading> {
    let (skin, skin_from) = skin(corner);
    let (headroom, headroom_from) = headroom(corner);
    let (face_lx, face_from) = field::towards_lens_lx(corner, lit);
    let reading = |found: Highlight| {
        let name = capital(&found.id.words());
        let from = if found.what == Bright::Lamp { Origin::Computed } else { Origin::Assumed };
        Reading::of(Quantity::LightHighlightStops, corner.name(&found.id), found.over_face_stops)
            .by(
                "log2(L pi / (skin x E)); held while log2(L pi / (0.18 E needed)) <= headroom",
                "Lambert; saturation of ISO 12232 (from memory): 2.97 stops over an 18 % card",
            )
            .with("luminance", found.luminance_cd_m2, "cd/m\u{b2}", from)
            .with("light at the face", face_lx, "lx", face_from)
            .with("reflectance of the skin", skin, "", skin_from)
            .with("held over an 18 % card", headroom, "stops", headroom_from)
            .with("left before it is blown out", found.margin_stops, "stops", Origin::Computed)
            .with("part of the picture", 100.0 * found.part, "%", Origin::Computed)
            .within(0.5)
            .note(match found.what {
                Bright::Lamp => "A practical lamp reads well at half a stop to two over the face: common practice, no source.",
                Bright::Shade => "Lit, with a bulb of 470 lm. It reads well at half a stop to two over the face: common practice, no source.",
                Bright::Window => "By day under an overcast sky, nothing before the pane; sun adds two stops and more.",
            })
            .called(format!("{name} over the face"))
    };
    highlights(corner, lit).into_iter().map(reading).collect()
}
