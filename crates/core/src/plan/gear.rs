//! Gear by kind, with the figures that the physics needs. Generic: a thing is its kind and its figures.

mod camera;
mod common;
mod light;
mod screen;
mod sound;
mod support;
mod thing;

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

pub use camera::{GearCamera, GearLens};
pub use common::{BoughtFor, Common, GearState, Upkeep};
pub use light::{GearLight, GearPanel, Shape};
pub use screen::{BackdropType, GearBackdrop, GearMonitor, ScreenType};
pub use sound::{GearMicrophone, GearTreatment, Mounting};
pub use support::GearSupport;
pub use thing::GearThing;

/// One thing that can be owned or bought.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(tag = "kind", rename_all = "kebab-case")]
#[allow(missing_docs)]
pub enum Gear {
    Camera(GearCamera),
    Lens(GearLens),
    Light(GearLight),
    Reflector(GearPanel),
    Microphone(GearMicrophone),
    Support(GearSupport),
    Recorder(GearThing),
    Interface(GearThing),
    Monitor(GearMonitor),
    Backdrop(GearBackdrop),
    Treatment(GearTreatment),
    Power(GearThing),
    Cable(GearThing),
    Card(GearThing),
    Accessory(GearThing),
}

impl Gear {
    /// What every kind has.
    pub fn common(&self) -> &Common {
        match self {
            Gear::Camera(g) => &g.common,
            Gear::Lens(g) => &g.common,
            Gear::Light(g) => &g.common,
            Gear::Reflector(g) => &g.common,
            Gear::Microphone(g) => &g.common,
            Gear::Support(g) => &g.common,
            Gear::Monitor(g) => &g.common,
            Gear::Backdrop(g) => &g.common,
            Gear::Treatment(g) => &g.common,
            Gear::Recorder(g)
            | Gear::Interface(g)
            | Gear::Power(g)
            | Gear::Cable(g)
            | Gear::Card(g)
            | Gear::Accessory(g) => &g.common,
        }
    }

    /// The same, to be changed.
    pub fn common_mut(&mut self) -> &mut Common {
        match self {
            Gear::Camera(g) => &mut g.common,
            Gear::Lens(g) => &mut g.common,
            Gear::Light(g) => &mut g.common,
            Gear::Reflector(g) => &mut g.common,
            Gear::Microphone(g) => &mut g.common,
            Gear::Support(g) => &mut g.common,
            Gear::Monitor(g) => &mut g.common,
            Gear::Backdrop(g) => &mut g.common,
            Gear::Treatment(g) => &mut g.common,
            Gear::Recorder(g)
            | Gear::Interface(g)
            | Gear::Power(g)
            | Gear::Cable(g)
            | Gear::Card(g)
            | Gear::Accessory(g) => &mut g.common,
        }
    }

    /// At hand: owned, borrowed or rented, and not broken.
    pub fn at_hand(&self) -> bool {
        let common = self.common();
        common.condition != Some(Upkeep::Broken)
            && match common.state {
                GearState::Owned | GearState::Borrowed | GearState::Rented => true,
                GearState::Wanted | GearState::Never => false,
            }
    }

    /// The camera, if it is one.
    pub fn camera(&self) -> Option<&GearCamera> {
        if let Gear::Camera(g) = self { Some(g) } else { None }
    }
    /// The lens, if it is one.
    pub fn lens(&self) -> Option<&GearLens> {
        if let Gear::Lens(g) = self { Some(g) } else { None }
    }
    /// The light, if it is one.
    pub fn light(&self) -> Option<&GearLight> {
        if let Gear::Light(g) = self { Some(g) } else { None }
    }
    /// The reflector, if it is one.
    pub fn reflector(&self) -> Option<&GearPanel> {
        if let Gear::Reflector(g) = self { Some(g) } else { None }
    }
    /// The microphone, if it is one.
    pub fn microphone(&self) -> Option<&GearMicrophone> {
        if let Gear::Microphone(g) = self { Some(g) } else { None }
    }
    /// The monitor, if it is one.
    pub fn monitor(&self) -> Option<&GearMonitor> {
        if let Gear::Monitor(g) = self { Some(g) } else { None }
    }
    /// The backdrop, if it is one.
    pub fn backdrop(&self) -> Option<&GearBackdrop> {
        if let Gear::Backdrop(g) = self { Some(g) } else { None }
    }
    /// What takes sound out of the room, if it does.
    pub fn treatment(&self) -> Option<&GearTreatment> {
        if let Gear::Treatment(g) = self { Some(g) } else { None }
    }
    /// Recorder, interface and other things, if it is one.
    pub fn thing(&self) -> Option<&GearThing> {
        match self {
            Gear::Recorder(g)
            | Gear::Interface(g)
            | Gear::Power(g)
            | Gear::Cable(g)
            | Gear::Card(g)
            | Gear::Accessory(g) => Some(g),
            _ => None,
        }
    }
    /// The support, if it is one.
    pub fn support(&self) -> Option<&GearSupport> {
        if let Gear::Support(g) = self { Some(g) } else { None }
    }
}
