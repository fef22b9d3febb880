//! Whether a three-legged stand stays upright (rigid-body statics, docs/workings/room.md).

use serde::Serialize;
use utoipa::ToSchema;

/// Standard gravity, m/s2 (ISO 80000-3).
const GRAVITY_M_S2: f64 = 9.80665;

/// The balance of a stand over its weakest edge.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct Tipping {
    /// From the column to the weakest edge, midway between two legs, m.
    pub tipping_arm_m: f64,
    /// Overturning moment over g, kg m.
    pub overturning_kg_m: f64,
    /// Restoring moment over g, kg m.
    pub restoring_kg_m: f64,
    /// Bag needed, kg.
    pub sandbag_kg: f64,
}

/// Balance of parts (mass kg, offset towards the load m) on legs of a circle of `foot_circle_radius_m`, with a
/// knock of `knock_n` at `knock_height_m` and the bag `bag_offset_m` behind the column.
pub fn stand_tipping(
    foot_circle_radius_m: f64,
    parts: &[(f64, f64)],
    knock_n: f64,
    knock_height_m: f64,
    bag_offset_m: f64,
    safety_factor: f64,
) -> Tipping {
    let arm = foot_circle_radius_m / 2.0;
    let knock = knock_n * knock_height_m / GRAVITY_M_S2;
    let overturning = parts.iter().map(|(mass, at)| mass * (at - arm).max(0.0)).sum::<f64>() + knock;
    let restoring = parts.iter().map(|(mass, at)| mass * (arm - at).max(0.0)).sum::<f64>();
    let lacking = safety_factor * overturning - restoring;
    Tipping {
        tipping_arm_m: arm,
        overturning_kg_m: overturning,
        restoring_kg_m: restoring,
        sandbag_kg: (lacking / (arm + bag_offset_m)).max(0.0),
    }
}
