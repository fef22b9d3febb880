//! A face that shines in a room where things stand in its light.

use super::shadow::{Blockers, Sheet};
use super::{Emits, Face, face_normal, polygon_illuminance};
use crate::geometry::DVec3;

/// A face that shines, with the number of the thing that it belongs to, which never stands in its own light.
#[derive(Debug, Clone)]
pub struct LightSource {
    face: Face,
    sheet: Sheet,
    owner: Option<usize>,
    /// A mirror in which alone the face is seen: its corners.
    mirror: Option<Vec<DVec3>>,
}

impl LightSource {
    /// A face of a thing.
    pub fn new(face: Face, owner: Option<usize>) -> Self {
        let sheet = Sheet::new(&face.outline, &face.hole, face.middle, face.normal);
        Self { face, sheet, owner, mirror: None }
    }

    /// The image of a face in a flat mirror: it stands behind the mirror and is seen within the mirror's edges. `None`
    /// where the face does not shine at the mirror's front.
    pub fn mirrored(face: &Face, mirror: &Face, reflectance: f64, owner: Option<usize>) -> Option<Self> {
        let (on, normal) = (mirror.middle, mirror.normal);
        if (face.middle - on).dot(normal) <= 0.0 || !face.shines_towards(on) {
            return None;
        }
        let image = |p: DVec3| p - normal * (2.0 * normal.dot(p - on));
        let turned = |v: DVec3| v - normal * (2.0 * normal.dot(v));
        let outline = |corners: &[DVec3]| corners.iter().rev().map(|c| image(*c)).collect::<Vec<_>>();
        let emits = match face.emits {
            Emits::Around { axis, half_length_m, half_width_m } => {
                Emits::Around { axis: turned(axis), half_length_m, half_width_m }
            }
            other => other,
        };
        let face = Face {
            outline: outline(&face.outline),
            hole: outline(&face.hole),
            normal: turned(face.normal),
            middle: image(face.middle),
            luminance_cd_m2: face.luminance_cd_m2 * reflectance,
            emits,
            ..*face
        };
        Some(Self { mirror: Some(mirror.outline.clone()), ..Self::new(face, owner) })
    }

    /// The face itself; of a mirrored one the image behind its mirror.
    pub fn face(&self) -> &Face {
        &self.face
    }

    /// Number of the thing that it belongs to.
    pub fn owner(&self) -> Option<usize> {
        self.owner
    }

    /// Whether it is an image in a mirror.
    pub fn is_image(&self) -> bool {
        self.mirror.is_some()
    }

    /// Illuminance at a point on a surface of a unit normal, lx, past what stands between; `but` names a second thing
    /// that casts no shadow: the one that the point lies on.
    pub fn illuminance_lx(
        &self,
        point: DVec3,
        normal: DVec3,
        blockers: &Blockers,
        but: Option<usize>,
    ) -> f64 {
        let face = &self.face;
        if face.luminance_cd_m2 <= 0.0 || !face.shines_towards(point) {
            return 0.0;
        }
        let luminance = face.luminance_towards_cd_m2(point);
        if let Some(mirror) = &self.mirror {
            return self.in_mirror(mirror, luminance, point, normal, blockers, but);
        }
        let seen = face.seen_from(point);
        // Wholly under the horizon: no need to look at what stands between.
        if seen.outline.iter().all(|corner| normal.dot(*corner - point) <= 0.0) {
            return 0.0;
        }
        let pieces = if face.emits == Emits::Forward {
            self.sheet.seen(point, blockers, [self.owner, but])
        } else {
            let sheet = Sheet::new(&seen.outline, &[], seen.middle, seen.normal);
            sheet.seen(point, blockers, [self.owner, but])
        };
        match pieces {
            None => polygon_illuminance(luminance, &seen.outline, point, normal),
            Some(pieces) => {
                pieces.iter().map(|piece| polygon_illuminance(luminance, piece, point, normal)).sum()
            }
        }
    }

    /// The image within the mirror's edges, less what stands between the mirror and the point.
    fn in_mirror(
        &self,
        mirror: &[DVec3],
        luminance_cd_m2: f64,
        point: DVec3,
        normal: DVec3,
        blockers: &Blockers,
        but: Option<usize>,
    ) -> f64 {
        let (front, _) = face_normal(mirror);
        let Some(on) = mirror.first() else { return 0.0 };
        if (point - *on).dot(front) <= 0.0 {
            return 0.0;
        }
        let middle = mirror.iter().sum::<DVec3>() / mirror.len() as f64;
        let sheet = Sheet::new(mirror, &[], middle, front);
        let windows = sheet.seen(point, blockers, [self.owner, but]).unwrap_or_else(|| vec![mirror.to_vec()]);
        let image = self.face.seen_from(point);
        windows
            .iter()
            .map(|window| {
                let within = |outline: &[DVec3]| {
                    let seen = seen_through(outline, window, point);
                    if seen.len() < 3 {
                        0.0
                    } else {
                        polygon_illuminance(luminance_cd_m2, &seen, point, normal)
                    }
                };
                within(&image.outline) - if image.hole.is_empty() { 0.0 } else { within(&image.hole) }
            })
            .sum()
    }
}

/// The part of a convex outline that a point sees through a convex window.
fn seen_through(outline: &[DVec3], window: &[DVec3], point: DVec3) -> Vec<DVec3> {
    let inner = window.iter().sum::<DVec3>() / window.len().max(1) as f64 - point;
    let mut left = outline.to_vec();
    for (a, b) in window.iter().zip(window.iter().cycle().skip(1)) {
        let mut plane = (*a - point).cross(*b - point);
        if plane.dot(inner) < 0.0 {
            plane = -plane;
        }
        let mut kept = Vec::with_capacity(left.len() + 1);
        for (p, q) in left.iter().zip(left.iter().cycle().skip(1)) {
            let (at_p, at_q) = (plane.dot(*p - point), plane.dot(*q - point));
            if at_p >= 0.0 {
                kept.push(*p);
            }
            if (at_p > 0.0 && at_q < 0.0) || (at_p < 0.0 && at_q > 0.0) {
                kept.push(*p + (*q - *p) * (at_p / (at_p - at_q)));
            }
        }
        left = kept;
    }
    left
}
