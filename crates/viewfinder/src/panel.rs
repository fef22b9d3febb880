//! Flat lamps, and points on them as a receiver sees them: where there is most to be got, points lie densest, so that what is
//! left of noise in light that nothing shades is small.
//!
//! Sources (from memory): Ureña, Fajardo and King 2013, An area-preserving parametrization for spherical rectangles; Shirley and
//! Chiu 1997, A low distortion map between disk and square; Hart, Pharr, Müller, Lopes, McGuire and Shirley 2020, Practical
//! product sampling by fitting and composing warps.
use std::f32::consts::{FRAC_1_SQRT_2, FRAC_PI_4, PI};

use glam::Vec3;

/// What a panel fills of the rectangle about it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Shape {
    /// All of it.
    Rectangle,
    /// The ellipse that touches its sides.
    Disc,
    /// The octagon with a corner half a step off the middle of each side, within that ellipse.
    Octagon,
    /// The ellipse less a smaller one: so much of its radius.
    Ring(f32),
}

/// A flat lamp that shines evenly to the side of `across` x `up`, m.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Panel {
    middle: Vec3,
    across: Vec3,
    up: Vec3,
    shape: Shape,
    normal: Vec3,
    area_m2: f32,
}

/// A point on a panel as a receiver sees it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Seen {
    /// From the receiver to the point, m.
    pub to: Vec3,
    /// Illuminance at the receiver for a luminance of 1 over the whole panel, if all of it were seen like this point. The mean
    /// over many points is the illuminance.
    pub weight: f32,
    /// What stands between is looked for along this part of the way.
    pub free: f32,
}

/// A panel does not stand in its own light.
const SHORT_OF: f32 = 0.9995;

/// Up to here the integrand at the corners tells enough of what lies between: sr, and how far it may differ with distance.
const SMALL_SR: f32 = 0.9;
const ALIKE: f32 = 5.0;
/// Of a sixteenth of a turn: how far an octagon's sides lie within its circle.
const COS_SIXTEENTH: f32 = 0.923_879_5;
/// A corner that the receiver's plane hides counts a little: what lies between may be seen.
const LEAST_COSINE: f32 = 0.03;

impl Panel {
    /// From its middle, half its width and, square to it, half its height, m.
    pub fn new(middle: Vec3, across: Vec3, up: Vec3, shape: Shape) -> Self {
        let whole = 4.0 * across.length() * up.length();
        let part = match shape {
            Shape::Rectangle => 1.0,
            Shape::Disc => FRAC_PI_4,
            Shape::Octagon => FRAC_1_SQRT_2,
            Shape::Ring(hole) => FRAC_PI_4 * (1.0 - hole * hole),
        };
        let normal = across.cross(up).normalize_or_zero();
        Self { middle, across, up, shape, normal, area_m2: whole * part }
    }

    /// The same, shining to the side of a direction.
    pub(crate) fn faced(self, towards: Vec3) -> Self {
        if self.normal.dot(towards) >= 0.0 {
            self
        } else {
            Self { up: -self.up, normal: -self.normal, ..self }
        }
    }

    /// Its middle.
    pub fn middle(&self) -> Vec3 {
        self.middle
    }

    /// Its surface, m2.
    pub fn area_m2(&self) -> f32 {
        self.area_m2
    }

    /// To the side where it shines, of length 1.
    pub fn normal(&self) -> Vec3 {
        self.normal
    }

    /// Its outline as convex polygons, counter-clockwise seen from where it shines.
    pub(crate) fn outlines(&self) -> Vec<Vec<Vec3>> {
        const ROUND: usize = 64;
        let at = |x: f32, y: f32| self.middle + self.across * x + self.up * y;
        let round = |corners: usize, radius: f32, step: usize| {
            let (y, x) = ((step as f32 + 0.5) / corners as f32 * 2.0 * PI).sin_cos();
            at(radius * x, radius * y)
        };
        // Of the area of the circle.
        let outer = (2.0 * PI / ROUND as f32 / (2.0 * PI / ROUND as f32).sin()).sqrt();
        match self.shape {
            Shape::Rectangle => vec![vec![at(-1.0, -1.0), at(1.0, -1.0), at(1.0, 1.0), at(-1.0, 1.0)]],
            Shape::Disc => vec![(0..ROUND).map(|step| round(ROUND, outer, step)).collect()],
            Shape::Octagon => vec![(0..8).map(|step| round(8, 1.0, step)).collect()],
            Shape::Ring(hole) => (0..ROUND)
                .map(|step| {
                    let inner = outer * hole;
                    vec![
                        round(ROUND, inner, step),
                        round(ROUND, outer, step),
                        round(ROUND, outer, step + 1),
                        round(ROUND, inner, step + 1),
                    ]
                })
                .collect(),
        }
    }

    /// The point of the rectangle that lies nearest to a place.
    fn nearest(&self, place: Vec3) -> Vec3 {
        let from = place - self.middle;
        let along = |side: Vec3| side * (from.dot(side) / side.length_squared()).clamp(-1.0, 1.0);
        self.middle + along(self.across) + along(self.up)
    }

    fn corners(&self) -> [Vec3; 4] {
        [(-1.0, -1.0), (1.0, -1.0), (-1.0, 1.0), (1.0, 1.0)]
            .map(|(x, y)| self.middle + self.across * x + self.up * y)
    }

    /// A point on the panel, by a pair of even numbers, as it is seen from a place with a normal of length 1; nothing where
    /// it gives that place no light.
    pub fn seen_from(&self, place: Vec3, normal: Vec3, pair: [f32; 2]) -> Option<Seen> {
        // How far before the panel the place is.
        let before = self.normal.dot(place - self.middle);
        if before <= 0.0 {
            return None;
        }
        let to = self.corners().map(|corner| corner - place);
        let distances = to.map(Vec3::length);
        let cosines = [0, 1, 2, 3].map(|i| (normal.dot(to[i]) / distances[i]).max(LEAST_COSINE));
        let cubes = distances.map(|distance| distance.powi(3));
        let nearest = self.nearest(place).distance(place).powi(3);
        let farthest = cubes.into_iter().fold(0.0, f32::max);
        let is_small = self.area_m2 * before < SMALL_SR * nearest && farthest < ALIKE * nearest;
        let (to, pdf_m2) = if self.shape == Shape::Rectangle && !is_small {
            let sphere = Spherical::of(self, place)?;
            let (at, pdf) = warped(pair, cosines);
            let to = sphere.point(at);
            // An even spread over solid angle, told per area.
            (to, pdf / sphere.solid_angle_sr * before / to.length().powi(3))
        } else {
            let (at, pdf) = warped(pair, [0, 1, 2, 3].map(|i| cosines[i] / cubes[i]));
            let ([x, y], denser) = self.shape.point(at);
            (self.middle + self.across * x + self.up * y - place, pdf * denser / self.area_m2)
        };
        let distance = to.length();
        let cosine = normal.dot(to) / distance;
        let weight = cosine * before / distance.powi(3) / pdf_m2;
        (cosine > 0.0 && weight.is_finite()).then_some(Seen { to, weight, free: SHORT_OF })
    }
}

impl Shape {
    /// A place of the unit square as one of the shape within the square from -1 to 1, and how much denser than even places lie
    /// there.
    fn point(self, at: [f32; 2]) -> ([f32; 2], f32) {
        match self {
            Self::Rectangle => (at.map(|part| 2.0 * part - 1.0), 1.0),
            Self::Disc => (on_disc(at), 1.0),
            Self::Octagon => {
                // Drawn in from the circle to the octagon's edge: denser the farther it is drawn.
                let [x, y] = on_disc(at);
                let [wide, high] = [x.abs(), y.abs()];
                // Its sides lie along eight directions; the one that is met first.
                let side = wide.max(high).max((wide + high) * FRAC_1_SQRT_2);
                let edge = COS_SIXTEENTH * (x * x + y * y).sqrt() / side.max(1e-12);
                ([x * edge, y * edge], FRAC_1_SQRT_2 / FRAC_PI_4 / (edge * edge))
            }
            Self::Ring(hole) => {
                let [x, y] = on_disc(at);
                let square = x * x + y * y;
                let out = ((hole * hole + square * (1.0 - hole * hole)) / square.max(1e-12)).sqrt();
                ([x * out, y * out], 1.0)
            }
        }
    }
}

/// A point of the unit square, denser where the corners weigh more (0 0, 1 0, 0 1, 1 1), and how dense it is there.
fn warped([first, second]: [f32; 2], weights: [f32; 4]) -> ([f32; 2], f32) {
    let [a, b, c, d] = weights;
    let y = along(second, a + b, c + d);
    let between = |low: f32, high: f32, part: f32| low + (high - low) * part;
    let (left, right) = (between(a, c, y), between(b, d, y));
    let x = along(first, left, right);
    ([x, y], 4.0 * between(left, right, x) / (a + b + c + d))
}

/// A number in [0, 1], denser where a straight line from `low` to `high` is higher.
fn along(even: f32, low: f32, high: f32) -> f32 {
    let root = (low * low + (high * high - low * low) * even).sqrt();
    (even * (low + high) / (low + root)).min(1.0)
}

/// The unit square on the unit disc, area for area.
#[inline]
pub(crate) fn on_disc(at: [f32; 2]) -> [f32; 2] {
    let [x, y] = at.map(|part| 2.0 * part - 1.0);
    let is_wide = x.abs() > y.abs();
    let (radius, other) = if is_wide { (x, y) } else { (y, x) };
    if radius == 0.0 {
        return [0.0, 0.0];
    }
    // An eighth of a turn at most: short series are as good as single precision.
    let turn = FRAC_PI_4 * other / radius;
    let square = turn * turn;
    let sine = turn * (1.0 - square * (1.0 / 6.0 - square * (1.0 / 120.0 - square / 5040.0)));
    let cosine = 1.0 - square * (0.5 - square * (1.0 / 24.0 - square * (1.0 / 720.0 - square / 40_320.0)));
    if is_wide { [radius * cosine, radius * sine] } else { [radius * sine, radius * cosine] }
}

/// A rectangle as a place sees it: points even over its solid angle. Lengths along its sides from the place.
struct Spherical {
    axes: [Vec3; 3],
    /// Left, right, lower and upper edge, and the plane of the panel.
    x0: f32,
    x1: f32,
    y0: f32,
    y1: f32,
    z: f32,
    b0: f32,
    b1: f32,
    turn: f32,
    solid_angle_sr: f32,
}

impl Spherical {
    /// Nothing where the panel is seen edge on.
    fn of(panel: &Panel, place: Vec3) -> Option<Self> {
        let (wide, high) = (panel.across.length(), panel.up.length());
        let (x, y) = (panel.across / wide, panel.up / high);
        let mut z = x.cross(y);
        let corner = panel.middle - panel.across - panel.up - place;
        let mut deep = corner.dot(z);
        if deep > 0.0 {
            z = -z;
            deep = -deep;
        }
        let (x0, y0) = (corner.dot(x), corner.dot(y));
        let (x1, y1) = (x0 + 2.0 * wide, y0 + 2.0 * high);
        // The planes through the place and each side, and the angles between them.
        let sides = [(x0, y0, x1, y0), (x1, y0, x1, y1), (x1, y1, x0, y1), (x0, y1, x0, y0)].map(
            |(ax, ay, bx, by)| Vec3::new(ax, ay, deep).cross(Vec3::new(bx, by, deep)).normalize_or_zero(),
        );
        let angle = |i: usize, j: usize| (-sides[i].dot(sides[j])).clamp(-1.0, 1.0).acos();
        let (g0, g1, g2, g3) = (angle(0, 1), angle(1, 2), angle(2, 3), angle(3, 0));
        let solid_angle_sr = g0 + g1 + g2 + g3 - 2.0 * PI;
        (solid_angle_sr > 1e-6).then_some(Self {
            axes: [x, y, z],
            x0,
            x1,
            y0,
            y1,
            z: deep,
            b0: sides[0].z,
            b1: sides[2].z,
            turn: 2.0 * PI - g2 - g3,
            solid_angle_sr,
        })
    }

    /// The point with a place in the unit square, from the place that sees it.
    fn point(&self, [u, v]: [f32; 2]) -> Vec3 {
        let share = u * self.solid_angle_sr + self.turn;
        let f = (share.cos() * self.b0 - self.b1) / share.sin();
        let cu = (1.0 / (f * f + self.b0 * self.b0).sqrt()).copysign(f).clamp(-1.0, 1.0);
        let x = (-(cu * self.z) / (1.0 - cu * cu).max(1e-12).sqrt()).clamp(self.x0, self.x1);
        let d = (x * x + self.z * self.z).sqrt();
        let [h0, h1] = [self.y0, self.y1].map(|y| y / (d * d + y * y).sqrt());
        let h = h0 + v * (h1 - h0);
        let y = if h * h < 1.0 - 1e-6 { h * d / (1.0 - h * h).sqrt() } else { self.y1 };
        self.axes[0] * x + self.axes[1] * y.clamp(self.y0, self.y1) + self.axes[2] * self.z
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::random::Pairs;
    use fogon_core::photometry::{disc_illuminance_lx, polygon_illuminance};

    const POINTS: u32 = 4096;

    fn mean(panel: &Panel, place: Vec3, normal: Vec3, seed: u32) -> f64 {
        let pairs = Pairs::new(seed, 0, 0);
        let sum: f64 = (0..POINTS)
            .filter_map(|number| panel.seen_from(place, normal, pairs.get(number)))
            .map(|seen| f64::from(seen.weight))
            .sum();
        sum / f64::from(POINTS)
    }

    fn upright(wide: f32, high: f32, shape: Shape) -> Panel {
        Panel::new(Vec3::ZERO, Vec3::X * wide / 2.0, Vec3::Y * high / 2.0, shape)
    }

    /// A card before a panel, at every distance, turned in every way, partly behind its own plane: Lambert's formula for a
    /// polygon, within 0.5 %.
    #[test]
    fn a_rectangle_lights_a_card_by_lamberts_formula() {
        let mut number = 0;
        for (wide, high) in [(0.9, 0.6), (0.2, 1.4), (2.0, 2.0)] {
            let panel = upright(wide, high, Shape::Rectangle);
            let [a, b, c, d] = panel.corners().map(|corner| corner.as_dvec3());
            for distance in [0.02, 0.3, 1.2, 6.0] {
                for (x, y) in [(0.0, 0.0), (0.6, 0.2), (-1.5, 0.9)] {
                    let place = Vec3::new(x, y, distance);
                    for towards in [-place, Vec3::new(1.0, 0.3, -0.2), -Vec3::Z, Vec3::new(0.0, -1.0, 0.05)] {
                        let normal = towards.normalize();
                        let wanted =
                            polygon_illuminance(1.0, &[a, b, d, c], place.as_dvec3(), normal.as_dvec3());
                        let found = mean(&panel, place, normal, number);
                        number += 1;
                        assert!(
                            (found - wanted).abs() <= 0.005 * wanted + 2e-5,
                            "{wide} x {high} from {place}, facing {normal}: {found}, wanted {wanted}"
                        );
                    }
                }
            }
        }
    }

    #[test]
    fn a_disc_lights_a_card_on_its_axis_by_the_closed_form() {
        for (radius, distance) in [(0.3, 0.2), (0.3, 1.0), (0.1, 2.5)] {
            let panel = upright(2.0 * radius, 2.0 * radius, Shape::Disc);
            let found = mean(&panel, Vec3::Z * distance, -Vec3::Z, 9);
            let wanted = disc_illuminance_lx(1.0, f64::from(radius), f64::from(distance));
            assert!(
                (found - wanted).abs() < 0.005 * wanted,
                "{radius} at {distance}: {found}, wanted {wanted}"
            );
        }
    }

    /// Octagons and rings by Lambert's formula over their outlines, from before them and from the side.
    #[test]
    fn octagons_and_rings_light_a_card_by_lamberts_formula() {
        let outline = |radius: f64, corners: u32| -> Vec<_> {
            let step = std::f64::consts::TAU / f64::from(corners);
            let at = |i: u32| glam::DVec2::from_angle((f64::from(i) + 0.5) * step) * radius;
            (0..corners).map(|i| at(i).extend(0.0)).collect()
        };
        let sides = 720;
        for place in [Vec3::new(0.0, 0.0, 0.9), Vec3::new(0.5, -0.3, 0.6)] {
            let normal = -place.normalize();
            let lit = |outline: &[glam::DVec3]| {
                polygon_illuminance(1.0, outline, place.as_dvec3(), normal.as_dvec3())
            };
            for (shape, wanted) in [
                (Shape::Octagon, lit(&outline(0.4, 8))),
                (Shape::Ring(0.7), lit(&outline(0.4, sides)) - lit(&outline(0.28, sides))),
            ] {
                let found = mean(&upright(0.8, 0.8, shape), place, normal, 5);
                assert!((found - wanted).abs() < 0.005 * wanted, "{shape:?}: {found}, wanted {wanted}");
            }
        }
    }

    /// From behind, within its plane, and of no size: no light, and no number that is none.
    #[test]
    fn odd_panels_give_nothing() {
        let panel = upright(0.9, 0.6, Shape::Rectangle);
        assert_eq!(panel.seen_from(-Vec3::Z, Vec3::Z, [0.5; 2]), None);
        assert_eq!(panel.seen_from(Vec3::X * 2.0, -Vec3::X, [0.5; 2]), None);
        assert_eq!(panel.seen_from(Vec3::Z, Vec3::Z, [0.5; 2]), None);
        for shape in [Shape::Rectangle, Shape::Disc] {
            let none = upright(0.0, 0.6, shape);
            assert_eq!(none.seen_from(Vec3::Z, -Vec3::Z, [0.5; 2]), None);
        }
    }
}
