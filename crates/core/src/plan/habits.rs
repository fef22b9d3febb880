//! How the corner is put up before a take and put away after it.

use std::collections::BTreeMap;

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::{Id, Point2};

macro_rules! actions {
    ($($(#[$doc:meta])* $kind:ident $field:ident,)+) => {
        /// What is done to put a corner up, by hand or by itself.
        #[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, ToSchema)]
        #[serde(rename_all = "kebab-case")]
        pub enum ActionKind {
            $($(#[$doc])* $kind,)+
        }

        /// Times by the stop watch, s, the ways included; each replaces the usual one.
        #[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
        #[serde(rename_all = "kebab-case")]
        pub struct Times {
            $(
                $(#[$doc])*
                #[serde(default, skip_serializing_if = "Option::is_none")]
                #[schema(minimum = 0.5, maximum = 3600.0)]
                pub $field: Option<f64>,
            )+
        }

        impl Times {
            /// How long an action took, s.
            pub fn of(&self, kind: ActionKind) -> Option<f64> {
                match kind {
                    $(ActionKind::$kind => self.$field,)+
                }
            }
        }
    };
}

actions! {
    /// A stand on wheels comes to its mark.
    Roll roll,
    /// A folded stand comes to its mark, and its feet are spread.
    Carry carry,
    /// A place is measured where no mark is.
    Measure measure,
    /// A tripod is levelled.
    Level level,
    /// The camera is screwed to its stand.
    Mount mount,
    /// The camera is clipped to its stand by a plate that stays on it.
    Clip clip,
    /// Something is put where it stands without a stand of its own.
    SetDown set_down,
    /// A backdrop is hung on a bar between two stands.
    Hang hang,
    /// A backdrop is let down from wall or ceiling.
    LetDown let_down,
    /// A microphone is put on.
    Wear wear,
    /// A plug goes in.
    Plug plug,
    /// A switch is pressed.
    Switch switch,
    /// A lamp's dial is set.
    Dial dial,
    /// The chair comes to its mark.
    Chair chair,
    /// The room is made dark and silent.
    Quiet quiet,
    /// Camera or recorder is started.
    Start start,
    /// The picture is looked at.
    CheckPicture check_picture,
    /// A sentence is recorded and listened to.
    CheckSound check_sound,
    /// Camera or recorder starts, by itself.
    Starting starting,
    /// A lamp's light settles, by itself.
    Settling settling,
}

/// How the corner is put up and put away.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Habits {
    /// All lamps hang on one strip with a switch.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub one_switch: bool,
    /// A plate stays on the camera that clips onto its stand.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub plate: bool,
    /// Where stands are put away, by the name of what stands on them, m (where Fogon finds room).
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub parked: BTreeMap<Id, Point2>,
    /// Times by the stop watch, s, the ways included; each replaces the usual one.
    #[serde(default, skip_serializing_if = "is_empty")]
    pub times_s: Times,
}

fn is_empty(times: &Times) -> bool {
    *times == Times::default()
}

impl Habits {
    /// Nothing is told of them.
    pub fn is_usual(&self) -> bool {
        *self == Self::default()
    }
}
