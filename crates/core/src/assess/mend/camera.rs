//! Moves at the camera: aperture, shutter, ISO, white balance, frame, reader.

use super::candidate::{Candidates, none, one, with_iso};
use crate::corner::Corner;
use crate::edit::{millimetre, set_pose};
use crate::exposure::{shutter_s, white_balance_on_dial};
use crate::geometry::bearing_of;
use crate::light::LightReport;
use crate::shot::framing;

pub(super) fn gaze<'a>(corner: &'a Corner<'a>) -> Candidates<'a> {
    let mut layout = corner.layout.clone();
    let side = if layout.seat.gaze_offset_deg < 0.0 { -1.0 } else { 1.0 };
    layout.seat.gaze_offset_deg = 8.0 * side;
    one("Put the reader 8 degrees beside the lens".into(), layout)
}

/// The f-numbers of third-stop dials that the lens has at this focal length.
pub(super) fn apertures(corner: &Corner<'_>) -> impl Iterator<Item = f64> {
    let widest = corner.lens.widest_f_number(corner.layout.camera.focal_length_mm);
    let limit = corner.lens.f_number_limit;
    std::iter::once(widest)
        .chain(
            [1.4, 1.8, 2.0, 2.2, 2.5, 2.8, 3.5, 4.0, 5.6, 8.0, 11.0].into_iter().filter(move |n| *n > widest),
        )
        .filter(move |n| *n <= limit)
}

pub(super) fn stopped_down<'a>(corner: &'a Corner<'a>) -> Candidates<'a> {
    let mut refocused = corner.layout.clone();
    refocused.camera.focus_distance_m = millimetre(corner.subject_distance_m());
    let stops = apertures(corner).filter(|n| *n > corner.layout.camera.f_number).collect::<Vec<_>>();
    let first = one("Focus on the eyes".to_owned(), refocused.clone());
    Box::new(first.chain(stops.into_iter().map(move |n| {
        let mut layout = refocused.clone();
        layout.camera.f_number = n;
        (format!("Stop down to f/{n}"), with_iso(corner, layout))
    })))
}

/// The shutter nearest to half the frame at which lamps on the mains do not flicker.
pub(super) fn whole_pulses<'a>(corner: &'a Corner<'a>) -> Candidates<'a> {
    let mut layout = corner.layout.clone();
    let rate = layout.camera.frame_rate_hz;
    layout.camera.shutter_s = shutter_s(corner.brief.mains_frequency_hz().0, rate);
    one(format!("Set the shutter to 1/{:.0} s", 1.0 / layout.camera.shutter_s), with_iso(corner, layout))
}

/// Wider apertures for a background too sharp, smaller ones for one too soft, the nearest first.
pub(super) fn other_aperture<'a>(corner: &'a Corner<'a>, too_sharp: bool) -> Candidates<'a> {
    let now = corner.layout.camera.f_number;
    let mut stops: Vec<f64> =
        apertures(corner).filter(|n| if too_sharp { *n < now } else { *n > now }).collect();
    if too_sharp {
        stops.reverse();
    }
    Box::new(stops.into_iter().map(move |n| {
        let mut layout = corner.layout.clone();
        layout.camera.f_number = n;
        (format!("Set f/{n}"), with_iso(corner, layout))
    }))
}

/// The zoom that frames from where the camera stands, then the whole pose at this and other focal lengths.
pub(super) fn reframed<'a>(corner: &'a Corner<'a>) -> Candidates<'a> {
    let wanted = crate::shot::wanted_of(corner);
    let to_lens = bearing_of(corner.to_lens());
    let lens = corner.lens;
    let here = corner.subject_distance_m();
    let zoom = framing::focal_on(framing::Line::of(corner.brief, &wanted), &wanted, here, corner.image_mm.1);
    let span = lens.focal_max_mm - lens.focal_min_mm;
    let focals = [zoom, corner.layout.camera.focal_length_mm]
        .into_iter()
        .chain((0..=8).map(move |i| lens.focal_min_mm + span * f64::from(i) / 8.0))
        .map(|focal| (focal * 10.0).round() / 10.0)
        .filter(|focal| *focal >= lens.focal_min_mm && *focal <= lens.focal_max_mm);
    Box::new(focals.map(move |focal| {
        let mut pose = framing::pose(corner.brief, &wanted, focal, corner.image_mm.1, corner.eyes_m, to_lens);
        let gaze = corner.layout.seat.gaze_offset_deg;
        let aside = wanted.aside_m(corner.brief, gaze, corner.image_mm.0 / corner.image_mm.1);
        pose.position_m += crate::geometry::bearing_vector(pose.bearing_deg + 90.0) * aside;
        let mut layout = corner.layout.clone();
        set_pose(&mut layout.camera, &pose, focal);
        let units = corner.brief.units;
        let off = (pose.position_m - corner.eyes_m).length();
        let (distance, height) = (units.length(off), units.length(pose.position_m.z));
        let at = if lens.zooms() { format!(", at {focal:.0} mm") } else { String::new() };
        (format!("Set the lens {distance} from the eyes, {height} high{at}"), with_iso(corner, layout))
    }))
}

pub(super) fn exposed<'a>(corner: &'a Corner<'a>) -> Candidates<'a> {
    let by_iso = with_iso(corner, corner.layout.clone());
    let first = one(format!("Set ISO {}", by_iso.camera.iso), by_iso);
    let wider: Vec<f64> = apertures(corner).filter(|n| *n < corner.layout.camera.f_number).collect();
    let opened = wider.into_iter().rev().map(move |n| {
        let mut layout = corner.layout.clone();
        layout.camera.f_number = n;
        let layout = with_iso(corner, layout);
        (format!("Set f/{n} and ISO {}", layout.camera.iso), layout)
    });
    let dimmed = [0.7, 0.5, 0.35, 0.25, 0.15, 0.1, 0.05].into_iter().map(move |part| {
        let mut layout = corner.layout.clone();
        for light in layout.lights.values_mut() {
            light.dim = (light.dim * part * 100.0).round() / 100.0;
        }
        (format!("Dim all lamps to {:.0} % of now", part * 100.0), with_iso(corner, layout))
    });
    Box::new(first.chain(opened).chain(dimmed))
}

/// The white balance set to the light on the face, on a dial of steps of 50 K.
pub(super) fn balanced<'a>(corner: &'a Corner<'a>) -> Candidates<'a> {
    let Some(mixture) = LightReport::of(corner).mixture().map(|m| m.cct_k) else {
        return none();
    };
    let mut layout = corner.layout.clone();
    layout.camera.white_balance_k = white_balance_on_dial(mixture);
    one(format!("Set the white balance to {:.0} K", layout.camera.white_balance_k), layout)
}
