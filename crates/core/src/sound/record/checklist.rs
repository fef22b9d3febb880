//! What fails without being noticed, looked at before every take.

use super::path::RecordPath;
use crate::plan::{GearMicrophone, Mounting};

/// What fails without a sound, in the order in which it is looked at (common practice, no source).
pub(super) fn silent_failures(gear: &GearMicrophone, path: RecordPath) -> Vec<String> {
    let mut all: Vec<String> = Vec::new();
    let mut say = |line: &str| all.push(line.into());
    if gear.mounting != Mounting::BuiltIn {
        say("Scratch the microphone: the meter of the input that records must jump.");
        say("Plugs pushed home; the input menu set to this microphone.");
    }
    say("Automatic gain off; loudest sentence peaks at \u{2212}12 to \u{2212}6 dBFS.");
    if matches!(gear.mounting, Mounting::Lavalier | Mounting::Headset)
        || gear.common.needs.iter().any(|need| need == "battery")
    {
        say("Fresh cells for one and a half times the session; on, and not muted.");
    }
    if gear.mounting == Mounting::Lavalier {
        say("Turn the head both ways: no rustle from cloth, hair or a chain; cable looped and taped.");
    }
    match path {
        // Nothing records yet: that is told as a stop.
        RecordPath::Nowhere => {}
        RecordPath::Camera => {
            say("Headphones on the camera, turned down first: your voice, no hum, no radio.")
        }
        RecordPath::Recorder => {
            say("Recorder running (counter moves), card free; the camera's own sound on, for the clap.")
        }
        RecordPath::Computer => {
            say("The program records from the interface, not from the computer's own microphone.")
        }
    }
    if path.is_apart() {
        say("One clap at the mouth, in picture, at start and end.");
    }
    say(
        "Phone to flight mode; fridge, fan and washing machine off \u{2013} and a note to turn them on again.",
    );
    all
}
