//! The floor that gear takes: in use, and put away. The room has another life.

use crate::corner::{Corner, Kind, is_of_the_house, things};
use crate::plan::{Hung, Support, SupportKind};
use crate::reading::{From, Reading};

/// A stand that is folded and leaned into a corner takes this much, m2; one on castors keeps its feet spread. Fogon's
/// own rule.
const FOLDED_M2: f64 = 0.04;

pub(super) fn readings(corner: &Corner<'_>) -> [Reading; 2] {
    let mut stands: Vec<(String, f64, bool)> = Vec::new();
    for thing in things(corner) {
        if matches!(thing.kind, Kind::Person | Kind::Furniture) {
            continue;
        }
        for part in thing.parts.iter().filter(|part| part.what == "feet") {
            let (low, high) = part.solid.bounds();
            let feet = std::f64::consts::FRAC_PI_4 * (high.x - low.x) * (high.y - low.y);
            let (name, rolls) = match &thing.stand {
                Some((gear, foot)) => (format!("{gear} {foot:?}"), rolls(corner, gear)),
                None => (thing.id.clone(), false),
            };
            if !stands.iter().any(|(other, ..)| *other == name) {
                stands.push((name, feet, rolls));
            }
        }
    }
    let in_use: f64 = stands.iter().map(|(_, feet, _)| feet).sum();
    let parked: f64 = stands.iter().map(|(_, feet, rolls)| if *rolls { *feet } else { FOLDED_M2 }).sum();
    let hung = fixed(corner).len();
    let of = |id: &'static str, value: f64| {
        Reading::new(id, value)
            .by(
                "sum of pi r^2 of the feet; parked: folded 0.04 m2 each, rolling stands as they are",
                "geometry; 0.04 m2 is Fogon's own rule",
            )
            .with("stands", stands.len() as f64, "", From::Computed)
            .with(
                "of them on castors",
                stands.iter().filter(|(.., rolls)| *rolls).count() as f64,
                "",
                From::Typed,
            )
            .with("things on wall or ceiling", hung as f64, "", From::Typed)
    };
    [of("room.floor.in_use_m2", in_use), of("room.floor.parked_m2", parked)]
}

fn rolls(corner: &Corner<'_>, gear: &str) -> bool {
    corner.brief.gear.get(gear).and_then(crate::plan::Gear::support).is_some_and(|support| support.castors)
}

/// What hangs from wall or ceiling, by name.
pub fn fixed(corner: &Corner<'_>) -> Vec<String> {
    let layout = corner.layout;
    let named = |id: &crate::plan::Id| id.0.replace('-', " ");
    let mut all = vec![("camera".to_owned(), Some(&layout.camera.support))];
    let lights = corner.lights.iter().filter(|light| !is_of_the_house(light));
    all.extend(lights.map(|light| (light.id.replace('-', " "), Some(&light.light.support))));
    all.push(("microphone".to_owned(), layout.microphone.as_ref().map(|used| &used.support)));
    all.push(("screen".to_owned(), layout.screen.as_ref().map(|used| &used.support)));
    all.extend(layout.angles.iter().map(|(id, angle)| (named(id), Some(&angle.support))));
    let is_fixed = |support: &Support| matches!(support.kind, SupportKind::Ceiling | SupportKind::Wall);
    let mut names: Vec<String> =
        all.into_iter().filter(|(_, support)| support.is_some_and(is_fixed)).map(|(name, _)| name).collect();
    if layout.backdrop.as_ref().is_some_and(|used| used.hung != Hung::Stands) {
        names.push("backdrop".to_owned());
    }
    names
}
