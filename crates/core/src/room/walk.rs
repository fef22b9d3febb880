//! A floor measured by walking round the room with a tape: length, turn, length. The tape never closes exactly;
//! what is left along and across is shared out over the walls by how far each goes along and across (the surveyors'
//! transit rule, from memory), so that square corners stay square.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::geometry::{DVec2, is_simple};
use crate::plan::Point2;
use crate::problem::{Code, Problem};

/// The turns of a walk round may miss the full circle by this much, degrees. Fogon's own rule.
const TURNED_DEG: f64 = 3.0;
/// A walk that ends farther from its start than this part of its length was not measured right. Fogon's own rule.
const WORST_PART: f64 = 0.10;

/// One wall of the walk.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Leg {
    /// Length of the wall, m.
    #[schema(minimum = 0.05, maximum = 50.0)]
    pub length_m: f64,
    /// Turn at its end, degrees: positive to the left (an outer corner, the room on the left hand), negative to the
    /// right (an inner corner).
    #[schema(exclusive_minimum = -180.0, exclusive_maximum = 180.0)]
    pub turn_deg: f64,
}

/// A walk along the walls, the room on the left hand, begun at the left end of the back wall.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Walk {
    /// The walls in their order.
    #[schema(min_items = 3, max_items = 12)]
    pub legs: Vec<Leg>,
}

crate::shape!(Walk);

/// The floor of a walk.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Walked {
    /// Its corners, the error shared out, m.
    pub floor_m: Vec<Point2>,
    /// How far from its start the walk ended, m.
    pub closing_error_m: f64,
    /// The same in parts of the whole way.
    pub closing_part: f64,
    /// The whole way, m.
    pub way_m: f64,
}

/// The floor that a walk goes round.
///
/// # Errors
/// Turns that do not make a full circle, an end far from the start, walls that cross.
pub fn walked(walk: &Walk) -> Result<Walked, Problem> {
    let refused = |field: &str, value: String, accepted: &str| {
        Err(Problem::new(field, value, accepted, Code::Conflict))
    };
    let turned: f64 = walk.legs.iter().map(|leg| leg.turn_deg).sum();
    if (turned - 360.0).abs() > TURNED_DEG {
        let accepted = "360 degrees to the left in all, each turn to the right counted off";
        return refused("legs", format!("{turned:.0} degrees of turns"), accepted);
    }
    // What the turns miss the circle by is shared out evenly.
    let each = (360.0 - turned) / walk.legs.len() as f64;
    let mut heading_deg = 0.0f64;
    let mut runs = Vec::with_capacity(walk.legs.len());
    for leg in &walk.legs {
        runs.push(DVec2::from_angle(heading_deg.to_radians()) * leg.length_m);
        heading_deg += leg.turn_deg + each;
    }
    let off: DVec2 = runs.iter().copied().sum();
    let way_m: f64 = walk.legs.iter().map(|leg| leg.length_m).sum();
    let closing_part = off.length() / way_m;
    if closing_part > WORST_PART {
        let value = format!("a walk that ends {:.2} m from where it began", off.length());
        return refused("legs", value, "at most a tenth of the way; a wall is missing or misread");
    }
    let gone: DVec2 = runs.iter().map(|run| run.abs()).sum();
    let share = off / gone.max(DVec2::splat(1e-9));
    let mut at = DVec2::ZERO;
    let mut corners = Vec::with_capacity(runs.len());
    for run in &runs {
        corners.push(at);
        at += *run - run.abs() * share;
    }
    let least = corners.iter().copied().fold(DVec2::INFINITY, DVec2::min);
    let millimetre = |v: f64| (v * 1000.0).round() / 1000.0;
    let corners: Vec<DVec2> =
        corners.iter().map(|c| DVec2::new(millimetre(c.x - least.x), millimetre(c.y - least.y))).collect();
    if !is_simple(&corners) {
        return refused(
            "legs",
            "walls that cross".into(),
            "walls in the order of the walk, each turn the right way",
        );
    }
    let floor_m = corners.iter().map(|c| Point2(c.to_array())).collect();
    Ok(Walked { floor_m, closing_error_m: off.length(), closing_part, way_m })
}
