//! What gear in use cannot work without and has not: what is bought along with what.

use crate::corner::{Corner, Kit, unmet_needs};
use crate::plan::{Gear, Id, Plan};

/// What gear in use lacks, each with the first of its needs apart: the others are bought along with that one, as a cable
/// without its input helps nobody.
pub(super) struct Lacks(Vec<(String, Vec<String>)>);

impl Lacks {
    /// Of a plan; none where it does not resolve.
    pub(super) fn of(plan: &Plan) -> Self {
        let mut all: Vec<(&Id, String, Vec<String>)> = Vec::new();
        let Some(corner) = Corner::of(plan) else { return Self(Vec::new()) };
        for unmet in Kit::of(&corner).unmet {
            match all.iter_mut().find(|(gear, ..)| *gear == unmet.gear) {
                Some((.., others)) => others.push(unmet.need.to_owned()),
                None => all.push((unmet.gear, unmet.need.to_owned(), Vec::new())),
            }
        }
        // A microphone that is owned and lies idle for lack of something comes into use with it.
        let idle = plan.brief.gear.iter().filter(|(_, gear)| gear.at_hand() && gear.microphone().is_some());
        for (id, _) in idle.filter(|_| corner.hears_by_camera()) {
            let mut needs = unmet_needs(&plan.brief, id).into_iter().map(str::to_owned);
            if let Some(first) = needs.next() {
                all.push((id, first, needs.collect()));
            }
        }
        Self(all.into_iter().map(|(_, first, others)| (first, others)).collect())
    }

    /// What has to be bought along with gear that answers a first need.
    pub(super) fn along_with(&self, gear: &Gear) -> &[String] {
        let offers = |need: &String| gear.common().offers(need);
        self.0.iter().find(|(first, _)| offers(first)).map_or(&[], |(_, others)| others)
    }

    /// Whether gear only answers a need that is bought along with another.
    pub(super) fn is_only_along(&self, gear: &Gear) -> bool {
        let offers = |need: &String| gear.common().offers(need);
        !self.0.iter().any(|(first, _)| offers(first))
            && self.0.iter().any(|(_, others)| others.iter().any(offers))
    }
}
