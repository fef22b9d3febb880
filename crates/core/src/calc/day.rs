//! Calculations of the day: sun, its patch, daylight.

use jiff::Timestamp;
use jiff::civil::DateTime;
use jiff::tz::TimeZone;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::Calculate;
use crate::daylight::{
    Air, FloorPatch, YEARS, daylight_factor_percent, floor_patch, overcast_window, sun_at,
};
use crate::photometry::sky;
use crate::problem::{Code, Problem};

/// The Julian centuries' usual difference between even time and the earth's turn, s.
const DELTA_T_S: f64 = 67.0;

#[derive(Deserialize, ToSchema)]
pub(super) struct SunPosition {
    #[schema(max_length = 64)]
    time: String,
    #[schema(minimum = -90.0, maximum = 90.0)]
    latitude_deg: f64,
    #[schema(minimum = -180.0, maximum = 180.0)]
    longitude_deg: f64,
    #[schema(minimum = -500.0, maximum = 9000.0)]
    elevation_m: Option<f64>,
    #[schema(minimum = 300.0, maximum = 1100.0)]
    pressure_hpa: Option<f64>,
    #[schema(minimum = -60.0, maximum = 60.0)]
    temperature_c: Option<f64>,
    #[schema(minimum = -1000.0, maximum = 1000.0)]
    delta_t_s: Option<f64>,
}

#[derive(Serialize)]
pub(super) struct SunSeen {
    azimuth_deg: f64,
    zenith_deg: f64,
}

/// A time as `2026-11-28T12:30:00+01:00`, s since 1970 UTC.
fn time_s(text: &str) -> Result<f64, Problem> {
    const ACCEPTED: &str = "a date and time with its offset from UTC, as 2026-11-28T12:30:00+01:00";
    let refused = |accepted: &str, code: Code| Problem::new("time", text, accepted, code);
    let time: Timestamp = text.parse().map_err(|_| match text.parse::<DateTime>() {
        Ok(_) => refused(ACCEPTED, Code::TimezoneMissing),
        Err(_) => refused(ACCEPTED, Code::OutOfRange),
    })?;
    if !YEARS.contains(&time.to_zoned_datetime(TimeZone::UTC).year()) {
        return Err(refused("a year from 1900 to 2100, in UTC", Code::OutOfRange));
    }
    Ok(time.as_second() as f64 + f64::from(time.subsec_nanosecond()) / 1e9)
}

impl Calculate for SunPosition {
    const NAME: &'static str = "sun-position";
    const FORMULA: &'static str = "solar position algorithm, apparent: refraction (P / 1010) (283 / (273 + T)) 1.02 / (60 tan(e + 10.3 / (e + 5.11))) above -0.8333 degrees";
    const SOURCE: &'static str = "Reda and Andreas, NREL/TP-560-34302";
    type Output = SunSeen;

    fn calculate(self) -> Result<SunSeen, Problem> {
        let air = Air {
            elevation_m: self.elevation_m.unwrap_or(0.0),
            pressure_hpa: self.pressure_hpa.unwrap_or(1013.25),
            temperature_c: self.temperature_c.unwrap_or(12.0),
            delta_t_s: self.delta_t_s.unwrap_or(DELTA_T_S),
        };
        let time = time_s(&self.time)?;
        let sun = sun_at(self.latitude_deg, self.longitude_deg, time, air).ok_or_else(|| {
            Problem::new("time", &self.time, "a time that the algorithm knows", Code::OutOfRange)
        })?;
        Ok(SunSeen { azimuth_deg: sun.azimuth_deg, zenith_deg: 90.0 - sun.elevation_deg })
    }
}

#[derive(Deserialize, ToSchema)]
pub(super) struct SunPatch {
    #[schema(minimum = 0.01, maximum = 50.0)]
    window_width_m: f64,
    #[schema(minimum = 0.0, maximum = 50.0)]
    #[expect(dead_code, reason = "the patch is as large whatever the sill")]
    sill_m: f64,
    #[schema(minimum = 0.01, maximum = 50.0)]
    window_height_m: f64,
    #[schema(minimum = 0.0, maximum = 50.0)]
    reveal_depth_m: f64,
    #[schema(minimum = -360.0, maximum = 360.0)]
    window_azimuth_deg: f64,
    #[schema(minimum = -360.0, maximum = 360.0)]
    sun_azimuth_deg: f64,
    #[schema(minimum = -90.0, maximum = 90.0)]
    sun_elevation_deg: f64,
}

impl Calculate for SunPatch {
    const NAME: &'static str = "sun-patch";
    const FORMULA: &'static str = "tan W = tan e / cos g, g = sun less window azimuth; w' = w - t |tan g|; h' = h - t tan W; area = w' h' / tan W, whatever the sill";
    const SOURCE: &'static str = "ASHRAE Fundamentals, profile angle, from memory; plane geometry";
    type Output = FloorPatch;

    fn calculate(self) -> Result<FloorPatch, Problem> {
        Ok(floor_patch(
            (self.window_width_m, self.window_height_m),
            self.reveal_depth_m,
            self.window_azimuth_deg,
            self.sun_azimuth_deg,
            self.sun_elevation_deg,
        ))
    }
}

#[derive(Deserialize, ToSchema)]
pub(super) struct DaylightFactor {
    #[schema(minimum = 0.0, maximum = 1.0)]
    glazing_transmittance: f64,
    #[schema(minimum = 0.0, maximum = 10_000.0)]
    glazed_area_m2: f64,
    #[schema(minimum = 0.0, maximum = 180.0)]
    sky_angle_deg: f64,
    #[schema(minimum = 0.0, maximum = 1.0)]
    maintenance_factor: f64,
    #[schema(exclusive_minimum = 0.0, maximum = 100_000.0)]
    total_surface_m2: f64,
    #[schema(minimum = 0.0, exclusive_maximum = 1.0)]
    mean_reflectance: f64,
}

#[derive(Serialize)]
pub(super) struct Percent {
    percent: f64,
}

impl Calculate for DaylightFactor {
    const NAME: &'static str = "daylight-factor";
    const FORMULA: &'static str = "T A t M / (S (1 - R^2)), the visible sky's angle t in degrees";
    const SOURCE: &'static str = "average daylight factor, BS 8206-2:2008, from memory";
    type Output = Percent;

    fn calculate(self) -> Result<Percent, Problem> {
        Ok(Percent {
            percent: daylight_factor_percent(
                self.glazing_transmittance,
                self.glazed_area_m2,
                self.sky_angle_deg,
                self.maintenance_factor,
                self.total_surface_m2,
                self.mean_reflectance,
            ),
        })
    }
}

#[derive(Deserialize, ToSchema)]
pub(super) struct OvercastWindow {
    #[schema(minimum = 0.0, maximum = 1_000_000.0)]
    horizontal_illuminance_lx: f64,
    #[schema(minimum = 0.0, maximum = 1.0)]
    ground_reflectance: Option<f64>,
    #[schema(minimum = 0.0, maximum = 1.0)]
    glass_transmittance: f64,
    #[schema(minimum = 0.01, maximum = 50.0)]
    window_width_m: f64,
    #[schema(minimum = 0.0, maximum = 50.0)]
    sill_m: f64,
    #[schema(minimum = 0.01, maximum = 50.0)]
    window_height_m: f64,
    #[schema(minimum = 0.0, maximum = 50.0)]
    face_height_m: f64,
    #[schema(minimum = 0.01, maximum = 50.0)]
    distance_m: f64,
}

#[derive(Serialize)]
pub(super) struct WindowLight {
    window_luminance_cd_m2: f64,
    illuminance_lx: f64,
}

impl Calculate for OvercastWindow {
    const NAME: &'static str = "overcast-window";
    const FORMULA: &'static str = "L = T E ((pi/6 + 4/9) / (7 pi/9) + ground / 2) / pi; the polygon formula on a face on the window's middle line that looks level towards it";
    const SOURCE: &'static str = "Moon and Spencer 1942, CIE S 011, from memory; Lambert's polygon formula";
    type Output = WindowLight;

    fn calculate(self) -> Result<WindowLight, Problem> {
        let (window_luminance_cd_m2, illuminance_lx) = overcast_window(
            self.horizontal_illuminance_lx,
            self.ground_reflectance.unwrap_or(sky::GROUND),
            self.glass_transmittance,
            (self.window_width_m, self.sill_m, self.window_height_m),
            (self.face_height_m, self.distance_m),
        );
        Ok(WindowLight { window_luminance_cd_m2, illuminance_lx })
    }
}

crate::shape!(SunPosition, SunPatch, DaylightFactor, OvercastWindow);
