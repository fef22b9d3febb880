//! Dimming to exposure: the dial of every lamp that gives the settings their light and the face its ratio, and what would
//! mend a lack of power.

use super::field::LightField;
use super::{AREA_FORMULA, needed_lx};
use crate::corner::Corner;
use crate::exposure::full_frame_iso;
use crate::geometry::nearest_outside_m;
use crate::plan::{Id, LightSchool, Role, ThingId};
use crate::reading::{Origin, Quantity, Reading};

/// Noise of this ISO on full frame is where grain begins to show; the band's own limit.
pub const GRAIN_ISO: f64 = 6400.0;
/// A key is brought nearer by this part of its distance at most before another lens opening is the smaller change.
const NEARER_MOST: f64 = 0.25;

/// The ratio that a fill is set for: the middle of its band in stops; from both sides nearly even.
pub fn wanted_ratio(school: LightSchool) -> f64 {
    if school == LightSchool::Even { 1.2 } else { 2.8 }
}

/// What would mend a lack of light, the smallest first.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Change {
    /// The key so near, m.
    Nearer(f64),
    /// The lens opened to this f-number.
    Open(f64),
    /// This ISO, with its grain.
    Iso(f64),
    /// A lamp of so many times the light.
    Stronger(f64),
}

/// How far the lamps carry.
#[derive(Debug, Clone, PartialEq)]
pub struct Power {
    /// All dials at full (in their balance), at the highest ISO before grain: beyond what is needed, stops.
    pub in_hand_stops: f64,
    /// What would mend it, where that is below 0.
    pub changes: Vec<Change>,
}

/// Highest ISO of the camera whose noise stays that of `GRAIN_ISO` on full frame, and at least its lowest.
pub fn iso_before_grain(corner: &Corner<'_>) -> f64 {
    let (width, height) = corner.image_mm;
    let per_iso = full_frame_iso(1.0, width, height);
    (GRAIN_ISO / per_iso).min(corner.body.iso_max).max(corner.body.iso_min)
}

/// The part of the light on the face that goes with the dials: all but the windows'.
fn of_lamps_lx(lit: &LightField<'_>) -> f64 {
    (lit.at_face().camera_lx - lit.windows_lx()).max(0.0)
}

/// `None` where no lamp shines.
pub fn power(lit: &LightField<'_>) -> Option<Power> {
    let corner = lit.corner();
    let brightest = lit.lamps_lx().map(|(light, _)| light.light.dim).fold(0.0, f64::max);
    let key = corner.role(Role::Key).next();
    let dial = key.map_or(brightest, |key| key.light.dim);
    let of_lamps = of_lamps_lx(lit);
    if dial <= 0.0 || of_lamps <= 0.0 {
        return None;
    }
    let camera = &corner.layout.camera;
    let (iso, full_lx) = (iso_before_grain(corner), lit.windows_lx() + of_lamps / dial);
    let needed = needed_lx(corner) * camera.iso / iso;
    let in_hand_stops = (full_lx / needed).log2();
    let mut changes = Vec::new();
    if in_hand_stops < 0.0 {
        let lack = -in_hand_stops;
        if let Some(key) = key {
            let seen = super::apparent::apparent(corner, key);
            let distance = seen.distance_m(corner);
            let wanted = distance * (-lack / 2.0).exp2();
            let direction = (seen.middle_m - corner.eyes_m).normalize_or_zero();
            let offsets = crate::corner::lamp_offsets(key, direction);
            let [right, left, top, _, behind] = corner.view.planes();
            let planes = [right, left, top, behind];
            let margin = super::placement::MARGIN_M;
            let nearest = nearest_outside_m(&planes, corner.eyes_m, direction, &offsets, margin);
            let free = nearest.map_or(f64::INFINITY, |m| m.max(super::placement::NEAREST_M));
            if !seen.bounced && wanted >= free && wanted > distance * (1.0 - NEARER_MOST) {
                changes.push(Change::Nearer(wanted));
            }
        }
        let open = camera.f_number * (-lack / 2.0).exp2();
        if open >= corner.lens.widest_f_number(camera.focal_length_mm) - 1e-9 {
            changes.push(Change::Open(open));
        }
        if iso * lack.exp2() <= corner.body.iso_max {
            changes.push(Change::Iso(iso * lack.exp2()));
        }
        changes.push(Change::Stronger(lack.exp2()));
    }
    Some(Power { in_hand_stops, changes })
}

/// Dial of every lamp at which the settings have their light and the face its ratio, 1 = full; more than it has where the
/// lamp is too weak. The room's part goes with all of them together.
pub fn dials(lit: &LightField<'_>) -> Vec<(Id, f64)> {
    let corner = lit.corner();
    let of_lamps = of_lamps_lx(lit);
    if of_lamps <= 0.0 {
        return Vec::new();
    }
    let [lit_side, shadow_side] = lit.cheeks();
    let eyes = corner.eyes_m;
    let fill = lit.lamps_lx().map(|(light, _)| light).find(|light| light.light.role == Role::Fill);
    // How many times its present light the fill has to give.
    let mut fill_times = 1.0;
    let mut fill_adds_lx = 0.0;
    if let Some(fill) = fill.filter(|fill| fill.light.dim > 0.0) {
        let (a, b) = (lit.light_lx(fill, eyes, lit_side), lit.light_lx(fill, eyes, shadow_side));
        let face = lit.at_face();
        let ratio = wanted_ratio(corner.brief.schools.lights);
        let (rest_lit, rest_shadow) = (face.lit_lx - a, face.shadow_lx - b);
        let times = (rest_lit - ratio * rest_shadow) / (ratio * b - a);
        if times.is_finite() && ratio * b > a {
            fill_times = times.max(0.0);
            let straight = lit.lamps_lx().find(|(light, _)| light.id == fill.id).map_or(0.0, |(_, lux)| lux);
            fill_adds_lx = (fill_times - 1.0) * straight;
        }
    }
    let times = (needed_lx(corner) - lit.windows_lx()).max(0.0) / (of_lamps + fill_adds_lx).max(1e-9);
    lit.lamps_lx()
        .filter(|(light, _)| matches!(light.light.role, Role::Key | Role::Fill | Role::Back))
        .map(|(light, _)| {
            let own = if fill.is_some_and(|fill| fill.id == light.id) { fill_times } else { 1.0 };
            (light.id.clone(), light.light.dim * own * times)
        })
        .collect()
}

pub(super) fn readings(lit: &LightField<'_>) -> Vec<Reading> {
    let Some(power) = power(lit) else { return Vec::new() };
    let corner = lit.corner();
    let mut all = vec![
        Reading::new(Quantity::LightPowerInHandStops, power.in_hand_stops)
            .by(
                "log2(light with the key at full / light needed at the highest ISO before grain)",
                "ISO 2720:1974, C = 250 (from memory); ISO 6400 on full frame: Fogon's own rule",
            )
            .with("light on the face", lit.at_face().camera_lx, "lx", Origin::Computed)
            .with("light needed at this ISO", needed_lx(corner), "lx", Origin::Computed)
            .with("highest ISO before grain", iso_before_grain(corner), "", Origin::Computed)
            .within(0.3)
            .note("All lamps raised together, in the balance that they have."),
    ];
    for (id, dial) in dials(lit) {
        let now = corner.lights.iter().find(|l| *l.id == id).map_or(0.0, |l| l.light.dim);
        let light = ThingId::Light(id);
        let reading = Reading::of(Quantity::LightDialPercent, corner.name(&light), 100.0 * dial)
            .by("dial now x light needed / light on the face; the fill for its ratio first", AREA_FORMULA)
            .with("dial now", 100.0 * now, "%", Origin::Typed)
            .with("light needed", needed_lx(corner), "lx", Origin::Computed)
            .with("wanted ratio", wanted_ratio(corner.brief.schools.lights), ": 1", Origin::Computed)
            .within(20.0 * dial)
            .note(if dial > 1.005 {
                "More than the lamp has: bring it nearer, open the lens, raise the ISO, or use a stronger one."
            } else {
                "For these settings of the camera."
            });
        all.push(reading.called(format!("Dial of the {} for these settings", light.words())));
    }
    all
}
