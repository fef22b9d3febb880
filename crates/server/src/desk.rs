//! Where corners that are asked about money are kept while somebody asks: the work for one corner is done once, whatever sums are
//! asked for, and is left when nobody has waited for it for a moment.

use std::num::NonZeroUsize;
use std::sync::atomic::{AtomicBool, AtomicUsize, Ordering};
use std::sync::{Arc, Mutex, OnceLock, PoisonError};
use std::time::{Duration, Instant};

use fogon_core::arrange::Stop;
use fogon_core::money::{Asked, Catalogue, Counter, Progress};
use fogon_core::plan::Plan;
use lru::LruCache;

use crate::problem::Details;
use crate::queue::Line;

/// Corners that are kept.
const KEPT: NonZeroUsize = NonZeroUsize::new(6).unwrap();
/// So long work goes on after the last who waited has gone: a new sum for the same corner follows at once.
const GRACE: Duration = Duration::from_secs(2);
/// So long is looked for kits; what was found until then is the answer.
const PATIENCE: Duration = Duration::from_secs(90);

/// One corner's advice, on its way or there.
pub(crate) struct Case {
    counter: OnceLock<Counter>,
    tried: AtomicUsize,
    kits: AtomicUsize,
    failed: AtomicBool,
    too_long: AtomicBool,
    waiting: AtomicUsize,
    last_left: Mutex<Instant>,
    /// The corner without its weights.
    base: String,
}

impl Case {
    /// The counter, once everything on offer has been tried.
    pub(crate) fn counter(&self) -> Option<&Counter> {
        self.counter.get()
    }

    /// Things tried, and kits taken apart.
    pub(crate) fn progress(&self) -> (usize, usize) {
        (self.tried.load(Ordering::Relaxed), self.kits.load(Ordering::Relaxed))
    }

    /// Why it failed, where it did.
    pub(crate) fn why(&self) -> &'static str {
        if self.too_long.load(Ordering::Relaxed) {
            "There is so much in this corner that not everything on offer could be tried in 90 seconds. Remove gear that is not used for this film, and ask again."
        } else {
            "The work broke off. Ask again."
        }
    }

    /// The work broke off.
    pub(crate) fn has_failed(&self) -> bool {
        self.failed.load(Ordering::Relaxed)
    }

    fn is_left(&self) -> bool {
        self.waiting.load(Ordering::Relaxed) == 0
            && self.last_left.lock().unwrap_or_else(PoisonError::into_inner).elapsed() > GRACE
    }

    fn work(&self, plan: &Plan, catalogue: &Arc<Catalogue>) {
        let left = || self.is_left();
        let began = Instant::now();
        let late = || began.elapsed() > PATIENCE;
        let stop = Stop::when(&left).or_late(&late);
        let progress = |how: Progress| match how {
            Progress::Tried(count) => self.tried.fetch_max(count, Ordering::Relaxed),
            Progress::Kits(count) => self.kits.fetch_max(count, Ordering::Relaxed),
        };
        let progress = |how: Progress| {
            let _ = progress(how);
        };
        let asked = Asked::Plan(Box::new(plan.clone()));
        let explored = Counter::open(&asked, catalogue, stop, &progress)
            .is_some_and(|counter| self.counter.get_or_init(|| counter).explore(stop, &progress));
        if !explored {
            self.too_long.store(late(), Ordering::Relaxed);
            self.failed.store(true, Ordering::Relaxed);
        }
    }
}

/// Somebody who waits for a case.
pub(crate) struct Waiting(pub(crate) Arc<Case>);

impl Waiting {
    fn of(case: Arc<Case>) -> Self {
        case.waiting.fetch_add(1, Ordering::Relaxed);
        Self(case)
    }
}

impl Drop for Waiting {
    fn drop(&mut self) {
        *self.0.last_left.lock().unwrap_or_else(PoisonError::into_inner) = Instant::now();
        self.0.waiting.fetch_sub(1, Ordering::Relaxed);
    }
}

/// The desk.
pub(crate) struct Desk {
    cases: Mutex<LruCache<String, Arc<Case>>>,
    line: Line,
}

impl Desk {
    /// With a line in which its work waits.
    pub(crate) fn new(line: Line) -> Self {
        Self { cases: Mutex::new(LruCache::new(KEPT)), line }
    }

    /// The case of a corner, begun where it is new; and a case of the same corner under other weights that has its table.
    ///
    /// # Errors
    /// Too much is being worked on.
    pub(crate) fn case(
        &self,
        plan: &Plan,
        catalogue: &Arc<Catalogue>,
    ) -> Result<(Waiting, Option<Waiting>), Details> {
        let (key, base) = keys(plan);
        let mut cases = self.cases.lock().unwrap_or_else(PoisonError::into_inner);
        let sibling = cases
            .iter()
            .find(|(other, case)| **other != key && case.base == base && case.counter().is_some())
            .map(|(_, case)| Waiting::of(case.clone()));
        if let Some(case) = cases.get(&key).filter(|case| !case.has_failed()) {
            return Ok((Waiting::of(case.clone()), sibling));
        }
        let standing = self.line.stand()?;
        let case = Arc::new(Case {
            counter: OnceLock::new(),
            tried: AtomicUsize::new(0),
            kits: AtomicUsize::new(0),
            failed: AtomicBool::new(false),
            too_long: AtomicBool::new(false),
            waiting: AtomicUsize::new(0),
            last_left: Mutex::new(Instant::now()),
            base,
        });
        let waiting = Waiting::of(case.clone());
        cases.put(key, case.clone());
        let (plan, catalogue) = (plan.clone(), catalogue.clone());
        tokio::spawn(async move {
            let turn = standing.turn().await;
            tokio::task::spawn_blocking(move || {
                let _turn = turn;
                let broke_off = Broken(case.clone());
                case.work(&plan, &catalogue);
                std::mem::forget(broke_off);
            });
        });
        Ok((waiting, sibling))
    }
}

/// Says that the work broke off, where it did so by a fault.
struct Broken(Arc<Case>);

impl Drop for Broken {
    fn drop(&mut self) {
        self.0.failed.store(true, Ordering::Relaxed);
    }
}

/// A corner whatever the sum, and whatever the weights as well.
fn keys(plan: &Plan) -> (String, String) {
    let mut plan = plan.clone();
    plan.brief.money.budget = 0.0;
    let key = serde_json::to_string(&plan).unwrap_or_default();
    plan.brief.money.weights = None;
    (key, serde_json::to_string(&plan).unwrap_or_default())
}
