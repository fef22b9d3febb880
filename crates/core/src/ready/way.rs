//! The shortest way over the floor round the furniture, for somebody who carries a stand.

use pathfinding::directed::dijkstra::dijkstra;

use crate::corner::Corner;
use crate::geometry::{DVec2, bearing_vector, beyond_m};

/// A folded stand is so high, m: what hangs higher is over it. Fogon's own rule.
pub(super) const FOLDED_HIGH_M: f64 = 1.3;
/// A person with a stand keeps so far from furniture, m. Fogon's own rule.
const CLEAR_M: f64 = 0.25;

/// The outlines that a way goes round.
pub(super) struct Floor {
    walls: Vec<DVec2>,
    pieces: Vec<[DVec2; 4]>,
}

impl Floor {
    pub(super) fn of(corner: &Corner<'_>) -> Self {
        let furniture = corner.brief.room.furniture.iter();
        let low = furniture.map(|(id, piece)| (corner.furniture_at(id, piece), piece.size_m.0));
        let pieces =
            low.filter(|((at, _), _)| at.z < FOLDED_HIGH_M).map(|((at, bearing_deg), [width, depth, _])| {
                rectangle(at.truncate(), bearing_deg, width, depth)
            });
        Self { walls: corner.floor_m.clone(), pieces: pieces.collect() }
    }

    /// Length of the shortest way, m; straight where none leads round.
    pub(super) fn way_m(&self, from: DVec2, to: DVec2) -> f64 {
        let straight = from.distance(to);
        if self.is_free(from, to) {
            return straight;
        }
        let knees = self.pieces.iter().flat_map(|piece| {
            let middle = piece.iter().sum::<DVec2>() / 4.0;
            piece.map(|corner| {
                corner + (corner - middle).normalize_or_zero() * (CLEAR_M * std::f64::consts::SQRT_2)
            })
        });
        let knees = knees.filter(|knee| beyond_m(&self.walls, *knee) < -0.05);
        let inner = self.walls.iter().map(|corner| {
            let middle = self.walls.iter().sum::<DVec2>() / self.walls.len().max(1) as f64;
            *corner + (middle - *corner).normalize_or_zero() * CLEAR_M
        });
        let points: Vec<DVec2> = [from, to].into_iter().chain(knees).chain(inner).collect();
        let millimetres = |a: usize, b: usize| (points[a].distance(points[b]) * 1000.0).round() as u64;
        let onward = |at: &usize| {
            let at = *at;
            let free = (0..points.len()).filter(move |other| *other != at);
            free.filter(|other| self.is_free(points[at], points[*other]))
                .map(|other| (other, millimetres(at, other)))
                .collect::<Vec<_>>()
        };
        dijkstra(&0, onward, |at| *at == 1).map_or(straight, |(_, long)| long as f64 / 1000.0)
    }

    /// A straight way meets neither furniture nor a wall.
    fn is_free(&self, from: DVec2, to: DVec2) -> bool {
        let steps = crate::geometry::whole_steps(from.distance(to), 0.1).max(1);
        let between = (0..=steps).map(|step| from.lerp(to, step as f64 / steps as f64));
        between.into_iter().all(|at| {
            // Ends may be close to furniture: there the stand is set down.
            let is_end = at.distance(from).min(at.distance(to)) < CLEAR_M;
            beyond_m(&self.walls, at) < 0.0
                && (is_end || self.pieces.iter().all(|piece| beyond_m(piece, at) > CLEAR_M * 0.8))
        })
    }
}

/// A rectangle on the floor that faces a bearing, counter-clockwise.
pub(super) fn rectangle(middle: DVec2, bearing_deg: f64, width: f64, depth: f64) -> [DVec2; 4] {
    let facing = bearing_vector(bearing_deg).truncate();
    let (across, along) = (DVec2::new(facing.y, -facing.x) * (width / 2.0), facing * (depth / 2.0));
    [middle - across - along, middle + across - along, middle + across + along, middle - across + along]
}
