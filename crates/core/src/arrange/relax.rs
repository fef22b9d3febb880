//! The real reason why nothing fits: one thing is changed at a time, the smallest change first, and the corner is searched
//! again with it. What frees it is what forbade it.

use super::obstacle::Obstacle;
use super::optics::Optics;
use super::search::{Effort, search};
use super::seats;
use super::stop::Stop;
use crate::finding::Rule;
use crate::plan::{Brief, Gear, OpeningKind, Posture, Swing};
use crate::units::Amount;

/// Parts of their feet that stands are tried with.
const FEET: [f64; 3] = [0.8, 0.6, 0.4];
/// Parts of its focal length that a lens is tried with, the nearest first.
const FOCAL: [f64; 5] = [0.8, 0.65, 0.5, 0.35, 0.25];
/// By how much the room is made longer and wider, m.
const LARGER_M: [f64; 4] = [0.2, 0.5, 1.0, 2.0];
/// Sizes of shot that a change is tried with, against the wanted one.
const SIZES: [f64; 3] = [1.0, 1.5, 0.72];
/// Reasons that are told at most.
const TOLD: usize = 2;

/// One change, with what it shows.
struct Change {
    brief: Brief,
    rule: Rule,
    lacking: Amount,
    sentence: String,
    frees: String,
}

/// What forbids every layout, each with the smallest change that frees it, shown by searching again with it.
pub(super) fn reasons(brief: &Brief, stop: Stop<'_>) -> Vec<Obstacle> {
    let mut told: Vec<Obstacle> = Vec::new();
    for changes in every_kind(brief) {
        if told.len() >= TOLD || stop.is_wanted() {
            break;
        }
        let freed = changes.into_iter().find_map(|change| Some((facing_found(&change.brief, stop)?, change)));
        if let Some((facing, change)) = freed {
            told.push(Obstacle {
                rule: change.rule,
                facing,
                lacking: change.lacking.value(),
                unit: change.lacking.unit(),
                sentence: change.sentence,
                frees: change.frees,
            });
        }
    }
    told
}

/// The facing of the first layout that is found; `None` where there is none.
fn facing_found(brief: &Brief, stop: Stop<'_>) -> Option<String> {
    let optics = Optics::all(brief);
    // One facing after the other: the first that does ends the search.
    let facings = seats::facings(brief);
    SIZES.into_iter().find_map(|size| {
        facings.iter().find_map(|facing| {
            let found = search(brief, &optics, std::slice::from_ref(facing), Effort::ANY, size, stop);
            found.judged.first().map(|judged| judged.facing().to_owned())
        })
    })
}

/// Every kind of change, the least trouble first; within a kind the smallest first.
fn every_kind(brief: &Brief) -> Vec<Vec<Change>> {
    vec![
        smaller_feet(brief),
        desk_moved(brief),
        door_turned(brief),
        shorter_lens(brief),
        furniture_out(brief),
        posture(brief),
        larger_room(brief),
    ]
}

fn smaller_feet(brief: &Brief) -> Vec<Change> {
    let owned = brief.gear.values().filter(|gear| gear.at_hand()).filter_map(Gear::support);
    let widest = owned.map(|support| support.foot_radius_m).fold(0.0, f64::max);
    if widest <= 0.0 {
        return Vec::new();
    }
    let by = |part: f64| {
        let mut other = brief.clone();
        for gear in other.gear.values_mut() {
            if let Gear::Support(support) = gear {
                support.foot_radius_m = (support.foot_radius_m * part).max(0.05);
            }
        }
        let lacking = widest * (1.0 - part);
        Change {
            brief: other,
            rule: Rule::Room,
            lacking: Amount::Length(lacking),
            sentence: format!(
                "There is no room for the feet of your stands, {} to each side; {} less would do.",
                brief.units.gap(widest),
                brief.units.gap(lacking)
            ),
            frees: format!("Stands whose feet take {} to each side.", brief.units.gap(widest * part)),
        }
    };
    FEET.into_iter().map(by).collect()
}

fn desk_moved(brief: &Brief) -> Vec<Change> {
    let Some(id) = brief.person.seat_at.clone() else { return Vec::new() };
    let change = |other: Brief, sentence: String, frees: String| Change {
        brief: other,
        rule: Rule::Collision,
        lacking: Amount::Unmeasured,
        sentence,
        frees,
    };
    let words = id.words();
    let mut all = Vec::new();
    if brief.room.furniture.get(&id).is_some_and(|desk| desk.fixed) {
        let mut other = brief.clone();
        if let Some(desk) = other.room.furniture.get_mut(&id) {
            desk.fixed = false;
        }
        all.push(change(
            other,
            format!("Nobody who sits at the {words} can be filmed where it stands now."),
            format!("Mark the {words} as free to move: with it moved, the corner works."),
        ));
    }
    let mut other = brief.clone();
    other.person.seat_at = None;
    other.room.furniture.remove(&id);
    all.push(change(
        other,
        format!("The {words} takes the room that chair and camera need."),
        format!("Film without the {words}: then the corner works."),
    ));
    all
}

fn door_turned(brief: &Brief) -> Vec<Change> {
    let mut other = brief.clone();
    let mut turned = false;
    for opening in other.room.openings.values_mut().filter(|opening| opening.kind == OpeningKind::Door) {
        turned |= !matches!(opening.swing, Some(Swing::Out | Swing::Sliding));
        opening.swing = Some(Swing::Out);
    }
    if !turned {
        return Vec::new();
    }
    vec![Change {
        brief: other,
        rule: Rule::Door,
        lacking: Amount::Unmeasured,
        sentence: "The swing of the door takes the place that is left.".into(),
        frees: "A door that opens outwards or slides, or is off its hinges while you film.".into(),
    }]
}

fn shorter_lens(brief: &Brief) -> Vec<Change> {
    let lenses = brief.gear.iter().filter(|(_, gear)| gear.at_hand());
    let shortest = lenses
        .filter_map(|(id, gear)| Some((id, gear.lens()?)))
        // What is built in cannot be changed.
        .filter(|(_, lens)| lens.built_into.is_none())
        .min_by(|a, b| a.1.focal_min_mm.total_cmp(&b.1.focal_min_mm));
    let Some((id, lens)) = shortest else { return Vec::new() };
    let by = |part: f64| {
        let mut other = brief.clone();
        let focal = lens.focal_min_mm * part;
        if let Some(Gear::Lens(lens)) = other.gear.get_mut(id) {
            lens.focal_min_mm = focal;
            lens.nearest_focus_m = lens.nearest_focus_m.min(0.25);
        }
        Change {
            brief: other,
            rule: Rule::Lens,
            lacking: Amount::Unmeasured,
            sentence: format!("{} needs more distance than this room has to frame you.", lens.common.label),
            frees: format!("A lens of {:.0} mm or shorter that focuses near.", focal.floor()),
        }
    };
    FOCAL.into_iter().map(by).collect()
}

fn furniture_out(brief: &Brief) -> Vec<Change> {
    let others = brief.room.furniture.keys().filter(|id| brief.person.seat_at.as_ref() != Some(id)).cloned();
    others
        .map(|id| {
            let mut other = brief.clone();
            other.room.furniture.remove(&id);
            let words = id.words();
            Change {
                brief: other,
                rule: Rule::Collision,
                lacking: Amount::Unmeasured,
                sentence: format!("The {words} stands where chair, camera or stands would."),
                frees: format!("Remove the {words}: then the corner works."),
            }
        })
        .collect()
}

fn posture(brief: &Brief) -> Vec<Change> {
    let mut other = brief.clone();
    let (sentence, frees) = match brief.person.posture {
        Posture::Seated => {
            other.person.posture = Posture::Standing;
            other.person.seat_at = None;
            ("There is no place for the chair.", "Stand instead: then the corner works.")
        }
        Posture::Standing => {
            other.person.posture = Posture::Seated;
            ("There is no place to stand under this ceiling.", "Sit instead: then the corner works.")
        }
    };
    vec![Change {
        brief: other,
        rule: Rule::Room,
        lacking: Amount::Unmeasured,
        sentence: sentence.into(),
        frees: frees.into(),
    }]
}

fn larger_room(brief: &Brief) -> Vec<Change> {
    if !brief.room.is_rectangle() {
        return Vec::new();
    }
    let [width, depth, _] = brief.room.dimensions_m();
    let by = |more_m: f64| {
        let mut other = brief.clone();
        for corner in &mut other.room.floor_m {
            corner.0[0] *= (width + more_m) / width;
            corner.0[1] *= (depth + more_m) / depth;
        }
        Change {
            brief: other,
            rule: Rule::Room,
            lacking: Amount::Length(more_m),
            sentence: format!(
                "The room is too small for you, your camera and the way out: {} more each way would do.",
                brief.units.gap(more_m)
            ),
            frees: "Film in a larger room.".into(),
        }
    };
    LARGER_M.into_iter().map(by).collect()
}
