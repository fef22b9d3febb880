//! What is said of money, in sentences.

use super::bundle::Job;
use super::workshop::Laid;
use crate::corner::Corner;
use crate::plan::{Brief, Role};
use crate::reading::Quantity;
use crate::units::lower_first;

/// A score as points of 100.
pub(super) fn points(score: f64) -> i64 {
    (100.0 * score).round() as i64
}

/// Why a bundle is bought, in one or two sentences.
pub(super) fn reason(brief: &Brief, job: Job, before: Option<&Laid>, after: &Laid, owned: &str) -> String {
    let read = |laid: Option<&Laid>, quantity: Quantity| {
        let laid = laid?;
        let corner = Corner::of(&laid.plan)?;
        let all = crate::assess::readings(&corner);
        all.into_iter().find(|reading| reading.id.quantity == quantity).and_then(|reading| reading.value)
    };
    let pair = |quantity: Quantity| (read(before, quantity), read(Some(after), quantity));
    let said = match job {
        Job::Microphone => match after.plan.layout.microphone.as_ref().and_then(|_| heard_from(after)) {
            Some(away) => {
                let away = brief.units.length(away);
                format!("Your voice is taken from {away} away, so that you are heard and not the room.")
            }
            None => "You are heard, and not the room.".into(),
        },
        Job::Light(Role::Key) => "A lamp beside the lens shapes your face and lights your eyes.".into(),
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
                    "The reverberation time falls from {from:.1} s to {to:.1} s: you are understood better."
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
    let cleared = before.map_or(0, |before| {
        let count = |laid: &Laid| laid.in_the_way().0 + laid.in_the_way().1;
        count(before).saturating_sub(count(after))
    });
    let gained = before.map_or(0, |before| points(after.score() - before.score()));
    let more = match (cleared, gained) {
        (1, _) => " That clears one thing that stands in the way.".to_owned(),
        (2.., _) => format!(" That clears {cleared} things that stand in the way."),
        (0, 1) => " One point of 100 more.".to_owned(),
        (0, 2..) => format!(" {gained} points of 100 more."),
        (0, _) => String::new(),
    };
    said + &more
}

/// From the mouth to the microphone, m.
fn heard_from(laid: &Laid) -> Option<f64> {
    let corner = Corner::of(&laid.plan)?;
    corner.microphone.map(|(_, at)| (at - corner.mouth_m).length())
}

/// What there is to do, in one sentence.
pub(super) fn in_short(
    brief: &Brief,
    moves: usize,
    spent: f64,
    budget: f64,
    ready: bool,
    has_camera: bool,
) -> String {
    let free = match moves {
        0 => "No free move left".to_owned(),
        1 => "One free move".to_owned(),
        many => format!("{many} free moves"),
    };
    let sum = brief.money.told(spent);
    match (moves, spent > 0.0) {
        _ if !has_camera && spent <= 0.0 => {
            "There is no camera yet, and this sum buys none that works here.".to_owned()
        }
        (_, false) if budget <= 0.0 && ready => format!("{free}, and nothing to spend; the corner is ready."),
        (_, false) if budget <= 0.0 => format!("{free}, nothing to spend."),
        (0, false) if ready => "You need to buy nothing: the corner is ready.".to_owned(),
        (_, false) => format!("{free}, nothing worth buying for this sum."),
        (0, true) => format!("{free}; {sum} would make it better."),
        (_, true) => format!("{free} first, then {sum} would make it better."),
    }
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
