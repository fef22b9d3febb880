//! Faces that shine: flat ones to one side, tubes around their axis, bulbs all round. Round ones are seen as the flat face
//! that turns to whoever looks.

use std::borrow::Cow;
use std::f64::consts::PI;
use std::sync::LazyLock;

use super::{face_normal, polygon_illuminance};
use crate::geometry::DVec3;
use crate::plan::Shape;

/// Corners of the polygon that stands in for a round face; its illuminance differs from the disc's by less
/// than 0.7 % before it is scaled to the disc's area.
const ROUND_CORNERS: usize = 32;

/// Where a face shines to.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Emits {
    /// The side of its normal.
    Forward,
    /// Around an axis, as a tube: half its length along the axis, half its width across, m.
    Around {
        /// Unit vector.
        axis: DVec3,
        /// m.
        half_length_m: f64,
        /// m.
        half_width_m: f64,
    },
    /// All round, as a bulb of a radius, m.
    AllRound(f64),
}

/// An emitting (or reflecting) face in the room.
#[derive(Debug, Clone)]
pub struct Face {
    /// Corners, counter-clockwise seen from the bright side, m.
    pub outline: Vec<DVec3>,
    /// Corners of a hole, if any.
    pub hole: Vec<DVec3>,
    /// Unit normal of the bright side.
    pub normal: DVec3,
    /// Middle, m.
    pub middle: DVec3,
    /// Luminance, cd/m2.
    pub luminance_cd_m2: f64,
    /// Area, m2; of a round source as it is seen.
    pub area_m2: f64,
    /// Intensity goes with cos^m of the angle off the normal: 1 for a matt face, more for a beam.
    pub exponent: f64,
    /// Where it shines to.
    pub emits: Emits,
}

impl Face {
    /// A face of a shape and size at `middle`, turned to `towards`; its width axis lies horizontal. It shines to one
    /// side: `round` lets tubes and bulbs shine round.
    pub fn new(
        shape: Shape,
        width_m: f64,
        height_m: f64,
        middle: DVec3,
        towards: DVec3,
        luminance_cd_m2: f64,
    ) -> Self {
        let normal = (towards - middle).try_normalize().unwrap_or(-DVec3::Z);
        let (across, up) = axes(normal);
        let at = |x: f64, y: f64| middle + across * x + up * y;
        let (w, h) = (width_m / 2.0, height_m / 2.0);
        let (outline, hole) = match shape {
            Shape::Rectangle | Shape::Tube => (vec![at(-w, -h), at(w, -h), at(w, h), at(-w, h)], vec![]),
            Shape::Octagon => {
                let corner = |i: usize| (PI / 8.0 + i as f64 * PI / 4.0).sin_cos();
                ((0..8).map(|i| at(w * corner(i).1, w * corner(i).0)).collect(), vec![])
            }
            Shape::Disc | Shape::Bulb => (circle(middle, across, up, w), vec![]),
            Shape::Ring => (circle(middle, across, up, w), circle(middle, across, up, h)),
        };
        let area_m2 = shape_area_m2(shape, width_m, height_m);
        let emits = Emits::Forward;
        Self { outline, hole, normal, middle, luminance_cd_m2, area_m2, exponent: 1.0, emits }
    }

    /// A bare tube shines around its longer side, a bare bulb all round; other shapes to one side as they did.
    pub fn round(self, shape: Shape, width_m: f64, height_m: f64) -> Self {
        let (across, up) = axes(self.normal);
        let emits = match shape {
            Shape::Tube => {
                let axis = if width_m >= height_m { across } else { up };
                let (long, thin) = (width_m.max(height_m), width_m.min(height_m));
                Emits::Around { axis, half_length_m: long / 2.0, half_width_m: thin / 2.0 }
            }
            Shape::Bulb => Emits::AllRound(width_m / 2.0),
            _ => Emits::Forward,
        };
        Self { emits, ..self }
    }

    /// A face by its corners, counter-clockwise seen from the bright side.
    pub fn flat(outline: Vec<DVec3>, luminance_cd_m2: f64) -> Self {
        let (normal, area_m2) = face_normal(&outline);
        let middle = outline.iter().sum::<DVec3>() / outline.len().max(1) as f64;
        Self {
            outline,
            hole: Vec::new(),
            normal,
            middle,
            luminance_cd_m2,
            area_m2,
            exponent: 1.0,
            emits: Emits::Forward,
        }
    }

    /// The flat face that a point sees: a round source turned to it.
    pub fn seen_from(&self, point: DVec3) -> Cow<'_, Self> {
        let off = point - self.middle;
        let turned = |normal: DVec3, outline: Vec<DVec3>| {
            Cow::Owned(Self { outline, normal, emits: Emits::Forward, ..self.clone() })
        };
        match self.emits {
            Emits::Forward => Cow::Borrowed(self),
            Emits::Around { axis, half_length_m, half_width_m } => {
                let normal = off.reject_from_normalized(axis).normalize_or_zero();
                let (long, thin) = (axis * half_length_m, normal.cross(axis) * half_width_m);
                let m = self.middle;
                // Counter-clockwise for one who looks against the normal.
                turned(normal, vec![m - long - thin, m + long - thin, m + long + thin, m - long + thin])
            }
            Emits::AllRound(radius) => {
                let normal = off.normalize_or(DVec3::Z);
                let (across, up) = axes(normal);
                turned(normal, circle(self.middle, across, up, radius))
            }
        }
    }

    /// Whether it shines to a point's side at all.
    pub fn shines_towards(&self, point: DVec3) -> bool {
        self.emits != Emits::Forward || (point - self.middle).dot(self.normal) > 0.0
    }

    /// Illuminance at a point on a surface of the given unit normal, lx.
    pub fn illuminance_lx(&self, point: DVec3, normal: DVec3) -> f64 {
        if !self.shines_towards(point) {
            return 0.0;
        }
        let face = self.seen_from(point);
        let luminance = self.luminance_towards_cd_m2(point);
        let whole = polygon_illuminance(luminance, &face.outline, point, normal);
        if face.hole.is_empty() {
            return whole;
        }
        (whole - polygon_illuminance(luminance, &face.hole, point, normal)).max(0.0)
    }

    /// Luminance as seen from a point, cd/m2: L cos^(m - 1) off the normal at the middle.
    pub fn luminance_towards_cd_m2(&self, point: DVec3) -> f64 {
        if self.exponent == 1.0 {
            return self.luminance_cd_m2;
        }
        let cosine = (point - self.middle).normalize_or_zero().dot(self.normal).max(0.0);
        self.luminance_cd_m2 * cosine.powf(self.exponent - 1.0)
    }

    /// Luminous flux that leaves it, lm: 2 pi L A / (m + 1) to one side, pi^2 L w l from a tube's wall, 4 pi^2 L r^2 from
    /// a bulb.
    pub fn flux_lm(&self) -> f64 {
        self.luminance_cd_m2 * flux_of_unit(self.area_m2, self.exponent, self.emits)
    }

    /// Diameter of the disc of equal area, m.
    pub fn equal_diameter_m(&self) -> f64 {
        2.0 * (self.area_m2 / PI).sqrt()
    }
}

/// Flux of a face of luminance 1, lm; of a round one with `area_m2` as it is seen.
fn flux_of_unit(area_m2: f64, exponent: f64, emits: Emits) -> f64 {
    match emits {
        Emits::Forward => 2.0 * PI * area_m2 / (exponent + 1.0),
        Emits::Around { .. } => PI * PI * area_m2,
        Emits::AllRound(_) => 4.0 * PI * area_m2,
    }
}

/// To the viewer's right, level, and up, of a face with a normal: corners then go counter-clockwise.
pub fn axes(normal: DVec3) -> (DVec3, DVec3) {
    let across = DVec3::Z.cross(normal).try_normalize().unwrap_or(DVec3::X);
    (across, normal.cross(across))
}

/// A polygon of the area of a circle: the polygon formula then gives the disc's illuminance closely.
fn circle(middle: DVec3, across: DVec3, up: DVec3, radius_m: f64) -> Vec<DVec3> {
    const STEP: f64 = 2.0 * PI / ROUND_CORNERS as f64;
    // Sine and cosine of each corner: a search lays out many thousand lamps.
    static CORNERS: LazyLock<[(f64, f64); ROUND_CORNERS]> =
        LazyLock::new(|| std::array::from_fn(|i| (i as f64 * STEP).sin_cos()));
    let outer = radius_m * (STEP / STEP.sin()).sqrt();
    CORNERS.iter().map(|(sine, cosine)| middle + across * (outer * cosine) + up * (outer * sine)).collect()
}

/// Area of an emitting face, m2; of tube and bulb as they are seen.
pub fn shape_area_m2(shape: Shape, width_m: f64, height_m: f64) -> f64 {
    match shape {
        Shape::Rectangle | Shape::Tube => width_m * height_m,
        // Across corners: A = D^2 / sqrt 2 (plane geometry).
        Shape::Octagon => width_m * width_m / 2.0f64.sqrt(),
        Shape::Disc | Shape::Bulb => PI / 4.0 * width_m * width_m,
        Shape::Ring => PI / 4.0 * (width_m * width_m - height_m * height_m),
    }
}
