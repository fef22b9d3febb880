//! A plan as one picture.
use std::sync::Arc;

use glam::Vec3;

use crate::denoise::{Smoothed, smoothed};
use crate::develop::{self, Exposure};
use crate::film::Film;
use crate::scene::GROUPS;
use crate::stage::lamps::Group;
use crate::stage::{Staged, things::Things};
use crate::trace::{Care, Tracer};
use crate::tree::Walk;

/// Pixels at most, and samples of each.
pub const PIXELS_MOST: usize = 1 << 23;
/// Samples of each pixel at most.
pub const SAMPLES_MOST: u32 = 4096;

/// What a picture is asked to be.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Asked {
    /// Pixels across.
    pub width: usize,
    /// Pixels down.
    pub height: usize,
    /// Rounds of samples: one of each pixel, more where there is more to see.
    pub samples: u32,
    /// Another seed gives other noise.
    pub seed: u32,
    /// Smooth the noise of few samples.
    pub smooth: bool,
    /// Leave out sheen and spectacle lenses, which a scene that leaves the building cannot hold.
    pub matt: bool,
    /// How rays are walked; the fastest if none is told.
    pub walk: Option<Walk>,
}

/// A picture's light, kept apart by group, with what it needs to be developed.
pub struct Rendered {
    /// Pixels across.
    pub width: usize,
    /// Pixels down.
    pub height: usize,
    /// Rounds of samples.
    pub samples: u32,
    /// Samples that a pixel has had in the mean: more where there is more to see.
    pub mean_samples: f32,
    /// Light by group.
    pub light: Smoothed,
    /// The groups.
    pub groups: Vec<Group>,
    /// The camera's exposure.
    pub exposure: Exposure,
    /// The thing in each pixel.
    pub seen: Vec<u16>,
    /// What they are.
    pub things: Things,
}

impl Rendered {
    /// Linear signal of every pixel, as the camera is set.
    pub fn signal(&self) -> Vec<Vec3> {
        develop::mixed(&self.light, self.groups.len(), &develop::worth(&self.groups, &self.exposure))
    }

    /// Luminance of every pixel, cd/m2, red, green and blue, without white balance.
    pub fn luminance(&self) -> Vec<Vec3> {
        let mut worth = [Vec3::ZERO; GROUPS];
        worth.iter_mut().zip(&self.groups).for_each(|(worth, group)| *worth = develop::unbalanced(group));
        develop::mixed(&self.light, self.groups.len(), &worth)
    }

    /// The picture as it is shown: red, green, blue, opaque.
    pub fn shown(&self) -> Vec<u8> {
        develop::shown(&self.signal(), &self.exposure)
    }
}

/// Takes a picture of what has been staged.
pub fn render(staged: &Staged, asked: &Asked) -> Rendered {
    let walk = asked.walk.unwrap_or_else(Walk::fastest);
    let dials = develop::dials(&staged.groups);
    let tracer = Tracer::new(Arc::clone(&staged.scene), &staged.sights, dials, Care::FULL, walk, !asked.matt);
    let mut film = Film::new(asked.width, asked.height, staged.groups.len().max(1));
    // Smoothing takes the noise of even surfaces: samples go where it does not. Without it all pixels get as many.
    let busy = |thing: u16| staged.things.is_busy(thing);
    for _ in 0..asked.samples {
        tracer.expose(
            &mut film,
            asked.seed,
            asked.smooth.then_some(&busy as &(dyn Fn(u16) -> bool + Sync)),
            &|| true,
        );
    }
    let light = if asked.smooth { smoothed(&film, dials) } else { Smoothed::raw(&film) };
    Rendered {
        width: asked.width,
        height: asked.height,
        samples: asked.samples,
        mean_samples: film.counts.iter().map(|count| f32::from(*count)).sum::<f32>()
            / film.counts.len().max(1) as f32,
        light,
        groups: staged.groups.clone(),
        exposure: staged.exposure,
        seen: film.things,
        things: staged.things.clone(),
    }
}
