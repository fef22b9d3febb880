//! What the room gives: how deep it is each way through the seat, and what distance to the background buys.

use serde::Serialize;
use utoipa::ToSchema;

use super::seats;
use crate::corner::Corner;
use crate::geometry::{bearing_vector, distance_to_edge, wrap_180};
use crate::plan::Role;
use crate::shot::lens::blur_disc_mm;

/// Distances behind the person that are told, m (from sitting at the wall, 0.3 m, to 1.8 m away is common practice).
const BEHIND_M: [f64; 6] = [0.3, 0.6, 1.0, 1.4, 1.8, 2.4];
/// A back light on an arm wants so much behind the person, m. Fogon's own rule.
const BACK_LIGHT_M: f64 = 0.9;

/// One way to face.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Depth {
    /// What is faced.
    pub facing: String,
    /// From wall to wall through the seat, m.
    pub depth_m: f64,
    /// Longer than the deepest way square to a wall by so much, m; negative where shorter.
    pub gain_m: f64,
    /// It is a corner, not a wall.
    pub diagonal: bool,
    /// It is how the person faces now.
    pub now: bool,
}

/// What a distance to the background buys with the shot as it is.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct Gained {
    /// Eyes to the background, m.
    pub behind_m: f64,
    /// Blur of the background, percent of the width.
    pub blur_percent: f64,
    /// What the key loses from the face to the background, stops; none without a key.
    pub separation_stops: Option<f64>,
    /// A back light on an arm fits behind the person.
    pub back_light: bool,
    /// It is the distance now.
    pub now: bool,
}

/// The ground of a corner.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Ground {
    /// Every facing that the desk allows, deepest first.
    pub depths: Vec<Depth>,
    /// What distance to the background buys, nearest first.
    pub bought: Vec<Gained>,
}

/// What the key loses from a surface at the eyes that faces the lens to one so far behind them, stops.
fn separation_stops(corner: &Corner<'_>, behind_m: f64) -> Option<f64> {
    let towards = corner.to_lens();
    let key = corner.role(Role::Key).next()?.face();
    let behind = key.illuminance_lx(corner.eyes_m - towards * behind_m, towards);
    let stops = (key.illuminance_lx(corner.eyes_m, towards) / behind).log2();
    stops.is_finite().then_some(stops)
}

/// The ground of a corner.
pub fn ground(corner: &Corner<'_>) -> Ground {
    let brief = corner.brief;
    let seat = corner.eyes_m.truncate();
    let bearing = crate::geometry::bearing_of(corner.to_lens());
    let now = seats::nearest_facing(brief, bearing);
    let mut depths: Vec<Depth> = seats::facings(brief)
        .into_iter()
        .map(|facing| {
            let ahead = bearing_vector(facing.bearing_deg).truncate();
            let depth_m = distance_to_edge(&corner.floor_m, seat, ahead)
                + distance_to_edge(&corner.floor_m, seat, -ahead);
            Depth {
                diagonal: facing.name.contains("corner"),
                now: facing.name == now && wrap_180(facing.bearing_deg - bearing).abs() < 30.0,
                facing: facing.name,
                depth_m,
                gain_m: 0.0,
            }
        })
        .collect();
    let straight = depths.iter().filter(|d| !d.diagonal).map(|d| d.depth_m).fold(f64::NEG_INFINITY, f64::max);
    for depth in &mut depths {
        depth.gain_m = if straight.is_finite() { depth.depth_m - straight } else { 0.0 };
    }
    depths.sort_by(|a, b| b.depth_m.total_cmp(&a.depth_m));
    let camera = &corner.layout.camera;
    let u = corner.subject_distance_m();
    let here = corner.background_behind_m();
    let one = |behind_m: f64, now: bool| {
        let disc =
            blur_disc_mm(camera.focal_length_mm, camera.f_number, camera.focus_distance_m, u + behind_m);
        Gained {
            behind_m,
            blur_percent: 100.0 * disc / corner.image_mm.0.max(corner.image_mm.1),
            separation_stops: separation_stops(corner, behind_m),
            back_light: behind_m >= BACK_LIGHT_M,
            now,
        }
    };
    let mut bought: Vec<Gained> = BEHIND_M.iter().map(|behind| one(*behind, false)).collect();
    bought.push(one(here, true));
    bought.sort_by(|a, b| a.behind_m.total_cmp(&b.behind_m));
    Ground { depths, bought }
}
