//! Calculations of what a light does to a face: its place outside the picture, glasses, catchlight.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::Calculate;
use crate::geometry::{DVec3, Pinhole, binding_plane};
use crate::light::catchlight::catchlight;
use crate::light::glasses::{Glasses, Seen};
use crate::plan::Point3;
use crate::problem::{Code, Problem};

#[derive(Clone, Copy, PartialEq, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
enum SourceShape {
    Disc,
    Rectangle,
}

#[derive(Deserialize, ToSchema)]
pub(super) struct KeyDistance {
    source_shape: SourceShape,
    #[schema(minimum = 0.01, maximum = 50.0)]
    diameter_m: Option<f64>,
    #[schema(minimum = 0.01, maximum = 50.0)]
    width_m: Option<f64>,
    #[schema(minimum = 0.01, maximum = 50.0)]
    height_m: Option<f64>,
    #[schema(minimum = 1.0, maximum = 170.0)]
    horizontal_fov_deg: f64,
    #[schema(minimum = 1.0, maximum = 170.0)]
    vertical_fov_deg: f64,
    camera_m: Point3,
    subject_m: Point3,
    #[schema(minimum = -360.0, maximum = 360.0)]
    azimuth_deg: f64,
    #[schema(minimum = -90.0, maximum = 90.0)]
    elevation_deg: f64,
    #[schema(minimum = 0.0, maximum = 50.0)]
    margin_m: f64,
}

#[derive(Serialize)]
pub(super) struct Nearest {
    distance_m: f64,
    binding_plane: &'static str,
}

impl KeyDistance {
    /// Sizes of the shape, none of the other.
    fn sizes(&self) -> Result<(f64, f64), Problem> {
        let given = |field: &'static str, value: Option<f64>, wanted: bool| match (value, wanted) {
            (Some(size), true) => Ok(size),
            (None, false) => Ok(0.0),
            (None, true) => {
                Err(Problem::new(field, "nothing", "0.01 to 50, for this shape", Code::MissingField))
            }
            (Some(size), false) => Err(Problem::new(field, size, "nothing, for this shape", Code::Conflict)),
        };
        let disc = self.source_shape == SourceShape::Disc;
        let diameter = given("diameter_m", self.diameter_m, disc)?;
        let width = given("width_m", self.width_m, !disc)?;
        let height = given("height_m", self.height_m, !disc)?;
        Ok(if disc { (diameter, diameter) } else { (width, height) })
    }
}

impl Calculate for KeyDistance {
    const NAME: &'static str = "key-distance";
    const FORMULA: &'static str = "per plane of the picture: d = (margin - n.S + reach(n)) / (n.u); the smallest; disc r sqrt(1 - (n.u)^2), rectangle (w abs(n.e1) + h abs(n.e2)) / 2";
    const SOURCE: &'static str = "geometry of a level camera that looks along +y, x to camera right; azimuth from -y, positive to camera right";
    type Output = Nearest;

    fn calculate(self) -> Result<Nearest, Problem> {
        let (width, height) = self.sizes()?;
        let ratio = |degrees: f64| 2.0 * (degrees / 2.0).to_radians().tan();
        let view = Pinhole::new(
            self.camera_m.into(),
            0.0,
            0.0,
            ratio(self.horizontal_fov_deg),
            ratio(self.vertical_fov_deg),
            1.0,
        );
        let subject = DVec3::from(self.subject_m);
        if !view.sees(subject) {
            let accepted = "a point in the picture of a level camera that looks along +y";
            let told = format!("{:?}", self.subject_m.0);
            return Err(Problem::new("subject_m", told, accepted, Code::OutOfRange));
        }
        let (sin_a, cos_a) = self.azimuth_deg.to_radians().sin_cos();
        let (sin_e, cos_e) = self.elevation_deg.to_radians().sin_cos();
        let towards = DVec3::new(sin_a * cos_e, -cos_a * cos_e, sin_e);
        let across = DVec3::Z.cross(towards).try_normalize().unwrap_or(DVec3::X);
        let up = towards.cross(across);
        let least = |normal: DVec3| match self.source_shape {
            SourceShape::Disc => -width / 2.0 * (1.0 - normal.dot(towards).powi(2)).max(0.0).sqrt(),
            SourceShape::Rectangle => {
                -(width * normal.dot(across).abs() + height * normal.dot(up).abs()) / 2.0
            }
        };
        let [right, left, top, _, behind] = view.planes();
        let found = binding_plane(&[right, left, top, behind], subject, towards, least, self.margin_m);
        let (plane, distance_m) = found.ok_or_else(|| {
            let accepted =
                "a direction that leads out of the picture to a side, upwards or behind the camera";
            Problem::new("azimuth_deg", self.azimuth_deg, accepted, Code::NoPositionOutOfFrame)
        })?;
        let binding_plane = ["right", "left", "top", "behind"].get(plane).copied().unwrap_or("behind");
        Ok(Nearest { distance_m, binding_plane })
    }
}

#[derive(Deserialize, ToSchema)]
pub(super) struct GlassesGlare {
    #[schema(minimum = -360.0, maximum = 360.0)]
    source_azimuth_deg: f64,
    #[schema(minimum = -90.0, maximum = 90.0)]
    source_elevation_deg: f64,
    #[schema(minimum = 0.01, maximum = 50.0)]
    source_diameter_m: f64,
    #[schema(minimum = 0.01, maximum = 50.0)]
    source_distance_m: f64,
    #[schema(minimum = 0.05, maximum = 50.0)]
    camera_distance_m: f64,
    #[schema(minimum = -45.0, maximum = 45.0)]
    pantoscopic_tilt_deg: Option<f64>,
    #[schema(minimum = -45.0, maximum = 45.0)]
    wrap_deg: Option<f64>,
    #[schema(minimum = 0.05, maximum = 50.0)]
    lens_front_radius_m: Option<f64>,
    #[schema(minimum = 0.01, maximum = 0.09)]
    lens_width_m: Option<f64>,
    #[schema(minimum = 0.01, maximum = 0.09)]
    lens_height_m: Option<f64>,
}

#[derive(Serialize)]
pub(super) struct Glare {
    glare_fraction: f64,
    min_elevation_deg: Option<f64>,
}

impl Calculate for GlassesGlare {
    const NAME: &'static str = "glasses-glare";
    const FORMULA: &'static str = "61 x 61 normals of the lens on the source's side, each ray from the camera reflected: r = 2 (n.c) n - c; part that meets the source; largest elevation below 60 degrees at which any does, to 0.1";
    const SOURCE: &'static str = "law of reflection; pantoscopic tilt and wrap as in ISO 13666 (from memory)";
    type Output = Glare;

    fn calculate(self) -> Result<Glare, Problem> {
        let usual = Glasses::default();
        let glasses = Glasses {
            pantoscopic_tilt_deg: self.pantoscopic_tilt_deg.unwrap_or(usual.pantoscopic_tilt_deg),
            wrap_deg: self.wrap_deg.unwrap_or(usual.wrap_deg),
            front_radius_m: self.lens_front_radius_m.unwrap_or(usual.front_radius_m),
            width_m: self.lens_width_m.unwrap_or(usual.width_m),
            height_m: self.lens_height_m.unwrap_or(usual.height_m),
        };
        let corner = glasses.width_m.hypot(glasses.height_m) / 2.0;
        if corner >= glasses.front_radius_m {
            let accepted = format!("more than {corner:.4}, so that the lens is a part of the sphere");
            return Err(Problem::new(
                "lens_front_radius_m",
                glasses.front_radius_m,
                accepted,
                Code::Conflict,
            ));
        }
        let source = Seen {
            azimuth_deg: self.source_azimuth_deg,
            elevation_deg: self.source_elevation_deg,
            diameter_m: self.source_diameter_m,
            distance_m: self.source_distance_m,
        };
        Ok(Glare {
            glare_fraction: glasses.glare_fraction(&source, self.camera_distance_m),
            min_elevation_deg: glasses.highest_glare_deg(&source, self.camera_distance_m),
        })
    }
}

#[derive(Deserialize, ToSchema)]
pub(super) struct CatchlightOf {
    #[schema(minimum = -360.0, maximum = 360.0)]
    source_azimuth_deg: f64,
    #[schema(minimum = -90.0, maximum = 90.0)]
    source_elevation_deg: f64,
    #[schema(minimum = 0.01, maximum = 50.0)]
    source_diameter_m: f64,
    #[schema(minimum = 0.01, maximum = 50.0)]
    source_distance_m: f64,
}

#[derive(Serialize)]
pub(super) struct Shown {
    clock_h: Option<f64>,
    image_diameter_mm: f64,
}

impl Calculate for CatchlightOf {
    const NAME: &'static str = "catchlight";
    const FORMULA: &'static str = "normal midway between lens and source; clock = atan2(x, y) / 30 degrees; image D f / (d + f), f = 3.9 mm";
    const SOURCE: &'static str = "mirror of the cornea, radius 7.8 mm: Le Grand (from memory)";
    type Output = Shown;

    fn calculate(self) -> Result<Shown, Problem> {
        let found = catchlight(
            self.source_azimuth_deg,
            self.source_elevation_deg,
            self.source_diameter_m,
            self.source_distance_m,
        );
        Ok(Shown { clock_h: found.clock_h, image_diameter_mm: found.diameter_mm })
    }
}

crate::shape!(KeyDistance, GlassesGlare, CatchlightOf);
