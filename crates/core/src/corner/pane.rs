//! A window as light sees it: a rectangle in its wall or slope, with its reveal behind it.

use crate::geometry::{DVec2, DVec3};
use crate::plan::{Opening, Room};

/// A window's inner rectangle, and how deep behind it the pane lies.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Pane {
    /// Its middle, m.
    pub middle_m: DVec3,
    /// Unit vector along the wall as it runs: to the left for who looks out.
    pub along: DVec3,
    /// Unit vector up the wall or the slope.
    pub up: DVec3,
    /// Unit vector outwards.
    pub out: DVec3,
    /// Half of its width and height, m.
    pub half_m: DVec2,
    /// Depth of the reveal, m.
    pub reveal_m: f64,
}

impl Pane {
    /// The rectangle of an opening; none where its wall or slope is none of the room's.
    pub fn of(room: &Room, opening: &Opening) -> Option<Self> {
        Self::up_to(room, opening, opening.height_or_usual_m())
    }

    /// The part of a window that neither blind nor dark curtain covers; none where nothing is left.
    pub fn clear(room: &Room, opening: &Opening) -> Option<Self> {
        opening.is_open_to_light().then(|| Self::up_to(room, opening, opening.clear_height_m())).flatten()
    }

    fn up_to(room: &Room, opening: &Opening, height_m: f64) -> Option<Self> {
        let (start, end) = room.wall_m(usize::from(opening.wall))?;
        let flat = (end - start).normalize_or_zero();
        let along = flat.extend(0.0);
        let foot = (start + flat * (opening.from_m + opening.width_m / 2.0)).extend(0.0);
        let sill_m = opening.sill_or_usual_m();
        let (lower_m, up) = match &opening.slope {
            None => (foot + DVec3::Z * sill_m, DVec3::Z),
            Some(id) => {
                let slope = room.slopes.get(id)?;
                let inward = flat.perp().extend(0.0);
                let rise_m = room.height_m - slope.knee_m;
                let up = (inward * slope.run_m + DVec3::Z * rise_m).normalize_or_zero();
                let off_m = slope.run_m * (sill_m - slope.knee_m) / rise_m.max(1e-6);
                (foot + DVec3::Z * sill_m + inward * off_m, up)
            }
        };
        Some(Self {
            middle_m: lower_m + up * (height_m / 2.0),
            along,
            up,
            out: along.cross(up),
            half_m: DVec2::new(opening.width_m, height_m) / 2.0,
            reveal_m: opening.reveal_or_usual_m(),
        })
    }

    /// Its corners: along the wall below, then back above.
    pub fn corners(&self) -> [DVec3; 4] {
        let at =
            |x: f64, y: f64| self.middle_m + self.along * (x * self.half_m.x) + self.up * (y * self.half_m.y);
        [at(-1.0, -1.0), at(1.0, -1.0), at(1.0, 1.0), at(-1.0, 1.0)]
    }

    /// Its area, m2.
    pub fn area_m2(&self) -> f64 {
        4.0 * self.half_m.x * self.half_m.y
    }

    /// How steeply a direction leaves it; 0 or less for one that does not.
    pub fn leaves(&self, direction: DVec3) -> f64 {
        self.out.dot(direction)
    }

    /// Whether a straight way from a point in the room in a direction goes out through it and past its reveal.
    pub fn lets_in(&self, point: DVec3, direction: DVec3) -> bool {
        let steep = self.leaves(direction);
        let off_m = self.out.dot(self.middle_m - point);
        steep > 1e-9
            && off_m >= -1e-9
            && [off_m, off_m + self.reveal_m].into_iter().all(|depth_m| {
                let at = point + direction * (depth_m / steep) - self.middle_m;
                at.dot(self.along).abs() <= self.half_m.x && at.dot(self.up).abs() <= self.half_m.y
            })
    }

    /// The part of its inner rectangle through which parallel light from a direction comes past the reveal; none where none does.
    pub fn open_to(&self, direction: DVec3) -> Option<[DVec3; 4]> {
        let steep = self.leaves(direction);
        if steep <= 1e-9 {
            return None;
        }
        // The rectangle at the pane, brought back along the light into the inner plane.
        let by = DVec2::new(direction.dot(self.along), direction.dot(self.up)) * (-self.reveal_m / steep);
        let low = (-self.half_m).max(by - self.half_m);
        let high = self.half_m.min(by + self.half_m);
        if low.cmpge(high).any() {
            return None;
        }
        let at = |x: f64, y: f64| self.middle_m + self.along * x + self.up * y;
        Some([at(low.x, low.y), at(high.x, low.y), at(high.x, high.y), at(low.x, high.y)])
    }
}
