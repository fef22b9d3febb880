//! The distance chart: what a microphone of this pattern gets of the voice, the room and the noise, nearer and farther.

use serde::Serialize;
use utoipa::ToSchema;

use super::absorption::Absorption;
use super::pickup::{MicrophonePlaced, Scene, pickup};
use crate::corner::Corner;

/// Nearest and farthest distance that is drawn, m, beside the camera's.
const FROM_M: f64 = 0.05;
const TO_M: f64 = 2.5;
/// Points of a curve.
const POINTS: usize = 41;
/// Places people name (common practice, no source).
const NAMED: [(f64, &str); 2] = [(0.20, "hand-span"), (0.65, "arm's length")];

/// Curves over distance.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct DistanceChart {
    /// Distances, m, each with its levels.
    pub points: Vec<DistancePoint>,
    /// Named distances.
    pub marks: Vec<DistanceMark>,
    /// Where direct and reverberant voice are alike, m.
    pub critical_distance_m: f64,
    /// Where the microphone stands, m.
    pub distance_m: f64,
}

/// Levels at a distance, dBA.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct DistancePoint {
    /// From the mouth, m.
    pub distance_m: f64,
    /// Voice, straight.
    pub direct_dba: f64,
    /// Voice by way of the room.
    pub reverberant_dba: f64,
    /// Noise with the microphone's own.
    pub noise_dba: f64,
    /// Speech transmission index.
    pub sti: f64,
}

/// A named distance.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct DistanceMark {
    /// From the mouth, m.
    pub distance_m: f64,
    /// In words.
    pub label: String,
}

/// The chart of the microphone that hears a corner.
pub fn chart(corner: &Corner<'_>, absorption: &Absorption) -> DistanceChart {
    let (scene, at) = super::scene(corner, absorption);
    let camera = (corner.view.position_m - corner.mouth_m).length();
    let to = TO_M.max(camera * 1.1);
    let points = (0..POINTS)
        .map(|i| {
            let distance_m = FROM_M * (to / FROM_M).powf(i as f64 / (POINTS - 1) as f64);
            let got = pickup(&scene, &MicrophonePlaced { distance_m, ..at });
            DistancePoint {
                distance_m,
                direct_dba: got.direct_dba,
                reverberant_dba: got.reverberant_dba,
                noise_dba: got.noise_dba,
                sti: got.sti,
            }
        })
        .collect();
    let mut marks: Vec<DistanceMark> =
        NAMED.iter().map(|(m, label)| DistanceMark { distance_m: *m, label: (*label).into() }).collect();
    marks.push(DistanceMark { distance_m: camera, label: "on camera".into() });
    DistanceChart {
        points,
        marks,
        critical_distance_m: critical_distance_m(&scene, &at),
        distance_m: at.distance_m,
    }
}

/// Distance at which the voice straight and by way of the room are equally loud, A-weighted, in the direction of the
/// microphone, m.
pub fn critical_distance_m(scene: &Scene, at: &MicrophonePlaced) -> f64 {
    let got = pickup(scene, at);
    // Direct sound falls 20 dB for ten times the distance; the room's stays.
    at.distance_m * 10f64.powf((got.direct_dba - got.reverberant_dba) / 20.0)
}
