//! What is told of a picture from its linear signal, before the tone curve: what clips, how many stops every place is from the
//! face, and how bright the sides of the face are.
use glam::Vec3;
use rayon::prelude::*;
use serde::Deserialize;

use crate::develop::{Exposure, Shown};
use crate::film::luminance;
use crate::stage::things::{Sort, Things};

/// An 18 % card under the light that it is metered at.
pub(crate) const GREY: f32 = 0.18;
/// Darker than this counts as this: stops under the face.
const STOPS_LEAST: f32 = -12.0;
/// What is clipped is dotted so: a square of so many pixels in each of so many.
const DOT: [usize; 2] = [3, 6];
/// Lines run over means of about so many to the picture's width.
const EVENED: usize = 120;
/// The colour that asks to act, and lines over light and dark places, sRGB.
const EMBER: [u8; 4] = [222, 92, 28, 255];

/// What is laid over a picture.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum Overlay {
    /// Nothing.
    #[default]
    None,
    /// Dots where the recording clips.
    Clipping,
    /// Lines of equal exposure, a stop apart, the one at the face's own level strong.
    Stops,
}

/// A place on the face: where it is in the picture, parts of it from the upper left, and its stops over the face.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Spot {
    /// Which of the places.
    pub which: usize,
    /// From the left.
    pub x: f32,
    /// From the top.
    pub y: f32,
    /// Over the face, stops.
    pub stops: f32,
}

/// What a picture tells of its exposure.
#[derive(Debug, Clone, PartialEq)]
pub struct Told {
    /// The face: the middle of its skin, linear signal.
    pub face_signal: f32,
    /// Stops of the face over an 18 % card.
    pub face_stops: f32,
    /// Part of the picture that clips.
    pub clipped_part: f32,
    /// Stops of the brighter and of the darker half of the face against all of it; none where no face is seen.
    pub sides_stops: Option<[f32; 2]>,
    /// Places on the face that are seen.
    pub spots: Vec<Spot>,
}

/// Stops between two signals.
pub fn stops(signal: f32, against: f32) -> f32 {
    (signal.max(1e-9) / against.max(1e-9)).log2().max(STOPS_LEAST)
}

/// Whether a recording that clips at a signal loses this one.
fn clips(signal: Vec3, exposure: &Exposure) -> bool {
    signal.max_element() >= exposure.clips_at
}

/// What the signal of a picture tells; `seen` has the thing in each pixel, `places` where on the face to look, parts of the picture,
/// none of one behind the lens.
pub fn told(
    signal: &[Vec3],
    width: usize,
    seen: &[u16],
    things: &Things,
    exposure: &Exposure,
    places: &[Option<[f32; 2]>],
) -> Told {
    let is_skin = |thing: u16| things.get(thing).is_some_and(|(_, sort)| sort == Sort::Skin);
    let skin: Vec<usize> =
        seen.iter().enumerate().filter(|(_, thing)| is_skin(**thing)).map(|(pixel, _)| pixel).collect();
    let middle = |mut of: Vec<f32>| {
        of.sort_by(f32::total_cmp);
        of.get(of.len() / 2).copied()
    };
    let bright = |pixel: &usize| luminance(signal[*pixel]);
    let face_signal = middle(skin.iter().map(bright).collect()).unwrap_or(GREY);
    let clipped = signal.par_iter().filter(|pixel| clips(**pixel, exposure)).count();
    // The face's own middle line parts it.
    let across = middle(skin.iter().map(|pixel| (pixel % width.max(1)) as f32).collect());
    let sides_stops = across.and_then(|line| {
        let side = |is_left: bool| {
            let own = skin.iter().filter(|pixel| (((*pixel % width) as f32) < line) == is_left);
            middle(own.map(bright).collect()).map(|signal| stops(signal, face_signal))
        };
        let (left, right) = (side(true)?, side(false)?);
        Some([left.max(right), left.min(right)])
    });
    let height = signal.len() / width.max(1);
    let spots = places.iter().enumerate().filter_map(|(which, place)| {
        let [x, y] = place.as_ref()?;
        let inside = (0.0..1.0).contains(x) && (0.0..1.0).contains(y);
        let pixel = inside.then(|| (y * height as f32) as usize * width + (x * width as f32) as usize)?;
        let is_seen = seen.get(pixel).is_some_and(|thing| is_skin(*thing));
        // The skin around it.
        let around = [0, 1, width, width + 1].map(|off| pixel + off).into_iter();
        let own: Vec<f32> =
            around.filter(|at| seen.get(*at).is_some_and(|t| is_skin(*t))).map(|at| bright(&at)).collect();
        let mean = own.iter().sum::<f32>() / own.len().max(1) as f32;
        is_seen.then(|| Spot { which, x: *x, y: *y, stops: stops(mean, face_signal) })
    });
    Told {
        spots: spots.collect(),
        face_signal,
        face_stops: stops(face_signal, GREY),
        clipped_part: clipped as f32 / signal.len().max(1) as f32,
        sides_stops,
    }
}

/// The picture as it is shown with an overlay: red, green, blue, opaque, for each pixel.
pub fn shown(
    signal: &[Vec3],
    width: usize,
    exposure: &Exposure,
    overlay: Overlay,
    face_signal: f32,
) -> Vec<u8> {
    let table = Shown::new(exposure);
    let even = if overlay == Overlay::Stops { evened(signal, width) } else { Vec::new() };
    let level = |pixel: usize| stops(even[pixel], face_signal);
    let rows = signal.par_chunks(width.max(1)).enumerate();
    rows.flat_map_iter(|(y, row)| {
        let table = &table;
        row.iter().enumerate().flat_map(move |(x, pixel)| {
            let here = y * width + x;
            match overlay {
                Overlay::Clipping
                    if clips(*pixel, exposure) && x % DOT[1] < DOT[0] && y % DOT[1] < DOT[0] =>
                {
                    EMBER
                }
                Overlay::Stops => line(signal, width, here, &level).map_or_else(
                    || grey(table, *pixel),
                    |strong| {
                        if strong { EMBER } else { contrast(grey(table, *pixel)) }
                    },
                ),
                Overlay::None | Overlay::Clipping => table.bytes(*pixel),
            }
        })
    })
    .collect()
}

/// Luminances, each the mean of those around it, so that lines run smoothly.
fn evened(signal: &[Vec3], width: usize) -> Vec<f32> {
    let radius = (width / EVENED).max(1);
    let bright: Vec<f32> = signal.par_iter().map(|pixel| luminance(*pixel)).collect();
    let along = mean_along_rows(&bright, width, radius);
    let height = bright.len() / width.max(1);
    let down = mean_along_rows(&turned(&along, width), height, radius);
    turned(&down, height)
}

fn mean_along_rows(values: &[f32], width: usize, radius: usize) -> Vec<f32> {
    let rows = values.par_chunks(width.max(1));
    rows.flat_map_iter(|row| {
        (0..row.len()).map(move |x| {
            let around = &row[x.saturating_sub(radius)..(x + radius + 1).min(row.len())];
            around.iter().sum::<f32>() / around.len() as f32
        })
    })
    .collect()
}

/// Rows as columns.
fn turned(values: &[f32], width: usize) -> Vec<f32> {
    (0..width).flat_map(|x| values.iter().skip(x).step_by(width.max(1)).copied()).collect()
}

/// Whether a line between two stops runs here, and whether it bounds the face's own.
fn line(signal: &[Vec3], width: usize, here: usize, level: &impl Fn(usize) -> f32) -> Option<bool> {
    let band = |pixel: usize| (level(pixel) + 0.5).floor() as i32;
    let own = band(here);
    let next = [!(here + 1).is_multiple_of(width.max(1)), here + width < signal.len()];
    let others = [here + 1, here + width].into_iter().zip(next).filter(|(_, is_there)| *is_there);
    let other = others.map(|(pixel, _)| band(pixel)).find(|other| *other != own)?;
    Some(own == 0 || other == 0)
}

fn grey(table: &Shown, pixel: Vec3) -> [u8; 4] {
    table.bytes(Vec3::splat(luminance(pixel)))
}

/// A line that is seen over a grey.
fn contrast([grey, ..]: [u8; 4]) -> [u8; 4] {
    let line = if grey > 110 { grey - 70 } else { grey + 70 };
    [line, line, line, 255]
}

#[cfg(test)]
mod tests {
    use super::*;

    const EXPOSURE: Exposure = Exposure { signal_per_cd_m2: 1.0, clips_at: 1.4, white_balance_k: 5600.0 };

    /// A face of two sides before a wall, one pixel blown out: its level, its sides and what clips, worked by hand.
    #[test]
    fn a_face_of_two_sides_is_told() {
        let mut things = Things::default();
        let (skin, wall) = (things.number("skin", Sort::Skin), things.number("a wall", Sort::Room));
        // Left half at 0.4, right half at 0.1; the wall at 0.2.
        let width = 8;
        let seen: Vec<u16> =
            (0..64).map(|pixel| if (2..6).contains(&(pixel % 8)) { skin } else { wall }).collect();
        let mut signal: Vec<Vec3> = (0..64)
            .map(|pixel| match pixel % 8 {
                2 | 3 => Vec3::splat(0.4),
                4 | 5 => Vec3::splat(0.1),
                _ => Vec3::splat(0.2),
            })
            .collect();
        signal[0] = Vec3::new(1.5, 0.2, 0.2);
        let told = told(
            &signal,
            width,
            &seen,
            &things,
            &EXPOSURE,
            &[Some([0.3, 0.5]), Some([0.05, 0.5]), Some([1.5, 0.5]), None],
        );
        assert_eq!(told.face_signal, 0.4);
        assert!((told.clipped_part - 1.0 / 64.0).abs() < 1e-6);
        assert_eq!(told.sides_stops, Some([0.0, -2.0]));
        // Of four places one is skin, one is wall, one is not in the picture and one behind the lens.
        assert_eq!(told.spots, [Spot { which: 0, x: 0.3, y: 0.5, stops: 0.0 }]);
        // The clipped pixel is dotted, its neighbour is not.
        let dotted = shown(&signal, width, &EXPOSURE, Overlay::Clipping, told.face_signal);
        assert_eq!((&dotted[..4], dotted[4] == EMBER[0]), (&EMBER[..], false));
        // Lines run where the stops change, strong where the face's own end: on a picture wide enough that the means stay apart.
        let wide: Vec<Vec3> = (0..400).map(|pixel| signal[8 + pixel % 40 / 5]).collect();
        let lines = shown(&wide, 40, &EXPOSURE, Overlay::Stops, told.face_signal);
        let row: Vec<bool> = lines[4 * 120..4 * 160].chunks(4).map(|pixel| pixel == EMBER).collect();
        let at: Vec<usize> = row.iter().enumerate().filter(|(_, ember)| **ember).map(|(x, _)| x).collect();
        assert_eq!(at.len(), 2, "{at:?}");
        assert!((8..=10).contains(&at[0]) && (18..=21).contains(&at[1]), "{at:?}");
    }
}
