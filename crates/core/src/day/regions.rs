//! A few places to pick from: middles of countries and large regions, in general terms.

use serde::Serialize;
use utoipa::ToSchema;

/// A place to pick.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct Region {
    /// What it is called.
    pub name: &'static str,
    /// Degrees north.
    pub latitude_deg: f64,
    /// Degrees east.
    pub longitude_deg: f64,
    /// Its time zone.
    pub time_zone: &'static str,
}

const fn region(
    name: &'static str,
    latitude_deg: f64,
    longitude_deg: f64,
    time_zone: &'static str,
) -> Region {
    Region { name, latitude_deg, longitude_deg, time_zone }
}

/// Regions, to the nearest degree or so (from memory), by name.
pub const REGIONS: [Region; 40] = [
    region("Alaska", 64.0, -150.0, "America/Anchorage"),
    region("Argentina, middle", -34.0, -64.0, "America/Argentina/Cordoba"),
    region("Australia, east", -32.0, 149.0, "Australia/Sydney"),
    region("Australia, west", -31.0, 117.0, "Australia/Perth"),
    region("Austria", 47.5, 14.0, "Europe/Vienna"),
    region("Brazil, north-east", -8.0, -38.0, "America/Recife"),
    region("Brazil, south-east", -22.0, -46.0, "America/Sao_Paulo"),
    region("Canada, east", 46.0, -75.0, "America/Toronto"),
    region("Canada, west", 51.0, -122.0, "America/Vancouver"),
    region("Chile, middle", -34.0, -71.0, "America/Santiago"),
    region("China, east", 32.0, 118.0, "Asia/Shanghai"),
    region("Colombia", 4.5, -74.0, "America/Bogota"),
    region("Ecuador, highlands", -1.0, -78.5, "America/Guayaquil"),
    region("Egypt", 28.0, 31.0, "Africa/Cairo"),
    region("Finland, south", 61.5, 25.0, "Europe/Helsinki"),
    region("France", 46.5, 2.5, "Europe/Paris"),
    region("Germany", 51.0, 10.0, "Europe/Berlin"),
    region("Great Britain, south", 52.0, -1.0, "Europe/London"),
    region("Greece", 39.0, 22.0, "Europe/Athens"),
    region("Iceland", 65.0, -19.0, "Atlantic/Reykjavik"),
    region("India, north", 27.0, 78.0, "Asia/Kolkata"),
    region("India, south", 13.0, 78.0, "Asia/Kolkata"),
    region("Indonesia, Java", -7.0, 110.0, "Asia/Jakarta"),
    region("Italy", 42.5, 12.5, "Europe/Rome"),
    region("Japan", 36.0, 138.0, "Asia/Tokyo"),
    region("Kenya", 0.0, 38.0, "Africa/Nairobi"),
    region("Mexico, middle", 20.0, -100.0, "America/Mexico_City"),
    region("New Zealand, north", -38.0, 176.0, "Pacific/Auckland"),
    region("Nigeria", 9.0, 8.0, "Africa/Lagos"),
    region("Norway, north", 69.5, 19.0, "Europe/Oslo"),
    region("Norway, south", 60.0, 10.0, "Europe/Oslo"),
    region("Poland", 52.0, 19.0, "Europe/Warsaw"),
    region("Portugal", 39.5, -8.0, "Europe/Lisbon"),
    region("South Africa", -29.0, 25.0, "Africa/Johannesburg"),
    region("Spain", 40.0, -4.0, "Europe/Madrid"),
    region("Turkey", 39.0, 35.0, "Europe/Istanbul"),
    region("United States, east", 40.0, -76.0, "America/New_York"),
    region("United States, middle", 39.0, -94.0, "America/Chicago"),
    region("United States, mountains", 40.0, -106.0, "America/Denver"),
    region("United States, west", 37.0, -120.0, "America/Los_Angeles"),
];
