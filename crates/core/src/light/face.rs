//! What reaches the face: every lamp by the area formula, less what stands in its way; every board by one bounce; the
//! room by radiosity (docs/workings/light.md).

use std::sync::Arc;

use super::bounce;
use crate::corner::{Corner, Kind, LightAt, Source, bounds, things};
use crate::geometry::{DVec2, DVec3};
use crate::photometry::{Blockers, Enclosure, Face, Source as Shining};
use crate::plan::{Brief, Role};
use crate::reading::From;

/// A board is sampled at this many places a side.
const BOARD_SAMPLES: usize = 8;
/// Walls and beams that stand in the light belong to nothing that is left out.
const NO_ONE: usize = usize::MAX;

/// Illuminances at the eyes, lx.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct FaceLight {
    /// On a surface that faces the lens; what the exposure is set by.
    pub camera_lx: f64,
    /// On the cheek turned 45 degrees towards the key.
    pub lit_lx: f64,
    /// On the cheek turned 45 degrees away from it.
    pub shadow_lx: f64,
    /// Part of `camera_lx` that comes from the room's surfaces.
    pub bounce_lx: f64,
    /// Part of `shadow_lx` that does.
    pub shadow_bounce_lx: f64,
}

impl FaceLight {
    /// No light at all.
    pub const DARK: Self =
        Self { camera_lx: 0.0, lit_lx: 0.0, shadow_lx: 0.0, bounce_lx: 0.0, shadow_bounce_lx: 0.0 };
}

/// A corner's light, ready to be read off anywhere.
pub struct Lit<'a> {
    corner: &'a Corner<'a>,
    shining: Vec<Shining>,
    blockers: Blockers,
    enclosure: Arc<Enclosure>,
    luminances_cd_m2: Vec<f64>,
    at_face: FaceLight,
}

impl<'a> Lit<'a> {
    /// Lamps and boards, what stands in their light, and the room under them; `None` without any light.
    pub fn of(corner: &'a Corner<'a>) -> Option<Self> {
        if corner.lights.is_empty() {
            return None;
        }
        let (blockers, owners) = blockers(corner);
        let owner = |light: &LightAt<'_>| owners.iter().position(|id| id == light.id);
        let lamps = corner.lights.iter().filter(|l| matches!(l.source, Source::Lamp(_)));
        let mut shining: Vec<Shining> = lamps.map(|l| Shining::new(l.face(), owner(l))).collect();
        let lamps = shining.len();
        for light in &corner.lights {
            if let Source::Board(board) = light.source {
                let own = owner(light);
                let lit = lit_board(light.face(), board.reflectance, |point, normal| {
                    shining[..lamps].iter().map(|s| s.illuminance_lx(point, normal, &blockers, own)).sum()
                });
                shining.push(Shining::new(lit, own));
            }
        }
        let enclosure = bounce::enclosure(corner.brief);
        let luminances_cd_m2 = enclosure.luminances_cd_m2(shining[..lamps].iter().map(Shining::face));
        let mut lit =
            Self { corner, shining, blockers, enclosure, luminances_cd_m2, at_face: FaceLight::DARK };
        lit.at_face = lit.towards_lens_and_cheeks();
        Some(lit)
    }

    /// The corner that is lit.
    pub fn corner(&self) -> &'a Corner<'a> {
        self.corner
    }

    pub(super) fn shining(&self) -> &[Shining] {
        &self.shining
    }

    pub(super) fn blockers(&self) -> &Blockers {
        &self.blockers
    }

    /// The lamps of the layout, each with what it gives straight at a point, lx.
    pub fn lamps_lx(&self, point: DVec3, normal: DVec3) -> Vec<(&'a LightAt<'a>, f64)> {
        let lamps = self.corner.lights.iter().filter(|l| matches!(l.source, Source::Lamp(_)));
        let each = self.shining.iter().map(|s| s.illuminance_lx(point, normal, &self.blockers, None));
        lamps.zip(each).collect()
    }

    /// The faces of lamps, then of boards with what falls on them.
    pub fn faces(&self) -> impl Iterator<Item = &Face> {
        self.shining.iter().map(Shining::face)
    }

    /// Straight from lamps and boards at a point on a surface of a unit normal, lx.
    pub fn direct_lx(&self, point: DVec3, normal: DVec3) -> f64 {
        self.shining.iter().map(|s| s.illuminance_lx(point, normal, &self.blockers, None)).sum()
    }

    /// From walls, floor and ceiling, lx.
    pub fn bounce_lx(&self, point: DVec3, normal: DVec3) -> f64 {
        self.enclosure.illuminance_lx(&self.luminances_cd_m2, point, normal)
    }

    /// Everything that reaches the face.
    pub fn at_face(&self) -> FaceLight {
        self.at_face
    }

    fn towards_lens_and_cheeks(&self) -> FaceLight {
        let corner = self.corner;
        let towards = corner.to_lens();
        let turned = |degrees: f64| {
            let flat = DVec2::from_angle(degrees.to_radians()).rotate(towards.truncate());
            flat.extend(0.0)
        };
        let on =
            |normal: DVec3| (self.direct_lx(corner.eyes_m, normal), self.bounce_lx(corner.eyes_m, normal));
        let camera = on(towards);
        // A counter-clockwise turn seen from above goes to the person's left, which is camera right.
        let (right, left) = (on(turned(45.0)), on(turned(-45.0)));
        let key_right = corner
            .role(Role::Key)
            .next()
            .map_or(right.0 >= left.0, |key| corner.light_angles_deg(key.position_m).0 >= 0.0);
        let (lit, shadow) = if key_right { (right, left) } else { (left, right) };
        FaceLight {
            camera_lx: camera.0 + camera.1,
            lit_lx: lit.0 + lit.1,
            shadow_lx: shadow.0 + shadow.1,
            bounce_lx: camera.1,
            shadow_bounce_lx: shadow.1,
        }
    }
}

/// What may stand in the light, with the ids of the things by number. The head is what is lit; a glass lets light pass.
fn blockers(corner: &Corner<'_>) -> (Blockers, Vec<String>) {
    let mut blockers = Blockers::default();
    let all = things(corner);
    for (owner, thing) in all.iter().enumerate().filter(|(_, thing)| !thing.glass) {
        for part in thing.parts.iter().filter(|p| thing.kind != Kind::Person || p.what != "head") {
            blockers.add(&part.solid, owner);
        }
    }
    for bound in bounds(&corner.brief.room, 0.0) {
        blockers.add(&bound.solid, NO_ONE);
    }
    (blockers, all.into_iter().map(|thing| thing.id).collect())
}

/// A white board under the lamps: L = rho E / pi with E the mean over the board.
pub fn lit_board(mut board: Face, reflectance: f64, lit_lx: impl Fn(DVec3, DVec3) -> f64) -> Face {
    let [a, b, _, d] = board.outline[..] else { return board };
    let mut sum = 0.0;
    for i in 0..BOARD_SAMPLES {
        for j in 0..BOARD_SAMPLES {
            let at = |k: usize| (k as f64 + 0.5) / BOARD_SAMPLES as f64;
            let point = a + (b - a) * at(i) + (d - a) * at(j);
            sum += lit_lx(point, board.normal);
        }
    }
    board.luminance_cd_m2 = reflectance * sum / (BOARD_SAMPLES * BOARD_SAMPLES) as f64 / std::f64::consts::PI;
    board
}

/// Light on the face towards the lens, lx: as measured, else as computed.
pub fn towards_lens_lx(corner: &Corner<'_>, computed: &FaceLight) -> (f64, From) {
    match corner.brief.measured.get("light.face.illuminance_lx") {
        Some(measured) if *measured > 0.0 => (*measured, From::Measured),
        _ => (computed.camera_lx, From::Computed),
    }
}

/// Everything that reaches the face.
pub fn at_face(corner: &Corner<'_>) -> FaceLight {
    Lit::of(corner).map_or(FaceLight::DARK, |lit| lit.at_face())
}

/// Area-weighted reflectance of the room's surfaces, and whether any of it had to be assumed.
pub fn mean_reflectance(brief: &Brief) -> (f64, bool) {
    let mut assumed = false;
    let (mut sum, mut whole) = (0.0, 0.0);
    for (name, area) in brief.room.surfaces_m2() {
        let (reflectance, told) = bounce::reflectance(brief, name);
        assumed |= !told;
        sum += area * reflectance;
        whole += area;
    }
    (sum / whole, assumed)
}
