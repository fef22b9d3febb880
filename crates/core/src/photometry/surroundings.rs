//! The patches of a room as one point sees them.

use std::ops::Range;
use std::sync::Arc;

use super::glow::Glow;
use super::polygon::{edge_vector, polygon_illuminance};
use crate::geometry::DVec3;

/// Outlines from a point, each with what it would give there.
#[derive(Debug)]
pub(super) struct View {
    /// Corners of all of them from the point, m.
    corners: Vec<DVec3>,
    /// Which corners are whose, and the vector of its light at a luminance of 1.
    outlines: Vec<(Range<usize>, DVec3)>,
}

impl View {
    pub(super) fn of<'a>(outlines: impl Iterator<Item = &'a [DVec3]>, point: DVec3) -> Self {
        let mut corners = Vec::new();
        let seen = |outline: &[DVec3]| {
            let first = corners.len();
            corners.extend(outline.iter().map(|corner| *corner - point));
            (first..corners.len(), vector(&corners[first..]))
        };
        let outlines = outlines.map(seen).collect();
        Self { corners, outlines }
    }

    /// Illuminance on a surface of a unit normal, lx, for the luminance of each: those over its horizon by their vector, those
    /// that it cuts exactly.
    fn illuminance_lx(&self, luminances_cd_m2: impl Iterator<Item = f64>, normal: DVec3) -> f64 {
        let shining = self.outlines.iter().zip(luminances_cd_m2).filter(|(_, luminance)| *luminance > 0.0);
        let lux = |((corners, vector), luminance): (&(Range<usize>, DVec3), f64)| {
            let at = &self.corners[corners.clone()];
            let over = at.iter().filter(|corner| normal.dot(**corner) > 0.0).count();
            if over == 0 {
                0.0
            } else if over == at.len() {
                luminance * vector.dot(normal).abs()
            } else {
                polygon_illuminance(luminance, at, DVec3::ZERO, normal)
            }
        };
        shining.map(lux).sum()
    }
}

/// A room as seen from a point.
pub struct Surroundings {
    patches: Arc<View>,
    patches_cd_m2: Vec<f64>,
    /// Of patches that a face stands close to.
    pieces: View,
    pieces_cd_m2: Vec<f64>,
}

impl Surroundings {
    pub(super) fn new(patches: Arc<View>, glow: &Glow, point: DVec3) -> Self {
        Self {
            patches,
            patches_cd_m2: glow.luminances_cd_m2.clone(),
            pieces: View::of(glow.fine.iter().map(|piece| piece.outline.as_slice()), point),
            pieces_cd_m2: glow.fine.iter().map(|piece| piece.luminance_cd_m2).collect(),
        }
    }

    /// Illuminance on a surface of a unit normal, lx.
    pub fn illuminance_lx(&self, normal: DVec3) -> f64 {
        let patches = self.patches.illuminance_lx(self.patches_cd_m2.iter().copied(), normal);
        patches + self.pieces.illuminance_lx(self.pieces_cd_m2.iter().copied(), normal)
    }
}

/// Half the sum of Gamma g over the edges of a polygon around the origin: dotted with a normal whose horizon it clears, its
/// illuminance at a luminance of 1.
fn vector(outline: &[DVec3]) -> DVec3 {
    let edges = outline.iter().zip(outline.iter().cycle().skip(1));
    edges.map(|(a, b)| edge_vector(*a, *b)).sum::<DVec3>() / 2.0
}
