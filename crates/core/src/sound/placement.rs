//! Where a microphone could be, best first, from geometry alone. Whether a place is legal is `assess`'s to say.

use crate::corner::{Corner, light_direction};
use crate::geometry::{DVec3, bearing_vector};
use crate::plan::{Brief, Gear, GearMicrophone, MicrophoneSchool, Mounting};

/// A microphone stays this far outside the picture, m (legal rule 4), unless its school shows it.
pub const MARGIN_M: f64 = crate::corner::MICROPHONE_MARGIN_M;
const SLACK_M: f64 = 0.004;
/// Half the thickness of a microphone, m.
const THICK_M: f64 = 0.02;

/// Elevations of the line from mouth (or the middle of mouth and instrument) to microphone, preferred first: 45 to 75 degrees keep the voice on axis
/// (common practice, no source).
const RISES_DEG: [f64; 6] = [60.0, 70.0, 50.0, 78.0, 40.0, 30.0];
/// A stand on the desk reaches up no further than the desk lets it: further off and flatter, tried for those alone.
const DESK_RISES_DEG: [f64; 3] = [24.0, 18.0, 12.0];
const TURNS_DEG: [f64; 7] = [0.0, 15.0, -15.0, 30.0, -30.0, 50.0, -50.0];
const FURTHER_M: [f64; 4] = [0.0, 0.06, 0.15, 0.30];
/// Where microphones in the picture and on the desk work best, m (common practice, no source).
const IN_SHOT_M: [f64; 3] = [0.22, 0.28, 0.36];

/// Whether this microphone may be in the picture: its school shows it, or it is worn or part of the camera.
pub fn may_show(corner: &Corner<'_>, gear: &GearMicrophone) -> bool {
    corner.brief.schools.microphone == MicrophoneSchool::InShot || crate::corner::is_worn(gear.mounting)
}

/// Places for the capsule, best first; `hand` (+1 camera right, -1 left) is the side tried first.
pub fn places(corner: &Corner<'_>, gear: &GearMicrophone, hand: f64) -> Vec<DVec3> {
    let mouth = corner.mouth_m;
    let facing = bearing_vector(corner.layout.seat.bearing_deg);
    match gear.mounting {
        // On the sternum, 15 to 20 cm below the chin.
        Mounting::Lavalier => vec![mouth + facing * 0.04 - DVec3::Z * 0.23],
        Mounting::Headset => vec![mouth + facing * 0.02 + corner.view.right * 0.03],
        Mounting::BuiltIn => vec![corner.view.position_m],
        Mounting::OnCamera => {
            vec![corner.view.position_m + corner.view.up * 0.09 - corner.view.forward * 0.03]
        }
        Mounting::Boom | Mounting::Desk => free_places(corner, gear.mounting, hand),
    }
}

/// An arm for a microphone that is clamped to furniture is at hand.
fn has_desk_arm(brief: &Brief) -> bool {
    let at_hand = brief.gear.values().filter(|gear| gear.at_hand()).filter_map(Gear::support);
    at_hand.map(|support| &support.common).any(|gear| gear.offers("furniture") && gear.offers("microphone"))
}

fn free_places(corner: &Corner<'_>, mounting: Mounting, hand: f64) -> Vec<DVec3> {
    let to_lens = corner.to_lens();
    let mouth = corner.sounds_from_m();
    // From above on an arm; from below on the desk, and on an arm that is clamped there.
    let signs: &[f64] = match mounting {
        Mounting::Desk => &[-1.0],
        _ if has_desk_arm(corner.brief) => &[1.0, -1.0],
        _ => &[1.0],
    };
    let flatter: &[f64] = if mounting == Mounting::Desk { &DESK_RISES_DEG } else { &[] };
    let rises = [&RISES_DEG, flatter].concat();
    let mut found = Vec::new();
    if corner.brief.schools.microphone == MicrophoneSchool::InShot {
        for distance in IN_SHOT_M {
            for turn in [25.0, -25.0, 40.0, -40.0, 0.0] {
                found.extend(
                    signs
                        .iter()
                        .map(|sign| mouth + light_direction(to_lens, hand * turn, sign * 25.0) * distance),
                );
            }
        }
    }
    let planes = corner.view.planes();
    for further in FURTHER_M {
        for (sign, rise) in signs.iter().flat_map(|sign| rises.iter().map(move |rise| (sign, rise))) {
            for turn in TURNS_DEG {
                let direction = light_direction(to_lens, hand * turn, sign * rise);
                let offsets = [DVec3::ZERO];
                let nearest = crate::geometry::nearest_outside_m(
                    &planes,
                    mouth,
                    direction,
                    &offsets,
                    MARGIN_M + THICK_M * 1.5 + SLACK_M,
                );
                if let Some(distance) = nearest.filter(|d| d + further < 2.0) {
                    found.push(mouth + direction * (distance + further).max(0.12));
                }
            }
        }
    }
    found.sort_by(|a, b| (*a - mouth).length().total_cmp(&(*b - mouth).length()));
    found
}

/// Nearest place above the picture to a mouth in it, in the vertical plane of the lens: its distance from the mouth and its
/// height over the mouth, m. `None` of a mouth that is not in the picture.
pub fn above_frame(
    mouth_distance_m: f64,
    mouth_over_lens_m: f64,
    pitch_up_deg: f64,
    half_field_deg: f64,
    margin_m: f64,
) -> Option<(f64, f64)> {
    let (sine, cosine) = pitch_up_deg.to_radians().sin_cos();
    let ahead = mouth_distance_m * cosine + mouth_over_lens_m * sine;
    let up = mouth_over_lens_m * cosine - mouth_distance_m * sine;
    let (half_sine, half_cosine) = half_field_deg.to_radians().sin_cos();
    let below_top = ahead * half_sine - up * half_cosine;
    let above_bottom = ahead * half_sine + up * half_cosine;
    let distance = below_top + margin_m;
    let rise = (pitch_up_deg + half_field_deg).to_radians().cos();
    (ahead > 0.0 && below_top > 0.0 && above_bottom > 0.0).then_some((distance, distance * rise))
}
