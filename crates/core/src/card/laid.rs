//! Check as laid: from distances that were really taped, where the marks are, whether the tape can be trusted, what must move, and
//! how the corner is judged as it stands.

mod entries;
mod solve;
mod words;

use super::entries::Mark;
use super::marks::floor;
use crate::assess::without_moves;
use crate::corner::Corner;
use crate::geometry::DVec2;
use crate::hand::{Move, moved};
use crate::plan::{Part, Plan, thing_named};
use crate::problem::{Code, Problem, Problems};
use crate::reading::Change;
pub use entries::{Got, GotFrom, Laid, LaidIn, LaidMark, Places, Trust};
use solve::{Origin, Taped, solved};
use words::Words;

/// Where the marks are by what was taped, and how it stands as laid.
///
/// # Errors
/// A mark, corner or wall that the plan does not have; a distance from a mark to itself.
pub fn laid(asked: &LaidIn) -> Result<Laid, Problems> {
    let Places { floor, marks, left_out } = places(asked)?;
    let plan = as_it_stands(&asked.plan, &marks);
    let (before, after) = (without_moves(&asked.plan), without_moves(&plan));
    let changed = after.readings.iter().filter_map(|now| {
        let was = before.readings.iter().find(|was| was.id == now.id)?;
        (was.standing != now.standing).then(|| Change {
            reading: now.id.to_string(),
            label: now.label.to_string(),
            from: was.value,
            to: now.value,
            unit: now.unit,
        })
    });
    Ok(Laid { changes: changed.collect(), floor, marks, left_out, plan, verdict: after.verdict.sentence })
}

/// The marks alone, as [`laid`] finds them.
///
/// # Errors
/// As [`laid`].
pub fn places(asked: &LaidIn) -> Result<Places, Problems> {
    let corner = Corner::resolved(&asked.plan)?;
    let floor = floor(&corner).marks;
    let taped = resolved(&corner, &floor, &asked.got)?;
    let planned: Vec<DVec2> = floor.iter().map(|mark| mark.at_m.into()).collect();
    let (told, left_out) = solved(&planned, &taped);
    let words = Words { corner: &corner, got: &asked.got, left_out: &left_out, planned: &planned };
    let told = floor.iter().zip(&told).enumerate();
    let marks =
        told.filter_map(|(index, (mark, one))| Some(words.mark(index, mark, one.as_ref()?))).collect();
    Ok(Places { floor, marks, left_out })
}

fn resolved(corner: &Corner<'_>, marks: &[Mark], got: &[Got]) -> Result<Vec<Taped>, Problems> {
    let mark_of = |id: &str, field: String| {
        let names: Vec<&str> = marks.iter().map(|mark| mark.id.as_str()).collect();
        let found = names.iter().position(|name| *name == id);
        found.ok_or_else(|| Problem::new(field, id, names.join(", "), Code::UnknownId))
    };
    let one = |(index, got): (usize, &Got)| {
        let field = |name: &str| format!("got.{index}.{name}");
        let mark = mark_of(&got.mark, field("mark"))?;
        let from = match &got.from {
            GotFrom::Corner(letter) => {
                let letters = (0..corner.floor_m.len()).map(|at| corner.brief.room.corner_letter(at));
                let at = letters.clone().position(|own| own == letter).ok_or_else(|| {
                    let accepted = letters.collect::<Vec<_>>().join(", ");
                    Problem::new(field("from.corner"), letter, accepted, Code::UnknownId)
                })?;
                Origin::Point(corner.floor_m[at])
            }
            GotFrom::Wall(wall) => match wall.as_str() {
                "left" => Origin::Wall(0),
                "back" => Origin::Wall(1),
                _ => return Err(Problem::new(field("from.wall"), wall, "left or back", Code::UnknownId)),
            },
            GotFrom::Mark(id) => match mark_of(id, field("from.mark"))? {
                other if other == mark => {
                    return Err(Problem::new(field("from.mark"), id, "another mark", Code::Conflict));
                }
                other => Origin::Mark(other),
            },
        };
        Ok(Taped { index, mark, from, length_m: got.length_m })
    };
    let all: Result<Vec<Taped>, Problem> = got.iter().enumerate().map(one).collect();
    Ok(all?)
}

/// The plan with every mark where it was found to be, as hands would have put it there: what hangs together follows.
fn as_it_stands(plan: &Plan, marks: &[LaidMark]) -> Plan {
    let mut stands = plan.clone();
    // A lock holds a thing in the plan, not on the floor.
    stands.layout.unlock();
    for mark in marks {
        let Some(off) = mark.stray_m.map(DVec2::from) else { continue };
        let (brief, layout) = (&stands.brief, &stands.layout);
        let Some(thing) = thing_named(brief, layout, &mark.id) else { continue };
        let Some(at) = layout.part(&thing).map(Part::position_m) else { continue };
        let by = Move { anyway: true, ..Move::to(&mark.id, (at + off.extend(0.0)).into()) };
        if let Ok(moved) = moved(&stands, &by) {
            stands = moved.plan;
        }
    }
    stands
}
