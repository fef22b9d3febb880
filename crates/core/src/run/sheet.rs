//! The run sheet: shots in the order typed and in the order that changes least, what is still missing, the script.

use serde::Serialize;
use utoipa::ToSchema;

use super::file_name::file_stem;
use super::order::{Changes, least};
use super::script::{Script, script};
use super::set_up::SetUp;
use super::wanted::{USUAL_PACE, planned_size, wanted};
use crate::assess::readings;
use crate::card::Card;
use crate::corner::Corner;
use crate::plan::{Id, ShotSize, WantedShot};
use crate::reading::Quantity;
use crate::shot::recording::lasts_min;
use crate::units::decimals;

/// From the end of a take to the beginning of the next, s. Fogon's own rule: stop, think, breathe, start.
const BETWEEN_S: f64 = 20.0;

/// A shot, told.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ShotTold {
    /// Its id.
    pub id: Id,
    /// Its number in the order typed, from 1.
    pub number: usize,
    /// As wanted.
    pub shot: WantedShot,
    /// What stands for it, in words.
    pub set_up: String,
    /// Which set-up that is, from 1, in the best order.
    pub group: usize,
    /// All its takes with what lies between, s.
    pub seconds: f64,
    /// How long a slowed take plays, s.
    pub plays_s: Option<f64>,
    /// The names of its files, with `{date}` and `{take}` still open.
    pub file: String,
}

/// An order, and what it takes.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct InOrder {
    /// Shots, first to last.
    pub shots: Vec<Id>,
    /// So often something is changed between them.
    pub changes: usize,
    /// What the changes take, s.
    pub change_s: f64,
    /// All of it, min.
    pub minutes: f64,
}

/// An action, and in which sizes it is wanted.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ActionRow {
    /// What is done.
    pub action: String,
    /// Shots of it, wide.
    pub wide: Vec<Id>,
    /// Medium.
    pub medium: Vec<Id>,
    /// Close.
    pub close: Vec<Id>,
}

/// The run of a day.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Run {
    /// In one sentence.
    pub sentence: String,
    /// Nobody wrote shots down: these are those of purpose and angles.
    pub from_purpose: bool,
    /// Shots in the order typed.
    pub shots: Vec<ShotTold>,
    /// Every action in three sizes.
    pub actions: Vec<ActionRow>,
    /// As typed.
    pub typed: InOrder,
    /// With the least changes.
    pub best: InOrder,
    /// No order takes less; else none was found that does.
    pub is_least: bool,
    /// The script.
    pub script: Option<Script>,
    /// Minutes on the largest card at hand.
    pub card_min: Option<f64>,
    /// Minutes on the batteries at hand.
    pub battery_min: Option<f64>,
    /// What stands where, from the card.
    pub stood: Vec<String>,
    /// What is set, from the card.
    pub settings: Vec<String>,
    /// What is looked at before every take.
    pub before: Vec<String>,
}

/// The run of a corner.
pub fn run(corner: &Corner<'_>, card: &Card) -> Run {
    let from_purpose = corner.brief.run.shots.is_empty();
    let mut shots = if from_purpose {
        wanted(corner)
    } else {
        corner.brief.run.shots.iter().map(|(id, shot)| (id.clone(), shot.clone())).collect()
    };
    shots.sort_by_key(|(_, shot)| shot.place);
    let stands = SetUp::as_planned(planned_size(corner.brief.purpose));
    let of_shots: Vec<SetUp> = shots.iter().map(|(_, shot)| SetUp::of(corner, shot)).collect();
    // Each set-up once, as they first come.
    let mut set_ups: Vec<SetUp> = Vec::new();
    for own in &of_shots {
        if !set_ups.contains(own) {
            set_ups.push(own.clone());
        }
    }
    let changes = Changes {
        first: set_ups.iter().map(|own| stands.change_s(own, corner)).collect(),
        between: set_ups.iter().map(|a| set_ups.iter().map(|b| a.change_s(b, corner)).collect()).collect(),
    };
    let index_of = |own: &SetUp| set_ups.iter().position(|other| other == own).unwrap_or(0);
    let found = least(&changes, &(0..set_ups.len()).collect::<Vec<_>>());
    let typed_order: Vec<usize> = (0..shots.len()).collect();
    let best_order: Vec<usize> = found
        .order
        .iter()
        .flat_map(|set_up| {
            (0..shots.len()).filter(|shot| index_of(&of_shots[*shot]) == *set_up).collect::<Vec<_>>()
        })
        .collect();
    let work_s =
        |shot: &WantedShot| f64::from(shot.takes) * (shot.seconds + 2.0 * shot.stillness_s + BETWEEN_S);
    let all_s: f64 = shots.iter().map(|(_, shot)| work_s(shot)).sum();
    let in_order = |order: &[usize]| {
        let mut stood = &stands;
        let (mut count, mut change_s) = (0, 0.0);
        for shot in order {
            let seconds = stood.change_s(&of_shots[*shot], corner);
            count += usize::from(seconds > 0.0);
            change_s += seconds;
            stood = &of_shots[*shot];
        }
        InOrder {
            shots: order.iter().map(|shot| shots[*shot].0.clone()).collect(),
            changes: count,
            change_s,
            minutes: (all_s + change_s) / 60.0,
        }
    };
    let (typed, best) = (in_order(&typed_order), in_order(&best_order));
    let told = shots.iter().enumerate().map(|(index, (id, shot))| {
        let own = index_of(&of_shots[index]);
        ShotTold {
            id: id.clone(),
            number: index + 1,
            set_up: in_words(corner, shot),
            group: found.order.iter().position(|set_up| *set_up == own).map_or(1, |place| place + 1),
            seconds: work_s(shot),
            plays_s: shot.speed.map(|speed| shot.seconds / speed),
            file: file_stem(corner.brief.run.file_pattern.as_deref(), &card.name, &id.0, shot.size.word()),
            shot: shot.clone(),
        }
    });
    let (card_min, battery_min) = lasts_min(corner);
    let recording = &corner.brief.recording;
    let letters = readings(corner)
        .into_iter()
        .find(|one| one.id == Quantity::ShotScriptLetters)
        .and_then(|one| one.value);
    let pace = recording.words_per_minute.unwrap_or(USUAL_PACE);
    Run {
        sentence: sentence(&typed, &best, set_ups.len()),
        from_purpose,
        shots: told.collect(),
        actions: actions(&shots),
        typed,
        best,
        is_least: found.is_least,
        script: script(&corner.brief.run.script, pace, recording.words_per_minute.is_some(), letters),
        card_min,
        battery_min,
        stood: card
            .marks
            .iter()
            .map(|mark| {
                let tape = &mark.tape;
                let length = |m: f64| card.units.mark(m);
                format!(
                    "{} {}: {} from the left wall, {} from the back wall",
                    mark.letter,
                    mark.what,
                    length(tape.from_left_m),
                    length(tape.from_back_m)
                )
            })
            .collect(),
        settings: card
            .settings
            .iter()
            .map(|setting| format!("{}: {}", setting.name, setting.value))
            .chain(card.dials.iter().map(|dial| format!("{} {}: {}", dial.letter, dial.what, dial.words())))
            .chain([card.microphone.clone()])
            .collect(),
        before: card.before.clone(),
    }
}

/// What stands for a shot.
fn in_words(corner: &Corner<'_>, shot: &WantedShot) -> String {
    let angle = shot.angle.as_ref().filter(|id| corner.layout.angles.contains_key(*id));
    let mut words =
        vec![angle.map_or_else(|| "camera".to_owned(), |id| id.words()), shot.size.word().to_owned()];
    words.extend([&shot.backdrop, &shot.light].into_iter().filter(|own| !own.is_empty()).cloned());
    words.join(", ")
}

fn actions(shots: &[(Id, WantedShot)]) -> Vec<ActionRow> {
    let mut rows: Vec<ActionRow> = Vec::new();
    for (id, shot) in shots.iter().filter(|(_, shot)| !shot.action.trim().is_empty()) {
        let action = shot.action.trim();
        let at = rows.iter().position(|row| row.action == action).unwrap_or_else(|| {
            rows.push(ActionRow {
                action: action.to_owned(),
                wide: Vec::new(),
                medium: Vec::new(),
                close: Vec::new(),
            });
            rows.len() - 1
        });
        match shot.size {
            ShotSize::Wide => rows[at].wide.push(id.clone()),
            ShotSize::Medium => rows[at].medium.push(id.clone()),
            ShotSize::Close => rows[at].close.push(id.clone()),
        }
    }
    rows
}

fn sentence(typed: &InOrder, best: &InOrder, set_ups: usize) -> String {
    let count =
        |n: usize, one: &str, more: &str| if n == 1 { format!("1 {one}") } else { format!("{n} {more}") };
    let shots = count(typed.shots.len(), "shot", "shots");
    let ups = count(set_ups, "set-up", "set-ups");
    let minutes = |order: &InOrder| decimals(order.minutes.max(1.0), 0);
    if typed.change_s - best.change_s < 1.0 {
        return format!(
            "{shots} in {ups}, {} min in the order typed: no other order is quicker.",
            minutes(typed)
        );
    }
    format!(
        "{shots} in {ups}: {} min in the order typed, {} min in the best order.",
        minutes(typed),
        minutes(best)
    )
}
