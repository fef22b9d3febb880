//! The one error type for bad input. Every refusal names the field, the value found and what would be
//! accepted, so that a person can mend it and a script can read it.

use std::fmt;

use serde::Serialize;
use utoipa::ToSchema;

/// Why an input was refused, as a stable word for scripts.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
#[non_exhaustive]
pub enum Code {
    /// The text is no JSON, holds a key twice, or is nested or sized beyond the limits.
    BadJson,
    /// The text is no table, or is sized beyond the limits.
    BadTable,
    /// No calculation, reading or kind of that name.
    UnknownName,
    /// A field that the document does not have.
    UnknownField,
    /// A field that must be given.
    MissingField,
    /// A text where a number belongs, and the like.
    WrongType,
    /// None of the words allowed here.
    BadChoice,
    /// Zero or below where only positive numbers make sense.
    NotPositive,
    /// Outside the accepted range.
    OutOfRange,
    /// An id that names nothing in this plan, or a thing of the wrong kind.
    UnknownId,
    /// The subject stands nearer than the focal length: there is no image.
    SubjectInsideFocalLength,
    /// The camera stands in the face.
    CameraInsideFace,
    /// Mains of neither 50 nor 60 Hz.
    UnsupportedMainsFrequency,
    /// No whole number of light pulses fits into a frame.
    NoFlickerFreeShutter,
    /// A polygon without area.
    DegeneratePolygon,
    /// Corners that lie in no plane.
    NotPlanar,
    /// A polygon with a corner that juts inwards.
    NotConvex,
    /// A ring whose hole is as large as itself.
    InnerNotSmaller,
    /// A lighting ratio that needs no shadow side.
    RatioNotAboveOne,
    /// However far it is moved, it stays in the picture.
    NoPositionOutOfFrame,
    /// A colour that has no colour temperature.
    ChromaticityTooFarFromLocus,
    /// A time that does not say how far it is from UTC.
    TimezoneMissing,
    /// Two values that cannot both be true (a door wider than its wall, a chair outside the room).
    Conflict,
    /// A patch that does not apply to this plan.
    PatchRefused,
}

impl Code {
    /// The word used in messages and JSON.
    pub fn as_str(self) -> &'static str {
        match self {
            Code::BadJson => "bad_json",
            Code::BadTable => "bad_table",
            Code::UnknownName => "unknown_name",
            Code::UnknownField => "unknown_field",
            Code::MissingField => "missing_field",
            Code::WrongType => "wrong_type",
            Code::BadChoice => "bad_choice",
            Code::NotPositive => "not_positive",
            Code::OutOfRange => "out_of_range",
            Code::UnknownId => "unknown_id",
            Code::SubjectInsideFocalLength => "subject_inside_focal_length",
            Code::CameraInsideFace => "camera_inside_face",
            Code::UnsupportedMainsFrequency => "unsupported_mains_frequency",
            Code::NoFlickerFreeShutter => "no_flicker_free_shutter",
            Code::DegeneratePolygon => "degenerate_polygon",
            Code::NotPlanar => "not_planar",
            Code::NotConvex => "not_convex",
            Code::InnerNotSmaller => "inner_not_smaller",
            Code::RatioNotAboveOne => "ratio_not_above_one",
            Code::NoPositionOutOfFrame => "no_position_out_of_frame",
            Code::ChromaticityTooFarFromLocus => "chromaticity_too_far_from_locus",
            Code::TimezoneMissing => "timezone_missing",
            Code::Conflict => "conflict",
            Code::PatchRefused => "patch_refused",
        }
    }
}

/// One refused value.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
pub struct Problem {
    /// Path of the field, as `room.openings.door.width_m` or `surfaces[2].area_m2`.
    pub field: String,
    /// What was found there.
    pub value: String,
    /// What would be accepted, in words.
    pub accepted: String,
    /// The reason as a stable word.
    pub code: Code,
}

impl Problem {
    /// A refusal of `value` at `field`.
    pub fn new(
        field: impl Into<String>,
        value: impl fmt::Display,
        accepted: impl Into<String>,
        code: Code,
    ) -> Self {
        // Messages go to one line of a terminal: a 10 MB value must not follow them there.
        let mut value: String =
            value.to_string().chars().map(|c| if c.is_control() { ' ' } else { c }).collect();
        if value.chars().count() > 60 {
            value = value.chars().take(57).collect::<String>() + "...";
        }
        Self { field: field.into(), value, accepted: accepted.into(), code }
    }
}

impl fmt::Display for Problem {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        write!(
            f,
            "{}: {} is not accepted, give {} ({})",
            self.field,
            self.value,
            self.accepted,
            self.code.as_str()
        )
    }
}

impl std::error::Error for Problem {}

/// All that is wrong with one document, at least one entry.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Problems(pub Vec<Problem>);

impl fmt::Display for Problems {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        for (index, problem) in self.0.iter().enumerate() {
            if index > 0 {
                writeln!(f)?;
            }
            write!(f, "{problem}")?;
        }
        Ok(())
    }
}

impl std::error::Error for Problems {}

impl From<Problem> for Problems {
    fn from(problem: Problem) -> Self {
        Self(vec![problem])
    }
}
