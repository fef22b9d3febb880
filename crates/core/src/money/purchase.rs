//! Purchases: the gain of each thing is the score of the corner with it in place, less the score now; the
//! choice among them is exact.

use serde::Serialize;
use utoipa::ToSchema;

use super::catalogue::catalogue;
use super::lacks::Lacks;
use super::select::{Candidate, select};
use crate::arrange::replaced;
use crate::assess::{Quick, quick, without_moves};
use crate::corner::{Corner, Kit};
use crate::plan::{BackdropType, Brief, Gear, GearState, Id, Layout, Part, Plan, Purpose, ThingId};
use crate::reading::Change;
use crate::sound::absorption::Absorption;

/// What clearing one thing that stands in the way counts, beside the score, which lies in [0, 1]. Fogon's own
/// rule, as layouts are ordered: a corner that can record comes before one that scores better.
const CLEARED: f64 = 1.0;
/// What a stand for a camera that stood on books counts, score: it is back in its place at once. Fogon's own rule.
const STEADIER: f64 = 0.03;
/// A gain smaller than this is not worth money. Fogon's own rule.
const LEAST_GAIN: f64 = 0.003;

/// A thing to buy.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Bought {
    /// Catalogue id.
    pub id: String,
    /// In words.
    pub label: String,
    /// Its price.
    pub price: f64,
    /// (price - resale) / years.
    pub per_year: Option<f64>,
}

/// Things to buy together, the corner working after them.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Step {
    /// The thing that helps, then what it needs.
    pub items: Vec<Bought>,
    /// Price of all of them.
    pub price: f64,
    /// Score gained by it alone.
    pub gain: f64,
    /// Things in the way that it clears.
    pub cleared: usize,
    /// Why, in one sentence.
    pub reason: String,
    /// Readings before and after.
    pub changes: Vec<Change>,
}

/// What to buy under the budget, most gain for the money first.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Purchases {
    /// The sum that may be spent.
    pub budget: f64,
    /// What is spent.
    pub spent: f64,
    /// Score before, 0 to 1.
    pub score_before: f64,
    /// Score with all of it in place.
    pub score_after: f64,
    /// In order.
    pub steps: Vec<Step>,
    /// What it comes to, in one sentence.
    pub sentence: String,
}

/// A catalogue thing tried out in this corner.
struct Tried {
    id: Id,
    gain: f64,
    worth: f64,
    cleared: usize,
    job: Job,
    plan: Plan,
}

/// What a thing is bought for.
#[derive(Debug, Clone, PartialEq)]
enum Job {
    /// It does the work of this part of the layout.
    Place(ThingId),
    /// On the camera.
    Lens,
    /// Against the echo.
    Treatment,
    /// Something in use cannot work without it.
    Need(String),
    /// It carries this part of the layout.
    Stand(ThingId),
}

impl Job {
    /// Of things with the same job one is bought: each thing against the echo is worth less beside another. Stands for lamps
    /// help whichever lamp they come to carry; several may be bought.
    fn group(&self) -> Option<String> {
        match self {
            Job::Place(thing) => Some(format!("place {}", thing.words())),
            Job::Lens => Some("lens".into()),
            Job::Treatment => Some("treatment".into()),
            Job::Need(need) => Some(format!("need {need}")),
            Job::Stand(ThingId::Light(_)) => None,
            Job::Stand(thing) => Some(format!("under {}", thing.words())),
        }
    }
}

pub(super) fn purchases(plan: &Plan) -> Purchases {
    let brief = &plan.brief;
    // The corner as well placed as its own gear allows: a purchase must not be praised for a free move.
    let base = best_of(plan.clone(), replaced(plan));
    let before = quick(brief, &base.layout);
    let lacks = Lacks::of(&base);
    let room_is_assumed = Corner::of(&base).is_some_and(|corner| Absorption::of(&corner).assumed);
    let tried: Vec<Tried> = catalogue()
        .iter()
        .filter(|(_, gear)| helps(brief, gear, room_is_assumed) && !lacks.is_only_along(gear))
        .filter(|(id, gear)| buyable(brief, id) && gear.common().price <= brief.money.budget * (1.0 + 1e-9))
        .filter_map(|(id, gear)| try_out(&base, &before, id, gear, lacks.along_with(gear)))
        .collect();
    // Owned things take part with price 0 and no gain: their offers and needs count.
    let owned = brief.gear.values().filter(|g| g.at_hand());
    let mut ids: Vec<Option<&Id>> = Vec::new();
    let mut candidates: Vec<Candidate> = Vec::new();
    let used = |id: &Id| in_use(&base.layout, id);
    for (gear, id) in owned.zip(brief.gear.iter().filter(|(_, g)| g.at_hand()).map(|(id, _)| id)) {
        // What a stand in use carries is not free for something new, unless it is replaced.
        let offers =
            if gear.support().is_some() && used(id) { Vec::new() } else { gear.common().offers.clone() };
        ids.push(None);
        candidates.push(Candidate { offers, ..Candidate::default() });
    }
    for (id, gear) in catalogue().iter().filter(|(id, _)| buyable(brief, id)) {
        let found = tried.iter().find(|t| t.id == *id);
        let common = gear.common();
        // A replacement stands where the replaced thing stood: it needs no second stand.
        let replaces = found.is_some_and(|tried| match &tried.job {
            Job::Place(thing) => {
                base.layout.part(thing).and_then(Part::support).is_some_and(|support| support.gear.is_some())
            }
            Job::Lens | Job::Treatment | Job::Need(_) | Job::Stand(_) => false,
        });
        let along = found.filter(|tried| matches!(tried.job, Job::Need(_)));
        let needs = common
            .needs
            .iter()
            .chain(along.map_or(&[][..], |_| lacks.along_with(gear)))
            .filter(|n| !(replaces && matches!(n.as_str(), "light" | "microphone")))
            .cloned()
            .collect();
        ids.push(Some(id));
        candidates.push(Candidate {
            price: common.price,
            gain: found.map_or(0.0, |t| t.worth),
            group: found.and_then(|t| t.job.group()),
            needs,
            offers: common.offers.clone(),
        });
    }
    let chosen = select(&candidates, brief.money.budget);
    let bought: Vec<(&Id, &Candidate)> =
        chosen.iter().filter_map(|i| ids[*i].map(|id| (id, &candidates[*i]))).collect();
    let steps = steps(&base, &tried, &bought);
    // An empty sum of floats is minus zero.
    let spent: f64 = 0.0 + bought.iter().map(|(_, c)| c.price).sum::<f64>();
    let after = with_all(&base, &bought).map_or(before.score, |p| quick(&p.brief, &p.layout).score);
    Purchases {
        budget: brief.money.budget,
        spent,
        score_before: before.score,
        score_after: after,
        sentence: sentence(brief, &before, steps.len(), spent),
        steps,
    }
}

fn sentence(brief: &Brief, before: &Quick, steps: usize, spent: f64) -> String {
    let ready = before.stops == 0 && before.fixes == 0;
    let money = |sum: f64| brief.money.told(sum);
    match (steps, ready) {
        (0, true) => "You need to buy nothing: the corner is ready.".into(),
        (0, false) if brief.money.budget <= 0.0 => {
            "You have nothing to spend. Enter a sum to see what would help most.".into()
        }
        (0, false) => format!("Nothing in the catalogue helps for {}.", money(brief.money.budget)),
        (_, true) => format!("The corner is ready as it is; {} would still make it better.", money(spent)),
        (_, false) => format!("{} of {} are best spent like this.", money(spent), money(brief.money.budget)),
    }
}

/// Whether a thing can better a layout by itself. Screens are a convenience, backdrops a need of one purpose, and a rig
/// is chosen, not recommended.
fn helps(brief: &Brief, gear: &Gear, room_is_assumed: bool) -> bool {
    match gear {
        Gear::Monitor(_) | Gear::Camera(_) => false,
        // Nothing is spent on an echo that nobody has told of or measured.
        Gear::Treatment(_) => !room_is_assumed,
        Gear::Backdrop(backdrop) => {
            brief.purpose == Purpose::KeyedBackground && backdrop.backdrop == BackdropType::Chroma
        }
        Gear::Support(support) => {
            let offers = |what: &str| support.common.offers(what);
            !(offers("ceiling") || offers("camera") && offers("microphone"))
        }
        _ => true,
    }
}

fn buyable(brief: &Brief, id: &Id) -> bool {
    // Owned, or ruled out by its owner.
    brief.gear.get(id).is_none_or(|g| g.common().state == GearState::Wanted)
}

fn best_of(plan: Plan, other: Option<Plan>) -> Plan {
    let rank = |p: &Plan| {
        let q = quick(&p.brief, &p.layout);
        (q.stops, q.fixes, -q.score)
    };
    match other {
        Some(other) if rank(&other) < rank(&plan) => other,
        _ => plan,
    }
}

fn in_use(layout: &Layout, id: &Id) -> bool {
    layout.supports_in_use().any(|used| used == id)
}

/// The plan with a thing owned, everything it needs and what comes along with it at hand, and lights and microphone placed for it.
fn with_thing(base: &Plan, id: &Id, gear: &Gear, along: &[String]) -> Option<Plan> {
    let mut plan = base.clone();
    if gear.microphone().is_some() {
        // To hear this one, the others stay in the drawer.
        for other in plan.brief.gear.values_mut().filter(|g| g.microphone().is_some()) {
            other.common_mut().state = GearState::Never;
        }
    }
    own(&mut plan.brief, id, gear);
    for need in gear.common().needs.iter().chain(along) {
        let met = plan.brief.gear.iter().any(|(other, g)| {
            other != id
                && g.at_hand()
                && g.common().offers(need)
                && (g.support().is_none() || !in_use(&base.layout, other))
        });
        if !met {
            let (other, helper) = catalogue()
                .iter()
                .filter(|(_, g)| g.common().offers(need))
                .min_by(|a, b| a.1.common().price.total_cmp(&b.1.common().price))?;
            own(&mut plan.brief, other, helper);
        }
    }
    if let Some(lens) = gear.lens() {
        let camera = &mut plan.layout.camera;
        let focal = camera.focal_length_mm;
        if focal < lens.focal_min_mm - 0.5 || focal > lens.focal_max_mm + 0.5 {
            return None; // seat and camera are kept: another focal length is another layout
        }
        camera.lens = id.clone();
        camera.focal_length_mm = focal.clamp(lens.focal_min_mm, lens.focal_max_mm);
        let body = base.brief.gear.get(&camera.body).and_then(Gear::camera)?;
        camera.f_number = crate::shot::f_number(&base.brief, body, lens, camera.focal_length_mm);
    }
    replaced(&plan)
}

fn own(brief: &mut Brief, id: &Id, gear: &Gear) {
    let mut gear = gear.clone();
    gear.common_mut().state = GearState::Owned;
    brief.gear.insert(id.clone(), gear);
}

fn try_out(base: &Plan, before: &Quick, id: &Id, gear: &Gear, along: &[String]) -> Option<Tried> {
    let plan = with_thing(base, id, gear, along)?;
    let job = job_of(&plan, id, gear)?;
    let after = quick(&plan.brief, &plan.layout);
    let was = before.stops + before.fixes;
    let is = after.stops + after.fixes;
    if is > was {
        return None;
    }
    let gain = after.score - before.score;
    let on_books = |layout: &Layout| layout.camera.support.is_by_itself();
    let steadier = if on_books(&base.layout) && !on_books(&plan.layout) { STEADIER } else { 0.0 };
    let worth = gain + steadier + CLEARED * (was - is) as f64;
    (worth > LEAST_GAIN).then_some(Tried { id: id.clone(), gain, worth, cleared: was - is, job, plan })
}

/// The job a thing does in a layout; `None` if it found none.
fn job_of(plan: &Plan, id: &Id, gear: &Gear) -> Option<Job> {
    let layout = &plan.layout;
    let used = layout.parts().find(|part| part.gear().any(|used| used == id));
    match used {
        Some(Part::Camera(_)) => return gear.lens().map(|_| Job::Lens),
        Some(Part::Treatment(..)) => return Some(Job::Treatment),
        Some(part @ (Part::Microphone(_) | Part::Light(..) | Part::Backdrop(_))) => {
            return Some(Job::Place(part.id()));
        }
        // A screen is a convenience, a second angle somebody's own choice; the others use no gear.
        Some(Part::Screen(_) | Part::Angle(..) | Part::Seat(_) | Part::Furniture(..)) | None => {}
    }
    if gear.support().is_some() {
        let carries =
            |part: &Part<'_>| part.support().is_some_and(|support| support.gear.as_ref() == Some(id));
        return layout.parts().find(carries).map(|part| Job::Stand(part.id()));
    }
    let corner = Corner::of(plan)?;
    let kit = Kit::of(&corner);
    kit.links.iter().find(|link| link.by == Some(id)).map(|link| Job::Need(link.need.to_owned()))
}

/// The plan with everything bought in place.
fn with_all(base: &Plan, bought: &[(&Id, &Candidate)]) -> Option<Plan> {
    let mut plan = base.clone();
    let mut lens = None;
    for (id, _) in bought {
        let gear = catalogue().get(*id)?;
        if gear.microphone().is_some() {
            for other in plan.brief.gear.values_mut().filter(|g| g.microphone().is_some()) {
                other.common_mut().state = GearState::Never;
            }
        }
        own(&mut plan.brief, id, gear);
        if gear.lens().is_some() {
            lens = Some((*id, gear));
        }
    }
    match lens {
        Some((id, gear)) => with_thing(&plan, id, gear, &[]),
        None => replaced(&plan),
    }
}

/// What is bought as steps: each thing that helps with what it needs, most worth for the money first.
fn steps(base: &Plan, tried: &[Tried], bought: &[(&Id, &Candidate)]) -> Vec<Step> {
    let mut helpers: Vec<(&Id, &Candidate)> =
        bought.iter().copied().filter(|(id, _)| !tried.iter().any(|t| t.id == **id)).collect();
    let mut mains: Vec<(&Tried, &Candidate)> =
        bought.iter().filter_map(|(id, c)| tried.iter().find(|t| t.id == **id).map(|t| (t, *c))).collect();
    mains.sort_by(|a, b| (b.0.worth / b.1.price.max(1.0)).total_cmp(&(a.0.worth / a.1.price.max(1.0))));
    let before = without_moves(base).readings;
    let mut steps = Vec::new();
    for (main, candidate) in mains {
        let mut items = vec![item(&main.id)];
        for need in &candidate.needs {
            if let Some(at) = helpers.iter().position(|(_, h)| h.offers.contains(need)) {
                items.push(item(helpers.remove(at).0));
            }
        }
        let after = without_moves(&main.plan).readings;
        steps.push(Step {
            price: items.iter().map(|i| i.price).sum(),
            items,
            gain: main.gain,
            cleared: main.cleared,
            reason: reason(main),
            changes: crate::assess::mend::changes(&before, &after),
        });
    }
    steps
}

fn reason(main: &Tried) -> String {
    let better = match &main.job {
        Job::Place(ThingId::Microphone) | Job::Treatment => "Better sound",
        Job::Place(ThingId::Light(_)) => "Better light",
        Job::Place(_) | Job::Lens => "A better picture",
        Job::Need(_) => "What you have works with it",
        Job::Stand(_) => "It carries what has no stand",
    };
    let points = (100.0 * main.gain).round();
    match main.cleared {
        0 if main.job == Job::Stand(ThingId::Camera) && points < 0.5 => {
            "It carries the camera in place of books: back in its place at once.".into()
        }
        0 if points == 1.0 => format!("{better}: 1 point of 100 more."),
        0 => format!("{better}: {points:.0} points of 100 more."),
        1 => format!("{better}: one thing in the way is cleared."),
        count => format!("{better}: {count} things in the way are cleared."),
    }
}

fn item(id: &Id) -> Bought {
    let gear = catalogue().get(id);
    let common = gear.map(|g| g.common().clone()).unwrap_or_default();
    Bought {
        id: id.0.clone(),
        per_year: common.life_years.map(|years| (common.price - common.resale) / years),
        label: common.label,
        price: common.price,
    }
}
