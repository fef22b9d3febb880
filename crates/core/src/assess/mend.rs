//! Moves that mend findings. Each candidate is applied and judged again; it is offered only if the finding is gone and nothing
//! as bad has come in its place, so that no two fixes ever undo each other.

mod camera;
mod candidate;
mod lights;
mod things;

use super::judge::{Assessment, of_layout};
use crate::corner::Corner;
use crate::finding::{Finding, Missing, Note, Rule, Severity, Topic};
use crate::plan::{Fix, Layout, Plan, Role, ThingId, change, thing_named};
use crate::reading::{Change, Quantity, Reading, ReadingId};
use camera::{balanced, exposed, gaze, other_aperture, reframed, stopped_down, whole_pulses};
use candidate::{Candidates, JUDGED, none};
use lights::{ceiling_off, cleared, dimmed, lamp_back, one_colour, refilled};
use things::{moved_light, moved_microphone, moved_role, moved_thing, other_microphone, refooted, sandbag};

pub(crate) use candidate::with_iso;

/// Fills in `fix` where a move mends the finding.
pub(super) fn offer_moves(plan: &Plan, assessment: &mut Assessment) {
    let Some(corner) = Corner::of(plan) else { return };
    let fixes: Vec<Option<Fix>> = assessment
        .findings
        .iter()
        .map(|finding| {
            let mut tried = candidates(&corner, finding).take(JUDGED);
            tried.find_map(|(label, layout)| judged(plan, assessment, finding, label, layout))
        })
        .collect();
    for (finding, fix) in assessment.findings.iter_mut().zip(fixes) {
        if fix.is_some() {
            finding.fix = fix;
            finding.advice = "".into();
        }
    }
}

/// A score that falls by less is the same. Fogon's own rule.
const SCORE_KEPT: f64 = 1e-6;
/// The key's size as the face sees it grows by so much at least, or moving it is not worth the walk.
const SOFTER: f64 = 1.1;

/// The key moved to where it is softer from the face, everything else as it is, for nothing: the place that scores best of
/// those that break no rule and bring no new finding in the way. `None` where there is none better.
pub fn same_lamp(plan: &Plan) -> Option<Fix> {
    let corner = Corner::of(plan)?;
    let key = corner.role(Role::Key).next().filter(|key| !key.light.locked)?;
    let before = of_layout(&plan.brief, &plan.layout);
    let blocked = blocking(&before);
    let size = |assessment: &Assessment| {
        let own = assessment.readings.iter().find(|r| r.id == Quantity::LightKeyAngularSizeDeg);
        own.and_then(|r| r.value).unwrap_or(0.0)
    };
    let name = key.words();
    let mut best: Option<(f64, String, Plan, Assessment)> = None;
    for (_, layout) in moved_light(&corner, key).take(JUDGED) {
        if plan.layout.held_against(&layout).is_some() {
            continue;
        }
        let candidate = plan.with_layout(layout);
        let after = of_layout(&candidate.brief, &candidate.layout);
        let worse = blocking(&after).iter().any(|id| !blocked.contains(id));
        let better = size(&after) >= SOFTER * size(&before) && after.score >= before.score - SCORE_KEPT;
        if worse || !better || best.as_ref().is_some_and(|(score, ..)| after.score <= *score + SCORE_KEPT) {
            continue;
        }
        let moved = Corner::of(&candidate)?;
        let at = moved.role(Role::Key).next()?.position_m;
        let units = plan.brief.units;
        let label = format!(
            "Bring the same {name} to {} from the eyes, {} high",
            units.length((at - moved.eyes_m).length()),
            units.length(at.z)
        );
        best = Some((after.score, label, candidate, after));
    }
    let (_, label, candidate, after) = best?;
    candidate.check().ok()?;
    Some(Fix { label, patch: change(plan, &candidate), changes: changes(&before.readings, &after.readings) })
}

fn blocking(assessment: &Assessment) -> Vec<Topic> {
    assessment.findings.iter().filter(|f| f.severity != Severity::Consider).map(|f| f.id.clone()).collect()
}

/// The fix, if the candidate removes the finding and brings none in its place that is as bad, so that fixes never lead in a
/// circle: each leaves fewer findings than there were. A reading that is only a matter of taste is not mended at the cost of
/// the whole either.
fn judged(plan: &Plan, before: &Assessment, finding: &Finding, label: String, layout: Layout) -> Option<Fix> {
    if plan.layout.held_against(&layout).is_some() {
        return None;
    }
    let candidate = plan.with_layout(layout);
    let after = of_layout(&candidate.brief, &candidate.layout);
    let was =
        |new: &Finding| before.findings.iter().any(|old| old.id == new.id && old.severity <= new.severity);
    let is_taste = finding.severity == Severity::Consider;
    // A dial more to set takes a moment more: that is never in the way of a move.
    let takes_time = Topic::from(Quantity::ReadyCornerTimeS);
    let counts = |new: &Finding| new.severity != Severity::Consider || is_taste && new.id != takes_time;
    let in_its_place = after.findings.iter().any(|new| counts(new) && !was(new));
    let is_gone = after.findings.iter().all(|new| new.id != finding.id);
    let is_banded = matches!(&finding.id, Topic::Reading(reading) if reading.quantity.banded().is_some());
    let costs = is_taste && is_banded && after.score < before.score - SCORE_KEPT;
    if !is_gone || in_its_place || costs {
        return None;
    }
    candidate.check().ok()?;
    let changes = changes(&before.readings, &after.readings);
    Some(Fix { label, patch: change(plan, &candidate), changes })
}

/// Readings that differ by more than rounding.
pub fn changes(before: &[Reading], after: &[Reading]) -> Vec<Change> {
    let mut all = Vec::new();
    for new in after {
        let old = before.iter().find(|r| r.id == new.id).and_then(|r| r.value);
        let moved = match (old, new.value) {
            (Some(a), Some(b)) => (a - b).abs() > 5e-3 * a.abs().max(b.abs()).max(0.02),
            (a, b) => a != b,
        };
        if moved {
            all.push(Change {
                reading: new.id.to_string(),
                label: new.label.clone().into_owned(),
                from: old,
                to: new.value,
                unit: new.unit,
            });
        }
    }
    all
}

fn candidates<'a>(corner: &'a Corner<'a>, finding: &Finding) -> Candidates<'a> {
    match &finding.id {
        Topic::Broken(rule, thing) => of_rule(corner, *rule, &thing.id),
        Topic::Reading(reading) => of_reading(corner, reading, finding),
        Topic::Hot(lamp) => moved_thing(corner, &lamp.id),
        Topic::Note(Note::MixedLight) => one_colour(corner),
        Topic::Note(Note::BackdropEdge | Note::HairAlike) => other_aperture(corner, true),
        Topic::Missing(Missing::Need(thing, _)) if thing.id == ThingId::Microphone => {
            other_microphone(corner)
        }
        Topic::Missing(_) | Topic::Jump(_) | Topic::Note(_) => none(),
    }
}

fn of_rule<'a>(corner: &'a Corner<'a>, rule: Rule, thing: &ThingId) -> Candidates<'a> {
    match rule {
        Rule::Support => Box::new(sandbag(corner, thing).chain(refooted(corner, thing))),
        Rule::Picture | Rule::Collision | Rule::Door | Rule::Room | Rule::Near | Rule::Sight => {
            moved_thing(corner, thing)
        }
        Rule::Exit | Rule::Way | Rule::Camera | Rule::Mains | Rule::Gear | Rule::Lens => none(),
    }
}

fn of_reading<'a>(corner: &'a Corner<'a>, reading: &ReadingId, finding: &Finding) -> Candidates<'a> {
    let low = finding.evidence.first().and_then(|e| e.value).is_some_and(|v| v < 1.0);
    // The thing that a reading of several is told of.
    let named = || thing_named(corner.brief, corner.layout, reading.thing.as_deref()?);
    match reading.quantity {
        Quantity::ShotSeatGazeDeg => gaze(corner),
        Quantity::ShotFocusFrontToleranceM => stopped_down(corner),
        Quantity::ShotExposureFlickerPercent => whole_pulses(corner),
        Quantity::ShotBackgroundBlurPercent => other_aperture(corner, low),
        Quantity::ShotFrameHeightErrorPercent
        | Quantity::ShotFrameHeadroomFraction
        | Quantity::ShotFrameEyeLineError
        | Quantity::ShotFrameShoulderFraction
        | Quantity::ShotFrameLookRoomFraction
        | Quantity::ShotCameraViewAngleDeg
        | Quantity::ShotCameraDistanceM => reframed(corner),
        Quantity::LightFaceExposureStops => exposed(corner),
        Quantity::LightFaceRatio => refilled(corner),
        Quantity::LightKeyAzimuthDeg
        | Quantity::LightKeyElevationDeg
        | Quantity::LightKeyAngularSizeDeg
        | Quantity::LightKeyCatchlightMm => moved_role(corner, Role::Key),
        // The only back light is called so whatever its id.
        Quantity::LightFlareMarginDeg => {
            let lights = corner.role(Role::Back).count();
            match named().filter(|_| lights > 1) {
                Some(thing) => moved_thing(corner, &thing),
                None => moved_role(corner, Role::Back),
            }
        }
        Quantity::LightGlarePercent => named().map_or_else(none, |thing| cleared(corner, &thing)),
        Quantity::LightHighlightStops => named().map_or_else(none, |thing| dimmed(corner, &thing, finding)),
        Quantity::LightFaceSocketStops => Box::new(ceiling_off(corner).chain(moved_role(corner, Role::Key))),
        Quantity::LightHotSpotStops => named().map_or_else(none, |thing| lamp_back(corner, &thing)),
        Quantity::LightFaceWhiteBalanceMired => balanced(corner),
        Quantity::LightPowerInHandStops => other_aperture(corner, true),
        Quantity::SoundMicrophoneDistanceM
        | Quantity::SoundMicrophoneGainOverCameraDb
        | Quantity::SoundMicrophoneSnrDb
        | Quantity::SoundMicrophoneSpeechTransmissionIndex
        | Quantity::SoundMicrophoneDeskReflectionDb => moved_microphone(corner),
        _ => none(),
    }
}
