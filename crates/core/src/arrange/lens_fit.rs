//! Whether a lens frames the person somewhere in the room at all, before anything is laid out.

use super::optics::Optics;
use crate::geometry::DVec2;
use crate::plan::{Brief, Id};

/// How a lens fits a room.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum LensFit {
    /// Some take fits.
    Fits,
    /// Where it frames the person it is nearer than it focuses: the nearest focus and the distance, m.
    TooNear {
        /// From the sensor, m.
        nearest_focus_m: f64,
        /// From the eyes to the sensor in the farthest take, m.
        distance_m: f64,
    },
    /// It needs more depth than the room has anywhere, m.
    TooLong {
        /// From the eyes back to the end of the room that the camera needs, m.
        needs_m: f64,
        /// The longest line in the room, m.
        has_m: f64,
    },
}

/// How a lens at hand on a body at hand fits the room of a brief.
pub fn lens_fit(brief: &Brief, body: &Id, lens: &Id) -> LensFit {
    let all = Optics::all(brief);
    let Some(optics) = all.iter().find(|one| one.body_id == body && one.lens_id == lens) else {
        return LensFit::Fits;
    };
    let takes: Vec<_> = optics.takes(brief, 1.0).into_iter().map(|take| optics.posed(brief, take)).collect();
    let has_m = longest_m(&brief.room.outline());
    let needs = |posed: &super::optics::Posed| posed.ahead_m + posed.behind_m;
    let sharp: Vec<_> = takes.iter().filter(|posed| posed.too_near_m <= 0.0).collect();
    let least = sharp.iter().map(|posed| needs(posed)).fold(f64::INFINITY, f64::min);
    if least <= has_m {
        LensFit::Fits
    } else if sharp.is_empty() {
        let distance_m = takes
            .iter()
            .map(|posed| optics.lens.nearest_focus_m - posed.too_near_m)
            .fold(f64::NEG_INFINITY, f64::max);
        LensFit::TooNear { nearest_focus_m: optics.lens.nearest_focus_m, distance_m }
    } else {
        LensFit::TooLong { needs_m: least, has_m }
    }
}

/// The longest line between two corners of a floor, m.
fn longest_m(floor: &[DVec2]) -> f64 {
    let pairs = floor.iter().flat_map(|a| floor.iter().map(move |b| (*a - *b).length()));
    pairs.fold(0.0, f64::max)
}
