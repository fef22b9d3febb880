//! Where a key, fill or back light could stand, best first, from geometry alone: the frame it must stay out of
//! and the angles that model a face. Whether a place is legal is `assess`'s to say.

use crate::corner::{Corner, LightAt, lamp_offsets, light_direction};
use crate::geometry::{DVec3, Plane, nearest_outside_m};
use crate::plan::{LightSchool, Role};

/// Lights and all supports stay this far outside the picture, m (legal rule 4).
pub const MARGIN_M: f64 = 0.05;
/// No source nearer to the head than this, m (legal rule 5).
pub const NEAREST_M: f64 = 0.30;
/// More than the margin by so much, m, that rounding to a millimetre keeps it.
const SLACK_M: f64 = 0.004;

/// A place for a light, by what decides it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct LampPlace {
    /// Middle of the face, m.
    pub position_m: DVec3,
    /// Only an arm can hold it there: a column plumb under it would be in the picture.
    pub needs_arm: bool,
}

/// Angles to try for a key, preferred first: 40 degrees off, 30 up (common practice, no source).
const KEY_AZIMUTHS: [f64; 4] = [40.0, 33.0, 45.0, 52.0];
const KEY_ELEVATIONS: [f64; 5] = [30.0, 23.0, 38.0, 16.0, 44.0];
/// Under a low ceiling, or on a low stand, a key barely above the eyes: flatter, but far better than a lamp overhead. Tried
/// last. Fogon's own rule.
const KEY_LOW_ELEVATIONS: [f64; 2] = [9.0, 3.0];
/// A fill stands on the other side, lower.
const FILL_AZIMUTHS: [f64; 4] = [50.0, 40.0, 62.0, 75.0];
const FILL_ELEVATIONS: [f64; 3] = [5.0, 15.0, -8.0];
/// A back light: degrees from straight behind, and its elevation (30 to 60, common practice; lower where a wide picture leaves no
/// other place).
const BACK_TURNS: [f64; 6] = [35.0, 20.0, 50.0, 65.0, 5.0, 80.0];
const BACK_ELEVATIONS: [f64; 5] = [45.0, 55.0, 36.0, 28.0, 22.0];
/// Distances beyond the nearest one.
const FURTHER_M: [f64; 5] = [0.0, 0.12, 0.30, 0.55, 0.90];

/// A ring's face this far ahead of the lens, m.
const AHEAD_M: [f64; 4] = [0.07, 0.10, 0.14, 0.05];

/// A ring with the lens in its hole, its body behind its face clear of the camera's front.
fn round_the_lens(corner: &Corner<'_>, light: &LightAt<'_>) -> Vec<LampPlace> {
    let lens = corner.view.position_m;
    let towards = (corner.eyes_m - lens).normalize_or(corner.view.forward);
    let at =
        |ahead: f64| LampPlace { position_m: lens + towards * (ahead + light.depth_m()), needs_arm: true };
    AHEAD_M.map(at).to_vec()
}

/// How near to the eyes a light may come in a direction from them, m: out of the picture and clear of the head. `None` where it
/// never leaves the picture.
pub fn nearest_m(corner: &Corner<'_>, light: &LightAt<'_>, direction: DVec3) -> Option<f64> {
    let [right, left, top, _, behind] = corner.view.planes();
    nearest_out_of(corner, &lamp_offsets(light, direction), direction, &[right, left, behind, top])
}

fn nearest_out_of(corner: &Corner<'_>, offsets: &[DVec3], direction: DVec3, planes: &[Plane]) -> Option<f64> {
    nearest_outside_m(planes, corner.eyes_m, direction, offsets, MARGIN_M + SLACK_M)
        .map(|d| d.max(NEAREST_M + SLACK_M + 0.15))
}

/// Places for a light of some role, best first. `side` is +1 for camera right, -1 for left.
pub fn places(corner: &Corner<'_>, light: &LightAt<'_>, role: Role, side: f64) -> Vec<LampPlace> {
    let (azimuths, elevations): (Vec<f64>, &[f64]) = match role {
        // From both sides alike.
        Role::Fill if corner.brief.schools.lights == LightSchool::Even => {
            (KEY_AZIMUTHS.iter().map(|a| a * side).collect(), &KEY_ELEVATIONS)
        }
        Role::Fill => (FILL_AZIMUTHS.iter().map(|a| a * side).collect(), &FILL_ELEVATIONS),
        // Across from the key, or else on its side.
        Role::Back => {
            let turns = [side, -side].map(|side| BACK_TURNS.map(|turn| (180.0 - turn) * side));
            (turns.concat(), &BACK_ELEVATIONS)
        }
        _ => (KEY_AZIMUTHS.iter().map(|a| a * side).collect(), &KEY_ELEVATIONS),
    };
    if role == Role::Key && corner.brief.schools.lights == LightSchool::Ring {
        return round_the_lens(corner, light);
    }
    let [right, left, top, _, behind] = corner.view.planes();
    let to_lens = corner.to_lens();
    let low: &[f64] = if role == Role::Key { &KEY_LOW_ELEVATIONS } else { &[] };
    let mut found = Vec::new();
    for elevations in [elevations, low] {
        let angles = elevations.iter().flat_map(|elevation| azimuths.iter().map(move |a| (*a, *elevation)));
        let directions = angles.map(|(azimuth, elevation)| {
            let direction = light_direction(to_lens, azimuth, elevation);
            let offsets = lamp_offsets(light, direction);
            let nearest = |planes: &[Plane]| nearest_out_of(corner, &offsets, direction, planes);
            (direction, [nearest(&[right, left, behind]), nearest(&[right, left, behind, top])])
        });
        let directions: Vec<(DVec3, [Option<f64>; 2])> = directions.collect();
        for further in FURTHER_M {
            for (direction, nearest) in &directions {
                for (nearest, needs_arm) in nearest.iter().zip([false, true]) {
                    let at = |nearest: f64| corner.eyes_m + *direction * (nearest + further);
                    found.extend(nearest.map(|m| LampPlace { position_m: at(m), needs_arm }));
                }
            }
        }
    }
    found
}
