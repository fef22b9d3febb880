//! How things and what hangs are drawn, alike in plan, side view and frame.

use super::labels::ink_of as ink_of_thing;
use super::view::{Ink, Stroke, stroke};
use crate::corner::{Corner, Kind, Thing, What};
use crate::geometry::{DVec2, DVec3, hull};
use crate::plan::ThingId;

/// How far what hangs on a wall is drawn to stand out, m.
const HUNG_M: f64 = 0.06;

/// What hangs or lies against the echo, where `shows` says that its surface is seen from the edge or from above.
pub(super) fn treatments(
    corner: &Corner<'_>,
    flat: impl Fn(DVec3) -> DVec2,
    shows: impl Fn(DVec3) -> bool,
    strokes: &mut Vec<Stroke>,
) {
    for (id, one) in &corner.layout.treatment {
        let gear = corner.brief.gear.get(&one.gear).and_then(|gear| gear.treatment());
        let (Some(gear), Some(plane)) = (gear, corner.brief.room.surface(&one.on.0)) else { continue };
        if !shows(plane.normal) {
            continue;
        }
        let size = one.size_m(gear);
        let (along, up) = (plane.axes[0] * (size[0] / 2.0), plane.axes[1] * (size[1] / 2.0));
        let corners: Vec<DVec2> = [(-1.0, -1.0), (1.0, -1.0), (1.0, 1.0), (-1.0, 1.0)]
            .into_iter()
            .flat_map(|(x, y)| {
                let back = DVec3::from(one.position_m) + along * x + up * y;
                [back, back + plane.normal * HUNG_M]
            })
            .map(&flat)
            .collect();
        let overhead = plane.normal.z < -0.5;
        let ink = if overhead { Ink::Overhead } else { Ink::Treatment };
        let name = corner.name(&ThingId::Treatment(id.clone()));
        strokes.push(stroke(ink, Some(&name), true, hull(&corners)));
    }
}

/// How a piece of a thing is drawn.
pub(super) fn ink_of(corner: &Corner<'_>, thing: &Thing, what: What) -> Ink {
    match what {
        What::Feet | What::Tripod => Ink::Feet,
        What::Column => Ink::Stand,
        What::Boom => Ink::Arm,
        What::Head if thing.kind == Kind::Person => Ink::Head,
        What::Chair => Ink::Chair,
        // The body of a board is its frame, drawn as a lamp's body is.
        What::Body if thing.kind == Kind::Light => Ink::Light,
        What::Head | What::Body | What::Torso | What::Legs | What::Top | What::Leg | What::Sheet => {
            ink_of_thing(corner, &thing.id)
        }
    }
}
