//! The room's geometry: outline, walls and their names, ceiling, volume, surfaces.

use glam::{DVec2, DVec3};

use super::Room;
use super::opening::{Opening, OpeningKind};
use super::overhead::{Beam, Slope};
use super::surface::FlatSurface;
use crate::geometry::signed_area_m2;
use crate::plan::Id;

/// Names of the walls' surfaces, in their order.
pub const WALL_NAMES: [&str; 12] = [
    "wall-0", "wall-1", "wall-2", "wall-3", "wall-4", "wall-5", "wall-6", "wall-7", "wall-8", "wall-9",
    "wall-10", "wall-11",
];

/// Letters of the floor's corners, in their order.
const CORNER_LETTERS: &str = "abcdefghijkl";

/// A rectangle's sides may be askew by this much, m.
const SQUARE_M: f64 = 0.02;

/// Nothing is fixed nearer to a door or window than this, m. Fogon's own rule.
const ROUND_OPENING_M: f64 = 0.05;

/// How far a bearing that nobody judged may be off, degrees: a phone's compass (common practice, no source).
const USUAL_BEARING_ERROR_DEG: f64 = 10.0;

impl Room {
    /// How far the bearing of north may be off, degrees: as given, else 10.
    pub fn north_within_or_usual_deg(&self) -> f64 {
        self.north_within_deg.unwrap_or(USUAL_BEARING_ERROR_DEG)
    }

    /// It has a window, covered or not.
    pub fn has_window(&self) -> bool {
        self.openings.values().any(|opening| opening.kind == OpeningKind::Window)
    }
}

impl Room {
    /// The wall that a level line from a point inside meets first.
    pub fn wall_met(&self, from: DVec2, direction: DVec2) -> Option<usize> {
        let meets = |wall: usize| {
            let (a, b) = self.wall_m(wall)?;
            let along = b - a;
            let turn = direction.perp_dot(along);
            let (t, s) = ((a - from).perp_dot(along) / turn, (a - from).perp_dot(direction) / turn);
            (turn.abs() > 1e-9 && t > 0.0 && (-1e-6..=1.0 + 1e-6).contains(&s)).then_some((wall, t))
        };
        (0..self.floor_m.len()).filter_map(meets).min_by(|a, b| a.1.total_cmp(&b.1)).map(|(wall, _)| wall)
    }

    /// The floor outline, counter-clockwise, m.
    pub fn outline(&self) -> Vec<DVec2> {
        self.floor_m.iter().map(|p| (*p).into()).collect()
    }

    /// Width (along the back wall), depth and height of the box that holds the room, m.
    pub fn dimensions_m(&self) -> [f64; 3] {
        let most = |axis: usize| self.floor_m.iter().map(|p| p.0[axis]).fold(0.0, f64::max);
        [most(0), most(1), self.height_m]
    }

    /// Whether the floor is one rectangle, its corners from the back-left one on.
    pub fn is_rectangle(&self) -> bool {
        let [width, depth, _] = self.dimensions_m();
        let square = [[0.0, 0.0], [width, 0.0], [width, depth], [0.0, depth]];
        self.floor_m.len() == 4
            && self
                .floor_m
                .iter()
                .zip(square)
                .all(|(p, q)| (p.0[0] - q[0]).abs() < SQUARE_M && (p.0[1] - q[1]).abs() < SQUARE_M)
    }

    /// Where a wall begins and ends, m.
    pub fn wall_m(&self, wall: usize) -> Option<(DVec2, DVec2)> {
        let start = self.floor_m.get(wall)?;
        let end = self.floor_m.get((wall + 1) % self.floor_m.len())?;
        Some(((*start).into(), (*end).into()))
    }

    /// Letter of a corner on drawings and cards.
    pub fn corner_letter(&self, corner: usize) -> &'static str {
        CORNER_LETTERS.get(corner..=corner).unwrap_or("")
    }

    /// A wall in words: by its side in a rectangle, else by its corners.
    pub fn wall_name(&self, wall: usize) -> String {
        match ["the back wall", "the right wall", "the front wall", "the left wall"].get(wall) {
            Some(name) if self.is_rectangle() => (*name).to_owned(),
            _ => {
                let next = (wall + 1) % self.floor_m.len().max(1);
                format!("wall {}\u{2013}{}", self.corner_letter(wall), self.corner_letter(next))
            }
        }
    }

    /// Height of the ceiling over a point, under slopes and beams, m.
    pub fn ceiling_m(&self, at: DVec2) -> f64 {
        let slopes = self.slopes.values().filter_map(|slope| slope.height_m(self, at));
        let beams =
            self.beams.values().filter(|beam| beam.is_over(at)).map(|beam| self.height_m - beam.drop_m);
        slopes.chain(beams).fold(self.height_m, f64::min)
    }

    /// Volume of the air, m3; where slopes overlap, both are taken out.
    pub fn volume_m3(&self) -> f64 {
        let slopes = self.slopes.values().map(|s| s.length_along_m(self) * s.cut_m2(self)).sum::<f64>();
        let beams = self.beams.values().map(|b| b.length_m() * b.width_m * b.drop_m).sum::<f64>();
        (signed_area_m2(&self.outline()) * self.height_m - slopes - beams).max(0.1)
    }

    /// Every surface with its area, m2: the walls, the floor, the ceiling with its slopes and beams.
    pub fn surfaces_m2(&self) -> Vec<(&'static str, f64)> {
        let floor = signed_area_m2(&self.outline());
        let mut ceiling = floor;
        let mut walls: Vec<(&'static str, f64)> = WALL_NAMES
            .iter()
            .zip(0..self.floor_m.len())
            .filter_map(|(name, wall)| {
                let (start, end) = self.wall_m(wall)?;
                Some((*name, (end - start).length() * self.height_m))
            })
            .collect();
        let count = walls.len();
        for slope in self.slopes.values() {
            let (long, rise) = (slope.length_along_m(self), self.height_m - slope.knee_m);
            ceiling += long * (slope.run_m.hypot(rise) - slope.run_m);
            let Some((start, end)) = self.wall_m(usize::from(slope.wall)) else { continue };
            walls[usize::from(slope.wall)].1 -= long * rise;
            // At its ends a slope takes a triangle from the next wall, or shows one of its own.
            let ends = [
                (slope.from_m < SQUARE_M, (usize::from(slope.wall) + count - 1) % count),
                (
                    (end - start).length() - slope.from_m - long < SQUARE_M,
                    (usize::from(slope.wall) + 1) % count,
                ),
            ];
            for (at_corner, next) in ends {
                if at_corner {
                    walls[next].1 -= slope.cut_m2(self);
                } else {
                    ceiling += slope.cut_m2(self);
                }
            }
        }
        ceiling += self.beams.values().map(|b| 2.0 * b.length_m() * b.drop_m).sum::<f64>();
        walls.iter_mut().for_each(|wall| wall.1 = wall.1.max(0.0));
        walls.push(("floor", floor));
        walls.push(("ceiling", ceiling));
        walls
    }
}

impl Room {
    /// A wall, the floor or the ceiling as a plane, by name.
    pub fn surface(&self, name: &str) -> Option<FlatSurface> {
        let [width, depth, height] = self.dimensions_m();
        let flat = |corner_m, normal| FlatSurface {
            corner_m,
            axes: [DVec3::X, DVec3::Y],
            size_m: [width, depth],
            normal,
        };
        match name {
            "floor" => Some(flat(DVec3::ZERO, DVec3::Z)),
            "ceiling" => Some(flat(DVec3::Z * height, -DVec3::Z)),
            _ => {
                let wall = WALL_NAMES.iter().position(|other| *other == name)?;
                let (start, end) = self.wall_m(wall)?;
                let along = (end - start).normalize_or_zero();
                // A slope that comes down to it takes from its height.
                let height = self.ceiling_m((start + end) / 2.0 + along.perp() * 0.01);
                Some(FlatSurface {
                    corner_m: start.extend(0.0),
                    axes: [along.extend(0.0), DVec3::Z],
                    size_m: [(end - start).length(), height],
                    normal: along.perp().extend(0.0),
                })
            }
        }
    }
}

impl Room {
    /// The door or window in which a point on a wall lies, `z` above the floor; 5 cm round it count as in it.
    pub fn opening_at(&self, on_wall: DVec2, z: f64) -> Option<&Id> {
        let floor = self.outline();
        let near = |opening: &Opening| {
            let (start, end) = self.wall_m(usize::from(opening.wall))?;
            let along = (end - start).normalize_or_zero();
            let off = on_wall - opening.middle_m(&floor);
            let (low, high) =
                (opening.sill_or_usual_m(), opening.sill_or_usual_m() + opening.height_or_usual_m());
            let beside = off.dot(along).abs() <= opening.width_m / 2.0 + ROUND_OPENING_M;
            let within = (low - ROUND_OPENING_M..=high + ROUND_OPENING_M).contains(&z);
            (beside && within && off.perp_dot(along).abs() < ROUND_OPENING_M).then_some(())
        };
        self.openings.iter().find(|(_, opening)| near(opening).is_some()).map(|(id, _)| id)
    }
}

impl Slope {
    /// Length along its wall, m: as given, else to the wall's end.
    pub fn length_along_m(&self, room: &Room) -> f64 {
        let wall = room.wall_m(usize::from(self.wall)).map_or(0.0, |(start, end)| (end - start).length());
        self.length_m.unwrap_or(wall - self.from_m).max(0.0)
    }

    /// Area of the triangle that it takes out of the room's section, m2.
    fn cut_m2(&self, room: &Room) -> f64 {
        self.run_m * (room.height_m - self.knee_m).max(0.0) / 2.0
    }

    /// Its two ends on the floor line of its wall, and the direction into the room.
    pub fn ends_m(&self, room: &Room) -> Option<(DVec2, DVec2, DVec2)> {
        let (start, end) = room.wall_m(usize::from(self.wall))?;
        let along = (end - start).normalize_or_zero();
        let from = start + along * self.from_m;
        Some((from, from + along * self.length_along_m(room), along.perp()))
    }

    /// Its height over a point; `None` where it is not.
    fn height_m(&self, room: &Room, at: DVec2) -> Option<f64> {
        let (from, to, inward) = self.ends_m(room)?;
        let along = (to - from).normalize_or_zero();
        let (beside, off) = ((at - from).dot(along), (at - from).dot(inward));
        let over = (0.0..=(to - from).length()).contains(&beside) && (0.0..=self.run_m).contains(&off);
        over.then(|| self.knee_m + (room.height_m - self.knee_m) * off / self.run_m)
    }
}

impl Beam {
    /// Length, m.
    pub fn length_m(&self) -> f64 {
        (DVec2::from(self.to_m) - DVec2::from(self.from_m)).length()
    }

    /// Its outline seen from above, counter-clockwise, m.
    pub fn outline_m(&self) -> [DVec2; 4] {
        let (from, to) = (DVec2::from(self.from_m), DVec2::from(self.to_m));
        let side = (to - from).normalize_or_zero().perp() * (self.width_m / 2.0);
        [from - side, to - side, to + side, from + side]
    }

    fn is_over(&self, at: DVec2) -> bool {
        crate::geometry::inside(&self.outline_m(), at, 0.0)
    }
}
