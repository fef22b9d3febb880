//! The layout with a seat and a camera only, before lights and microphone come; and how dials are rounded.

use super::optics::Shot;
use crate::edit::{rounded, rounded_bearing, rounded_floor};
use crate::geometry::{DVec3, bearing_of, bearing_vector};
use crate::plan::{Layout, Seat, Things};

/// The layout with a seat and a camera only.
pub(super) fn bare_layout(shot: &Shot, gaze_deg: f64) -> Layout {
    let mut camera = shot.camera.clone();
    if gaze_deg != 0.0 {
        let across = bearing_vector(camera.bearing_deg + 90.0) * shot.aside_m * gaze_deg.signum();
        camera.position_m = rounded(DVec3::from(camera.position_m) + across);
        camera.support.base_m = Some(rounded_floor(DVec3::from(camera.position_m).truncate()));
    }
    let eyes: DVec3 = shot.place.seat_m.extend(0.0);
    let to_lens = bearing_of((DVec3::from(camera.position_m) - eyes).with_z(0.0));
    let mut furniture = Things::new();
    if let Some((id, at)) = &shot.place.desk {
        furniture.insert(id.clone(), at.clone());
    }
    Layout {
        seat: Seat {
            position_m: rounded_floor(shot.place.seat_m),
            bearing_deg: rounded_bearing(to_lens - gaze_deg),
            // Never minus zero: it would be written so.
            gaze_offset_deg: gaze_deg + 0.0,
            locked: false,
        },
        camera,
        lights: Things::new(),
        microphone: None,
        screen: None,
        backdrop: None,
        angles: Things::new(),
        furniture,
        treatment: Things::new(),
    }
}

/// Rounds a layout's dial settings as they are set by hand.
pub(super) fn dial(value: f64) -> f64 {
    (value * 100.0).round().clamp(1.0, 100.0) / 100.0
}
