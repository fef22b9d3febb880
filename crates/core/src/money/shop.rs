//! Kits for every sum at once. Kits are laid out in truth; the ones that are best for their price are taken apart and put together
//! anew - each bundle added, dropped, swapped for another of its job - until no such change makes any of them better. What is best
//! for a sum is the best kit that costs no more: more money never gives a worse corner.

use std::collections::BTreeMap;

use super::bundle::Job;
use super::change::{Change, neighbours};
use super::goods::Goods;
use super::kit::{Kit, is_better};
use super::table::{SEEN, Table};
use super::workshop::Workshop;
use crate::arrange::Stop;
use crate::parallel::in_parallel;

/// Sums for which the exact choice by the table is laid out first, in the plan's currency.
const SUMS: [f64; 12] =
    [50.0, 100.0, 150.0, 250.0, 400.0, 650.0, 1000.0, 1600.0, 2500.0, 4000.0, 6500.0, 10_000.0];
/// Kits that are taken apart and put together anew, at most.
const MOST_EXPANDED: usize = 40;

/// Every kit that was laid out, by what is in it.
#[derive(Debug, Default)]
pub(super) struct Kits {
    all: BTreeMap<Goods, Kit>,
    /// Kits that were taken apart, and what that showed.
    expanded: BTreeMap<Goods, Shown>,
    /// It was ended before its time.
    ended_early: bool,
}

/// What taking a kit apart shows.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq)]
struct Shown {
    /// Without one of its bundles it does as much.
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
        for _ in 0..MOST_EXPANDED {
            let frontier = kits.frontier();
            let Some(next) = frontier.into_iter().find(|kit| !kits.expanded.contains_key(&kit.goods)) else {
                break;
            };
            let next = next.clone();
            if stop.is_wanted() {
                kits.ended_early = true;
                break;
            }
            let mut shown = Shown::default();
            for (change, kit) in neighbours(shop, table, &next, stop) {
                if let Change::Drop(at) = change {
                    shown.see(shop, &next, at, &kit);
                }
                kits.put(kit);
            }
            kits.expanded.insert(next.goods, shown);
            tick();
        }
        kits
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
            let shown = |kit: &Kit| self.expanded.get(&kit.goods).copied().unwrap_or_default();
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
                // What stands in the way is not cleared by a dearer camera where a cheaper thing does.
                Some(last) => {
                    let by_camera = shown(kit).cured_by_camera && !shown(last).cured_by_camera;
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
        self.needless |= !clears && without.value() > with.value() - SEEN;
        let optics = matches!(kit.bundles[dropped].1, Job::Camera | Job::Lens);
        self.cured_by_camera |= clears && optics && shop.start.is_some();
    }
}
