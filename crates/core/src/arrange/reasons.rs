//! Why a layout is the best that was found, and how another differs from it, in plain sentences.

use super::proposal::{Differs, Judged};
use crate::assess::score;
use crate::corner::Corner;
use crate::plan::{Brief, LensSchool, RigSchool};
use crate::reading::{Aspect, Quantity};
use crate::units::{capital, decimals};

/// Why the first of the judged candidates is the best: what it gives, and what the next facing would cost.
pub(super) fn best(brief: &Brief, judged: &[Judged]) -> String {
    let Some(best) = judged.first() else { return String::new() };
    let mut facings: Vec<&str> = judged.iter().map(|j| j.facing()).collect();
    facings.sort_unstable();
    facings.dedup();
    let (facing, gives) = (best.facing(), gives(brief, best));
    let Some(next) = judged.iter().find(|j| j.facing() != facing) else {
        return format!("You face {facing}, the only facing that fits. {gives}");
    };
    let (other, points) = (next.facing(), points(best, next));
    let more = (next.quick.stops + next.quick.fixes).saturating_sub(best.quick.stops + best.quick.fixes);
    let against = if more > 0 {
        let things = if more == 1 { "1 thing".to_owned() } else { format!("{more} things") };
        format!("Facing {other}, {things} more would stand in the way.")
    } else if points < 1.0 {
        format!("{} would do as well.", capital(other))
    } else {
        let most = aspect_lost(brief, best, next).map(|a| format!(", most for the {a}")).unwrap_or_default();
        let unit = if points < 1.5 { "point" } else { "points" };
        format!("Facing {other} would cost {points:.0} {unit} of 100{most}.")
    };
    format!("You face {facing}, the best of the {} facings that fit. {gives} {against}", facings.len())
}

/// How another candidate differs from the best one: what it is, what it gives, what it gains and gives up.
pub(super) fn instead(brief: &Brief, candidate: &Judged, best: &Judged, differs: Differs) -> String {
    let gives = gives(brief, candidate);
    let facing = candidate.facing();
    let how = match (differs, brief.schools.rig) {
        (Differs::Lens, _) => {
            let more = match brief.schools.lens {
                LensSchool::FarAndLong => "as if across the table from you, with more of the room in view",
                LensSchool::NearAndWide => "the face in proportion, the background softer",
            };
            format!("The other lens school: {more}. You face {facing}.")
        }
        (Differs::Rig, RigSchool::Column) => format!(
            "Camera and key on one stand that rolls aside, {}. You face {facing}.",
            area(brief, candidate)
        ),
        (Differs::Rig, RigSchool::Fixed) => {
            format!("Hung from wall or ceiling, {}. You face {facing}.", area(brief, candidate))
        }
        (Differs::Rig, RigSchool::Separate) => {
            format!("Separate stands instead, {}. You face {facing}.", area(brief, candidate))
        }
        (Differs::Floor, _) => format!("Quicker to set up, {}. You face {facing}.", area(brief, candidate)),
        (Differs::Bearing, _) if facing == best.facing() => {
            let nearer = candidate.focal_length_mm() < best.focal_length_mm();
            format!(
                "You face {facing} as well, with the camera {}.",
                if nearer { "nearer" } else { "further back" }
            )
        }
        (Differs::Best | Differs::Bearing | Differs::Picture | Differs::Sound, _) => {
            format!("You face {facing}{}.", if facing == best.facing() { "" } else { " instead" })
        }
    };
    format!("{how} {} {gives}", traded(best, candidate))
}

/// What a layout gains and gives up against the best one, aspect by aspect.
fn traded(best: &Judged, other: &Judged) -> String {
    const ASPECTS: [&str; 5] = ["sound", "light", "room", "picture", "comfort"];
    let points = |i: usize| (100.0 * (other.quick.aspects[i] - best.quick.aspects[i])).round();
    let list = |sign: f64| {
        let of = (0..ASPECTS.len()).filter(|i| points(*i) * sign >= 1.0);
        let words: Vec<String> = of.map(|i| format!("{:.0} for {}", points(i).abs(), ASPECTS[i])).collect();
        words.join(", ")
    };
    let more = other.quick.stops + other.quick.fixes;
    let fewer = best.quick.stops + best.quick.fixes;
    let in_the_way = match more.saturating_sub(fewer) {
        0 => String::new(),
        1 => " One thing more stands in the way.".to_owned(),
        count => format!(" {count} things more stand in the way."),
    };
    let words = match (list(1.0), list(-1.0)) {
        (gained, lost) if gained.is_empty() && lost.is_empty() => {
            "It is as good as the best, within a point.".into()
        }
        (gained, lost) if lost.is_empty() => format!("Out of 100 points it gains {gained}."),
        (gained, lost) if gained.is_empty() => format!("Out of 100 points it gives up {lost}."),
        (gained, lost) => format!("Out of 100 points it gains {gained}, and gives up {lost}."),
    };
    format!("{words}{in_the_way}")
}

/// The floor that its stands take, in words.
fn area(brief: &Brief, candidate: &Judged) -> String {
    let corner = Corner::from_parts(brief, &candidate.layout);
    let in_use = corner.and_then(|c| {
        crate::assess::readings(&c)
            .into_iter()
            .find(|r| r.id == Quantity::RoomFloorInUseM2)
            .and_then(|r| r.value)
    });
    format!("{} of floor under stands", brief.units.area(in_use.unwrap_or(0.0)))
}

/// What a layout gives, in a few sentences, with the price of what is not as it was wished.
fn gives(brief: &Brief, candidate: &Judged) -> String {
    let Some(corner) = Corner::from_parts(brief, &candidate.layout) else { return String::new() };
    let mut words = format!(
        "The wall behind you is {} away, the lens {}",
        brief.units.length(corner.background_behind_m()),
        brief.units.length(corner.lens_to_eyes_m())
    );
    if corner.chooses_focal_length() {
        words.push_str(&format!(", at {} mm", decimals(candidate.focal_length_mm(), 0)));
    }
    words.push('.');
    words.extend(super::why::cropped(&corner).map(|crop| format!(" {}.", capital(&crop))));
    let size = candidate.shot.take.size;
    if (size - 1.0).abs() > 0.01 {
        let percent = decimals(100.0 * (size - 1.0).abs(), 0);
        let more = if size > 1.0 { "wider" } else { "tighter" };
        words.push_str(&format!(" No lens at hand reaches the wished shot here: it is {percent} % {more}."));
    }
    words
}

fn points(best: &Judged, other: &Judged) -> f64 {
    (100.0 * (best.quick.score - other.quick.score)).max(0.0).round()
}

/// The aspect in which the other candidate loses most.
fn aspect_lost(brief: &Brief, best: &Judged, other: &Judged) -> Option<&'static str> {
    let readings = |j: &Judged| Corner::from_parts(brief, &j.layout).map(|c| crate::assess::readings(&c));
    let (best, other) = (readings(best)?, readings(other)?);
    score::weights(brief)
        .into_iter()
        .filter_map(|(aspect, weight)| {
            let lost = score::aspect_score(&best, aspect)? - score::aspect_score(&other, aspect)?;
            Some((weight * lost, aspect))
        })
        .max_by(|a, b| a.0.total_cmp(&b.0))
        .filter(|(lost, _)| *lost > 0.0)
        .map(|(_, aspect)| match aspect {
            Aspect::Sound => "sound",
            Aspect::Light => "light",
            Aspect::Room => "room",
            Aspect::Picture => "picture",
            Aspect::Comfort => "comfort",
        })
}
