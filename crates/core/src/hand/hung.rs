//! What hangs or lies against the echo slides over its surface, and round a corner to the next wall.

use crate::corner::Corner;
use crate::geometry::DVec3;
use crate::plan::{FlatSurface, Id, Layout, WALL_NAMES};

/// The layout with a hung thing as near to a place as it lies wholly on a wall; what lies stays on the floor, what hangs
/// overhead on the ceiling.
pub(super) fn placed(corner: &Corner<'_>, id: &Id, wanted: DVec3) -> Layout {
    let mut layout = corner.layout.clone();
    let room = &corner.brief.room;
    let Some(one) = layout.treatment.get_mut(id) else { return layout };
    let Some(gear) = corner.brief.gear.get(&one.gear).and_then(|gear| gear.treatment()) else {
        return layout;
    };
    let size = one.size_m(gear);
    let surfaces: Vec<&str> = match one.on.0.as_str() {
        "floor" => vec!["floor"],
        "ceiling" => vec!["ceiling"],
        _ => WALL_NAMES.iter().copied().take(room.floor_m.len()).collect(),
    };
    let fits = |plane: &FlatSurface| (0..2).all(|axis| size[axis] <= plane.size_m[axis] + 1e-9);
    let places = surfaces.into_iter().filter_map(|name| {
        let plane = room.surface(name).filter(&fits)?;
        let at = plane.nearest_m(wanted, size);
        Some((name, at, (at - wanted).length()))
    });
    if let Some((name, at, _)) = places.min_by(|a, b| a.2.total_cmp(&b.2)) {
        one.on = Id::from(name);
        one.position_m = crate::edit::rounded(at);
    }
    layout
}
