//! The shot solved and read back: what is framed, where the eyes come to stand, how the body is measured. The pose is
//! solved in the core and checked here on the document's own definitions.

use fogon_core::corner::Corner;
use fogon_core::person::landmarks;
use fogon_core::plan::Plan;
use fogon_core::shot::framing::{pose, wanted};
use fogon_core::shot::lens;
use fogon_testkit::{any_brief, assert_close, box_room, set};
use proptest::prelude::*;
use serde_json::{Value, json};

use crate::support::{best, brief, plain_with, reading, value};

/// Framed height over stature with the eyes on the upper third, worked by hand from the body's ratios (Drillis and
/// Contini 1966, from memory): (eye - bottom edge) x 1.5 = (0.936 - 0.720) x 1.5.
#[test]
fn a_medium_close_up_frames_a_third_of_the_stature() {
    for stature in [1.5, 1.6, 1.75, 1.9, 2.05] {
        let mut document = box_room();
        set(&mut document, "/brief/person/stature_m", json!(stature));
        let file = brief(&document);
        let marks = landmarks(stature, Some(0.45));
        let want = wanted(&file.brief, &marks, 16.0 / 9.0);
        assert_close(want.frame_height_m / stature, 0.324, 1e-9, 0.0, "framed height");
        assert_close(want.eye_line, 1.0 / 3.0, 1e-12, 0.0, "eye line");
        // Headroom that comes with it: 0.135802, worked by hand.
        let headroom = (marks.chest_m + want.frame_height_m - marks.crown_m) / want.frame_height_m;
        assert_close(headroom, 0.135802, 1e-4, 0.0, "headroom");
    }
}

/// Standing heights are ratios of stature; sitting moves all of them by the same amount.
#[test]
fn sitting_down_lowers_everything_alike() {
    let (standing, seated) = (landmarks(1.8, None), landmarks(1.8, Some(0.5)));
    let drop = standing.eye_m - seated.eye_m;
    assert_close(drop, 0.480 * 1.8 - 0.5, 1e-12, 0.0, "hips to seat");
    for (a, b) in [
        (standing.crown_m, seated.crown_m),
        (standing.mouth_m, seated.mouth_m),
        (standing.chin_m, seated.chin_m),
        (standing.shoulder_m, seated.shoulder_m),
        (standing.chest_m, seated.chest_m),
        (standing.waist_m, seated.waist_m),
    ] {
        assert_close(a - b, drop, 1e-12, 0.0, "the same drop");
    }
    assert!(seated.crown_m > seated.eye_m && seated.eye_m > seated.mouth_m && seated.mouth_m > seated.chin_m);
    assert!(
        seated.chin_m > seated.shoulder_m
            && seated.shoulder_m > seated.chest_m
            && seated.chest_m > seated.waist_m
    );
}

#[test]
fn a_measured_eye_height_moves_the_whole_body() {
    let mut document = box_room();
    let before = best(&document);
    set(&mut document, "/brief/measured", json!({ "person.eye.height_m": 1.30 }));
    let after = best(&document);
    assert_close(value(&after, "person.eye.height_m"), 1.30, 1e-12, 0.0, "as measured");
    let marks = |plan: &Plan| Corner::of(plan).unwrap().landmarks;
    let shift = 1.30 - value(&before, "person.eye.height_m");
    assert_close(marks(&after).chest_m - marks(&before).chest_m, shift, 1e-9, 0.0, "chest");
    assert!(
        reading(&after, "person.eye.height_m").uncertainty.is_none(),
        "measured: no scatter between people"
    );
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 60, ..ProptestConfig::default() })]

    /// Whatever the purpose, school, lens and direction: from the solved pose both marks are projected where they are
    /// wanted, to less than a millimetre at the person, and the eyes in the middle.
    #[test]
    fn the_pose_frames_what_is_wanted(document in any_brief(), focal in 14.0f64..90.0, bearing in 0.0f64..360.0) {
        let file = brief(&document);
        let marks = fogon_core::person::landmarks_of(&file.brief);
        let portrait = document["brief"]["purpose"] == "vertical-short";
        let (width, height) = if portrait { (13.21875, 23.5) } else { (23.5, 13.21875) };
        let want = wanted(&file.brief, &marks, width / height);
        let eyes = fogon_core::geometry::DVec3::new(2.0, 2.0, marks.eye_m);
        let found = pose(&file.brief, &want, focal, height, eyes, bearing);
        let u = found.subject_distance_m;
        let image = focal * u / (u - focal / 1000.0);
        let camera = fogon_core::geometry::Pinhole::new(found.position_m, found.bearing_deg, found.tilt_deg, width, height, image);
        assert_close(camera.depth_m(eyes), u, 1e-9, 0.0, "depth of the eyes");
        for mark in [Some(want.upper), want.lower].into_iter().flatten() {
            let at = eyes + fogon_core::geometry::DVec3::Z * mark.above_eyes_m;
            let (x, y) = camera.project(at).unwrap();
            assert_close(x, 0.5, 0.0, 1e-9, "in the middle");
            assert_close((y - mark.from_top) * want.frame_height_m, 0.0, 0.0, 1e-6, "a mark, m at the person");
        }
        if want.lower.is_none() {
            assert_close(camera.frame_height_m(u), want.frame_height_m, 1e-6, 0.0, "framed height");
        }
        let rise = found.position_m.z - eyes.z;
        if document["brief"]["purpose"] == "audition-tape" {
            prop_assert_eq!(found.tilt_deg, 0.0);
        } else {
            // A camera that would look down by more than 10 degrees is lowered by as much, once: half a degree may be left.
            prop_assert!(found.tilt_deg > -10.6, "{}", found.tilt_deg);
            if found.tilt_deg > -9.5 {
                assert_close(rise, 0.0, 0.0, 1e-9, "lens at eye height");
            } else {
                prop_assert!(rise <= 1e-9);
            }
        }
        if portrait {
            prop_assert!(0.259 * file.brief.person.stature_m <= 0.9 * camera.frame_width_m(u) + 1e-9, "shoulders fit");
        }
    }

    /// The thin lens, backwards: the distance for a frame frames it; near and far limit blur by one circle of confusion.
    #[test]
    fn the_lens_formulas_invert_each_other(
        f in 8.0f64..120.0, n in 1.4f64..16.0, u in 0.6f64..6.0, c in 0.005f64..0.03, side in 5.0f64..36.0,
    ) {
        let framed = lens::frame_size_m(side, f, u);
        assert_close(lens::distance_for_frame_m(side, f, framed), u, 1e-9, 0.0, "distance for a frame");
        let field = lens::depth_of_field(f, n, u, c);
        assert_close(lens::blur_disc_mm(f, n, u, field.near_m), c, 1e-6, 0.0, "blur at the near limit");
        if let Some(far) = field.far_m {
            assert_close(lens::blur_disc_mm(f, n, u, far), c, 1e-6, 0.0, "blur at the far limit");
        } else {
            prop_assert!(u >= field.hyperfocal_m);
        }
        prop_assert!(field.near_m < u);
    }
}

/// Stopping down, a longer distance and a shorter lens each hold more of a lean.
#[test]
fn a_lean_is_held_by_depth() {
    let left = |edits: &[(&str, Value)]| value(&plain_with(edits), "shot.focus.front_tolerance_m");
    let usual = left(&[]);
    assert!(left(&[("/layout/camera/f_number", json!(8))]) > usual);
    assert!(left(&[("/layout/camera/focal_length_mm", json!(30))]) > usual);
    assert_close(left(&[("/brief/person/lean_m", json!(0.10))]), usual - 0.05, 1e-9, 0.0, "leaning further");
    // Focused behind the head, leaning in goes soft at once.
    assert!(left(&[("/layout/camera/focus_distance_m", json!(1.7))]) < usual);
}

/// Noise is told by the light that the active area gathers: 729 mm2 is full frame in 16:9.
#[test]
fn noise_is_told_in_full_frame_terms() {
    assert_close(value(&plain_with(&[]), "shot.exposure.full_frame_iso"), 250.0, 1e-9, 0.0, "full frame");
    let small = plain_with(&[
        ("/brief/gear/body/sensor_width_mm", json!(18)),
        ("/brief/gear/body/sensor_height_mm", json!(12)),
    ]);
    assert_close(value(&small, "shot.exposure.full_frame_iso"), 1000.0, 1e-9, 0.0, "two stops behind");
    let cropped = plain_with(&[("/brief/gear/body/extra_crop", json!(2))]);
    assert_close(value(&cropped, "shot.exposure.full_frame_iso"), 1000.0, 1e-9, 0.0, "cropped by two");
}
