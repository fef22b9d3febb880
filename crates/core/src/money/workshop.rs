//! Lays the corner out with things that are not owned yet, and remembers what came of it: what is told of a purchase is always
//! the score of a corner that was laid out.

use std::collections::{HashMap, HashSet};
use std::sync::{Arc, Mutex, PoisonError};

use super::catalogue::Catalogue;
use super::goods::Goods;
use super::rows::Offer;
use crate::arrange::{Stop, propose_until, replaced};
use crate::assess::{Quick, quick};
use crate::corner::{Corner, Kit};
use crate::plan::{Brief, Gear, GearLight, GearState, Id, Layout, Part, Plan, Purpose, ThingId};
use crate::reading::Quantity;

/// What a stand for a camera that stood on books counts, score: it is back in its place at once. Fogon's own rule.
const STEADIER: f64 = 0.03;

/// A corner laid out with some goods.
#[derive(Debug)]
pub(super) struct Laid {
    pub(super) plan: Plan,
    pub(super) quick: Quick,
    /// How many of each thing the layout uses.
    used: HashMap<Id, usize>,
}

/// Stops, fixes and what it is worth in millionths, less is better.
pub(super) type Rank = (usize, usize, i64);

impl Laid {
    pub(super) fn of(plan: Plan) -> Self {
        let quick = quick(&plan.brief, &plan.layout);
        let used = used(&plan);
        Self { plan, quick, used }
    }

    pub(super) fn rank(&self) -> Rank {
        (self.quick.stops, self.quick.fixes, -(self.value() * 1e6).round() as i64)
    }

    /// What keeps a recording from being made or from being watched.
    pub(super) fn in_the_way(&self) -> (usize, usize) {
        (self.quick.stops, self.quick.fixes)
    }

    pub(super) fn score(&self) -> f64 {
        self.quick.score
    }

    /// The score, with what a stand is worth under a camera that would stand on books.
    pub(super) fn value(&self) -> f64 {
        let on_books = self.plan.layout.camera.support.is_by_itself();
        self.quick.score + if on_books { 0.0 } else { STEADIER }
    }

    /// The value of a reading, the first of its quantity.
    pub(super) fn reading(&self, quantity: Quantity) -> Option<f64> {
        let corner = Corner::of(&self.plan)?;
        let all = crate::assess::readings(&corner);
        all.into_iter().find(|reading| reading.id.quantity == quantity).and_then(|reading| reading.value)
    }

    pub(super) fn uses(&self, id: &Id) -> usize {
        self.used.get(id).copied().unwrap_or(0)
    }

    /// The part of the layout that a thing is used for, if it is a part of its own.
    pub(super) fn part_of(&self, id: &Id) -> Option<ThingId> {
        let mut parts = self.plan.layout.parts();
        parts.find(|part| part.gear().any(|gear| gear == id)).map(Part::id)
    }
}

/// How many of each thing a layout uses: things that share a stand use it once.
fn used(plan: &Plan) -> HashMap<Id, usize> {
    let mut all: HashMap<Id, usize> = HashMap::new();
    let mut stands = HashSet::new();
    for part in plan.layout.parts() {
        part.gear().for_each(|id| *all.entry(id.clone()).or_default() += 1);
        if let Some((support, id)) =
            part.support().and_then(|support| Some((support, support.gear.as_ref()?)))
        {
            let foot = support.base_m.map(|base| base.0.map(|v| (v * 50.0).round() as i64));
            let one = (id.clone(), foot, foot.is_none().then(|| part.id()));
            if stands.insert(one) {
                *all.entry(id.clone()).or_default() += 1;
            }
        }
    }
    if let Some(corner) = Corner::of(plan) {
        for by in Kit::of(&corner).links.iter().filter_map(|link| link.by) {
            *all.entry(by.clone()).or_default() += 1;
        }
    }
    all
}

/// A layout to start from.
struct Start {
    plan: Plan,
    /// Nothing that it was found with is lacking.
    is_whole: bool,
}

/// The face of a usual key, m2, and the longest side of a small lamp, m. Fogon's own rule.
const USUAL_KEY_M2: f64 = 0.2;
const SMALL_LAMP_M: f64 = 0.2;

/// The place where layouts are tried.
pub(super) struct Workshop {
    pub(super) catalogue: Arc<Catalogue>,
    name: String,
    pub(super) brief: Brief,
    /// The corner as well placed as its own gear allows; none without a camera.
    pub(super) start: Option<Arc<Laid>>,
    laid: Mutex<HashMap<Goods, Option<Arc<Laid>>>>,
    stood: Mutex<HashMap<Goods, Vec<Layout>>>,
}

impl Workshop {
    pub(super) fn new(catalogue: Arc<Catalogue>, name: &str, brief: Brief, start: Option<Plan>) -> Self {
        let start = start.map(|plan| Arc::new(Laid::of(plan)));
        let laid = HashMap::from([(Goods::default(), start.clone())]);
        let name = name.to_owned();
        Self { catalogue, name, brief, start, laid: Mutex::new(laid), stood: Mutex::default() }
    }

    /// The corner laid out with goods: the best of the layout as it stands, of it with everything but seat and camera placed anew,
    /// and, where something comes that decides the seat, of a layout found for that. None where nothing can be laid out.
    pub(super) fn lay(&self, goods: &Goods, stop: Stop<'_>) -> Option<Arc<Laid>> {
        let memory = |memo: &Mutex<HashMap<Goods, Option<Arc<Laid>>>>| {
            memo.lock().unwrap_or_else(PoisonError::into_inner).get(goods).cloned()
        };
        if let Some(known) = memory(&self.laid) {
            return known;
        }
        let laid = self.lay_out(goods, stop).map(Arc::new);
        if !stop.is_wanted() {
            let mut memo = self.laid.lock().unwrap_or_else(PoisonError::into_inner);
            memo.insert(goods.clone(), laid.clone());
        }
        laid
    }

    fn lay_out(&self, goods: &Goods, stop: Stop<'_>) -> Option<Laid> {
        let brief = self.brief_with(goods)?;
        let starts = self.starts(goods, &brief, stop);
        let has_microphone =
            goods.iter().any(|(id, _)| self.gear(id).is_some_and(|g| g.microphone().is_some()));
        let mut best: Option<Laid> = None;
        let offer = |plan: Plan, best: &mut Option<Laid>| {
            let laid = Laid::of(plan);
            if best.as_ref().is_none_or(|best| laid.rank() < best.rank()) {
                *best = Some(laid);
            }
        };
        for Start { plan: start, is_whole } in starts {
            if is_whole {
                offer(start.clone(), &mut best);
            }
            if let Some(placed) = replaced(&start) {
                offer(placed, &mut best);
            }
            // To hear the new one, the others stay in the drawer while it is placed.
            if has_microphone && self.brief.gear.values().any(|g| g.at_hand() && g.microphone().is_some()) {
                let mut alone = start.clone();
                for gear in alone.brief.gear.iter_mut().filter(|(id, _)| !goods.has(id)).map(|(_, gear)| gear)
                {
                    if gear.microphone().is_some() {
                        gear.common_mut().state = GearState::Never;
                    }
                }
                if let Some(placed) = replaced(&alone) {
                    offer(start.with_layout(placed.layout), &mut best);
                }
            }
        }
        best
    }

    /// The layouts to start from.
    fn starts(&self, goods: &Goods, brief: &Brief, stop: Stop<'_>) -> Vec<Start> {
        let mut all = Vec::new();
        if let Some(start) = &self.start {
            all.push(Start { plan: start.plan.with_brief(brief.clone()), is_whole: true });
        }
        let deciding = goods.only(&self.catalogue, |offer| decides_the_seat(&self.brief, &offer.gear));
        if !deciding.is_empty() {
            let hung = self.start.as_ref().map(|start| &start.plan.layout);
            let brief = brief.of_any_layout(hung);
            all.extend(self.stood(&deciding, stop).into_iter().map(|mut stood| {
                // Lamps that showed where a place for them is are not bought yet.
                let lights = stood.lights.len();
                stood.lights.retain(|_, light| brief.gear.contains_key(&light.gear));
                let is_whole = stood.lights.len() == lights;
                Start { plan: Plan::new(&self.name, brief.clone().into_owned(), stood), is_whole }
            }));
        }
        all
    }

    /// The best layouts of the brief with things that decide the seat: as it is, and, where no lamp is at hand yet, with room for a key
    /// and a back light.
    fn stood(&self, deciding: &Goods, stop: Stop<'_>) -> Vec<Layout> {
        if let Some(known) = self.stood.lock().unwrap_or_else(PoisonError::into_inner).get(deciding) {
            return known.clone();
        }
        let lamps_at_hand = self.brief.gear.values().any(|gear| gear.at_hand() && gear.light().is_some());
        let takes_pictures = deciding.only(&self.catalogue, |offer| offer.gear.support().is_none());
        let mut all: Vec<Layout> = Vec::new();
        let with_lamps = self.two_lamps().filter(|_| !lamps_at_hand && takes_pictures == *deciding);
        let with = [Some(deciding.clone()), with_lamps.map(|lamps| deciding.plus(&lamps))];
        for goods in with.into_iter().flatten() {
            let Some(brief) = self.brief_with(&goods) else { continue };
            let Some(found) = propose_until(&self.name, &brief, stop) else { return Vec::new() };
            all.extend(found.proposals.into_iter().next().map(|proposal| proposal.plan.layout));
        }
        if takes_pictures != *deciding && !takes_pictures.is_empty() {
            // Where there is room for lamps does not hang on what holds the camera.
            all.extend(self.stood(&takes_pictures, stop).into_iter().skip(1));
        }
        let mut memo = self.stood.lock().unwrap_or_else(PoisonError::into_inner);
        memo.insert(deciding.clone(), all.clone());
        all
    }

    /// A usual key and a small lamp, to see where there is room for them: the cheapest of their size on offer.
    fn two_lamps(&self) -> Option<Goods> {
        let lamps = || {
            let all =
                self.catalogue.offers.iter().filter_map(|(id, offer)| Some((id, offer, offer.gear.light()?)));
            all.filter(|(_, offer, _)| offer.price() > 0.0)
        };
        let large = lamps().filter(|(_, _, lamp)| lamp.width_m * lamp.height_m >= USUAL_KEY_M2);
        let small = lamps().filter(|(_, _, lamp)| lamp.width_m.max(lamp.height_m) <= SMALL_LAMP_M);
        let cheapest = |all: &mut dyn Iterator<Item = (&Id, &Offer, &GearLight)>| {
            all.min_by_key(|(_, offer, _)| offer.cents()).map(|(id, ..)| id.clone())
        };
        let (key, back) = (cheapest(&mut large.into_iter())?, cheapest(&mut small.into_iter())?);
        Some([key, back].into_iter().collect())
    }

    /// The brief with goods at hand; none where one of them is not in the catalogue.
    pub(super) fn brief_with(&self, goods: &Goods) -> Option<Brief> {
        let mut brief = self.brief.clone();
        for (id, count) in goods.iter() {
            let offer = self.catalogue.get(id)?;
            let mut gear = offer.gear.clone();
            let common = gear.common_mut();
            common.state = GearState::Owned;
            common.price = offer.price();
            common.resale = common.resale.min(common.price);
            common.count = (count > 1).then_some(count as u32);
            brief.gear.insert(id.clone(), gear);
        }
        Some(brief)
    }

    pub(super) fn gear(&self, id: &Id) -> Option<&Gear> {
        self.catalogue.get(id).map(|offer| &offer.gear)
    }

    /// Goods without those that a layout leaves unused.
    pub(super) fn trimmed(&self, goods: &Goods, laid: &Laid) -> Goods {
        goods.at_most(|id| laid.uses(id))
    }
}

/// Whether a thing decides where one sits: a camera, what holds one, and the screen that is keyed out behind one.
fn decides_the_seat(brief: &Brief, gear: &Gear) -> bool {
    match gear {
        Gear::Camera(_) | Gear::Lens(_) => true,
        Gear::Backdrop(_) => brief.purpose == Purpose::KeyedBackground,
        Gear::Support(support) => support.common.offers("camera"),
        _ => false,
    }
}
