//! Puts lights and microphone around a seat and a camera: each at its best legal place, the supports that are
//! owned shared out, then exposure, dials and sandbags.

use super::stands::{Stands, bag_for, carried_by_nothing, column, fixed_camera, set_up};
use super::{Shot, backdrop, bare_layout, dial, screen};
use crate::assess::carry::{bag_kg, fill_bag, rounded};
use crate::assess::legal::{Breach, Rules};
use crate::assess::{Quick, quick};
use crate::corner::{
    Corner, LightAt, Source, Thing, carry_light, is_worn, light_head, microphone_thing, things,
};
use crate::exposure::{CALIBRATION, iso_on_dial};
use crate::geometry::{DVec3, distance_to_edge, signed_area_m2};
use crate::light::face::at_face;
use crate::light::flare_margin_deg;
use crate::light::placement::places as light_places;
use crate::plan::{
    Brief, Gear, Id, Layout, Light, LightSchool, Microphone, MicrophoneSchool, Mounting, OpeningKind, Plan,
    RigSchool, Role, Support, SupportKind, Things,
};
use crate::shot::framing;
use crate::sound::placement::places as microphone_places;

/// Legal tries for one thing before it is given up.
const TRIES: usize = 900;
/// The ratio that a fill is set for: the middle of its band in stops.
const WANTED_RATIO: f64 = 2.8;
/// A fill that brings the ratio nearer to the wanted one by less than this, in stops, is not worth its stand.
const RATIO_GAIN_STOPS: f64 = 0.1;

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

/// What is used for which job.
struct Cast<'a> {
    key: Option<(&'a Id, &'a Gear)>,
    fill: Option<(&'a Id, &'a Gear)>,
    back: Option<(&'a Id, &'a Gear)>,
    microphones: Vec<(&'a Id, &'a crate::plan::GearMicrophone)>,
}

/// Lights and microphone for a shot; both key sides are tried, the better is kept.
pub(crate) fn furnish(brief: &Brief, shot: &Shot) -> Result<Furnished, Failed> {
    let failed = |breaches, bare| Failed { facing: shot.facing.name.clone(), bare, breaches };
    if shot.lacking_m > 0.0 {
        let sentence =
            format!("The camera lacks {} of room to frame this shot.", brief.units.gap(shot.lacking_m));
        return Err(failed(
            vec![Breach {
                rule: "camera",
                thing: "camera".into(),
                lacking: shot.lacking_m,
                sentence,
                frees: "Use a shorter focal length, or give the corner that much more depth.".into(),
            }],
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
        match one_side(brief, bare_layout(shot, gaze_deg * side), side) {
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
fn preferred_side(brief: &Brief, layout: &Layout) -> f64 {
    let Some(corner) = Corner::from_parts(brief, layout) else { return 1.0 };
    let lean = window_lean_m(&corner).unwrap_or_else(|| {
        let (right, eyes) = (corner.view.right.truncate(), corner.eyes_m.truncate());
        distance_to_edge(&corner.floor_m, eyes, right) - distance_to_edge(&corner.floor_m, eyes, -right)
    });
    if lean < -1e-6 { -1.0 } else { 1.0 }
}

fn cast(brief: &Brief) -> Cast<'_> {
    let at_hand = || brief.gear.iter().filter(|(_, g)| g.at_hand());
    let flux = crate::photometry::flux_lm;
    let mut lamps: Vec<(&Id, &Gear, f64)> =
        at_hand().filter_map(|(id, gear)| gear.light().map(|g| (id, gear, flux(g)))).collect();
    lamps.sort_by(|a, b| b.2.total_cmp(&a.2).then(a.0.cmp(b.0)));
    let mut lamps: Vec<(&Id, &Gear)> = lamps.into_iter().map(|(id, gear, _)| (id, gear)).collect();
    let key = (!lamps.is_empty()).then(|| lamps.remove(0));
    let board = at_hand().find(|(_, g)| g.reflector().is_some_and(|r| r.reflectance > 0.4));
    let school = brief.schools.lights;
    let back =
        if school == LightSchool::ThreePoint && !lamps.is_empty() && (board.is_some() || lamps.len() > 1) {
            lamps.pop()
        } else {
            None
        };
    let fill = match school {
        LightSchool::One => None,
        _ => board.or_else(|| lamps.first().copied()),
    };
    let wanted = match brief.schools.microphone {
        MicrophoneSchool::Boom => [Mounting::Boom, Mounting::Lavalier, Mounting::Desk],
        MicrophoneSchool::Lavalier => [Mounting::Lavalier, Mounting::Headset, Mounting::Boom],
        MicrophoneSchool::Desk => [Mounting::Desk, Mounting::Boom, Mounting::Lavalier],
        MicrophoneSchool::InShot => [Mounting::Boom, Mounting::Desk, Mounting::Lavalier],
    };
    let rank = |m: Mounting| {
        wanted.iter().position(|w| *w == m).unwrap_or(match m {
            Mounting::Headset => 3,
            Mounting::Desk => 4,
            Mounting::OnCamera => 5,
            _ => 6,
        })
    };
    let mut microphones: Vec<_> = at_hand().filter_map(|(id, g)| g.microphone().map(|m| (id, m))).collect();
    microphones.sort_by_key(|(id, m)| (rank(m.mounting), (*id).clone()));
    Cast { key, fill, back, microphones }
}

/// What seat, desk and camera alone break.
fn bare_breaches(brief: &Brief, mut layout: Layout) -> Vec<Breach> {
    camera_support(brief, &mut layout, &mut Stands::all(brief));
    Corner::from_parts(brief, &layout)
        .map_or_else(Vec::new, |corner| Rules::new(&corner).all(&things(&corner)))
}

/// Fills a layout of seat and camera: microphone, key on the given side, back light and fill.
fn one_side(brief: &Brief, mut layout: Layout, side: f64) -> Result<Furnished, Vec<Breach>> {
    let mut stands = Stands::all(brief);
    camera_support(brief, &mut layout, &mut stands);
    let cast = cast(brief);
    backdrop::place(brief, &mut layout);
    place_microphone(brief, &mut layout, &mut stands, &cast, -side)?;
    if let Some((id, gear)) = cast.key {
        place_light(brief, &mut layout, &mut stands, ("key", id, gear), Role::Key, side);
    }
    // The back light before the fill: it needs the arm.
    if let Some((id, gear)) = cast.back {
        place_light(brief, &mut layout, &mut stands, ("back", id, gear), Role::Back, -side);
    }
    if let Some((id, gear)) = cast.fill {
        place_fill(brief, &mut layout, &mut stands, (id, gear), -side);
    }
    screen::place(brief, &mut layout, &stands);
    if stands.column.is_some() {
        // With everything on it the column needs another bag than with the camera alone.
        fill_bag(brief, &mut layout, "camera");
    }
    settle(brief, &mut layout);
    let corner = Corner::from_parts(brief, &layout).ok_or_else(Vec::new)?;
    let all = things(&corner);
    let breaches = Rules::new(&corner).all(&all);
    if !breaches.is_empty() {
        return Err(breaches);
    }
    let covered: f64 = all
        .iter()
        .flat_map(|t| &t.parts)
        .filter(|p| p.what == "feet")
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
        fill_bag(brief, layout, "camera");
        return;
    }
    // A stand made for cameras before one made for anything.
    let made_for =
        |id: &Id| brief.gear.get(id).is_some_and(|g| g.common().offers.iter().any(|o| o == "camera"));
    let free = stands.free("camera", false);
    let chosen = free.iter().find(|id| fits(id) && made_for(id)).or_else(|| free.iter().find(|id| fits(id)));
    layout.camera.support.gear = chosen.cloned();
    stands.take(&layout.camera.support.clone());
    let bag = Corner::from_parts(brief, layout).and_then(|c| {
        crate::room::sandbags(&c).into_iter().find(|s| s.thing == "camera").map(|s| bag_kg(s.needed_kg))
    });
    layout.camera.support.sandbag_kg = bag.unwrap_or(0.0);
}

fn place_microphone(
    brief: &Brief,
    layout: &mut Layout,
    stands: &mut Stands<'_>,
    cast: &Cast<'_>,
    hand: f64,
) -> Result<(), Vec<Breach>> {
    if cast.microphones.is_empty() {
        return Ok(());
    }
    let frozen = layout.clone();
    let corner = Corner::from_parts(brief, &frozen).ok_or_else(Vec::new)?;
    let others = things(&corner);
    for (id, gear) in &cast.microphones {
        for place in microphone_places(&corner, gear, hand) {
            let put = |support: Support| Microphone {
                gear: (*id).clone(),
                position_m: rounded(place),
                support,
                locked: false,
            };
            if is_worn(gear.mounting) {
                layout.microphone = Some(put(carried_by_nothing()));
                return Ok(());
            }
            let mut trial = corner.clone();
            trial.microphone = Some((gear, place));
            let rules = Rules::new(&trial);
            let fits =
                |support: &Support| rules.allows(&microphone_thing(&trial, gear, place, support), &others);
            // The capsule alone first: most places fall to the room or the picture.
            if !fits(&carried_by_nothing()) {
                continue;
            }
            for mut support in microphone_supports(&corner, stands, gear.mounting, place, hand) {
                if fits(&support) {
                    stands.take(&support);
                    let in_layout = |l: &mut Layout| l.microphone = Some(put(support.clone()));
                    support.sandbag_kg = bag_for(brief, &frozen, in_layout, "microphone");
                    layout.microphone = Some(put(support));
                    return Ok(());
                }
            }
        }
    }
    Err(vec![Breach {
        rule: "picture",
        thing: "microphone".into(),
        lacking: 0.0,
        sentence: "No microphone owned finds a place outside the picture with a free line to the mouth."
            .into(),
        frees: "Use a worn microphone, allow the microphone in the picture, or tighten the shot.".into(),
    }])
}

fn microphone_supports(
    corner: &Corner<'_>,
    stands: &Stands<'_>,
    mounting: Mounting,
    place: DVec3,
    hand: f64,
) -> Vec<Support> {
    let away = (place - corner.mouth_m).normalize_or_zero();
    let hold = place + away * 0.16;
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
                all.push(Support { on: Some(id.clone()), ..carried_by_nothing() });
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

fn new_light(gear: &Id, role: Role, support: Support, brief: &Brief) -> Light {
    let cct_k = brief
        .gear
        .get(gear)
        .and_then(Gear::light)
        .map(|lamp| 5600.0f64.clamp(lamp.cct_min_k, lamp.cct_max_k));
    Light {
        gear: gear.clone(),
        role,
        position_m: crate::plan::Point3([0.0; 3]),
        aim_m: None,
        dim: 1.0,
        cct_k,
        gel: None,
        colour: None,
        cloth: None,
        support,
        locked: false,
    }
}

fn source_of(gear: &Gear) -> Option<Source<'_>> {
    gear.light().map(Source::Lamp).or_else(|| gear.reflector().map(Source::Board))
}

/// Every legal way to place a light, best first, until `accept` says yes.
fn try_places(
    brief: &Brief,
    layout: &Layout,
    stands: &Stands<'_>,
    (name, id, gear): (&str, &Id, &Gear),
    role: Role,
    side: f64,
    mut accept: impl FnMut(&Light) -> bool,
) -> Option<Light> {
    let corner = Corner::from_parts(brief, layout)?;
    let rules = Rules::new(&corner);
    let others: Vec<Thing> = things(&corner);
    let source = source_of(gear)?;
    // A plain stand before an arm, which the back light may need; the back light asks for an arm first.
    let floor = (false, stands.options("light", SupportKind::Floor));
    let boom = (true, stands.options("light", SupportKind::Boom));
    // The column for the key alone: behind the person it never reaches.
    let fixed = brief.schools.rig == RigSchool::Fixed;
    let rig = (true, if role == Role::Key || fixed { stands.by_rig("light") } else { Vec::new() });
    let owned = |(_, options): &(bool, Vec<Support>)| options.iter().any(|s| s.gear.is_some());
    let mut rounds = if role == Role::Back { vec![boom, floor] } else { vec![floor, boom] };
    rounds.insert(0, rig);
    if rounds.iter().any(owned) {
        rounds.retain(owned);
    } else {
        rounds.truncate(2);
    }
    let blank = new_light(id, role, carried_by_nothing(), brief);
    let probe = LightAt {
        id: name,
        light: &blank,
        source,
        position_m: corner.eyes_m + DVec3::Y,
        aim_m: corner.eyes_m,
        cloth: None,
    };
    let mut tries = 0;
    let places = light_places(&corner, &probe, role, side);
    let tried = rounds.iter().flat_map(|(arm, options)| {
        // A column plumb under the lamp must be out of the picture too; an arm may hold it anywhere.
        places.iter().filter(move |p| *arm || !p.needs_arm).map(move |p| (p, options))
    });
    for (place, options) in tried {
        let placed = LightAt { position_m: place.position_m, ..probe };
        // The head alone first: most places fall to the room or the picture.
        let mut thing = light_head(&placed);
        if !rules.allows(&thing, &others) {
            continue;
        }
        for option in options {
            for support in set_up(&corner, option, placed.hold_m(), side) {
                tries += 1;
                if tries > TRIES {
                    return None;
                }
                let mut light = Light { support, ..blank.clone() };
                light.position_m = rounded(place.position_m);
                light.aim_m = Some(rounded(corner.eyes_m));
                carry_light(&corner, &placed, &light.support, &mut thing);
                if !carries(&corner, &light, gear) || !rules.allows(&thing, &others) {
                    continue;
                }
                light.support.sandbag_kg =
                    bag_for(brief, layout, |l| drop(l.lights.insert(Id::from(name), light.clone())), name);
                if accept(&light) {
                    return Some(light);
                }
            }
        }
    }
    None
}

/// Height and payload of the stand.
fn carries(corner: &Corner<'_>, light: &Light, gear: &Gear) -> bool {
    corner.support_gear(&light.support).is_none_or(|stand| {
        let z = light.position_m.0[2];
        let arm = if light.support.kind == SupportKind::Boom { 1.0 } else { 0.0 };
        (stand.height_min_m..=stand.height_max_m).contains(&z)
            && gear.common().mass_kg + arm <= stand.payload_kg
    })
}

fn place_light(
    brief: &Brief,
    layout: &mut Layout,
    stands: &mut Stands<'_>,
    lamp: (&str, &Id, &Gear),
    role: Role,
    side: f64,
) {
    // A back light that flares is tried only where none is clear of the lens.
    let least: &[f64] = if role == Role::Back { &[0.0, -5.0] } else { &[f64::NEG_INFINITY] };
    for margin in least {
        let frozen = layout.clone();
        let Some(corner) = Corner::from_parts(brief, &frozen) else { return };
        let accept = |light: &Light| {
            role != Role::Back || flare_margin_deg(&corner, light.position_m.into()) >= *margin
        };
        if let Some(light) = try_places(brief, &frozen, stands, lamp, role, side, accept) {
            stands.take(&light.support);
            layout.lights.insert(Id::from(lamp.0), light);
            return;
        }
    }
}

/// A fill where the walls alone leave the shadow side darker than wanted; the place or dial that comes nearest to
/// the wanted ratio.
fn place_fill(
    brief: &Brief,
    layout: &mut Layout,
    stands: &mut Stands<'_>,
    (id, gear): (&Id, &Gear),
    side: f64,
) {
    let frozen = layout.clone();
    let Some(corner) = Corner::from_parts(brief, &frozen) else { return };
    let without = at_face(&corner);
    let off_without = (without.lit_lx / without.shadow_lx / WANTED_RATIO).log2();
    if frozen.lights.is_empty() || off_without < RATIO_GAIN_STOPS {
        return;
    }
    let lit_with = |light: &Light| {
        let mut trial = frozen.clone();
        trial.lights.insert(Id::from("fill"), light.clone());
        Corner::from_parts(brief, &trial).map(|c| at_face(&c))
    };
    let mut best: Option<(f64, Light)> = None;
    let mut seen = 0;
    let _ = try_places(brief, &frozen, stands, ("fill", id, gear), Role::Fill, side, |light| {
        seen += 1;
        let mut light = light.clone();
        let Some(full) = lit_with(&light) else { return false };
        // Light is linear in the dial: what the lamp adds at full is what it adds at d, times d.
        let (on_lit, on_shadow) = (full.lit_lx - without.lit_lx, full.shadow_lx - without.shadow_lx);
        if gear.light().is_some() && full.lit_lx < WANTED_RATIO * full.shadow_lx {
            let wanted =
                (WANTED_RATIO * without.shadow_lx - without.lit_lx) / (on_lit - WANTED_RATIO * on_shadow);
            light.dim = dial(wanted.clamp(0.01, 1.0));
        }
        let part = if gear.light().is_some() { light.dim } else { 1.0 };
        let ratio = (without.lit_lx + part * on_lit) / (without.shadow_lx + part * on_shadow);
        let off = (ratio / WANTED_RATIO).log2();
        if best.as_ref().is_none_or(|(least, _)| off.abs() < least.abs() - 1e-6) {
            best = Some((off, light));
        }
        // In band and near enough, or a handful seen.
        off.abs() < 0.35 || seen >= 12
    });
    if let Some((_, light)) = best.filter(|(off, _)| off.abs() < off_without - RATIO_GAIN_STOPS) {
        stands.take(&light.support);
        layout.lights.insert(Id::from("fill"), light);
    }
}

/// Dials, ISO and white balance: the key at full, the back light level with it, ISO from the light at the face,
/// then dimming, then neutral density.
pub(crate) fn settle(brief: &Brief, layout: &mut Layout) {
    balance_back(brief, layout);
    let measure = |layout: &Layout| {
        Corner::from_parts(brief, layout).map(|corner| {
            let camera = &corner.layout.camera;
            let lit = at_face(&corner).camera_lx;
            let glass = corner.glass_stops().exp2();
            let wanted = glass * CALIBRATION * camera.f_number.powi(2) / (camera.shutter_s * lit);
            (wanted, corner.body.iso_min, corner.body.iso_max)
        })
    };
    let Some((wanted, iso_min, iso_max)) = measure(layout) else { return };
    layout.camera.nd_stops = 0.0;
    if !wanted.is_finite() {
        return;
    }
    layout.camera.iso = iso_on_dial(wanted, iso_min, iso_max);
    if wanted < iso_min {
        for light in layout.lights.values_mut() {
            // A board has no dial.
            if brief.gear.get(&light.gear).is_some_and(|g| g.light().is_some()) {
                light.dim = dial(light.dim * (wanted / iso_min).max(0.05));
            }
        }
        if let Some((left, ..)) = measure(layout) {
            let stops = (iso_min / left).log2();
            layout.camera.nd_stops = if stops > 0.3 { (stops * 3.0).round() / 3.0 } else { 0.0 };
        }
    }
    let key = layout.lights.values().find(|l| l.role == Role::Key).and_then(|l| l.cct_k);
    if let Some(cct_k) = key {
        layout.camera.white_balance_k = cct_k;
        for light in layout.lights.values_mut() {
            if let Some(lamp) = brief.gear.get(&light.gear).and_then(Gear::light) {
                light.cct_k = Some(cct_k.clamp(lamp.cct_min_k, lamp.cct_max_k));
            }
        }
    }
}

/// The back light as bright on the hair as the key on the face (-1 to +1 stop: common practice, no source).
fn balance_back(brief: &Brief, layout: &mut Layout) {
    let frozen = layout.clone();
    let Some(corner) = Corner::from_parts(brief, &frozen) else { return };
    let towards = |light: &LightAt<'_>| {
        light.face().illuminance_lx(corner.eyes_m, (light.position_m - corner.eyes_m).normalize_or_zero())
    };
    let Some(key) = corner.role(Role::Key).next().map(towards) else { return };
    for back in corner.role(Role::Back) {
        let full = towards(back) / back.light.dim.max(0.01);
        if let Some(light) = layout.lights.get_mut(&Id::from(back.id)) {
            light.dim = dial(key / full.max(1.0));
        }
    }
}

/// The same seat, camera and furniture with everything else placed anew for other gear; `None` where nothing
/// legal is found.
pub fn replaced(plan: &Plan) -> Option<Plan> {
    let brief = &plan.brief;
    let corner = Corner::of(plan)?;
    let bare = Layout {
        lights: Things::new(),
        microphone: None,
        screen: None,
        backdrop: None,
        ..plan.layout.clone()
    };
    let preferred = preferred_side(brief, &bare);
    let key_side =
        corner.role(Role::Key).next().map_or(preferred, |k| corner.light_angles_deg(k.position_m).0.signum());
    let rank = |f: &Furnished| (f.quick.stops, f.quick.fixes, -f.quick.score);
    let mut best: Option<Furnished> = None;
    for side in [key_side, -key_side] {
        if let Ok(found) = one_side(brief, bare.clone(), side)
            && best.as_ref().is_none_or(|b| rank(&found) < rank(b))
        {
            best = Some(found);
        }
    }
    best.map(|found| Plan { layout: found.layout, ..plan.clone() })
}
