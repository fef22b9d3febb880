//! The shot: framing, lens, focus and how the camera is set.

pub mod cloth;
pub mod framing;
pub mod lens;
pub mod perspective;
pub mod recording;
pub mod seeing;

use crate::corner::Corner;
use crate::geometry::{angle_between_deg, wrap_180};
use crate::plan::{Aperture, Brief, FrameRate, GearCamera, GearLens, Purpose};
use crate::reading::{From, Reading};

use framing::{Wanted, wanted};

/// Source of the framing ratios.
const BODY: &str =
    "Drillis and Contini 1966 in Winter, Biomechanics and Motor Control of Human Movement (from memory)";
const OPTICS: &str = "Ray, Applied Photographic Optics (from memory); thin lens";

/// What is wanted of this corner's frame.
pub fn wanted_of(corner: &Corner<'_>) -> Wanted {
    wanted(corner.brief, &corner.landmarks, corner.image_mm.0 / corner.image_mm.1)
}

/// The f-number of the aperture school on this camera and lens, on the dial.
pub fn f_number(brief: &Brief, body: &GearCamera, lens: &GearLens, focal_length_mm: f64) -> f64 {
    let widest = lens.widest_f_number(focal_length_mm);
    let wanted = match brief.schools.aperture {
        Aperture::WideOpen => widest,
        // f/4 holds an ordinary lean on full frame; smaller sensors reach the same depth at 4 / crop factor.
        Aperture::AboutF4 => 4.0 * body.active_area_mm().0 / 36.0,
    };
    crate::exposure::f_number_on_dial(wanted, widest, lens.f_number_limit)
}

/// The frame rate of the frame-rate school at this mains frequency.
pub fn frame_rate_hz(brief: &Brief, mains_hz: f64) -> f64 {
    match brief.schools.frame_rate {
        FrameRate::ByMains => mains_hz / 2.0,
        FrameRate::Fps24 => 24.0,
        FrameRate::Fps25 => 25.0,
        FrameRate::Fps30 => 30.0,
        FrameRate::Fps60 => 60.0,
    }
}

/// What the shot trade reads off a corner.
pub fn readings(corner: &Corner<'_>) -> Vec<Reading> {
    let mut all = vec![frame_height(corner), eye_line(corner)];
    all.extend(headroom(corner));
    all.extend(shoulders(corner));
    all.push(view_angle(corner));
    all.push(distance(corner));
    all.push(front_tolerance(corner));
    all.push(blur(corner));
    all.push(full_frame_iso(corner));
    all.extend(gaze(corner));
    all
}

fn frame_height(corner: &Corner<'_>) -> Reading {
    let want = wanted_of(corner);
    let found = corner.view.frame_height_m(corner.subject_distance_m());
    Reading::new("shot.frame.height_error_percent", 100.0 * (found / want.frame_height_m - 1.0))
        .by("100 (framed / wanted - 1); framed = H u / v", BODY)
        .with("framed at the eyes", found, "m", From::Computed)
        .with("wanted", want.frame_height_m, "m", From::Computed)
        .with("focal length", corner.layout.camera.focal_length_mm, "mm", From::Typed)
        .with("lens to eyes", corner.subject_distance_m(), "m", From::Computed)
        .within(5.0)
        .note("Lenses that focus internally may frame up to 5 % more or less than a thin lens.")
}

fn headroom(corner: &Corner<'_>) -> Option<Reading> {
    let crown = corner.eyes_m.with_z(corner.landmarks.crown_m);
    let (_, from_top) = corner.view.project(crown)?;
    let reading = Reading::new("shot.frame.headroom_fraction", from_top)
        .by("place of the crown in the picture, from the top", BODY)
        .with("crown", corner.landmarks.crown_m, "m", From::Computed)
        .with("tilt", corner.layout.camera.tilt_deg, "\u{b0}", From::Typed)
        .within(0.02);
    Some(reading)
}

fn eye_line(corner: &Corner<'_>) -> Reading {
    let want = wanted_of(corner).eye_line;
    let found = corner.view.project(corner.eyes_m).map_or(f64::NAN, |(_, y)| y);
    Reading::new("shot.frame.eye_line_error", found - want)
        .by("place of the eyes from the top - wanted", "thirds: common practice, no source")
        .with("found", found, "", From::Computed)
        .with("wanted", want, "", From::Computed)
        .within(0.02)
}

fn shoulders(corner: &Corner<'_>) -> Option<Reading> {
    (corner.brief.purpose == Purpose::VerticalShort).then(|| {
        let breadth = corner.brief.person.shoulder_breadth_m();
        let width = corner.view.frame_width_m(corner.subject_distance_m());
        Reading::new("shot.frame.shoulder_fraction", breadth / width)
            .by("0.259 x stature / framed width", BODY)
            .with("shoulders", breadth, "m", From::Computed)
            .with("framed width", width, "m", From::Computed)
    })
}

fn view_angle(corner: &Corner<'_>) -> Reading {
    let offset = corner.view.position_m - corner.eyes_m;
    let flat = offset.x.hypot(offset.y);
    Reading::new("shot.camera.view_angle_deg", offset.z.atan2(flat).to_degrees())
        .by(
            "atan((lens height - eye height) / horizontal distance)",
            "geometry; bands common practice, no source",
        )
        .with("lens height", corner.view.position_m.z, "m", From::Typed)
        .with("eye height", corner.eyes_m.z, "m", From::Computed)
        .with("horizontal distance", flat, "m", From::Computed)
}

fn distance(corner: &Corner<'_>) -> Reading {
    Reading::new("shot.camera.distance_m", corner.subject_distance_m())
        .by(
            "depth of the eyes along the optical axis",
            "perspective: Ward et al., JAMA Facial Plast Surg 2018 (from memory); school ranges common practice",
        )
        .within(0.05)
}

fn front_tolerance(corner: &Corner<'_>) -> Reading {
    let camera = &corner.layout.camera;
    let circle = lens::circle_of_confusion_mm(corner.image_mm);
    let field =
        lens::depth_of_field(camera.focal_length_mm, camera.f_number, camera.focus_distance_m, circle);
    let eyes = corner.subject_distance_m();
    let (lean, from) = corner.brief.person.lean();
    // Sharp now, and after leaning in: the nearer limit bounds the lean, the farther one the eyes at rest.
    let front = (eyes - field.near_m).min(field.far_m.map_or(f64::INFINITY, |far| far - eyes + lean));
    Reading::new("shot.focus.front_tolerance_m", front - lean)
        .by("u - near - lean; near = u (h - f) / (h + u - 2f), h = f^2 / (N c) + f", OPTICS)
        .with("focus distance", camera.focus_distance_m, "m", From::Typed)
        .with("focal length", camera.focal_length_mm, "mm", From::Typed)
        .with("f-number", camera.f_number, "", From::Typed)
        .with("circle of confusion, diagonal / 1500", circle, "mm", From::Assumed)
        .with("nearest sharp", field.near_m, "m", From::Computed)
        .with("lean", lean, "m", from)
        .within(0.01)
}

fn blur(corner: &Corner<'_>) -> Reading {
    let camera = &corner.layout.camera;
    let behind = corner.background_behind_m();
    let background = corner.subject_distance_m() + behind * angle_cosine(corner);
    let disc =
        lens::blur_disc_mm(camera.focal_length_mm, camera.f_number, camera.focus_distance_m, background);
    Reading::new("shot.background.blur_percent", 100.0 * disc / corner.image_mm.0.max(corner.image_mm.1))
        .by("100 (f^2 / N) |x - u| / (x (u - f)) / image width", OPTICS)
        .with("wall behind, from the lens", background, "m", From::Computed)
        .with("focal length", camera.focal_length_mm, "mm", From::Typed)
        .with("f-number", camera.f_number, "", From::Typed)
}

/// Cosine between the optical axis and the horizontal line through the eyes.
fn angle_cosine(corner: &Corner<'_>) -> f64 {
    angle_between_deg(corner.view.forward, -corner.to_lens()).to_radians().cos()
}

fn full_frame_iso(corner: &Corner<'_>) -> Reading {
    let (width, height) = corner.image_mm;
    Reading::new(
        "shot.exposure.full_frame_iso",
        crate::exposure::full_frame_iso(corner.layout.camera.iso, width, height),
    )
    .by("ISO x 729 / (W H): equal noise by total light", "photon noise over the area of 36 x 20.25 mm")
    .with("ISO", corner.layout.camera.iso, "", From::Typed)
    .with("image width", width, "mm", corner.body.common.told())
    .with("image height", height, "mm", corner.body.common.told())
    .note("Half a stop either way between sensor generations.")
}

fn gaze(corner: &Corner<'_>) -> Option<Reading> {
    (corner.brief.purpose == Purpose::AuditionTape).then(|| {
        let offset = corner.layout.seat.gaze_offset_deg;
        let chest = wrap_180(crate::geometry::bearing_of(corner.to_lens()) - corner.layout.seat.bearing_deg);
        Reading::new("shot.seat.gaze_deg", offset.abs())
            .by("angle between lens and the reader's eyes", "5 to 12 degrees: common practice, no source")
            .with("gaze, positive to camera right", offset, "\u{b0}", From::Typed)
            .with("chest off the lens", chest, "\u{b0}", From::Typed)
    })
}
