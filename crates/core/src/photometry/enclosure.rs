//! Light between the matt surfaces of a room: radiosity over flat patches (Goral et al. 1984, from memory). The answer to
//! any light is linear in it, so that the exchange between patches is worked out once for a room.

use std::collections::BTreeMap;
use std::f64::consts::PI;
use std::num::NonZeroUsize;

use nalgebra::{DMatrix, DVector};

use super::face::{Emits, Face};
use super::glow::{Glow, PatchPiece};
use super::polygon::{face_normal, polygon_illuminance};
use super::surroundings::{Surroundings, View};
use crate::geometry::DVec3;
use crate::kept::Kept;

/// Steps at most until the exchange adds up.
const CLOSING_STEPS: usize = 200;
/// A face whose middle is nearer to a patch's than the root of this many times the patch's area is close to it.
const CLOSE: f64 = 2.25;
/// Pieces of such a patch, a side.
const PIECES: usize = 4;
/// Faces whose answers are kept, and places from which the room was seen: a search moves one thing at a time.
const FACES_KEPT: NonZeroUsize = NonZeroUsize::MIN.saturating_add(31);
const PLACES_KEPT: NonZeroUsize = NonZeroUsize::MIN.saturating_add(15);

/// A piece of a surface.
#[derive(Debug, Clone, PartialEq)]
pub struct Patch {
    /// Corners, counter-clockwise seen from inside, m.
    pub outline: Vec<DVec3>,
    /// Its middle, m.
    pub middle: DVec3,
    /// Unit normal into the room.
    pub normal: DVec3,
    /// Area, m2.
    pub area_m2: f64,
    /// Diffuse reflectance.
    pub reflectance: f64,
}

impl Patch {
    /// Middles and outlines of the pieces of a four-cornered patch, row by row; any other whole.
    fn pieces(&self) -> impl Iterator<Item = (DVec3, Vec<DVec3>)> {
        let count = if self.outline.len() == 4 { PIECES } else { 1 };
        let at = move |i: f64, j: f64| {
            let (x, y) = (i / count as f64, j / count as f64);
            match self.outline[..] {
                [a, b, c, d] => (a * (1.0 - x) + b * x) * (1.0 - y) + (d * (1.0 - x) + c * x) * y,
                _ => self.middle,
            }
        };
        (0..count * count).map(move |piece| {
            let (i, j) = ((piece % count) as f64, (piece / count) as f64);
            if count == 1 {
                return (self.middle, self.outline.clone());
            }
            let outline = vec![at(i, j), at(i + 1.0, j), at(i + 1.0, j + 1.0), at(i, j + 1.0)];
            (at(i + 0.5, j + 0.5), outline)
        })
    }
}

/// A face that lights a room.
#[derive(Debug, Clone, Copy)]
pub struct Emitter<'a> {
    /// The face.
    pub face: &'a Face,
    /// What of its light gets into the room, lm.
    pub flux_lm: f64,
    /// A flat thing before it that keeps the rest back: its corners.
    pub screen: Option<&'a [DVec3]>,
}

impl<'a> From<&'a Face> for Emitter<'a> {
    fn from(face: &'a Face) -> Self {
        Self { face, flux_lm: face.flux_lm(), screen: None }
    }
}

impl Emitter<'_> {
    /// All that decides which part of its light goes where, number by number; its luminance does not.
    fn key(&self) -> Vec<u64> {
        let Face { outline, hole, normal, middle, area_m2: _, exponent, emits, luminance_cd_m2: _ } =
            self.face;
        let screen = self.screen.unwrap_or_default();
        let around = match *emits {
            Emits::Forward => [0.0; 6],
            Emits::Around { axis, half_length_m, half_width_m } => {
                [1.0, axis.x, axis.y, axis.z, half_length_m, half_width_m]
            }
            Emits::AllRound(radius_m) => [2.0, radius_m, 0.0, 0.0, 0.0, 0.0],
        };
        let counts = [outline.len(), hole.len(), screen.len()].map(|count| count as f64);
        let points = [*normal, *middle].into_iter().chain(outline.iter().chain(hole).chain(screen).copied());
        let numbers = counts.into_iter().chain([*exponent]).chain(around);
        numbers.chain(points.flat_map(|point| point.to_array())).map(f64::to_bits).collect()
    }

    /// Illuminance on a surface, lx, in the shadow of its screen none.
    fn illuminance_lx(&self, point: DVec3, normal: DVec3) -> f64 {
        let shaded = self.screen.is_some_and(|screen| passes_through(screen, point, self.face.middle));
        if shaded { 0.0 } else { self.face.illuminance_lx(point, normal) }
    }
}

/// Whether a straight way passes through a convex flat outline.
fn passes_through(outline: &[DVec3], from: DVec3, to: DVec3) -> bool {
    let (normal, _) = face_normal(outline);
    let Some(on) = outline.first() else { return false };
    let (a, b) = (normal.dot(from - *on), normal.dot(to - *on));
    if a * b >= 0.0 {
        return false;
    }
    let at = from + (to - from) * (a / (a - b));
    outline
        .iter()
        .zip(outline.iter().cycle().skip(1))
        .all(|(p, q)| (*q - *p).cross(at - *p).dot(normal) >= 0.0)
}

/// Patches, and what light on each of them makes of light on all.
#[derive(Debug)]
pub struct Enclosure {
    patches: Vec<Patch>,
    /// Illuminance of a patch for each lux that falls directly on another, all reflections counted.
    answer: DMatrix<f64>,
    /// By what decides it ([`Emitter::key`]).
    answered: Kept<Vec<u64>, Answered>,
    /// The patches by the place that they are seen from.
    views: Kept<[u64; 3], View>,
}

/// What a lumen of a face makes of a room.
#[derive(Debug)]
struct Answered {
    /// Illuminance of every patch, all reflections counted, lx.
    lux: Vec<f64>,
    /// Patches that the face stands close to: by how much their pieces get more than the whole straight from it, lx.
    uneven: Vec<(usize, Vec<f64>)>,
}

impl Enclosure {
    /// Works out the exchange; `blocked` tells whether something stands between two points.
    pub fn new(patches: Vec<Patch>, blocked: impl Fn(DVec3, DVec3) -> bool) -> Self {
        let count = patches.len();
        let mut exchange = vec![0.0; count * count];
        for i in 0..count {
            for j in 0..i {
                let (a, b) = (&patches[i], &patches[j]);
                let across = b.middle - a.middle;
                let faces = a.normal.dot(across) > 1e-9 && b.normal.dot(across) < -1e-9;
                if !faces || blocked(a.middle, b.middle) {
                    continue;
                }
                // Part of what leaves one that comes to the other, from its middle; the two ways must agree.
                let from_a = polygon_illuminance(1.0, &b.outline, a.middle, a.normal) / PI;
                let from_b = polygon_illuminance(1.0, &a.outline, b.middle, b.normal) / PI;
                let both = (from_a * a.area_m2 + from_b * b.area_m2) / 2.0;
                exchange[i * count + j] = both;
                exchange[j * count + i] = both;
            }
        }
        close(&patches, &mut exchange);
        let answer = solved(&patches, &exchange);
        Self { patches, answer, answered: Kept::new(FACES_KEPT), views: Kept::new(PLACES_KEPT) }
    }

    /// The patches.
    pub fn patches(&self) -> &[Patch] {
        &self.patches
    }

    /// What every patch sends back under some faces. What each face sends out arrives in full, whatever the patches' middles
    /// make of it; a patch that a face stands close to is looked at in pieces.
    pub fn lit_by<'a>(&self, faces: impl Iterator<Item = impl Into<Emitter<'a>>>) -> Glow {
        let mut lux = vec![0.0; self.patches.len()];
        let mut fine: BTreeMap<usize, Vec<f64>> = BTreeMap::new();
        for emitter in faces.map(Into::into).filter(|emitter| emitter.face.luminance_cd_m2 > 0.0) {
            let answered = self.answered.get(emitter.key(), || self.answer_to(&emitter));
            let add = |sums: &mut [f64], lux: &[f64]| {
                sums.iter_mut().zip(lux).for_each(|(sum, lux)| *sum += lux * emitter.flux_lm);
            };
            add(&mut lux, &answered.lux);
            for (number, more) in &answered.uneven {
                add(fine.entry(*number).or_insert_with(|| vec![0.0; more.len()]), more);
            }
        }
        let luminances_cd_m2 =
            lux.iter().zip(&self.patches).map(|(lux, patch)| lux * patch.reflectance / PI).collect();
        let mut glow = Glow { luminances_cd_m2, fine: Vec::new() };
        for (number, lux) in fine {
            let patch = &self.patches[number];
            let whole = std::mem::take(&mut glow.luminances_cd_m2[number]);
            for ((_, outline), more) in patch.pieces().zip(lux) {
                let luminance_cd_m2 = (whole + more * patch.reflectance / PI).max(0.0);
                glow.fine.push(PatchPiece { of: number, outline, luminance_cd_m2 });
            }
        }
        glow
    }

    fn answer_to(&self, emitter: &Emitter<'_>) -> Answered {
        let face = &Face { luminance_cd_m2: 1.0, ..emitter.face.clone() };
        let emitter = Emitter { face, ..*emitter };
        let mut uneven: Vec<(usize, Vec<f64>)> = Vec::new();
        let mut on = DVector::zeros(self.patches.len());
        for (number, patch) in self.patches.iter().enumerate() {
            let near = (patch.middle - face.middle).length_squared() < CLOSE * patch.area_m2;
            if !near || !face.shines_towards(patch.middle) {
                on[number] = emitter.illuminance_lx(patch.middle, patch.normal);
                continue;
            }
            let pieces = patch.pieces().map(|(middle, _)| emitter.illuminance_lx(middle, patch.normal));
            let lux: Vec<f64> = pieces.collect();
            on[number] = lux.iter().sum::<f64>() / lux.len() as f64;
            uneven.push((number, lux));
        }
        let arrives: f64 = on.iter().zip(&self.patches).map(|(lux, patch)| lux * patch.area_m2).sum();
        let of_a_lumen = if arrives > 0.0 { 1.0 / arrives } else { 0.0 };
        for (number, lux) in &mut uneven {
            lux.iter_mut().for_each(|lux| *lux = (*lux - on[*number]) * of_a_lumen);
        }
        let lux = (&self.answer * on) * of_a_lumen;
        Answered { lux: lux.iter().copied().collect(), uneven }
    }

    /// Outlines of all that shines, with their luminances, cd/m2.
    fn shining<'a>(&'a self, glow: &'a Glow) -> impl Iterator<Item = (&'a [DVec3], f64)> {
        let whole = self.patches.iter().zip(&glow.luminances_cd_m2).map(|(p, l)| (p.outline.as_slice(), *l));
        let fine = glow.fine.iter().map(|piece| (piece.outline.as_slice(), piece.luminance_cd_m2));
        whole.chain(fine).filter(|(_, luminance)| *luminance > 0.0)
    }

    /// Illuminance at a point on a surface of a unit normal, lx.
    pub fn illuminance_lx(&self, glow: &Glow, point: DVec3, normal: DVec3) -> f64 {
        self.shining(glow).map(|(outline, l)| polygon_illuminance(l, outline, point, normal)).sum()
    }

    /// The room as a point sees it, for surfaces turned any way there: worth it for more than one.
    pub fn seen_from(&self, glow: &Glow, point: DVec3) -> Surroundings {
        let outlines = || self.patches.iter().map(|patch| patch.outline.as_slice());
        let patches = self.views.get(point.to_array().map(f64::to_bits), || View::of(outlines(), point));
        Surroundings::new(patches, glow, point)
    }
}

/// All that leaves a patch arrives somewhere: scales what two patches exchange, alike both ways, until it adds up; then
/// as parts of what leaves the first.
fn close(patches: &[Patch], exchange: &mut [f64]) {
    let count = patches.len();
    for _ in 0..CLOSING_STEPS {
        let short: Vec<f64> = exchange
            .chunks(count.max(1))
            .zip(patches)
            .map(|(row, patch)| patch.area_m2 / row.iter().sum::<f64>().max(1e-12))
            .collect();
        for i in 0..count {
            for j in 0..count {
                exchange[i * count + j] *= (short[i] * short[j]).sqrt();
            }
        }
        if short.iter().all(|factor| (factor - 1.0).abs() < 1e-12) {
            break;
        }
    }
    for (row, patch) in exchange.chunks_mut(count.max(1)).zip(patches) {
        row.iter_mut().for_each(|part| *part /= patch.area_m2);
    }
}

/// (I - F rho)^-1; rows that give less than they get are diagonally dominant, so that there is always one.
fn solved(patches: &[Patch], exchange: &[f64]) -> DMatrix<f64> {
    let count = patches.len();
    let kept = DMatrix::from_fn(count, count, |i, j| {
        f64::from(u8::from(i == j)) - exchange[i * count + j] * patches[j].reflectance
    });
    kept.try_inverse().unwrap_or_else(|| DMatrix::identity(count, count))
}
