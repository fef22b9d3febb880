//! Free moves: from how the corner stands today (else from the plan as saved) towards what the same gear could
//! do, always the smallest set of moves that gains.

use serde::Serialize;
use utoipa::ToSchema;

use crate::arrange::{propose, replaced};
use crate::assess::mend::changes;
use crate::assess::{Quick, quick, without_moves};
use crate::plan::{Id, Layout, PatchStep, Plan, change};
use crate::reading::Change;
use crate::units::capital;

/// A gain smaller than this is not worth moving a stand for. Fogon's own rule.
const LEAST_GAIN: f64 = 0.005;

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

/// A part of a layout that moves as one.
#[derive(Clone, PartialEq)]
enum Part {
    /// Seat, camera and moved furniture belong together.
    Place,
    Camera,
    Light(Id),
    Microphone,
    Screen,
    /// All that hangs or lies against the echo.
    Treatment,
}

/// The score now and the moves, in order.
pub(super) fn free_moves(plan: &Plan) -> (f64, Vec<FreeMove>) {
    let (mut now, baseline) = baseline_of(plan);
    let start = quick(&now.brief, &now.layout);
    let mut moves = Vec::new();
    // First what can be done around the seat as it is; then, if the whole room offers more, the whole.
    if let Some(target) = replaced(&now) {
        walk(&mut now, &target, baseline, &mut moves);
    }
    let best = propose(&plan.name, &plan.brief).proposals.into_iter().next();
    if let Some(best) = best {
        let before = quick(&now.brief, &now.layout);
        let target = now.with_layout(best.plan.layout);
        let after = quick(&target.brief, &target.layout);
        if gains(&before, &after) && now.layout.holds_against(&target.layout).is_none() {
            let label = format!("Rearrange the corner: {}", lower_first(&best.reason));
            moves.push(moved(&now, &target, baseline, label, &before, &after));
        }
    }
    (start.score, moves)
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

fn gains(before: &Quick, after: &Quick) -> bool {
    (after.stops, after.fixes) < (before.stops, before.fixes)
        || ((after.stops, after.fixes) == (before.stops, before.fixes)
            && after.score > before.score + LEAST_GAIN)
}

/// Moves from `now` towards `target`, the smallest gaining set each time.
fn walk(now: &mut Plan, target: &Plan, baseline: Baseline, moves: &mut Vec<FreeMove>) {
    for _ in 0..6 {
        let mut parts = differing(&now.layout, &target.layout);
        parts.retain(|part| {
            let one = with_parts(&now.layout, &target.layout, std::slice::from_ref(part));
            now.layout.holds_against(&one).is_none()
        });
        let before = quick(&now.brief, &now.layout);
        let mut best: Option<(Vec<Part>, Plan, Quick)> = None;
        for size in 1..=parts.len() {
            for set in subsets(&parts, size) {
                let next = now.with_layout(with_parts(&now.layout, &target.layout, &set));
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

fn differing(a: &Layout, b: &Layout) -> Vec<Part> {
    let mut parts = Vec::new();
    if a.seat != b.seat || a.furniture != b.furniture || a.backdrop != b.backdrop {
        parts.push(Part::Place);
    } else if a.camera != b.camera {
        parts.push(Part::Camera);
    }
    let mut ids: Vec<&Id> = a.lights.keys().chain(b.lights.keys()).collect();
    ids.sort();
    ids.dedup();
    parts.extend(
        ids.into_iter().filter(|id| a.lights.get(*id) != b.lights.get(*id)).cloned().map(Part::Light),
    );
    if a.microphone != b.microphone {
        parts.push(Part::Microphone);
    }
    if a.screen != b.screen {
        parts.push(Part::Screen);
    }
    if a.treatment != b.treatment {
        parts.push(Part::Treatment);
    }
    // A corner has few parts; a bound keeps the count of subsets small whatever a file says.
    parts.truncate(7);
    parts
}

fn subsets(parts: &[Part], size: usize) -> Vec<Vec<Part>> {
    (0u32..1 << parts.len())
        .filter(|mask| mask.count_ones() as usize == size)
        .map(|mask| {
            parts.iter().enumerate().filter(|(i, _)| mask >> i & 1 == 1).map(|(_, p)| p.clone()).collect()
        })
        .collect()
}

fn with_parts(from: &Layout, to: &Layout, parts: &[Part]) -> Layout {
    let mut layout = from.clone();
    for part in parts {
        match part {
            Part::Place => {
                layout.seat = to.seat.clone();
                layout.camera = to.camera.clone();
                layout.furniture = to.furniture.clone();
                layout.backdrop = to.backdrop.clone();
            }
            Part::Camera => layout.camera = to.camera.clone(),
            Part::Light(id) => match to.lights.get(id) {
                Some(light) => {
                    layout.lights.insert(id.clone(), light.clone());
                }
                None => {
                    layout.lights.remove(id);
                }
            },
            Part::Microphone => layout.microphone = to.microphone.clone(),
            Part::Screen => layout.screen = to.screen.clone(),
            Part::Treatment => layout.treatment = to.treatment.clone(),
        }
    }
    // Lamps moved or added change the light at the face: ISO follows, at no cost.
    if parts.iter().any(|p| matches!(p, Part::Light(_))) {
        layout.camera.iso = to.camera.iso;
        layout.camera.nd_stops = to.camera.nd_stops;
        layout.camera.white_balance_k = to.camera.white_balance_k;
    }
    layout
}

fn label_of(plan: &Plan, parts: &[Part]) -> String {
    let units = plan.brief.units;
    let corner = crate::corner::Corner::of(plan);
    let words: Vec<String> = parts
        .iter()
        .map(|part| match part {
            Part::Place => "move the seat and the camera".to_owned(),
            Part::Camera => "set the camera as planned".to_owned(),
            Part::Screen => match corner.as_ref().and_then(|c| c.screen) {
                Some((gear, _)) => {
                    format!("put the {} where the plan has it", crate::shot::seeing::name(gear.screen))
                }
                None => "put the screen away".to_owned(),
            },
            Part::Treatment => {
                let names: Vec<String> =
                    plan.layout.treatment.keys().map(|id| id.0.replace('-', " ")).collect();
                if names.is_empty() {
                    "take down what hangs".to_owned()
                } else {
                    format!("hang or lay the {} as planned", names.join(", "))
                }
            }
            Part::Microphone => {
                match corner.as_ref().and_then(|c| c.microphone.map(|(_, at)| (at - c.mouth_m).length())) {
                    Some(distance) => {
                        format!("bring the microphone to {} from the mouth", units.length(distance))
                    }
                    None => "put the microphone away".to_owned(),
                }
            }
            Part::Light(id) => {
                let light =
                    corner.as_ref().and_then(|c| c.lights.iter().find(|l| l.id == id.0).map(|l| (c, l)));
                match light {
                    Some((c, l)) => {
                        let (azimuth, _) = c.light_angles_deg(l.position_m);
                        let side = if azimuth < 0.0 { "left" } else { "right" };
                        let distance = units.length((l.position_m - c.eyes_m).length());
                        format!(
                            "put the {id} {:.0} degrees camera {side}, {distance} from the face",
                            azimuth.abs()
                        )
                    }
                    None => format!("switch the {id} off"),
                }
            }
        })
        .collect();
    capital(&words.join(" and "))
}

fn lower_first(text: &str) -> String {
    let mut chars = text.chars();
    chars.next().map_or(String::new(), |c| c.to_lowercase().chain(chars).collect())
}
