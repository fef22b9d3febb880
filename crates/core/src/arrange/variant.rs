//! The same corner in another way, to be heard beside it: with another microphone, stripped, or treated as advised.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::hang::with_treatment;
use crate::corner::Corner;
use crate::plan::{Gear, Id, Layout, Microphone, Plan, Support, Things};
use crate::problem::{Code, Problem};
use crate::sound::absorption::Absorption;
use crate::sound::choices::{MicrophoneKind, choices};
use crate::sound::treatment::advice;

/// What is other.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum Variant {
    /// Nothing.
    #[default]
    Planned,
    /// A microphone built into the camera.
    BuiltIn,
    /// One on the camera.
    OnCamera,
    /// One with a short tube on a boom, just out of the picture.
    BoomShotgun,
    /// One without a tube there.
    Boom,
    /// One worn on the chest.
    Lavalier,
    /// One on the desk.
    Desk,
    /// A headset.
    Headset,
    /// Nothing hangs or lies against the echo.
    Bare,
    /// Everything hangs that is advised.
    Treated,
}

impl Variant {
    fn kind(self) -> Option<MicrophoneKind> {
        match self {
            Variant::BuiltIn => Some(MicrophoneKind::BuiltIn),
            Variant::OnCamera => Some(MicrophoneKind::OnCamera),
            Variant::BoomShotgun => Some(MicrophoneKind::BoomShotgun),
            Variant::Boom => Some(MicrophoneKind::Boom),
            Variant::Lavalier => Some(MicrophoneKind::Lavalier),
            Variant::Desk => Some(MicrophoneKind::Desk),
            Variant::Headset => Some(MicrophoneKind::Headset),
            Variant::Planned | Variant::Bare | Variant::Treated => None,
        }
    }
}

/// A plan in another way; only to be heard, its stands are not placed.
///
/// # Errors
/// There is no place for such a microphone.
pub fn varied(plan: &Plan, variant: Variant) -> Result<Plan, Problem> {
    let mut other = plan.clone();
    if variant == Variant::Bare {
        let layout = Layout { treatment: Things::new(), ..plan.layout.clone() };
        other = plan.with_layout(layout);
    }
    if variant == Variant::Treated {
        let steps =
            Corner::of(plan).map_or_else(Vec::new, |corner| advice(&corner, &Absorption::of(&corner)).steps);
        for step in steps {
            // As one piece, else as two: what finds no place on a wall is heard as if it were not there.
            let side = step.area_m2.sqrt().min(2.0);
            let size = [step.area_m2 / side, side];
            let halves = |plan: &Plan| {
                let one = with_treatment(plan, &step.material, size[0] / 2.0, size[1])?;
                with_treatment(&one, &step.material, size[0] / 2.0, size[1])
            };
            let next = with_treatment(&other, &step.material, size[0], size[1]).or_else(|_| halves(&other));
            other = next.unwrap_or(other);
        }
    }
    if let Some(kind) = variant.kind() {
        let corner = Corner::of(plan);
        let place = corner.as_ref().and_then(|corner| {
            choices(corner, &Absorption::of(corner)).into_iter().find(|choice| choice.kind == kind)
        });
        let Some(place) = place else {
            let accepted = "a microphone that finds a place in this corner";
            return Err(Problem::new("variant", format!("{variant:?}"), accepted, Code::Conflict));
        };
        if place.chosen {
            return Ok(other);
        }
        let gear = place.gear.map_or_else(
            || {
                let id = Id::from("usual-microphone");
                other.brief.gear.insert(id.clone(), Gear::Microphone(kind.typical()));
                id
            },
            Id,
        );
        let used = Microphone { gear, position_m: place.position_m, support: Support::none(), locked: false };
        let layout = Layout { microphone: Some(used), ..other.layout.clone() };
        other = other.with_layout(layout);
    }
    Ok(other)
}
