//! Where a light seems to come from, as the face sees it: the lamp or its cloth; of one that is turned to a wall or to the
//! ceiling the patch that it lights there; of a window its middle.

use crate::corner::{Corner, LightAt, Source};
use crate::geometry::{DVec3, inside};
use crate::photometry::{Emits, beam_exponent};
use crate::plan::{OpeningKind, Role};

/// Step along a beam that looks for the surface it meets, and how far at most, m.
const STEP_M: f64 = 0.01;
const FAR_M: f64 = 20.0;

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
    pub id: &'a str,
    /// The lamp; none of a window.
    pub light: Option<&'a LightAt<'a>>,
    /// As the face sees it.
    pub seen: Apparent,
}

/// A light as the face sees it.
pub fn apparent(corner: &Corner<'_>, light: &LightAt<'_>) -> Apparent {
    let face = light.dark_face();
    let straight =
        Apparent { middle_m: light.position_m, diameter_m: face.equal_diameter_m(), bounced: false };
    let Source::Lamp(lamp) = light.source else { return straight };
    let turned_away = (corner.eyes_m - light.position_m).dot(face.normal) <= 0.0;
    if !turned_away || light.face().emits != Emits::Forward {
        return straight;
    }
    let Some(middle_m) = met(corner, light.position_m, face.normal) else { return straight };
    // On a surface square to the beam its light falls with cos^(m + 3): half of it at 2^(-1 / (m + 3)).
    let exponent = lamp.beam_deg.map_or(1.0, beam_exponent);
    let half = (-1.0 / (exponent + 3.0)).exp2().acos();
    let diameter_m = face.equal_diameter_m() + 2.0 * (middle_m - light.position_m).length() * half.tan();
    Apparent { middle_m, diameter_m, bounced: true }
}

/// Where a beam meets a surface of the room.
fn met(corner: &Corner<'_>, from: DVec3, along: DVec3) -> Option<DVec3> {
    let room = &corner.brief.room;
    let at = |step: usize| from + along * (step as f64 * STEP_M);
    let out = |p: DVec3| {
        p.z <= 0.0 || p.z >= room.ceiling_m(p.truncate()) || !inside(&corner.floor_m, p.truncate(), 0.0)
    };
    let steps = (FAR_M / STEP_M) as usize;
    (1..steps).find(|step| out(at(*step))).map(|step| at(step - 1))
}

/// The windows that shine, by id.
pub fn windows<'a>(corner: &'a Corner<'a>) -> impl Iterator<Item = (&'a str, Apparent)> {
    let shine = corner.brief.windows_shine();
    let windows =
        corner.brief.room.openings.iter().filter(move |(_, o)| shine && o.kind == OpeningKind::Window);
    windows.map(|(id, opening)| {
        let corners = corner.opening_corners(opening);
        let middle_m = corners.iter().sum::<DVec3>() / corners.len() as f64;
        let (_, area_m2) = crate::photometry::face_normal(&corners);
        let diameter_m = 2.0 * (area_m2 / std::f64::consts::PI).sqrt();
        (id.0.as_str(), Apparent { middle_m, diameter_m, bounced: false })
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
