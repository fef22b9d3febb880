//! How soon a corner that was put away can record: what has to be done, in which order it is done soonest, what takes longest and
//! what would shorten it.

mod action;
mod actions;
mod parked;
pub mod schedule;
mod way;

use serde::Serialize;
use utoipa::ToSchema;

use crate::corner::Corner;
use crate::plan::{ActionKind, Brief, Plan, RigSchool, ThingId};
use crate::reading::{Origin, Quantity, Reading};
use actions::{Otherwise, actions};
pub use parked::Parked;
use schedule::{Schedule, Task, least};

/// What gains less is not worth telling, s. Fogon's own rule.
const WORTH_S: f64 = 3.0;

/// Something that is done, and when.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct PlannedAction {
    /// Its name: what is done, and to what.
    pub id: String,
    /// What is done.
    pub kind: ActionKind,
    /// In words.
    pub what: String,
    /// Letter of the mark that it comes to; empty for most.
    pub letter: String,
    /// When it is begun, s.
    pub start_s: f64,
    /// How long it takes, s.
    pub seconds: f64,
    /// By hand; else it runs by itself.
    pub by_hand: bool,
    /// Assumed, or timed by the person.
    pub from: Origin,
    /// The finish hangs on it.
    pub is_on_path: bool,
}

/// Something that would be done sooner.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Shorter {
    /// What to change.
    pub what: String,
    /// What it gains, s.
    pub seconds: f64,
}

/// How soon a corner can record.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Ready {
    /// From everything put away to the first take, s.
    pub time_s: f64,
    /// No other order is done earlier.
    pub is_least: bool,
    /// What is aimed at, s, by how the corner is held up.
    pub target_s: f64,
    /// In words.
    pub sentence: String,
    /// What is done, in the order in which it is begun.
    pub actions: Vec<PlannedAction>,
    /// What takes longest, in words.
    pub longest: String,
    /// What would be done sooner, the most first.
    pub shorter: Vec<Shorter>,
    /// What the marks on the floor gain, s.
    pub marks_gain_s: f64,
    /// Where stands are put away.
    pub parked: Vec<Parked>,
}

/// How long an action takes, s: by one's own stop watch, else as it usually does.
pub fn action_s(brief: &Brief, kind: ActionKind) -> f64 {
    brief.habits.times_s.of(kind).unwrap_or(action::usual(kind).0)
}

/// What is aimed at, s: two minutes for a corner that stands on one column or is fixed, five with separate stands. Fogon's own
/// rule.
pub fn target_s(rig: RigSchool) -> f64 {
    match rig {
        RigSchool::Column | RigSchool::Fixed => 120.0,
        RigSchool::Separate => 300.0,
    }
}

/// How soon a plan can record. `None` where it does not resolve, which no plan that was read does.
pub fn ready(plan: &Plan) -> Option<Ready> {
    Corner::of(plan).map(|corner| of(&corner))
}

/// How soon a corner can record.
pub fn of(corner: &Corner<'_>) -> Ready {
    let parked = parked::parked(corner);
    let (all, schedule) = scheduled(corner, &parked, Otherwise::default());
    let time_s = schedule.finish_s;
    let mut order: Vec<usize> = (0..all.len()).collect();
    order.sort_by(|a, b| schedule.starts_s[*a].total_cmp(&schedule.starts_s[*b]).then(a.cmp(b)));
    let longest = schedule.path.iter().map(|index| &all[*index]);
    let longest = longest.max_by(|a, b| a.seconds.total_cmp(&b.seconds));
    let longest =
        longest.map_or(String::new(), |action| format!("{}, {}", action.what, in_words(action.seconds)));
    let done = order.into_iter().map(|index| {
        let action = &all[index];
        PlannedAction {
            id: action.id.clone(),
            kind: action.kind,
            what: action.what.clone(),
            letter: action.letter.clone(),
            start_s: schedule.starts_s[index],
            seconds: action.seconds,
            by_hand: action.by_hand,
            from: action.from,
            is_on_path: schedule.path.contains(&index),
        }
    });
    let without_marks = Otherwise { unmarked: true, ..Otherwise::default() };
    let is_timed = all.iter().any(|action| action.from == Origin::Measured);
    let by = if is_timed { "by your own times where you took them" } else { "by usual times" };
    Ready {
        time_s,
        is_least: schedule.is_least,
        target_s: target_s(corner.brief.schools.rig),
        sentence: format!("Put up in {} {by}.", in_words(time_s)),
        actions: done.collect(),
        longest,
        shorter: shorter(corner, &parked, time_s),
        marks_gain_s: scheduled(corner, &parked, without_marks).1.finish_s - time_s,
        parked: parked.into_iter().map(|(stand, _)| stand).collect(),
    }
}

type Stands = [(Parked, Vec<ThingId>)];

fn scheduled(corner: &Corner<'_>, parked: &Stands, otherwise: Otherwise) -> (Vec<actions::Action>, Schedule) {
    let all = actions(corner, parked, otherwise);
    let tasks: Vec<Task> = all
        .iter()
        .map(|one| Task { seconds: one.seconds, by_hand: one.by_hand, after: one.after.clone() })
        .collect();
    let schedule = least(&tasks);
    (all, schedule)
}

/// What would be done sooner, the most first.
fn shorter(corner: &Corner<'_>, parked: &Stands, time_s: f64) -> Vec<Shorter> {
    let usual = Otherwise::default();
    let ways = [
        ("Wheels under every stand", Otherwise { rolls: true, ..usual }),
        ("Lamps that stay on wall, desk or shelf", Otherwise { lamps_stay: true, ..usual }),
        ("A backdrop that is let down from wall or ceiling", Otherwise { lets_down: true, ..usual }),
        ("A plate under the camera that clips onto its stand", Otherwise { plate: true, ..usual }),
        ("All lamps on one strip with a switch", Otherwise { one_switch: true, ..usual }),
    ];
    let strip = crate::power::one_switch(corner).is_allowed;
    let gains = ways.into_iter().filter(|(_, way)| !way.one_switch || strip).filter_map(|(what, way)| {
        let seconds = time_s - scheduled(corner, parked, way).1.finish_s;
        (seconds >= WORTH_S).then(|| Shorter { what: what.to_owned(), seconds })
    });
    let mut all: Vec<Shorter> = gains.collect();
    all.sort_by(|a, b| b.seconds.total_cmp(&a.seconds));
    all
}

/// What would gain most, in a sentence.
pub(crate) fn advice(corner: &Corner<'_>) -> Option<String> {
    let parked = parked::parked(corner);
    let time_s = scheduled(corner, &parked, Otherwise::default()).1.finish_s;
    let best = shorter(corner, &parked, time_s).into_iter().next()?;
    Some(format!("{} would gain {}.", best.what, in_words(best.seconds)))
}

/// The reading.
pub fn reading(corner: &Corner<'_>) -> Reading {
    let parked = parked::parked(corner);
    let (all, schedule) = scheduled(corner, &parked, Otherwise::default());
    let by_hand: f64 = all.iter().filter(|action| action.by_hand).map(|action| action.seconds).sum();
    let timed = all.iter().filter(|action| action.from == Origin::Measured).count();
    let ways_m: f64 = parked.iter().map(|(stand, _)| stand.way_m).sum();
    Reading::new(Quantity::ReadyCornerTimeS, schedule.finish_s)
        .by(
            "least finish over the orders allowed: hands do one thing after another, what runs by itself overlaps",
            "usual times, and that one fetches stands at 1 m/s: Fogon's own rule, until you take your own",
        )
        .with("actions", all.len() as f64, "", Origin::Computed)
        .with("of them timed", timed as f64, "", Origin::Typed)
        .with("by hand", by_hand, "s", Origin::Computed)
        .with("ways of all stands", ways_m, "m", Origin::Computed)
        .note("From everything put away to the first take. Marks are on the floor.")
}

/// `45 s`, `3 min 5 s`, `2 min`.
pub fn in_words(seconds: f64) -> String {
    let whole = seconds.max(0.0).round() as u64;
    match (whole / 60, whole % 60) {
        (0, seconds) => format!("{seconds} s"),
        (minutes, 0) => format!("{minutes} min"),
        (minutes, seconds) => format!("{minutes} min {seconds} s"),
    }
}
