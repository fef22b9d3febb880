//! Numbers against sources outside this code: published formulas worked by a second route, and an independent
//! integration library. Sources stand in the fixtures.

use fogon_core::calc;
use fogon_core::colour::{cct_duv, mired_shift, mixed_xy, planckian_xy, shifted_k, uv_of, xy_at};
use fogon_core::exposure::{f_number_on_dial, iso_on_dial, shutter_s};
use fogon_core::geometry::DVec3;
use fogon_core::person::landmarks;
use fogon_core::photometry::polygon_illuminance;
use fogon_testkit::assert_close;
use serde_json::Value;

fn fixture(text: &str, least: usize) -> Vec<Value> {
    let rows: Vec<Value> = serde_json::from_str(text).unwrap();
    assert!(rows.len() >= least, "only {} rows", rows.len());
    rows
}

#[test]
fn calculations_agree_with_the_worked_checks() {
    let slice = fixture(include_str!("../fixtures/slice_checks.json"), 30);
    let shot = fixture(include_str!("../fixtures/shot_checks.json"), 35);
    let light = fixture(include_str!("../fixtures/light_checks.json"), 50);
    let sound = fixture(include_str!("../fixtures/sound_checks.json"), 45);
    for row in slice.iter().chain(&shot).chain(&light).chain(&sound) {
        let name = row["calculation"].as_str().unwrap();
        let output = calc::run(name, row["input"].to_string().as_bytes())
            .unwrap_or_else(|problem| panic!("{}: {problem}", row["id"]));
        for (path, want) in row["expected"].as_object().unwrap() {
            let pointer = format!("/{}", path.replace('.', "/"));
            let got = output.pointer(&pointer).unwrap_or(&Value::Null);
            let what = format!("{} {path}", row["id"]);
            if want.is_string() || want.is_boolean() {
                assert_eq!(got, want, "{what}");
                continue;
            }
            match want.as_f64() {
                Some(want) => {
                    let got = got.as_f64().unwrap_or_else(|| panic!("{what}: {got}"));
                    let (relative, absolute) =
                        (row["rel_tol"].as_f64().unwrap(), row["abs_tol"].as_f64().unwrap());
                    assert_close(got, want, relative.max(1e-7), absolute, &what);
                }
                None => assert!(got.is_null(), "{what}: {got} should be null"),
            }
        }
    }
}

/// Written by reference/colour: colour-science (Ohno 2013) between 2000 and 10,000 K, up to 0.02 off the locus; mixes of
/// two to four lights; the Planckian locus.
#[test]
fn colour_agrees_with_an_independent_library() {
    use fogon_core::colour::{cct_duv, mixed_xy, planckian_xy, xy_at};
    let file: Value = serde_json::from_str(include_str!("../fixtures/colour.json")).unwrap();
    let number = |row: &Value, name: &str| row[name].as_f64().unwrap();
    let rows = file["temperatures"].as_array().unwrap();
    assert!(rows.len() >= 60);
    let agrees = |xy: [f64; 2], row: &Value| {
        let (cct_k, duv) = cct_duv(xy).unwrap();
        assert_close(cct_k, number(row, "cct_k"), 0.0, 5.0, "temperature");
        assert_close(duv, number(row, "duv"), 0.0, 5e-4, "duv");
    };
    for row in rows {
        agrees([number(row, "x"), number(row, "y")], row);
    }
    for mix in file["mixes"].as_array().unwrap() {
        let lights = mix["lights"].as_array().unwrap();
        let parts =
            lights.iter().map(|l| (xy_at(number(l, "cct_k"), number(l, "duv")), number(l, "illuminance_lx")));
        let xy = mixed_xy(parts).unwrap();
        assert_close(xy[0], number(mix, "x"), 0.0, 5e-5, "x");
        assert_close(xy[1], number(mix, "y"), 0.0, 5e-5, "y");
        agrees(xy, mix);
    }
    for row in file["planck"].as_array().unwrap() {
        let xy = planckian_xy(number(row, "cct_k"));
        for (got, want) in xy.iter().zip(row["xy"].as_array().unwrap()) {
            // The library has c2 = 1.4388e-2 m K.
            assert_close(*got, want.as_f64().unwrap(), 0.0, 1e-5, "locus");
        }
    }
}

/// One exposure holds whole pulses: the light of a lamp that pulses like sin^2 is the same wherever it begins, for
/// every time listed and for no other up to the frame's (integration by the midpoint rule).
#[test]
fn flicker_free_times_are_those_that_gather_the_same_light() {
    let gathered = |mains: f64, time: f64, from: f64| {
        let steps = 4000;
        let step = time / f64::from(steps);
        (0..steps)
            .map(|i| {
                let at = from + (f64::from(i) + 0.5) * step;
                (std::f64::consts::TAU * mains * at).sin().powi(2) * step
            })
            .sum::<f64>()
    };
    let ripple = |mains: f64, time: f64| {
        let all: Vec<f64> = (0..7).map(|i| gathered(mains, time, f64::from(i) * 0.0013)).collect();
        (all.iter().fold(0.0, |a: f64, b| a.max(*b)) - all.iter().fold(f64::MAX, |a, b| a.min(*b))) / time
    };
    for (mains, rate) in [(50.0, 24.0), (50.0, 25.0), (60.0, 30_000.0 / 1001.0), (60.0, 24.0), (50.0, 60.0)] {
        let input = serde_json::json!({"mains_hz": mains, "frame_rate_hz": rate});
        let output = calc::run("flicker-free-shutters", input.to_string().as_bytes()).unwrap();
        let times: Vec<f64> =
            output["shutters_s"].as_array().unwrap().iter().map(|t| t.as_f64().unwrap()).collect();
        assert!(times.windows(2).all(|pair| pair[0] < pair[1]) && *times.last().unwrap() <= 1.0 / rate);
        for time in &times {
            assert!(ripple(mains, *time) < 1e-6, "{time} s at {mains} Hz");
        }
        let others = (1..200).map(|i| f64::from(i) / 200.0 / rate);
        for time in others.filter(|t| times.iter().all(|f| (f / t - 1.0).abs() > 0.02)) {
            assert!(ripple(mains, time) > 1e-4, "{time} s at {mains} Hz flickers not");
        }
    }
}

/// Exposures at 180 degrees under a lamp that pulses fully: worked by the sinc, and by summing the lamp's light here.
#[test]
fn the_ripple_left_is_that_of_the_pulses_cut() {
    use fogon_core::exposure::residual_ripple;
    for (rate, mains, left) in
        [(30.0, 50.0, 0.165_399), (24.0, 50.0, 0.039_544_6), (60.0, 50.0, 0.190_986), (24.0, 60.0, 0.127_324)]
    {
        let time = 0.5 / rate;
        assert_close(residual_ripple(mains, time), left, 1e-5, 0.0, "sinc");
        // Light 1 + cos: the most and least that an exposure gathers, about its mean.
        let gathered = |from: f64| {
            let steps = 2000;
            let at = |i: i32| from + (f64::from(i) + 0.5) * time / f64::from(steps);
            (0..steps).map(|i| 1.0 + (std::f64::consts::TAU * 2.0 * mains * at(i)).cos()).sum::<f64>()
                / f64::from(steps)
        };
        let all: Vec<f64> = (0..400).map(|i| gathered(f64::from(i) / 400.0 / (2.0 * mains))).collect();
        let most = all.iter().fold(0.0f64, |a, b| a.max(*b));
        assert_close(most - 1.0, left, 1e-3, 0.0, "summed");
    }
    assert!(residual_ripple(50.0, 0.02) < 1e-12 && residual_ripple(60.0, 1.0 / 120.0) < 1e-12);
}

/// Written by reference/area_light: double integration with SciPy.
#[test]
fn area_formula_agrees_with_integration() {
    for (index, row) in fixture(include_str!("../fixtures/area_light.json"), 24).iter().enumerate() {
        let point = |v: &Value| DVec3::from_array([0, 1, 2].map(|i| v[i].as_f64().unwrap()));
        let polygon: Vec<DVec3> = row["polygon_m"].as_array().unwrap().iter().map(point).collect();
        let luminance = row["luminance_cd_m2"].as_f64().unwrap();
        let got = polygon_illuminance(luminance, &polygon, point(&row["point_m"]), point(&row["normal"]));
        assert_close(got, row["illuminance_lx"].as_f64().unwrap(), 2e-4, 1e-3, &format!("case {index}"));
    }
}

/// Refusals in the order of the contract: JSON, unknown, missing, type, range, the calculation's own.
#[test]
fn bad_input_is_refused_by_name_value_and_range() {
    let refused = [
        ("flicker-free-shutters", r#"{"mains_hz":55,"frame_rate_hz":25}"#, "unsupported_mains_frequency"),
        ("flicker-free-shutters", r#"{"mains_hz":50,"frame_rate_hz":120}"#, "no_flicker_free_shutter"),
        ("face-perspective", r#"{"camera_distance_m":0.07}"#, "camera_inside_face"),
        ("body-landmarks", r#"{"stature_m":1.75,"posture":"seated"}"#, "missing_field"),
        ("body-landmarks", r#"{"stature_m":1.75,"posture":"standing","seat_height_m":0.45}"#, "conflict"),
        ("body-landmarks", r#"{"stature_m":1.75,"posture":"kneeling"}"#, "bad_choice"),
        (
            "bench-coverage",
            r#"{"sensor_width_mm":36,"sensor_height_mm":24,"focal_length_mm":50,"height_above_bench_m":0.05}"#,
            "subject_inside_focal_length",
        ),
        ("lighting-ratio", "{", "bad_json"),
        ("lighting-ratio", r#"{"key_lx":1,"key_lx":2,"fill_lx":1}"#, "bad_json"),
        ("lighting-ratio", r#"{"key_lx":1e999,"fill_lx":1}"#, "bad_json"),
        ("lighting-ratio", r#"{"key_lx":1,"extra":true}"#, "unknown_field"),
        ("lighting-ratio", r#"{"key_lx":true}"#, "missing_field"),
        ("lighting-ratio", r#"{"key_lx":true,"fill_lx":-1}"#, "wrong_type"),
        ("lighting-ratio", r#"{"key_lx":2e6,"fill_lx":1}"#, "out_of_range"),
        ("lighting-ratio", r#"{"key_lx":1,"fill_lx":0}"#, "not_positive"),
        (
            "field-of-view",
            r#"{"sensor_width_mm":36,"sensor_height_mm":20,"focal_length_mm":0}"#,
            "not_positive",
        ),
        (
            "field-of-view",
            r#"{"sensor_width_mm":36,"sensor_height_mm":20,"focal_length_mm":50,"subject_distance_m":0.05}"#,
            "subject_inside_focal_length",
        ),
        ("tape-mark", r#"{"room_width_m":3,"room_depth_m":3,"x_m":3.1,"y_m":1}"#, "out_of_range"),
        ("stand-tipping", r#"{"foot_circle_radius_m":0.4,"parts":[]}"#, "out_of_range"),
        (
            "stand-tipping",
            r#"{"foot_circle_radius_m":0.4,"parts":[{"mass_kg":1,"offset_m":0}],"bag_offset_behind_column_m":0.21}"#,
            "out_of_range",
        ),
        ("reverberation", r#"{"dimensions_m":[4,3],"surfaces":[]}"#, "out_of_range"),
        ("nothing", "{}", "unknown_name"),
    ];
    for (name, input, code) in refused {
        let problem = calc::run(name, input.as_bytes()).unwrap_err();
        assert_eq!(problem.code.as_str(), code, "{name} {input}: {problem}");
        let line = problem.to_string();
        assert!(line.contains(" is not accepted, give ") && !line.contains('\n'), "{line}");
    }
    let band = r#"{"dimensions_m":[4,3,2.5],"surfaces":[{"area_m2":10,"absorption":{"125":0.1,"250":0.1,"500":0,"1000":0.1,"2000":0.1,"4000":0.1}}]}"#;
    assert!(calc::run("reverberation", band.as_bytes()).unwrap_err().field.contains("500"));
    // Null optional fields count as absent; the back wall has no angle between its corners.
    let null =
        r#"{"sensor_width_mm":36,"sensor_height_mm":20,"focal_length_mm":50,"subject_distance_m":null}"#;
    assert!(calc::run("field-of-view", null.as_bytes()).is_ok());
    let back = calc::run("tape-mark", br#"{"room_width_m":3,"room_depth_m":3,"x_m":1,"y_m":0}"#).unwrap();
    assert!(back["worst_error_m"].is_null());
}

/// The ratios of Drillis and Contini (from memory) times a stature of 1.75 m, worked by hand.
#[test]
fn landmarks_follow_the_published_ratios() {
    let standing = landmarks(1.75, None);
    let seated = landmarks(1.75, Some(0.45));
    for (got, want) in [
        (standing.eye_m, 1.638),
        (standing.chin_m, 1.5225),
        (standing.waist_m, 1.05875),
        (seated.crown_m, 1.36),
        (seated.eye_m, 1.248),
        (seated.chest_m, 0.87),
        (seated.waist_m, 0.66875),
    ] {
        assert!((got - want).abs() < 1e-9, "{got} against {want}");
    }
}

/// What the trade sets at these rates and mains (common practice, no source).
#[test]
fn shutters_are_those_the_trade_sets() {
    for (rate, mains, want) in [
        (24.0, 50.0, 1.0 / 50.0),
        (25.0, 50.0, 1.0 / 50.0),
        (30.0, 50.0, 1.0 / 50.0),
        (60.0, 50.0, 1.0 / 100.0),
        (24.0, 60.0, 1.0 / 60.0),
        (25.0, 60.0, 1.0 / 60.0),
        (30.0, 60.0, 1.0 / 60.0),
        (60.0, 60.0, 1.0 / 120.0),
    ] {
        assert!((shutter_s(mains, rate) - want).abs() < 1e-12, "{rate} at {mains}");
    }
}

#[test]
fn dials_have_third_stops() {
    assert_eq!(iso_on_dial(326.667, 100.0, 25600.0), 320.0);
    assert_eq!(iso_on_dial(20.0, 64.0, 25600.0), 64.0);
    assert_eq!(iso_on_dial(9.0e5, 100.0, 51200.0), 50000.0);
    assert_eq!(f_number_on_dial(2.61, 1.8, 16.0), 2.5);
    assert_eq!(f_number_on_dial(4.0, 1.78, 1.78), 1.78);
}

#[test]
fn places_and_temperatures_come_back() {
    for (cct_k, duv) in [(2000.0, 0.0), (2700.0, 0.01), (4000.0, -0.02), (5600.0, 0.0), (9500.0, 0.015)] {
        let (back_k, back_duv) = cct_duv(xy_at(cct_k, duv)).unwrap();
        assert!((back_k - cct_k).abs() < 0.05, "{back_k} for {cct_k}");
        assert!((back_duv - duv).abs() < 1e-7, "{back_duv} for {duv}");
    }
    // Between its places the locus is the integral's.
    for mired in [10.3, 99.7, 178.4, 371.2, 999.9] {
        let ([u, v], [a, b]) = (uv_of(xy_at(1e6 / mired, 0.0)), uv_of(planckian_xy(1e6 / mired)));
        assert!((u - a).abs() < 1e-9 && (v - b).abs() < 1e-9, "at {mired}");
    }
    assert_eq!(cct_duv([0.2, 0.7]), None);
    assert_eq!(mixed_xy([]), None);
    assert_eq!(shifted_k(5600.0, -200.0), None);
    // Differences and shifts, worked by hand.
    assert!((mired_shift(5600.0, 3200.0) - 133.928_571).abs() < 1e-6);
    assert!((shifted_k(5600.0, 159.0).unwrap() - 2962.34).abs() < 0.01);
}
