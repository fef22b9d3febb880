//! What else the microphone hears: things in the room that hum, lamps with fans, the street.

use super::absorption::Absorption;
use super::level::sum_db;
use super::noise::{source_at_microphone_dba, through_window_dba};
use super::pattern;
use crate::corner::Corner;
use crate::geometry::{DVec3, angle_between_deg};
use crate::plan::{GearMicrophone, Glazing, NoiseKind, OpeningKind, ThingId};
use crate::reading::{Origin, Quantity};

/// What a quiet room at home holds of noise where nobody has told of any, dBA: NR 22 (Fogon's own rule).
const QUIET_ROOM_DBA: f64 = 30.4;
/// What is left of it beside the noises that were told, dBA (Fogon's own rule).
const REST_DBA: f64 = 20.0;
/// So near to a noise no more is gained, m.
const NEAREST_M: f64 = 0.1;

/// A noise at the microphone.
#[derive(Debug, Clone, PartialEq)]
pub struct Heard {
    /// Its id in the brief or the layout; empty of the room as a whole.
    pub id: String,
    /// What it is, in words.
    pub what: String,
    /// At the microphone, dBA.
    pub level_dba: f64,
    /// How its level was come by.
    pub from: Origin,
    /// It can be stopped for a take.
    pub can_stop: bool,
    /// A lamp's fan.
    pub is_lamp: bool,
}

/// All noises as a microphone at a place hears them, loudest first; one alone where the room's noise was measured.
pub fn heard(
    corner: &Corner<'_>,
    absorption: &Absorption,
    gear: &GearMicrophone,
    capsule_m: DVec3,
) -> Vec<Heard> {
    match corner.brief.measured_value(Quantity::SoundRoomNoiseDba) {
        Some(measured) => vec![whole(diffuse_dba(gear, measured), Origin::Measured)],
        None => computed(corner, absorption, gear, capsule_m),
    }
}

/// A level that fills the room as a microphone hears it, dBA.
fn diffuse_dba(gear: &GearMicrophone, level_dba: f64) -> f64 {
    level_dba - 10.0 * middle_q(gear).log10()
}

/// Directivity factor at 500 Hz and 1 kHz.
fn middle_q(gear: &GearMicrophone) -> f64 {
    let q = pattern::directivities(gear.pattern_a, gear.tube_m);
    (q[2] + q[3]) / 2.0
}

fn whole(level_dba: f64, from: Origin) -> Heard {
    Heard { id: String::new(), what: "the room".into(), level_dba, from, can_stop: false, is_lamp: false }
}

/// All noises from what was told of them, whatever was measured.
pub fn computed(
    corner: &Corner<'_>,
    absorption: &Absorption,
    gear: &GearMicrophone,
    capsule_m: DVec3,
) -> Vec<Heard> {
    let rooms = absorption.room_constants_m2();
    let room_constant = (rooms[2] + rooms[3]) / 2.0;
    let q = middle_q(gear);
    let diffuse = |level: f64| diffuse_dba(gear, level);
    let aim = corner.aimed_at_m(gear) - capsule_m;
    let at = |place: Option<DVec3>, level_1m: f64| {
        let Some(place) = place else {
            return source_at_microphone_dba(level_1m, 1e6, 0.0, q, room_constant);
        };
        let off = place - capsule_m;
        let gain = pattern::gain_db(gear.pattern_a, gear.tube_m, 1000.0, angle_between_deg(aim, off));
        source_at_microphone_dba(level_1m, off.length().max(NEAREST_M), gain, q, room_constant)
    };
    let mut all: Vec<Heard> = Vec::new();
    for (id, noise) in &corner.brief.room.noises {
        let (level, from) =
            noise.level_1m_dba.map_or((noise.kind.usual_dba(), Origin::Assumed), |l| (l, Origin::Typed));
        let level_dba = if noise.kind == NoiseKind::Street {
            diffuse(street_dba(corner, absorption, level))
        } else {
            let level = if noise.measured_in_room { free_field_1m_dba(level, room_constant) } else { level };
            at(noise.position_m.map(DVec3::from), level)
        };
        let what = id.words();
        all.push(Heard { id: id.0.clone(), what, level_dba, from, can_stop: noise.can_stop, is_lamp: false });
    }
    let told = !all.is_empty();
    for light in &corner.lights {
        let Some(fan) = light.common().fan_noise_1m_dba else { continue };
        all.push(Heard {
            id: corner.name(&ThingId::Light(light.id.clone())),
            what: format!("fan of the {}", light.words()),
            level_dba: at(Some(light.position_m), fan),
            from: light.common().figures_from(),
            can_stop: false,
            is_lamp: true,
        });
    }
    all.push(whole(diffuse(if told { REST_DBA } else { QUIET_ROOM_DBA }), Origin::Assumed));
    all.sort_by(|a, b| b.level_dba.total_cmp(&a.level_dba));
    all
}

/// What a source that was measured 1 m away in a room of a room constant (m2) gives there without the room, dBA:
/// L - 10 lg(1 + 16 pi / R), from L = Lw + 10 lg(1 / (4 pi r2) + 4 / R).
pub fn free_field_1m_dba(measured_dba: f64, room_constant_m2: f64) -> f64 {
    measured_dba - 10.0 * (1.0 + 16.0 * std::f64::consts::PI / room_constant_m2.max(0.01)).log10()
}

/// Level indoors of a street, through all windows, dBA; where no window is told, nothing of it.
fn street_dba(corner: &Corner<'_>, absorption: &Absorption, outside_dba: f64) -> f64 {
    let windows = corner.brief.room.openings.values().filter(|o| o.kind == OpeningKind::Window);
    let each = windows.map(|window| {
        let insulation = window.glazing.unwrap_or(Glazing::Double).insulation_db();
        let area = window.width_m * window.height_or_usual_m();
        through_window_dba(outside_dba, insulation, area, super::absorption::mid(absorption.total_m2()))
    });
    let all: Vec<f64> = each.collect();
    if all.is_empty() { 0.0 } else { sum_db(all) }
}

/// All of them together, dBA.
pub fn together_dba(all: &[Heard]) -> f64 {
    sum_db(all.iter().map(|heard| heard.level_dba))
}
