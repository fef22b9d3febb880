//! Where the sun stands: the solar position algorithm of NREL (Reda and Andreas, NREL/TP-560-34302), by a crate kept for it.

use solar_positioning::time::JulianDate;
use solar_positioning::{Location, RefractionCorrection, SolarPositions, delta_t};

/// The epoch of Unix time as a Julian date, and seconds of a day.
const UNIX_EPOCH_JD: f64 = 2_440_587.5;
pub(super) const DAY_S: f64 = 86_400.0;
/// Years that are answered for.
pub const YEARS: std::ops::RangeInclusive<i16> = 1900..=2100;

/// The sun in the sky as it is seen: its light bent by the air.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Sun {
    /// Degrees clockwise from true north, 0 to 360.
    pub azimuth_deg: f64,
    /// Degrees over the horizon, negative below.
    pub elevation_deg: f64,
}

/// The air over a place, and how far the earth's turn lags behind even time.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Air {
    /// Height above the sea, m.
    pub elevation_m: f64,
    /// Pressure, hPa.
    pub pressure_hpa: f64,
    /// Temperature, degrees Celsius.
    pub temperature_c: f64,
    /// Terrestrial less universal time, s.
    pub delta_t_s: f64,
}

impl Air {
    /// Usual air at the sea in a year: 1013.25 hPa, 12 degrees.
    pub fn usual(unix_s: f64) -> Self {
        let year = 1970.0 + unix_s / (365.2425 * DAY_S);
        let delta_t_s = delta_t::estimate(year).unwrap_or(69.0);
        Self { elevation_m: 0.0, pressure_hpa: 1013.25, temperature_c: 12.0, delta_t_s }
    }
}

/// The sun over a place (degrees north and east) at a time, s since 1970 UTC; none where the place or the time is none that the
/// algorithm knows.
pub fn sun_at(latitude_deg: f64, longitude_deg: f64, unix_s: f64, air: Air) -> Option<Sun> {
    let refraction = RefractionCorrection::new(air.pressure_hpa, air.temperature_c).ok()?;
    let location = Location { latitude: latitude_deg, longitude: longitude_deg };
    let time = JulianDate::new(UNIX_EPOCH_JD + unix_s / DAY_S, air.delta_t_s).ok()?;
    let found =
        SolarPositions::new().at_from_julian(time, location, air.elevation_m, Some(refraction)).ok()?;
    Some(Sun { azimuth_deg: found.azimuth(), elevation_deg: found.elevation_angle() })
}
