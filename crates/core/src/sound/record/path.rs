//! Where the sound is recorded: what the microphone is plugged into, and what else at hand takes it.

use serde::Serialize;
use utoipa::ToSchema;

use crate::corner::{Corner, Kit};
use crate::plan::{Gear, GearThing, Mounting, RecordSchool, ThingId};
use crate::units::lower_first;

/// Where the sound goes.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum RecordPath {
    /// Into the camera, with the picture.
    Camera,
    /// Into a recorder of its own, joined by a clap.
    Recorder,
    /// Through an interface or by USB into a computer, joined by a clap.
    Computer,
    /// Nothing at hand takes the microphone.
    Nowhere,
}

impl RecordPath {
    /// Sound and picture are two files.
    pub fn is_apart(self) -> bool {
        matches!(self, RecordPath::Recorder | RecordPath::Computer)
    }
}

/// What takes the microphone: the path, and the recorder or interface on it.
pub(super) fn taken_by<'a>(corner: &Corner<'a>) -> (RecordPath, Option<&'a GearThing>) {
    let (microphone, _) = corner.heard_by();
    let kit = Kit::of(corner);
    let lacks_input = |need: &str| need.ends_with("input");
    if kit.unmet.iter().any(|unmet| unmet.of == ThingId::Microphone && lacks_input(unmet.need)) {
        return (RecordPath::Nowhere, None);
    }
    let gear = &corner.brief.gear;
    if let Some(link) = kit.input(&ThingId::Microphone) {
        return match link.by.and_then(|id| gear.get(id)) {
            Some(Gear::Recorder(thing)) => (RecordPath::Recorder, Some(thing)),
            Some(Gear::Interface(thing)) => (RecordPath::Computer, Some(thing)),
            Some(Gear::Camera(_)) => (RecordPath::Camera, None),
            // Whatever else has an input for it is a computer.
            _ => (RecordPath::Computer, None),
        };
    }
    // A plain plug fits them all.
    let separate = corner.brief.schools.record == RecordSchool::Separate;
    let apart = separate && !matches!(microphone.mounting, Mounting::BuiltIn);
    let at_hand = || gear.values().filter(|gear| gear.at_hand());
    let recorder = at_hand().find_map(|gear| match gear {
        Gear::Recorder(thing) => Some((RecordPath::Recorder, Some(thing))),
        _ => None,
    });
    let interface = at_hand().find_map(|gear| match gear {
        Gear::Interface(thing) => Some((RecordPath::Computer, Some(thing))),
        _ => None,
    });
    recorder.or(interface).filter(|_| apart).unwrap_or((RecordPath::Camera, None))
}

/// Recorder or interface at hand that takes the microphone.
pub fn input<'a>(corner: &Corner<'a>) -> Option<&'a GearThing> {
    taken_by(corner).1
}

/// Why the sound goes where it goes, in one sentence.
pub(super) fn reason(corner: &Corner<'_>, path: RecordPath, thing: Option<&GearThing>) -> String {
    match (path, thing.map(lower)) {
        (RecordPath::Recorder, name) => {
            let name = name.unwrap_or_else(|| "recorder".into());
            format!("Into the {name}: better inputs than a camera's, joined by a clap.")
        }
        (RecordPath::Computer, Some(name)) => {
            format!("Through the {name} into a computer, joined to the picture by a clap.")
        }
        (RecordPath::Computer, None) => "By USB into the computer, joined to the picture by a clap.".into(),
        (RecordPath::Camera, _) if corner.brief.schools.record == RecordSchool::Separate => {
            "Into the camera: no recorder is at hand.".into()
        }
        (RecordPath::Camera, _) => "Into the camera: one file, nothing to join.".into(),
        (RecordPath::Nowhere, _) => "Nowhere yet: nothing at hand has the input that it needs.".into(),
    }
}

fn lower(thing: &GearThing) -> String {
    let label = &thing.common.label;
    lower_first(label.split(',').next().unwrap_or(label))
}
