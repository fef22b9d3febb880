//! What is not there: a microphone, a key, something to stand on, an input or a cable that a thing in use needs.

use crate::corner::{Corner, Kit, Unmet};
use crate::finding::{Finding, Missing, Severity};
use crate::plan::{Gear, LightSchool, Part, Role, SupportKind, ThingId};

/// Everything that is missing.
pub(super) fn missing(corner: &Corner<'_>) -> Vec<Finding> {
    let mut all: Vec<Finding> = microphone(corner).into_iter().collect();
    all.extend(key(corner));
    all.extend(back(corner));
    all.extend(stands(corner));
    all.extend(Kit::of(corner).unmet.iter().map(|unmet| need(corner, unmet)));
    all
}

fn microphone(corner: &Corner<'_>) -> Option<Finding> {
    corner.microphone.is_none().then(|| {
        Finding::new(
            Missing::Microphone,
            Severity::Stop,
            "No microphone is in the layout: the voice would not be recorded.",
        )
        .because("Sound comes first: a take without it is lost.", "common practice, no source")
        .advise("Put a microphone on the shelf of owned gear, or buy one from the list below.")
    })
}

fn key(corner: &Corner<'_>) -> Option<Finding> {
    crate::light::apparent::key(corner).is_none().then(|| {
        Finding::new(Missing::Key, Severity::Fix, "No key light: nothing lights the face as planned.")
            .because(
                "Light on the face separates an amateur picture from a good one.",
                "common practice, no source",
            )
            .advise("Put a lamp on the shelf of owned gear, or buy one from the list below.")
    })
}

fn back(corner: &Corner<'_>) -> Option<Finding> {
    let wanted = corner.brief.schools.lights == LightSchool::ThreePoint
        && corner.role(Role::Key).next().is_some()
        && corner.role(Role::Back).next().is_none();
    wanted.then(|| {
        let mut finding = Finding::new(
            Missing::Back,
            Severity::Consider,
            "No back light: hair and shoulders may melt into the wall.",
        )
        .because("A hair light parts dark hair from a dark wall.", "common practice, no source")
        .advise("A small lamp on an arm or a shelf behind you would do; or choose the school without one.");
        finding.school = Some("lights");
        finding
    })
}

/// Things that a stand should carry, and none does.
fn stands(corner: &Corner<'_>) -> Vec<Finding> {
    let layout = corner.layout;
    let needs = |part: &Part<'_>| {
        let support = part.support()?;
        let what = match support.kind {
            SupportKind::Floor => "a stand",
            SupportKind::Boom => "an arm that reaches out",
            SupportKind::Clamp | SupportKind::On | SupportKind::Ceiling | SupportKind::Wall => return None,
        };
        // Without a screen or a second angle a recording can still be made.
        let severity = match part {
            Part::Camera(_) | Part::Light(..) | Part::Microphone(_) => Severity::Fix,
            Part::Screen(_) | Part::Angle(..) => Severity::Consider,
            Part::Seat(_) | Part::Backdrop(_) | Part::Treatment(..) | Part::Furniture(..) => return None,
        };
        support.gear.is_none().then_some((part.id(), what, severity))
    };
    let all = layout.parts().filter_map(|part| needs(&part));
    all.map(|(thing, what, severity)| {
        let sentence = format!("Nothing owned carries the {}: it needs {what}.", thing.words());
        Finding::new(Missing::Support(corner.named(thing)), severity, sentence)
            .because(
                "Held by hand or leaned on books, it will not be there again tomorrow.",
                "common practice, no source",
            )
            .advise("Put a stand on the shelf of owned gear, or buy one from the list below.")
    })
    .collect()
}

/// A need in words: what it is, with its article, and what would bring it.
fn need_words(need: &str) -> (String, &'static str) {
    match need {
        "xlr-input" => ("an XLR input".into(), "an interface or a recorder"),
        "xlr-cable" => ("an XLR cable".into(), "a cable"),
        "camera-power" => ("a battery or a mains adapter".into(), "a battery"),
        "card" => ("a memory card".into(), "a card"),
        other => {
            let words = other.replace('-', " ");
            let vowel = words.starts_with(['a', 'e', 'i', 'o', 'u']);
            (format!("{} {words}", if vowel { "an" } else { "a" }), "something that offers it")
        }
    }
}

/// Gear in use that cannot work for lack of something.
fn need(corner: &Corner<'_>, unmet: &Unmet<'_>) -> Finding {
    let (what, brings) = need_words(unmet.need);
    let label = corner.brief.gear.get(unmet.gear).map_or(unmet.gear.words(), |g| g.common().label.clone());
    // Camera and microphone record; without the rest a take is only worse.
    let (severity, comes) = match unmet.of {
        ThingId::Camera => (Severity::Stop, "nothing would be recorded"),
        ThingId::Microphone => (Severity::Stop, "the voice would not be recorded"),
        ThingId::Light(_) => (Severity::Fix, "it gives no light"),
        ThingId::Person
        | ThingId::Seat
        | ThingId::Screen
        | ThingId::Backdrop
        | ThingId::Angle(_)
        | ThingId::Treatment(_)
        | ThingId::Furniture(_)
        | ThingId::Opening(_)
        | ThingId::Mains => (Severity::Consider, "it does not work"),
    };
    let other = other_microphone(corner, unmet);
    let instead = other.map_or(String::new(), |label| format!(" Or use the {label} instead."));
    Finding::new(
        Missing::Need(corner.named(unmet.of.clone()), unmet.need.to_owned()),
        severity,
        format!("{label} needs {what}, and nothing at hand has one: {comes}."),
    )
    .because("A plug without its socket is found out after the take.", "common practice, no source")
    .advise(format!("Put {brings} on the shelf of owned gear, or buy one from the list below.{instead}"))
}

/// Another microphone at hand that works as it is.
fn other_microphone(corner: &Corner<'_>, unmet: &Unmet<'_>) -> Option<String> {
    if unmet.of != ThingId::Microphone {
        return None;
    }
    let all = corner.brief.gear.iter().filter(|(id, gear)| {
        gear.at_hand() && gear.microphone().is_some() && crate::corner::works(corner.brief, id)
    });
    all.map(|(_, gear): (_, &Gear)| gear.common().label.to_lowercase()).next()
}
