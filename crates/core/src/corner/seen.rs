//! Where things come to lie in the picture.

use super::{Corner, Pane};
use crate::geometry::{DVec2, DVec3, bearing_vector, hull};
use crate::plan::{Furniture, Id, Opening};

impl Corner<'_> {
    /// Outline of some corners in the picture, parts of its width and height from its upper left; `None` where some lie
    /// behind the lens.
    pub fn outline_in_picture(&self, corners: &[DVec3]) -> Option<Vec<DVec2>> {
        let flat: Option<Vec<DVec2>> =
            corners.iter().map(|c| self.view.project(*c).map(|(x, y)| DVec2::new(x, y))).collect();
        Some(hull(&flat?))
    }

    /// The box round a piece of furniture: back left, back right, front right, front left, below and above.
    pub fn furniture_box(&self, id: &Id, piece: &Furniture) -> [DVec3; 8] {
        let (at, bearing_deg) = self.furniture_at(id, piece);
        let front = bearing_vector(bearing_deg) * (piece.size_m.0[1] / 2.0);
        let right = bearing_vector(bearing_deg + 90.0) * (piece.size_m.0[0] / 2.0);
        let up = DVec3::Z * piece.size_m.0[2];
        let low = [at - right - front, at + right - front, at + right + front, at - right + front];
        [low[0], low[1], low[2], low[3], low[0] + up, low[1] + up, low[2] + up, low[3] + up]
    }

    /// The windows through which light can come, each with the part of it that nothing covers.
    pub fn clear_windows(&self) -> impl Iterator<Item = (&Id, &Opening, Pane)> {
        let room = &self.brief.room;
        room.openings.iter().filter_map(|(id, opening)| Some((id, opening, Pane::clear(room, opening)?)))
    }
}

/// The part of an outline's box that the picture shows, as low and high corner; `None` where it shows nothing.
pub fn shown(outline: &[DVec2]) -> Option<(DVec2, DVec2)> {
    let low = outline.iter().copied().fold(DVec2::INFINITY, DVec2::min).max(DVec2::ZERO);
    let high = outline.iter().copied().fold(DVec2::NEG_INFINITY, DVec2::max).min(DVec2::ONE);
    (low.x < high.x && low.y < high.y).then_some((low, high))
}
