//! What shines in a scene: flat lamps, tubes and bulbs, as a place on a surface sees them.
use glam::Vec3;

use crate::bounce::across;
use crate::panel::{Panel, Seen, Shape, on_disc};

/// Something that shines.
#[derive(Debug, Clone, PartialEq)]
pub struct Source {
    /// Where to.
    pub emits: Emits,
    /// Intensity goes with cos^m of the angle off the normal of a flat one: 1 for a matt face, more for a beam.
    pub exponent: f32,
    /// What each light group gives it: the group's number, and its luminance straight on for a luminance of 1 of the group, red,
    /// green and blue.
    pub from: Vec<(usize, Vec3)>,
}

/// Where something shines to.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Emits {
    /// To the side of a panel.
    Forward(Panel),
    /// Around an axis, as a tube: from its middle half its length along the axis, half its width, m.
    Around {
        /// Its middle.
        middle: Vec3,
        /// Half its length along its axis.
        along: Vec3,
        /// Half its width.
        radius_m: f32,
    },
    /// All round, as a bulb.
    AllRound {
        /// Its middle.
        middle: Vec3,
        /// Its radius.
        radius_m: f32,
    },
    /// Parallel light through a window: the sun's.
    Sun(Sunbeam),
}

/// The sun's light behind a window with a reveal.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Sunbeam {
    /// Towards the middle of the sun, of length 1.
    pub to_sun: Vec3,
    /// The middle of the window's inner rectangle.
    pub middle: Vec3,
    /// From there half its width.
    pub along: Vec3,
    /// And half its height.
    pub up: Vec3,
    /// Outwards, of length 1.
    pub out: Vec3,
    /// How deep the pane lies behind it.
    pub reveal_m: f32,
}

/// Half of what the sun's disc takes of the sky, as a tangent (0.533 degrees across, from memory).
const SUN_RADIUS: f32 = 0.004_65;
/// The window itself does not stand in the way.
const BEFORE_PANE: f32 = 0.999;

impl Sunbeam {
    /// A point of the sun's disc as it is seen from a place with a normal: the illuminance is that on a surface which faces it, times
    /// the weight.
    fn seen_from(&self, place: Vec3, normal: Vec3, pair: [f32; 2]) -> Option<Seen> {
        let [x, y] = on_disc(pair).map(|part| part * SUN_RADIUS);
        let (a, b) = across(self.to_sun);
        let direction = (self.to_sun + a * x + b * y).normalize();
        let (cosine, leaves) = (normal.dot(direction), self.out.dot(direction));
        let off = self.out.dot(self.middle - place);
        if cosine <= 0.0 || leaves <= 1e-6 || off < 0.0 {
            return None;
        }
        let is_open = [off, off + self.reveal_m].into_iter().all(|depth| {
            let at = place + direction * (depth / leaves) - self.middle;
            at.dot(self.along).abs() <= self.along.length_squared()
                && at.dot(self.up).abs() <= self.up.length_squared()
        });
        is_open.then(|| Seen { to: direction * (off / leaves).max(1e-3), weight: cosine, free: BEFORE_PANE })
    }
}

impl Source {
    /// A point of it as it is seen from a place with a normal, by a pair of even numbers; nothing where it gives no light. A
    /// round one is the flat one that turns to whoever looks.
    #[inline]
    pub(crate) fn seen_from(&self, place: Vec3, normal: Vec3, pair: [f32; 2]) -> Option<Seen> {
        match self.emits {
            Emits::Sun(beam) => beam.seen_from(place, normal, pair),
            Emits::Forward(panel) => {
                let seen = panel.seen_from(place, normal, pair)?;
                if self.exponent == 1.0 {
                    return Some(seen);
                }
                let cosine = -panel.normal().dot(seen.to) / seen.to.length();
                Some(Seen { weight: seen.weight * self.falls_off(cosine), ..seen })
            }
            Emits::Around { middle, along, radius_m } => {
                let off = (place - middle).reject_from(along).try_normalize()?;
                let across = off.cross(along).normalize_or_zero() * radius_m;
                let panel = Panel::new(middle, along, across, Shape::Rectangle).faced(off);
                panel.seen_from(place, normal, pair).map(|seen| before(seen, radius_m))
            }
            Emits::AllRound { middle, radius_m } => {
                let off = (place - middle).try_normalize()?;
                let across = off.any_orthonormal_vector() * radius_m;
                let up = off.cross(across);
                let panel = Panel::new(middle, across, up, Shape::Disc).faced(off);
                panel.seen_from(place, normal, pair).map(|seen| before(seen, radius_m))
            }
        }
    }

    /// Its luminance under an angle over that straight on.
    pub(crate) fn falls_off(&self, cosine: f32) -> f32 {
        if self.exponent == 1.0 { 1.0 } else { cosine.max(0.0).powf(self.exponent - 1.0) }
    }
}

/// The wall of a round one lies before the flat one that stands for it.
fn before(seen: Seen, radius_m: f32) -> Seen {
    Seen { free: (1.0 - 1.1 * radius_m / seen.to.length()).max(0.0), ..seen }
}
