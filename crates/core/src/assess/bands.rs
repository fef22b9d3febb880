//! The one table of bands: what is good, fair and poor for each reading. Purpose and school choose the row;
//! nothing else may. Fogon's own rules, after common practice, unless the reading names a source.

use crate::plan::{
    Brief, CameraHeight, LensSchool, LightSchool, MicrophoneSchool, Placement, Purpose, SourceSchool,
};
use crate::reading::Band;

const fn band(a: f64, b: f64, c: f64, d: f64) -> Option<Band> {
    Some([Some(a), Some(b), Some(c), Some(d)])
}

const fn at_least(a: f64, b: f64) -> Option<Band> {
    Some([Some(a), Some(b), None, None])
}

const fn at_most(c: f64, d: f64) -> Option<Band> {
    Some([None, None, Some(c), Some(d)])
}

/// The band of a reading for this brief, and the school that chose it, if one did.
pub fn band_of(id: &str, brief: &Brief, face_is_tracked: bool) -> (Option<Band>, Option<&'static str>) {
    let schools = &brief.schools;
    match id {
        "shot.frame.height_error_percent" => (band(-15.0, -5.0, 5.0, 15.0), None),
        "shot.frame.headroom_fraction" => match schools.placement {
            Placement::Thirds => (band(-0.02, 0.04, 0.16, 0.25), Some("placement")),
            Placement::Centred => (None, Some("placement")),
        },
        "shot.frame.eye_line_error" => (band(-0.10, -0.04, 0.04, 0.10), Some("placement")),
        "shot.frame.shoulder_fraction"
            if brief.purpose == Purpose::VerticalShort || brief.recording.vertical_cut =>
        {
            (at_most(0.9, 1.0), None)
        }
        "shot.frame.look_room_fraction" => match schools.placement {
            Placement::Thirds => (band(0.50, 0.58, 0.72, 0.80), Some("placement")),
            Placement::Centred => (None, Some("placement")),
        },
        "shot.camera.view_angle_deg" => match schools.camera_height {
            CameraHeight::Level => (band(-10.0, -3.0, 3.0, 10.0), Some("camera-height")),
            CameraHeight::SlightlyBelow => (band(-15.0, -10.0, -3.0, 0.0), Some("camera-height")),
        },
        "shot.camera.distance_m" => match schools.lens {
            LensSchool::FarAndLong => (band(0.9, 1.3, 2.5, 4.0), Some("lens")),
            LensSchool::NearAndWide => (band(0.40, 0.60, 1.00, 1.50), Some("lens")),
        },
        "shot.focus.front_tolerance_m" => (if face_is_tracked { None } else { at_least(-0.02, 0.0) }, None),
        "shot.background.blur_percent" => match schools.lens {
            LensSchool::FarAndLong => (band(0.4, 1.0, 4.0, 10.0), Some("lens")),
            LensSchool::NearAndWide => (None, Some("lens")),
        },
        "shot.exposure.full_frame_iso" => (at_most(6400.0, 6400.0), None),
        "shot.seat.gaze_deg" if brief.purpose == Purpose::AuditionTape => (band(4.0, 5.0, 12.0, 20.0), None),
        "room.background_behind_m" => (at_least(0.5, 1.0), None),
        "room.mains.load_fraction" => (at_most(0.8, 1.0), None),
        "light.key.azimuth_deg" => match schools.lights {
            LightSchool::Ring => (at_most(8.0, 15.0), Some("lights")),
            _ if brief.windows_shine() => (band(20.0, 30.0, 90.0, 110.0), Some("window")),
            _ => (band(20.0, 30.0, 45.0, 60.0), None),
        },
        "light.key.elevation_deg" => match schools.lights {
            LightSchool::Ring => (band(-10.0, -5.0, 10.0, 20.0), Some("lights")),
            _ if brief.windows_shine() => (band(-12.0, -3.0, 45.0, 50.0), Some("window")),
            _ => (band(0.0, 15.0, 45.0, 50.0), None),
        },
        "light.key.angular_size_deg" => match schools.source {
            SourceSchool::BigSoft => (at_least(5.0, 20.0), Some("source")),
            SourceSchool::SmallNear => (None, Some("source")),
        },
        "light.face.exposure_stops" => (band(-1.0, -0.3, 0.3, 1.0), None),
        "light.face.ratio" => match schools.lights {
            LightSchool::Ring | LightSchool::Even => (at_most(1.5, 2.0), Some("lights")),
            _ => (band(1.4, 2.0, 4.0, 8.0), None),
        },
        "sound.microphone.distance_m" => match schools.microphone {
            MicrophoneSchool::Boom => (band(0.2, 0.35, 0.6, 1.0), Some("microphone")),
            MicrophoneSchool::Desk | MicrophoneSchool::Lavalier => {
                (band(0.05, 0.15, 0.30, 0.60), Some("microphone"))
            }
            MicrophoneSchool::InShot => (band(0.0, 0.0, 0.6, 1.5), Some("microphone")),
        },
        "sound.microphone.gain_over_camera_db" => (at_least(0.0, 6.0), None),
        "sound.room.rt_mid_s" => (band(0.15, 0.20, 0.40, 0.60), None),
        _ if id.starts_with("light.") && id.ends_with(".flare_margin_deg") => (at_least(-5.0, 0.0), None),
        _ => (None, None),
    }
}
