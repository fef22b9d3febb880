//! Calculations of what is in the picture and what becomes of it: the person, cloth, the eyes, the recording.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::Calculate;
use crate::person::landmarks;
use crate::plan::Posture;
use crate::problem::{Code, Problem};
use crate::shot::{cloth, perspective, recording, seeing};

#[derive(Deserialize, ToSchema)]
pub(super) struct BodyLandmarks {
    #[schema(minimum = 0.8, maximum = 2.3)]
    stature_m: f64,
    posture: Posture,
    #[schema(minimum = 0.2, maximum = 1.1)]
    seat_height_m: Option<f64>,
}

#[derive(Serialize)]
pub(super) struct Heights {
    crown_m: f64,
    eye_m: f64,
    chin_m: f64,
    shoulder_m: f64,
    chest_m: f64,
    waist_m: f64,
}

impl Calculate for BodyLandmarks {
    const NAME: &'static str = "body-landmarks";
    const FORMULA: &'static str =
        "standing: ratio x stature; seated: seat height + (ratio - 0.480) x stature; no slump, shoes or hair";
    const SOURCE: &'static str =
        "Drillis and Contini 1966, in Winter, Biomechanics and Motor Control of Human Movement (from memory)";
    type Output = Heights;

    fn calculate(self) -> Result<Heights, Problem> {
        let seat = match (self.posture, self.seat_height_m) {
            (Posture::Seated, None) => {
                let accepted = "a number, 0.2 to 1.1, for a seated person";
                return Err(Problem::new("seat_height_m", "nothing", accepted, Code::MissingField));
            }
            (Posture::Standing, Some(seat)) => {
                return Err(Problem::new("seat_height_m", seat, "nothing, standing", Code::Conflict));
            }
            (_, seat) => seat,
        };
        let at = landmarks(self.stature_m, seat);
        Ok(Heights {
            crown_m: at.crown_m,
            eye_m: at.eye_m,
            chin_m: at.chin_m,
            shoulder_m: at.shoulder_m,
            chest_m: at.chest_m,
            waist_m: at.waist_m,
        })
    }
}

#[derive(Deserialize, ToSchema)]
pub(super) struct FacePerspective {
    #[schema(minimum = 0.05, maximum = 50.0)]
    camera_distance_m: f64,
}

#[derive(Serialize)]
pub(super) struct Perspective {
    nose_to_ear_ratio: f64,
    enlargement_percent: f64,
}

impl Calculate for FacePerspective {
    const NAME: &'static str = "face-perspective";
    const FORMULA: &'static str =
        "R(D) = (D + 0.085) / (D - 0.025), D to the eye plane; 100 (R(D) / R(1.524) - 1)";
    const SOURCE: &'static str =
        "parallel planes, calibrated on Ward et al., JAMA Facial Plast Surg 2018 (from memory)";
    type Output = Perspective;

    fn calculate(self) -> Result<Perspective, Problem> {
        let distance = self.camera_distance_m;
        let inside = || {
            Problem::new(
                "camera_distance_m",
                distance,
                "more than 0.075 m, 5 cm before the nose",
                Code::CameraInsideFace,
            )
        };
        Ok(Perspective {
            nose_to_ear_ratio: perspective::nose_to_ear_ratio(distance).ok_or_else(inside)?,
            enlargement_percent: perspective::enlargement_percent(distance).ok_or_else(inside)?,
        })
    }
}

#[derive(Deserialize, ToSchema)]
pub(super) struct GazeOffset {
    #[schema(minimum = 0.05, maximum = 50.0)]
    camera_distance_m: f64,
    #[schema(minimum = 0.0, maximum = 50.0)]
    offset_m: f64,
}

#[derive(Serialize)]
pub(super) struct Angle {
    angle_deg: f64,
}

impl Calculate for GazeOffset {
    const NAME: &'static str = "gaze-offset";
    const FORMULA: &'static str = "atan(offset / distance), the offset in the plane of the lens";
    const SOURCE: &'static str = "geometry";
    type Output = Angle;

    fn calculate(self) -> Result<Angle, Problem> {
        Ok(Angle { angle_deg: seeing::gaze_offset_deg(self.camera_distance_m, self.offset_m) })
    }
}

#[derive(Deserialize, ToSchema)]
pub(super) struct TextLegibility {
    #[schema(minimum = 0.01, maximum = 1000.0)]
    character_height_mm: f64,
    #[schema(minimum = 0.05, maximum = 50.0)]
    viewing_distance_m: f64,
}

#[derive(Serialize)]
pub(super) struct Legibility {
    arcmin: f64,
    legible: bool,
}

impl Calculate for TextLegibility {
    const NAME: &'static str = "text-legibility";
    const FORMULA: &'static str =
        "60 x 2 atan(h / 2D), D in the unit of h; legible from 16 minutes of arc on";
    const SOURCE: &'static str = "ISO 9241-303 (from memory)";
    type Output = Legibility;

    fn calculate(self) -> Result<Legibility, Problem> {
        let arcmin = seeing::character_arcmin(self.character_height_mm, self.viewing_distance_m);
        Ok(Legibility { arcmin, legible: seeing::is_legible(arcmin) })
    }
}

#[derive(Deserialize, ToSchema)]
pub(super) struct MoireOf {
    #[schema(minimum = 0.01, maximum = 1000.0)]
    stripe_pitch_mm: f64,
    #[schema(minimum = 0.01, maximum = 50.0)]
    frame_width_m: f64,
    #[schema(minimum = 1.0, maximum = 100_000.0)]
    recorded_width_px: f64,
}

#[derive(Serialize)]
pub(super) struct Stripes {
    pixels_per_pitch: f64,
    risk: cloth::Moire,
}

impl Calculate for MoireOf {
    const NAME: &'static str = "moire";
    const FORMULA: &'static str =
        "P = pitch / (frame width / pixels); low from 6 on, watch from 4, low_blurred below 0.7, else risk";
    const SOURCE: &'static str = "Nyquist and Shannon; classes common practice, no source";
    type Output = Stripes;

    fn calculate(self) -> Result<Stripes, Problem> {
        let pixels_per_pitch =
            cloth::pixels_per_pitch(self.stripe_pitch_mm, self.frame_width_m, self.recorded_width_px);
        Ok(Stripes { pixels_per_pitch, risk: cloth::moire(pixels_per_pitch) })
    }
}

#[derive(Deserialize, ToSchema)]
pub(super) struct RecordingTime {
    #[schema(minimum = 0.001, maximum = 100_000.0)]
    card_gb: f64,
    #[schema(minimum = 0.001, maximum = 100_000.0)]
    bitrate_mbit_s: f64,
}

#[derive(Serialize)]
pub(super) struct Minutes {
    minutes: f64,
}

impl Calculate for RecordingTime {
    const NAME: &'static str = "recording-time";
    const FORMULA: &'static str = "GB x 8000 / (Mbit/s) / 60; 1 GB = 1e9 bytes; no reserve";
    const SOURCE: &'static str = "arithmetic";
    type Output = Minutes;

    fn calculate(self) -> Result<Minutes, Problem> {
        Ok(Minutes { minutes: recording::card_minutes(self.card_gb, self.bitrate_mbit_s) })
    }
}

#[derive(Deserialize, ToSchema)]
pub(super) struct CropSurvival {
    #[schema(minimum = 1.0, maximum = 100_000.0)]
    recorded_width_px: f64,
    #[schema(minimum = 1.0, maximum = 100_000.0)]
    recorded_height_px: f64,
    #[schema(minimum = 1.0, maximum = 100_000.0)]
    delivered_width_px: f64,
    #[schema(minimum = 1.0, maximum = 100_000.0)]
    delivered_height_px: f64,
}

#[derive(Serialize)]
pub(super) struct Reframing {
    reframe_factor: f64,
}

impl Calculate for CropSurvival {
    const NAME: &'static str = "crop-survival";
    const FORMULA: &'static str = "min(recorded width / delivered width, recorded height / delivered height)";
    const SOURCE: &'static str = "arithmetic; below 1 the picture is enlarged beyond its pixels";
    type Output = Reframing;

    fn calculate(self) -> Result<Reframing, Problem> {
        let recorded = [self.recorded_width_px, self.recorded_height_px];
        let delivered = [self.delivered_width_px, self.delivered_height_px];
        Ok(Reframing { reframe_factor: recording::reframe_factor(recorded, delivered) })
    }
}

crate::shape!(
    BodyLandmarks,
    FacePerspective,
    GazeOffset,
    TextLegibility,
    MoireOf,
    RecordingTime,
    CropSurvival,
);
