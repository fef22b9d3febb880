//! One look through a pixel: to the first surface, from there to everything that shines, and one step on to what other surfaces
//! throw back.
use std::f32::consts::PI;
use std::sync::Arc;

use glam::Vec3;
use rayon::prelude::*;

use crate::bounce::{self, OFF_M, Sights, Thrown};
use crate::denoise::LEAST;
use crate::film::{BLOCK, Film, Groups, Guide, Light, NO_THING, luminance};
use crate::random::Pairs;
use crate::scene::{GROUPS, Met, Scene};
use crate::surface::{At, Finish};
use crate::tree::{Ray, Walk};

/// What random numbers are for: place in the pixel, place in the lens, the step on, then each source.
const IN_PIXEL: u32 = 0;
const IN_LENS: u32 = 1;
const STEP_ON: u32 = 2;
const SOURCES: u32 = 3;
const NEAR: u32 = 1 << 16;
/// Nearer than this the light over a patch is not taken as even, m.
const NEAR_M: f32 = 0.05;
/// Clear sheets looked through at most: both spectacle lenses, from the side.
const SHEETS: usize = 3;
/// Reflectances that differ by more than this have an edge between them.
const EDGE_COLOUR: f32 = 0.06;
/// Samples in a round where there is much to see.
const BUSY: usize = 4;
/// Mirrors followed from one to the next.
const MIRRORS: usize = 4;

/// How much care is taken with light that surfaces throw back.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Care {
    /// Points of each patch at which its light is looked at.
    pub(crate) points: u32,
    /// Reflections followed one after the other, after a first estimate by the whole room.
    pub(crate) sweeps: usize,
    /// Steps on from the first surface of each sample: they carry most of the noise.
    pub(crate) steps: u32,
}

impl Care {
    /// For a picture that is to be there at once.
    pub const QUICK: Self = Self { points: 4, sweeps: 3, steps: 1 };
    /// For a picture to be judged.
    pub const FULL: Self = Self { points: 16, sweeps: 5, steps: 2 };
}

/// A scene ready to be looked at.
pub struct Tracer {
    scene: Arc<Scene>,
    care: Care,
    thrown: Thrown,
    /// What a luminance of 1 of each group is worth now: for the moments only.
    worth: [f32; GROUPS],
    walk: Walk,
    with_gloss: bool,
}

impl Tracer {
    /// Works out the light that surfaces throw back.
    pub fn new(
        scene: Arc<Scene>,
        sights: &Sights,
        worth: [f32; GROUPS],
        care: Care,
        walk: Walk,
        with_gloss: bool,
    ) -> Self {
        let thrown = Thrown::of(&scene, sights, care, walk);
        Self { scene, care, thrown, worth, walk, with_gloss }
    }

    /// Adds a round of samples to a film: one to every pixel, and more where edges, hair and shadows need them, as `busy` says of
    /// things; without it all pixels get one. Tells whether it came to the end; rows go on while `goes_on` says so.
    pub fn expose(
        &self,
        film: &mut Film,
        seed: u32,
        busy: Option<&(dyn Fn(u16) -> bool + Sync)>,
        goes_on: &(dyn Fn() -> bool + Sync),
    ) -> bool {
        let Film { width, groups, rounds, .. } = *film;
        let size = [width as f32, film.height as f32];
        let rows = film
            .light
            .par_chunks_mut(width * groups * BLOCK)
            .zip(film.guides.par_chunks_mut(width * BLOCK))
            .zip(film.things.par_chunks_mut(width * BLOCK))
            .zip(film.counts.par_chunks_mut(width * BLOCK))
            .zip(film.blocks.par_iter_mut());
        let whole = rows
            .enumerate()
            .map(|(chunk, ((((light, guides), things), counts), block))| {
                if *block > rounds {
                    return true;
                }
                if !goes_on() {
                    return false;
                }
                let high = guides.len() / width;
                let mut rows = Rows { light, guides, things, counts, groups };
                for left in (0..width).step_by(BLOCK) {
                    let wide = BLOCK.min(width - left);
                    let pixels = || {
                        (0..high).flat_map(|row| (left..left + wide).map(move |column| row * width + column))
                    };
                    let sample = |rows: &mut Rows<'_>, at: usize| {
                        let pixel = chunk * BLOCK * width + at;
                        let place = [(pixel % width) as f32, (pixel / width) as f32];
                        let number = u32::from(rows.counts[at]);
                        let mut gathered = Groups::default();
                        let (found, met) = self.look(pixel as u32, place, size, seed, number, &mut gathered);
                        rows.add(at, &gathered, &found, met);
                    };
                    pixels().for_each(|at| sample(&mut rows, at));
                    if busy.is_some_and(|busy| rows.is_busy(pixels(), busy)) {
                        for _ in 1..BUSY {
                            pixels().for_each(|at| sample(&mut rows, at));
                        }
                    }
                }
                *block += 1;
                true
            })
            .reduce(|| true, |a, b| a && b);
        if whole {
            film.rounds += 1;
        }
        whole
    }

    /// Light on a surface at a place, lx for a luminance of 1 of each group: straight, and by way of other surfaces.
    pub fn light_at(&self, place: Vec3, normal: Vec3, samples: u32) -> [(Vec3, Vec3); GROUPS] {
        let surface = At { face: normal, normal, colour: Vec3::ONE };
        let mut all = Groups::default();
        for number in 0..samples {
            self.straight(place, &surface, Vec3::ONE, Finish::Matt, normal, 1, 0, number, &mut all);
            self.step_on(place, &surface, Vec3::ONE, 1, 0, number, &mut all);
        }
        // A white surface throws back L = E / pi.
        all.map(|light| (light.straight * PI / samples as f32, light.thrown * PI / samples as f32))
    }

    fn look(
        &self,
        pixel: u32,
        at: [f32; 2],
        size: [f32; 2],
        seed: u32,
        number: u32,
        out: &mut Groups,
    ) -> (Guide, u16) {
        let pairs = |purpose| Pairs::new(seed, pixel, purpose);
        let [x, y] = pairs(IN_PIXEL).get(number);
        let place = [(at[0] + x) / size[0], (at[1] + y) / size[1]];
        let lens = &self.scene.lens;
        let mut ray = lens.ray(place, pairs(IN_LENS).get(number));
        let nothing = (Guide::default(), NO_THING);
        let Some(mut met) = self.scene.first(&ray, self.walk) else { return nothing };
        let mut passes = self.through_glass(&ray, met.at, out);
        let depth_m = met.at * ray.direction.dot(lens.forward);
        for _ in 0..MIRRORS {
            let Finish::Mirror(part) = self.scene.material(&met).finish else { break };
            let mirror = self.scene.surface(&met, ray.direction);
            let origin = ray.origin + ray.direction * met.at + mirror.face * OFF_M;
            let direction = ray.direction - mirror.normal * (2.0 * mirror.normal.dot(ray.direction));
            ray = Ray { origin, direction, reach: f32::INFINITY };
            let Some(next) = self.scene.first(&ray, self.walk) else { return nothing };
            met = next;
            passes *= part;
        }
        let material = self.scene.material(&met);
        if let Finish::Shines(source) = material.finish {
            self.shines(&met, usize::from(source), ray.direction, passes, out);
            let normal = self.scene.surface(&met, ray.direction).normal;
            return (Guide { normal, depth_m, ..Guide::default() }, material.thing);
        }
        let surface = self.scene.surface(&met, ray.direction);
        let place = ray.origin + ray.direction * met.at;
        let towards = -ray.direction.normalize();
        let colour = self.scattered(material.finish, &surface, towards, surface.colour);
        let mut own = Groups::default();
        self.straight(place, &surface, colour, material.finish, towards, seed, pixel, number, &mut own);
        self.step_on(place, &surface, colour, seed, pixel, number, &mut own);
        if let Finish::Coat(index) = material.finish {
            let way = ray.direction - surface.normal * (2.0 * surface.normal.dot(ray.direction));
            let part = fresnel(surface.normal.dot(towards), index);
            self.mirrored(&from(place, surface.face, way, f32::INFINITY), part, &mut own);
        }
        let mut straight_light = 0.0;
        for (group, (sum, own)) in out.iter_mut().zip(&own).enumerate() {
            sum.straight += own.straight * passes;
            sum.thrown += own.thrown * passes;
            sum.gloss += own.gloss * passes;
            straight_light += luminance(own.straight) * self.worth[group];
        }
        let value = straight_light / (luminance(colour) + LEAST);
        let guide = Guide { colour, normal: surface.normal, depth_m, moments: [value, value * value] };
        (guide, material.thing)
    }

    /// Spectacle lenses before what a ray meets: what they mirror is added, and the part that passes them told.
    fn through_glass(&self, ray: &Ray, reach: f32, out: &mut Groups) -> f32 {
        let mut passes = 1.0;
        let mut from = *ray;
        let mut left = reach;
        for _ in 0..SHEETS {
            let Some((at, normal, coated)) = self.scene.first_glass(&Ray { reach: left, ..from }, self.walk)
            else {
                break;
            };
            let place = from.origin + from.direction * at;
            let direction = ray.direction.normalize();
            let normal = if normal.dot(direction) > 0.0 { -normal } else { normal };
            // Both faces of a thin sheet, again and again: 2F / (1 + F).
            let one = fresnel(-normal.dot(direction), GLASS_INDEX);
            let thrown = coated * 2.0 * one / (1.0 + one);
            if self.with_gloss {
                let way = direction - normal * (2.0 * normal.dot(direction));
                let mirror = Ray { origin: place + normal * OFF_M, direction: way, reach: f32::INFINITY };
                self.mirrored(&mirror, passes * thrown, out);
            }
            passes *= 1.0 - thrown;
            let past = at + OFF_M;
            from.origin += from.direction * past;
            left -= past;
        }
        passes
    }

    /// A thing that shines, seen itself.
    fn shines(&self, met: &Met, source: usize, along: Vec3, part: f32, out: &mut Groups) {
        let Some(shining) = self.scene.sources.get(source) else { return };
        if !self.scene.is_front(met, along) {
            return;
        }
        let surface = self.scene.surface(met, along);
        let falls = shining.falls_off(-surface.face.dot(along.normalize()));
        for (group, from) in &shining.from {
            out[*group].gloss += luminance(*from) * falls * part;
        }
    }

    /// What a smooth coat or a clear sheet mirrors.
    fn mirrored(&self, ray: &Ray, part: f32, out: &mut Groups) {
        let Some(met) = self.scene.first(ray, self.walk) else { return };
        if let Finish::Shines(source) = self.scene.material(&met).finish {
            return self.shines(&met, usize::from(source), ray.direction, part, out);
        }
        let (patch, colour) = self.scene.patch(&met);
        for (light, own) in self.thrown.light[patch].iter().zip(out) {
            own.gloss += part * luminance(bounce::luminance(colour, *light));
        }
    }

    /// What of the light a surface throws back matt: under a clear coat less gets in and out.
    fn scattered(&self, finish: Finish, surface: &At, towards: Vec3, colour: Vec3) -> Vec3 {
        let Finish::Coat(index) = finish else { return colour };
        let out = 1.0 - fresnel(surface.normal.dot(towards), index);
        // What the coat sends back inwards comes out in the end: a colour stays what it was painted.
        colour * out / (index * index * (1.0 - inner_reflectance(index)))
    }

    #[allow(clippy::too_many_arguments)]
    fn straight(
        &self,
        place: Vec3,
        surface: &At,
        colour: Vec3,
        finish: Finish,
        towards: Vec3,
        seed: u32,
        pixel: u32,
        number: u32,
        out: &mut Groups,
    ) {
        let matt = colour / PI;
        for (source, shining) in self.scene.sources.iter().enumerate() {
            let pair = Pairs::new(seed, pixel, SOURCES + source as u32).get(number);
            let Some(seen) = shining.seen_from(place, surface.normal, pair) else { continue };
            if self.scene.any(&from(place, surface.face, seen.to, seen.free), self.walk) {
                continue;
            }
            let direction = seen.to.normalize();
            let (mut enters, mut sheen) = (1.0, 0.0);
            match finish {
                Finish::Sheen { roughness, straight_on } if self.with_gloss => {
                    sheen = ggx(roughness, straight_on, surface.normal, towards, direction);
                }
                Finish::Coat(index) => enters = 1.0 - fresnel(surface.normal.dot(direction), index),
                Finish::Sheen { .. }
                | Finish::Matt
                | Finish::Shines(_)
                | Finish::Mirror(_)
                | Finish::Glass(_) => {}
            }
            for (group, shines) in &shining.from {
                out[*group].straight += matt * *shines * (seen.weight * enters);
                out[*group].gloss += luminance(*shines) * (sheen * seen.weight);
            }
        }
    }

    /// One step on: what the surface met there throws back is known. Where that is so near that the light over one patch may
    /// differ, what shines on it straight is asked.
    #[allow(clippy::too_many_arguments)]
    fn step_on(
        &self,
        place: Vec3,
        surface: &At,
        colour: Vec3,
        seed: u32,
        pixel: u32,
        number: u32,
        out: &mut Groups,
    ) {
        let pairs = Pairs::new(seed, pixel, STEP_ON);
        let steps = self.care.steps;
        let part = colour / steps as f32;
        for step in 0..steps {
            let direction = bounce::off(surface.normal, pairs.get(number * steps + step));
            let ray = from(place, surface.face, direction, f32::INFINITY);
            let Some(met) = self.scene.first(&ray, self.walk) else { continue };
            if matches!(self.scene.material(&met).finish, Finish::Shines(_)) {
                // What shines was asked straight.
                continue;
            }
            let (patch, there) = self.scene.patch(&met);
            if met.at > NEAR_M {
                for (light, own) in
                    self.thrown.light[patch].iter().zip(out.iter_mut()).take(self.scene.groups)
                {
                    own.thrown += part * bounce::luminance(there, *light);
                }
                continue;
            }
            let near = self.scene.surface(&met, direction);
            let there_at = ray.origin + direction * met.at;
            for (thrown, own) in self.thrown.again[patch].iter().zip(out.iter_mut()).take(self.scene.groups) {
                own.thrown += part * bounce::luminance(there, *thrown);
            }
            for (source, shining) in self.scene.sources.iter().enumerate() {
                let pair = Pairs::new(seed, pixel, NEAR + source as u32).get(number * steps + step);
                let Some(seen) = shining.seen_from(there_at, near.normal, pair) else { continue };
                if !self.scene.any(&from(there_at, near.face, seen.to, seen.free), self.walk) {
                    for (group, shines) in &shining.from {
                        out[*group].thrown += part * bounce::luminance(there, *shines * seen.weight);
                    }
                }
            }
        }
    }
}

/// A ray from a surface, begun a little off it on the side to which it goes.
#[inline]
fn from(place: Vec3, face: Vec3, direction: Vec3, reach: f32) -> Ray {
    let side = if face.dot(direction) < 0.0 { -OFF_M } else { OFF_M };
    Ray { origin: place + face * side, direction, reach }
}

/// Some rows of a film.
struct Rows<'a> {
    light: &'a mut [Light],
    guides: &'a mut [Guide],
    things: &'a mut [u16],
    counts: &'a mut [u16],
    groups: usize,
}

impl Rows<'_> {
    fn add(&mut self, at: usize, gathered: &Groups, found: &Guide, met: u16) {
        let own = self.light[at * self.groups..(at + 1) * self.groups].iter_mut();
        own.zip(gathered).for_each(|(light, more)| light.add(more));
        self.guides[at].add(found);
        if self.counts[at] == 0 {
            self.things[at] = met;
        }
        self.counts[at] += 1;
    }

    /// Whether there is much to see in some pixels: busy things, several things, several colours.
    fn is_busy(&self, pixels: impl Iterator<Item = usize>, busy: &(dyn Fn(u16) -> bool + Sync)) -> bool {
        let mut first: Option<(u16, Vec3)> = None;
        for at in pixels {
            let colour = self.guides[at].colour / f32::from(self.counts[at].max(1));
            let (thing, other) = *first.get_or_insert((self.things[at], colour));
            let differs = (colour - other).abs().max_element() > EDGE_COLOUR;
            if differs || self.things[at] != thing || busy(self.things[at]) {
                return true;
            }
        }
        false
    }
}

/// Refractive index of a spectacle lens (CR-39, from memory).
const GLASS_INDEX: f32 = 1.50;

/// Part that a smooth clear surface mirrors (Fresnel's equations, without polarisation).
fn fresnel(cosine: f32, index: f32) -> f32 {
    let cosine = cosine.clamp(0.0, 1.0);
    let inner = (1.0 - (1.0 - cosine * cosine) / (index * index)).max(0.0).sqrt();
    let parallel = (index * cosine - inner) / (index * cosine + inner);
    let across = (cosine - index * inner) / (cosine + index * inner);
    (parallel * parallel + across * across) / 2.0
}

/// Part of even light that a clear surface sends back inwards (the polynomial of Egan and Hilgeman 1973, from memory).
fn inner_reflectance(index: f32) -> f32 {
    -1.4399 / (index * index) + 0.7099 / index + 0.6681 + 0.0636 * index
}

/// A rough sheen: Walter and others 2007 with Schlick's approximations (from memory). Luminance for each lux.
fn ggx(roughness: f32, straight_on: f32, normal: Vec3, towards: Vec3, light: Vec3) -> f32 {
    let half = (towards + light).normalize_or_zero();
    let (n_h, n_v) = (normal.dot(half), normal.dot(towards).max(0.05));
    let n_l = normal.dot(light).max(0.05);
    let square = roughness * roughness;
    let spread = square / (PI * (n_h * n_h * (square - 1.0) + 1.0).powi(2));
    let shadow = |cosine: f32| cosine / (cosine * (1.0 - roughness / 2.0) + roughness / 2.0);
    let mirrors = straight_on + (1.0 - straight_on) * (1.0 - half.dot(light).max(0.0)).powi(5);
    spread * shadow(n_v) * shadow(n_l) * mirrors / (4.0 * n_v * n_l)
}
