//! A kit with one bundle more, one less, or one in another's place: what the search goes by, and what its outcome has to stand up to.

use super::bundle::{Job, Main};
use super::kit::Kit;
use super::table::Table;
use super::workshop::{Laid, Workshop};
use crate::arrange::Stop;
use crate::parallel::in_parallel;
use crate::plan::Role;

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
            return Kit::of(shop, bundles, goods, stop);
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
    Kit::of(shop, bundles, found.goods, stop)
}

/// A kit without each of its bundles, by its place among them.
pub(super) fn fewer(shop: &Workshop, kit: &Kit, stop: Stop<'_>) -> Vec<(usize, Kit)> {
    let places: Vec<usize> = (0..kit.bundles.len()).collect();
    let made = in_parallel(&places, |at| changed(shop, kit, &Change::Drop(*at), stop));
    places.into_iter().zip(made).filter_map(|(at, kit)| Some((at, kit?))).collect()
}

/// Every kit that differs from one by a bundle of the table added or swapped for another of its job.
pub(super) fn neighbours(shop: &Workshop, table: &Table, kit: &Kit, stop: Stop<'_>) -> Vec<Kit> {
    let mut changes: Vec<Change<'_>> = Vec::new();
    let lacks_a_lamp = kit.laid.as_ref().is_some_and(|laid| {
        let lit = |role: Role| laid.plan.layout.lights.values().any(|light| light.role == role);
        lit(Role::Key) && (!lit(Role::Fill) || crate::light::wants_back(&shop.brief) && !lit(Role::Back))
    });
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
        // A lamp whose job is taken finds another that nobody does yet.
        let finds_a_job = matches!(bundle.job, Job::Light(role) if role != Role::Key) && lacks_a_lamp;
        let may_add = !has_job || bundle.job == Job::Treatment || finds_a_job;
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
    let seconds = table
        .second_lamps
        .iter()
        .filter(|main| lacks_a_lamp && !kit.bundles.iter().any(|(own, ..)| own == *main));
    changes.extend(seconds.map(Change::Add));
    for camera in table.second_cameras.iter().filter(|main| !kit.bundles.iter().any(|(own, ..)| own == *main))
    {
        let held = (0..kit.bundles.len()).filter(|at| {
            let (main, job, _) = &kit.bundles[*at];
            *job == Job::Camera || shop.holds_the_camera(main, *job)
        });
        changes.extend(held.map(|at| Change::Swap(at, camera)));
    }
    in_parallel(&changes, |change| changed(shop, kit, change, stop)).into_iter().flatten().collect()
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
    /// By how much its score is higher than with the kit itself.
    pub score_by: f64,
    /// By how much the corner is better: the score, and a stand under a camera that stood on books counted in.
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
            score_by: other.score() - laid.score(),
            better_by: other.value() - laid.value(),
            more_in_the_way: count(&other) - count(laid),
        })
    });
    told.into_iter().flatten().collect()
}

impl Workshop {
    /// A bundle that is there for the camera that is owned: another camera may do without it.
    fn holds_the_camera(&self, main: &Main, job: Job) -> bool {
        let owned = || self.brief.gear.get(&main.id).is_some_and(|gear| gear.camera().is_some());
        job == Job::CameraStand || job == Job::Owned && owned()
    }
}
