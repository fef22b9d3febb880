//! The legs of the camera's tripod: three, turned to where they have room, so that they straddle a desk's edge and a
//! person's feet.

use super::Corner;
use super::support::{base_of, foot_radius_m};
use super::thing::Thing;
use crate::geometry::{DVec2, DVec3, Solid, inside};
use crate::plan::Support;

/// Half the thickness of a leg, m, and the part of the height at which the legs part. Fogon's own rule.
const LEG_RADIUS_M: f64 = 0.015;
const APEX: f64 = 0.85;
/// Things may touch by so much, m.
const TOUCH_M: f64 = 0.01;
/// Turns that are tried, degrees: a leg away from the person first, so that the other two straddle, then a leg towards.
const TURNS_DEG: [f64; 8] = [0.0, 60.0, 30.0, 90.0, 15.0, 45.0, 75.0, 105.0];

/// The three legs in the first turn in which they meet nothing; in the first one where they always do.
pub(super) fn tripod_legs(
    corner: &Corner<'_>,
    support: &Support,
    hold: DVec3,
    others: &[Thing],
) -> [Solid; 3] {
    let base = base_of(support, hold);
    let radius = foot_radius_m(corner, support);
    let away = (base - corner.eyes_m.truncate()).try_normalize().unwrap_or(DVec2::Y);
    let near: Vec<&Solid> = others
        .iter()
        .flat_map(|thing| &thing.pieces)
        .map(|piece| &piece.solid)
        .filter(|solid| {
            let (low, high) = solid.bounds();
            let gap = (low.truncate() - base).max(base - high.truncate());
            gap.max_element() < radius && low.z < hold.z
        })
        .collect();
    let turned = |turn_deg: f64| -> [DVec2; 3] {
        std::array::from_fn(|leg| {
            let angle = (turn_deg + 120.0 * leg as f64).to_radians();
            base + DVec2::from_angle(angle).rotate(away) * radius
        })
    };
    let solids = |tips: [DVec2; 3]| {
        tips.map(|tip| Solid::rod(tip.extend(LEG_RADIUS_M), base.extend(APEX * hold.z), LEG_RADIUS_M))
    };
    let has_room = |tips: &[DVec2; 3]| {
        tips.iter().all(|tip| inside(&corner.floor_m, *tip, 0.0))
            && (near.is_empty()
                || solids(*tips).iter().all(|leg| near.iter().all(|other| leg.overlap_m(other) <= TOUCH_M)))
    };
    let tips = TURNS_DEG.into_iter().map(turned).find(has_room).unwrap_or_else(|| turned(TURNS_DEG[0]));
    solids(tips)
}
