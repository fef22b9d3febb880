//! What carries the camera: the rig that was chosen, a tripod, else what the room has: a desk, a shelf, a stack of books.

use super::stands::{Stands, camera_stands, column, fixed_camera, stand_holds};
use crate::corner::{Corner, is_flat};
use crate::edit::fill_bag;
use crate::geometry::DVec3;
use crate::plan::{Brief, Id, Layout, RigSchool, Support, SupportKind, ThingId};

/// What stands on furniture keeps so far from its edge, m: a phone and a camera. Fogon's own rule.
const FROM_EDGE_M: [f64; 2] = [0.02, 0.06];
/// A camera on a stack is no heavier, kg. Fogon's own rule.
const STACKED_KG: f64 = 1.5;

/// Gives the camera of a layout its support, and takes that from the stands.
pub(super) fn carry_camera(brief: &Brief, layout: &mut Layout, stands: &mut Stands<'_>) {
    if layout.camera.locked {
        let held = layout.camera.support.clone();
        stands.take(&held);
        if brief.schools.rig == RigSchool::Column && held.kind == SupportKind::Boom {
            stands.column = Some(held);
        }
        return;
    }
    let mass = mass_kg(brief, layout);
    if brief.schools.rig == RigSchool::Column
        && let Some(column) = column(brief, layout, mass)
    {
        layout.camera.support = column.clone();
        stands.take(&column);
        stands.column = Some(column);
        fill_bag(brief, layout, &ThingId::Camera);
        return;
    }
    let all = options(brief, layout, stands, mass);
    let fits = all.iter().find(|support| camera_stands(brief, layout, support));
    let Some(support) = fits.or(all.first()) else { return };
    layout.camera.support = support.clone();
    stands.take(support);
    fill_bag(brief, layout, &ThingId::Camera);
}

fn mass_kg(brief: &Brief, layout: &Layout) -> f64 {
    let gear = [&layout.camera.body, &layout.camera.lens].map(|id| brief.gear.get(id));
    gear.iter().flatten().map(|g| g.common().mass_kg).sum()
}

/// Everything that could carry the camera where it is, in the order in which it is wanted: what is owned first, then
/// household means, then a tripod that nobody owns.
fn options(brief: &Brief, layout: &Layout, stands: &Stands<'_>, mass_kg: f64) -> Vec<Support> {
    let mut all = Vec::new();
    if brief.schools.rig == RigSchool::Fixed {
        all.extend(fixed_camera(brief, layout, stands));
    }
    let Some(corner) = Corner::from_parts(brief, layout) else { return all };
    let (lens, hold) = (DVec3::from(layout.camera.position_m), corner.camera_hold_m());
    let floor = |gear: Option<Id>| Support {
        gear,
        base_m: Some(crate::edit::rounded_floor(lens.truncate())),
        ..Support::new(SupportKind::Floor)
    };
    let fits = |id: &Id| stand_holds(&corner, &floor(Some(id.clone())), hold, mass_kg);
    // A stand made for cameras before one made for anything.
    let made_for = |id: &Id| brief.gear.get(id).is_some_and(|g| g.common().offers("camera"));
    let mut free: Vec<Id> = stands.free("camera", false).into_iter().filter(fits).collect();
    free.sort_by_key(|id| !made_for(id));
    let owned = !free.is_empty();
    all.extend(free.into_iter().map(|id| floor(Some(id))));
    all.extend(stands.clamped(&corner, "camera", hold));
    let from_edge = FROM_EDGE_M[usize::from(!is_flat(corner.body, corner.lens))];
    if mass_kg <= STACKED_KG {
        all.extend(corner.under(hold, from_edge).into_iter().map(Support::on));
    }
    if brief.schools.rig != RigSchool::Fixed {
        all.extend(fixed_camera(brief, layout, stands));
    }
    if !owned {
        all.push(floor(None));
    }
    all
}
