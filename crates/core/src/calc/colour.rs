//! Calculations of colour.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::Calculate;
use crate::colour::{Xy, cct_duv, mired_shift, mixed_xy, xy_at};
use crate::problem::{Code, Problem};

#[derive(Deserialize, ToSchema)]
pub(super) struct MiredShift {
    #[schema(minimum = 1000.0, maximum = 25_000.0)]
    from_k: f64,
    #[schema(minimum = 1000.0, maximum = 25_000.0)]
    to_k: f64,
}

#[derive(Serialize)]
pub(super) struct Mired {
    mired: f64,
}

impl Calculate for MiredShift {
    const NAME: &'static str = "mired-shift";
    const FORMULA: &'static str = "1e6 / to - 1e6 / from; positive is warmer";
    const SOURCE: &'static str = "definition of the mired";
    type Output = Mired;

    fn calculate(self) -> Result<Mired, Problem> {
        Ok(Mired { mired: mired_shift(self.from_k, self.to_k) })
    }
}

#[derive(Deserialize, ToSchema)]
pub(super) struct ColourTemperature {
    #[schema(exclusive_minimum = 0.0, exclusive_maximum = 1.0)]
    x: f64,
    #[schema(exclusive_minimum = 0.0, exclusive_maximum = 1.0)]
    y: f64,
}

#[derive(Serialize)]
pub(super) struct Temperature {
    cct_k: f64,
    duv: f64,
}

impl Calculate for ColourTemperature {
    const NAME: &'static str = "colour-temperature";
    const FORMULA: &'static str = "nearest point of the Planckian locus in CIE 1960 (u, v), 2-degree observer; duv positive on the green side";
    const SOURCE: &'static str = "CIE 015 (from memory); Planck's law with c2 = 0.01438776877 m K";
    type Output = Temperature;

    fn calculate(self) -> Result<Temperature, Problem> {
        temperature([self.x, self.y])
    }
}

fn temperature([x, y]: Xy) -> Result<Temperature, Problem> {
    let found = if x + y < 1.0 { cct_duv([x, y]) } else { None };
    let (cct_k, duv) = found.ok_or_else(|| {
        let accepted =
            "a chromaticity within 0.05 of the Planckian locus in CIE 1960 (u, v), 800 to 100000 K";
        Problem::new("x", format!("{x}, {y}"), accepted, Code::ChromaticityTooFarFromLocus)
    })?;
    Ok(Temperature { cct_k, duv })
}

#[derive(Deserialize, ToSchema)]
pub(super) struct MixColour {
    #[schema(min_items = 1, max_items = 64)]
    lights: Vec<ColourPart>,
}

#[derive(Deserialize, ToSchema)]
struct ColourPart {
    #[schema(minimum = 1000.0, maximum = 25_000.0)]
    cct_k: f64,
    #[schema(minimum = -0.05, maximum = 0.05)]
    duv: Option<f64>,
    #[schema(minimum = 0.0, maximum = 1_000_000.0)]
    illuminance_lx: f64,
}

#[derive(Serialize)]
pub(super) struct Mixed {
    x: f64,
    y: f64,
    cct_k: f64,
    duv: f64,
}

impl Calculate for MixColour {
    const NAME: &'static str = "mix-colour";
    const FORMULA: &'static str =
        "X = x Y / y, Z = (1 - x - y) Y / y, Y = illuminance; sums, then colour temperature";
    const SOURCE: &'static str = "CIE 015 (from memory); kelvins are never averaged";
    type Output = Mixed;

    fn calculate(self) -> Result<Mixed, Problem> {
        let lights = self.lights.iter().map(|l| (xy_at(l.cct_k, l.duv.unwrap_or(0.0)), l.illuminance_lx));
        let [x, y] = mixed_xy(lights).ok_or_else(|| {
            Problem::new("lights", "all dark", "one light at least that gives some", Code::OutOfRange)
        })?;
        let Temperature { cct_k, duv } = temperature([x, y])?;
        Ok(Mixed { x, y, cct_k, duv })
    }
}

crate::shape!(MiredShift, ColourTemperature, MixColour);
