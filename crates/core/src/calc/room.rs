//! Calculations of the room: floor marks and stands.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::Calculate;
use crate::problem::{Code, Problem};
use crate::room::{TapeMark, Tipping, load_a, stand_tipping, tape_mark};

#[derive(Deserialize, ToSchema)]
pub(super) struct TapeMarkAt {
    #[schema(minimum = 0.5, maximum = 50.0)]
    room_width_m: f64,
    #[schema(minimum = 0.5, maximum = 50.0)]
    room_depth_m: f64,
    #[schema(minimum = 0.0, maximum = 50.0)]
    x_m: f64,
    #[schema(minimum = 0.0, maximum = 50.0)]
    y_m: f64,
    #[schema(minimum = 0.0, maximum = 1.0)]
    tape_error_m: Option<f64>,
}

impl Calculate for TapeMarkAt {
    const NAME: &'static str = "tape-mark";
    const FORMULA: &'static str = "x; y; sqrt(x^2 + y^2); sqrt((w - x)^2 + y^2); error / min(sin(g/2), cos(g/2)), g = angle at the mark between the back corners";
    const SOURCE: &'static str = "plane geometry";
    type Output = TapeMark;

    fn calculate(self) -> Result<TapeMark, Problem> {
        for (field, value, most) in
            [("x_m", self.x_m, self.room_width_m), ("y_m", self.y_m, self.room_depth_m)]
        {
            if value > most * (1.0 + 1e-9) {
                return Err(Problem::new(
                    field,
                    value,
                    format!("0 to {most}, inside the room"),
                    Code::OutOfRange,
                ));
            }
        }
        Ok(tape_mark(self.room_width_m, self.x_m, self.y_m, self.tape_error_m.unwrap_or(0.01)))
    }
}

#[derive(Deserialize, ToSchema)]
pub(super) struct StandTipping {
    #[schema(minimum = 0.01, maximum = 50.0)]
    foot_circle_radius_m: f64,
    #[schema(min_items = 1)]
    parts: Vec<StandPart>,
    #[schema(minimum = 0.0, maximum = 10_000.0)]
    knock_force_n: Option<f64>,
    #[schema(minimum = 0.0, maximum = 50.0)]
    knock_height_m: Option<f64>,
    #[schema(minimum = 0.0, maximum = 50.0)]
    bag_offset_behind_column_m: Option<f64>,
    #[schema(minimum = 1.0, maximum = 10.0)]
    safety_factor: Option<f64>,
}

#[derive(Deserialize, ToSchema)]
struct StandPart {
    #[schema(minimum = 0.0, maximum = 500.0)]
    mass_kg: f64,
    #[schema(minimum = -50.0, maximum = 50.0)]
    offset_m: f64,
}

impl Calculate for StandTipping {
    const NAME: &'static str = "stand-tipping";
    const FORMULA: &'static str = "arm a = R/2; over = sum m max(x - a, 0) + F h / g; restoring = sum m max(a - x, 0); bag = max(0, (factor x over - restoring) / (a + bag offset))";
    const SOURCE: &'static str = "rigid-body statics; g 9.80665 m/s2; the factor is Fogon's own rule";
    type Output = Tipping;

    fn calculate(self) -> Result<Tipping, Problem> {
        let offset = self.bag_offset_behind_column_m.unwrap_or(0.0);
        let most = self.foot_circle_radius_m / 2.0;
        if offset > most * (1.0 + 1e-9) {
            let accepted = format!("0 to {most}, half the foot radius");
            return Err(Problem::new("bag_offset_behind_column_m", offset, accepted, Code::OutOfRange));
        }
        let parts: Vec<(f64, f64)> = self.parts.iter().map(|p| (p.mass_kg, p.offset_m)).collect();
        Ok(stand_tipping(
            self.foot_circle_radius_m,
            &parts,
            self.knock_force_n.unwrap_or(0.0),
            self.knock_height_m.unwrap_or(0.0),
            offset,
            self.safety_factor.unwrap_or(1.5),
        ))
    }
}

#[derive(Deserialize, ToSchema)]
pub(super) struct CircuitLoad {
    #[schema(min_items = 1, max_items = 64)]
    watts: Vec<Watts>,
    #[schema(minimum = 1.0, maximum = 1000.0)]
    volts: f64,
    #[schema(minimum = 0.1, maximum = 1000.0)]
    breaker_a: f64,
    #[schema(exclusive_minimum = 0.0, maximum = 1.0)]
    power_factor: Option<f64>,
}

/// Power of one thing, W.
#[derive(Clone, Copy, Deserialize, ToSchema)]
#[schema(minimum = 0.0, maximum = 100_000.0)]
struct Watts(f64);

#[derive(Serialize)]
pub(super) struct Load {
    load_a: f64,
    fraction: f64,
    within_80_percent: bool,
}

impl Calculate for CircuitLoad {
    const NAME: &'static str = "circuit-load";
    const FORMULA: &'static str = "I = sum of W / (V x power factor); fraction = I / breaker";
    const SOURCE: &'static str =
        "circuit arithmetic; 80 % for hours of load: NFPA 70 (NEC) 210.20(A) from memory; local code rules";
    type Output = Load;

    fn calculate(self) -> Result<Load, Problem> {
        let factor = self.power_factor.unwrap_or(1.0);
        let load_a = load_a(self.watts.iter().map(|w| w.0).sum(), self.volts, factor);
        let fraction = load_a / self.breaker_a;
        if !fraction.is_finite() {
            let accepted = "0 to 1, by more than rounding";
            return Err(Problem::new("power_factor", factor, accepted, Code::OutOfRange));
        }
        Ok(Load { load_a, fraction, within_80_percent: fraction <= 0.8 + 1e-9 })
    }
}

crate::shape!(TapeMarkAt, StandTipping, CircuitLoad);
