//! Every legal rule broken on purpose in the plain corner: the finding names the rule and the thing, says by how
//! much, and what would free it. Clearances are Fogon's own rules, but for 0.60 m to get out (common practice, no
//! source).

use fogon_core::assess::{evaluate, without_moves};
use fogon_core::corner::Corner;
use fogon_core::finding::Severity;
use serde_json::{Value, json};

use crate::support::{in_the_way, plain_with};

#[test]
fn the_plain_corner_breaks_no_rule() {
    let stops: Vec<_> =
        in_the_way(&plain_with(&[])).into_iter().filter(|f| f.severity == Severity::Stop).collect();
    assert!(stops.is_empty(), "{stops:#?}");
}

type Edits = Vec<(&'static str, Value)>;

/// Edits, the finding they lead to, and words that its sentence must have.
fn cases() -> Vec<(Edits, &'static str, &'static str)> {
    let crate_of = |x: f64, y: f64, size: [f64; 3]| json!({ "kind": "box", "position_m": [x, y, 0], "size_m": size, "fixed": true });
    vec![
        (
            vec![("/layout/lights/key/position_m", json!([0.05, 2.4, 1.9]))],
            "legal.room.key",
            "beyond the room",
        ),
        (vec![("/layout/lights/key/position_m", json!([1.1, 2.4, 2.3]))], "legal.room.key", "of the ceiling"),
        (
            vec![("/layout/lights/key/position_m", json!([1.8, 1.9, 1.3]))],
            "legal.picture.key",
            "inside the picture",
        ),
        (vec![("/layout/lights/key/position_m", json!([1.8, 1.7, 1.3]))], "legal.near.key", "from the head"),
        (
            vec![("/layout/microphone/position_m", json!([2, 1.75, 1.4]))],
            "legal.picture.microphone",
            "inside the picture",
        ),
        (
            vec![(
                "/brief/room/openings/door",
                json!({ "kind": "door", "wall": 3, "from_m": 2.4, "width_m": 0.9, "swing": "in-left" }),
            )],
            "legal.door.key",
            "into the swing of the door",
        ),
        (
            vec![
                ("/brief/room/furniture/left", crate_of(3.0, 1.0, [0.5, 1.6, 0.4])),
                ("/brief/room/furniture/right", crate_of(1.0, 1.0, [0.5, 1.6, 0.4])),
                ("/brief/room/furniture/behind", crate_of(2.0, 0.6, [0.9, 0.4, 0.4])),
            ],
            "legal.exit.person",
            "no way out of the chair",
        ),
        (
            vec![
                ("/layout/camera/position_m", json!([2, 4.8, 1.25])),
                ("/layout/camera/focus_distance_m", json!(3.3)),
            ],
            "legal.camera.camera",
            "behind the sensor",
        ),
        (
            vec![("/brief/gear/lens/nearest_focus_m", json!(1.9))],
            "legal.camera.camera",
            "focuses no nearer than 1.90 m",
        ),
        (
            vec![("/layout/camera/focal_length_mm", json!(90))],
            "legal.camera.camera",
            "90 mm is not on this lens",
        ),
        (vec![("/layout/camera/f_number", json!(1.4))], "legal.camera.camera", "f/1.4 is not on this lens"),
        (vec![("/layout/camera/iso", json!(50))], "legal.camera.camera", "ISO 50 is not on this camera"),
        (
            vec![("/brief/gear/stand/height_max_m", json!(1.2))],
            "legal.support.key",
            "goes from 0.80 m to 1.20 m",
        ),
        (
            vec![("/brief/gear/stand/payload_kg", json!(0.5))],
            "legal.support.key",
            "carries 0.5 kg; the key weighs 1.0 kg",
        ),
        (vec![("/layout/lights/key/support/base_m", json!([1.1, 3.6]))], "legal.support.key", "has no arm"),
        (
            vec![("/brief/gear/arm/reach_m", json!(0.5))],
            "legal.support.microphone",
            "reaches 0.50 m from its column",
        ),
        (vec![("/layout/lights/key/support/sandbag_kg", json!(0))], "legal.support.key", "can tip"),
        (
            vec![("/brief/gear/lamp/power_w", json!(2000)), ("/brief/room/mains/breaker_a", json!(6))],
            "legal.mains.mains",
            "of what the breaker carries",
        ),
        (
            vec![("/brief/room/furniture/post", crate_of(2.0, 2.3, [0.2, 0.1, 1.7]))],
            "legal.sight.post",
            "between the lens and the eyes",
        ),
        (
            vec![("/layout/microphone/support/base_m", json!([1.1, 2.2]))],
            "legal.collision.microphone",
            "overlap by",
        ),
    ]
}

#[test]
fn every_rule_is_named_with_its_amount_and_its_remedy() {
    for (edits, id, words) in cases() {
        let plan = plain_with(&edits);
        let judged = without_moves(&plan);
        let finding = judged
            .findings
            .iter()
            .find(|f| f.id == id && f.sentence.contains(words))
            .unwrap_or_else(|| panic!("no {id} with \"{words}\" in {:#?}", judged.findings));
        assert_eq!(finding.severity, Severity::Stop, "{id}");
        assert!(!finding.reason.is_empty() && !finding.source.is_empty(), "{id} gives no reason or source");
        let evaluated = evaluate(&plan);
        let offered = evaluated.findings.iter().find(|f| f.id == id).unwrap();
        assert!(offered.fix.is_some() || !offered.advice.is_empty(), "{id} says nothing to do");
        assert!(
            !judged.verdict.ready && judged.verdict.because.iter().any(|b| b == id),
            "{id} does not block"
        );
    }
}

/// Cautions stand beside what can hurt: stands and mains.
#[test]
fn what_can_hurt_carries_its_caution() {
    let caution = |edits: &[(&str, Value)], id: &str| {
        in_the_way(&plain_with(edits))
            .into_iter()
            .find(|f| f.id == id)
            .and_then(|f| f.caution)
            .unwrap_or_default()
    };
    assert!(
        caution(&[("/layout/lights/key/support/sandbag_kg", json!(0))], "legal.support.key")
            .contains("level floor")
    );
    let overload = [("/brief/gear/lamp/power_w", json!(2000)), ("/brief/room/mains/breaker_a", json!(6))];
    assert!(caution(&overload, "legal.mains.mains").to_lowercase().contains("electrician"));
    // A halogen: much power, little light, near a shelf.
    let hot = plain_with(&[
        ("/brief/gear/lamp/power_w", json!(800)),
        ("/brief/gear/lamp/illuminance_at_1m_lx", json!(3000)),
        (
            "/brief/room/furniture/shelf",
            json!({ "kind": "shelf", "position_m": [0.4, 2.6, 0], "size_m": [0.4, 0.6, 1.6], "fixed": true }),
        ),
    ]);
    let found = in_the_way(&hot).into_iter().find(|f| f.id == "light.key.hot").expect("the lamp is hot");
    assert!(
        found.sentence.contains("keep 1.00 m") && found.caution.is_some_and(|c| c.contains("paper")),
        "{found:?}"
    );
}

/// The microphone may come down until its body is 10 cm over the picture's top edge, and no further. The edge is
/// worked out here: level camera at 1.25 m, image distance f u / (u - f), half of 20.25 mm.
#[test]
fn the_microphone_keeps_ten_centimetres() {
    let lowest = (0..400)
        .map(|i| 1.9 - f64::from(i) * 0.001)
        .take_while(|z| {
            let plan = plain_with(&[("/layout/microphone/position_m", json!([2, 1.75, z]))]);
            in_the_way(&plan).iter().all(|f| f.id != "legal.picture.microphone")
        })
        .last()
        .unwrap();
    let image_mm = 40.0 * 1500.0 / (1500.0 - 40.0);
    let slope = 20.25 / 2.0 / image_mm;
    let from_edge = ((lowest - 1.25) - slope * 1.25) / 1.0f64.hypot(slope);
    // The body is 2 cm thick around the capsule and leans away from the mouth.
    assert!((0.10..0.135).contains(&from_edge), "{from_edge}");
    let shown = [
        ("/brief/schools/microphone", json!("in-shot")),
        ("/layout/microphone/position_m", json!([2, 1.75, 1.4])),
    ];
    assert!(
        in_the_way(&plain_with(&shown)).iter().all(|f| f.id != "legal.picture.microphone"),
        "in shot it may show"
    );
}

/// The same rule in feet and inches speaks of inches.
#[test]
fn amounts_are_in_the_persons_units() {
    let edits =
        [("/layout/lights/key/position_m", json!([1.8, 1.9, 1.3])), ("/brief/units", json!("imperial"))];
    let found = in_the_way(&plain_with(&edits)).into_iter().find(|f| f.id == "legal.picture.key").unwrap();
    assert!(found.sentence.contains('"') && !found.sentence.contains(" cm"), "{}", found.sentence);
}

/// Things moved together do not change who is in whose way: the whole corner shifted keeps its clearances.
#[test]
fn clearances_do_not_depend_on_where_the_corner_is() {
    let clear = |dx: f64, dy: f64| {
        let at = |x: f64, y: f64, z: f64| json!([x + dx, y + dy, z]);
        let plan = plain_with(&[
            ("/layout/seat/position_m", json!([2.0 + dx, 1.5 + dy])),
            ("/layout/camera/position_m", at(2.0, 3.0, 1.25)),
            ("/layout/lights/key/position_m", at(1.1, 2.4, 1.9)),
            ("/layout/microphone/position_m", at(2.0, 1.75, 1.75)),
            ("/layout/microphone/support/base_m", json!([2.9 + dx, 1.5 + dy])),
        ]);
        let corner = Corner::of(&plan).unwrap();
        let things = fogon_core::corner::things(&corner);
        things.iter().flat_map(|t| &t.pieces).map(|p| corner.view.clearance_m(&p.solid)).collect::<Vec<_>>()
    };
    let (here, there) = (clear(0.0, 0.0), clear(0.3, 0.7));
    assert_eq!(here.len(), there.len());
    assert!(here.iter().zip(&there).all(|(a, b)| (a - b).abs() < 1e-9));
}
