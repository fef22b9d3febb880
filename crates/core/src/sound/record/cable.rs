//! The microphone's cable: how long it has to be, and what such a cable may do.

use super::path::RecordPath;
use crate::corner::Corner;
use crate::geometry::DVec2;
use crate::plan::{GearMicrophone, Mounting};

/// A loop of cable at each end, m.
const LOOP_M: f64 = 0.3;
/// So far balanced and thin unbalanced leads carry a microphone without care, m (common practice, no source).
const BALANCED_M: f64 = 30.0;
const PLUG_M: f64 = 3.0;

/// Down the stand, along the floor and up to the input, with a loop at each end, m; an interface or recorder lies on the floor by
/// the camera (Fogon's own rule).
pub(super) fn cable_m(corner: &Corner<'_>, gear: &GearMicrophone, path: RecordPath) -> Option<f64> {
    let has_none = gear.wireless || matches!(gear.mounting, Mounting::BuiltIn | Mounting::OnCamera);
    if has_none || path == RecordPath::Nowhere {
        return None;
    }
    let (_, capsule) = corner.microphone?;
    let used = corner.layout.microphone.as_ref()?;
    let foot = used.support.base_m.map_or_else(|| capsule.truncate(), DVec2::from);
    let camera = corner.view.position_m;
    let arm = (capsule.truncate() - foot).length();
    let up = if path == RecordPath::Camera { camera.z } else { 0.0 };
    Some(arm + capsule.z + (foot - camera.truncate()).length() + up + 2.0 * LOOP_M)
}

pub(super) fn cable_words(corner: &Corner<'_>, gear: &GearMicrophone, cable_m: f64) -> String {
    let balanced = gear.common.needs.iter().any(|need| need == "xlr-input");
    let long = corner.brief.units.length(cable_m);
    let most = if balanced { BALANCED_M } else { PLUG_M };
    let word = if cable_m <= most {
        format!("{} carry that without care", if balanced { "balanced leads" } else { "thin leads" })
    } else {
        format!(
            "more than the {} that {} carry: use a balanced microphone, or a recorder beside you",
            corner.brief.units.length(most),
            if balanced { "balanced leads" } else { "thin leads" }
        )
    };
    format!(
        "Cable: {long} down the stand, along the floor and up again, a loop at each end; {word}. Cross mains leads at right angles, tape it down, none across the door."
    )
}
