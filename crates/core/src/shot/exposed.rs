//! What the camera's settings ask of the light, and what they cost in noise.

use crate::corner::Corner;
use crate::exposure::{
    CALIBRATION, full_frame_iso, illuminance_needed_lx, residual_ripple, shutter_s, stops_behind_full_frame,
};
use crate::reading::{Origin, Quantity, Reading};

pub(super) fn readings(corner: &Corner<'_>) -> Vec<Reading> {
    let mut all = vec![needed(corner), noise(corner), behind(corner), flicker(corner)];
    all.extend(slow_motion(corner));
    all
}

fn needed(corner: &Corner<'_>) -> Reading {
    let camera = &corner.layout.camera;
    let bare = illuminance_needed_lx(camera.f_number, camera.shutter_s, camera.iso, CALIBRATION);
    let glass = corner.glass_stops();
    Reading::new(Quantity::ShotExposureNeededLx, bare * (camera.nd_stops + glass).exp2())
        .by("C N^2 2^stops / (t S)", "ISO 2720:1974, C = 250 for a flat receptor (from memory)")
        .with("f-number", camera.f_number, "", Origin::Typed)
        .with("shutter", camera.shutter_s, "s", Origin::Typed)
        .with("ISO", camera.iso, "", Origin::Typed)
        .with("neutral density", camera.nd_stops, "stops", Origin::Typed)
        .with("script glass", glass, "stops", Origin::Computed)
        .note("On a white card at the eyes that faces the lens.")
}

fn noise(corner: &Corner<'_>) -> Reading {
    let (width, height) = corner.image_mm;
    Reading::new(Quantity::ShotExposureFullFrameIso, full_frame_iso(corner.layout.camera.iso, width, height))
        .by("ISO x 729 / (W H): equal noise by total light", "photon noise over the area of 36 x 20.25 mm")
        .with("ISO", corner.layout.camera.iso, "", Origin::Typed)
        .with("image width", width, "mm", corner.body.common.figures_from())
        .with("image height", height, "mm", corner.body.common.figures_from())
        .note("Half a stop either way between sensor generations.")
}

fn behind(corner: &Corner<'_>) -> Reading {
    let (width, height) = corner.image_mm;
    Reading::new(Quantity::ShotExposureNoiseStops, stops_behind_full_frame(width, height))
        .by("log2(729 / (W H))", "photon noise over the area of 36 x 20.25 mm")
        .with("image width", width, "mm", corner.body.common.figures_from())
        .with("image height", height, "mm", corner.body.common.figures_from())
        .within(0.5)
}

/// What lamps that pulse with the mains do at this shutter.
fn flicker(corner: &Corner<'_>) -> Reading {
    let camera = &corner.layout.camera;
    let (mains, from) = corner.brief.mains_frequency_hz();
    Reading::new(Quantity::ShotExposureFlickerPercent, 100.0 * residual_ripple(mains, camera.shutter_s))
        .by("100 abs(sin x / x), x = pi 2 f t", "sinc of whole pulses, two a cycle of the mains")
        .with("mains", mains, "Hz", from)
        .with("shutter", camera.shutter_s, "s", Origin::Typed)
        .with("shutter angle", 360.0 * camera.shutter_s * camera.frame_rate_hz, "\u{b0}", Origin::Computed)
        .with("nearest to 180 degrees that is free", shutter_s(mains, camera.frame_rate_hz), "s", Origin::Computed)
        .note("Of a lamp that goes fully dark with the mains; daylight, batteries and good drivers do not. Lamps that are dimmed by pulses have a beat of their own.")
}

/// What inserts in slow motion cost in light.
fn slow_motion(corner: &Corner<'_>) -> Vec<Reading> {
    let camera = &corner.layout.camera;
    let Some(recorded) = corner.brief.recording.slow_motion_hz else { return Vec::new() };
    let delivered = camera.frame_rate_hz;
    // Half the frame, as in the main shot; lamps that pulse beat with it.
    let shutter = crate::exposure::shutter_s(corner.brief.mains_frequency_hz().0, recorded);
    vec![
        Reading::new(Quantity::ShotInsertSpeedPercent, 100.0 * delivered / recorded)
            .by("100 x delivered / recorded frame rate", "arithmetic")
            .with("delivered", delivered, "Hz", Origin::Typed)
            .with("recorded", recorded, "Hz", Origin::Typed),
        Reading::new(Quantity::ShotInsertLightStops, (camera.shutter_s / shutter).log2())
            .by("log2(shutter of the main shot / shutter of the insert)", "exposure is proportional to time")
            .with("main shot", camera.shutter_s, "s", Origin::Typed)
            .with("insert", shutter, "s", Origin::Computed)
            .note(
                "Above twice the mains frequency lamps without a flicker-free driver pulse in the picture.",
            ),
    ]
}
