//! The table of readings: what each is called, what it speaks for, what a measured value in its place may be and which
//! parts of a corner that value belongs to. Words, symbols and units stand in `docs/glossary.md`, bands in
//! `assess::bands`, sentences in `assess::words`; those three match on the types here without a catch-all arm.

use std::sync::OnceLock;

use serde::Serialize;
use utoipa::ToSchema;

use crate::glossary::{Term, terms};

/// Which part of the result a reading speaks for.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord, Serialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
#[allow(missing_docs)]
pub enum Aspect {
    Sound,
    Light,
    Room,
    Picture,
    Comfort,
}

/// What of a corner a measured value belongs to: where one of these differs, it is another corner's value.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum Condition {
    /// The room: floor, height, openings, surfaces, furniture.
    Room,
    /// Seated or standing, how high the seat is, how tall the person.
    Posture,
    /// Where the person sits or stands, and how they are turned.
    Seat,
    /// Where the camera stands.
    Camera,
    /// Which body is in use.
    Body,
    /// Lamps and boards, with their dials.
    Lights,
    /// Which microphone, and where.
    Microphone,
    /// The backdrop.
    Backdrop,
    /// Where moved furniture stands.
    Furniture,
    /// What hangs and lies against the echo.
    Treatment,
    /// Whether the windows count as lamps.
    Windows,
}

impl Condition {
    /// Every one.
    pub const ALL: [Condition; 11] = [
        Condition::Room,
        Condition::Posture,
        Condition::Seat,
        Condition::Camera,
        Condition::Body,
        Condition::Lights,
        Condition::Microphone,
        Condition::Backdrop,
        Condition::Furniture,
        Condition::Treatment,
        Condition::Windows,
    ];
}

/// What is measured of the light at the face belongs to all that sends or shades light, and to where the face is.
const BY_THE_LIGHT: &[Condition] = &[
    Condition::Room,
    Condition::Posture,
    Condition::Seat,
    Condition::Camera,
    Condition::Lights,
    Condition::Furniture,
    Condition::Windows,
];

/// How a reading can be measured.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Measurable {
    /// Least and most that makes sense.
    pub range: (f64, f64),
    /// What it belongs to; empty where it holds whatever is moved.
    pub belongs_to: &'static [Condition],
}

const fn measured(low: f64, high: f64, belongs_to: &'static [Condition]) -> Option<Measurable> {
    Some(Measurable { range: (low, high), belongs_to })
}

macro_rules! readings {
    (
        banded { $($banded:ident = $banded_id:literal, $banded_aspect:expr, $banded_measured:expr;)+ }
        plain { $($plain:ident = $plain_id:literal, $plain_aspect:expr, $plain_measured:expr;)+ }
    ) => {
        /// Which number about a corner a reading reports.
        #[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord)]
        #[allow(missing_docs)]
        pub enum Quantity { $($banded,)+ $($plain,)+ }

        /// The quantities that a band judges.
        #[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
        #[allow(missing_docs)]
        pub enum Banded { $($banded,)+ }

        impl Quantity {
            /// Every one, in the order of the table.
            pub const ALL: &'static [Quantity] = &[$(Quantity::$banded,)+ $(Quantity::$plain,)+];

            /// Its id; `*` stands for the name of the thing that it is told of.
            pub const fn id(self) -> &'static str {
                match self {
                    $(Quantity::$banded => $banded_id,)+
                    $(Quantity::$plain => $plain_id,)+
                }
            }

            /// What it speaks for.
            pub const fn aspect(self) -> Option<Aspect> {
                match self {
                    $(Quantity::$banded => $banded_aspect,)+
                    $(Quantity::$plain => $plain_aspect,)+
                }
            }

            /// How it can be measured; `None` where nobody can.
            pub const fn measurable(self) -> Option<Measurable> {
                match self {
                    $(Quantity::$banded => $banded_measured,)+
                    $(Quantity::$plain => $plain_measured,)+
                }
            }

            /// As one of those that a band judges.
            pub const fn banded(self) -> Option<Banded> {
                match self {
                    $(Quantity::$banded => Some(Banded::$banded),)+
                    $(Quantity::$plain)|+ => None,
                }
            }
        }

        impl From<Banded> for Quantity {
            fn from(banded: Banded) -> Self {
                match banded {
                    $(Banded::$banded => Quantity::$banded,)+
                }
            }
        }
    };
}

#[rustfmt::skip]
readings! {
    banded {
        ShotFrameHeightErrorPercent = "shot.frame.height_error_percent", Some(Aspect::Picture), None;
        ShotFrameHeadroomFraction = "shot.frame.headroom_fraction", Some(Aspect::Picture), None;
        ShotFrameEyeLineError = "shot.frame.eye_line_error", Some(Aspect::Picture), None;
        ShotFrameShoulderFraction = "shot.frame.shoulder_fraction", Some(Aspect::Picture), None;
        ShotFrameLookRoomFraction = "shot.frame.look_room_fraction", Some(Aspect::Picture), None;
        ShotCameraViewAngleDeg = "shot.camera.view_angle_deg", Some(Aspect::Picture), None;
        ShotCameraDistanceM = "shot.camera.distance_m", Some(Aspect::Picture), None;
        ShotFocusFrontToleranceM = "shot.focus.front_tolerance_m", Some(Aspect::Picture), None;
        ShotBackgroundBlurPercent = "shot.background.blur_percent", Some(Aspect::Picture), None;
        ShotExposureFullFrameIso = "shot.exposure.full_frame_iso", None, None;
        ShotSeatGazeDeg = "shot.seat.gaze_deg", Some(Aspect::Picture), None;
        RoomBackgroundBehindM = "room.background_behind_m", Some(Aspect::Room), measured(0.0, 50.0, &[Condition::Room, Condition::Seat, Condition::Camera, Condition::Backdrop]);
        RoomMainsLoadFraction = "room.mains.load_fraction", Some(Aspect::Comfort), measured(0.0, 10.0, &[Condition::Body, Condition::Lights]);
        LightKeyAzimuthDeg = "light.key.azimuth_deg", Some(Aspect::Light), None;
        LightKeyElevationDeg = "light.key.elevation_deg", Some(Aspect::Light), None;
        LightKeyAngularSizeDeg = "light.key.angular_size_deg", Some(Aspect::Light), None;
        LightFaceExposureStops = "light.face.exposure_stops", Some(Aspect::Light), None;
        LightFaceRatio = "light.face.ratio", Some(Aspect::Light), measured(1.0, 1000.0, BY_THE_LIGHT);
        LightFlareMarginDeg = "light.*.flare_margin_deg", Some(Aspect::Light), None;
        SoundMicrophoneDistanceM = "sound.microphone.distance_m", None, measured(0.01, 20.0, &[Condition::Posture, Condition::Seat, Condition::Microphone]);
        SoundMicrophoneSpeechTransmissionIndex = "sound.microphone.speech_transmission_index", Some(Aspect::Sound), None;
        SoundMicrophoneDirectToReverberantDb = "sound.microphone.direct_to_reverberant_db", Some(Aspect::Sound), None;
        SoundMicrophoneSnrDb = "sound.microphone.snr_db", Some(Aspect::Sound), None;
        SoundMicrophoneGainOverCameraDb = "sound.microphone.gain_over_camera_db", Some(Aspect::Sound), None;
        ReadyCornerTimeS = "ready.corner.time_s", None, None;
        SoundRoomRtMidS = "sound.room.rt_mid_s", Some(Aspect::Room), measured(0.05, 10.0, &[Condition::Room, Condition::Treatment]);
    }
    plain {
        PersonEyeHeightM = "person.eye.height_m", None, measured(0.5, 2.3, &[Condition::Posture]);
        ShotFrameEdgeLeanDeg = "shot.frame.edge_lean_deg", None, None;
        ShotFrameStretchPercent = "shot.frame.stretch_percent", None, None;
        ShotCameraNoseEnlargementPercent = "shot.camera.nose_enlargement_percent", None, None;
        ShotCameraWalkS = "shot.camera.walk_s", None, measured(1.0, 600.0, &[Condition::Seat, Condition::Camera]);
        ShotLensEquivalentMm = "shot.lens.equivalent_mm", None, None;
        ShotLensEquivalentFNumber = "shot.lens.equivalent_f_number", None, None;
        ShotSchoolNearAndWidePercent = "shot.school.near_and_wide_percent", None, None;
        ShotSchoolFarAndLongPercent = "shot.school.far_and_long_percent", None, None;
        ShotFocusNearM = "shot.focus.near_m", None, None;
        ShotFocusFarM = "shot.focus.far_m", None, None;
        ShotFocusStandInM = "shot.focus.stand_in_m", None, None;
        ShotFocusLeanFNumber = "shot.focus.lean_f_number", None, None;
        ShotBackgroundWidthM = "shot.background.width_m", None, None;
        ShotBackgroundThings = "shot.background.things", None, None;
        ShotBackgroundBackdropMarginM = "shot.background.backdrop_margin_m", None, None;
        ShotExposureNeededLx = "shot.exposure.needed_lx", None, None;
        ShotExposureNoiseStops = "shot.exposure.noise_stops", None, None;
        ShotExposureFlickerPercent = "shot.exposure.flicker_percent", None, None;
        ShotInsertSpeedPercent = "shot.insert.speed_percent", None, None;
        ShotInsertLightStops = "shot.insert.light_stops", None, None;
        ShotClothStripePx = "shot.cloth.stripe_px", None, None;
        ShotCoversWidthM = "shot.*.covers_width_m", None, None;
        ShotCoversHeightM = "shot.*.covers_height_m", None, None;
        ShotOffAxisDeg = "shot.*.off_axis_deg", None, None;
        ShotRecordingCropWidthPx = "shot.recording.crop_width_px", None, None;
        ShotRecordingReframeFactor = "shot.recording.reframe_factor", None, None;
        ShotRecordingCardMin = "shot.recording.card_min", None, measured(1.0, 100_000.0, &[Condition::Body]);
        ShotRecordingCardSpeedMbS = "shot.recording.card_speed_mb_s", None, None;
        ShotRecordingBatteryMin = "shot.recording.battery_min", None, measured(1.0, 100_000.0, &[Condition::Body]);
        ShotScriptReadingMin = "shot.script.reading_min", None, measured(0.1, 1000.0, &[]);
        ShotScriptColumnDeg = "shot.script.column_deg", None, None;
        ShotScriptLetters = "shot.script.letters", None, None;
        ShotScreenGazeDeg = "shot.screen.gaze_deg", None, None;
        ShotScreenFocusTimes = "shot.screen.focus_times", None, None;
        ShotScreenLetterMm = "shot.screen.letter_mm", None, None;
        ShotScreenGlassTimes = "shot.screen.glass_times", None, None;
        RoomMainsVoltageV = "room.mains.voltage_v", None, measured(90.0, 260.0, &[]);
        RoomFloorInUseM2 = "room.floor.in_use_m2", None, None;
        RoomFloorParkedM2 = "room.floor.parked_m2", None, None;
        RoomHeatRiseK = "room.heat.rise_k", None, None;
        RoomSandbagKg = "room.*.sandbag_kg", None, None;
        RoomPayloadTimes = "room.*.payload_times", None, None;
        RoomFootprintM = "room.*.footprint_m", None, None;
        LightFaceIlluminanceLx = "light.face.illuminance_lx", None, measured(0.0, 100_000.0, BY_THE_LIGHT);
        LightHighlightStops = "light.*.highlight_stops", None, None;
        LightGlarePercent = "light.*.glare_percent", None, None;
        LightKeyNoseShadowMm = "light.key.nose_shadow_mm", None, None;
        LightKeyPenumbraMm = "light.key.penumbra_mm", None, None;
        LightKeyCatchlightMm = "light.key.catchlight_mm", None, None;
        LightKeyCatchlightClockH = "light.key.catchlight_clock_h", None, None;
        LightFaceSocketStops = "light.face.socket_stops", None, None;
        LightFaceLeanStops = "light.face.lean_stops", None, None;
        LightFaceCctK = "light.face.cct_k", None, measured(1000.0, 25_000.0, BY_THE_LIGHT);
        LightFaceDuv = "light.face.duv", None, None;
        LightFaceWhiteBalanceMired = "light.face.white_balance_mired", None, None;
        LightBackgroundStops = "light.background.stops", None, None;
        LightPowerInHandStops = "light.power.in_hand_stops", None, None;
        LightMonitorSpillStops = "light.monitor.spill_stops", None, None;
        LightScreenSpillStops = "light.screen.spill_stops", None, None;
        LightDialPercent = "light.*.dial_percent", None, None;
        LightContrastUv = "light.*.contrast_uv", None, None;
        LightSpillStops = "light.*.spill_stops", None, None;
        LightHotSpotStops = "light.*.hot_spot_stops", None, None;
        LightFillsLx = "light.*.fills_lx", None, None;
        LightScreenEvennessStops = "light.screen.evenness_stops", None, None;
        LightScreenLevelStops = "light.screen.level_stops", None, None;
        LightScreenRimStops = "light.screen.rim_stops", None, None;
        LightScreenDepthM = "light.screen.depth_m", None, None;
        DaylightAzimuthDeg = "daylight.*.azimuth_deg", None, None;
        DaylightAngularSizeDeg = "daylight.*.angular_size_deg", None, None;
        DaylightRoomFactorPercent = "daylight.room.factor_percent", None, None;
        SoundMicrophoneClarityC50Db = "sound.microphone.clarity_c50_db", None, None;
        SoundMicrophoneGainDb = "sound.microphone.gain_db", None, None;
        SoundMicrophoneDeskReflectionDb = "sound.microphone.desk_reflection_db", None, None;
        SoundRoomNoiseDba = "sound.room.noise_dba", None, measured(0.0, 110.0, &[Condition::Room, Condition::Lights, Condition::Treatment]);
        SoundRoomSchroederHz = "sound.room.schroeder_hz", None, None;
    }
}

impl Quantity {
    /// Its row in the glossary.
    pub fn term(self) -> Option<&'static Term> {
        static ROWS: OnceLock<Vec<Option<&'static Term>>> = OnceLock::new();
        let row = |quantity: &Quantity| terms().iter().find(|term| term.reading == quantity.id());
        ROWS.get_or_init(|| Quantity::ALL.iter().map(row).collect()).get(self as usize).copied().flatten()
    }

    /// In words.
    pub fn label(self) -> &'static str {
        self.term().map_or("", |term| term.word)
    }

    /// Its unit.
    pub fn unit(self) -> &'static str {
        self.term().map_or("", |term| term.unit)
    }

    /// The quantity of an id, with or without the name of a thing in it.
    pub fn of_id(id: &str) -> Option<Self> {
        Self::ALL.iter().copied().find(|quantity| match quantity.id().split_once('*') {
            Some((head, tail)) => {
                id == quantity.id()
                    || (id.starts_with(head) && id.ends_with(tail) && id.len() > head.len() + tail.len())
            }
            None => quantity.id() == id,
        })
    }
}
