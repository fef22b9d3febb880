//! What a picture gathers: light by group, and what the light fell on.
use glam::Vec3;

use crate::scene::GROUPS;

/// Light of one group in a pixel, for a luminance of 1 of the group; sums or means of samples.
#[derive(Debug, Clone, Copy, Default, PartialEq)]
pub(crate) struct Light {
    /// Straight from what shines, thrown back matt.
    pub(crate) straight: Vec3,
    /// By way of other surfaces.
    pub(crate) thrown: Vec3,
    /// Mirrored, or the thing that shines itself; grey.
    pub(crate) gloss: f32,
}

impl Light {
    #[inline]
    pub(crate) fn add(&mut self, other: &Self) {
        self.straight += other.straight;
        self.thrown += other.thrown;
        self.gloss += other.gloss;
    }
}

/// What the light of a pixel fell on; sums of samples.
#[derive(Debug, Clone, Copy, Default, PartialEq)]
pub(crate) struct Guide {
    /// Reflectance.
    pub(crate) colour: Vec3,
    /// Directions outwards.
    pub(crate) normal: Vec3,
    /// Along the axis, m.
    pub(crate) depth_m: f32,
    /// The straight light's luminance over that of the reflectance, and its square.
    pub(crate) moments: [f32; 2],
}

impl Guide {
    #[inline]
    pub(crate) fn add(&mut self, other: &Self) {
        self.colour += other.colour;
        self.normal += other.normal;
        self.depth_m += other.depth_m;
        self.moments[0] += other.moments[0];
        self.moments[1] += other.moments[1];
    }
}

/// A picture in the making.
#[derive(Debug, Clone)]
pub struct Film {
    /// Pixels across.
    pub width: usize,
    /// Pixels down.
    pub height: usize,
    /// Rounds of samples that it has had.
    pub rounds: u32,
    /// Light groups.
    pub(crate) groups: usize,
    /// For each pixel, row by row from the upper left, its groups.
    pub(crate) light: Vec<Light>,
    pub(crate) guides: Vec<Guide>,
    /// The thing that each pixel's first sample met.
    pub(crate) things: Vec<u16>,
    /// Samples of each pixel.
    pub(crate) counts: Vec<u16>,
    /// Rounds of each block of rows: a picture that is left half-way goes on where it was left.
    pub(crate) blocks: Vec<u32>,
}

/// Rows of a block, in which neighbours meet what is still at hand.
pub(crate) const BLOCK: usize = 8;

/// Nothing is met there.
pub const NO_THING: u16 = u16::MAX;

impl Film {
    /// An unexposed picture.
    pub fn new(width: usize, height: usize, groups: usize) -> Self {
        let pixels = width * height;
        Self {
            width,
            height,
            rounds: 0,
            groups,
            light: vec![Light::default(); pixels * groups],
            guides: vec![Guide::default(); pixels],
            things: vec![NO_THING; pixels],
            counts: vec![0; pixels],
            blocks: vec![0; height.div_ceil(BLOCK)],
        }
    }
}

/// Luminance of linear red, green and blue (ITU-R BT.709).
#[inline]
pub(crate) fn luminance(colour: Vec3) -> f32 {
    colour.dot(Vec3::new(0.2126, 0.7152, 0.0722))
}

/// A pixel's groups while it gathers.
pub(crate) type Groups = [Light; GROUPS];
