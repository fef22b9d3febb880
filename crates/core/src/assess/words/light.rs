//! Findings of the light that are no single reading's: what burns out in the picture.

use crate::corner::Corner;
use crate::finding::{Finding, Severity};
use crate::light::face::at_face;
use crate::light::highlight::{Bright, Highlight, highlights};
use crate::units::{capital, decimals};

/// A window larger than this part of the picture is more than a glint. Fogon's own rule.
const LARGE: f64 = 0.05;
/// A practical lamp is set to so many stops over the face, the middle of half a stop to two (common practice, no
/// source).
pub(crate) const PRACTICAL_STOPS: f64 = 1.25;

pub(super) fn notes(corner: &Corner<'_>) -> Vec<Finding> {
    if corner.lights.is_empty() {
        return Vec::new();
    }
    highlights(corner, &at_face(corner)).iter().filter_map(burnt_out).collect()
}

fn burnt_out(found: &Highlight) -> Option<Finding> {
    if found.margin_stops >= 0.0 || (found.what == Bright::Window && found.part < LARGE) {
        return None;
    }
    let name = capital(&found.id.replace('-', " "));
    let over = decimals(found.over_face_stops, 1);
    let (sentence, advice) = match found.what {
        Bright::Window => (
            format!(
                "By day the {} burns out over {} % of the picture: {over} stops over your face.",
                found.id.replace('-', " "),
                decimals(100.0 * found.part, 0)
            ),
            "Shut it out with an opaque curtain, turn so that it lights you from the front, or film after dark.",
        ),
        Bright::Shade => (
            format!("The lit {} burns out: {over} stops over your face.", found.id.replace('-', " ")),
            "Put in a weaker bulb or a dimmer, or leave it off.",
        ),
        Bright::Lamp => (
            format!("{name} burns out in the picture: {over} stops over your face."),
            "Dim it, soften it, or move it out of the picture.",
        ),
    };
    Some(
        Finding::new(format!("light.{}.highlight_stops", found.id), Severity::Consider, sentence)
            .because(
                "Where nothing is left but white, the eye goes there.",
                "saturation of ISO 12232 (from memory); 0.5 to 2 stops over the face: common practice, no source",
            )
            .on(
                format!("light.{}.highlight_stops", found.id),
                Some(found.over_face_stops),
                "stops",
            )
            .advise(advice),
    )
}
