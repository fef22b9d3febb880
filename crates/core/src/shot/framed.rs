//! What the picture frames of the person: size, headroom, eye line, shoulders, room to look into, verticals.

use super::framing::{self, wanted_of};
use crate::corner::Corner;
use crate::geometry::{bearing_of, wrap_180};
use crate::plan::{Orientation, Purpose};
use crate::reading::{Origin, Quantity, Reading};

/// Source of the framing ratios.
const BODY: &str =
    "Drillis and Contini 1966 in Winter, Biomechanics and Motor Control of Human Movement (from memory)";

pub(super) fn readings(corner: &Corner<'_>) -> Vec<Reading> {
    let mut all = vec![height(corner), eye_line(corner)];
    all.extend(headroom(corner));
    all.extend(shoulders(corner));
    all.extend(look_room(corner));
    all.push(edge_lean(corner));
    all.extend(stretch(corner));
    all.extend(gaze(corner));
    all
}

/// Height of the frame as the person fills it: from the upper to the lower mark, over the part they span, told as the
/// height of a level frame.
pub fn framed_height_m(corner: &Corner<'_>) -> f64 {
    let want = wanted_of(corner);
    let Some(mark) = want.lower else {
        return corner.view.frame_height_m(corner.subject_distance_m());
    };
    let from_top = |mark: framing::FramingMark| {
        corner.view.project(corner.eyes_m.with_z(corner.eyes_m.z + mark.above_eyes_m)).map(|(_, y)| y)
    };
    match (from_top(want.upper), from_top(mark)) {
        (Some(upper), Some(lower)) if lower > upper => {
            want.frame_height_m * (mark.from_top - want.upper.from_top) / (lower - upper)
        }
        _ => f64::NAN,
    }
}

fn height(corner: &Corner<'_>) -> Reading {
    let want = wanted_of(corner);
    let found = framed_height_m(corner);
    Reading::new(Quantity::ShotFrameHeightErrorPercent, 100.0 * (found / want.frame_height_m - 1.0))
        .by("100 (framed / wanted - 1); framed by where upper and lower mark are projected", BODY)
        .with("framed at the eyes", found, "m", Origin::Computed)
        .with("wanted", want.frame_height_m, "m", Origin::Computed)
        .with("focal length", corner.layout.camera.focal_length_mm, "mm", Origin::Typed)
        .with("lens to eyes", corner.subject_distance_m(), "m", Origin::Computed)
        .within(5.0)
        .note("Lenses that focus internally may frame up to 5 % more or less than a thin lens.")
}

fn headroom(corner: &Corner<'_>) -> Option<Reading> {
    let crown = corner.eyes_m.with_z(corner.landmarks.crown_m);
    let (_, from_top) = corner.view.project(crown)?;
    let reading = Reading::new(Quantity::ShotFrameHeadroomFraction, from_top)
        .by("place of the crown in the picture, from the top", BODY)
        .with("crown", corner.landmarks.crown_m, "m", Origin::Computed)
        .with("tilt", corner.layout.camera.tilt_deg, "\u{b0}", Origin::Typed)
        .within(0.02);
    Some(reading)
}

fn eye_line(corner: &Corner<'_>) -> Reading {
    let want = wanted_of(corner).eye_line;
    let found = corner.view.project(corner.eyes_m).map_or(f64::NAN, |(_, y)| y);
    Reading::new(Quantity::ShotFrameEyeLineError, found - want)
        .by("place of the eyes from the top - wanted", "thirds: common practice, no source")
        .with("found", found, "", Origin::Computed)
        .with("wanted", want, "", Origin::Computed)
        .within(0.02)
}

/// Shoulders against the width of a vertical picture, or of the vertical cut of a landscape one.
fn shoulders(corner: &Corner<'_>) -> Option<Reading> {
    let landscape = corner.layout.camera.orientation == Orientation::Landscape;
    let cut = corner.brief.recording.vertical_cut && landscape;
    (corner.brief.purpose == Purpose::VerticalShort || cut).then(|| {
        let breadth = corner.brief.person.shoulder_breadth_m();
        let part = if cut { framing::VERTICAL_PART } else { 1.0 };
        let width = corner.view.frame_width_m(corner.subject_distance_m()) * part;
        Reading::new(Quantity::ShotFrameShoulderFraction, breadth / width)
            .by("0.259 x stature / width of the vertical picture", BODY)
            .with("shoulders", breadth, "m", Origin::Computed)
            .with("width", width, "m", Origin::Computed)
            .with("part kept by the vertical cut", part, "", Origin::Computed)
    })
}

/// Part of the width in front of the gaze, where the eyes leave the lens.
fn look_room(corner: &Corner<'_>) -> Option<Reading> {
    let gaze = corner.layout.seat.gaze_offset_deg;
    let (x, _) = corner.view.project(corner.eyes_m)?;
    (gaze.abs() >= framing::LOOKS_ASIDE_DEG).then(|| {
        Reading::new(Quantity::ShotFrameLookRoomFraction, if gaze > 0.0 { 1.0 - x } else { x })
            .by("part of the width on the side the eyes look to", "0.60 to 0.67: common practice, no source")
            .with("face from the left edge", x, "", Origin::Computed)
            .with("gaze, positive to camera right", gaze, "\u{b0}", Origin::Typed)
            .within(0.02)
    })
}

fn edge_lean(corner: &Corner<'_>) -> Reading {
    let tilt = corner.layout.camera.tilt_deg;
    let lean = (corner.view.width_ratio / 2.0 * tilt.to_radians().tan().abs()).atan().to_degrees();
    Reading::new(Quantity::ShotFrameEdgeLeanDeg, lean)
        .by(
            "atan(tan(field / 2) |tan(tilt)|)",
            "perspective geometry; 3 degrees show: common practice, no source",
        )
        .with("half the width over the distance", corner.view.width_ratio / 2.0, "m", Origin::Computed)
        .with("tilt", tilt, "\u{b0}", Origin::Typed)
        .note("How far shelves and door frames lean at the picture's edge.")
}

/// A head off the axis is wider than it is tall.
fn stretch(corner: &Corner<'_>) -> Option<Reading> {
    let (x, _) = corner.view.project(corner.eyes_m)?;
    let off = ((x - 0.5) * corner.view.width_ratio).atan();
    Some(
        Reading::new(Quantity::ShotFrameStretchPercent, 100.0 * (1.0 / off.cos() - 1.0))
            .by(
                "100 (1 / cos(angle off the axis) - 1)",
                "perspective geometry; from 5 % on it shows: Fogon's own rule",
            )
            .with("face off the axis", off.to_degrees(), "\u{b0}", Origin::Computed),
    )
}

fn gaze(corner: &Corner<'_>) -> Option<Reading> {
    (corner.brief.purpose == Purpose::AuditionTape).then(|| {
        let offset = corner.layout.seat.gaze_offset_deg;
        let chest = wrap_180(bearing_of(corner.to_lens()) - corner.layout.seat.bearing_deg);
        Reading::new(Quantity::ShotSeatGazeDeg, offset.abs())
            .by("angle between lens and the reader's eyes", "5 to 12 degrees: common practice, no source")
            .with("gaze, positive to camera right", offset, "\u{b0}", Origin::Typed)
            .with("chest off the lens", chest, "\u{b0}", Origin::Typed)
            .with(
                "reader's eyes beside the lens",
                corner.subject_distance_m() * offset.abs().to_radians().tan(),
                "m",
                Origin::Computed,
            )
    })
}
