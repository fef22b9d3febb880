//! A corner laid out again after its answers have changed: what is locked stays, what hangs and second angles come along.

use super::stop::Stop;
use super::{furnish::replaced, propose_until};
use crate::assess::quick;
use crate::corner::Corner;
use crate::plan::{Brief, Layout, Part, Plan};

/// The best layout of a brief that keeps every locked thing of the layout before where it is, with what hangs and the second
/// angles, as far as their gear is still at hand; what it finds around them. `Some(None)` where nothing fits; `None` once
/// `stop` says so.
pub fn laid_again(name: &str, brief: &Brief, before: &Layout, stop: Stop<'_>) -> Option<Option<Plan>> {
    let found = propose_until(name, brief, stop)?;
    let kept: Vec<Part<'_>> =
        before.parts().filter(|part| stays(*part) && is_at_hand(brief, *part)).collect();
    let with_kept = |plan: &Plan| {
        let mut layout = plan.layout.clone();
        kept.iter().for_each(|part| layout.put(*part));
        plan.with_layout(layout)
    };
    let mut plans: Vec<Plan> = found.proposals.iter().map(|proposal| with_kept(&proposal.plan)).collect();
    if kept.iter().any(|part| part.is_locked()) {
        // Around what is locked, from each place that was found and from the one before.
        let mut layout = before.clone();
        layout.lights.retain(|id, light| is_at_hand(brief, Part::Light(id, light)));
        plans.extend(plans.clone().iter().filter_map(replaced));
        let own = Plan::new(name, brief.clone(), layout);
        plans.extend(Corner::of(&own).is_some().then(|| replaced(&own)).flatten());
    }
    let rank = |plan: &Plan| {
        let quick = quick(&plan.brief, &plan.layout);
        (quick.stops, quick.fixes, -quick.score)
    };
    let valid = plans.into_iter().filter(|plan| plan.check().is_ok());
    let best = valid
        .map(|plan| (rank(&plan), plan))
        .min_by(|(a, _), (b, _)| (a.0, a.1).cmp(&(b.0, b.1)).then(a.2.total_cmp(&b.2)));
    Some(best.map(|(_, plan)| plan))
}

/// A search does not place it, or must not.
fn stays(part: Part<'_>) -> bool {
    part.is_locked() || matches!(part, Part::Angle(..) | Part::Treatment(..))
}

fn is_at_hand(brief: &Brief, part: Part<'_>) -> bool {
    let carried_by = part.support().and_then(|support| support.gear.as_ref());
    part.gear().chain(carried_by).all(|id| brief.gear.contains_key(id))
}
