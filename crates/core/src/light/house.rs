//! The light that a room has though nobody told of a lamp: one ceiling light in its middle. It shines where the layout has no
//! lamp and no window counts; before a key it is switched off.

use crate::corner::{Corner, Source, is_of_the_house};
use crate::geometry::{DVec2, DVec3, inside};
use crate::photometry::Face;
use crate::plan::Room;

/// Its flux, lm, its colour, K, its width, m, and how far it hangs below the ceiling, m. Fogon's own rule.
pub const FLUX_LM: f64 = 800.0;
/// Warm white, K.
pub const CCT_K: f64 = 2700.0;
const WIDTH_M: f64 = 0.30;
const BELOW_M: f64 = 0.10;

/// Whether it is what lights the room.
pub fn shines(corner: &Corner<'_>) -> bool {
    let has_lamp = corner.lights.iter().any(|light| matches!(light.source, Source::Lamp(_)));
    !has_lamp && !corner.brief.windows_shine()
}

/// What is done with the ceiling light before a take: on where it lights the room, off before other light, and nothing where a lamp
/// of the plan hangs there.
pub fn before_a_take(corner: &Corner<'_>) -> Option<&'static str> {
    if shines(corner) {
        return Some("ceiling light on");
    }
    (!corner.lights.iter().any(is_of_the_house)).then_some("ceiling light off")
}

/// Its face: a flat one that looks down and spreads its light by Lambert's law.
pub fn face(room: &Room) -> Face {
    let at = middle(room);
    let lamp = at.extend(room.ceiling_m(at) - BELOW_M);
    let half = WIDTH_M / 2.0;
    // Clockwise seen from above: its normal looks down.
    let corners = [(-half, -half), (-half, half), (half, half), (half, -half)];
    let outline = corners.map(|(x, y)| lamp + DVec3::new(x, y, 0.0)).to_vec();
    let mut face = Face::flat(outline, 1.0);
    face.luminance_cd_m2 = FLUX_LM / face.flux_lm();
    face
}

/// The middle of the box that holds the room, where that is inside, else of the first corners that have it inside.
fn middle(room: &Room) -> DVec2 {
    let outline = room.outline();
    let [width, depth, _] = room.dimensions_m();
    let of_box = DVec2::new(width, depth) / 2.0;
    if inside(&outline, of_box, -WIDTH_M) {
        return of_box;
    }
    let count = outline.len();
    let of_three = |i: usize| (outline[i] + outline[(i + 1) % count] + outline[(i + 2) % count]) / 3.0;
    (0..count).map(of_three).find(|at| inside(&outline, *at, -WIDTH_M)).unwrap_or(of_box)
}
