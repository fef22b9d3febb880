//! Noise of few samples smoothed away along what the surfaces tell: where colour, direction and depth are alike, light is alike.
//! Weights are shared by all light groups, so that the smoothed picture is as linear in the dials as the light is. The more
//! samples, the less is smoothed.
//!
//! Sources (from memory): Dammertz and others 2010, Edge-avoiding à-trous wavelet transform; Schied and others 2017, SVGF.
use std::collections::VecDeque;

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
pub(crate) const LEAST: f32 = 0.02;
/// Weights of the 3 x 3 kernel by how many steps aside.
const KERNEL: [f32; 3] = [0.25, 0.125, 0.0625];

/// A picture's light by group, smoothed: for each pixel and group red, green and blue, for a luminance of 1 of the group.
#[derive(Debug, Clone, Default)]
pub struct Smoothed {
    pub(crate) light: Vec<Vec3>,
}

impl Smoothed {
    /// As it was gathered.
    pub fn raw(film: &Film) -> Self {
        let means = film.light.par_iter().enumerate().map(|(at, light)| {
            (light.straight + light.thrown + light.gloss) / f32::from(film.counts[at / film.groups].max(1))
        });
        Self { light: means.collect() }
    }
}

/// What a pixel shows, means of its samples.
#[derive(Clone, Copy)]
struct Guide {
    colour: Vec3,
    normal: Vec3,
    depth_m: f32,
}

/// A pixel's straight light, and how sure it is: smoothed from level to level.
#[derive(Clone, Copy, Default)]
struct Straight {
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
        return Smoothed::raw(film);
    }
    let guides = guides(film);
    let mut straight = straight(film, &guides);
    let mut signal: Vec<Signal> = (0..pixels * film.groups)
        .into_par_iter()
        .map(|at| {
            let (straight, thrown, _) = raw(at / film.groups, at % film.groups);
            let colour = guides[at / film.groups].colour;
            let thrown = thrown / (colour + LEAST);
            Vec4::new(luminance(straight) / (luminance(colour) + LEAST), thrown.x, thrown.y, thrown.z)
        })
        .collect();
    let levels = if film.width <= SMALL { LEVELS - 1 } else { LEVELS };
    for level in 0..levels {
        Level { film, guides: &guides, level, worth }.smooth(&mut straight, &mut signal);
    }
    // The next list is as long: these make room for it.
    drop((guides, straight));
    let light = signal
        .par_iter()
        .enumerate()
        .map(|(at, signal)| {
            let (straight, thrown, gloss) = raw(at / film.groups, at % film.groups);
            let colour = guide(film, at / film.groups).colour;
            let bright = luminance(colour);
            let smooth_straight = colour * (signal.x * (bright + LEAST) / bright.max(1e-4));
            let smooth = smooth_straight + Vec3::new(signal.y, signal.z, signal.w) * (colour + LEAST);
            (straight + thrown).lerp(smooth, weight(at / film.groups)) + gloss
        })
        .collect();
    Smoothed { light }
}

fn guide(film: &Film, pixel: usize) -> Guide {
    let guide = &film.guides[pixel];
    let part = 1.0 / f32::from(film.counts[pixel].max(1));
    Guide { colour: guide.colour * part, normal: guide.normal * part, depth_m: guide.depth_m * part }
}

fn guides(film: &Film) -> Vec<Guide> {
    (0..film.guides.len()).into_par_iter().map(|pixel| guide(film, pixel)).collect()
}

/// The straight light, and how sure it is: by its own samples, of few by those around it.
fn straight(film: &Film, guides: &[Guide]) -> Vec<Straight> {
    let own = |at: usize| {
        let part = 1.0 / f32::from(film.counts[at].max(1));
        let [value, square] = film.guides[at].moments.map(|moment| moment * part);
        Straight { value, variance: (square - value * value).max(0.0) * part }
    };
    let (width, height) = (film.width, film.height);
    (0..height)
        .into_par_iter()
        .flat_map_iter(|y| {
            (0..width).map(move |x| {
                let here = y * width + x;
                let (mut sum, mut value, mut square, mut number) = (0.0, 0.0, 0.0, 0.0);
                for j in y.saturating_sub(2)..(y + 3).min(height) {
                    for there in j * width + x.saturating_sub(2)..j * width + (x + 3).min(width) {
                        if guides[there].normal.dot(guides[here].normal) < 0.8 {
                            continue;
                        }
                        let other = own(there);
                        sum += other.variance;
                        value += other.value;
                        square += other.value * other.value;
                        number += 1.0;
                    }
                }
                if number == 0.0 {
                    return own(here);
                }
                let around = (square / number - (value / number).powi(2)).max(0.0);
                let variance = if film.counts[here] < 4 { around } else { sum / number };
                Straight { variance, ..own(here) }
            })
        })
        .collect()
}

/// One level of smoothing.
struct Level<'a> {
    film: &'a Film,
    guides: &'a [Guide],
    level: usize,
    worth: [f32; GROUPS],
}

/// A row of pixels.
#[derive(Clone, Copy)]
struct Row<'a> {
    straight: &'a [Straight],
    signal: &'a [Signal],
}

/// A row kept as it was.
type Kept = (Vec<Straight>, Vec<Signal>);

impl Row<'_> {
    fn kept(&self) -> Kept {
        (self.straight.to_vec(), self.signal.to_vec())
    }
}

fn row((straight, signal): &Kept) -> Row<'_> {
    Row { straight, signal }
}

impl Level<'_> {
    /// Every pixel becomes the mean of what is alike around it, `1 << level` apart. In place, in bands of rows: a second list
    /// would be the largest of all. Rows that are still asked for are kept as they were.
    fn smooth(&self, straight: &mut [Straight], signal: &mut [Signal]) {
        let Film { width, height, groups, .. } = *self.film;
        let step = 1_usize << self.level;
        let band = height.div_ceil(2 * rayon::current_num_threads()).max(1 << LEVELS);
        let around: Vec<[VecDeque<Kept>; 2]> = (0..height)
            .step_by(band)
            .map(|first| {
                let end = (first + band).min(height);
                [first.saturating_sub(step)..first, end..(end + step).min(height)].map(|rows| {
                    let kept = rows.map(|y| Row {
                        straight: &straight[y * width..(y + 1) * width],
                        signal: &signal[y * width * groups..(y + 1) * width * groups],
                    });
                    kept.map(|row| row.kept()).collect()
                })
            })
            .collect();
        let bands = signal.par_chunks_mut(band * width * groups).zip(straight.par_chunks_mut(band * width));
        bands.zip(around).enumerate().for_each(|(number, ((signal, straight), [mut above, below]))| {
            let rows = straight.len() / width;
            for y in 0..rows {
                let (done, later) = signal.split_at_mut((y + 1) * width * groups);
                let (done_straight, later_straight) = straight.split_at_mut((y + 1) * width);
                let into = (&mut done_straight[y * width..], &mut done[y * width * groups..]);
                let own = Row { straight: into.0, signal: into.1 }.kept();
                let upper = if above.len() == step { above.pop_front() } else { None };
                let lower = if y + step < rows {
                    let at = step - 1;
                    Some(Row {
                        straight: &later_straight[at * width..(at + 1) * width],
                        signal: &later[at * width * groups..(at + 1) * width * groups],
                    })
                } else {
                    below.get(y + step - rows).map(row)
                };
                self.smooth_row(number * band + y, row(&own), [upper.as_ref().map(row), lower], into);
                above.push_back(own);
            }
        });
    }

    /// A row from itself and from those a step above and below.
    fn smooth_row(
        &self,
        y: usize,
        own_row: Row<'_>,
        [upper, lower]: [Option<Row<'_>>; 2],
        into: (&mut [Straight], &mut [Signal]),
    ) {
        let Self { film, guides, level, worth } = *self;
        let (width, groups) = (film.width, film.groups);
        let step = 1_isize << level;
        let depth_scale = 12.0 / (1.0 + level as f32);
        let rows = [(-1, upper), (0, Some(own_row)), (1, lower)];
        for x in 0..width {
            let (own, light) = (&guides[y * width + x], own_row.straight[x]);
            let mut sums = [Signal::ZERO; GROUPS];
            for (sum, signal) in sums.iter_mut().zip(&own_row.signal[x * groups..(x + 1) * groups]) {
                *sum = *signal * KERNEL[0];
            }
            let (mut of_straight, mut of_thrown) = (KERNEL[0], KERNEL[0]);
            let mut variance = light.variance * KERNEL[0] * KERNEL[0];
            let unsure = 0.5 / (light.variance.sqrt() + 1e-4 * light.value.abs() + 1e-12);
            for (j, row) in &rows {
                let (j, Some(row)) = (*j as isize, row) else { continue };
                let from = (y as isize + j * step) as usize * width;
                for i in -1..=1_isize {
                    let u = x as isize + i * step;
                    if u < 0 || u >= width as isize || (i == 0 && j == 0) {
                        continue;
                    }
                    let u = u as usize;
                    let (other, other_light) = (&guides[from + u], row.straight[u]);
                    let apart = other.normal.distance_squared(own.normal);
                    let deep = depth_scale * (other.depth_m - own.depth_m).abs();
                    let colours = other.colour.distance_squared(own.colour);
                    let kernel = KERNEL[(i.abs() + j.abs()) as usize];
                    let differs = (other_light.value - light.value).abs() * unsure;
                    let straight = kernel * falls(60.0 * apart + deep + 40.0 * colours + differs);
                    let thrown = kernel * falls(24.0 * apart + deep + 10.0 * colours);
                    let weights = Vec4::new(straight, thrown, thrown, thrown);
                    for (sum, signal) in sums.iter_mut().zip(&row.signal[u * groups..(u + 1) * groups]) {
                        *sum += *signal * weights;
                    }
                    of_straight += straight;
                    of_thrown += thrown;
                    variance += other_light.variance * straight * straight;
                }
            }
            let parts = Vec4::new(1.0 / of_straight, 1.0 / of_thrown, 1.0 / of_thrown, 1.0 / of_thrown);
            let mut value = 0.0;
            for (group, into) in into.1[x * groups..(x + 1) * groups].iter_mut().enumerate() {
                *into = sums[group] * parts;
                value += into.x * worth[group];
            }
            into.0[x] = Straight { value, variance: variance / (of_straight * of_straight) };
        }
    }
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
