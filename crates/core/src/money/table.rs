//! The table of gains: every bundle by itself in this corner, as it was laid out, and the exact choice among them for a sum.

use super::bundle::{Completed, Job, Main};
use super::goods::Goods;
use super::mains::Candidate;
use super::passed_over::{PassedBy, Refused};
use super::select::{Candidate as Choice, select};
use super::workshop::{Laid, Workshop};
use crate::arrange::Stop;
use crate::parallel::in_parallel;
use crate::plan::{Brief, Role};

/// A gain of the score that a person would just see or hear, half a point of 100: nothing is bought for less. Fogon's own rule.
pub(super) const SEEN: f64 = 0.005;
/// What clearing one thing that stands in the way counts beside the score, which lies in [0, 1]. Fogon's own rule, as layouts are
/// ordered: a corner that can record comes before one that scores better.
const CLEARED: f64 = 1.0;
/// Lamps beside a key are tried up to this price where no key is there yet, in the plan's currency: a second lamp is a small one.
const SECOND_LAMP_AT_MOST: f64 = 220.0;
/// Bundles of one job that are kept: the cheapest that do more than all cheaper ones.
const KEPT_A_JOB: usize = 6;
/// Of a job for which fewer are kept, so many that do as much as a cheaper one are kept beside it: where other things stand, it may
/// find no place.
const SPARES: usize = 2;
/// Cameras that are kept.
const KEPT_CAMERAS: usize = 5;
/// Of cameras that by themselves gain too little, so many are tried again.
const SECOND_CAMERAS: usize = 2;
/// Of things of a job that find no place by themselves, so many are looked at again beside what is bought.
const LOOKED_AT_AGAIN: usize = 3;
/// The same of stands for the camera: small and large, on the floor and on the desk.
const STANDS_LOOKED_AT_AGAIN: usize = 8;

/// A bundle as it does by itself.
#[derive(Debug, Clone)]
pub(super) struct Bundle {
    pub(super) main: Main,
    pub(super) job: Job,
    /// The thing with all that it needs.
    pub(super) goods: Goods,
    pub(super) cents: i64,
    /// Gain of the score.
    pub(super) gain: f64,
    /// Gains of the aspects.
    aspects: [f64; 5],
    /// Things in the way that it clears.
    pub(super) cleared: usize,
    /// There is a key with it, and was none before.
    brings_key: bool,
    /// It counts only beside a key, or beside a camera, that is bought as well.
    beside: Option<&'static str>,
}

/// Why a thing on offer is passed over, with what it would have gained.
#[derive(Debug, Clone)]
pub(super) struct Passed {
    pub(super) main: Main,
    pub(super) refused: Refused,
    pub(super) cents: Option<i64>,
    pub(super) gain: Option<f64>,
}

/// The table.
#[derive(Debug, Clone, Default)]
pub(super) struct Table {
    pub(super) bundles: Vec<Bundle>,
    pub(super) passed: Vec<Passed>,
    /// Things that find no place by themselves, the cheapest of each job: beside what is bought they may.
    pub(super) again: Vec<Main>,
    /// Lamps that gain nothing or no more than a cheaper one by themselves, the cheapest: beside another they may do another job.
    pub(super) second_lamps: Vec<Main>,
    /// Cameras that gain too little by themselves to be seen, those that gain most: in better light they may.
    pub(super) second_cameras: Vec<Main>,
    /// Scores of the aspects without anything bought.
    aspects: [f64; 5],
}

impl Table {
    /// Tries everything on offer; `tick` hears how far it is.
    pub(super) fn of(shop: &Workshop, stop: Stop<'_>, tick: &(dyn Fn() + Sync)) -> Self {
        let mut passed = Vec::new();
        let cameras = tried(shop, &Goods::default(), shop.cameras(), stop, &mut passed, tick);
        // Without a camera everything else is tried beside the cheapest that works.
        let first = shop.start.is_none().then(|| {
            let working = cameras.iter().filter(|(_, found)| found.laid.quick.stops == 0);
            working.min_by_key(|(_, found)| found.goods.cents(&shop.catalogue))
        });
        let first = first.flatten().map(|(_, found)| found.clone());
        let ground = first.as_ref().map_or_else(Goods::default, |found| found.goods.clone());
        let Some(base) = first.map(|found| found.laid).or_else(|| shop.start.clone()) else {
            return Self { passed, ..Self::default() };
        };
        let mut bundles = Vec::new();
        let beside_camera = shop.start.is_none().then_some("camera");
        let empty = shop.start.as_deref();
        for (main, found) in &cameras {
            bundles.push(bundle(shop, main, &Goods::default(), empty, found, None));
        }
        let mut mains = shop.mains();
        mains.extend(shop.lenses());
        let alone = tried(shop, &ground, mains, stop, &mut passed, tick);
        for (main, found) in &alone {
            bundles.push(bundle(shop, main, &ground, Some(&base), found, beside_camera));
        }
        // A second lamp or a board is worth nothing without a key: they are tried beside the key that gives most for its price.
        let key = bundles
            .iter()
            .filter(|b| b.brings_key && b.is_seen())
            .max_by(|a, b| a.for_money().total_cmp(&b.for_money()).then(b.cents.cmp(&a.cents)));
        if let Some(key) = key {
            let with_key = ground.plus(&key.goods);
            let key_goods = key.goods.clone();
            if let Some(lit) = shop.lay(&with_key, stop) {
                let small = |candidate: &Candidate| {
                    matches!(candidate.main.job, Job::Light(_))
                        && !key_goods.has(&candidate.main.id)
                        && shop
                            .catalogue
                            .get(&candidate.main.id)
                            .is_some_and(|o| o.price() <= SECOND_LAMP_AT_MOST)
                };
                let seconds: Vec<Candidate> = shop.mains().into_iter().filter(small).collect();
                let mut none = Vec::new();
                for (main, found) in tried(shop, &with_key, seconds, stop, &mut none, tick) {
                    let second = bundle(shop, &main, &with_key, Some(&lit), &found, Some("key"));
                    if second.job != Job::Light(Role::Key) {
                        bundles.push(second);
                    }
                }
            }
        }
        let aspects = base.quick.aspects;
        let mut table = Self { passed, aspects, ..Self::default() };
        table.keep(bundles);
        table.again = looked_at_again(shop, &table.passed);
        table.second_lamps = second_lamps(&table.passed);
        table.second_cameras = second_cameras(&table.passed);
        table
    }

    /// Keeps of each job the cheapest bundles that do more than all cheaper ones; the others are passed over.
    fn keep(&mut self, mut all: Vec<Bundle>) {
        all.sort_by(|a, b| {
            a.cents.cmp(&b.cents).then(b.worth().total_cmp(&a.worth())).then(a.main.id.cmp(&b.main.id))
        });
        let mut kept: Vec<Bundle> = Vec::new();
        for bundle in all {
            let same: Vec<&Bundle> =
                kept.iter().filter(|k| k.job == bundle.job && k.beside == bundle.beside).collect();
            let best = same.iter().map(|k| k.worth()).fold(0.0, f64::max);
            let is_spare = same.len() <= SPARES && bundle.worth() > best - SEEN / 2.0;
            let refused = if !bundle.is_seen() {
                Some(Refused::new(PassedBy::Gain, "You would neither see nor hear the difference."))
            } else if bundle.worth() <= best + SEEN / 2.0 && bundle.job != Job::Owned && !is_spare {
                Some(Refused::new(PassedBy::Dearer, "A cheaper one does as much here."))
            } else {
                None
            };
            match refused {
                None => kept.push(bundle),
                Some(refused) => self.passed.push(Passed {
                    cents: Some(bundle.cents),
                    gain: Some(bundle.gain),
                    main: bundle.main,
                    refused,
                }),
            }
        }
        // Of many the cheapest and those that do most.
        let mut jobs: Vec<(Job, Option<&'static str>)> = kept.iter().map(|b| (b.job, b.beside)).collect();
        jobs.sort();
        jobs.dedup();
        for (job, beside) in jobs {
            let most = if job == Job::Camera { KEPT_CAMERAS } else { KEPT_A_JOB };
            let own: Vec<usize> =
                (0..kept.len()).filter(|i| kept[*i].job == job && kept[*i].beside == beside).collect();
            if job == Job::Owned || own.len() <= most {
                continue;
            }
            let step = (own.len() - 1) as f64 / (most - 1) as f64;
            let chosen: Vec<usize> = (0..most).map(|i| own[(i as f64 * step).round() as usize]).collect();
            let mut at = 0;
            kept.retain(|_| {
                at += 1;
                !own.contains(&(at - 1)) || chosen.contains(&(at - 1))
            });
        }
        self.bundles = kept;
    }

    /// The exact choice for a sum, by the table alone, under the weights of a brief: indices of bundles.
    pub(super) fn choose(&self, brief: &Brief, cents: i64, needs_camera: bool) -> Vec<usize> {
        let has_key = self.bundles.iter().any(|b| b.beside == Some("key"));
        let choices: Vec<Choice> = self
            .bundles
            .iter()
            .map(|bundle| {
                let mut needs: Vec<String> = bundle.beside.iter().map(|what| (*what).to_owned()).collect();
                if bundle.beside == Some("key") && needs_camera {
                    needs.push("camera".to_owned());
                }
                let offered = match bundle.job {
                    Job::Camera => Some("camera"),
                    _ => (has_key && bundle.brings_key).then_some("key"),
                };
                Choice {
                    price: bundle.cents as f64 / 100.0,
                    gain: CLEARED * bundle.cleared as f64 + bundle.gain_for(brief).max(0.0),
                    group: (bundle.job != Job::Owned).then(|| format!("{:?}", bundle.job)),
                    needs,
                    // Everything that is bought beside it counts on one.
                    offers: offered.map_or_else(Vec::new, |what| vec![what.to_owned(); self.bundles.len()]),
                }
            })
            .collect();
        select(&choices, cents as f64 / 100.0)
    }

    /// The score that the table expects of some bundles under the weights of a brief; gains of one aspect end at its full score.
    pub(super) fn expected(&self, brief: &Brief, chosen: &[usize]) -> f64 {
        let weights = crate::assess::score::weights(brief);
        let (sum, total) = weights.iter().enumerate().fold((0.0, 0.0), |(sum, total), (i, (_, weight))| {
            let gains: f64 = chosen.iter().map(|at| self.bundles[*at].aspects[i]).sum();
            (sum + weight * (self.aspects[i] + gains).clamp(0.0, 1.0), total + weight)
        });
        if total > 0.0 { sum / total } else { 0.0 }
    }
}

impl Bundle {
    fn worth(&self) -> f64 {
        CLEARED * self.cleared as f64 + self.gain
    }

    fn is_seen(&self) -> bool {
        self.cleared > 0 || self.gain >= SEEN
    }

    fn for_money(&self) -> f64 {
        self.worth() / (self.cents.max(100) as f64)
    }

    fn gain_for(&self, brief: &Brief) -> f64 {
        if brief.money.weights.is_none() {
            return self.gain;
        }
        let weights = crate::assess::score::weights(brief);
        let total: f64 = weights.iter().map(|(_, weight)| weight).sum();
        let sum: f64 = weights.iter().zip(self.aspects).map(|((_, weight), gain)| weight * gain).sum();
        if total > 0.0 { sum / total } else { 0.0 }
    }
}

/// The cheapest things of each job that found no place by themselves; of stands for the camera also those that were passed over
/// for a cheaper one, which may find none beside what is bought.
fn looked_at_again(shop: &Workshop, passed: &[Passed]) -> Vec<Main> {
    let may_help = passed.iter().filter(|one| match one.refused.rule {
        PassedBy::Place => true,
        PassedBy::Dearer | PassedBy::Gain => one.cents.is_some() && one.main.job == Job::CameraStand,
        _ => false,
    });
    let mut all: Vec<&Main> = may_help.map(|one| &one.main).collect();
    all.sort_by_key(|main| (main.job, main.goods.cents(&shop.catalogue), main.id.clone()));
    all.dedup();
    let most = |job: Job| match job {
        Job::CameraStand => STANDS_LOOKED_AT_AGAIN,
        Job::Light(_) | Job::Treatment => LOOKED_AT_AGAIN,
        // A camera or a microphone that does no better than what is there does not begin to beside a lamp.
        Job::Microphone | Job::Backdrop | Job::Camera | Job::Lens | Job::Owned => 0,
    };
    all.chunk_by(|a, b| a.job == b.job)
        .flat_map(|of_one| of_one.iter().take(most(of_one[0].job)))
        .map(|main| (*main).clone())
        .collect()
}

/// The cheapest lamps that by themselves gain nothing, or no more than a cheaper one.
fn second_lamps(passed: &[Passed]) -> Vec<Main> {
    let mut all: Vec<&Passed> = passed
        .iter()
        .filter(|one| {
            let by_gain = matches!(one.refused.rule, PassedBy::Dearer | PassedBy::Gain);
            by_gain && one.cents.is_some() && matches!(one.main.job, Job::Light(_))
        })
        .collect();
    all.sort_by_key(|one| (one.cents, one.main.id.clone()));
    all.dedup_by_key(|one| one.main.id.clone());
    all.into_iter().take(LOOKED_AT_AGAIN).map(|one| one.main.clone()).collect()
}

/// The cameras that by themselves gain most of those that gain too little, or no more than a cheaper one.
fn second_cameras(passed: &[Passed]) -> Vec<Main> {
    let mut all: Vec<&Passed> = passed
        .iter()
        .filter(|one| one.main.job == Job::Camera && one.gain.is_some_and(|gain| gain > 0.0))
        .collect();
    all.sort_by(|a, b| {
        b.gain.partial_cmp(&a.gain).unwrap_or(std::cmp::Ordering::Equal).then(a.cents.cmp(&b.cents))
    });
    all.into_iter().take(SECOND_CAMERAS).map(|one| one.main.clone()).collect()
}

/// Lays out every candidate that is not ruled out; those that cannot be used are passed over.
fn tried(
    shop: &Workshop,
    from: &Goods,
    candidates: Vec<Candidate>,
    stop: Stop<'_>,
    passed: &mut Vec<Passed>,
    tick: &(dyn Fn() + Sync),
) -> Vec<(Main, Completed)> {
    let mut open = Vec::new();
    for Candidate { main, refused } in candidates {
        match refused {
            Some(refused) => passed.push(Passed { main, refused, cents: None, gain: None }),
            None => open.push(main),
        }
    }
    let found = in_parallel(&open, |main| {
        let found = (!stop.is_wanted()).then(|| shop.complete(from, main, stop));
        tick();
        found
    });
    let mut all = Vec::new();
    for (main, found) in open.into_iter().zip(found) {
        match found {
            Some(Ok(found)) => all.push((main, found)),
            Some(Err(refused)) => passed.push(Passed { main, refused, cents: None, gain: None }),
            None => {}
        }
    }
    all
}

fn has_key(laid: Option<&Laid>) -> bool {
    laid.is_some_and(|laid| laid.plan.layout.lights.values().any(|light| light.role == Role::Key))
}

fn bundle(
    shop: &Workshop,
    main: &Main,
    from: &Goods,
    before: Option<&Laid>,
    found: &Completed,
    beside: Option<&'static str>,
) -> Bundle {
    let after = &found.laid;
    let goods = found.goods.less(from);
    let (score, aspects, (stops, fixes)) =
        before.map_or((0.0, [0.0; 5], (1, 0)), |b| (b.value(), b.quick.aspects, b.in_the_way()));
    let (stops_after, fixes_after) = after.in_the_way();
    let worse = stops_after > stops || (stops_after == stops && fixes_after > fixes);
    let cleared = (stops + fixes).saturating_sub(stops_after + fixes_after);
    let gain = after.value() - score;
    Bundle {
        main: main.clone(),
        job: shop.job_of(main, after),
        cents: goods.cents(&shop.catalogue),
        goods,
        // What clears something and scores lower, or puts something in the way, is no gain.
        gain: if worse { -1.0 } else { gain },
        cleared: if worse || gain < -1e-9 { 0 } else { cleared },
        brings_key: has_key(Some(after)) && !has_key(before),
        aspects: std::array::from_fn(|i| after.quick.aspects[i] - aspects[i]),
        beside,
    }
}
