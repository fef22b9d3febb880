//! The sound: how near the microphone is, what that buys, and how long the room rings.

pub mod placement;
pub mod reverberation;

use crate::corner::Corner;
use crate::reading::{From, Reading};

/// Level at another distance by the inverse square law for direct sound, dB.
pub fn level_at_distance_db(level_db: f64, at_distance_m: f64, wanted_distance_m: f64) -> f64 {
    level_db - 20.0 * (wanted_distance_m / at_distance_m).log10()
}

/// What the sound trade reads off a corner.
pub fn readings(corner: &Corner<'_>) -> Vec<Reading> {
    let mut all = Vec::new();
    if let Some((gear, capsule)) = corner.microphone {
        let distance = (capsule - corner.mouth_m).length().max(0.02);
        let camera = (corner.view.position_m - corner.mouth_m).length();
        all.push(
            Reading::new("sound.microphone.distance_m", distance)
                .by("straight line from the mouth to the capsule", "bands common practice, no source")
                .with("microphone height", capsule.z, "m", From::Typed)
                .with("mouth height", corner.mouth_m.z, "m", From::Computed)
                .within(0.03),
        );
        all.push(
            Reading::new("sound.microphone.gain_over_camera_db", level_at_distance_db(0.0, camera, distance))
                .by("20 lg(camera distance / microphone distance)", "inverse square law, direct sound only")
                .with("mouth to camera", camera, "m", From::Computed)
                .with("mouth to microphone", distance, "m", From::Computed)
                .with("self-noise", gear.self_noise_dba, "dBA", gear.common.told())
                .within(1.0),
        );
    }
    all.push(reverberation::reading(corner));
    all
}
