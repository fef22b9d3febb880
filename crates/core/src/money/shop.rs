//! Kits for every sum at once. Kits are laid out in truth; the ones that are best for their price are taken apart, and put aside where
//! they do as much without one of their bundles; those that stand up to it are put together anew - a bundle added, or swapped for
//! another of its job - until no such change makes any of them better. What is best for a sum is the best kit that costs no more:
//! more money never gives a worse corner.

use std::collections::BTreeMap;

use super::bundle::ONE_POINT;
use super::change::{fewer, neighbours};
use super::goods::Goods;
use super::kit::{Kit, is_better};
use super::table::{SEEN, Table};
use super::workshop::Workshop;
use crate::arrange::Stop;
use crate::parallel::in_parallel;

/// Sums for which the exact choice by the table is laid out first, in the plan's currency.
const SUMS: [f64; 12] =
    [50.0, 100.0, 150.0, 250.0, 400.0, 650.0, 1000.0, 1600.0, 2500.0, 4000.0, 6500.0, 10_000.0];
/// Kits that are taken apart, and of them those that are put together anew, at most.
const MOST_TAKEN_APART: usize = 120;
const MOST_EXPANDED: usize = 40;

/// Every kit that was laid out, by what is in it.
#[derive(Debug, Default)]
pub(super) struct Kits {
    all: BTreeMap<Goods, Kit>,
    /// Kits that were taken apart, and what that showed.
    taken_apart: BTreeMap<Goods, Shown>,
    /// It was ended before its time.
    ended_early: bool,
}

/// What taking a kit apart shows.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq)]
struct Shown {
    /// Without one of its bundles it does as much, or, where that is a camera or a lens in place of one that is there, nearly so.
    needless: bool,
    /// Its camera or its lens clears what stands in the way, where one was there already.
    cured_by_camera: bool,
}

impl Kits {
    /// Looks for the best kit for every sum; `tick` hears how many kits have been taken apart.
    pub(super) fn explore(shop: &Workshop, table: &Table, stop: Stop<'_>, tick: &(dyn Fn() + Sync)) -> Self {
        let mut kits = Self::default();
        kits.put(Kit { bundles: Vec::new(), goods: Goods::default(), cents: 0, laid: shop.start.clone() });
        let seeds: Vec<Vec<usize>> = SUMS
            .iter()
            .map(|sum| table.choose(&shop.brief, (sum * 100.0) as i64, shop.start.is_none()))
            .collect();
        for kit in in_parallel(&seeds, |seed| Kit::seeded(shop, table, seed, stop)).into_iter().flatten() {
            kits.put(kit);
        }
        let mut expanded = 0;
        while let Some(next) = kits.next() {
            if stop.is_wanted() {
                kits.ended_early = true;
                return kits;
            }
            if kits.taken_apart.len() == MOST_TAKEN_APART || expanded == MOST_EXPANDED {
                break;
            }
            let mut shown = Shown::default();
            for (at, without) in fewer(shop, &next, stop) {
                shown.see(shop, &next, at, &without);
                kits.put(without);
            }
            kits.taken_apart.insert(next.goods.clone(), shown);
            // What does not stand up to it leads nowhere: what it comes to without a bundle is looked at by itself.
            if kits.frontier().iter().any(|kit| kit.goods == next.goods) {
                expanded += 1;
                neighbours(shop, table, &next, stop).into_iter().for_each(|kit| kits.put(kit));
            }
            tick();
        }
        // Of a kit that nobody took apart it is not known whether all of it is needed.
        let Self { all, taken_apart, .. } = &mut kits;
        all.retain(|goods, _| taken_apart.contains_key(goods));
        kits
    }

    /// The cheapest of the kits that are best for their price that was not taken apart yet.
    fn next(&self) -> Option<Kit> {
        let mut frontier = self.frontier().into_iter();
        frontier.find(|kit| !self.taken_apart.contains_key(&kit.goods)).cloned()
    }

    fn put(&mut self, kit: Kit) {
        self.all.entry(kit.goods.clone()).or_insert(kit);
    }

    /// The kits that are best for their price, cheapest first: each clears more than every cheaper one, or is better by what a
    /// person would see or hear, and none is worse in anything that is told.
    pub(super) fn frontier(&self) -> Vec<&Kit> {
        let mut all: Vec<&Kit> = self.all.values().collect();
        let rank = |kit: &Kit| kit.laid.as_ref().map(|laid| laid.rank());
        // None, where nothing can be laid out, comes last.
        all.sort_by(|a, b| {
            let (x, y) = (rank(a), rank(b));
            a.cents
                .cmp(&b.cents)
                .then(x.is_none().cmp(&y.is_none()))
                .then(x.cmp(&y))
                .then(a.goods.cmp(&b.goods))
        });
        let mut best: Vec<&Kit> = Vec::new();
        for kit in all {
            let shown = |kit: &Kit| self.taken_apart.get(&kit.goods).copied().unwrap_or_default();
            if shown(kit).needless || best.first().is_some_and(|start| kit.cures_worse(start)) {
                continue;
            }
            // What stands in the way is cured before anything else is bought: what is bought in place of the cure, and would score
            // better than it, is not.
            while best.last().is_some_and(|last| kit.cures_worse(last)) {
                best.pop();
            }
            let better = match best.last() {
                None => kit.cents == 0,
                // Where a cheaper thing clears what stands in the way, no camera is bought for that; a camera that is bought
                // anyway may give way to a better one.
                Some(last) => {
                    let by_camera = shown(kit).cured_by_camera && !last.has_optics();
                    is_better(kit.laid.as_deref(), last.laid.as_deref())
                        && !(by_camera && kit.clears_no_more(last))
                }
            };
            if better {
                best.push(kit);
            }
        }
        best
    }

    /// Every kit that was to be taken apart has been.
    pub(super) fn is_whole(&self) -> bool {
        !self.ended_early
    }

    /// The best kit for a sum.
    pub(super) fn best(&self, cents: i64) -> Option<&Kit> {
        self.frontier().into_iter().take_while(|kit| kit.cents <= cents).last()
    }
}

impl Shown {
    /// Looks at a kit without one of its bundles.
    fn see(&mut self, shop: &Workshop, kit: &Kit, dropped: usize, without: &Kit) {
        let (Some(with), Some(without)) = (&kit.laid, &without.laid) else { return };
        let clears = without.in_the_way() > with.in_the_way();
        let replaces_optics = kit.bundles[dropped].1.is_optics() && shop.start.is_some();
        let least = if replaces_optics { ONE_POINT } else { SEEN };
        self.needless |= !clears && without.value() > with.value() - least;
        self.cured_by_camera |= clears && replaces_optics;
    }
}
