//! What is not there: a microphone, a key, something to stand on, an input or a cable that a thing in use needs.

use super::super::severity::is_heard;
use crate::corner::{Corner, Kit, Unmet, unmet_needs};
use crate::finding::{Finding, Missing, Severity};
use crate::plan::{Gear, Id, Mounting, Part, Role, SupportKind, ThingId};
use crate::reading::{Quantity, Reading};
use crate::units::{capital, lower_first};

/// Everything that is missing.
pub(super) fn missing(corner: &Corner<'_>, readings: &[Reading]) -> Vec<Finding> {
    let mut all: Vec<Finding> = microphone(corner, readings).into_iter().collect();
    all.extend(key(corner));
    all.extend(back(corner));
    all.extend(stands(corner));
    all.extend(Kit::of(corner).unmet.iter().map(|unmet| need(corner, unmet)));
    all
}

/// The camera's own microphone is what sounds where there is no other.
fn microphone(corner: &Corner<'_>, readings: &[Reading]) -> Option<Finding> {
    if corner.microphone.is_some() {
        return None;
    }
    let away = corner.brief.units.length((corner.view.position_m - corner.mouth_m).length());
    let (severity, sentence) = if is_heard(corner, readings) {
        (
            Severity::Consider,
            format!(
                "Only the camera's own microphone hears you, from {away} away. That will do, but the room will be heard as well."
            ),
        )
    } else {
        (
            Severity::Fix,
            format!(
                "Only the camera's own microphone hears you, from {away} away. Words are lost in the room and the noise."
            ),
        )
    };
    let heard = [
        Quantity::SoundMicrophoneSpeechTransmissionIndex,
        Quantity::SoundMicrophoneSnrDb,
        Quantity::SoundMicrophoneDirectToReverberantDb,
    ];
    let mut finding = Finding::new(Missing::Microphone, severity, sentence)
        .because("Viewers leave bad sound sooner than a bad picture.", "common practice, no source")
        .advise(match owned_microphone(corner) {
            Some((label, None)) if is_held(corner) => {
                format!("Bring your {label} near the mouth: it is owned and not in use.")
            }
            Some((label, None)) => {
                format!("Nothing at hand holds your {label} near your mouth: an arm would.")
            }
            Some((label, Some(lacks))) => {
                format!(
                    "Your {label} needs {lacks}, and nothing at hand has it: buy that, and it comes into use."
                )
            }
            None => {
                "A microphone near the mouth is the first thing to buy: the list of purchases says which."
                    .into()
            }
        });
    for reading in readings.iter().filter(|reading| heard.contains(&reading.id.quantity)) {
        finding = finding.on(reading.id.clone(), reading.value);
    }
    Some(finding)
}

/// A microphone at hand that the layout does not use.
fn owned_microphone(corner: &Corner<'_>) -> Option<(String, Option<String>)> {
    let mut at_hand = corner.brief.gear.iter().filter(|(_, gear)| gear.at_hand());
    let (id, gear) = at_hand.find(|(_, gear)| gear.microphone().is_some())?;
    let lacks: Vec<String> =
        unmet_needs(corner.brief, id).into_iter().map(|need| need_words(need).0).collect();
    let lacks = (!lacks.is_empty()).then(|| lacks.join(" and "));
    Some((lower_first(&gear.common().label), lacks))
}

/// Something at hand, or of the room, could hold a microphone near the mouth.
fn is_held(corner: &Corner<'_>) -> bool {
    let at_hand = || corner.brief.gear.values().filter(|gear| gear.at_hand());
    let mounted = |wanted: Mounting| at_hand().filter_map(Gear::microphone).any(|own| own.mounting == wanted);
    let on_furniture = corner.brief.room.furniture.values().any(|piece| crate::corner::stands_on(piece.kind));
    let by_arm = at_hand().any(|gear| gear.support().is_some_and(|stand| stand.common.offers("microphone")));
    let needs_none = at_hand()
        .filter_map(Gear::microphone)
        .any(|own| !matches!(own.mounting, Mounting::Boom | Mounting::Desk));
    needs_none || by_arm || mounted(Mounting::Desk) && on_furniture
}

/// Nothing that was set up lights the face.
fn key(corner: &Corner<'_>) -> Option<Finding> {
    crate::light::apparent::key(corner).is_none().then(|| {
        let finding = Finding::new(
            Missing::Key,
            Severity::Consider,
            if crate::light::house::shines(corner) {
                "No key light: only the ceiling light lights you, assumed to give 800 lm of warm white."
            } else {
                "No key light: nothing shapes the face as planned."
            },
        );
        finding
            .because(
                "Light from above leaves the eyes dark; light from the side shapes a face.",
                "common practice, no source",
            )
            .advise(key_advice(corner))
    })
}

/// What would light the face, of what room and shelf hold.
fn key_advice(corner: &Corner<'_>) -> String {
    let has_window = corner.brief.room.has_window();
    let idle = |id: &Id| corner.layout.lights.values().all(|light| light.gear != *id);
    let lamps =
        corner.brief.gear.iter().filter(|(id, gear)| gear.at_hand() && gear.light().is_some() && idle(id));
    let own = lamps.map(|(_, gear)| lower_first(&gear.common().label)).next();
    let lamp = own.map_or_else(
        || "buy a lamp for beside the camera from the list of purchases".to_owned(),
        |label| format!("put your {label} beside the camera"),
    );
    if has_window { format!("Face the window by day, or {lamp}.") } else { format!("{}.", capital(&lamp)) }
}

fn back(corner: &Corner<'_>) -> Option<Finding> {
    let wanted = crate::light::wants_back(corner.brief)
        && corner.role(Role::Key).next().is_some()
        && corner.role(Role::Back).next().is_none();
    wanted.then(|| {
        let mut finding = Finding::new(
            Missing::Back,
            Severity::Consider,
            "No back light: hair and shoulders may melt into the wall.",
        )
        .because("A hair light separates dark hair from a dark wall.", "common practice, no source")
        .advise("A small lamp on an arm or a shelf behind you would do; or choose the school without one.");
        finding.school = Some("lights");
        finding
    })
}

/// Things that a stand should carry, and none does; and a camera on what the room has.
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
        let sentence = too_short(corner, &thing)
            .unwrap_or_else(|| format!("Nothing owned carries the {}: it needs {what}.", thing.words()));
        unsteady(corner, thing, severity, sentence).advise(
            "Put a stand on the shelf of owned gear, or buy one: the purchases are listed under Money.",
        )
    })
    .chain(on_books(corner))
    .collect()
}

fn unsteady(corner: &Corner<'_>, thing: ThingId, severity: Severity, sentence: String) -> Finding {
    Finding::new(Missing::Support(corner.named(thing)), severity, sentence).because(
        "Held by hand or leaned on books, it will not be there again tomorrow.",
        "common practice, no source",
    )
}

/// The camera stands on furniture, on nothing that was made for it.
fn on_books(corner: &Corner<'_>) -> Option<Finding> {
    let camera = &corner.layout.camera;
    let words = corner.carried_words(Part::Camera(camera)).filter(|_| camera.support.is_by_itself())?;
    let sentence = format!("Nothing made for it carries the camera: it stands {words}.");
    let mut owned = corner.brief.gear.values().filter(|gear| gear.at_hand()).filter_map(Gear::support);
    let has_tripod = owned.any(|stand| stand.common.offers("camera") && !stand.common.offers("furniture"));
    let advice = if has_tripod {
        "That will do. Your own tripod finds no floor there; a small one on the desk is quicker to put back."
    } else {
        "That will do. A tripod, or a small one on the desk, is quicker to put back."
    };
    Some(unsteady(corner, ThingId::Camera, Severity::Consider, sentence).advise(advice))
}

/// A tripod that is owned, and does not go to where the lens has to be.
fn too_short(corner: &Corner<'_>, thing: &ThingId) -> Option<String> {
    let hold_m = corner.camera_hold_m().z;
    let mut owned = corner.brief.gear.values().filter(|gear| gear.at_hand()).filter_map(Gear::support);
    let tripod = owned.find(|support| support.common.offers("camera"))?;
    let units = corner.brief.units;
    let (low, high) = (tripod.height_min_m, tripod.height_max_m);
    (*thing == ThingId::Camera && !(low..=high).contains(&hold_m)).then(|| {
        format!(
            "{} goes from {} to {}; the camera has to be held at {}.",
            tripod.common.label,
            units.length(low),
            units.length(high),
            units.length(hold_m)
        )
    })
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
    .advise(format!(
        "Put {brings} on the shelf of owned gear, or buy one: the purchases are listed under Money.{instead}"
    ))
}

/// Another microphone at hand that works as it is.
fn other_microphone(corner: &Corner<'_>, unmet: &Unmet<'_>) -> Option<String> {
    if unmet.of != ThingId::Microphone {
        return None;
    }
    let all = corner.brief.gear.iter().filter(|(id, gear)| {
        gear.at_hand() && gear.microphone().is_some() && crate::corner::works(corner.brief, id)
    });
    all.map(|(_, gear): (_, &Gear)| lower_first(&gear.common().label)).next()
}
