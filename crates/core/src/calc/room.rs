//! Calculations of the room: floor marks and stands.

use serde::Deserialize;
use utoipa::ToSchema;

use super::Calculate;
use crate::problem::{Code, Problem};
use crate::room::{TapeMark, Tipping, stand_tipping, tape_mark};

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

crate::shape!(TapeMarkAt, StandTipping);
