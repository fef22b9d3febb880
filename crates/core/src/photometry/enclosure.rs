//! Light between the matt surfaces of a room: radiosity over flat patches (Goral et al. 1984, from memory). The answer to
//! any light is linear in it, so that the exchange between patches is worked out once for a room.

use std::f64::consts::PI;

use super::{Face, polygon_illuminance};
use crate::geometry::DVec3;

/// Steps at most until the exchange adds up.
const CLOSING_STEPS: usize = 60;

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

/// Patches, and what light on each of them makes of light on all.
#[derive(Debug, Clone)]
pub struct Enclosure {
    patches: Vec<Patch>,
    /// Row by row: illuminance of a patch for each lux that falls directly on another, all reflections counted.
    answer: Vec<f64>,
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
        Self { patches, answer }
    }

    /// The patches.
    pub fn patches(&self) -> &[Patch] {
        &self.patches
    }

    /// Luminance of every patch under some faces, cd/m2: what falls on it directly and by way of all others. What each
    /// face sends out arrives in full, whatever the patches' middles make of it.
    pub fn luminances_cd_m2<'a>(&self, faces: impl Iterator<Item = &'a Face>) -> Vec<f64> {
        let count = self.patches.len();
        let mut direct = vec![0.0; count];
        for face in faces.filter(|face| face.luminance_cd_m2 > 0.0) {
            let on: Vec<f64> = self.patches.iter().map(|p| face.illuminance_lx(p.middle, p.normal)).collect();
            let arrives: f64 = on.iter().zip(&self.patches).map(|(lux, p)| lux * p.area_m2).sum();
            let scale = if arrives > 0.0 { face.flux_lm() / arrives } else { 0.0 };
            direct.iter_mut().zip(&on).for_each(|(sum, lux)| *sum += lux * scale);
        }
        let rows = self.answer.chunks(count.max(1));
        rows.zip(&self.patches)
            .map(|(row, patch)| {
                let lux: f64 = row.iter().zip(&direct).map(|(part, lux)| part * lux).sum();
                lux * patch.reflectance / PI
            })
            .collect()
    }

    /// Illuminance that patches of these luminances give at a point on a surface of a unit normal, lx.
    pub fn illuminance_lx(&self, luminances_cd_m2: &[f64], point: DVec3, normal: DVec3) -> f64 {
        let seen = self.patches.iter().zip(luminances_cd_m2);
        seen.map(|(patch, luminance)| polygon_illuminance(*luminance, &patch.outline, point, normal)).sum()
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

/// (I - F rho)^-1 by Gauss and Jordan; rows that give less than they get are diagonally dominant, so no pivot is sought.
fn solved(patches: &[Patch], exchange: &[f64]) -> Vec<f64> {
    let count = patches.len();
    let mut left: Vec<f64> = exchange.to_vec();
    let mut right = vec![0.0; count * count];
    for i in 0..count {
        for j in 0..count {
            left[i * count + j] *= -patches[j].reflectance;
        }
        left[i * count + i] += 1.0;
        right[i * count + i] = 1.0;
    }
    for pivot in 0..count {
        let by = 1.0 / left[pivot * count + pivot];
        for j in 0..count {
            left[pivot * count + j] *= by;
            right[pivot * count + j] *= by;
        }
        let (left_row, right_row): (Vec<f64>, Vec<f64>) = (
            left[pivot * count..(pivot + 1) * count].to_vec(),
            right[pivot * count..(pivot + 1) * count].to_vec(),
        );
        for i in (0..count).filter(|i| *i != pivot) {
            let factor = left[i * count + pivot];
            if factor == 0.0 {
                continue;
            }
            for j in 0..count {
                left[i * count + j] -= factor * left_row[j];
                right[i * count + j] -= factor * right_row[j];
            }
        }
    }
    right
}
