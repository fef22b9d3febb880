//! Where stands are put away: folded or rolled aside, along a wall, out of the way of doors and of what furniture is used for.
//! The room has another life.

use serde::Serialize;
use utoipa::ToSchema;

use super::way::{FOLDED_HIGH_M, Floor, rectangle};
use crate::corner::{Corner, PlacedThing, door_swing};
use crate::geometry::{DVec2, DVec3, bearing_vector, beyond_m, whole_steps};
use crate::plan::{FurnitureKind, Id, OpeningKind, ThingId};
use crate::reading::Origin;
use crate::room::{StandState, folded_radius_m, sandbags};
use crate::units::{UnitSystem, lower_first};

/// What is put away keeps so far from walls, furniture and other stands, m. Fogon's own rule.
const GAP_M: f64 = 0.03;
/// Way that stays free before doors and before furniture that is used from its front, m (common practice, no source).
const WAY_M: f64 = 0.60;
/// Places along a wall are tried so often, m.
const STEP_M: f64 = 0.10;

/// A stand put away and standing.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Parked {
    /// The name of the first thing on it.
    pub id: String,
    /// Letter of its mark.
    pub letter: String,
    /// What is on it, in words.
    pub what: String,
    /// Middle of the place where it is put away, m from left and back wall.
    #[schema(value_type = Vec<f64>)]
    pub at_m: [f64; 2],
    /// Radius of what it takes there, m.
    pub radius_m: f64,
    /// Middle of its place in use, m.
    #[schema(value_type = Vec<f64>)]
    pub standing_m: [f64; 2],
    /// Radius of its feet in use, m.
    pub standing_radius_m: f64,
    /// It stands on wheels.
    pub rolls: bool,
    /// From one to the other round the furniture, m.
    pub way_m: f64,
    /// Told by the person, or found by Fogon.
    pub from: Origin,
    /// There is no room to put it away: it stays where it stands.
    pub stays: bool,
    /// Where it is put away, in words.
    pub words: String,
}

/// Where a stand is put away, in words; none where it stays.
fn place_words(units: UnitSystem, at: Option<DVec2>, rolls: bool, way_m: f64) -> String {
    let Some(at) = at else {
        return "Stays where it stands: no wall has a free place for it.".to_owned();
    };
    let how = if rolls { "Rolled aside" } else { "Folded" };
    let [x, y] = at.to_array().map(|metres| units.mark(metres));
    format!("{how}, {x} from the left wall, {y} from the back wall; {} to its mark.", units.length(way_m))
}

/// Every stand of the floor, with its place in use and away; and what is on each.
pub(super) fn parked(corner: &Corner<'_>) -> Vec<(Parked, Vec<ThingId>)> {
    let floor = Floor::of(corner);
    let taken = Taken::of(corner);
    let placed = corner.placed();
    let mut stands = sandbags(corner);
    // The widest has the fewest places.
    stands.sort_by(|a, b| away_radius_m(b).total_cmp(&away_radius_m(a)));
    let mut found: Vec<(Parked, Vec<ThingId>)> = Vec::new();
    for stand in stands {
        let id = corner.name(&stand.thing);
        let radius_m = away_radius_m(&stand);
        let others: Vec<(DVec2, f64)> =
            found.iter().map(|(other, _)| (DVec2::from(other.at_m), other.radius_m)).collect();
        let told = corner.brief.habits.parked.get(&Id(id.clone())).map(|at| DVec2::from(*at));
        let place = told.or_else(|| taken.place(stand.foot_m, radius_m, &others));
        let (at, stays) = place.map_or((stand.foot_m, true), |at| (at, false));
        let way_m = if stays { 0.0 } else { floor.way_m(at, stand.foot_m) };
        let first = placed.iter().find(|thing| thing.id == stand.thing);
        let parked = Parked {
            letter: first.map_or("", |thing| thing.letter).to_owned(),
            what: words(&placed, &stand.on_it),
            at_m: at.to_array(),
            radius_m,
            standing_m: stand.foot_m.to_array(),
            standing_radius_m: stand.foot_radius_m.0,
            rolls: stand.rolls,
            way_m,
            from: if told.is_some() { Origin::Typed } else { Origin::Computed },
            stays,
            words: place_words(corner.brief.units, place, stand.rolls, way_m),
            id,
        };
        found.push((parked, stand.on_it));
    }
    // In the order in which marks are laid.
    let order = |things: &[ThingId]| placed.iter().position(|thing| things.first() == Some(&thing.id));
    found.sort_by_key(|(_, things)| order(things));
    found
}

/// What a stand takes when it is put away: folded, or on its wheels as it is.
fn away_radius_m(stand: &StandState) -> f64 {
    if stand.rolls { stand.foot_radius_m.0 } else { folded_radius_m() }
}

/// What things are called, one after another.
pub(super) fn words(placed: &[PlacedThing<'_>], things: &[ThingId]) -> String {
    let called = things.iter().map(|id| match placed.iter().find(|thing| thing.id == *id) {
        Some(thing) if matches!(id, ThingId::Light(_)) => match lower_first(&thing.called) {
            role if ["key", "fill"].contains(&role.as_str()) => format!("{role} light"),
            other => other.replace(" (board)", " board"),
        },
        Some(thing) if matches!(id, ThingId::Angle(_)) => format!("{} camera", lower_first(&thing.called)),
        Some(thing) => lower_first(&thing.called),
        None => id.words(),
    });
    let all: Vec<String> = called.collect();
    match all.split_last() {
        Some((last, before)) if !before.is_empty() => format!("{} and {last}", before.join(", ")),
        Some((last, _)) => last.clone(),
        None => String::new(),
    }
}

/// What of the floor is no place to put a stand away.
struct Taken {
    walls: Vec<DVec2>,
    /// Furniture and what doors swing over.
    solid: Vec<Vec<DVec2>>,
    /// Ways before doors and furniture.
    ways: Vec<[DVec2; 4]>,
}

impl Taken {
    fn of(corner: &Corner<'_>) -> Self {
        let room = &corner.brief.room;
        let (mut solid, mut ways) = (Vec::new(), Vec::new());
        for (id, piece) in &room.furniture {
            // Where the plan puts it and where it stood before: it may go back.
            let here = corner.furniture_at(id, piece);
            let before = (DVec3::from(piece.position_m), piece.bearing_deg);
            let places = [Some(here), (here != before).then_some(before)];
            let [width, depth, _] = piece.size_m.0;
            for (at, bearing_deg) in places.into_iter().flatten().filter(|(at, _)| at.z < FOLDED_HIGH_M) {
                solid.push(rectangle(at.truncate(), bearing_deg, width, depth).to_vec());
                if is_used_from_its_front(piece.kind) {
                    let ahead = bearing_vector(bearing_deg).truncate() * ((depth + WAY_M) / 2.0);
                    ways.push(rectangle(at.truncate() + ahead, bearing_deg, width, WAY_M));
                }
            }
        }
        for opening in room.openings.values().filter(|opening| opening.kind == OpeningKind::Door) {
            solid.push(door_swing(opening, &corner.floor_m));
            let Some((start, end)) = room.wall_m(usize::from(opening.wall)) else { continue };
            let inward = (end - start).normalize_or_zero().perp();
            let before = opening.middle_m(&corner.floor_m) + inward * (WAY_M / 2.0);
            let bearing_deg = crate::geometry::bearing_of(inward.extend(0.0));
            ways.push(rectangle(before, bearing_deg, opening.width_m, WAY_M));
        }
        Self { walls: corner.floor_m.clone(), solid, ways }
    }

    /// The free place along a wall that is nearest to where a stand is used; in a way only where there is no other.
    fn place(&self, standing: DVec2, radius_m: f64, others: &[(DVec2, f64)]) -> Option<DVec2> {
        let off = radius_m + GAP_M;
        let edges = self.walls.iter().zip(self.walls.iter().cycle().skip(1));
        let mut all: Vec<DVec2> = edges
            .flat_map(|(a, b)| {
                let (along, long) = ((*b - *a).normalize_or_zero(), a.distance(*b));
                let steps = whole_steps((long - 2.0 * off).max(0.0), STEP_M);
                let base = *a + along * off + along.perp() * off;
                (0..=steps).map(move |step| base + along * (step as f64 * STEP_M))
            })
            .filter(|at| self.is_free(*at, radius_m, others))
            .collect();
        all.sort_by(|a, b| a.distance_squared(standing).total_cmp(&b.distance_squared(standing)));
        let clear = |at: &&DVec2| self.ways.iter().all(|way| beyond_m(way, **at) >= radius_m);
        all.iter().find(clear).or(all.first()).copied()
    }

    fn is_free(&self, at: DVec2, radius_m: f64, others: &[(DVec2, f64)]) -> bool {
        let apart = radius_m + GAP_M - 1e-9;
        beyond_m(&self.walls, at) <= -apart
            && self
                .solid
                .iter()
                .filter(|outline| !outline.is_empty())
                .all(|outline| beyond_m(outline, at) >= apart)
            && others.iter().all(|(other, radius)| at.distance(*other) >= apart + radius)
    }
}

/// Furniture before which somebody stands, sits or pulls a drawer.
fn is_used_from_its_front(kind: FurnitureKind) -> bool {
    match kind {
        FurnitureKind::Desk
        | FurnitureKind::Table
        | FurnitureKind::Shelf
        | FurnitureKind::Bookcase
        | FurnitureKind::Wardrobe
        | FurnitureKind::Cabinet
        | FurnitureKind::Bed
        | FurnitureKind::Sofa => true,
        FurnitureKind::Chair
        | FurnitureKind::Radiator
        | FurnitureKind::Mirror
        | FurnitureKind::Picture
        | FurnitureKind::Lamp
        | FurnitureKind::Plant
        | FurnitureKind::Box => false,
    }
}
