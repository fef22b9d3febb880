//! Kits for every sum at once. Kits are laid out in truth; the ones that are best for their price are taken apart and put together
//! anew - each bundle added, dropped, swapped for another of its job - until no such change makes any of them better. What is best
//! for a sum is the best kit that costs no more: more money never gives a worse corner.

use std::collections::BTreeMap;
use std::sync::Arc;

use super::bundle::{Job, Main};
use super::goods::Goods;
use super::parallel::in_parallel;
use super::table::{SEEN, Table};
use super::workshop::{Laid, Workshop};
use crate::arrange::Stop;

/// Sums for which the exact choice by the table is laid out first, in the plan's currency.
const SUMS: [f64; 12] =
    [50.0, 100.0, 150.0, 250.0, 400.0, 650.0, 1000.0, 1600.0, 2500.0, 4000.0, 6500.0, 10_000.0];
/// Kits that are taken apart and put together anew, at most.
const MOST_EXPANDED: usize = 40;

/// A kit: bundles, and the corner laid out with them.
#[derive(Debug, Clone)]
pub(super) struct Kit {
    /// What each bundle is bought for, with the goods that came with it.
    pub(super) bundles: Vec<(Main, Job, Goods)>,
    pub(super) goods: Goods,
    pub(super) cents: i64,
    pub(super) laid: Option<Arc<Laid>>,
}

/// Every kit that was laid out, by what is in it.
#[derive(Debug, Default)]
pub(super) struct Kits {
    all: BTreeMap<Goods, Kit>,
    expanded: std::collections::BTreeSet<Goods>,
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
        for kit in in_parallel(&seeds, |seed| seeded(shop, table, seed, stop)).into_iter().flatten() {
            kits.put(kit);
        }
        for _ in 0..MOST_EXPANDED {
            let frontier = kits.frontier();
            let Some(next) = frontier.into_iter().find(|kit| !kits.expanded.contains(&kit.goods)) else {
                break;
            };
            let next = next.clone();
            if stop.is_wanted() {
                break;
            }
            for kit in neighbours(shop, table, &next, stop) {
                kits.put(kit);
            }
            kits.expanded.insert(next.goods);
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
            let better = match best.last() {
                None => kit.cents == 0,
                Some(last) => is_better(kit.laid.as_deref(), last.laid.as_deref()),
            };
            if better {
                best.push(kit);
            }
        }
        best
    }

    /// The best kit for a sum.
    pub(super) fn best(&self, cents: i64) -> Option<&Kit> {
        self.frontier().into_iter().take_while(|kit| kit.cents <= cents).last()
    }
}

/// Whether a corner is better than another so that it is worth money.
fn is_better(new: Option<&Laid>, old: Option<&Laid>) -> bool {
    match (new, old) {
        (None, _) => false,
        (Some(_), None) => true,
        (Some(new), Some(old)) => {
            let no_worse = new.in_the_way() <= old.in_the_way() && new.score() >= old.score() - 1e-9;
            no_worse && (new.in_the_way() < old.in_the_way() || new.value() >= old.value() + SEEN)
        }
    }
}

/// The table's choice, laid out.
fn seeded(shop: &Workshop, table: &Table, seed: &[usize], stop: Stop<'_>) -> Option<Kit> {
    let bundles: Vec<(Main, Job, Goods)> = seed
        .iter()
        .map(|at| &table.bundles[*at])
        .map(|bundle| (bundle.main.clone(), bundle.job, bundle.goods.clone()))
        .collect();
    let goods = bundles.iter().fold(Goods::default(), |all, (_, _, goods)| all.plus(goods));
    (!goods.is_empty()).then(|| of(shop, bundles, goods, stop)).flatten()
}

/// A kit of goods, without what its layout leaves unused.
fn of(shop: &Workshop, mut bundles: Vec<(Main, Job, Goods)>, goods: Goods, stop: Stop<'_>) -> Option<Kit> {
    let laid = shop.lay(&goods, stop)?;
    let trimmed = shop.trimmed(&goods, &laid);
    let again = shop.lay(&trimmed, stop)?;
    let (goods, laid) = if again.rank() <= laid.rank() { (trimmed, again) } else { (goods, laid) };
    // Each bundle keeps of its goods what is left of them.
    let mut left = goods.clone();
    for (main, job, own) in &mut bundles {
        let kept =
            own.at_most(|id| left.iter().find(|(other, _)| *other == id).map_or(0, |(_, count)| count));
        left = left.less(&kept);
        *own = kept;
        *job = shop.job_of(main, &laid);
    }
    bundles.retain(|(_, _, own)| !own.is_empty());
    // What no bundle claims stays with the first.
    if let Some((_, _, own)) = bundles.first_mut() {
        *own = own.plus(&left);
    }
    Some(Kit { cents: goods.cents(&shop.catalogue), bundles, goods, laid: Some(laid) })
}

/// Every kit that differs from one by a bundle added, dropped or swapped.
fn neighbours(shop: &Workshop, table: &Table, kit: &Kit, stop: Stop<'_>) -> Vec<Kit> {
    enum Change<'a> {
        Add(&'a Main),
        Swap(usize, &'a Main),
        Drop(usize),
    }
    let mut changes: Vec<Change<'_>> = (0..kit.bundles.len()).map(Change::Drop).collect();
    for bundle in &table.bundles {
        if kit.bundles.iter().any(|(main, ..)| *main == bundle.main) && bundle.job == Job::Owned {
            continue;
        }
        let held: Vec<usize> = (0..kit.bundles.len()).filter(|i| kit.bundles[*i].1 == bundle.job).collect();
        let may_add = held.is_empty() || bundle.job == Job::Treatment;
        let has = |main: &Main| kit.bundles.iter().any(|(own, ..)| own == main);
        // Without a camera nothing else is worth anything.
        let useful = kit.laid.is_some() || bundle.job == Job::Camera;
        if may_add && useful && !has(&bundle.main) {
            changes.push(Change::Add(&bundle.main));
        }
        for at in held {
            if kit.bundles[at].0 != bundle.main {
                changes.push(Change::Swap(at, &bundle.main));
            }
        }
    }
    let made = in_parallel(&changes, |change| {
        if stop.is_wanted() {
            return None;
        }
        let without = |at: usize| {
            let mut bundles = kit.bundles.clone();
            let (_, _, goods) = bundles.remove(at);
            (bundles, kit.goods.less(&goods))
        };
        let (mut bundles, from, main) = match change {
            Change::Drop(at) => {
                let (bundles, goods) = without(*at);
                return of(shop, bundles, goods, stop);
            }
            Change::Add(main) => (kit.bundles.clone(), kit.goods.clone(), *main),
            Change::Swap(at, main) => {
                let (bundles, goods) = without(*at);
                (bundles, goods, *main)
            }
        };
        let found = shop.complete(&from, main, stop).ok()?;
        let job = shop.job_of(main, &found.laid);
        bundles.push((main.clone(), job, found.goods.less(&from)));
        of(shop, bundles, found.goods, stop)
    });
    made.into_iter().flatten().collect()
}
