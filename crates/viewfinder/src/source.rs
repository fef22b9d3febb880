//! What shines in a scene: flat lamps, tubes and bulbs, as a place on a surface sees them.
use glam::Vec3;

use crate::panel::{Panel, Seen, Shape};

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
}

impl Source {
    /// A point of it as it is seen from a place with a normal, by a pair of even numbers; nothing where it gives no light. A
    /// round one is the flat one that turns to whoever looks.
    #[inline]
    pub(crate) fn seen_from(&self, place: Vec3, normal: Vec3, pair: [f32; 2]) -> Option<Seen> {
        match self.emits {
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
