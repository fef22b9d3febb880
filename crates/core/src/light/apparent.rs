//! Where a light seems to come from, as the face sees it: the lamp or its cloth; of one that is turned to a wall or to the
//! ceiling what comes back from there; of a window its middle.

use std::f64::consts::PI;

use super::{bounce, cloth};
use crate::corner::{Corner, LightAt, Source};
use crate::geometry::{DVec3, angle_between_deg, distance_to_edge};
use crate::photometry::{Emits, Face};
use crate::plan::{Id, Role};

/// A lamp turned no further than this from the eyes is seen where it is; from the second angle on, what it throws on
/// walls and ceiling counts in full, degrees. Fogon's own rule.
const FACING_DEG: f64 = 30.0;
const TURNED_DEG: f64 = 60.0;
/// No source seems wider than this to either side, degrees.
const WIDEST_DEG: f64 = 75.0;

/// A source as the face sees it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Apparent {
    /// Its middle, m.
    pub middle_m: DVec3,
    /// Diameter of the disc of equal area, m.
    pub diameter_m: f64,
    /// It comes back from a surface.
    pub bounced: bool,
}

impl Apparent {
    /// From the eyes, m.
    pub fn distance_m(&self, corner: &Corner<'_>) -> f64 {
        (self.middle_m - corner.eyes_m).length()
    }
}

/// The key, be it a lamp or a window.
#[derive(Debug, Clone, Copy)]
pub struct Key<'a> {
    /// Its id.
    pub id: &'a Id,
    /// The lamp; none of a window.
    pub light: Option<&'a LightAt<'a>>,
    /// As the face sees it.
    pub seen: Apparent,
}

/// A light as the face sees it. One that faces the person is seen where it is. One that is turned away is seen where its
/// light on the face comes from: straight from it, or by way of the patches of the room that it lights, each by what it
/// gives; in between the one goes over into the other.
pub fn apparent(corner: &Corner<'_>, light: &LightAt<'_>) -> Apparent {
    let face = light.dark_face();
    let straight =
        Apparent { middle_m: light.position_m, diameter_m: face.equal_diameter_m(), bounced: false };
    if !matches!(light.source, Source::Lamp(_)) || light.face().emits != Emits::Forward {
        return straight;
    }
    let to_eyes = corner.eyes_m - light.position_m;
    let turned_deg = angle_between_deg(face.normal, to_eyes);
    let share = ((turned_deg - FACING_DEG) / (TURNED_DEG - FACING_DEG)).clamp(0.0, 1.0);
    if share <= 0.0 {
        return straight;
    }
    // Its brightness does not matter, only where its light goes.
    let shining = Face { luminance_cd_m2: 1.0, ..cloth::whole(light) };
    let towards = -to_eyes.normalize_or(DVec3::Z);
    let direct_lx = shining.illuminance_lx(corner.eyes_m, towards);
    let patches = lit_patches(corner, &shining);
    // Smoothly from none of what comes back to all of it.
    let weight = share * share * (3.0 - 2.0 * share);
    let bounced_lx: f64 = patches.iter().map(|patch| weight * patch.illuminance_lx).sum();
    let whole_lx = direct_lx + bounced_lx;
    if whole_lx <= 0.0 {
        return straight;
    }
    let sum: DVec3 = patches.iter().map(|patch| patch.direction * (weight * patch.illuminance_lx)).sum();
    let direction = (towards * direct_lx + sum).normalize_or(towards);
    let mean = |own: f64, of: &dyn Fn(&LitPatch) -> f64| {
        let others: f64 = patches.iter().map(|patch| weight * patch.illuminance_lx * of(patch)).sum();
        (own * direct_lx + others) / whole_lx
    };
    // Along that direction as far as the middle of all that shines: inside the room.
    let distance_m = mean(towards.dot(direction) * to_eyes.length(), &|patch| {
        patch.direction.dot(direction) * patch.distance_m
    });
    // A curved whole of flat patches may seem to lie beyond them.
    let distance_m = distance_m.min(to_surface_m(corner, direction));
    // A disc of angular radius a has its parts a / sqrt 2 off its middle, root mean square.
    let own = (straight.diameter_m / (2.0 * to_eyes.length())).atan();
    let off = |towards: DVec3| angle_between_deg(direction, towards).to_radians().powi(2);
    let spread = mean(off(towards) + own * own / 2.0, &|patch| off(patch.direction));
    let radius = (2.0 * spread).sqrt().min(WIDEST_DEG.to_radians());
    Apparent {
        middle_m: corner.eyes_m + direction * distance_m,
        diameter_m: 2.0 * distance_m * radius.tan(),
        bounced: bounced_lx > direct_lx,
    }
}

/// From the eyes along a direction to the first wall, floor or ceiling, m.
fn to_surface_m(corner: &Corner<'_>, direction: DVec3) -> f64 {
    let (eyes, flat) = (corner.eyes_m, direction.truncate());
    let wall = match flat.length() {
        length if length > 1e-9 => distance_to_edge(&corner.floor_m, eyes.truncate(), flat / length) / length,
        _ => f64::INFINITY,
    };
    let level = match direction.z {
        up if up > 1e-9 => (corner.brief.room.ceiling_m(eyes.truncate()) - eyes.z) / up,
        down if down < -1e-9 => eyes.z / -down,
        _ => f64::INFINITY,
    };
    wall.min(level).max(0.05)
}

/// A patch of the room as the eyes see it under one lamp.
struct LitPatch {
    direction: DVec3,
    distance_m: f64,
    /// What it gives a surface at the eyes that is turned to it, lx.
    illuminance_lx: f64,
}

/// The patches before the face, each with what it throws back of a lamp's light at once.
fn lit_patches(corner: &Corner<'_>, lamp: &Face) -> Vec<LitPatch> {
    let ahead = corner.to_lens();
    let enclosure = bounce::enclosure(corner.brief);
    let seen = enclosure.patches().iter().filter_map(|patch| {
        let off = patch.middle - corner.eyes_m;
        let (distance_m, direction) = (off.length(), off.normalize_or_zero());
        let facing = -patch.normal.dot(direction);
        if direction.dot(ahead) <= 0.0 || facing <= 0.0 || distance_m < 0.05 {
            return None;
        }
        let luminance = patch.reflectance * lamp.illuminance_lx(patch.middle, patch.normal) / PI;
        let illuminance_lx = luminance * patch.area_m2 * facing / (distance_m * distance_m);
        Some(LitPatch { direction, distance_m, illuminance_lx })
    });
    seen.collect()
}

/// The windows that shine, by id.
pub fn windows<'a>(corner: &'a Corner<'a>) -> impl Iterator<Item = (&'a Id, Apparent)> {
    corner.clear_windows().filter(|_| corner.brief.windows_shine()).map(|(id, _, pane)| {
        let diameter_m = 2.0 * (pane.area_m2() / std::f64::consts::PI).sqrt();
        (id, Apparent { middle_m: pane.middle_m, diameter_m, bounced: false })
    })
}

/// The key of a corner: the lamp of that role, else, where windows shine, the one that is largest as the face sees it.
pub fn key<'a>(corner: &'a Corner<'a>) -> Option<Key<'a>> {
    if let Some(light) = corner.role(Role::Key).next() {
        return Some(Key { id: light.id, light: Some(light), seen: apparent(corner, light) });
    }
    let seen = windows(corner).map(|(id, seen)| Key { id, light: None, seen });
    let ahead = seen.filter(|k| (k.seen.middle_m - corner.eyes_m).dot(corner.to_lens()) > 0.0);
    ahead.max_by(|a, b| {
        let size = |k: &Key<'_>| k.seen.diameter_m / k.seen.distance_m(corner);
        size(a).total_cmp(&size(b))
    })
}
