//! In which order: at each step what gains most for its price of what works by itself or with what is there already, what stands
//! in the way first. No step leaves the corner worse.

use std::sync::Arc;

use super::bundle::{Job, Main};
use super::goods::Goods;
use super::kit::Kit;
use super::workshop::{Laid, Workshop};
use crate::arrange::Stop;
use crate::parallel::in_parallel;

/// One step: what is bought together, and the corner after it.
#[derive(Debug, Clone)]
pub(super) struct Leg {
    pub(super) bundles: Vec<(Main, Job, Goods)>,
    pub(super) goods: Goods,
    pub(super) before: Option<Arc<Laid>>,
    pub(super) after: Arc<Laid>,
}

/// A kit in the order in which it is bought; none once nobody waits.
pub(super) fn path(shop: &Workshop, kit: &Kit, stop: Stop<'_>) -> Option<Vec<Leg>> {
    let mut left: Vec<(Main, Job, Goods)> = kit.bundles.clone();
    let mut waiting: Vec<(Main, Job, Goods)> = Vec::new();
    let (mut done, mut at) = (Goods::default(), shop.start.clone());
    let mut legs: Vec<Leg> = Vec::new();
    while !left.is_empty() {
        let with = waiting.iter().fold(done.clone(), |all, (_, _, goods)| all.plus(goods));
        let after: Vec<Option<Arc<Laid>>> = in_parallel(&left, |(_, _, goods)| {
            let goods = with.plus(goods);
            (!stop.is_wanted()).then(|| no_worse(shop, &goods, at.as_ref(), stop)).flatten()
        });
        if stop.is_wanted() {
            return None;
        }
        let spent = with.less(&done).cents(&shop.catalogue);
        let best = left
            .iter()
            .zip(&after)
            .enumerate()
            .filter_map(|(i, ((_, _, goods), laid))| {
                let laid = laid.clone().filter(|laid| is_gain(laid, at.as_deref()))?;
                let cents = spent + goods.cents(&shop.catalogue);
                Some((i, cents, laid))
            })
            .min_by(|(_, a_cents, a), (_, b_cents, b)| {
                let cleared = a.in_the_way().cmp(&b.in_the_way());
                let clears = at.as_ref().is_none_or(|at| a.in_the_way() < at.in_the_way());
                let gain = |laid: &Laid| laid.value() - at.as_ref().map_or(0.0, |at| at.value());
                // Of two that clear as much the cheaper; else the one that gains more for its price.
                let price = if clears { a_cents.cmp(b_cents) } else { std::cmp::Ordering::Equal };
                let worth =
                    (gain(b) / (*b_cents).max(1) as f64).total_cmp(&(gain(a) / (*a_cents).max(1) as f64));
                cleared.then(price).then(worth).then(a_cents.cmp(b_cents))
            });
        match best {
            Some((i, _, laid)) => {
                waiting.push(left.remove(i));
                let mut bundles = std::mem::take(&mut waiting);
                // What is bought as the key may serve as something else once a better one is there.
                for (main, job, _) in &mut bundles {
                    *job = shop.job_of(main, &laid);
                }
                let goods = bundles.iter().fold(Goods::default(), |all, (_, _, goods)| all.plus(goods));
                done = done.plus(&goods);
                legs.push(Leg { bundles, goods, before: at.clone(), after: laid.clone() });
                at = Some(laid);
            }
            // Nothing helps by itself: the cheapest waits for what it helps together with.
            None => {
                let cheapest = (0..left.len()).min_by_key(|i| left[*i].2.cents(&shop.catalogue))?;
                waiting.push(left.remove(cheapest));
            }
        }
    }
    // What never helped by itself came along with the whole: it belongs to the last step.
    if let (false, Some(last)) = (waiting.is_empty(), legs.last_mut()) {
        for (main, job, goods) in waiting {
            last.goods = last.goods.plus(&goods);
            last.bundles.push((main, job, goods));
        }
        if let Some(laid) = no_worse(shop, &kit.goods, Some(&last.after), stop) {
            last.after = laid;
        }
    }
    Some(cures_first(legs))
}

impl Leg {
    /// Things that stood in the way before it and do not any more.
    pub(super) fn cleared(&self) -> usize {
        let count = |laid: &Laid| laid.in_the_way().0 + laid.in_the_way().1;
        self.before.as_deref().map_or(0, |before| count(before).saturating_sub(count(&self.after)))
    }

    /// It clears something, or is the camera without which there is nothing.
    fn cures(&self) -> bool {
        self.before.is_none() || self.cleared() > 0
    }
}

/// What cures only once something else is there is bought together with it: no cure comes late.
fn cures_first(legs: Vec<Leg>) -> Vec<Leg> {
    let mut all: Vec<Leg> = Vec::new();
    for mut leg in legs {
        while leg.cures()
            && let Some(earlier) = all.pop_if(|earlier| !earlier.cures())
        {
            leg = Leg {
                bundles: [earlier.bundles, leg.bundles].concat(),
                goods: earlier.goods.plus(&leg.goods),
                before: earlier.before,
                after: leg.after,
            };
        }
        all.push(leg);
    }
    all
}

/// The corner with goods: as it is laid out with them, or as it was before they came where that is no worse.
fn no_worse(shop: &Workshop, goods: &Goods, before: Option<&Arc<Laid>>, stop: Stop<'_>) -> Option<Arc<Laid>> {
    let laid = shop.lay(goods, stop);
    let Some(before) = before else { return laid };
    let brief = shop.brief_with(goods)?;
    let kept = Arc::new(Laid::of(before.plan.with_brief(brief)));
    let best = laid.filter(|laid| laid.rank() <= kept.rank() && laid.score() >= before.score() - 1e-9);
    Some(best.unwrap_or(kept))
}

fn is_gain(laid: &Laid, before: Option<&Laid>) -> bool {
    before.is_none_or(|before| {
        let no_worse = laid.in_the_way() <= before.in_the_way() && laid.score() >= before.score() - 1e-9;
        no_worse && (laid.in_the_way() < before.in_the_way() || laid.value() > before.value() + 1e-6)
    })
}
