//! Lamps and boards that are at hand and stay in the cupboard: why, and what would fit instead.

use super::angle::free_id;
use super::behind;
use super::cast::{AtHand, keys};
use super::furnish::preferred_side;
use super::lights::{no_room_for, place_fill, place_light, would_fit};
use super::placed::{Placed, stands};
use super::settle::settle;
use super::stands::Stands;
use crate::assess::legal::Rules;
use crate::assess::quick;
use crate::corner::{Corner, things};
use crate::finding::Rule;
use crate::light::{field::at_face, wants_back};
use crate::photometry::flux_lm;
use crate::plan::{Brief, Id, Layout, LightSchool, Role, SupportKind};
use crate::reading::{Quantity, Standing};
use crate::units::{capital, decimals, lower_first};

/// Lamps that are told of at most.
const TOLD: usize = 3;

/// Everything that is at hand to light with, that the schools would use, and that the layout does not.
pub(super) fn left_out(corner: &Corner<'_>) -> Vec<Placed> {
    let brief = corner.brief;
    let used = |id: &Id| corner.layout.lights.values().any(|light| light.gear == *id);
    let mut lamps: Vec<AtHand<'_>> = brief
        .gear
        .iter()
        .filter(|(id, gear)| gear.at_hand() && gear.light().is_some() && !used(id))
        .collect();
    // A small lamp will do for the hair; the strong ones are wanted elsewhere.
    let flux = |lamp: &AtHand<'_>| lamp.1.light().map_or(0.0, flux_lm);
    lamps.sort_by(|a, b| flux(a).total_cmp(&flux(b)));
    let key_is_missing = corner.role(Role::Key).next().is_none();
    let wanted = keys(brief, corner.layout);
    let by_choice =
        matches!(brief.schools.lights, LightSchool::One | LightSchool::Ring | LightSchool::WindowOnly);
    // The lamp that the schools want as the key, where there is none; then the others.
    let mut asked: Vec<(Role, AtHand<'_>)> = Vec::new();
    if key_is_missing {
        asked.extend(wanted.first().map(|lamp| (Role::Key, *lamp)));
    } else if !by_choice {
        let mut roles = Vec::new();
        if wants_back(brief) && corner.role(Role::Back).next().is_none() {
            roles.push(Role::Back);
        }
        if corner.role(Role::Fill).next().is_none() {
            roles.push(Role::Fill);
        }
        let roles = roles.into_iter().chain(std::iter::repeat(Role::Background));
        asked.extend(roles.zip(lamps.iter().copied()));
    }
    let told = asked.into_iter().take(TOLD).filter_map(|(role, lamp)| lamp_left_out(corner, role, lamp));
    fill(corner, &lamps).into_iter().chain(told).collect()
}

/// What would fit where a lamp finds no place in this room whatever carries it, with no other lit; none where it finds one.
pub(crate) fn no_room(brief: &Brief, layout: &Layout, lamp: AtHand<'_>, role: Role) -> Option<String> {
    let mut bare = layout.clone();
    bare.lights.clear();
    let side = preferred_side(brief, &bare);
    no_room_for(brief, &bare, lamp, role, if role == Role::Key { side } else { -side })
}

/// One lamp, tried in a job that nothing does; `None` where the sentence about the fill tells it.
fn lamp_left_out(corner: &Corner<'_>, role: Role, lamp: AtHand<'_>) -> Option<Placed> {
    let (brief, layout) = (corner.brief, corner.layout);
    let label = &lamp.1.common().label;
    let side = preferred_side(brief, layout);
    let hand = if role == Role::Key { side } else { -side };
    let why = match tried(brief, layout, role, lamp, hand) {
        Some(with) => with_it(brief, layout, &with)?,
        None if role == Role::Fill => return None,
        None if role == Role::Background && !behind::wants_light(brief, layout) => {
            "Every job that helps is done, and the wall behind you is light enough".into()
        }
        None if role == Role::Background => {
            "No place that breaks no rule was found from which it lights what is behind you".into()
        }
        None => {
            let instead = would_fit(brief, layout, lamp, role, hand)
                .unwrap_or_else(|| "nor would one fixed otherwise, or of a third of its size".to_owned());
            format!("No place that breaks no rule was found for it; {instead}")
        }
    };
    Some(Placed {
        letter: role.letter(),
        thing: match role {
            Role::Key => "Key".into(),
            Role::Back => "Back light".into(),
            Role::Fill | Role::Background | Role::Practical => capital(label),
        },
        place: "Not used.".into(),
        why: if matches!(role, Role::Key | Role::Back) {
            format!("{} is at hand. {why}.", capital(label))
        } else {
            format!("{why}.")
        },
    })
}

/// The layout with a lamp in a job, at the best place that the hard rules leave it but for the way to the chair.
fn tried(brief: &Brief, layout: &Layout, role: Role, lamp: AtHand<'_>, side: f64) -> Option<Layout> {
    let mut with = layout.clone();
    let mut free = Stands::unused(brief, layout);
    match role {
        Role::Key | Role::Back => {
            let name = free_id(brief, layout, if role == Role::Key { "key" } else { "back" });
            place_light(brief, &mut with, &mut free, (&name, lamp.0, lamp.1), role, side, |_| true);
        }
        Role::Fill => place_fill(brief, &mut with, &mut free, lamp, side),
        Role::Background | Role::Practical => behind::place(brief, &mut with, &mut free, &[lamp], side),
    }
    (with.lights.len() > layout.lights.len()).then(|| {
        settle(brief, &mut with);
        with
    })
}

/// What becomes of the corner with a lamp that has a place.
fn with_it(brief: &Brief, layout: &Layout, with: &Layout) -> Option<String> {
    let corner = Corner::from_parts(brief, with)?;
    let broken = Rules::new(&corner).all(&things(&corner));
    let added = with.lights.iter().find(|(id, _)| !layout.lights.contains_key(*id));
    let hangs_on_nothing = added.is_some_and(|(_, light)| {
        matches!(light.support.kind, SupportKind::Floor | SupportKind::Boom) && light.support.gear.is_none()
    });
    if hangs_on_nothing {
        return Some("Nothing that is left carries it: it needs a stand".into());
    }
    if let Some(breach) = broken.first() {
        let barred = broken.iter().all(|breach| breach.rule == Rule::Way);
        return Some(if barred {
            "Its stand would bar the way from the door to the chair".into()
        } else {
            format!("With it a rule is broken: {}", breach.sentence.trim_end_matches('.'))
        });
    }
    let (before, after) = (quick(brief, layout), quick(brief, with));
    let points = 100.0 * (before.score - after.score);
    let more = (after.stops + after.fixes).saturating_sub(before.stops + before.fixes);
    if more > 0 {
        return Some("With it one thing more would stand in the way".into());
    }
    let more = if points < 0.0 { "more" } else { "less" };
    Some(match decimals(points.abs(), 0).as_str() {
        "0" => "With it the corner would be no better".into(),
        "1" => format!("With it the corner would score 1 point of 100 {more}"),
        points => format!("With it the corner would score {points} points of 100 {more}"),
    })
}

/// A fill that is owned and wanted by the school, yet stays in the cupboard: a lamp or a board.
fn fill(corner: &Corner<'_>, lamps: &[AtHand<'_>]) -> Option<Placed> {
    let brief = corner.brief;
    let board = brief.gear.values().find(|gear| gear.at_hand() && gear.reflector().is_some());
    let spare = lamps.iter().map(|(_, gear)| *gear).chain(board);
    let names: Vec<String> = spare.map(|gear| lower_first(&gear.common().label)).collect();
    if matches!(brief.schools.lights, LightSchool::One | LightSchool::Ring | LightSchool::WindowOnly)
        || names.is_empty()
        || corner.role(Role::Fill).next().is_some()
        || corner.role(Role::Key).next().is_none()
    {
        return None;
    }
    let lit = at_face(corner);
    let ratio = lit.lit_lx / lit.shadow_lx;
    let ratio_words = decimals(ratio, 1);
    let why = match (stands(corner, Quantity::LightFaceRatio, ratio), ratio > 3.0) {
        (Standing::Good, _) => format!(
            "The walls alone fill the shadow side: the lit side has {ratio_words} times its light, in the 2 to 4 wanted."
        ),
        (_, true) => format!(
            "No place that breaks no rule was found; the lit side has {ratio_words} times the light of the shadow side."
        ),
        (_, false) => format!(
            "The walls alone fill the shadow side more than wanted: the lit side has only {ratio_words} times its light."
        ),
    };
    let why = format!("{why} Left in the cupboard: {}.", names.join(", "));
    Some(Placed { letter: "F", thing: "Fill".into(), place: "Not used.".into(), why })
}
