//! What stands while a shot is taken, and what it takes to change to another.

use crate::corner::Corner;
use crate::plan::{ActionKind, Id, Role, ShotKind, ShotSize, WantedShot};
use crate::ready::action_s;

/// What stands.
#[derive(Debug, Clone, PartialEq, Eq, PartialOrd, Ord)]
pub(super) struct SetUp {
    angle: Option<Id>,
    size: ShotSize,
    backdrop: String,
    light: String,
    is_slow: bool,
}

impl SetUp {
    /// As the corner was laid.
    pub(super) fn as_planned(size: ShotSize) -> Self {
        Self { angle: None, size, backdrop: String::new(), light: String::new(), is_slow: false }
    }

    /// What a shot wants.
    pub(super) fn of(corner: &Corner<'_>, shot: &WantedShot) -> Self {
        // An angle that was taken out of the layout is shot with the camera.
        let angle = shot.angle.clone().filter(|id| corner.layout.angles.contains_key(id));
        Self {
            angle,
            size: shot.size,
            backdrop: shot.backdrop.trim().to_lowercase(),
            light: shot.light.trim().to_lowercase(),
            is_slow: shot.kind == ShotKind::SlowInsert,
        }
    }

    /// What it takes to change to another, s: one thing after the other, by the times that putting up takes. Fogon's own rule.
    pub(super) fn change_s(&self, other: &Self, corner: &Corner<'_>) -> f64 {
        let takes = |kind: ActionKind| action_s(corner.brief, kind);
        let body = |angle: &Option<Id>| match angle {
            Some(id) => corner.layout.angles.get(id).map(|angle| &angle.body),
            None => Some(&corner.layout.camera.body),
        };
        let mut seconds = 0.0;
        if self.angle != other.angle {
            // Another camera stands there already; the same one is carried, levelled and screwed on.
            let moved = body(&self.angle) == body(&other.angle);
            seconds += if moved {
                takes(ActionKind::Carry) + takes(ActionKind::Level) + takes(ActionKind::Mount)
            } else {
                takes(ActionKind::Start)
            };
            seconds += takes(ActionKind::CheckPicture);
        } else if self.size != other.size {
            seconds += takes(ActionKind::SetDown) + takes(ActionKind::CheckPicture);
        }
        if self.backdrop != other.backdrop {
            seconds += takes(ActionKind::Hang);
        }
        if self.light != other.light {
            let lamps = Role::IN_ORDER.into_iter().flat_map(|role| corner.role(role)).count().max(1);
            seconds += lamps as f64 * takes(ActionKind::Dial) + takes(ActionKind::CheckPicture);
        }
        if self.is_slow != other.is_slow {
            seconds += takes(ActionKind::Dial);
        }
        seconds
    }
}
