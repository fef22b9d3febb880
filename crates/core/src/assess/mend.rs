//! Moves that mend findings. Each candidate is applied and judged again; it is offered only if the finding is
//! gone and no new stop or fix has come.

use super::carry::{fill_bag, millimetre, rounded, supports_for};
use super::legal::Rules;
use super::{Assessment, of_layout};
use crate::corner::{
    Corner, LightAt, Source, is_worn, light_direction, light_thing, microphone_thing, works,
};
use crate::exposure::{CALIBRATION, iso_on_dial, shutter_s, white_balance_on_dial};
use crate::finding::{Finding, Missing, Note, Rule, Severity, Topic};
use crate::geometry::{DVec3, bearing_of};
use crate::light::LightReport;
use crate::plan::{
    Fix, Gel, Id, Layout, Light, Plan, Role, Support, SupportKind, ThingId, change, thing_named,
};
use crate::reading::{Change, Quantity, Reading, ReadingId};
use crate::shot::framing;
use crate::sound::placement;

/// Candidates judged for one finding; the first that holds is offered.
const JUDGED: usize = 40;

/// What a candidate says it does, and the layout it leads to.
type Candidate = (String, Layout);
type Candidates<'a> = Box<dyn Iterator<Item = Candidate> + 'a>;

/// Fills in `fix` where a move mends the finding.
pub(super) fn offer_moves(plan: &Plan, assessment: &mut Assessment) {
    let Some(corner) = Corner::of(plan) else { return };
    let before = blocking(assessment);
    let readings = std::mem::take(&mut assessment.readings);
    for finding in &mut assessment.findings {
        for (label, layout) in candidates(&corner, finding).take(JUDGED) {
            if let Some(fix) = judged(plan, &before, &readings, finding, label, layout) {
                finding.fix = Some(fix);
                finding.advice = "".into();
                break;
            }
        }
    }
    assessment.readings = readings;
}

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
    let name = key.id.words();
    let mut best: Option<(f64, String, Plan, Assessment)> = None;
    for (_, layout) in moved_light(&corner, key).take(JUDGED) {
        if plan.layout.held_against(&layout).is_some() {
            continue;
        }
        let candidate = plan.with_layout(layout);
        let after = of_layout(&candidate.brief, &candidate.layout);
        let worse = blocking(&after).iter().any(|id| !blocked.contains(id));
        let better = size(&after) >= SOFTER * size(&before) && after.score >= before.score - 1e-9;
        if worse || !better || best.as_ref().is_some_and(|(score, ..)| after.score <= *score + 1e-9) {
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

/// The fix, if the candidate removes the finding and adds no stop and no fix.
fn judged(
    plan: &Plan,
    before: &[Topic],
    readings: &[Reading],
    finding: &Finding,
    label: String,
    layout: Layout,
) -> Option<Fix> {
    if plan.layout.held_against(&layout).is_some() {
        return None;
    }
    let candidate = plan.with_layout(layout);
    let after = of_layout(&candidate.brief, &candidate.layout);
    if after.findings.iter().any(|f| f.id == finding.id)
        || blocking(&after).iter().any(|id| !before.contains(id))
    {
        return None;
    }
    candidate.check().ok()?;
    Some(Fix { label, patch: change(plan, &candidate), changes: changes(readings, &after.readings) })
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

fn none<'a>() -> Candidates<'a> {
    Box::new(std::iter::empty())
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

/// The white balance set to the light on the face, on a dial of steps of 50 K.
fn balanced<'a>(corner: &'a Corner<'a>) -> Candidates<'a> {
    let Some(mixture) = LightReport::of(corner).and_then(|lit| lit.mixture().map(|m| m.cct_k)) else {
        return none();
    };
    let mut layout = corner.layout.clone();
    layout.camera.white_balance_k = white_balance_on_dial(mixture);
    one(format!("Set the white balance to {:.0} K", layout.camera.white_balance_k), layout)
}

/// Another microphone at hand that works as it is, worn or in the place of this one.
fn other_microphone<'a>(corner: &'a Corner<'a>) -> Candidates<'a> {
    let Some(used) = &corner.layout.microphone else { return none() };
    let works = |id: &Id| *id != used.gear && works(corner.brief, id);
    let others = corner.brief.gear.iter().filter(move |(id, gear)| gear.at_hand() && works(id));
    Box::new(others.filter_map(|(id, gear)| Some((id, gear.microphone()?))).flat_map(move |(id, gear)| {
        let label = format!("Use the {} instead", gear.common.label);
        let places = placement::places(corner, gear, 1.0).into_iter();
        let worn = is_worn(gear.mounting);
        let places: Vec<DVec3> =
            places.take(1).filter(|_| worn).chain((!worn).then(|| used.position_m.into())).collect();
        places.into_iter().map(move |place| {
            let mut layout = corner.layout.clone();
            if let Some(microphone) = layout.microphone.as_mut() {
                microphone.gear = id.clone();
                microphone.position_m = rounded(place);
                if worn {
                    microphone.support = Support::none();
                }
            }
            (label.clone(), layout)
        })
    }))
}

fn one(label: String, layout: Layout) -> Candidates<'static> {
    Box::new(std::iter::once((label, layout)))
}

/// Lamps that count brought to the key's colour: by their own setting where they have it, else by a foil.
fn one_colour<'a>(corner: &'a Corner<'a>) -> Candidates<'a> {
    let Some(key) = corner.role(Role::Key).next() else { return none() };
    let wanted = key.cct_k();
    let set = |layout: &mut Layout, id: &Id, cct_k: f64, gel: Option<Gel>| {
        if let Some(light) = layout.lights.get_mut(id) {
            (light.cct_k, light.gel) = (Some(cct_k), gel);
        }
    };
    let others = corner.lights.iter().filter(move |l| l.id != key.id && !crate::light::coloured::is_apart(l));
    Box::new(others.flat_map(move |light| {
        let Source::Lamp(lamp) = light.source else { return Vec::new() };
        let name = light.id.words();
        let own = wanted.clamp(lamp.cct_min_k, lamp.cct_max_k);
        let mut all = Vec::new();
        let mut by_setting = corner.layout.clone();
        set(&mut by_setting, light.id, own, None);
        all.push((format!("Set the {name} to {own:.0} K"), with_iso(corner, by_setting)));
        for gel in Gel::ALL {
            let mut by_foil = corner.layout.clone();
            set(&mut by_foil, light.id, light.light.cct_k.unwrap_or(own), Some(gel));
            all.push((format!("Put {} before the {name}", gel.label()), with_iso(corner, by_foil)));
        }
        all
    }))
}

/// A lamp of the room itself, at the ceiling, switched off.
fn ceiling_off<'a>(corner: &'a Corner<'a>) -> impl Iterator<Item = Candidate> + 'a {
    corner.lights.iter().filter(|light| crate::corner::is_of_the_house(light)).map(move |light| {
        let mut layout = corner.layout.clone();
        layout.lights.remove(light.id);
        (format!("Switch the {} off", light.id.words()), with_iso(corner, layout))
    })
}

/// A lamp further behind its cloth.
fn lamp_back<'a>(corner: &'a Corner<'a>, thing: &ThingId) -> Candidates<'a> {
    let ThingId::Light(id) = thing.clone() else { return none() };
    let label = id.words();
    Box::new([1.25, 1.5, 1.65, 1.8, 2.0, 2.3, 2.6].into_iter().filter_map(move |times| {
        let mut layout = corner.layout.clone();
        let cloth = layout.lights.get_mut(&id)?.cloth.as_mut()?;
        cloth.ahead_m = millimetre(cloth.ahead_m * times);
        let behind = corner.brief.units.length(cloth.ahead_m);
        Some((format!("Move the lamp of the {label} to {behind} behind its cloth"), with_iso(corner, layout)))
    }))
}

/// A practical lamp dimmed to where it reads well.
fn dimmed<'a>(corner: &'a Corner<'a>, thing: &ThingId, finding: &Finding) -> Candidates<'a> {
    let ThingId::Light(id) = thing else { return none() };
    let over = finding.evidence.first().and_then(|e| e.value).unwrap_or(0.0);
    let mut layout = corner.layout.clone();
    let Some(light) = layout.lights.get_mut(id) else { return none() };
    light.dim =
        ((light.dim * (super::words::PRACTICAL_STOPS - over).exp2() * 100.0).round() / 100.0).max(0.01);
    one(format!("Dim the {} to {:.0} %", id.words(), light.dim * 100.0), layout)
}

fn sandbag<'a>(corner: &'a Corner<'a>, thing: &ThingId) -> Candidates<'a> {
    let mut layout = corner.layout.clone();
    fill_bag(corner.brief, &mut layout, thing);
    let kg = match thing {
        ThingId::Backdrop => layout.backdrop.as_ref().map_or(0.0, |backdrop| backdrop.sandbag_kg),
        _ => layout.support_mut(thing).map_or(0.0, |support| support.sandbag_kg),
    };
    let mass = corner.brief.units.mass(kg);
    let where_to = if *thing == ThingId::Backdrop { "each stand" } else { "the rear leg of the stand" };
    one(format!("Hang {mass} on {where_to} of the {}", thing.words()), layout)
}

/// The foot of a stand where it can hold its thing: plumb under it, or within reach of an arm.
fn refooted<'a>(corner: &'a Corner<'a>, thing: &ThingId) -> Candidates<'a> {
    let Some(carried) = corner.carried().into_iter().find(|carried| carried.id == *thing) else {
        return none();
    };
    let thing = thing.clone();
    let label = format!("Move the foot of the {}'s stand to where it carries it", thing.words());
    let feet = supports_for(corner, carried.support, carried.hold_m, corner.eyes_m.truncate(), 1.0);
    Box::new(feet.into_iter().map(move |support| {
        let mut layout = corner.layout.clone();
        if let Some(carried) = layout.support_mut(&thing) {
            *carried = support;
        }
        fill_bag(corner.brief, &mut layout, &thing);
        (label.clone(), layout)
    }))
}

fn gaze<'a>(corner: &'a Corner<'a>) -> Candidates<'a> {
    let mut layout = corner.layout.clone();
    let side = if layout.seat.gaze_offset_deg < 0.0 { -1.0 } else { 1.0 };
    layout.seat.gaze_offset_deg = 8.0 * side;
    one("Put the reader 8 degrees beside the lens".into(), layout)
}

/// With the exposure made good again by ISO.
fn with_iso(before: &Corner<'_>, mut layout: Layout) -> Layout {
    let brief = before.brief.after_change(before.layout, &layout);
    let iso = Corner::from_parts(&brief, &layout).map(|corner| {
        let camera = &corner.layout.camera;
        let computed = crate::light::field::at_face(&corner);
        let (lit, _) = crate::light::field::towards_lens_lx(&corner, &computed);
        let stops = camera.nd_stops + corner.glass_stops();
        let wanted = CALIBRATION * camera.f_number.powi(2) * stops.exp2() / (camera.shutter_s * lit);
        iso_on_dial(wanted, corner.body.iso_min, corner.body.iso_max)
    });
    if let Some(iso) = iso.filter(|iso| iso.is_finite()) {
        layout.camera.iso = iso;
    }
    layout
}

/// The f-numbers of third-stop dials that the lens has at this focal length.
fn apertures(corner: &Corner<'_>) -> impl Iterator<Item = f64> {
    let widest = corner.lens.widest_f_number(corner.layout.camera.focal_length_mm);
    let limit = corner.lens.f_number_limit;
    std::iter::once(widest)
        .chain(
            [1.4, 1.8, 2.0, 2.2, 2.5, 2.8, 3.5, 4.0, 5.6, 8.0, 11.0].into_iter().filter(move |n| *n > widest),
        )
        .filter(move |n| *n <= limit)
}

fn stopped_down<'a>(corner: &'a Corner<'a>) -> Candidates<'a> {
    let mut refocused = corner.layout.clone();
    refocused.camera.focus_distance_m = millimetre(corner.subject_distance_m());
    let stops = apertures(corner).filter(|n| *n > corner.layout.camera.f_number).collect::<Vec<_>>();
    let first = one("Focus on the eyes".to_owned(), refocused.clone());
    Box::new(first.chain(stops.into_iter().map(move |n| {
        let mut layout = refocused.clone();
        layout.camera.f_number = n;
        (format!("Stop down to f/{n}"), with_iso(corner, layout))
    })))
}

/// The shutter nearest to half the frame at which lamps on the mains do not flicker.
fn whole_pulses<'a>(corner: &'a Corner<'a>) -> Candidates<'a> {
    let mut layout = corner.layout.clone();
    let rate = layout.camera.frame_rate_hz;
    layout.camera.shutter_s = shutter_s(corner.brief.mains_frequency_hz().0, rate);
    one(format!("Set the shutter to 1/{:.0} s", 1.0 / layout.camera.shutter_s), with_iso(corner, layout))
}

/// Wider apertures for a background too sharp, smaller ones for one too soft, the nearest first.
fn other_aperture<'a>(corner: &'a Corner<'a>, too_sharp: bool) -> Candidates<'a> {
    let now = corner.layout.camera.f_number;
    let mut stops: Vec<f64> =
        apertures(corner).filter(|n| if too_sharp { *n < now } else { *n > now }).collect();
    if too_sharp {
        stops.reverse();
    }
    Box::new(stops.into_iter().map(move |n| {
        let mut layout = corner.layout.clone();
        layout.camera.f_number = n;
        (format!("Set f/{n}"), with_iso(corner, layout))
    }))
}

/// The zoom that frames from where the camera stands, then the whole pose at this and other focal lengths.
fn reframed<'a>(corner: &'a Corner<'a>) -> Candidates<'a> {
    let wanted = crate::shot::wanted_of(corner);
    let to_lens = bearing_of(corner.to_lens());
    let lens = corner.lens;
    let here = corner.subject_distance_m();
    let zoom = crate::shot::lens::focal_for_frame_mm(corner.image_mm.1, here, wanted.frame_height_m);
    let span = lens.focal_max_mm - lens.focal_min_mm;
    let focals = [zoom, corner.layout.camera.focal_length_mm]
        .into_iter()
        .chain((0..=8).map(move |i| lens.focal_min_mm + span * f64::from(i) / 8.0))
        .map(|focal| (focal * 10.0).round() / 10.0)
        .filter(|focal| *focal >= lens.focal_min_mm && *focal <= lens.focal_max_mm);
    Box::new(focals.map(move |focal| {
        let mut pose = framing::pose(corner.brief, &wanted, focal, corner.image_mm.1, corner.eyes_m, to_lens);
        let gaze = corner.layout.seat.gaze_offset_deg;
        let aside = wanted.aside_m(corner.brief, gaze, corner.image_mm.0 / corner.image_mm.1);
        pose.position_m += crate::geometry::bearing_vector(pose.bearing_deg + 90.0) * aside;
        let mut layout = corner.layout.clone();
        super::carry::set_pose(&mut layout.camera, &pose, focal);
        let units = corner.brief.units;
        let off = (pose.position_m - corner.eyes_m).length();
        let (distance, height) = (units.length(off), units.length(pose.position_m.z));
        let label = format!("Set the lens {distance} from the eyes, {height} high, at {focal:.0} mm");
        (label, with_iso(corner, layout))
    }))
}

fn exposed<'a>(corner: &'a Corner<'a>) -> Candidates<'a> {
    let by_iso = with_iso(corner, corner.layout.clone());
    let first = one(format!("Set ISO {}", by_iso.camera.iso), by_iso);
    let wider: Vec<f64> = apertures(corner).filter(|n| *n < corner.layout.camera.f_number).collect();
    let opened = wider.into_iter().rev().map(move |n| {
        let mut layout = corner.layout.clone();
        layout.camera.f_number = n;
        let layout = with_iso(corner, layout);
        (format!("Set f/{n} and ISO {}", layout.camera.iso), layout)
    });
    let dimmed = [0.7, 0.5, 0.35, 0.25, 0.15, 0.1, 0.05].into_iter().map(move |part| {
        let mut layout = corner.layout.clone();
        for light in layout.lights.values_mut() {
            light.dim = (light.dim * part * 100.0).round() / 100.0;
        }
        (format!("Dim all lamps to {:.0} % of now", part * 100.0), with_iso(corner, layout))
    });
    Box::new(first.chain(opened).chain(dimmed))
}

/// The fill's dial, then its place, then the key's.
fn refilled<'a>(corner: &'a Corner<'a>) -> Candidates<'a> {
    let dials = corner.role(Role::Fill).filter(|l| crate::light::is_lamp(l.source)).flat_map(move |fill| {
        [0.5, 0.35, 0.25, 0.15, 0.1, 0.05, 0.7, 1.0].into_iter().map(move |dim| {
            let mut layout = corner.layout.clone();
            if let Some(light) = layout.lights.get_mut(&fill.id.clone()) {
                light.dim = dim;
            }
            (format!("Set the fill to {:.0} %", dim * 100.0), with_iso(corner, layout))
        })
    });
    let fills = corner.role(Role::Fill).flat_map(move |fill| moved_light(corner, fill).take(JUDGED / 3));
    Box::new(dials.chain(fills).chain(moved_role(corner, Role::Key)))
}

fn moved_role<'a>(corner: &'a Corner<'a>, role: Role) -> Candidates<'a> {
    match corner.role(role).next() {
        Some(light) => moved_light(corner, light),
        None => none(),
    }
}

/// Every legal place that geometry suggests for a light or the microphone: a light's nearest to where it is, a
/// microphone's nearest to the mouth.
fn moved_thing<'a>(corner: &'a Corner<'a>, thing: &ThingId) -> Candidates<'a> {
    match thing {
        ThingId::Microphone => moved_microphone(corner),
        ThingId::Light(id) => match corner.lights.iter().find(|light| light.id == id) {
            Some(light) => moved_light(corner, light),
            None => none(),
        },
        _ => none(),
    }
}

fn moved_microphone<'a>(corner: &'a Corner<'a>) -> Candidates<'a> {
    let (Some((gear, _)), Some(used)) = (corner.microphone, &corner.layout.microphone) else {
        return none();
    };
    let others: Vec<_> =
        crate::corner::things(corner).into_iter().filter(|t| t.id != ThingId::Microphone).collect();
    let places = placement::places(corner, gear, 1.0);
    Box::new(places.into_iter().flat_map(move |place| {
        let mut trial = corner.clone();
        trial.microphone = Some((gear, place));
        let rules = Rules::new(&trial);
        let legal: Vec<Support> = supports_for(corner, &used.support, place, corner.eyes_m.truncate(), 1.0)
            .into_iter()
            .filter(|s| rules.allows(&microphone_thing(&trial, gear, place, s), &others))
            .take(2)
            .collect();
        let distance = corner.brief.units.length((place - corner.mouth_m).length());
        legal.into_iter().map(move |support| {
            let mut layout = corner.layout.clone();
            if let Some(microphone) = layout.microphone.as_mut() {
                microphone.position_m = rounded(place);
                microphone.support = support;
            }
            fill_bag(corner.brief, &mut layout, &ThingId::Microphone);
            (format!("Bring the microphone to {distance} from the mouth"), layout)
        })
    }))
}

fn moved_light<'a>(corner: &'a Corner<'a>, light: &'a LightAt<'a>) -> Candidates<'a> {
    let support = &light.light.support;
    let mut places: Vec<DVec3> = [1.0, -1.0]
        .into_iter()
        .flat_map(|side| crate::light::placement::places(corner, light, light.light.role, side))
        .filter(|place| !place.needs_arm || support.kind != SupportKind::Floor)
        .map(|place| place.position_m)
        .collect();
    places.sort_by(|a, b| (*a - light.position_m).length().total_cmp(&(*b - light.position_m).length()));
    light_to(corner, light, places)
}

/// A lamp out of the glasses by the smallest move: raised, then further aside.
fn cleared<'a>(corner: &'a Corner<'a>, thing: &ThingId) -> Candidates<'a> {
    let found = crate::light::mirrored::mirrored(corner).into_iter().find(|m| m.id == *thing);
    let Some(light) = found.as_ref().and_then(|m| m.light) else {
        return none();
    };
    let (azimuth, elevation) = corner.light_angles_deg(light.position_m);
    let distance = (light.position_m - corner.eyes_m).length();
    let clear = found.and_then(|m| m.clear_elevation_deg).unwrap_or(elevation);
    let at = |azimuth: f64, elevation: f64, stretch: f64| {
        corner.eyes_m + light_direction(corner.to_lens(), azimuth, elevation) * distance * stretch
    };
    let raised = [0.5, 2.0, 4.0].into_iter().flat_map(move |more| {
        [1.0, 1.1, 1.25].map(|stretch| at(azimuth, clear.max(elevation) + more, stretch))
    });
    let aside = [5.0, 10.0, 15.0, 20.0].into_iter().flat_map(move |more| {
        [1.0, 1.1].map(|stretch| at(azimuth + more * azimuth.signum(), elevation, stretch))
    });
    let mut places: Vec<DVec3> = raised.chain(aside).collect();
    places.sort_by(|a, b| (*a - light.position_m).length().total_cmp(&(*b - light.position_m).length()));
    light_to(corner, light, places)
}

/// A light at the first legal of some places, and the next.
fn light_to<'a>(corner: &'a Corner<'a>, light: &'a LightAt<'a>, places: Vec<DVec3>) -> Candidates<'a> {
    let others: Vec<_> = crate::corner::things(corner)
        .into_iter()
        .filter(|t| t.id != ThingId::Light(light.id.clone()))
        .collect();
    let support = &light.light.support;
    let rules = Rules::new(corner);
    Box::new(places.into_iter().flat_map(move |place| {
        let hold = LightAt { position_m: place, aim_m: corner.eyes_m, ..*light }.hold_m();
        let legal: Vec<Light> = supports_for(corner, support, hold, corner.eyes_m.truncate(), 1.0)
            .into_iter()
            .map(|support| Light {
                position_m: rounded(place),
                aim_m: Some(rounded(corner.eyes_m)),
                support,
                ..light.light.clone()
            })
            .filter(|moved| {
                let at = LightAt { light: moved, position_m: place, aim_m: corner.eyes_m, ..*light };
                rules.allows(&light_thing(corner, &at), &others)
            })
            .take(2)
            .collect();
        let (azimuth, _) = corner.light_angles_deg(place);
        let side = if azimuth < 0.0 { "left" } else { "right" };
        let height = corner.brief.units.length(place.z);
        let label = format!(
            "Move the {} to {:.0} degrees camera {side}, {height} high",
            light.id.words(),
            azimuth.abs()
        );
        legal.into_iter().map(move |moved| {
            let mut layout = corner.layout.clone();
            layout.lights.insert(light.id.clone(), moved);
            fill_bag(corner.brief, &mut layout, &ThingId::Light(light.id.clone()));
            (label.clone(), with_iso(corner, layout))
        })
    }))
}
