//! Furniture as solids: desks and tables as a top on legs, everything else as a box.

use super::Corner;
use super::thing::{Kind, Piece, Thing, What, upright_box};
use crate::geometry::{DVec2, bearing_vector};
use crate::plan::{FurnitureKind, ThingId};

/// Thickness of a desk top, m.
const DESK_TOP_M: f64 = 0.04;

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
