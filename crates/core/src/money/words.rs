//! What is said of money, in sentences.

use super::bundle::Job;
use super::goods::Goods;
use super::workshop::Laid;
use crate::assess::without_moves;
use crate::corner::Corner;
use crate::finding::Severity;
use crate::plan::{Brief, Role};
use crate::reading::Quantity;
use crate::units::lower_first;

/// A score as points of 100.
pub(super) fn points(score: f64) -> i64 {
    (100.0 * score).round() as i64
}

/// Why a bundle is bought, in one or two sentences.
pub(super) fn reason(brief: &Brief, job: Job, before: Option<&Laid>, after: &Laid, owned: &str) -> String {
    let pair = |quantity: Quantity| (before.and_then(|b| b.reading(quantity)), after.reading(quantity));
    let said = match job {
        Job::Microphone => match after.plan.layout.microphone.as_ref().and_then(|_| heard_from(after)) {
            Some(away) => {
                let away = brief.units.length(away);
                format!("Your voice is taken from {away} away, so that you are heard and not the room.")
            }
            None => "You are heard, and not the room.".into(),
        },
        Job::Light(Role::Key) => match pair(Quantity::LightKeyAngularSizeDeg) {
            (Some(from), Some(to)) if to > from => format!(
                "The light on your face gets softer: seen from where you sit the lamp is {to:.0} degrees across, {from:.0} before."
            ),
            (Some(_), _) => "It lights your face better than the lamp that did so before.".into(),
            (None, _) => "A lamp to one side of the lens shapes your face and lights your eyes.".into(),
        },
        Job::Light(Role::Fill) => match pair(Quantity::LightFaceRatio) {
            (Some(from), Some(to)) if from > to => {
                format!(
                    "The shadow side of your face comes up: {to:.1} times darker than the lit side, {from:.1} times before."
                )
            }
            _ => "The shadow side of your face comes up.".into(),
        },
        Job::Light(Role::Back) => "Hair and shoulders come off what is behind you.".into(),
        Job::Light(Role::Background) => "What is behind you gets a light of its own.".into(),
        Job::Light(Role::Practical) => "A lamp in the picture gives the room depth.".into(),
        Job::Treatment => match pair(Quantity::SoundRoomRtMidS) {
            (Some(from), Some(to)) => {
                format!(
                    "The reverberation time falls from {from:.2} s to {to:.2} s: you are understood better."
                )
            }
            _ => "The reverberation time falls: you are understood better.".into(),
        },
        Job::CameraStand => {
            "The camera stands where the shot wants it, and is back there at once tomorrow.".into()
        }
        Job::Backdrop => "It is the even screen that is keyed out.".into(),
        Job::Camera if before.is_none() => "Nothing is recorded without a camera.".into(),
        Job::Camera => "A larger sensor: less grain, and what is behind you goes softer.".into(),
        Job::Lens => match pair(Quantity::ShotBackgroundBlurPercent) {
            (Some(from), Some(to)) if to > from => format!(
                "What is behind you goes softer: blurred over {to:.1} % of the picture's width, {from:.1} % before."
            ),
            _ => "It suits this distance better.".into(),
        },
        Job::Owned => format!("Your {owned} cannot be used without it."),
    };
    let gained = before.map_or(0, |before| points(after.score() - before.score()));
    let more = match (cleared(before, after).as_slice(), gained) {
        ([one], _) => format!(" That mends: \u{201c}{one}\u{201d}"),
        ([first, rest @ ..], _) => {
            format!(" That mends: \u{201c}{first}\u{201d} And {} more.", rest.len())
        }
        ([], 1) => " One point of 100 more.".to_owned(),
        ([], 2..) => format!(" {gained} points of 100 more."),
        ([], _) => String::new(),
    };
    said + &more
}

/// The weight that the stands of a step need, where they need one.
pub(super) fn weighted(brief: &Brief, goods: &Goods, after: &Laid) -> Option<String> {
    let supports = after.plan.layout.parts().filter_map(|part| part.support());
    let bought = supports.filter(|support| support.gear.as_ref().is_some_and(|gear| goods.has(gear)));
    let heaviest = bought.map(|support| support.sandbag_kg).fold(0.0, f64::max);
    (heaviest > 0.0).then(|| {
        let kg = brief.units.mass(heaviest);
        format!("Hang {kg} on the rear leg of its stand: a bag of full water bottles will do.")
    })
}

/// What kept a corner from being ready and does so no more, in sentences.
fn cleared(before: Option<&Laid>, after: &Laid) -> Vec<String> {
    let Some(before) = before.filter(|before| before.in_the_way() > after.in_the_way()) else {
        return Vec::new();
    };
    let in_the_way = |laid: &Laid| {
        let all = without_moves(&laid.plan).findings.into_iter();
        all.filter(|finding| finding.severity != Severity::Consider).collect::<Vec<_>>()
    };
    let left = in_the_way(after);
    let gone =
        in_the_way(before).into_iter().filter(|finding| left.iter().all(|other| other.id != finding.id));
    gone.map(|finding| finding.sentence).collect()
}

/// From the mouth to the microphone, m.
fn heard_from(laid: &Laid) -> Option<f64> {
    let corner = Corner::of(&laid.plan)?;
    corner.microphone.map(|(_, at)| (at - corner.mouth_m).length())
}

/// What is known of a corner and a sum before a word is said.
pub(super) struct InShort {
    /// Free moves that are left.
    pub(super) moves: usize,
    pub(super) spent: f64,
    pub(super) budget: f64,
    /// More than this would be neither seen nor heard.
    pub(super) flat_from: f64,
    /// The corner is ready before anything is bought.
    pub(super) was_ready: bool,
    /// A camera is there before anything is bought.
    pub(super) had_camera: bool,
    /// What does nearly as much for far less.
    pub(super) nearly: Option<Other>,
    /// What is worth saving for where nothing is bought.
    pub(super) next: Option<Other>,
}

/// Another kit than the best for a sum.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct Other {
    pub(super) price: f64,
    /// By how many points of 100 it does less, or more.
    pub(super) points: i64,
}

/// What there is to do, in one or two sentences.
pub(super) fn in_short(
    brief: &Brief,
    InShort { moves, spent, budget, flat_from, was_ready, had_camera, nearly, next }: InShort,
) -> String {
    let free = match moves {
        0 => "No free move left".to_owned(),
        1 => "One free move".to_owned(),
        many => format!("{many} free moves"),
    };
    let (sum, all) = (brief.money.told(spent), brief.money.told(budget));
    let said = match (moves, spent > 0.0) {
        (_, false) if !had_camera => {
            return "There is no camera yet, and this sum buys none that works here.".to_owned();
        }
        (_, true) if !had_camera => format!("{sum} buys what this corner needs to record."),
        (_, false) => {
            let said = match moves {
                _ if budget <= 0.0 && was_ready => {
                    format!("{free}, and nothing to spend; the corner is ready.")
                }
                _ if budget <= 0.0 => format!("{free}, nothing to spend."),
                0 if was_ready => "You need to buy nothing: the corner is ready.".to_owned(),
                _ => format!("{free}, nothing worth buying for this sum."),
            };
            let worth_saving_for = next.map_or_else(String::new, |next| {
                let sum = brief.money.told(next.price);
                format!(" {sum} would gain {} points of 100.", next.points)
            });
            return said + &worth_saving_for;
        }
        (0, true) => format!("{free}; {sum} would make it better."),
        (_, true) => format!("{free} first, then {sum} would make it better."),
    };
    let rest_is_kept = budget - spent >= 1.0 && spent >= flat_from - 0.005;
    let rest = format!(" Keep the rest of the {all}: it would buy nothing here that is seen or heard.");
    let nearly = nearly.map_or_else(String::new, |other| {
        let sum = brief.money.told(other.price);
        match other.points {
            ..=0 => format!(" {sum} does as much to the point."),
            1 => format!(" {sum} does nearly as much: one point of 100 less."),
            many => format!(" {sum} does nearly as much: {many} points of 100 less."),
        }
    });
    said + &nearly + if rest_is_kept { &rest } else { "" }
}

/// What a thing is called in a list: its label up to the first comma.
pub(super) fn short(label: &str) -> String {
    label.split(',').next().unwrap_or(label).trim().to_owned()
}

/// Why a thing that could be laid out is passed over.
pub(super) fn too_little(brief: &Brief, gain: f64, price: f64) -> String {
    let price = brief.money.told(price);
    match points(gain) {
        ..=0 => format!("It would gain nothing here for {price}."),
        1 => format!("One point of 100 for {price}: you would neither see nor hear it."),
        many => format!("{many} points of 100 for {price}."),
    }
}

/// A list in words: "a, b and c".
pub(super) fn listed(words: &[String]) -> String {
    match words {
        [] => String::new(),
        [one] => one.clone(),
        [first @ .., last] => {
            let rest: Vec<String> = first
                .iter()
                .enumerate()
                .map(|(i, w)| if i == 0 { w.clone() } else { lower_first(w) })
                .collect();
            format!("{} and {}", rest.join(", "), lower_first(last))
        }
    }
}
