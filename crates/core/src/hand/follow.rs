//! What goes along when one thing is moved: the camera keeps the person where they were in the picture, lights
//! that faced the eyes still do, a stand stays under what it carries, a chest that faced the lens still does.
//! Locked things do not go along.

use crate::corner::{Corner, LightAt, is_worn};
use crate::edit::{fill_bag, millimetre, rounded, rounded_bearing, rounded_floor, supports_for};
use crate::geometry::{DVec2, DVec3, bearing_of, wrap_180};
use crate::plan::{FurnitureAt, Id, Layout, Part, Support, SupportKind, ThingId};
use crate::shot::framing::from_here;

use super::moves::{Grasp, Grip};

/// A chest turned no further than this from the lens was meant to face it, degrees. Fogon's own rule.
const FACING_DEG: f64 = 15.0;
/// Aims nearer to the eyes than this were meant for them; feet nearer than this to plumb were meant to be, m.
const MEANT_M: f64 = 0.05;
/// Tilt that a plan can hold, degrees.
const TILT_MOST_DEG: f64 = 60.0;

/// Layouts made as they are asked for: most are refused or taken at the first.
pub(super) type Layouts<'a> = Box<dyn Iterator<Item = Layout> + 'a>;

fn one<'a>(layout: Layout) -> Layouts<'a> {
    Box::new(std::iter::once(layout))
}

/// The layouts that put a thing at `to`, the most natural first: they differ in where its stand's foot goes.
pub(super) fn put<'a>(corner: &'a Corner<'_>, by: &'a Grasp<'_>, to: DVec3) -> Layouts<'a> {
    if by.grip == Grip::Foot {
        return one(footed(corner, &by.thing, to.truncate()));
    }
    match &by.thing {
        ThingId::Seat => one(seated(corner, to.truncate())),
        ThingId::Camera => one(shot_from(corner, to)),
        ThingId::Light(_) | ThingId::Microphone | ThingId::Screen => carried(corner, &by.thing, to),
        ThingId::Angle(_) => one(angle_at(corner, &by.thing, to)),
        ThingId::Furniture(id) => one(furnished(corner, id, to.truncate())),
        thing @ (ThingId::Backdrop | ThingId::Treatment(_)) => {
            let mut layout = corner.layout.clone();
            layout.put_at(thing, rounded(to).into());
            one(layout)
        }
        ThingId::Person | ThingId::Opening(_) | ThingId::Mains => one(corner.layout.clone()),
    }
}

fn seated(corner: &Corner<'_>, to: DVec2) -> Layout {
    let mut layout = corner.layout.clone();
    let moved_by = to - corner.eyes_m.truncate();
    layout.seat.position_m = rounded_floor(to);
    // What is worn goes with the person.
    if let (Some((gear, at)), Some(used)) = (corner.microphone, &mut layout.microphone)
        && is_worn(gear.mounting)
    {
        used.position_m = rounded(at + moved_by.extend(0.0));
    }
    refaced(corner, &mut layout);
    layout
}

fn shot_from(corner: &Corner<'_>, to: DVec3) -> Layout {
    let mut layout = corner.layout.clone();
    let support = &mut layout.camera.support;
    let at = corner.view.position_m;
    if support.kind == SupportKind::Wall {
        refix(corner, support, to);
    } else {
        support.base_m = support.base_m.map(|foot| {
            let foot = DVec2::from(foot);
            let plumb = support.kind == SupportKind::Floor && (foot - at.truncate()).length() < MEANT_M;
            rounded_floor(if plumb { to.truncate() } else { foot + (to - at).truncate() })
        });
    }
    layout.camera.position_m = rounded(to);
    screen_along(corner, &mut layout);
    refaced(corner, &mut layout);
    fill_bag(corner.brief, &mut layout, &ThingId::Camera);
    layout
}

/// An arm on the wall is fixed where it reaches; where none does it stays.
pub(super) fn refix(corner: &Corner<'_>, support: &mut Support, hold: DVec3) {
    if let Some(fixed) = supports_for(corner, support, hold, corner.eyes_m.truncate(), 1.0).into_iter().next()
    {
        *support = fixed;
    }
}

/// What goes along when the camera has gone along its line: a screen on it, a chest that faced it.
pub(super) fn after_camera(corner: &Corner<'_>, layout: &mut Layout) {
    screen_along(corner, layout);
    let (bearing_deg, tilt_deg) = (layout.camera.bearing_deg, layout.camera.tilt_deg);
    let focus_distance_m = layout.camera.focus_distance_m;
    refaced(corner, layout);
    // The camera has been posed already.
    let camera = &mut layout.camera;
    (camera.bearing_deg, camera.tilt_deg, camera.focus_distance_m) =
        (bearing_deg, tilt_deg, focus_distance_m);
}

/// A screen on the camera goes where the camera goes.
fn screen_along(corner: &Corner<'_>, layout: &mut Layout) {
    let lens = DVec3::from(layout.camera.position_m);
    if let (Some((_, at)), Some(used)) = (corner.screen, &mut layout.screen)
        && corner.screen_is_on_camera()
    {
        used.position_m = rounded(at + lens - corner.view.position_m);
    }
}

/// Camera, chest and lights turned to what they were turned to, after seat or camera have moved.
fn refaced(corner: &Corner<'_>, layout: &mut Layout) {
    let (eyes, lens) = (corner.eyes_m, corner.view.position_m);
    let new_eyes = DVec2::from(layout.seat.position_m).extend(eyes.z);
    let new_lens = DVec3::from(layout.camera.position_m);
    let (was, is) = (eyes - lens, new_eyes - new_lens);
    let rise = |v: DVec3| v.z.atan2(v.truncate().length()).to_degrees();
    if !layout.seat.locked {
        let beside = wrap_180(layout.seat.bearing_deg - bearing_of(-was));
        let gaze = layout.seat.gaze_offset_deg;
        if (beside + gaze).abs() <= FACING_DEG || beside.abs() <= FACING_DEG {
            layout.seat.bearing_deg = rounded_bearing(bearing_of(-is) + beside);
        }
    }
    let camera = &mut layout.camera;
    if !camera.locked {
        camera.bearing_deg = rounded_bearing(bearing_of(is) + wrap_180(camera.bearing_deg - bearing_of(was)));
        camera.tilt_deg = tilt(camera.tilt_deg + rise(is) - rise(was));
        if (camera.focus_distance_m - corner.subject_distance_m()).abs() < MEANT_M {
            let focal_m = camera.focal_length_mm / 1000.0;
            let depth = corner.subject_distance_m() * is.length() / was.length().max(1e-6);
            camera.focus_distance_m = millimetre(depth.max(focal_m + 0.05));
        }
    }
    for light in corner.lights.iter().filter(|l| !l.light.locked && l.light.aim_m.is_some()) {
        if (light.aim_m - eyes).length() < MEANT_M {
            turn_light(corner, layout, light, Some(new_eyes));
        }
    }
}

fn tilt(degrees: f64) -> f64 {
    (degrees.clamp(-TILT_MOST_DEG, TILT_MOST_DEG) * 100.0).round() / 100.0
}

/// Aims a light anew; a plumb stand stays under where it is now held.
fn turn_light(corner: &Corner<'_>, layout: &mut Layout, light: &LightAt<'_>, aim: Option<DVec3>) {
    let Some(placed) = layout.lights.get_mut(light.id) else { return };
    placed.aim_m = aim.map(rounded);
    let held = LightAt { aim_m: aim.unwrap_or(corner.eyes_m), ..*light }.hold_m();
    if let Some(foot) = placed.support.base_m
        && placed.support.kind == SupportKind::Floor
        && (DVec2::from(foot) - light.hold_m().truncate()).length() < MEANT_M
    {
        placed.support.base_m = Some(rounded_floor(held.truncate()));
    }
}

fn angle_at(corner: &Corner<'_>, thing: &ThingId, to: DVec3) -> Layout {
    let mut layout = corner.layout.clone();
    let at = layout.part(thing).map_or(to, Part::position_m);
    layout.put_at(thing, rounded(to).into());
    if let Some(support) = layout.support_mut(thing) {
        support.base_m = support.base_m.map(|foot| rounded_floor(DVec2::from(foot) + (to - at).truncate()));
    }
    fill_bag(corner.brief, &mut layout, thing);
    layout
}

/// A thing moved with its stand: the whole of it, then the arm swung with the foot where it is, then any foot.
fn carried<'a>(corner: &'a Corner<'_>, thing: &'a ThingId, to: DVec3) -> Layouts<'a> {
    let mut layout = corner.layout.clone();
    layout.put_at(thing, rounded(to).into());
    let held = corner.carried().into_iter().find(|carried| carried.id == *thing);
    let hold = Corner::from_parts(corner.brief, &layout)
        .and_then(|moved| moved.carried().into_iter().find(|carried| carried.id == *thing).map(|c| c.hold_m));
    let (Some(held), Some(hold)) = (held, hold) else { return one(layout) };
    let support = held.support.clone();
    let foot = support.base_m.map(DVec2::from);
    let mut natural = support.clone();
    if let (Some(foot), SupportKind::Floor | SupportKind::Boom) = (foot, support.kind) {
        let was = held.hold_m.truncate();
        let plumb = support.kind == SupportKind::Floor && (foot - was).length() < MEANT_M;
        let along = if plumb { hold.truncate() } else { foot + hold.truncate() - was };
        natural.base_m = Some(rounded_floor(along));
    }
    let swings = foot.is_some() && matches!(support.kind, SupportKind::Boom | SupportKind::Wall);
    let others = swings.then(move || {
        let anywhere = supports_for(corner, &support, hold, corner.eyes_m.truncate(), 1.0);
        std::iter::once(support).chain(anywhere)
    });
    Box::new(std::iter::once(natural).chain(others.into_iter().flatten()).map(move |support| {
        let mut layout = layout.clone();
        if let Some(own) = layout.support_mut(thing) {
            *own = support;
        }
        fill_bag(corner.brief, &mut layout, thing);
        layout
    }))
}

fn footed(corner: &Corner<'_>, thing: &ThingId, foot: DVec2) -> Layout {
    let mut layout = corner.layout.clone();
    if let Some(support) = layout.support_mut(thing) {
        support.base_m = Some(rounded_floor(foot));
    }
    fill_bag(corner.brief, &mut layout, thing);
    layout
}

fn furnished(corner: &Corner<'_>, id: &Id, to: DVec2) -> Layout {
    let mut layout = corner.layout.clone();
    let Some(piece) = corner.brief.room.furniture.get(id) else { return layout };
    let (at, bearing_deg) = corner.furniture_at(id, piece);
    let by = (to - at.truncate()).extend(0.0);
    let placed = FurnitureAt { position_m: rounded(at + by), bearing_deg, locked: false };
    layout.furniture.insert(id.clone(), placed);
    // What stands on it goes along.
    for part in corner.layout.parts() {
        let stands_on_it = part.support().is_some_and(|support| support.on.as_ref() == Some(id));
        if !stands_on_it || part.is_locked() {
            continue;
        }
        layout.put_at(&part.id(), rounded(part.position_m() + by).into());
        if part.id() == ThingId::Camera {
            screen_along(corner, &mut layout);
            refaced(corner, &mut layout);
        }
    }
    layout
}

/// Seat or furniture turned in place.
pub(super) fn turned(corner: &Corner<'_>, thing: &ThingId, bearing_deg: f64) -> Layout {
    let mut layout = corner.layout.clone();
    let bearing_deg = rounded_bearing(bearing_deg);
    match thing {
        ThingId::Seat => layout.seat.bearing_deg = bearing_deg,
        ThingId::Backdrop => layout.backdrop.iter_mut().for_each(|used| used.bearing_deg = bearing_deg),
        ThingId::Furniture(id) => {
            if let Some(piece) = corner.brief.room.furniture.get(id) {
                let (at, _) = corner.furniture_at(id, piece);
                let placed = FurnitureAt { position_m: rounded(at), bearing_deg, locked: false };
                layout.furniture.insert(id.clone(), placed);
            }
        }
        // Nothing else has a handle that turns.
        ThingId::Camera
        | ThingId::Light(_)
        | ThingId::Microphone
        | ThingId::Screen
        | ThingId::Angle(_)
        | ThingId::Treatment(_)
        | ThingId::Person
        | ThingId::Opening(_)
        | ThingId::Mains => {}
    }
    layout
}

/// Camera or light turned to a point.
pub(super) fn aimed(corner: &Corner<'_>, thing: &ThingId, at: DVec3) -> Layout {
    let mut layout = corner.layout.clone();
    let light = corner.lights.iter().find(|light| *thing == ThingId::Light(light.id.clone()));
    if let Some(light) = light {
        turn_light(corner, &mut layout, light, Some(at));
        fill_bag(corner.brief, &mut layout, thing);
    } else {
        let axis = at - corner.view.position_m;
        layout.camera.bearing_deg = rounded_bearing(bearing_of(axis));
        layout.camera.tilt_deg = tilt(axis.z.atan2(axis.truncate().length()).to_degrees());
    }
    layout
}

/// Bearing, tilt and zoom that frame the wanted shot from where the camera stands, as far as its lens goes.
pub(super) fn reframed(corner: &Corner<'_>) -> Layout {
    let mut layout = corner.layout.clone();
    let wanted = crate::shot::wanted_of(corner);
    let line = corner.eyes_m - corner.view.position_m;
    // Eyes that leave the lens keep room to look into: the axis passes beside them.
    let gaze = corner.layout.seat.gaze_offset_deg;
    let aside = wanted.aside_m(corner.brief, gaze, corner.image_mm.0 / corner.image_mm.1);
    let flat = line.truncate().length();
    let pan = (aside / flat.max(0.05)).atan();
    let Some((radians, zoom)) = from_here(&wanted, corner.image_mm.1, flat * pan.cos(), -line.z) else {
        return layout;
    };
    let camera = &mut layout.camera;
    camera.bearing_deg = rounded_bearing(bearing_of(line) + pan.to_degrees());
    camera.tilt_deg = tilt(radians.to_degrees());
    let (sin, cos) = camera.tilt_deg.to_radians().sin_cos();
    let depth = flat * pan.cos() * cos + line.z * sin;
    let zoom = zoom.clamp(corner.lens.focal_min_mm, corner.lens.focal_max_mm);
    camera.focal_length_mm = (zoom * 10.0).round() / 10.0;
    camera.f_number = camera.f_number.max((corner.lens.widest_f_number(zoom) * 10.0).round() / 10.0);
    camera.focus_distance_m = millimetre(depth.max(camera.focal_length_mm / 1000.0 + 0.05));
    layout
}
