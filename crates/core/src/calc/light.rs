//! Calculations of light.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::Calculate;
use crate::light::{inverse_square_lx, lighting_ratio};
use crate::problem::Problem;

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

crate::shape!(InverseSquare, LightingRatio);
