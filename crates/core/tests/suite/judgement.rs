//! What is told of light, sound and lengths where a plain reckoning would mislead: by the school, by the mounting in use, by all
//! the light that is there, as a tape measures it.

use fogon_core::assess::{evaluate, without_moves};
use fogon_core::corner::Corner;
use fogon_core::finding::Finding;
use fogon_core::geometry::DVec3;
use fogon_core::light::LightField;
use fogon_core::light::power::dials;
use fogon_core::plan::{Id, Plan, Role, apply};
use fogon_core::reading::Standing;
use fogon_testkit::{assert_close, box_room, set};
use proptest::prelude::*;
use serde_json::{Value, json};

use crate::support::{best, in_the_way, plain, plain_with, reading, value};

fn found(plan: &Plan, id: &str) -> Option<Finding> {
    evaluate(plan).findings.into_iter().find(|f| f.id == id)
}

fn key_of(plan: &Plan) -> &Id {
    &plan.layout.lights.values().find(|light| light.role == Role::Key).expect("a key").gear
}

/// A bare reflector of 10,000 lx beside a softbox of 65 cm: under the school of big soft light the softbox stays the key, and
/// the corner is no worse for one lamp more.
#[test]
fn the_key_is_cast_by_the_school_and_not_by_its_lumens() {
    let bare = json!({ "kind": "light", "label": "Bare reflector lamp", "mass_kg": 1.2, "power_w": 100, "shape": "disc",
        "width_m": 0.18, "height_m": 0.18, "depth_m": 0.2, "illuminance_at_1m_lx": 10000, "cct_min_k": 5600, "cct_max_k": 5600 });
    let mut document = box_room();
    let before = best(&document);
    set(&mut document, "/brief/gear/bare", bare);
    let after = best(&document);
    assert_eq!(key_of(&after), &Id::from("octa"));
    let score = |plan: &Plan| without_moves(plan).score;
    assert!(score(&after) >= score(&before) - 1e-6, "{} after {}", score(&after), score(&before));
    // The school of the small, near source has no quarrel with it; whichever is chosen is no worse than the other.
    set(&mut document, "/brief/schools", json!({ "source": "small-near" }));
    assert!(in_the_way(&best(&document)).is_empty());
}

/// The demo with one microphone of a kind instead of its own.
fn with_microphone(mounting: &str, school: &str) -> Plan {
    let mut document = box_room();
    let gear = document["brief"]["gear"].as_object_mut().unwrap();
    gear.remove("microphone-arm");
    let own = gear.get_mut("boom-microphone").unwrap();
    own["mounting"] = json!(mounting);
    own["pattern_a"] = json!(if mounting == "lavalier" { 1.0 } else { 0.5 });
    own["self_noise_dba"] = json!(26);
    set(&mut document, "/brief/schools", json!({ "microphone": school }));
    best(&document)
}

/// A headset and a lavalier in their right places are right, whichever school of microphones was chosen: their own and others.
#[test]
fn a_microphone_is_judged_by_how_it_is_worn() {
    for (mounting, schools) in [("headset", ["boom", "in-shot"]), ("lavalier", ["lavalier", "desk"])] {
        for school in schools {
            let plan = with_microphone(mounting, school);
            let told = reading(&plan, "sound.microphone.distance_m");
            assert_eq!(told.standing, Standing::Good, "{mounting} under {school}: {:?}", told.value);
            let judged = evaluate(&plan);
            assert!(judged.verdict.ready, "{mounting} under {school}: {}", judged.verdict.sentence);
            let moves = judged.findings.iter().filter(|f| f.id == "sound.microphone.distance_m");
            assert_eq!(moves.count(), 0, "{mounting} under {school}");
        }
    }
    // Too far is too far for either.
    let mut far = with_microphone("lavalier", "lavalier");
    let used = far.layout.microphone.as_mut().unwrap();
    used.position_m.0[2] -= 0.55;
    assert_ne!(reading(&far, "sound.microphone.distance_m").standing, Standing::Good);
}

/// The plain corner beside a window that shines in, with a lamp of 3200 K turned far down.
fn by_a_window(dim: f64) -> Plan {
    plain_with(&[
        (
            "/brief/room/openings",
            json!({ "window": { "kind": "window", "wall": 1, "from_m": 1.6, "width_m": 1.6, "sill_m": 0.8, "height_m": 1.4 } }),
        ),
        ("/brief/schools", json!({ "lights": "one", "window": "key" })),
        ("/brief/gear/lamp/cct_min_k", json!(3200)),
        ("/brief/gear/lamp/cct_max_k", json!(3200)),
        ("/layout/lights/key/dim", json!(dim)),
        ("/layout/camera/white_balance_k", json!(3200)),
    ])
}

/// What a window gives counts in the colour at the face, clashes with a warm lamp, and another white balance is a move.
#[test]
fn a_window_has_its_part_in_the_mixed_colour() {
    let plan = by_a_window(0.05);
    let corner = Corner::of(&plan).unwrap();
    let lit = LightField::of(&corner);
    let (window, lamp) = (lit.windows_lx(), lit.lamps_lx().map(|(_, lux)| lux).sum::<f64>());
    assert!(window > 2.0 * lamp, "the window leads: {window} lx and {lamp} lx");
    let cct = value(&plan, "light.face.cct_k");
    assert!(cct > 4000.0, "{cct} K is no lamp of 3200 K alone");
    let brighter = value(&by_a_window(1.0), "light.face.cct_k");
    assert!(brighter < cct, "more of the lamp is warmer: {brighter} K after {cct} K");
    assert!(found(&plan, "light.mixed").expect("they clash").sentence.contains("window"));
    let told = found(&plan, "light.face.white_balance_mired").expect("balanced for the lamp alone");
    let fix = told.fix.expect("a move sets it");
    assert!(fix.label.contains("white balance"), "{}", fix.label);
    let set = apply(&plan, &fix.patch).unwrap();
    assert!((set.layout.camera.white_balance_k - cct).abs() < 250.0, "{}", set.layout.camera.white_balance_k);
    assert!(found(&set, "light.face.white_balance_mired").is_none());
}

/// No dial turns a window down: with the lamps at the dials that are told, the face is as bright as the camera wants, direct
/// and thrown back light of the window included.
#[test]
fn told_dials_leave_the_window_as_it_is() {
    let plan = by_a_window(0.3);
    let corner = Corner::of(&plan).unwrap();
    let told = dials(&LightField::of(&corner));
    let (_, dial) = told.iter().find(|(id, _)| *id == "key").expect("the key has a dial").clone();
    assert!((0.01..1.0).contains(&dial), "{dial}");
    let mut set = plan.clone();
    set.layout.lights.get_mut("key").unwrap().dim = dial;
    assert_close(value(&set, "light.face.exposure_stops"), 0.0, 0.0, 0.03, "exposed");
}

/// Light that misses a cloth is not lost: it goes on to the walls, as from the bare lamp where it stands behind the cloth.
#[test]
fn light_past_a_small_cloth_still_fills_the_room() {
    let with_cloth = |size: f64| {
        let cloth = json!({ "kind": "reflector", "label": "Cloth", "mass_kg": 0.1, "width_m": size, "height_m": size, "reflectance": 0.4, "transmittance": 0.5 });
        plain_with(&[
            ("/brief/gear/cloth", cloth),
            ("/layout/lights/key/cloth", json!({ "gear": "cloth", "ahead_m": 0.7 })),
        ])
    };
    let small = with_cloth(0.1);
    let behind = Corner::of(&small).unwrap().lights[0].face().middle.to_array();
    let bare = plain_with(&[
        ("/layout/lights/key/position_m", json!(behind)),
        ("/layout/lights/key/aim_m", json!(Corner::of(&small).unwrap().lights[0].position_m.to_array())),
    ]);
    let bounce = |plan: &Plan| {
        let corner = Corner::of(plan).unwrap();
        LightField::of(&corner).bounce_lx(DVec3::new(2.0, 1.5, 1.25), DVec3::Y)
    };
    let (bare, small, large) = (bounce(&bare), bounce(&small), bounce(&with_cloth(1.6)));
    assert!((0.9..1.1).contains(&(small / bare)), "{small} lx with a cloth of 10 cm, {bare} lx without");
    // A large one passes half of what it catches and throws two fifths back: a tenth of it goes.
    assert!((0.7..1.4).contains(&(large / bare)), "{large} lx behind a large cloth, {bare} lx without");
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 24, ..ProptestConfig::default() })]

    /// Panels in one spot cover it once: the room rings as long as under the area that they cover together, whatever they
    /// overlap by. A panel hung wholly over another changes nothing.
    #[test]
    fn panels_that_overlap_count_once(shift in 0.0f64..1.4) {
        let ring = |at: &[f64]| {
            let panel = json!({ "kind": "treatment", "label": "Panel", "material": "panel_50mm", "width_m": 1.2, "height_m": 0.6, "thickness_m": 0.05 });
            let hung: serde_json::Map<String, Value> = at.iter().enumerate()
                .map(|(i, y)| (format!("p{i}"), json!({ "gear": "panel", "on": "wall-1", "position_m": [4, y, 1.4] })))
                .collect();
            value(&plain_with(&[("/brief/gear/panel", panel), ("/layout/treatment", json!(hung))]), "sound.room.rt_mid_s")
        };
        let (bare, one, both, apart) = (ring(&[]), ring(&[1.5]), ring(&[1.5, 1.5 + shift]), ring(&[1.5, 3.5]));
        // By Sabine and Eyring alike 1/T grows with the area that is covered: from one panel's to two panels'.
        let more = |t: f64| (1.0 / t - 1.0 / bare) / (1.0 / one - 1.0 / bare);
        let covered = 1.0 + (shift / 1.2).min(1.0);
        prop_assert!((more(both) - covered).abs() < 0.03 * covered, "{} panels' worth, {covered} covered", more(both));
        prop_assert!((more(apart) - 2.0).abs() < 0.06);
        prop_assert!((ring(&[1.5, 1.5, 1.5, 1.5]) / one - 1.0).abs() < 1e-9);
    }
}

/// "30 cm from the head" is measured from the head: a lamp 13 cm behind the skull is told, wherever the eyes are.
#[test]
fn nearness_is_measured_from_the_head() {
    let behind = |from_eyes: f64| {
        let plan = plain_with(&[
            ("/brief/gear/lamp/width_m", json!(0.1)),
            ("/brief/gear/lamp/height_m", json!(0.1)),
            ("/brief/gear/lamp/depth_m", json!(0.02)),
            ("/layout/lights/key/position_m", json!([2.0, 1.5 - from_eyes, 1.28])),
        ]);
        let told = without_moves(&plan).findings.into_iter().find(|f| f.id == "legal.near.key");
        told.map(|f| f.evidence[0].value.unwrap())
    };
    // The back of the head lies about 18 cm behind the eyes.
    let lacking = behind(0.33).expect("0.15 m behind the skull");
    assert!((0.08..0.22).contains(&lacking), "{lacking}");
    assert_close(behind(0.35).unwrap(), lacking - 0.02, 0.0, 2e-3, "2 cm farther");
    assert!(behind(0.33 + lacking + 0.01).is_none());
}

/// A camera above the eyes is told as far away as a tape measures it; what perspective does to the nose goes by the same length.
#[test]
fn lengths_are_told_as_a_tape_measures_them() {
    // 0.55 m along the axis, 0.2109 m above it: 0.589 m straight.
    let plan = plain_with(&[
        ("/layout/camera/position_m", json!([2, 2.05, 1.25 + 0.2109])),
        ("/layout/camera/focus_distance_m", json!(0.55)),
        ("/layout/camera/tilt_deg", json!(0)),
    ]);
    let eyes = Corner::of(&plan).unwrap().eyes_m;
    let straight = (DVec3::new(2.0, 2.05, 1.4609) - eyes).length();
    let nose = reading(&plan, "shot.camera.nose_enlargement_percent");
    let used = nose.working.inputs.iter().find(|i| i.name == "lens to eyes").unwrap().value;
    assert_close(used, straight, 1e-9, 0.0, "lens to eyes");
    assert_close(value(&plan, "shot.camera.distance_m"), straight, 1e-9, 0.0, "distance");
    // R = (D + 0.085) / (D - 0.025), against the same at 1.524 m.
    let r = |d: f64| (d + 0.085) / (d - 0.025);
    assert_close(nose.value.unwrap(), 100.0 * (r(straight) / r(1.524) - 1.0), 1e-9, 0.0, "nose");
    let of = |d: f64| 100.0 * (r(d) / r(1.524) - 1.0);
    assert!((of(0.589) - 11.3).abs() < 0.1 && of(0.55) > 12.6, "{} {}", of(0.55), of(0.589));
    let card = fogon_core::card::card(&plan).unwrap();
    let focus = card.settings.iter().find(|s| s.name == "Focus").unwrap();
    assert!(focus.value.contains("0.59 m from the lens"), "{}", focus.value);
}

/// A computer told with the level that a meter read in this room has the room's part in that level already.
#[test]
fn a_level_read_in_the_room_has_the_room_in_it() {
    let level = |in_room: bool| {
        let computer = json!({ "kind": "computer", "position_m": [2, 2.5, 1.2], "level_1m_dba": 45, "measured_in_room": in_room });
        value(&plain_with(&[("/brief/room/noises", json!({ "computer": computer }))]), "sound.room.noise_dba")
    };
    let (free, read) = (level(false), level(true));
    assert!(free > read + 0.5, "in the open {free} dBA, read here {read} dBA");
    // It stands about a metre from the head: there the meter read 45 dBA.
    assert_close(read, 45.0, 0.0, 1.5, "as it was read");
}

/// Where the camera sits nearer than the school of far cameras would have it, the remedy is not what was chosen already; one who
/// stands is not told to sit, a fixed lens is not zoomed, and a microphone in the picture is not said to be out of it.
#[test]
fn advice_fits_what_was_chosen() {
    let said = |edits: &[(&str, Value)]| {
        let judged = evaluate(&plain_with(edits));
        let all = judged.findings.iter().flat_map(|f| {
            let fix = f.fix.as_ref().map_or(String::new(), |fix| fix.label.clone());
            [f.sentence.clone(), f.reason.to_owned(), f.advice.to_string(), fix]
        });
        all.collect::<Vec<_>>().join("\n")
    };
    let near = [
        ("/brief/schools", json!({ "lights": "one", "lens": "near-and-wide" })),
        ("/layout/camera/position_m", json!([2, 1.85, 1.25])),
        ("/layout/camera/focus_distance_m", json!(0.35)),
    ];
    assert!(!said(&near).contains("choose the school of the near"), "{}", said(&near));
    let standing =
        [("/brief/person/posture", json!("standing")), ("/layout/seat/position_m", json!([2, 0.3]))];
    let told = said(&standing);
    assert!(!told.contains("Sit ") && !told.contains("the chair"), "{told}");
    let fixed = [
        ("/brief/gear/lens/focal_min_mm", json!(40)),
        ("/brief/gear/lens/focal_max_mm", json!(40)),
        ("/layout/camera/position_m", json!([2, 4.5, 1.25])),
        ("/layout/camera/focus_distance_m", json!(3.0)),
    ];
    let told = said(&fixed);
    assert!(!told.to_lowercase().contains("zoom"), "{told}");
    let ring = [
        ("/brief/schools", json!({ "lights": "ring" })),
        ("/layout/lights/key/position_m", json!([0.6, 2.0, 1.9])),
    ];
    let told = said(&ring);
    assert!(!told.contains("30 to 45 degrees"), "{told}");
    let in_shot = [
        ("/brief/schools", json!({ "lights": "one", "microphone": "in-shot" })),
        ("/layout/microphone/position_m", json!([2, 3.4, 2.0])),
    ];
    let told = said(&in_shot);
    assert!(!told.contains("out of the picture"), "{told}");
}

/// An overload of the mains is told in amperes or as a part, never as a length; a stand whose label holds a mass does not turn
/// lengths into masses.
#[test]
fn amounts_carry_their_own_unit() {
    let overloaded =
        plain_with(&[("/brief/gear/lamp/power_w", json!(2000)), ("/brief/room/mains/breaker_a", json!(6))]);
    let told = found(&overloaded, "legal.mains.mains").unwrap();
    assert!(told.evidence.iter().all(|e| e.unit != "m"), "{:?}", told.evidence);
    let labelled = plain_with(&[
        ("/brief/gear/stand/label", json!("Stand, 3 kg")),
        ("/brief/gear/stand/height_max_m", json!(1.2)),
    ]);
    let told = found(&labelled, "legal.support.key").unwrap();
    assert!(told.sentence.contains("goes from 0.80 m to 1.20 m"), "{}", told.sentence);
    assert!(told.evidence.iter().all(|e| e.unit == "m"), "{:?}", told.evidence);
    // An id that a person chose is not one of ours: a bookcase called `key` is no key.
    let mut document = plain();
    let shelf =
        json!({ "kind": "bookcase", "position_m": [2, 2.3, 0], "size_m": [0.4, 0.2, 1.7], "fixed": true });
    set(&mut document, "/brief/room/furniture/key", shelf);
    let judged = without_moves(&crate::support::read(&document));
    let ids: Vec<String> = judged.findings.iter().map(|f| f.id.to_string()).collect();
    let sight = ids.iter().find(|id| id.starts_with("legal.sight.")).expect("it stands in the way");
    assert_ne!(sight, "legal.sight.key", "{ids:?}");
}

/// The head in the middle of the room's width is helped by a step to the side, in the middle of its depth by one forward: along
/// the side of the room that the note belongs to, not along the way that the person looks.
#[test]
fn a_step_goes_along_the_note_that_it_evens() {
    let told = |seat: [f64; 2], camera: [f64; 3]| {
        let plan = plain_with(&[
            ("/layout/seat/position_m", json!(seat)),
            ("/layout/camera/position_m", json!(camera)),
        ]);
        let all = fogon_core::sound::seen::seen(&Corner::of(&plan).unwrap());
        let text = serde_json::to_value(&all).unwrap().to_string();
        let step = |side: &str, way: &str| {
            text.contains(&format!("middle of the room's {side}:"))
                && text.contains(&format!("A step {way} evens it"))
        };
        (step("width", "to the side"), step("width", "forward or back"), step("depth", "forward or back"))
    };
    // The room is 4 x 5 m; the person looks along its depth.
    assert_eq!(told([2.0, 1.5], [2.0, 3.0, 1.25]), (true, false, false));
    assert_eq!(told([1.2, 2.45], [1.2, 4.0, 1.25]), (false, false, true));
    // Turned round to look along the width, a step forward evens the note of the width.
    let (aside, forward, _) = told([2.0, 1.5], [3.5, 1.5, 1.25]);
    assert!(!aside && forward);
}
