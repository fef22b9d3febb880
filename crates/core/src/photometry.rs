//! Light from flat faces: the exact polygon formula, discs, and what a catalogue figure says about a face.
//! Uniform, Lambertian, unoccluded; one-sided.

use std::f64::consts::PI;

use crate::geometry::DVec3;
use crate::plan::{GearLight, Shape};

mod catalogue;
mod enclosure;
mod shadow;

pub use catalogue::{Known, beam_exponent, beam_flux_lm, known};
pub use enclosure::{Enclosure, Patch};
pub use shadow::Blockers;

/// A face that shines, with the number of the thing that it belongs to, which never stands in its own light.
#[derive(Debug, Clone)]
pub struct Source {
    face: Face,
    sheet: shadow::Sheet,
    owner: Option<usize>,
}

impl Source {
    /// A face of a thing.
    pub fn new(face: Face, owner: Option<usize>) -> Self {
        let sheet = shadow::Sheet::new(&face.outline, &face.hole, face.middle, face.normal);
        Self { face, sheet, owner }
    }

    /// The face itself.
    pub fn face(&self) -> &Face {
        &self.face
    }

    /// Illuminance at a point on a surface of a unit normal, lx, past what stands between; `but` names a second thing
    /// that casts no shadow: the one that the point lies on.
    pub fn illuminance_lx(
        &self,
        point: DVec3,
        normal: DVec3,
        blockers: &Blockers,
        but: Option<usize>,
    ) -> f64 {
        let face = &self.face;
        if face.luminance_cd_m2 <= 0.0 || (point - face.middle).dot(face.normal) <= 0.0 {
            return 0.0;
        }
        let luminance = face.luminance_towards_cd_m2(point);
        match self.sheet.seen(point, blockers, [self.owner, but]) {
            None => polygon_illuminance(luminance, &face.outline, point, normal),
            Some(pieces) => {
                pieces.iter().map(|piece| polygon_illuminance(luminance, piece, point, normal)).sum()
            }
        }
    }
}

/// Corners of the polygon that stands in for a round face; its illuminance differs from the disc's by less
/// than 0.7 % before it is scaled to the disc's area.
const ROUND_CORNERS: usize = 32;

/// A flat emitting (or reflecting) face in the room.
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
    /// Area, m2.
    pub area_m2: f64,
    /// Intensity goes with cos^m of the angle off the normal: 1 for a matt face, more for a beam.
    pub exponent: f64,
}

impl Face {
    /// A face of a shape and size at `middle`, turned to `towards`; its width axis lies horizontal.
    pub fn new(
        shape: Shape,
        width_m: f64,
        height_m: f64,
        middle: DVec3,
        towards: DVec3,
        luminance_cd_m2: f64,
    ) -> Self {
        let normal = (towards - middle).try_normalize().unwrap_or(-DVec3::Z);
        // Facing the viewer, the width axis runs to the viewer's right so that corners go counter-clockwise.
        let across = DVec3::Z.cross(normal).try_normalize().unwrap_or(DVec3::X);
        let up = normal.cross(across);
        let at = |x: f64, y: f64| middle + across * x + up * y;
        let round = |radius: f64, corners: usize| -> Vec<DVec3> {
            // Same area as the circle: the polygon formula then gives the disc's illuminance closely.
            let step = 2.0 * PI / corners as f64;
            let outer = radius * (step / step.sin()).sqrt();
            (0..corners)
                .map(|i| at(outer * (i as f64 * step).cos(), outer * (i as f64 * step).sin()))
                .collect()
        };
        let (w, h) = (width_m / 2.0, height_m / 2.0);
        let (outline, hole) = match shape {
            Shape::Rectangle | Shape::Tube => (vec![at(-w, -h), at(w, -h), at(w, h), at(-w, h)], vec![]),
            Shape::Octagon => {
                let corner = |i: usize| (PI / 8.0 + i as f64 * PI / 4.0).sin_cos();
                ((0..8).map(|i| at(w * corner(i).1, w * corner(i).0)).collect(), vec![])
            }
            Shape::Disc | Shape::Bulb => (round(w, ROUND_CORNERS), vec![]),
            Shape::Ring => (round(w, ROUND_CORNERS), round(h, ROUND_CORNERS)),
        };
        let area_m2 = shape_area_m2(shape, width_m, height_m);
        Self { outline, hole, normal, middle, luminance_cd_m2, area_m2, exponent: 1.0 }
    }

    /// A face by its corners, counter-clockwise seen from the bright side.
    pub fn flat(outline: Vec<DVec3>, luminance_cd_m2: f64) -> Self {
        let (normal, area_m2) = face_normal(&outline);
        let middle = outline.iter().sum::<DVec3>() / outline.len().max(1) as f64;
        Self { outline, hole: Vec::new(), normal, middle, luminance_cd_m2, area_m2, exponent: 1.0 }
    }

    /// Illuminance at a point on a surface of the given unit normal, lx.
    pub fn illuminance_lx(&self, point: DVec3, normal: DVec3) -> f64 {
        if (point - self.middle).dot(self.normal) <= 0.0 {
            return 0.0;
        }
        let luminance = self.luminance_towards_cd_m2(point);
        let whole = polygon_illuminance(luminance, &self.outline, point, normal);
        if self.hole.is_empty() {
            return whole;
        }
        (whole - polygon_illuminance(luminance, &self.hole, point, normal)).max(0.0)
    }

    /// Luminance as seen from a point, cd/m2: L cos^(m - 1) off the normal at the middle.
    pub fn luminance_towards_cd_m2(&self, point: DVec3) -> f64 {
        if self.exponent == 1.0 {
            return self.luminance_cd_m2;
        }
        let cosine = (point - self.middle).normalize_or_zero().dot(self.normal).max(0.0);
        self.luminance_cd_m2 * cosine.powf(self.exponent - 1.0)
    }

    /// Luminous flux that leaves the bright side, lm.
    pub fn flux_lm(&self) -> f64 {
        2.0 * PI * self.luminance_cd_m2 * self.area_m2 / (self.exponent + 1.0)
    }

    /// Diameter of the disc of equal area, m.
    pub fn equal_diameter_m(&self) -> f64 {
        2.0 * (self.area_m2 / PI).sqrt()
    }
}

/// Illuminance of a disc on its axis, lx: E = pi L r^2 / (r^2 + d^2).
pub fn disc_illuminance_lx(luminance_cd_m2: f64, radius_m: f64, distance_m: f64) -> f64 {
    let square = radius_m * radius_m;
    PI * luminance_cd_m2 * square / (square + distance_m * distance_m)
}

/// Unit normal (to the side from which the corners run counter-clockwise) and area of a flat polygon, m2: Newell's
/// method.
pub fn face_normal(outline: &[DVec3]) -> (DVec3, f64) {
    let Some(first) = outline.first() else { return (DVec3::Z, 0.0) };
    let twice: DVec3 = outline
        .iter()
        .zip(outline.iter().cycle().skip(1))
        .map(|(a, b)| (*a - *first).cross(*b - *first))
        .sum();
    (twice.normalize_or(DVec3::Z), twice.length() / 2.0)
}

/// Area of an emitting face, m2.
pub fn shape_area_m2(shape: Shape, width_m: f64, height_m: f64) -> f64 {
    match shape {
        Shape::Rectangle | Shape::Tube => width_m * height_m,
        // Across corners: A = D^2 / sqrt 2 (plane geometry).
        Shape::Octagon => width_m * width_m / 2.0f64.sqrt(),
        Shape::Disc | Shape::Bulb => PI / 4.0 * width_m * width_m,
        Shape::Ring => PI / 4.0 * (width_m * width_m - height_m * height_m),
    }
}

/// Illuminance from a convex polygon of uniform luminance on a surface element, lx: E = L/2 |sum of
/// Gamma_i (n . g_i)| over the edges of the polygon clipped at the element's horizon (Lambert 1760; Baum,
/// Rushmeier and Winget 1989; Arvo 1995). The caller answers for the side that emits.
pub fn polygon_illuminance(luminance_cd_m2: f64, outline: &[DVec3], point: DVec3, normal: DVec3) -> f64 {
    let mut clipped: Vec<DVec3> = Vec::with_capacity(outline.len() + 2);
    for (a, b) in outline.iter().zip(outline.iter().cycle().skip(1)) {
        let (a, b) = (*a - point, *b - point);
        let (over_a, over_b) = (normal.dot(a), normal.dot(b));
        if over_a >= 0.0 {
            clipped.push(a);
        }
        if (over_a > 0.0 && over_b < 0.0) || (over_a < 0.0 && over_b > 0.0) {
            clipped.push(a + (b - a) * (over_a / (over_a - over_b)));
        }
    }
    let sum: f64 = clipped
        .iter()
        .zip(clipped.iter().cycle().skip(1))
        .map(|(a, b)| {
            let cross = a.cross(*b);
            let length = cross.length();
            if length < 1e-14 { 0.0 } else { length.atan2(a.dot(*b)) * normal.dot(cross) / length }
        })
        .sum();
    luminance_cd_m2 / 2.0 * sum.abs()
}

/// Luminance of a lamp's face at full power, on its axis (`catalogue`).
pub fn luminance_cd_m2(lamp: &GearLight) -> f64 {
    known(lamp).luminance_cd_m2
}

/// Light that leaves a lamp's face at full power, lm.
pub fn flux_lm(lamp: &GearLight) -> f64 {
    let face =
        Face::new(lamp.shape, lamp.width_m, lamp.height_m, DVec3::ZERO, DVec3::X, luminance_cd_m2(lamp));
    Face { exponent: catalogue::exponent_of(lamp), ..face }.flux_lm()
}

/// The exponent of a lamp's beam.
pub fn exponent(lamp: &GearLight) -> f64 {
    catalogue::exponent_of(lamp)
}

/// Electrical power of a lamp, W, and whether it had to be assumed: flux over 80 lm/W
/// (efficacy of LED panels, common practice, no source).
pub fn power_w(lamp: &GearLight) -> (f64, bool) {
    match lamp.common.power_w {
        Some(power) => (power, false),
        None => (flux_lm(lamp) / 80.0, true),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    /// Square on axis by the configuration factor of a parallel element (Hamilton and Morgan 1952, from memory), disc
    /// E = pi L r^2 / (r^2 + d^2), ring as the difference of two discs, luminance from lux at 1 m by the first.
    #[test]
    fn faces_agree_with_closed_forms() {
        let close = |got: f64, want: f64, tolerance: f64| {
            assert!((got / want - 1.0).abs() < tolerance, "{got} against {want}");
        };
        let lit = |shape, w, h, l, d| {
            Face::new(shape, w, h, DVec3::new(0.0, d, 0.0), DVec3::ZERO, l)
                .illuminance_lx(DVec3::ZERO, DVec3::Y)
        };
        close(lit(Shape::Rectangle, 0.6, 0.6, 1000.0, 1.0), 321.61046, 1e-6);
        close(lit(Shape::Disc, 0.9, 0.9, 1000.0, 1.0), 529.04159, 2e-3);
        close(lit(Shape::Ring, 0.48, 0.34, 8000.0, 0.8), 989.314, 5e-3);
        let lamp: GearLight = serde_json::from_value(serde_json::json!({
            "label": "x", "shape": "rectangle", "width_m": 0.9, "height_m": 0.9,
            "illuminance_at_1m_lx": 1500.0, "cct_min_k": 5600.0, "cct_max_k": 5600.0
        }))
        .unwrap();
        close(luminance_cd_m2(&lamp), 2346.69, 1e-5);
        close(lit(Shape::Rectangle, 0.9, 0.9, luminance_cd_m2(&lamp), 0.6), 3043.67, 1e-5);
        assert_eq!(
            Face::new(Shape::Disc, 0.5, 0.5, DVec3::Y, DVec3::Y * 2.0, 1.0)
                .illuminance_lx(DVec3::ZERO, DVec3::Y),
            0.0
        );
    }
}
