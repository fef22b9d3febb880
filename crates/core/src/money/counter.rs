//! Where a corner is advised: free moves and the table of gains first, then kits for every sum; each question is answered from them.

use std::sync::atomic::{AtomicUsize, Ordering};
use std::sync::{Arc, OnceLock};

use super::advice::{Advice, AtOnce, CurvePoint, Item, MeasureFirst, PathStep, PricesFrom};
use super::bundle::{Job, Main};
use super::catalogue::Catalogue;
use super::change::{SingleChange, single_changes};
use super::free::{FreeMoves, free_moves_until};
use super::goods::Goods;
use super::kit::Kit;
use super::passed_over::{PassedBy, PassedOver};
use super::path::{Leg, path};
use super::price::per_year;
use super::shop::Kits;
use super::substitute::{Substitute, substitutes};
use super::table::{SEEN, Table};
use super::words::{InShort, Other, in_short, listed, points, reason, short, too_little, weighted};
use super::workshop::{Laid, Workshop};
use crate::arrange::{Stop, propose_until, replaced};
use crate::assess::mend::changes;
use crate::assess::without_moves;
use crate::corner::Corner;
use crate::plan::{Brief, BriefFile, GearState, Id, Plan, Posture, Weights};
use crate::reading::Change;
use crate::sound::absorption::Absorption;
use crate::units::lower_first;

/// Up to this sum a phone counts as owned where nothing else does, in the plan's currency.
pub const PHONE_AT_HAND_UP_TO: f64 = 150.0;

/// A kit so little worse is told where it costs no more than this part. Fogon's own rule.
const NEARLY: f64 = 0.02;
const FAR_LESS: f64 = 0.6;
/// A gain that is worth saving for. Fogon's own rule.
const CLEARLY: f64 = 0.05;

/// The corner that is asked about.
#[derive(Debug, Clone, PartialEq)]
pub enum Asked {
    /// A plan.
    Plan(Box<Plan>),
    /// A brief: nothing is laid out yet.
    Brief(Box<BriefFile>),
    /// A brief whose owner begins: lamps are bought also where the window would do by day.
    FromNothing(Box<BriefFile>),
}

impl Asked {
    /// The same room, person and purpose with nothing owned, or with a phone alone.
    #[must_use]
    pub fn from_nothing(self, with_phone: bool) -> Self {
        let (name, mut brief) = match self {
            Asked::Plan(plan) => (plan.name, plan.brief),
            Asked::Brief(file) | Asked::FromNothing(file) => (file.name, file.brief),
        };
        brief.gear.retain(|_, gear| matches!(gear.common().state, GearState::Wanted | GearState::Never));
        brief.today = None;
        brief.measured.retain(|id, _| id.0.starts_with("sound.room."));
        if with_phone {
            let catalogue = Catalogue::of_fogon();
            for id in ["phone-plain", "phone-plain-lens"].map(Id::from) {
                if let Some(offer) = catalogue.get(&id) {
                    let mut gear = offer.gear.clone();
                    gear.common_mut().state = GearState::Owned;
                    brief.gear.insert(id, gear);
                }
            }
        }
        Asked::FromNothing(Box::new(BriefFile::new(name, brief)))
    }

    /// What the corner is called.
    pub fn name(&self) -> &str {
        match self {
            Asked::Plan(plan) => &plan.name,
            Asked::Brief(file) | Asked::FromNothing(file) => &file.name,
        }
    }

    /// What is known of it.
    pub fn brief(&self) -> &Brief {
        match self {
            Asked::Plan(plan) => &plan.brief,
            Asked::Brief(file) | Asked::FromNothing(file) => &file.brief,
        }
    }

    /// The same, to be changed.
    pub fn brief_mut(&mut self) -> &mut Brief {
        match self {
            Asked::Plan(plan) => &mut plan.brief,
            Asked::Brief(file) | Asked::FromNothing(file) => &mut file.brief,
        }
    }
}

/// How far the work is.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Progress {
    /// Things on offer that have been laid out.
    Tried(usize),
    /// Kits that have been taken apart and put together anew.
    Kits(usize),
}

/// A corner's advice for every sum.
pub struct Counter {
    shop: Workshop,
    free: Option<FreeMoves>,
    table: Table,
    substitutes: Vec<Substitute>,
    kits: OnceLock<Kits>,
}

impl Counter {
    /// Looks for free moves and tries everything on offer; none once `stop` says so, be it left or late.
    pub fn open(
        asked: &Asked,
        catalogue: &Arc<Catalogue>,
        stop: Stop<'_>,
        progress: &(dyn Fn(Progress) + Sync),
    ) -> Option<Self> {
        let (name, free, start) = match asked {
            Asked::Plan(plan) => {
                let free = free_moves_until(plan, stop)?;
                let start = free.end.clone();
                (plan.name.clone(), Some(free), Some(start))
            }
            Asked::Brief(file) | Asked::FromNothing(file) => {
                let found = propose_until(&file.name, &file.brief, stop)?;
                let start = found.proposals.into_iter().next().map(|proposal| proposal.plan);
                let begins = matches!(asked, Asked::FromNothing(_));
                let start = start.map(|plan| if begins { by_own_window(plan, &file.brief) } else { plan });
                (file.name.clone(), None, start)
            }
        };
        let brief = start.as_ref().map_or_else(|| asked.brief().clone(), |plan| plan.brief.clone());
        let shop = Workshop::new(catalogue.clone(), &name, brief, start);
        let tried = AtomicUsize::new(0);
        let tick = || progress(Progress::Tried(tried.fetch_add(1, Ordering::Relaxed) + 1));
        let table = Table::of(&shop, stop, &tick);
        let substitutes = substitutes(&shop, stop);
        (!stop.is_wanted()).then_some(Self { shop, free, table, substitutes, kits: OnceLock::new() })
    }

    /// Looks for the best kit for every sum; false once nobody waits. When its time is up, the kits so far are the answer.
    pub fn explore(&self, stop: Stop<'_>, progress: &(dyn Fn(Progress) + Sync)) -> bool {
        if self.kits.get().is_none() {
            let done = AtomicUsize::new(0);
            let tick = || progress(Progress::Kits(done.fetch_add(1, Ordering::Relaxed) + 1));
            let kits = Kits::explore(&self.shop, &self.table, stop, &tick);
            if stop.is_left() {
                return false;
            }
            // Whoever came first: both are the same.
            let _ = self.kits.set(kits);
        }
        true
    }

    /// Whether kits for every sum are there.
    pub fn is_explored(&self) -> bool {
        self.kits.get().is_some()
    }

    /// What the table says at once for a sum, under own weights where they are given.
    pub fn at_once(&self, budget: f64, weights: Option<Weights>) -> AtOnce {
        let mut brief = self.shop.brief.clone();
        if weights.is_some() {
            brief.money.weights = weights;
        }
        let chosen = self.table.choose(&brief, cents(budget), self.shop.start.is_none());
        let bundles = chosen.iter().map(|at| &self.table.bundles[*at]);
        let goods = bundles.fold(Goods::default(), |all, bundle| all.plus(&bundle.goods));
        AtOnce {
            budget,
            spent: goods.cents(&self.shop.catalogue) as f64 / 100.0,
            score: self.table.expected(&brief, &chosen),
            kit: self.items(&goods, ""),
        }
    }

    /// What to do and what to buy for a sum; none before kits were looked for, or once `stop` says so.
    pub fn advice(&self, budget: f64, stop: Stop<'_>) -> Option<Advice> {
        let kits = self.kits.get()?;
        let shop = &self.shop;
        let kit = kits.best(cents(budget))?;
        let legs = path(shop, kit, stop)?;
        let mut spent = 0;
        let steps: Vec<PathStep> = legs
            .iter()
            .map(|leg| {
                spent += leg.goods.cents(&shop.catalogue);
                self.step(leg, spent)
            })
            .collect();
        let end: Option<Arc<Laid>> = legs.last().map(|leg| leg.after.clone()).or_else(|| shop.start.clone());
        let spent = spent as f64 / 100.0;
        let items: Vec<Item> = steps.iter().flat_map(|step| step.items.clone()).collect();
        let ready = end.as_ref().is_some_and(|laid| laid.in_the_way() == (0, 0));
        let was_ready = shop.start.as_ref().is_some_and(|laid| laid.in_the_way() == (0, 0));
        let moves = self.free.as_ref().map_or(0, |free| free.moves.len());
        let curve: Vec<CurvePoint> = kits.frontier().into_iter().filter_map(curve_point).collect();
        let catalogue = &shop.catalogue;
        let flat_from = curve.last().map_or(0.0, |point| point.spent);
        let had_camera = shop.start.is_some();
        let nearly = nearly_as_much(&curve, spent);
        let next = worth_saving_for(&curve, spent);
        let in_short_of = InShort { moves, spent, budget, flat_from, was_ready, had_camera, nearly, next };
        Some(Advice {
            sentence: in_short(&shop.brief, in_short_of),
            budget,
            score_now: match (&self.free, &shop.start) {
                (Some(free), _) => free.score_now,
                (None, Some(start)) => start.score(),
                (None, None) => 0.0,
            },
            measure_first: self.measure_first(),
            free_moves: self.free.as_ref().map_or_else(Vec::new, |free| free.moves.clone()),
            before: shop.start.as_ref().map(|laid| laid.plan.clone()),
            substitutes: self.substitutes.clone(),
            per_year: 0.0 + items.iter().filter_map(|item| item.per_year).sum::<f64>(),
            kit: items,
            path: steps,
            spent,
            score: end.as_ref().map_or(0.0, |laid| laid.score()),
            ready,
            plan: end.map(|laid| laid.plan.clone()),
            flat_from,
            curve,
            passed_over: self.passed_over(kit, budget, spent),
            ended_early: !kits.is_whole(),
            prices: PricesFrom::of(catalogue, &shop.brief.money),
        })
    }

    /// What one change of the kit for a sum would give; empty before kits were looked for.
    pub fn single_changes(&self, budget: f64, stop: Stop<'_>) -> Vec<SingleChange> {
        let kit = self.kits.get().and_then(|kits| kits.best(cents(budget)));
        kit.map_or_else(Vec::new, |kit| single_changes(&self.shop, kit, cents(budget), stop))
    }

    fn step(&self, leg: &Leg, spent: i64) -> PathStep {
        let shop = &self.shop;
        let before = leg.before.as_deref();
        let owned = |main: &Main| {
            let gear = shop.brief.gear.get(&main.id);
            gear.map_or_else(String::new, |gear| lower_first(&gear.common().label))
        };
        let mut items = Vec::new();
        let mut sentences: Vec<String> = Vec::new();
        for (at, (main, job, goods)) in leg.bundles.iter().enumerate() {
            // The whole step's gain is told once, with the last of what came together.
            let compared = if at + 1 == leg.bundles.len() { before } else { Some(&*leg.after) };
            let said = reason(&shop.brief, *job, compared, &leg.after, &owned(main));
            let mut own = self.items(goods, &said);
            own.sort_by_key(|item| item.id != main.id.0);
            items.extend(own);
            sentences.push(said);
        }
        let price = leg.goods.cents(&shop.catalogue) as f64 / 100.0;
        let readings = before.map_or_else(Vec::new, |before| {
            changes(&without_moves(&before.plan).readings, &without_moves(&leg.after.plan).readings)
        });
        sentences.extend(weighted(&shop.brief, &leg.goods, &leg.after));
        sentences.extend(self.at_home(leg, &readings));
        PathStep {
            label: listed(&items.iter().filter_map(|item| self.called(item)).collect::<Vec<_>>()),
            items,
            price,
            spent: spent as f64 / 100.0,
            score_before: before.map(Laid::score),
            score: leg.after.score(),
            cleared: leg.cleared(),
            ready: leg.after.in_the_way() == (0, 0),
            reason: sentences.join(" "),
            readings,
            plan: leg.after.plan.clone(),
        }
    }

    /// What most homes have that does as much by itself as what a step buys.
    fn at_home(&self, leg: &Leg, readings: &[Change]) -> Option<String> {
        let [(main, ..)] = leg.bundles.as_slice() else { return None };
        let bundle = self.table.bundles.iter().find(|bundle| bundle.main == *main)?;
        let touched = &readings.first()?.reading;
        let does_as_much = |home: &&Substitute| {
            let gain = home.score_after - home.score_before;
            home.changes.first().is_some_and(|first| first.reading == *touched) && gain >= bundle.gain - SEEN
        };
        let home = self.substitutes.iter().find(does_as_much)?;
        Some(format!("Try first what you may have at home: {}.", lower_first(&home.label)))
    }

    /// What a thing is called among others; none for the lens that is built into a camera.
    fn called(&self, item: &Item) -> Option<String> {
        let lens = self.shop.catalogue.get(&Id(item.id.clone())).and_then(|offer| offer.gear.lens());
        lens.is_none_or(|lens| lens.built_into.is_none()).then(|| short(&item.label))
    }

    fn items(&self, goods: &Goods, said: &str) -> Vec<Item> {
        let all = goods.iter().filter_map(|(id, count)| Some((id, count, self.shop.catalogue.get(id)?)));
        all.map(|(id, count, offer)| {
            let pieces = count as f64;
            let common = offer.gear.common();
            Item {
                id: id.0.clone(),
                label: common.label.clone(),
                count,
                price: pieces * offer.price(),
                used: offer.is_used(),
                price_new: offer.is_used().then_some(pieces * common.price),
                rent_first: offer.rent_first(),
                per_year: per_year(offer.price(), common).map(|sum| pieces * sum),
                caution: offer.caution.clone(),
                reason: said.to_owned(),
            }
        })
        .collect()
    }

    /// What is not bought: ruled out beforehand, of no gain here, or too dear for this sum.
    fn passed_over(&self, kit: &Kit, budget: f64, spent: f64) -> Vec<PassedOver> {
        let shop = &self.shop;
        let mut all: Vec<PassedOver> = Vec::new();
        let told = |main: &Main, cents: Option<i64>, rule: PassedBy, reason: String, gain: Option<f64>| {
            let label = shop.gear(&main.id).map(|gear| gear.common().label.clone())?;
            let price = cents.unwrap_or_else(|| main.goods.cents(&shop.catalogue)) as f64 / 100.0;
            let gain = gain.map(|gain| 100.0 * gain);
            Some(PassedOver { id: main.id.0.clone(), label, price, rule, reason, gain })
        };
        for passed in &self.table.passed {
            let reason = match (passed.refused.rule, passed.gain, passed.cents) {
                (PassedBy::Gain, Some(gain), Some(cents)) => {
                    too_little(&shop.brief, gain, cents as f64 / 100.0)
                }
                _ => passed.refused.reason.clone(),
            };
            all.extend(told(&passed.main, passed.cents, passed.refused.rule, reason, passed.gain));
        }
        for bundle in &self.table.bundles {
            let bought = kit.goods.has(&bundle.main.id);
            let held: i64 = kit
                .bundles
                .iter()
                .filter(|(_, job, _)| *job == bundle.job && bundle.job != Job::Treatment)
                .map(|(_, _, goods)| goods.cents(&shop.catalogue))
                .sum();
            let left = cents(budget) - cents(spent) + held;
            let (rule, reason) = if bundle.cents > left {
                let needs = shop.brief.money.told(bundle.cents as f64 / 100.0);
                let all = shop.brief.money.told(budget);
                let of = if left == cents(budget) { String::new() } else { format!(" of {all}") };
                let left = match left {
                    ..=0 => "nothing".to_owned(),
                    _ => shop.brief.money.told(left as f64 / 100.0),
                };
                (
                    PassedBy::Budget,
                    format!("It costs {needs} with all that it needs; {left}{of} would be left for it."),
                )
            } else if held > 0 {
                (PassedBy::Dearer, "What is bought in its place does more, or as much for less.".to_owned())
            } else {
                (PassedBy::Gain, "Beside what is bought you would neither see nor hear it.".to_owned())
            };
            if !bought && bundle.job != Job::Owned {
                all.extend(told(&bundle.main, Some(bundle.cents), rule, reason, Some(bundle.gain)));
            }
        }
        // A thing that was tried in two places is told once, as it would do best.
        all.sort_by(|a, b| {
            let gain = |one: &PassedOver| one.gain.unwrap_or(f64::NEG_INFINITY);
            a.id.cmp(&b.id).then(gain(b).total_cmp(&gain(a)))
        });
        all.dedup_by(|a, b| a.id == b.id);
        all.retain(|one| !kit.goods.has(&Id(one.id.clone())));
        let gain = |one: &PassedOver| one.gain.unwrap_or(f64::NEG_INFINITY);
        all.sort_by(|a, b| gain(b).total_cmp(&gain(a)).then(a.rule.cmp(&b.rule)).then(a.id.cmp(&b.id)));
        all
    }

    /// What is only assumed, and would decide what is bought.
    fn measure_first(&self) -> Vec<MeasureFirst> {
        let Some(start) = &self.shop.start else { return Vec::new() };
        let Some(corner) = Corner::of(&start.plan) else { return Vec::new() };
        let mut all = Vec::new();
        if Absorption::of(&corner).assumed {
            let be = match start.plan.brief.person.posture {
                Posture::Standing => "stand",
                Posture::Seated => "sit",
            };
            all.push(MeasureFirst {
                label: format!("Clap once where you will {be}, and type in the reverberation time"),
                reason:
                    "How much this room echoes is only assumed: nothing is spent on it before it is known."
                        .into(),
                reading: "sound.room.rt_mid_s".into(),
            });
        }
        let keys = corner.role(crate::plan::Role::Key);
        let assumed = keys.into_iter().any(|key| {
            start.plan.brief.gear.get(&key.light.gear).is_some_and(|gear| gear.common().figures_assumed)
        });
        if assumed {
            all.push(MeasureFirst {
                label: "Hold a lux meter, or a phone that shows lux, where your face will be".into(),
                reason: "How bright your lamp is is only assumed: a reading says whether it is enough."
                    .into(),
                reading: "light.face.exposure_stops".into(),
            });
        }
        all
    }
}

/// A layout that was lit by the window for want of a lamp, as the brief wants its windows: lamps can be bought.
fn by_own_window(plan: Plan, brief: &Brief) -> Plan {
    if plan.brief.schools.window == brief.schools.window {
        return plan;
    }
    let mut own = plan.brief.clone();
    own.schools.window = brief.schools.window;
    let own = plan.with_brief(own);
    replaced(&own).unwrap_or(own)
}

fn curve_point(kit: &Kit) -> Option<CurvePoint> {
    let laid = kit.laid.as_ref()?;
    let ready = laid.in_the_way() == (0, 0);
    Some(CurvePoint { spent: kit.cents as f64 / 100.0, score: laid.score(), ready })
}

/// A kit that costs little more than half and is at most two points of 100 worse.
fn nearly_as_much(curve: &[CurvePoint], spent: f64) -> Option<Other> {
    let end = curve.iter().rfind(|point| point.spent <= spent + 0.005)?;
    let near = |point: &&CurvePoint| {
        point.ready == end.ready && point.score >= end.score - NEARLY && point.spent > 0.0
    };
    let other = curve.iter().find(near).filter(|other| other.spent <= FAR_LESS * end.spent)?;
    Some(Other { price: other.spent, points: points(end.score - other.score) })
}

/// Where nothing is bought: the first kit that would clearly be seen or heard.
fn worth_saving_for(curve: &[CurvePoint], spent: f64) -> Option<Other> {
    let now = curve.first().filter(|_| spent <= 0.0)?;
    let other = curve.iter().find(|point| point.score >= now.score + CLEARLY)?;
    Some(Other { price: other.spent, points: points(other.score - now.score) })
}

fn cents(sum: f64) -> i64 {
    (sum * 100.0).round() as i64
}

/// The whole advice for a corner and a sum, to its end.
///
/// ```
/// use std::sync::Arc;
/// use fogon_core::money::{Asked, Catalogue, advise};
/// use fogon_core::plan::Plan;
///
/// let text = include_bytes!(concat!(env!("CARGO_MANIFEST_DIR"), "/../../docs/examples/box-room.fogon.json"));
/// let asked = Asked::Plan(Box::new(Plan::read(text)?));
/// let advice = advise(&asked, &Arc::new(Catalogue::of_fogon().clone()), 100.0).expect("it is not left early");
/// assert!(advice.spent <= 100.0 && advice.score >= advice.score_now);
/// # Ok::<(), fogon_core::problem::Problems>(())
/// ```
pub fn advise(asked: &Asked, catalogue: &Arc<Catalogue>, budget: f64) -> Option<Advice> {
    let counter = Counter::open(asked, catalogue, Stop::NEVER, &|_| ())?;
    counter.explore(Stop::NEVER, &|_| ());
    counter.advice(budget, Stop::NEVER)
}
