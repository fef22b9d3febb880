//! Findings of the sound that no band makes: noise, a room that drowns the voice, a desk that answers, an input that is too
//! weak, walls that flutter, clocks that run apart.

use crate::corner::Corner;
use crate::finding::{Finding, Note, Severity};
use crate::reading::{Quantity, Reading};
use crate::sound::absorption::{Absorption, surface_words};
use crate::sound::gain::MUCH_DB;
use crate::sound::{around, record, reflections};
use crate::units::{capital, decimals};

/// A desk's echo above this sounds hollow, dB. Fogon's own rule.
const HOLLOW_DB: f64 = -10.0;
/// Picture and sound that run farther apart show, frames. Fogon's own rule, after EBU R 37.
const APART_FRAMES: f64 = 1.0;

pub(super) fn notes(corner: &Corner<'_>, readings: &[Reading]) -> Vec<Finding> {
    let value = |id: Quantity| readings.iter().find(|r| r.id == id).and_then(|r| r.value);
    let source = "common practice, no source";
    let absorption = Absorption::of(corner);
    let mut all = Vec::new();
    if let Some(echo) = value(Quantity::SoundMicrophoneDeskReflectionDb).filter(|echo| *echo > HOLLOW_DB) {
        all.push(
            Finding::new(
                Quantity::SoundMicrophoneDeskReflectionDb,
                Severity::Consider,
                format!("The desk reflects the voice into the microphone, {} dB softer.", decimals(-echo, 0)),
            )
            .because(
                "Both together sound hollow, as through a tube.",
                "two rays (Everest); the limit is Fogon's own rule",
            )
            .on(Quantity::SoundMicrophoneDeskReflectionDb, Some(echo))
            .advise("Come nearer, lay a towel where the desk answers, or boom the microphone from above."),
        );
    }
    let most = record::input(corner).and_then(|thing| thing.gain_max_db).unwrap_or(MUCH_DB);
    if let Some(gain) = value(Quantity::SoundMicrophoneGainDb).filter(|gain| *gain > most) {
        all.push(
            Finding::new(
                Quantity::SoundMicrophoneGainDb,
                Severity::Consider,
                format!("The input needs {} dB of gain; {} is much.", decimals(gain, 0), decimals(most, 0)),
            )
            .because("An input turned up so far adds its own hiss.", source)
            .on(Quantity::SoundMicrophoneGainDb, Some(gain))
            .advise("Come nearer, or use a stronger or quieter preamplifier."),
        );
    }
    all.extend(flutter(corner, &absorption));
    let record = record::record(corner);
    if let (Some(frames), Some(words)) =
        (record.drift_frames.filter(|frames| *frames > APART_FRAMES), record.drift_words)
    {
        all.push(
            Finding::new(
                Note::Drift,
                Severity::Consider,
                format!("Over a session picture and sound run about {} frames apart.", decimals(frames, 1)),
            )
            .because("Two clocks differ by 1 to 50 parts in a million; 20 are assumed.", source)
            .advise(capital(&format!("{words}."))),
        );
    }
    all
}

/// What would make the loudest noise softer.
pub(super) fn quieter(corner: &Corner<'_>, absorption: &Absorption) -> String {
    let nearer = "bring the microphone nearer";
    let (gear, capsule) = corner.heard_by();
    let all = around::heard(corner, absorption, gear, capsule);
    let Some(loudest) = all.first() else { return capital(&format!("{nearer}.")) };
    let level = decimals(loudest.level_dba, 0);
    match (&*loudest.id, loudest.can_stop, loudest.is_lamp) {
        ("", ..) => capital(&format!("{nearer}, or record at a quieter hour.")),
        (_, true, _) => {
            format!("Stop the {} for the take: {level} dBA of it reach the microphone.", loudest.what)
        }
        (_, _, true) => {
            format!("Move the lamp with the {} away, or dim it until it stops: {level} dBA.", loudest.what)
        }
        _ => format!(
            "Carry the {} out, put it behind something soft, or {nearer}: {level} dBA of it reach the microphone.",
            loudest.what
        ),
    }
}

/// Bare walls across from each other, where the surfaces are known.
fn flutter(corner: &Corner<'_>, absorption: &Absorption) -> Option<Finding> {
    if absorption.assumed {
        return None;
    }
    let pairs = reflections::flutter(corner, absorption);
    let (one, other, apart) = pairs.into_iter().find(|(one, _, _)| one != "floor")?;
    let room = &corner.brief.room;
    let (one, other) = (surface_words(room, &one), surface_words(room, &other));
    Some(
        Finding::new(
            Note::Flutter,
            Severity::Consider,
            format!(
                "A clap flutters between the {one} and the {other}, {} apart.",
                corner.brief.units.length(apart)
            ),
        )
        .because("Both are bare: sound goes to and fro between them.", "common practice, no source")
        .advise("Hang something on one of them, or stand a full bookcase there."),
    )
}
