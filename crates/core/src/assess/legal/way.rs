//! The way from a door to the chair: 0.60 m wide, past everything that stands or hangs in it. A grid of places where a
//! person fits, flooded from the doors.

use crate::corner::{Corner, Kind, Thing, What, exit_spaces};
use crate::geometry::{DVec2, beyond_m, hull, inside, whole_steps};
use crate::plan::{OpeningKind, ThingId};

/// Half the width of the way, m, less what the grid takes (0.60 m: common practice, no source).
const HALF_M: f64 = 0.27;
/// Width of the way in words, m.
pub(super) const WIDTH_M: f64 = 0.60;
/// The grid's step, m.
const STEP_M: f64 = 0.10;
/// What hangs higher is walked under, m; lower ceilings are not walked under.
const HEAD_M: f64 = 1.90;
const CEILING_M: f64 = 1.50;

/// A grid over the floor: where a person fits.
#[derive(Clone)]
struct Grid {
    /// The first place; the grid is centred, so that a mirrored room gives the mirrored answer.
    from: DVec2,
    columns: usize,
    rows: usize,
    free: Vec<bool>,
}

impl Grid {
    fn new(corner: &Corner<'_>) -> Self {
        let [width, depth, _] = corner.room_m;
        let count = |side: f64| whole_steps(side, STEP_M).max(1) + 1;
        let (columns, rows) = (count(width), count(depth));
        let room = &corner.brief.room;
        let low = !room.slopes.is_empty() || !room.beams.is_empty();
        let walkable =
            |at: DVec2| inside(&corner.floor_m, at, -HALF_M) && !(low && room.ceiling_m(at) < CEILING_M);
        let spare = |side: f64, count: usize| (side - (count - 1) as f64 * STEP_M) / 2.0;
        let from = DVec2::new(spare(width, columns), spare(depth, rows));
        let mut grid = Self { from, columns, rows, free: Vec::new() };
        grid.free = (0..columns * rows).map(|i| walkable(grid.place(i))).collect();
        grid
    }

    fn place(&self, index: usize) -> DVec2 {
        self.from + DVec2::new((index % self.columns) as f64, (index / self.columns) as f64) * STEP_M
    }

    /// Takes away the places nearer to an outline than half the way.
    fn block(&mut self, outline: &[DVec2]) {
        let (low, high) = outline
            .iter()
            .fold((DVec2::INFINITY, DVec2::NEG_INFINITY), |(low, high), p| (low.min(*p), high.max(*p)));
        let first = |v: f64| ((v - HALF_M) / STEP_M).ceil().max(0.0) as usize;
        let past = |v: f64, count: usize| {
            (((v + HALF_M) / STEP_M).floor().max(-1.0) + 1.0).min(count as f64) as usize
        };
        let (low, high) = (low - self.from, high - self.from);
        for row in first(low.y)..past(high.y, self.rows) {
            for column in first(low.x)..past(high.x, self.columns) {
                let index = row * self.columns + column;
                if self.free[index] && beyond_m(outline, self.place(index)) < HALF_M {
                    self.free[index] = false;
                }
            }
        }
    }

    /// The places that can be reached from those near some points.
    fn reached(&self, from: &[DVec2]) -> Vec<bool> {
        let mut seen = vec![false; self.free.len()];
        let mut line: Vec<usize> = (0..self.free.len())
            .filter(|i| self.free[*i] && from.iter().any(|p| (self.place(*i) - *p).length() < 2.0 * HALF_M))
            .collect();
        while let Some(index) = line.pop() {
            if std::mem::replace(&mut seen[index], true) {
                continue;
            }
            let (column, row) = (index % self.columns, index / self.columns);
            let mut go = |to: usize| {
                if self.free[to] && !seen[to] {
                    line.push(to);
                }
            };
            if column > 0 {
                go(index - 1);
            }
            if column + 1 < self.columns {
                go(index + 1);
            }
            if row > 0 {
                go(index - self.columns);
            }
            if row + 1 < self.rows {
                go(index + self.columns);
            }
        }
        seen
    }
}

/// What a layout put in every way from a door to the chair: the one thing without which there would be a way, or the
/// first of several; `None` where there is a way. Furniture where it always stood is the person's own business.
pub(super) fn barred_by<'a>(corner: &Corner<'_>, things: &'a [Thing]) -> Option<&'a Thing> {
    let openings = corner.brief.room.openings.values();
    let doors: Vec<DVec2> = openings
        .filter(|opening| opening.kind == OpeningKind::Door)
        .map(|opening| opening.middle_m(&corner.floor_m))
        .collect();
    if doors.is_empty() {
        return None;
    }
    let mut bare = Grid::new(corner);
    let (own, put): (Vec<&Thing>, Vec<&Thing>) = things
        .iter()
        .filter(|thing| thing.kind != Kind::Person)
        .partition(|thing| thing.kind == Kind::Furniture && !thing.moved);
    for thing in own {
        block(&mut bare, thing);
    }
    let barred = |without: Option<&ThingId>| {
        let mut grid = bare.clone();
        for thing in put.iter().filter(|thing| Some(&thing.id) != without) {
            block(&mut grid, thing);
        }
        !arrives(corner, &grid, &doors)
    };
    if !barred(None) || !arrives(corner, &bare, &doors) {
        return None;
    }
    put.iter().find(|thing| !barred(Some(&thing.id))).or(put.first()).copied()
}

fn block(grid: &mut Grid, thing: &Thing) {
    // Under a desk nobody walks: its top stands for all of it.
    for part in thing.pieces.iter().filter(|part| part.what != What::Leg) {
        let (low, _) = part.solid.bounds();
        if low.z < HEAD_M {
            let flat: Vec<DVec2> = part.solid.corners().iter().map(|p| p.truncate()).collect();
            grid.block(&hull(&flat));
        }
    }
}

/// Whether a place beside or behind the chair can be reached.
fn arrives(corner: &Corner<'_>, grid: &Grid, doors: &[DVec2]) -> bool {
    let seen = grid.reached(doors);
    let spaces = exit_spaces(corner);
    (0..seen.len()).filter(|i| seen[*i]).any(|i| {
        let at = grid.place(i);
        spaces.iter().any(|(_, outline, _)| inside(outline, at, 0.0))
    })
}
