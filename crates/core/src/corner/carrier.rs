//! What a thing stands on or is clamped to: a piece of furniture, the leaf of a door, the stand under the camera.

use super::{Corner, base_of, is_flat};
use crate::geometry::{DVec2, DVec3, bearing_vector};
use crate::plan::{Furniture, FurnitureKind, Id, Opening, OpeningKind, Part, Support, SupportKind, ThingId};
use crate::units::lower_first;

/// Books and boxes are stacked so high under a thing on furniture, m. Fogon's own rule.
pub const STACK_M: f64 = 0.60;
/// Half the thickness of a door's leaf, m. Fogon's own rule.
const HALF_LEAF_M: f64 = 0.02;
/// A clamp grips the camera's stand from here upward, m, and so far below its head. Fogon's own rule.
const GRIPS_FROM_M: f64 = 0.40;
const BELOW_HEAD_M: f64 = 0.25;
/// What is held no higher than this over furniture stands on it, m.
const FLAT_M: f64 = 0.05;

/// Something that carries a thing, seen from above, and where it takes a clamp.
#[derive(Debug, Clone)]
pub struct Carrier {
    /// What it is; the camera for its stand.
    pub id: ThingId,
    middle_m: DVec2,
    facing: DVec2,
    /// Half its width across the way it faces, and half its depth, m.
    half_m: DVec2,
    /// Lowest and highest place that carries, m: of furniture its top.
    pub grip_m: [f64; 2],
}

impl Carrier {
    /// A piece of furniture at a place.
    pub fn of_piece(id: &Id, piece: &Furniture, position: DVec3, bearing_deg: f64) -> Self {
        let [width, depth, height] = piece.size_m.0;
        Self {
            id: ThingId::Furniture(id.clone()),
            middle_m: position.truncate(),
            facing: bearing_vector(bearing_deg).truncate(),
            half_m: DVec2::new(width, depth) / 2.0,
            grip_m: [position.z + height; 2],
        }
    }

    /// Its name.
    pub fn words(&self) -> String {
        match &self.id {
            ThingId::Camera => "camera's stand".to_owned(),
            other => other.words(),
        }
    }

    /// How far a place lies outside its outline, m; negative inside.
    pub fn beside_m(&self, at: DVec2) -> f64 {
        let off = at - self.middle_m;
        let beyond = DVec2::new(off.perp_dot(self.facing).abs(), off.dot(self.facing).abs()) - self.half_m;
        if beyond.max_element() <= 0.0 { beyond.max_element() } else { beyond.max(DVec2::ZERO).length() }
    }

    /// Where a support of a thing that is held at a place takes hold: where it says, else as near as can be.
    pub fn grip(&self, support: &Support, hold: DVec3) -> DVec3 {
        self.nearest_m(support.base_m.map_or(hold, |base| DVec2::from(base).extend(hold.z)))
    }

    /// Corners and middles of the edges from which an arm of so many metres reaches a place: other places to take hold.
    pub fn edges_within(&self, reach_m: f64, hold: DVec2) -> Vec<DVec2> {
        let across = DVec2::new(self.facing.y, -self.facing.x) * self.half_m.x;
        let along = self.facing * self.half_m.y;
        let signs = [
            (1.0, 1.0),
            (1.0, -1.0),
            (-1.0, 1.0),
            (-1.0, -1.0),
            (1.0, 0.0),
            (-1.0, 0.0),
            (0.0, 1.0),
            (0.0, -1.0),
        ];
        let all = signs.map(|(x, y)| self.middle_m + across * x + along * y);
        all.into_iter().filter(|at| (*at - hold).length() <= reach_m).collect()
    }

    /// The nearest place that carries.
    fn nearest_m(&self, at: DVec3) -> DVec3 {
        let across = DVec2::new(self.facing.y, -self.facing.x);
        let off = at.truncate() - self.middle_m;
        let on = across * off.dot(across).clamp(-self.half_m.x, self.half_m.x)
            + self.facing * off.dot(self.facing).clamp(-self.half_m.y, self.half_m.y);
        (self.middle_m + on).extend(at.z.clamp(self.grip_m[0], self.grip_m[1]))
    }

    /// How far a height is beyond what something that holds a thing `from_m` to `to_m` above its own foot reaches here, m; at
    /// most 0 when it is reached.
    pub fn beyond_m(&self, z: f64, [from_m, to_m]: [f64; 2]) -> f64 {
        (z - self.grip_m[1] - to_m).max(self.grip_m[0] + from_m - z)
    }

    /// A support on it, held by gear of some kind.
    pub fn support(&self, kind: SupportKind, gear: Option<Id>) -> Support {
        let on = match &self.id {
            ThingId::Furniture(id) | ThingId::Opening(id) => Some(id.clone()),
            _ => None,
        };
        Support { on, gear, ..Support::new(kind) }
    }
}

impl Corner<'_> {
    /// Everything that could carry a clamp or a small stand, furniture first.
    pub fn carriers(&self) -> Vec<Carrier> {
        let room = &self.brief.room;
        let furniture = room.furniture.iter().filter(|(_, piece)| stands_on(piece.kind));
        let furniture = furniture.map(|(id, piece)| self.of_furniture(id, piece));
        let doors = room.openings.iter().filter_map(|(id, opening)| self.of_door(id, opening));
        furniture.chain(doors).chain(self.of_camera_stand()).collect()
    }

    /// What a support stands on or is clamped to; `None` where it stands on the floor or names nothing.
    pub fn carrier(&self, support: &Support) -> Option<Carrier> {
        let room = &self.brief.room;
        match (&support.on, support.kind) {
            (Some(id), _) => {
                let furniture = room.furniture.get(id).map(|piece| self.of_furniture(id, piece));
                furniture.or_else(|| self.of_door(id, room.openings.get(id)?))
            }
            (None, SupportKind::Clamp) => self.of_camera_stand(),
            (None, _) => None,
        }
    }

    /// What carries a part of the layout that does not stand on the floor, in words; `None` of others.
    pub fn carried_words(&self, part: Part<'_>) -> Option<String> {
        let carried = self.carried_part(part)?;
        let carrier = self.carrier(carried.support)?;
        let on = carrier.words();
        let above = carried.hold_m.z - carrier.grip_m[1];
        let high = || self.brief.units.length(above);
        Some(match (carried.support.kind, carried.stand) {
            (SupportKind::Clamp, _) => format!("clamped to the {on}"),
            (_, Some(stand)) => format!("on the {on}, on the {}", lower_first(&stand.common.label)),
            _ if above < FLAT_M => format!("on the {on}"),
            _ if carried.id == ThingId::Camera && is_flat(self.body, self.lens) => {
                format!("{} over the {on}, on books or the upper edge of a monitor", high())
            }
            (_, None) if carried.id == ThingId::Camera => format!("{} over the {on}, on books", high()),
            _ => format!("on the {on}"),
        })
    }

    fn of_furniture(&self, id: &Id, piece: &Furniture) -> Carrier {
        let (position, bearing_deg) = self.furniture_at(id, piece);
        Carrier::of_piece(id, piece, position, bearing_deg)
    }

    /// The upper edge of a door's leaf while it is shut.
    fn of_door(&self, id: &Id, opening: &Opening) -> Option<Carrier> {
        let (start, end) = self.brief.room.wall_m(usize::from(opening.wall))?;
        (opening.kind == OpeningKind::Door).then(|| Carrier {
            id: ThingId::Opening(id.clone()),
            middle_m: opening.middle_m(&self.floor_m),
            facing: (end - start).normalize_or_zero().perp(),
            half_m: DVec2::new(opening.width_m / 2.0, HALF_LEAF_M),
            grip_m: [opening.height_or_usual_m(); 2],
        })
    }

    fn of_camera_stand(&self) -> Option<Carrier> {
        let support = &self.layout.camera.support;
        let hold = self.camera_hold_m();
        let top = hold.z - BELOW_HEAD_M;
        let stands = matches!(support.kind, SupportKind::Floor | SupportKind::Boom) && top >= GRIPS_FROM_M;
        stands.then(|| Carrier {
            id: ThingId::Camera,
            middle_m: base_of(support, hold),
            facing: DVec2::Y,
            half_m: DVec2::splat(super::support::COLUMN_RADIUS_M),
            grip_m: [GRIPS_FROM_M, top],
        })
    }

    /// The pieces under a place on which a thing can stand or be stacked up to there, the highest first.
    pub fn under(&self, at: DVec3, from_edge_m: f64) -> Vec<&Id> {
        let pieces = self.brief.room.furniture.iter().filter(|(_, piece)| stands_on(piece.kind));
        let mut all: Vec<(f64, &Id)> = pieces
            .map(|(id, piece)| (self.of_furniture(id, piece), id))
            .filter(|(carrier, _)| carrier.beside_m(at.truncate()) <= -from_edge_m)
            .filter(|(carrier, _)| carrier.beyond_m(at.z, [0.0, STACK_M]) <= 0.0)
            .map(|(carrier, id)| (carrier.grip_m[1], id))
            .collect();
        all.sort_by(|a, b| b.0.total_cmp(&a.0));
        all.into_iter().map(|(_, id)| id).collect()
    }
}

/// Whether things are put on such a piece.
pub fn stands_on(kind: FurnitureKind) -> bool {
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
