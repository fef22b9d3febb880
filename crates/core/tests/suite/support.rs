//! The demo plan, a plain corner with round numbers, and ways to spoil them.

use std::collections::HashMap;
use std::sync::{Arc, LazyLock, Mutex, OnceLock};

use fogon_core::arrange::{Proposals, propose};
use fogon_core::assess::without_moves;
use fogon_core::finding::{Finding, Severity};
use fogon_core::money::{Advice, Asked, Catalogue, advise};
use fogon_core::plan::{BriefFile, Gear, Plan};
use fogon_core::reading::Reading;
use fogon_testkit::set;
use serde_json::{Value, json};

pub(crate) const PLAN: &str = include_str!("../../../../docs/examples/box-room.fogon.json");

/// The demo plan.
pub(crate) fn demo() -> Plan {
    Plan::read(PLAN.as_bytes()).unwrap()
}

pub(crate) fn read(plan: &Value) -> Plan {
    Plan::read(plan.to_string().as_bytes()).unwrap_or_else(|problems| panic!("{problems}"))
}

pub(crate) fn brief(brief: &Value) -> BriefFile {
    BriefFile::read(brief.to_string().as_bytes()).unwrap_or_else(|problems| panic!("{problems}"))
}

/// What is proposed for a brief. The same brief is searched once, whichever tests ask: that a search gives the same answer again
/// is a test of its own.
pub(crate) fn proposed(file: &BriefFile) -> Proposals {
    type Known = HashMap<String, Arc<OnceLock<Proposals>>>;
    static KNOWN: LazyLock<Mutex<Known>> = LazyLock::new(Mutex::default);
    let text = serde_json::to_string(file).unwrap();
    let found = KNOWN.lock().unwrap().entry(text).or_default().clone();
    found.get_or_init(|| propose(&file.name, &file.brief)).clone()
}

/// The best plan that a brief leads to.
pub(crate) fn best(document: &Value) -> Plan {
    proposed(&brief(document)).proposals.into_iter().next().expect("the room fits").plan
}

pub(crate) fn reading(plan: &Plan, id: &str) -> Reading {
    let all = without_moves(plan).readings;
    all.into_iter().find(|r| r.id == id).unwrap_or_else(|| panic!("no reading {id}"))
}

pub(crate) fn value(plan: &Plan, id: &str) -> f64 {
    reading(plan, id).value.unwrap_or_else(|| panic!("{id} has no value"))
}

/// Findings that stand in the way.
pub(crate) fn in_the_way(plan: &Plan) -> Vec<Finding> {
    without_moves(plan).findings.into_iter().filter(|f| f.severity != Severity::Consider).collect()
}

/// A corner with round numbers: 4 x 5 x 2.6 m, nothing in it but a seated person who faces the front wall with the
/// eyes at 1.25 m, a full-frame camera 1.5 m in front of them at eye height, a round key 45 degrees to camera right,
/// a microphone on a boom. It breaks no rule.
pub(crate) fn plain() -> Value {
    json!({
        "format": "fogon.plan", "version": 1, "name": "Plain",
        "brief": {
            "room": { "floor_m": [[0, 0], [4, 0], [4, 5], [0, 5]], "height_m": 2.6, "furniture": {}, "openings": {} },
            "person": { "stature_m": 1.75, "posture": "seated", "seat_height_m": 0.452 },
            "purpose": "talk-to-lens",
            "schools": { "lights": "one" },
            "gear": {
                "body": { "kind": "camera", "label": "Body", "mass_kg": 0.6, "sensor_width_mm": 36, "sensor_height_mm": 24, "iso_min": 100, "iso_max": 12800 },
                "lens": { "kind": "lens", "label": "Lens", "mass_kg": 0.4, "focal_min_mm": 24, "focal_max_mm": 70, "f_number_at_min": 2.8, "f_number_at_max": 2.8, "f_number_limit": 22, "nearest_focus_m": 0.4 },
                "lamp": { "kind": "light", "label": "Lamp", "mass_kg": 1, "power_w": 60, "shape": "disc", "width_m": 0.4, "height_m": 0.4, "depth_m": 0.2, "illuminance_at_1m_lx": 2000, "cct_min_k": 5600, "cct_max_k": 5600 },
                "voice": { "kind": "microphone", "label": "Voice", "mass_kg": 0.2, "mounting": "boom", "pattern_a": 0.5, "self_noise_dba": 14 },
                "tripod": { "kind": "support", "label": "Tripod", "mass_kg": 2, "offers": ["camera"], "height_min_m": 0.5, "height_max_m": 1.8, "foot_radius_m": 0.4, "payload_kg": 5 },
                "stand": { "kind": "support", "label": "Stand", "mass_kg": 2, "offers": ["light"], "height_min_m": 0.8, "height_max_m": 2.5, "foot_radius_m": 0.4, "payload_kg": 5 },
                "arm": { "kind": "support", "label": "Arm", "mass_kg": 3, "offers": ["microphone"], "height_min_m": 0.8, "height_max_m": 2.4, "foot_radius_m": 0.35, "payload_kg": 3, "reach_m": 1.2 }
            }
        },
        "layout": {
            "seat": { "position_m": [2, 1.5], "bearing_deg": 0 },
            "camera": {
                "body": "body", "lens": "lens", "position_m": [2, 3, 1.25], "bearing_deg": 180, "tilt_deg": 0,
                "orientation": "landscape", "focal_length_mm": 40, "f_number": 4, "shutter_s": 0.02, "iso": 250,
                "frame_rate_hz": 25, "white_balance_k": 5600, "focus_distance_m": 1.5,
                "support": { "kind": "floor", "gear": "tripod", "sandbag_kg": 20 }
            },
            "lights": { "key": { "gear": "lamp", "role": "key", "position_m": [1.1, 2.4, 1.9], "dim": 1,
                "support": { "kind": "floor", "gear": "stand", "sandbag_kg": 20 } } },
            "microphone": { "gear": "voice", "position_m": [2, 1.75, 1.75],
                "support": { "kind": "boom", "gear": "arm", "base_m": [2.9, 1.5], "sandbag_kg": 20 } }
        }
    })
}

/// The plain corner with some values changed, each by JSON pointer.
pub(crate) fn plain_with(edits: &[(&str, Value)]) -> Plan {
    let mut document = plain();
    for (pointer, value) in edits {
        set(&mut document, pointer, value.clone());
    }
    read(&document)
}

/// The plain corner with one part of every kind that a layout can have: a screen, a backdrop and a second angle on stands
/// of their own, a fill, a panel on the wall, a table that was moved.
pub(crate) fn furnished() -> Plan {
    let stand = |from: [f64; 2]| {
        json!({ "kind": "support", "label": "Stand", "mass_kg": 2, "offers": ["camera", "light", "screen", "microphone"],
        "height_min_m": from[0], "height_max_m": from[1], "foot_radius_m": 0.4, "payload_kg": 5 })
    };
    plain_with(&[
        (
            "/brief/gear/monitor",
            json!({ "kind": "monitor", "label": "Monitor", "mass_kg": 0.5, "screen": "television" }),
        ),
        (
            "/brief/gear/cloth",
            json!({ "kind": "backdrop", "label": "Cloth", "mass_kg": 2, "backdrop": "cloth", "width_m": 2.0, "height_m": 2.0 }),
        ),
        (
            "/brief/gear/panel",
            json!({ "kind": "treatment", "label": "Panel", "material": "panel_50mm", "width_m": 1.2, "height_m": 0.6, "thickness_m": 0.05 }),
        ),
        ("/brief/gear/stand-fill", stand([0.8, 2.5])),
        ("/brief/gear/stand-screen", stand([0.4, 2.0])),
        ("/brief/gear/stand-side", stand([0.5, 1.8])),
        (
            "/brief/room/furniture/shelf",
            json!({ "kind": "table", "position_m": [0.5, 4.5, 0], "size_m": [0.6, 0.4, 0.7] }),
        ),
        (
            "/layout/lights/fill",
            json!({ "gear": "lamp", "role": "fill", "position_m": [3.2, 2.6, 1.6], "dim": 0.2,
            "support": { "kind": "floor", "gear": "stand-fill", "sandbag_kg": 20 } }),
        ),
        (
            "/layout/screen",
            json!({ "gear": "monitor", "position_m": [3.2, 4.4, 1.0],
            "support": { "kind": "floor", "gear": "stand-screen", "sandbag_kg": 20 } }),
        ),
        (
            "/layout/backdrop",
            json!({ "gear": "cloth", "position_m": [2.0, 0.5], "bearing_deg": 0, "hung": "stands", "sandbag_kg": 20 }),
        ),
        (
            "/layout/angles",
            json!({ "side": { "body": "body", "lens": "lens", "position_m": [0.6, 3.4, 1.3], "aim_m": [2.0, 1.5, 1.25],
            "focal_length_mm": 35, "support": { "kind": "floor", "gear": "stand-side", "sandbag_kg": 20 } } }),
        ),
        (
            "/layout/treatment",
            json!({ "panel": { "gear": "panel", "on": "wall-1", "position_m": [4, 2, 1.4] } }),
        ),
        ("/layout/furniture", json!({ "shelf": { "position_m": [3.4, 0.4, 0], "bearing_deg": 0 } })),
    ])
}

/// What is advised for a sum, from the catalogue that ships.
pub(crate) fn bought(plan: &Plan, budget: f64) -> Advice {
    bought_among(plan, budget, |_| true)
}

/// What is advised for a sum where nothing else is sold than what is asked for: a whole catalogue takes long to try.
pub(crate) fn bought_among(plan: &Plan, budget: f64, sold: fn(&Gear) -> bool) -> Advice {
    let mut catalogue = Catalogue::of_fogon().clone();
    catalogue.offers.retain(|_, offer| sold(&offer.gear));
    advise(&Asked::Plan(Box::new(plan.clone())), &Arc::new(catalogue), budget).unwrap()
}

/// A small generator of even numbers (splitmix64), so that every run throws the same.
pub(crate) struct Dice(pub(crate) u64);

impl Dice {
    pub(crate) fn unit(&mut self) -> f64 {
        self.0 = self.0.wrapping_add(0x9e37_79b9_7f4a_7c15);
        let mut z = self.0;
        z = (z ^ (z >> 30)).wrapping_mul(0xbf58_476d_1ce4_e5b9);
        z = (z ^ (z >> 27)).wrapping_mul(0x94d0_49bb_1331_11eb);
        ((z ^ (z >> 31)) >> 11) as f64 / (1u64 << 53) as f64
    }

    pub(crate) fn within(&mut self, low: f64, high: f64) -> f64 {
        low + (high - low) * self.unit()
    }

    pub(crate) fn even(&mut self) -> bool {
        self.unit() < 0.5
    }
}
