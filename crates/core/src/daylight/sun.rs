//! Where the sun stands: the solar position algorithm of NREL (Reda and Andreas, NREL/TP-560-34302), by a crate kept for it.

use serde::Serialize;
use solar_positioning::time::JulianDate;
use solar_positioning::{Horizon, Location, RefractionCorrection, SolarEvents, SolarPositions, delta_t};

use utoipa::ToSchema;

use crate::geometry::{DVec3, bearing_of, bearing_vector};

/// The epoch of Unix time as a Julian date, and seconds of a day.
const UNIX_EPOCH_JD: f64 = 2_440_587.5;
pub(super) const DAY_S: f64 = 86_400.0;
/// Years that are answered for.
pub const YEARS: std::ops::RangeInclusive<i16> = 1900..=2100;

/// The sun in the sky as it is seen: its light bent by the air.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
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

/// Between two positions that are kept of a path, s.
const KEPT_S: f64 = 1800.0;
/// Where the air's bending is counted from: the sun's radius and the bending at the horizon below it, degrees.
const BENT_FROM_DEG: f64 = -0.83337;

/// The sun over a place through a stretch of time, for who asks often: every half hour by the algorithm, between by the cubic
/// through the four nearest, within 0.001 degrees of it.
#[derive(Debug, Clone)]
pub struct SunPath {
    first_s: f64,
    /// Unit vectors east, north and up, without the air's bending.
    towards: Vec<DVec3>,
    air: Air,
}

impl SunPath {
    /// Over a place, degrees north and east, from a time to another, s since 1970 UTC; none where place or time is none that is known.
    pub fn over((latitude_deg, longitude_deg): (f64, f64), (from_s, to_s): (i64, i64)) -> Option<Self> {
        let location = Location { latitude: latitude_deg, longitude: longitude_deg };
        let air = Air::usual(from_s as f64);
        let first_s = from_s as f64 - KEPT_S;
        let count = ((to_s - from_s) as f64 / KEPT_S).ceil() as usize + 4;
        let towards = (0..count).map(|step| {
            let unix_s = first_s + step as f64 * KEPT_S;
            let time = JulianDate::new(UNIX_EPOCH_JD + unix_s / DAY_S, air.delta_t_s).ok()?;
            let found = SolarPositions::new().at_from_julian(time, location, air.elevation_m, None).ok()?;
            let (sin, cos) = found.elevation_angle().to_radians().sin_cos();
            Some(bearing_vector(found.azimuth()) * cos + DVec3::Z * sin)
        });
        Some(Self { first_s, towards: towards.collect::<Option<_>>()?, air })
    }

    /// The sun at a time of the stretch.
    pub fn at(&self, unix_s: i64) -> Sun {
        let towards = self.towards(unix_s);
        let true_deg = towards.z.clamp(-1.0, 1.0).asin().to_degrees();
        Sun { azimuth_deg: bearing_of(towards), elevation_deg: true_deg + self.air.bending_deg(true_deg) }
    }

    /// How high it stands, degrees, without the air's bending.
    pub fn true_elevation_deg(&self, unix_s: i64) -> f64 {
        self.towards(unix_s).z.clamp(-1.0, 1.0).asin().to_degrees()
    }

    fn towards(&self, unix_s: i64) -> DVec3 {
        let at = (unix_s as f64 - self.first_s) / KEPT_S;
        let low = (at as usize).clamp(1, self.towards.len() - 3);
        let t = at - low as f64;
        let weights = [
            -t * (t - 1.0) * (t - 2.0) / 6.0,
            (t + 1.0) * (t - 1.0) * (t - 2.0) / 2.0,
            -(t + 1.0) * t * (t - 2.0) / 2.0,
            (t + 1.0) * t * (t - 1.0) / 6.0,
        ];
        let nodes = self.towards[low - 1..].iter().zip(weights);
        nodes.map(|(towards, weight)| *towards * weight).sum::<DVec3>().normalize_or_zero()
    }
}

impl Air {
    /// How much higher the sun is seen than it stands, degrees (Reda and Andreas, as above).
    fn bending_deg(&self, true_deg: f64) -> f64 {
        if true_deg < BENT_FROM_DEG {
            return 0.0;
        }
        let by_air = self.pressure_hpa / 1010.0 * 283.0 / (273.0 + self.temperature_c);
        by_air * 1.02 / (60.0 * (true_deg + 10.3 / (true_deg + 5.11)).to_radians().tan())
    }
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
