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
    /// Kits that were taken apart, and what that showed.
    expanded: BTreeMap<Goods, Shown>,
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
        for kit in in_parallel(&seeds, |seed| seeded(shop, table, seed, stop)).into_iter().flatten() {
            kits.put(kit);
        }
        for _ in 0..MOST_EXPANDED {
            let frontier = kits.frontier();
            let Some(next) = frontier.into_iter().find(|kit| !kits.expanded.contains_key(&kit.goods)) else {
                break;
            };
            let next = next.clone();
            if stop.is_wanted() {
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
                        && !(by_camera && clears_no_more(kit, last))
                }
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

impl Workshop {
    /// A bundle that is there for the camera that is owned: another camera may do without it.
    fn holds_the_camera(&self, main: &Main, job: Job) -> bool {
        let owned = || self.brief.gear.get(&main.id).is_some_and(|gear| gear.camera().is_some());
        job == Job::CameraStand || job == Job::Owned && owned()
    }
}

impl Kit {
    /// It clears more than another kit, and scores lower.
    fn cures_worse(&self, other: &Kit) -> bool {
        let (Some(own), Some(other)) = (&self.laid, &other.laid) else { return false };
        own.in_the_way() < other.in_the_way() && own.score() < other.score() - 1e-9
    }
}

fn clears_no_more(kit: &Kit, than: &Kit) -> bool {
    let in_the_way = |kit: &Kit| kit.laid.as_ref().map(|laid| laid.in_the_way());
    in_the_way(kit) >= in_the_way(than)
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

/// One bundle more, one less, or one in another's place.
enum Change<'a> {
    Add(&'a Main),
    Swap(usize, &'a Main),
    Drop(usize),
}

/// A kit after one change; none where nothing can be laid out with it.
fn changed(shop: &Workshop, kit: &Kit, change: &Change<'_>, stop: Stop<'_>) -> Option<Kit> {
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
}

/// Every kit that differs from one by a bundle of the table added, dropped or swapped for another of its job.
fn neighbours<'a>(shop: &Workshop, table: &'a Table, kit: &Kit, stop: Stop<'_>) -> Vec<(Change<'a>, Kit)> {
    let mut changes: Vec<Change<'_>> = (0..kit.bundles.len()).map(Change::Drop).collect();
    for bundle in &table.bundles {
        if kit.bundles.iter().any(|(main, ..)| *main == bundle.main) && bundle.job == Job::Owned {
            continue;
        }
        let in_its_place = |i: &usize| {
            let (main, job, _) = &kit.bundles[*i];
            *job == bundle.job || bundle.job == Job::Camera && shop.holds_the_camera(main, *job)
        };
        let held: Vec<usize> = (0..kit.bundles.len()).filter(in_its_place).collect();
        let has_job = kit.bundles.iter().any(|(_, job, _)| *job == bundle.job);
        let may_add = !has_job || bundle.job == Job::Treatment;
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
    let on_books = kit.laid.as_ref().is_some_and(|laid| laid.plan.layout.camera.support.is_by_itself());
    let again = table.again.iter().filter(|main| {
        let of_use = kit.laid.is_some() && (main.job != Job::CameraStand || on_books);
        of_use && !kit.bundles.iter().any(|(own, ..)| own == *main)
    });
    changes.extend(again.map(Change::Add));
    let made = in_parallel(&changes, |change| changed(shop, kit, change, stop));
    changes.into_iter().zip(made).filter_map(|(change, kit)| Some((change, kit?))).collect()
}

/// A kit with one bundle added, dropped or swapped, whatever is on offer and whatever its job, and the corner laid out with it.
#[derive(Debug, Clone, PartialEq)]
pub struct SingleChange {
    /// What came, by its catalogue id; none where something was only dropped.
    pub came: Option<String>,
    /// What went.
    pub went: Option<String>,
    /// The price of the kit after it.
    pub spent: f64,
    /// By how much the corner is better than with the kit itself, score, a stand under a camera that stood on books counted in.
    pub better_by: f64,
    /// Things that stand in the way then, less those that do with the kit itself.
    pub more_in_the_way: i64,
}

/// Every single change of a kit that costs no more than a sum: what the choice has to stand up to.
pub(super) fn single_changes(shop: &Workshop, kit: &Kit, cents: i64, stop: Stop<'_>) -> Vec<SingleChange> {
    let Some(laid) = &kit.laid else { return Vec::new() };
    let on_offer: Vec<Main> = shop
        .mains()
        .into_iter()
        .chain(shop.lenses())
        .chain(shop.cameras())
        .filter(|candidate| candidate.refused.is_none())
        .map(|candidate| candidate.main)
        .filter(|main| !kit.bundles.iter().any(|(own, ..)| own == main))
        .collect();
    let mut changes: Vec<Change<'_>> = (0..kit.bundles.len()).map(Change::Drop).collect();
    changes.extend(on_offer.iter().map(Change::Add));
    changes.extend(
        (0..kit.bundles.len()).flat_map(|at| on_offer.iter().map(move |main| Change::Swap(at, main))),
    );
    let told = in_parallel(&changes, |change| {
        let made = changed(shop, kit, change, stop).filter(|made| made.cents <= cents)?;
        let other = made.laid?;
        let name = |main: &Main| Some(main.id.0.clone());
        let count = |laid: &Laid| (laid.in_the_way().0 + laid.in_the_way().1) as i64;
        let (came, went) = match change {
            Change::Add(main) => (name(main), None),
            Change::Swap(at, main) => (name(main), name(&kit.bundles[*at].0)),
            Change::Drop(at) => (None, name(&kit.bundles[*at].0)),
        };
        Some(SingleChange {
            came,
            went,
            spent: made.cents as f64 / 100.0,
            better_by: other.value() - laid.value(),
            more_in_the_way: count(&other) - count(laid),
        })
    });
    told.into_iter().flatten().collect()
}
