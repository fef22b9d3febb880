//! Calculations of the lens.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::Calculate;
use crate::problem::{Code, Problem};
use crate::shot::lens;

const OPTICS: &str = "Gauss thin lens; Ray, Applied Photographic Optics (from memory)";

/// The subject must lie beyond the focal length: nearer there is no image.
fn beyond_focal_length(field: &str, subject_distance_m: f64, focal_length_mm: f64) -> Result<(), Problem> {
    if subject_distance_m * 1000.0 > focal_length_mm {
        return Ok(());
    }
    let accepted = format!("more than the focal length, {} m", focal_length_mm / 1000.0);
    Err(Problem::new(field, subject_distance_m, accepted, Code::SubjectInsideFocalLength))
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
                beyond_focal_length("subject_distance_m", subject, f)?;
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
        beyond_focal_length("subject_distance_m", self.subject_distance_m, self.focal_length_mm)?;
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
        beyond_focal_length("subject_distance_m", self.subject_distance_m, self.focal_length_mm)?;
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
        beyond_focal_length("subject_distance_m", self.subject_distance_m, self.focal_length_mm)?;
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
pub(super) struct ShotDistance {
    /// Not needed: the height decides.
    #[schema(minimum = 1.0, maximum = 70.0)]
    #[allow(dead_code)]
    sensor_width_mm: Option<f64>,
    #[schema(minimum = 1.0, maximum = 70.0)]
    sensor_height_mm: f64,
    #[schema(minimum = 1.0, maximum = 600.0)]
    focal_length_mm: f64,
    #[schema(minimum = 0.01, maximum = 50.0)]
    framed_height_m: f64,
}

#[derive(Serialize)]
pub(super) struct Distance {
    distance_m: f64,
}

impl Calculate for ShotDistance {
    const NAME: &'static str = "shot-distance";
    const FORMULA: &'static str = "u = f (1 + S / s)";
    const SOURCE: &'static str = OPTICS;
    type Output = Distance;

    fn calculate(self) -> Result<Distance, Problem> {
        let Self { sensor_height_mm, focal_length_mm, framed_height_m, .. } = self;
        Ok(Distance {
            distance_m: lens::distance_for_frame_m(sensor_height_mm, focal_length_mm, framed_height_m),
        })
    }
}

#[derive(Deserialize, ToSchema)]
pub(super) struct BenchCoverage {
    #[schema(minimum = 1.0, maximum = 70.0)]
    sensor_width_mm: f64,
    #[schema(minimum = 1.0, maximum = 70.0)]
    sensor_height_mm: f64,
    #[schema(minimum = 1.0, maximum = 600.0)]
    focal_length_mm: f64,
    #[schema(minimum = 0.05, maximum = 50.0)]
    height_above_bench_m: f64,
}

impl Calculate for BenchCoverage {
    const NAME: &'static str = "bench-coverage";
    const FORMULA: &'static str = "S = s (u - f) / f, looking straight down from u";
    const SOURCE: &'static str = OPTICS;
    type Output = Framed;

    fn calculate(self) -> Result<Framed, Problem> {
        let Self { sensor_width_mm, sensor_height_mm, focal_length_mm, height_above_bench_m } = self;
        beyond_focal_length("height_above_bench_m", height_above_bench_m, focal_length_mm)?;
        let size = |side: f64| lens::frame_size_m(side, focal_length_mm, height_above_bench_m);
        Ok(Framed { width_m: size(sensor_width_mm), height_m: size(sensor_height_mm) })
    }
}

crate::shape!(FieldOfView, FrameSize, DepthOfField, BackgroundBlur, ShotDistance, BenchCoverage);
