//! The windows at one hour, for who draws them.

use jiff::Timestamp;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::placed::placed;
use crate::colour::{Xy, mixed_xy, xy_at};
use crate::corner::{Corner, Pane};
use crate::daylight::hue::{clear_sky_xy, sun_xy};
use crate::daylight::outdoors::{MEAN_DAY, Sky, SkyDome};
use crate::daylight::{Air, YEARS, sun_at};
use crate::geometry::DVec3;
use crate::photometry::sky;
use crate::plan::{Id, Plan, WindowSchool};
use crate::problem::{Code, Problem};

/// A time and a sky.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Hour {
    /// In UTC, as `2026-11-28T12:30:00Z`.
    #[schema(max_length = 40)]
    pub utc: String,
    /// The sky.
    pub sky: Sky,
}

/// What the windows of a corner are at an hour.
#[derive(Debug, Clone, PartialEq)]
pub struct HourLight {
    /// Each with the luminance that the eyes see through it, cd/m2.
    pub windows: Vec<(Id, f64)>,
    /// Chromaticity of that light.
    pub xy: Xy,
    /// The sun's beam, where one comes in.
    pub beam: Option<SunBeam>,
}

/// The sun's beam behind the windows through which it comes.
#[derive(Debug, Clone, PartialEq)]
pub struct SunBeam {
    /// Towards the sun, unit vector.
    pub to_sun: DVec3,
    /// The windows.
    pub panes: Vec<Pane>,
    /// On a surface that faces it, lx.
    pub illuminance_lx: f64,
    /// Its chromaticity.
    pub xy: Xy,
}

/// A plan whose windows count: how it looks at an hour with nothing drawn before them but what the room tells.
pub fn with_windows_open(plan: &Plan) -> Plan {
    let mut brief = plan.brief.clone();
    brief.schools.window = WindowSchool::Key;
    plan.with_brief(brief)
}

/// The windows of a corner at an hour.
///
/// # Errors
/// The time is none; or it is not known where on the earth the room is or which way it looks.
pub fn hour_light(corner: &Corner<'_>, hour: &Hour) -> Result<HourLight, Problem> {
    let unknown = || {
        Problem::new(
            "hour.utc",
            &hour.utc,
            "a time from 1900 to 2100, as 2026-11-28T12:30:00Z",
            Code::OutOfRange,
        )
    };
    let time: Timestamp = hour.utc.parse().map_err(|_| unknown())?;
    let year = time.to_zoned_datetime(jiff::tz::TimeZone::UTC).year();
    let unix_s = Some(time.as_second() as f64).filter(|_| YEARS.contains(&year)).ok_or_else(unknown)?;
    let (place, sunlight) = placed(corner)?;
    let sun =
        sun_at(place.latitude_deg, place.longitude_deg, unix_s, Air::usual(unix_s)).ok_or_else(unknown)?;
    let to_sun = sunlight.to_sun(sun);
    let dome = SkyDome::new(hour.sky, to_sun, MEAN_DAY);
    let windows: Vec<(Id, f64)> = sunlight
        .luminances_cd_m2(corner.eyes_m, &dome)
        .map(|(id, luminance)| (id.clone(), luminance))
        .collect();
    let total = |dome: &SkyDome| sunlight.luminances_cd_m2(corner.eyes_m, dome).map(|(_, l)| l).sum::<f64>();
    let of_sky = total(&dome.without_sun());
    let of_sun = (total(&dome) - of_sky).max(0.0);
    let overcast = || xy_at(sky::OVERCAST_K, 0.0);
    let xy = match hour.sky {
        Sky::Overcast => overcast(),
        Sky::Clear => {
            mixed_xy([(clear_sky_xy(), of_sky), (sun_xy(sun.elevation_deg), of_sun)]).unwrap_or_else(overcast)
        }
    };
    let panes: Vec<Pane> = sunlight.beams(to_sun).collect();
    let beam = (dome.direct_lx() > 0.0 && !panes.is_empty()).then(|| SunBeam {
        to_sun,
        panes,
        illuminance_lx: sky::PANE * dome.direct_lx(),
        xy: sun_xy(sun.elevation_deg),
    });
    Ok(HourLight { windows, xy, beam })
}
