//! Calculations of the shot.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::Calculate;
use crate::exposure::{CALIBRATION, ev100, illuminance_needed_lx};
use crate::problem::{Code, Problem};
use crate::shot::lens;

const OPTICS: &str = "Gauss thin lens; Ray, Applied Photographic Optics (from memory)";

/// The subject must lie beyond the focal length: nearer there is no image.
fn beyond_focal_length(subject_distance_m: f64, focal_length_mm: f64) -> Result<(), Problem> {
    if subject_distance_m * 1000.0 > focal_length_mm {
        return Ok(());
    }
    let accepted = format!("more than the focal length, {} m", focal_length_mm / 1000.0);
    Err(Problem::new("subject_distance_m", subject_distance_m, accepted, Code::SubjectInsideFocalLength))
}

#[derive(Deserialize, ToSchema)]
pub(super) struct FieldOfView {
    #[schema(minimum = 1.0, maximum = 70.0)]
    sensor_width_mm: f64,
    #[schema(minimum = 1.0, maximum = 70.0)]
    sensor_height_mm: f64,
    #[schema(minimum = 1.0, maximum = 600.0)]
    focal_length_mm: f64,
    #[schema(minimum = 0.05, maximum = 50.0)]
    subject_distance_m: Option<f64>,
}

#[derive(Serialize)]
pub(super) struct Fields {
    horizontal_deg: f64,
    vertical_deg: f64,
    diagonal_deg: f64,
}

impl Calculate for FieldOfView {
    const NAME: &'static str = "field-of-view";
    const FORMULA: &'static str = "2 atan(s / 2v); v = f u / (u - f), without a subject v = f";
    const SOURCE: &'static str = OPTICS;
    type Output = Fields;

    fn calculate(self) -> Result<Fields, Problem> {
        let f = self.focal_length_mm;
        let image_mm = match self.subject_distance_m {
            Some(subject) => {
                beyond_focal_length(subject, f)?;
                let u = subject * 1000.0;
                f * u / (u - f)
            }
            None => f,
        };
        let (w, h) = (self.sensor_width_mm, self.sensor_height_mm);
        let field = |side: f64| lens::field_of_view_deg(side, image_mm);
        Ok(Fields { horizontal_deg: field(w), vertical_deg: field(h), diagonal_deg: field(w.hypot(h)) })
    }
}

#[derive(Deserialize, ToSchema)]
pub(super) struct FrameSize {
    #[schema(minimum = 1.0, maximum = 70.0)]
    sensor_width_mm: f64,
    #[schema(minimum = 1.0, maximum = 70.0)]
    sensor_height_mm: f64,
    #[schema(minimum = 1.0, maximum = 600.0)]
    focal_length_mm: f64,
    #[schema(minimum = 0.05, maximum = 50.0)]
    subject_distance_m: f64,
}

#[derive(Serialize)]
pub(super) struct Framed {
    width_m: f64,
    height_m: f64,
}

impl Calculate for FrameSize {
    const NAME: &'static str = "frame-size";
    const FORMULA: &'static str = "S = s (u - f) / f";
    const SOURCE: &'static str = OPTICS;
    type Output = Framed;

    fn calculate(self) -> Result<Framed, Problem> {
        beyond_focal_length(self.subject_distance_m, self.focal_length_mm)?;
        let size = |side: f64| lens::frame_size_m(side, self.focal_length_mm, self.subject_distance_m);
        Ok(Framed { width_m: size(self.sensor_width_mm), height_m: size(self.sensor_height_mm) })
    }
}

#[derive(Deserialize, ToSchema)]
pub(super) struct DepthOfField {
    #[schema(minimum = 1.0, maximum = 600.0)]
    focal_length_mm: f64,
    #[schema(minimum = 0.7, maximum = 64.0)]
    f_number: f64,
    #[schema(minimum = 0.05, maximum = 50.0)]
    subject_distance_m: f64,
    #[schema(minimum = 0.0005, maximum = 0.5)]
    circle_of_confusion_mm: f64,
}

#[derive(Serialize)]
pub(super) struct Depth {
    near_m: f64,
    far_m: Option<f64>,
    hyperfocal_m: f64,
}

impl Calculate for DepthOfField {
    const NAME: &'static str = "depth-of-field";
    const FORMULA: &'static str =
        "h = f^2 / (N c) + f; near = u (h - f) / (h + u - 2f); far = u (h - f) / (h - u), infinite from h on";
    const SOURCE: &'static str = OPTICS;
    type Output = Depth;

    fn calculate(self) -> Result<Depth, Problem> {
        beyond_focal_length(self.subject_distance_m, self.focal_length_mm)?;
        let depth = lens::depth_of_field(
            self.focal_length_mm,
            self.f_number,
            self.subject_distance_m,
            self.circle_of_confusion_mm,
        );
        Ok(Depth { near_m: depth.near_m, far_m: depth.far_m, hyperfocal_m: depth.hyperfocal_m })
    }
}

#[derive(Deserialize, ToSchema)]
pub(super) struct BackgroundBlur {
    #[schema(minimum = 1.0, maximum = 600.0)]
    focal_length_mm: f64,
    #[schema(minimum = 0.7, maximum = 64.0)]
    f_number: f64,
    #[schema(minimum = 0.05, maximum = 50.0)]
    subject_distance_m: f64,
    #[schema(minimum = 0.05, maximum = 50.0)]
    background_distance_m: f64,
    #[schema(minimum = 1.0, maximum = 70.0)]
    sensor_width_mm: f64,
}

#[derive(Serialize)]
pub(super) struct Blur {
    blur_disc_mm: f64,
    blur_fraction_of_frame_width: f64,
}

impl Calculate for BackgroundBlur {
    const NAME: &'static str = "background-blur";
    const FORMULA: &'static str = "b = (f^2 / N) |x - u| / (x (u - f)); fraction = b / W; x from the lens";
    const SOURCE: &'static str = OPTICS;
    type Output = Blur;

    fn calculate(self) -> Result<Blur, Problem> {
        beyond_focal_length(self.subject_distance_m, self.focal_length_mm)?;
        if self.background_distance_m * 1000.0 <= self.focal_length_mm {
            let accepted = format!("more than the focal length, {} m", self.focal_length_mm / 1000.0);
            return Err(Problem::new(
                "background_distance_m",
                self.background_distance_m,
                accepted,
                Code::OutOfRange,
            ));
        }
        let disc = lens::blur_disc_mm(
            self.focal_length_mm,
            self.f_number,
            self.subject_distance_m,
            self.background_distance_m,
        );
        Ok(Blur { blur_disc_mm: disc, blur_fraction_of_frame_width: disc / self.sensor_width_mm })
    }
}

#[derive(Deserialize, ToSchema)]
pub(super) struct ExposureIlluminance {
    #[schema(minimum = 0.7, maximum = 64.0)]
    f_number: f64,
    #[schema(minimum = 0.0000625, maximum = 1.0)]
    shutter_s: f64,
    #[schema(minimum = 25.0, maximum = 409_600.0)]
    iso: f64,
    #[schema(minimum = 200.0, maximum = 600.0)]
    calibration_constant: Option<f64>,
}

#[derive(Serialize)]
pub(super) struct Needed {
    illuminance_lx: f64,
    ev100: f64,
}

impl Calculate for ExposureIlluminance {
    const NAME: &'static str = "exposure-illuminance";
    const FORMULA: &'static str =
        "E = C N^2 / (t S), C = 250 unless given; EV100 = log2(N^2 / t) - log2(S / 100)";
    const SOURCE: &'static str = "ISO 2720:1974 (from memory)";
    type Output = Needed;

    fn calculate(self) -> Result<Needed, Problem> {
        let calibration = self.calibration_constant.unwrap_or(CALIBRATION);
        Ok(Needed {
            illuminance_lx: illuminance_needed_lx(self.f_number, self.shutter_s, self.iso, calibration),
            ev100: ev100(self.f_number, self.shutter_s, self.iso),
        })
    }
}

crate::shape!(FieldOfView, FrameSize, DepthOfField, BackgroundBlur, ExposureIlluminance);
