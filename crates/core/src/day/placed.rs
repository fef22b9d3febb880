//! A corner of which it is known where on the earth it is and which way it looks.

use crate::corner::Corner;
use crate::daylight::Sunlight;
use crate::plan::Place;
use crate::problem::{Code, Problem};

/// Its place, and where the sun can lie in it.
///
/// # Errors
/// Place or bearing was not told.
pub(super) fn placed<'a>(corner: &'a Corner<'a>) -> Result<(&'a Place, Sunlight<'a>), Problem> {
    let missing = |field: &str, accepted: &str| Problem::new(field, "nothing", accepted, Code::MissingField);
    let place = corner.brief.place.as_ref();
    let place = place.ok_or_else(|| missing("brief.place", "latitude_deg, longitude_deg and time_zone"))?;
    let sunlight = Sunlight::of(corner)
        .ok_or_else(|| missing("brief.room.north_deg", "the bearing of north in the plan, degrees"))?;
    Ok((place, sunlight))
}
