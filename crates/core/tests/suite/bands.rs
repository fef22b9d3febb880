//! The table of bands, weights and schools as agreed: a change of it has to be made here too, on purpose. All of it is
//! Fogon's own rule after common practice, but where a row says otherwise.

use fogon_core::assess::bands::{self, band_of};
use fogon_core::assess::{evaluate, score};
use fogon_core::finding::Topic;
use fogon_core::plan::{Brief, Mounting};
use fogon_core::reading::{Band, Quantity, Standing, standing, trapezium};
use fogon_testkit::{box_room, set};
use proptest::prelude::*;
use serde_json::{Value, json};

use crate::support::{brief, demo};

type Row = (&'static str, [f64; 4]);
const OPEN: f64 = f64::INFINITY;

fn band([a, b, c, d]: [f64; 4]) -> Band {
    [a, b, c, d].map(|v| v.is_finite().then_some(v))
}

fn with(edits: &[(&str, Value)]) -> Brief {
    let mut document = box_room();
    for (pointer, value) in edits {
        set(&mut document, pointer, value.clone());
    }
    brief(&document).brief
}

/// The band of a reading by its id, before anything is placed.
fn band_for(id: &str, brief: &Brief) -> Option<Band> {
    let quantity = Quantity::of_id(id).unwrap_or_else(|| panic!("{id} is a reading"));
    band_of(quantity, &bands::Row::before_layout(brief)).0
}

/// The rows under the default schools, talking to the lens.
const ROWS: [Row; 19] = [
    ("shot.frame.height_error_percent", [-15.0, -5.0, 5.0, 15.0]),
    ("shot.frame.headroom_fraction", [-0.02, 0.04, 0.16, 0.25]),
    ("shot.frame.eye_line_error", [-0.10, -0.04, 0.04, 0.10]),
    ("shot.camera.view_angle_deg", [-10.0, -3.0, 3.0, 10.0]),
    ("shot.camera.distance_m", [0.9, 1.3, 2.5, 4.0]),
    ("shot.focus.front_tolerance_m", [-0.02, 0.0, OPEN, OPEN]),
    ("shot.background.blur_percent", [0.4, 1.0, 4.0, 10.0]),
    ("shot.exposure.full_frame_iso", [-OPEN, -OPEN, 6400.0, 6400.0]),
    ("room.background_behind_m", [0.5, 1.0, OPEN, OPEN]),
    ("light.key.azimuth_deg", [20.0, 30.0, 45.0, 60.0]),
    ("light.key.elevation_deg", [0.0, 15.0, 45.0, 50.0]),
    ("light.key.angular_size_deg", [5.0, 20.0, OPEN, OPEN]),
    ("light.face.exposure_stops", [-1.0, -0.3, 0.3, 1.0]),
    ("light.face.ratio", [1.4, 2.0, 4.0, 8.0]),
    ("light.back.flare_margin_deg", [-5.0, 0.0, OPEN, OPEN]),
    ("sound.microphone.distance_m", [0.2, 0.35, 0.6, 1.0]),
    ("sound.microphone.gain_over_camera_db", [0.0, 6.0, OPEN, OPEN]),
    ("sound.room.rt_mid_s", [0.15, 0.20, 0.40, 0.60]),
    ("room.mains.load_fraction", [-OPEN, -OPEN, 0.8, 1.0]),
];

#[test]
fn the_rows_are_as_agreed() {
    let usual = with(&[]);
    for (id, row) in ROWS {
        assert_eq!(band_for(id, &usual), Some(band(row)), "{id}");
    }
    for id in ["room.key.sandbag_kg", "light.face.illuminance_lx", "person.eye.height_m"] {
        assert_eq!(band_for(id, &usual), None, "{id} is for information");
    }
}

#[test]
fn schools_and_purposes_choose_their_rows() {
    let cases: [(&str, Value, &str, Option<[f64; 4]>); 14] = [
        ("/brief/schools/placement", json!("centred"), "shot.frame.headroom_fraction", None),
        (
            "/brief/schools/camera-height",
            json!("slightly-below"),
            "shot.camera.view_angle_deg",
            Some([-15.0, -10.0, -3.0, 0.0]),
        ),
        (
            "/brief/schools/lens",
            json!("near-and-wide"),
            "shot.camera.distance_m",
            Some([0.40, 0.60, 1.00, 1.50]),
        ),
        ("/brief/schools/lens", json!("near-and-wide"), "shot.background.blur_percent", None),
        ("/brief/schools/source", json!("small-near"), "light.key.angular_size_deg", None),
        (
            "/brief/schools/microphone",
            json!("desk"),
            "sound.microphone.distance_m",
            Some([0.05, 0.15, 0.30, 0.60]),
        ),
        (
            "/brief/schools/microphone",
            json!("lavalier"),
            "sound.microphone.distance_m",
            Some([0.05, 0.15, 0.30, 0.60]),
        ),
        (
            "/brief/schools/microphone",
            json!("in-shot"),
            "sound.microphone.distance_m",
            Some([0.0, 0.0, 0.6, 1.5]),
        ),
        ("/brief/purpose", json!("audition-tape"), "shot.seat.gaze_deg", Some([4.0, 5.0, 12.0, 20.0])),
        (
            "/brief/purpose",
            json!("vertical-short"),
            "shot.frame.shoulder_fraction",
            Some([-OPEN, -OPEN, 0.9, 1.0]),
        ),
        ("/brief/purpose", json!("talk-to-lens"), "shot.frame.shoulder_fraction", None),
        ("/brief/purpose", json!("talk-to-lens"), "shot.seat.gaze_deg", None),
        ("/brief/schools/aperture", json!("wide-open"), "light.face.ratio", Some([1.4, 2.0, 4.0, 8.0])),
        ("/brief/purpose", json!("audition-tape"), "light.key.azimuth_deg", Some([20.0, 30.0, 45.0, 60.0])),
    ];
    for (pointer, choice, id, row) in cases {
        let found = band_for(id, &with(&[(pointer, choice.clone())]));
        assert_eq!(found, row.map(band), "{id} with {pointer} = {choice}");
    }
    // A camera that follows the face needs no depth for leaning.
    let (usual, tolerance) = (with(&[]), Quantity::ShotFocusFrontToleranceM);
    let tracked = bands::Row { face_is_tracked: true, ..bands::Row::before_layout(&usual) };
    assert_eq!(band_of(tolerance, &tracked).0, None);
    // What is worn has its own distance whatever the school: a headset hangs 3 to 10 cm from the mouth.
    for (mounting, good) in [(Mounting::Headset, 0.05), (Mounting::Lavalier, 0.22), (Mounting::Boom, 0.45)] {
        let row = bands::Row { mounting: Some(mounting), ..bands::Row::before_layout(&usual) };
        let band = band_of(Quantity::SoundMicrophoneDistanceM, &row).0.unwrap();
        assert_eq!(standing(good, band), Standing::Good, "{mounting:?}");
    }
}

#[test]
fn weights_follow_the_spending_school_and_sum_to_one() {
    for (school, weights) in [
        ("sound", [0.40, 0.30, 0.14, 0.10, 0.06]),
        ("light", [0.28, 0.42, 0.10, 0.14, 0.06]),
        ("lens", [0.25, 0.25, 0.08, 0.36, 0.06]),
        ("set-and-light", [0.22, 0.32, 0.28, 0.12, 0.06]),
    ] {
        let found = score::weights(&with(&[("/brief/schools/spending", json!(school))])).map(|(_, w)| w);
        assert_eq!(found, weights, "{school}");
        assert!((weights.iter().sum::<f64>() - 1.0).abs() < 1e-12);
    }
}

/// The score is what the definition says, worked out again from the readings themselves.
#[test]
fn the_score_is_the_weighted_mean_of_aspect_means() {
    let plan = demo();
    let judged = evaluate(&plan);
    let (mut sum, mut total) = (0.0, 0.0);
    for (aspect, weight) in score::weights(&plan.brief) {
        let scores: Vec<f64> = judged
            .readings
            .iter()
            .filter(|r| r.aspect == Some(aspect))
            .filter_map(|r| Some(trapezium(r.value?, r.band?)))
            .collect();
        if !scores.is_empty() {
            sum += weight * scores.iter().sum::<f64>() / scores.len() as f64;
            total += weight;
        }
    }
    assert!((judged.score - sum / total).abs() < 1e-12, "{} against {}", judged.score, sum / total);
    assert_eq!(judged.aspects.len(), 5);
}

/// Ready exactly when nothing is broken and nothing is poor; "consider" never blocks.
#[test]
fn the_verdict_follows_the_findings() {
    let judged = evaluate(&demo());
    assert!(judged.verdict.ready && !judged.findings.is_empty(), "the demo has advice and is ready");
    for reading in &judged.readings {
        let (Some(value), Some(band)) = (reading.value, reading.band) else { continue };
        assert_eq!(reading.standing, standing(value, band), "{}", reading.id);
        let spoken = judged.findings.iter().any(|f| f.id == Topic::Reading(reading.id.clone()));
        assert_eq!(spoken, matches!(reading.standing, Standing::Fair | Standing::Poor), "{}", reading.id);
    }
}

proptest! {
    /// Scores stay in [0, 1], are 1 where the word is good, and fall with the distance from the good range.
    #[test]
    fn scores_and_words_agree(row in 0usize..ROWS.len(), at in -2.0f64..3.0) {
        let limits = ROWS[row].1;
        let known: Vec<f64> = limits.into_iter().filter(|v| v.is_finite()).collect();
        let (low, high) = (known[0], known[known.len() - 1]);
        let value = low + at * (high - low).max(1.0);
        let score = trapezium(value, band(limits));
        prop_assert!((0.0..=1.0).contains(&score));
        match standing(value, band(limits)) {
            Standing::Good => prop_assert!(score > 1.0 - 1e-6),
            Standing::Poor => prop_assert!(score < 1e-6),
            _ => {}
        }
    }
}

#[test]
fn bands_score_and_name_alike() {
    let band = [Some(20.0), Some(30.0), Some(45.0), Some(60.0)];
    for (value, score, word) in [
        (19.0, 0.0, Standing::Poor),
        (20.0, 0.0, Standing::Fair),
        (25.0, 0.5, Standing::Fair),
        (30.0, 1.0, Standing::Good),
        (45.0, 1.0, Standing::Good),
        (52.5, 0.5, Standing::Fair),
        (60.1, 0.0, Standing::Poor),
    ] {
        assert!((trapezium(value, band) - score).abs() < 1e-12, "{value}");
        assert_eq!(standing(value, band), word, "{value}");
    }
    let open = [Some(0.5), Some(1.0), None, None];
    assert_eq!((trapezium(9.0, open), standing(9.0, open)), (1.0, Standing::Good));
    let load = [None, None, Some(0.8), Some(1.0)];
    assert_eq!((trapezium(0.1, load), standing(0.9, load)), (1.0, Standing::Fair));
}
