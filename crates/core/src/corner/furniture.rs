//! Furniture as solids: desks and tables as a top on legs, everything else as a box.

use super::Corner;
use super::thing::{Kind, Piece, Thing, What, upright_box};
use crate::geometry::{DVec2, DVec3, bearing_vector};
use crate::plan::{Furniture, FurnitureKind, Id, ThingId};

/// Thickness of a desk top, m.
const DESK_TOP_M: f64 = 0.04;

/// Books and boxes are stacked so high under a thing on furniture, m. Fogon's own rule.
pub const STACK_M: f64 = 0.60;

impl Corner<'_> {
    /// Height of a piece's top, m.
    pub fn top_of_furniture_m(&self, id: &Id, piece: &Furniture) -> f64 {
        self.furniture_at(id, piece).0.z + piece.size_m.0[2]
    }

    /// How far a place lies outside a piece's outline, m; negative inside.
    pub fn beside_furniture_m(&self, id: &Id, piece: &Furniture, at: DVec2) -> f64 {
        let (position, bearing_deg) = self.furniture_at(id, piece);
        let facing = bearing_vector(bearing_deg).truncate();
        let off = at - position.truncate();
        let beyond = DVec2::new(
            off.perp_dot(facing).abs() - piece.size_m.0[0] / 2.0,
            off.dot(facing).abs() - piece.size_m.0[1] / 2.0,
        );
        if beyond.max_element() <= 0.0 { beyond.max_element() } else { beyond.max(DVec2::ZERO).length() }
    }

    /// The place within a piece's outline that is nearest to a place on the floor.
    pub(super) fn nearest_on_furniture(&self, id: &Id, piece: &Furniture, at: DVec2) -> DVec2 {
        let (position, bearing_deg) = self.furniture_at(id, piece);
        let facing = bearing_vector(bearing_deg).truncate();
        let across = DVec2::new(facing.y, -facing.x);
        let off = at - position.truncate();
        let (x, y) = (piece.size_m.0[0] / 2.0, piece.size_m.0[1] / 2.0);
        position.truncate() + across * off.dot(across).clamp(-x, x) + facing * off.dot(facing).clamp(-y, y)
    }

    /// The pieces under a place on which a thing can stand or be stacked up to there, the highest first.
    pub fn under(&self, at: DVec3, from_edge_m: f64) -> Vec<&Id> {
        let mut all: Vec<(f64, &Id)> = self
            .brief
            .room
            .furniture
            .iter()
            .filter(|(_, piece)| stands_on(piece.kind))
            .filter(|(id, piece)| self.beside_furniture_m(id, piece, at.truncate()) <= -from_edge_m)
            .map(|(id, piece)| (self.top_of_furniture_m(id, piece), id))
            .filter(|(top, _)| (*top..=*top + STACK_M).contains(&at.z))
            .collect();
        all.sort_by(|a, b| b.0.total_cmp(&a.0));
        all.into_iter().map(|(_, id)| id).collect()
    }
}

/// Whether things are put on such a piece.
fn stands_on(kind: FurnitureKind) -> bool {
    match kind {
        FurnitureKind::Desk
        | FurnitureKind::Table
        | FurnitureKind::Shelf
        | FurnitureKind::Bookcase
        | FurnitureKind::Wardrobe
        | FurnitureKind::Cabinet
        | FurnitureKind::Box => true,
        FurnitureKind::Chair
        | FurnitureKind::Bed
        | FurnitureKind::Sofa
        | FurnitureKind::Radiator
        | FurnitureKind::Mirror
        | FurnitureKind::Picture
        | FurnitureKind::Lamp
        | FurnitureKind::Plant => false,
    }
}

/// Every piece, as it stands in this layout.
pub(super) fn furniture(corner: &Corner<'_>, all: &mut Vec<Thing>) {
    for (id, piece) in &corner.brief.room.furniture {
        if piece.kind == FurnitureKind::Chair && !piece.fixed {
            continue; // the person's own chair, which is where the person is
        }
        let (position, bearing_deg) = corner.furniture_at(id, piece);
        let facing = bearing_vector(bearing_deg).truncate();
        let across = DVec2::new(facing.y, -facing.x);
        let [width, depth, height] = piece.size_m.0;
        let (middle, foot) = (position.truncate(), position.z);
        let mut pieces = Vec::new();
        let top = foot + height;
        if matches!(piece.kind, FurnitureKind::Desk | FurnitureKind::Table) && height > 2.0 * DESK_TOP_M {
            let slab = upright_box(middle, facing, width / 2.0, depth / 2.0, top - DESK_TOP_M, top);
            pieces.push(Piece { what: What::Top, solid: slab });
            for (x, y) in [(-1.0, -1.0), (1.0, -1.0), (1.0, 1.0), (-1.0, 1.0)] {
                let leg = middle + across * (x * (width / 2.0 - 0.03)) + facing * (y * (depth / 2.0 - 0.03));
                pieces.push(Piece {
                    what: What::Leg,
                    solid: upright_box(leg, facing, 0.03, 0.03, foot, top - DESK_TOP_M),
                });
            }
        } else {
            let whole = upright_box(middle, facing, width / 2.0, depth / 2.0, foot, top);
            pieces.push(Piece { what: What::Body, solid: whole });
        }
        let thing = ThingId::Furniture(id.clone());
        all.push(Thing {
            moved: corner.layout.furniture.contains_key(id),
            ..Thing::new(thing, Kind::Furniture, format!("the {}", id.words()), pieces)
        });
    }
}
