//! Calculations of light.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::{Calculate, Side};
use crate::geometry::DVec3;
use crate::light::{
    FillNeeded, angular_size_deg, bounce_estimate_lx, fill_needed, inverse_square_lx, lighting_ratio,
    penumbra_m,
};
use crate::photometry::{disc_illuminance_lx, face_normal, polygon_illuminance};
use crate::plan::Point3;
use crate::problem::{Code, Problem};

/// Corners may lie so far out of their plane, m.
const PLANAR_M: f64 = 1e-3;
/// A polygon smaller than this has no area, m2.
const AREA_M2: f64 = 1e-8;

#[derive(Deserialize, ToSchema)]
pub(super) struct InverseSquare {
    #[schema(minimum = 0.0, maximum = 1_000_000.0)]
    illuminance_lx: f64,
    #[schema(minimum = 0.01, maximum = 50.0)]
    at_distance_m: f64,
    #[schema(minimum = 0.01, maximum = 50.0)]
    wanted_distance_m: f64,
}

#[derive(Serialize)]
pub(super) struct Illuminance {
    illuminance_lx: f64,
}

impl Calculate for InverseSquare {
    const NAME: &'static str = "inverse-square";
    const FORMULA: &'static str = "E (at / wanted)^2";
    const SOURCE: &'static str = "inverse square law; a point source, or five diagonals away";
    type Output = Illuminance;

    fn calculate(self) -> Result<Illuminance, Problem> {
        let illuminance_lx =
            inverse_square_lx(self.illuminance_lx, self.at_distance_m, self.wanted_distance_m);
        Ok(Illuminance { illuminance_lx })
    }
}

#[derive(Deserialize, ToSchema)]
pub(super) struct LightingRatio {
    #[schema(minimum = 0.0, maximum = 1_000_000.0)]
    key_lx: f64,
    #[schema(exclusive_minimum = 0.0, maximum = 1_000_000.0)]
    fill_lx: f64,
}

#[derive(Serialize)]
pub(super) struct Ratio {
    ratio: f64,
    stops: f64,
}

impl Calculate for LightingRatio {
    const NAME: &'static str = "lighting-ratio";
    const FORMULA: &'static str = "(key + fill) : fill; stops = log2; fill is all light on the shadow side";
    const SOURCE: &'static str = "definition of the studio lighting ratio";
    type Output = Ratio;

    fn calculate(self) -> Result<Ratio, Problem> {
        let (ratio, stops) = lighting_ratio(self.key_lx, self.fill_lx);
        // A fill so faint that the quotient leaves the numbers has no ratio.
        if !ratio.is_finite() {
            let accepted = "a fill that is not vanishing beside the key";
            return Err(Problem::new("fill_lx", self.fill_lx, accepted, crate::problem::Code::OutOfRange));
        }
        Ok(Ratio { ratio, stops })
    }
}

#[derive(Deserialize, ToSchema)]
pub(super) struct PolygonIlluminance {
    #[schema(minimum = 0.0, maximum = 100_000_000.0)]
    luminance_cd_m2: f64,
    #[schema(min_items = 3, max_items = 64)]
    polygon_m: Vec<Point3>,
    point_m: Point3,
    normal: Point3,
}

impl Calculate for PolygonIlluminance {
    const NAME: &'static str = "polygon-illuminance";
    const FORMULA: &'static str = "E = L/2 abs(sum of Gamma_i (n . g_i)) over the edges clipped at the receiver's horizon; emits to the side from which its corners run counter-clockwise";
    const SOURCE: &'static str = "Lambert 1760; Baum, Rushmeier and Winget 1989; Arvo 1995 (from memory)";
    type Output = Illuminance;

    fn calculate(self) -> Result<Illuminance, Problem> {
        let corners: Vec<DVec3> = self.polygon_m.iter().map(|p| DVec3::from(*p)).collect();
        let refused =
            |value: String, accepted: &str, code: Code| Err(Problem::new("polygon_m", value, accepted, code));
        let (normal, area) = face_normal(&corners);
        if area < AREA_M2 {
            return refused(
                format!("an area of {area:e} m2"),
                "corners that span 1e-8 m2 and more",
                Code::DegeneratePolygon,
            );
        }
        let middle = corners.iter().sum::<DVec3>() / corners.len() as f64;
        let off = corners.iter().map(|c| normal.dot(*c - middle).abs()).fold(0.0, f64::max);
        if off > PLANAR_M {
            return refused(
                format!("a corner {off:.4} m out of the plane"),
                "corners within 1 mm of one plane",
                Code::NotPlanar,
            );
        }
        let turns = |i: usize| {
            let at = |k: usize| corners[(i + k) % corners.len()];
            (at(1) - at(0)).cross(at(2) - at(1)).dot(normal)
        };
        if (0..corners.len()).any(|i| turns(i) < -1e-9) {
            return refused("a corner that juts inwards".into(), "a convex polygon", Code::NotConvex);
        }
        let Some(receiver) = DVec3::from(self.normal).try_normalize() else {
            return Err(Problem::new("normal", "[0, 0, 0]", "a vector that has a length", Code::NotPositive));
        };
        let point = DVec3::from(self.point_m);
        // Dark behind it, and in its plane.
        let lit = normal.dot(point - middle) > 0.0;
        let illuminance_lx =
            if lit { polygon_illuminance(self.luminance_cd_m2, &corners, point, receiver) } else { 0.0 };
        Ok(Illuminance { illuminance_lx })
    }
}

#[derive(Deserialize, ToSchema)]
pub(super) struct DiscIlluminance {
    #[schema(minimum = 0.0, maximum = 100_000_000.0)]
    luminance_cd_m2: f64,
    #[schema(minimum = 0.01, maximum = 50.0)]
    radius_m: f64,
    #[schema(minimum = 0.01, maximum = 50.0)]
    distance_m: f64,
}

impl Calculate for DiscIlluminance {
    const NAME: &'static str = "disc-illuminance";
    const FORMULA: &'static str = "E = pi L r^2 / (r^2 + d^2), on axis";
    const SOURCE: &'static str =
        "configuration factor of a coaxial disc (Hamilton and Morgan 1952, from memory)";
    type Output = Illuminance;

    fn calculate(self) -> Result<Illuminance, Problem> {
        let illuminance_lx = disc_illuminance_lx(self.luminance_cd_m2, self.radius_m, self.distance_m);
        Ok(Illuminance { illuminance_lx })
    }
}

#[derive(Deserialize, ToSchema)]
pub(super) struct RingIlluminance {
    #[schema(minimum = 0.0, maximum = 100_000_000.0)]
    luminance_cd_m2: f64,
    #[schema(minimum = 0.01, maximum = 50.0)]
    outer_radius_m: f64,
    #[schema(minimum = 0.0, maximum = 50.0)]
    inner_radius_m: f64,
    #[schema(minimum = 0.01, maximum = 50.0)]
    distance_m: f64,
}

impl Calculate for RingIlluminance {
    const NAME: &'static str = "ring-illuminance";
    const FORMULA: &'static str = "disc of the outer radius - disc of the inner one, on axis";
    const SOURCE: &'static str =
        "configuration factor of a coaxial disc (Hamilton and Morgan 1952, from memory)";
    type Output = Illuminance;

    fn calculate(self) -> Result<Illuminance, Problem> {
        if self.inner_radius_m >= self.outer_radius_m {
            let accepted = format!("0 to less than outer_radius_m, {}", self.outer_radius_m);
            return Err(Problem::new("inner_radius_m", self.inner_radius_m, accepted, Code::InnerNotSmaller));
        }
        let disc = |radius: f64| disc_illuminance_lx(self.luminance_cd_m2, radius, self.distance_m);
        Ok(Illuminance { illuminance_lx: disc(self.outer_radius_m) - disc(self.inner_radius_m) })
    }
}

#[derive(Deserialize, ToSchema)]
pub(super) struct SourceAngularSize {
    #[schema(minimum = 0.01, maximum = 50.0)]
    diameter_m: f64,
    #[schema(minimum = 0.01, maximum = 50.0)]
    distance_m: f64,
}

#[derive(Serialize)]
pub(super) struct Angle {
    angle_deg: f64,
}

impl Calculate for SourceAngularSize {
    const NAME: &'static str = "source-angular-size";
    const FORMULA: &'static str = "2 atan(D / 2d)";
    const SOURCE: &'static str = "geometry";
    type Output = Angle;

    fn calculate(self) -> Result<Angle, Problem> {
        Ok(Angle { angle_deg: angular_size_deg(self.diameter_m, self.distance_m) })
    }
}

#[derive(Deserialize, ToSchema)]
pub(super) struct Penumbra {
    #[schema(minimum = 0.01, maximum = 50.0)]
    source_diameter_m: f64,
    #[schema(minimum = 0.01, maximum = 50.0)]
    source_to_edge_m: f64,
    #[schema(minimum = 0.0, maximum = 50.0)]
    edge_to_surface_m: f64,
}

#[derive(Serialize)]
pub(super) struct Width {
    width_m: f64,
}

impl Calculate for Penumbra {
    const NAME: &'static str = "penumbra";
    const FORMULA: &'static str = "D t / d";
    const SOURCE: &'static str = "similar triangles";
    type Output = Width;

    fn calculate(self) -> Result<Width, Problem> {
        let width_m = penumbra_m(self.source_diameter_m, self.source_to_edge_m, self.edge_to_surface_m);
        Ok(Width { width_m })
    }
}

#[derive(Deserialize, ToSchema)]
pub(super) struct RoomBounce {
    #[schema(min_items = 3, max_items = 3)]
    dimensions_m: Vec<Side>,
    #[schema(minimum = 0.0, maximum = 500_000.0)]
    flux_lm: f64,
    #[schema(minimum = 0.0, exclusive_maximum = 1.0)]
    mean_reflectance: f64,
}

#[derive(Serialize)]
pub(super) struct Indirect {
    indirect_illuminance_lx: f64,
}

impl Calculate for RoomBounce {
    const NAME: &'static str = "room-bounce";
    const FORMULA: &'static str = "E = F rho / (A (1 - rho)), A all six surfaces";
    const SOURCE: &'static str = "Sumpner 1892, integrating sphere (from memory)";
    type Output = Indirect;

    fn calculate(self) -> Result<Indirect, Problem> {
        let side = |i: usize| self.dimensions_m.get(i).map_or(0.0, |side| side.0);
        let (w, d, h) = (side(0), side(1), side(2));
        let surface_m2 = 2.0 * (w * d + w * h + d * h);
        let indirect_illuminance_lx = bounce_estimate_lx(self.flux_lm, surface_m2, self.mean_reflectance);
        // A reflectance so near to 1 that nothing is lost has no end.
        if !indirect_illuminance_lx.is_finite() {
            let accepted = "0 to less than 1, by more than rounding";
            return Err(Problem::new("mean_reflectance", self.mean_reflectance, accepted, Code::OutOfRange));
        }
        Ok(Indirect { indirect_illuminance_lx })
    }
}

#[derive(Deserialize, ToSchema)]
pub(super) struct FillFor {
    #[schema(minimum = 0.0, maximum = 1_000_000.0)]
    key_lx: f64,
    #[schema(minimum = 0.0, maximum = 1_000_000.0)]
    ambient_lx: f64,
    #[schema(minimum = 0.0, maximum = 1_000_000.0)]
    wanted_ratio: f64,
}

impl Calculate for FillFor {
    const NAME: &'static str = "fill-needed";
    const FORMULA: &'static str =
        "K / (R - 1) - ambient, never below 0; most without fill (K + ambient) / ambient";
    const SOURCE: &'static str = "definition of the studio lighting ratio";
    type Output = FillNeeded;

    fn calculate(self) -> Result<FillNeeded, Problem> {
        if self.wanted_ratio <= 1.0 {
            let accepted = "more than 1, to 1000000";
            return Err(Problem::new("wanted_ratio", self.wanted_ratio, accepted, Code::RatioNotAboveOne));
        }
        let found = fill_needed(self.key_lx, self.ambient_lx, self.wanted_ratio);
        if !found.max_reachable_ratio.is_none_or(f64::is_finite) {
            let accepted = "0, or light that is not vanishing beside the key";
            return Err(Problem::new("ambient_lx", self.ambient_lx, accepted, Code::OutOfRange));
        }
        Ok(found)
    }
}

crate::shape!(
    InverseSquare,
    LightingRatio,
    PolygonIlluminance,
    DiscIlluminance,
    RingIlluminance,
    SourceAngularSize,
    Penumbra,
    RoomBounce,
    FillFor
);
