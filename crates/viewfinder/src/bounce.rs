//! Light that surfaces throw back: worked out once for small patches of everything, all reflections counted, and looked up by the
//! rays of a picture at their second surface. What patches see of each other hangs on places alone and is kept while those stay.
//!
//! Source (from memory): Goral and others 1984, Modeling the interaction of light between diffuse surfaces; Ward, Rubinstein and
//! Clear 1988, A ray tracing solution for diffuse interreflection.
use std::f32::consts::PI;

use glam::Vec3;
use rayon::prelude::*;

use crate::panel::on_disc;
use crate::random::Pairs;
use crate::scene::{GROUPS, Scene};
use crate::surface::Finish;
use crate::trace::Care;
use crate::tree::{Ray, Walk};

/// Rays from each patch to what it sees.
const RAYS: usize = 128;
/// A ray that meets nothing that throws light back.
const NOTHING: u32 = u32::MAX;
/// Rays begin so far before a surface, m.
pub(crate) const OFF_M: f32 = 2e-4;

/// What patches see of each other.
#[derive(Debug, Clone, Default)]
pub struct Sights {
    /// For each patch the patches that its rays meet.
    met: Vec<u32>,
}

/// Light on every patch from each light group, for a luminance of 1 of the group: red, green and blue.
#[derive(Debug, Clone)]
pub(crate) struct Thrown {
    pub(crate) light: Vec<[Vec3; GROUPS]>,
    /// The part of it that came by way of other patches.
    pub(crate) again: Vec<[Vec3; GROUPS]>,
}

/// Axes across a direction of length 1 (Duff and others 2017, Building an orthonormal basis, revisited; from memory).
#[inline]
pub(crate) fn across(normal: Vec3) -> (Vec3, Vec3) {
    let sign = 1.0_f32.copysign(normal.z);
    let a = -1.0 / (sign + normal.z);
    let b = normal.x * normal.y * a;
    (
        Vec3::new(1.0 + sign * normal.x * normal.x * a, sign * b, -sign * normal.x),
        Vec3::new(b, sign + normal.y * normal.y * a, -normal.y),
    )
}

/// A direction off a surface, denser where it gets more light, by a pair of even numbers.
#[inline]
pub(crate) fn off(normal: Vec3, pair: [f32; 2]) -> Vec3 {
    let [x, y] = on_disc(pair);
    let (a, b) = across(normal);
    a * x + b * y + normal * (1.0 - x * x - y * y).max(0.0).sqrt()
}

impl Sights {
    /// What the patches of all bodies that stay see of each other. What has been set up is dark, and sees what the room does in the
    /// mean.
    pub(crate) fn of_staying(scene: &Scene, walk: Walk) -> Self {
        let number = scene.first_patch.get(scene.staying).copied().unwrap_or(scene.patches);
        let rows: Vec<[u32; RAYS]> = (0..number)
            .into_par_iter()
            .map(|number| {
                let (placed, patch) = scene.patch_of(number);
                let pairs = Pairs::new(0, number as u32, 1);
                std::array::from_fn(|ray| {
                    let Some((place, normal)) = placed.point(patch, ray) else { return NOTHING };
                    let direction = off(normal, pairs.get(ray as u32));
                    let ray = Ray { origin: place + normal * OFF_M, direction, reach: f32::INFINITY };
                    match scene.first_of(scene.staying, &ray, walk) {
                        Some(met) if !matches!(scene.material(&met).finish, Finish::Shines(_)) => {
                            scene.patch(&met).0 as u32
                        }
                        _ => NOTHING,
                    }
                })
            })
            .collect();
        Self { met: rows.concat() }
    }
}

impl Thrown {
    /// The light on every patch, straight and by all reflections.
    pub(crate) fn of(scene: &Scene, sights: &Sights, care: Care, walk: Walk) -> Self {
        let straight: Vec<[Vec3; GROUPS]> = (0..scene.patches)
            .into_par_iter()
            .map(|number| straight(scene, number, care.points, walk))
            .collect();
        let colours: Vec<Vec3> = (0..scene.patches)
            .map(|number| {
                let (placed, patch) = scene.patch_of(number);
                placed.body.patches[patch].colour
            })
            .collect();
        let ambient = ambient(scene, &straight, &colours);
        let mut light: Vec<[Vec3; GROUPS]> = straight
            .iter()
            .map(|own| {
                let mut all = *own;
                all.iter_mut().zip(ambient).for_each(|(light, ambient)| *light += ambient);
                all
            })
            .collect();
        for _ in 0..care.sweeps {
            let thrown: Vec<[Vec3; GROUPS]> =
                light.iter().zip(&colours).map(|(light, colour)| light.map(|part| part * colour)).collect();
            let followed: Vec<[Vec3; GROUPS]> = sights
                .met
                .par_chunks(RAYS)
                .zip(&straight)
                .map(|(row, own)| {
                    let mut sum = [Vec3::ZERO; GROUPS];
                    for &patch in row.iter().filter(|patch| **patch != NOTHING) {
                        let from = &thrown[patch as usize];
                        for group in 0..scene.groups {
                            sum[group] += from[group];
                        }
                    }
                    std::array::from_fn(|group| own[group] + sum[group] / RAYS as f32)
                })
                .collect();
            light[..followed.len()].copy_from_slice(&followed);
        }
        let less =
            |(light, own): (&[Vec3; GROUPS], &[Vec3; GROUPS])| std::array::from_fn(|i| light[i] - own[i]);
        let again = light.iter().zip(&straight).map(less).collect();
        Self { light, again }
    }
}

/// Straight from what shines, the mean over points of the patch.
fn straight(scene: &Scene, number: usize, points: u32, walk: Walk) -> [Vec3; GROUPS] {
    let (placed, patch) = scene.patch_of(number);
    let mut sum = [Vec3::ZERO; GROUPS];
    if placed.body.patches[patch].colour == Vec3::ZERO {
        return sum;
    }
    for point in 0..points {
        let Some((place, normal)) = placed.point(patch, point as usize) else { break };
        for (source, shining) in scene.sources.iter().enumerate() {
            let pair = Pairs::new(0, number as u32, 2 + source as u32).get(point);
            let Some(seen) = shining.seen_from(place, normal, pair) else { continue };
            let ray = Ray { origin: place + normal * OFF_M, direction: seen.to, reach: seen.free };
            if !scene.any(&ray, walk) {
                for (group, luminance) in &shining.from {
                    sum[*group] += *luminance * (seen.weight / points as f32);
                }
            }
        }
    }
    sum
}

/// A first estimate of what all surfaces throw back, as if they were one: the mean light times rho / (1 - rho).
fn ambient(scene: &Scene, straight: &[[Vec3; GROUPS]], colours: &[Vec3]) -> [Vec3; GROUPS] {
    let (mut area, mut colour) = (0.0, Vec3::ZERO);
    let mut light = [Vec3::ZERO; GROUPS];
    for (number, (own, rho)) in straight.iter().zip(colours).enumerate() {
        let (placed, patch) = scene.patch_of(number);
        let own_area = placed.body.patches[patch].area_m2;
        area += own_area;
        colour += *rho * own_area;
        light.iter_mut().zip(own).for_each(|(sum, own)| *sum += *own * *rho * own_area);
    }
    let area = f32::max(area, 1e-6);
    let kept = (Vec3::ONE - (colour / area).min(Vec3::splat(0.95))).max(Vec3::splat(0.05));
    light.map(|sum| sum / area / kept)
}

/// Luminance of a matt surface of a reflectance under a light.
#[inline]
pub(crate) fn luminance(colour: Vec3, light: Vec3) -> Vec3 {
    colour * light / PI
}
