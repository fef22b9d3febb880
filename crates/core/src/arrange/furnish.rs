//! Puts lights and microphone around a seat and a camera: each at its best legal place, the supports that are
//! owned shared out, then exposure, dials and sandbags.

use super::angle::free_id;
use super::bare::bare_layout;
use super::carriers::carry_camera;
use super::cast::{Cast, cast, every_way, keys};
use super::lights::{place_fill, place_light};
use super::optics::Shot;
use super::settle::settle;
use super::stands::Stands;
use super::{backdrop, behind, hang, microphone, screen};
use crate::assess::legal::{Breach, Rules};
use crate::assess::{Quick, quick};
use crate::corner::{Corner, Thing, things};
use crate::edit::fill_bag;
use crate::finding::Rule;
use crate::geometry::{distance_to_edge, signed_area_m2};
use crate::plan::{Brief, Id, Layout, Light, OpeningKind, Plan, Purpose, Role, SupportKind, ThingId};
use crate::shot::framing;
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

/// On which terms a candidate is furnished.
#[derive(Debug, Clone, Copy, Default)]
pub(crate) struct Terms {
    /// Lamps that bar the way to the chair are left out, where nothing else will do.
    pub(crate) may_leave_out: bool,
    /// The screen that is keyed out has to find its place.
    pub(crate) with_screen: bool,
}

/// Lights and microphone for a shot: the key on the side that is preferred, on the other where that does not do.
pub(crate) fn furnish(brief: &Brief, shot: &Shot, terms: Terms) -> Result<Furnished, Failed> {
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
    if terms.with_screen && !takes_screen(brief, bare.clone()) {
        return Err(failed(vec![no_place_for_screen()], true));
    }
    let preferred = preferred_side(brief, &bare);
    let gaze_deg = framing::wanted(brief, &crate::person::landmarks_of(brief), 1.0).gaze_deg;
    let (mut fallen, mut best) = (Vec::new(), None::<Furnished>);
    for side in [preferred, -preferred] {
        let asked = Asked { may_leave_out: terms.may_leave_out, ..Asked::default() };
        match one_side(brief, bare_layout(shot, gaze_deg * side), side, &asked) {
            Ok(found) => {
                // The lamp that is wanted as the key may find its place on the other side.
                let has_the_key = found.has_the_wanted_key(brief);
                if best.as_ref().is_none_or(|best| found.is_better(best)) {
                    best = Some(found);
                }
                if has_the_key {
                    break;
                }
            }
            Err(breaches) => fallen = breaches,
        }
    }
    best.ok_or_else(|| failed(fallen, false))
}

impl Furnished {
    /// The lamp that the schools want first as the key is the key, or none is wanted.
    fn has_the_wanted_key(&self, brief: &Brief) -> bool {
        let blank = Layout { lights: Default::default(), ..self.layout.clone() };
        let key = self.layout.lights.values().find(|light| light.role == Role::Key);
        keys(brief, &blank).first().is_none_or(|(id, _)| key.is_some_and(|key| key.gear == **id))
    }

    /// Ready before not ready, fewest stops, fewest fixes, higher score.
    pub(crate) fn is_better(&self, than: &Self) -> bool {
        let rank = |f: &Self| (f.quick.stops, f.quick.fixes);
        rank(self) < rank(than) || (rank(self) == rank(than) && self.quick.score > than.quick.score + 1e-9)
    }
}

/// What is to do which job; the schools' first choice where it is not told.
#[derive(Debug, Clone, Copy, Default)]
pub(crate) struct Asked<'a> {
    /// The lamp that is the key.
    pub(crate) key: Option<&'a Id>,
    /// The lamps for the other jobs.
    pub(crate) cast: Option<&'a Cast<'a>>,
    /// Lamps that bar the way to the chair are left out, where nothing else will do.
    pub(crate) may_leave_out: bool,
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
    carry_camera(brief, &mut layout, &mut stands);
    Corner::from_parts(brief, &layout)
        .map_or_else(Vec::new, |corner| Rules::new(&corner).all(&things(&corner)))
}

/// Whether the screen that is keyed out finds its place behind a seat.
fn takes_screen(brief: &Brief, mut layout: Layout) -> bool {
    let mut stands = Stands::beside(brief, &layout);
    carry_camera(brief, &mut layout, &mut stands);
    if layout.backdrop.is_none() {
        backdrop::place(brief, &mut layout);
    }
    Corner::from_parts(brief, &layout).is_some_and(|corner| corner.has_key_screen())
}

fn no_place_for_screen() -> Breach {
    Breach::new(
        Rule::Room,
        ThingId::Backdrop,
        Amount::Unmeasured,
        "The key screen finds no place behind you that leaves the door, the way and the picture free.",
        "Use a narrower screen, or paint the wall.",
    )
}

/// Fills a layout of seat, camera and whatever is held in place: microphone, key on the given side, back light and fill.
/// The key is the lamp that is asked for, else the first that the school of source wants and that finds a place.
pub(super) fn one_side(
    brief: &Brief,
    mut layout: Layout,
    side: f64,
    asked: &Asked<'_>,
) -> Result<Furnished, Vec<Breach>> {
    let mut stands = Stands::beside(brief, &layout);
    carry_camera(brief, &mut layout, &mut stands);
    if layout.backdrop.is_none() {
        backdrop::place(brief, &mut layout);
    }
    if layout.microphone.is_none() {
        microphone::place(brief, &mut layout, &mut stands, -side, None);
    }
    let has = |layout: &Layout, role: Role| layout.lights.values().any(|light| light.role == role);
    let mut wanted = keys(brief, &layout);
    wanted.retain(|(id, _)| asked.key.is_none_or(|key| key == *id));
    let mut used = wanted.first().map(|(id, _)| *id);
    if !has(&layout, Role::Key) {
        let name = free_id(brief, &layout, "key");
        let placed = wanted.iter().take(KEYS_TRIED).find(|(id, gear)| {
            place_light(brief, &mut layout, &mut stands, (&name, id, gear), Role::Key, side, |_| true);
            layout.lights.contains_key(&name)
        });
        used = placed.map(|(id, _)| *id).or(used);
    }
    let own;
    let jobs = match asked.cast {
        Some(cast) => cast,
        None => {
            own = cast(brief, &layout, used);
            &own
        }
    };
    // The back light before the fill: it needs the arm.
    if let Some((id, gear)) = jobs.back.filter(|_| !has(&layout, Role::Back)) {
        let name = free_id(brief, &layout, "back");
        place_light(brief, &mut layout, &mut stands, (&name, id, gear), Role::Back, -side, |_| true);
    }
    if let Some((id, gear)) = jobs.fill.filter(|_| !has(&layout, Role::Fill)) {
        place_fill(brief, &mut layout, &mut stands, (id, gear), -side);
        // A lamp that the shadow side does not need may still part the person from the wall.
        let idle = gear.light().is_some() && !has(&layout, Role::Fill);
        if idle && crate::light::wants_back(brief) && !has(&layout, Role::Back) {
            let name = free_id(brief, &layout, "back");
            place_light(brief, &mut layout, &mut stands, (&name, id, gear), Role::Back, -side, |_| true);
        }
    }
    behind::place(brief, &mut layout, &mut stands, &jobs.spare, -side);
    if layout.screen.is_none() {
        screen::place(brief, &mut layout, &stands);
    }
    let shares_the_stand = layout
        .lights
        .values()
        .any(|light| light.support.kind == SupportKind::Clamp && light.support.on.is_none());
    if stands.column.is_some() || shares_the_stand {
        // With everything on it the camera's stand needs another bag than with the camera alone.
        fill_bag(brief, &mut layout, &ThingId::Camera);
    }
    settle(brief, &mut layout);
    hang::hang(brief, &mut layout);
    let mut breaches = breaches_of(brief, &layout);
    // A lamp that stands in the way to the chair is left out, the least needed first.
    while let Some(id) = in_the_way(brief, &layout, &breaches).filter(|_| asked.may_leave_out) {
        layout.lights.remove(&id);
        settle(brief, &mut layout);
        breaches = breaches_of(brief, &layout);
    }
    if !breaches.is_empty() {
        return Err(breaches);
    }
    let corner = Corner::from_parts(brief, &layout).ok_or_else(Vec::new)?;
    let all = things(&corner);
    let free_floor_m2 = free_floor_m2(&corner, &all);
    let quick = quick(brief, &layout);
    Ok(Furnished { layout, quick, free_floor_m2 })
}

fn breaches_of(brief: &Brief, layout: &Layout) -> Vec<Breach> {
    Corner::from_parts(brief, layout)
        .map_or_else(Vec::new, |corner| Rules::new(&corner).all(&things(&corner)))
}

/// The lamp to be left out where nothing but the way to the chair is barred: the one that bars it, else the least needed; never
/// the key.
fn in_the_way(brief: &Brief, layout: &Layout, breaches: &[Breach]) -> Option<Id> {
    let barred = breaches.first().filter(|_| breaches.iter().all(|breach| breach.rule == Rule::Way))?;
    // A keyed screen needs its lamps more than anything but the key.
    let order = if brief.purpose == Purpose::KeyedBackground {
        [Role::Practical, Role::Fill, Role::Back, Role::Background]
    } else {
        [Role::Background, Role::Practical, Role::Fill, Role::Back]
    };
    let can_go = |light: &Light| !light.locked && light.role != Role::Key;
    let is_least = |light: &Light| light.role != order[3];
    if let ThingId::Light(id) = &barred.thing
        && layout.lights.get(id).is_some_and(|light| can_go(light) && is_least(light))
    {
        return Some(id.clone());
    }
    let rank = |light: &Light| order.iter().position(|role| *role == light.role);
    let all = layout.lights.iter().filter(|(_, light)| can_go(light));
    all.min_by_key(|(_, light)| rank(light)).map(|(id, _)| id.clone())
}

/// Floor that no stand takes, m2.
pub(super) fn free_floor_m2(corner: &Corner<'_>, all: &[Thing]) -> f64 {
    signed_area_m2(&corner.floor_m) - all.iter().flat_map(crate::room::footprints_m2).sum::<f64>()
}

/// The same seat, camera and furniture with everything else that is not held in place set up anew for other gear, without
/// what was measured of things that have gone elsewhere; `None` where nothing legal is found.
pub fn replaced(plan: &Plan) -> Option<Plan> {
    // What was measured of the arrangement that goes must not judge those that come.
    let brief = &*plan.brief.of_any_layout(Some(&plan.layout));
    let corner = Corner::of(plan)?;
    let mut bare = plan.layout.clone();
    bare.lights.retain(|_, light| light.locked);
    bare.microphone = bare.microphone.filter(|used| used.locked);
    bare.screen = bare.screen.filter(|used| used.locked);
    bare.backdrop = bare.backdrop.filter(|used| used.locked);
    let preferred = preferred_side(brief, &bare);
    let key_side =
        corner.role(Role::Key).next().map_or(preferred, |k| corner.light_angles_deg(k.position_m).0.signum());
    let mut best: Option<(Furnished, f64)> = None;
    let offer = |side: f64, key: Option<&Id>, best: &mut Option<(Furnished, f64)>| {
        if let Ok(found) =
            one_side(brief, bare.clone(), side, &Asked { key, may_leave_out: true, cast: None })
            && best.as_ref().is_none_or(|(b, _)| found.is_better(b))
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
    // Whether a second lamp does more beside the face or behind the person as well.
    let key = best.as_ref().and_then(|(found, _)| {
        let lights = found.layout.lights.values();
        lights.filter(|light| light.role == Role::Key && !light.locked).map(|light| light.gear.clone()).next()
    });
    if let Some(key) = key {
        for ways in every_way(brief, &bare, Some(&key)).iter().skip(1).take(WAYS_TRIED) {
            let asked = Asked { key: Some(&key), may_leave_out: true, cast: Some(ways) };
            if let Ok(found) = one_side(brief, bare.clone(), better_side, &asked)
                && best.as_ref().is_none_or(|(b, _)| found.is_better(b))
            {
                best = Some((found, better_side));
            }
        }
    }
    best.map(|(found, _)| plan.with_layout(found.layout))
}

/// Ways to share out the other lamps that are tried beside the schools' own.
const WAYS_TRIED: usize = 2;

/// Lamps that are tried as the key.
pub(super) const KEYS_TRIED: usize = 3;
