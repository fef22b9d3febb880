//! Moves of the light that leave the stands where they are: dials, colours, cloths; and a lamp out of the glasses.

use super::candidate::{Candidate, Candidates, JUDGED, none, one, with_iso};
use super::things::{light_to, moved_light, moved_role};
use crate::assess::words::PRACTICAL_STOPS;
use crate::corner::{Corner, Source, light_direction};
use crate::edit::millimetre;
use crate::finding::Finding;
use crate::geometry::DVec3;
use crate::plan::{Gel, Id, Layout, Role, ThingId};

/// Lamps that count brought to the key's colour: by their own setting where they have it, else by a gel.
pub(super) fn one_colour<'a>(corner: &'a Corner<'a>) -> Candidates<'a> {
    let Some(key) = corner.role(Role::Key).next() else { return none() };
    let wanted = key.cct_k();
    let set = |layout: &mut Layout, id: &Id, cct_k: f64, gel: Option<Gel>| {
        if let Some(light) = layout.lights.get_mut(id) {
            (light.cct_k, light.gel) = (Some(cct_k), gel);
        }
    };
    let others = corner.lights.iter().filter(move |l| l.id != key.id && !crate::light::coloured::is_apart(l));
    Box::new(others.flat_map(move |light| {
        let Source::Lamp(lamp) = light.source else { return Vec::new() };
        let name = light.words();
        let own = wanted.clamp(lamp.cct_min_k, lamp.cct_max_k);
        let mut all = Vec::new();
        let mut by_setting = corner.layout.clone();
        set(&mut by_setting, light.id, own, None);
        all.push((format!("Set the {name} to {own:.0} K"), with_iso(corner, by_setting)));
        for gel in Gel::ALL {
            let mut by_gel = corner.layout.clone();
            set(&mut by_gel, light.id, light.light.cct_k.unwrap_or(own), Some(gel));
            all.push((format!("Put {} on the {name}", gel.label()), with_iso(corner, by_gel)));
        }
        all
    }))
}

/// A lamp of the room itself, at the ceiling, switched off.
pub(super) fn ceiling_off<'a>(corner: &'a Corner<'a>) -> impl Iterator<Item = Candidate> + 'a {
    corner.lights.iter().filter(|light| crate::corner::is_of_the_house(light)).map(move |light| {
        let mut layout = corner.layout.clone();
        layout.lights.remove(light.id);
        (format!("Switch the {} off", light.words()), with_iso(corner, layout))
    })
}

/// A lamp further behind its cloth.
pub(super) fn lamp_back<'a>(corner: &'a Corner<'a>, thing: &ThingId) -> Candidates<'a> {
    let ThingId::Light(id) = thing.clone() else { return none() };
    let label = thing.words();
    Box::new([1.25, 1.5, 1.65, 1.8, 2.0, 2.3, 2.6].into_iter().filter_map(move |times| {
        let mut layout = corner.layout.clone();
        let cloth = layout.lights.get_mut(&id)?.cloth.as_mut()?;
        cloth.ahead_m = millimetre(cloth.ahead_m * times);
        let behind = corner.brief.units.length(cloth.ahead_m);
        Some((format!("Move the lamp of the {label} to {behind} behind its cloth"), with_iso(corner, layout)))
    }))
}

/// A practical lamp dimmed to where it reads well.
pub(super) fn dimmed<'a>(corner: &'a Corner<'a>, thing: &ThingId, finding: &Finding) -> Candidates<'a> {
    let ThingId::Light(id) = thing else { return none() };
    let over = finding.evidence.first().and_then(|e| e.value).unwrap_or(0.0);
    let mut layout = corner.layout.clone();
    let Some(light) = layout.lights.get_mut(id) else { return none() };
    light.dim = ((light.dim * (PRACTICAL_STOPS - over).exp2() * 100.0).round() / 100.0).max(0.01);
    one(format!("Dim the {} to {:.0} %", thing.words(), light.dim * 100.0), layout)
}

/// The fill's dial, then its place, then the key's.
pub(super) fn refilled<'a>(corner: &'a Corner<'a>) -> Candidates<'a> {
    let dials = corner.role(Role::Fill).filter(|l| crate::light::is_lamp(l.source)).flat_map(move |fill| {
        [0.5, 0.35, 0.25, 0.15, 0.1, 0.05, 0.7, 1.0].into_iter().map(move |dim| {
            let mut layout = corner.layout.clone();
            if let Some(light) = layout.lights.get_mut(&fill.id.clone()) {
                light.dim = dim;
            }
            (format!("Set the fill to {:.0} %", dim * 100.0), with_iso(corner, layout))
        })
    });
    let fills = corner.role(Role::Fill).flat_map(move |fill| moved_light(corner, fill).take(JUDGED / 3));
    Box::new(dials.chain(fills).chain(moved_role(corner, Role::Key)))
}

/// A lamp out of the glasses by the smallest move: raised, then further aside.
pub(super) fn cleared<'a>(corner: &'a Corner<'a>, thing: &ThingId) -> Candidates<'a> {
    let found = crate::light::mirrored::mirrored(corner).into_iter().find(|m| m.id == *thing);
    let Some(light) = found.as_ref().and_then(|m| m.light) else {
        return none();
    };
    let (azimuth, elevation) = corner.light_angles_deg(light.position_m);
    let distance = (light.position_m - corner.eyes_m).length();
    let clear = found.and_then(|m| m.clear_elevation_deg).unwrap_or(elevation);
    let at = |azimuth: f64, elevation: f64, stretch: f64| {
        corner.eyes_m + light_direction(corner.to_lens(), azimuth, elevation) * distance * stretch
    };
    let raised = [0.5, 2.0, 4.0].into_iter().flat_map(move |more| {
        [1.0, 1.1, 1.25].map(|stretch| at(azimuth, clear.max(elevation) + more, stretch))
    });
    let aside = [5.0, 10.0, 15.0, 20.0].into_iter().flat_map(move |more| {
        [1.0, 1.1].map(|stretch| at(azimuth + more * azimuth.signum(), elevation, stretch))
    });
    let mut places: Vec<DVec3> = raised.chain(aside).collect();
    places.sort_by(|a, b| (*a - light.position_m).length().total_cmp(&(*b - light.position_m).length()));
    light_to(corner, light, places)
}
