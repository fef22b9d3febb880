//! Hangs and lays what is at hand against the echo: rugs between person and microphone, the rest where the voice is thrown
//! back first. How much it absorbs does not depend on where; how it sounds there does.

use super::angle::{free_id, numbered};
use crate::corner::Corner;
use crate::edit::rounded;
use crate::geometry::{DVec3, whole_steps};
use crate::plan::{
    Brief, Common, FlatSurface, Gear, GearState, GearTreatment, Id, Layout, Plan, Things, Treatment,
    WALL_NAMES,
};
use crate::problem::{Code, Problem};
use crate::sound::reflections;

/// Things against the echo that a layout may hold.
const MOST: usize = 24;
/// Places along a wall are tried every so often, m.
const STEP_M: f64 = 0.05;
/// Things on a wall keep so far from each other, and from doors and windows, m (Fogon's own rule).
const GAP_M: f64 = 0.03;

/// A rectangle on a surface: low and high corner, m.
type Taken = ([f64; 2], [f64; 2]);

/// Puts every treatment at hand in its place; what finds none stays away.
pub(super) fn hang(brief: &Brief, layout: &mut Layout) {
    let mut at_hand: Vec<(&Id, &GearTreatment)> = brief
        .gear
        .iter()
        .filter(|(_, gear)| gear.at_hand())
        .filter_map(|(id, gear)| Some((id, Gear::treatment(gear)?)))
        .collect();
    if at_hand.is_empty() {
        return;
    }
    // The largest first: what is small finds a place beside it.
    at_hand.sort_by(|a, b| b.1.area_m2().total_cmp(&a.1.area_m2()));
    let Some(corner) = Corner::from_parts(brief, layout) else { return };
    let wanted = Wanted::of(&corner);
    let mut hung = layout.treatment.clone();
    // What is held in place, and what a hand has put there without its being on the shelf, stays.
    hung.retain(|_, one| one.locked || !brief.gear.get(&one.gear).is_some_and(Gear::at_hand));
    for (id, gear) in at_hand {
        if hung.values().any(|one| one.gear == *id) {
            continue;
        }
        let Some((on, at)) = wanted.place(brief, &hung, gear) else { continue };
        // What it is called must be no other thing's name; the treatments that go are no hindrance.
        let others = Layout { treatment: hung.clone(), ..layout.clone() };
        hung.insert(free_id(brief, &others, &id.0), treatment(id, on, at));
    }
    layout.treatment = hung;
}

fn treatment(gear: &Id, on: Id, position_m: DVec3) -> Treatment {
    Treatment { gear: gear.clone(), on, position_m: rounded(position_m), turned: false, locked: false }
}

/// The plan with one more thing against the echo, in its best place; what is not on the shelf is put there as wanted and
/// used as if it were.
///
/// # Errors
/// No row of that name, sizes out of range, no room for more, or no wall on which it finds a place.
pub fn with_treatment(plan: &Plan, material: &str, width_m: f64, height_m: f64) -> Result<Plan, Problem> {
    let refused =
        |value: String, accepted: &str| Problem::new("layout.treatment", value, accepted, Code::Conflict);
    let row = crate::material::material(material).ok_or_else(|| {
        Problem::new("material", material, crate::material::material_names(), Code::BadChoice)
    })?;
    for (field, size) in [("width_m", width_m), ("height_m", height_m)] {
        if !(0.1..=10.0).contains(&size) {
            return Err(Problem::new(field, size, "0.1 to 10", Code::OutOfRange));
        }
    }
    if plan.layout.treatment.len() >= MOST {
        return Err(refused("one more".into(), "at most 24 things that absorb sound"));
    }
    let mut brief = plan.brief.clone();
    let stem = material.split('_').next().unwrap_or(material);
    let name = free_id(&plan.brief, &plan.layout, stem);
    let gear_id = numbered(stem, |id| plan.brief.gear.contains_key(id));
    let gear = GearTreatment {
        common: Common {
            label: row.label.into(),
            figures_assumed: true,
            state: GearState::Wanted,
            ..Common::default()
        },
        material: material.into(),
        width_m,
        height_m,
        thickness_m: None,
        air_gap_m: None,
        flow_resistivity_pa_s_m2: None,
    };
    brief.gear.insert(gear_id.clone(), Gear::Treatment(gear.clone()));
    let corner = Corner::from_parts(&plan.brief, &plan.layout)
        .ok_or_else(|| refused("the layout".into(), "a layout whose ids name gear"))?;
    let Some((on, at)) = Wanted::of(&corner).place(&brief, &plan.layout.treatment, &gear) else {
        return Err(refused(
            format!("{} by {}", plan.brief.units.length(width_m), plan.brief.units.length(height_m)),
            "a size for which a wall, clear of doors, windows and what hangs there, has room",
        ));
    };
    let mut layout = plan.layout.clone();
    layout.treatment.insert(name, treatment(&gear_id, on, at));
    let next = Plan { brief, ..plan.clone() }.with_layout(layout);
    next.check().map_err(|problems| {
        problems.0.into_iter().next().unwrap_or_else(|| refused(material.into(), "a plan that holds"))
    })?;
    Ok(next)
}

/// Where things against the echo are worth most.
struct Wanted {
    /// Walls, with the middle of what should be covered: where the voice is aimed, where it is thrown to the microphone, the
    /// others.
    walls: Vec<(&'static str, DVec3)>,
    /// Where the floor throws it, else under the mouth.
    floor_m: DVec3,
    floor: Option<FlatSurface>,
}

impl Wanted {
    fn of(corner: &Corner<'_>) -> Self {
        let room = &corner.brief.room;
        let hits = reflections::first(corner);
        let on = |name: &str| hits.iter().find(|hit| hit.surface == name).map(|hit| hit.point_m);
        let mut walls: Vec<(&'static str, DVec3)> = reflections::aimed_at(corner).into_iter().collect();
        let thrown = hits.iter().filter_map(|hit| {
            let name = WALL_NAMES.iter().find(|name| **name == hit.surface)?;
            Some((*name, hit.point_m))
        });
        let others = WALL_NAMES.iter().take(room.floor_m.len()).map(|name| (*name, corner.mouth_m));
        for (name, at) in thrown.chain(others) {
            if !walls.iter().any(|(other, _)| *other == name) {
                walls.push((name, at));
            }
        }
        let floor_m = on("floor").unwrap_or_else(|| corner.mouth_m.with_z(0.0));
        Self { walls, floor_m, floor: room.surface("floor") }
    }

    /// The best free place for a thing, beside what hangs already: its surface and middle.
    fn place(&self, brief: &Brief, hung: &Things<Treatment>, gear: &GearTreatment) -> Option<(Id, DVec3)> {
        if !gear.lies() {
            return self.walls.iter().find_map(|(wall, at)| on_wall(brief, hung, gear, wall, *at));
        }
        let (floor, size) = (self.floor?, [gear.width_m, gear.height_m]);
        let at = floor.nearest_m(self.floor_m, size);
        (floor.overhang_m(at, size) < 1e-6).then(|| (Id::from("floor"), at))
    }
}

/// The place on a wall nearest to the wanted one that is free of doors, windows and what hangs there.
fn on_wall(
    brief: &Brief,
    hung: &Things<Treatment>,
    gear: &GearTreatment,
    wall: &str,
    wanted: DVec3,
) -> Option<(Id, DVec3)> {
    let plane = brief.room.surface(wall)?;
    let size = [gear.width_m, gear.height_m];
    if size[0] > plane.size_m[0] || size[1] > plane.size_m[1] {
        return None;
    }
    let taken = taken(brief, hung, wall, &plane);
    let middle = plane.flat_m(plane.nearest_m(wanted, size));
    let free = |at: [f64; 2]| {
        let low: [f64; 2] = std::array::from_fn(|axis| at[axis] - size[axis] / 2.0);
        let high: [f64; 2] = std::array::from_fn(|axis| at[axis] + size[axis] / 2.0);
        let within = (0..2).all(|axis| low[axis] > -1e-6 && high[axis] < plane.size_m[axis] + 1e-6);
        within
            && taken.iter().all(|(from, to)| {
                (0..2).any(|axis| high[axis] <= from[axis] - GAP_M || low[axis] >= to[axis] + GAP_M)
            })
    };
    let steps = whole_steps(plane.size_m[0], STEP_M) + 1;
    let offsets = (0..=steps).map(|step| step as f64 * STEP_M).flat_map(|off| [off, -off]);
    // At the height of the mouth, else as low or as high as the wall allows.
    let heights = [middle[1], size[1] / 2.0, plane.size_m[1] - size[1] / 2.0];
    let places = offsets.flat_map(|off| heights.map(|height| [middle[0] + off, height]));
    let at = places.into_iter().find(|at| free(*at))?;
    Some((Id::from(wall), plane.corner_m + plane.axes[0] * at[0] + plane.axes[1] * at[1]))
}

/// What a wall already holds.
fn taken(brief: &Brief, hung: &Things<Treatment>, wall: &str, plane: &FlatSurface) -> Vec<Taken> {
    let number = WALL_NAMES.iter().position(|name| *name == wall);
    let openings = brief.room.openings.values().filter(|o| Some(usize::from(o.wall)) == number);
    let holes = openings.map(|o| {
        let low = o.sill_or_usual_m();
        ([o.from_m, low], [o.from_m + o.width_m, low + o.height_or_usual_m()])
    });
    let things = hung.values().filter(|one| one.on.0 == wall).filter_map(|one| {
        let size = one.size_m(brief.gear.get(&one.gear)?.treatment()?);
        let at = plane.flat_m(one.position_m.into());
        let corner = |side: f64| std::array::from_fn(|axis| at[axis] + side * size[axis] / 2.0);
        Some((corner(-1.0), corner(1.0)))
    });
    holes.chain(things).collect()
}
