//! Where a second angle can stand: over the bench, or to the side of the first camera.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::stands::{Stands, set_up};
use crate::assess::legal::Rules;
use crate::corner::{Corner, angle_thing, light_direction, things};
use crate::edit::{fill_bag, rounded, rounded_floor, supports_for};
use crate::geometry::DVec3;
use crate::plan::{
    Angle, Brief, Furniture, FurnitureKind, Gear, GearCamera, GearLens, Id, Layout, Plan, Support,
    SupportKind, ThingId,
};
use crate::problem::{Code, Problem};
use crate::shot::lens::distance_for_frame_m;

/// A bench is shown with this much around it.
const AROUND: f64 = 1.10;
/// Air between a camera that looks down and the ceiling, m.
const UNDER_CEILING_M: f64 = 0.15;
/// Angles to the side of the first camera, degrees, preferred first (30 and more: common practice, no source).
const ASIDE_DEG: [f64; 6] = [45.0, -45.0, 60.0, -60.0, 35.0, -35.0];
/// Distances of a side camera against the first one's.
const DISTANCES: [f64; 4] = [1.0, 0.85, 0.7, 1.15];
/// A side camera stands so much above the eyes, m.
const ABOVE_M: [f64; 2] = [0.0, 0.15];

/// Which second angle.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum AngleKind {
    /// Over the bench, straight down.
    Overhead,
    /// To the side, at the face.
    Side,
}

/// The plan with one more angle where it breaks no rule.
///
/// # Errors
/// There are three already, there is no bench, or no place is free.
pub fn with_angle(plan: &Plan, kind: AngleKind) -> Result<Plan, Problem> {
    let refused = |accepted: &str| Problem::new("layout.angles", "one more", accepted, Code::Conflict);
    if plan.layout.angles.len() >= 3 {
        return Err(refused("at most 3 second angles"));
    }
    let corner = Corner::of(plan).ok_or_else(|| refused("a layout whose ids name gear"))?;
    let stem = if kind == AngleKind::Overhead { "overhead" } else { "side-angle" };
    let id = free_id(&plan.brief, &plan.layout, stem);
    let (body_id, body, lens_id, lens) =
        optics(&corner).ok_or_else(|| refused("a camera and a lens that fits it, at hand"))?;
    let blank = |position_m: DVec3, aim_m: DVec3, focal_length_mm: f64, support: Support| Angle {
        body: body_id.clone(),
        lens: lens_id.clone(),
        position_m: rounded(position_m),
        aim_m: rounded(aim_m),
        focal_length_mm,
        support,
        locked: false,
    };
    let places: Vec<(DVec3, DVec3, f64)> = match kind {
        AngleKind::Overhead => {
            let bench =
                bench(&corner).ok_or_else(|| refused("a desk or a table in the room to look down on"))?;
            overhead(&corner, bench, body, lens)
        }
        AngleKind::Side => side(&corner, lens),
    };
    let others = things(&corner);
    let rules = Rules::new(&corner);
    let stands = Stands::unused(&plan.brief, &plan.layout);
    for (position, aim, focal) in places {
        for support in supports(&corner, &stands, kind, position) {
            let mut trial = plan.clone();
            trial.layout.angles.insert(id.clone(), blank(position, aim, focal, support));
            fill_bag(&plan.brief, &mut trial.layout, &ThingId::Angle(id.clone()));
            let fits = Corner::of(&trial).is_some_and(|tried| {
                tried.angles.iter().filter(|angle| *angle.id == id).all(|angle| {
                    let image = crate::corner::image_distance_mm(focal, angle.distance_m).unwrap_or(0.0);
                    angle.distance_m + image / 1000.0 >= lens.nearest_focus_m
                        && rules.allows(&angle_thing(&tried, angle), &others)
                })
            });
            if fits {
                return Ok(plan.with_layout(trial.layout));
            }
        }
    }
    Err(refused("a free place for it: move something out of the way, or use a wider lens"))
}

pub(super) fn free_id(brief: &Brief, layout: &Layout, stem: &str) -> Id {
    numbered(stem, |id| {
        layout.angles.contains_key(id)
            || layout.lights.contains_key(id)
            || layout.treatment.contains_key(id)
            || brief.room.furniture.contains_key(id)
    })
}

/// A word, with a number from 2 on where it is taken.
pub(super) fn numbered(stem: &str, taken: impl Fn(&Id) -> bool) -> Id {
    let more = (2..).map(|number| Id(format!("{stem}-{number}")));
    std::iter::once(Id::from(stem)).chain(more).find(|id| !taken(id)).unwrap_or_else(|| Id::from(stem))
}

/// Another camera at hand with a lens that fits it, else the main one, used again afterwards.
fn optics<'a>(corner: &Corner<'a>) -> Option<(&'a Id, &'a GearCamera, &'a Id, &'a GearLens)> {
    let brief = corner.brief;
    let main = &corner.layout.camera;
    let at_hand = || brief.gear.iter().filter(|(_, gear)| gear.at_hand());
    let bodies = at_hand().filter_map(|(id, gear)| Some((id, gear.camera()?)));
    let mut pairs: Vec<_> = bodies
        .flat_map(|(body_id, body)| {
            at_hand()
                .filter_map(|(id, gear)| Some((id, Gear::lens(gear)?)))
                .filter(|(_, lens)| brief.mounts(body_id, lens))
                .map(move |(lens_id, lens)| (body_id, body, lens_id, lens))
        })
        .collect();
    // Another body first, then the widest lens.
    pairs.sort_by(|a, b| {
        (*a.0 == main.body).cmp(&(*b.0 == main.body)).then(a.3.focal_min_mm.total_cmp(&b.3.focal_min_mm))
    });
    pairs.into_iter().next()
}

/// The desk that is sat at, else the first desk or table.
fn bench<'a>(corner: &Corner<'a>) -> Option<(&'a Id, &'a Furniture)> {
    let furniture = &corner.brief.room.furniture;
    let flat = |piece: &Furniture| matches!(piece.kind, FurnitureKind::Desk | FurnitureKind::Table);
    let own = corner.brief.person.seat_at.as_ref().and_then(|id| furniture.get_key_value(id));
    own.filter(|(_, piece)| flat(piece)).or_else(|| furniture.iter().find(|(_, piece)| flat(piece)))
}

/// Over the middle of the bench, as high as shows all of it, else as high as the ceiling lets it.
fn overhead(
    corner: &Corner<'_>,
    (id, piece): (&Id, &Furniture),
    body: &GearCamera,
    lens: &GearLens,
) -> Vec<(DVec3, DVec3, f64)> {
    let (foot, _) = corner.furniture_at(id, piece);
    let top = foot + DVec3::Z * piece.size_m.0[2];
    let focal = lens.focal_min_mm;
    let (width, height) = body.active_area_mm();
    let [across, deep, _] = piece.size_m.0;
    let wanted = distance_for_frame_m(width, focal, across * AROUND).max(distance_for_frame_m(
        height,
        focal,
        deep * AROUND,
    ));
    let most = corner.brief.room.ceiling_m(top.truncate()) - UNDER_CEILING_M - top.z;
    // Higher shows more than the bench, and is out of the first camera's picture; lower shows less.
    let parts = [1.0, 1.2, 1.45, 1.75, 2.1, 0.92, 0.85];
    parts.iter().map(|part| (top + DVec3::Z * (wanted * part).min(most), top, focal)).collect()
}

/// At the face, to either side of the first camera.
fn side(corner: &Corner<'_>, lens: &GearLens) -> Vec<(DVec3, DVec3, f64)> {
    let main = corner.layout.camera.focal_length_mm;
    let distance = (corner.view.position_m - corner.eyes_m).length();
    let focal = main.clamp(lens.focal_min_mm, lens.focal_max_mm);
    let mut all = Vec::new();
    for part in DISTANCES {
        for aside in ASIDE_DEG {
            for above in ABOVE_M {
                let direction = light_direction(corner.to_lens(), aside, 0.0);
                let at = corner.eyes_m + direction * distance * part + DVec3::Z * above;
                all.push((at, corner.eyes_m, focal));
            }
        }
    }
    all
}

fn supports(corner: &Corner<'_>, stands: &Stands<'_>, kind: AngleKind, at: DVec3) -> Vec<Support> {
    let mut all = Vec::new();
    if kind == AngleKind::Overhead {
        all.extend(stands.fixings("camera").iter().flat_map(|option| set_up(corner, option, at, 1.0)));
        for option in stands.options("camera", SupportKind::Boom) {
            all.extend(supports_for(corner, &option, at, corner.eyes_m.truncate(), 1.0));
        }
        // Nothing owned: from the ceiling, which takes no floor.
        all.push(Support::new(SupportKind::Ceiling));
        return all;
    }
    stands
        .options("camera", SupportKind::Floor)
        .into_iter()
        .map(|option| Support { base_m: Some(rounded_floor(at.truncate())), ..option })
        .collect()
}
