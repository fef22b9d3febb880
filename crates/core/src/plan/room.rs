//! The room as measured: floor, ceiling, openings, furniture, surfaces, mains.

use std::collections::BTreeMap;

use glam::{DVec2, DVec3};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::{Id, Point2, Point3};
use crate::geometry::signed_area_m2;

/// The room as measured.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Room {
    /// Corners of the floor, counter-clockwise seen from above, m: the back wall lies on y = 0, the leftmost corner on
    /// x = 0. A rectangle: back-left, back-right, front-right, front-left.
    #[schema(min_items = 3, max_items = 12)]
    pub floor_m: Vec<Point2>,
    /// Ceiling height, m.
    #[schema(minimum = 1.8, maximum = 8.0)]
    pub height_m: f64,
    /// Sloping parts of the ceiling.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub slopes: BTreeMap<Id, Slope>,
    /// Beams under the ceiling.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub beams: BTreeMap<Id, Beam>,
    /// Bearing of true north in the plan, degrees clockwise from the direction away from the back wall.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.0, exclusive_maximum = 360.0)]
    pub north_deg: Option<f64>,
    /// Doors and windows.
    #[serde(default)]
    pub openings: BTreeMap<Id, Opening>,
    /// Furniture.
    #[serde(default)]
    pub furniture: BTreeMap<Id, Furniture>,
    /// What is known of the surfaces: `wall-0` and on, in the order of the corners, `floor`, `ceiling`.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub surfaces: BTreeMap<Id, Surface>,
    /// What can be heard in the room when nobody speaks.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub noises: BTreeMap<Id, Noise>,
    /// The mains; missing values follow the unit system.
    #[serde(default)]
    pub mains: Mains,
}

/// Something that makes a noise.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Noise {
    /// What it is.
    pub kind: NoiseKind,
    /// Where it stands, m; the street comes through the windows.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub position_m: Option<Point3>,
    /// Level 1 m from it, dBA; of the street 2 m before the windows (usual for its kind).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.0, maximum = 110.0)]
    pub level_1m_dba: Option<f64>,
    /// It can be switched off, or carried out, for a take.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub can_stop: bool,
}

/// The usual noises.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
#[allow(missing_docs)]
pub enum NoiseKind {
    Computer,
    Fan,
    Fridge,
    Ventilation,
    Street,
    Other,
}

impl NoiseKind {
    /// Level usual for its kind, dBA (common figures, no source): at 1 m, of a street before the windows.
    pub fn usual_dba(self) -> f64 {
        match self {
            NoiseKind::Computer => 30.0,
            NoiseKind::Fan => 40.0,
            NoiseKind::Fridge => 38.0,
            NoiseKind::Ventilation => 31.0,
            NoiseKind::Street => 60.0,
            NoiseKind::Other => 35.0,
        }
    }
}

/// How a window is made, or left.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum Glazing {
    /// One pane.
    Single,
    /// Two panes.
    Double,
    /// It closes badly.
    Leaky,
    /// Tilted open.
    Tilted,
}

impl Glazing {
    /// How much less gets in, R'w, dB: the middle of the usual range (common figures, no source).
    pub fn insulation_db(self) -> f64 {
        match self {
            Glazing::Single => 29.0,
            Glazing::Double => 31.5,
            Glazing::Leaky => 23.5,
            Glazing::Tilted => 10.0,
        }
    }

    /// Row of the absorption table.
    pub fn material(self) -> &'static str {
        match self {
            Glazing::Single | Glazing::Leaky => "window_single",
            Glazing::Double | Glazing::Tilted => "window_double_10mm",
        }
    }
}

/// A part of the ceiling that comes down to a wall.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Slope {
    /// The wall it comes down to.
    #[schema(maximum = 11)]
    pub wall: u8,
    /// From the wall's first corner to where it begins, m (0).
    #[serde(default)]
    #[schema(minimum = 0.0, maximum = 50.0)]
    pub from_m: f64,
    /// Length along the wall, m (to the wall's end).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.1, maximum = 50.0)]
    pub length_m: Option<f64>,
    /// Height at the wall, m.
    #[schema(minimum = 0.0, maximum = 7.9)]
    pub knee_m: f64,
    /// How far from the wall, level, it meets the ceiling, m.
    #[schema(minimum = 0.1, maximum = 20.0)]
    pub run_m: f64,
}

/// A beam under the ceiling.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Beam {
    /// Where its middle line begins, m.
    pub from_m: Point2,
    /// Where its middle line ends, m.
    pub to_m: Point2,
    /// Width, m.
    #[schema(minimum = 0.02, maximum = 2.0)]
    pub width_m: f64,
    /// How far it hangs below the ceiling, m.
    #[schema(minimum = 0.02, maximum = 3.0)]
    pub drop_m: f64,
}

/// A door or a window in a wall.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Opening {
    /// Door or window.
    pub kind: OpeningKind,
    /// The wall, from the corner of this number to the next; in a rectangle 0 back, 1 right, 2 front, 3 left.
    #[schema(maximum = 11)]
    pub wall: u8,
    /// From the wall's first corner to the near edge, m.
    #[schema(minimum = 0.0, maximum = 50.0)]
    pub from_m: f64,
    /// Width, m.
    #[schema(minimum = 0.2, maximum = 20.0)]
    pub width_m: f64,
    /// Height of the lower edge, m (0 for a door).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.0, maximum = 6.0)]
    pub sill_m: Option<f64>,
    /// Height of the opening itself, m (a door 2.0, a window 1.2).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.2, maximum = 8.0)]
    pub height_m: Option<f64>,
    /// How a door opens; hinges are named as seen from inside, facing the door (default in-left).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub swing: Option<Swing>,
    /// How a window is glazed (double).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub glazing: Option<Glazing>,
}

/// Door or window.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum OpeningKind {
    /// A door.
    Door,
    /// A window.
    Window,
}

/// How a door opens.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum Swing {
    /// Into the room, hinged on the left.
    InLeft,
    /// Into the room, hinged on the right.
    InRight,
    /// Out of the room.
    Out,
    /// Along the wall.
    Sliding,
}

/// A piece of furniture.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Furniture {
    /// What it is.
    pub kind: FurnitureKind,
    /// Middle of its footprint and the height of its foot, m.
    pub position_m: Point3,
    /// Bearing its front faces, degrees.
    #[serde(default)]
    #[schema(minimum = 0.0, exclusive_maximum = 360.0)]
    pub bearing_deg: f64,
    /// Width, depth, height, m.
    pub size_m: Size3,
    /// Whether it must stay where it is (default: it may be moved).
    #[serde(default)]
    pub fixed: bool,
}

/// Width, depth and height, m.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
pub struct Size3(pub [f64; 3]);

impl utoipa::PartialSchema for Size3 {
    fn schema() -> utoipa::openapi::RefOr<utoipa::openapi::Schema> {
        use utoipa::openapi::schema::{ArrayBuilder, ObjectBuilder, Type};
        let side = ObjectBuilder::new().schema_type(Type::Number).minimum(Some(0.02)).maximum(Some(10.0));
        ArrayBuilder::new().items(side).min_items(Some(3)).max_items(Some(3)).into()
    }
}
impl ToSchema for Size3 {}

/// The usual pieces; what they absorb and whether one can sit at them follows from the kind.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
#[allow(missing_docs)]
pub enum FurnitureKind {
    Desk,
    Table,
    Chair,
    Shelf,
    Bookcase,
    Bed,
    Sofa,
    Wardrobe,
    Cabinet,
    Radiator,
    Mirror,
    Picture,
    Lamp,
    Plant,
    Box,
}

/// What is known of a surface.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Surface {
    /// Id of a material of the absorption table, as `carpet_thin`.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub material: Option<String>,
    /// What lies or hangs on a part of it, as `rug` or `curtain_heavy`: a row of the same table.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub cover_material: Option<String>,
    /// So much of it is covered, 0 to 1 (0.5).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.0, maximum = 1.0)]
    pub cover_part: Option<f64>,
    /// Diffuse reflectance for light.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.0, maximum = 0.95)]
    pub reflectance: Option<f64>,
    /// How it is done up (as it is).
    #[serde(default, skip_serializing_if = "is_plain")]
    pub look: Look,
}

impl Surface {
    /// What covers a part of it, and how much.
    pub fn cover(&self) -> Option<(&'static crate::material::Material, f64)> {
        let row = crate::material::material(self.cover_material.as_deref()?)?;
        Some((row, self.cover_part.unwrap_or(0.5)))
    }
}

/// How a wall is done up.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum Look {
    /// As it is.
    #[default]
    Plain,
    /// Things hang or stand before it.
    Dressed,
    /// Painted one pure colour, to be keyed out.
    Chroma,
}

impl Look {
    /// Depth it takes off the wall, m. Fogon's own rule.
    pub fn depth_m(self) -> f64 {
        if self == Look::Dressed { 0.10 } else { 0.0 }
    }
}

fn is_plain(look: &Look) -> bool {
    *look == Look::Plain
}

/// The mains and the breaker behind the sockets of this room.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Mains {
    /// Volts.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 90.0, maximum = 260.0)]
    pub voltage_v: Option<f64>,
    /// Hertz: 50 or 60.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 50.0, maximum = 60.0, multiple_of = 10.0)]
    pub frequency_hz: Option<f64>,
    /// Amperes of the breaker.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 1.0, maximum = 125.0)]
    pub breaker_a: Option<f64>,
}

/// Names of the walls' surfaces, in their order.
pub const WALL_NAMES: [&str; 12] = [
    "wall-0", "wall-1", "wall-2", "wall-3", "wall-4", "wall-5", "wall-6", "wall-7", "wall-8", "wall-9",
    "wall-10", "wall-11",
];
/// Letters of the floor's corners, in their order.
const CORNER_LETTERS: &str = "abcdefghijkl";
/// A rectangle's sides may be askew by this much, m.
const SQUARE_M: f64 = 0.02;

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

/// A surface of the room on which things hang or lie, as a rectangle that holds it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Plane {
    /// Its corner: a wall's first corner on the floor, the room's on floor and ceiling, m.
    pub corner_m: DVec3,
    /// Unit vectors along and up (on floor and ceiling along the room's width and depth).
    pub axes: [DVec3; 2],
    /// Length and height, m.
    pub size_m: [f64; 2],
    /// Unit normal into the room.
    pub normal: DVec3,
}

impl Plane {
    /// Where a point lies on it, along and up, m.
    pub fn flat_m(&self, point_m: DVec3) -> [f64; 2] {
        self.axes.map(|axis| (point_m - self.corner_m).dot(axis))
    }

    /// The place nearest to a point at which a thing of a size lies wholly on it; its middle where it is too large.
    pub fn nearest_m(&self, point_m: DVec3, size_m: [f64; 2]) -> DVec3 {
        let at = self.flat_m(point_m);
        let kept: [f64; 2] = std::array::from_fn(|axis| {
            let half = size_m[axis] / 2.0;
            if 2.0 * half >= self.size_m[axis] {
                self.size_m[axis] / 2.0
            } else {
                at[axis].clamp(half, self.size_m[axis] - half)
            }
        });
        self.corner_m + self.axes[0] * kept[0] + self.axes[1] * kept[1]
    }

    /// How far a thing of a size is from lying wholly on it, m.
    pub fn overhang_m(&self, point_m: DVec3, size_m: [f64; 2]) -> f64 {
        let moved = (self.nearest_m(point_m, size_m) - point_m).length();
        let larger = size_m.iter().zip(self.size_m).map(|(size, own)| size - own).fold(0.0, f64::max);
        moved.max(larger)
    }
}

impl Room {
    /// A wall, the floor or the ceiling as a plane, by name.
    pub fn surface(&self, name: &str) -> Option<Plane> {
        let [width, depth, height] = self.dimensions_m();
        let flat =
            |corner_m, normal| Plane { corner_m, axes: [DVec3::X, DVec3::Y], size_m: [width, depth], normal };
        match name {
            "floor" => Some(flat(DVec3::ZERO, DVec3::Z)),
            "ceiling" => Some(flat(DVec3::Z * height, -DVec3::Z)),
            _ => {
                let wall = WALL_NAMES.iter().position(|other| *other == name)?;
                let (start, end) = self.wall_m(wall)?;
                let along = (end - start).normalize_or_zero();
                // A slope that comes down to it takes from its height.
                let height = self.ceiling_m((start + end) / 2.0 + along.perp() * 0.01);
                Some(Plane {
                    corner_m: start.extend(0.0),
                    axes: [along.extend(0.0), DVec3::Z],
                    size_m: [(end - start).length(), height],
                    normal: along.perp().extend(0.0),
                })
            }
        }
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

/// Nothing is fixed nearer to a door or window than this, m. Fogon's own rule.
const ROUND_OPENING_M: f64 = 0.05;

impl Opening {
    /// Middle of the opening on the floor line of its wall, m.
    pub fn middle_m(&self, floor: &[DVec2]) -> DVec2 {
        let wall = usize::from(self.wall);
        let (start, end) = (floor[wall % floor.len()], floor[(wall + 1) % floor.len()]);
        start + (end - start).normalize_or_zero() * (self.from_m + self.width_m / 2.0)
    }

    /// Height of the lower edge, m: as given, else 0 for a door and 0.9 for a window.
    pub fn sill_or_usual_m(&self) -> f64 {
        self.sill_m.unwrap_or(if self.kind == OpeningKind::Door { 0.0 } else { 0.9 })
    }

    /// Height of the opening, m: as given, else 2.0 for a door and 1.2 for a window.
    pub fn height_or_usual_m(&self) -> f64 {
        self.height_m.unwrap_or(if self.kind == OpeningKind::Door { 2.0 } else { 1.2 })
    }

    /// The way a door opens; in-left where nothing is said.
    pub fn swing_or_usual(&self) -> Swing {
        self.swing.unwrap_or(Swing::InLeft)
    }
}
