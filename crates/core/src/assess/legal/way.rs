//! The way from a door to the chair: 0.60 m wide, past everything that stands or hangs in it. A grid of places where a
//! person fits, looked at from the doors on towards the chair.

use std::cmp::Reverse;
use std::collections::BinaryHeap;

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

/// What stands in the way, seen from above, with the box around it.
struct Outline {
    points: Vec<DVec2>,
    low: DVec2,
    high: DVec2,
}

/// A grid over the floor, looked at where a way leads: a hall costs no more than a closet.
struct Grid<'a> {
    corner: &'a Corner<'a>,
    /// The first place; the grid is centred, so that a mirrored room gives the mirrored answer.
    from: DVec2,
    columns: usize,
    rows: usize,
    /// Slopes or beams come down on the way.
    low: bool,
    doors: Vec<DVec2>,
    /// The places to get out of the chair.
    spaces: [[DVec2; 4]; 3],
}

impl<'a> Grid<'a> {
    fn new(corner: &'a Corner<'a>, doors: Vec<DVec2>) -> Self {
        let [width, depth, _] = corner.room_m;
        let count = |side: f64| whole_steps(side, STEP_M).max(1) + 1;
        let (columns, rows) = (count(width), count(depth));
        let room = &corner.brief.room;
        let spare = |side: f64, count: usize| (side - (count - 1) as f64 * STEP_M) / 2.0;
        Self {
            corner,
            from: DVec2::new(spare(width, columns), spare(depth, rows)),
            columns,
            rows,
            low: !room.slopes.is_empty() || !room.beams.is_empty(),
            doors,
            spaces: exit_spaces(corner).map(|(_, outline, _)| outline),
        }
    }

    fn place(&self, column: usize, row: usize) -> DVec2 {
        self.from + DVec2::new(column as f64, row as f64) * STEP_M
    }

    /// Whether a person fits there.
    fn is_free(&self, at: DVec2, barring: &[&Outline]) -> bool {
        inside(&self.corner.floor_m, at, -HALF_M)
            && !(self.low && self.corner.brief.room.ceiling_m(at) < CEILING_M)
            && !barring.iter().any(|outline| {
                at.cmpge(outline.low - HALF_M).all()
                    && at.cmple(outline.high + HALF_M).all()
                    && beyond_m(&outline.points, at) < HALF_M
            })
    }

    /// The places near the doors.
    fn starts(&self) -> Vec<(usize, usize)> {
        let near = |at: f64, from: f64, count: usize| {
            let first = ((at - 2.0 * HALF_M - from) / STEP_M).ceil().max(0.0) as usize;
            let past = ((at + 2.0 * HALF_M - from) / STEP_M).floor() + 1.0;
            first..(past.max(0.0) as usize).min(count)
        };
        let mut all = Vec::new();
        for door in &self.doors {
            for row in near(door.y, self.from.y, self.rows) {
                let columns = near(door.x, self.from.x, self.columns);
                all.extend(
                    columns
                        .map(|column| (column, row))
                        .filter(|(column, row)| (self.place(*column, *row) - *door).length() < 2.0 * HALF_M),
                );
            }
        }
        all
    }

    /// Whether a place beside or behind the chair can be reached from a door past what bars the way: the places nearest to the
    /// chair are looked at first.
    fn arrives(&self, barring: &[&Outline]) -> bool {
        let seat = self.corner.eyes_m.truncate();
        let mut seen = vec![false; self.columns * self.rows];
        // Whole millimetres, nearest first, then in grid order.
        let mut line: BinaryHeap<Reverse<(u64, usize)>> = BinaryHeap::new();
        let mut look = |column: usize, row: usize, line: &mut BinaryHeap<Reverse<(u64, usize)>>| {
            let index = row * self.columns + column;
            let at = self.place(column, row);
            if !std::mem::replace(&mut seen[index], true) && self.is_free(at, barring) {
                line.push(Reverse((((at - seat).length() * 1000.0) as u64, index)));
            }
        };
        for (column, row) in self.starts() {
            look(column, row, &mut line);
        }
        while let Some(Reverse((_, index))) = line.pop() {
            let (column, row) = (index % self.columns, index / self.columns);
            let at = self.place(column, row);
            if self.spaces.iter().any(|outline| inside(outline, at, 0.0)) {
                return true;
            }
            if column > 0 {
                look(column - 1, row, &mut line);
            }
            if column + 1 < self.columns {
                look(column + 1, row, &mut line);
            }
            if row > 0 {
                look(column, row - 1, &mut line);
            }
            if row + 1 < self.rows {
                look(column, row + 1, &mut line);
            }
        }
        false
    }
}

/// The doors' ways to the chair, and what may bar them: what always stood there, and what a layout put there.
struct Ways<'a> {
    grid: Grid<'a>,
    own: Vec<Outline>,
    put: Vec<(&'a Thing, Vec<Outline>)>,
}

impl<'a> Ways<'a> {
    /// `None` in a room without a door.
    fn of(corner: &'a Corner<'a>, things: &'a [Thing]) -> Option<Self> {
        let openings = corner.brief.room.openings.values();
        let doors: Vec<DVec2> = openings
            .filter(|opening| opening.kind == OpeningKind::Door)
            .map(|opening| opening.middle_m(&corner.floor_m))
            .collect();
        if doors.is_empty() {
            return None;
        }
        let (own, put): (Vec<&Thing>, Vec<&Thing>) = things
            .iter()
            .filter(|thing| thing.kind != Kind::Person)
            .partition(|thing| thing.kind == Kind::Furniture && !thing.moved);
        Some(Self {
            grid: Grid::new(corner, doors),
            own: own.into_iter().flat_map(outlines).collect(),
            put: put.into_iter().map(|thing| (thing, outlines(thing))).collect(),
        })
    }

    /// Whether there is a way, one thing taken out of it.
    fn is_open_without(&self, without: Option<&ThingId>) -> bool {
        let others = self.put.iter().filter(|(thing, _)| Some(&thing.id) != without);
        let all: Vec<&Outline> = self.own.iter().chain(others.flat_map(|(_, outlines)| outlines)).collect();
        self.grid.arrives(&all)
    }

    /// Whether there is a way, or none to begin with: furniture where it always stood is the person's own business.
    fn is_open(&self) -> bool {
        self.is_open_without(None) || !self.grid.arrives(&self.own.iter().collect::<Vec<_>>())
    }
}

/// Whether a layout leaves a way from a door to the chair.
pub fn is_open(corner: &Corner<'_>, things: &[Thing]) -> bool {
    Ways::of(corner, things).is_none_or(|ways| ways.is_open())
}

/// What a layout put in every way from a door to the chair: the one thing without which there would be a way, or the
/// first of several; `None` where there is a way.
pub(super) fn barred_by<'a>(corner: &'a Corner<'a>, things: &'a [Thing]) -> Option<&'a Thing> {
    let ways = Ways::of(corner, things).filter(|ways| !ways.is_open())?;
    let needed = ways.put.iter().map(|(thing, _)| *thing).find(|thing| ways.is_open_without(Some(&thing.id)));
    needed.or(ways.put.first().map(|(thing, _)| *thing))
}

/// What of a thing is not walked under.
fn outlines(thing: &Thing) -> Vec<Outline> {
    // Under a desk nobody walks: its top stands for all of it.
    let parts = thing.pieces.iter().filter(|part| part.what != What::Leg);
    let in_the_way = parts.filter(|part| part.solid.bounds().0.z < HEAD_M);
    in_the_way
        .map(|part| {
            let flat: Vec<DVec2> = part.solid.corners().iter().map(|p| p.truncate()).collect();
            let points = hull(&flat);
            let (low, high) = points
                .iter()
                .fold((DVec2::INFINITY, DVec2::NEG_INFINITY), |(low, high), p| (low.min(*p), high.max(*p)));
            Outline { points, low, high }
        })
        .collect()
}
