//! What is used for which job: the lamps, boards and microphones at hand, by the schools of light, source and microphone.
//! Gear that lacks an input, a cable or power comes after gear that works.

use crate::corner::works;
use crate::photometry::flux_lm;
use crate::plan::{
    Brief, Gear, GearLight, GearMicrophone, Id, Layout, LightSchool, MicrophoneSchool, Mounting, Opening,
    Purpose, Shape, SourceSchool,
};

/// A thing at hand with its id.
pub(crate) type AtHand<'a> = (&'a Id, &'a Gear);

/// What is used for which job.
#[derive(Debug, Clone)]
pub(crate) struct Cast<'a> {
    pub(crate) fill: Option<AtHand<'a>>,
    pub(crate) back: Option<AtHand<'a>>,
    /// Lamps that are left for the background.
    pub(crate) spare: Vec<AtHand<'a>>,
}

/// Lamps on a keyed screen, one from each side (common practice, no source).
const SCREEN_LAMPS: usize = 2;
/// A board counts as one from this reflectance on; darker ones take light away.
const BOARD: f64 = 0.4;

/// Lamps at hand that a layout does not use yet, in the order in which the school of source wants them as the key: under
/// large and soft the largest first, else the one that gives most light.
pub(super) fn keys<'a>(brief: &'a Brief, layout: &Layout) -> Vec<AtHand<'a>> {
    let by_window = brief.windows_shine() && brief.room.openings.values().any(Opening::is_open_to_light);
    let school = brief.schools.lights;
    if school == LightSchool::WindowOnly || by_window {
        return Vec::new();
    }
    let mut all: Vec<(AtHand<'a>, f64)> = lamps(brief, layout)
        .filter(|(_, _, lamp)| school != LightSchool::Ring || lamp.shape == Shape::Ring)
        .map(|(id, gear, lamp)| ((id, gear), wanted(brief, lamp)))
        .collect();
    let lacks = |id: &Id| !works(brief, id);
    all.sort_by(|a, b| lacks(a.0.0).cmp(&lacks(b.0.0)).then(b.1.total_cmp(&a.1)).then(a.0.0.cmp(b.0.0)));
    // Of several alike one is tried.
    all.dedup_by(|a, b| a.0.0 == b.0.0);
    all.into_iter().map(|(lamp, _)| lamp).collect()
}

/// How much the school of source wants a lamp as the key: more is better.
fn wanted(brief: &Brief, lamp: &GearLight) -> f64 {
    match brief.schools.source {
        SourceSchool::BigSoft => lamp.width_m * lamp.height_m,
        SourceSchool::SmallNear => flux_lm(lamp),
    }
}

fn lamps<'a>(brief: &'a Brief, layout: &Layout) -> impl Iterator<Item = (&'a Id, &'a Gear, &'a GearLight)> {
    let used: Vec<Id> = layout.lights.values().map(|light| light.gear.clone()).collect();
    let at_hand = brief.gear.iter().filter(|(_, gear)| gear.at_hand());
    at_hand
        .flat_map(move |(id, gear)| {
            let in_use = used.iter().filter(|used| *used == id).count();
            std::iter::repeat_n((id, gear), gear.common().pieces().saturating_sub(in_use))
        })
        .filter_map(|(id, gear)| Some((id, gear, gear.light()?)))
}

/// As [`lamps`], without one that is to be the key and is not in the layout yet.
fn lamps_beside<'a>(
    brief: &'a Brief,
    layout: &Layout,
    key: Option<&Id>,
) -> Vec<(&'a Id, &'a Gear, &'a GearLight)> {
    let mut all: Vec<_> = lamps(brief, layout).collect();
    let waits = key.filter(|key| !layout.lights.values().any(|light| light.gear == **key));
    if let Some(at) = waits.and_then(|key| all.iter().position(|(id, ..)| *id == key)) {
        all.remove(at);
    }
    all
}

/// What does the other jobs beside a key.
pub(super) fn cast<'a>(brief: &'a Brief, layout: &Layout, key: Option<&Id>) -> Cast<'a> {
    let school = brief.schools.lights;
    let mut left: Vec<(AtHand<'a>, f64)> = lamps_beside(brief, layout, key)
        .into_iter()
        .filter(|_| school != LightSchool::WindowOnly)
        .map(|(id, gear, lamp)| ((id, gear), flux_lm(lamp)))
        .collect();
    left.sort_by(|a, b| b.1.total_cmp(&a.1).then(a.0.0.cmp(b.0.0)));
    let mut lamps: Vec<AtHand<'a>> = left.into_iter().map(|(lamp, _)| lamp).collect();
    let in_use = |id: &Id| layout.lights.values().any(|light| light.gear == *id);
    let board = brief.gear.iter().find(|(id, gear)| {
        let reflects = gear.reflector().is_some_and(|r| r.reflectance > BOARD && r.transmittance.is_none());
        gear.at_hand() && reflects && !in_use(id)
    });
    // A keyed screen that is dark cannot be keyed: two lamps light it before any other job is filled.
    let for_screen =
        if brief.purpose == Purpose::KeyedBackground { lamps.len().min(SCREEN_LAMPS) } else { 0 };
    let on_screen = lamps.split_off(lamps.len() - for_screen);
    let wants_back = school == LightSchool::ThreePoint && !lamps.is_empty();
    let back = if wants_back && (board.is_some() || lamps.len() > 1) { lamps.pop() } else { None };
    let fill = match school {
        LightSchool::One | LightSchool::Ring => None,
        LightSchool::Even => lamps.first().copied().or(board),
        _ => board.or_else(|| lamps.first().copied()),
    };
    if let Some(at) = fill.and_then(|(used, _)| lamps.iter().position(|(id, _)| *id == used)) {
        lamps.remove(at);
    }
    lamps.extend(on_screen);
    Cast { fill, back, spare: lamps }
}

/// Ways to share out the lamps that are tried at most.
const WAYS_MOST: usize = 10;

/// Every way to share out what is left beside a key: fill and back light from every lamp or none, the rest behind. The schools'
/// own first.
pub(super) fn every_way<'a>(brief: &'a Brief, layout: &Layout, key: Option<&Id>) -> Vec<Cast<'a>> {
    let first = cast(brief, layout, key);
    let mut all = vec![first.clone()];
    if matches!(brief.schools.lights, LightSchool::One | LightSchool::Ring | LightSchool::WindowOnly) {
        return all;
    }
    let lamps: Vec<AtHand<'a>> =
        lamps_beside(brief, layout, key).into_iter().map(|(id, gear, _)| (id, gear)).collect();
    let board = first.fill.filter(|(_, gear)| gear.reflector().is_some());
    let wants_back = brief.schools.lights == LightSchool::ThreePoint;
    let mut fills: Vec<Option<AtHand<'a>>> = lamps.iter().copied().map(Some).collect();
    fills.extend([board, None]);
    let backs: Vec<Option<AtHand<'a>>> =
        if wants_back { lamps.iter().copied().map(Some).chain([None]).collect() } else { vec![None] };
    let id = |one: &Option<AtHand<'a>>| one.map(|(id, _)| id);
    for back in &backs {
        for fill in &fills {
            if back.is_some() && id(back) == id(fill) {
                continue;
            }
            let spare: Vec<AtHand<'a>> = lamps
                .iter()
                .copied()
                .filter(|(own, _)| Some(*own) != id(back) && Some(*own) != id(fill))
                .collect();
            let same = |other: &Cast<'a>| id(&other.fill) == id(fill) && id(&other.back) == id(back);
            // No lamp is taken from the background, a keyed screen above all, that the schools' own casting gives it.
            let keeps_behind = spare.len() >= first.spare.len();
            if keeps_behind && !all.iter().any(same) && all.len() < WAYS_MOST {
                all.push(Cast { fill: *fill, back: *back, spare });
            }
        }
    }
    all
}

/// Every microphone at hand: those that can be recorded before those that cannot, then by the school.
pub(super) fn microphones(brief: &Brief) -> Vec<(&Id, &GearMicrophone)> {
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
    let at_hand = brief.gear.iter().filter(|(_, g)| g.at_hand());
    let mut all: Vec<_> = at_hand.filter_map(|(id, g)| g.microphone().map(|m| (id, m))).collect();
    all.sort_by_key(|(id, m)| (!works(brief, id), rank(m.mounting), (*id).clone()));
    all
}
