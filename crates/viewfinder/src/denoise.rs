//! Noise of few samples smoothed away along what the surfaces tell: where colour, direction and depth are alike, light is alike.
//! Weights are shared by all light groups, so that the smoothed picture is as linear in the dials as the light is. The more
//! samples, the less is smoothed.
//!
//! Sources (from memory): Dammertz and others 2010, Edge-avoiding à-trous wavelet transform; Schied and others 2017, SVGF.
use glam::{Vec3, Vec4};
use rayon::prelude::*;

use crate::film::{Film, luminance};
use crate::scene::GROUPS;

/// Steps between neighbours, doubled from level to level; a small picture needs fewer.
const LEVELS: usize = 5;
const SMALL: usize = 480;
/// Smoothed wholly up to so many samples, and not at all from so many on.
const WHOLE: f32 = 8.0;
const NONE: f32 = 96.0;
/// Kept from a division by nothing where a surface is black.
const LEAST: f32 = 0.02;
/// Weights of the 3 x 3 kernel by how many steps aside.
const KERNEL: [f32; 3] = [0.25, 0.125, 0.0625];

/// A picture's light by group, smoothed: for each pixel and group red, green and blue, for a luminance of 1 of the group.
#[derive(Debug, Clone, Default)]
pub struct Smoothed {
    pub(crate) light: Vec<Vec3>,
}

/// Guides of a pixel, means of its samples.
#[derive(Clone, Copy)]
struct Pixel {
    colour: Vec3,
    normal: Vec3,
    depth_m: f32,
    /// The straight light, and how sure it is.
    value: f32,
    variance: f32,
}

/// Straight light over the reflectance (x), light thrown by others over it (y, z, w), of one group.
type Signal = Vec4;

/// Smooths what a film has gathered; `worth` is what a luminance of 1 of each group is worth now.
pub fn smoothed(film: &Film, worth: [f32; GROUPS]) -> Smoothed {
    let pixels = film.width * film.height;
    let raw = |pixel: usize, group: usize| {
        let light = &film.light[pixel * film.groups + group];
        let part = 1.0 / f32::from(film.counts[pixel].max(1));
        (light.straight * part, light.thrown * part, light.gloss * part)
    };
    let weight = |pixel: usize| {
        let count = f32::from(film.counts[pixel].max(1));
        ((NONE.ln() - count.ln()) / (NONE.ln() - WHOLE.ln())).clamp(0.0, 1.0)
    };
    if film.counts.iter().all(|count| f32::from(*count) >= NONE) {
        let light = (0..pixels * film.groups)
            .into_par_iter()
            .map(|at| {
                let (straight, thrown, gloss) = raw(at / film.groups, at % film.groups);
                straight + thrown + gloss
            })
            .collect();
        return Smoothed { light };
    }
    let mut guides = guides(film);
    let mut signal: Vec<Signal> = (0..pixels * film.groups)
        .into_par_iter()
        .map(|at| {
            let (straight, thrown, _) = raw(at / film.groups, at % film.groups);
            let colour = guides[at / film.groups].colour;
            let thrown = thrown / (colour + LEAST);
            Vec4::new(luminance(straight) / (luminance(colour) + LEAST), thrown.x, thrown.y, thrown.z)
        })
        .collect();
    let mut next = vec![Signal::ZERO; signal.len()];
    let mut next_guides = guides.clone();
    let levels = if film.width <= SMALL { LEVELS - 1 } else { LEVELS };
    for level in 0..levels {
        pass(film, &guides, &signal, &mut next_guides, &mut next, level, worth);
        std::mem::swap(&mut signal, &mut next);
        std::mem::swap(&mut guides, &mut next_guides);
    }
    let light = signal
        .par_iter()
        .enumerate()
        .map(|(at, signal)| {
            let (straight, thrown, gloss) = raw(at / film.groups, at % film.groups);
            let colour = guides[at / film.groups].colour;
            let bright = luminance(colour);
            let smooth_straight = colour * (signal.x * (bright + LEAST) / bright.max(1e-4));
            let smooth = smooth_straight + Vec3::new(signal.y, signal.z, signal.w) * (colour + LEAST);
            (straight + thrown).lerp(smooth, weight(at / film.groups)) + gloss
        })
        .collect();
    Smoothed { light }
}

/// Means of the guides, and how sure the straight light is: by its own samples, of few by those around it.
fn guides(film: &Film) -> Vec<Pixel> {
    let mut guides: Vec<Pixel> = film
        .guides
        .par_iter()
        .zip(&film.counts)
        .map(|(guide, count)| {
            let part = 1.0 / f32::from((*count).max(1));
            let value = guide.moments[0] * part;
            let square = guide.moments[1] * part;
            Pixel {
                colour: guide.colour * part,
                normal: guide.normal * part,
                depth_m: guide.depth_m * part,
                value,
                variance: (square - value * value).max(0.0) * part,
            }
        })
        .collect();
    let (width, height) = (film.width, film.height);
    let variances: Vec<f32> = (0..height)
        .into_par_iter()
        .flat_map_iter(|y| {
            let guides = &guides;
            (0..width).map(move |x| {
                let (mut sum, mut value, mut square, mut number) = (0.0, 0.0, 0.0, 0.0);
                let own = &guides[y * width + x];
                for j in y.saturating_sub(2)..(y + 3).min(height) {
                    for other in &guides[j * width + x.saturating_sub(2)..j * width + (x + 3).min(width)] {
                        if other.normal.dot(own.normal) < 0.8 {
                            continue;
                        }
                        sum += other.variance;
                        value += other.value;
                        square += other.value * other.value;
                        number += 1.0;
                    }
                }
                if number == 0.0 {
                    return own.variance;
                }
                let around = (square / number - (value / number).powi(2)).max(0.0);
                if film.counts[y * width + x] < 4 { around } else { sum / number }
            })
        })
        .collect();
    guides.iter_mut().zip(variances).for_each(|(guide, variance)| guide.variance = variance);
    guides
}

/// One level: every pixel becomes the mean of what is alike around it, `1 << level` apart.
fn pass(
    film: &Film,
    guides: &[Pixel],
    signal: &[Signal],
    next_guides: &mut [Pixel],
    next: &mut [Signal],
    level: usize,
    worth: [f32; GROUPS],
) {
    let (width, height, groups) = (film.width, film.height, film.groups);
    let step = 1_isize << level;
    let depth_scale = 12.0 / (1.0 + level as f32);
    let rows = next.par_chunks_mut(width * groups).zip(next_guides.par_chunks_mut(width));
    rows.enumerate().for_each(|(y, (row, row_guides))| {
        for x in 0..width {
            let here = y * width + x;
            let own = &guides[here];
            let mut sums = [Signal::ZERO; GROUPS];
            let own_signal = &signal[here * groups..(here + 1) * groups];
            for (sum, signal) in sums.iter_mut().zip(own_signal) {
                *sum = *signal * KERNEL[0];
            }
            let (mut of_straight, mut of_thrown) = (KERNEL[0], KERNEL[0]);
            let mut variance = own.variance * KERNEL[0] * KERNEL[0];
            let unsure = 0.5 / (own.variance.sqrt() + 1e-4 * own.value.abs() + 1e-12);
            for j in -1..=1_isize {
                let v = y as isize + j * step;
                if v < 0 || v >= height as isize {
                    continue;
                }
                for i in -1..=1_isize {
                    let u = x as isize + i * step;
                    if u < 0 || u >= width as isize || (i == 0 && j == 0) {
                        continue;
                    }
                    let there = v as usize * width + u as usize;
                    let other = &guides[there];
                    let apart = other.normal.distance_squared(own.normal);
                    let deep = depth_scale * (other.depth_m - own.depth_m).abs();
                    let colours = other.colour.distance_squared(own.colour);
                    let kernel = KERNEL[(i.abs() + j.abs()) as usize];
                    let straight = kernel
                        * falls(
                            60.0 * apart + deep + 40.0 * colours + (other.value - own.value).abs() * unsure,
                        );
                    let thrown = kernel * falls(24.0 * apart + deep + 10.0 * colours);
                    let weights = Vec4::new(straight, thrown, thrown, thrown);
                    let from = &signal[there * groups..(there + 1) * groups];
                    for (sum, signal) in sums.iter_mut().zip(from) {
                        *sum += *signal * weights;
                    }
                    of_straight += straight;
                    of_thrown += thrown;
                    variance += other.variance * straight * straight;
                }
            }
            let parts = Vec4::new(1.0 / of_straight, 1.0 / of_thrown, 1.0 / of_thrown, 1.0 / of_thrown);
            let mut value = 0.0;
            for (group, into) in row[x * groups..(x + 1) * groups].iter_mut().enumerate() {
                *into = sums[group] * parts;
                value += into.x * worth[group];
            }
            row_guides[x] = Pixel { value, variance: variance / (of_straight * of_straight), ..*own };
        }
    });
}

/// e^-x, to a few parts in a thousand, 0 far out: (1 - x / 8)^8 would be too rough, (1 - x / 16)^16 does.
#[inline]
fn falls(x: f32) -> f32 {
    let base = (1.0 - x / 16.0).max(0.0);
    let square = base * base;
    let fourth = square * square;
    let eighth = fourth * fourth;
    eighth * eighth
}
