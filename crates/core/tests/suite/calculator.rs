//! The contract of `calc`, for every calculation and every field it lists: what is refused, with which word, and that
//! whatever is accepted gives finite numbers.

use fogon_core::calc;
use proptest::prelude::*;
use serde_json::{Map, Value, json};

/// A valid input of each calculation.
const VALID: [(&str, &str); 58] = [
    (
        "field-of-view",
        r#"{"sensor_width_mm":36,"sensor_height_mm":20.25,"focal_length_mm":50,"subject_distance_m":1.45}"#,
    ),
    (
        "frame-size",
        r#"{"sensor_width_mm":36,"sensor_height_mm":20.25,"focal_length_mm":50,"subject_distance_m":1.45}"#,
    ),
    (
        "depth-of-field",
        r#"{"focal_length_mm":50,"f_number":4,"subject_distance_m":1.45,"circle_of_confusion_mm":0.0275}"#,
    ),
    (
        "background-blur",
        r#"{"focal_length_mm":50,"f_number":4,"subject_distance_m":1.45,"background_distance_m":2.45,"sensor_width_mm":36}"#,
    ),
    ("exposure-illuminance", r#"{"f_number":4,"shutter_s":0.02,"iso":400,"calibration_constant":250}"#),
    ("body-landmarks", r#"{"stature_m":1.75,"posture":"seated","seat_height_m":0.45}"#),
    (
        "shot-distance",
        r#"{"sensor_width_mm":36,"sensor_height_mm":20.25,"focal_length_mm":50,"framed_height_m":0.567}"#,
    ),
    ("face-perspective", r#"{"camera_distance_m":0.7}"#),
    ("gaze-offset", r#"{"camera_distance_m":1,"offset_m":0.09}"#),
    ("text-legibility", r#"{"character_height_mm":8.4,"viewing_distance_m":1.45}"#),
    ("moire", r#"{"stripe_pitch_mm":0.5,"frame_width_m":1.008,"recorded_width_px":3840}"#),
    ("flicker-free-shutters", r#"{"mains_hz":50,"frame_rate_hz":25}"#),
    ("noise-stops", r#"{"sensor_width_mm":23.5,"sensor_height_mm":13.21875,"iso":1600}"#),
    ("recording-time", r#"{"card_gb":128,"bitrate_mbit_s":100}"#),
    (
        "crop-survival",
        r#"{"recorded_width_px":3840,"recorded_height_px":2160,"delivered_width_px":1920,"delivered_height_px":1080}"#,
    ),
    (
        "bench-coverage",
        r#"{"sensor_width_mm":36,"sensor_height_mm":20.25,"focal_length_mm":50,"height_above_bench_m":1.45}"#,
    ),
    ("inverse-square", r#"{"illuminance_lx":1500,"at_distance_m":1,"wanted_distance_m":2}"#),
    ("lighting-ratio", r#"{"key_lx":800,"fill_lx":250}"#),
    (
        "polygon-illuminance",
        r#"{"luminance_cd_m2":1000,"polygon_m":[[-0.3,1,-0.3],[0.3,1,-0.3],[0.3,1,0.3],[-0.3,1,0.3]],"point_m":[0,0,0],"normal":[0,1,0]}"#,
    ),
    ("disc-illuminance", r#"{"luminance_cd_m2":1000,"radius_m":0.45,"distance_m":1}"#),
    (
        "ring-illuminance",
        r#"{"luminance_cd_m2":8000,"outer_radius_m":0.24,"inner_radius_m":0.17,"distance_m":0.8}"#,
    ),
    ("source-angular-size", r#"{"diameter_m":0.9,"distance_m":1.1}"#),
    ("penumbra", r#"{"source_diameter_m":0.55,"source_to_edge_m":0.9,"edge_to_surface_m":0.02}"#),
    (
        "key-distance",
        r#"{"source_shape":"disc","diameter_m":0.9,"horizontal_fov_deg":40,"vertical_fov_deg":23.14,"camera_m":[0,0,1.2],"subject_m":[0,1.5,1.2],"azimuth_deg":45,"elevation_deg":30,"margin_m":0.05}"#,
    ),
    ("room-bounce", r#"{"dimensions_m":[3,4,2.4],"flux_lm":5398,"mean_reflectance":0.6}"#),
    ("fill-needed", r#"{"key_lx":800,"ambient_lx":50,"wanted_ratio":4}"#),
    ("mired-shift", r#"{"from_k":5600,"to_k":3200}"#),
    ("colour-temperature", r#"{"x":0.325,"y":0.35}"#),
    (
        "mix-colour",
        r#"{"lights":[{"cct_k":5600,"duv":0.001,"illuminance_lx":800},{"cct_k":2700,"illuminance_lx":100}]}"#,
    ),
    (
        "glasses-glare",
        r#"{"source_azimuth_deg":35,"source_elevation_deg":5,"source_diameter_m":0.6,"source_distance_m":0.9,"camera_distance_m":1.5,"pantoscopic_tilt_deg":9,"wrap_deg":5,"lens_front_radius_m":0.1325,"lens_width_m":0.05,"lens_height_m":0.036}"#,
    ),
    (
        "catchlight",
        r#"{"source_azimuth_deg":-40,"source_elevation_deg":30,"source_diameter_m":0.9,"source_distance_m":1.1}"#,
    ),
    (
        "sun-position",
        r#"{"time":"2003-10-17T12:30:30-07:00","latitude_deg":39.7,"longitude_deg":-105.2,"elevation_m":1830,"pressure_hpa":820,"temperature_c":11,"delta_t_s":67}"#,
    ),
    (
        "sun-patch",
        r#"{"window_width_m":1.2,"sill_m":0.9,"window_height_m":1.2,"reveal_depth_m":0.2,"window_azimuth_deg":170,"sun_azimuth_deg":190,"sun_elevation_deg":35}"#,
    ),
    (
        "daylight-factor",
        r#"{"glazing_transmittance":0.68,"glazed_area_m2":2,"sky_angle_deg":65,"maintenance_factor":0.9,"total_surface_m2":60,"mean_reflectance":0.5}"#,
    ),
    (
        "overcast-window",
        r#"{"horizontal_illuminance_lx":10000,"ground_reflectance":0.2,"glass_transmittance":0.68,"window_width_m":1.4,"sill_m":0.9,"window_height_m":1.3,"face_height_m":1.2,"distance_m":1.5}"#,
    ),
    ("level-at-distance", r#"{"level_db":60,"at_distance_m":0.2,"wanted_distance_m":0.65}"#),
    (
        "reverberation",
        r#"{"dimensions_m":[4,3.2,2.5],"surfaces":[{"area_m2":61.6,"absorption":{"125":0.2,"250":0.2,"500":0.2,"1000":0.2,"2000":0.2,"4000":0.2}}]}"#,
    ),
    ("critical-distance", r#"{"volume_m3":32,"rt60_s":0.35,"source_q":2,"microphone_q":3.732}"#),
    ("room-modes", r#"{"dimensions_m":[4,3.2,2.5],"up_to_hz":200,"speed_m_s":343}"#),
    ("schroeder-frequency", r#"{"volume_m3":32,"rt60_s":0.35}"#),
    ("direct-to-reverberant", r#"{"distance_m":0.65,"critical_distance_m":0.55}"#),
    ("clarity-c50", r#"{"rt60_s":0.35,"direct_to_reverberant_db":6}"#),
    (
        "speech-transmission-index",
        r#"{"rt60_s":{"125":0.5,"250":0.5,"500":0.5,"1000":0.5,"2000":0.5,"4000":0.4,"8000":0.3},"snr_db":{"125":15,"250":15,"500":15,"1000":15,"2000":15,"4000":15,"8000":15},"direct_to_reverberant_db":{"125":3,"250":3,"500":3,"1000":3,"2000":3,"4000":3,"8000":3}}"#,
    ),
    ("sum-levels", r#"{"levels_db":[30,30,33,20]}"#),
    ("polar-pattern", r#"{"pattern_a":0.5}"#),
    (
        "comb-notch",
        r#"{"mouth_above_desk_m":0.4,"microphone_above_desk_m":0.25,"horizontal_m":0.3,"reflection_factor":0.95,"speed_m_s":343}"#,
    ),
    (
        "boom-position",
        r#"{"camera_height_m":1.25,"camera_pitch_up_deg":0,"mouth_height_m":1.2,"mouth_distance_m":1.5,"half_vfov_deg":11.4475962637,"margin_m":0.08}"#,
    ),
    (
        "image-source",
        r#"{"dimensions_m":[4,3.2,2.5],"absorption":{"x0":0.2,"x1":0.2,"y0":0.2,"y1":0.2,"floor":0.2,"ceiling":0.2},"source_m":[1.2,1.35,1.15],"microphone_m":[1.85,1.5,1.45],"count":10,"speed_m_s":343}"#,
    ),
    (
        "absorption-needed",
        r#"{"volume_m3":32,"present_absorption_m2":5.2,"target_rt60_s":0.35,"speed_m_s":343}"#,
    ),
    ("porous-absorber", r#"{"flow_resistivity_pa_s_m2":12000,"thickness_m":0.05,"air_gap_m":0.05}"#),
    (
        "preamp-gain",
        r#"{"speech_level_1m_db":66,"distance_m":0.45,"crest_db":18,"sensitivity_mv_pa":20,"full_scale_dbu":4,"target_peak_dbfs":-9}"#,
    ),
    ("sync-drift", r#"{"drift_ppm":20,"minutes":30,"frame_rate_hz":25}"#),
    ("listening-time", r#"{"level_dba":89}"#),
    ("tape-mark", r#"{"room_width_m":3.4,"room_depth_m":2.9,"x_m":1.2,"y_m":1.4,"tape_error_m":0.01}"#),
    (
        "stand-tipping",
        r#"{"foot_circle_radius_m":0.5,"parts":[{"mass_kg":4,"offset_m":0},{"mass_kg":2.5,"offset_m":1.2}],"knock_force_n":10,"knock_height_m":2,"bag_offset_behind_column_m":0.2,"safety_factor":1.5}"#,
    ),
    ("circuit-load", r#"{"watts":[350,200,150,1000],"volts":230,"breaker_a":16,"power_factor":0.95}"#),
    (
        "best-kit",
        r#"{"items":[{"id":"a","price":60,"score":0.3},{"id":"b","price":50,"score":0.28},{"id":"c","price":50,"score":0.27}],"budget":100}"#,
    ),
    ("cost-per-year", r#"{"price":240,"resale":60,"years":9}"#),
];

fn refusal(name: &str, input: &Value) -> (String, String) {
    let problem = calc::run(name, input.to_string().as_bytes()).expect_err(&format!("{name} takes {input}"));
    assert!(!problem.accepted.is_empty() && !problem.to_string().contains('\n'));
    (problem.field, problem.code.as_str().to_owned())
}

fn valid(name: &str) -> &'static str {
    VALID.iter().find(|(n, _)| *n == name).unwrap().1
}

fn object(text: &str) -> Map<String, Value> {
    serde_json::from_str(text).unwrap()
}

fn finite(value: &Value) -> bool {
    match value {
        Value::Number(n) => n.as_f64().is_some_and(f64::is_finite),
        Value::Object(map) => map.values().all(finite),
        Value::Array(list) => list.iter().all(finite),
        _ => true,
    }
}

fn listed() -> Value {
    serde_json::to_value(calc::list()).unwrap()
}

#[test]
fn the_list_names_every_calculation_with_fields_units_and_ranges() {
    let list = listed();
    let names: Vec<&str> = list.as_array().unwrap().iter().map(|c| c["name"].as_str().unwrap()).collect();
    assert_eq!(names, VALID.map(|(name, _)| name));
    for calculation in list.as_array().unwrap() {
        for field in calculation["fields"].as_array().unwrap() {
            let name = field["name"].as_str().unwrap();
            assert!(!field["range"].as_str().unwrap().is_empty(), "{name} has no range");
            assert!(field["required"].is_boolean());
            for (ending, unit) in [
                ("_mm", "mm"),
                ("_m", "m"),
                ("_lx", "lx"),
                ("_s", "s"),
                ("_kg", "kg"),
                ("_n", "N"),
                ("_db", "dB"),
            ] {
                if name.ends_with(ending) && !name.ends_with("_mm")
                    || name.ends_with("_mm") && ending == "_mm"
                {
                    assert_eq!(field["unit"], unit, "{name}");
                }
            }
        }
    }
}

#[test]
fn every_field_is_missed_mistyped_and_bounded() {
    let list = listed();
    let mut tried = 0;
    for ((name, valid), calculation) in VALID.iter().zip(list.as_array().unwrap()) {
        let whole = object(valid);
        assert!(finite(&calc::run(name, valid.as_bytes()).unwrap()), "{name}");
        let mut with_more = whole.clone();
        with_more.insert("colour".into(), json!(1));
        assert_eq!(
            refusal(name, &Value::Object(with_more)),
            ("colour".into(), "unknown_field".into()),
            "{name}"
        );
        for (key, value) in &whole {
            let with = |new: Value| {
                let mut changed = whole.clone();
                changed.insert(key.clone(), new);
                Value::Object(changed)
            };
            let field = calculation["fields"].as_array().unwrap().iter().find(|f| f["name"] == key.as_str());
            // A seat that only a seated person needs, a diameter that only a disc has.
            let under = format!("{key}.");
            let optional_parts = calculation["fields"]
                .as_array()
                .unwrap()
                .iter()
                .any(|f| f["name"].as_str().unwrap().starts_with(&under) && f["required"] == false);
            let required = field.is_none_or(|f| f["required"] == true) && !optional_parts
                || key == "seat_height_m"
                || (*name == "key-distance" && key == "diameter_m");
            let mut without = whole.clone();
            without.remove(key);
            match required {
                true => {
                    for absent in [Value::Object(without), with(Value::Null)] {
                        let (at, code) = refusal(name, &absent);
                        assert_eq!(at, *key, "{name}");
                        assert!(code == "missing_field" || code == "wrong_type", "{name}.{key}: {code}");
                    }
                }
                // A null optional field counts as absent.
                false => {
                    let absent = calc::run(name, Value::Object(without).to_string().as_bytes()).unwrap();
                    assert_eq!(calc::run(name, with(Value::Null).to_string().as_bytes()).unwrap(), absent);
                }
            }
            let no_word = match value {
                // A text that is no time of the calendar.
                Value::String(_) if key == "time" => "out_of_range",
                Value::String(_) => "bad_choice",
                _ => "wrong_type",
            };
            // An empty object is none of a kind, unless one is asked for: then it lacks its fields.
            let other = if value.is_object() { json!([]) } else { json!({}) };
            for (wrong, code) in [(json!("12"), no_word), (json!(true), "wrong_type"), (other, "wrong_type")]
            {
                assert_eq!(refusal(name, &with(wrong)), (key.clone(), code.into()), "{name}");
            }
            if value.is_number() {
                assert_eq!(refusal(name, &with(json!([1]))).1, "wrong_type");
                let (at, code) = refusal(name, &with(json!(1e12)));
                let beyond = if key == "mains_hz" { "unsupported_mains_frequency" } else { "out_of_range" };
                assert_eq!((at.as_str(), code.as_str()), (key.as_str(), beyond), "{name}");
                let (at, code) = refusal(name, &with(json!(-1e12)));
                assert!(
                    at == *key && [beyond, "not_positive"].contains(&code.as_str()),
                    "{name}.{key}: {code}"
                );
            }
            tried += 1;
        }
    }
    assert!(tried > 110, "{tried}");
}

/// Refusals of sound that one field alone does not show, each at its field.
#[test]
fn sound_refuses_what_has_no_answer() {
    let input = |text: &str| serde_json::from_str::<Value>(text).unwrap();
    for (name, edits, field) in [
        ("image-source", vec![("source_m", json!([4.0, 1, 1]))], "source_m[0]"),
        ("image-source", vec![("microphone_m", json!([1, 1, 0]))], "microphone_m[2]"),
        ("image-source", vec![("microphone_m", json!([1.24, 1.35, 1.15]))], "microphone_m"),
        ("image-source", vec![("dimensions_m", json!([0.9, 3.2, 2.5]))], "dimensions_m[0]"),
        (
            "image-source",
            vec![("absorption", json!({"x0":0.2,"x1":0.2,"y0":1.2,"y1":0.2,"floor":0.2,"ceiling":0.2}))],
            "absorption.y0",
        ),
        ("image-source", vec![("count", json!(100_001))], "count"),
        ("room-modes", vec![("up_to_hz", json!(20_000))], "up_to_hz"),
        ("boom-position", vec![("mouth_height_m", json!(2.4))], "mouth_height_m"),
        ("boom-position", vec![("mouth_height_m", json!(0.5))], "mouth_height_m"),
        ("critical-distance", vec![("microphone_q", json!(0.5))], "microphone_q"),
        ("comb-notch", vec![("reflection_factor", json!(1.0))], "reflection_factor"),
        ("sum-levels", vec![("levels_db", json!([]))], "levels_db"),
        ("sum-levels", vec![("levels_db", json!([30, 201]))], "levels_db[1]"),
        ("speech-transmission-index", vec![("rt60_s", json!({"125":0.5}))], "rt60_s.250"),
    ] {
        let mut changed = input(valid(name));
        for (key, value) in edits {
            changed[key] = value;
        }
        assert_eq!(refusal(name, &changed).0, field, "{name}");
    }
    // Nothing reflected has no level; an empty list of modes is an answer.
    let run = |name: &str, key: &str, value: Value| {
        let mut changed = input(valid(name));
        changed[key] = value;
        calc::run(name, changed.to_string().as_bytes()).unwrap()
    };
    assert!(run("comb-notch", "reflection_factor", json!(0))["reflection_rel_db"].is_null());
    assert_eq!(run("room-modes", "up_to_hz", json!(20))["modes"], json!([]));
    // No noise and no decay leave speech whole; images are as many as asked, however many that is.
    let silent = json!({"125":null,"250":null,"500":null,"1000":null,"2000":null,"4000":null,"8000":null});
    let dead = json!({"125":0,"250":0,"500":0,"1000":0,"2000":0,"4000":0,"8000":0});
    let ideal = json!({"rt60_s": dead, "snr_db": silent});
    assert_eq!(calc::run("speech-transmission-index", ideal.to_string().as_bytes()).unwrap()["sti"], 1.0);
    let many = run("image-source", "count", json!(100_000));
    assert_eq!(many["arrivals"].as_array().unwrap().len(), 100_000);
}

/// What one field alone does not show: each refusal of light and colour under its own word, at its field.
#[test]
fn light_and_colour_refuse_by_their_own_words() {
    for (name, edits, field, code) in [
        (
            "polygon-illuminance",
            vec![("polygon_m", json!([[0, 1, 0], [1, 1, 0], [2, 1, 0]]))],
            "polygon_m",
            "degenerate_polygon",
        ),
        (
            "polygon-illuminance",
            vec![("polygon_m", json!([[0, 1, 0], [1, 1, 0], [1, 1.2, 1], [0, 1, 1]]))],
            "polygon_m",
            "not_planar",
        ),
        (
            "polygon-illuminance",
            vec![("polygon_m", json!([[0, 1, 0], [1, 1, 0], [0.2, 1, 0.2], [0, 1, 1]]))],
            "polygon_m",
            "not_convex",
        ),
        ("polygon-illuminance", vec![("normal", json!([0, 0, 0]))], "normal", "not_positive"),
        ("ring-illuminance", vec![("inner_radius_m", json!(0.25))], "inner_radius_m", "inner_not_smaller"),
        ("fill-needed", vec![("wanted_ratio", json!(1))], "wanted_ratio", "ratio_not_above_one"),
        ("room-bounce", vec![("mean_reflectance", json!(1))], "mean_reflectance", "out_of_range"),
        (
            "key-distance",
            vec![("azimuth_deg", json!(180)), ("elevation_deg", json!(0))],
            "azimuth_deg",
            "no_position_out_of_frame",
        ),
        ("key-distance", vec![("subject_m", json!([3, 1.5, 1.2]))], "subject_m", "out_of_range"),
        ("key-distance", vec![("width_m", json!(0.6))], "width_m", "conflict"),
        ("key-distance", vec![("source_shape", json!("rectangle"))], "diameter_m", "conflict"),
        (
            "colour-temperature",
            vec![("x", json!(0.3)), ("y", json!(0.6))],
            "x",
            "chromaticity_too_far_from_locus",
        ),
        (
            "mix-colour",
            vec![("lights", json!([{ "cct_k": 5600, "illuminance_lx": 0 }]))],
            "lights",
            "out_of_range",
        ),
        (
            "glasses-glare",
            vec![
                ("lens_front_radius_m", json!(0.05)),
                ("lens_width_m", json!(0.09)),
                ("lens_height_m", json!(0.06)),
            ],
            "lens_front_radius_m",
            "conflict",
        ),
        ("circuit-load", vec![("watts", json!([100, -1]))], "watts[1]", "out_of_range"),
        ("cost-per-year", vec![("resale", json!(241))], "resale", "conflict"),
        (
            "best-kit",
            vec![("items", json!([{"id": "a", "price": 1, "score": 1, "needs": ["x"]}]))],
            "items[0].needs",
            "unknown_id",
        ),
        (
            "best-kit",
            vec![(
                "items",
                json!([{"id": "a", "price": 1, "score": 1}, {"id": "a", "price": 2, "score": 1}]),
            )],
            "items[1].id",
            "conflict",
        ),
    ] {
        let mut changed = object(valid(name));
        for (key, value) in edits {
            changed.insert(key.into(), value);
        }
        let (at, word) = refusal(name, &Value::Object(changed));
        assert_eq!((at.as_str(), word.as_str()), (field, code), "{name}");
    }
}

/// Limits are inclusive; a hair beyond is refused.
#[test]
fn limits_are_inclusive() {
    for (name, key, low, high) in [
        ("depth-of-field", "focal_length_mm", 1.0, 600.0),
        ("depth-of-field", "f_number", 0.7, 64.0),
        ("exposure-illuminance", "iso", 25.0, 409_600.0),
        ("exposure-illuminance", "calibration_constant", 200.0, 600.0),
        ("level-at-distance", "at_distance_m", 0.02, 50.0),
        ("inverse-square", "wanted_distance_m", 0.01, 50.0),
        ("lighting-ratio", "key_lx", 0.0, 1e6),
        ("stand-tipping", "safety_factor", 1.0, 10.0),
    ] {
        let valid = valid(name);
        let with = |value: f64| {
            let mut changed = object(valid);
            changed.insert(key.into(), json!(value));
            // Far enough to be imaged by any lens.
            if name == "depth-of-field" {
                changed.insert("subject_distance_m".into(), json!(2.0));
            }
            calc::run(name, Value::Object(changed).to_string().as_bytes())
        };
        assert!(with(low).is_ok() && with(high).is_ok(), "{name}.{key}");
        let beyond = |limit: f64, by: f64| limit + by * limit.abs().max(1.0) * 1e-6;
        assert!(with(beyond(low, -1.0)).is_err() && with(beyond(high, 1.0)).is_err(), "{name}.{key}");
    }
}

#[test]
fn nested_fields_are_named_by_their_path() {
    let input = |text: &str| serde_json::from_str::<Value>(text).unwrap();
    let mut rooms = input(valid("reverberation"));
    rooms["surfaces"][0]["absorption"]["500"] = json!(1.2);
    assert_eq!(
        refusal("reverberation", &rooms),
        ("surfaces[0].absorption.500".into(), "out_of_range".into())
    );
    rooms["surfaces"][0]["absorption"].as_object_mut().unwrap().remove("500");
    assert_eq!(
        refusal("reverberation", &rooms),
        ("surfaces[0].absorption.500".into(), "missing_field".into())
    );
    let mut stand = input(valid("stand-tipping"));
    stand["parts"][1]["mass_kg"] = json!(-1);
    assert_eq!(refusal("stand-tipping", &stand).0, "parts[1].mass_kg");
}

/// Physics that no table is needed for.
#[test]
fn answers_behave_as_physics_does() {
    let number = |name: &str, input: Value, field: &str| {
        calc::run(name, input.to_string().as_bytes()).unwrap()[field].as_f64().unwrap()
    };
    let blur = |x: f64| {
        number(
            "background-blur",
            json!({"focal_length_mm":50,"f_number":4,"subject_distance_m":1.45,"background_distance_m":x,"sensor_width_mm":36}),
            "blur_disc_mm",
        )
    };
    assert_eq!(blur(1.45), 0.0);
    assert!(blur(1.2) > 0.0 && blur(2.0) < blur(3.0));
    // Opening by two stops and halving ISO twice needs the same light.
    let light = |n: f64, iso: f64| {
        number("exposure-illuminance", json!({"f_number":n,"shutter_s":0.02,"iso":iso}), "illuminance_lx")
    };
    assert!((light(2.0, 100.0) - light(4.0, 400.0)).abs() < 1e-9);
    assert_eq!(number("exposure-illuminance", json!({"f_number":1,"shutter_s":1,"iso":100}), "ev100"), 0.0);
    let far = calc::run(
        "depth-of-field",
        br#"{"focal_length_mm":12,"f_number":5.6,"subject_distance_m":3,"circle_of_confusion_mm":0.0132327}"#,
    )
    .unwrap();
    assert!(far["far_m"].is_null() && far["near_m"].as_f64().unwrap() < 3.0);
    assert_eq!(number("lighting-ratio", json!({"key_lx":0,"fill_lx":100}), "stops"), 0.0);
    let there_and_back = number(
        "level-at-distance",
        json!({"level_db":number("level-at-distance", json!({"level_db":60,"at_distance_m":0.2,"wanted_distance_m":2}), "level_db"),"at_distance_m":2,"wanted_distance_m":0.2}),
        "level_db",
    );
    assert!((there_and_back - 60.0).abs() < 1e-9);
}

proptest! {
    /// Anything in range gives finite numbers or a refusal with a word, never a panic.
    #[test]
    fn whatever_is_accepted_is_finite(index in 0usize..VALID.len(), factors in prop::collection::vec(0.001f64..1000.0, 12)) {
        let (name, valid) = VALID[index];
        let mut input = object(valid);
        let mut next = factors.into_iter().cycle();
        fn scale(value: &mut Value, next: &mut impl Iterator<Item = f64>) {
            match value {
                Value::Number(n) => *value = json!(n.as_f64().unwrap() * next.next().unwrap()),
                Value::Array(list) => list.iter_mut().for_each(|v| scale(v, next)),
                Value::Object(map) => map.values_mut().for_each(|v| scale(v, next)),
                _ => {}
            }
        }
        input.values_mut().for_each(|v| scale(v, &mut next));
        match calc::run(name, Value::Object(input).to_string().as_bytes()) {
            Ok(output) => prop_assert!(finite(&output), "{} gives {}", name, output),
            Err(problem) => prop_assert!(!problem.accepted.is_empty()),
        }
    }
}

/// By hand: two small things beat one large; a microphone comes with its interface once the sum allows; of one aspect only the
/// best counts; of equals the cheaper, then the first.
#[test]
fn the_best_kit_of_a_few_things_is_the_one_found_by_hand() {
    let chosen =
        |input: Value| calc::run("best-kit", input.to_string().as_bytes()).unwrap()["chosen"].clone();
    assert_eq!(chosen(json!(object(valid("best-kit")))), json!(["b", "c"]));
    let voice = json!([
        {"id": "microphone", "price": 80, "score": 0.4, "aspect": "sound", "needs": ["interface"]},
        {"id": "interface", "price": 90, "score": 0},
        {"id": "lavalier", "price": 45, "score": 0.32, "aspect": "sound"}
    ]);
    let with = |budget: f64| chosen(json!({"items": voice, "budget": budget}));
    assert_eq!(with(120.0), json!(["lavalier"]));
    assert_eq!(with(170.0), json!(["microphone", "interface"]));
    assert_eq!(with(44.0), json!([]));
    let alike = json!([
        {"id": "z", "price": 10, "score": 0.1, "excludes": ["y"]},
        {"id": "y", "price": 10, "score": 0.1},
        {"id": "x", "price": 9, "score": 0.1, "aspect": "light"},
        {"id": "w", "price": 9, "score": 0.1, "aspect": "light"}
    ]);
    assert_eq!(chosen(json!({"items": alike, "budget": 100})), json!(["z", "x"]));
    assert_eq!(chosen(json!({"items": alike, "budget": 100, "weights": {"light": 0}})), json!(["z"]));
    assert_eq!(chosen(json!({"items": [], "budget": 5})), json!([]));
}
