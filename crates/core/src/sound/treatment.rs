//! What against the echo: how many square metres of what reach the target, cheap things first, each with what it gains.

use serde::Serialize;
use utoipa::ToSchema;

use super::absorption::{Absorber, Absorption, air_m, surface_words};
use super::decay::absorption_for_m2;
use super::pickup::{MicrophonePlaced, Scene, pickup};
use super::reflections;
use super::reverberation::{BEST_S, words};
use crate::corner::Corner;
use crate::geometry::DVec3;
use crate::material::{Bands, material};
use crate::plan::{OpeningKind, WALL_NAMES};
use crate::reading::Origin;
use crate::units::UnitSystem;

/// Something people lay or hang: row of the table, what it is, how large a usual piece is, m2.
struct Usual {
    row: &'static str,
    words: fn(UnitSystem) -> String,
    m2: f64,
}

/// Cheapest first (common practice, no source).
const USUAL: [Usual; 7] = [
    Usual {
        row: "blanket_pleated",
        words: |units| format!("Packing blankets, pleated 2:1, {} off the wall", units.gap(0.10)),
        m2: 3.0,
    },
    Usual { row: "rug", words: |_| "A rug between you and the microphone".into(), m2: 4.0 },
    Usual {
        row: "curtain_heavy",
        words: |units| format!("A heavy curtain, gathered, {} off the window", units.gap(0.13)),
        m2: 4.0,
    },
    Usual { row: "bookcase", words: |_| "A full, uneven bookcase".into(), m2: 2.0 },
    Usual { row: "panel_50mm", words: |units| panels(units, 0.05), m2: 2.88 },
    Usual {
        row: "foam_50",
        words: |units| format!("Foam, {} thick, four pieces of {}", units.gap(0.05), units.area(1.0)),
        m2: 4.0,
    },
    Usual { row: "panel_100mm", words: |units| panels(units, 0.10), m2: 2.88 },
];

fn panels(units: UnitSystem, thick_m: f64) -> String {
    let (wide, high, thick) = (units.length(0.6), units.length(1.2), units.gap(thick_m));
    format!("Four panels of wool, {high} by {wide}, {thick} thick")
}

/// No more steps than this are told.
const STEPS: usize = 6;
/// A step that gains less than this is not worth telling, s.
const GAIN_S: f64 = 0.01;
/// A patch covers at least this much round a reflection, m.
const PATCH_M: f64 = 0.6;

/// What would bring the room to its target.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct TreatmentAdvice {
    /// Mean of 500 Hz and 1 kHz now, s.
    pub rt_mid_s: f64,
    /// In words.
    pub words: String,
    /// Where it should end, s.
    pub target_s: f64,
    /// Absorption that is missing at 500 Hz, 1 kHz or 2 kHz, whichever lacks most, m2; 0 where the room is there.
    pub missing_m2: f64,
    /// Each thing by itself.
    pub alone: Vec<TreatmentAlone>,
    /// Cheap things first, one after the other, until the target is met.
    pub steps: Vec<TreatmentStep>,
    /// Where to hang or lay it, first things first.
    pub places: Vec<TreatmentPlace>,
}

/// One thing by itself.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct TreatmentAlone {
    /// Row of the absorption table.
    pub material: String,
    /// What it is.
    pub label: String,
    /// Area of it that reaches the target, m2; null where the room has no such room for it.
    pub area_m2: Option<f64>,
    /// As much of it as would fit, m2.
    pub most_m2: f64,
    /// What that much reaches, s.
    pub reaches_s: f64,
    /// An estimate, good to 40 %.
    pub estimate: bool,
}

/// One thing more.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct TreatmentStep {
    /// Row of the absorption table.
    pub material: String,
    /// What it is.
    pub label: String,
    /// So much of it, m2.
    pub area_m2: f64,
    /// Reverberation time after it, s.
    pub rt_mid_s: f64,
    /// What it took off, s.
    pub gain_s: f64,
    /// Speech transmission index at the microphone after it; null without one.
    pub sti: Option<f64>,
    /// What it added to that.
    pub sti_gain: Option<f64>,
}

/// A place that is worth covering.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct TreatmentPlace {
    /// The surface by name.
    pub surface: String,
    /// In words, with what it is for.
    pub sentence: String,
    /// Middle of what should be covered, m.
    pub position_m: crate::plan::Point3,
}

/// Eyring: area of a material over another that is missing for a time, m2 (treatment calculation).
pub fn area_m2(missing_m2: f64, alpha_new: f64, alpha_covered: f64) -> Option<f64> {
    (alpha_new > alpha_covered).then(|| missing_m2.max(0.0) / (alpha_new - alpha_covered))
}

/// What a room lacks for a time in a band, m2.
fn missing_m2(absorption: &Absorption, band: usize, target_s: f64) -> f64 {
    let wanted = absorption_for_m2(absorption.volume_m3, absorption.surface_m2, target_s, air_m()[band]);
    (wanted - absorption.total_m2()[band]).max(0.0)
}

/// The room with so much of a material over what was there.
fn with(absorption: &Absorption, row: Bands, covered: Bands, area_m2: f64) -> Absorption {
    let mut more = absorption.clone();
    more.parts.push(Absorber {
        what: String::new(),
        id: None,
        surface: None,
        area_m2: Some(area_m2),
        absorption_m2: std::array::from_fn(|band| (row[band].min(0.99) - covered[band]) * area_m2),
        from: Origin::Assumed,
        is_hung: true,
    });
    more
}

/// Bare wall and floor, m2, and how they absorb as they are.
struct Free {
    wall_m2: f64,
    wall: Bands,
    floor_m2: f64,
    floor: Bands,
    window_m2: f64,
    window: Bands,
}

fn free(corner: &Corner<'_>, absorption: &Absorption) -> Free {
    let room = &corner.brief.room;
    let mut found = Free {
        wall_m2: 0.0,
        wall: [0.0; 6],
        floor_m2: 0.0,
        floor: [0.0; 6],
        window_m2: 0.0,
        window: [0.0; 6],
    };
    for part in &absorption.parts {
        let (Some(surface), Some(area)) = (&part.surface, part.area_m2) else { continue };
        let is_window = part
            .id
            .as_ref()
            .and_then(|id| room.openings.get(id))
            .is_some_and(|opening| opening.kind == OpeningKind::Window);
        let (m2, sum) = if is_window {
            (&mut found.window_m2, &mut found.window)
        } else if part.id.is_some() {
            continue;
        } else if WALL_NAMES.contains(&surface.as_str()) {
            (&mut found.wall_m2, &mut found.wall)
        } else if surface == "floor" {
            (&mut found.floor_m2, &mut found.floor)
        } else {
            continue;
        };
        *m2 += area;
        *sum = std::array::from_fn(|band| sum[band] + part.absorption_m2[band]);
    }
    let mean = |sum: Bands, m2: f64| sum.map(|s| if m2 > 0.0 { s / m2 } else { 0.0 });
    found.wall = mean(found.wall, found.wall_m2);
    found.floor = mean(found.floor, found.floor_m2);
    found.window = mean(found.window, found.window_m2);
    found
}

impl Free {
    /// As much of a thing as fits (half the bare walls, two thirds of the floor, a curtain half as large again as the
    /// windows: Fogon's own rule), and what it covers.
    fn most(&self, row: &str) -> (f64, Bands) {
        match row {
            "rug" => (self.floor_m2 * 2.0 / 3.0, self.floor),
            "curtain_heavy" => (self.window_m2 * 1.5, self.window),
            "bookcase" => (self.wall_m2 / 4.0, self.wall),
            _ => (self.wall_m2 / 2.0, self.wall),
        }
    }
}

/// What would bring a corner's room to its target, and where.
pub fn advice(corner: &Corner<'_>, absorption: &Absorption) -> TreatmentAdvice {
    let target_s = BEST_S[1];
    let now = absorption.rt_mid_s();
    let lacks = |absorption: &Absorption| {
        (2..5).map(|band| missing_m2(absorption, band, target_s)).fold(0.0, f64::max)
    };
    let free = free(corner, absorption);
    let units = corner.brief.units;
    let rows = || USUAL.iter().filter_map(|usual| Some((material(usual.row)?, (usual.words)(units))));
    let alone = rows()
        .filter_map(|(row, label)| {
            let (most_m2, covered) = free.most(row.id);
            if most_m2 < 0.2 {
                return None;
            }
            // The band that lacks most of this thing decides.
            let needed = (2..5)
                .map(|band| {
                    area_m2(
                        missing_m2(absorption, band, target_s),
                        row.absorption[band].min(0.99),
                        covered[band],
                    )
                    .unwrap_or(f64::INFINITY)
                })
                .fold(0.0, f64::max);
            let used = needed.min(most_m2);
            Some(TreatmentAlone {
                material: row.id.into(),
                label,
                area_m2: (needed <= most_m2).then_some(needed),
                most_m2,
                reaches_s: with(absorption, row.absorption, covered, used).rt_mid_s(),
                estimate: row.source == 'E',
            })
        })
        .collect();
    TreatmentAdvice {
        rt_mid_s: now,
        words: words(now).into(),
        target_s,
        missing_m2: lacks(absorption),
        alone,
        steps: steps(corner, absorption, &free, target_s),
        places: places(corner, absorption),
    }
}

/// One usual piece after another, cheapest kind first, each as often as it fits.
fn steps(corner: &Corner<'_>, absorption: &Absorption, free: &Free, target_s: f64) -> Vec<TreatmentStep> {
    let microphone =
        corner.microphone.map(|(gear, capsule)| super::placed(corner, absorption, gear, capsule));
    let voice = super::voice_1m_dba(corner).0;
    let sti = |room: &Absorption, at: &MicrophonePlaced| pickup(&Scene::new(room, voice), at).sti;
    let mut room = absorption.clone();
    let (mut time, mut index) = (room.rt_mid_s(), microphone.as_ref().map(|at| sti(&room, at)));
    let mut used = [0.0; USUAL.len()];
    let mut walls = 0.0;
    let mut found = Vec::new();
    while time > target_s && found.len() < STEPS {
        // The cheapest kind of which a piece still fits and helps; a second of the same only when no other is left.
        let fits = |number: usize| {
            let Usual { row: id, m2: piece, .. } = USUAL[number];
            let (most, _) = free.most(id);
            let on_wall = !matches!(id, "rug" | "curtain_heavy");
            let left = if on_wall {
                (free.wall_m2 / 2.0 - walls).min(most - used[number])
            } else {
                most - used[number]
            };
            (left >= piece.min(most) * 0.99 && most > 0.5).then(|| piece.min(most))
        };
        let order = (0..USUAL.len()).filter_map(|n| Some((n, fits(n)?)));
        let next = order.min_by(|a, b| (used[a.0] > 0.0).cmp(&(used[b.0] > 0.0)).then(a.0.cmp(&b.0)));
        let Some((number, area)) = next else { break };
        let Usual { row: id, words, .. } = USUAL[number];
        used[number] += area;
        if !matches!(id, "rug" | "curtain_heavy") {
            walls += area;
        }
        let Some(row) = material(id) else { continue };
        let more = with(&room, row.absorption, free.most(id).1, area);
        let after = more.rt_mid_s();
        if time - after < GAIN_S {
            continue;
        }
        let next_index = microphone.as_ref().map(|at| sti(&more, at));
        found.push(TreatmentStep {
            material: id.into(),
            label: words(corner.brief.units),
            area_m2: area,
            rt_mid_s: after,
            gain_s: time - after,
            sti: next_index,
            sti_gain: next_index.zip(index).map(|(after, before)| after - before),
        });
        (room, time, index) = (more, after, next_index);
    }
    found
}

/// Where the voice is thrown back first: before the mouth, over the head, at the sides; then what flutters.
fn places(corner: &Corner<'_>, absorption: &Absorption) -> Vec<TreatmentPlace> {
    let room = &corner.brief.room;
    let mut all: Vec<TreatmentPlace> = Vec::new();
    let mut keep = |surface: &str, at: DVec3, sentence: String| {
        if !all.iter().any(|place| place.surface == surface) {
            let plane = room.surface(surface);
            let at = plane.map_or(at, |plane| plane.nearest_m(at, [PATCH_M, PATCH_M]));
            all.push(TreatmentPlace { surface: surface.into(), sentence, position_m: at.into() });
        }
    };
    if let Some((name, at)) = reflections::aimed_at(corner) {
        let words = surface_words(room, name);
        keep(name, at, format!("The {words}, behind the camera: the voice is aimed at it."));
    }
    let hits = reflections::first(corner);
    let mut ceiling_first: Vec<_> = hits.iter().filter(|hit| !hit.is_furniture).collect();
    ceiling_first.sort_by_key(|hit| (hit.surface != "ceiling", hit.surface == "floor"));
    for hit in ceiling_first {
        let words = surface_words(room, &hit.surface);
        let sentence = match hit.surface.as_str() {
            "ceiling" => "The ceiling between you and the microphone. Overhead: fix it with a second, safety hold; ask who knows if in doubt.".to_owned(),
            "floor" => "The floor between you and the microphone: a rug.".to_owned(),
            _ => format!("The {words}, where it reflects the voice to the microphone."),
        };
        keep(&hit.surface, hit.point_m, sentence);
    }
    for (a, b, apart) in reflections::flutter(corner, absorption) {
        if let Some(plane) = room.surface(&a) {
            let (one, other) = (surface_words(room, &a), surface_words(room, &b));
            let sentence = format!(
                "The {one} or the {other}: both are bare and {} apart, a clap flutters between them.",
                corner.brief.units.length(apart)
            );
            keep(&a, plane.nearest_m(corner.mouth_m, [PATCH_M, PATCH_M]), sentence);
        }
    }
    all
}
