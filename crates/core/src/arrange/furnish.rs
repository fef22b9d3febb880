//! Puts lights and microphone around a seat and a camera: each at its best legal place, the supports that are
//! owned shared out, then exposure, dials and sandbags.

use super::angle::free_id;
use super::bare::bare_layout;
use super::cast::{cast, keys, microphones};
use super::lights::{place_fill, place_light};
use super::optics::Shot;
use super::settle::settle;
use super::stands::{Stands, bag_for, column, fixed_camera, set_up};
use super::{backdrop, behind, hang, screen};
use crate::assess::legal::{Breach, Rules};
use crate::assess::{Quick, quick};
use crate::corner::{Corner, What, is_worn, microphone_tail_m, microphone_thing, things};
use crate::edit::{fill_bag, rounded};
use crate::finding::Rule;
use crate::geometry::{DVec3, distance_to_edge, signed_area_m2};
use crate::plan::{
    Brief, Gear, Id, Layout, Microphone, Mounting, OpeningKind, Plan, RigSchool, Role, Support, SupportKind,
    ThingId,
};
use crate::shot::framing;
use crate::sound::placement::places as microphone_places;
use crate::units::Amount;

/// A complete legal layout.
pub(crate) struct Furnished {
    pub(crate) layout: Layout,
    pub(crate) quick: Quick,
    pub(crate) free_floor_m2: f64,
}

/// Why a candidate fell.
#[derive(Debug, Clone)]
pub(crate) struct Failed {
    pub(crate) facing: String,
    /// Seat and camera alone were already in the way.
    pub(crate) bare: bool,
    pub(crate) breaches: Vec<Breach>,
}

/// Lights and microphone for a shot; both key sides are tried, the better is kept.
pub(crate) fn furnish(brief: &Brief, shot: &Shot) -> Result<Furnished, Failed> {
    let failed = |breaches, bare| Failed { facing: shot.facing.name.clone(), bare, breaches };
    if shot.lacking_m > 0.0 {
        let sentence =
            format!("The camera lacks {} of room to frame this shot.", brief.units.gap(shot.lacking_m));
        return Err(failed(
            vec![Breach::new(
                Rule::Camera,
                ThingId::Camera,
                Amount::Length(shot.lacking_m),
                sentence,
                "Use a shorter focal length, or give the corner that much more depth.",
            )],
            true,
        ));
    }
    let bare = bare_layout(shot, 0.0);
    let breaches = bare_breaches(brief, bare.clone());
    if !breaches.is_empty() {
        return Err(failed(breaches, true));
    }
    let preferred = preferred_side(brief, &bare);
    let gaze_deg = framing::wanted(brief, &crate::person::landmarks_of(brief), 1.0).gaze_deg;
    let mut best: Option<Furnished> = None;
    let mut fallen = None;
    for side in [preferred, -preferred] {
        match one_side(brief, bare_layout(shot, gaze_deg * side), side, shot.key.as_ref()) {
            Ok(found) => {
                let better = best.as_ref().is_none_or(|b| {
                    (found.quick.stops, found.quick.fixes) < (b.quick.stops, b.quick.fixes)
                        || ((found.quick.stops, found.quick.fixes) == (b.quick.stops, b.quick.fixes)
                            && found.quick.score > b.quick.score + 1e-6)
                });
                if better {
                    best = Some(found);
                }
            }
            Err(breaches) => fallen = Some(breaches),
        }
        // Without anything to place, the sides do not differ.
        if best.as_ref().is_some_and(|b| b.layout.lights.is_empty())
            && brief.gear.values().all(|g| g.light().is_none())
        {
            break;
        }
    }
    best.ok_or_else(|| failed(fallen.unwrap_or_default(), false))
}

/// How far the windows lie to camera right of the person, m, summed; negative to the left, `None` without any or
/// with one straight ahead or behind.
pub(super) fn window_lean_m(corner: &Corner<'_>) -> Option<f64> {
    let right = corner.view.right.truncate();
    let lean: f64 = corner
        .brief
        .room
        .openings
        .values()
        .filter(|o| o.kind == OpeningKind::Window)
        .map(|o| right.dot(o.middle_m(&corner.floor_m) - corner.eyes_m.truncate()))
        .sum();
    (lean.abs() > 0.05).then_some(lean)
}

/// The window's side if there is a window, else the side with more room: +1 camera right, -1 camera left.
pub(super) fn preferred_side(brief: &Brief, layout: &Layout) -> f64 {
    let Some(corner) = Corner::from_parts(brief, layout) else { return 1.0 };
    let lean = window_lean_m(&corner).unwrap_or_else(|| {
        let (right, eyes) = (corner.view.right.truncate(), corner.eyes_m.truncate());
        distance_to_edge(&corner.floor_m, eyes, right) - distance_to_edge(&corner.floor_m, eyes, -right)
    });
    if lean < -1e-6 { -1.0 } else { 1.0 }
}

/// What seat, desk and camera alone break.
fn bare_breaches(brief: &Brief, mut layout: Layout) -> Vec<Breach> {
    let mut stands = Stands::beside(brief, &layout);
    camera_support(brief, &mut layout, &mut stands);
    Corner::from_parts(brief, &layout)
        .map_or_else(Vec::new, |corner| Rules::new(&corner).all(&things(&corner)))
}

/// Fills a layout of seat, camera and whatever is held in place: microphone, key on the given side, back light and fill.
/// The key is the lamp that is asked for, else the first that the school of source wants and that finds a place.
fn one_side(
    brief: &Brief,
    mut layout: Layout,
    side: f64,
    key: Option<&Id>,
) -> Result<Furnished, Vec<Breach>> {
    let mut stands = Stands::beside(brief, &layout);
    camera_support(brief, &mut layout, &mut stands);
    if layout.backdrop.is_none() {
        backdrop::place(brief, &mut layout);
    }
    if layout.microphone.is_none() {
        place_microphone(brief, &mut layout, &mut stands, -side)?;
    }
    let has = |layout: &Layout, role: Role| layout.lights.values().any(|light| light.role == role);
    let mut wanted = keys(brief, &layout);
    wanted.retain(|(id, _)| key.is_none_or(|key| key == *id));
    let mut used = wanted.first().map(|(id, _)| *id);
    if !has(&layout, Role::Key) {
        let name = free_id(brief, &layout, "key");
        let placed = wanted.iter().take(KEYS_TRIED).find(|(id, gear)| {
            place_light(brief, &mut layout, &mut stands, (&name, id, gear), Role::Key, side, |_| true);
            layout.lights.contains_key(&name)
        });
        used = placed.map(|(id, _)| *id).or(used);
    }
    let cast = cast(brief, &layout, used);
    // The back light before the fill: it needs the arm.
    if let Some((id, gear)) = cast.back.filter(|_| !has(&layout, Role::Back)) {
        let name = free_id(brief, &layout, "back");
        place_light(brief, &mut layout, &mut stands, (&name, id, gear), Role::Back, -side, |_| true);
    }
    if let Some((id, gear)) = cast.fill.filter(|_| !has(&layout, Role::Fill)) {
        place_fill(brief, &mut layout, &mut stands, (id, gear), -side);
    }
    behind::place(brief, &mut layout, &mut stands, &cast.spare, -side);
    if layout.screen.is_none() {
        screen::place(brief, &mut layout, &stands);
    }
    if stands.column.is_some() {
        // With everything on it the column needs another bag than with the camera alone.
        fill_bag(brief, &mut layout, &ThingId::Camera);
    }
    settle(brief, &mut layout);
    hang::hang(brief, &mut layout);
    let corner = Corner::from_parts(brief, &layout).ok_or_else(Vec::new)?;
    let all = things(&corner);
    let breaches = Rules::new(&corner).all(&all);
    if !breaches.is_empty() {
        return Err(breaches);
    }
    let covered: f64 = all
        .iter()
        .flat_map(|t| &t.pieces)
        .filter(|p| p.what == What::Feet)
        .map(|p| {
            let (low, high) = p.solid.bounds();
            std::f64::consts::FRAC_PI_4 * (high.x - low.x) * (high.y - low.y)
        })
        .sum();
    let free_floor_m2 = signed_area_m2(&corner.floor_m) - covered;
    let quick = quick(brief, &layout);
    Ok(Furnished { layout, quick, free_floor_m2 })
}

fn camera_support(brief: &Brief, layout: &mut Layout, stands: &mut Stands<'_>) {
    let height = layout.camera.position_m.0[2];
    let mass: f64 = [&layout.camera.body, &layout.camera.lens]
        .iter()
        .filter_map(|id| brief.gear.get(*id))
        .map(|g| g.common().mass_kg)
        .sum();
    if layout.camera.locked {
        let held = layout.camera.support.clone();
        stands.take(&held);
        if brief.schools.rig == RigSchool::Column && held.kind == SupportKind::Boom {
            stands.column = Some(held);
        }
        return;
    }
    let fits = |id: &Id| {
        brief
            .gear
            .get(id)
            .and_then(Gear::support)
            .is_some_and(|s| s.payload_kg >= mass && (s.height_min_m..=s.height_max_m).contains(&height))
    };
    if brief.schools.rig == RigSchool::Fixed
        && let Some(fixing) = fixed_camera(brief, layout, stands)
    {
        stands.take(&fixing);
        layout.camera.support = fixing;
        return;
    }
    if brief.schools.rig == RigSchool::Column
        && let Some(column) = column(brief, layout, mass)
    {
        layout.camera.support = column.clone();
        stands.take(&column);
        stands.column = Some(column);
        fill_bag(brief, layout, &ThingId::Camera);
        return;
    }
    // A stand made for cameras before one made for anything.
    let made_for =
        |id: &Id| brief.gear.get(id).is_some_and(|g| g.common().offers.iter().any(|o| o == "camera"));
    let free = stands.free("camera", false);
    let chosen = free.iter().find(|id| fits(id) && made_for(id)).or_else(|| free.iter().find(|id| fits(id)));
    layout.camera.support.gear = chosen.cloned();
    stands.take(&layout.camera.support.clone());
    fill_bag(brief, layout, &ThingId::Camera);
}

fn place_microphone(
    brief: &Brief,
    layout: &mut Layout,
    stands: &mut Stands<'_>,
    hand: f64,
) -> Result<(), Vec<Breach>> {
    let at_hand = microphones(brief);
    if at_hand.is_empty() {
        return Ok(());
    }
    let frozen = layout.clone();
    let corner = Corner::from_parts(brief, &frozen).ok_or_else(Vec::new)?;
    let others = things(&corner);
    for (id, gear) in &at_hand {
        for place in microphone_places(&corner, gear, hand) {
            let put = |support: Support| Microphone {
                gear: (*id).clone(),
                position_m: rounded(place),
                support,
                locked: false,
            };
            if is_worn(gear.mounting) {
                layout.microphone = Some(put(Support::none()));
                return Ok(());
            }
            let mut trial = corner.clone();
            trial.microphone = Some((gear, place));
            let rules = Rules::new(&trial);
            let fits =
                |support: &Support| rules.allows(&microphone_thing(&trial, gear, place, support), &others);
            // The capsule alone first: most places fall to the room or the picture.
            if !fits(&Support::none()) {
                continue;
            }
            for mut support in microphone_supports(&corner, stands, gear.mounting, place, hand) {
                if fits(&support) {
                    stands.take(&support);
                    let in_layout = |l: &mut Layout| l.microphone = Some(put(support.clone()));
                    support.sandbag_kg = bag_for(brief, &frozen, in_layout, &ThingId::Microphone);
                    layout.microphone = Some(put(support));
                    return Ok(());
                }
            }
        }
    }
    Err(vec![Breach::new(
        Rule::Picture,
        ThingId::Microphone,
        Amount::Unmeasured,
        "No microphone owned finds a place outside the picture with a free line to the mouth.",
        "Use a worn microphone, allow the microphone in the picture, or tighten the shot.",
    )])
}

fn microphone_supports(
    corner: &Corner<'_>,
    stands: &Stands<'_>,
    mounting: Mounting,
    place: DVec3,
    hand: f64,
) -> Vec<Support> {
    let hold = microphone_tail_m(corner, place);
    let mut all = Vec::new();
    if mounting == Mounting::Desk {
        for (id, piece) in &corner.brief.room.furniture {
            let (position, bearing) = corner.furniture_at(id, piece);
            let facing = crate::geometry::bearing_vector(bearing).truncate();
            let offset = hold.truncate() - position.truncate();
            let (x, y) = (offset.perp_dot(facing).abs(), offset.dot(facing).abs());
            let top = position.z + piece.size_m.0[2];
            if x < piece.size_m.0[0] / 2.0
                && y < piece.size_m.0[1] / 2.0
                && hold.z > top
                && hold.z < top + 0.6
            {
                all.push(Support { on: Some(id.clone()), ..Support::none() });
            }
        }
    }
    for option in
        stands.by_rig("microphone").into_iter().chain(stands.options("microphone", SupportKind::Boom))
    {
        all.extend(set_up(corner, &option, hold, hand));
    }
    all
}

/// The same seat, camera and furniture with everything else that is not held in place set up anew for other gear, without
/// what was measured of things that have gone elsewhere; `None` where nothing legal is found.
pub fn replaced(plan: &Plan) -> Option<Plan> {
    // What was measured of the arrangement that goes must not judge those that come.
    let brief = &*plan.brief.of_any_layout();
    let corner = Corner::of(plan)?;
    let mut bare = plan.layout.clone();
    bare.lights.retain(|_, light| light.locked);
    bare.microphone = bare.microphone.filter(|used| used.locked);
    bare.screen = bare.screen.filter(|used| used.locked);
    bare.backdrop = bare.backdrop.filter(|used| used.locked);
    let preferred = preferred_side(brief, &bare);
    let key_side =
        corner.role(Role::Key).next().map_or(preferred, |k| corner.light_angles_deg(k.position_m).0.signum());
    let rank = |f: &Furnished| (f.quick.stops, f.quick.fixes, -f.quick.score);
    let mut best: Option<(Furnished, f64)> = None;
    let offer = |side: f64, key: Option<&Id>, best: &mut Option<(Furnished, f64)>| {
        if let Ok(found) = one_side(brief, bare.clone(), side, key)
            && best.as_ref().is_none_or(|(b, _)| rank(&found) < rank(b))
        {
            *best = Some((found, side));
        }
    };
    for side in [key_side, -key_side] {
        offer(side, None, &mut best);
    }
    // Which lamp does best as the key shows only in place.
    let better_side = best.as_ref().map_or(key_side, |(_, side)| *side);
    for (id, _) in keys(brief, &bare).into_iter().take(KEYS_TRIED).skip(1) {
        offer(better_side, Some(id), &mut best);
    }
    best.map(|(found, _)| plan.with_layout(found.layout))
}

/// Lamps that are tried as the key.
pub(super) const KEYS_TRIED: usize = 3;
