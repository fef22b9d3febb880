//! The one table of bands: what is good, fair and poor for each reading. Purpose, school, the mounting in use, the window
//! as key and face tracking choose the row; nothing else may. Fogon's own rules, after common practice, unless the
//! reading names a source.

use super::severity::{HEARD_SNR_DB, HEARD_STI};
use crate::corner::Corner;
use crate::plan::{
    Brief, CameraHeight, LensSchool, LightSchool, MicrophoneSchool, Mounting, Placement, Purpose,
    SourceSchool,
};
use crate::reading::{Band, Banded, Quantity};

/// What chooses a row of the table.
#[derive(Debug, Clone, Copy)]
pub struct Row<'a> {
    /// Purpose and schools.
    pub brief: &'a Brief,
    /// How the microphone in use is used; none without one.
    pub mounting: Option<Mounting>,
    /// The camera follows the face, and is trusted to.
    pub face_is_tracked: bool,
}

impl<'a> Row<'a> {
    /// The row of a corner.
    pub fn of(corner: &Corner<'a>) -> Self {
        Self {
            brief: corner.brief,
            mounting: Some(corner.heard_by().0.mounting),
            face_is_tracked: corner.brief.person.face_tracking && corner.body.face_tracking,
        }
    }

    /// The row of a brief before anything is chosen: the microphone is taken to be of the school.
    pub fn before_layout(brief: &'a Brief) -> Self {
        let mounting = match brief.schools.microphone {
            MicrophoneSchool::Boom | MicrophoneSchool::InShot => Mounting::Boom,
            MicrophoneSchool::Lavalier => Mounting::Lavalier,
            MicrophoneSchool::Desk => Mounting::Desk,
        };
        Self { brief, mounting: Some(mounting), face_is_tracked: false }
    }
}

const fn band(a: f64, b: f64, c: f64, d: f64) -> Option<Band> {
    Some([Some(a), Some(b), Some(c), Some(d)])
}

const fn at_least(a: f64, b: f64) -> Option<Band> {
    Some([Some(a), Some(b), None, None])
}

const fn at_most(c: f64, d: f64) -> Option<Band> {
    Some([None, None, Some(c), Some(d)])
}

/// The band of a reading, and the school that chose it, if one did; no band for what is information only.
pub fn band_of(quantity: Quantity, row: &Row<'_>) -> (Option<Band>, Option<&'static str>) {
    quantity.banded().map_or((None, None), |banded| of_banded(banded, row))
}

fn of_banded(banded: Banded, row: &Row<'_>) -> (Option<Band>, Option<&'static str>) {
    let brief = row.brief;
    let schools = &brief.schools;
    match banded {
        Banded::ShotFrameHeightErrorPercent => (band(-15.0, -5.0, 5.0, 15.0), None),
        Banded::ShotFrameHeadroomFraction => match schools.placement {
            Placement::Thirds => (band(-0.02, 0.04, 0.16, 0.25), Some("placement")),
            Placement::Centred => (None, Some("placement")),
        },
        Banded::ShotFrameEyeLineError => (band(-0.10, -0.04, 0.04, 0.10), Some("placement")),
        Banded::ShotFrameShoulderFraction => {
            let cut = brief.purpose == Purpose::VerticalShort || brief.recording.vertical_cut;
            (if cut { at_most(0.9, 1.0) } else { None }, None)
        }
        Banded::ShotFrameLookRoomFraction => match schools.placement {
            Placement::Thirds => (band(0.50, 0.58, 0.72, 0.80), Some("placement")),
            Placement::Centred => (None, Some("placement")),
        },
        Banded::ShotCameraViewAngleDeg => match schools.camera_height {
            CameraHeight::Level => (band(-10.0, -3.0, 3.0, 10.0), Some("camera-height")),
            CameraHeight::SlightlyBelow => (band(-15.0, -10.0, -3.0, 0.0), Some("camera-height")),
        },
        Banded::ShotCameraDistanceM => match schools.lens {
            LensSchool::FarAndLong => (band(0.9, 1.3, 2.5, 4.0), Some("lens")),
            LensSchool::NearAndWide => (band(0.40, 0.60, 1.00, 1.50), Some("lens")),
        },
        Banded::ShotFocusFrontToleranceM => {
            (if row.face_is_tracked { None } else { at_least(-0.02, 0.0) }, None)
        }
        Banded::ShotBackgroundBlurPercent => match schools.lens {
            LensSchool::FarAndLong => (band(0.4, 1.0, 4.0, 10.0), Some("lens")),
            LensSchool::NearAndWide => (None, Some("lens")),
        },
        Banded::ShotExposureFullFrameIso => (at_most(6400.0, 6400.0), None),
        Banded::ShotSeatGazeDeg => {
            let audition = brief.purpose == Purpose::AuditionTape;
            (if audition { band(4.0, 5.0, 12.0, 20.0) } else { None }, None)
        }
        Banded::RoomBackgroundBehindM => (at_least(0.5, 1.0), None),
        Banded::RoomMainsLoadFraction => (at_most(0.8, 1.0), None),
        Banded::ReadyCornerTimeS => {
            let target = crate::ready::target_s(schools.rig);
            (at_most(target, 2.0 * target), Some("rig"))
        }
        Banded::LightKeyAzimuthDeg => match schools.lights {
            LightSchool::Ring => (at_most(8.0, 15.0), Some("lights")),
            _ if brief.windows_shine() => (band(20.0, 30.0, 90.0, 110.0), Some("window")),
            _ => (band(20.0, 30.0, 45.0, 60.0), None),
        },
        Banded::LightKeyElevationDeg => match schools.lights {
            LightSchool::Ring => (band(-10.0, -5.0, 10.0, 20.0), Some("lights")),
            _ if brief.windows_shine() => (band(-12.0, -3.0, 45.0, 50.0), Some("window")),
            _ => (band(0.0, 15.0, 45.0, 50.0), None),
        },
        Banded::LightKeyAngularSizeDeg => match schools.source {
            SourceSchool::BigSoft => (at_least(5.0, 20.0), Some("source")),
            SourceSchool::SmallNear => (None, Some("source")),
        },
        Banded::LightFaceExposureStops => (band(-1.0, -0.3, 0.3, 1.0), None),
        Banded::LightFaceRatio => match schools.lights {
            LightSchool::Ring | LightSchool::Even => (at_most(1.5, 2.0), Some("lights")),
            _ => (band(1.4, 2.0, 4.0, 8.0), None),
        },
        Banded::LightFlareMarginDeg => (at_least(-5.0, 0.0), None),
        Banded::SoundMicrophoneDistanceM => microphone_distance(row.mounting, schools.microphone),
        Banded::SoundMicrophoneSpeechTransmissionIndex => (at_least(HEARD_STI, 0.75), None),
        Banded::SoundMicrophoneDirectToReverberantDb => (at_least(-3.0, 3.0), None),
        Banded::SoundMicrophoneSnrDb => (at_least(HEARD_SNR_DB, 30.0), None),
        Banded::SoundMicrophoneGainOverCameraDb => (at_least(0.0, 6.0), None),
        Banded::SoundRoomRtMidS => (band(0.15, 0.20, 0.40, 0.60), None),
    }
}

/// By the microphone that is used, whatever the school; in the picture it may be as near as it likes.
fn microphone_distance(
    mounting: Option<Mounting>,
    school: MicrophoneSchool,
) -> (Option<Band>, Option<&'static str>) {
    let anywhere = band(0.0, 0.0, 0.6, 1.5);
    match (mounting, school) {
        (None, _) => (None, None),
        (Some(Mounting::Boom | Mounting::Desk), MicrophoneSchool::InShot) => (anywhere, Some("microphone")),
        (Some(Mounting::Boom), _) => (band(0.2, 0.35, 0.6, 1.0), None),
        (Some(Mounting::Desk | Mounting::Lavalier), _) => (band(0.05, 0.15, 0.30, 0.60), None),
        (Some(Mounting::Headset | Mounting::BuiltIn | Mounting::OnCamera), _) => (anywhere, None),
    }
}
