//! Moves of things and their stands: legal places for lamps and microphone, feet, bags, another microphone.

use super::candidate::{Candidates, none, one, with_iso};
use crate::assess::legal::Rules;
use crate::corner::{Corner, LightAt, is_worn, light_thing, microphone_thing, works};
use crate::edit::{fill_bag, rounded, supports_for};
use crate::geometry::DVec3;
use crate::plan::{Id, Light, Role, Support, SupportKind, ThingId};
use crate::sound::placement;
use crate::units::beside_lens;

pub(super) fn sandbag<'a>(corner: &'a Corner<'a>, thing: &ThingId) -> Candidates<'a> {
    let mut layout = corner.layout.clone();
    fill_bag(corner.brief, &mut layout, thing);
    let kg = match thing {
        ThingId::Backdrop => layout.backdrop.as_ref().map_or(0.0, |backdrop| backdrop.sandbag_kg),
        _ => layout.support_mut(thing).map_or(0.0, |support| support.sandbag_kg),
    };
    let mass = corner.brief.units.mass(kg);
    let where_to = if *thing == ThingId::Backdrop { "each stand" } else { "the rear leg of the stand" };
    one(format!("Hang {mass} on {where_to} of the {}", thing.words()), layout)
}

/// The foot of a stand where it can hold its thing: plumb under it, or within reach of an arm.
pub(super) fn refooted<'a>(corner: &'a Corner<'a>, thing: &ThingId) -> Candidates<'a> {
    let Some(carried) = corner.carried().into_iter().find(|carried| carried.id == *thing) else {
        return none();
    };
    let thing = thing.clone();
    let label = format!("Move the foot of the {}'s stand to where it carries it", thing.words());
    let feet = supports_for(corner, carried.support, carried.hold_m, corner.eyes_m.truncate(), 1.0);
    Box::new(feet.into_iter().map(move |support| {
        let mut layout = corner.layout.clone();
        if let Some(carried) = layout.support_mut(&thing) {
            *carried = support;
        }
        fill_bag(corner.brief, &mut layout, &thing);
        (label.clone(), layout)
    }))
}

pub(super) fn moved_role<'a>(corner: &'a Corner<'a>, role: Role) -> Candidates<'a> {
    match corner.role(role).next() {
        Some(light) => moved_light(corner, light),
        None => none(),
    }
}

/// Every legal place that geometry suggests for a light or the microphone: a light's nearest to where it is, a
/// microphone's nearest to the mouth.
pub(super) fn moved_thing<'a>(corner: &'a Corner<'a>, thing: &ThingId) -> Candidates<'a> {
    match thing {
        ThingId::Microphone => moved_microphone(corner),
        ThingId::Light(id) => match corner.lights.iter().find(|light| light.id == id) {
            Some(light) => moved_light(corner, light),
            None => none(),
        },
        _ => none(),
    }
}

pub(super) fn moved_microphone<'a>(corner: &'a Corner<'a>) -> Candidates<'a> {
    let (Some((gear, _)), Some(used)) = (corner.microphone, &corner.layout.microphone) else {
        return none();
    };
    let others: Vec<_> =
        crate::corner::things(corner).into_iter().filter(|t| t.id != ThingId::Microphone).collect();
    let places = placement::places(corner, gear, 1.0);
    Box::new(places.into_iter().flat_map(move |place| {
        let mut trial = corner.clone();
        trial.microphone = Some((gear, place));
        let rules = Rules::new(&trial);
        let legal: Vec<Support> = supports_for(corner, &used.support, place, corner.eyes_m.truncate(), 1.0)
            .into_iter()
            .filter(|s| rules.allows(&microphone_thing(&trial, gear, place, s), &others))
            .take(2)
            .collect();
        let distance = corner.brief.units.length((place - corner.mouth_m).length());
        legal.into_iter().map(move |support| {
            let mut layout = corner.layout.clone();
            if let Some(microphone) = layout.microphone.as_mut() {
                microphone.position_m = rounded(place);
                microphone.support = support;
            }
            fill_bag(corner.brief, &mut layout, &ThingId::Microphone);
            (format!("Bring the microphone to {distance} from the mouth"), layout)
        })
    }))
}

pub(super) fn moved_light<'a>(corner: &'a Corner<'a>, light: &'a LightAt<'a>) -> Candidates<'a> {
    let support = &light.light.support;
    let mut places: Vec<DVec3> = [1.0, -1.0]
        .into_iter()
        .flat_map(|side| crate::light::placement::places(corner, light, light.light.role, side))
        .filter(|place| !place.needs_arm || support.kind != SupportKind::Floor)
        .map(|place| place.position_m)
        .collect();
    places.sort_by(|a, b| (*a - light.position_m).length().total_cmp(&(*b - light.position_m).length()));
    light_to(corner, light, places)
}

/// A light at the first legal of some places, and the next.
pub(super) fn light_to<'a>(
    corner: &'a Corner<'a>,
    light: &'a LightAt<'a>,
    places: Vec<DVec3>,
) -> Candidates<'a> {
    let others: Vec<_> = crate::corner::things(corner)
        .into_iter()
        .filter(|t| t.id != ThingId::Light(light.id.clone()))
        .collect();
    let support = &light.light.support;
    let rules = Rules::new(corner);
    Box::new(places.into_iter().flat_map(move |place| {
        let hold = LightAt { position_m: place, aim_m: corner.eyes_m, ..*light }.hold_m();
        let legal: Vec<Light> = supports_for(corner, support, hold, corner.eyes_m.truncate(), 1.0)
            .into_iter()
            .map(|support| Light {
                position_m: rounded(place),
                aim_m: Some(rounded(corner.eyes_m)),
                support,
                ..light.light.clone()
            })
            .filter(|moved| {
                let at = LightAt { light: moved, position_m: place, aim_m: corner.eyes_m, ..*light };
                rules.allows(&light_thing(corner, &at), &others)
            })
            .take(2)
            .collect();
        let (azimuth, _) = corner.light_angles_deg(place);
        let height = corner.brief.units.length(place.z);
        let label = format!("Move the {} to {}, {height} high", light.words(), beside_lens(azimuth));
        legal.into_iter().map(move |moved| {
            let mut layout = corner.layout.clone();
            layout.lights.insert(light.id.clone(), moved);
            fill_bag(corner.brief, &mut layout, &ThingId::Light(light.id.clone()));
            (label.clone(), with_iso(corner, layout))
        })
    }))
}

/// Another microphone at hand that works as it is, worn or in the place of this one.
pub(super) fn other_microphone<'a>(corner: &'a Corner<'a>) -> Candidates<'a> {
    let Some(used) = &corner.layout.microphone else { return none() };
    let works = |id: &Id| *id != used.gear && works(corner.brief, id);
    let others = corner.brief.gear.iter().filter(move |(id, gear)| gear.at_hand() && works(id));
    Box::new(others.filter_map(|(id, gear)| Some((id, gear.microphone()?))).flat_map(move |(id, gear)| {
        let label = format!("Use the {} instead", gear.common.label);
        let places = placement::places(corner, gear, 1.0).into_iter();
        let worn = is_worn(gear.mounting);
        let places: Vec<DVec3> =
            places.take(1).filter(|_| worn).chain((!worn).then(|| used.position_m.into())).collect();
        places.into_iter().map(move |place| {
            let mut layout = corner.layout.clone();
            if let Some(microphone) = layout.microphone.as_mut() {
                microphone.gear = id.clone();
                microphone.position_m = rounded(place);
                if worn {
                    microphone.support = Support::none();
                }
            }
            (label.clone(), layout)
        })
    }))
}
