//! One kit: bundles bought together, the corner laid out with them, and which of two is better.

use std::sync::Arc;

use super::bundle::{Job, Main};
use super::goods::Goods;
use super::table::{SEEN, Table};
use super::workshop::{Laid, Workshop};
use crate::arrange::Stop;

/// A kit: bundles, and the corner laid out with them.
#[derive(Debug, Clone)]
pub(super) struct Kit {
    /// What each bundle is bought for, with the goods that came with it.
    pub(super) bundles: Vec<(Main, Job, Goods)>,
    pub(super) goods: Goods,
    pub(super) cents: i64,
    pub(super) laid: Option<Arc<Laid>>,
}

impl Kit {
    /// The table's choice, laid out.
    pub(super) fn seeded(shop: &Workshop, table: &Table, seed: &[usize], stop: Stop<'_>) -> Option<Self> {
        let bundles: Vec<(Main, Job, Goods)> = seed
            .iter()
            .map(|at| &table.bundles[*at])
            .map(|bundle| (bundle.main.clone(), bundle.job, bundle.goods.clone()))
            .collect();
        let goods = bundles.iter().fold(Goods::default(), |all, (_, _, goods)| all.plus(goods));
        (!goods.is_empty()).then(|| Self::of(shop, bundles, goods, stop)).flatten()
    }

    /// A kit of goods, without what its layout leaves unused.
    pub(super) fn of(
        shop: &Workshop,
        mut bundles: Vec<(Main, Job, Goods)>,
        goods: Goods,
        stop: Stop<'_>,
    ) -> Option<Self> {
        let laid = shop.lay(&goods, stop)?;
        let trimmed = shop.trimmed(&goods, &laid);
        let again = shop.lay(&trimmed, stop)?;
        let (goods, laid) = if again.rank() <= laid.rank() { (trimmed, again) } else { (goods, laid) };
        // Each bundle keeps of its goods what is left of them.
        let mut left = goods.clone();
        for (main, job, own) in &mut bundles {
            let kept =
                own.at_most(|id| left.iter().find(|(other, _)| *other == id).map_or(0, |(_, count)| count));
            // A bundle whose own thing came to nothing leaves its stand to the others.
            let is_used = main.goods.iter().all(|(id, _)| kept.has(id));
            *own = if is_used { kept } else { Goods::default() };
            left = left.less(own);
            *job = shop.job_of(main, &laid);
        }
        bundles.retain(|(_, _, own)| !own.is_empty());
        // What no bundle claims is a stand that lets another one go: it comes with the first thing that stands on one.
        let stands = |main: &Main| {
            let parts = main.goods.iter().filter_map(|(id, _)| laid.part_of(id));
            let mut supports = parts.filter_map(|thing| laid.plan.layout.part(&thing)?.support());
            supports.any(|support| support.gear.is_some())
        };
        let at = bundles.iter().position(|(main, ..)| stands(main)).unwrap_or(0);
        if let Some((_, _, own)) = bundles.get_mut(at) {
            *own = own.plus(&left);
        }
        Some(Self { cents: goods.cents(&shop.catalogue), bundles, goods, laid: Some(laid) })
    }

    /// A camera or a lens is bought.
    pub(super) fn has_optics(&self) -> bool {
        self.bundles.iter().any(|(_, job, _)| job.is_optics())
    }

    /// It clears more than another kit, and scores lower.
    pub(super) fn cures_worse(&self, other: &Self) -> bool {
        let (Some(own), Some(other)) = (&self.laid, &other.laid) else { return false };
        own.in_the_way() < other.in_the_way() && own.score() < other.score() - 1e-9
    }

    /// It leaves as much in the way as another kit does.
    pub(super) fn clears_no_more(&self, than: &Self) -> bool {
        let in_the_way = |kit: &Self| kit.laid.as_ref().map(|laid| laid.in_the_way());
        in_the_way(self) >= in_the_way(than)
    }
}

/// Whether a corner is better than another so that it is worth money.
pub(super) fn is_better(new: Option<&Laid>, old: Option<&Laid>) -> bool {
    match (new, old) {
        (None, _) => false,
        (Some(_), None) => true,
        (Some(new), Some(old)) => {
            let no_worse = new.in_the_way() <= old.in_the_way() && new.score() >= old.score() - 1e-9;
            no_worse && (new.in_the_way() < old.in_the_way() || new.value() >= old.value() + SEEN)
        }
    }
}
