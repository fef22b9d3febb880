//! What bounds the room beside its outermost walls: inner corners, slopes, beams, as solids that nothing may
//! enter.

use crate::geometry::{DVec2, DVec3, Solid, outside_pieces};
use crate::plan::Room;

/// One such solid.
#[derive(Debug, Clone)]
pub struct Bound {
    /// In words: `the wall`, `the slope at the back wall`, `the beam`.
    pub what: String,
    /// Over the head: a slope or a beam.
    pub overhead: bool,
    /// Its shape.
    pub solid: Solid,
}

/// Everything that bounds a room inside the hull of its walls; slopes and beams come down by `lower_m` more. None
/// in a convex room with a flat ceiling.
pub fn bounds(room: &Room, lower_m: f64) -> Vec<Bound> {
    let top = room.height_m;
    let pieces = if room.is_rectangle() { Vec::new() } else { outside_pieces(&room.outline()) };
    let walls = pieces.iter().map(|piece| Bound {
        what: "the wall".into(),
        overhead: false,
        solid: Solid::prism(piece, 0.0, top),
    });
    let slopes = room.slopes.values().filter_map(|slope| {
        let (from, to, inward) = slope.ends_m(room)?;
        let rise = top - slope.knee_m;
        // Lower by so much square to the slope is lower by more, plumb.
        let plumb = lower_m * slope.run_m.hypot(rise) / slope.run_m;
        let run = slope.run_m * (1.0 + plumb / rise);
        let at_end = [to.extend(slope.knee_m - plumb), to.extend(top), (to + inward * run).extend(top)];
        let along: DVec2 = (to - from).normalize_or_zero();
        Some(Bound {
            what: format!("the slope at {}", room.wall_name(usize::from(slope.wall))),
            overhead: true,
            solid: Solid::slab(&at_end, along.extend(0.0), (to - from).length()),
        })
    });
    let beams = room.beams.values().map(|beam| Bound {
        what: "the beam".into(),
        overhead: true,
        solid: Solid::prism(&beam.outline_m(), top - beam.drop_m - lower_m, top),
    });
    walls.chain(slopes).chain(beams).collect()
}

/// Whether a straight line between two points in the room meets a wall, a slope or a beam.
pub fn is_blocked(bounds: &[Bound], from: DVec3, to: DVec3) -> bool {
    bounds.iter().any(|bound| bound.solid.blocks(from, to))
}
