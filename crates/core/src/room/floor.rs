//! The floor that gear takes: in use, and put away. The room has another life.

use crate::corner::{Carried, Corner, Kind, LightAt, Thing, What, is_of_the_house, things};
use crate::geometry::Solid;
use crate::plan::{Hung, Id, ThingId};
use crate::reading::{Origin, Quantity, Reading};

/// A stand that is folded and leaned into a corner takes this much, m2; one on castors keeps its feet spread. Fogon's
/// own rule.
const FOLDED_M2: f64 = 0.04;

/// Radius of the circle that a folded stand takes, m.
pub fn folded_radius_m() -> f64 {
    (FOLDED_M2 / std::f64::consts::PI).sqrt()
}

pub(super) fn readings(corner: &Corner<'_>) -> [Reading; 2] {
    let mut stands: Vec<(String, f64, bool)> = Vec::new();
    for thing in things(corner) {
        if matches!(thing.kind, Kind::Person | Kind::Furniture) {
            continue;
        }
        for feet in footprints_m2(&thing) {
            let (name, rolls) = match &thing.stand {
                Some((gear, foot)) => (format!("{gear} {foot:?}"), rolls(corner, gear)),
                None => (format!("{:?}", thing.id), false),
            };
            if !stands.iter().any(|(other, ..)| *other == name) {
                stands.push((name, feet, rolls));
            }
        }
    }
    let in_use: f64 = stands.iter().map(|(_, feet, _)| feet).sum();
    let parked: f64 = stands.iter().map(|(_, feet, rolls)| if *rolls { *feet } else { FOLDED_M2 }).sum();
    let hung = fixed(corner).len();
    let of = |quantity: Quantity, value: f64| {
        Reading::new(quantity, value)
            .by(
                "sum of pi r^2 of the feet; parked: folded 0.04 m2 each, rolling stands as they are",
                "geometry; the floor of a folded stand is Fogon's own rule",
            )
            .with("stands", stands.len() as f64, "", Origin::Computed)
            .with(
                "of them on castors",
                stands.iter().filter(|(.., rolls)| *rolls).count() as f64,
                "",
                Origin::Typed,
            )
            .with("things on wall or ceiling", hung as f64, "", Origin::Typed)
    };
    [of(Quantity::RoomFloorInUseM2, in_use), of(Quantity::RoomFloorParkedM2, parked)]
}

/// What the feet of a thing's stands take, m2 each: the circle that they stand on.
pub fn footprints_m2(thing: &Thing) -> Vec<f64> {
    let circle = |solid: &Solid| {
        let (low, high) = solid.bounds();
        std::f64::consts::FRAC_PI_4 * (high.x - low.x) * (high.y - low.y)
    };
    let feet = thing.pieces.iter().filter(|piece| piece.what == What::Feet);
    let mut all: Vec<f64> = feet.map(|piece| circle(&piece.solid)).collect();
    let legs: Vec<&Solid> =
        thing.pieces.iter().filter(|piece| piece.what == What::Tripod).map(|piece| &piece.solid).collect();
    let column = thing.pieces.iter().find(|piece| piece.what == What::Column);
    if let (Some(column), false) = (column, legs.is_empty()) {
        let (low, high) = column.solid.bounds();
        let middle = ((low + high) / 2.0).truncate();
        let reach = |solid: &&Solid| {
            solid.corners().iter().map(|c| (c.truncate() - middle).length()).fold(0.0, f64::max)
        };
        let radius = legs.iter().map(reach).fold(0.0, f64::max);
        all.push(std::f64::consts::PI * radius * radius);
    }
    all
}

fn rolls(corner: &Corner<'_>, gear: &Id) -> bool {
    corner.brief.gear.get(gear).and_then(crate::plan::Gear::support).is_some_and(|support| support.castors)
}

/// What hangs from wall or ceiling; lamps of the house were there before.
pub fn fixed(corner: &Corner<'_>) -> Vec<ThingId> {
    let of_the_house = |id: &ThingId| {
        let own = |light: &&LightAt<'_>| *id == ThingId::Light(light.id.clone());
        corner.lights.iter().find(own).is_some_and(is_of_the_house)
    };
    let carried = corner.carried().into_iter().filter(Carried::is_fixed).map(|carried| carried.id);
    let mut all: Vec<ThingId> = carried.filter(|id| !of_the_house(id)).collect();
    if corner.backdrop.is_some_and(|(_, used)| used.hung != Hung::Stands) {
        all.push(ThingId::Backdrop);
    }
    all
}
