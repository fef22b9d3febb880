//! Sound by a second route: worked examples of every formula, arrivals and decays of an independent library, and what holds
//! in any room: nearer is better, softer is shorter, quieter is better.

use fogon_core::corner::{Corner, Kind, things};
use fogon_core::geometry::{DVec3, Solid};
use fogon_core::material::BANDS_HZ;
use fogon_core::plan::{Layout, Plan};
use fogon_core::sound::absorption::Absorption;
use fogon_core::sound::decay::{absorption_for_m2, eyring_s, sabine_s};
use fogon_core::sound::field::room_constant_m2;
use fogon_core::sound::images::{first_arrivals, up_to_order, within};
use fogon_core::sound::impulse::{self, Tail, decay_db, decay_time_s};
use fogon_core::sound::intelligibility::{BandOfSpeech, modulation};
use fogon_core::sound::loudness::{integrated_lufs, matched_gains_db, true_peak_dbtp};
use fogon_core::sound::pickup::{MicrophonePlaced, Scene, pickup};
use fogon_core::sound::rate::RATE_HZ;
use fogon_core::sound::reverberation::targets_s;
use fogon_core::sound::voice::SpeechBands;
use fogon_core::sound::{air, hear, level, modes, noise, pattern, porous, reflections, treatment, voice};
use fogon_testkit::assert_close;
use num_complex::Complex64;
use proptest::prelude::*;
use serde_json::{Value, json};

use crate::support::{plain_with, value};

fn worked(calculation: &str, least: usize) -> Vec<Value> {
    let all: Vec<Value> = serde_json::from_str(include_str!("../fixtures/sound_worked.json")).unwrap();
    let rows: Vec<Value> = all.into_iter().filter(|row| row["calc"] == calculation).collect();
    assert!(rows.len() >= least, "{} rows of {calculation}", rows.len());
    rows
}

fn numbers(value: &Value) -> Vec<f64> {
    value.as_array().unwrap().iter().map(|v| v.as_f64().unwrap()).collect()
}

fn bands(value: &Value) -> SpeechBands {
    numbers(value).try_into().unwrap()
}

fn point(value: &Value) -> DVec3 {
    DVec3::from_slice(&numbers(value))
}

/// Compares with the row's tolerance.
#[track_caller]
fn close(row: &Value, got: f64, want: &Value) {
    let tolerance = |name: &str| row[name].as_f64().unwrap_or(0.0);
    let want = want.as_f64().unwrap();
    assert_close(got, want, tolerance("rel_tol").max(1e-7), tolerance("abs_tol"), &row["id"].to_string());
}

#[test]
fn voice_air_and_microphones_agree_with_worked_values() {
    for row in worked("a_weighting", 4) {
        let hz = row["inputs"]["frequency_hz"].as_f64().unwrap();
        close(&row, level::a_weighting_db(hz), &row["expected"]["gain_db"]);
    }
    for row in worked("voice_directivity", 3) {
        let (hz, angle) = (&row["inputs"]["band_hz"], row["inputs"]["off_axis_deg"].as_f64().unwrap());
        let band = voice::SPEECH_HZ.iter().position(|f| Some(*f) == hz.as_f64()).unwrap();
        close(&row, voice::off_axis_db(band, angle), &row["expected"]["attenuation_db"]);
    }
    for row in worked("voice_directivity_factor", 1) {
        for (got, want) in voice::directivity().iter().zip(row["expected"]["q"].as_array().unwrap()) {
            close(&row, *got, want);
        }
    }
    for row in worked("air_absorption", 2) {
        let input = |name: &str| row["inputs"][name].as_f64().unwrap();
        let wants = row["expected"]["attenuation_db_per_km"].as_array().unwrap();
        for (hz, want) in numbers(&row["inputs"]["bands_hz"]).iter().zip(wants) {
            let got = 1000.0 * air::attenuation_db_m(*hz, input("temperature_c"), input("humidity_pct"));
            close(&row, got, want);
        }
    }
    for row in worked("shotgun_directivity", 1) {
        let input = |name: &str| row["inputs"][name].as_f64().unwrap();
        let wants = row["expected"]["q"].as_array().unwrap();
        for (hz, want) in voice::SPEECH_HZ.iter().zip(wants) {
            let (a, tube) = (input("capsule_a"), input("tube_length_m"));
            close(&row, pattern::ideal_tube_directivity(a, tube, *hz, input("speed_m_s")), want);
        }
        // No real tube is as good as the ideal one.
        assert!(pattern::directivities(input("capsule_a"), 0.17).iter().all(|q| *q <= 10.0));
    }
    for row in worked("proximity_effect", 4) {
        let input = |name: &str| row["inputs"][name].as_f64().unwrap();
        let got =
            pattern::proximity_db(input("a"), input("frequency_hz"), input("distance_m"), input("speed_m_s"));
        close(&row, got, &row["expected"]["boost_db"]);
    }
    for row in worked("polar_pattern", 6) {
        let a = row["inputs"]["a"].as_f64().unwrap();
        for (angle, want) in
            [(90.0, &row["expected"]["gain_90_db"]), (180.0, &row["expected"]["gain_180_db"])]
        {
            let got = pattern::gain_db(a, 0.0, 1000.0, angle);
            // A null is no deeper than 25 dB in a room.
            let want = want.as_f64().unwrap_or(-1000.0).max(-25.0);
            assert_close(got, want, 1e-6, 1e-6, "side");
        }
    }
}

#[test]
fn room_and_noise_agree_with_worked_values() {
    for row in worked("reverberation_time", 2) {
        let input = |name: &str| row["inputs"][name].as_f64().unwrap();
        let want = |name: &str| &row["expected"][name];
        let volume: f64 = numbers(&row["inputs"]["dims_m"]).iter().product();
        let (surface, m2, m) = (
            want("area_m2").as_f64().unwrap(),
            want("absorption_area_m2").as_f64().unwrap(),
            input("air_m_per_m"),
        );
        close(&row, sabine_s(volume, m2, m), want("sabine_s"));
        close(&row, eyring_s(volume, surface, m2, m), want("eyring_s"));
    }
    for row in worked("rt_target", 2) {
        let got = targets_s(row["inputs"]["volume_m3"].as_f64().unwrap());
        close(&row, got[0], &row["expected"]["bs1116_tm_s"]);
        if row["expected"]["din18041_a3_s"].is_number() {
            close(&row, got[1], &row["expected"]["din18041_a3_s"]);
        }
    }
    for row in worked("mode_count_estimate", 1) {
        let sides = numbers(&row["inputs"]["dims_m"]).try_into().unwrap();
        let up_to = row["inputs"]["fmax_hz"].as_f64().unwrap();
        close(&row, modes::count_estimate(sides, up_to, 343.0), &row["expected"]["count_estimate"]);
    }
    for row in worked("critical_distance", 3) {
        let input = |name: &str| row["inputs"][name].as_f64().unwrap();
        let room = room_constant_m2(input("absorption_area_m2"), input("surface_m2"));
        close(&row, room, &row["expected"]["room_constant_m2"]);
    }
    for row in worked("modulation_transfer", 1) {
        let input = |name: &str| row["inputs"][name].as_f64().unwrap();
        let band = BandOfSpeech {
            rt60_s: input("rt60_s"),
            snr_db: Some(input("snr_db")),
            direct_to_reverberant_db: Some(input("drr_db")),
        };
        close(&row, modulation(&band, input("f_mod_hz")), &row["expected"]["m"]);
        let none = BandOfSpeech { direct_to_reverberant_db: None, ..band };
        close(&row, modulation(&none, input("f_mod_hz")), &row["expected"]["m_no_direct"]);
    }
    for row in worked("residual_absorption", 1) {
        let input = |name: &str| row["inputs"][name].as_f64().unwrap();
        let wanted =
            absorption_for_m2(input("volume_m3"), input("surface_m2"), input("measured_rt60_s"), 0.0);
        close(&row, wanted - input("modelled_absorption_m2"), &row["expected"]["residual_absorption_m2"]);
    }
    for row in worked("treatment_area", 4) {
        let input = |name: &str| row["inputs"][name].as_f64().unwrap();
        let want = |name: &str| &row["expected"][name];
        if row["inputs"]["model"] == "eyring" {
            let wanted =
                absorption_for_m2(input("volume_m3"), input("surface_m2"), input("target_rt60_s"), 0.0);
            let missing = (wanted - input("present_absorption_m2")).max(0.0);
            close(&row, missing, want("missing_absorption_m2"));
        }
        let missing = want("missing_absorption_m2").as_f64().unwrap();
        let area = treatment::area_m2(missing, input("alpha_treatment"), input("alpha_covered")).unwrap();
        close(&row, area, want("area_m2"));
    }
    assert!(treatment::area_m2(3.0, 0.05, 0.07).is_none(), "softer than what it covers, or of no use");
    for row in worked("noise_source_at_mic", 2) {
        let input = |name: &str| row["inputs"][name].as_f64().unwrap();
        let got = noise::source_at_microphone_dba(
            input("level_1m_dba"),
            input("distance_m"),
            input("mic_gain_at_angle_db"),
            input("q_mic"),
            input("room_constant_m2"),
        );
        close(&row, got, &row["expected"]["total_dba"]);
    }
    for row in worked("facade_noise", 1) {
        let input = |name: &str| row["inputs"][name].as_f64().unwrap();
        let got = noise::through_window_dba(
            input("outdoor_level_2m_dba"),
            input("rw_db"),
            input("window_m2"),
            input("absorption_area_m2"),
        );
        close(&row, got, &row["expected"]["indoor_level_dba"]);
    }
    for row in worked("equivalent_input_noise_spl", 1) {
        let input = |name: &str| row["inputs"][name].as_f64().unwrap();
        let got = noise::preamplifier_dba(input("ein_dbu"), input("sensitivity_mv_pa"));
        close(&row, got, &row["expected"]["noise_dba"]);
    }
    for row in worked("total_mic_noise", 1) {
        let input = |name: &str| row["inputs"][name].as_f64().unwrap();
        let own = noise::preamplifier_dba(input("preamp_ein_dbu"), input("sensitivity_mv_pa"));
        let got = level::sum_db([input("self_noise_dba"), own, input("room_noise_dba")]);
        close(&row, got, &row["expected"]["total_dba"]);
    }
}

/// The whole chain in a bare and in a treated room, five ways of using a microphone each.
#[test]
fn the_chain_from_mouth_to_recording_agrees_with_worked_values() {
    for row in worked("speech_pickup", 10) {
        let input = |name: &str| row["inputs"][name].as_f64().unwrap();
        let scene = Scene {
            voice_1m_dba: input("speech_level_1m_dba"),
            rt60_s: bands(&row["inputs"]["rt60_s"]),
            room_constant_m2: bands(&row["inputs"]["room_constant_m2"]),
        };
        let (noise, q) = (bands(&row["inputs"]["diffuse_noise_db"]), bands(&row["inputs"]["q_mic"]));
        let at = MicrophonePlaced {
            voice_gain_db: 0.0,
            distance_m: input("distance_m"),
            off_axis_deg: input("voice_off_axis_deg"),
            q,
            self_noise_dba: input("self_noise_dba"),
            noise_db: std::array::from_fn(|k| noise[k] - 10.0 * q[k].log10()),
        };
        let got = pickup(&scene, &at);
        let want = &row["expected"];
        close(&row, got.direct_dba, &want["direct_dba"]);
        close(&row, got.reverberant_dba, &want["reverberant_dba"]);
        close(&row, got.speech_dba, &want["speech_dba"]);
        close(&row, got.noise_dba, &want["noise_dba"]);
        close(&row, got.snr_dba, &want["snr_dba"]);
        close(&row, got.direct_to_reverberant_mid_db(), &want["drr_mid_db"]);
        close(&row, got.c50_1k_db, &want["c50_1k_db"]);
        for (got, want) in got.direct_to_reverberant_db.iter().zip(want["drr_db"].as_array().unwrap()) {
            close(&row, *got, want);
        }
        // The worked index leaves the microphone's own noise out; with it speech is no clearer.
        let noiseless = pickup(&scene, &MicrophonePlaced { self_noise_dba: -200.0, ..at }).sti;
        assert_close(noiseless, want["sti"].as_f64().unwrap(), 0.0, 5e-4, &row["id"].to_string());
        assert!(got.sti <= noiseless && got.sti > noiseless - 0.05);
    }
}

/// Written by reference/room_images: the first 50 arrivals in seven boxes, and the decay of all images to order 40.
#[test]
fn images_agree_with_an_independent_library() {
    let file: Value = serde_json::from_str(include_str!("../fixtures/room_images.json")).unwrap();
    let scenes = file["scenes"].as_array().unwrap();
    assert!(scenes.len() >= 6);
    for scene in scenes {
        let sides: [f64; 3] = numbers(&scene["dimensions_m"]).try_into().unwrap();
        let absorption: [f64; 6] = numbers(&scene["absorption"]).try_into().unwrap();
        let (source, microphone) = (point(&scene["source_m"]), point(&scene["microphone_m"]));
        let arrivals = scene["arrivals"].as_array().unwrap();
        assert_eq!(arrivals.len(), 50);
        let ours = first_arrivals(sides, &absorption, source, microphone, 50, 343.0);
        for (got, want) in ours.iter().zip(arrivals) {
            assert_close(got.time_s, want["time_s"].as_f64().unwrap(), 0.0, 1.0 / RATE_HZ, "arrival");
        }
        // Arrivals at one time stand in any order, and the fiftieth may have a twin.
        let mut left = first_arrivals(sides, &absorption, source, microphone, 60, 343.0);
        for want in arrivals {
            let want = |name: &str| want[name].as_f64().unwrap();
            let same = |one: &fogon_core::sound::images::Arrival| {
                (one.time_s - want("time_s")).abs() < 1.0 / RATE_HZ
                    && (one.amplitude / want("amplitude") - 1.0).abs() < 0.01
            };
            let at = left
                .iter()
                .position(same)
                .unwrap_or_else(|| panic!("{want} has no like", want = want("time_s")));
            left.remove(at);
        }
        // The response in samples: its decay, and its first peak where the direct sound belongs.
        let images = up_to_order(sides, source, microphone, scene["order"].as_u64().unwrap() as u32);
        let factors = absorption.map(|alpha| [(1.0 - alpha).sqrt(); 6]);
        let ways = impulse::ways(&images, &factors, |_| None, [1.0; 6]);
        let response = impulse::of_images(&ways, 343.0);
        let from = response.index(0.0);
        let squares = response.samples[from..].iter().map(|s| f64::from(*s).powi(2));
        let curve = decay_db(squares);
        let times: Vec<f64> = (0..curve.len()).map(|i| i as f64 / RATE_HZ).collect();
        let t20 = decay_time_s(&times, &curve, -5.0, -25.0).unwrap();
        assert_close(t20, scene["t20_s"].as_f64().unwrap(), 0.05, 0.0, &scene["name"].to_string());
        let direct = response.index(ours[0].time_s);
        let peak = response.samples[direct - 1..direct + 2].iter().fold(0.0f32, |a, s| a.max(s.abs()));
        assert!(f64::from(peak) > 0.6 * ours[0].amplitude, "direct sound: {peak}");
    }
}

/// Energies of all images of a box to 0.8 s and 1 s (worked): its decay, and direct over reverberant sound.
#[test]
fn all_images_of_a_box_decay_as_worked() {
    for row in worked("image_source_decay", 2) {
        let sides: [f64; 3] = numbers(&row["inputs"]["dims_m"]).try_into().unwrap();
        let alpha = numbers(&row["inputs"]["alpha_x0_x1_y0_y1_floor_ceiling"]);
        let factors: [f64; 6] = std::array::from_fn(|side| (1.0 - alpha[side]).sqrt());
        let reach = row["inputs"]["all_images_to_s"].as_f64().unwrap() * 343.0;
        let images = within(sides, point(&row["inputs"]["source_m"]), point(&row["inputs"]["mic_m"]), reach);
        let want = &row["expected"];
        assert_close(images.len() as f64, want["image_count"].as_f64().unwrap(), 1e-3, 0.0, "images");
        // In bins of a tenth of a millisecond.
        let mut bins = vec![0.0; 12_000];
        for image in &images {
            let time = image.off_m.length() / 343.0;
            bins[(time * 10_000.0) as usize] += image.amplitude(&factors).powi(2);
        }
        let curve = decay_db(bins.iter().copied());
        let times: Vec<f64> = (0..bins.len()).map(|i| i as f64 / 10_000.0).collect();
        close(&row, decay_time_s(&times, &curve, -5.0, -25.0).unwrap(), &want["t20_s"]);
        close(&row, decay_time_s(&times, &curve, -5.0, -35.0).unwrap(), &want["t30_s"]);
    }
}

/// The tail has the worked energy at 50 ms and takes over without a step; its decay is the reverberation time.
#[test]
fn the_tail_takes_over_where_the_images_end() {
    let row = &worked("diffuse_tail_density", 1)[0];
    let input = |name: &str| row["inputs"][name].as_f64().unwrap();
    let rt60 = [input("rt60_s"); 6];
    let tail = Tail::after_images(input("volume_m3"), rt60, [1.0; 6]);
    close(row, tail.density(3, input("t_s")), &row["expected"]["energy_per_s"]);
    let (sides, source, microphone) =
        ([4.0, 3.2, 2.5], DVec3::new(1.2, 1.35, 1.15), DVec3::new(1.85, 1.5, 1.45));
    let images = within(sides, source, microphone, tail.ways_to_s() * 343.0);
    let ways = impulse::ways(&images, &[[0.8f64.sqrt(); 6]; 6], |_| None, [1.0; 6]);
    let response = impulse::response(&ways, &tail, 7);
    let density = |from: f64, to: f64| 10.0 * (response.energy(from, to) / (to - from)).log10();
    // Across the seam, against the line that the decay draws there.
    let slope = 60.0 / input("rt60_s");
    let (before, after) = (density(0.030, 0.050), density(0.060, 0.080));
    assert!((before - after - 0.030 * slope).abs() < 2.5, "{before} then {after}");
    let squares = response.samples[response.index(0.06)..].iter().map(|s| f64::from(*s).powi(2));
    let curve = decay_db(squares);
    let times: Vec<f64> = (0..curve.len()).map(|i| i as f64 / RATE_HZ).collect();
    assert_close(decay_time_s(&times, &curve, -5.0, -25.0).unwrap(), input("rt60_s"), 0.08, 0.0, "tail");
    assert_eq!(response, impulse::response(&ways, &tail, 7), "the same each time");
}

/// EBU Tech 3341's test tones.
#[test]
fn loudness_and_true_peak_pass_the_test_signals() {
    for row in worked("integrated_loudness", 6) {
        let (rate, tone) =
            (row["inputs"]["sample_rate_hz"].as_f64().unwrap(), row["inputs"]["tone_hz"].as_f64().unwrap());
        let mut samples: Vec<f32> = Vec::new();
        for part in row["inputs"]["segments_peak_dbfs_seconds"].as_array().unwrap() {
            let (peak, seconds) = (10f64.powf(part[0].as_f64().unwrap() / 20.0), part[1].as_f64().unwrap());
            let start = samples.len();
            samples.extend(
                (0..(seconds * rate) as usize).map(|i| {
                    (peak * (std::f64::consts::TAU * tone * (start + i) as f64 / rate).sin()) as f32
                }),
            );
        }
        let channels = vec![samples.as_slice(); row["inputs"]["channels"].as_u64().unwrap() as usize];
        let got = integrated_lufs(&channels, rate).unwrap();
        assert_close(got, row["expected"]["integrated_lufs"].as_f64().unwrap(), 0.0, 0.1, "loudness");
    }
    assert!(integrated_lufs(&[&[0.1; 9600]], 48_000.0).is_none(), "too short");
    assert!(integrated_lufs(&[&[0.0; 240_000]], 48_000.0).is_none() && true_peak_dbtp(&[0.0; 99]).is_none());
    for row in worked("true_peak", 5) {
        let input = |name: &str| row["inputs"][name].as_f64().unwrap();
        let samples: Vec<f32> = (0..input("samples") as usize)
            .map(|i| {
                let phase = std::f64::consts::TAU * input("tone_over_fs") * i as f64
                    + input("phase_deg").to_radians();
                // Faded in and out, as the standard's signals are: a step has a higher true peak.
                let fade = (i as f64).min(input("samples") - i as f64) / 480.0;
                (input("amplitude") * phase.sin() * fade.min(1.0)) as f32
            })
            .collect();
        let got = true_peak_dbtp(&samples[..]).unwrap();
        let want = row["expected"]["true_peak_dbtp"].as_f64().unwrap();
        assert!((-0.4..=0.2).contains(&(got - want)), "{got} against {want}");
    }
    for row in worked("ab_level_match", 2) {
        let input = |name: &str| numbers(&row["inputs"][name]);
        let one = |name: &str| row["inputs"][name].as_f64().unwrap();
        let (gains, common) = matched_gains_db(
            &input("integrated_lufs"),
            &input("true_peak_dbtp"),
            one("target_lufs"),
            one("ceiling_dbtp"),
        );
        for (got, want) in gains.iter().zip(row["expected"]["gain_db"].as_array().unwrap()) {
            close(&row, *got, want);
        }
        close(&row, common, &row["expected"]["common_reduction_db"]);
    }
}

/// Reflection points of a box by mirror images (worked), found again among the surfaces of a plan.
#[test]
fn reflections_fall_where_mirror_images_say() {
    let row = &worked("first_reflection_points", 1)[0];
    let (source, microphone) = (point(&row["inputs"]["source_m"]), point(&row["inputs"]["mic_m"]));
    let mut plan = box_of(row["inputs"]["dims_m"].clone());
    stand_aside(&mut plan.layout);
    let corner = Corner::of(&plan).unwrap();
    let found = reflections::between(&corner, source, microphone);
    let names = [
        ("x0", "wall-3"),
        ("x1", "wall-1"),
        ("y0", "wall-0"),
        ("y1", "wall-2"),
        ("z0", "floor"),
        ("z1", "ceiling"),
    ];
    for (name, surface) in names {
        let hit = found.iter().find(|hit| hit.surface == surface).unwrap();
        let want = numbers(&row["expected"][name]);
        for (got, want) in hit.point_m.to_array().iter().chain([&hit.path_m]).zip(want) {
            assert_close(*got, want, 1e-6, 1e-6, name);
        }
    }
    assert!(found.windows(2).all(|pair| pair[0].path_m <= pair[1].path_m));
}

/// Everything in a corner of the room, out of the way of a sound across its middle.
fn stand_aside(layout: &mut Layout) {
    layout.seat.position_m.0 = [3.4, 0.5];
    layout.camera.position_m.0 = [3.6, 2.9, 1.25];
    layout.lights.values_mut().for_each(|light| light.position_m.0 = [3.6, 2.8, 1.9]);
    layout.microphone = None;
}

/// The person keeps a sound from the floor: the same two points, once with the seat aside and once between them.
#[test]
fn a_reflection_does_not_pass_through_the_person() {
    let mut plan = plain_with(&[]);
    let (mouth, microphone) = (DVec3::new(2.0, 0.9, 1.2), DVec3::new(2.0, 2.1, 1.2));
    let surfaces = |plan: &Plan| {
        let found = reflections::between(&Corner::of(plan).unwrap(), mouth, microphone);
        found.into_iter().map(|hit| hit.surface).collect::<Vec<_>>()
    };
    assert!(!surfaces(&plan).contains(&"floor".to_owned()));
    stand_aside(&mut plan.layout);
    assert!(surfaces(&plan).contains(&"floor".to_owned()));
}

/// The plain plan in a box of other sides, its camera moved with it.
fn box_of(sides: Value) -> Plan {
    let sides = numbers(&sides);
    let floor = json!([[0.0, 0.0], [sides[0], 0.0], [sides[0], sides[1]], [0.0, sides[1]]]);
    plain_with(&[
        ("/brief/room/floor_m", floor),
        ("/brief/room/height_m", json!(sides[2])),
        ("/brief/room/openings", json!({})),
        ("/brief/room/furniture", json!({})),
    ])
}

/// What a listener gets is what was computed: the level of the voice over the noise, the response's direct over later
/// sound, loudness as asked, and the same twice.
#[test]
fn what_is_heard_is_what_was_computed() {
    let plan = plain_with(&[]);
    let corner = Corner::of(&plan).unwrap();
    // A dry stand-in for a voice: noise in syllables, with the spectrum of speech.
    let mut random = impulse::Gaussian::new(3);
    let white: Vec<f32> = (0..4 * 48_000).map(|_| random.draw() as f32).collect();
    let spoken = fogon_core::sound::spectrum::shaped(&white, |hz| {
        fogon_core::sound::spectrum::octave_factor(&voice::MALE_DB, hz)
    });
    let syllables = |i: usize| 0.5 - 0.5 * (i as f32 / 48_000.0 * 4.0 * std::f32::consts::TAU).cos();
    let dry: Vec<f32> = spoken.iter().enumerate().map(|(i, s)| 0.05 * s * syllables(i)).collect();
    let heard = hear::hear(&corner, &dry).unwrap();
    assert_eq!(heard, hear::hear(&corner, &dry).unwrap());
    assert!(
        heard.loudness_lufs <= hear::TARGET_LUFS + 0.01 && heard.true_peak_dbtp <= hear::CEILING_DBTP + 0.01
    );
    assert_close(
        integrated_lufs(&[&heard.samples], RATE_HZ).unwrap(),
        heard.loudness_lufs,
        0.0,
        0.05,
        "loudness",
    );
    // After the voice has died the noise is left, so far below the voice as planned.
    let level_db = |samples: &[f32]| fogon_core::sound::spectrum::weighted_level_db(samples);
    let end = &heard.samples[heard.samples.len() - 12_000..];
    let found = level_db(&heard.samples[..dry.len()]) - level_db(end);
    assert!((found - heard.pickup.snr_dba).abs() < 3.0, "{found} for {}", heard.pickup.snr_dba);
    // Energy of the direct sound against all that comes later than 2 ms after it.
    let made = hear::impulse(&corner);
    let direct = made.response.direct_s;
    let early = made.response.energy(direct - 0.004, direct + 0.0004);
    let late = made.response.energy(direct + 0.0004, 3.0);
    let ratio = 10.0 * (early / late).log10();
    let planned = heard.pickup.direct_to_reverberant_mid_db();
    assert!((ratio - planned).abs() < 4.0, "{ratio} for {planned}");
    // A hard, empty room is heard to ring longer than one hung with curtains.
    let all = |material: &str| {
        let names = ["wall-0", "wall-1", "wall-2", "wall-3", "floor", "ceiling"];
        let rows = names.map(|name| (name.to_owned(), json!({ "material": material })));
        Value::from_iter(rows)
    };
    let rings = |material: &str| {
        let plan = plain_with(&[("/brief/room/surfaces", all(material))]);
        let made = hear::impulse(&Corner::of(&plan).unwrap()).response;
        let squares = made.samples[made.index(made.direct_s)..].iter().map(|s| f64::from(*s).powi(2));
        let curve = decay_db(squares);
        let times: Vec<f64> = (0..curve.len()).map(|i| i as f64 / RATE_HZ).collect();
        decay_time_s(&times, &curve, -10.0, -30.0).unwrap()
    };
    assert!(rings("tile") > 4.0 * rings("curtain_heavy"));
    // Without a voice there is nothing to hear; without a microphone the camera's own hears.
    assert_eq!(hear::hear(&corner, &[0.0; 48_000]), Err(hear::Unheard::Silent));
    let deaf = plain_with(&[("/layout/microphone", Value::Null)]);
    let by_camera = hear::hear(&Corner::of(&deaf).unwrap(), &dry).unwrap();
    assert!(by_camera.pickup.sti < hear::hear(&corner, &dry).unwrap().pickup.sti - 0.02);
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(64))]

    /// Nearer is better, quieter is better, softer is shorter and clearer.
    #[test]
    fn the_laws_of_rooms_hold(
        volume in 15.0f64..150.0,
        alpha in 0.05f64..0.5,
        distance in 0.1f64..2.0,
        noise_dba in 15.0f64..50.0,
        a in 0.2f64..1.0,
        angle in 0.0f64..100.0,
    ) {
        let surface = 6.0 * volume.powf(2.0 / 3.0);
        let scene = |alpha: f64| Scene {
            voice_1m_dba: 60.0,
            rt60_s: [eyring_s(volume, surface, alpha * surface, 0.0); 7],
            room_constant_m2: [room_constant_m2(alpha * surface, surface); 7],
        };
        let at = |distance_m: f64, noise: f64| MicrophonePlaced {
            voice_gain_db: 0.0,
            distance_m,
            off_axis_deg: angle,
            q: [pattern::directivity(a); 7],
            self_noise_dba: 14.0,
            noise_db: noise::STEADY_DB.map(|db| db + noise),
        };
        let here = pickup(&scene(alpha), &at(distance, noise_dba));
        let nearer = pickup(&scene(alpha), &at(distance * 0.8, noise_dba));
        prop_assert!(nearer.direct_to_reverberant_mid_db() > here.direct_to_reverberant_mid_db());
        prop_assert!(nearer.sti >= here.sti && nearer.snr_dba > here.snr_dba && nearer.c50_1k_db > here.c50_1k_db);
        let softer = pickup(&scene(alpha * 1.3), &at(distance, noise_dba));
        prop_assert!(softer.direct_to_reverberant_mid_db() > here.direct_to_reverberant_mid_db());
        prop_assert!(softer.c50_1k_db > here.c50_1k_db && scene(alpha * 1.3).rt60_s[3] < scene(alpha).rt60_s[3]);
        let quieter = pickup(&scene(alpha), &at(distance, noise_dba - 3.0));
        prop_assert!(quieter.snr_dba > here.snr_dba && quieter.sti >= here.sti);
    }
}

/// A louder voice, a noise, a fan and a tilted window each change the speech over noise as they must.
#[test]
fn noises_of_the_room_are_heard_at_the_microphone() {
    let snr = |changes: &[(&str, Value)]| value(&plain_with(changes), "sound.microphone.snr_db");
    let quiet = snr(&[]);
    let computer =
        json!({"computer": {"kind": "computer", "position_m": [1.0, 1.0, 0.3], "level_1m_dba": 42.0}});
    let far = json!({"computer": {"kind": "computer", "position_m": [3.9, 4.9, 0.3], "level_1m_dba": 42.0}});
    assert!(snr(&[("/brief/room/noises", computer)]) < quiet - 3.0);
    assert!(snr(&[("/brief/room/noises", far.clone())]) < quiet);
    assert!(
        snr(&[("/brief/person/voice", json!("raised")), ("/brief/room/noises", far)])
            > snr(&[(
                "/brief/room/noises",
                json!({"computer": {"kind": "computer", "position_m": [3.9, 4.9, 0.3], "level_1m_dba": 42.0}})
            )]) + 5.9
    );
    let street = |glazing: &str| {
        let window = json!({"window": {"kind": "window", "wall": 1, "from_m": 1.0, "width_m": 1.2, "glazing": glazing}});
        let noises = json!({"street": {"kind": "street", "level_1m_dba": 65.0}});
        snr(&[("/brief/room/openings", window), ("/brief/room/noises", noises)])
    };
    assert!(
        street("double") > street("single")
            && street("single") > street("leaky")
            && street("leaky") > street("tilted") + 5.0
    );
    // Measured, it counts in place of everything that was told.
    let measured = |dba: f64| snr(&[("/brief/measured", json!({"sound.room.noise_dba": dba}))]);
    assert_close(measured(40.0) - measured(43.0), 3.0, 0.0, 0.2, "measured noise");
}

/// The response that is heard against the formulas that are read: clarity at 1 kHz, decay in every octave and direct over
/// reverberant sound, in the three demo rooms with six microphones each.
#[test]
fn the_response_that_is_heard_says_what_the_readings_say() {
    use fogon_core::arrange::{Variant, propose, varied};
    use fogon_core::plan::BriefFile;
    use fogon_core::sound::spectrum::in_bands;
    let briefs = [
        include_str!("../../../../docs/examples/box-room.brief.json"),
        include_str!("../../../../docs/examples/alcove.brief.json"),
        include_str!("../../../../docs/examples/hallway.brief.json"),
    ];
    let ways = [Variant::Planned, Variant::BuiltIn, Variant::OnCamera, Variant::Lavalier, Variant::Desk];
    for brief in briefs {
        let file = BriefFile::read(brief.as_bytes()).unwrap();
        let plan = propose(&file.name, &file.brief).proposals.into_iter().next().unwrap().plan;
        let mut last: Option<(f64, f64)> = None;
        for way in ways {
            let plan = varied(&plan, way).unwrap();
            let corner = Corner::of(&plan).unwrap();
            let made = hear::impulse(&corner);
            let (scene, at) = fogon_core::sound::scene(&corner, &Absorption::of(&corner));
            let planned = pickup(&scene, &at);
            let what = format!("{} {way:?}", plan.name);
            let (response, direct) = (&made.response, made.response.direct_s);
            let octaves = in_bands(&response.samples[response.index(direct - 0.002)..]);
            let energy = |band: usize, from_s: f64, to_s: f64| {
                let at = |s: f64| (((s + 0.002) * RATE_HZ) as usize).min(octaves[band].len());
                octaves[band][at(from_s)..at(to_s)].iter().map(|s| f64::from(*s).powi(2)).sum::<f64>()
            };
            let clarity = 10.0 * (energy(3, -0.002, 0.05) / energy(3, 0.05, 4.0)).log10();
            assert!((clarity - planned.c50_1k_db).abs() < 3.5, "{what}: {clarity} for {}", planned.c50_1k_db);
            for (band, octave) in octaves.iter().enumerate().skip(1) {
                let squares = octave.iter().map(|s| f64::from(*s).powi(2));
                let curve = decay_db(squares);
                let times: Vec<f64> = (0..curve.len()).map(|i| i as f64 / RATE_HZ).collect();
                // From where the tail is all there is.
                let start = curve[((0.07 * RATE_HZ) as usize).min(curve.len() - 1)].min(-5.0);
                let time = decay_time_s(&times, &curve, start, start - 20.0).unwrap();
                assert_close(time, made.rt60_s[band], 0.2, 0.03, &format!("{what}, band {band}"));
            }
            // From one microphone to the next the balance changes in what is heard as in what is read.
            let ratio =
                |band: usize| 10.0 * (energy(band, -0.002, 0.0015) / energy(band, 0.0015, 4.0)).log10();
            let heard = (ratio(3) + ratio(4)) / 2.0;
            let read = (planned.direct_to_reverberant_db[3] + planned.direct_to_reverberant_db[4]) / 2.0;
            if let Some((heard_before, read_before)) = last {
                let (a, b) = (heard - heard_before, read - read_before);
                assert!((a - b).abs() < 5.0, "{what}: {a} in what is heard, {b} in what is read");
            }
            last = Some((heard, read));
        }
    }
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(48))]

    /// In any room, also one that is no rectangle: a reflection leaves at the angle at which it came, lies on its surface and
    /// inside the room, and no point near it on that surface gives a shorter way (Fermat).
    #[test]
    fn reflections_are_the_shortest_ways(
        document in prop_oneof![fogon_testkit::any_brief(), fogon_testkit::any_shape()],
        part in prop::array::uniform6(0.15f64..0.85),
    ) {
        let file = crate::support::brief(&document);
        let plan = propose_or_plain(&file);
        let corner = Corner::of(&plan).unwrap();
        let room = &plan.brief.room;
        let [width, depth, height] = room.dimensions_m();
        let inside = |p: DVec3| {
            fogon_core::geometry::inside(&room.outline(), p.truncate(), 0.0) && p.z < room.ceiling_m(p.truncate()) - 0.02
        };
        let a = DVec3::new(part[0] * width, part[1] * depth, part[2] * height);
        let b = DVec3::new(part[3] * width, part[4] * depth, part[5] * height);
        prop_assume!(inside(a) && inside(b) && (a - b).length() > 0.2);
        let large = large_things(&corner, [a, b]);
        for hit in reflections::between(&corner, a, b) {
            for (end, part) in [a, b].iter().flat_map(|end| (0..100).map(move |part| (*end, part))) {
                // As near to the surface as a leg is followed: 5 mm off it.
                let on_the_way = end.lerp(hit.point_m + hit.normal * 0.005, f64::from(part) / 100.0);
                prop_assert!(large.iter().all(|solid| solid.distance_m(on_the_way) > 0.0), "{}", hit.surface);
            }
            let (leaves, comes) = ((hit.point_m - a).normalize(), (b - hit.point_m).normalize());
            prop_assert!((leaves.dot(hit.normal) + comes.dot(hit.normal)).abs() < 1e-6);
            prop_assert!((hit.path_m - (hit.point_m - a).length() - (b - hit.point_m).length()).abs() < 1e-9);
            let side = hit.normal.any_orthonormal_vector();
            for off in [side, -side, hit.normal.cross(side), side.cross(hit.normal)] {
                let near = hit.point_m + off * 0.05;
                prop_assert!((near - a).length() + (b - near).length() >= hit.path_m - 1e-9);
            }
            let just_inside = hit.point_m + hit.normal * 0.005;
            prop_assert!(hit.is_furniture || fogon_core::geometry::inside(&room.outline(), just_inside.truncate(), 0.02));
        }
    }
}

/// What stands in the room and keeps sound back, but for that in which one of the ends lies.
fn large_things(corner: &Corner<'_>, ends: [DVec3; 2]) -> Vec<Solid> {
    let things = things(corner).into_iter().filter(|thing| thing.kind != Kind::Microphone);
    let pieces = things.flat_map(|thing| thing.pieces).filter(|piece| !piece.what.is_thin());
    let solids = pieces.map(|piece| piece.solid);
    solids.filter(|solid| ends.iter().all(|end| solid.distance_m(*end) > 0.0)).collect()
}

/// The best plan of a brief; where nothing fits, the plain plan in its room.
fn propose_or_plain(file: &fogon_core::plan::BriefFile) -> Plan {
    let plain = plain_with(&[]);
    let mut brief = plain.brief.clone();
    brief.room = file.brief.room.clone();
    Plan { brief, ..plain }
}

/// A layer before a wall by another route: Miki's air in the pores (1990), carried through the layer by its transfer matrix, at every
/// angle of Paris's integral (1928), summed by the midpoint rule; 50 mm of wool at right angles, worked by hand.
#[test]
fn porous_layers_by_their_transfer_matrix() {
    let impedance = |hz: f64, sigma: f64, thick_m: f64, gap_m: f64| {
        let x = 1000.0 * hz / sigma;
        let of_air = Complex64::new(1.0 + 5.50 * x.powf(-0.632), -8.43 * x.powf(-0.632));
        let k = std::f64::consts::TAU * hz / 343.0;
        let through = Complex64::new(1.0 + 7.81 * x.powf(-0.618), -11.41 * x.powf(-0.618)) * k * thick_m;
        // At a rigid wall the flow stands still; at the end of a gap it is the pressure over -j tan of the gap.
        let (flow, pressure) = match gap_m > 0.0 {
            true => (Complex64::I * (k * gap_m).sin(), Complex64::from((k * gap_m).cos())),
            false => (Complex64::ZERO, Complex64::ONE),
        };
        let (sine, cosine) = (through.sin(), through.cos());
        (cosine * pressure + Complex64::I * of_air * sine * flow)
            / (Complex64::I * sine / of_air * pressure + cosine * flow)
    };
    let absorbed = |z: Complex64, cosine: f64| 1.0 - ((z * cosine - 1.0) / (z * cosine + 1.0)).norm_sqr();
    for (sigma, thick_m, gap_m) in [(12_000.0, 0.05, 0.0), (12_000.0, 0.05, 0.05), (30_000.0, 0.02, 0.2)] {
        for (told, hz) in porous::absorption(sigma, thick_m, gap_m, 343.0).into_iter().zip(BANDS_HZ) {
            let z = impedance(f64::from(hz), sigma, thick_m, gap_m);
            let steps = 20_000;
            let at = |i: i32| absorbed(z, (1.0 - (f64::from(i) + 0.5) / f64::from(steps)).sqrt());
            let sum: f64 = (0..steps).map(at).sum();
            assert!((told - sum / f64::from(steps)).abs() < 1e-4, "{sigma} {thick_m} {gap_m} {hz}");
        }
    }
    assert!((absorbed(impedance(1000.0, 12_000.0, 0.05, 0.0), 1.0) - 0.910_667_301).abs() < 1e-6);
}
