//! What reaches the face: every lamp by the area formula, every board by one bounce, the room by a first
//! estimate (docs/workings/light.md). No occlusion.

use crate::corner::{Corner, LightAt, Source};
use crate::geometry::{DVec2, DVec3};
use crate::photometry::Face;
use crate::plan::{Brief, Role};
use crate::reading::From;

/// Reflectances where none is given: matt white ceiling, light walls, wooden floor (common practice, no
/// source).
const CEILING: f64 = 0.80;
const WALLS: f64 = 0.65;
const FLOOR: f64 = 0.30;
/// A board is sampled at this many places a side.
const BOARD_SAMPLES: usize = 8;

/// Illuminances at the eyes, lx.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct FaceLight {
    /// On a surface that faces the lens; what the exposure is set by.
    pub camera_lx: f64,
    /// On the cheek turned 45 degrees towards the key.
    pub lit_lx: f64,
    /// On the cheek turned 45 degrees away from it.
    pub shadow_lx: f64,
    /// Part of each that comes from the room's surfaces.
    pub bounce_lx: f64,
}

/// The lamps' faces, and the boards' faces with the luminance that the lamps give them.
pub fn faces(corner: &Corner<'_>) -> Vec<Face> {
    let lamps: Vec<Face> =
        corner.lights.iter().filter(|l| matches!(l.source, Source::Lamp(_))).map(LightAt::face).collect();
    let boards = corner.lights.iter().filter_map(|light| match light.source {
        Source::Board(board) => Some(lit_board(light.face(), board.reflectance, &lamps)),
        Source::Lamp(_) => None,
    });
    let boards: Vec<Face> = boards.collect();
    lamps.into_iter().chain(boards).collect()
}

/// A white board under the lamps: L = rho E / pi with E the mean over the board.
pub fn lit_board(mut board: Face, reflectance: f64, lamps: &[Face]) -> Face {
    let [a, b, _, d] = board.outline[..] else { return board };
    let mut sum = 0.0;
    for i in 0..BOARD_SAMPLES {
        for j in 0..BOARD_SAMPLES {
            let at = |k: usize| (k as f64 + 0.5) / BOARD_SAMPLES as f64;
            let point = a + (b - a) * at(i) + (d - a) * at(j);
            sum += lamps.iter().map(|lamp| lamp.illuminance_lx(point, board.normal)).sum::<f64>();
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
    from_faces(corner, &faces(corner))
}

/// As [`at_face`], for faces already known.
pub fn from_faces(corner: &Corner<'_>, faces: &[Face]) -> FaceLight {
    let towards = corner.to_lens();
    let turned = |degrees: f64| {
        let flat = DVec2::from_angle(degrees.to_radians()).rotate(towards.truncate());
        flat.extend(0.0)
    };
    let on = |normal: DVec3| faces.iter().map(|f| f.illuminance_lx(corner.eyes_m, normal)).sum::<f64>();
    // A counter-clockwise turn seen from above goes to the person's left, which is camera right.
    let (right, left) = (on(turned(45.0)), on(turned(-45.0)));
    let key_right = corner
        .role(Role::Key)
        .next()
        .map_or(right >= left, |key| corner.light_angles_deg(key.position_m).0 >= 0.0);
    let bounce_lx = room_bounce_lx(corner);
    let (lit, shadow) = if key_right { (right, left) } else { (left, right) };
    FaceLight {
        camera_lx: on(towards) + bounce_lx,
        lit_lx: lit + bounce_lx,
        shadow_lx: shadow + bounce_lx,
        bounce_lx,
    }
}

/// First estimate of the light that the room throws back: E = F rho / (A (1 - rho)) (Sumpner 1892; half a stop).
pub fn room_bounce_lx(corner: &Corner<'_>) -> f64 {
    let flux: f64 = corner
        .lights
        .iter()
        .filter(|l| matches!(l.source, Source::Lamp(_)))
        .map(|l| l.face().flux_lm())
        .sum();
    let (reflectance, _) = mean_reflectance(corner.brief);
    let area = corner.brief.room.surfaces_m2().iter().map(|(_, area)| area).sum::<f64>();
    super::bounce_estimate_lx(flux, area, reflectance)
}

/// Area-weighted reflectance of the room's surfaces, and whether any of it had to be assumed.
pub fn mean_reflectance(brief: &Brief) -> (f64, bool) {
    let mut assumed = false;
    let (mut sum, mut whole) = (0.0, 0.0);
    for (name, area) in brief.room.surfaces_m2() {
        let usual = match name {
            "floor" => FLOOR,
            "ceiling" => CEILING,
            _ => WALLS,
        };
        let told = brief.room.surfaces.get(name).and_then(|s| s.reflectance);
        assumed |= told.is_none();
        sum += area * told.unwrap_or(usual);
        whole += area;
    }
    (sum / whole, assumed)
}
