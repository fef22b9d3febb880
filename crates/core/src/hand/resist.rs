//! Illegal places resist: a move goes no further than it can without breaking a rule anew or deeper than before,
//! slides along what is in its way, and says which rule holds it.

use crate::assess::legal::{Breach, Rules};
use crate::corner::{Corner, things};
use crate::finding::Rule;
use crate::geometry::DVec3;
use crate::plan::{Layout, Plan, ThingId};
use crate::units::Amount;

use super::follow;
use super::handles::handles;
use super::moves::{Grasp, Grip, Held, Outcome, Sheet, free};

/// Deeper by less than this is no deeper, m or kg.
const SLACK: f64 = 1e-3;
/// How far around the wanted place a legal one is looked for, m, nearest first.
const RINGS_M: [f64; 9] = [0.01, 0.02, 0.04, 0.07, 0.11, 0.17, 0.25, 0.36, 0.5];
const DIRECTIONS: usize = 16;
/// Halvings between a legal and an illegal place: to the millimetre from half a metre.
const HALVINGS: usize = 8;

/// A plan's broken rules before the move: these are not the move's doing.
struct Before<'a> {
    plan: &'a Plan,
    had: Vec<Breach>,
}

impl<'a> Before<'a> {
    fn of(plan: &'a Plan) -> Self {
        Self { plan, had: breaches(plan, &plan.layout) }
    }

    /// Whether a rule is broken anew or deeper than before.
    fn is_worse(&self, new: &Breach) -> bool {
        let same = self.had.iter().filter(|b| b.rule == new.rule && b.thing == new.thing);
        same.map(|b| b.lacking.value()).fold(f64::NEG_INFINITY, f64::max) < new.lacking.value() - SLACK
    }

    /// The gravest rule that a layout breaks anew or deeper.
    fn worst(&self, layout: &Layout) -> Option<Breach> {
        breaches(self.plan, layout)
            .into_iter()
            .filter(|new| self.is_worse(new))
            .max_by(|a, b| a.lacking.value().total_cmp(&b.lacking.value()))
    }

    /// Whether a layout breaks no rule anew or deeper: the way to the chair, which costs most, is looked at last.
    fn holds(&self, layout: &Layout) -> bool {
        let Some(corner) = Corner::from_parts(&self.plan.brief, layout) else { return false };
        let (rules, all) = (Rules::new(&corner), things(&corner));
        !rules.all_but_the_way(&all).iter().any(|new| self.is_worse(new))
            && !rules.way(&all).is_some_and(|new| self.is_worse(&new))
    }
}

fn breaches(plan: &Plan, layout: &Layout) -> Vec<Breach> {
    match Corner::from_parts(&plan.brief, layout) {
        Some(corner) => Rules::new(&corner).all(&things(&corner)),
        // Nearer than the lens can focus at all.
        None => vec![Breach::new(
            Rule::Camera,
            ThingId::Camera,
            Amount::Unmeasured,
            "The lens stands nearer to the eyes than its focal length: there is no picture.",
            "Move back.",
        )],
    }
}

/// The farthest that a change goes without breaking a rule anew or deeper: `at(1)` if it can, else by halving between
/// how things stand (0) and what is asked for (1).
pub(super) fn along(before: &Plan, anyway: bool, at: impl Fn(f64) -> Layout) -> Outcome {
    let wanted = at(1.0);
    let rules = Before::of(before);
    let Some(reason) = rules.worst(&wanted).filter(|_| !anyway) else { return free(wanted) };
    let (mut good, mut bad, mut layout) = (0.0, 1.0, before.layout.clone());
    for _ in 0..HALVINGS {
        let middle = (good + bad) / 2.0;
        let trial = at(middle);
        if rules.holds(&trial) {
            (good, layout) = (middle, trial);
        } else {
            bad = middle;
        }
    }
    Outcome { layout, snaps: Vec::new(), held: Some(held(&reason)) }
}

/// A turn is taken or refused whole.
pub(super) fn turned(before: &Plan, layout: Layout, anyway: bool) -> Outcome {
    match Before::of(before).worst(&layout).filter(|_| !anyway) {
        None => free(layout),
        Some(breach) => {
            Outcome { layout: before.layout.clone(), snaps: Vec::new(), held: Some(held(&breach)) }
        }
    }
}

/// The nearest the thing can come to where it is wanted.
pub(super) fn placed(before: &Plan, by: &Grasp<'_>, wanted: DVec3) -> Outcome {
    let Some(corner) = Corner::of(before) else { return free(before.layout.clone()) };
    let natural = |at: DVec3| follow::put(&corner, by, at).next();
    if by.anyway {
        return free(natural(wanted).unwrap_or_else(|| before.layout.clone()));
    }
    let rules = Before::of(before);
    let legal = |at: DVec3| follow::put(&corner, by, at).find(|l| rules.holds(l));
    if let Some(layout) = legal(wanted) {
        return free(layout);
    }
    let reason = natural(wanted).and_then(|l| rules.worst(&l));
    let along = axes(&corner, by);
    // From the nearest ring that has legal places, the one that can be drawn nearest: no side is favoured.
    let near = RINGS_M.iter().find_map(|radius| {
        let found: Vec<_> = (0..DIRECTIONS)
            .filter_map(|step| {
                let angle = step as f64 / DIRECTIONS as f64 * std::f64::consts::TAU;
                let at = wanted + (along[0] * angle.cos() + along[1] * angle.sin()) * *radius;
                natural(at).filter(|l| rules.holds(l)).map(|layout| (at, layout))
            })
            .map(|(at, layout)| drawn_near(at, layout, wanted, &legal))
            .collect();
        found.into_iter().min_by(|a, b| (a.0 - wanted).length().total_cmp(&(b.0 - wanted).length()))
    });
    // Where it stands may be nearer still, as when a step goes out of the sheet; else all places around are taken.
    let start =
        handles(before).iter().find(|h| h.id == by.by.thing).map_or(wanted, |h| match (by.grip, h.foot_m) {
            (Grip::Foot, Some(foot)) => [foot.0[0], foot.0[1], 0.0].into(),
            _ => DVec3::from(h.position_m),
        });
    let off = |at: DVec3| (at - wanted).length();
    let layout = match near {
        Some((at, layout)) if off(at) <= off(start) => layout,
        _ => drawn_near(start, before.layout.clone(), wanted, &legal).1,
    };
    Outcome { layout, snaps: Vec::new(), held: reason.as_ref().map(held) }
}

/// A legal place drawn towards the wanted one by halving, as far as it stays legal.
fn drawn_near(
    from: DVec3,
    layout: Layout,
    wanted: DVec3,
    legal: &impl Fn(DVec3) -> Option<Layout>,
) -> (DVec3, Layout) {
    let (mut good, mut bad, mut layout) = (from, wanted, layout);
    for _ in 0..HALVINGS {
        let middle = (good + bad) / 2.0;
        match legal(middle) {
            Some(better) => (good, layout) = (middle, better),
            None => bad = middle,
        }
    }
    (good, layout)
}

/// The two directions in which a hand moves on its sheet.
pub(super) fn axes(corner: &Corner<'_>, by: &Grasp<'_>) -> [DVec3; 2] {
    match by.sheet {
        Sheet::Plan => [DVec3::X, DVec3::Y],
        Sheet::Side => [corner.to_lens(), DVec3::Z],
    }
}

fn held(breach: &Breach) -> Held {
    Held { rule: breach.rule, sentence: breach.sentence.clone() }
}
