//! What a layout lacks: parts that nothing carries, and gear whose needs nothing at hand answers.

use crate::corner::{Corner, Kit};
use crate::plan::{Id, Plan, SupportKind, ThingId};

/// One thing that is lacking.
#[derive(Debug, Clone, PartialEq)]
pub(super) struct Lack {
    /// The gear that lacks it.
    pub(super) gear: Id,
    pub(super) what: What,
}

/// What is lacking.
#[derive(Debug, Clone, PartialEq)]
pub(super) enum What {
    /// A stand.
    Carrier(Hold),
    /// An input, a cable, power.
    Need(String),
}

/// What a stand has to do.
#[derive(Debug, Clone, PartialEq)]
pub(super) struct Hold {
    /// What it is made for: `camera`, `light`, `microphone`.
    pub(super) purpose: &'static str,
    /// It has to reach out so far, m; 0 plumb under what it carries.
    pub(super) reach_m: f64,
    /// How high it holds it, m; not known before it is placed.
    pub(super) height_m: Option<f64>,
    /// How heavy it is, kg.
    pub(super) mass_kg: f64,
}

/// Everything that a plan lacks. A screen or a second angle without a stand is somebody's own choice.
pub(super) fn lacks(plan: &Plan) -> Vec<Lack> {
    let Some(corner) = Corner::of(plan) else { return Vec::new() };
    let mut all = Vec::new();
    for one in corner.carried() {
        let purpose = match one.id {
            ThingId::Camera => "camera",
            ThingId::Light(_) => "light",
            ThingId::Microphone => "microphone",
            ThingId::Person
            | ThingId::Seat
            | ThingId::Screen
            | ThingId::Backdrop
            | ThingId::Angle(_)
            | ThingId::Treatment(_)
            | ThingId::Furniture(_)
            | ThingId::Opening(_)
            | ThingId::Mains => continue,
        };
        let reaches = one.support.kind == SupportKind::Boom;
        let stands = matches!(one.support.kind, SupportKind::Floor | SupportKind::Boom);
        let gear = plan.layout.part(&one.id).and_then(|part| part.gear().next().cloned());
        if let Some(gear) = gear.filter(|_| stands && one.support.gear.is_none()) {
            let foot = one.support.base_m.map_or(one.hold_m.truncate(), Into::into);
            let reach_m = if reaches { (one.hold_m.truncate() - foot).length() } else { 0.0 };
            let hold = Hold { purpose, reach_m, height_m: Some(one.hold_m.z), mass_kg: one.mass_kg };
            all.push(Lack { gear, what: What::Carrier(hold) });
        }
    }
    let unmet = Kit::of(&corner).unmet.into_iter();
    all.extend(unmet.map(|unmet| Lack { gear: unmet.gear.clone(), what: What::Need(unmet.need.to_owned()) }));
    all
}
