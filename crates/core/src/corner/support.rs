//! What carries a thing, as solids: feet and column, arm, rod. Sizes that nobody gives are Fogon's own rules.

use super::Corner;
use super::thing::{Piece, Stand, Thing, What};
use crate::geometry::{DVec2, DVec3, Solid};
use crate::plan::{Support, SupportKind, ThingId};

/// Half thickness of columns, arms and poles, m.
pub(super) const COLUMN_RADIUS_M: f64 = 0.02;
/// Height to which the spread feet of a stand reach, m.
pub(super) const FEET_HEIGHT_M: f64 = 0.10;
/// Foot radius where neither the support nor its gear says, m.
pub(crate) const FOOT_RADIUS_M: f64 = 0.45;

impl Thing {
    /// Puts it on a support, with the parts that carry it. `at` is where it is, `hold` where it is held.
    pub(super) fn carried_by(&mut self, corner: &Corner<'_>, support: &Support, at: DVec3, hold: DVec3) {
        carry(corner, support, at, hold, &mut self.pieces);
        self.stand = stand_of(support);
        self.on = corner.carrier(support).map(|carrier| carrier.id);
    }
}

/// The stand a support stands for: its gear, and its foot in millimetres.
fn stand_of(support: &Support) -> Option<Stand> {
    let foot = support.base_m.filter(|_| matches!(support.kind, SupportKind::Floor | SupportKind::Boom))?;
    let gear = support.gear.clone()?;
    Some((gear, foot.0.map(|v| (v * 1000.0).round() as i64)))
}

/// The carrying parts: feet and column, arm, or rod.
fn carry(corner: &Corner<'_>, support: &Support, at: DVec3, hold: DVec3, pieces: &mut Vec<Piece>) {
    let mut rod = |what, from, to| pieces.push(Piece { what, solid: Solid::rod(from, to, COLUMN_RADIUS_M) });
    match support.kind {
        SupportKind::Floor | SupportKind::Boom => {
            let base = base_of(support, hold);
            let top = base.extend(hold.z);
            rod(What::Column, base.extend(0.0), top);
            if support.kind == SupportKind::Boom {
                rod(What::Boom, top, hold);
            }
            let radius = foot_radius_m(corner, support);
            pieces.push(Piece { what: What::Feet, solid: Solid::cylinder(base, radius, 0.0, FEET_HEIGHT_M) });
        }
        SupportKind::Clamp | SupportKind::On => {
            let Some(carrier) = corner.carrier(support) else {
                return; // on the camera, or worn
            };
            let grip = carrier.grip(support, hold) + DVec3::Z * 0.005;
            // Off a tripod an arm goes out level, under the picture, and then up; elsewhere up and then out.
            let (first, second, knee) = if carrier.id == ThingId::Camera {
                (What::Boom, What::Column, hold.with_z(grip.z))
            } else {
                (What::Column, What::Boom, grip.with_z(hold.z))
            };
            for (what, from, to) in [(first, grip, knee), (second, knee, hold)] {
                if (to - from).length() > 0.02 {
                    rod(what, from, to);
                }
            }
        }
        SupportKind::Wall => {
            // Not from inside the wall's surface.
            let fixed = base_of(support, hold).extend(hold.z);
            rod(What::Boom, fixed + (hold - fixed).normalize_or_zero() * 0.02, hold);
        }
        SupportKind::Ceiling => rod(What::Column, at, at.with_z(corner.brief.room.ceiling_m(at.truncate()))),
    }
}

/// Foot of the column: as given, else plumb under what it carries.
pub(crate) fn base_of(support: &Support, hold: DVec3) -> DVec2 {
    support.base_m.map_or(hold.truncate(), DVec2::from)
}

/// Radius of the feet: as set up, else the stand's own, else the usual one.
pub(crate) fn foot_radius_m(corner: &Corner<'_>, support: &Support) -> f64 {
    support
        .foot_radius_m
        .or_else(|| corner.support_gear(support).map(|gear| gear.foot_radius_m))
        .unwrap_or(FOOT_RADIUS_M)
}
