//! What is given (brief) and what is chosen (layout): the document that everything else reads. Limits stand
//! here once, beside their fields. Things stand in maps by id, so that a path names one thing for good.

mod brief;
mod check;
mod gear;
mod habits;
mod layout;
mod measured;
mod modifier;
mod part;
mod patch;
mod place;
mod point;
mod room;
mod run;
mod school;

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

pub use brief::{
    Brief, Clap, ClothingColour, Effort, Hair, Money, Person, Posture, Purpose, Recording, Today, Weights,
};
pub use check::OUTSIDE_M;
pub(crate) use check::gear::one as gear_agrees;
pub use gear::{
    BackdropType, BoughtFor, Common, Gear, GearBackdrop, GearCamera, GearLens, GearLight, GearMicrophone,
    GearMonitor, GearPanel, GearState, GearSupport, GearThing, GearTreatment, Mounting, ScreenType, Shape,
    Upkeep,
};
pub use habits::{ActionKind, Habits, Times};
pub use layout::{
    Angle, Backdrop, Camera, FurnitureAt, Hung, Layout, Light, Microphone, Orientation, Role, Screen, Seat,
    Support, SupportKind, Treatment,
};
pub use measured::{Known, State, still_known};
pub use modifier::{Chromaticity, Cloth, Gel, Modifier};
pub use part::{Named, Part, ThingId, name_of, thing_named};
pub use patch::{Fix, PatchStep, apply, change};
pub use place::{Day, NoisyHours, NoisyKind, Place};
pub use point::{Id, MeasuredId, Point2, Point3, Things};
pub use room::{
    Beam, Curtain, FlatSurface, Furnishing, Furniture, FurnitureKind, Glazing, Look, Mains, Noise, NoiseKind,
    Opening, OpeningKind, Room, Size3, Slope, Socket, Surface, Swing, WALL_NAMES,
};
pub use run::{FILE_FIELDS, RunSheet, ShotKind, ShotSize, WantedShot};
pub use school::{
    Aperture, BackgroundSchool, CameraHeight, FrameRate, LensSchool, LightSchool, MicrophoneSchool,
    MonitorSchool, Placement, RecordSchool, RigSchool, School, SchoolChoice, Schools, SourceSchool, Spending,
    WindowSchool, all_schools,
};

use crate::document;
use crate::problem::Problems;

/// The word in every plan file.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize, ToSchema)]
pub enum PlanFormat {
    /// A brief with a layout.
    #[default]
    #[serde(rename = "fogon.plan")]
    Plan,
}

/// The word in every brief file.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize, ToSchema)]
pub enum BriefFormat {
    /// A brief alone.
    #[default]
    #[serde(rename = "fogon.brief")]
    Brief,
}

/// A plan: `*.fogon.json`.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Plan {
    /// Always `fogon.plan`.
    pub format: PlanFormat,
    /// Rises only when an old file would be misread.
    #[schema(minimum = 1, maximum = 1)]
    pub version: u32,
    /// What the person calls this corner.
    #[schema(min_length = 1, max_length = 120)]
    pub name: String,
    /// What is given.
    pub brief: Brief,
    /// What is chosen.
    pub layout: Layout,
}

/// A brief alone, before anything is chosen.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct BriefFile {
    /// Always `fogon.brief`.
    pub format: BriefFormat,
    /// Rises only when an old file would be misread.
    #[schema(minimum = 1, maximum = 1)]
    pub version: u32,
    /// What the person calls this corner.
    #[schema(min_length = 1, max_length = 120)]
    pub name: String,
    /// What is given.
    pub brief: Brief,
}

crate::shape!(Plan => Plan::check, BriefFile => |file: &BriefFile| file.brief.check(), Brief => Brief::check, Layout);

impl Plan {
    /// A plan from its parts.
    pub fn new(name: impl Into<String>, brief: Brief, layout: Layout) -> Self {
        Self { format: PlanFormat::Plan, version: 1, name: name.into(), brief, layout }
    }

    /// Reads and checks a plan file.
    ///
    /// ```
    /// use fogon_core::plan::Plan;
    ///
    /// let refused = Plan::read(b"{\"format\": \"fogon.plan\", \"version\": 1}").unwrap_err();
    /// assert!(refused.0.iter().any(|problem| problem.field == "layout"));
    /// ```
    ///
    /// # Errors
    /// Every problem of the first kind found, each naming its field.
    pub fn read(text: &[u8]) -> Result<Self, Problems> {
        document::read(text)
    }

    /// What the shape cannot say: sizes that contradict each other and ids that name nothing.
    ///
    /// # Errors
    /// All contradictions found.
    pub fn check(&self) -> Result<(), Problems> {
        check::plan(&self.brief, Some(&self.layout))
    }

    /// Owned gear with this id, if it is of the kind that `pick` takes.
    pub fn gear<'a, T>(&'a self, id: &str, pick: impl Fn(&'a Gear) -> Option<&'a T>) -> Option<&'a T> {
        self.brief.gear.get(&Id(id.to_owned())).and_then(pick)
    }
}

impl BriefFile {
    /// A brief file from its parts.
    pub fn new(name: impl Into<String>, brief: Brief) -> Self {
        Self { format: BriefFormat::Brief, version: 1, name: name.into(), brief }
    }

    /// Reads and checks a brief file.
    ///
    /// # Errors
    /// Every problem of the first kind found, each naming its field.
    pub fn read(text: &[u8]) -> Result<Self, Problems> {
        document::read(text)
    }
}

impl Brief {
    /// As [`Plan::check`], without a layout.
    ///
    /// # Errors
    /// All contradictions found.
    pub fn check(&self) -> Result<(), Problems> {
        self.check_with(None)
    }

    /// As [`Plan::check`], with a layout where there is one.
    ///
    /// # Errors
    /// All contradictions found.
    pub fn check_with(&self, layout: Option<&Layout>) -> Result<(), Problems> {
        check::plan(self, layout)
    }
}
