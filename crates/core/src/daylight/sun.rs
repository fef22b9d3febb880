//! Where the sun stands: the solar position algorithm of NREL (Reda and Andreas, NREL/TP-560-34302), by a crate kept for it.

use solar_positioning::time::JulianDate;
use solar_positioning::{Horizon, Location, RefractionCorrection, SolarEvents, SolarPositions, delta_t};

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

/// When the sun crosses a height in a stretch of time.
#[derive(Debug, Clone, Default, PartialEq, Eq)]
pub struct Crossings {
    /// Where it rises above it, s since 1970 UTC, ascending.
    pub rises_s: Vec<i64>,
    /// Where it sinks below it.
    pub sets_s: Vec<i64>,
    /// It stays above all the time.
    pub always_above: bool,
    /// It stays below all the time.
    pub always_below: bool,
}

/// When the sun rises and sets over a place (degrees north and east) from a time to another, s since 1970 UTC: its upper limb at the
/// horizon with the air's usual bending, or its middle at a true elevation. None where place or time is none that is known.
pub fn crossings(
    (latitude_deg, longitude_deg): (f64, f64),
    (from_s, to_s): (i64, i64),
    elevation_deg: Option<f64>,
) -> Option<Crossings> {
    let location = Location { latitude: latitude_deg, longitude: longitude_deg };
    let jd = |unix_s: i64| UNIX_EPOCH_JD + unix_s as f64 / DAY_S;
    let horizon = elevation_deg.map_or(Horizon::SunriseSunset, Horizon::Custom);
    let delta_t_s = Air::usual(from_s as f64).delta_t_s;
    let found = SolarEvents::new()
        .for_interval_from_julian(jd(from_s), jd(to_s), location, delta_t_s, horizon)
        .ok()?;
    let unix = |all: &[f64]| all.iter().map(|jd| ((jd - UNIX_EPOCH_JD) * DAY_S).round() as i64).collect();
    Some(Crossings {
        rises_s: unix(&found.rises),
        sets_s: unix(&found.sets),
        always_above: found.always_above(),
        always_below: found.always_below(),
    })
}
