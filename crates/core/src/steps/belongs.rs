//! What belongs to which step. A new thing, reading or finding does not compile until it has its step here.

use super::kind::{Group, Step};
use crate::corner::Corner;
use crate::finding::{Missing, Note, Rule, Topic};
use crate::plan::{ThingId, thing_named};
use crate::reading::{Quantity, Reading, ReadingId};

/// The step in which a thing is placed.
pub(super) fn of_thing(thing: &ThingId) -> Step {
    match thing {
        ThingId::Person | ThingId::Seat => Step::You,
        ThingId::Camera | ThingId::Screen | ThingId::Angle(_) => Step::Shot,
        ThingId::Light(_) => Step::Light,
        ThingId::Microphone | ThingId::Treatment(_) => Step::Sound,
        ThingId::Backdrop | ThingId::Furniture(_) | ThingId::Opening(_) | ThingId::Mains => Step::Room,
    }
}

/// The step that a finding belongs to.
pub(super) fn step_of(corner: &Corner<'_>, topic: &Topic) -> Step {
    match topic {
        Topic::Reading(id) => of_reading(corner, id),
        Topic::Broken(Rule::Exit | Rule::Way, _) => Step::You,
        Topic::Broken(Rule::Mains, _) => Step::Room,
        Topic::Broken(_, thing) | Topic::Hot(thing) | Topic::Jump(thing) => of_thing(&thing.id),
        Topic::Missing(missing) => match missing {
            Missing::Microphone => Step::Sound,
            Missing::Key | Missing::Back => Step::Light,
            Missing::Screen => Step::Shot,
            Missing::Support(thing) | Missing::Need(thing, _) => of_thing(&thing.id),
        },
        Topic::Note(note) => match note {
            Note::Unresolved | Note::Overhead => Step::Room,
            Note::Session
            | Note::SlowCard
            | Note::Enlarged
            | Note::Glass
            | Note::Stretched
            | Note::Verticals
            | Note::Moire
            | Note::ScriptBeside
            | Note::Grows
            | Note::SmallThings
            | Note::NotPlain
            | Note::WindowBehind
            | Note::MirrorBehind
            | Note::ClothesAlike
            | Note::HairAlike
            | Note::BackdropEdge
            | Note::NoKeyScreen
            | Note::KeyedClothes => Step::Shot,
            Note::MixedLight => Step::Light,
            Note::Flutter | Note::Drift => Step::Sound,
        },
    }
}

fn of_reading(corner: &Corner<'_>, id: &ReadingId) -> Step {
    let thing = id.thing.as_deref().and_then(|name| thing_named(corner.brief, corner.layout, name));
    match (home(id.quantity).0, thing) {
        // Numbers of a stand go with what it carries.
        (Step::Room, Some(thing)) => of_thing(&thing),
        (step, _) => step,
    }
}

/// The step and the group of a reading.
fn home(quantity: Quantity) -> (Step, &'static str) {
    use Quantity as Q;
    match quantity {
        Q::PersonEyeHeightM | Q::ShotSeatGazeDeg => (Step::You, ""),
        Q::ShotFrameHeightErrorPercent
        | Q::ShotFrameHeadroomFraction
        | Q::ShotFrameEyeLineError
        | Q::ShotFrameShoulderFraction
        | Q::ShotFrameLookRoomFraction
        | Q::ShotFrameEdgeLeanDeg
        | Q::ShotFrameStretchPercent => (Step::Shot, "Frame"),
        Q::ShotCameraViewAngleDeg
        | Q::ShotCameraDistanceM
        | Q::ShotCameraNoseEnlargementPercent
        | Q::ShotCameraWalkS
        | Q::ShotLensEquivalentMm
        | Q::ShotLensEquivalentFNumber
        | Q::ShotSchoolNearAndWidePercent
        | Q::ShotSchoolFarAndLongPercent => (Step::Shot, "Distance and lens"),
        Q::ShotFocusFrontToleranceM
        | Q::ShotFocusNearM
        | Q::ShotFocusFarM
        | Q::ShotFocusStandInM
        | Q::ShotFocusLeanFNumber
        | Q::ShotBackgroundBlurPercent
        | Q::ShotBackgroundWidthM
        | Q::ShotBackgroundThings
        | Q::ShotBackgroundBackdropMarginM => (Step::Shot, "Focus and background"),
        Q::ShotExposureFullFrameIso
        | Q::ShotExposureNeededLx
        | Q::ShotExposureNoiseStops
        | Q::ShotExposureFlickerPercent
        | Q::ShotInsertSpeedPercent
        | Q::ShotInsertLightStops => (Step::Shot, "Exposure"),
        Q::ShotClothStripePx
        | Q::ShotRecordingCropWidthPx
        | Q::ShotRecordingReframeFactor
        | Q::ShotRecordingCardMin
        | Q::ShotRecordingCardSpeedMbS
        | Q::ShotRecordingBatteryMin => (Step::Shot, "Recording and clothes"),
        Q::ShotScriptReadingMin
        | Q::ShotScriptColumnDeg
        | Q::ShotScriptLetters
        | Q::ShotScreenGazeDeg
        | Q::ShotScreenFocusTimes
        | Q::ShotScreenLetterMm
        | Q::ShotScreenGlassTimes => (Step::Shot, "Seeing yourself"),
        Q::ShotCoversWidthM | Q::ShotCoversHeightM | Q::ShotOffAxisDeg => (Step::Shot, "Second angles"),
        Q::RoomBackgroundBehindM
        | Q::RoomMainsLoadFraction
        | Q::RoomMainsVoltageV
        | Q::RoomFloorInUseM2
        | Q::RoomFloorParkedM2
        | Q::RoomHeatRiseK
        | Q::ReadyCornerTimeS => (Step::Room, ""),
        Q::RoomSandbagKg | Q::RoomPayloadTimes | Q::RoomFootprintM => (Step::Room, "Stands"),
        Q::LightKeyAzimuthDeg
        | Q::LightKeyElevationDeg
        | Q::LightKeyAngularSizeDeg
        | Q::LightKeyNoseShadowMm
        | Q::LightKeyPenumbraMm
        | Q::LightKeyCatchlightMm
        | Q::LightKeyCatchlightClockH => (Step::Light, "Key"),
        Q::LightFaceExposureStops
        | Q::LightFaceRatio
        | Q::LightFaceIlluminanceLx
        | Q::LightFaceSocketStops
        | Q::LightFaceLeanStops
        | Q::LightFaceCctK
        | Q::LightFaceDuv
        | Q::LightFaceWhiteBalanceMired
        | Q::LightPowerInHandStops
        | Q::LightMonitorSpillStops => (Step::Light, "Face"),
        Q::LightBackgroundStops
        | Q::LightScreenSpillStops
        | Q::LightScreenEvennessStops
        | Q::LightScreenLevelStops
        | Q::LightScreenRimStops
        | Q::LightScreenDepthM => (Step::Light, "Background"),
        Q::LightFlareMarginDeg
        | Q::LightHighlightStops
        | Q::LightGlarePercent
        | Q::LightDialPercent
        | Q::LightContrastUv
        | Q::LightSpillStops
        | Q::LightHotSpotStops
        | Q::LightFillsLx => (Step::Light, "Each light"),
        Q::DaylightAzimuthDeg | Q::DaylightAngularSizeDeg | Q::DaylightRoomFactorPercent => (Step::Day, ""),
        Q::SoundMicrophoneDistanceM
        | Q::SoundMicrophoneSpeechTransmissionIndex
        | Q::SoundMicrophoneDirectToReverberantDb
        | Q::SoundMicrophoneSnrDb
        | Q::SoundMicrophoneGainOverCameraDb
        | Q::SoundMicrophoneClarityC50Db
        | Q::SoundMicrophoneGainDb
        | Q::SoundMicrophoneDeskReflectionDb => (Step::Sound, "Microphone"),
        Q::SoundRoomRtMidS | Q::SoundRoomNoiseDba | Q::SoundRoomSchroederHz => (Step::Sound, "Room"),
    }
}

/// A step's readings in groups, in the order in which the groups come; those with a band first.
pub(super) fn groups(corner: &Corner<'_>, step: Step, readings: &[Reading]) -> Vec<Group> {
    let mut all: Vec<Group> = Vec::new();
    let own = |banded: bool| {
        readings.iter().filter(move |r| r.band.is_some() == banded && of_reading(corner, &r.id) == step)
    };
    for reading in own(true).chain(own(false)) {
        let name = home(reading.id.quantity).1;
        match all.iter_mut().find(|group| group.name == name) {
            Some(group) => group.readings.push(reading.id.to_string()),
            None => all.push(Group { name, readings: vec![reading.id.to_string()] }),
        }
    }
    all
}

/// Which readings of a step are looked at first.
pub(super) fn tiles(step: Step, readings: &[Reading]) -> Vec<String> {
    use Quantity as Q;
    let wanted: &[Quantity] = match step {
        Step::Room => &[Q::RoomBackgroundBehindM, Q::RoomMainsLoadFraction, Q::RoomFloorInUseM2],
        Step::You => &[Q::PersonEyeHeightM, Q::ShotSeatGazeDeg],
        Step::Shot => &[
            Q::ShotCameraDistanceM,
            Q::ShotFrameHeadroomFraction,
            Q::ShotBackgroundBlurPercent,
            Q::ShotFocusFrontToleranceM,
        ],
        Step::Light => {
            &[Q::LightKeyAzimuthDeg, Q::LightKeyAngularSizeDeg, Q::LightFaceRatio, Q::LightFaceExposureStops]
        }
        Step::Day => &[Q::DaylightAzimuthDeg],
        Step::Sound => &[
            Q::SoundMicrophoneSpeechTransmissionIndex,
            Q::SoundMicrophoneDirectToReverberantDb,
            Q::SoundMicrophoneSnrDb,
            Q::SoundRoomRtMidS,
        ],
        Step::Money | Step::Card => &[],
    };
    let first = |quantity: &Quantity| readings.iter().find(|r| r.id == *quantity && r.value.is_some());
    wanted.iter().filter_map(first).map(|reading| reading.id.to_string()).collect()
}
