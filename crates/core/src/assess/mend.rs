//! Moves that mend findings. Each candidate is applied and judged again; it is offered only if the finding is
//! gone and no new stop or fix has come.

use super::carry::{millimetre, rounded};
use super::{Assessment, without_moves};
use crate::corner::Corner;
use crate::exposure::{CALIBRATION, iso_on_dial};
use crate::finding::{Finding, Severity};
use crate::geometry::{DVec3, bearing_of};
use crate::plan::{Fix, Id, Plan, Role, SupportKind, change};
use crate::reading::{Change, Reading};
use crate::shot::framing;

/// Candidates tried for one finding; the first that holds is offered.
const TRIES: usize = 160;

/// Fills in `fix` where a move mends the finding.
pub(super) fn offer_moves(plan: &Plan, assessment: &mut Assessment) {
    let before = assessment.clone();
    for finding in &mut assessment.findings {
        for (label, candidate) in candidates(plan, finding).into_iter().take(TRIES) {
            if let Some(fix) = judged(plan, &before, finding, label, &candidate) {
                finding.fix = Some(fix);
                finding.advice = "".into();
                break;
            }
        }
    }
}

/// The fix, if the candidate removes the finding and adds no stop and no fix.
fn judged(
    plan: &Plan,
    before: &Assessment,
    finding: &Finding,
    label: String,
    candidate: &Plan,
) -> Option<Fix> {
    if candidate.check().is_err() {
        return None;
    }
    let after = without_moves(candidate);
    let still = after.findings.iter().any(|f| f.id == finding.id && f.severity <= finding.severity);
    let blocking = |a: &Assessment| -> Vec<String> {
        a.findings.iter().filter(|f| f.severity != Severity::Consider).map(|f| f.id.clone()).collect()
    };
    let had = blocking(before);
    if still
        || after.findings.iter().any(|f| f.id == finding.id)
        || blocking(&after).iter().any(|id| !had.contains(id))
    {
        return None;
    }
    Some(Fix { label, patch: change(plan, candidate), changes: changes(&before.readings, &after.readings) })
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
                reading: new.id.clone().into_owned(),
                label: new.label.clone().into_owned(),
                from: old,
                to: new.value,
                unit: new.unit,
            });
        }
    }
    all
}

fn candidates(plan: &Plan, finding: &Finding) -> Vec<(String, Plan)> {
    let Some(corner) = Corner::of(plan) else { return Vec::new() };
    let id = finding.id.as_str();
    let parts: Vec<&str> = id.split('.').collect();
    match (parts[0], parts.get(1).copied(), parts.get(2).copied()) {
        ("legal", Some("support"), Some(thing)) => sandbag(plan, &corner, thing),
        ("legal", Some("picture" | "collision" | "door" | "room" | "near" | "sight"), Some(thing)) => {
            moved_thing(plan, &corner, thing)
        }
        ("shot", Some("seat"), _) => gaze(plan),
        ("shot", Some("focus"), _) => stopped_down(plan, &corner),
        ("shot", Some("background"), _) => other_aperture(plan, &corner),
        ("shot", Some("exposure"), _) => Vec::new(),
        ("shot", Some("frame" | "camera"), _) => reframed(plan, &corner),
        ("light", Some("face"), Some("exposure_stops")) => exposed(plan, &corner),
        ("light", Some("face"), Some("ratio")) => refilled(plan, &corner),
        ("light", Some("key"), Some(_)) => moved_role(plan, &corner, Role::Key),
        ("light", Some(thing), Some("flare_margin_deg")) => {
            let role_id = corner.lights.iter().find(|l| l.id == thing).map(|l| l.id.to_owned());
            match role_id {
                Some(id) => moved_thing(plan, &corner, &id),
                None => moved_role(plan, &corner, Role::Back),
            }
        }
        ("light", Some(thing), Some("hot")) => moved_thing(plan, &corner, thing),
        ("sound", Some("microphone"), _) => moved_thing(plan, &corner, "microphone"),
        _ => Vec::new(),
    }
}

fn sandbag(plan: &Plan, corner: &Corner<'_>, thing: &str) -> Vec<(String, Plan)> {
    let Some(state) = crate::room::sandbags(corner).into_iter().find(|s| s.thing == thing) else {
        return Vec::new();
    };
    let kg = super::carry::bag_kg(state.needed_kg);
    let mut changed = plan.clone();
    let support = match thing {
        "camera" => Some(&mut changed.layout.camera.support),
        "microphone" => changed.layout.microphone.as_mut().map(|m| &mut m.support),
        light => changed.layout.lights.get_mut(&Id::from(light)).map(|l| &mut l.support),
    };
    let Some(support) = support else { return Vec::new() };
    support.sandbag_kg = kg;
    vec![(format!("Hang {kg} kg on the rear leg of the {thing}'s stand"), changed)]
}

fn gaze(plan: &Plan) -> Vec<(String, Plan)> {
    let mut changed = plan.clone();
    let side = if plan.layout.seat.gaze_offset_deg < 0.0 { -1.0 } else { 1.0 };
    changed.layout.seat.gaze_offset_deg = 8.0 * side;
    vec![("Put the reader 8 degrees beside the lens".into(), changed)]
}

/// With the exposure made good again by ISO.
fn with_iso(mut plan: Plan) -> Plan {
    let iso = Corner::of(&plan).map(|corner| {
        let camera = &corner.layout.camera;
        let lit = crate::light::face::at_face(&corner).camera_lx;
        let wanted =
            CALIBRATION * camera.f_number.powi(2) * camera.nd_stops.exp2() / (camera.shutter_s * lit);
        iso_on_dial(wanted, corner.body.iso_min, corner.body.iso_max)
    });
    if let Some(iso) = iso.filter(|iso| iso.is_finite()) {
        plan.layout.camera.iso = iso;
    }
    plan
}

fn stopped_down(plan: &Plan, corner: &Corner<'_>) -> Vec<(String, Plan)> {
    let mut refocused = plan.clone();
    refocused.layout.camera.focus_distance_m = millimetre(corner.subject_distance_m());
    let mut all = vec![("Focus on the eyes".to_owned(), refocused.clone())];
    for stop in [1.4, 2.0, 2.8, 4.0, 5.6, 8.0, 11.0] {
        if stop > plan.layout.camera.f_number {
            let mut changed = refocused.clone();
            changed.layout.camera.f_number = stop;
            all.push((format!("Stop down to f/{stop}"), with_iso(changed)));
        }
    }
    all
}

fn other_aperture(plan: &Plan, corner: &Corner<'_>) -> Vec<(String, Plan)> {
    let widest = corner.lens.widest_f_number(plan.layout.camera.focal_length_mm);
    [4.0, 3.5, 2.8, 2.5, 2.2, 2.0, 1.8, 1.4, widest, 5.6, 8.0]
        .into_iter()
        .filter(|n| *n >= widest && *n <= corner.lens.f_number_limit)
        .map(|n| {
            let mut changed = plan.clone();
            changed.layout.camera.f_number = n;
            (format!("Set f/{n}"), with_iso(changed))
        })
        .collect()
}

/// Tilt and height first, then the whole pose, at this and at neighbouring focal lengths.
fn reframed(plan: &Plan, corner: &Corner<'_>) -> Vec<(String, Plan)> {
    let wanted = crate::shot::wanted_of(corner);
    let to_lens = bearing_of(corner.to_lens());
    let camera = &plan.layout.camera;
    let mut all = Vec::new();
    let span = corner.lens.focal_max_mm - corner.lens.focal_min_mm;
    // The focal length that frames from where the camera stands, so that only the zoom and the tilt change.
    let here = corner.subject_distance_m() * 1000.0;
    let zoom = here * corner.image_mm.1 / (wanted.frame_height_m * 1000.0 + corner.image_mm.1);
    let others = (0..=8).map(|i| corner.lens.focal_min_mm + span * f64::from(i) / 8.0);
    for focal in [zoom, camera.focal_length_mm].into_iter().chain(others) {
        let focal = (focal * 10.0).round() / 10.0;
        if focal < corner.lens.focal_min_mm || focal > corner.lens.focal_max_mm {
            continue;
        }
        let pose = framing::pose(&plan.brief, &wanted, focal, corner.image_mm.1, corner.eyes_m, to_lens);
        let mut changed = plan.clone();
        super::carry::set_pose(&mut changed.layout.camera, &pose, focal);
        let height = plan.brief.units.length(pose.position_m.z);
        let distance = plan.brief.units.length(pose.subject_distance_m);
        all.push((
            format!("Set the lens {distance} from the eyes, {height} high, at {focal:.0} mm"),
            with_iso(changed),
        ));
    }
    all
}

fn exposed(plan: &Plan, corner: &Corner<'_>) -> Vec<(String, Plan)> {
    let by_iso = with_iso(plan.clone());
    let iso = by_iso.layout.camera.iso;
    let mut all = vec![(format!("Set ISO {iso}"), by_iso)];
    let widest = corner.lens.widest_f_number(plan.layout.camera.focal_length_mm);
    for n in [2.8, 2.0, 1.8, widest] {
        if n >= widest && n < plan.layout.camera.f_number {
            let mut changed = plan.clone();
            changed.layout.camera.f_number = n;
            let changed = with_iso(changed);
            all.push((format!("Set f/{n} and ISO {}", changed.layout.camera.iso), changed));
        }
    }
    for dim in [0.7, 0.5, 0.35, 0.25, 0.15, 0.1, 0.05] {
        let mut changed = plan.clone();
        for light in changed.layout.lights.values_mut() {
            light.dim = (light.dim * dim * 100.0).round() / 100.0;
        }
        all.push((format!("Dim all lamps to {:.0} % of now", dim * 100.0), with_iso(changed)));
    }
    all
}

/// The fill's dial and distance, then the key's angle.
fn refilled(plan: &Plan, corner: &Corner<'_>) -> Vec<(String, Plan)> {
    let mut all = Vec::new();
    for fill in corner.role(Role::Fill) {
        for dim in [0.5, 0.35, 0.25, 0.15, 0.1, 0.05, 0.7, 1.0] {
            let mut changed = plan.clone();
            if let Some(light) = changed.layout.lights.get_mut(&Id::from(fill.id)) {
                light.dim = dim;
            }
            all.push((format!("Set the fill to {:.0} %", dim * 100.0), with_iso(changed)));
        }
        all.extend(moved_thing(plan, corner, fill.id));
    }
    all.extend(moved_role(plan, corner, Role::Key));
    all
}

fn moved_role(plan: &Plan, corner: &Corner<'_>, role: Role) -> Vec<(String, Plan)> {
    corner.role(role).next().map_or_else(Vec::new, |light| moved_thing(plan, corner, light.id))
}

/// Every place that geometry suggests for a light or microphone, nearest to where it is first.
fn moved_thing(plan: &Plan, corner: &Corner<'_>, thing: &str) -> Vec<(String, Plan)> {
    let units = plan.brief.units;
    let mut all: Vec<(f64, String, Plan)> = Vec::new();
    if thing == "microphone" {
        let (Some((gear, now)), Some(used)) = (corner.microphone, &plan.layout.microphone) else {
            return Vec::new();
        };
        for place in crate::sound::placement::places(corner, gear, 1.0) {
            for changed_support in
                super::carry::supports_for(corner, &used.support, place, corner.eyes_m.truncate(), 1.0)
            {
                let mut changed = plan.clone();
                if let Some(microphone) = changed.layout.microphone.as_mut() {
                    microphone.position_m = rounded(place);
                    microphone.support = changed_support;
                }
                super::carry::fill_bag(&mut changed, "microphone");
                let distance = units.length((place - corner.mouth_m).length());
                all.push((
                    (place - now).length(),
                    format!("Bring the microphone to {distance} from the mouth"),
                    changed,
                ));
            }
        }
        all.sort_by(|a, b| {
            let to_mouth = |p: &Plan| {
                p.layout
                    .microphone
                    .as_ref()
                    .map_or(0.0, |m| (DVec3::from(m.position_m) - corner.mouth_m).length())
            };
            to_mouth(&a.2).total_cmp(&to_mouth(&b.2)).then(a.0.total_cmp(&b.0))
        });
    } else if let Some(light) = corner.lights.iter().find(|l| l.id == thing) {
        let (azimuth, _) = corner.light_angles_deg(light.position_m);
        let side = if azimuth < 0.0 { -1.0 } else { 1.0 };
        for side in [side, -side] {
            for place in crate::light::placement::places(corner, light, light.light.role, side) {
                let support = &light.light.support;
                if place.needs_arm && support.kind == SupportKind::Floor {
                    continue;
                }
                for changed_support in super::carry::supports_for(
                    corner,
                    support,
                    light_hold(corner, light, place.position_m),
                    corner.eyes_m.truncate(),
                    1.0,
                ) {
                    let mut changed = plan.clone();
                    if let Some(entry) = changed.layout.lights.get_mut(&Id::from(thing)) {
                        entry.position_m = rounded(place.position_m);
                        entry.aim_m = Some(rounded(corner.eyes_m));
                        entry.support = changed_support;
                    }
                    super::carry::fill_bag(&mut changed, thing);
                    let (azimuth, _) = corner.light_angles_deg(place.position_m);
                    let where_to = if azimuth < 0.0 { "left" } else { "right" };
                    let label = format!(
                        "Move the {thing} to {:.0} degrees camera {where_to}, {} high",
                        azimuth.abs(),
                        units.length(place.position_m.z)
                    );
                    all.push(((place.position_m - light.position_m).length(), label, with_iso(changed)));
                }
            }
        }
        all.sort_by(|a, b| a.0.total_cmp(&b.0));
    }
    all.into_iter().map(|(_, label, plan)| (label, plan)).collect()
}

/// Where a light's body is held when its face is at `position`.
fn light_hold(corner: &Corner<'_>, light: &crate::corner::LightAt<'_>, position: DVec3) -> DVec3 {
    position + (position - corner.eyes_m).normalize_or_zero() * light.depth_m()
}
