//! Why a layout is the best that was found, and how another differs from it, in plain sentences.

use super::proposal::{Differs, Judged};
use crate::assess::score;
use crate::corner::Corner;
use crate::plan::{Brief, LensSchool, RigSchool};
use crate::reading::{Aspect, Quantity};
use crate::units::decimals;

/// Why the first of the judged candidates is the best: what it gives, and what the next facing would cost.
pub(super) fn best(brief: &Brief, judged: &[Judged]) -> String {
    let Some(best) = judged.first() else { return String::new() };
    let mut facings: Vec<&str> = judged.iter().map(|j| j.facing()).collect();
    facings.sort_unstable();
    facings.dedup();
    let gives = gives(brief, best);
    let facing = best.facing();
    let Some(next) = judged.iter().find(|j| j.facing() != facing) else {
        return format!("You face {facing}, the only facing that fits: {gives}.");
    };
    let (other, points) = (next.facing(), points(best, next));
    let more = (next.quick.stops + next.quick.fixes).saturating_sub(best.quick.stops + best.quick.fixes);
    let against = if more > 0 {
        let things = if more == 1 { "1 thing".to_owned() } else { format!("{more} things") };
        format!("facing {other} instead, {things} more would stand in the way")
    } else if points < 1.0 {
        format!("{other} would do as well")
    } else {
        let most =
            aspect_lost(brief, best, next).map(|a| format!(", most of them in {a}")).unwrap_or_default();
        format!("facing {other} instead would cost {points:.0} points of 100{most}")
    };
    format!("You face {facing}, the best of the {} facings that fit: {gives}; {against}.", facings.len())
}

/// How another candidate differs from the best one.
pub(super) fn instead(brief: &Brief, candidate: &Judged, best: &Judged, differs: Differs) -> String {
    let points = points(best, candidate);
    let rank = if points < 1.0 {
        "as good as the best within a point".to_owned()
    } else {
        format!("{points:.0} {} of 100 behind the best", if points < 1.5 { "point" } else { "points" })
    };
    let gives = gives(brief, candidate);
    let facing = candidate.facing();
    let how = match (differs, brief.schools.rig) {
        (Differs::Lens, _) => {
            let more = match brief.schools.lens {
                LensSchool::NearAndWide => "as if across the table from you, more of the room in view",
                LensSchool::FarAndLong => "the face in proportion, the background softer",
            };
            format!("The other lens school, {more}; you face {facing}")
        }
        (Differs::Rig, RigSchool::Column) => format!(
            "Camera and key on one stand that rolls aside, {}; you face {facing}",
            area(brief, candidate)
        ),
        (Differs::Rig, RigSchool::Fixed) => {
            format!("Hung from wall or ceiling, {}; you face {facing}", area(brief, candidate))
        }
        (Differs::Rig, RigSchool::Separate) => {
            format!("Separate stands instead, {}; you face {facing}", area(brief, candidate))
        }
        (Differs::Bearing, _) if facing == best.facing() => {
            let nearer = candidate.focal_length_mm() < best.focal_length_mm();
            format!(
                "You face {facing} as well, the camera {}",
                if nearer { "nearer" } else { "further back" }
            )
        }
        _ => format!("You face {facing} instead"),
    };
    format!("{how}: {gives}; {rank}.")
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

fn gives(brief: &Brief, candidate: &Judged) -> String {
    let Some(corner) = Corner::from_parts(brief, &candidate.layout) else { return String::new() };
    let behind = corner.background_behind_m();
    format!(
        "{} to the wall behind you, the lens {} away at {} mm",
        brief.units.length(behind),
        brief.units.length(corner.lens_to_eyes_m()),
        decimals(candidate.focal_length_mm(), 0)
    )
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
