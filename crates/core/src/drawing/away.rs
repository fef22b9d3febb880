//! The floor of the room's other life: stands put away beside their places in use, and the cables of the mains.

use super::labels::{Bare, Label};
use super::plan_view::{self, turned};
use super::view::{Ink, stroke};
use crate::corner::{Corner, Thing};
use crate::geometry::DVec2;
use crate::power::Power;
use crate::ready::Parked;

/// Sides of a drawn circle.
const SIDES: u32 = 24;

pub(super) fn draw(
    corner: &Corner<'_>,
    all: &[Thing],
    (parked, power): (&[Parked], &Power),
    turns: u8,
) -> Bare {
    let mut bare = plan_view::draw(corner, all, turns);
    // What the lens sees is told on the card itself.
    bare.strokes.retain(|line| !matches!(line.ink, Ink::Field | Ink::Sharp | Ink::Axis | Ink::Aim));
    bare.labels.retain(|label| label.ink != Ink::Axis);
    bare.labels.iter_mut().filter(|label| !label.letter.is_empty()).for_each(|label| label.text.clear());
    for plug in power.plugs.iter().filter(|plug| !plug.points_m.is_empty()) {
        let points = plug.points_m.iter().map(|at| turned(DVec2::from(*at), turns)).collect();
        bare.strokes.push(stroke(Ink::Cable, Some(&plug.id), false, points));
    }
    for (id, socket) in &corner.brief.room.sockets {
        let [x, y, _] = socket.position_m.0;
        let at = turned(DVec2::new(x, y), turns);
        bare.strokes.push(stroke(Ink::Cable, Some(&id.0), true, circle(at, 0.03)));
        bare.labels.push(word(at, id.words(), Ink::Cable));
    }
    for stand in parked.iter().filter(|stand| !stand.stays) {
        let at = turned(DVec2::from(stand.at_m), turns);
        bare.strokes.push(stroke(Ink::Parked, Some(&stand.id), true, circle(at, stand.radius_m)));
        bare.labels.push(word(at, format!("({})", stand.letter), Ink::Parked));
    }
    bare
}

fn circle(middle: DVec2, radius: f64) -> Vec<DVec2> {
    let turn = std::f64::consts::TAU / f64::from(SIDES);
    (0..SIDES).map(|side| middle + DVec2::from_angle(f64::from(side) * turn) * radius).collect()
}

fn word(at: DVec2, text: String, ink: Ink) -> Label {
    Label { letter: "", thing: None, text, name: None, at, ink }
}
