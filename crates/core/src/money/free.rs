//! Free moves: from how the corner stands today (else from the plan as saved) towards what the same gear could
//! do, always the smallest set of moves that gains.

use serde::Serialize;
use utoipa::ToSchema;

use crate::arrange::{Stop, nearest_facing, propose_until, replaced};
use crate::assess::mend::changes;
use crate::assess::{Quick, quick, without_moves};
use crate::corner::Corner;
use crate::plan::{Layout, PatchStep, Plan, ThingId, change};
use crate::reading::Change;
use crate::units::{beside_lens, capital};

/// A gain smaller than this is not worth moving a stand for. Fogon's own rule.
const LEAST_GAIN: f64 = 0.005;
/// Parts that are tried together at most.
const MOST: usize = 7;

/// Where the moves start from.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum Baseline {
    /// How the corner stands now.
    Today,
    /// The plan as saved.
    Plan,
}

/// One move, or the fewest that help only together.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct FreeMove {
    /// What to do.
    pub label: String,
    /// Where it starts from.
    pub baseline: Baseline,
    /// Score before, 0 to 1.
    pub score_before: f64,
    /// Score after.
    pub score_after: f64,
    /// Things that stood in the way before and do not after.
    pub cleared: usize,
    /// The change, to be applied to the layout it starts from, after the moves before it.
    pub patch: Vec<PatchStep>,
    /// Readings before and after.
    pub changes: Vec<Change>,
}

/// What can be done for nothing.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct FreeMoves {
    /// Score now, 0 to 1, from today's arrangement if it was given.
    pub score_now: f64,
    /// In order; each follows on those before it.
    pub moves: Vec<FreeMove>,
    /// What there is to move, in a sentence.
    pub sentence: String,
    /// The search ran out of time: there may be more.
    #[serde(skip_serializing_if = "std::ops::Not::not")]
    #[schema(required = false)]
    pub ended_early: bool,
    /// The corner after them.
    #[serde(skip)]
    pub end: Plan,
}

/// Things of a layout that move as one.
type Together = Vec<ThingId>;

/// Free moves from how the corner stands today, else from the plan as saved, towards the best layout with the same gear.
///
/// ```
/// use fogon_core::money::free_moves;
/// use fogon_core::plan::Plan;
///
/// let text = include_bytes!(concat!(env!("CARGO_MANIFEST_DIR"), "/../../docs/examples/box-room.fogon.json"));
/// let found = free_moves(&Plan::read(text)?);
/// assert!(found.moves.iter().all(|step| step.score_after >= step.score_before && !step.patch.is_empty()));
/// # Ok::<(), fogon_core::problem::Problems>(())
/// ```
pub fn free_moves(plan: &Plan) -> FreeMoves {
    found(plan, Stop::NEVER)
}

/// As [`free_moves`], ended early once `stop` says so: with none where nobody waits, with those so far where its time is up.
pub fn free_moves_until(plan: &Plan, stop: Stop<'_>) -> Option<FreeMoves> {
    let moves = found(plan, stop);
    (!stop.is_left()).then_some(moves)
}

fn found(plan: &Plan, stop: Stop<'_>) -> FreeMoves {
    let (mut now, baseline) = baseline_of(plan);
    let start = quick(&now.brief, &now.layout);
    let mut moves = Vec::new();
    // First what can be done around the seat as it is; then, if the whole room offers more, the whole.
    if let Some(target) = replaced(&now) {
        walk(&mut now, &target, baseline, &mut moves, stop);
    }
    let best = propose_until(&plan.name, &plan.brief, stop);
    if let Some(best) = best.and_then(|found| found.proposals.into_iter().next()) {
        let before = quick(&now.brief, &now.layout);
        let target = now.with_layout(best.plan.layout);
        let after = quick(&target.brief, &target.layout);
        if gains(&before, &after) && now.layout.held_against(&target.layout).is_none() {
            let seat = target.layout.seat.bearing_deg;
            let label = format!("Rearrange the corner: you face {}", nearest_facing(&target.brief, seat));
            moves.push(moved(&now, &target, baseline, label, &before, &after));
            now = target;
        }
    }
    let ended_early = stop.is_late();
    let sentence = match moves.len() {
        0 if ended_early => "No free move was found in the time that a search may take.".to_owned(),
        0 => "No free move left: the same gear does no better elsewhere.".to_owned(),
        1 => "One free move.".to_owned(),
        many => format!("{many} free moves."),
    };
    FreeMoves { score_now: start.score, moves, sentence, ended_early, end: now }
}

/// The plan to start from: today's arrangement over the saved layout, where it was given.
fn baseline_of(plan: &Plan) -> (Plan, Baseline) {
    let Some(today) = &plan.brief.today else { return (plan.clone(), Baseline::Plan) };
    let saved = &plan.layout;
    let layout = Layout {
        seat: today.seat.clone().unwrap_or_else(|| saved.seat.clone()),
        camera: today.camera.clone().unwrap_or_else(|| saved.camera.clone()),
        lights: today.lights.clone().unwrap_or_default(),
        microphone: today.microphone.clone(),
        screen: today.screen.clone(),
        backdrop: today.backdrop.clone(),
        angles: saved.angles.clone(),
        furniture: today.furniture.clone().unwrap_or_default(),
        treatment: today.treatment.clone().unwrap_or_default(),
    };
    (Plan { layout, ..plan.clone() }, Baseline::Today)
}

/// What clears something without a lower score, or scores higher without putting anything in the way.
fn gains(before: &Quick, after: &Quick) -> bool {
    (after.stops, after.fixes) < (before.stops, before.fixes) && after.score >= before.score - 1e-9
        || ((after.stops, after.fixes) == (before.stops, before.fixes)
            && after.score > before.score + LEAST_GAIN)
}

/// Moves from `now` towards `target`, the smallest gaining set each time.
fn walk(now: &mut Plan, target: &Plan, baseline: Baseline, moves: &mut Vec<FreeMove>, stop: Stop<'_>) {
    for _ in 0..6 {
        let mut parts = differing(&now.layout, &target.layout);
        parts.retain(|part| {
            let one = with_things(&now.layout, &target.layout, part);
            now.layout.held_against(&one).is_none()
        });
        let before = quick(&now.brief, &now.layout);
        let mut best: Option<(Together, Plan, Quick)> = None;
        for size in 1..=parts.len() {
            for set in subsets(&parts, size) {
                if stop.is_wanted() {
                    return;
                }
                let next = now.with_layout(with_things(&now.layout, &target.layout, &set));
                let after = quick(&next.brief, &next.layout);
                let better = best.as_ref().is_none_or(|(_, _, b)| {
                    (after.stops, after.fixes, -after.score) < (b.stops, b.fixes, -b.score)
                });
                if gains(&before, &after) && better {
                    best = Some((set, next, after));
                }
            }
            if best.is_some() {
                break;
            }
        }
        let Some((set, next, after)) = best else { return };
        let label = label_of(&next, &set);
        moves.push(moved(now, &next, baseline, label, &before, &after));
        *now = next;
    }
}

fn moved(
    from: &Plan,
    to: &Plan,
    baseline: Baseline,
    label: String,
    before: &Quick,
    after: &Quick,
) -> FreeMove {
    FreeMove {
        label,
        baseline,
        score_before: before.score,
        score_after: after.score,
        cleared: (before.stops + before.fixes).saturating_sub(after.stops + after.fixes),
        patch: change(from, to),
        changes: changes(&without_moves(from).readings, &without_moves(to).readings),
    }
}

/// What differs between two layouts, as it moves: seat, camera, backdrop and moved furniture belong together once the
/// seat or furniture goes; what hangs against the echo is hung at one go; everything else moves by itself.
fn differing(a: &Layout, b: &Layout) -> Vec<Together> {
    let mut place = Together::new();
    let mut hung = Together::new();
    let mut alone: Vec<Together> = Vec::new();
    for thing in a.differs(b) {
        match thing {
            ThingId::Seat | ThingId::Camera | ThingId::Backdrop | ThingId::Furniture(_) => place.push(thing),
            ThingId::Treatment(_) => hung.push(thing),
            ThingId::Light(_) | ThingId::Microphone | ThingId::Screen | ThingId::Angle(_) => {
                alone.push(vec![thing]);
            }
            // A layout places none of these.
            ThingId::Person | ThingId::Opening(_) | ThingId::Mains => {}
        }
    }
    let mut all: Vec<Together> = Vec::new();
    if place.iter().any(|thing| matches!(thing, ThingId::Seat | ThingId::Furniture(_))) {
        all.push(place);
    } else {
        all.extend(place.into_iter().map(|thing| vec![thing]));
    }
    all.extend(alone);
    if !hung.is_empty() {
        all.push(hung);
    }
    // A corner has few parts; a bound keeps the count of subsets small whatever a file says.
    all.truncate(MOST);
    all
}

fn subsets(all: &[Together], size: usize) -> Vec<Together> {
    (0u32..1 << all.len())
        .filter(|mask| mask.count_ones() as usize == size)
        .map(|mask| {
            let chosen = all.iter().enumerate().filter(|(i, _)| mask >> i & 1 == 1);
            chosen.flat_map(|(_, things)| things.iter().cloned()).collect()
        })
        .collect()
}

fn with_things(from: &Layout, to: &Layout, things: &[ThingId]) -> Layout {
    let mut layout = from.clone();
    for thing in things {
        layout.take(thing, to);
    }
    // Lamps moved or added change the light at the face: ISO follows, at no cost.
    if things.iter().any(|thing| matches!(thing, ThingId::Light(_))) {
        layout.camera.iso = to.camera.iso;
        layout.camera.nd_stops = to.camera.nd_stops;
        layout.camera.white_balance_k = to.camera.white_balance_k;
    }
    layout
}

fn label_of(plan: &Plan, things: &[ThingId]) -> String {
    let corner = Corner::of(plan);
    let mut words: Vec<String> = Vec::new();
    let with_seat = things.contains(&ThingId::Seat);
    for thing in things.iter().filter(|thing| !(with_seat && **thing == ThingId::Camera)) {
        let more = words_of(plan, corner.as_ref(), thing);
        if !more.is_empty() && !words.contains(&more) {
            words.push(more);
        }
    }
    capital(&words.join(" and "))
}

/// What to do with one thing, in words.
fn words_of(plan: &Plan, corner: Option<&Corner<'_>>, thing: &ThingId) -> String {
    let units = plan.brief.units;
    match thing {
        ThingId::Seat => "move the seat and the camera".to_owned(),
        ThingId::Camera => "set the camera as planned".to_owned(),
        ThingId::Screen => match corner.and_then(|c| c.screen) {
            Some((gear, _)) => format!("put the {} where the plan has it", gear.screen.word()),
            None => "put the screen away".to_owned(),
        },
        ThingId::Backdrop if plan.layout.backdrop.is_none() => "take the backdrop away".to_owned(),
        ThingId::Backdrop => "put the backdrop where the plan has it".to_owned(),
        ThingId::Treatment(id) if plan.layout.treatment.contains_key(id) => {
            format!("hang or lay the {} as planned", id.words())
        }
        ThingId::Treatment(id) => format!("take the {} away", id.words()),
        ThingId::Furniture(id) => format!("move the {}", id.words()),
        ThingId::Angle(id) if plan.layout.angles.contains_key(id) => {
            format!("set the {} as planned", id.words())
        }
        ThingId::Angle(id) => format!("put the camera of the {} away", id.words()),
        ThingId::Microphone => {
            match corner.and_then(|c| c.microphone.map(|(_, at)| (at - c.mouth_m).length())) {
                Some(distance) => {
                    format!("bring the microphone to {} from the mouth", units.length(distance))
                }
                None => "put the microphone away".to_owned(),
            }
        }
        ThingId::Light(id) => {
            let light = corner.and_then(|c| c.lights.iter().find(|light| light.id == id).map(|l| (c, l)));
            let Some((c, light)) = light else { return format!("switch the {} off", thing.words()) };
            let (azimuth, _) = c.light_angles_deg(light.position_m);
            let distance = units.length((light.position_m - c.eyes_m).length());
            format!("put the {} {}, {distance} from the face", thing.words(), beside_lens(azimuth))
        }
        ThingId::Person | ThingId::Opening(_) | ThingId::Mains => String::new(),
    }
}
