//! Where a tape along the floor reaches: from the room's corners, or from two points of its own.

use crate::corner::{Corner, Kind, What, bounds, things};
use crate::geometry::{DVec2, DVec3, Solid, inside};
use crate::room::{CornerMark, corner_mark, worst_error_m};

/// A tape lies this high over the floor, m.
const TAPE_HEIGHT_M: f64 = 0.02;
/// The second point of a baseline is looked for every so often, and keeps this from walls and things, m.
const GRID_M: f64 = 0.20;
const CLEAR_M: f64 = 0.10;
/// A baseline shorter than this magnifies every error of the tape, m. Fogon's own rule.
const BASELINE_M: f64 = 0.8;

/// The room's corners, and what a tape along the floor cannot pass.
pub(super) struct Sight {
    pub(super) corners: Vec<(&'static str, DVec2)>,
    floor_m: Vec<DVec2>,
    solids: Vec<Solid>,
}

impl Sight {
    pub(super) fn new(corner: &Corner<'_>) -> Self {
        let room = &corner.brief.room;
        let lettered = corner.floor_m.iter().enumerate();
        let corners = lettered.map(|(index, at)| (room.corner_letter(index), *at)).collect();
        let furniture = things(corner).into_iter().filter(|thing| thing.kind == Kind::Furniture);
        // Between the legs of a desk a tape goes through.
        let bodies =
            furniture.flat_map(|thing| thing.pieces).filter(|part| part.what != What::Leg).map(|p| p.solid);
        let solids = bounds(room, 0.0).into_iter().map(|bound| bound.solid).chain(bodies).collect();
        Self { corners, floor_m: corner.floor_m.clone(), solids }
    }

    /// Nothing stands between two points of the floor.
    pub(super) fn is_free(&self, from: DVec2, to: DVec2) -> bool {
        let (from, to) = (from.extend(TAPE_HEIGHT_M), to.extend(TAPE_HEIGHT_M));
        !self.solids.iter().any(|solid| solid.blocks(from, to))
    }

    fn is_covered(&self, at: DVec2) -> bool {
        let low = at.extend(TAPE_HEIGHT_M);
        self.solids.iter().any(|solid| solid.blocks(low, low + DVec3::Z * TAPE_HEIGHT_M))
    }

    /// Tape lengths of a mark from the best two corners in sight; none where no two are.
    pub(super) fn tape(&self, at: DVec2, error_m: f64) -> Option<CornerMark> {
        // A tape is held a little inside the corner.
        let inside = |corner: DVec2| corner + (at - corner).normalize_or_zero() * TAPE_HEIGHT_M;
        let seen: Vec<_> =
            self.corners.iter().copied().filter(|(_, corner)| self.is_free(inside(*corner), at)).collect();
        corner_mark(at, &seen, error_m)
    }

    /// The point that, with `first`, fixes those of these marks best that both see: as many as can be, then with the least error
    /// at the worst of them. None where nothing is to be fixed.
    pub(super) fn baseline(&self, first: DVec2, marks: &[DVec2]) -> Option<DVec2> {
        if marks.is_empty() {
            return None;
        }
        let (low, high) = self
            .floor_m
            .iter()
            .fold((DVec2::MAX, DVec2::MIN), |(low, high), at| (low.min(*at), high.max(*at)));
        let count = ((high - low) / GRID_M).floor();
        let at = |x: u32, y: u32| low + DVec2::new(f64::from(x), f64::from(y)) * GRID_M;
        let columns = (0..=count.x as u32).flat_map(|x| (0..=count.y as u32).map(move |y| at(x, y)));
        let free = columns.filter(|at| {
            inside(&self.floor_m, *at, -CLEAR_M)
                && at.distance(first) >= BASELINE_M
                && self.is_free(first, *at)
                && !self.is_covered(*at)
        });
        let rank = |point: DVec2| {
            let seen = marks.iter().filter(|mark| self.is_free(point, **mark) && self.is_free(first, **mark));
            let errors = seen.map(|mark| worst_error_m(*mark, [first, point], 1.0));
            errors.fold((0_usize, 0.0_f64), |(count, worst), error| (count + 1, worst.max(error)))
        };
        let ranked = free.map(|point| (point, rank(point)));
        ranked.min_by(|(_, a), (_, b)| b.0.cmp(&a.0).then(a.1.total_cmp(&b.1))).map(|(point, _)| point)
    }
}
