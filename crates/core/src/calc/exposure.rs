//! Calculations of exposure, shutter and noise.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::Calculate;
use crate::exposure::{
    CALIBRATION, ev100, flicker_free_shutters_s, full_frame_iso, illuminance_needed_lx,
    stops_behind_full_frame,
};
use crate::problem::{Code, Problem};

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

#[derive(Deserialize, ToSchema)]
pub(super) struct FlickerFreeShutters {
    #[schema(minimum = 50.0, maximum = 60.0, multiple_of = 10.0)]
    mains_hz: f64,
    #[schema(minimum = 1.0, maximum = 240.0)]
    frame_rate_hz: f64,
}

#[derive(Serialize)]
pub(super) struct Shutters {
    shutters_s: Vec<f64>,
}

impl Calculate for FlickerFreeShutters {
    const NAME: &'static str = "flicker-free-shutters";
    const FORMULA: &'static str = "n / (2 mains), n = 1 .. floor(2 mains / rate)";
    const SOURCE: &'static str = "whole pulses of light in one exposure; mains lamps pulse twice a cycle";
    type Output = Shutters;

    fn calculate(self) -> Result<Shutters, Problem> {
        let shutters_s = flicker_free_shutters_s(self.mains_hz, self.frame_rate_hz);
        if shutters_s.is_empty() {
            let accepted = format!("at most {} Hz, twice the mains", 2.0 * self.mains_hz);
            return Err(Problem::new(
                "frame_rate_hz",
                self.frame_rate_hz,
                accepted,
                Code::NoFlickerFreeShutter,
            ));
        }
        Ok(Shutters { shutters_s })
    }

    fn refused(problem: Problem) -> Problem {
        match problem.code {
            Code::OutOfRange | Code::NotPositive if problem.field == "mains_hz" => {
                Problem { code: Code::UnsupportedMainsFrequency, ..problem }
            }
            _ => problem,
        }
    }
}

#[derive(Deserialize, ToSchema)]
pub(super) struct NoiseStops {
    #[schema(minimum = 1.0, maximum = 70.0)]
    sensor_width_mm: f64,
    #[schema(minimum = 1.0, maximum = 70.0)]
    sensor_height_mm: f64,
    #[schema(minimum = 25.0, maximum = 409_600.0)]
    iso: f64,
}

#[derive(Serialize)]
pub(super) struct Noise {
    stops_behind_full_frame: f64,
    full_frame_equivalent_iso: f64,
}

impl Calculate for NoiseStops {
    const NAME: &'static str = "noise-stops";
    const FORMULA: &'static str = "log2(729 / (W H)); ISO x 729 / (W H); 729 mm2 is 36 x 20.25 mm";
    const SOURCE: &'static str =
        "photon noise over the whole picture; half a stop between sensor generations";
    type Output = Noise;

    fn calculate(self) -> Result<Noise, Problem> {
        let (width, height) = (self.sensor_width_mm, self.sensor_height_mm);
        Ok(Noise {
            stops_behind_full_frame: stops_behind_full_frame(width, height),
            full_frame_equivalent_iso: full_frame_iso(self.iso, width, height),
        })
    }
}

crate::shape!(ExposureIlluminance, FlickerFreeShutters, NoiseStops);
